package airframe

import (
	"fmt"
	"slices"
	"strings"
)

// Sticks are the gestures of the sticks that start and stop the motors of a type,
// in words. They differ between types and may mean opposite things.
type Sticks struct {
	Start     string `json:"start"`
	Stop      string `json:"stop"`
	Emergency string `json:"emergency_stop"`          // cuts the motors in the air; the last resort
	From      string `json:"from_firmware,omitempty"` // version from which they hold; empty: any
}

// known reports whether all gestures are given.
func (s *Sticks) known() bool {
	return s != nil && !slices.ContainsFunc([]string{s.Start, s.Stop, s.Emergency},
		func(g string) bool { return plain(g) == "" })
}

// plain is a gesture without spelling: what two types write differently by case
// and spaces alone is one gesture.
func plain(g string) string { return strings.Join(strings.Fields(strings.ToLower(g)), " ") }

// Gestures says how the motors of the type are started and stopped, and in which
// order it is switched on; unknown says that the type file does not tell.
func (t Type) Gestures() (words []string, unknown bool) {
	order := "Switch on the controller first, then the aircraft; off the other way round."
	if t.Kept().Power() == "aircraft-first" {
		order = "Switch on the aircraft first, then the controller; off the other way round."
	}
	words = []string{order}
	if !t.Sticks.known() {
		return words, true
	}
	from := ""
	if t.Sticks.From != "" {
		from = " (from firmware " + t.Sticks.From + ")"
	}
	return append(words, fmt.Sprintf("Sticks%s: start, %s; stop, %s; emergency stop, %s. Cutting the motors in the air is the last resort.",
		from, t.Sticks.Start, t.Sticks.Stop, t.Sticks.Emergency)), false
}

// Opposite names what is meant by another gesture on t than on the type that was
// flown before, gesture by gesture; empty when nothing is.
func (t Type) Opposite(before Type) []string {
	if !t.Sticks.known() || !before.Sticks.known() {
		return nil
	}
	names := []string{"start", "stop", "emergency stop"}
	mine := []string{t.Sticks.Start, t.Sticks.Stop, t.Sticks.Emergency}
	theirs := []string{before.Sticks.Start, before.Sticks.Stop, before.Sticks.Emergency}
	var out []string
	for i, g := range mine {
		for k, h := range theirs {
			if i != k && plain(g) == plain(h) && !(plain(mine[k]) == plain(h)) {
				out = append(out, fmt.Sprintf("%s is %s here, and was %s on the %s", g, names[i], names[k], before.Name))
			}
		}
	}
	return out
}
