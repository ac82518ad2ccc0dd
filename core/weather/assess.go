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
	"mainstay/core/practice"
	"mainstay/core/rules"
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
	Practice   Work = "practice" // training, check and acceptance flights
)

// AllWork lists the kinds of work.
var AllWork = []Work{Spraying, Mapping, Inspection, Practice}

// Air is what was read or reported; nil is not known.
type Air struct {
	At      time.Time `json:"at"`
	Source  string    `json:"source"` // hand, metar, forecast
	WindMS  *float64  `json:"wind_ms"`
	GustMS  *float64  `json:"gust_ms"`
	FromDeg *float64  `json:"from_deg"`
	// reported range of its direction, clockwise; nil: none reported
	VariesFrom  *float64 `json:"varies_from_deg,omitempty"`
	VariesTo    *float64 `json:"varies_to_deg,omitempty"`
	WindHeightM float64  `json:"wind_height_m"` // of the reading; 10 for a report
	Ground      string   `json:"ground"`        // what the wind blows over
	TempC       *float64 `json:"temp_c"`
	DewC        *float64 `json:"dew_c"`
	QNH         *float64 `json:"qnh_hpa"`
	VisibilityM *float64 `json:"visibility_m"`
	CloudBaseFt *int     `json:"cloud_base_ft"` // lowest layer, above the station
	CloudKnown  bool     `json:"cloud_known"`   // a nil base is then a sky without cloud
	ClearSky    *bool    `json:"clear_sky"`
	StationM    *float64 `json:"station_m"`  // elevation the cloud base counts from
	StationKm   *float64 `json:"station_km"` // of a report: how far its station is from the site; nil: not known
	Hazards     []string `json:"hazards"`
	LowC        *float64 `json:"low_c"`  // temperatures measured at two heights
	HighC       *float64 `json:"high_c"` //
	// WeatherKnown says that Hazards and Vicinity are all there is: a report or
	// a person looked, and everything could be read.
	WeatherKnown bool          `json:"weather_known"`
	Vicinity     []string      `json:"vicinity"`  // reported near, not here
	NoStorms     bool          `json:"no_storms"` // the station cannot tell thunderstorms
	Trends       []metar.Trend `json:"trends"`    // expected, decoded apart
	Raw          string        `json:"raw"`
	Humidity     *float64      `json:"humidity_percent,omitempty"` // as read by hand, in the place of DewC
	// the wind was estimated by eye: WindMS is the upper end of this class
	Beaufort *int `json:"beaufort,omitempty"`
}

// ByEye puts an estimate by eye in the place of a measured wind: the upper end
// of its class, which the limits are held against.
func (a *Air) ByEye() error {
	_, to, err := wind.ByEye(*a.Beaufort)
	high := float64(to)
	a.WindMS, a.GustMS, a.WindHeightM = &high, nil, 10
	return err
}

// Least is the weakest that a known wind may be, m/s: by eye the lower end of its
// class.
func (a Air) Least() float64 {
	if a.Beaufort != nil {
		if from, _, err := wind.ByEye(*a.Beaufort); err == nil {
			return float64(from)
		}
	}
	return *a.WindMS
}

// FromReport takes what a report says.
func FromReport(r metar.Report, now time.Time, ground string) Air {
	a := Air{Source: "metar", WindMS: r.Wind.SpeedMS, GustMS: r.Wind.GustMS, WindHeightM: 10, Ground: ground,
		TempC: r.Temperature, DewC: r.DewPoint, QNH: r.QNH, VisibilityM: r.VisibilityM, Hazards: r.Hazards(),
		Vicinity:     r.Vicinity(),
		WeatherKnown: r.WeatherKnown, NoStorms: r.NoStorms(), Trends: r.Trends, Raw: r.Raw}
	if t, ok := r.At(now); ok {
		a.At = t
	}
	if r.Wind.Direction != nil {
		d := float64(*r.Wind.Direction)
		a.FromDeg = &d
	}
	if from, to := r.Wind.From, r.Wind.To; from != nil && to != nil {
		lo, hi := float64(*from), float64(*to)
		a.VariesFrom, a.VariesTo = &lo, &hi
	}
	a.CloudBaseFt, a.CloudKnown = r.LowestBase()
	if r.SkyKnown {
		clear := true
		for _, l := range r.Layers {
			clear = clear && (l.Amount == metar.Few || l.Amount == metar.SkyClear || l.Amount == metar.Clear ||
				l.Amount == metar.NoSig || l.Amount == metar.NoneSeen)
		}
		a.ClearSky = &clear
	}
	return a
}

