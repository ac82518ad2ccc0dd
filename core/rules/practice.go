package rules

import (
	"strings"

	"mainstay/core/judge"
)

// Practised is the work of practice and check flights.
const Practised = "practice"

// Practice is what crews usually do whatever the law; the maker's manual, the
// product label and the law win. It is judged with every pack.
var Practice = Pack{
	Name: "practice", Title: "Usual practice, judged with every pack", Version: 4, ReviewedOn: "2026-11-01",
	Rules: []Rule{
		{ID: judge.RuleMakerLimits, Citation: "maker's manual", Scope: OfAircraft, By: []judge.Rule{judge.RuleWind},
			Evidence: "Type profile.", Statement: "The aircraft is flown inside the maker's limits."},
		{ID: judge.RuleWear, Citation: "maintenance programme", Scope: OfAircraft, By: []judge.Rule{judge.RuleWear},
			Evidence: "Counters of the parts.", Statement: "Parts are replaced at the first of their life limits."},
		{ID: judge.RuleOtherPropellers, Citation: "the crew's own practice; maker's manual wins", Scope: OfAircraft,
			By: []judge.Rule{judge.RuleOtherPropellers}, Evidence: "Source of the parts.",
			Statement: "Propellers of another maker fly only as the crew allows."},
		{ID: judge.RuleCompass, Citation: "the crew's own practice; maker's manual wins", Scope: OfAircraft,
			By: []judge.Rule{judge.RuleCompass}, Evidence: "Calibrations on record.",
			Statement: "The compass is calibrated as the crew keeps it, away from metal."},
		{ID: judge.RulePackPractice, Citation: "usual practice; maker's manual wins", Scope: OfAircraft,
			By: []judge.Rule{judge.RulePacks}, Evidence: "Readings of the packs.",
			Statement: "Packs fly only sound, charged and at a safe temperature."},
		{ID: judge.RuleCrewOrder, Citation: "the crew's own rule", Scope: OfAircraft, By: []judge.Rule{judge.RuleGrounding},
			Evidence:  "Groundings on record.",
			Statement: "A grounded aircraft stays on the ground until a technician or chief returns it to service."},
		{ID: judge.RuleJob, Citation: "usual practice", Scope: OfPilot, Evidence: "The job of the flight.",
			Statement: "Every flight belongs to a job, with site, air, airspace, people and briefing judged; practice and check flights to one at a base or practice site.",
			check:     noJob},
		{ID: judge.RuleReadiness, Citation: "usual practice", Scope: OfPilot,
			Evidence:  "Logged manual-flying practice on the type.",
			Statement: "A pilot flies a type by hand, empty and then loaded, before the first job on it.", check: ready},
		{ID: judge.RuleRoles, Citation: "usual practice", Scope: OfJob, Evidence: "Roles of the job.",
			Statement: "Who is in command is named beforehand.", check: roles},
		{ID: judge.RulePracticeLoad, Citation: "usual practice", Scope: OfJob,
			when: func(f Facts) bool { return f.Work == Practised }, Evidence: "The crew's answer.",
			Statement: "A practice or check flight carries no product: what dispenses is a spraying job.",
			Asks: choice("practice-load", "What do the tanks carry?", fine("none", "No tank, empty, or clean water"),
				stops("product", "Product",
					"A practice flight carries no product. Plan a spraying job: label, drift and certificates are judged there."))},
		{ID: judge.RuleLandowner, Citation: "usual practice; law of the land", Scope: OfJob, Evidence: "The crew's answer.",
			Statement: "Whoever owns or holds the land has agreed.",
			Asks: choice("landowner", "May the crew work on this land?", fine("yes", "Yes, agreed with whoever holds it"),
				stops("no", "Not agreed yet", "Nobody has agreed that the crew works on this land."))},
		{ID: judge.RuleEnergised, Citation: "usual practice; owner of the plant", Scope: OfJob,
			when: func(f Facts) bool { return f.Work == "inspection" }, Evidence: "The crew's answer.",
			Statement: "Near energised parts the owner sets the distance, and nobody goes by the aircraft's own sensors.",
			Asks: choice("energised", "Is anything energised within reach of the flight?", fine("none", "Nothing"),
				fine("agreed", "Yes: distance and contact agreed with its owner"),
				stops("open", "Yes, not agreed",
					"Energised parts are within reach and no distance is agreed with their owner. Wires that are touched kill."))},
		{ID: judge.RuleDrift, Citation: "product label; usual practice", Scope: OfJob, when: spraying,
			Evidence:  "The crew's answer; sensitive places of the site.",
			Statement: "Neighbours, bees, water and organic fields downwind are known and told; the label's buffer is kept.",
			Asks: choice("downwind",
				"Are bees, houses, water, organic fields and people downwind known, told, and kept at the label's distance?",
				fine("yes", "Yes"), stops("no", "No, or not all",
					"Somebody downwind may be reached by drift. Do not spray until they are told and the buffer is kept."))},
	},
}

// noJob stops what belongs to no job: practice and check flights are jobs of
// their own, at a base or practice site, so that site, air, airspace, people and
// briefing are judged for them too.
func noJob(c *checker) {
	if c.JobID == "" {
		c.find(judge.Stop, "This flight belongs to no job: site, air, airspace, people and briefing are not judged. Plan one; for practice and check flights, at a base or practice site.",
			"None chosen.", "choosing or planning a job", &judge.Remedy{Kind: judge.PlanJob})
	}
}

// ready stops a job that the pilot is not ready for; practice is how one becomes
// ready.
func ready(c *checker) {
	if c.Pilot == nil || c.Pilot.Ready == nil || c.Pilot.Ready.Open {
		return
	}
	v, sentence := judge.Stop, c.Pilot.Name+" is not ready for "+c.Aircraft.Type+": "+strings.Join(c.Pilot.Ready.Missing,
		"; ")+"."
	if c.Work == Practised {
		v, sentence = judge.Watch, sentence+" Practise by hand, with somebody beside who is."
	}
	c.find(v, sentence, "Logged practice.", "practice, logged", &judge.Remedy{Kind: judge.OpenReadiness, ID: c.Pilot.ID})
}

func roles(c *checker) {
	open := &judge.Remedy{Kind: judge.OpenJob, ID: c.JobID}
	var command []string
	here := false
	for _, p := range c.People {
		if p.Role == "rpic" {
			command = append(command, p.Name)
		}
		here = here || c.Pilot != nil && p.ID == c.Pilot.ID && (p.Role == "rpic" || p.Role == "pilot")
	}
	switch {
	case len(command) == 0:
		c.find(judge.Stop, "Nobody is named as remote pilot in command of this job.", "Roles of the job.", "naming one", open)
	case c.Pilot != nil && !here:
		c.find(judge.Stop, c.Pilot.Name+" has no role as pilot in this job.", "Roles of the job.",
			"the named pilot, or a change of the roles", open)
	}
}
