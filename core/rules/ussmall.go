package rules

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/core/sun"
	"mainstay/core/units"
)

// Limits of 14 CFR 107.51 and 49 USC 44807, in SI.
const (
	HeightLimitM  = 400 * units.MetresPerFoot    // 121.92 m
	SpeedLimitMS  = 44.704                       // 100 mph: the lower of 87 kt and 100 mph
	HeavyKg       = 55 * units.KilogramsPerPound // 24.95 kg
	unknownHeight = "How high the flight goes above the ground is not known."
)

// NightSince is the day after which a knowledge test or training covers night
// (14 CFR 107.29(a)(1)).
var NightSince = time.Date(2021, 4, 6, 0, 0, 0, 0, time.UTC)

func choice(id, question string, options ...Option) []Ask {
	return []Ask{{ID: id, Question: question, Options: options}}
}

// each is a choice that is made for each aircraft of the job by itself.
func each(id, question string, options ...Option) []Ask {
	return []Ask{{ID: id, Question: question, Options: options, Each: true}}
}

func fine(id, words string) Option { return Option{ID: id, Words: words} }
func stops(id, words, then string) Option {
	return Option{ID: id, Words: words, Verdict: judge.Stop, Then: then}
}

// unsure is an answer of who does not know: a Stop that no waiver lifts.
func unsure(id, words, then string) Option {
	return Option{ID: id, Words: words, Verdict: judge.Stop, Then: then, Unsure: true}
}

func spraying(f Facts) bool { return f.Work == "spraying" }

func dark(f Facts) bool {
	return f.Light == nil || slices.ContainsFunc(f.Light, func(l string) bool { return l != string(sun.Daylight) })
}

func night(f Facts) bool { return f.Light == nil || slices.Contains(f.Light, string(sun.Night)) }

