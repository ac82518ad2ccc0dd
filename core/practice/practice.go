// Package practice knows where crews differ: each question with its schools, the
// default, and the reason for it. What a crew chose is data that the judgement
// reads; a type whose maker demands something overrules it.
package practice

import (
	"errors"
	"mainstay/core/why"
	"maps"
	"slices"
)

// ID names a question on which crews differ.
type ID string

// The questions.
const (
	Compass         ID = "compass"
	Satellites      ID = "satellites"
	Propellers      ID = "propeller-interval"
	FullInspection  ID = "full-inspection"
	PowerOrder      ID = "power-order"
	LaunchCharge    ID = "launch-charge"
	LandBy          ID = "land-by"
	SprayWind       ID = "spray-wind"
	Sensing         ID = "obstacle-sensing"
	TakeOffBy       ID = "take-off-by"
	SafeDistance    ID = "safe-distance"
	OtherPropellers ID = "third-party-propellers"
	ReturnMargin    ID = "return-margin"
	Corrections     ID = "corrections"
	Antennas        ID = "antennas"
	VerticalSensing ID = "vertical-sensing"
	WalkPace        ID = "walk-pace"
	Drills          ID = "drills"
)

// Number is a figure of a school that a crew may change, in Unit, from Min to Max.
type Number struct {
	Key   string  `json:"key"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	Usual float64 `json:"usual"`
	Min   float64 `json:"min"`
	Max   float64 `json:"max"`
}

// School is one way to do it.
type School struct {
	ID      string   `json:"id"`
	Says    string   `json:"says"`
	Numbers []Number `json:"numbers"`
}

// Question is one row on which crews differ.
type Question struct {
	ID      ID       `json:"id"`
	Asks    string   `json:"asks"`
	Schools []School `json:"schools"`
	Default string   `json:"default"` // id of a school
	Why     string   `json:"why"`     // the reason for the default
	Where   string   `json:"where"`   // where the judgement uses it
}

// Choice is what a crew chose, or what a maker demands.
type Choice struct {
	School  string             `json:"school"`
	Numbers map[string]float64 `json:"numbers,omitempty"` // by key; what is missing is usual
}

// Settings are choices by question. What is missing is the default.
type Settings map[ID]Choice

// ErrPractice is wrapped by every error about a choice that cannot be used.
var ErrPractice = errors.New("practice not usable")

// Find returns a question; an unknown one is an error.
func Find(id ID) (Question, error) {
	if i := slices.IndexFunc(Questions, func(q Question) bool { return q.ID == id }); i >= 0 {
		return Questions[i], nil
	}
	return Question{}, why.Not(ErrPractice, "nobody differs on %q", id)
}

// school of a question by id.
func (q Question) school(id string) (School, bool) {
	i := slices.IndexFunc(q.Schools, func(s School) bool { return s.ID == id })
	if i < 0 {
		return School{}, false
	}
	return q.Schools[i], true
}

// Check says what is wrong with a choice; nil when it can be used.
func (q Question) Check(c Choice) error {
	s, ok := q.school(c.School)
	if !ok {
		return why.Not(ErrPractice, "%q is no school of %s", c.School, q.ID)
	}
	for k, v := range c.Numbers {
		i := slices.IndexFunc(s.Numbers, func(n Number) bool { return n.Key == k })
		if i < 0 {
			return why.Not(ErrPractice, "%s, %s has no number %q", q.ID, s.ID, k)
		}
		if n := s.Numbers[i]; !(v >= n.Min && v <= n.Max) {
			return why.Not(ErrPractice, "%s must be %g to %g %s", n.Label, n.Min, n.Max, n.Unit)
		}
	}
	if q.ID == SprayWind && !(number(s, c, "low") < number(s, c, "high")) {
		return why.Not(ErrPractice, "the window of the wind must open below where it closes")
	}
	return nil
}

// Validate says what is wrong with settings; nil when they can be used.
func (s Settings) Validate() error {
	for _, id := range slices.Sorted(maps.Keys(s)) {
		q, err := Find(id)
		if err != nil {
			return err
		}
		if err := q.Check(s[id]); err != nil {
			return err
		}
	}
	return nil
}

// Over is the settings with others over them: what a maker demands wins.
func (s Settings) Over(demands Settings) Settings {
	out := maps.Clone(s)
	if out == nil {
		out = Settings{}
	}
	maps.Copy(out, demands)
	return out
}

// Kept is the choice of a question: what is set and can be used, else the default.
func (s Settings) Kept(id ID) (School, Choice) {
	q, err := Find(id)
	if err != nil {
		return School{}, Choice{}
	}
	c, ok := s[id]
	if !ok || q.Check(c) != nil {
		c = Choice{School: q.Default}
	}
	out, _ := q.school(c.School)
	return out, c
}

func number(s School, c Choice, key string) float64 {
	if v, ok := c.Numbers[key]; ok {
		return v
	}
	if i := slices.IndexFunc(s.Numbers, func(n Number) bool { return n.Key == key }); i >= 0 {
		return s.Numbers[i].Usual
	}
	return 0
}

// is reports whether a school is kept.
func (s Settings) is(id ID, school string) bool {
	k, _ := s.Kept(id)
	return k.ID == school
}

// number of a question by key; 0 where the school kept has none of that name.
func (s Settings) number(id ID, key string) float64 {
	k, c := s.Kept(id)
	return number(k, c, key)
}
