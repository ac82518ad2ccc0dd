// Package rules holds the statements Mainstay rests its findings on, each with
// the source it comes from. Guidance only: the law, the crew's authorisations,
// the maker's manual and the product label decide.
package rules

import "fmt"

// Rule is one requirement and where it comes from.
type Rule struct {
	ID        string `json:"id"`
	Citation  string `json:"citation"`
	Statement string `json:"statement"`
}

// Pack is a named set of rules as reviewed on a date.
type Pack struct {
	Name       string `json:"name"`
	Version    int    `json:"version"`
	ReviewedOn string `json:"reviewed_on"`
	Rules      []Rule `json:"rules"`
}

// Caution stands wherever a rule is shown.
const Caution = "Guidance only. The law, your authorisations, the maker's manual and the product label decide; ask your authority."

// USSmall covers civil commercial flights of small unmanned aircraft in the
// United States, as far as the gate of this version judges them.
var USSmall = Pack{
	Name: "us-small", Version: 1, ReviewedOn: "2026-11-01",
	Rules: []Rule{
		{"condition", "14 CFR 107.15, 107.49", "The aircraft is checked before flight and in a condition for safe operation."},
		{"control-link", "14 CFR 107.49(c)", "The control link works."},
		{"power", "14 CFR 107.49(d)", "There is enough power for the planned time."},
		{"operator", "14 CFR 107.12, 107.65", "The remote pilot holds a certificate and was trained within 24 calendar months."},
		{"one-aircraft", "14 CFR 107.35", "A person serves as pilot of one aircraft in the air at a time."},
		{"registration", "14 CFR 107.13, part 48", "The aircraft is registered and the registration has not expired."},
		{"familiarise-site", "14 CFR 107.49(a)", "Weather and hazards at the place are assessed before flight."},
		{"maker-limits", "maker's manual", "The aircraft is flown inside the maker's limits."},
		{"wear", "maintenance programme", "Parts are replaced at the first of their life limits."},
		{"pack-practice", "usual practice; maker's manual wins", "Packs fly only sound, charged and at a safe temperature."},
		{"crew-order", "the crew's own rule", "A grounded aircraft stays on the ground until a technician or chief returns it to service."},
	},
}

// Source returns the citation of a rule of the pack. An unknown id is a
// mistake in the program.
func (p Pack) Source(id string) string {
	for _, r := range p.Rules {
		if r.ID == id {
			return r.Citation
		}
	}
	panic(fmt.Sprintf("rules: no rule %q in %s", id, p.Name))
}
