// Package tonight plans the evening at base: which packs to charge for
// tomorrow's flying, in which order on which charger, when they are ready, and
// which go down to storage. Times are UTC, energy in Wh, power in W.
package tonight

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/energy"
	"mainstay/core/judge"
	"mainstay/core/pack"
)

// Pack is a pack on the rack tonight.
type Pack struct {
	ID        string
	Label     string
	Types     []string // keys of types it fits
	State     pack.State
	Percent   *float64 // nil: not known
	WattHours float64  // full
	FullFor   time.Duration
	Stop      string // why it must not fly, "" when it may
	Health    float64
	Mate      string // id of its set partner, "" for none; counts on types that fly on two
}

// Flying is one aircraft's flying tomorrow.
type Flying struct {
	Aircraft string
	TypeKey  string
	Sorties  int
	Packs    int // a flight takes
	Sets     int // that are enough, since they are charged in the field meanwhile; 0: one for each flight
}

// enough is for how many flights sets are taken along.
func (f Flying) enough() int {
	if f.Sets > 0 {
		return min(f.Sets, f.Sorties)
	}
	return f.Sorties
}

// Charger is a charger with equal channels.
type Charger struct {
	Name     string
	Channels int
	Watts    float64 // each channel
}

// Input is what the evening begins with.
type Input struct {
	Start    time.Time
	ReadyBy  time.Time
	Flying   []Flying
	Packs    []Pack
	Chargers []Charger
}

// Job is one pack on one channel.
type Job struct {
	PackID  string     `json:"pack_id"`
	Label   string     `json:"label"`
	For     string     `json:"for"`
	Charger string     `json:"charger"`
	Channel int        `json:"channel"`
	From    *float64   `json:"from_percent"`
	To      float64    `json:"to_percent"`
	State   pack.State `json:"state"` // charging when it is on charge already
	Start   time.Time  `json:"start"`
	End     time.Time  `json:"end"`
}

// Ready is a pack that needs nothing tonight.
type Ready struct {
	PackID string `json:"pack_id"`
	Label  string `json:"label"`
	For    string `json:"for"`
}

// Lower is a pack to bring down to storage level.
type Lower struct {
	PackID  string        `json:"pack_id"`
	Label   string        `json:"label"`
	Why     string        `json:"why"`
	Verdict judge.Verdict `json:"verdict"`
}

// Plan is the evening's work.
type Plan struct {
	Charge   []Job         `json:"charge"`
	Ready    []Ready       `json:"ready"`
	Lower    []Lower       `json:"lower"`
	Findings []Finding     `json:"findings"`
	DoneAt   *time.Time    `json:"done_at"`
	Verdict  judge.Verdict `json:"verdict"`
}

// Finding is what stands in the way of tomorrow's flying.
type Finding struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Make plans the evening. Each aircraft needs its sorties' packs and one fill
// to spare; charged packs count first, then those with most charge and best
// health, set partners together. Those to charge go to the channel that is
// free first, in the order of flying; a level that is not known is taken as
// empty and said. Packs that are charged and not needed go down to storage.
// What does not fit, the rack or the night, is a finding.
func Make(in Input) (Plan, error) {
	p := Plan{Charge: []Job{}, Ready: []Ready{}, Lower: []Lower{}, Findings: []Finding{}}
	taken := map[string]string{}
	var order []Pack
	for _, f := range in.Flying {
		if f.Sorties <= 0 {
			continue
		}
		least := f.enough() * f.Packs
		need := least + f.Packs
		got := choose(in.Packs, f, need, taken)
		for _, x := range got {
			taken[x.ID] = f.Aircraft
		}
		order = append(order, got...)
		switch {
		case len(got) < least && f.enough() < f.Sorties:
			p.find(judge.Stop, "%s: %d packs in sets may fly; %s take %d, charged again in the field. Fly fewer, or take more time.",
				f.Aircraft, len(got), flights(f.Sorties), least)
		case len(got) < least:
			p.find(judge.Stop, "%s: %d packs in sets may fly, %s take %d. Fly fewer, or charge between flights.", f.Aircraft,
				len(got), flights(f.Sorties), least)
		case len(got) < need:
			p.find(judge.Watch, "%s: enough packs for %s, none to spare.", f.Aircraft, flights(f.Sorties))
		}
	}
	if err := p.schedule(in, order, taken); err != nil {
		return Plan{}, err
	}
	for _, x := range in.Packs {
		if x.State != pack.Charged || taken[x.ID] != "" {
			continue
		}
		l := Lower{PackID: x.ID, Label: x.Label, Why: "Charged and not needed tomorrow.", Verdict: judge.Clear}
		switch {
		case x.FullFor >= pack.FullStop:
			l.Why, l.Verdict = fmt.Sprintf("Charged for %.0f days: look at all six faces, then bring it down.",
				x.FullFor.Hours()/24), judge.Stop
		case x.FullFor >= pack.FullWatch:
			l.Why, l.Verdict = fmt.Sprintf("Charged for %.0f days.", x.FullFor.Hours()/24), judge.Watch
		}
		p.Lower = append(p.Lower, l)
	}
	slices.SortStableFunc(p.Lower, func(a, b Lower) int {
		return cmp.Or(cmp.Compare(b.Verdict, a.Verdict), cmp.Compare(a.Label, b.Label))
	})
	return p, nil
}

