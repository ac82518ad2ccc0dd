package checks

import (
	"errors"
	"slices"
	"strings"

	"mainstay/core/airframe"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// ErrList is wrapped by every error about a list that cannot be used.
var ErrList = errors.New("checklist not usable")

func refuse(format string, a ...any) error {
	return why.Not(ErrList, format, a...)
}

// MostItems bounds the items of a round, and MostWritten those of a list before anything is
// repeated.
const (
	MostItems   = 300
	MostWritten = 1000
)

// Validate says what is wrong with a list for a type; nil when it can be used.
func (l List) Validate(t airframe.Type) error {
	if l.Type != t.Key {
		return refuse("it is for type %q, not %q", l.Type, t.Key)
	}
	if l.Version < 1 {
		return refuse("version must be 1 or more")
	}
	written := 0
	for _, s := range l.Sections {
		if written += 1 + len(s.Items); written > MostWritten {
			return refuse("it has more than %d sections and items", MostWritten)
		}
		for _, in := range s.In {
			if _, ok := RoundOf(in); !ok {
				return refuse("section %q is walked in %q, and there is no such round", s.Title, in)
			}
		}
		if s.Each != "" && s.Each != "rotor" && s.Each != "surface" {
			return refuse("section %q is repeated for each %q; rotor and surface are known", s.Title, s.Each)
		}
	}
	stations := map[string]bool{}
	for _, s := range t.Stations() {
		stations[s.ID] = true
	}
	any := []PackRef{{ID: "any", Label: "any", Chemistry: t.Packs.Chemistry, Cells: t.Packs.Cells}}
	found := false
	for _, r := range AllRounds {
		items, _ := Expand(l, t, Ask{Round: r.Key, Packs: any}) // nothing is known: all is asked
		if len(items) > MostItems {
			return refuse("the %s has %d items; %d are the most", r.Title, len(items), MostItems)
		}
		seen := map[string]bool{}
		for _, it := range items {
			if err := it.check(stations, seen); err != nil {
				return err
			}
			found = found || it.ID != KeptID
		}
	}
	if !found {
		return refuse("it has no items")
	}
	return nil
}

// check says what is wrong with an expanded item.
func (it Item) check(stations, seen map[string]bool) error {
	ranged := it.Step > 0 && it.Unit != "" && it.Min != nil && it.Max != nil && *it.Min < *it.Max
	defect := slices.Contains([]Kind{Look, Group, Alike, Timer, Counted, Computed}, it.Kind)
	switch {
	case it.ID == "" || it.Title == "":
		return refuse("an item has no id or no title")
	case seen[it.ID]:
		return refuse("item %q stands twice", it.ID)
	case !stations[it.Station]:
		return refuse("item %q is at station %q, which is not there", it.ID, it.Station)
	case !slices.Contains(AllKinds, it.Kind):
		return refuse("item %q has kind %q, which is none of %v", it.ID, it.Kind, AllKinds)
	case it.Hands < 0 || it.Hands > 2:
		return refuse("item %q asks for %d hands; one or two make sense", it.ID, it.Hands)
	case defect && it.Defect == judge.Clear:
		return refuse("item %q must say whether a defect means watch or stop", it.ID)
	case it.Advisory && (it.Defect != judge.Watch || it.Stops()):
		return refuse("item %q is advisory: then nothing at it may stop a flight", it.ID)
	case it.Kind == Reading && (it.Band == nil || !ranged):
		return refuse("reading %q needs a unit, a step, a range and a band", it.ID)
	case it.Kind == Cells && it.PackID == "":
		return refuse("item %q reads cells and must be per pack", it.ID)
	case (it.Kind == Counted) != (it.Expect != nil) || it.Expect != nil &&
		!(*it.Expect >= 0 && *it.Expect <= 1000 && *it.Expect == float64(int(*it.Expect))):
		return refuse("item %q: a count says how many there ought to be, a whole number, and nothing else does", it.ID)
	case (it.Kind == Computed) != (it.Rule != "") || it.Rule == judge.RuleWalkround || it.Rule != "" &&
		!slices.Contains(judge.AllRules, it.Rule):
		return refuse("item %q: something computed names the rule of the gate that works it out, and nothing else does",
			it.ID)
	}
	for _, w := range it.Tells {
		if !slices.Contains(AllTells, w) || it.Kind != Look && it.Kind != Group {
			return refuse("item %q shows %q of the aircraft; a look or a group shows one of %s", it.ID, w,
				strings.Join(AllTells, ", "))
		}
	}
	for _, w := range it.When {
		if wrong := w.check(); wrong != "" {
			return refuse("item %q is asked when: %s", it.ID, wrong)
		}
	}
	if l := it.Longer; l != nil {
		if wrong := l.When.check(); wrong != "" {
			return refuse("timer %q runs longer when: %s", it.ID, wrong)
		}
		if it.Kind != Timer || !(l.LeastS >= it.LeastS && l.LeastS <= 3600) {
			return refuse("item %q: a timer may run longer, up to 3600 s, and nothing else does", it.ID)
		}
	}
	if d := it.Defer; d != nil && (d.Days < 1 || d.Days > 90 || d.Flights < 0 || !(d.Hours >= 0) || d.Limits == "" ||
		!it.Lasting()) {
		return refuse("item %q: a defect is put off for 1 to 90 days and within limits in words, and only one of the aircraft",
			it.ID)
	}
	if err := it.checkSet(ranged); err != nil {
		return err
	}
	if err := it.parts(stations); err != nil {
		return err
	}
	seen[it.ID] = true
	return nil
}

// checkSet says what is wrong with an item that takes one number of each of several things.
func (it Item) checkSet(ranged bool) error {
	set := it.Kind == Motors || it.Kind == Set || it.Kind == Alike && it.Compare != nil
	switch {
	case set && (it.Compare == nil || !ranged):
		return refuse("set %q needs a unit, a step, a range and a comparison", it.ID)
	case it.Compare != nil && !slices.Contains([]string{ByOutlier, BySpread, ByHeading}, it.Compare.How):
		return refuse("set %q compares by %q, which is none of outlier, spread-percent, heading", it.ID, it.Compare.How)
	case it.Compare != nil && !(it.Compare.Watch >= 0 && it.Compare.Watch <= it.Compare.Stop):
		return refuse("set %q: the bound of watch lies up to that of stop", it.ID)
	case it.Compare != nil && (it.Compare.How == ByHeading) != (it.Per == "heading"):
		return refuse("set %q: headings are held against where the nose points, and nothing else is", it.ID)
	case (it.Kind == Set) != slices.Contains([]string{"arm", "nozzle", "heading"}, it.Per):
		return refuse("set %q is one number for each arm, nozzle or heading", it.ID)
	case it.Kind == Set && (it.Count < 1 || it.Count > MostParts):
		return refuse("set %q has %d numbers; 1 to %d make sense", it.ID, it.Count, MostParts)
	}
	return nil
}

// Unvisited lists the stations of a type that its full walk does not look at, in their order.
func (l List) Unvisited(t airframe.Type) (out []string) {
	items, _ := Expand(l, t, Ask{Round: Full, Packs: []PackRef{{ID: "pack"}}})
	seen := map[string]bool{}
	for _, it := range items {
		for _, s := range it.Stations() {
			seen[s] = true
		}
	}
	for _, s := range t.Stations() {
		if !seen[s.ID] {
			out = append(out, s.ID)
		}
	}
	return out
}
