// Package gear judges what else a flight depends on that holds a charge:
// controller, tablet, laptop, base station and the like. Levels are percent,
// times UTC.
package gear

import (
	"fmt"
	"strings"
	"time"

	"mainstay/core/judge"
)

// Kind is what a piece of gear is.
type Kind string

// The kinds.
const (
	Controller  Kind = "controller"
	Tablet      Kind = "tablet"
	Laptop      Kind = "laptop"
	Comms       Kind = "comms"
	BaseStation Kind = "base-station"
	Goggles     Kind = "goggles"
	Camera      Kind = "camera"
	Light       Kind = "light"
	Charger     Kind = "charger" // holds no charge of its own: it is looked at
)

// AllKinds lists the kinds.
var AllKinds = []Kind{Controller, Tablet, Laptop, Comms, BaseStation, Goggles, Camera, Light, Charger}

// How long a level and a look hold (usual practice), and how far clocks of
// devices differ.
const (
	LevelHolds = 24 * time.Hour
	LookHolds  = 7 * 24 * time.Hour
	skew       = 2 * time.Minute
)

// Piece is one piece of gear with what was last read and seen of it; nil is
// never.
type Piece struct {
	ID       string
	Label    string
	Kind     Kind
	Retired  bool
	Percent  *float64   // level
	Least    float64    // level it must have
	At       *time.Time // when the level was read
	LookedAt *time.Time // when somebody looked at case, leads and swelling
	Found    string     // what that look found; empty: nothing
}

// Found is one thing against a piece.
type Found struct {
	Verdict  judge.Verdict
	Sentence string
	At       *time.Time
}

// Judge says what keeps a piece on the ground: out of use, something found on
// it, a look or a level that is too old, dated in the future, or was never
// taken, and a level under its least. Nothing against it is an empty list.
func (p Piece) Judge(now time.Time) []Found {
	var out []Found
	stop := func(at *time.Time, format string, a ...any) {
		out = append(out, Found{judge.Stop, fmt.Sprintf(format, a...), at})
	}
	if p.Retired {
		stop(nil, "It is out of use.")
		return out
	}
	switch {
	case p.LookedAt == nil:
		stop(nil, "Nobody has looked at it: case, leads, swelling.")
	case p.Found != "":
		stop(p.LookedAt, "The last look found: %s.", strings.TrimRight(p.Found, "."))
	case p.LookedAt.After(now.Add(skew)):
		stop(p.LookedAt, "The last look at it is dated in the future.")
	case now.Sub(*p.LookedAt) > LookHolds:
		stop(p.LookedAt, "The last look at it is %.0f days old; it holds for %.0f.", now.Sub(*p.LookedAt).Hours()/24,
			LookHolds.Hours()/24)
	}
	switch {
	case p.Kind == Charger:
	case p.Percent == nil || p.At == nil || !(*p.Percent >= 0 && *p.Percent <= 100) || !(p.Least >= 0 && p.Least <= 100):
		stop(nil, "Its level has never been read.")
	case *p.Percent < p.Least:
		stop(p.At, "It stands at %.0f %%, it needs %.0f %%: charge it.", *p.Percent, p.Least)
	case p.At.After(now.Add(skew)):
		stop(p.At, "Its level is dated in the future.")
	case now.Sub(*p.At) > LevelHolds:
		stop(p.At, "It stood at %.0f %% %.0f h ago: read it again.", *p.Percent, now.Sub(*p.At).Hours())
	}
	return out
}