func (p *Plan) find(v judge.Verdict, format string, a ...any) {
	p.Findings = append(p.Findings, Finding{v, fmt.Sprintf(format, a...)})
	p.Verdict = max(p.Verdict, v)
}

// choose takes the packs for one aircraft: charged ones first.
func choose(packs []Pack, f Flying, need int, taken map[string]string) []Pack {
	var can []Pack
	for _, x := range packs {
		if x.Stop == "" && taken[x.ID] == "" && slices.Contains(x.Types, f.TypeKey) {
			can = append(can, x)
		}
	}
	level := func(x Pack) float64 {
		switch {
		case x.State == pack.Charged || x.State == pack.Fitted:
			return 200
		case x.Percent == nil:
			return 0
		}
		return *x.Percent
	}
	slices.SortStableFunc(can, func(a, b Pack) int {
		return cmp.Or(cmp.Compare(level(b), level(a)), cmp.Compare(b.Health, a.Health), cmp.Compare(a.Label, b.Label))
	})
	if f.Packs < 2 {
		return can[:min(need, len(can))]
	}
	// For twins: whole sets in the order of their better half. A pack without a
	// partner does not fly on a twin.
	var out []Pack
	in := map[string]bool{}
	for _, x := range can {
		if i := slices.IndexFunc(can, func(y Pack) bool { return y.ID == x.Mate }); i >= 0 && !in[x.ID] &&
			len(out)+2 <= need {
			out = append(out, x, can[i])
			in[x.ID], in[x.Mate] = true, true
		}
	}
	return out
}

// schedule puts packs on channels, each on the one that is free first.
func (p *Plan) schedule(in Input, order []Pack, taken map[string]string) error {
	type channel struct {
		charger string
		n       int
		watts   float64
		free    time.Time
	}
	var channels []channel
	for _, c := range in.Chargers {
		for n := range c.Channels {
			channels = append(channels, channel{c.Name, n + 1, c.Watts, in.Start})
		}
	}
	var unknown []string
	defer func() {
		if len(unknown) > 0 {
			p.find(judge.Watch, "Level not known, planned from empty: %s. Read them first.", strings.Join(unknown, ", "))
		}
	}()
	for _, x := range order {
		if x.State == pack.Charged || x.State == pack.Fitted {
			p.Ready = append(p.Ready, Ready{x.ID, x.Label, taken[x.ID]})
			continue
		}
		if len(channels) == 0 {
			p.find(judge.Stop, "There is no charger on file, and %s has to be charged.", x.Label)
			return nil
		}
		from := 0.0
		if x.Percent != nil {
			from = *x.Percent
		} else {
			unknown = append(unknown, x.Label)
		}
		best, bestEnd := -1, time.Time{}
		for i, c := range channels {
			d, err := energy.ChargeTime(x.WattHours, c.watts, from, energy.Full)
			if err != nil {
				return fmt.Errorf("%s on %s: %w", x.Label, c.charger, err)
			}
			if end := c.free.Add(d); best < 0 || end.Before(bestEnd) {
				best, bestEnd = i, end
			}
		}
		c := &channels[best]
		p.Charge = append(p.Charge, Job{PackID: x.ID, Label: x.Label, For: taken[x.ID], Charger: c.charger, Channel: c.n,
			From: x.Percent, To: energy.Full, State: x.State, Start: c.free, End: bestEnd})
		c.free = bestEnd
		if p.DoneAt == nil || bestEnd.After(*p.DoneAt) {
			p.DoneAt = &bestEnd
		}
		if bestEnd.After(in.ReadyBy) {
			p.find(judge.Stop, "%s for %s is not ready by then: it ends %s after.", x.Label, taken[x.ID],
				bestEnd.Sub(in.ReadyBy).Round(time.Minute))
		}
	}
	return nil
}

func flights(n int) string {
	if n == 1 {
		return "1 sortie"
	}
	return fmt.Sprintf("%d sorties", n)
}
