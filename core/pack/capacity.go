package pack

import (
	"fmt"
	"math"
	"time"

	"mainstay/core/judge"
	"mainstay/core/robust"
	"mainstay/core/why"
)

// What a capacity measurement and its forecast need.
const (
	MinSwing        = 60 // percent points between the two ends
	MinSwingSteep   = 40 // when both ends are off the flat part of the curve
	FlatFrom        = 15 // percent; the flat part of the resting curve
	FlatTo          = 60
	HealthRetire    = 80 // percent of rated capacity
	ForecastPoints  = 8
	ForecastCycles  = 20 // least span in equivalent cycles
	LookAheadFactor = 3  // times the observed span
)

// Capacity is a measured capacity in mAh with its uncertainty.
type Capacity struct {
	MilliampHours float64 `json:"mah"`
	PlusMinus     float64 `json:"plus_minus_mah"`
}

// MeasureCapacity finds the capacity of a pack from the charge that went in or
// out between two known levels:
//
//	C = mAh / (|start - end| / 100), error = C sqrt(e1^2 + e2^2) / |start - end|
//
// mah 1-200000, levels in percent 0-100 each with its own +/-. The swing must
// be at least 60 points, or 40 when both ends are off the flat part of the
// resting curve (15-60 percent), where volts say little. Errors: ErrSwing.
func MeasureCapacity(mah, start, startPM, end, endPM float64) (Capacity, error) {
	swing := math.Abs(start - end)
	flat := func(p float64) bool { return p > FlatFrom && p < FlatTo }
	switch {
	case !(mah >= 1 && mah <= 200000) || !(start >= 0 && start <= 100) || !(end >= 0 && end <= 100) || !(startPM >= 0) ||
		!(endPM >= 0):
		return Capacity{}, why.Not(ErrSwing, "%g mAh from %g to %g %%", mah, start, end)
	case swing < MinSwing && (swing < MinSwingSteep || flat(start) || flat(end)):
		return Capacity{}, why.Not(ErrSwing,
			"%.0f points between the ends; it takes %d, or %d with both ends off the flat part", swing, MinSwing, MinSwingSteep)
	}
	c := mah / (swing / 100)
	return Capacity{c, c * math.Hypot(startPM, endPM) / swing}, nil
}

// EquivalentCycles is the charge taken out over the rated capacity, both mAh.
func EquivalentCycles(outMAh, ratedMAh float64) float64 {
	if ratedMAh <= 0 {
		return math.NaN()
	}
	return outMAh / ratedMAh
}

// CapacityPoint is one capacity measurement in the life of a pack.
type CapacityPoint struct {
	At     time.Time `json:"at"`
	Cycles float64   `json:"cycles"` // equivalent full cycles until then
	MAh    float64   `json:"mah"`
	PM     float64   `json:"plus_minus_mah"`
}

// Outlook is the health of a pack and the day on which it meets 80 percent.
type Outlook struct {
	Points       int           `json:"points"`
	Health       *float64      `json:"health_percent"` // median of the last five over rated; nil: never measured
	SlopePer100  *float64      `json:"slope_percent_per_100_cycles"`
	AtCycles     *float64      `json:"at_cycles"` // equivalent cycles at which health meets 80 percent
	EarlyCycles  *float64      `json:"early_cycles"`
	LateCycles   *float64      `json:"late_cycles"`
	On           *time.Time    `json:"on"`
	EarlyOn      *time.Time    `json:"early_on"`
	LateOn       *time.Time    `json:"late_on"`
	Verdict      judge.Verdict `json:"verdict"`
	Sentence     string        `json:"sentence"`
	LineFromMAh  *float64      `json:"line_from_mah"` // the fitted line at the first and the last point, for a chart
	LineUntilMAh *float64      `json:"line_until_mah"`
}

