// Package intent is one flight as it will be flown: places, route with its
// heights, return height, mass, and what people decided about it. Site, way
// home, weather, airspace, briefing and gate all judge this one thing. Heights
// are metres, masses kg, times UTC.
package intent

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/why"
)

// Datum is what the height of a route is counted from.
type Datum string

// The datums.
const (
	AboveTakeOff Datum = "take-off" // level, above the take-off place
	AboveGround  Datum = "ground"   // follows the ground or the crop
	AboveSea     Datum = "sea"      // level, above sea level
)

// AllDatums lists the datums.
var AllDatums = []Datum{AboveTakeOff, AboveGround, AboveSea}

// Words is the datum as people say it.
func (d Datum) Words() string {
	return map[Datum]string{AboveTakeOff: "above take-off", AboveGround: "above the ground",
		AboveSea: "above sea level"}[d]
}

// Usual is the datum of a kind of work when nobody chose one: a sprayer follows
// the crop.
func Usual(work string) Datum {
	if work == "spraying" {
		return AboveGround
	}
	return AboveTakeOff
}

// Flight is a flight as it will be flown; nil and "" are not known or not
// chosen.
type Flight struct {
	Work        string
	TakeOff     string   // id of the take-off place; "": the main one of the site
	Landing     string   // id; "": where it takes off
	Second      string   // id of the second landing place
	RouteM      *float64 // height of the route; nil: the type's usual
	Datum       Datum    // "": usual for the work
	ReturnM     *float64 // return height set in the aircraft, above take-off
	HomeFollows bool
	LostLink    LostLink
	MassKg      *float64 // take-off mass of today
	Plan        *Plan    // what it flies by; nil: along what is charted
	Decided     []Decision
}

// Plan is the route of a planned work: its passes in the order flown, and where each
// of its flights begins.
type Plan struct {
	Passes  []geo.Point `json:"passes"` // two for each: where it begins and ends
	Starts  []geo.Point `json:"starts"` // of the flights that are left; empty: where the first pass begins
	SpeedMS float64     `json:"speed_ms"`
	// Around are the ids of the features that are flown round on purpose, from which the
	// plan itself keeps its distance: its legs are not held against them, the way home is.
	Around []string `json:"around,omitempty"`
	Spots  bool     `json:"spots,omitempty"` // every pass is one place, a waypoint of the mission
}

// Check refuses a route that cannot be flown.
func (p Plan) Check() error {
	if len(p.Passes) < 2 || len(p.Passes)%2 != 0 || len(p.Passes) > 2*MostPasses || len(p.Starts) > MostPasses ||
		!(p.SpeedMS > 0 && p.SpeedMS <= 60) {
		return why.Not(ErrFlight, "a planned route has passes of two ends, at most %d, and a speed", MostPasses)
	}
	for _, at := range slices.Concat(p.Passes, p.Starts) {
		if err := at.Check(); err != nil {
			return why.Not(ErrFlight, "a place of the planned route: %w", err)
		}
	}
	return nil
}

// MostPasses bounds a planned route.
const MostPasses = 5000

// ErrFlight is wrapped by every refusal.
var ErrFlight = errors.New("flight not usable")

// Check refuses numbers that can never be.
func (f Flight) Check() error {
	num := func(name string, v *float64, lo, hi float64) error {
		if v != nil && !(*v >= lo && *v <= hi) {
			return why.Not(ErrFlight, "%s %g is not between %g and %g", name, *v, lo, hi)
		}
		return nil
	}
	if f.Datum != "" && !slices.Contains(AllDatums, f.Datum) {
		return why.Not(ErrFlight, "%q is none of %v", f.Datum, AllDatums)
	}
	if f.LostLink != "" && !slices.Contains(AllLostLinks, f.LostLink) {
		return why.Not(ErrFlight, "%q is none of %v", f.LostLink, AllLostLinks)
	}
	if f.Plan != nil {
		if err := f.Plan.Check(); err != nil {
			return err
		}
	}
	most := 500.0
	if f.Datum == AboveSea {
		most = 7000
	}
	return errors.Join(num("the height of the route", f.RouteM, -500, most), num("the return height", f.ReturnM, 0, 500),
		num("the mass", f.MassKg, 0.05, 1000))
}

