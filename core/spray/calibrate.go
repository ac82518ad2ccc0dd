package spray

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// Limits of the calibrations (usual practice).
const (
	NozzleWatch   = 5.0  // percent from the mean of all
	NozzleReplace = 10.0 // percent
	TotalWatch    = 5.0  // percent from the target: calibrate again
	EmptyScaleKg  = 0.05 // an empty tank shows no more than this
	ScaleWithin   = 1.0  // percent of the known mass
	LeastKnownKg  = 10.0 // a scale is checked with at least this
)

// Caught is one nozzle of a catch test.
type Caught struct {
	LPM     float64       `json:"l_min"`
	FromPct float64       `json:"from_mean_percent"`
	Verdict judge.Verdict `json:"verdict"`
}

// CatchTest is what a catch test says.
type CatchTest struct {
	Nozzles  []Caught      `json:"nozzles"`
	Mean     float64       `json:"mean_l_min"`
	Total    float64       `json:"total_l_min"`
	FromPct  float64       `json:"from_target_percent"`
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Catch judges what each nozzle gave, L/min, and all of them against the target
// for all, L/min. A nozzle over 5 percent from the mean is Watch, over 10 Stop: it
// is replaced. A total over 5 percent from the target is Watch: the pump is
// calibrated again. In tenths of a percent. Valid: 1-64 nozzles that give
// 0-50 L/min each, a target over 0. A nozzle that gives nothing is Stop. Errors
// wrap ErrInput.
func Catch(litresPerMinute []float64, target float64) (CatchTest, error) {
	t := CatchTest{Nozzles: make([]Caught, len(litresPerMinute))}
	if len(litresPerMinute) < 1 || len(litresPerMinute) > 64 {
		return t, refuse("%d nozzles", len(litresPerMinute))
	}
	if err := within("target", target, 0.01, MostFlow); err != nil {
		return t, err
	}
	for i, v := range litresPerMinute {
		if err := within(fmt.Sprintf("nozzle %d", i+1), v, 0, 50); err != nil {
			return t, err
		}
		t.Total += v
	}
	t.Mean = t.Total / float64(len(litresPerMinute))
	if t.Mean == 0 {
		return t, refuse("no nozzle gave anything")
	}
	worst, at := 0.0, 0
	for i, v := range litresPerMinute {
		c := Caught{LPM: v, FromPct: (v/t.Mean - 1) * 100}
		switch n := tenths(c.FromPct); {
		case n > NozzleReplace*10:
			c.Verdict = judge.Stop
		case n > NozzleWatch*10:
			c.Verdict = judge.Watch
		}
		if math.Abs(c.FromPct) > worst {
			worst, at = math.Abs(c.FromPct), i
		}
		t.Verdict, t.Nozzles[i] = max(t.Verdict, c.Verdict), c
	}
	t.FromPct = (t.Total/target - 1) * 100
	off := tenths(t.FromPct) > TotalWatch*10
	if off {
		t.Verdict = max(t.Verdict, judge.Watch)
	}
	switch {
	case t.Verdict == judge.Stop:
		t.Sentence = fmt.Sprintf("Nozzle %d is %.1f %% from the mean: clean or replace it, then catch again.", at+1, worst)
	case off:
		t.Sentence = fmt.Sprintf("All together give %.2f L/min, %.1f %% from the target: calibrate the pump again.", t.Total,
			math.Abs(t.FromPct))
	case t.Verdict == judge.Watch:
		t.Sentence = fmt.Sprintf("Nozzle %d is %.1f %% from the mean: look at it again soon.", at+1, worst)
	default:
		t.Sentence = fmt.Sprintf("All nozzles within %g %% of the mean, %.1f %% from the target.", NozzleWatch,
			math.Abs(t.FromPct))
	}
	return t, nil
}

func tenths(percent float64) float64 {
	n, ok := units.Steps(math.Abs(percent), 0.1)
	if !ok {
		return math.Inf(1)
	}
	return float64(n)
}

// PumpFactor is the new factor of a pump or flow meter from what was caught and
// what it showed: old x caught/shown where the factor is volume for each pulse, and
// turned over where it is pulses for each litre. More than a doubling or halving is
// refused: something was read wrongly. Errors wrap ErrInput.
func PumpFactor(old, caught, shown float64, pulsesPerLitre bool) (float64, error) {
	if err := errors.Join(within("factor", old, 1e-6, 1e6), within("caught", caught, 0.01, 1000),
		within("shown", shown, 0.01, 1000)); err != nil {
		return 0, err
	}
	r := caught / shown
	if r < 0.5 || r > 2 {
		return 0, refuse("%g L caught where %g were shown is no drift: read both again", caught, shown)
	}
	if pulsesPerLitre {
		r = 1 / r
	}
	return old * r, nil
}

// Scale is what a check of a tank's scale says.
type Scale struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
	Span     *float64      `json:"span,omitempty"` // the new one; nil: the old one is right, or zero comes first
}

