package spraying

import (
	"context"
	"errors"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/spray"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Nozzle is a kind of nozzle on the crew's list.
type Nozzle struct {
	ID       uuid.UUID
	Key      string
	Name     string
	LeastLPM float64 `gorm:"column:least_lpm"`
	MostLPM  float64 `gorm:"column:most_lpm"`
	LeastBar float64
	MostBar  float64
	Droplets string
	Active   bool
	Version  int
}

func (n Nozzle) core() spray.Nozzle {
	return spray.Nozzle{Key: n.Key, Name: n.Name, LeastLPM: n.LeastLPM, MostLPM: n.MostLPM, LeastBar: n.LeastBar, MostBar: n.MostBar, Droplets: n.Droplets}
}

// Nozzles are the kinds of nozzle, in use first, by name.
func (s *Service) Nozzles(ctx context.Context) ([]Nozzle, error) {
	var out []Nozzle
	return out, s.DB.WithContext(ctx).Order("active desc, name").Find(&out).Error
}

// nozzle is a kind by its key; nil where it is not on the list any more.
func (s *Service) nozzle(ctx context.Context, key string) (*spray.Nozzle, error) {
	var rows []Nozzle
	if err := s.DB.WithContext(ctx).Limit(1).Find(&rows, "key = ? and active", key).Error; err != nil || len(rows) == 0 {
		return nil, err
	}
	n := rows[0].core()
	return &n, nil
}

// SaveNozzle adds a kind of nozzle, or changes it; version 0 is a new one.
func (s *Service) SaveNozzle(ctx context.Context, n Nozzle) error {
	if err := n.core().Check(); err != nil {
		return wrong(errors.Join(err))
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var rows []Nozzle
		if err := tx.Raw("select * from nozzles where id = ? for no key update", n.ID).Scan(&rows).Error; err != nil {
			return err
		}
		by, now := people.From(ctx), s.Clock.Now()
		switch {
		case len(rows) == 0 && n.Version == 0:
			n.Version = 1
			if err := tx.Create(&n).Error; err != nil {
				return err
			}
		case len(rows) == 1 && n.Version == 0 && rows[0].Name == n.Name:
			return nil // the same press sent twice
		case len(rows) == 0:
			return fault.Missing("nozzle")
		case rows[0].Version != n.Version:
			return fault.Stale("nozzle")
		default:
			n.Version++
			if err := tx.Save(&n).Error; err != nil {
				return err
			}
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.NozzleSaved, At: now, By: by.By(), Summary: "Nozzle " + n.Name + " on the list", Content: n})
		return err
	})
}
