package pack

import (
	"fmt"
	"slices"
	"time"

	"mainstay/core/judge"
	"mainstay/core/units"
	"mainstay/core/why"
)

// Defaults of usual practice; a type profile may be stricter.
const (
	SpreadWatch       units.Millivolts = 30  // up to here clear
	SpreadStop        units.Millivolts = 100 // up to here watch, above stop
	TakeoffTempStop   units.Celsius    = 5   // colder: warm it
	TakeoffTempWatch  units.Celsius    = 15
	AfterFlightTempOK units.Celsius    = 60 // hotter after flight: stop
	CoolBelow         units.Celsius    = 45 // a landed pack warmer than this rests as "hot"
	LaunchPercent     units.Percent    = 95
	CheckValidFor                      = 24 * time.Hour
)

// Judgement is a verdict with the sentence that explains it and the limit it
// was held against.
type Judgement struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
	Against  string        `json:"against"`
}

// Spread is the highest minus the lowest cell in mV and the index (from 0) of
// the lowest cell. It fails with ErrCellCount on an empty set.
func Spread(mv []units.Millivolts) (spread units.Millivolts, lowest int, err error) {
	if len(mv) == 0 {
		return 0, 0, why.Not(ErrCellCount, "no cells")
	}
	for i, v := range mv {
		if v < mv[lowest] {
			lowest = i
		}
	}
	return slices.Max(mv) - mv[lowest], lowest, nil
}

// JudgeCells judges resting cell voltages in mV against the chemistry's limits
// and the spread of usual practice: up to 30 mV clear, up to 100 mV watch,
// above stop; any cell under damage voltage or more than 10 mV over full: stop.
// cells is the number of cells the pack has. Errors: ErrChemistry, ErrCellCount,
// ErrVolts for a value outside 500-5000 mV.
func JudgeCells(c Chemistry, cells int, mv []units.Millivolts) (Judgement, error) {
	limits, err := CellOf(c)
	if err != nil {
		return Judgement{}, err
	}
	if len(mv) != cells {
		return Judgement{}, why.Not(ErrCellCount, "%d readings for %d cells", len(mv), cells)
	}
	for i, v := range mv {
		if v < 500 || v > 5000 {
			return Judgement{}, why.Not(ErrVolts, "cell %d reads %d mV", i+1, v)
		}
	}
	spread, low, err := Spread(mv)
	if err != nil {
		return Judgement{}, err
	}
	against := fmt.Sprintf("spread to %d mV clear, to %d mV watch; cell %d-%d mV", SpreadWatch, SpreadStop, limits.Damage,
		limits.Full)
	high := slices.Max(mv)
	switch {
	case mv[low] < limits.Damage:
		return Judgement{judge.Stop,
			fmt.Sprintf("Cell %d is at %d mV, under the %d mV where %s cells are damaged. Quarantine the pack.", low+1, mv[low],
				limits.Damage, c), against}, nil
	case high > limits.Full+10:
		return Judgement{judge.Stop,
			fmt.Sprintf("Cell %d is at %d mV, over the %d mV of a full %s cell: overcharged. Quarantine the pack.",
				slices.Index(mv, high)+1, high, limits.Full, c), against}, nil
	case spread > SpreadStop:
		return Judgement{judge.Stop, fmt.Sprintf("Cells differ by %d mV; cell %d is lowest.", spread, low+1), against}, nil
	case spread > SpreadWatch:
		return Judgement{judge.Watch, fmt.Sprintf("Cells differ by %d mV; cell %d is lowest.", spread, low+1), against}, nil
	}
	return Judgement{judge.Clear, fmt.Sprintf("Cells agree within %d mV.", spread), against}, nil
}

// JudgeLaunch judges a charge in percent against the level a flight starts
// with. The uncertainty counts against the pack: what may be too low is Watch.
func JudgeLaunch(percent, plusMinus, launch units.Percent) Judgement {
	against := fmt.Sprintf("at least %g %% at take-off", float64(launch))
	shown := fmt.Sprintf("%.0f %%", float64(percent))
	if plusMinus >= 0.5 {
		shown = fmt.Sprintf("%.0f ± %.0f %%", float64(percent), float64(plusMinus))
	}
	switch {
	case !(percent >= 0 && percent <= 101) || !(plusMinus >= 0 && plusMinus <= 100) || !(launch >= 0 && launch <= 100):
		return Judgement{judge.Stop, "The charge is no level between 0 and 100 %: read it again.", against}
	case percent < launch:
		return Judgement{judge.Stop, fmt.Sprintf("Charge is %s, under %g %%. Charge it.", shown, float64(launch)), against}
	case percent-plusMinus < launch-1:
		return Judgement{judge.Watch, fmt.Sprintf("Charge is %s; it may be under %g %%.", shown, float64(launch)), against}
	}
	return Judgement{judge.Clear, fmt.Sprintf("Charge is %s.", shown), against}
}

// JudgeTakeoffTemperature judges the temperature of a pack before take-off:
// under 5 degC stop, under 15 watch, over 60 stop.
func JudgeTakeoffTemperature(t units.Celsius) Judgement {
	against := "5-60 °C, better over 15 °C"
	switch {
	case !sensible(t):
		return noTemperature(against)
	case t < TakeoffTempStop:
		return Judgement{judge.Stop, fmt.Sprintf("Pack is at %.0f °C: warm it before flight.", float64(t)), against}
	case t > AfterFlightTempOK:
		return Judgement{judge.Stop, fmt.Sprintf("Pack is at %.0f °C: let it cool.", float64(t)), against}
	case t < TakeoffTempWatch:
		return Judgement{judge.Watch, fmt.Sprintf("Pack is at %.0f °C and will sag early.", float64(t)), against}
	}
	return Judgement{judge.Clear, fmt.Sprintf("Pack is at %.0f °C.", float64(t)), against}
}

// JudgeLandedTemperature judges a pack after landing: over 60 degC stop, over
// 45 watch (it cools before it is charged).
func JudgeLandedTemperature(t units.Celsius) Judgement {
	against := "up to 60 °C after flight"
	switch {
	case !sensible(t):
		return noTemperature(against)
	case t > AfterFlightTempOK:
		return Judgement{judge.Stop, fmt.Sprintf("Pack came back at %.0f °C: out of use until the cause is found.",
			float64(t)), against}
	case t > CoolBelow:
		return Judgement{judge.Watch, fmt.Sprintf("Pack is at %.0f °C: let it cool before charging.", float64(t)), against}
	}
	return Judgement{judge.Clear, fmt.Sprintf("Pack is at %.0f °C.", float64(t)), against}
}

// sensible reports whether a thermometer can show t.
func sensible(t units.Celsius) bool { return t >= -60 && t <= 200 }

func noTemperature(against string) Judgement {
	return Judgement{judge.Stop, "The temperature of the pack is none that a pack can have: read it again.", against}
}
