// Package checks is the checklist engine: a list written once per type is
// expanded over the stations of the airframe and the packs taken along, each
// entry is judged the moment it is made, and a run knows what is still open.
package checks

import (
	"mainstay/core/judge"
	"mainstay/core/pack"
)

// Kind is what an item asks for.
type Kind string

// The item kinds.
const (
	Look    Kind = "look"    // ok, or a defect with a note
	Reading Kind = "reading" // one number held against a band
	Cells   Kind = "cells"   // resting millivolts of every cell of a pack
	Motors  Kind = "motors"  // one number per motor, held against each other
	// one number per arm, nozzle or heading, held against each other or against what it should be
	Set      Kind = "set"
	Group    Kind = "group"    // several marks looked at together, like a corner
	Alike    Kind = "alike"    // all motors alike, or which of them are not, with or without numbers
	Choice   Kind = "choice"   // one of some answers, each with its verdict
	Counted  Kind = "count"    // how many there are, against how many there ought to be
	Timer    Kind = "timer"    // something done for at least so long
	Photo    Kind = "photo"    // at least one photo
	Computed Kind = "computed" // what is worked out elsewhere, read and confirmed or contradicted
	Poll     Kind = "poll"     // go or no go of everybody by name
	Who      Kind = "who"      // one named person
	Drill    Kind = "drill"    // a picture that shows damage or does not; never in a list
)

// AllKinds lists the item kinds that a list may have.
var AllKinds = []Kind{Look, Reading, Cells, Motors, Set, Group, Alike, Choice, Counted, Timer, Photo, Computed, Poll,
	Who}

// Band is the tolerance of a reading in the item's unit. A nil bound is none.
// Between the stop bounds and the watch bounds the verdict is Watch.
type Band struct {
	StopBelow  *float64 `json:"stop_below,omitempty"`
	WatchBelow *float64 `json:"watch_below,omitempty"`
	WatchAbove *float64 `json:"watch_above,omitempty"`
	StopAbove  *float64 `json:"stop_above,omitempty"`
}

// How the numbers of a set are compared.
const (
	ByOutlier = "outlier"        // one against the median of the others, in the item's unit
	BySpread  = "spread-percent" // (max - min) relative to the mean
	ByHeading = "heading"        // each against the direction that the nose points to
)

// Compare is how numbers are held against each other, or against what they should be.
type Compare struct {
	How   string  `json:"how"`
	Watch float64 `json:"watch"`
	Stop  float64 `json:"stop"`
}

