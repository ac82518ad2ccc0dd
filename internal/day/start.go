package day

import (
	"context"
	"slices"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/core/pack"
	"mainstay/internal/flights"
	"mainstay/internal/people"
)

// start is what a crew that begins has still to set, in the order in which it is best done; nil
// as soon as a flight has been flown.
func start(ctx context.Context, s *flights.Service, ks []flights.Known,
	packs map[string]int) (*[]api.StartStep, error) {
	if slices.ContainsFunc(ks, func(k flights.Known) bool { return k.Aircraft.LastLandingAt != nil }) {
		return nil, nil
	}
	all, err := s.People.List(ctx)
	if err != nil {
		return nil, err
	}
	flies := func(p people.Person) bool {
		return p.Active && slices.Contains(p.Held(), crew.Pilot) && p.Certificate != "" && p.TrainedOn != nil
	}
	kept, err := s.Fleet.Practice(ctx)
	if err != nil {
		return nil, err
	}
	sites, err := s.Jobs.Sites.List(ctx)
	if err != nil {
		return nil, err
	}
	planned, err := s.Jobs.Any(ctx)
	if err != nil {
		return nil, err
	}
	have := 0
	for state, n := range packs {
		if state != string(pack.Retired) && state != string(pack.Quarantine) {
			have += n
		}
	}
	need, weighed := 1, false
	for _, k := range ks {
		need, weighed = max(need, k.Type.Packs.Count), weighed || k.Aircraft.MassKg != nil
	}
	return &[]api.StartStep{
		{Key: api.StartStepKeyPeople, Done: slices.ContainsFunc(all, flies)},
		{Key: api.StartStepKeyAircraft, Done: len(ks) > 0},
		{Key: api.StartStepKeyMass, Done: weighed},
		{Key: api.StartStepKeyPacks, Done: have >= need},
		{Key: api.StartStepKeySite, Done: len(sites) > 0},
		{Key: api.StartStepKeyPractice, Done: len(kept) > 0},
		{Key: api.StartStepKeyJob, Done: planned},
	}, nil
}
