// Package site holds what is known about a place of work: areas, take-off
// places, obstacles, and what else matters around them, and judges it.
package site

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/why"
)

// Kind is what a feature is.
type Kind string

// The kinds of feature.
const (
	Work         Kind = "area"         // where the work is
	NoGo         Kind = "no-go"        // where nobody flies
	TakeOff      Kind = "take-off"     // take-off and landing place
	Obstacle     Kind = "obstacle"     // something that stands there
	Wires        Kind = "wires"        // spans between poles
	Interference Kind = "interference" // disturbs compass or positioning
	Sensitive    Kind = "sensitive"    // bees, houses, water, organic fields, people
	Access       Kind = "access"       // the way in
	Route        Kind = "route"        // the way that is flown
)

// AllKinds lists the kinds in the order they are shown.
var AllKinds = []Kind{Work, NoGo, TakeOff, Route, Obstacle, Wires, Interference, Sensitive, Access}

// Shape is how a feature lies on the map.
type Shape string

// The shapes.
const (
	Point Shape = "point"
	Line  Shape = "line"
	Area  Shape = "area"
)

// shapes are the shapes a kind may have.
var shapes = map[Kind][]Shape{
	Work: {Area}, NoGo: {Area}, TakeOff: {Point}, Obstacle: {Point, Line, Area}, Wires: {Line}, Interference: {Point, Line,
		Area}, Sensitive: {Point, Line, Area}, Access: {Point, Line}, Route: {Line},
}

// Structure marks an obstacle that people built; the rule of height near
// structures knows no others.
const Structure = "structure"

// WherePeopleAre reports whether something sensitive may be a place where people
// live, work or rest: all is that does not plainly say that it is something else.
func WherePeopleAre(what string) bool {
	w := strings.ToLower(what)
	for _, other := range []string{"bee", "water", "organic", "field", "crop", "stock", "cattle", "bird"} {
		if strings.Contains(w, other) {
			return strings.Contains(w, "house") || strings.Contains(w, "people")
		}
	}
	return true
}

// Ways a height may have been measured.
var Measured = []string{"", "known", "clinometer", "two stations", "shadow", "map", "estimate", "flown"}

// Feature is one thing on the map of a site.
type Feature struct {
	ID       string        `json:"id"`
	Kind     Kind          `json:"kind"`
	Name     string        `json:"name"`
	Shape    Shape         `json:"shape"`
	Places   []geo.Point   `json:"places"`
	Holes    [][]geo.Point `json:"holes,omitempty"`
	HeightM  *float64      `json:"height_m,omitempty"` // obstacle, wires: above its ground; nil not known
	SigmaM   float64       `json:"sigma_m,omitempty"`
	BufferM  float64       `json:"buffer_m,omitempty"`
	SagM     float64       `json:"sag_m,omitempty"`    // wires: how far the span hangs under its poles
	Measured string        `json:"measured,omitempty"` // how the height was found
	// sensitive: bees, houses, ...; interference: mast, power line, ...; obstacle: structure, or empty
	What    string       `json:"what,omitempty"`
	Main    bool         `json:"main,omitempty"`      // take-off: the main place
	Ground  *GroundCheck `json:"ground,omitempty"`    // take-off: what was found there
	Free    []float64    `json:"free_deg,omitempty"`  // take-off: headings free for climb-out and approach, degrees true
	Note    string       `json:"note,omitempty"`      //
	Heights []Height     `json:"heights,omitempty"`   // earlier measurements, oldest first
	GroundM *float64     `json:"elevation,omitempty"` // elevation of the ground when the terrain does not say

	// Of a file that is read, for whoever brings it in; never stored.
	Guessed bool     `json:"-"` // it names no kind: that was taken from the shape
	Unread  []string `json:"-"` // names of its fields that mean nothing here
}

// Height is an earlier measurement of a height.
type Height struct {
	M        *float64 `json:"m"`
	SigmaM   float64  `json:"sigma_m"`
	Measured string   `json:"measured"`
	By       string   `json:"by"`
	At       string   `json:"at"` // RFC 3339
}

// GroundCheck is what was found at a take-off place. nil is not looked at.
type GroundCheck struct {
	Flat      *bool `json:"flat"`
	Firm      *bool `json:"firm"`
	Clear     *bool `json:"clear"`
	NoPlastic *bool `json:"no_plastic"` // no loose plastic, film or sheets
	NoDust    *bool `json:"no_dust"`
	NoPeople  *bool `json:"no_people"` // away from roads and crowds
}

// ErrFeature is wrapped by every refusal.
var ErrFeature = errors.New("feature not usable")

// Limits of one feature.
const (
	MaxPlaces = 2000
	MaxName   = 120
)

