package survey

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// Closed sets of a wish.
type (
	// By is what the height of a survey follows from.
	By string
	// Direction is how its lines lie.
	Direction string
	// Relief is how it keeps to the ground.
	Relief string
)

// What the height follows from.
const (
	ByResolution By = "resolution" // of the ground, GSDCm
	ByCanopy     By = "canopy"     // the crew's table, Canopy
	ByHeight     By = "height"     // HeightM
)

// How the lines lie.
const (
	Best       Direction = "best"        // fewest pieces
	Along      Direction = "along"       // BearingDeg
	AcrossWind Direction = "across-wind" // as fast on the way back as on the way out
)

// How the ground is kept to.
const (
	Split  Relief = "split"  // in parts, each flown level
	Follow Relief = "follow" // rising and falling with the ground
	Level  Relief = "level"  // all of it at one height over take-off
)

// The closed sets, listed.
var (
	AllBys        = []By{ByResolution, ByCanopy, ByHeight}
	AllDirections = []Direction{Best, Along, AcrossWind}
	AllReliefs    = []Relief{Split, Follow, Level}
)

// Canopy is a row of the crew's table of heights by what grows.
type Canopy struct {
	Key     string  `json:"key"`
	Name    string  `json:"name"`
	HeightM float64 `json:"height_m"` // flown, over the ground
}

// What a survey may fly at, m above the ground.
const (
	LeastHeightM = 2.0
	MostHeightM  = 500.0
)

// UsualCanopies are the heights that one usual table gives.
var UsualCanopies = []Canopy{{"low", "low, under 1 m", 80}, {"medium", "medium, 1 to 3 m", 100},
	{"high", "high, over 3 m", 120}}

// Wish is how somebody wants pictures of an area or along a line.
type Wish struct {
	Area       string    `json:"area"` // id of the area, or of the line, on the site; empty: the first
	WidthM     float64   `json:"width_m"`
	By         By        `json:"by"`
	GSDCm      float64   `json:"gsd_cm"` // wanted, of one pixel
	Canopy     string    `json:"canopy"`
	HeightM    float64   `json:"height_m"`
	Camera     string    `json:"camera"` // key
	Turned     bool      `json:"turned"`
	Side       float64   `json:"side"`  // overlap of lines, percent
	Front      float64   `json:"front"` // overlap along a line, percent
	SpeedMS    float64   `json:"speed_ms"`
	Shutter    float64   `json:"shutter"`  // 1/s
	BufferM    *float64  `json:"buffer_m"` // nil: what every place of the area needs to be in all of its pictures
	Direction  Direction `json:"direction"`
	BearingDeg float64   `json:"bearing_deg"`
	Cross      bool      `json:"cross"` // a second time across
	Relief     Relief    `json:"relief"`
	TurnM      float64   `json:"turn_m"` // radius that a wing turns in
	LeadM      float64   `json:"lead_m"` // straight before and behind each line
	CardGB     float64   `json:"card_gb"`
}

// Defaults are what a wish begins with; wing is for aircraft that do not stop to turn.
func Defaults(wing bool) Wish {
	w := Wish{By: ByResolution, WidthM: 60, GSDCm: 2.5, Canopy: "medium", HeightM: 80, Side: 75, Front: 75, SpeedMS: 10,
		Shutter: 1000, Direction: Best, Relief: Split, CardGB: 64}
	if wing {
		w.SpeedMS, w.TurnM, w.LeadM = 16, 30, 40
	}
	return w
}

func (w Wish) check() error {
	var err error
	if !slices.Contains(AllBys, w.By) || !slices.Contains(AllDirections, w.Direction) ||
		!slices.Contains(AllReliefs, w.Relief) {
		err = why.Not(ErrInput, "a choice of the plan is none of %v, %v, %v", AllBys, AllDirections, AllReliefs)
	}
	buffer := 0.0
	if w.BufferM != nil {
		buffer = *w.BufferM
	}
	return errors.Join(err, within("ground resolution", w.GSDCm, 0.05, 500),
		within("height", w.HeightM, LeastHeightM, MostHeightM), within("side overlap", w.Side, 0, 95),
		within("front overlap", w.Front, 0, 95), within("speed", w.SpeedMS, 0.5, 60),
		within("shutter", w.Shutter, 1, 20000), within("buffer", buffer, 0, MostBuffer), within("bearing", w.BearingDeg, 0,
			360), within("turn", w.TurnM, 0, 500), within("lead-in", w.LeadM, 0, MostBuffer), within("card", w.CardGB, 0.1,
			10_000), within("width", w.WidthM, 0, 2000))
}

// Place is somewhere to take off from.
type Place struct {
	ID    string
	Name  string
	At    geo.XY
	ElevM float64
	Known bool   // its elevation is
	Why   string // why it may not be used; "" it may
}

// Given is what is known about area, aircraft and air.
type Given struct {
	Area *Area    // nil: Line is followed
	Line []geo.XY // of a corridor
	// Forbidden is not flown over by a corridor; what is forbidden in an area belongs to it.
	Forbidden []Forbidden
	Terrain   *home.Terrain
	Start     Place // of the job
	Places    []Place
	Camera    *Camera // nil: not on the list
	PictureM  float64 // megabytes of one picture
	Canopies  []Canopy
	CeilingM  *float64 // greatest height over the ground; nil: none is known
	Wing      bool
	MassKg    float64
	Rho       float64
	Model     energy.Model
	UsableWh  float64
	FullWh    float64
	Reserve   float64 // percent that stays in the packs
	ReturnM   float64
	Wind      energy.Wind
	MostWay   int // waypoints that the aircraft takes; 0: not known
}

func (g Given) forbidden() []Forbidden {
	if g.Area != nil {
		return g.Area.Forbidden
	}
	return g.Forbidden
}

func (p *Plan) say(wish string, v judge.Verdict, nearest *float64, format string, a ...any) {
	p.Broken = append(p.Broken, judge.Broken{Wish: wish, Verdict: v, Sentence: fmt.Sprintf(format, a...),
		Nearest: nearest})
}

func ptr(v float64) *float64 { return &v }

func floor1(v float64) float64 { return math.Floor(v*10+1e-9) / 10 }
