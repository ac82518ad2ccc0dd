package spraying

import (
	"context"

	"mainstay/core/spray"
	"mainstay/internal/planning"
	"mainstay/internal/records"
)

// Nozzle is a kind of nozzle on the crew's list.
type Nozzle struct {
	planning.Kind
	LeastLPM float64 `gorm:"column:least_lpm"`
	MostLPM  float64 `gorm:"column:most_lpm"`
	LeastBar float64
	MostBar  float64
	Droplets string
}

func (n Nozzle) core() spray.Nozzle {
	return spray.Nozzle{Key: n.Key, Name: n.Name, LeastLPM: n.LeastLPM, MostLPM: n.MostLPM, LeastBar: n.LeastBar,
		MostBar: n.MostBar, Droplets: n.Droplets}
}

// shipped are the kinds of nozzle that a new crew begins with; all are made up, and
// the tables of the makers take their place.
var shipped = []Nozzle{
	{Kind: planning.Kind{Key: "fan-015", Name: "Flat fan 015"}, LeastLPM: 0.34, MostLPM: 0.76, LeastBar: 1, MostBar: 5,
		Droplets: "fine"},
	{Kind: planning.Kind{Key: "fan-020", Name: "Flat fan 020"}, LeastLPM: 0.46, MostLPM: 1.02, LeastBar: 1, MostBar: 5,
		Droplets: "medium"},
	{Kind: planning.Kind{Key: "drift-020", Name: "Low-drift fan 020"}, LeastLPM: 0.46, MostLPM: 1.02, LeastBar: 1,
		MostBar: 5, Droplets: "coarse"},
	{Kind: planning.Kind{Key: "drift-030", Name: "Low-drift fan 030"}, LeastLPM: 0.68, MostLPM: 1.53, LeastBar: 1,
		MostBar: 5, Droplets: "coarse"},
	{Kind: planning.Kind{Key: "air-030", Name: "Air-mix fan 030"}, LeastLPM: 0.98, MostLPM: 1.96, LeastBar: 2, MostBar: 8,
		Droplets: "very coarse"},
	{Kind: planning.Kind{Key: "disc-small", Name: "Spinning disc, small"}, LeastLPM: 0.3, MostLPM: 1.6, LeastBar: 0.3,
		MostBar: 1, Droplets: "medium"},
}

// SeedNozzles puts the shipped kinds on a list that is empty.
func (s *Service) SeedNozzles(ctx context.Context) error {
	return planning.SeedKinds(ctx, s.DB, shipped)
}

// Nozzles are the kinds of nozzle, in use first, by name.
func (s *Service) Nozzles(ctx context.Context) ([]Nozzle, error) {
	return planning.Kinds[Nozzle](ctx, s.DB)
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
		return fields.Refused(err)
	}
	return planning.SaveKind(ctx, s.DB, s.Clock.Now(), "nozzle", records.NozzleSaved, &n)
}
