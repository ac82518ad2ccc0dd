// Package kit lists what a crew takes along for a kind of work, and how much of
// it. The list is usual practice; a crew adds its own.
package kit

import (
	"fmt"

	"mainstay/core/judge"
)

// Item is one thing to pack.
type Item struct {
	ID       string `json:"id"`
	Label    string `json:"label"`
	Quantity int    `json:"quantity"` // 0: as many as it takes, not counted
	Why      string `json:"why"`
}

// Aircraft is one aircraft of the job, as far as the kit asks.
type Aircraft struct {
	Type       string
	Packs      int // of one flight
	Propellers int // on the airframe
	// of packs that are enough for the planned flights, since they are charged in the field; 0: one for each flight
	Sets int
}

// Job is what the quantities follow from. Sorties is how many flights are
// planned with each aircraft; nil is not planned yet.
type Job struct {
	Work     string // spraying, mapping, inspection
	Aircraft []Aircraft
	People   int
	Sorties  *int
	Night    bool
	Lights   string // how its lights must be seen, by the law flown under
	Observer bool
}

// List returns the kit in the order of packing. Without planned sorties the
// number of packs is for one flight and one to spare, and says so.
func List(j Job) []Item {
	var out []Item
	add := func(id, label string, n int, why string) { out = append(out, Item{id, label, n, why}) }
	seen := map[string]bool{}
	for _, a := range j.Aircraft {
		if seen[a.Type] {
			continue
		}
		seen[a.Type] = true
		same := 0
		for _, b := range j.Aircraft {
			if b.Type == a.Type {
				same++
			}
		}
		flights, why := 1, "for one flight and one more: the sorties are not planned yet"
		if j.Sorties != nil {
			flights, why = *j.Sorties*same, fmt.Sprintf("for %s planned and one more", judge.Count(*j.Sorties*same, "flight"))
			if a.Sets > 0 && a.Sets < flights {
				flights, why = a.Sets, fmt.Sprintf("for %s planned, charged again in the field meanwhile, and one set more",
					judge.Count(flights, "flight"))
			}
		}
		add("packs-"+a.Type, "Packs, "+a.Type, (flights+1)*a.Packs, why)
		add("propellers-"+a.Type, "Spare propellers, "+a.Type, max(a.Propellers, 1),
			"one of each position; contact means replacing")
	}
	add("chargers", "Chargers, generator, fuel, cables", 0, "with the channels of tonight's plan")
	add("controller", "Controllers, tablet, station, all charged", max(len(j.Aircraft), 1), "each is gear with a level")
	add("drivers", "The right screwdrivers and hex keys", 1, "a wrong driver strips the screw")
	add("pad", "Landing pad", max(len(j.Aircraft), 1), "dust and loose ground")
	add("cones", "Cones and tape", 0, "keeps people out of the take-off area")
	add("multimeter", "Multimeter", 1, "bus and pack readings")
	add("air", "Compressed air, wipes, alcohol", 0, "grit in motors, dust on sensors, corrosion")
	add("wind", "Hand anemometer and thermometer", 1, "weather at the spot, at most an hour old")
	add("fire", "Fire extinguisher and a bucket with sand", 1, "packs burn")
	add("aid", "First aid", 1, "")
	add("people", "Eye protection, gloves, high-visibility vest", max(j.People, 1), "one for each person of the job")
	add("radio", "Radios or flags for the agreed signals", max(j.People, 2), "voice does not carry in wind")
	add("documents", "Documents: certificates, registration, authorisations, insurance", 1, "shown on request")
	switch j.Work {
	case "spraying":
		add("product", "Product and its label", 0, "the label decides")
		add("water", "Water: clean, for the run, and for rinsing", 0, "first a run with water")
		add("measure", "Measuring jugs and catch cups", 1, "catch test per nozzle")
		add("nozzles", "Spare nozzles, filters, seals", 0, "")
		add("ppe", "Protection the label asks for", max(j.People, 1), "suit, mask, gloves as the label says")
		add("wash", "Wash water, soap, eye wash", 1, "before eating or driving")
	case "mapping":
		add("cards", "Memory cards, formatted in the aircraft", 2*max(len(j.Aircraft), 1), "one in, one spare")
		add("targets", "Ground targets", 5, "if they are used")
		add("base", "Correction base station or its account", 1, "if positions are corrected")
	default:
		add("cards", "Memory cards, formatted in the aircraft", 2*max(len(j.Aircraft), 1), "one in, one spare")
		add("filters", "Lens filters and cloth", 0, "fitted only with the gimbal off")
		add("plan", "Drawing or photo of the structure", 1, "faces to be shown")
	}
	if j.Night {
		add("lights", "Anti-collision lights and head lamps", max(len(j.Aircraft), 1), j.Lights)
	}
	if j.Observer {
		add("glasses", "Binoculars and seat for the observer", 1, "")
	}
	return out
}
