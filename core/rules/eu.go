package rules

import (
	"fmt"
	"time"

	"mainstay/core/judge"
)

// Limits of Regulation (EU) 2019/947.
const (
	EUHeightM      = 120.0
	EUOverStructM  = 15.0
	CompetencyLast = 5 // years
)

const eu947 = "Regulation (EU) 2019/947"

// EUSpecific outlines the open and specific category of the European Union.
var EUSpecific = Pack{
	Name: "eu-specific", Title: "European Union, open and specific category", Version: 2, ReviewedOn: "2026-11-29",
	Outline: true, Law: euLaw,
	Rules: []Rule{
		{ID: judge.RuleCondition, Citation: eu947 + " UAS.OPEN.060, UAS.SPEC.060", Scope: OfAircraft,
			Evidence:  "Walkround, defects, groundings, work.",
			Statement: "The aircraft is in a condition to complete the flight safely.",
			By: []judge.Rule{judge.RuleAircraftActive, judge.RuleGrounding, judge.RuleDefects, judge.RuleWalkround,
				judge.RuleProgramme, judge.RuleWorkOrders, judge.RuleFirmware, judge.RuleWear}},
		{ID: judge.RuleFamiliariseSite, Citation: eu947 + " UAS.OPEN.060(1)", Scope: OfJob,
			By:        []judge.Rule{judge.RuleWind, judge.RuleSite},
			Evidence:  "Site file, weather and airspace of the day; a look on the spot.",
			Statement: "The environment is observed: obstacles, people, property, other airspace users.",
			Asks: choice("looked-over",
				"Has the site been looked over on the spot today: people, property, wires, ground hazards?",
				fine("yes", "Yes, and the site file agrees"), stops("no", "Not yet",
					"The site has not been looked over on the spot today."))},
		{ID: judge.RuleBriefing, Citation: eu947 + " UAS.SPEC.050", Scope: OfJob,
			Evidence:  "The briefing signed by each participant.",
			Statement: "Everybody involved knows procedures, tasks and hazards.", check: briefed},
		{ID: judge.RuleControlLink, Citation: eu947 + " UAS.OPEN.060", Scope: OfAircraft,
			By: []judge.Rule{judge.RuleWalkround}, Evidence: "The link items of the walkround.",
			Statement: "The control link works."},
		{ID: judge.RulePower, Citation: eu947 + " UAS.OPEN.060", Scope: OfAircraft, By: []judge.Rule{judge.RulePacks},
			Evidence: "Newest readings of the packs.", Statement: "There is enough power for the flight with a reserve."},
		{ID: judge.RuleOperator, Citation: eu947 + " UAS.OPEN.020, UAS.SPEC.050", Scope: OfPilot,
			Evidence:  "Proof of competency on file.",
			Statement: "The remote pilot holds a proof of competency that is at most 5 years old.", check: competent},
		{ID: judge.RuleOneAircraft, Citation: eu947 + " UAS.OPEN.060", Scope: OfPilot,
			By: []judge.Rule{judge.RuleOneAircraft}, Evidence: "Open flights.",
			Statement: "A pilot flies one aircraft at a time.", check: oneAircraft},
		{ID: judge.RuleRegistration, Citation: eu947 + " article 14", Scope: OfAircraft,
			Evidence:  "Operator registration on file; the marking item of the walkround.",
			Statement: "The operator is registered, and the number stands on the aircraft.",
			By:        []judge.Rule{judge.RuleWalkround},
			check:     func(c *checker) { c.need(Operator, "", "The operator's number on "+c.Aircraft.Name) }},
		{ID: judge.RuleCategory, Citation: eu947 + " articles 4 and 5", Scope: OfJob,
			Evidence:  "The crew's answer; authorisation on file.",
			Statement: "Open: by mass and class, A2 at 30 m (5 m in low-speed mode) from people, A3 150 m from residential, commercial, industrial and recreational areas. Everything else is specific: with an authorisation or a declaration.",
			check:     category,
			Asks: choice("category", "In which category is it flown?",
				fine("a2", "Open A2: 30 m from people, 5 m in low-speed mode"),
				fine("a3", "Open A3: 150 m from where people live, work and rest"),
				fine("specific", "Specific, under the authorisation on file"),
				unsure("unsure", "Not sure", "It is not known in which category this is flown."))},
		{ID: judge.RuleLineOfSight, Citation: eu947 + " UAS.OPEN.060(2)(b)", Scope: OfJob,
			Evidence: "The crew's answer, roles, route.", Statement: "The aircraft stays in sight.", check: sight,
			Asks: choice("sight", "Who sees the aircraft all the way?", fine("pilot", "The pilot, with own eyes"),
				fine("observer", "The pilot and a named observer"),
				stops("beyond", "It goes out of sight", "The route goes out of sight."))},
		{ID: judge.RuleNight, Citation: eu947 + " UAS.OPEN.060(2)(g)", Scope: OfJob, when: dark,
			Evidence: "The sun over the site; the crew's answer.", Statement: "At night a green flashing light is lit.",
			Asks: each("lights", "Is a green flashing light fitted and checked lit?", fine("yes", "Yes, checked lit"),
				stops("no", "No", "No green flashing light: fly by day."),
				unsure("unsure", "Not checked", "Whether the green flashing light is lit has not been checked."))},
		{ID: judge.RuleAirspace, Citation: eu947 + " article 15", Scope: OfJob, By: []judge.Rule{judge.RuleSite},
			Evidence: "Zones and authorisations of the site.", Statement: "The conditions of geographical zones are kept."},
		{ID: judge.RuleFitness, Citation: eu947 + " UAS.OPEN.060(2)(a)", Scope: OfPilot,
			Evidence:  "What each person declared today.",
			Statement: "Nobody flies under the influence of alcohol or drugs, or unfit.", check: fit},
		{ID: judge.RuleHeight, Citation: eu947 + " UAS.OPEN.010(2), (3)", Scope: OfJob,
			Evidence:  "Route, way home and terrain.",
			Statement: "At most 120 m above the ground; within 50 m of an artificial obstacle over 105 m high, up to 15 m over it at the request of whoever is responsible for it.",
			check:     height},
		{ID: judge.RuleStructureRequest, Citation: eu947 + " UAS.OPEN.010(3)", Scope: OfJob, when: overStructure,
			Evidence:  "The crew's answer.",
			Statement: "Over a tall obstacle only at the request of whoever is responsible for it.",
			Asks: choice("structure-request", "Did whoever is responsible for the obstacle ask for the flight over it?",
				fine("yes", "Yes, on record"), stops("no", "No",
					"Nobody responsible for the obstacle has asked for the flight over it."), unsure("unsure", "Not sure",
					"Whether whoever is responsible for the obstacle asked for the flight is not known."))},
		{ID: judge.RuleRemoteID, Citation: "Regulation (EU) 2019/945 part 6", Scope: OfJob, Evidence: "The crew's answer.",
			Statement: "Direct remote identification is active.",
			Asks: each("remote-id", "How does it identify itself?", fine("standard", "Built in, seen to broadcast"),
				fine("module", "Module, seen to broadcast"), stops("none", "Not at all", "The aircraft does not identify itself."),
				unsure("unsure", "Not checked", "Whether the aircraft identifies itself has not been checked."))},
		{ID: judge.RuleInsurance, Citation: "Regulation (EC) 785/2004; national law", Scope: OfJob,
			Evidence: "Insurance on file.", Statement: "The operation is insured.",
			check: func(c *checker) { c.need(Insurance, "", "This operation") }},
		{ID: judge.RuleAccidentReport, Citation: "Regulation (EU) 376/2014", Scope: OfAircraft,
			By: []judge.Rule{judge.RuleAccident}, Evidence: "Events of logged flights.",
			Statement: "An occurrence is reported within 72 hours."},
		{ID: judge.RuleRecords, Citation: eu947 + " UAS.SPEC.050(1)(g)", Scope: OfAircraft,
			By: []judge.Rule{judge.RuleRecords}, Evidence: "The chain of records.", Statement: "Records are kept."},
	},
}

