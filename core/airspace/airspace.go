// Package airspace judges which zones a site lies in, what each asks for, and
// whether what was granted holds. Places are in one flat frame, metres.
package airspace

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/why"
)

// Class is the kind of a zone.
type Class string

// The classes of zone.
const (
	B          Class = "B"
	C          Class = "C"
	D          Class = "D"
	ESurface   Class = "E-surface"
	G          Class = "G"
	Restricted Class = "restricted"
	Prohibited Class = "prohibited"
	Temporary  Class = "temporary" // a temporary flight restriction
	Advisory   Class = "advisory"
)

// AllClasses lists the classes.
var AllClasses = []Class{B, C, D, ESurface, G, Restricted, Prohibited, Temporary, Advisory}

// NeedsAuthorisation reports whether an authorisation opens the class.
func (c Class) NeedsAuthorisation() bool { return slices.Contains([]Class{B, C, D, ESurface}, c) }

// NeedsPermission reports whether only whoever controls the zone opens it.
func (c Class) NeedsPermission() bool {
	return slices.Contains([]Class{Restricted, Prohibited, Temporary}, c)
}

// Datum is what a floor or ceiling is counted from.
type Datum string

// The datums.
const (
	AboveGround Datum = "ground"
	AboveSea    Datum = "sea"
	FlightLevel Datum = "flight-level" // metres in the standard atmosphere: 100 ft for each level
)

// AllDatums lists the datums.
var AllDatums = []Datum{AboveGround, AboveSea, FlightLevel}

// Conversion of a flight level into an elevation: the standard atmosphere rises
// or sinks with the pressure by so many metres for each hPa; where the pressure
// is not known the lowest that is ever met is taken, which brings floors down.
const (
	StandardQNH = 1013.25
	MetresByHPa = 8.23
	LowestQNH   = 950.0
)

// Zone is one piece of airspace. Floor and ceiling are metres over their datum;
// nil is not known and taken as everything, an empty datum is above ground.
type Zone struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	Class    Class      `json:"class"`
	Area     geo.Area   `json:"area"`
	FloorM   *float64   `json:"floor_m"`
	CeilingM *float64   `json:"ceiling_m"`
	From     *time.Time `json:"from"` // nil: always
	To       *time.Time `json:"to"`

	FloorDatum   Datum `json:"floor_datum"`
	CeilingDatum Datum `json:"ceiling_datum"`
}

// Words is a height over its datum as people say it.
func Words(m float64, d Datum) string {
	switch d {
	case AboveSea:
		return fmt.Sprintf("%.0f m above the sea", m)
	case FlightLevel:
		return fmt.Sprintf("flight level %.0f", m/30.48)
	}
	return fmt.Sprintf("%.0f m above the ground", m)
}

// room is how far the flight stays under the floor, m; negative: it reaches into
// the zone. known is false when its highest elevation, which floors above the
// sea and flight levels are held against, is not known.
func (q Question) room(z Zone) (m float64, known bool) {
	switch z.FloorDatum {
	case AboveSea, FlightLevel:
		if q.TopM == nil || !finite(*q.TopM) {
			return 0, false
		}
		floor := *z.FloorM
		if z.FloorDatum == FlightLevel {
			qnh := LowestQNH
			if q.QNH != nil && *q.QNH >= LowestQNH && *q.QNH <= 1100 {
				qnh = *q.QNH
			}
			floor += (qnh - StandardQNH) * MetresByHPa
		}
		return floor - *q.TopM, true
	}
	return *z.FloorM - q.HeightM, true
}

func finite(v float64) bool { return !math.IsNaN(v) && !math.IsInf(v, 0) }

// Grant is an authorisation or permission on record.
type Grant struct {
	ID       string    `json:"id"`
	ZoneID   string    `json:"zone_id"`
	Number   string    `json:"number"`
	CeilingM float64   `json:"ceiling_m"` // above ground
	From     time.Time `json:"from"`
	To       time.Time `json:"to"`
	// Whoever granted it wants to be told at the start and at the end.
	NeedsCalls bool       `json:"needs_calls"`
	Started    *time.Time `json:"started"` // newest call of the kind; nil: none
	Ended      *time.Time `json:"ended"`
	Asked      bool       `json:"asked"`   // not answered yet
	Refused    string     `json:"refused"` // why not; empty: not refused
}

// ErrZone is wrapped by every refusal of a zone.
var ErrZone = errors.New("zone not usable")

