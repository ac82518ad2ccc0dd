package flights

import (
	"cmp"
	"context"
	"slices"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/core/wear"
)

// ListDue lists every fitted part with a limit: overdue ones first, then by the
// day they fall due, those without a day last. Stations that should carry a
// part and do not are overdue.
func (h *Handlers) ListDue(ctx context.Context, _ api.ListDueRequestObject) (api.ListDueResponseObject, error) {
	s := h.Flights
	ks, err := s.Know(ctx, nil)
	if err != nil {
		return nil, err
	}
	recent, err := s.Fleet.RecentUse(ctx)
	if err != nil {
		return nil, err
	}
	out := api.ListDue200JSONResponse{Items: []api.DueItem{}}
	for _, k := range ks {
		if !k.Aircraft.Active {
			continue
		}
		for _, gp := range k.Input.Parts {
			it := api.DueItem{AircraftId: k.Aircraft.ID, Aircraft: k.Aircraft.Name, Station: gp.Station, Label: gp.Label, Kind: gp.Kind}
			part, fitted := k.Parts[gp.Station]
			if !fitted {
				it.Verdict, it.Sentence, it.Fraction = judge.Stop, "No "+gp.Kind+" is recorded here.", 1
				out.Items = append(out.Items, it)
				continue
			}
			it.Serial = part.Serial
			d, err := wear.Judge(gp.Counters, gp.Limits, k.Input.Now)
			if err != nil {
				it.Verdict, it.Sentence, it.Fraction = judge.Stop, "Life not known: "+err.Error()+".", 1
				out.Items = append(out.Items, it)
				continue
			}
			if d.By == "" {
				continue // no limit, nothing to fall due
			}
			it.Verdict, it.Sentence, it.Fraction = d.Verdict, d.Sentence, d.Fraction
			when, err := wear.When(gp.Counters, gp.Limits, recent[part.ID], k.Input.Day)
			if err != nil {
				return nil, err
			}
			it.By, it.Forecast = when.By, when.Forecast
			if when.Known {
				it.DueOn = api.DateOf(&when.On)
			} else {
				out.NoDate++
			}
			out.Items = append(out.Items, it)
		}
	}
	slices.SortStableFunc(out.Items, func(a, b api.DueItem) int {
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(day(a), day(b)), cmp.Compare(b.Fraction, a.Fraction), cmp.Compare(a.Aircraft, b.Aircraft), cmp.Compare(a.Station, b.Station))
	})
	return out, nil
}

// rank puts what is due now before what will be, and what has no day last.
func rank(i api.DueItem) int {
	switch {
	case i.Verdict == judge.Stop:
		return 0
	case i.DueOn != nil:
		return 1
	}
	return 2
}

func day(i api.DueItem) string {
	if i.DueOn == nil {
		return ""
	}
	return i.DueOn.String()
}