// USSmall covers civil commercial flights of small unmanned aircraft in the
// United States: 14 CFR parts 48, 89, 107 and 137, 49 USC 44807.
var USSmall = Pack{
	Name: "us-small", Title: "United States, small unmanned aircraft, civil, commercial", Version: 3,
	ReviewedOn: "2026-11-29", Law: usLaw,
	Rules: []Rule{
		{ID: judge.RuleCondition, Citation: "14 CFR 107.15", Scope: OfAircraft,
			Evidence:  "A complete walkround of this aircraft for this flight; defects; groundings; work.",
			Statement: "The aircraft is checked before flight and in a condition for safe operation; the flight ends when it no longer is.",
			By: []judge.Rule{judge.RuleAircraftActive, judge.RuleGrounding, judge.RuleDefects, judge.RuleWalkround,
				judge.RuleProgramme, judge.RuleWorkOrders, judge.RuleFirmware, judge.RuleWear}},
		{ID: judge.RuleFamiliariseSite, Citation: "14 CFR 107.49(a)", Scope: OfJob,
			Evidence:  "Site file, weather and airspace of the day; a look on the spot.",
			Statement: "Weather, airspace and its restrictions, persons and property, and hazards on the ground are assessed for this site and time.",
			By:        []judge.Rule{judge.RuleWind, judge.RuleSite},
			Asks: choice("looked-over",
				"Has the site been looked over on the spot today: people, property, wires, ground hazards?",
				fine("yes", "Yes, and the site file agrees"), stops("no", "Not yet",
					"The site has not been looked over on the spot today."))},
		{ID: judge.RuleBriefing, Citation: "14 CFR 107.49(b)", Scope: OfJob,
			Evidence:  "The briefing signed by each participant for this crew, site and day.",
			Statement: "Every participant is told conditions, emergency and contingency procedures, roles and hazards.",
			check:     briefed},
		{ID: judge.RuleControlLink, Citation: "14 CFR 107.49(c)", Scope: OfAircraft,
			Evidence: "The link items of the walkround.", Statement: "The control link works.",
			By: []judge.Rule{judge.RuleWalkround}},
		{ID: judge.RulePower, Citation: "14 CFR 107.49(d)", Scope: OfAircraft, Evidence: "Newest readings of the packs.",
			Statement: "There is enough power for the planned time with a reserve.", By: []judge.Rule{judge.RulePacks}},
		{ID: judge.RuleAttachments, Citation: "14 CFR 107.49(e)", Scope: OfJob,
			Evidence:  "The crew's answer, and the attachments item of the walkround.",
			Statement: "Every attached or carried object is secure and does not harm flight or control.",
			By:        []judge.Rule{judge.RuleWalkround},
			Asks: each("attached", "Is anything attached or carried beyond the type's own equipment?",
				fine("none", "Nothing"), fine("secured",
					"Yes: each secure, tried on the ground, no effect on balance, control or signal"), unsure("unsure",
					"Yes, not tried yet", "Something is attached that has not been tried on the ground."))},
		{ID: judge.RuleOverPeople, Citation: "14 CFR 107.39, 107.49(f), 107.145, subpart D", Scope: OfJob, Waivable: true,
			Evidence:  "The crew's answers for the route of this job.",
			Statement: "Nobody is flown over but participants, people under a covered structure or in a stationary vehicle, or as an eligible category allows; people in moving vehicles only within 107.145.",
			Asks: []Ask{
				{ID: "people-under", Question: "Who may be under the route?",
					Options: []Option{fine("nobody", "Nobody"), fine("participants", "Participants only"),
						fine("sheltered", "People under a covered structure or in a stationary vehicle"),
						fine("category", "Others: the aircraft's category for it is on record"), stops("open", "Others who take no part",
							"People who take no part are under the route: keep them away, or move the route."),
						unsure("unsure", "Not sure", "It is not known who may be under the route: look, and keep people away.")}},
				{ID: "road-under", Question: "Does the route cross a road?",
					Options: []Option{fine("no", "No"), fine("allowed",
						"Yes, closed, or within 107.145: no sustained flight over moving vehicles"), stops("open",
						"Yes, with moving vehicles",
						"People in moving vehicles may be under the route: close the road, or move the route."), unsure("unsure",
						"Not sure", "Whether the route crosses a road is not known: look at the map and on the spot.")}}}},
		{ID: judge.RuleOperator, Citation: "14 CFR 107.12, 107.65", Scope: OfPilot,
			Evidence:  "Certificate and training date on file.",
			Statement: "The remote pilot holds a certificate and was trained within 24 calendar months; the month counts to its end.",
			check:     operator},
		{ID: judge.RuleOneAircraft, Citation: "14 CFR 107.35", Scope: OfPilot, Evidence: "Open flights.",
			Statement: "A person serves as pilot or observer of one aircraft in the air at a time.",
			By:        []judge.Rule{judge.RuleOneAircraft}, check: oneAircraft},
		{ID: judge.RuleLineOfSight, Citation: "14 CFR 107.31, 107.33", Scope: OfJob, Waivable: true,
			Evidence:  "The crew's answer, the roles of the job, the farthest place of the route.",
			Statement: "The aircraft stays in sight of the pilot or of a named observer who can speak to the pilot.",
			check:     sight,
			Asks: choice("sight", "Who sees the aircraft all the way?", fine("pilot", "The pilot, with own eyes"),
				fine("observer", "The pilot and a named observer"),
				stops("beyond", "It goes out of sight", "The route goes out of sight."))},
		{ID: judge.RuleNight, Citation: "14 CFR 107.29(a)(2), (b)", Scope: OfJob, Waivable: true, when: dark,
			Evidence:  "The sun over the site in the planned window; the crew's answer.",
			Statement: "At night and in civil twilight (30 min before sunrise and after sunset; in Alaska the almanac's) the anti-collision light is lit, seen for 3 statute miles, with a flash rate that avoids a collision.",
			Asks: each("lights", "Is the anti-collision light fitted, checked lit, and seen for 3 statute miles?",
				fine("yes", "Yes, checked lit"), stops("no", "No",
					"No anti-collision light that is seen for 3 statute miles: fly by day."), unsure("unsure", "Not checked",
					"Whether the anti-collision light is lit and seen has not been checked."))},
		{ID: judge.RuleNightTraining, Citation: "14 CFR 107.29(a)(1)", Scope: OfJob, when: night,
			Evidence:  "The pilot's night training on file, dated after 2021-04-06.",
			Statement: "At night the remote pilot has passed a test or training that covers night.", check: nightTrained},
		{ID: judge.RuleHazardousOperation, Citation: "14 CFR 107.23", Scope: OfJob, Evidence: "The crew's answer.",
			Statement: "Nothing is dropped in a way that endangers people or property.",
			Asks: choice("drops", "Is anything dropped in flight (a product sprayed as its label says does not count)?",
				fine("nothing", "Nothing"), fine("method", "Yes, by a recorded method without undue hazard"),
				stops("open", "Yes, without one", "Something is dropped without a recorded method."))},
		{ID: judge.RuleHazmat, Citation: "14 CFR 107.36", Scope: OfJob, Evidence: "The crew's answer; exemptions on file.",
			Statement: "No hazardous material is carried, spray product included, unless an exemption from it is on record. This cannot be waived.",
			check:     hazmat,
			Asks: choice("hazmat", "Is hazardous material carried, the spray product included?", fine("none", "None"),
				fine("exempt", "Yes, under the exemption on file"),
				stops("open", "Yes, without one", "Hazardous material is carried without an exemption."),
				unsure("unsure", "Not sure", "Whether what is carried counts as hazardous is not known: read its papers."))},
		{ID: judge.RuleGiveWay, Citation: "14 CFR 107.37, 107.43", Scope: OfJob, Evidence: "The crew's answer.",
			Statement: "The aircraft gives way to all others and does not disturb an airport, heliport or seaplane base, in class G too.",
			Asks: choice("traffic", "Was it asked which other aircraft fly near here today?", fine("none", "Asked: none"),
				fine("briefed", "Asked: there is some, and everybody knows"),
				stops("no", "Not asked", "Nobody has asked about other aircraft near here."))},
		{ID: judge.RuleAirspace, Citation: "14 CFR 107.41, 107.45, 107.47", Scope: OfJob, Waivable: true,
			Evidence: "Zones, authorisations and calls of the site.", By: []judge.Rule{judge.RuleSite},
			Statement: "In class B, C, D and surface E there is an authorisation with number, ceiling and window; restricted, prohibited and temporary areas need a permission."},
		{ID: judge.RuleVehicle, Citation: "14 CFR 107.25", Scope: OfJob, Waivable: true, Evidence: "The crew's answer.",
			Statement: "It is not flown from a moving vehicle, except over a sparsely populated area and not carrying for hire.",
			Asks: choice("vehicle", "Does the pilot fly from a moving vehicle or boat?", fine("no", "No"),
				fine("sparse", "Yes: sparsely populated, nothing carried for hire"),
				stops("open", "Yes, elsewhere", "The pilot would fly from a moving vehicle over a populated area."))},
		{ID: judge.RuleFitness, Citation: "14 CFR 107.17, 107.27, 91.17", Scope: OfPilot,
			Evidence:  "What each person declared today.",
			Statement: "Nobody of the flight crew has a condition that interferes, drank within 8 hours, or has 0.04 or more.",
			check:     fit},
		{ID: judge.RuleHeight, Citation: "14 CFR 107.51(b)", Scope: OfJob, Waivable: true,
			Evidence:  "Route, way home and terrain of the site.",
			Statement: "At most 400 ft (121.92 m) above the ground, or within 400 ft of a structure and at most 400 ft over its top.",
			check:     height},
		{ID: judge.RuleSpeed, Citation: "14 CFR 107.51(a)", Scope: OfJob, Waivable: true,
			Evidence: "Planned speed of the job.", Statement: "At most 87 kt (100 mph, 44.7 m/s) over the ground.",
			check: speed},
		{ID: judge.RuleVisibility, Citation: "14 CFR 107.51(c)", Scope: OfJob, Waivable: true,
			Evidence:  "Latest weather of the site.",
			Statement: "At least 3 statute miles (4.8 km) are seen from the control station.", By: []judge.Rule{judge.RuleSite}},
		{ID: judge.RuleClouds, Citation: "14 CFR 107.51(d)", Scope: OfJob, Waivable: true,
			Evidence: "Latest weather of the site.", Statement: "At least 500 ft under and 2,000 ft beside clouds.",
			By: []judge.Rule{judge.RuleSite},
			Asks: choice("clouds-beside", "Is every cloud at flight height more than 2,000 ft (610 m) away to the side?",
				fine("none", "No cloud comes down that low"), fine("far", "Yes, all of them"),
				stops("near", "No", "A cloud stands nearer than 2,000 ft beside the flight: wait, or fly lower."),
				unsure("unsure", "Not sure", "How far the clouds stand beside the flight is not known: look."))},
		{ID: judge.RuleRegistration, Citation: "14 CFR 107.13, part 48", Scope: OfAircraft,
			Evidence:  "Registration on file; the marking item of the walkround.",
			Statement: "The aircraft is registered, the registration holds, and the mark is read outside.",
			By:        []judge.Rule{judge.RuleWalkround}, check: registration},
		{ID: judge.RuleRemoteID, Citation: "14 CFR part 89", Scope: OfJob, Evidence: "The crew's answer.",
			Statement: "The aircraft broadcasts its identification, or flies in a recognised area.",
			Asks: each("remote-id", "How does it identify itself?", fine("standard", "Built in, seen to broadcast"),
				fine("module", "Module, seen to broadcast"), fine("area", "Recognised identification area"),
				stops("none", "Not at all", "The aircraft does not identify itself."),
				unsure("unsure", "Not checked", "Whether the aircraft identifies itself has not been checked."))},
		{ID: judge.RuleHeavy, Citation: "49 USC 44807", Scope: OfAircraft,
			Evidence:  "Take-off mass of the type; exemption on file.",
			Statement: "From 55 lb take-off mass on it is not flown under part 107 but under the operator's exemption, whose conditions replace the limits it names; the others stay as the crew's own.",
			when:      func(f Facts) bool { return f.Aircraft.MassKg >= HeavyKg-1e-9 }, check: func(c *checker) {
				c.need(HeavyExemption, "", fmt.Sprintf("%s starts with up to %.1f kg, 55 lb or more", c.Aircraft.Name,
					c.Aircraft.MassKg))
			}},
		{ID: judge.RuleAgricultural, Citation: "14 CFR part 137", Scope: OfJob, when: spraying,
			Evidence:  "Certificate and licences on file; product and label of the job.",
			Statement: "Dispensing needs an agricultural operator certificate; product, label and applicator licence are recorded.",
			check:     agricultural,
			Asks: choice("label", "Is the product label read and at hand, and do rate, wind, buffer and protection follow it?",
				fine("yes", "Yes"), stops("no", "No", "The product label has not been read for this job; it decides."))},
		{ID: judge.RuleAccidentReport, Citation: "14 CFR 107.9", Scope: OfAircraft, Evidence: "Events of logged flights.",
			Statement: "Serious injury, loss of consciousness, or damage over 500 USD to other property is reported within 10 calendar days.",
			By:        []judge.Rule{judge.RuleAccident}},
		{ID: judge.RuleRecords, Citation: "good practice; 14 CFR 107.7", Scope: OfAircraft, Evidence: "The chain of records.",
			Statement: "Inspection, maintenance and flight records are kept and shown on request.",
			By:        []judge.Rule{judge.RuleRecords}},
	},
}

