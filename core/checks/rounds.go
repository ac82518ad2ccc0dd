package checks

import "slices"

// The rounds that a list can be walked as.
const (
	Full       = "walkround"
	Turnaround = "turnaround"
	Hover      = "hover"
	Landing    = "landing"
	StandDown  = "stand-down"
	DayBefore  = "day-before"
	KitOut     = "kit-out"
	KitIn      = "kit-in"
	Weekly     = "weekly"
	Bench      = "bench"
	Outdoor    = "outdoor"
)

// Round is one way to walk a list: when it is done, and what it is for.
type Round struct {
	Key   string `json:"key"`
	Title string `json:"title"`
	When  string `json:"when"`
	Packs bool   `json:"packs"` // packs come along
	Check bool   `json:"check"` // it says whether the aircraft may fly: one of these is open at a time
}

// AllRounds lists them in the order of a day, then of a life.
var AllRounds = []Round{
	{Full, "Walkround", "everything, first flight of the day", true, true},
	{Turnaround, "Turnaround", "the short one, with every pack", true, true},
	{Hover, "Hover check", "the first minute in the air, near and low", false, false},
	{Landing, "Landing check", "right after the motors stop", true, false},
	{StandDown, "Stand-down", "the end of the day", true, false},
	{DayBefore, "Day before", "at base, the evening before", false, false},
	{KitOut, "Kit counted out", "before the truck leaves base", false, false},
	{KitIn, "Kit counted in", "before the truck leaves the site", false, false},
	{Weekly, "Weekly", "regularly, at base", false, false},
	{Bench, "Acceptance on the bench", "new or rebuilt, propellers off", false, false},
	{Outdoor, "Acceptance outdoors", "new or rebuilt, before its first work", true, false},
}

// RoundOf finds a round by its key.
func RoundOf(key string) (Round, bool) {
	i := slices.IndexFunc(AllRounds, func(r Round) bool { return r.Key == key })
	if i < 0 {
		return Round{}, false
	}
	return AllRounds[i], true
}

// Walked reports whether a round walks the section.
func (s Section) Walked(round string) bool {
	return slices.Contains(s.In, round) || len(s.In) == 0 && round == Full
}

// in reports whether an item of the section is walked in a round.
func (s Section) in(round string, it Item) bool {
	return s.Walked(round) || round == Turnaround && it.Short && s.Walked(Full)
}

// Rounds lists the rounds that a list has items for.
func (l List) Rounds() []Round {
	out := []Round{}
	for _, r := range AllRounds {
		if slices.ContainsFunc(l.Sections, func(s Section) bool {
			return slices.ContainsFunc(s.Items, func(it Item) bool { return s.in(r.Key, it) })
		}) {
			out = append(out, r)
		}
	}
	return out
}
