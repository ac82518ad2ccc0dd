package missionfile

import (
	"bytes"
	"fmt"
	"io"
	"strings"
	"time"

	"mainstay/core/geo"
	"mainstay/core/why"
	"mainstay/internal/formats/table"
)

// Shot is a picture with its place and time, as a camera or an aircraft lists it.
type Shot struct {
	Name string     `json:"name"`
	At   *geo.Point `json:"at"` // nil: it carries none
	Time *time.Time `json:"time"`
}

// MostShots is how many pictures are taken in at once.
const MostShots = 20_000

// ReadShots reads the places of pictures as CSV with the columns name, latitude, longitude
// and, if it knows, time (RFC 3339, or without a zone: UTC). A picture without a place
// stands there with both empty; one that is half there is refused with its line.
func ReadShots(r io.Reader) ([]Shot, error) {
	b, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, err
	}
	if len(b) > MaxBytes {
		return nil, why.Not(ErrFile, "it is larger than %d MB", MaxBytes>>20)
	}
	t, err := table.NewReader(bytes.NewReader(b))
	if err != nil {
		return nil, why.Not(ErrFile, "%w", err)
	}
	for _, c := range []string{"name", "latitude", "longitude"} {
		if !t.Has(c) {
			return nil, why.Not(ErrFile, "it has no column %s", c)
		}
	}
	var out []Shot
	err = t.Each(func(line int, get func(string) string) *table.RowError {
		s := Shot{Name: strings.TrimSpace(get("name"))}
		if lat, lon := strings.TrimSpace(get("latitude")), strings.TrimSpace(get("longitude")); lat != "" || lon != "" {
			p, err := place(lat, lon)
			if err != nil {
				return &table.RowError{Line: line, Column: "latitude", Err: err}
			}
			s.At = &p
		}
		if text := strings.TrimSpace(get("time")); text != "" {
			when, err := shotTime(text)
			if err != nil {
				return &table.RowError{Line: line, Column: "time", Err: err}
			}
			s.Time = &when
		}
		if len(out) >= MostShots {
			return &table.RowError{Line: line, Column: "name", Err: fmt.Errorf("more than %d pictures", MostShots)}
		}
		out = append(out, s)
		return nil
	})
	if err != nil {
		return nil, why.Not(ErrFile, "%w", err)
	}
	if bad := t.Bad(); len(bad) > 0 {
		return nil, why.Not(ErrFile, "%w", bad[0])
	}
	return out, nil
}

func shotTime(s string) (time.Time, error) {
	for _, form := range []string{time.RFC3339Nano, "2006-01-02T15:04:05.999", "2006-01-02 15:04:05.999",
		"2006:01:02 15:04:05"} {
		if t, err := time.Parse(form, s); err == nil {
			return t.UTC(), nil
		}
	}
	return time.Time{}, fmt.Errorf("%q is no time; write 2026-06-01T10:20:30Z", cut(s))
}
