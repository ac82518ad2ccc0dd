// Package mission is what an aircraft is given to fly: waypoints with heights, speeds and
// actions, one model for every file and device; and whether what an aircraft holds is what
// was planned. Places are degrees, heights m over the datum, speeds m/s, angles degrees
// true.
package mission

import (
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/units"
	"mainstay/core/why"
)

// ErrMission is wrapped by every refusal.
var ErrMission = errors.New("mission not usable")

var within = units.Refuser{Wraps: ErrMission}.Within

// Action is what the aircraft does at a waypoint.
type Action string

// The actions.
const (
	Fly     Action = "fly"     // passes it
	Start   Action = "start"   // begins to take a picture every EveryM
	Stop    Action = "stop"    // ends that
	Picture Action = "picture" // rests and takes one
	Hold    Action = "hold"    // waits for the pilot
	Return  Action = "return"  // flies home and lands
)

// AllActions lists them.
var AllActions = []Action{Fly, Start, Stop, Picture, Hold, Return}

// Words is an action as people say it.
func (a Action) Words() string {
	return map[Action]string{Fly: "fly on", Start: "begin to take pictures", Stop: "stop taking pictures",
		Picture: "take a picture", Hold: "hold", Return: "return home"}[a]
}

// Item is one waypoint.
type Item struct {
	At         geo.Point `json:"at"`
	HeightM    float64   `json:"height_m"`
	SpeedMS    float64   `json:"speed_ms"` // on the way to it
	Action     Action    `json:"action"`
	EveryM     float64   `json:"every_m,omitempty"`     // from picture to picture, of Start
	HeadingDeg *float64  `json:"heading_deg,omitempty"` // nil: along the way
	GimbalDeg  *float64  `json:"gimbal_deg,omitempty"`  // 0 level, -90 down; nil: left as it is
}

// Mission is the waypoints of one flight.
type Mission struct {
	Name  string       `json:"name"`
	Datum intent.Datum `json:"datum"`
	Home  *geo.Point   `json:"home"` // where it returns to; nil: not known
	Items []Item       `json:"items"`
}

// MostItems bounds a mission.
const MostItems = 20_000

// Check refuses a mission that cannot be flown, and names the waypoint.
func (m Mission) Check() error {
	if len(m.Items) == 0 {
		return why.Not(ErrMission, "it has no waypoint")
	}
	if len(m.Items) > MostItems {
		return why.Not(ErrMission, "it has %d waypoints; %d are taken", len(m.Items), MostItems)
	}
	if !slices.Contains(intent.AllDatums, m.Datum) {
		return why.Not(ErrMission, "what its heights count from is %q, none of %v", m.Datum, intent.AllDatums)
	}
	if m.Home != nil {
		if err := m.Home.Check(); err != nil {
			return why.Not(ErrMission, "home: %w", err)
		}
	}
	for i, x := range m.Items {
		err := x.check()
		if i > 0 && math.Abs(x.At.Lon-m.Items[i-1].At.Lon) > 180 {
			err = errors.Join(err, errors.New("the way to it crosses the date line; split the mission there"))
		}
		if err != nil {
			return why.Not(ErrMission, "waypoint %d: %w", i+1, err)
		}
	}
	return nil
}

func (x Item) check() error {
	angle := func(name string, v *float64, lo, hi float64) error {
		if v == nil {
			return nil
		}
		return within(name, *v, lo, hi)
	}
	if !slices.Contains(AllActions, x.Action) {
		return fmt.Errorf("the action %q is none of %v", x.Action, AllActions)
	}
	return errors.Join(x.At.Check(), within("height", x.HeightM, -500, 9000), within("speed", x.SpeedMS, 0, 60),
		within("distance of pictures", x.EveryM, 0, 5000), angle("heading", x.HeadingDeg, 0, 360),
		angle("gimbal", x.GimbalDeg, -120, 60))
}

// Hash names a mission by its content, to the millimetre and a tenth of a microdegree.
func (m Mission) Hash() string {
	h := sha256.New()
	angle := func(v *float64) string {
		if v == nil {
			return "-"
		}
		return fmt.Sprintf("%.2f", *v)
	}
	fmt.Fprintf(h, "%s\n", m.Datum)
	if m.Home != nil {
		fmt.Fprintf(h, "home %.7f %.7f\n", m.Home.Lat, m.Home.Lon)
	}
	for _, x := range m.Items {
		fmt.Fprintf(h, "%.7f %.7f %.3f %.3f %s %.3f %s %s\n", x.At.Lat, x.At.Lon, x.HeightM, x.SpeedMS, x.Action, x.EveryM,
			angle(x.HeadingDeg), angle(x.GimbalDeg))
	}
	return hex.EncodeToString(h.Sum(nil))
}

// FirstLeg is what happens first after take-off.
type FirstLeg struct {
	ClimbM    float64 `json:"climb_m"` // over take-off
	CourseDeg float64 `json:"course_deg"`
	DistanceM float64 `json:"distance_m"`
	Sentence  string  `json:"sentence"`
}

// First is the first leg from a place of take-off. elevationM is that of the place, for
// heights over sea level; nil says that it is not known.
func (m Mission) First(from geo.Point, elevationM *float64) (FirstLeg, bool) {
	if len(m.Items) == 0 {
		return FirstLeg{}, false
	}
	x := m.Items[0]
	f := FirstLeg{ClimbM: x.HeightM, CourseDeg: geo.Bearing(from, x.At), DistanceM: geo.Distance(from, x.At)}
	over := ""
	switch m.Datum {
	case intent.AboveSea:
		if elevationM == nil {
			over = " above sea level"
		} else {
			f.ClimbM -= *elevationM
		}
	case intent.AboveGround:
		over = " over the ground"
	}
	f.Sentence = fmt.Sprintf("It will climb to %.0f m%s and fly %03.0f degrees for %.0f m.", f.ClimbM, over,
		math.Mod(math.Round(f.CourseDeg), 360), f.DistanceM)
	return f, true
}
