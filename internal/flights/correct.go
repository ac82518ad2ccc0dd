package flights

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Correction says what a logged flight should have said. The flight's own row
// and its record stay as they are; the newest correction counts.
type Correction struct {
	ID       uuid.UUID
	FlightID uuid.UUID
	Seconds  int
	Landings int
	Litres   float64
	Reason   string
	ByName   string
	At       time.Time
}

// TableName is the table of corrections.
func (Correction) TableName() string { return "flight_corrections" }

// Corrections returns the corrections of a flight, oldest first.
func (s *Service) Corrections(ctx context.Context, flight uuid.UUID) ([]Correction, error) {
	var out []Correction
	err := s.DB.WithContext(ctx).Order("at, id").Find(&out, "flight_id = ?", flight).Error
	return out, err
}

// Correct corrects a logged flight, signed by a chief: the correction, its
// record and the counters of everything that flew, in one transaction. The same
// id twice is one correction.
func (s *Service) Correct(ctx context.Context, c Correction, pin string) error {
	by := people.From(ctx)
	if err := s.People.Sign(ctx, by.ID, pin); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		f, err := s.lock(tx, c.FlightID)
		if err != nil {
			return err
		}
		if f.State != stateLogged {
			return fault.Clash("not-logged", "This flight is not logged yet; log it with the right values.")
		}
		var n int64
		if err := tx.Raw("select count(*) from flight_corrections where id = ?", c.ID).Scan(&n).Error; err != nil || n > 0 {
			return err
		}
		t, err := s.typeOf(ctx, f)
		if err != nil {
			return err
		}
		if c.Litres > 0 && t.TankL == 0 {
			return fault.Bad("litres", "%s carries no tank; nothing can have been sprayed.", t.Name)
		}
		c.Reason, c.ByName, c.At = strings.TrimSpace(c.Reason), by.Name, s.Clock.Now()
		if err := tx.Create(&c).Error; err != nil {
			return err
		}
		if err := fleet.CorrectUse(tx, f.ID, c.Seconds, c.Landings, c.Litres); err != nil {
			return err
		}
		a, err := s.Fleet.Aircraft(ctx, f.AircraftID)
		if err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.FlightCorrected, Subject: f.AircraftID, At: c.At,
			By: by.By(), Signed: true,
			Summary: fmt.Sprintf("%s: flight of %s corrected: %s", a.Name, f.TookOffAt.Format("2006-01-02 15:04 UTC"), c.Reason),
			Content: map[string]any{"correction": c.ID, "corrects_flight": f.ID, "seconds": c.Seconds, "landings": c.Landings,
				"litres": c.Litres, "was": map[string]any{"seconds": f.Seconds, "landings": f.Landings, "litres": f.Litres},
				"reason": c.Reason, "statement": "I correct this flight; what was logged before stays readable."}})
		return err
	})
}
