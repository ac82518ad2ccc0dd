package missions

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Found is something that was found on a picture.
type Found struct {
	ID       uuid.UUID
	PlanID   uuid.UUID
	Picture  string // name of its file
	Place    string // where on what was inspected
	Words    string
	Severity string
	PhotoID  *uuid.UUID // the picture, where it was kept
	At       time.Time
	ByName   string
	BackAt   *time.Time
	BackBy   *string
}

func (Found) TableName() string { return "mission_findings" }

// Severities of a finding, mild first.
var Severities = []string{"note", "watch", "serious"}

// Find puts something found on a picture on record.
func (s *Service) Find(ctx context.Context, job, aircraft uuid.UUID, f Found) error {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return err
	}
	f.Picture, f.Place, f.Words = strings.TrimSpace(f.Picture), strings.TrimSpace(f.Place), strings.TrimSpace(f.Words)
	for field, v := range map[string]struct {
		text string
		most int
	}{"picture": {f.Picture, 200}, "place": {f.Place, 200}, "words": {f.Words, 500}} {
		if n := len([]rune(v.text)); n == 0 || n > v.most {
			return fault.Bad(field, "Say the %s, in up to %d letters.", field, v.most)
		}
	}
	if !slices.Contains(Severities, f.Severity) {
		return fault.Bad("severity", "How bad it is: note, watch or serious.")
	}
	by, now := people.From(ctx), s.Clock.Now()
	f.PlanID, f.At, f.ByName = p.ID, now, by.Name
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var n int
		if err := tx.Raw("select count(*) from mission_findings where id = ?", f.ID).Scan(&n).Error; err != nil || n > 0 {
			return err // the same press sent twice
		}
		if f.PhotoID != nil {
			if err := tx.Raw("select count(*) from photos where id = ?", f.PhotoID).Scan(&n).Error; err != nil {
				return err
			}
			if n == 0 {
				return fault.Bad("photo", "The picture has not arrived yet; send it again.")
			}
		}
		if err := tx.Create(&f).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PictureFound, Subject: p.Aircraft.ID, At: now,
			By: by.By(), Summary: p.Job.Aim + ": " + f.Severity + " at " + f.Place + ", " + f.Words,
			Content: map[string]any{"plan": p.ID, "finding": f}})
		return err
	})
}

// Unfind takes a finding back; it stays on file.
func (s *Service) Unfind(ctx context.Context, job, aircraft, id uuid.UUID) error {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return err
	}
	by, now := people.From(ctx), s.Clock.Now()
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		res := tx.Exec("update mission_findings set back_at = ?, back_by = ? where id = ? and plan_id = ? and back_at is null",
			now, by.Name, id, p.ID)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.PictureTakenBack, Subject: p.Aircraft.ID, At: now,
			By: by.By(), Summary: p.Job.Aim + ": a finding on a picture is taken back",
			Content: map[string]any{"plan": p.ID, "finding": id}})
		return err
	})
}
