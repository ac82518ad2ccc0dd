package mission

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/judge"
)

// How far what was read may lie from what was planned.
const (
	PlaceM   = 1.0
	HeightM  = 0.5
	SpeedMS  = 0.1
	HomeM    = 5.0
	EveryM   = 0.1
	AngleDeg = 1.0
)

// Kind is what differs.
type Kind string

// The differences.
const (
	Count   Kind = "count"
	Missing Kind = "missing" // planned, not in the aircraft
	Extra   Kind = "extra"   // in the aircraft, not planned
	Order   Kind = "order"
	Place   Kind = "place"
	Height  Kind = "height"
	Datum   Kind = "datum"
	Speed   Kind = "speed"
	Doing   Kind = "action"
	Camera  Kind = "camera" // heading, gimbal, distance of pictures
	Home    Kind = "home"
	Another Kind = "another" // it is another mission altogether
)

// AllKinds lists them.
var AllKinds = []Kind{Count, Missing, Extra, Order, Place, Height, Datum, Speed, Doing, Camera, Home, Another}

// Difference is one thing that an aircraft holds otherwise than planned. Waypoints count
// from 1; 0: none.
type Difference struct {
	Kind     Kind       `json:"kind"`
	Planned  int        `json:"planned"`
	Read     int        `json:"read"`
	Sentence string     `json:"sentence"`
	At       *geo.Point `json:"at,omitempty"` // of the one planned
	Found    *geo.Point `json:"found,omitempty"`
}

// MostShown is how many differences are told one by one; the rest are counted.
const MostShown = 200

// near reports whether two waypoints are the same place.
func near(a, b geo.Point) bool {
	// Most are exactly the same, and an arc of latitude is quick to look at.
	if math.Abs(a.Lat-b.Lat) > 2e-5 {
		return false
	}
	return geo.Distance(a, b) <= PlaceM
}

// Compare holds what was read from an aircraft against what was planned: count, order,
// place, height and its datum, speed, action, camera, home. Nothing is equal that is not
// known: a home that was not read differs. Errors wrap ErrMission and name which of both
// is not usable.
func Compare(planned, read Mission) ([]Difference, error) {
	if err := planned.Check(); err != nil {
		return nil, fmt.Errorf("what was planned: %w", err)
	}
	if err := read.Check(); err != nil {
		return nil, fmt.Errorf("what was read: %w", err)
	}
	c := &comparison{planned: planned, read: read, out: []Difference{}}
	c.frame()
	frame := len(c.out)
	c.items()
	if c.matched*2 < len(planned.Items) && c.matched*2 < len(read.Items) {
		// What differs from point to point says nothing then.
		c.out, c.more = append([]Difference{{Kind: Another,
			Sentence: fmt.Sprintf("Only %d of %d waypoints lie where they were planned: the aircraft holds another mission. Send the plan again.",
				c.matched, len(planned.Items))}}, c.out[:frame]...), 0
	}
	if c.more > 0 {
		c.out = append(c.out, Difference{Kind: Count, Sentence: fmt.Sprintf("%d more differences are not shown.", c.more)})
	}
	return c.out, nil
}

// Verdict of differences: any one stops the flight.
func Verdict(d []Difference) judge.Verdict {
	if len(d) > 0 {
		return judge.Stop
	}
	return judge.Clear
}

type comparison struct {
	planned, read Mission
	matched       int
	lost          int // waypoints for which nothing fitted
	out           []Difference
	more          int // differences that are only counted
}

func (c *comparison) say(k Kind, planned, read int, format string, a ...any) {
	if len(c.out) >= MostShown {
		c.more++
		return
	}
	d := Difference{Kind: k, Planned: planned, Read: read, Sentence: fmt.Sprintf(format, a...)}
	if planned > 0 {
		d.At = &c.planned.Items[planned-1].At
	}
	if read > 0 {
		d.Found = &c.read.Items[read-1].At
	}
	c.out = append(c.out, d)
}

// frame compares what holds for all of it.
func (c *comparison) frame() {
	p, r := c.planned, c.read
	if p.Datum != r.Datum {
		c.say(Datum, 0, 0, "The aircraft counts heights %s; planned is %s.", r.Datum.Words(), p.Datum.Words())
	}
	switch {
	case p.Home == nil: // nothing was planned to come home to
	case r.Home == nil:
		c.say(Home, 0, 0, "The aircraft does not say where its home is.")
	default:
		if d := geo.Distance(*p.Home, *r.Home); !(d <= HomeM) {
			c.say(Home, 0, 0, "Its home lies %.0f m from where it takes off, at %03.0f degrees: it would return there.", d,
				geo.Bearing(*p.Home, *r.Home))
			c.out[len(c.out)-1].At, c.out[len(c.out)-1].Found = p.Home, r.Home
		}
	}
	if a, b := len(p.Items), len(r.Items); a != b {
		c.say(Count, 0, 0, "The aircraft holds %d waypoints; %d were planned.", b, a)
	}
}