func operator(c *checker) {
	p := c.Pilot
	if p == nil {
		c.find(judge.Stop, "No pilot is named.", "None.", "a pilot signs in", nil)
		return
	}
	open := &judge.Remedy{Kind: judge.OpenPerson, ID: p.ID, Name: p.Name}
	trained := ""
	if p.TrainedOn != nil {
		trained = "Last recurrent training " + date(*p.TrainedOn) + "."
	}
	switch {
	case !p.IsPilot:
		c.find(judge.Stop, p.Name+" is not a pilot of this crew.", "Roles.", "chief", open)
	case strings.TrimSpace(p.Certificate) == "":
		c.find(judge.Stop, p.Name+" has no remote pilot certificate on file.", "Empty.", "chief", open)
	case p.TrainedOn == nil:
		c.find(judge.Stop, "It is not known when "+p.Name+" was last trained.", "No date on file.", "chief", open)
	case p.TrainedOn.After(c.Day):
		c.find(judge.Stop, "The training date of "+p.Name+" lies in the future.", trained, "chief", open)
	case !crew.Current(*p.TrainedOn, c.Day):
		c.find(judge.Stop, p.Name+" was current through "+date(crew.CurrentThrough(*p.TrainedOn))+" and needs recurrent training.",
			trained, "chief, after training", open)
	default:
		c.ends(crew.CurrentThrough(*p.TrainedOn), p.Name+" is current through "+date(crew.CurrentThrough(*p.TrainedOn))+".",
			trained, "chief, after training", open)
	}
}