// Limits are what the air is held against.
type Limits struct {
	WindMS, GustMS float64           // of the type
	FlightHeightM  float64           // highest place above ground that the flight reaches
	HeightAssumed  bool              // no route is known: it is the type's usual height
	Law            rules.Law         // visibility, cloud, and the sources
	From, To       time.Time         // window of the job, for what is expected; zero: none
	Label          Label             // of the product
	Kept           practice.Settings // where crews differ
	ReferenceKgM3  float64           // density that the type's greatest mass holds for; 0: sea level, standard
	MaxMassKg      float64           // of the type; 0: not known
	TankWork       bool              // the type sprays
	GroundM        *float64          // elevation of the site; nil: not known
	Work           Work              //
	HoursAfterRise *float64          // of the sun, at the time of the air
	HoursToSet     *float64          //
	SunElevation   *float64          // degrees
	Light          *metar.Report     // for mapping; nil: not known
}

// How long a reading of the air holds, and what else is usual.
const (
	HoldsFor = 60 * time.Minute
	LowSun   = 30.0
)

// Label is what a product label says about the air, m/s, m and degC; nil: nothing.
type Label struct {
	LowMS   *float64 `json:"low_ms"`
	HighMS  *float64 `json:"high_ms"`
	HeightM *float64 `json:"height_m"` // at which its limits of wind hold
	// Delta T that it names takes the place of the crew's practice on that side; it is
	// held by who plans the spraying.
	LeastDeltaT *float64 `json:"least_delta_t,omitempty"`
	MostDeltaT  *float64 `json:"most_delta_t,omitempty"`
}

// rules reports whether the label speaks about the side on which a delta T lies.
func (l Label) rules(deltaT float64) bool {
	if deltaT > (air.DeltaTLow+air.DeltaTGood)/2 {
		return l.MostDeltaT != nil
	}
	return l.LeastDeltaT != nil
}

// window is the wind that the label lets through, or else the crew's practice, and
// the height at which it is held.
func (l Label) window(kept practice.Settings) (low, high, height float64, source string) {
	low, high = kept.SprayWindow()
	height, source = float64(wind.HandHeight), usual
	if l.LowMS != nil {
		low, source = *l.LowMS, label
	}
	if l.HighMS != nil {
		high, source = *l.HighMS, label
	}
	if l.HeightM != nil {
		height = *l.HeightM
	}
	return low, high, height, source
}

// Assessment is what the air allows.
type Assessment struct {
	Air              Air            `json:"air"`
	Wind             *wind.AtHeight `json:"wind"`
	PressureHPa      *float64       `json:"pressure_hpa"`
	DensityKgM3      *float64       `json:"density_kgm3"`
	DensityAltitudeM *float64       `json:"density_altitude_m"`
	MassLimitKg      *float64       `json:"mass_limit_kg"`
	DeltaT           *float64       `json:"delta_t"`
	HumidityPercent  *float64       `json:"humidity_percent"`
	// greatest height above the site's ground under the cloud rule
	CloudCeilingM *float64        `json:"cloud_ceiling_m"`
	Notes         []string        `json:"notes"` // how it was worked out
	Findings      []judge.Finding `json:"findings"`
}

