// Package brief writes the briefing of a job from what was assessed: conditions,
// hazards, emergency and contingency procedures, roles, signals. It holds for one crew, site and day.
package brief

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/crew"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/practice"
)

// Section is one part of a briefing.
type Section struct {
	Title string   `json:"title"`
	Lines []string `json:"lines"`
}

// Person with a role in the job.
type Person struct {
	ID   string
	Name string
	Post crew.Post
}

// Thing is something on the map that people must know about.
type Thing struct {
	Kind    string // obstacle, wires, interference, sensitive, no-go
	Name    string
	What    string
	HeightM *float64
	SigmaM  float64
	BufferM float64
	Note    string
}

// Aircraft of the job.
type Aircraft struct {
	Name          string
	Type          string
	ReturnM       *float64 // return height set in it; nil not known
	AdvisedM      *float64 // what was worked out
	HomeFollows   bool
	LostLink      intent.LostLink
	LandByPercent float64
	StandOffM     float64  // how far off the crew stands; 0: as usual
	RouteM        *float64 // height of the route over its datum; nil: usual for the type
	Datum         string   // what that is counted from, in words
	SpeedMS       *float64
	MassKg        *float64
	Decided       []string // decisions about it, in words
}

// plan is how it is flown, in words.
func (a Aircraft) plan() string {
	said := func(v *float64, format, none string) string {
		if v == nil {
			return none
		}
		return fmt.Sprintf(format, *v)
	}
	s := a.Name + ": " + said(a.ReturnM, "returns at %.0f m", "return height not read")
	if a.HomeFollows {
		s += " to the pilot"
	}
	s += ", route at " + said(a.RouteM, "%.0f m "+a.Datum, "the usual height")
	s += said(a.SpeedMS, ", at most %.1f m/s", "") + said(a.MassKg, ", %.1f kg", "")
	if a.LostLink != "" {
		s += ", without link " + a.LostLink.Words()
	}
	if len(a.Decided) > 0 {
		s += "; decided: " + strings.Join(a.Decided, "; ")
	}
	return s
}

// Drawn is something of the map that the flight follows: take-off place, route,
// area.
type Drawn struct {
	Kind, Name string
	Shape      string // fingerprint of its places
	Chosen     bool   // the job takes off or lands there
}

// Input is what a briefing is written from.
type Input struct {
	Job      string // aim in one line
	Work     string
	Product  string
	Site     string
	SiteNote string
	From, To time.Time // in the zone they are shown in
	People   []Person
	Aircraft []Aircraft
	Things   []Thing
	TakeOffs []string
	Drawn    []Drawn
	Weather  []string // sentences about the air as last judged
	Sun      []string
	Airspace []string
	Findings []judge.Finding // not Clear, of site, air and airspace
	Stops    []Stop          // among them, about the map and the way
	Channel  string          // agreed way to speak; empty is usual practice
	Meeting  string          // where to gather in an emergency; empty is not agreed
}

// Write composes the briefing. What is not known is said, never left out.
func Write(in Input) []Section {
	return []Section{in.task(), in.conditions(), in.hazards(), in.emergency(), in.roles(), in.signals()}
}

func (in Input) task() Section {
	s := Section{Title: "The job"}
	s.add("%s at %s, %s to %s.", in.Job, in.Site, in.From.Format("2006-01-02 15:04"), in.To.Format("15:04 MST"))
	if in.SiteNote != "" {
		s.add("%s", in.SiteNote)
	}
	for _, a := range in.Aircraft {
		s.add("%s (%s), lands at %.0f %% at the latest.", a.Name, a.Type, a.LandByPercent)
		s.add("%s.", a.plan())
	}
	if len(in.Aircraft) == 0 {
		s.add("No aircraft is named yet.")
	}
	if in.Work == "spraying" {
		if in.Product == "" {
			s.add("Product: not recorded. The label decides; nobody mixes before it is read.")
		} else {
			s.add("Product: %s. The label decides: protection, buffer, re-entry.", in.Product)
		}
	}
	return s
}

func (in Input) conditions() Section {
	s := Section{Title: "Conditions"}
	s.Lines = slices.Concat(in.Weather, in.Sun, in.Airspace)
	if len(in.Weather) == 0 {
		s.Lines = append([]string{"Weather: not known yet. It is read on the spot before take-off."}, s.Lines...)
	}
	if len(in.Airspace) == 0 {
		s.add("Airspace: not looked up yet.")
	}
	return s
}