func oneAircraft(c *checker) {
	for _, p := range c.crewOf() {
		if p.InAir != "" && (p.Role == "" || p.Role.Flies()) {
			c.find(judge.Stop, p.Name+" already has "+p.InAir+" in the air.", "Open flights.", "land and log it first", nil)
		}
	}
}

// crewOf are the people of the job, or the pilot alone.
func (c *checker) crewOf() []Person {
	if len(c.People) == 0 && c.Pilot != nil {
		return []Person{*c.Pilot}
	}
	return c.People
}

func registration(c *checker) {
	a := c.Aircraft
	open := &judge.Remedy{Kind: judge.OpenAircraft, ID: a.ID}
	switch {
	case strings.TrimSpace(a.Registration) == "":
		c.find(judge.Stop, "No registration is on file.", "Empty.", "chief", open)
	case a.RegistrationExpires == nil:
		c.find(judge.Stop, "It is not known when registration "+a.Registration+" expires.", "No date on file.", "chief", open)
	case c.Day.After(*a.RegistrationExpires):
		c.find(judge.Stop, "Registration "+a.Registration+" expired on "+date(*a.RegistrationExpires)+".", "", "chief", open)
	default:
		c.ends(*a.RegistrationExpires, "Registration "+a.Registration+" expires on "+date(*a.RegistrationExpires)+".", "",
			"chief", open)
	}
}