type run struct {
	a   Air
	l   Limits
	now time.Time
	out Assessment
}

// Assess judges the air. What is not known, or is no number, is a finding.
func Assess(a Air, l Limits, now time.Time) Assessment {
	r := run{a: a, l: l, now: now, out: Assessment{Findings: []judge.Finding{}, Notes: []string{}}}
	r.sound()
	r.out.Air = r.a
	r.age()
	r.place()
	r.wind()
	r.warmth()
	r.lift()
	r.hazards()
	r.seeing()
	if l.Work == Spraying {
		r.spraying()
	}
	if l.Work == Mapping {
		r.mapping()
	}
	return r.out
}

// sound takes away what no instrument can have shown, and says so: it is then
// not known.
func (r *run) sound() {
	a := &r.a
	for _, x := range []struct {
		v      **float64
		name   string
		lo, hi float64
	}{
		{&a.WindMS, "wind", 0, 60}, {&a.GustMS, "gust", 0, 90}, {&a.FromDeg, "wind direction", 0, 360}, {&a.VariesFrom,
			"range of the wind direction", 0, 360}, {&a.VariesTo, "range of the wind direction", 0, 360}, {&a.TempC,
			"temperature", -60, 60}, {&a.DewC, "dew point", -80, 60}, {&a.QNH, "pressure", 850, 1100},
		{&a.VisibilityM, "visibility", 0, 1e6}, {&a.StationM, "elevation of the station", -500, 6000}, {&a.LowC,
			"lower temperature", -60, 60}, {&a.HighC, "upper temperature", -60, 60}, {&a.Humidity, "humidity", 0, 100},
	} {
		if p := *x.v; p != nil && !(*p >= x.lo && *p <= x.hi) {
			r.find(judge.Stop, judge.RuleWeatherAge, r.l.Law.Site(),
				"The "+x.name+" of this weather cannot be: it counts as not known.")
			*x.v = nil
		}
	}
	if (a.VariesFrom == nil) != (a.VariesTo == nil) { // half a range says only that it changes
		a.FromDeg, a.VariesFrom, a.VariesTo = nil, nil, nil
	}
	if a.CloudBaseFt != nil && (*a.CloudBaseFt < 0 || *a.CloudBaseFt > 100_000) {
		r.find(judge.Stop, judge.RuleWeatherAge, r.l.Law.Site(),
			"The cloud base of this weather cannot be: it counts as not known.")
		a.CloudBaseFt, a.CloudKnown = nil, false
	}
	if a.GustMS != nil && a.WindMS != nil && *a.GustMS < *a.WindMS {
		r.find(judge.Stop, judge.RuleWeatherAge, r.l.Law.Site(),
			"The gust of this weather is under its wind: both count as not known.")
		a.GustMS, a.WindMS = nil, nil
	}
	if a.DewC != nil && a.TempC != nil && *a.DewC > *a.TempC {
		r.find(judge.Stop, judge.RuleWeatherAge, r.l.Law.Site(),
			"The dew point of this weather is over its temperature: it counts as not known.")
		a.DewC = nil
	}
}

// limit says that the newest finding is a limit that is known to be exceeded.
// EnterElevation lifts what is not known because the elevation of the site is not.
const EnterElevation = "entering the elevation of the site, or bringing its terrain"

// forElevation says of the last finding that the site's elevation lifts it.
func (r *run) forElevation() { r.out.Findings[len(r.out.Findings)-1].Lifts = EnterElevation }

func (r *run) limit() { r.out.Findings[len(r.out.Findings)-1].Limit = true }

func (r *run) find(v judge.Verdict, rule judge.Rule, source, sentence string) {
	if v == judge.Clear {
		return
	}
	at := r.a.At
	f := judge.Finding{Rule: rule, Verdict: v, Sentence: sentence, Source: source,
		Evidence: "Weather: " + r.a.Source + ".", Lifts: "measure again, or wait"}
	if !at.IsZero() {
		f.At = &at
	}
	r.out.Findings = append(r.out.Findings, f)
}