// Kind is what a person may decide about a flight.
type Kind string

// The decisions.
const (
	ByHand      Kind = "by-hand"       // fly it by hand to the start of the route
	HoldAndLook Kind = "hold-and-look" // hold at the start of the route and look with the camera
	WayRound    Kind = "way-round"     // take the proposed way round into the route
	OtherPlace  Kind = "other-place"   // take off from another place
	SetReturn   Kind = "set-return"    // set the recommended return height in the aircraft
	LevelGround Kind = "level-ground"  // the ground that no terrain covers was looked at and is level
)

// AllKinds lists the decisions.
var AllKinds = []Kind{ByHand, HoldAndLook, WayRound, OtherPlace, SetReturn, LevelGround}

// Words is the decision as people say it.
func (k Kind) Words() string {
	return map[Kind]string{ByHand: "fly by hand to the start of the route",
		HoldAndLook: "hold at the start of the route and look with the camera", WayRound: "take the way round into the route",
		OtherPlace: "take off from another place", SetReturn: "set the return height",
		LevelGround: "the ground was looked at and is level"}[k]
}

// Decision is what a named person put on record about a flight.
type Decision struct {
	ID     string      `json:"id"`
	Kind   Kind        `json:"kind"`
	Reason string      `json:"reason"`
	By     string      `json:"by"`
	At     time.Time   `json:"at"`
	Basis  string      `json:"basis"` // what it rests on; when that changes it is void
	Way    []geo.Point `json:"way,omitempty"`
}

// Says is the decision as a finding quotes it.
func (d Decision) Says() string {
	return fmt.Sprintf("Decided by %s at %s UTC: %s, because %s.", d.By, d.At.UTC().Format("2006-01-02 15:04"),
		d.Kind.Words(), strings.TrimRight(strings.TrimSpace(d.Reason), "."))
}

// About finds the newest decision of one of the kinds that rests on a basis,
// and whether there is one that rested on something else.
func (f Flight) About(basis string, kinds ...Kind) (found *Decision, void *Decision) {
	for i := range f.Decided {
		d := &f.Decided[i]
		switch {
		case !slices.Contains(kinds, d.Kind):
		case d.Basis == basis:
			if found == nil || d.At.After(found.At) {
				found = d
			}
		case void == nil || d.At.After(void.At):
			void = d
		}
	}
	return found, void
}

// Least heights over the ground and over what stands there, m (usual practice;
// a type's own win).
const (
	LeastSprayingM = 1.5
	LeastCloseM    = 3.0  // inspection
	LeastRouteM    = 15.0 // mapping, and a wing at any work
	LeastOverM     = 10.0 // over an obstacle
)

// LeastGround is the least height over the ground that a route keeps.
func LeastGround(t airframe.Type, work string) float64 {
	switch wing := t.Geometry.Kind == airframe.FixedWing || t.Geometry.Kind == airframe.VerticalWing; {
	case t.Limits.LeastGroundM > 0:
		return float64(t.Limits.LeastGroundM)
	case wing || work == "mapping":
		return LeastRouteM
	case work == "spraying":
		return LeastSprayingM
	}
	return LeastCloseM
}

// LeastOver is the least height over what stands there.
func LeastOver(t airframe.Type) float64 {
	if t.Limits.LeastOverM > 0 {
		return float64(t.Limits.LeastOverM)
	}
	return LeastOverM
}

// Level is the elevation of a level route over take-off at homeM.
func Level(d Datum, routeM, homeM float64) float64 {
	if d == AboveSea {
		return routeM
	}
	return homeM + routeM
}

// finite is a number.
func finite(v float64) bool { return !math.IsNaN(v) && !math.IsInf(v, 0) }
