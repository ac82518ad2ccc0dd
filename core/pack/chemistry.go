// Package pack judges flight batteries: charge from resting volts, spread
// between cells, launch level, temperature, and the states a pack may move
// through. Volts are whole millivolts per cell, temperatures degC.
package pack

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/units"
	"mainstay/core/why"
)

// Chemistry is the kind of cell a pack is built from.
type Chemistry string

// The chemistries with shipped limits.
const (
	LiPo  Chemistry = "LiPo"
	LiHV  Chemistry = "LiHV"
	LiIon Chemistry = "Li-ion"
)

// AllChemistries lists every chemistry with shipped limits.
var AllChemistries = []Chemistry{LiPo, LiHV, LiIon}

// Cell holds the voltages of one cell of a chemistry, in mV: charged full,
// nominal, storage, lowest under load in flight, and the voltage below which
// the cell is damaged. Usual practice; the maker's manual wins.
type Cell struct {
	Full, Nominal, Storage, LandBy, Damage units.Millivolts
}

var cells = map[Chemistry]Cell{
	LiPo:  {4200, 3700, 3800, 3500, 3000},
	LiHV:  {4350, 3800, 3850, 3500, 3000},
	LiIon: {4200, 3600, 3650, 3100, 2500},
}

// Errors that callers tell apart.
var (
	ErrChemistry = errors.New("unknown chemistry")
	ErrNoTable   = errors.New("no table of resting volts for this chemistry")
	ErrNotRested = errors.New("the pack has not rested for 30 minutes")
	ErrVolts     = errors.New("cell voltage out of range")
	ErrCellCount = errors.New("wrong number of cells")
	ErrMove      = errors.New("move not allowed")
	ErrCurrent   = errors.New("current must be 0.5-1000 A")
	ErrSwing     = errors.New("not a capacity measurement")
)

// CellOf returns the voltages of one cell, or ErrChemistry.
func CellOf(c Chemistry) (Cell, error) {
	v, ok := cells[c]
	if !ok {
		return Cell{}, fmt.Errorf("%w %q", ErrChemistry, c)
	}
	return v, nil
}

type point struct {
	mv      units.Millivolts
	percent float64
}

// Resting LiPo charge by cell voltage, from full to empty. Common practice for
// lithium polymer cells at room temperature; only valid after 30 min rest.
var restingLiPo = []point{
	{4200, 100}, {4150, 95}, {4110, 90}, {4080, 85}, {4020, 80}, {3980, 75}, {3950, 70}, {3910, 65}, {3870, 60},
	{3850, 55}, {3840, 50}, {3820, 45}, {3800, 40}, {3790, 35}, {3770, 30}, {3750, 25}, {3730, 20}, {3710, 15},
	{3690, 10}, {3610, 5}, {3270, 0},
}

// RestMinutes is how long a pack must have rested for volts to tell charge.
const RestMinutes = 30

// Charge is a state of charge with its uncertainty.
type Charge struct {
	Percent     units.Percent `json:"percent"`
	PlusMinus   units.Percent `json:"plus_minus"` // from +/- 10 mV of the instrument
	Overcharged bool          `json:"overcharged"`
}

// PercentFromVolts returns the charge of one cell, in percent 0-100, from its
// resting voltage in mV after restedMin minutes without load.
//
//	linear between the points of the table; above full: 100 and Overcharged
//
// The uncertainty is half the change over +/- 10 mV, so that the flat middle
// of the curve (3.71-3.87 V) shows its 2.5-5 points per 10 mV. Valid 500-5000 mV.
// Errors: ErrNoTable for a chemistry other than LiPo, ErrNotRested, ErrVolts.
func PercentFromVolts(c Chemistry, mv units.Millivolts, restedMin float64) (Charge, error) {
	if c != LiPo {
		return Charge{}, why.Not(ErrNoTable, "%s", c)
	}
	if !(restedMin >= RestMinutes && restedMin <= 10*365*24*60) {
		return Charge{}, ErrNotRested
	}
	if mv < 500 || mv > 5000 {
		return Charge{}, why.Not(ErrVolts, "%d mV", mv)
	}
	p := lookup(mv)
	pm := max(math.Abs(lookup(mv+10)-p), math.Abs(p-lookup(mv-10)))
	return Charge{units.Percent(p), units.Percent(pm), mv > restingLiPo[0].mv}, nil
}

func lookup(mv units.Millivolts) float64 {
	t := restingLiPo
	if mv >= t[0].mv {
		return t[0].percent
	}
	for i := 1; i < len(t); i++ {
		if mv >= t[i].mv {
			hi, lo := t[i-1], t[i]
			return lo.percent + (hi.percent-lo.percent)*float64(mv-lo.mv)/float64(hi.mv-lo.mv)
		}
	}
	return 0
}