// items walks along both and finds where they part.
func (c *comparison) items() {
	p, r := c.planned.Items, c.read.Items
	i, j := 0, 0
	swapped := map[int]int{} // of planned, waiting further on: where it was read
	for i < len(p) && j < len(r) {
		if at, ok := swapped[i]; ok {
			c.same(i, at)
			i, j = i+1, j+1
			continue
		}
		if near(p[i].At, r[j].At) {
			c.same(i, j)
			i, j = i+1, j+1
			continue
		}
		switch k, how := c.parting(i, j); how {
		case Missing:
			for ; i < k; i++ {
				c.say(Missing, i+1, 0, "Waypoint %d is not in the aircraft: %s.", i+1, c.leads(i))
			}
		case Extra:
			for ; j < k; j++ {
				c.say(Extra, 0, j+1, "The aircraft holds a waypoint more, its number %d, %s.", j+1, where(c.nearPlan(i), r[j].At))
			}
		case Order:
			c.say(Order, i+1, k+1, "Waypoints %d and %d are in the wrong order.", i+1, k+1)
			swapped[k] = j
			c.same(i, k)
			i, j = i+1, j+1
		default:
			c.say(Place, i+1, j+1, "Waypoint %d lies %.0f m from where it was planned, at %03.0f degrees.", i+1,
				geo.Distance(p[i].At, r[j].At), geo.Bearing(p[i].At, r[j].At))
			c.figures(i, j)
			i, j = i+1, j+1
		}
	}
	for ; i < len(p); i++ {
		c.say(Missing, i+1, 0, "Waypoint %d is not in the aircraft: %s.", i+1, c.leads(i))
	}
	for ; j < len(r); j++ {
		c.say(Extra, 0, j+1, "The aircraft holds a waypoint more at its end, its number %d, %s: left over from another mission?",
			j+1, where(c.nearPlan(len(p)), r[j].At))
	}
}

// ahead is how far a dropped or added stretch is looked for.
const ahead = 64

// mostLost is for how many waypoints in vain.
const mostLost = 20

// parting decides what happened where waypoint i of the plan is not waypoint j that was
// read; k is where it goes on.
func (c *comparison) parting(i, j int) (k int, how Kind) {
	p, r := c.planned.Items, c.read.Items
	follows := func(i, j int) bool { // from here on both agree
		for n := range 3 {
			if i+n >= len(p) || j+n >= len(r) {
				return n > 0 || i+n >= len(p) && j+n >= len(r)
			}
			if !near(p[i+n].At, r[j+n].At) {
				return false
			}
		}
		return true
	}
	if c.lost >= mostLost { // nothing fits any more: it is not looked for at every waypoint
		return 0, Place
	}
	for n := 1; i+n < len(p) && j+n < len(r); n++ {
		// Another waypoint of the plan stands here, and this one stands where that belongs.
		if near(p[i].At, r[j+n].At) && near(p[i+n].At, r[j].At) {
			return i + n, Order
		}
	}
	if i+1 < len(p) && j+1 < len(r) && follows(i+1, j+1) {
		return 0, Place
	}
	for n := 1; n <= ahead; n++ {
		if i+n <= len(p) && follows(i+n, j) {
			return i + n, Missing
		}
		if j+n <= len(r) && follows(i, j+n) {
			return j + n, Extra
		}
	}
	c.lost++
	return 0, Place
}

// same counts a waypoint that lies where it was planned, and compares the rest of it.
func (c *comparison) same(i, j int) {
	c.matched++
	c.figures(i, j)
}

// figures compares everything of a waypoint but its place.
func (c *comparison) figures(i, j int) {
	p, r := c.planned.Items[i], c.read.Items[j]
	if d := r.HeightM - p.HeightM; !(math.Abs(d) <= HeightM+1e-9) {
		word := "higher"
		if d < 0 {
			word = "lower"
		}
		c.say(Height, i+1, j+1, "Waypoint %d is at %.1f m; planned are %.1f: it would fly %.1f m %s.", i+1, r.HeightM,
			p.HeightM, math.Abs(d), word)
	}
	if !(math.Abs(r.SpeedMS-p.SpeedMS) <= SpeedMS+1e-9) {
		c.say(Speed, i+1, j+1, "To waypoint %d it flies %.1f m/s; planned are %.1f.", i+1, r.SpeedMS, p.SpeedMS)
	}
	if r.Action != p.Action {
		c.say(Doing, i+1, j+1, "At waypoint %d it would %s; planned is to %s.", i+1, r.Action.Words(), p.Action.Words())
	}
	if !(math.Abs(r.EveryM-p.EveryM) <= EveryM+1e-9) {
		c.say(Camera, i+1, j+1, "From waypoint %d it takes a picture every %.1f m; planned are %.1f.", i+1, r.EveryM,
			p.EveryM)
	}
	c.angle("looks", i, j, p.HeadingDeg, r.HeadingDeg)
	c.angle("tilts the camera", i, j, p.GimbalDeg, r.GimbalDeg)
}

func (c *comparison) angle(what string, i, j int, p, r *float64) {
	switch {
	case p == nil && r == nil:
	case p == nil:
		c.say(Camera, i+1, j+1, "At waypoint %d it %s to %.0f degrees; none is planned.", i+1, what, *r)
	case r == nil:
		c.say(Camera, i+1, j+1, "At waypoint %d it does not say where it %s; planned are %.0f degrees.", i+1, what, *p)
	case !(math.Abs(geo.AngleBetween(*p, *r)) <= AngleDeg+1e-9):
		c.say(Camera, i+1, j+1, "At waypoint %d it %s to %.0f degrees; planned are %.0f.", i+1, what, *r, *p)
	}
}

// leads says what happens where a waypoint is left out.
func (c *comparison) leads(i int) string {
	p := c.planned.Items
	switch {
	case i+1 >= len(p):
		return "it would end early"
	case i == 0:
		return fmt.Sprintf("it would fly straight to waypoint %d", i+2)
	}
	return fmt.Sprintf("it would cut from %d to %d", i, i+2)
}

func (c *comparison) nearPlan(i int) geo.Point {
	return c.planned.Items[max(0, min(i, len(c.planned.Items)-1))].At
}

func where(from, to geo.Point) string {
	return fmt.Sprintf("%.0f m at %03.0f degrees from the plan", geo.Distance(from, to), geo.Bearing(from, to))
}
