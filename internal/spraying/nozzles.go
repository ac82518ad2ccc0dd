package spraying

import (
	"context"

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

// shipped are the kinds of nozzle that a new crew begins with; all are made up, and
// the tables of the makers take their place.
var shipped = []spray.Nozzle{
	{Key: "fan-015", Name: "Flat fan 015", LeastLPM: 0.34, MostLPM: 0.76, LeastBar: 1, MostBar: 5, Droplets: "fine"},
	{Key: "fan-020", Name: "Flat fan 020", LeastLPM: 0.46, MostLPM: 1.02, LeastBar: 1, MostBar: 5, Droplets: "medium"},
	{Key: "drift-020", Name: "Low-drift fan 020", LeastLPM: 0.46, MostLPM: 1.02, LeastBar: 1, MostBar: 5, Droplets: "coarse"},
	{Key: "drift-030", Name: "Low-drift fan 030", LeastLPM: 0.68, MostLPM: 1.53, LeastBar: 1, MostBar: 5, Droplets: "coarse"},
	{Key: "air-030", Name: "Air-mix fan 030", LeastLPM: 0.98, MostLPM: 1.96, LeastBar: 2, MostBar: 8, Droplets: "very coarse"},
	{Key: "disc-small", Name: "Spinning disc, small", LeastLPM: 0.3, MostLPM: 1.6, LeastBar: 0.3, MostBar: 1, Droplets: "medium"},
}

// SeedNozzles puts the shipped kinds on a list that is empty.
func (s *Service) SeedNozzles(ctx context.Context) error {
	return db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		var n int64
		if err := tx.Table("nozzles").Count(&n).Error; err != nil || n > 0 {
			return err
		}
		for _, k := range shipped {
			id, err := uuid.NewV7()
			if err != nil {
				return err
			}
			if err := tx.Create(&Nozzle{ID: id, Key: k.Key, Name: k.Name, LeastLPM: k.LeastLPM, MostLPM: k.MostLPM, LeastBar: k.LeastBar, MostBar: k.MostBar, Droplets: k.Droplets, Active: true, Version: 1}).Error; err != nil {
				return err
			}
		}
		return nil
	})
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
		return wrong(err)
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
			n.Key = rows[0].Key // plans name it by this
			n.Version++
			if err := tx.Save(&n).Error; err != nil {
				return err
			}
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.NozzleSaved, At: now, By: by.By(), Summary: "Nozzle " + n.Name + " on the list", Content: n})
		return err
	})
}
