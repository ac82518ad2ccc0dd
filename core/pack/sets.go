package pack

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mainstay/core/judge"
)

// Limits within which two packs make a set for a twin-pack aircraft.
const (
	SetVolts      = 20.0 // mV between the mean cell volts
	SetCapacity   = 5.0  // percent of the larger
	SetCycles     = 20.0 // equivalent cycles
	SetResistance = 20.0 // percent of the larger
)

// Candidate is a pack that may become part of a set. nil is not known.
type Candidate struct {
	ID           string
	Label        string
	Model        string   // packs of one model only
	MeanMV       *float64 // mean resting cell volts
	CapacityMAh  *float64 // measured
	Cycles       float64  // equivalent full cycles
	ResistanceMO *float64 // mean per cell
}

// Set is a pair of packs that fly together.
type Set struct {
	A        string        `json:"a"` // ids
	B        string        `json:"b"`
	Labels   string        `json:"labels"`
	Cost     float64       `json:"cost"` // dV/20 mV + dCap/5 % + dCycles/20 + dR/20 %
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// JudgeSet holds two packs against each other. Over any limit it is Stop; when
// something is not known it is Watch and counts as half its limit.
func JudgeSet(a, b Candidate) Set {
	if a.Label > b.Label {
		a, b = b, a
	}
	s := Set{A: a.ID, B: b.ID, Labels: a.Label + " + " + b.Label}
	if a.Model != b.Model {
		s.Verdict, s.Cost, s.Sentence = judge.Stop, math.MaxFloat32, fmt.Sprintf("%s and %s are different models.", a.Label,
			b.Label)
		return s
	}
	var over, unknown []string
	hold := func(name, unit string, x, y *float64, limit float64) {
		if x == nil || y == nil {
			s.Cost += 0.5
			unknown = append(unknown, name)
			return
		}
		d := math.Abs(*x - *y)
		if m := max(math.Abs(*x), math.Abs(*y)); unit == "%" && m > 0 {
			d = d / m * 100
		}
		s.Cost += d / limit
		if math.Round(d*1000) > limit*1000 {
			over = append(over, fmt.Sprintf("%s differ by %.0f %s (limit %g)", name, d, unit, limit))
		}
	}
	hold("cell volts", "mV", a.MeanMV, b.MeanMV, SetVolts)
	hold("capacities", "%", a.CapacityMAh, b.CapacityMAh, SetCapacity)
	hold("cycles", "cycles", &a.Cycles, &b.Cycles, SetCycles)
	hold("resistances", "%", a.ResistanceMO, b.ResistanceMO, SetResistance)
	switch {
	case len(over) > 0:
		s.Verdict, s.Sentence = judge.Stop, fmt.Sprintf("%s and %s do not make a set: %s.", a.Label, b.Label,
			strings.Join(over, "; "))
	case len(unknown) > 0:
		s.Verdict, s.Sentence = judge.Watch, fmt.Sprintf("%s and %s match as far as known; not known: %s.", a.Label, b.Label,
			strings.Join(unknown, ", "))
	default:
		s.Sentence = fmt.Sprintf("%s and %s match.", a.Label, b.Label)
	}
	return s
}

// MatchSets pairs a rack for twin-pack aircraft: the most sets first, then the
// least sum of costs. A pair over any limit is not allowed. Sets come by cost.
func MatchSets(packs []Candidate) []Set {
	const unit = 1_000_000 // costs as whole numbers, so that the matching is exact
	allowed := map[[2]int]Set{}
	worst := int64(1)
	for i := range packs {
		for j := range i {
			if s := JudgeSet(packs[i], packs[j]); s.Verdict != judge.Stop {
				allowed[[2]int{j, i}] = s
				worst = max(worst, int64(s.Cost*unit)+1)
			}
		}
	}
	if len(allowed) == 0 {
		return []Set{}
	}
	// One more set outweighs any costs.
	bonus := worst * int64(len(packs)+1)
	m := newMatcher(len(packs))
	for e, s := range allowed {
		m.weight(e[0], e[1], bonus-int64(s.Cost*unit))
	}
	out := []Set{}
	for i, j := range m.solve() {
		if i < j {
			out = append(out, allowed[[2]int{i, j}])
		}
	}
	slices.SortFunc(out, func(a, b Set) int {
		return cmp.Or(cmp.Compare(a.Cost, b.Cost),
			cmp.Compare(a.Labels, b.Labels))
	})
	return out
}