const (
	maker     = "maker's manual"
	label     = "product label"
	usual     = "usual practice; the label wins"
	usualOnly = rules.Usual
)

// Future is how far ahead of the server's clock a reading may be dated: clocks
// differ a little.
const Future = 2 * time.Minute

func (r *run) age() {
	site := r.l.Law.Site()
	switch {
	case r.a.At.IsZero():
		r.find(judge.Stop, judge.RuleWeatherAge, site, "It is not known when this weather was.")
	case r.a.At.After(r.now.Add(Future)):
		r.find(judge.Stop, judge.RuleWeatherAge, site, "The weather is dated in the future.")
	case r.now.Sub(r.a.At) > HoldsFor:
		r.find(judge.Stop, judge.RuleWeatherAge, site, fmt.Sprintf("The weather is %.0f min old; it holds for %.0f.",
			r.now.Sub(r.a.At).Minutes(), HoldsFor.Minutes()))
	}
}

// place says when a report comes from far away, or from nobody knows where.
func (r *run) place() {
	if r.a.Source == "metar" {
		v, words := Far("the station of this report", r.a.StationKm)
		r.find(v, judge.RuleWeatherAge, r.l.Law.Site(), words)
	}
}

func (r *run) gust() *units.MetresPerSecond {
	if r.a.GustMS == nil {
		return nil
	}
	g := units.MetresPerSecond(*r.a.GustMS)
	return &g
}

func (r *run) wind() {
	if r.a.WindMS == nil {
		r.find(judge.Stop, judge.RuleWind, maker, "The wind is not known.")
		return
	}
	at, err := wind.Scale(units.MetresPerSecond(*r.a.WindMS), r.gust(), units.Metres(r.a.WindHeightM),
		units.Metres(max(r.l.FlightHeightM, wind.Least)), wind.Ground(r.a.Ground))
	if err != nil {
		r.find(judge.Stop, judge.RuleWind, maker, "The wind cannot be used: "+err.Error()+".")
		return
	}
	r.out.Wind = &at
	r.out.Notes = append(r.out.Notes, at.Notes...)
	if r.l.HeightAssumed {
		r.out.Notes = append(r.out.Notes,
			fmt.Sprintf("No route is known: the wind is judged at %.0f m, the usual height of the type.", r.l.FlightHeightM))
	}
	if r.a.Beaufort != nil {
		r.find(judge.Watch, judge.RuleWind, maker,
			fmt.Sprintf("The wind was estimated by eye: Beaufort %d, %.1f to %.1f m/s. The upper end counts; measure it.",
				*r.a.Beaufort, r.a.Least(), *r.a.WindMS))
	}
	for _, x := range wind.Hold(at, units.MetresPerSecond(r.l.WindMS), units.MetresPerSecond(r.l.GustMS),
		units.Metres(r.l.FlightHeightM)) {
		r.find(x.Verdict, judge.RuleWind, maker, x.Sentence)
	}
}

