package rules

import (
	"slices"
	"strings"
	"time"

	"mainstay/core/crew"
	"mainstay/core/judge"
)

// Facts are what the predicates judge.
type Facts struct {
	Day      time.Time // civil date of the flight
	JobID    string    // empty: the flight belongs to no job
	Work     string    // spraying, mapping, inspection
	Product  string    // what is sprayed
	Aircraft Aircraft
	Pilot    *Person
	People   []Person          // everybody with a role in the job, the pilot included
	Answers  map[string]string // question to chosen option
	Docs     []Document
	Light    []string // sorts of light met in the window; nil is not known
	HeightM  *float64 // greatest height above ground; nil is not known
	// OverTopM is the greatest height over the top of the structure that is
	// inspected, where the flight stays within 400 ft of it; nil: no structure.
	OverTopM *float64
	SpeedMS  *float64 // greatest ground speed; nil is not known
	FarM     *float64 // farthest place from the pilot; nil is not known
	SightM   float64  // how far the crew's people see the aircraft well
	// PeopleM is how near the flight comes to where people live, work or rest, as
	// charted; nil: nothing of the kind is charted.
	PeopleM  *float64
	Briefing *Briefing
}

// NearPeople reports whether people other than the crew may be near: under the
// route by the crew's answer, or charted nearer than m. What is not known is near.
func (f Facts) NearPeople(m float64) bool {
	switch under, asked := f.Answers["people-under"]; {
	case f.PeopleM != nil && !(*f.PeopleM >= m):
		return true
	case asked:
		return under != "nobody" && under != "participants"
	}
	return f.Answers["category"] != "a3" // which keeps 150 m from where people are
}

// Aircraft as registered.
type Aircraft struct {
	ID                  string
	Name                string
	Registration        string
	RegistrationExpires *time.Time
	MassKg              float64 // greatest take-off mass of the type
	Type                string
}

// Person with a role in a flight.
type Person struct {
	ID          string
	Name        string
	IsPilot     bool // by role in the crew
	Certificate string
	TrainedOn   *time.Time
	Role        crew.Post       // in the job; empty without one
	Fit         *crew.Fitness   // declared for the day; nil: not declared
	Ready       *crew.Readiness // on the type; nil: not asked
	InAir       string          // name of another aircraft this person flies now
}

// Briefing of the people of a job.
type Briefing struct {
	Missing []string // who has not signed it
	Changed string   // why it no longer holds; empty while it does
}

// DocumentKind is the kind of a document on file.
type DocumentKind string

// The kinds of document.
const (
	NightTraining  DocumentKind = "night-training"
	Applicator     DocumentKind = "applicator"
	Competency     DocumentKind = "competency"
	Agricultural   DocumentKind = "agricultural"
	HeavyExemption DocumentKind = "heavy-exemption"
	HazmatExempt   DocumentKind = "hazmat-exemption"
	Waiver         DocumentKind = "waiver"
	Operator       DocumentKind = "operator"
	Authorisation  DocumentKind = "operational-authorisation"
	Insurance      DocumentKind = "insurance"
)

// AllDocumentKinds lists the kinds.
var AllDocumentKinds = []DocumentKind{NightTraining, Applicator, Competency, Agricultural, HeavyExemption, HazmatExempt,
	Waiver, Operator, Authorisation, Insurance}

var kindNames = map[DocumentKind]string{
	NightTraining: "night training", Applicator: "applicator licence", Competency: "proof of competency",
	Agricultural: "agricultural operator certificate", HeavyExemption: "exemption for 55 lb and over",
	HazmatExempt: "exemption for hazardous material", Waiver: "waiver", Operator: "operator registration",
	Authorisation: "operational authorisation", Insurance: "insurance",
}

// Name is the kind in words.
func (k DocumentKind) Name() string { return kindNames[k] }

// OfPerson reports whether the kind belongs to one person rather than to the
// crew.
func (k DocumentKind) OfPerson() bool {
	return slices.Contains([]DocumentKind{NightTraining, Applicator, Competency}, k)
}

// lifts reports whether a document of the kind may lift a limit that the law
// lets be waived.
func (k DocumentKind) lifts() bool { return k == Waiver || k == HeavyExemption }

// Document is a licence, certificate, exemption or waiver on file.
type Document struct {
	ID         string
	Kind       DocumentKind
	PersonID   string // empty: of the crew
	Number     string
	Issued     *time.Time
	Expires    *time.Time   // nil: it does not expire
	Rules      []judge.Rule // waiver, exemption: ids of the rules it names
	Conditions string
}

// InForce reports whether it has a number, was issued, and has not run out on a
// day. Its last day counts.
func (d Document) InForce(day time.Time) bool {
	return strings.TrimSpace(d.Number) != "" && (d.Issued == nil || !d.Issued.After(day)) &&
		(d.Expires == nil || !day.After(*d.Expires))
}

// document finds one of a kind, of a person or of the crew (empty), in force on
// the day of the flight; failing that the newest that is not.
func (c *checker) document(k DocumentKind, person string) (d Document, have, inForce bool) {
	for _, x := range c.Docs {
		if x.Kind != k || x.PersonID != person {
			continue
		}
		if x.InForce(c.Day) {
			return x, true, true
		}
		if !have || x.Expires != nil && d.Expires != nil && x.Expires.After(*d.Expires) {
			d, have = x, true
		}
	}
	return d, have, false
}

// need demands a document in force and names one that ends soon. The words say
// whose and for what.
func (c *checker) need(k DocumentKind, person, words string) (Document, bool) {
	d, have, inForce := c.document(k, person)
	open := &judge.Remedy{Kind: judge.OpenDocuments, ID: person}
	switch {
	case inForce && d.Expires != nil:
		c.ends(*d.Expires, words+": the "+k.Name()+" "+d.Number+" ends on "+date(*d.Expires)+".", "Documents on file.",
			"chief", open)
	case inForce:
	case have && d.Expires != nil && c.Day.After(*d.Expires):
		c.find(judge.Stop, words+": the "+k.Name()+" "+d.Number+" ended on "+date(*d.Expires)+".", "Documents on file.",
			"chief, with a new one", open)
	case have:
		c.find(judge.Stop, words+": the "+k.Name()+" on file has no number or does not hold yet.", "Documents on file.",
			"chief", open)
	default:
		c.find(judge.Stop, words+": no "+k.Name()+" is on file.", "Documents on file.", "chief", open)
	}
	return d, inForce
}

func date(t time.Time) string { return t.Format(time.DateOnly) }
