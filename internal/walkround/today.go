package walkround

import (
	"context"
	"slices"

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
	var known map[judge.Rule]checks.Known
	var names []string
	for i := range sh.Items {
		it := &sh.Items[i]
		if open && (len(it.Tells) > 0 || it.Kind == checks.Reading && it.PackID == "") {
			if l, ok := s.told(ctx, sh.Aircraft.Serial); ok {
				it.Known = l.says(*it)
			}
		}
		switch it.Kind {
		case checks.Poll:
			it.Names = sh.Names
		case checks.Who:
			if names == nil {
				var err error
				if names, err = s.hands(ctx); err != nil {
					return err
				}
			}
			it.Names = names
		case checks.Computed:
			if known == nil && open {
				t, err := s.today(ctx, sh.AircraftID, sh.JobID, sh.PackIDs)
				if err != nil {
					return err
				}
				known = t.Known
			}
			if k, ok := known[it.Rule]; ok {
				it.Known = &k
			}
		case checks.Look, checks.Reading, checks.Cells, checks.Motors, checks.Set, checks.Group, checks.Alike, checks.Choice, checks.Counted, checks.Timer, checks.Photo, checks.Drill:
		}
	}
	return nil
}

// hands are the names of everybody who may hold a controller.
func (s *Service) hands(ctx context.Context) ([]string, error) {
	all, err := s.People.List(ctx)
	out := []string{}
	for _, p := range all {
		if p.Active && slices.ContainsFunc(p.Held(), func(r crew.Role) bool { return r != crew.Reader }) {
			out = append(out, p.Name)
		}
	}
	return out, err
}
