package checks

import (
	"fmt"
	"slices"
	"strings"

	"mainstay/core/airframe"
)

// Ask is which round of a list is walked, with which packs and on which day.
type Ask struct {
	Round string
	Packs []PackRef
	Facts Facts // nil: nothing is known, and all is asked
}

// Expand turns a list into the items of one round, in the order they are walked, and those
// that are left out today.
func Expand(l List, t airframe.Type, ask Ask) (out []Item, left []LeftOut) {
	kept := keptItem(t)
	if r, ok := RoundOf(ask.Round); !ok || !r.Check {
		kept = nil
	}
	words := words(t)
	for _, s := range l.Sections {
		for _, with := range s.repeats(t) {
			fill := strings.NewReplacer(slices.Concat(words, with)...)
			for _, it := range s.Items {
				if !s.in(ask.Round, it) || it.SmartOnly && t.Packs.PercentFrom != "pack" {
					continue
				}
				it.lower(t)
				it.fill(fill, t)
				it.longer(ask.Facts)
				it.Section = fill.Replace(s.Title)
				if why := it.leftOut(ask.Facts); why != "" {
					left = append(left, LeftOut{it.ID, it.Station, it.Title, it.Stops(), why, it.When})
					continue
				}
				out = append(out, it.each(ask.Packs)...)
				if kept != nil && it.sets() {
					kept.Station, kept.Section = it.Station, it.Section
					out, kept = append(out, *kept), nil
				}
			}
		}
	}
	if kept != nil {
		out = append(out, *kept)
	}
	return out, left
}

// repeats are what a section is walked for, each as pairs of placeholder and text.
func (s Section) repeats(t airframe.Type) (out [][]string) {
	switch s.Each {
	case "rotor":
		for _, n := range t.ArmOrder() {
			with := []string{"{n}", fmt.Sprint(n)}
			if t.Coaxial() {
				with = append(with, "{under}", fmt.Sprint(t.MotorsOf(n)[1]))
			}
			out = append(out, with)
		}
	case "surface":
		for _, at := range t.Stations() {
			if at.Kind == "surface" {
				out = append(out, []string{"{s}", at.ID, "{surface}", at.Label})
			}
		}
	default:
		out = [][]string{nil}
	}
	return out
}

// lower adds to a group at a rotor the marks of the motor and propeller under it.
func (it *Item) lower(t airframe.Type) {
	if !t.Coaxial() {
		return
	}
	for _, m := range slices.Clone(it.Marks) {
		if m.Station == "motor-{n}" || m.Station == "propeller-{n}" {
			m.ID += "-lower"
			m.Station = strings.Replace(m.Station, "{n}", "{under}", 1)
			m.Title += ", lower"
			it.Marks = append(slices.Clone(it.Marks), m)
		}
	}
}

// longer lets a timer run as long as the day asks for, and says why.
func (it *Item) longer(facts Facts) {
	if l := it.Longer; l != nil && l.When.holds(facts) {
		it.LeastS = max(it.LeastS, l.LeastS)
		it.How = strings.TrimSpace(it.How + fmt.Sprintf(" %s s today: %s.", num(l.LeastS), l.When.says(facts)))
	}
}

// each is an item once, or once for each pack.
func (it Item) each(packs []PackRef) []Item {
	if !it.PerPack {
		return []Item{it}
	}
	var out []Item
	for _, p := range packs {
		one := it
		one.ID, one.PackID = it.ID+"@"+p.ID, p.ID
		one.Title = strings.ReplaceAll(it.Title, "{pack}", p.Label)
		if it.Kind == Cells {
			one.Count = p.Cells
		}
		out = append(out, one)
	}
	return out
}

// fill puts the number of a rotor and the words of the type into an item, and what the type
// and the crew say of it.
func (it *Item) fill(r *strings.Replacer, t airframe.Type) {
	for _, s := range []*string{&it.ID, &it.Station, &it.Title, &it.How, &it.Why, &it.Bad, &it.Do} {
		*s = r.Replace(*s)
	}
	it.Marks = append([]Mark(nil), it.Marks...)
	for i := range it.Marks {
		m := &it.Marks[i]
		for _, s := range []*string{&m.ID, &m.Station, &m.Title, &m.Bad} {
			*s = r.Replace(*s)
		}
	}
	it.Options = append([]Option(nil), it.Options...)
	for i := range it.Options {
		o := &it.Options[i]
		o.Title, o.Do = r.Replace(o.Title), r.Replace(o.Do)
	}
	it.Names, it.Known, it.Drawing, it.Pictures = nil, nil, "", it.bad() // a round fills the others in
	asksSatellites(it, t)
	switch it.Kind {
	case Alike:
		it.Marks, it.Count, it.Layer = sisters(t), t.SisterMotors(), t.Layer()
	case Motors:
		it.Count, it.Layer = t.SisterMotors(), t.Layer()
	case Set:
		it.Count = map[string]int{"heading": len(headings), "arm": t.Geometry.Rotors, "nozzle": it.Count}[it.Per]
	case Look, Reading, Cells, Group, Choice, Counted, Timer, Photo, Computed, Poll, Who, Drill:
	}
	if it.Kind == Set {
		for i := range it.Count {
			it.Names = append(it.Names, it.NameOf(i))
		}
	}
	it.Bars = it.Stops()
}

// words are what a list may say in the words of the type: pairs of placeholder and text.
func words(t airframe.Type) []string {
	unknown := "as the maker's manual says"
	start, stop, emergency := unknown, unknown, unknown
	if _, missing := t.Gestures(); !missing {
		start, stop, emergency = t.Sticks.Start, t.Sticks.Stop, t.Sticks.Emergency
	}
	first := "the controller, then the aircraft"
	if t.Kept().Power() == "aircraft-first" {
		first = "the aircraft, then the controller"
	}
	reach := "as far as the maker asks for, at the power that the maker asks for"
	if c := t.RangeCheck; c != nil {
		reach = fmt.Sprintf("%s m away, %s", num(float64(c.DistanceM)), c.Power)
	}
	return []string{"{power-order}", first, "{stick-start}", start, "{stick-stop}", stop, "{stick-emergency}", emergency,
		"{stand-off}", num(t.Kept().StandOffM()) + " m", "{range-check}", reach,
		"{land-by}", fmt.Sprintf("%.2f V a cell under load, or %s %%", float64(t.Limits.LandByCellMV)/1000,
			num(float64(t.Limits.LandByPercent)))}
}
