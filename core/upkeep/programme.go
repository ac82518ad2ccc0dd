// Package upkeep holds the maintenance programme of an aircraft type: tasks
// with limits or events that call for them, their steps and readings, and what
// may be put off. Counters are those of package wear; times are UTC.
package upkeep

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strings"

	"mainstay/core/judge"
	"mainstay/core/wear"
	"mainstay/core/why"
)

// Event is something that happened to an aircraft and calls for work.
type Event string

// The events that open tasks.
const (
	Contact         Event = "contact"
	HardLanding     Event = "hard-landing"
	Water           Event = "water"
	Overheating     Event = "overheating"
	ChemicalSpill   Event = "chemical-spill"
	FirmwareChange  Event = "firmware-change"
	TransportDamage Event = "transport-damage"
	Built           Event = "rebuilt" // new, or built again
)

// AllEvents lists the events that open tasks.
var AllEvents = []Event{Contact, HardLanding, Water, Overheating, ChemicalSpill, FirmwareChange, TransportDamage, Built}

// Load is what an acceptance flight carries.
type Load string

// The acceptance flights after work, in this order: first without, then with load.
const (
	NoLoad Load = "no-load"
	Loaded Load = "load"
)

// Band is a value that is in order within its tolerance.
type Band struct {
	Target    float64 `json:"target"`
	Tolerance float64 `json:"tolerance"`
}

// Reading is a value measured in a step; it is in order inside any band.
type Reading struct {
	Quantity string `json:"quantity"`
	Unit     string `json:"unit"`
	Bands    []Band `json:"bands"`
}

// Step is one thing done in a task.
type Step struct {
	ID      string   `json:"id"`
	Text    string   `json:"text"`
	Reading *Reading `json:"reading,omitempty"`
	Photo   bool     `json:"photo,omitempty"` // a photo is the evidence
}

// Need is a kind of part that a task uses up.
type Need struct {
	Kind  string `json:"kind"`
	Count int    `json:"count"`
}

// Grace is how far something may be put off, counted from the signature; zero
// fields do not limit. Limits says how the aircraft may be used meanwhile.
type Grace struct {
	Hours   float64 `json:"hours,omitempty"`
	Flights int     `json:"flights,omitempty"`
	Days    int     `json:"days"`
	Limits  string  `json:"limits"`
}

// Task is one piece of the programme.
type Task struct {
	ID          string      `json:"id"`
	Title       string      `json:"title"`
	Why         string      `json:"why"`
	Station     string      `json:"station"`                // where on the airframe, "frame" for the whole
	Every       wear.Limits `json:"every"`                  // since it was last done; first limit wins
	AfterFlying bool        `json:"after_flying,omitempty"` // due in the evening of a day on which it flew
	After       []Event     `json:"after,omitempty"`
	// when an event opened it, the aircraft stays on the ground until it is signed
	Grounds      bool     `json:"grounds,omitempty"`
	Tools        []string `json:"tools,omitempty"`
	Steps        []Step   `json:"steps"`
	Parts        []Need   `json:"parts,omitempty"`
	SecondPerson bool     `json:"second_person,omitempty"`
	Acceptance   []Load   `json:"acceptance,omitempty"`
	Defer        *Grace   `json:"defer,omitempty"` // nil: may not be put off
}

// Leave allows defects at kinds of station to be put off.
type Leave struct {
	Stations []string `json:"stations"` // kinds of station
	Grace    Grace    `json:"grace"`
}

// Programme is the maintenance programme of a type.
type Programme struct {
	TypeKey string  `json:"type_key"`
	Version int     `json:"version"`
	Tasks   []Task  `json:"tasks"`
	Leaves  []Leave `json:"leaves,omitempty"`
}

// ErrProgramme is wrapped by every error about a programme that cannot be used.
var ErrProgramme = errors.New("programme not usable")

var idForm = regexp.MustCompile(`^[a-z0-9]+(-[a-z0-9]+)*$`)

// Validate says what is wrong with a programme; nil when it can be used.
// stations are the ids, kinds the kinds of station that the type has.
func (p Programme) Validate(stations, kinds []string) error {
	if p.Version < 1 {
		return bad("version must be 1 or more")
	}
	if len(p.Tasks) == 0 || len(p.Tasks) > 200 {
		return bad("it must have 1 to 200 tasks")
	}
	seen := map[string]bool{}
	for _, t := range p.Tasks {
		if seen[t.ID] {
			return bad("task %q is there twice", t.ID)
		}
		seen[t.ID] = true
		if err := t.validate(stations); err != nil {
			return err
		}
	}
	for _, l := range p.Leaves {
		if err := l.Grace.validate("leave"); err != nil {
			return err
		}
		if i := slices.IndexFunc(l.Stations, func(k string) bool { return !slices.Contains(kinds, k) }); i >= 0 ||
			len(l.Stations) == 0 {
			return bad("a leave names stations of the kinds %s", strings.Join(kinds, ", "))
		}
	}
	return nil
}

func bad(format string, a ...any) error {
	return why.Not(ErrProgramme, format, a...)
}

