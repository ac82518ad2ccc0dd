// Package gate answers whether this aircraft, with these packs, this crew, this
// site and this weather may fly now, and if not, what must be done first. It is pure: the
// same input gives the same output byte for byte. Unknown is never Clear.
package gate

import (
	"time"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/firmware"
	"mainstay/core/gear"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/rules"
	"mainstay/core/units"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
	"mainstay/core/wind"
)

// Scope is how much is asked.
type Scope string

// The scopes: the aircraft alone (for the day's overview) or a whole flight.
const (
	AircraftOnly Scope = "aircraft"
	WholeFlight  Scope = "flight"
)

// How long evidence holds.
const (
	WalkroundValidFor = 12 * time.Hour
	WindValidFor      = 60 * time.Minute
	ClockSkew         = judge.ClockSkew
)

// Input is everything the gate knows. Times are UTC.
type Input struct {
	Scope      Scope
	Now        time.Time
	Type       airframe.Type
	Aircraft   Aircraft
	Groundings []Grounding
	Defects    []Defect
	Walkround  *Run // latest complete full walkround
	Turnaround *Run // latest complete turnaround
	Draft      *Run // one that is being walked now
	Parts      []Part
	PartsNear  bool       // Parts are only those near a limit; the others are known and far from theirs
	Packs      []Pack     // chosen for the flight
	PacksReady int        // charged packs that may fly in the type (Ready), for the aircraft scope
	Rules      rules.Pack // with practice and the crew's own; zero takes the default
	Facts      rules.Facts
	Day        checks.Facts    // of the flight, for what a check left out; nil: nothing is known
	Site       []judge.Finding // of site, air and airspace, when the flight belongs to a job
	Wind       *Wind
	HighM      *float64     // highest place above ground that the flight reaches; nil: no route is known
	Mass       intent.Mass  // today's take-off mass against the type and the air
	Energy     Energy       // what the energy of the flight is worked out from
	FirstLeg   string       // of the mission in the aircraft, in words; empty: it flies none
	Gear       []gear.Piece // controller, tablet and the like of aircraft and job
	Compass    *Calibration // newest; nil: none on record
	Inspected  *time.Time   // newest full inspection after flying; nil: none on record
	Programme  bool         // the type has a maintenance programme
	Tasks      []Task       // of the programme that are due or nearly
	Orders     []Order
	Firmware   []firmware.Finding
	Reports    []Report       // to the authority, still due
	LastType   *airframe.Type // of the pilot's last flight; nil: the pilot has not flown yet
	Acceptance string         // id of the work order for which this flight is the acceptance flight
	InAir      *InAir         // the aircraft's open flight
	Released   *Release
}

// Aircraft is the airframe as registered.
type Aircraft struct {
	ID          string
	Name        string
	Active      bool
	LastLanding *time.Time
}

// Calibration of a compass, and what happened since.
type Calibration struct {
	By      string
	At      time.Time
	SameDay bool     // on the civil day of the flight
	MovedKm *float64 // from there to the site of the flight; nil: not known
	Since   string   // work done since that disturbs it; empty: none
}

// Grounding is an order to stay on the ground.
type Grounding struct {
	ID     string
	Reason string
	By     string
	At     time.Time
	Cause  string // person, defect, contact
}

// Defect is an open defect.
type Defect struct {
	ID       string
	Title    string
	Place    string // id of the station
	Station  string // its label
	Severity judge.Verdict
	By       string
	At       time.Time
	Order    string // id of the work order that deals with it, "" for none
	Deferred string // how it is put off, while that holds
	Ended    string // why a deferral no longer holds
}

// Task is a task of the maintenance programme that is due or nearly so.
type Task struct {
	ID    string
	Place string // id of the station
	Title string
	Due   wear.Due
}

// Order is a work order that is not closed.
type Order struct {
	ID      string
	Place   string // id of the station
	Title   string
	By      string
	At      time.Time
	Grounds bool
	Signed  bool        // the work is signed; acceptance flights are open
	Next    upkeep.Load // the acceptance flight that is due, once signed
}

// Report is something the authority must be told by a date.
type Report struct {
	ID    string
	What  string
	DueAt time.Time
}

// Run is a walkround or turnaround.
type Run struct {
	ID       string
	By       string
	At       time.Time
	Findings []RunFinding // entries that were not clear
	PackIDs  []string
	Kept     string           // what was to be set on it, in the words of checks.Kept
	LeftOut  []checks.LeftOut // not asked on it, because of the day that it began for; nil: not known
	Pace     string           // what is said of how fast it was walked; empty: nothing
	Asked    []string         // by name for go or no go; none: the list asks nobody; nil: not known
}

// RunFinding is one entry of a run that was not clear.
type RunFinding struct {
	Title    string
	Place    string // id of the station
	Verdict  judge.Verdict
	Sentence string
	PackID   string
}

// Part is what is fitted at a station that must carry one.
type Part struct {
	ID       string // empty: nothing fitted
	Station  string
	Label    string // of the station
	Kind     string
	FittedAt time.Time
	Counters wear.Counters
	Limits   wear.Limits
	Required bool // without it the aircraft must not fly
	Foreign  bool // of another maker, as the crew approved
}

// Pack is a chosen pack with its newest evidence.
type Pack struct {
	ID        string
	Label     string
	Chemistry pack.Chemistry
	Cells     int
	Capacity  int // mAh
	State     pack.State
	Cycles    int
	Reading   *PackReading
	InUseBy   string // another aircraft it is fitted to
	FullSince *time.Time
	LookedAt  *time.Time       // newest clean look at all six faces
	FlownAt   *time.Time       // last landing with it; nil: never flown
	Condition []pack.Judgement // resistance, capacity, self-discharge and the like, as last computed
	Set       pack.Candidate
}

// PackReading is the newest reading of a pack.
type PackReading struct {
	At          time.Time
	CellMV      []units.Millivolts
	RestedMin   float64
	Percent     *units.Percent // as shown by the pack
	Temperature *units.Celsius
}

// Wind is the newest wind reading.
type Wind struct {
	At        time.Time
	SteadyMS  units.MetresPerSecond
	GustMS    *units.MetresPerSecond
	MeasuredM units.Metres
	Ground    wind.Ground
}

// InAir is a flight of the aircraft that has not been logged.
type InAir struct {
	FlightID string
	Pilot    string
	Landed   bool
}

// Release is an open release of the aircraft.
type Release struct {
	ID    string
	Pilot string
	At    time.Time
}

// Output is the decision.
type Output struct {
	Verdict  judge.Verdict   `json:"verdict"`
	Findings []judge.Finding `json:"findings"`
	Notices  []judge.Finding `json:"notices"` // what ends soon: beside the verdict, never part of it
	Checked  []judge.Rule    `json:"checked"` // rules that were held and found clear
	Wind     *wind.AtHeight  `json:"wind,omitempty"`
	WindM    float64         `json:"wind_m,omitempty"` // height above ground that it was brought to
	Energy   *EnergyAnswer   `json:"energy,omitempty"` // nil: cannot be worked out
	Rules    string          `json:"rules"`            // rule pack and version
	// what the mission in the aircraft does first; empty: it flies none
	FirstLeg string   `json:"first_leg,omitempty"`
	Cautions []string `json:"cautions"` // what hurts people in a flight like this, whatever the verdict
}