func fit(c *checker) {
	for _, p := range c.crewOf() {
		if p.Role != "" && !p.Role.Flies() {
			continue
		}
		declare := &judge.Remedy{Kind: judge.DeclareFitness, ID: p.ID}
		switch {
		case p.Fit == nil:
			c.find(judge.Stop, p.Name+" has not declared to be fit today.", "No declaration for this day.",
				"the person's own declaration", declare)
		case len(p.Fit.Against) > 0:
			c.find(judge.Stop, p.Name+" is not fit to fly today: "+strings.Join(p.Fit.Words(), ", ")+".", "Own declaration.",
				"another person, or another day", declare)
		}
	}
}

func briefed(c *checker) {
	open := &judge.Remedy{Kind: judge.OpenBriefing, ID: c.JobID}
	switch b := c.Briefing; {
	case b == nil:
		c.find(judge.Stop, "There is no briefing for this crew, site and day.", "None.", "a briefing signed by everybody",
			open)
	case b.Changed != "":
		c.find(judge.Stop, "The briefing no longer holds: "+b.Changed+". Brief again.", "",
			"a new briefing signed by everybody", open)
	case len(b.Missing) > 0:
		c.find(judge.Stop, "Not briefed yet: "+strings.Join(b.Missing, ", ")+".", "", "each reads and signs it", open)
	}
}