func (t Task) validate(stations []string) error {
	switch {
	case !idForm.MatchString(t.ID) || len(t.ID) > 60:
		return bad("task id %q must be small letters, digits and single hyphens, at most 60", t.ID)
	case strings.TrimSpace(t.Title) == "" || len(t.Title) > 120:
		return bad("task %s: title must have 1 to 120 characters", t.ID)
	case !slices.Contains(stations, t.Station):
		return bad("task %s: the type has no station %q", t.ID, t.Station)
	case t.Every.Beyond():
		return bad("task %s: a limit is not within 0-%d", t.ID, wear.Most)
	case t.Every == (wear.Limits{}) && len(t.After) == 0 && !t.AfterFlying:
		return bad("task %s has neither a limit nor an event", t.ID)
	case len(t.Steps) == 0 || len(t.Steps) > 60:
		return bad("task %s must have 1 to 60 steps", t.ID)
	}
	for _, e := range t.After {
		if !slices.Contains(AllEvents, e) {
			return bad("task %s: event %q is none of %v", t.ID, e, AllEvents)
		}
	}
	for _, a := range t.Acceptance {
		if a != NoLoad && a != Loaded {
			return bad("task %s: acceptance flight %q is neither no-load nor load", t.ID, a)
		}
	}
	for _, n := range t.Parts {
		if n.Kind == "" || n.Count < 1 || n.Count > 100 {
			return bad("task %s: parts name a kind and a count of 1 to 100", t.ID)
		}
	}
	if t.Defer != nil {
		if err := t.Defer.validate("task " + t.ID); err != nil {
			return err
		}
	}
	seen := map[string]bool{}
	for _, s := range t.Steps {
		if !idForm.MatchString(s.ID) || seen[s.ID] || strings.TrimSpace(s.Text) == "" {
			return bad("task %s: each step has its own id and a text", t.ID)
		}
		seen[s.ID] = true
		if r := s.Reading; r != nil && (r.Quantity == "" || len(r.Bands) == 0 ||
			slices.ContainsFunc(r.Bands, func(b Band) bool {
				return !(b.Tolerance >= 0 && b.Tolerance <= 1e6) ||
					!(math.Abs(b.Target) <= 1e6)
			})) {
			return bad("task %s, step %s: a reading has a quantity and bands with a tolerance of zero or more", t.ID, s.ID)
		}
	}
	return nil
}

func (g Grace) validate(of string) error {
	if g.Days < 1 || g.Days > 365 || !(g.Hours >= 0) || g.Flights < 0 {
		return bad("%s: what is put off ends after 1 to 365 days", of)
	}
	return nil
}

// Judgement is the verdict on a step with the sentence that explains it.
type Judgement struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Entry is what was done and found in a step. Exactly one of Done and NotOK is
// set; a step with a reading has Number, one with a photo at least one photo.
type Entry struct {
	Done   bool     `json:"done,omitempty"`
	NotOK  bool     `json:"not_ok,omitempty"`
	Number *float64 `json:"number,omitempty"`
	Note   string   `json:"note,omitempty"`
	Photos []string `json:"photos,omitempty"`
}

// ErrEntry is wrapped by every error about an entry that cannot be taken.
var ErrEntry = errors.New("entry not usable")

// Judge holds an entry against its step. What is out of tolerance or not in
// order is Stop: the work cannot be signed with it. Errors wrap ErrEntry.
func (s Step) Judge(e Entry) (Judgement, error) {
	switch {
	case e.NotOK && strings.TrimSpace(e.Note) == "":
		return Judgement{}, why.Not(ErrEntry, "say what is not in order")
	case e.NotOK:
		return Judgement{judge.Stop, "Not in order: " + strings.TrimSpace(e.Note)}, nil
	case s.Reading == nil && !e.Done:
		return Judgement{}, why.Not(ErrEntry, "say whether it is done")
	case s.Photo && len(e.Photos) == 0:
		return Judgement{}, why.Not(ErrEntry, "this step asks for a photo")
	case s.Reading == nil:
		return Judgement{judge.Clear, "Done."}, nil
	case e.Number == nil:
		return Judgement{}, why.Not(ErrEntry, "enter the %s", s.Reading.Quantity)
	case math.IsNaN(*e.Number) || math.IsInf(*e.Number, 0) || math.Abs(*e.Number) > 1e6:
		return Judgement{}, why.Not(ErrEntry, "%g is not a %s", *e.Number, s.Reading.Quantity)
	}
	r, v := s.Reading, *e.Number
	var words []string
	for _, b := range r.Bands {
		words = append(words, fmt.Sprintf("%g ± %g %s", b.Target, b.Tolerance, r.Unit))
		// Compared in whole millionths, so that 63 is inside 60 ± 3 whatever the binary says.
		if math.Round(math.Abs(v-b.Target)*1e6) <= math.Round(b.Tolerance*1e6) {
			return Judgement{judge.Clear, fmt.Sprintf("%g %s is inside %s.", v, r.Unit, words[len(words)-1])}, nil
		}
	}
	return Judgement{judge.Stop, fmt.Sprintf("%g %s is outside %s.", v, r.Unit, strings.Join(words, " and "))}, nil
}
