package walkround

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"mainstay/core/checks"
	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/internal/people"
)

// Today is what is known about a flight of an aircraft that is about to be checked.
type Today struct {
	Facts checks.Facts
	Known map[judge.Rule]checks.Known // what the gate works out, by rule
	Crew  []string                    // of the job, by name
}

// today asks whoever knows; where nobody does, nothing is known and all is asked.
func (s *Service) today(ctx context.Context, aircraft uuid.UUID, job *uuid.UUID, packs []uuid.UUID) (Today, error) {
	var out Today
	if s.Today != nil {
		var err error
		if out, err = s.Today(ctx, aircraft, job, packs); err != nil {
			return out, err
		}
	}
	if len(out.Crew) == 0 {
		out.Crew = []string{people.From(ctx).Name}
	}
	return out, nil
}

// fillIn gives the items of an open run what is worked out for them, and who can be named.
func (s *Service) fillIn(ctx context.Context, sh *Sheet) error {
	open := sh.CompletedAt == nil && sh.AbandonedAt == nil
	var now *Today
	asked := func() (Today, error) {
		if now == nil {
			t, err := s.today(ctx, sh.AircraftID, sh.JobID, sh.PackIDs)
			if err != nil {
				return t, err
			}
			now = &t
		}
		return *now, nil
	}
	var hold *hands
	for i := range sh.Items {
		it := &sh.Items[i]
		if open && (len(it.Tells) > 0 || it.PackID == "" && (it.Kind == checks.Reading || it.Kind == checks.Alike)) {
			if l, ok := s.told(ctx, sh.Aircraft.Serial); ok {
				t, err := asked() // what the job sets may have changed since the walk began
				if err != nil {
					return err
				}
				it.Known = l.says(*it, t.Facts)
			}
		}
		switch it.Kind {
		case checks.Poll:
			it.Names = sh.Names
		case checks.Who:
			if !open {
				continue // who could be named was another question then
			}
			if hold == nil {
				h, err := s.hands(ctx)
				if err != nil {
					return err
				}
				hold = &h
			}
			it.Names, it.How = hold.Names, strings.TrimSpace(it.How+" "+hold.Sticks)
		case checks.Computed:
			if !open {
				continue
			}
			t, err := asked()
			if err != nil {
				return err
			}
			if k, ok := t.Known[it.Rule]; ok {
				it.Known = &k
			}
		case checks.Look, checks.Reading, checks.Cells, checks.Motors, checks.Set, checks.Group, checks.Alike, checks.Choice,
			checks.Counted, checks.Timer, checks.Photo, checks.Drill:
		}
	}
	return nil
}

// hands are who may hold a controller, and in which mode each of them flies, in words.
type hands struct {
	Names  []string
	Sticks string
}

func (s *Service) hands(ctx context.Context) (hands, error) {
	all, err := s.People.List(ctx)
	out := hands{Names: []string{}}
	var known, unknown []string
	for _, p := range all {
		if !p.Active || !slices.ContainsFunc(p.Held(), func(r crew.Role) bool { return r != crew.Reader }) {
			continue
		}
		out.Names = append(out.Names, p.Name)
		if p.StickMode != nil {
			known = append(known, fmt.Sprintf("%s %d", p.Name, *p.StickMode))
		} else {
			unknown = append(unknown, p.Name)
		}
	}
	if len(known) > 0 {
		out.Sticks = "Stick modes: " + strings.Join(known, ", ") + "."
		if len(unknown) > 0 {
			out.Sticks += " Not on file: " + strings.Join(unknown, ", ") + "."
		}
	}
	return out, err
}