func competent(c *checker) {
	p := c.Pilot
	if p == nil {
		c.find(judge.Stop, "No pilot is named.", "None.", "a pilot signs in", nil)
		return
	}
	if !p.IsPilot {
		c.find(judge.Stop, p.Name+" is not a pilot of this crew.", "Roles.", "chief",
			&judge.Remedy{Kind: judge.OpenPerson, ID: p.ID, Name: p.Name})
		return
	}
	d, ok := c.need(Competency, p.ID, p.Name)
	if !ok {
		return
	}
	open := &judge.Remedy{Kind: judge.OpenDocuments, ID: p.ID}
	switch {
	case d.Issued == nil:
		c.find(judge.Stop, "It is not known when the proof of competency of "+p.Name+" was issued.", "Documents on file.",
			"chief", open)
	case c.Day.After(d.Issued.AddDate(CompetencyLast, 0, 0)):
		c.find(judge.Stop, fmt.Sprintf("The proof of competency of %s is over %d years old.", p.Name, CompetencyLast),
			"Documents on file.", "chief, after training", open)
	}
}

// Limits of the subcategories of the open category, m and kg.
const (
	A2FromPeopleM = 30.0
	A2Kg          = 4.0
	A3FromPeopleM = 150.0
	OpenKg        = 25.0
)

// category holds the subcategory that the crew named against mass, work and
// what is charted near the flight.
func category(c *checker) {
	answer := &judge.Remedy{Kind: judge.AnswerInJob, ID: c.JobID}
	said := c.Answers["category"]
	if said == "specific" {
		c.need(Authorisation, "", "Specific category")
		return
	}
	if said != "a2" && said != "a3" {
		return // said by the answers
	}
	most, apart := OpenKg, A3FromPeopleM
	if said == "a2" {
		most, apart = A2Kg, A2FromPeopleM
	}
	if spraying(c.Facts) {
		c.find(judge.Stop, "Nothing is dropped or sprayed in the open category.", "The crew's answer.",
			"an operational authorisation", answer)
	}
	if c.Aircraft.MassKg >= most {
		c.find(judge.Stop, fmt.Sprintf("%s starts with up to %.1f kg; this subcategory ends at %.0f kg.", c.Aircraft.Name,
			c.Aircraft.MassKg, most), "Mass of the type.", "another subcategory, or an operational authorisation", answer)
	}
	if c.PeopleM != nil && *c.PeopleM < apart {
		c.find(judge.Stop, fmt.Sprintf("The flight comes within %.0f m of where people live, work or rest; this subcategory keeps %.0f m.",
			*c.PeopleM, apart), "Site file.", "another route, or an operational authorisation", answer)
	}
}

// overStructure reports whether the flight uses the exception over a tall
// obstacle.
func overStructure(f Facts) bool {
	return f.HeightM != nil && euLaw.Over(*f.HeightM) && f.OverTopM != nil
}

// ReportDue returns when a reportable event must be reported under a pack.
func ReportDue(pack string, at time.Time) time.Time {
	p, err := Find(pack)
	if err != nil {
		return at // not known which law holds: at once
	}
	return p.Law.ReportWithin.From(at)
}
