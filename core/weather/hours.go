package weather

import (
	"fmt"
	"strings"
	"time"

	"mainstay/core/judge"
	"mainstay/core/metar"
	"mainstay/core/sun"
)

// Hour is one hour of a forecast; nil is missing, never zero.
type Hour struct {
	At          time.Time `json:"at"`
	WindMS      *float64  `json:"wind_ms"` // at 10 m
	GustMS      *float64  `json:"gust_ms"`
	FromDeg     *float64  `json:"from_deg"`
	TempC       *float64  `json:"temp_c"`
	DewC        *float64  `json:"dew_c"`
	QNH         *float64  `json:"qnh_hpa"`
	VisibilityM *float64  `json:"visibility_m"`
	Cover       *string   `json:"cover"`         // CLR, FEW, SCT, BKN, OVC
	CloudBaseFt *int      `json:"cloud_base_ft"` // above the station; missing is none only under CLR
	Rain        *bool     `json:"rain"`
}

var covers = map[string]metar.Amount{"CLR": metar.Clear, "FEW": metar.Few, "SCT": metar.Scattered, "BKN": metar.Broken,
	"OVC": metar.Overcast}

// Air is the hour as air: what the forecast leaves out is not known.
func (h Hour) Air(stationM *float64, ground string) Air {
	a := Air{At: h.At, Source: "forecast", WindMS: h.WindMS, GustMS: h.GustMS, FromDeg: h.FromDeg, WindHeightM: 10,
		Ground: ground, TempC: h.TempC, DewC: h.DewC, QNH: h.QNH, VisibilityM: h.VisibilityM,
		CloudBaseFt: h.CloudBaseFt, StationM: stationM, Hazards: []string{}, Vicinity: []string{},
		WeatherKnown: h.Rain != nil}
	if h.Rain != nil && *h.Rain {
		a.Hazards = append(a.Hazards, "rain")
	}
	if h.Cover != nil {
		amount, known := covers[*h.Cover]
		a.CloudKnown = known && (h.CloudBaseFt != nil || amount == metar.Clear)
		if known {
			clear := amount == metar.Clear || amount == metar.Few
			a.ClearSky = &clear
		}
	}
	return a
}

// light is the cover of the hour as a report would give it.
func (h Hour) light() *metar.Report {
	if h.Cover == nil {
		return nil
	}
	text := "XXXX " + *h.Cover
	if h.CloudBaseFt != nil && *h.Cover != "CLR" {
		text += fmt.Sprintf("%03d", *h.CloudBaseFt/100)
	}
	r, err := metar.Decode(text)
	if err != nil {
		return nil
	}
	return &r
}

// HourOf is an hour as it is judged.
type HourOf struct {
	At       time.Time
	Air      Air
	Verdict  judge.Verdict
	Why      string // the findings as bad as the verdict
	Light    sun.Light
	WindAtMS *float64 // at flight height; nil: not known
	GustAtMS *float64
	DeltaT   *float64 // °C; nil: not known
}

// Station is where a forecast holds: its elevation, nil where nobody says, and the ground
// that its wind blows over.
type Station struct {
	ElevationM *float64
	Ground     string
}

// JudgeHour judges an hour of a forecast. light is what the law makes of it, and
// says what that asks for by twilight and by night; assumed that no aircraft is
// chosen, so that usual limits stand in.
func JudgeHour(h Hour, at Station, l Limits, light sun.Light, assumed bool) HourOf {
	a := h.Air(at.ElevationM, at.Ground)
	l.Light = h.light()
	x := Assess(a, l, h.At)
	out := HourOf{At: h.At, Air: x.Air, DeltaT: x.DeltaT, Light: light, Verdict: judge.Worst(x.Findings)}
	for _, f := range x.Findings {
		if f.Verdict == out.Verdict {
			out.Why = strings.TrimSpace(out.Why + " " + f.Sentence)
		}
	}
	raise := func(why string) {
		if out.Verdict < judge.Watch {
			out.Verdict, out.Why = judge.Watch, why
		}
	}
	switch light {
	case sun.Twilight:
		raise("Twilight: " + l.Law.TwilightSays + ".")
	case sun.Night:
		raise("Night: " + l.Law.NightSays + ".")
	}
	if assumed {
		raise("No aircraft is chosen: held against usual limits.")
	}
	if x.Wind != nil {
		steady, gust := float64(x.Wind.Steady), float64(x.Wind.Gust)
		out.WindAtMS, out.GustAtMS = &steady, &gust
	}
	return out
}

// How far a station or the place of a forecast may lie away, km, and how old a
// forecast may be, before the crew is told (usual practice).
const (
	NearKm         = 30.0
	ForecastLastsH = 12.0
)

// Far says that weather was taken elsewhere; distance in km, nil for not known.
func Far(what string, km *float64) (judge.Verdict, string) {
	switch {
	case km == nil || !(*km >= 0):
		return judge.Watch, "How far away " + what + " is, is not known: look whether it fits what you see."
	case *km > NearKm:
		return judge.Watch, fmt.Sprintf("%s is %.0f km away: look whether it fits what you see.", judge.Capital(what), *km)
	}
	return judge.Clear, ""
}

// JudgeForecast judges the age and the place of a forecast.
func JudgeForecast(made *time.Time, km *float64, now time.Time) []string {
	var out []string
	switch {
	case made == nil || made.IsZero():
		out = append(out, "It is not known when this forecast was made.")
	case made.After(now.Add(Future)):
		out = append(out, "This forecast is dated in the future: its clock or yours is wrong.")
	case now.Sub(*made).Hours() > ForecastLastsH:
		out = append(out, fmt.Sprintf("This forecast is %.0f h old.", now.Sub(*made).Hours()))
	}
	if v, words := Far("the place it was made for", km); v != judge.Clear {
		out = append(out, words)
	}
	return out
}
