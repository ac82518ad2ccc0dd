// Package weather judges what is known about the air over a site for a type of
// aircraft and a kind of work: wind at flight height, lift, cloud, visibility,
// light, and the spraying window.
package weather

import (
	"fmt"
	"math"
	"strings"
	"time"

	"mainstay/core/air"
	"mainstay/core/judge"
	"mainstay/core/metar"
	"mainstay/core/units"
	"mainstay/core/wind"
)

// Work is the kind of work.
type Work string

// The kinds of work.
const (
	Spraying   Work = "spraying"
	Mapping    Work = "mapping"
	Inspection Work = "inspection"
)

// AllWork lists the kinds of work.
var AllWork = []Work{Spraying, Mapping, Inspection}

// Air is what was read or reported; nil is not known.
type Air struct {
	At          time.Time `json:"at"`
	Source      string    `json:"source"` // hand, metar, forecast
	WindMS      *float64  `json:"wind_ms"`
	GustMS      *float64  `json:"gust_ms"`
	FromDeg     *float64  `json:"from_deg"`
	WindHeightM float64   `json:"wind_height_m"` // of the reading; 10 for a report
	Ground      string    `json:"ground"`        // what the wind blows over
	TempC       *float64  `json:"temp_c"`
	DewC        *float64  `json:"dew_c"`
	QNH         *float64  `json:"qnh_hpa"`
	VisibilityM *float64  `json:"visibility_m"`
	CloudBaseFt *int      `json:"cloud_base_ft"` // lowest layer, above the station
	CloudKnown  bool      `json:"cloud_known"`   // a nil base is then a sky without cloud
	ClearSky    *bool     `json:"clear_sky"`
	StationM    *float64  `json:"station_m"` // elevation the cloud base counts from
	Hazards     []string  `json:"hazards"`
	LowC        *float64  `json:"low_c"`  // temperatures measured at two heights
	HighC       *float64  `json:"high_c"` //
	Raw         string    `json:"raw"`
	Humidity    *float64  `json:"humidity_percent,omitempty"` // as read by hand, in the place of DewC
	Beaufort    *int      `json:"beaufort,omitempty"`         // the wind was estimated by eye: WindMS is the upper end of this class
}

// ByEye puts an estimate by eye in the place of a measured wind: the upper end
// of its class, which the limits are held against.
func (a *Air) ByEye() error {
	_, to, err := wind.ByEye(*a.Beaufort)
	high := float64(to)
	a.WindMS, a.GustMS, a.WindHeightM = &high, nil, 10
	return err
}

// least is the weakest that the wind may be, m/s; it is known.
func (a Air) least() float64 {
	if a.Beaufort != nil {
		if from, _, err := wind.ByEye(*a.Beaufort); err == nil {
			return float64(from)
		}
	}
	return *a.WindMS
}

// FromReport takes what a report says.
func FromReport(r metar.Report, now time.Time, ground string) Air {
	a := Air{Source: "metar", WindMS: r.Wind.SpeedMS, GustMS: r.Wind.GustMS, WindHeightM: 10, Ground: ground, TempC: r.Temperature, DewC: r.DewPoint, QNH: r.QNH, VisibilityM: r.VisibilityM, Hazards: r.Hazards(), Raw: r.Raw}
	if t, ok := r.At(now); ok {
		a.At = t
	}
	if r.Wind.Direction != nil {
		d := float64(*r.Wind.Direction)
		a.FromDeg = &d
	}
	a.CloudBaseFt, a.CloudKnown = r.LowestBase()
	if r.SkyKnown {
		clear := true
		for _, l := range r.Layers {
			clear = clear && (l.Amount == metar.Few || l.Amount == metar.SkyClear || l.Amount == metar.Clear || l.Amount == metar.NoSig || l.Amount == metar.NoneSeen)
		}
		a.ClearSky = &clear
	}
	return a
}

// Limits are what the air is held against.
type Limits struct {
	WindMS, GustMS float64       // of the type
	FlightHeightM  float64       // above ground
	MaxMassKg      float64       // of the type; 0: not known
	TankWork       bool          // the type sprays
	GroundM        float64       // elevation of the site
	Work           Work          //
	HoursAfterRise *float64      // of the sun, at the time of the air
	HoursToSet     *float64      //
	SunElevation   *float64      // degrees
	Light          *metar.Report // for mapping; nil: not known
}

// The rule's limits (14 CFR 107.51), m; the spray window of usual practice,
// m/s; the label wins.
const (
	VisibilityMin = 3 * units.MetresPerStatuteMile
	CloudBelowFt  = 500
	HoldsFor      = 60 * time.Minute
	SprayWindLow  = 1.0
	SprayWindHigh = 4.5
	LowSun        = 30.0
)