// order of hazards: what kills first comes first.
var order = []string{"wires", "sensitive", "obstacle", "interference", "no-go"}

func (in Input) hazards() Section {
	s := Section{Title: "Hazards"}
	for _, kind := range order {
		for _, t := range in.Things {
			if t.Kind == kind {
				s.Lines = append(s.Lines, t.words())
			}
		}
	}
	if len(in.Things) == 0 {
		s.add("Nothing is on the map. Look for wires from both ends: poles first, then the spans.")
	}
	for _, f := range in.Findings {
		line := judge.Capital(f.Verdict.String()) + ": " + f.Sentence
		if f.Verdict != judge.Clear && !slices.Contains(s.Lines, line) {
			s.Lines = append(s.Lines, line)
		}
	}
	switch in.Work {
	case "spraying":
		s.add("Drift harms people, bees, water and neighbours: stop spraying when the wind turns or drops.")
	case "inspection":
		s.add("Never near energised parts closer than their owner agreed; the aircraft's sensors do not see wires.")
	}
	off := 0.0
	for _, a := range in.Aircraft {
		off = max(off, a.StandOffM)
	}
	if off == 0 {
		off = practice.Settings(nil).StandOffM()
	}
	s.add("Propellers cut. Nobody within %.0f m of an aircraft with its pack in, nobody in front or at the side.", off)
	return s
}

func (t Thing) words() string {
	name := t.Name
	if name == "" {
		name = "unnamed"
	}
	w := judge.Capital(t.Kind) + ": " + name
	if t.What != "" && t.What != t.Name {
		w += " (" + t.What + ")"
	}
	if t.Kind == "obstacle" || t.Kind == "wires" {
		if t.HeightM == nil {
			w += ", height not known: never fly over"
		} else {
			w += fmt.Sprintf(", %.1f m ± %.1f", *t.HeightM, 2*t.SigmaM)
		}
	}
	if t.BufferM > 0 {
		w += fmt.Sprintf(", keep %.0f m", t.BufferM)
	}
	w += "."
	if t.Note != "" {
		w += " " + t.Note
	}
	return w
}

func (in Input) emergency() Section {
	s := Section{Title: "Emergency and contingency"}
	for _, a := range in.Aircraft {
		home := "to where it took off"
		if a.HomeFollows {
			home = "to the pilot: the home point follows"
		}
		switch {
		case a.LostLink != "" && a.LostLink != intent.Returns:
			s.add("Link lost: %s %s. Keep clear of all of its way.", a.Name, a.LostLink.Words())
		case a.ReturnM == nil:
			s.add("Link lost: what %s does is not known, its return height has not been read. Read it before take-off.", a.Name)
		default:
			s.add("Link lost: %s climbs to %.0f m above take-off and returns %s. Keep clear of the landing place.", a.Name,
				*a.ReturnM, home)
		}
		if a.ReturnM != nil && a.AdvisedM != nil && *a.ReturnM < *a.AdvisedM {
			s.add("The return height of %s is too low: at least %.0f m are needed.", a.Name, *a.AdvisedM)
		}
	}
	s.add("Position lost: the pilot takes over by hand, levels, climbs clear, brings it back in sight.")
	s.add("Pack low: land at the nearest clear place; the landing places are %s.", listed(in.TakeOffs, "not charted yet"))
	s.add("Manned aircraft near: descend at once, hold or land, give way.")
	s.add("Person walks in: whoever sees it calls “Stop”; the aircraft holds, then lands away from people.")
	s.add("Fire or smoke from a pack: get away upwind, let it burn out, sand or much water from a distance, never carry it.")
	s.add("Somebody hurt: motors off, pack out if safe, first aid, call for help, note time and place.")
	if in.Meeting == "" {
		s.add("Meeting point: not agreed yet.")
	} else {
		s.add("Meeting point: %s.", strings.TrimRight(in.Meeting, "."))
	}
	return s
}

func (in Input) roles() Section {
	s := Section{Title: "Roles"}
	for _, post := range crew.AllPosts {
		for _, p := range in.People {
			if p.Post == post {
				s.add("%s: %s.", p.Name, post.Words())
			}
		}
	}
	if !slices.ContainsFunc(in.People, func(p Person) bool { return p.Post == crew.InCommand }) {
		s.add("Nobody is named as remote pilot in command.")
	}
	s.add("One named person holds the controller; nobody else touches it.")
	s.add("Everybody may call “Stop”, and it counts at once.")
	return s
}