// Item is one thing to do at a station.
type Item struct {
	ID       string        `json:"id"`
	Station  string        `json:"station"`
	Title    string        `json:"title"`
	How      string        `json:"how,omitempty"`
	Why      string        `json:"why,omitempty"`
	Bad      string        `json:"bad,omitempty"` // what it looks like when it is not in order
	Do       string        `json:"do,omitempty"`  // what is done then
	Kind     Kind          `json:"kind"`
	Defect   judge.Verdict `json:"defect,omitempty"`   // what a defect here means: watch or stop
	Advisory bool          `json:"advisory,omitempty"` // what is found here is told and bars nothing; with defect watch
	// what is found here passes with the day and is no defect of the aircraft
	Passing bool `json:"passing,omitempty"`
	// within which limits a defect here may be put off; nil: as the programme says
	Defer    *Defer     `json:"defer,omitempty"`
	When     []When     `json:"when,omitempty"` // asked if one of these holds; none: always
	Quantity string     `json:"quantity,omitempty"`
	Unit     string     `json:"unit,omitempty"`
	Step     float64    `json:"step,omitempty"` // resolution of the instrument in Unit
	Min      *float64   `json:"min,omitempty"`  // what the field accepts at all
	Max      *float64   `json:"max,omitempty"`
	Band     *Band      `json:"band,omitempty"`
	Compare  *Compare   `json:"compare,omitempty"`
	Per      string     `json:"per,omitempty"`    // of a set: arm, nozzle or heading
	Expect   *float64   `json:"expect,omitempty"` // of a count: how many there ought to be
	Rule     judge.Rule `json:"rule,omitempty"`   // of something computed: the rule of the gate that works it out
	// of a look or a group: what the aircraft tells over its link, shown here
	Tells     []string `json:"tells,omitempty"`
	PerPack   bool     `json:"per_pack,omitempty"`   // once per pack taken along
	SmartOnly bool     `json:"smart_only,omitempty"` // only where the pack shows its own charge
	Short     bool     `json:"short,omitempty"`      // belongs to the turnaround too
	Source    string   `json:"source,omitempty"`
	Marks     []Mark   `json:"marks,omitempty"`   // of a group
	Options   []Option `json:"options,omitempty"` // of a choice
	LeastS    float64  `json:"least_s,omitempty"` // of a timer, s
	Longer    *Longer  `json:"longer,omitempty"`  // when a timer runs longer
	Hands     int      `json:"hands,omitempty"`   // 2: call and response, two people enter it

	// Filled by Expand, and by who runs the list.
	Section string   `json:"section,omitempty"`
	PackID  string   `json:"pack_id,omitempty"`
	Layer   int      `json:"layer,omitempty"` // how many motors in a row are sisters; 0: all
	Count   int      `json:"count,omitempty"` // values asked for by cells, motors and sets; a list gives it for nozzles
	Names   []string `json:"names,omitempty"` // who is asked in a poll, or can be named; of a set, of what each number is
	Bars    bool     `json:"bars,omitempty"`  // what is found could stop a flight: it cannot be left out
	Known   *Known   `json:"known,omitempty"` // what was worked out; nil: nothing, and a person looks
	Drawing string   `json:"drawing,omitempty"`
	// Pictures are drawings of what is not in order at the places where it looks.
	Pictures []Picture `json:"pictures,omitempty"`
}

// Defer is how far a defect may be put off.
type Defer struct {
	Days    int     `json:"days"`
	Flights int     `json:"flights,omitempty"`
	Hours   float64 `json:"hours,omitempty"`
	Limits  string  `json:"limits"`
}

// Longer is a condition under which a timer runs longer.
type Longer struct {
	When   When    `json:"when"`
	LeastS float64 `json:"least_s"` // s
}

// Lasting reports whether what is wrong at an item stays wrong until somebody
// puts it right: what is seen at the airframe does, a number of the day (a
// level, satellites, a temperature) does not, and packs have states of their own.
func (it Item) Lasting() bool {
	if it.PackID != "" || it.ID == KeptID || it.Passing || it.Advisory {
		return false
	}
	switch it.Kind {
	case Look, Motors, Group, Alike, Choice, Timer, Counted:
		return true
	case Set:
		return it.Per != "heading" // a calibration puts it right
	case Reading, Cells, Photo, Computed, Poll, Who, Drill:
	}
	return it.Quantity == "bus resistance"
}

// Section groups items; Each "rotor" repeats it for every arm with a lifting rotor, in the order
// in which the arms unfold, with {n} replaced by its number, and Each "surface" for every control
// surface, with {s} replaced by its station and {surface} by its name. In names the rounds that walk it;
// none: the full walkround, and the turnaround for what is short.
type Section struct {
	Title string   `json:"title"`
	Each  string   `json:"each,omitempty"`
	In    []string `json:"in,omitempty"`
	Items []Item   `json:"items"`
}

// List is a checklist of one type in one version.
type List struct {
	Type     string    `json:"type"`
	Version  int       `json:"version"`
	Sections []Section `json:"sections"`
}

// PackRef is a pack taken along on a run.
type PackRef struct {
	ID        string         `json:"id"`
	Label     string         `json:"label"`
	Chemistry pack.Chemistry `json:"chemistry"`
	Cells     int            `json:"cells"`
}
