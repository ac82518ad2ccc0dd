// Package types takes in aircraft types with what they need to fly: a checklist and a maintenance
// programme, taken over from a type that is like them.
package types

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// Service holds the use cases of types.
type Service struct {
	DB         *gorm.DB
	Fleet      *fleet.Service
	Walkrounds *walkround.Service
	Workshop   *workshop.Service
}

// Trial is what a profile would be.
type Trial struct {
	Wrong []airframe.Wrong // fields that cannot be used; none: it can
	Like  []string         // keys of the types whose checklist it can take over, the nearest first
}

// Try says what is wrong with a profile, and which checklists fit it; nothing is kept.
func (s *Service) Try(ctx context.Context, t airframe.Type) (Trial, error) {
	out := Trial{Wrong: t.Wrong(), Like: []string{}}
	if len(out.Wrong) > 0 {
		return out, nil
	}
	all, err := s.Fleet.Types(ctx)
	if err != nil {
		return out, err
	}
	slices.SortStableFunc(all, func(a, b airframe.Type) int { return near(b, t) - near(a, t) })
	for _, like := range all {
		l, err := s.Walkrounds.List(ctx, like.Key, 0)
		if fault.Is(err, "not-found") {
			continue
		}
		if err != nil {
			return out, err
		}
		if l.Type = t.Key; unfit(l, like, t) == nil {
			out.Like = append(out.Like, like.Key)
		}
	}
	return out, nil
}

// unfit says why the checklist of a type cannot be taken over: another layout, or it looks at
// what is not there.
func unfit(l checks.List, of, t airframe.Type) error {
	if of.Geometry.Kind != t.Geometry.Kind {
		return fmt.Errorf("%s is laid out as a %s", of.Name, of.Geometry.Kind)
	}
	return l.Validate(t)
}

// also looks at the places of a type that the list that it takes over does not know.
func also(l checks.List, t airframe.Type, of string) checks.List {
	left := l.Unvisited(t)
	if len(left) == 0 {
		return l
	}
	more := checks.Section{Title: "Also"}
	for _, s := range t.Stations() {
		if slices.Contains(left, s.ID) {
			more.Items = append(more.Items, checks.Item{ID: "also-" + s.ID, Station: s.ID, Title: s.Label + ": fast, whole, free", Kind: checks.Look, Defect: judge.Stop,
				How: "Look at it from all sides and move it by hand.", Why: "The list comes from " + of + ", which has no such place.", Bad: "Loose, cracked, chafed, or it binds."})
		}
	}
	l.Sections = slices.Insert(slices.Clone(l.Sections), min(1, len(l.Sections)), more)
	return l
}

// near ranks how much a type is like another: the same layout, number of rotors, what it carries.
func near(a, t airframe.Type) int {
	n := 0
	for i, same := range []bool{a.Key == t.Key, a.Geometry.Kind == t.Geometry.Kind, (a.TankL > 0) == (t.TankL > 0), a.Geometry.Rotors == t.Geometry.Rotors} {
		if same {
			n += 8 >> i
		}
	}
	return n
}

// Add takes in a type, or a new version of one. A new one takes over the checklist and the
// programme of the type that it is like; without one, a chief brings them in later, and until
// then it cannot be walked.
func (s *Service) Add(ctx context.Context, t airframe.Type, like string) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, _ *gorm.DB) error {
		if err := s.Fleet.AddType(ctx, t); err != nil || like == "" {
			return err
		}
		return errors.Join(s.list(ctx, t, like), s.programme(ctx, t, like))
	})
}

// list takes over a checklist, if the type has none.
func (s *Service) list(ctx context.Context, t airframe.Type, like string) error {
	if _, err := s.Walkrounds.List(ctx, t.Key, 0); !fault.Is(err, "not-found") {
		return err
	}
	l, err := s.Walkrounds.List(ctx, like, 0)
	if err != nil {
		return err
	}
	of, err := s.Fleet.Type(ctx, like)
	if err != nil {
		return err
	}
	l = checks.List{Type: t.Key, Version: 1, Sections: l.Sections}
	if err := unfit(l, of, t); err != nil {
		return fault.Bad("like", "The checklist of %s does not fit: %s. Choose another, or none.", of.Name, err)
	}
	return s.Walkrounds.AddList(ctx, t.Key, also(l, t, of.Name))
}

// programme takes over what fits of a maintenance programme, if the type has none.
func (s *Service) programme(ctx context.Context, t airframe.Type, like string) error {
	if _, err := s.Workshop.Programme(ctx, t.Key); !fault.Is(err, "not-found") {
		return err
	}
	p, err := s.Workshop.Programme(ctx, like)
	if fault.Is(err, "not-found") {
		return nil
	}
	if err != nil {
		return err
	}
	p.TypeKey, p.Version = t.Key, 1
	p.Tasks = slices.DeleteFunc(slices.Clone(p.Tasks), func(k upkeep.Task) bool { // at places that it does not have
		return workshop.Check(upkeep.Programme{TypeKey: t.Key, Version: 1, Tasks: []upkeep.Task{k}}, t) != nil
	})
	if len(p.Tasks) == 0 || workshop.Check(p, t) != nil {
		return nil
	}
	return s.Workshop.AddProgramme(ctx, t.Key, p)
}