// Forecast judges the capacity of a pack, measured oldest first, against its
// rated mAh, and looks ahead: a Theil-Sen line of capacity over equivalent
// cycles through the medians, met with 80 percent of rated for the slope and
// for both ends of its 90 percent interval. It needs 8 points over 20 cycles,
// and never looks further than three times the span it has seen. Days follow
// from the cycles a day over the same points. Anything else is said, not
// guessed.
func Forecast(points []CapacityPoint, rated float64) Outlook {
	o := Outlook{Points: len(points), Verdict: judge.Watch}
	if rated <= 0 || len(points) == 0 {
		o.Sentence = "Capacity has never been measured."
		return o
	}
	var last []float64
	for _, p := range points[max(0, len(points)-5):] {
		last = append(last, p.MAh)
	}
	health := robust.Median(last) / rated * 100
	o.Health = &health
	o.Verdict = judge.Clear
	said := fmt.Sprintf("Health %.0f %% of rated. ", health)
	if math.Round(health*10) < HealthRetire*10 {
		o.Verdict, o.Sentence = judge.Stop, fmt.Sprintf("Health %.0f %% of rated, under %d %%: retire it.", health,
			HealthRetire)
		return o
	}
	x, y := make([]float64, len(points)), make([]float64, len(points))
	for i, p := range points {
		x[i], y[i] = p.Cycles, p.MAh
	}
	first, end := points[0], points[len(points)-1]
	span := end.Cycles - first.Cycles
	if len(points) < ForecastPoints || span < ForecastCycles {
		o.Sentence = said + fmt.Sprintf("Not enough data for a forecast: %d of %d points over %.0f of %d cycles.",
			len(points), ForecastPoints, max(span, 0), ForecastCycles)
		return o
	}
	l, err := robust.TheilSen(x, y)
	if err != nil {
		o.Sentence = said + "Not enough data for a forecast: all points at the same cycles."
		return o
	}
	per100 := l.Slope / rated * 100 * 100
	from, until := l.At(first.Cycles), l.At(end.Cycles)
	o.SlopePer100, o.LineFromMAh, o.LineUntilMAh = &per100, &from, &until
	if l.Slope >= 0 {
		o.Sentence = said + "No decline seen."
		return o
	}
	target := rated * HealthRetire / 100
	meets := func(slope float64) *float64 {
		if slope >= 0 {
			return nil
		}
		at := l.MidX + (target-l.MidY)/slope
		if at > end.Cycles+LookAheadFactor*span {
			return nil
		}
		at = max(at, end.Cycles) // the line says now at the earliest: the measured health is still above
		return &at
	}
	days := end.At.Sub(first.At).Hours() / 24
	when := func(at *float64) *time.Time {
		if at == nil || days <= 0 {
			return nil
		}
		on := end.At.Add(time.Duration((*at - end.Cycles) / span * days * 24 * float64(time.Hour)))
		return &on
	}
	o.AtCycles, o.EarlyCycles, o.LateCycles = meets(l.Slope), meets(l.Low), meets(l.High)
	o.On, o.EarlyOn, o.LateOn = when(o.AtCycles), when(o.EarlyCycles), when(o.LateCycles)
	if o.AtCycles == nil {
		o.Sentence = said + fmt.Sprintf("It loses %.1f %% per 100 cycles; %d %% lies further ahead than these readings can tell.",
			-per100, HealthRetire)
		return o
	}
	o.Sentence = said + fmt.Sprintf("It meets %d %% at about %.0f cycles", HealthRetire, *o.AtCycles)
	if o.On != nil {
		o.Sentence += ", " + o.On.Format(time.DateOnly)
	}
	o.Sentence += " (" + end90("earliest", o.EarlyCycles, o.EarlyOn) + ", " + end90("latest", o.LateCycles,
		o.LateOn) + ")."
	if *o.AtCycles-end.Cycles <= ForecastCycles {
		o.Verdict = judge.Watch
	}
	return o
}

func end90(word string, cycles *float64, on *time.Time) string {
	switch {
	case cycles == nil:
		return word + " not in sight"
	case on == nil:
		return fmt.Sprintf("%s %.0f", word, *cycles)
	}
	return word + " " + on.Format(time.DateOnly)
}
