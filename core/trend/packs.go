package trend

import (
	"fmt"
	"math"
	"slices"

	"mainstay/core/judge"
	"mainstay/core/robust"
)

// PackFloorPoint is the drift of a pack's use below which it says nothing, percent of
// its capacity.
const PackFloorPoint = 3.0

// ownShare of the greatest drift a pack has of its own: those that one pack leaves
// behind move by half as much, the other way.
const ownShare = 0.6

// PackDrift is how far the use of one pack has moved from that of the packs it flies
// with.
type PackDrift struct {
	Pack     string        `json:"pack"`
	Flights  int           `json:"flights"`
	Known    bool          `json:"known"` // enough flights to judge
	Before   float64       `json:"before"`
	Now      float64       `json:"now"` // median distance over the last five flights, percent of capacity
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Packs holds each pack's last five flights against its own earlier ones, as Judge does
// for motors. Each flight is what every pack of it gave, percent of its capacity, by the
// name of the pack; flights of one pack, and shares that are no numbers, say nothing.
// Flights are oldest first. Packs come in the order of their names.
func Packs(flights []map[string]float64) []PackDrift {
	devs := map[string][]float64{}
	for _, f := range flights {
		for name, used := range f {
			var others []float64
			for other, v := range f {
				if other != name && share(v) {
					others = append(others, v)
				}
			}
			if share(used) && len(others) > 0 {
				devs[name] = append(devs[name], used-robust.Median(others))
			}
		}
	}
	names := make([]string, 0, len(devs))
	for name := range devs {
		names = append(names, name)
	}
	slices.Sort(names)
	all := make([][]float64, len(names))
	for i, name := range names {
		all[i] = devs[name]
	}
	limit, most := limitOf(all, PackFloorPoint), 0.0
	for _, d := range all {
		if len(d) >= Least {
			most = max(most, math.Abs(robust.Median(d[len(d)-Recent:])-robust.Median(d[:len(d)-Recent])))
		}
	}
	out := make([]PackDrift, len(names))
	for i, name := range names {
		d := all[i]
		x := PackDrift{Pack: name, Flights: len(d)}
		switch n := len(d) - Recent; {
		case len(d) < Least:
			x.Sentence = fmt.Sprintf("%d of %d flights beside others for a trend.", len(d), Least)
		default:
			x.Known, x.Before, x.Now = true, robust.Median(d[:n]), robust.Median(d[n:])
			x.Sentence = fmt.Sprintf("Steady: %+.1f points from the packs it flies with.", x.Now)
			if moved := math.Abs(x.Now - x.Before); moved > limit && moved > ownShare*most {
				x.Verdict = judge.Watch
				x.Sentence = fmt.Sprintf("%s is drifting: it gives %+.1f points of its capacity against the packs it flies with, it was %+.1f. Measure its capacity, look at its plugs.",
					name, x.Now, x.Before)
			}
		}
		out[i] = x
	}
	return out
}

func share(v float64) bool { return v >= 0 && v <= 100 }