// Check refuses a zone without a known class, with an outline that cannot be
// used, upside down in height, or backwards in time.
func (z Zone) Check() error {
	switch {
	case !slices.Contains(AllClasses, z.Class):
		return why.Not(ErrZone, "class %q is none of %v", z.Class, AllClasses)
	case z.FloorDatum != "" && !slices.Contains(AllDatums, z.FloorDatum) || z.CeilingDatum != "" &&
		!slices.Contains(AllDatums, z.CeilingDatum):
		return why.Not(ErrZone, "its heights are counted from none of %v", AllDatums)
	case z.FloorM != nil && !finite(*z.FloorM) || z.CeilingM != nil && !finite(*z.CeilingM):
		return why.Not(ErrZone, "a height of it is no number")
	case z.CeilingM != nil && (z.CeilingDatum == "" || z.CeilingDatum == AboveGround) && *z.CeilingM <= 0:
		return why.Not(ErrZone, "its ceiling is not above the ground")
	case z.FloorM != nil && z.CeilingM != nil && datum(z.FloorDatum) == datum(z.CeilingDatum) && *z.CeilingM <= *z.FloorM:
		return why.Not(ErrZone, "its ceiling is not over its floor")
	case z.From != nil && z.To != nil && !z.To.After(*z.From):
		return why.Not(ErrZone, "it ends before it begins")
	}
	if err := z.Area.Check(); err != nil {
		return why.Not(ErrZone, "%w", err)
	}
	return nil
}

func datum(d Datum) Datum {
	if d == "" {
		return AboveGround
	}
	return d
}

// Question is a flight as the airspace sees it.
type Question struct {
	Law     rules.Law // for what its findings cite
	Places  []geo.XY  // take-off place, then the route
	Homes   []geo.XY  // the fans of straight ways to them count too: home, and the second landing place
	TopM    *float64  // highest elevation above the sea that it reaches; nil: not known
	QNH     *float64  // hPa; nil: not known
	ReachM  float64   // position error and buffer around them
	HeightM float64   // greatest height above ground
	From    time.Time // planned window
	To      time.Time
	Now     time.Time
}

