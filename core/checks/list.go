// Package checks is the checklist engine: a list written once per type is
// expanded over the stations of the airframe and the packs taken along, each
// entry is judged the moment it is made, and a run knows what is still open.
package checks

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"mainstay/core/airframe"
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
	Group   Kind = "group"   // several marks looked at together, like a corner
	Alike   Kind = "alike"   // all motors alike, or which of them are not, with or without numbers
	Choice  Kind = "choice"  // one of some answers, each with its verdict
	Timer   Kind = "timer"   // something done for at least so long
	Photo   Kind = "photo"   // at least one photo
)

// AllKinds lists the item kinds.
var AllKinds = []Kind{Look, Reading, Cells, Motors, Group, Alike, Choice, Timer, Photo}

// Band is the tolerance of a reading in the item's unit. A nil bound is none.
// Between the stop bounds and the watch bounds the verdict is Watch.
type Band struct {
	StopBelow  *float64 `json:"stop_below,omitempty"`
	WatchBelow *float64 `json:"watch_below,omitempty"`
	WatchAbove *float64 `json:"watch_above,omitempty"`
	StopAbove  *float64 `json:"stop_above,omitempty"`
}

// Compare is how motors are held against each other: the deviation of one from
// the median of the others in the item's unit, or the spread relative to the
// mean in percent.
type Compare struct {
	How   string  `json:"how"` // "outlier" or "spread-percent"
	Watch float64 `json:"watch"`
	Stop  float64 `json:"stop"`
}

// Item is one thing to do at a station.
type Item struct {
	ID        string        `json:"id"`
	Station   string        `json:"station"`
	Title     string        `json:"title"`
	How       string        `json:"how,omitempty"`
	Why       string        `json:"why,omitempty"`
	Kind      Kind          `json:"kind"`
	Defect    judge.Verdict `json:"defect,omitempty"` // what a defect here means: watch or stop
	Quantity  string        `json:"quantity,omitempty"`
	Unit      string        `json:"unit,omitempty"`
	Step      float64       `json:"step,omitempty"` // resolution of the instrument in Unit
	Min       *float64      `json:"min,omitempty"`  // what the field accepts at all
	Max       *float64      `json:"max,omitempty"`
	Band      *Band         `json:"band,omitempty"`
	Compare   *Compare      `json:"compare,omitempty"`
	PerPack   bool          `json:"per_pack,omitempty"`   // once per pack taken along
	SmartOnly bool          `json:"smart_only,omitempty"` // only where the pack shows its own charge
	Short     bool          `json:"short,omitempty"`      // belongs to the turnaround too
	Source    string        `json:"source,omitempty"`
	Marks     []Mark        `json:"marks,omitempty"`   // of a group
	Options   []Option      `json:"options,omitempty"` // of a choice
	LeastS    float64       `json:"least_s,omitempty"` // of a timer, s
	Hands     int           `json:"hands,omitempty"`   // 2: call and response, two people enter it

	// Filled by Expand.
	Section string `json:"section,omitempty"`
	PackID  string `json:"pack_id,omitempty"`
	Count   int    `json:"count,omitempty"` // values asked for by cells and motors
}

// Lasting reports whether what is wrong at an item stays wrong until somebody
// puts it right: what is seen at the airframe does, a number of the day (a
// level, satellites, a temperature) does not, and packs have states of their own.
func (it Item) Lasting() bool {
	if it.PackID != "" || it.ID == KeptID {
		return false
	}
	switch it.Kind {
	case Look, Motors, Group, Alike, Choice:
		return true
	case Reading, Cells, Timer, Photo:
	}
	return it.Quantity == "bus resistance"
}

// Section groups items; Each "rotor" repeats it for every lifting rotor, with
// {n} replaced by its number.
type Section struct {
	Title string `json:"title"`
	Each  string `json:"each,omitempty"`
	Items []Item `json:"items"`
}

// List is a checklist of one type in one version.
type List struct {
	Type     string    `json:"type"`
	Version  int       `json:"version"`
	Sections []Section `json:"sections"`
}

// Run kinds.
const (
	Full       = "walkround"
	Turnaround = "turnaround"
)

// PackRef is a pack taken along on a run.
type PackRef struct {
	ID        string         `json:"id"`
	Label     string         `json:"label"`
	Chemistry pack.Chemistry `json:"chemistry"`
	Cells     int            `json:"cells"`
}

// ErrList is wrapped by every error about a list that cannot be used.
var ErrList = errors.New("checklist not usable")