// Assessment is what the air allows.
type Assessment struct {
	Air              Air             `json:"air"`
	Wind             *wind.AtHeight  `json:"wind"`
	PressureHPa      *float64        `json:"pressure_hpa"`
	DensityKgM3      *float64        `json:"density_kgm3"`
	DensityAltitudeM *float64        `json:"density_altitude_m"`
	MassLimitKg      *float64        `json:"mass_limit_kg"`
	DeltaT           *float64        `json:"delta_t"`
	HumidityPercent  *float64        `json:"humidity_percent"`
	CloudCeilingM    *float64        `json:"cloud_ceiling_m"` // greatest height above the site's ground under the cloud rule
	Findings         []judge.Finding `json:"findings"`
}

type run struct {
	a   Air
	l   Limits
	now time.Time
	out Assessment
}

// Assess judges the air. What is not known is a finding.
func Assess(a Air, l Limits, now time.Time) Assessment {
	r := run{a: a, l: l, now: now, out: Assessment{Air: a, Findings: []judge.Finding{}}}
	r.age()
	r.wind()
	r.warmth()
	r.lift()
	r.seeing()
	if l.Work == Spraying {
		r.spraying()
	}
	if l.Work == Mapping {
		r.mapping()
	}
	return r.out
}

// limit says that the newest finding is a limit that is known to be exceeded.
func (r *run) limit() { r.out.Findings[len(r.out.Findings)-1].Limit = true }

func (r *run) find(v judge.Verdict, rule, source, sentence string) {
	if v == judge.Clear {
		return
	}
	at := r.a.At
	f := judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: source, Evidence: "Weather: " + r.a.Source + ".", Lifts: "measure again, or wait"}
	if !at.IsZero() {
		f.At = &at
	}
	r.out.Findings = append(r.out.Findings, f)
}

const (
	rule107   = "14 CFR 107.49(a)"
	rule51c   = "14 CFR 107.51(c)"
	rule51d   = "14 CFR 107.51(d)"
	maker     = "maker's manual"
	usual     = "usual practice; the label wins"
	usualOnly = "usual practice"
)

func (r *run) age() {
	switch {
	case r.a.At.IsZero():
		r.find(judge.Stop, "weather-age", rule107, "It is not known when this weather was.")
	case r.a.At.After(r.now.Add(5 * time.Minute)):
		r.find(judge.Stop, "weather-age", rule107, "The weather is dated in the future.")
	case r.now.Sub(r.a.At) > HoldsFor:
		r.find(judge.Stop, "weather-age", rule107, fmt.Sprintf("The weather is %.0f min old; it holds for %.0f.", r.now.Sub(r.a.At).Minutes(), HoldsFor.Minutes()))
	}
}

func (r *run) wind() {
	if r.a.WindMS == nil {
		r.find(judge.Stop, "wind", maker, "The wind is not known.")
		return
	}
	var gust *units.MetresPerSecond
	if r.a.GustMS != nil {
		g := units.MetresPerSecond(*r.a.GustMS)
		gust = &g
	}
	at, err := wind.Scale(units.MetresPerSecond(*r.a.WindMS), gust, units.Metres(r.a.WindHeightM), units.Metres(r.l.FlightHeightM), wind.Ground(r.a.Ground))
	if err != nil {
		r.find(judge.Stop, "wind", maker, "The wind cannot be used: "+err.Error()+".")
		return
	}
	r.out.Wind = &at
	if r.a.Beaufort != nil {
		r.find(judge.Watch, "wind", maker, fmt.Sprintf("The wind was estimated by eye: Beaufort %d, %.1f to %.1f m/s. The upper end counts; measure it.", *r.a.Beaufort, r.a.least(), *r.a.WindMS))
	}
	limit := func(what string, v, max float64) {
		n, _ := units.Steps(v, 0.1)
		m, _ := units.Steps(max, 0.1)
		switch {
		case n > m:
			r.find(judge.Stop, "wind", maker, fmt.Sprintf("%s %.1f m/s at %.0f m is over the limit of %.1f.", what, v, r.l.FlightHeightM, max))
		case float64(n) > 0.8*float64(m):
			r.find(judge.Watch, "wind", maker, fmt.Sprintf("%s %.1f m/s at %.0f m is near the limit of %.1f.", what, v, r.l.FlightHeightM, max))
		}
	}
	limit("Wind", float64(at.Steady), r.l.WindMS)
	limit("Gusts", float64(at.Gust), r.l.GustMS)
}

func (r *run) warmth() {
	a := r.a
	if a.TempC == nil {
		r.find(judge.Watch, "cold", usualOnly, "The temperature is not known: feel the packs before they fly.")
		return
	}
	if *a.TempC < 5 {
		r.find(judge.Watch, "cold", usualOnly, fmt.Sprintf("%.0f °C: keep packs warm until they fly.", *a.TempC))
	}
	if *a.TempC > 40 {
		r.find(judge.Watch, "heat", usualOnly, fmt.Sprintf("%.0f °C: packs and people get hot; keep both in the shade.", *a.TempC))
	}
}