// sight holds the farthest place against how far the crew's people see an
// aircraft well: with an observer too, since the pilot must be able to see it
// throughout.
func sight(c *checker) {
	open := &judge.Remedy{Kind: judge.OpenJob, ID: c.JobID}
	if c.Answers["sight"] == "observer" && !slices.ContainsFunc(c.People,
		func(p Person) bool { return p.Role == crew.Observer }) {
		c.find(judge.Stop, "An observer is needed and none is named in this job.", "Roles of the job.", "naming one", open)
	}
	switch {
	case c.FarM == nil:
		c.find(judge.Stop, "How far the aircraft goes away is not known: the site has no take-off place or no route.",
			"Site file.", "charting it", open)
	case !(c.SightM > 0):
		c.find(judge.Stop, "How far the crew sees an aircraft well is not known.", "Rules of the crew.", "chief", open)
	case *c.FarM > c.SightM:
		c.find(judge.Stop, fmt.Sprintf("The route goes %.0f m away; the crew sees an aircraft well up to %.0f m, with an observer too. Take off nearer, split it, or move along.",
			*c.FarM, c.SightM), "Route; sight limit of the crew.", "a nearer take-off place, or parts that are seen", open)
		c.limit()
	}
}

func nightTrained(c *checker) {
	if c.Pilot == nil {
		return // named by the operator's rule
	}
	d, ok := c.need(NightTraining, c.Pilot.ID, c.Pilot.Name+" would fly at night")
	if ok && (d.Issued == nil || !d.Issued.After(NightSince)) {
		c.find(judge.Stop, c.Pilot.Name+" would fly at night: the training on file is not dated after 2021-04-06.",
			"Documents on file.", "chief, after training", &judge.Remedy{Kind: judge.OpenDocuments, ID: c.Pilot.ID})
	}
}

func hazmat(c *checker) {
	if c.Answers["hazmat"] == "exempt" {
		c.need(HazmatExempt, "", "Hazardous material is carried")
	}
}

// height holds the flight against the height limit of the law, or against the
// one over a structure that the whole flight stays near to.
func height(c *checker) {
	open, l := &judge.Remedy{Kind: judge.OpenJob, ID: c.JobID}, c.law
	switch {
	case c.HeightM == nil:
		c.find(judge.Stop, unknownHeight, "", "charting the site", open)
	case !l.Over(*c.HeightM):
	case c.OverTopM == nil || *c.HeightM-*c.OverTopM <= l.StructureTall:
		c.find(judge.Stop, fmt.Sprintf("The flight goes %.0f m above the ground, the limit is %s.", *c.HeightM,
			l.HeightLimit()), "", "flying lower", open)
		c.limit()
	case steps(*c.OverTopM) > steps(l.StructureOver):
		c.find(judge.Stop, fmt.Sprintf("The flight goes %.0f m over the top of the structure, the limit there is %.0f m.",
			*c.OverTopM, l.StructureOver), "", "flying lower", open)
		c.limit()
	}
}

func speed(c *checker) {
	open := &judge.Remedy{Kind: judge.OpenJob, ID: c.JobID}
	switch {
	case c.SpeedMS == nil:
		c.find(judge.Watch, "How fast the flight goes is not known; the limit is 44.7 m/s (87 kt, 100 mph).", "",
			"entering the planned speed", open)
	case *c.SpeedMS > SpeedLimitMS+1e-9:
		c.find(judge.Stop, fmt.Sprintf("%.1f m/s is over the limit of 44.7 m/s (87 kt, 100 mph).", *c.SpeedMS), "",
			"flying slower", open)
		c.limit()
	}
}

func agricultural(c *checker) {
	c.need(Agricultural, "", "Spraying")
	if strings.TrimSpace(c.Product) == "" {
		c.find(judge.Stop, "Which product is sprayed is not recorded.", "The job.", "entering it",
			&judge.Remedy{Kind: judge.OpenJob, ID: c.JobID})
	}
	for _, p := range c.crewOf() {
		if _, _, ok := c.document(Applicator, p.ID); ok {
			c.need(Applicator, p.ID, p.Name) // names one that ends soon
			return
		}
	}
	if c.Pilot != nil {
		c.need(Applicator, c.Pilot.ID, "Nobody in this job holds an applicator licence; "+c.Pilot.Name)
	}
}
