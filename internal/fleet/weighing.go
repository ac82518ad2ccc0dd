package fleet

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Weighing is what a part of an aircraft weighs, as a scale said on a day.
type Weighing struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	Part       string // empty: without packs, payload and liquid; packs: all of a set
	Kg         float64
	Scale      string
	WeighedOn  time.Time
	At         time.Time
	ByName     string
}

func (Weighing) TableName() string { return "weighings" }

// Weighed are the newest weighings of an aircraft, one for each part.
func (s *Service) Weighed(ctx context.Context, aircraft uuid.UUID) ([]Weighing, error) {
	out := []Weighing{}
	return out, s.DB.WithContext(ctx).Raw("select distinct on (part) * from weighings where aircraft_id = ? order by part, weighed_on desc, at desc",
		aircraft).Scan(&out).Error
}

// Load is what an aircraft weighs by its own weighings; what was never weighed is the
// type's.
func (s *Service) Load(ctx context.Context, aircraft uuid.UUID) (airframe.Load, []Weighing, error) {
	all, err := s.Weighed(ctx, aircraft)
	var l airframe.Load
	for _, w := range all {
		kg := w.Kg
		if w.Part == "empty" {
			l.EmptyKg = &kg
		} else {
			l.PackKg = &kg
		}
	}
	return l, all, err
}

// eastmost is how far the day is ahead of UTC where it begins first.
const eastmost = 14 * time.Hour

// Weigh puts a weighing on record. The same id sent twice counts once.
func (s *Service) Weigh(ctx context.Context, w Weighing) error {
	a, err := s.Aircraft(ctx, w.AircraftID)
	if err != nil {
		return err
	}
	t, err := s.Type(ctx, a.TypeKey)
	if err != nil {
		return err
	}
	w.Scale = strings.TrimSpace(w.Scale)
	switch most := float64(t.Limits.TakeoffMassKg); {
	case w.Part != "empty" && w.Part != "packs":
		return fault.Bad("part", "Say what was weighed: the empty aircraft, or its packs.")
	case !(w.Kg >= 0.01 && w.Kg <= most):
		return fault.Bad("kg", "Enter what it weighs; with all on board this type takes off with %.1f kg at most.", most)
	case len([]rune(w.Scale)) < 2 || len([]rune(w.Scale)) > 60:
		return fault.Bad("scale", "Name the scale, in 2 to 60 characters.")
	case w.WeighedOn.After(s.Clock.Now().Add(eastmost)):
		return fault.Bad("on", "That day has not come yet.")
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		by, now := people.From(ctx), s.Clock.Now()
		res := tx.Exec("insert into weighings (id, aircraft_id, part, kg, scale, weighed_on, at, by_name) values (?, ?, ?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
			w.ID, w.AircraftID, w.Part, w.Kg, w.Scale, w.WeighedOn, now, by.Name)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.Weighed, Subject: w.AircraftID, At: now, By: by.By(),
			Summary: fmt.Sprintf("%s: %s weighed, %.2f kg on %s", a.Name, w.Part, w.Kg, w.Scale), Content: w})
		return err
	})
}
