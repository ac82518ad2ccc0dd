package rules

import (
	"fmt"
	"time"

	"mainstay/core/units"
)

// Law is what a pack lays down in numbers, each with its citation, as a value
// that is handed to weather, airspace, the way home and the gate: none of them
// knows a law of its own. Lengths are metres, speeds m/s. A zero limit means
// that this law has none of the kind.
type Law struct {
	Pack string // its title

	HeightM         float64 // greatest height above ground
	HeightWords     string  // the limit as the law writes it
	HeightCite      string
	StructureWithin float64 // a structure counts that the whole flight stays this near to, m
	StructureOver   float64 // height allowed over its top
	StructureTall   float64 // only structures taller than this; 0: all

	SpeedMS     float64
	VisibilityM float64 // least visibility from the control station
	Visibility  string  // in the words of the law
	SeenCite    string
	CloudBelowM float64 // kept under a cloud
	CloudBeside float64 // kept beside a cloud
	CloudWords  string
	CloudCite   string

	TwilightLast time.Duration // civil twilight lasts so long before sunrise and after sunset; 0: as the almanac says
	NightCite    string
	TwilightSays string // what the law asks for in twilight
	NightSays    string // and at night
	LightsSeen   string // how the lights must be seen

	SiteCite     string // assessing site, weather and hazards
	AirspaceCite string
	PersonCite   string // being fit
	PersonWords  string // in the words of the law
	AlcoholAsks  string // what one asks oneself about it
	BriefingCite string
	ReportsCite  string
	ReportWithin Within // how soon an occurrence is reported
}

// Within is a span in hours or in calendar days.
type Within struct{ Hours, Days int }

// From is the end of a span that begins at t.
func (w Within) From(t time.Time) time.Time {
	return t.Add(time.Duration(w.Hours)*time.Hour).AddDate(0, 0, w.Days)
}

// Usual is the source of what rests on no law.
const Usual = "usual practice"

// Site adds usual practice to the source of what is judged about a site.
func (l Law) Site() string {
	if l.SiteCite == "" {
		return Usual
	}
	return l.SiteCite + "; " + Usual
}

// Over reports whether a height above ground is over the limit, compared in
// centimetres.
func (l Law) Over(m float64) bool { return l.HeightM > 0 && steps(m) > steps(l.HeightM) }

func steps(m float64) int64 {
	n, _ := units.Steps(m, 0.01)
	return n
}

// HeightLimit is the greatest height above ground as a sentence says it.
func (l Law) HeightLimit() string {
	if l.HeightWords != "" {
		return l.HeightWords
	}
	return fmt.Sprintf("%.0f m", l.HeightM)
}

var usLaw = Law{
	Pack:    "United States",
	HeightM: HeightLimitM, HeightWords: "121.9 m (400 ft)", HeightCite: "14 CFR 107.51(b)", StructureWithin: HeightLimitM,
	StructureOver: HeightLimitM,
	SpeedMS:       SpeedLimitMS,
	VisibilityM:   3 * units.MetresPerStatuteMile, Visibility: "3 statute miles (4.8 km)", SeenCite: "14 CFR 107.51(c)",
	CloudBelowM: 500 * units.MetresPerFoot, CloudBeside: 2000 * units.MetresPerFoot,
	CloudWords: "500 ft under and 2000 ft beside a cloud", CloudCite: "14 CFR 107.51(d)",
	TwilightLast: 30 * time.Minute, NightCite: "14 CFR 107.29",
	TwilightSays: "the anti-collision light is lit and seen for 3 statute miles",
	NightSays:    "the anti-collision light is lit and seen for 3 statute miles, and the pilot is trained for night",
	SiteCite:     "14 CFR 107.49(a)", AirspaceCite: "14 CFR 107.41, 107.45, 107.47", BriefingCite: "14 CFR 107.49(b)",
	LightsSeen: "seen for 3 statute miles", AlcoholAsks: "No alcohol for 8 hours, and under 0.04",
	PersonCite:  "14 CFR 107.17, 107.27, 91.17",
	PersonWords: "no condition that interferes, 8 hours since alcohol, under 0.04",
	ReportsCite: "14 CFR 107.9", ReportWithin: Within{Days: 10},
}

var euLaw = Law{
	Pack:    "European Union",
	HeightM: EUHeightM, HeightWords: "120 m", HeightCite: eu947 +
		" UAS.OPEN.010(2), (3)", StructureWithin: 50, StructureOver: EUOverStructM, StructureTall: 105,
	NightCite:    eu947 + " UAS.OPEN.060(2)(g)",
	TwilightSays: "the green flashing light is lit from the end of daylight on",
	NightSays:    "the green flashing light is lit",
	SiteCite:     eu947 + " UAS.OPEN.060(1)", AirspaceCite: eu947 + " article 15", BriefingCite: eu947 + " UAS.SPEC.050",
	LightsSeen:  "green and flashing, seen from the air and the ground",
	AlcoholAsks: "Not under the influence of alcohol or drugs, and no alcohol for 8 hours",
	PersonCite:  eu947 + " UAS.OPEN.060(2)(a)",
	PersonWords: "not under the influence of alcohol or drugs, and fit for the task",
	ReportsCite: "Regulation (EU) 376/2014", ReportWithin: Within{Hours: 72},
}

// Alaska roughly: north of 51 degrees and west of the border of its panhandle,
// over the date line to the last of its islands.
const (
	alaskaSouth = 51.0
	alaskaEast  = -129.97
	alaskaWest  = 172.0
)

// At is the law as it holds at a place, degrees: in Alaska civil twilight is
// the almanac's (14 CFR 107.29(c)).
func (p Pack) At(lat, lon float64) Law {
	l := p.Law
	if p.Name == USSmall.Name && lat > alaskaSouth && (lon < alaskaEast || lon > alaskaWest) {
		l.TwilightLast = 0
	}
	return l
}