// Zoned is a zone that matters for the flight.
type Zoned struct {
	Zone     Zone          `json:"zone"`
	Inside   bool          `json:"inside"`
	BorderM  float64       `json:"border_m"` // to its nearest border
	Grant    *Grant        `json:"grant"`
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// LookHolds is how long a look at the zones holds: temporary areas change.
const LookHolds = 24 * time.Hour

// EndsSoon is how long before its end an authorisation is named in flight.
const EndsSoon = 10 * time.Minute

// Near is how far a zone may lie away to be shown, m.
const Near = 5000.0

// Judge names every zone that the flight meets in place, height and time, and
// those that are near. looked is when somebody last looked which zones there
// are; without it, or when it is too long ago, the answer holds a Stop.
func Judge(q Question, zones []Zone, grants []Grant, looked *time.Time) ([]Zoned, []judge.Finding) {
	out, findings := []Zoned{}, []judge.Finding{}
	if q.Law.AirspaceCite == "" {
		q.Law.AirspaceCite = rules.Usual
	}
	find := func(v judge.Verdict, sentence string, at *time.Time) {
		findings = append(findings, judge.Finding{Rule: judge.RuleAirspace, Verdict: v, Sentence: sentence,
			Source: q.Law.AirspaceCite, Evidence: "Zones on file.", At: at, Lifts: "authorisation, another place or time"})
	}
	switch {
	case looked == nil:
		find(judge.Stop, "The airspace here has not been looked up.", nil)
	case looked.After(q.Now.Add(5 * time.Minute)):
		find(judge.Stop, "The look at the airspace here is dated in the future: look again.", looked)
	case q.Now.Sub(*looked) > LookHolds:
		find(judge.Stop, "The airspace here was looked up over 24 hours ago; temporary areas change. Look again.", looked)
	}
	if !(q.HeightM >= 0) || geo.Finite(q.Places...) != nil || geo.Finite(q.Homes...) != nil || len(q.Places) == 0 ||
		!(q.ReachM >= 0) {
		find(judge.Stop, "Where the flight goes is not known: the airspace cannot be judged.", nil)
		return out, findings
	}
	for _, z := range zones {
		d, inside := q.border(z.Area)
		if !inside && d > Near {
			continue
		}
		x := Zoned{Zone: z, Inside: inside, BorderM: d}
		q.one(&x, grants)
		out = append(out, x)
		if x.Verdict != judge.Clear {
			find(x.Verdict, x.Sentence, nil)
			// Only controlled airspace is ever waived, not what is prohibited, restricted or temporary.
			findings[len(findings)-1].Limit = x.Verdict == judge.Stop && z.Class.NeedsAuthorisation()
		}
		if g := x.Grant; g != nil && g.NeedsCalls && (g.Started == nil || g.Ended != nil && !g.Ended.Before(*g.Started)) {
			find(judge.Stop, fmt.Sprintf("%s: whoever granted %s must be told before the start.", z.Name, g.Number), nil)
		}
	}
	slices.SortStableFunc(out, func(a, b Zoned) int {
		if a.Verdict != b.Verdict {
			return int(b.Verdict) - int(a.Verdict)
		}
		return int(a.BorderM - b.BorderM)
	})
	return out, findings
}

// border is the distance to the nearest border and whether any place, or the
// way between two, is inside within reach.
func (q Question) border(a geo.Area) (float64, bool) {
	d, inside := math.Inf(1), false
	for i, p := range q.Places {
		inside = inside || a.Holds(p)
		for _, r := range append([]geo.Ring{a.Outline}, a.Holes...) {
			d = min(d, r.ToEdge(p))
			if i > 0 {
				for k := range r {
					s, _ := geo.Segments(q.Places[i-1], p, r[k], r[(k+1)%len(r)])
					d = min(d, s)
				}
			}
		}
	}
	for _, h := range q.Homes {
		inside = inside || home.FanReaches(h, q.Places, a, q.ReachM)
	}
	return d, inside || d <= q.ReachM
}

func (q Question) one(x *Zoned, grants []Grant) {
	z := x.Zone
	name := fmt.Sprintf("%s (%s)", z.Name, z.Class)
	when := z.From != nil && !q.To.After(*z.From) || z.To != nil && !z.To.After(q.From)
	room, known := 0.0, false
	if z.FloorM != nil {
		room, known = q.room(z)
	}
	under := known && room > 0
	switch {
	case !x.Inside:
		x.Sentence = fmt.Sprintf("%s begins %.0f m away.", name, x.BorderM)
		return
	case when:
		x.Sentence = fmt.Sprintf("%s is not in force in the planned window.", name)
		return
	case under:
		x.Sentence = fmt.Sprintf("%s begins %s; the flight stays %.0f m under it.", name, Words(*z.FloorM, z.FloorDatum),
			room)
		if room < 15 {
			x.Verdict = judge.Watch
		}
		return
	case z.Class == G:
		x.Sentence = name + ": no authorisation is needed."
		return
	case z.Class == Advisory:
		x.Verdict, x.Sentence = judge.Watch, name+": read what it asks for."
		return
	}
	word := "authorisation"
	if z.Class.NeedsPermission() {
		word = "permission of whoever controls it"
	}
	var why []string
	for _, g := range grants {
		if g.ZoneID != z.ID {
			continue
		}
		switch {
		case g.Refused != "":
			why = append(why, "it was refused: "+strings.TrimRight(g.Refused, "."))
		case g.Asked:
			why = append(why, "one is asked for and not answered yet")
		case strings.TrimSpace(g.Number) == "":
			why = append(why, "one on record has no number")
		case g.CeilingM < q.HeightM:
			why = append(why, fmt.Sprintf("%s ends at %.0f m, the flight goes to %.0f m", g.Number, g.CeilingM, q.HeightM))
		case !q.Now.Before(g.To):
			why = append(why, g.Number+" has run out")
		case g.From.After(q.From) || g.To.Before(q.To):
			why = append(why, g.Number+" does not cover the whole planned window")
		default:
			x.Grant = &g
			x.Sentence = fmt.Sprintf("%s: %s holds up to %.0f m.", name, g.Number, g.CeilingM)
			return
		}
	}
	x.Verdict, x.Sentence = judge.Stop, fmt.Sprintf("Inside %s without %s", name, word)
	if len(why) > 0 {
		x.Sentence += ": " + strings.Join(why, "; ")
	}
	x.Sentence += "."
}

// InFlight judges what was granted while an aircraft is in the air: an
// authorisation that ends soon is Watch, one that has ended Stop. Areas that
// came into force since are judged like at the gate.
func InFlight(now time.Time, law rules.Law, zoned []Zoned) []judge.Finding {
	var out []judge.Finding
	find := func(v judge.Verdict, sentence string) {
		out = append(out, judge.Finding{Rule: judge.RuleAirspace, Verdict: v, Sentence: sentence, Source: law.AirspaceCite,
			Evidence: "Authorisations on record.", Lifts: "landing, then a new authorisation"})
	}
	for _, x := range zoned {
		switch g := x.Grant; {
		case !x.Inside:
		case g != nil && !now.Before(g.To):
			find(judge.Stop, fmt.Sprintf("%s for %s has ended. Land now.", g.Number, x.Zone.Name))
		case g != nil && g.To.Sub(now) <= EndsSoon:
			find(judge.Watch, fmt.Sprintf("%s for %s ends in %.0f min. Come home.", g.Number, x.Zone.Name,
				g.To.Sub(now).Minutes()))
		case x.Verdict == judge.Stop:
			find(judge.Stop, x.Sentence+" Land now.")
		}
	}
	return out
}
