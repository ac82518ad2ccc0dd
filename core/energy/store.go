package energy

import (
	"math"

	"mainstay/core/robust"
)

// ColdFrom and ColdTo bound the temperatures for which the loss is known, degC.
const (
	ColdTo   = -10.0
	ColdFrom = 20.0
)

// cold is the share of its capacity that a pack gives at a temperature, by 10
// degC from -10 (usual values for lithium polymer; the maker's win).
var cold = []float64{0.70, 0.85, 0.95, 1}

// Cold is the share of its energy that a pack gives at its temperature, linear
// between 0.70 at -10 degC, 0.85 at 0, 0.95 at 10 and 1 from 20 on. Colder than
// -10 degC or hotter than 80 is an error: nothing is known there.
func Cold(packC float64) (float64, error) {
	if err := within("pack temperature", packC, ColdTo, 80); err != nil {
		return 0, err
	}
	if packC >= ColdFrom {
		return 1, nil
	}
	at := (packC - ColdTo) / 10
	i := int(at)
	return cold[i] + (cold[i+1]-cold[i])*(at-float64(i)), nil
}

// Pack is a flight battery as it goes aboard.
type Pack struct {
	AmpereHours float64 // rated
	Volts       float64 // nominal
	Health      float64 // capacity now over rated, 0-1
	Celsius     float64 // of the pack
	Percent     float64 // now
}

// Full is what it gives from full to empty today, Wh.
func (p Pack) Full() (float64, error) {
	share, err := Cold(p.Celsius)
	if err != nil {
		return 0, err
	}
	for _, e := range []error{within("capacity", p.AmpereHours, 0.1, 1000), within("voltage", p.Volts, 1, 1000),
		within("health", p.Health, 0.05, 1.2), within("level", p.Percent, 0, 100)} {
		if e != nil {
			return 0, e
		}
	}
	return p.AmpereHours * p.Volts * p.Health * share, nil
}

// Store is what the packs of a flight give together.
type Store struct {
	FullWh  float64 // from full to empty
	Percent float64 // now, of the weakest
}

// Together adds packs that fly together. They are drawn down alike, so that the
// weakest, the least energy and the lowest level among them, sets what all give.
// None is an error.
func Together(packs []Pack) (Store, error) {
	if len(packs) == 0 {
		return Store{}, refuse("no pack")
	}
	weakest, least := math.Inf(1), math.Inf(1)
	for _, p := range packs {
		full, err := p.Full()
		if err != nil {
			return Store{}, err
		}
		weakest, least = min(weakest, full), min(least, p.Percent)
	}
	return Store{FullWh: weakest * float64(len(packs)), Percent: least}, nil
}

// Usable is what may be taken out before a reserve in percent is reached, Wh;
// never under 0.
func (s Store) Usable(reservePercent float64) float64 {
	return s.FullWh * max(0, s.Percent-reservePercent) / 100
}

// PercentOf is an energy as percent of the full packs.
func (s Store) PercentOf(wh float64) float64 { return wh / s.FullWh * 100 }

// From how many flights, of how many last, an airframe's own efficiency is taken.
const (
	LeastFlights = 5
	LastFlights  = 10
)

// Why a flight is left out of what an airframe learns.
type Left string

// The reasons.
const (
	Used       Left = ""
	NoCapacity Left = "no measured use" // no level or no count from the pack
	NoMass     Left = "no mass"
	NoPlan     Left = "no prediction"
	TooShort   Left = "under 3 minutes"
	TooLittle  Left = "under 10 percent used"
	Strange    Left = "does not fit the others"
)

// AllLeft lists the reasons.
var AllLeft = []Left{NoCapacity, NoMass, NoPlan, TooShort, TooLittle, Strange}

// Bounds of a flight that says something about the airframe.
const (
	LeastSeconds = 180.0
	LeastUsed    = 10.0 // percent of the packs
	LowestShare  = 0.4  // of the prediction
	HighestShare = 2.5
)

// Flown is one logged flight as it is learned from.
type Flown struct {
	Seconds     float64
	UsedPercent float64  // of the packs
	MassKg      *float64 // nil: not known
	MeasuredWh  *float64 // capacity used times mean voltage; nil: not known
	PredictedWh *float64 // by the model with the type's efficiency; nil: not known
}

// Judge says whether a flight is learned from, and why not. What is far from any
// prediction is a flight that was not the one planned.
func (f Flown) Judge() Left {
	switch {
	case f.MassKg == nil:
		return NoMass
	case f.MeasuredWh == nil || !(*f.MeasuredWh > 0):
		return NoCapacity
	case f.PredictedWh == nil || !(*f.PredictedWh > 0):
		return NoPlan
	case !(f.Seconds >= LeastSeconds):
		return TooShort
	case !(f.UsedPercent >= LeastUsed):
		return TooLittle
	case *f.MeasuredWh < LowestShare**f.PredictedWh || *f.MeasuredWh > HighestShare**f.PredictedWh:
		return Strange
	}
	return Used
}

// Learned is what an airframe's flights say of it.
type Learned struct {
	Count      int     `json:"count"`      // flights used, at most LastFlights
	Efficiency float64 `json:"efficiency"` // of the hover, or of what drives a wing
	Spread     float64 `json:"spread"`     // median absolute deviation of it
	Own        bool    `json:"own"`        // its own; false: the type's, for too few flights
}

// Learn takes the efficiency of an airframe from its last usable flights, given
// oldest first: the median of type's x predicted/measured over the last 10, from
// 5 on. typeEfficiency is what the predictions were made with.
func Learn(typeEfficiency float64, flights []Flown) Learned {
	var own []float64
	for _, f := range flights {
		if f.Judge() == Used {
			own = append(own, typeEfficiency**f.PredictedWh / *f.MeasuredWh)
		}
	}
	own = own[max(0, len(own)-LastFlights):]
	if len(own) < LeastFlights {
		return Learned{Count: len(own), Efficiency: typeEfficiency}
	}
	return Learned{Count: len(own), Efficiency: robust.Median(own), Spread: robust.MAD(own), Own: true}
}