// Validate says what is wrong with a list for a type; nil when it can be used.
func (l List) Validate(t airframe.Type) error {
	bad := func(format string, a ...any) error { return fmt.Errorf("%w: "+format, append([]any{ErrList}, a...)...) }
	if l.Type != t.Key {
		return bad("it is for type %q, not %q", l.Type, t.Key)
	}
	if l.Version < 1 {
		return bad("version must be 1 or more")
	}
	stations := map[string]bool{}
	for _, s := range t.Stations() {
		stations[s.ID] = true
	}
	seen := map[string]bool{}
	items := Expand(l, t, Full, []PackRef{{ID: "any", Label: "any", Chemistry: t.Packs.Chemistry, Cells: t.Packs.Cells}})
	for _, it := range items {
		switch {
		case it.ID == "" || it.Title == "":
			return bad("an item has no id or no title")
		case seen[it.ID]:
			return bad("item %q stands twice", it.ID)
		case !stations[it.Station]:
			return bad("item %q is at station %q, which %s does not have", it.ID, it.Station, t.Name)
		case it.Hands < 0 || it.Hands > 2:
			return bad("item %q asks for %d hands; one or two make sense", it.ID, it.Hands)
		case (it.Kind == Look || it.Kind == Group || it.Kind == Alike || it.Kind == Timer) && it.Defect == judge.Clear:
			return bad("item %q must say whether a defect means watch or stop", it.ID)
		case it.Kind == Reading && (it.Band == nil || it.Step <= 0 || it.Unit == "" || it.Min == nil || it.Max == nil || !(*it.Min < *it.Max)):
			return bad("reading %q needs a unit, a step, a range and a band", it.ID)
		case it.Kind == Cells && it.PackID == "":
			return bad("item %q reads cells and must be per pack", it.ID)
		case (it.Kind == Motors || it.Kind == Alike && it.Compare != nil) && (it.Compare == nil || it.Step <= 0 || it.Unit == "" || it.Min == nil || it.Max == nil || !(*it.Min < *it.Max)):
			return bad("motor set %q needs a unit, a step, a range and a comparison", it.ID)
		case it.Compare != nil && it.Compare.How != "outlier" && it.Compare.How != "spread-percent":
			return bad("motor set %q compares by %q, which is none of outlier, spread-percent", it.ID, it.Compare.How)
		case !slices.Contains(AllKinds, it.Kind):
			return bad("item %q has kind %q, which is none of %v", it.ID, it.Kind, AllKinds)
		}
		if err := it.parts(stations); err != nil {
			return err
		}
		seen[it.ID] = true
	}
	if delete(seen, KeptID); len(seen) == 0 {
		return bad("it has no items")
	}
	return nil
}

// Expand turns a list into the items of one run, in the order they are walked.
// kind is Full or Turnaround.
func Expand(l List, t airframe.Type, kind string, packs []PackRef) []Item {
	out, kept := []Item(nil), keptItem(t)
	for _, s := range l.Sections {
		numbers := []int{0}
		if s.Each == "rotor" {
			numbers = t.Rotors()
		}
		for _, n := range numbers {
			fill := strings.NewReplacer("{n}", fmt.Sprint(n))
			for _, it := range s.Items {
				if kind == Turnaround && !it.Short || it.SmartOnly && t.Packs.PercentFrom != "pack" {
					continue
				}
				it.ID, it.Station, it.Title = fill.Replace(it.ID), fill.Replace(it.Station), fill.Replace(it.Title)
				it.Section = fill.Replace(s.Title)
				it.fill(fill)
				asksSatellites(&it, t)
				switch it.Kind {
				case Alike:
					it.Marks, it.Count = sisters(t), t.SisterMotors()
				case Motors:
					it.Count = t.SisterMotors()
				case Look, Reading, Cells, Group, Choice, Timer, Photo:
				}
				if !it.PerPack {
					out = append(out, it)
					if it.sets() && kept != nil {
						kept.Station, kept.Section = it.Station, it.Section
						out, kept = append(out, *kept), nil
					}
					continue
				}
				for _, p := range packs {
					one := it
					one.ID, one.PackID = it.ID+"@"+p.ID, p.ID
					one.Title = strings.ReplaceAll(it.Title, "{pack}", p.Label)
					if it.Kind == Cells {
						one.Count = p.Cells
					}
					out = append(out, one)
				}
			}
		}
	}
	if kept != nil {
		out = append(out, *kept)
	}
	return out
}
