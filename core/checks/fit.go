package checks

import (
	"slices"
	"strings"

	"mainstay/core/airframe"
	"mainstay/core/judge"
)

// Fit is a list as it fits a type: what looks at places that the type does not have falls away,
// and every place that nothing looks at gets an item of its own. from says where the list comes
// from. A list that fits already comes back as it is, with changed false.
func (l List) Fit(t airframe.Type, from string) (out List, changed bool) {
	there := map[string]bool{}
	for _, s := range t.Stations() {
		there[s.ID] = true
	}
	out = l
	out.Sections = nil
	for _, s := range l.Sections {
		items := []Item{}
		for _, it := range s.Items {
			one, keep := it.at(there)
			changed = changed || !keep || one.Station != it.Station || len(one.Marks) != len(it.Marks)
			if keep {
				items = append(items, one)
			}
		}
		if s.Items = items; len(items) > 0 {
			out.Sections = append(out.Sections, s)
		}
	}
	left := out.Unvisited(t)
	if len(left) == 0 {
		return out, changed
	}
	more := Section{Title: "Also"}
	for _, s := range t.Stations() {
		if slices.Contains(left, s.ID) {
			more.Items = append(more.Items, Item{ID: "also-" + s.ID, Station: s.ID, Title: s.Label + ": fast, whole, free",
				Kind: Look, Defect: judge.Stop, Short: s.Kind == "propeller",
				How: "Look at it from all sides and move it by hand.", Why: "The list comes from " + from +
					", which has no such place.", Bad: "Loose, cracked, chafed, or it binds."})
		}
	}
	out.Sections = slices.Insert(out.Sections, min(1, len(out.Sections)), more)
	return out, true
}

// at is an item without what looks at places that are not there; false: nothing of it is left.
// Places that a repeated section fills in are there by themselves.
func (it Item) at(there map[string]bool) (Item, bool) {
	is := func(station string) bool { return there[station] || strings.Contains(station, "{") }
	marks := len(it.Marks)
	it.Marks = slices.DeleteFunc(slices.Clone(it.Marks), func(m Mark) bool { return !is(m.Station) })
	if marks > 0 && len(it.Marks) == 0 {
		return it, false
	}
	if !is(it.Station) {
		if len(it.Marks) == 0 {
			return it, false
		}
		it.Station = it.Marks[0].Station
	}
	return it, true
}