func (in Input) signals() Section {
	s := Section{Title: "Signals"}
	if in.Channel != "" {
		s.add("%s.", strings.TrimRight(in.Channel, "."))
	}
	s.add("Before take-off, aloud: “Area clear?” – “Clear” from everybody – “Taking off”.")
	s.add("“Stop”: both arms crossed over the head, or three short calls on the radio.")
	s.add("“Land”: one arm pushed down again and again. “Person in the area”: arm pointing there.")
	s.add("Before landing, aloud: “Landing”. After the pack is out: “Safe”.")
	return s
}

func (s *Section) add(format string, a ...any) { s.Lines = append(s.Lines, fmt.Sprintf(format, a...)) }

func listed(names []string, none string) string {
	if len(names) == 0 {
		return none
	}
	return strings.Join(names, ", ")
}

// Basis is what a briefing holds for: the crew with its roles, the site with
// what stands there, the places and heights of the flight, how each aircraft is
// flown and comes home, and the day. Two equal bases are one briefing.
type Basis struct {
	Site   string   `json:"site"`
	Day    string   `json:"day"`
	People []string `json:"people"` // id and role
	Things []string `json:"things"` // what people must know about, in words
	Drawn  []string `json:"drawn"`  // places and route
	Plan   []string `json:"plan"`   // how each aircraft is flown, in words
	Agreed string   `json:"agreed"` // work, product, meeting point, how people speak
	Stops  []string `json:"stops"`  // what it lists as Stop about the map and the way: aircraft and rule
}

// Stop is one that a briefing lists: the aircraft that meets it, and the rule.
type Stop struct{ Aircraft, Rule string }

// For is the basis with the Stops of one aircraft only: the others are theirs.
func (b Basis) For(aircraft string) Basis {
	b.Stops = slices.DeleteFunc(slices.Clone(b.Stops), func(s string) bool { return !strings.HasPrefix(s, aircraft+" ") })
	return b
}

// BasisOf takes it from an input.
func BasisOf(in Input, siteID, day string) Basis {
	b := Basis{Agreed: strings.Join([]string{in.Work, in.Product, in.Meeting, in.Channel}, "; "), Site: siteID, Day: day,
		People: []string{}, Things: []string{}, Drawn: []string{}, Plan: []string{}, Stops: []string{}}
	for _, p := range in.People {
		b.People = append(b.People, p.ID+" "+string(p.Post))
	}
	for _, t := range in.Things {
		b.Things = append(b.Things, t.words())
	}
	for _, d := range in.Drawn {
		s := d.Kind + " " + d.Name + " " + d.Shape
		if d.Chosen {
			s += " chosen"
		}
		b.Drawn = append(b.Drawn, strings.TrimSpace(s))
	}
	for _, a := range in.Aircraft {
		b.Plan = append(b.Plan, a.plan())
	}
	for _, x := range in.Stops {
		if s := x.Aircraft + " " + x.Rule; !slices.Contains(b.Stops, s) {
			b.Stops = append(b.Stops, s)
		}
	}
	slices.Sort(b.Stops)
	slices.Sort(b.Drawn)
	slices.Sort(b.Plan)
	slices.Sort(b.People)
	slices.Sort(b.Things)
	return b
}

// Changed says why a briefing that rested on b no longer holds now; empty while
// it does.
func (b Basis) Changed(now Basis) string {
	switch {
	case b.Site != now.Site:
		return "it was for another site"
	case b.Day != now.Day:
		return "it was for another day"
	case !slices.Equal(b.People, now.People):
		return "the crew or its roles changed"
	case !slices.Equal(b.Things, now.Things):
		return "the site file changed"
	case b.Agreed != now.Agreed:
		return "the work, the product, the meeting point or the way to speak changed"
	case !slices.Equal(b.Drawn, now.Drawn):
		return "the route, the area or a take-off or landing place changed"
	case !slices.Equal(b.Plan, now.Plan):
		return "how it is flown changed: " + strings.Join(only(now.Plan, b.Plan), "; ")
	case !slices.Equal(b.Stops, now.Stops):
		return "what stops the flight on the map or on the way is another thing than was briefed"
	}
	return ""
}

// only is what is in a and not in b; where nothing is, what is gone from it.
func only(a, b []string) []string {
	var out []string
	for _, s := range a {
		if !slices.Contains(b, s) {
			out = append(out, s)
		}
	}
	if len(out) == 0 && len(b) > 0 {
		for _, s := range only(b, a) {
			out = append(out, "no longer "+s)
		}
	}
	return out
}
