package walkround

import (
	"context"
	"encoding/json"
	"errors"
	"strings"
	"time"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/rules"
	"mainstay/core/why"
)

// every takes the places of numbers out of titles that stand for several items.
var every = strings.NewReplacer(" {n}", "", " {pack}", "")

// Covered holds the full walk of a list against the authority's advisory list.
func Covered(l checks.List, t airframe.Type) []rules.Covered {
	var items []rules.ListItem
	for _, s := range l.Sections {
		if !s.Walked(checks.Full) {
			continue // what is looked at in the evening does not come before the flight
		}
		for _, it := range s.Items {
			items = append(items, rules.ListItem{ID: it.ID, Title: every.Replace(it.Title)})
			for _, m := range it.Marks {
				items = append(items, rules.ListItem{ID: m.ID, Title: every.Replace(m.Title)})
			}
		}
	}
	return rules.Cover(items, t.Geometry.Kind != airframe.Multirotor)
}

// ListVersion is a version of a checklist and when it was taken in.
type ListVersion struct {
	Version   int
	CreatedAt time.Time
}

// Versions lists those of a type, the newest first.
func (s *Service) Versions(ctx context.Context, typeKey string) ([]ListVersion, error) {
	if _, err := s.Fleet.Type(ctx, typeKey); err != nil {
		return nil, err
	}
	var out []ListVersion
	err := s.DB.WithContext(ctx).Raw("select version, created_at from checklists where type_key = ? order by version desc",
		typeKey).Scan(&out).Error
	return out, err
}

// Trial is what a list would ask for in a round.
type Trial struct {
	Wrong     string // why it cannot be used; empty: it can
	Items     []checks.Item
	Uncovered []string // of the authority's advisory list
	Rounds    []checks.Round
}

// Try expands a list with every condition asked and keeps nothing.
func (s *Service) Try(ctx context.Context, typeKey, round string, l checks.List) (Trial, error) {
	out := Trial{Items: []checks.Item{}, Uncovered: []string{}, Rounds: []checks.Round{}}
	t, err := s.Fleet.Type(ctx, typeKey)
	if err != nil {
		return out, err
	}
	if err := l.Validate(t); errors.Is(err, checks.ErrList) {
		out.Wrong = why.Words(err)
		return out, nil
	}
	packs := []checks.PackRef{{ID: "try", Label: "1", Chemistry: t.Packs.Chemistry, Cells: t.Packs.Cells}}
	items, _ := checks.Expand(l, t, checks.Ask{Round: round, Packs: packs})
	out.Items, out.Rounds = append(out.Items, items...), l.Rounds()
	for _, c := range Covered(l, t) {
		if c.Missing {
			out.Uncovered = append(out.Uncovered, c.Item)
		}
	}
	return out, nil
}

// asMap is a JSON text as plain data.
func asMap(b []byte, err error) (map[string]any, error) {
	var out map[string]any
	if err == nil {
		err = json.Unmarshal(b, &out)
	}
	return out, err
}