// Check says what is wrong with a feature, in words for people.
func (f Feature) Check() error {
	bad := func(format string, a ...any) error {
		name := f.Name
		if name == "" {
			name = string(f.Kind)
		}
		return why.Not(ErrFeature, "%s: %s", name, fmt.Sprintf(format, a...))
	}
	allowed, ok := shapes[f.Kind]
	switch {
	case !ok:
		return bad("%q is none of the kinds of feature", f.Kind)
	case !slices.Contains(allowed, f.Shape):
		return bad("a %s cannot be a %s", f.Kind, f.Shape)
	case len(f.Name) > MaxName || len(f.What) > MaxName || len(f.Note) > 4000:
		return bad("its words are too long")
	case len(f.Places) > MaxPlaces:
		return bad("it has %d places, at most %d are taken", len(f.Places), MaxPlaces)
	case f.Shape == Point && len(f.Places) != 1:
		return bad("a point has one place")
	case f.Shape == Line && len(f.Places) < 2:
		return bad("a line has at least two places")
	case len(f.Places) < 1 || f.Shape == Area && len(f.Places) < 3:
		return bad("an area has at least three corners")
	case f.Shape != Area && len(f.Holes) > 0:
		return bad("only an area has holes")
	case f.HeightM != nil && !(*f.HeightM >= 0 && *f.HeightM <= 1000):
		return bad("its height %g m is not between 0 and 1000; heights are metres", *f.HeightM)
	case !(f.SigmaM >= 0 && f.SigmaM <= 200) || !(f.BufferM >= 0 && f.BufferM <= 1000) || !(f.SagM >= 0 && f.SagM <= 100):
		return bad("uncertainty, buffer or sag is out of range")
	case f.GroundM != nil && !(*f.GroundM >= -500 && *f.GroundM <= 6000):
		return bad("its elevation %g m is out of range", *f.GroundM)
	case !slices.Contains(Measured, f.Measured):
		return bad("%q is no way to measure a height", f.Measured)
	case slices.ContainsFunc(f.Free, func(d float64) bool { return !(d >= 0 && d < 360) }):
		return bad("free headings are 0 to under 360 degrees")
	}
	for _, p := range slices.Concat(append([][]geo.Point{f.Places}, f.Holes...)...) {
		if err := p.Check(); err != nil {
			return bad("%s", why.Words(err))
		}
	}
	return f.checkPlane(bad)
}

func (f Feature) checkPlane(bad func(string, ...any) error) error {
	frame, err := geo.NewFrame(f.Places[0])
	if err != nil {
		return bad("%s", why.Words(err))
	}
	plane := frame.All(f.Places)
	for _, p := range plane {
		if p.Len() > MaxSpan {
			return bad("it reaches over %d km; a site is smaller", int(MaxSpan/1000))
		}
	}
	if f.Shape != Area {
		return nil
	}
	a := geo.Area{Outline: plane}
	for _, h := range f.Holes {
		a.Holes = append(a.Holes, frame.All(h))
	}
	if err := a.Check(); err != nil {
		return bad("%s", why.Words(err))
	}
	return nil
}

// Near refuses a feature with a place more than MaxSpan from the origin of its
// site: it belongs to another site, or its latitude and longitude are swapped.
func (f Feature) Near(origin geo.Point) error {
	for _, p := range slices.Concat(append([][]geo.Point{f.Places}, f.Holes...)...) {
		d := geo.Distance(p, origin)
		if d <= MaxSpan {
			continue
		}
		reason := "it belongs to another site"
		if turned := (geo.Point{Lat: p.Lon, Lon: p.Lat}); turned.Check() == nil && geo.Distance(turned, origin) <= MaxSpan {
			reason = "its latitude and longitude are swapped"
		}
		return why.Not(ErrFeature, "it lies %.0f km from the site: %s", d/1000, reason)
	}
	return nil
}

// MaxSpan is the largest reach of a site, m.
const MaxSpan = 30_000.0

// Area is an area feature in a frame.
func (f Feature) Area(frame geo.Frame) geo.Area {
	a := geo.Area{Outline: frame.All(f.Places)}
	for _, h := range f.Holes {
		a.Holes = append(a.Holes, frame.All(h))
	}
	return a
}

// UsualBuffer is kept around what stands there when nothing is set, m: wires
// more than others, since they are seen last.
var UsualBuffer = map[Kind]float64{Obstacle: 5, Wires: 15}

// Buffer is what is kept clear around the feature, m: its own, or else the
// usual one of its kind.
func (f Feature) Buffer() float64 {
	if f.BufferM > 0 {
		return f.BufferM
	}
	return UsualBuffer[f.Kind]
}

// Standing turns obstacles and wires into what the way home is judged against.
// The ground they stand on is the highest anywhere under them: of the terrain,
// or of their own elevation where that is higher; where neither says anything it
// is fallback and counts as not known. A span's sag is left out: its poles are
// the highest.
func Standing(features []Feature, frame geo.Frame, terrain *home.Terrain, fallback float64) []home.Obstacle {
	out := []home.Obstacle{}
	for _, f := range features {
		if f.Kind != Obstacle && f.Kind != Wires {
			continue
		}
		o := home.Obstacle{ID: f.ID, Name: f.Name, Kind: map[Shape]home.Kind{Point: home.PointKind, Line: home.LineKind,
			Area: home.AreaKind}[f.Shape], Places: frame.All(f.Places),
			HeightM: f.HeightM, SigmaM: f.SigmaM, BufferM: f.Buffer(), Wire: f.Kind == Wires}
		if o.Name == "" {
			o.Name = "an unnamed " + string(f.Kind)
		}
		under := terrain.UnderShape(o.Kind, o.Places, 0)
		o.GroundM, o.GroundKnown = under.HighM, under.Known
		if f.GroundM != nil {
			o.GroundM, o.GroundKnown = max(o.GroundM, *f.GroundM), true
		}
		if math.IsInf(o.GroundM, -1) {
			o.GroundM = fallback
		}
		o.GroundKnown = o.GroundKnown || terrain == nil // said once for the whole site
		out = append(out, o)
	}
	return out
}

// Refused is a feature of a file that was not taken.
type Refused struct {
	Number int    // of the feature in the file, from 1
	Name   string //
	Why    string // for people
}

// MaxFeatures is the most features a site may have.
const MaxFeatures = 20_000

// FeetM is one foot in metres.
const FeetM = 0.3048
