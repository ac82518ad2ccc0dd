// Package rotation simulates a day of flying: aircraft that fly, swap packs and
// are filled, packs that cool, wait and charge, chargers behind a generator, and
// hands. It says when the work is done, what was waited for, and what one more of
// each would gain. Times are seconds from the start of the day, energies Wh,
// powers W.
package rotation

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/energy"
	"mainstay/core/why"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("rotation: input not usable")

// Sortie is a flight to be made.
type Sortie struct {
	Seconds float64 `json:"seconds"` // in the air
	Wh      float64 `json:"wh"`      // out of its packs together
	Done    float64 `json:"done"`    // hectares, or metres of line, that it does
	Fill    bool    `json:"fill"`    // it is filled before
}

// Day is what is there to do the work.
type Day struct {
	Sorties  []Sortie `json:"sorties"`  // in the order they are to be made
	Aircraft int      `json:"aircraft"` // that share them
	// Sets of packs that fly together, all alike, full at the start.
	Sets       int     `json:"sets"`
	PerSet     int     `json:"per_set"`
	PackWh     float64 `json:"pack_wh"`   // of one pack, from full to empty
	ChargeTo   float64 `json:"charge_to"` // percent at which a pack flies again
	CoolS      float64 `json:"cool_s"`    // from landing until it may be charged
	Channels   int     `json:"channels"`
	ChannelW   float64 `json:"channel_w"`
	GeneratorW float64 `json:"generator_w"` // 0: no limit
	Hands      int     `json:"hands"`
	SwapS      float64 `json:"swap_s"` // packs changed and the aircraft looked at
	FillS      float64 `json:"fill_s"`
	DayS       float64 `json:"day_s"` // when the day is over; 0: it is not
}

// Bounds of a day.
const (
	MostSorties  = 2000
	MostAircraft = 50
	MostSets     = 500
	MostChannels = 200
	MostHands    = 50
)

// Check refuses a day that cannot be simulated.
func (d Day) Check() error {
	count := func(name string, v, least, most int) error {
		if v < least || v > most {
			return why.Not(ErrInput, "%d %s; %d to %d are taken", v, name, least, most)
		}
		return nil
	}
	number := func(name string, v, least, most float64) error {
		if !(v >= least && v <= most) {
			return why.Not(ErrInput, "%s %g is not between %g and %g", name, v, least, most)
		}
		return nil
	}
	err := errors.Join(count("sorties", len(d.Sorties), 1, MostSorties), count("aircraft", d.Aircraft, 1, MostAircraft),
		count("sets of packs", d.Sets, 1, MostSets), count("packs in a set", d.PerSet, 1, 12),
		count("channels", d.Channels, 0, MostChannels), count("hands", d.Hands, 1, MostHands), number("energy of a pack",
			d.PackWh, 1, 1e5), number("level after a charge", d.ChargeTo, 10, 100), number("cooling", d.CoolS, 0, 86400),
		number("power of a channel", d.ChannelW, 0, 1e6), number("power of the generator", d.GeneratorW, 0,
			1e7), number("swap", d.SwapS, 0, 86400), number("fill", d.FillS, 0, 86400), number("length of the day", d.DayS, 0,
			7*86400))
	for i, s := range d.Sorties {
		full := d.PackWh * float64(d.PerSet) * d.ChargeTo / 100
		err = errors.Join(err, number(fmt.Sprintf("minutes of sortie %d", i+1), s.Seconds, 1, 86400),
			number(fmt.Sprintf("energy of sortie %d", i+1), s.Wh, 0, full),
			number(fmt.Sprintf("what sortie %d does", i+1), s.Done, 0, 1e7))
	}
	return err
}

// Cause is what an aircraft waited for.
type Cause string

// The causes.
const (
	ForPacks Cause = "packs"
	ForHands Cause = "hands"
)

// Doing is what a thing does over a stretch of the day.
type Doing string

// What aircraft and sets do.
const (
	Swapping  Doing = "swap"
	Filling   Doing = "fill"
	Flying    Doing = "fly"
	WaitPacks Doing = "wait-packs"
	WaitHands Doing = "wait-hands"
	Cooling   Doing = "cool"
	Queueing  Doing = "wait-charger"
	Charging  Doing = "charge"
)

// Stretch is a part of the timeline.
type Stretch struct {
	Of     string  `json:"of"`     // "aircraft" or "set"
	Number int     `json:"number"` // from 1
	Doing  Doing   `json:"doing"`
	From   float64 `json:"from_s"`
	To     float64 `json:"to_s"`
	Sortie int     `json:"sortie"` // from 1; 0 of none
}

// Run is a day as it went.
type Run struct {
	Line    []Stretch         `json:"line"`
	EndS    float64           `json:"end_s"` // when the last aircraft landed
	Flown   int               `json:"flown"`
	Done    float64           `json:"done"`
	PerHour float64           `json:"per_hour"`
	WaitedS map[Cause]float64 `json:"waited_s"` // all aircraft together
	QueueS  float64           `json:"queue_s"`  // sets waited for a channel
	AllDone bool              `json:"all_done"` // before the day was over
}

// chargeSeconds is how long one channel charges one pack that gave wh.
func (d Day) chargeSeconds(wh float64) (float64, error) {
	from := d.ChargeTo - wh/d.PackWh*100
	t, err := energy.ChargeTime(d.PackWh, d.ChannelW, max(0, from), d.ChargeTo)
	return t.Seconds(), err
}

// ErrStuck is wrapped when the work can never end: no set will be ready again.
var ErrStuck = errors.New("rotation: the work never ends")

// Simulate lets a day pass. Who is ready first goes first; what is ready at once
// goes in the order of its number. Errors wrap ErrInput, or ErrStuck when packs
// run out and nothing charges them.
func (d Day) Simulate() (Run, error) {
	if err := d.Check(); err != nil {
		return Run{}, err
	}
	s := newState(d)
	for {
		s.dispatch()
		if !s.step() {
			break
		}
	}
	if s.next < len(d.Sorties) && !s.over {
		return s.finish(), why.Not(ErrStuck, "after %d of %d sorties no set of packs is charged again", s.run.Flown,
			len(d.Sorties))
	}
	return s.finish(), nil
}

func (s *state) finish() Run {
	r := s.run
	r.AllDone = r.Flown == len(s.d.Sorties)
	if r.EndS > 0 {
		r.PerHour = r.Done / r.EndS * 3600
	}
	return r
}

// longest is the greatest of times; 0 of none.
func longest(v ...float64) float64 {
	m := 0.0
	for _, x := range v {
		m = math.Max(m, x)
	}
	return m
}
