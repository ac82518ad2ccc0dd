// Package firmware holds the combination of versions that was tested together
// on a type against what is installed.
package firmware

import (
	"fmt"
	"slices"
	"strings"

	"mainstay/core/judge"
)

// Component is a thing with a version of its own.
type Component string

// The components of a set.
const (
	Aircraft   Component = "aircraft"
	Controller Component = "controller"
	Pack       Component = "pack"
	Payload    Component = "payload"
	App        Component = "app"
)

// AllComponents lists the components in the order they are shown.
var AllComponents = []Component{Aircraft, Controller, Pack, Payload, App}

// Set is a combination that was tested together; "" is not part of it.
type Set map[Component]string

// Finding is a component that does not agree with the set.
type Finding struct {
	Component Component     `json:"component"`
	Wanted    string        `json:"wanted"`
	Installed string        `json:"installed"` // "" is not known
	Verdict   judge.Verdict `json:"verdict"`
	Sentence  string        `json:"sentence"`
}

// Always are the components whose version is wanted of every aircraft, also where
// nobody has said yet what was tested together.
var Always = []Component{Aircraft, Controller}

// Compare holds what is installed against the set. Another version than the
// tested one is Stop; one that is not known is Watch, and Stop for a new aircraft
// that has not flown yet. Versions are compared as text without surrounding
// space.
func Compare(want, have Set, isNew bool) []Finding {
	var out []Finding
	for _, c := range AllComponents {
		w, h := strings.TrimSpace(want[c]), strings.TrimSpace(have[c])
		switch {
		case w == h && w != "", w == "" && (h != "" || !slices.Contains(Always, c)):
		case h == "":
			s := fmt.Sprintf("The firmware of the %s is not known", c)
			if w != "" {
				s += "; tested together was " + w
			}
			v := judge.Watch
			if isNew {
				v, s = judge.Stop, s+". A new aircraft flies only when it is"
			}
			out = append(out, Finding{c, w, h, v, s + "."})
		default:
			out = append(out, Finding{c, w, h, judge.Stop, fmt.Sprintf("The %s has %s, tested together was %s.", c, h, w)})
		}
	}
	return out
}

// Known reports whether c is a component.
func Known(c Component) bool { return slices.Contains(AllComponents, c) }
