package checks

import (
	"slices"
	"strings"

	"mainstay/core/airframe"
	"mainstay/core/judge"
)

// KeptID is the item that asks for what is set as the crew keeps it; it stands on
// every check, behind what looks at the settings where a list has such.
const KeptID = "kept-settings"

// Satellites is the quantity that the crew's least number of satellites holds for.
const Satellites = "number of satellites"

// Quantities that an aircraft may tell over its link.
const (
	LoadCell = "lowest cell under load"
	Receiver = "receiver supply"
	Output   = "output" // of each motor
)

// What an aircraft tells of itself, shown at the item that names it.
const (
	TellsWarnings    = "warnings"
	TellsHome        = "home"
	TellsCorrections = "corrections"
	TellsModes       = "modes"
	TellsLimits      = "limits"
	TellsCamera      = "camera"
)

// AllTells lists them.
var AllTells = []string{TellsWarnings, TellsHome, TellsCorrections, TellsModes, TellsLimits, TellsCamera}

// Kept says in one sentence what is set on a type at take-off.
func Kept(t airframe.Type) string {
	words := strings.Join(t.Kept().ToSet(t.Lifts()), "; ")
	return strings.ToUpper(words[:1]) + words[1:] + "."
}

func keptItem(t airframe.Type) *Item {
	at := t.Stations()
	if len(at) == 0 {
		return nil
	}
	station := at[len(at)-1].ID
	for _, s := range at {
		if s.ID == "controller" {
			station = s.ID
		}
	}
	return &Item{ID: KeptID, Station: station, Section: "Settings", Title: "Set as the crew keeps it", How: Kept(t),
		Short: true,
		Why:   "The crew agreed on it; what another crew or yesterday's job left set is found here.", Kind: Look,
		Defect: judge.Stop, Bars: true, Source: "crew's practice"}
}

// sets reports whether an item looks at the settings, by itself or among others.
func (it Item) sets() bool {
	return it.ID == "settings" || slices.ContainsFunc(it.Marks, func(m Mark) bool { return m.ID == "settings" })
}

// asksSatellites raises the bound of the satellites to what the crew keeps.
func asksSatellites(it *Item, t airframe.Type) {
	if it.Quantity != Satellites || it.Band == nil {
		return
	}
	b, least := *it.Band, t.Kept().MinSatellites()
	if b.StopBelow == nil || *b.StopBelow < least {
		b.StopBelow = &least
	}
	it.Band = &b
}
