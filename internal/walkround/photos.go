package walkround

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"io"
	"time"

	"github.com/google/uuid"

	"mainstay/internal/formats/picture"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/photos"
)

// Photo is a picture kept as evidence.
type Photo struct {
	ID        uuid.UUID
	MediaType string
	Bytes     int
	Sha256    []byte
	ByName    string
	At        time.Time
}

// TableName is the table of photos.
func (Photo) TableName() string { return "photos" }

// MaxPhoto is the largest photo in bytes.
const MaxPhoto = 10 << 20

// KeepPhoto stores a picture under an id that the sender made; sent twice it is
// one. Its kind is told from its bytes, not from what the sender says, and it
// must decode. What it tells besides the picture, such as where it was taken, is
// removed first, unless the crew keeps that. The bytes are on disk before the
// photo is on file.
func (s *Service) KeepPhoto(ctx context.Context, id uuid.UUID, body io.Reader) (Photo, error) {
	b, err := io.ReadAll(io.LimitReader(body, MaxPhoto+1))
	if err != nil {
		return Photo{}, err
	}
	if len(b) > MaxPhoto {
		return Photo{}, &fault.Error{Kind: fault.TooLarge, Type: "too-large",
			Detail: "The photo is larger than 10 MB. Take it at a lower resolution."}
	}
	media, err := picture.Check(b)
	if err != nil {
		return Photo{}, fault.Bad("photo", "This picture is %v. Nothing was kept; take it again or choose another.", err)
	}
	crew, _, err := s.People.Crew(ctx)
	if err != nil {
		return Photo{}, err
	}
	if !crew.KeepPlaces {
		if b, err = picture.Bare(b, media); err != nil {
			return Photo{}, fault.Bad("photo", "This picture is %v. Nothing was kept; take it again or choose another.", err)
		}
	}
	sum := sha256.Sum256(b)
	p := Photo{ID: id, MediaType: media, Bytes: len(b), Sha256: sum[:], ByName: people.From(ctx).Name, At: s.Clock.Now()}
	var old Photo
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", id).Error; err != nil {
		return Photo{}, err
	}
	if old.ID != uuid.Nil {
		if !bytes.Equal(old.Sha256, p.Sha256) {
			return Photo{}, fault.Clash("id-in-use", "Another photo has this id. Nothing was kept; add it again.")
		}
		return old, nil
	}
	// What lies there already was sent before, and its sender heard nothing: it is the same, or it stays.
	err = s.Photos.Put(id.String(), b)
	if errors.Is(err, photos.ErrThere) {
		var kept []byte
		if kept, err = s.Photos.Get(id.String()); err == nil && !bytes.Equal(kept, b) {
			return Photo{}, fault.Clash("id-in-use", "Another photo has this id. Nothing was kept; add it again.")
		}
	}
	if err != nil {
		return Photo{}, err
	}
	res := s.DB.WithContext(ctx).Exec("insert into photos (id, media_type, bytes, sha256, by_name, at) values (?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
		p.ID, p.MediaType, p.Bytes, p.Sha256, p.ByName, p.At)
	return p, res.Error
}

// Photo returns a stored picture and its bytes.
func (s *Service) Photo(ctx context.Context, id uuid.UUID) (Photo, []byte, error) {
	var p Photo
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "id = ?", id).Error; err != nil {
		return p, nil, err
	}
	if p.ID == uuid.Nil {
		return p, nil, fault.Missing("photo")
	}
	b, err := s.Photos.Get(id.String())
	return p, b, err
}
