package missions

import (
	"context"
	"strings"

	"mainstay/core/survey"
	"mainstay/internal/planning"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Canopy is a row of the crew's table: how high a survey flies over what grows.
type Canopy struct {
	planning.Kind
	HeightM float64
}

// usualCanopies is the table that a new crew begins with.
func usualCanopies() (out []Canopy) {
	for _, c := range survey.UsualCanopies {
		out = append(out, Canopy{Kind: planning.Kind{Key: c.Key, Name: c.Name}, HeightM: c.HeightM})
	}
	return out
}

// SeedCanopies puts the usual heights into a table that is empty.
func (s *Service) SeedCanopies(ctx context.Context) error {
	return planning.SeedKinds(ctx, s.DB, usualCanopies())
}

// CanopyList is the table, in use first, by name.
func (s *Service) CanopyList(ctx context.Context) ([]Canopy, error) {
	return planning.Kinds[Canopy](ctx, s.DB)
}

// SaveCanopy adds a row to the table, or changes it; version 0 is a new one.
func (s *Service) SaveCanopy(ctx context.Context, c Canopy) error {
	if n := len([]rune(strings.TrimSpace(c.Name))); n < 1 || n > 60 {
		return fault.Bad("name", "Say what grows there in up to 60 letters.")
	}
	if !(c.HeightM >= survey.LeastHeightM && c.HeightM <= survey.MostHeightM) {
		return fault.Bad("height_m", "A survey flies between %g and %g m over the ground.", survey.LeastHeightM,
			survey.MostHeightM)
	}
	return planning.SaveKind(ctx, s.DB, s.Clock.Now(), "canopy", records.CanopySaved, &c)
}

// inUse are the rows that plans may take.
func inUse(all []Canopy) (out []survey.Canopy) {
	for _, c := range all {
		if c.Active {
			out = append(out, survey.Canopy{Key: c.Key, Name: c.Name, HeightM: c.HeightM})
		}
	}
	return out
}
