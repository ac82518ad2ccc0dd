// Package types takes in aircraft types with what they need to fly: a checklist and a maintenance
// programme, taken over from a type that is like them.
package types

import (
	"context"
	"fmt"
	"slices"

	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
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
		if _, err := takenOver(l, like, t); err == nil {
			out.Like = append(out.Like, like.Key)
		}
	}
	return out, nil
}

// takenOver is the checklist of a type as another one takes it over; an error says why it cannot.
func takenOver(l checks.List, of, t airframe.Type) (checks.List, error) {
	if of.Geometry.Kind != t.Geometry.Kind {
		return l, fmt.Errorf("%s is laid out as a %s", of.Name, of.Geometry.Kind)
	}
	l = checks.List{Type: t.Key, Version: 1, Sections: l.Sections}
	l, _ = l.Fit(t, of.Name)
	return l, l.Validate(t)
}

// near ranks how much a type is like another: the same layout, number of rotors, what it carries.
func near(a, t airframe.Type) int {
	n := 0
	for i, same := range []bool{a.Key == t.Key, a.Geometry.Kind == t.Geometry.Kind, (a.TankL > 0) == (t.TankL > 0),
		a.Geometry.Rotors == t.Geometry.Rotors} {
		if same {
			n += 8 >> i
		}
	}
	return n
}

// Add takes in a type, or a new version of one. A new one takes over the checklist and the
// programme of the type that it is like; without one, a chief brings them in later, and until
// then it cannot be walked. Lists that a type has already follow it where its places changed:
// no place goes unseen because an arm was added.
func (s *Service) Add(ctx context.Context, t airframe.Type, like string) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, _ *gorm.DB) error {
		if err := s.Fleet.AddType(ctx, t); err != nil {
			return err
		}
		if err := s.list(ctx, t, like); err != nil {
			return err
		}
		return s.programme(ctx, t, like)
	})
}

// list takes over a checklist, or brings the one that the type has after it.
func (s *Service) list(ctx context.Context, t airframe.Type, like string) error {
	own, err := s.Walkrounds.List(ctx, t.Key, 0)
	if err == nil {
		l, changed := own.Fit(t, "an earlier version of the type")
		if !changed {
			return nil
		}
		l.Version++
		return s.Walkrounds.AddList(ctx, t.Key, l)
	}
	if !fault.Is(err, "not-found") || like == "" {
		return ignore(err, "not-found")
	}
	of, err := s.Fleet.Type(ctx, like)
	if err != nil {
		return err
	}
	l, err := s.Walkrounds.List(ctx, like, 0)
	if err != nil {
		return err
	}
	if l, err = takenOver(l, of, t); err != nil {
		return fault.Bad("like", "The checklist of %s does not fit: %s. Choose another, or none.", of.Name, err)
	}
	return s.Walkrounds.AddList(ctx, t.Key, l)
}

// programme takes over a maintenance programme, or brings the one that the type has after it.
func (s *Service) programme(ctx context.Context, t airframe.Type, like string) error {
	p, err := s.Workshop.Programme(ctx, t.Key)
	own := err == nil
	if fault.Is(err, "not-found") && like != "" {
		p, err = s.Workshop.Programme(ctx, like)
		p.Version = 0
	}
	if err != nil {
		return ignore(err, "not-found")
	}
	p.TypeKey = t.Key
	moved := fit(&p, t)
	if own && !moved {
		return nil
	}
	p.Version++
	return s.Workshop.AddProgramme(ctx, t.Key, p)
}

// fit brings tasks at places that a type does not have to its frame, so that none is lost, takes
// such places out of leaves, and reports whether it did any of it.
func fit(p *upkeep.Programme, t airframe.Type) (moved bool) {
	ids, kinds := map[string]bool{}, map[string]bool{}
	for _, s := range t.Stations() {
		ids[s.ID], kinds[s.Kind] = true, true
	}
	p.Tasks, p.Leaves = slices.Clone(p.Tasks), slices.Clone(p.Leaves)
	for i := range p.Tasks {
		if !ids[p.Tasks[i].Station] {
			p.Tasks[i].Station, moved = "frame", true
		}
	}
	for i, l := range p.Leaves {
		stations := slices.DeleteFunc(slices.Clone(l.Stations), func(k string) bool { return !kinds[k] })
		moved = moved || len(stations) < len(l.Stations)
		p.Leaves[i].Stations = stations
	}
	p.Leaves = slices.DeleteFunc(p.Leaves, func(l upkeep.Leave) bool { return len(l.Stations) == 0 })
	return moved
}

// ignore is no error for what is of one kind.
func ignore(err error, kind string) error {
	if fault.Is(err, kind) {
		return nil
	}
	return err
}