func (r *run) warmth() {
	a := r.a
	if a.TempC == nil {
		r.find(judge.Watch, judge.RuleCold, usualOnly, "The temperature is not known: feel the packs before they fly.")
		return
	}
	if *a.TempC < 5 {
		r.find(judge.Watch, judge.RuleCold, usualOnly, fmt.Sprintf("%.0f °C: keep packs warm until they fly.", *a.TempC))
	}
	if *a.TempC > 40 {
		r.find(judge.Watch, judge.RuleHeat, usualOnly,
			fmt.Sprintf("%.0f °C: packs and people get hot; keep both in the shade.", *a.TempC))
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
		r.find(judge.Watch, judge.RuleLift, usualOnly,
			"Density altitude is not known: temperature, dew point or pressure is missing.")
		return
	}
	if r.l.GroundM == nil {
		r.find(judge.Watch, judge.RuleLift, usualOnly, "Density altitude is not known: the elevation of the site is missing.")
		r.forElevation()
		return
	}
	p, err := air.StationPressure(*a.QNH, *r.l.GroundM)
	if err == nil {
		var rho float64
		if rho, err = air.Density(p, *a.TempC, *a.DewC); err == nil {
			da, mass := air.DensityAltitude(rho), air.MassLimit(r.l.MaxMassKg, rho, r.l.reference())
			r.out.PressureHPa, r.out.DensityKgM3, r.out.DensityAltitudeM = &p, &rho, &da
			if r.l.MaxMassKg > 0 {
				r.out.MassLimitKg = &mass
			}
			if mass < 0.9*r.l.MaxMassKg {
				r.find(judge.Watch, judge.RuleLift, usualOnly,
					fmt.Sprintf("Thin air, density altitude %.0f m: start with at most %.1f kg, unless the maker's table says more.",
						da, mass))
			}
			if w, werr := air.WetBulb(*a.TempC, *a.DewC, p); werr == nil {
				d := *a.TempC - w
				r.out.DeltaT = &d
			}
		}
	}
	if err != nil {
		r.find(judge.Watch, judge.RuleLift, usualOnly, "Density altitude is not known: "+err.Error()+".")
	}
}

func (l Limits) reference() float64 {
	if l.ReferenceKgM3 > 0 {
		return l.ReferenceKgM3
	}
	return air.StandardKgM3
}

// hazards are the weather nobody flies in: here, near, and expected.
func (r *run) hazards() {
	site := r.l.Law.Site()
	if len(r.a.Hazards) > 0 {
		r.find(judge.Stop, judge.RuleHazard, site, "Reported: "+strings.Join(r.a.Hazards,
			", ")+". Nobody flies in thunderstorm, fog, rain or snow.")
	}
	if !r.a.WeatherKnown {
		r.find(judge.Stop, judge.RuleHazard, site,
			"Whether there is thunderstorm, fog, rain or snow is not known: part of the weather cannot be read. Look, and enter it by hand.")
	}
	if len(r.a.Vicinity) > 0 {
		r.find(judge.Watch, judge.RuleHazard, site, "Reported near here: "+strings.Join(r.a.Vicinity,
			", ")+". Watch where it goes.")
	}
	if r.a.NoStorms {
		r.find(judge.Watch, judge.RuleHazard, site, "This station cannot tell thunderstorms (TSNO): look and listen.")
	}
	for _, t := range r.a.Trends {
		from, to := t.Window(r.a.At)
		outside := !r.l.To.IsZero() && (!r.l.From.Before(to) || !from.Before(r.l.To))
		if t.Kind == "NOSIG" || outside {
			continue
		}
		if words := r.expected(t); words != "" {
			r.find(judge.Watch, judge.RuleHazard, site, fmt.Sprintf("Expected %s to %s UTC (%s): %s.", from.Format("15:04"),
				to.Format("15:04"), t.Kind, words))
		}
	}
}

// expected is what a trend says that this flight would not start in.
func (r *run) expected(t metar.Trend) string {
	bad := len(t.Hazards) > 0 || len(t.Bad) > 0
	if t.WindMS != nil {
		gust := *t.WindMS * wind.AssumedGust
		if t.GustMS != nil {
			gust = *t.GustMS
		}
		bad = bad || *t.WindMS > 0.8*r.l.WindMS || gust > 0.8*r.l.GustMS
	}
	if t.VisibilityM != nil {
		bad = bad || *t.VisibilityM < max(r.l.Law.VisibilityM, 5000)
	}
	if t.BaseFt != nil {
		base, known := r.overGround(*t.BaseFt)
		bad = bad || !known || base-r.l.Law.CloudBelowM < r.l.FlightHeightM+CloudRounding
	}
	if !bad {
		return ""
	}
	return t.Words()
}