// ScaleCheck judges a scale: it shows at most 0.05 kg when empty, and a known mass
// of at least 10 kg within 1 percent. span is what it multiplies counts with, kg
// for each count; the new one is old x known/shown. Errors wrap ErrInput.
func ScaleCheck(emptyKg, knownKg, shownKg, span float64) (Scale, error) {
	if err := errors.Join(within("empty", emptyKg, -1000, 1000), within("known mass", knownKg, LeastKnownKg, 1000),
		within("shown", shownKg, 0.1, 2000), within("span", span, 1e-9, 1e6)); err != nil {
		return Scale{}, err
	}
	if n, _ := units.Steps(math.Abs(emptyKg), 0.01); float64(n) > EmptyScaleKg*100 {
		return Scale{Verdict: judge.Stop, Sentence: fmt.Sprintf("Empty it shows %.2f kg: set it to zero first.",
			emptyKg)}, nil
	}
	off := (shownKg/knownKg - 1) * 100
	if n, _ := units.Steps(math.Abs(off), 0.01); float64(n) > ScaleWithin*100 {
		next := span * knownKg / shownKg
		return Scale{Verdict: judge.Stop,
			Sentence: fmt.Sprintf("It shows %.2f kg for %.2f, %.1f %% off: set the new span and weigh again.", shownKg, knownKg,
				math.Abs(off)), Span: &next}, nil
	}
	return Scale{Sentence: fmt.Sprintf("%.2f kg for %.2f: within %g %%.", shownKg, knownKg, ScaleWithin)}, nil
}

// SpreadTest is what a tray test of a spreader says.
type SpreadTest struct {
	Variation float64       `json:"variation_percent"` // standard deviation over the mean
	Verdict   judge.Verdict `json:"verdict"`
	Sentence  string        `json:"sentence"`
}

// Limits of the variation over the spread width, percent (usual practice).
const (
	SpreadWatch = 15.0
	SpreadStop  = 25.0
)

// Spread judges what trays across the spread width caught, with the overlap of the
// next passes in them already: a coefficient of variation over 15 percent is Watch,
// over 25 Stop. Valid: 3-64 trays of 0-50. Errors wrap ErrInput.
func Spread(trays []float64) (SpreadTest, error) {
	if len(trays) < 3 || len(trays) > 64 {
		return SpreadTest{}, refuse("%d trays; 3 to 64 are taken", len(trays))
	}
	mean, squares := 0.0, 0.0
	for i, v := range trays {
		if err := within(fmt.Sprintf("tray %d", i+1), v, 0, 50); err != nil {
			return SpreadTest{}, err
		}
		mean += v / float64(len(trays))
	}
	if mean == 0 {
		return SpreadTest{}, refuse("no tray caught anything")
	}
	for _, v := range trays {
		squares += (v - mean) * (v - mean)
	}
	t := SpreadTest{Variation: math.Sqrt(squares/float64(len(trays)-1)) / mean * 100}
	switch n := tenths(t.Variation); {
	case n > SpreadStop*10:
		t.Verdict, t.Sentence = judge.Stop,
			fmt.Sprintf("The trays vary by %.1f %%: set the disc or the width, then try again.",
				t.Variation)
	case n > SpreadWatch*10:
		t.Verdict, t.Sentence = judge.Watch, fmt.Sprintf("The trays vary by %.1f %%: a narrower width would be more even.",
			t.Variation)
	default:
		t.Sentence = fmt.Sprintf("The trays vary by %.1f %%.", t.Variation)
	}
	return t, nil
}
