package rules

import "strings"

// Advisory is one item of the authority's advisory pre-flight list for small
// unmanned aircraft (FAA AC 107-2A, appendix), with what covers it here.
type Advisory struct {
	Item      string
	Checklist []string // ids of walkround items; a trailing star takes every id that begins so
	Elsewhere string   // a part of the product that covers it, beside or instead
	WingOnly  bool     // aircraft without moving surfaces have none
}

// AdvisorySource is where it comes from.
const AdvisorySource = "FAA AC 107-2A, appendix"

// AdvisoryList is the list in its order.
var AdvisoryList = []Advisory{
	{Item: "Visual condition of the aircraft's components", Checklist: []string{"arm-*", "wing-*", "nose", "frame"}},
	{Item: "Structure and linkages", Checklist: []string{"arm-*", "wing-*", "tail", "surface-*", "frame"}},
	{Item: "Registration marking, proper and readable", Checklist: []string{"frame"}, Elsewhere: "Gate: registration"},
	{Item: "Movable surfaces and their attachment", Checklist: []string{"surface-*", "tail"}, WingOnly: true},
	{Item: "Servos and their attachment", Checklist: []string{"surface-*", "surfaces-move"}, WingOnly: true},
	{Item: "Propulsion: motors, propellers, rotors", Checklist: []string{"motor-*", "propeller-*"}},
	{Item: "Power of aircraft and control unit", Checklist: []string{"pack-percent", "controller-level"},
		Elsewhere: "Gate: packs"},
	{Item: "Avionics, control link parts, antennas", Checklist: []string{"electronics", "antenna"}},
	{Item: "Compass calibration", Checklist: []string{"compass"}},
	{Item: "Display of the control unit", Checklist: []string{"self-test", "controller"}},
	{Item: "Ground support, take-off and landing equipment",
		Elsewhere: "Job: kit list; Tonight: gear; site file: take-off place"},
	{Item: "Control link function", Checklist: []string{"link"}},
	{Item: "Movement of surfaces from the control unit", Checklist: []string{"surfaces-move"}, WingOnly: true},
	{Item: "Navigation and data links", Checklist: []string{"link", "satellites"}},
	{Item: "Flight termination, if fitted", Checklist: []string{"settings"},
		Elsewhere: "Job: briefing, emergency section"},
	{Item: "Fuel, if any", Elsewhere: "Electric aircraft only: none is carried"},
	{Item: "Battery levels of aircraft and control unit",
		Checklist: []string{"pack-percent", "pack-cells", "controller-level"}},
	{Item: "Attached equipment secure", Checklist: []string{"payload-*", "attachments"},
		Elsewhere: "Job: attached objects"},
	{Item: "Position fix of at least four satellites", Checklist: []string{"satellites"}},
	{Item: "Propellers started to see imbalance", Checklist: []string{"idle-output"},
		Elsewhere: "Flight: first minute, motor outputs alike"},
	{Item: "Heading and height control", Checklist: []string{"settings"},
		Elsewhere: "Flight: first minute, hover and answer to the sticks"},
	{Item: "Obstructions on the path, walked through",
		Elsewhere: "Job: site looked over on the spot; site file: way home and path"},
	{Item: "Low-height check of controls near interference",
		Elsewhere: "Flight: first minute; site file: interference near take-off"},
}

// Covered is an item of the advisory list for one checklist.
type Covered struct {
	Item      string   `json:"item"`
	By        []string `json:"by"` // titles of the checklist items
	Elsewhere string   `json:"elsewhere,omitempty"`
	NotHere   bool     `json:"not_here,omitempty"` // the type has nothing of the kind
	Missing   bool     `json:"missing,omitempty"`  // nothing covers it
}

// ListItem is an item of a checklist as far as coverage asks.
type ListItem struct{ ID, Title string }

// Cover holds a checklist against the advisory list. wing says whether the type
// has moving surfaces.
func Cover(list []ListItem, wing bool) []Covered {
	out := []Covered{}
	for _, a := range AdvisoryList {
		c := Covered{Item: a.Item, By: []string{}, Elsewhere: a.Elsewhere}
		for _, it := range list {
			for _, want := range a.Checklist {
				stem, star := strings.CutSuffix(want, "*")
				if it.ID == want || star && strings.HasPrefix(it.ID, stem) {
					c.By = append(c.By, it.Title)
					break
				}
			}
		}
		if len(c.By) == 0 && c.Elsewhere == "" {
			c.NotHere, c.Missing = a.WingOnly && !wing, !a.WingOnly || wing
		}
		out = append(out, c)
	}
	return out
}