// overGround is the height over the site of a reported cloud base in feet, m, and
// whether it is known. Who read it at the site saw it from its ground.
func (r *run) overGround(baseFt int) (m float64, known bool) {
	m = float64(baseFt) * units.MetresPerFoot
	switch {
	case r.a.StationM == nil && r.a.Source == "hand":
		return m, true
	case r.a.StationM == nil || r.l.GroundM == nil:
		return 0, false
	}
	return m + *r.a.StationM - *r.l.GroundM, true
}

// CloudRounding is the error of a reported base, m: bases are rounded to 100 ft.
const CloudRounding = 15.0

func (r *run) seeing() {
	l := r.l.Law
	seen, cloud := l.SeenCite, l.CloudCite
	if l.VisibilityM == 0 {
		seen = usualOnly
	}
	if l.CloudBelowM == 0 {
		cloud = usualOnly
	}
	switch {
	case r.a.VisibilityM == nil && l.VisibilityM > 0:
		r.find(judge.Stop, judge.RuleVisibility, seen, "The visibility is not known; at least "+l.Visibility+" are needed.")
	case r.a.VisibilityM == nil:
		r.find(judge.Stop, judge.RuleVisibility, seen,
			"The visibility is not known: nobody can say how far the aircraft is seen.")
	case *r.a.VisibilityM < l.VisibilityM-1e-6:
		r.find(judge.Stop, judge.RuleVisibility, seen, fmt.Sprintf("Visibility %.1f km is under %s.", *r.a.VisibilityM/1000,
			l.Visibility))
		r.limit()
	case *r.a.VisibilityM < LeastSeenM:
		r.find(judge.Stop, judge.RuleVisibility, usualOnly,
			fmt.Sprintf("Visibility %.1f km: the aircraft is lost from sight. Wait.", *r.a.VisibilityM/1000))
	}
	if !r.a.CloudKnown {
		r.find(judge.Stop, judge.RuleClouds, cloud, "The cloud is not known; the aircraft stays "+cloudWords(l)+".")
		return
	}
	if r.a.CloudBaseFt == nil {
		return
	}
	base, known := r.overGround(*r.a.CloudBaseFt)
	switch {
	case !known && r.a.StationM == nil:
		r.find(judge.Stop, judge.RuleClouds, cloud, "The elevation that the cloud base counts from is not known.")
	case !known:
		r.find(judge.Stop, judge.RuleClouds, cloud,
			"The elevation of the site is not known, and so how high the cloud is over it.")
		r.forElevation()
	default:
		c := base - l.CloudBelowM
		r.out.CloudCeilingM = &c
		if c < r.l.FlightHeightM {
			r.find(judge.Stop, judge.RuleClouds, cloud,
				fmt.Sprintf("Under the lowest cloud at most %.0f m above the ground are left (± %.0f m: bases are rounded); the flight reaches %.0f.",
					math.Max(c, 0), CloudRounding, r.l.FlightHeightM))
			r.limit()
		} else if c < r.l.FlightHeightM+CloudRounding {
			r.find(judge.Watch, judge.RuleClouds, cloud,
				fmt.Sprintf("Under the lowest cloud %.0f m above the ground are left, ± %.0f m: bases are rounded.", c,
					CloudRounding))
		}
	}
}

// LeastSeenM is the visibility under which nobody flies by sight, whatever the
// law (usual practice).
const LeastSeenM = 1500.0

func cloudWords(l rules.Law) string {
	if l.CloudWords == "" {
		return "clear of cloud"
	}
	return l.CloudWords
}

