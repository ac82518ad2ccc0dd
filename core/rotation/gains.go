package rotation

import (
	"errors"
	"mainstay/core/why"
	"math"
	"math/rand/v2"
	"slices"
)

// More is one more of something.
type More string

// What there may be one more of.
const (
	MoreAircraft  More = "aircraft"
	MoreSets      More = "set"
	MoreChannels  More = "channel"   // and the power for it
	MoreGenerator More = "generator" // power for one more channel
	MoreHands     More = "hand"
)

// AllMore lists them.
var AllMore = []More{MoreAircraft, MoreSets, MoreChannels, MoreGenerator, MoreHands}

// Gain is what one more would save.
type Gain struct {
	More   More    `json:"more"`
	EndS   float64 `json:"end_s"`
	SavedS float64 `json:"saved_s"` // over 0: done earlier
}

// with is the day with one more of something; ok is false where that means nothing.
func (d Day) with(m More) (Day, bool) {
	switch m {
	case MoreAircraft:
		d.Aircraft++
	case MoreSets:
		d.Sets++
	case MoreChannels:
		d.Channels++
		if d.GeneratorW > 0 {
			d.GeneratorW += d.ChannelW
		}
	case MoreGenerator:
		if d.GeneratorW == 0 || d.GeneratorW >= d.ChannelW*float64(d.Channels) {
			return d, false
		}
		d.GeneratorW += d.ChannelW
	case MoreHands:
		d.Hands++
	}
	return d, true
}

// LeastGain is the least part of a day by which one more is worth a word.
const LeastGain = 0.02

// Gains simulates the day with one more of each, the most useful first. With the
// day's end set, all is compared without it. Where the day as it is never ends,
// saved is infinite for what lets it end.
func (d Day) Gains() ([]Gain, error) {
	d.DayS = 0
	now, err := d.Simulate()
	stuck := errors.Is(err, ErrStuck)
	if err != nil && !stuck {
		return nil, err
	}
	out := []Gain{}
	for _, m := range AllMore {
		more, ok := d.with(m)
		if !ok || more.Check() != nil {
			continue
		}
		r, err := more.Simulate()
		switch {
		case errors.Is(err, ErrStuck):
			continue
		case err != nil:
			return nil, err
		case stuck:
			out = append(out, Gain{m, r.EndS, math.Inf(1)})
		default:
			out = append(out, Gain{m, r.EndS, now.EndS - r.EndS})
		}
	}
	slices.SortStableFunc(out, func(a, b Gain) int {
		switch {
		case a.SavedS > b.SavedS:
			return -1
		case a.SavedS < b.SavedS:
			return 1
		}
		return 0
	})
	return out, nil
}

// Bottleneck is what holds the day up most: what one more of saves the most time,
// "" where nothing saves 2 percent.
func Bottleneck(r Run, gains []Gain) More {
	if len(gains) == 0 || gains[0].SavedS < LeastGain*r.EndS {
		return ""
	}
	return gains[0].More
}

// Vary is how much flights and hands scatter: the standard deviation of their
// times over the planned ones. Flights scatter with the wind.
type Vary struct {
	Flights float64 `json:"flights"`
	Hands   float64 `json:"hands"`
}

// Usual scatter.
var Usual = Vary{Flights: 0.08, Hands: 0.25}

// Spread is a day over many runs.
type Spread struct {
	Runs      int        `json:"runs"`
	EndS      [3]float64 `json:"end_s"`    // a tenth are done by the first, half by the second, nine tenths by the third
	PerHour   [3]float64 `json:"per_hour"` // from low to high
	InTime    float64    `json:"in_time"`  // share of runs in which all was done before the day was over
	Seed      uint64     `json:"seed"`
	LeastDone float64    `json:"least_done"` // in nine of ten runs at least so much is done
}

// MostRuns is how often a day is simulated at most.
const MostRuns = 2000

// Simulations lets a day pass many times, each flight and each swap a little longer
// or shorter, by the same seed always the same. Flights that take longer take more
// energy, up to what their packs give. Errors wrap ErrInput or ErrStuck.
func (d Day) Simulations(runs int, seed uint64, v Vary) (Spread, error) {
	out := Spread{Runs: runs, Seed: seed}
	if runs < 1 || runs > MostRuns || !(v.Flights >= 0 && v.Flights <= 1) || !(v.Hands >= 0 && v.Hands <= 2) {
		return out, why.Not(ErrInput, "%d runs with a scatter of %g and %g", runs, v.Flights, v.Hands)
	}
	if err := d.Check(); err != nil {
		return out, err
	}
	r := rand.New(rand.NewPCG(seed, 0x6d61696e73746179))
	ends, rates, done := make([]float64, runs), make([]float64, runs), make([]float64, runs)
	full := d.PackWh * float64(d.PerSet) * d.ChargeTo / 100
	for i := range runs {
		day := d
		day.Sorties = make([]Sortie, len(d.Sorties))
		wind := scatter(r, v.Flights) // of the day: all flights alike
		for k, s := range d.Sorties {
			by := wind * scatter(r, v.Flights/2)
			s.Seconds, s.Wh = max(1, s.Seconds*by), min(full, s.Wh*by)
			day.Sorties[k] = s
		}
		day.SwapS, day.FillS = d.SwapS*scatter(r, v.Hands), d.FillS*scatter(r, v.Hands)
		run, err := day.Simulate()
		if err != nil {
			return out, err
		}
		ends[i], rates[i], done[i] = run.EndS, run.PerHour, run.Done
		if run.AllDone {
			out.InTime += 1 / float64(runs)
		}
	}
	out.EndS, out.PerHour, out.LeastDone = tenths(ends), tenths(rates), tenths(done)[0]
	return out, nil
}

// scatter is a factor around 1, never under a third or over three.
func scatter(r *rand.Rand, sd float64) float64 {
	return min(3, max(1.0/3, math.Exp(sd*r.NormFloat64()-sd*sd/2)))
}

func tenths(v []float64) [3]float64 {
	s := slices.Clone(v)
	slices.Sort(s)
	at := func(q float64) float64 { return s[int(math.Round(q*float64(len(s)-1)))] }
	return [3]float64{at(0.1), at(0.5), at(0.9)}
}