func (r *run) lift() {
	a := r.a
	if a.TempC != nil && a.DewC != nil {
		if rh, err := air.Humidity(*a.TempC, *a.DewC); err == nil {
			r.out.HumidityPercent = &rh
		}
	}
	if a.TempC == nil || a.DewC == nil || a.QNH == nil {
		r.find(judge.Watch, "lift", usualOnly, "Density altitude is not known: temperature, dew point or pressure is missing.")
		return
	}
	p, err := air.StationPressure(*a.QNH, r.l.GroundM)
	if err == nil {
		var rho float64
		if rho, err = air.Density(p, *a.TempC, *a.DewC); err == nil {
			da, mass := air.DensityAltitude(rho), air.MassLimit(r.l.MaxMassKg, rho, 1.225)
			r.out.PressureHPa, r.out.DensityKgM3, r.out.DensityAltitudeM = &p, &rho, &da
			if r.l.MaxMassKg > 0 {
				r.out.MassLimitKg = &mass
			}
			if mass < 0.9*r.l.MaxMassKg {
				r.find(judge.Watch, "lift", usualOnly, fmt.Sprintf("Thin air, density altitude %.0f m: start with at most %.1f kg, unless the maker's table says more.", da, mass))
			}
			if w, werr := air.WetBulb(*a.TempC, *a.DewC, p); werr == nil {
				d := *a.TempC - w
				r.out.DeltaT = &d
			}
		}
	}
	if err != nil {
		r.find(judge.Watch, "lift", usualOnly, "Density altitude is not known: "+err.Error()+".")
	}
}

func (r *run) seeing() {
	if len(r.a.Hazards) > 0 {
		r.find(judge.Stop, "hazard", rule107, "Reported: "+strings.Join(r.a.Hazards, ", ")+". Nobody flies in thunderstorm, fog, rain or snow.")
	}
	switch {
	case r.a.VisibilityM == nil:
		r.find(judge.Stop, "visibility", rule51c, "The visibility is not known; at least 3 statute miles are needed.")
	case *r.a.VisibilityM < VisibilityMin-1e-6:
		r.find(judge.Stop, "visibility", rule51c, fmt.Sprintf("Visibility %.1f km is under 3 statute miles (4.8 km).", *r.a.VisibilityM/1000))
		r.limit()
	}
	switch {
	case !r.a.CloudKnown:
		r.find(judge.Stop, "clouds", rule51d, "The cloud is not known; the aircraft stays 500 ft under it.")
	case r.a.CloudBaseFt != nil && r.a.StationM == nil:
		r.find(judge.Stop, "clouds", rule51d, "The elevation that the cloud base counts from is not known.")
	case r.a.CloudBaseFt != nil:
		c := float64(*r.a.CloudBaseFt-CloudBelowFt)*units.MetresPerFoot + *r.a.StationM - r.l.GroundM
		r.out.CloudCeilingM = &c
		if c < r.l.FlightHeightM {
			r.find(judge.Stop, "clouds", rule51d, fmt.Sprintf("Under the lowest cloud at most %.0f m above the ground are left (± 15 m: bases are rounded); the flight needs %.0f.", math.Max(c, 0), r.l.FlightHeightM))
			r.limit()
		} else if c < r.l.FlightHeightM+15 {
			r.find(judge.Watch, "clouds", rule51d, fmt.Sprintf("Under the lowest cloud %.0f m above the ground are left, ± 15 m: bases are rounded.", c))
		}
	}
}

func (r *run) spraying() {
	if r.a.WindMS != nil {
		n, _ := units.Steps(*r.a.WindMS, 0.1)
		low, _ := units.Steps(r.a.least(), 0.1)
		switch {
		case low < 10:
			r.find(judge.Stop, "spray-wind", usual, fmt.Sprintf("Wind %.1f m/s is under %.1f: dead calm hides an inversion.", r.a.least(), SprayWindLow))
		case n > 45:
			r.find(judge.Stop, "spray-wind", usual, fmt.Sprintf("Wind %.1f m/s is over %.1f: spray drifts.", *r.a.WindMS, SprayWindHigh))
		}
	}
	if r.out.DeltaT == nil {
		r.find(judge.Watch, "delta-t", usual, "Delta T is not known.")
	} else if v, words := air.JudgeDeltaT(*r.out.DeltaT); v != judge.Clear {
		r.find(v, "delta-t", usual, words)
	}
	calm := r.a.WindMS
	if calm != nil {
		low := r.a.least()
		calm = &low
	}
	v, words := air.Inversion{HoursAfterRise: r.l.HoursAfterRise, HoursToSet: r.l.HoursToSet, WindMS: calm, ClearSky: r.a.ClearSky, LowC: r.a.LowC, HighC: r.a.HighC}.Judge()
	r.find(v, "inversion", usual, words)
}

func (r *run) mapping() {
	switch {
	case r.l.SunElevation == nil:
		r.find(judge.Watch, "light", usualOnly, "Where the sun stands is not known.")
	case *r.l.SunElevation < LowSun:
		r.find(judge.Watch, "light", usualOnly, fmt.Sprintf("The sun stands only %.0f° high: long shadows.", *r.l.SunElevation))
	}
	if r.l.Light == nil {
		r.find(judge.Watch, "light", usualOnly, "Whether the light is even is not known. Look up.")
	} else if v, words := r.l.Light.Light(); v != judge.Clear {
		r.find(v, "light", usualOnly, words)
	}
}
