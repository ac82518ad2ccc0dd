package checks

import (
	"fmt"
	"slices"
	"strings"

	"mainstay/core/intent"
	"mainstay/core/practice"
)

// Fact is what is known of the day when a round begins: a word or a number.
type Fact struct {
	Word   string   `json:"word,omitempty"`
	Number *float64 `json:"number,omitempty"`
}

// Facts are what is known, by name; what is missing is unknown.
type Facts map[string]Fact

// FactName is something that a condition may ask about.
type FactName struct {
	Key   string
	Says  string   // in a sentence
	Words []string // that it can be; none: a number
	Unit  string
}

var yesNo = []string{"yes", "no"}

// Facts that what an aircraft tells is held against.
const (
	FactReturn   = "return-height"
	FactHigh     = "highest"
	FactLostLink = "lost-link"
)

func lostLinks() (out []string) {
	for _, l := range intent.AllLostLinks {
		out = append(out, string(l))
	}
	return out
}

// AllFacts lists what conditions may ask about; besides, practice.ID asks for the school that
// the crew keeps.
var AllFacts = []FactName{
	{Key: "work", Says: "the work", Words: []string{"spraying", "mapping", "inspection", "practice"}},
	{Key: "night", Says: "night or twilight", Words: yesNo},
	{Key: "first-of-day", Says: "first flight of the day", Words: yesNo},
	{Key: "new-aircraft", Says: "new aircraft", Words: yesNo},
	{Key: "event", Says: "an event since the last check", Words: yesNo},
	{Key: "worked", Says: "work done since the last check", Words: yesNo},
	{Key: "other-type", Says: "the pilot flew another type last", Words: yesNo},
	{Key: "compass", Says: "calibration of the compass", Words: []string{"needed", "not needed"}},
	{Key: "days-since-flight", Says: "time since the last flight", Unit: "days"},
	{Key: "days-since-compass", Says: "time since the compass was calibrated", Unit: "days"},
	{Key: "km-since-compass", Says: "distance from where the compass was calibrated", Unit: "km"},
	{Key: "product", Says: "product on board", Words: yesNo},
	{Key: "wind", Says: "the wind, with gusts, of the last hour", Unit: "m/s"},
	{Key: "payload", Says: "payload, attachments and liquid", Unit: "kg"},
	{Key: FactReturn, Says: "the return height that the job sets", Unit: "m"},
	{Key: FactHigh, Says: "the highest place of the flight above ground", Unit: "m"},
	{Key: FactLostLink, Says: "what it does without link, as the job sets it", Words: lostLinks()},
}

// practiceFact begins the name of a fact that is a school of the crew's practice.
const practiceFact = "practice."

// FactOf finds what a condition may ask about.
func FactOf(key string) (FactName, bool) {
	if id, ok := strings.CutPrefix(key, practiceFact); ok {
		q, err := practice.Find(practice.ID(id))
		if err != nil {
			return FactName{}, false
		}
		f := FactName{Key: key, Says: "the crew's practice: " + strings.TrimSuffix(q.Asks, "?")}
		for _, s := range q.Schools {
			f.Words = append(f.Words, s.ID)
		}
		return f, true
	}
	i := slices.IndexFunc(AllFacts, func(f FactName) bool { return f.Key == key })
	if i < 0 {
		return FactName{}, false
	}
	return AllFacts[i], true
}

// WithPractice adds what the crew keeps.
func (f Facts) WithPractice(kept practice.Settings) Facts {
	out := Facts{}
	for k, v := range f {
		out[k] = v
	}
	for _, q := range practice.Questions {
		s, _ := kept.Kept(q.ID)
		out[practiceFact+string(q.ID)] = Fact{Word: s.ID}
	}
	return out
}

// When is one condition: a fact that is one of some words, or over a number.
type When struct {
	Fact string   `json:"fact"`
	Is   []string `json:"is,omitempty"`
	Over *float64 `json:"over,omitempty"`
}

// check says what is wrong with a condition; empty: nothing.
func (w When) check() string {
	f, ok := FactOf(w.Fact)
	switch {
	case !ok:
		return fmt.Sprintf("nobody knows of %q", w.Fact)
	case len(f.Words) == 0 && (w.Over == nil || len(w.Is) > 0):
		return fmt.Sprintf("%s is a number: say over how much", w.Fact)
	case len(f.Words) > 0 && (w.Over != nil || len(w.Is) == 0):
		return fmt.Sprintf("%s is one of %s", w.Fact, strings.Join(f.Words, ", "))
	}
	for _, x := range w.Is {
		if !slices.Contains(f.Words, x) {
			return fmt.Sprintf("%s is one of %s, never %q", w.Fact, strings.Join(f.Words, ", "), x)
		}
	}
	return ""
}

// holds reports whether the item is asked; what is not known asks.
func (w When) holds(facts Facts) bool {
	have, ok := facts[w.Fact]
	switch {
	case !ok:
		return true
	case w.Over != nil:
		return have.Number == nil || !(*have.Number <= *w.Over)
	case have.Word == "" || len(w.Is) == 0:
		return true
	}
	return slices.Contains(w.Is, have.Word)
}

// says is why a condition holds, in words.
func (w When) says(facts Facts) string {
	f, _ := FactOf(w.Fact)
	have, ok := facts[w.Fact]
	switch {
	case !ok || w.Over != nil && have.Number == nil || w.Over == nil && have.Word == "":
		return f.Says + " is not known"
	case w.Over != nil:
		return fmt.Sprintf("%s is %s %s, over %s", f.Says, num(*have.Number), f.Unit, num(*w.Over))
	}
	return f.Says + ": " + have.Word
}

// not says why a condition that does not hold does not.
func (w When) not(facts Facts) string {
	f, _ := FactOf(w.Fact)
	have := facts[w.Fact]
	if w.Over != nil {
		return fmt.Sprintf("%s is %s %s, asked over %s", f.Says, num(*have.Number), f.Unit, num(*w.Over))
	}
	return fmt.Sprintf("%s: %s, asked when %s", f.Says, have.Word, strings.Join(w.Is, " or "))
}

// LeftOut is an item that a round does not ask for, because of what is known of the day. It is
// shown and goes on record: nothing is dropped unseen.
type LeftOut struct {
	ItemID  string `json:"item_id"`
	Station string `json:"station"`
	Title   string `json:"title"`
	Stops   bool   `json:"stops"` // it could stop a flight
	Why     string `json:"why"`
	When    []When `json:"when"` // what would ask for it
}

// Asked reports whether a flight on a day of which these facts are known asks for what was left
// out; what is not known asks.
func (l LeftOut) Asked(facts Facts) bool {
	return len(l.When) == 0 || slices.ContainsFunc(l.When, func(w When) bool { return w.holds(facts) })
}

// leftOut says why an item is not asked; empty: it is.
func (it Item) leftOut(facts Facts) string {
	if len(it.When) == 0 {
		return ""
	}
	var why []string
	for _, w := range it.When {
		if w.holds(facts) {
			return ""
		}
		why = append(why, w.not(facts))
	}
	s := strings.Join(why, "; ")
	return strings.ToUpper(s[:1]) + s[1:] + "."
}