// spraying holds the wind at the height that the label names against its
// limits, and looks for what makes drops hang or dry.
func (r *run) spraying() {
	low, high, height, source := r.l.Label.window(r.l.Kept)
	if r.a.WindMS != nil {
		least, err := wind.Scale(units.MetresPerSecond(r.a.Least()), nil, units.Metres(r.a.WindHeightM), units.Metres(height),
			wind.Ground(r.a.Ground))
		most, err2 := wind.Scale(units.MetresPerSecond(*r.a.WindMS), r.gust(), units.Metres(r.a.WindHeightM),
			units.Metres(height), wind.Ground(r.a.Ground))
		switch {
		case err != nil || err2 != nil || !(low >= 0 && high > low):
			r.find(judge.Stop, judge.RuleSprayWind, source,
				"The wind at the height of spraying cannot be worked out, or the limits of the label contradict each other.")
		default:
			r.sprayWind(sprayWind{least: float64(least.Steady), most: most, low: low, high: high, heightM: height}, source)
		}
		if r.a.FromDeg == nil && *r.a.WindMS > 0 {
			r.find(judge.Watch, judge.RuleSprayWind, usual,
				"Where the wind comes from is not known or changes: nobody can say what lies downwind.")
		}
	}
	if r.out.DeltaT == nil {
		r.find(judge.Stop, judge.RuleDeltaT, usual,
			"Delta T is not known: temperature, dew point, pressure or the elevation of the site is missing.")
		if r.l.GroundM == nil {
			r.forElevation()
		}
	} else if v, words := air.JudgeDeltaT(*r.out.DeltaT); v != judge.Clear && !r.l.Label.rules(*r.out.DeltaT) {
		r.find(v, judge.RuleDeltaT, usual, words)
	}
	calm := r.a.WindMS
	if calm != nil {
		low := r.a.Least()
		calm = &low
	}
	v, words := air.Inversion{HoursAfterRise: r.l.HoursAfterRise, HoursToSet: r.l.HoursToSet, WindMS: calm,
		ClearSky: r.a.ClearSky, LowC: r.a.LowC, HighC: r.a.HighC}.Judge()
	r.find(v, judge.RuleInversion, usual, words)
}

// sprayWind is the wind at the height of spraying, m, against the limits of the label, m/s.
type sprayWind struct {
	least     float64       // the steady wind at its least
	most      wind.AtHeight // at its most
	low, high float64
	heightM   float64
}

func (r *run) sprayWind(w sprayWind, source string) {
	steady, gust := float64(w.most.Steady), float64(w.most.Gust)
	n := func(v float64) int64 { k, _ := units.Steps(v, 0.1); return k }
	word := "Gusts"
	if w.most.GustAssumed {
		word = "Gusts (assumed)"
	}
	if n(w.least) < n(w.low) {
		r.find(judge.Stop, judge.RuleSprayWind, source,
			fmt.Sprintf("Wind %.1f m/s at %.0f m is under %.1f: dead calm hides an inversion.", w.least, w.heightM, w.low))
	}
	switch {
	case n(steady) > n(w.high):
		r.find(judge.Stop, judge.RuleSprayWind, source, fmt.Sprintf("Wind %.1f m/s at %.0f m is over %.1f: spray drifts.",
			steady, w.heightM, w.high))
	case n(gust) > n(w.high):
		r.find(judge.Stop, judge.RuleSprayWind, source, fmt.Sprintf("%s %.1f m/s at %.0f m are over %.1f: spray drifts.",
			word, gust, w.heightM, w.high))
	}
}

func (r *run) mapping() {
	switch {
	case r.l.SunElevation == nil:
		r.find(judge.Watch, judge.RuleLight, usualOnly, "Where the sun stands is not known.")
	case *r.l.SunElevation < LowSun:
		r.find(judge.Watch, judge.RuleLight, usualOnly, fmt.Sprintf("The sun stands only %.0f° high: long shadows.",
			*r.l.SunElevation))
	}
	if r.l.Light == nil {
		r.find(judge.Watch, judge.RuleLight, usualOnly, "Whether the light is even is not known. Look up.")
	} else if v, words := r.l.Light.Light(); v != judge.Clear {
		r.find(v, judge.RuleLight, usualOnly, words)
	}
}
