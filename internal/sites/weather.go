package sites

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/core/air"
	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/metar"
	"mainstay/core/sun"
	"mainstay/core/weather"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
)

// NewWeather is weather taken at a site: a report as text, or read by hand.
type NewWeather struct {
	ID       uuid.UUID
	Report   string // METAR or SPECI
	StationM *float64
	Ground   string
	Hand     *weather.Air
}

// AddWeather puts weather on the site's file.
func (s *Service) AddWeather(ctx context.Context, id uuid.UUID, n NewWeather) error {
	now := s.Clock.Now()
	var a weather.Air
	switch {
	case n.Hand != nil:
		a = *n.Hand
		a.Source, a.Hazards = "hand", append([]string{}, a.Hazards...)
		if err := checkHand(&a, now); err != nil {
			return err
		}
		if a.StationM == nil { // the cloud was seen from the site
			f, err := s.Get(ctx, id, false)
			if err != nil {
				return err
			}
			a.StationM = &f.Site.ElevationM
		}
	default:
		r, err := metar.Decode(n.Report)
		if err != nil {
			return fault.Bad("report", "This is no weather report: it begins with METAR or the four letters of a station. Nothing was saved.")
		}
		if r.Nil {
			return fault.Bad("report", "The station sent no report (NIL). Nothing was saved.")
		}
		a = weather.FromReport(r, now, n.Ground)
		a.StationM = n.StationM
	}
	return s.storeWeather(ctx, id, n.ID, a)
}

// checkHand refuses readings that contradict each other.
func checkHand(a *weather.Air, now time.Time) error {
	switch {
	case a.At.After(now.Add(5 * time.Minute)):
		return fault.Bad("at", "The time lies in the future.")
	case a.Beaufort != nil && a.WindMS != nil:
		return fault.Bad("beaufort", "Enter the wind as it was measured, or the estimate by eye, not both.")
	case a.GustMS != nil && (a.WindMS == nil || *a.GustMS < *a.WindMS):
		return fault.Bad("gust_ms", "Gusts are at least as strong as the steady wind, which must be entered too.")
	case a.TempC != nil && a.DewC != nil && *a.DewC > *a.TempC:
		return fault.Bad("dew_c", "The dew point is not above the temperature.")
	case a.Humidity != nil && (a.DewC != nil || a.TempC == nil):
		return fault.Bad("humidity_percent", "Enter the humidity with the temperature, and without a dew point.")
	}
	if a.Humidity != nil {
		dew, err := air.DewPoint(*a.TempC, *a.Humidity)
		if err != nil {
			return fault.Bad("humidity_percent", "The dew point does not follow from this temperature and humidity.")
		}
		a.DewC = &dew
	}
	if a.Beaufort != nil {
		return a.ByEye()
	}
	return nil
}

func (s *Service) storeWeather(ctx context.Context, site, id uuid.UUID, a weather.Air) error {
	content, err := json.Marshal(a)
	if err != nil {
		return err
	}
	at := a.At
	if at.IsZero() {
		at = s.Clock.Now()
	}
	res := s.DB.WithContext(ctx).Exec(`insert into site_weather (id, site_id, at, taken_at, by_name, content) select ?, id, ?, ?, ?, ? from sites where id = ? on conflict (id) do nothing`,
		id, at, s.Clock.Now(), people.From(ctx).Name, string(content), site)
	if res.Error == nil && res.RowsAffected == 0 {
		var n int64
		if err := s.DB.WithContext(ctx).Raw("select count(*) from site_weather where id = ?", id).Scan(&n).Error; err != nil || n > 0 {
			return err
		}
		return fault.Missing("site")
	}
	return res.Error
}

// FetchWeather asks the weather service for the report that is now.
func (s *Service) FetchWeather(ctx context.Context, site, id uuid.UUID, ground string) error {
	if s.Weather == nil {
		return fault.Clash("no-weather-service", "No weather service is connected. Paste a report or read the air by hand.")
	}
	b, err := s.Weather.Get(ctx, "/metar")
	if err != nil {
		return fault.Clash("weather-service", "The weather service does not answer. Paste a report or read the air by hand; nothing was saved.")
	}
	fc, err := askForecast(ctx, s.Weather)
	if err != nil {
		return fault.Clash("weather-service", "The weather service answers what cannot be read. Paste a report or read the air by hand; nothing was saved.")
	}
	r, err := metar.Decode(string(b))
	if err != nil {
		return fault.Clash("weather-service", "The weather service answers what is no report. Paste one or read the air by hand; nothing was saved.")
	}
	a := weather.FromReport(r, s.Clock.Now(), ground)
	a.StationM = &fc.StationM
	return s.storeWeather(ctx, site, id, a)
}

// Sky is the weather of a site as judged for an aircraft and a kind of work.
type Sky struct {
	Latest   *weather.Assessment
	By       string
	Report   *metar.Report // as decoded; nil: read by hand
	Sun      sun.Day
	Hours    []Hour  // forecast, judged; empty without a weather service
	NoHours  string  // why there are none
	HeightM  float64 // above ground, at which the wind is judged
	Findings []judge.Finding
}

// Hour is one hour of the day as it is forecast.
type Hour struct {
	At       time.Time
	Air      weather.Air
	Verdict  judge.Verdict
	Why      string // the findings as bad as the verdict
	Light    sun.Light
	WindAtMS float64 // at flight height
	GustAtMS float64
}

// AskSky is what the weather is judged for.
type AskSky struct {
	Aircraft *uuid.UUID
	Work     weather.Work
	Ground   string
}

// SkyOver judges the latest weather of a site and the forecast of the next day
// and a half.
func (s *Service) SkyOver(ctx context.Context, id uuid.UUID, ask AskSky) (Sky, error) {
	f, err := s.Get(ctx, id, false)
	if err != nil {
		return Sky{}, err
	}
	t, err := s.typeOf(ctx, ask.Aircraft)
	if err != nil {
		return Sky{}, err
	}
	crew, _, err := s.People.Crew(ctx)
	if err != nil {
		return Sky{}, err
	}
	now := s.Clock.Now()
	days, err := sunDays(now, crew.Location(), f.Site)
	if err != nil {
		return Sky{}, fault.Clash("site-not-ready", "Where the sun stands over this site is not known: %v.", err)
	}
	out := Sky{HeightM: float64(t.Limits.FlightHeightM), Sun: days[1], Findings: []judge.Finding{}}
	if err := s.over(ctx, f.Site, t, ask.Work, nil, days, &out); err != nil {
		return out, err
	}
	out.Findings = append(out.Findings, lightFindings(now, days)...)
	if ask.Aircraft == nil { // usual limits are nobody's limits
		out.Findings = append(out.Findings, judge.Finding{Rule: "maker-limits", Verdict: judge.Watch, Sentence: fmt.Sprintf("No aircraft is chosen: the wind is held against usual limits of %.0f m/s, gusts %.0f.", float64(t.Limits.WindMS), float64(t.Limits.GustMS)),
			Source: "maker's manual", Evidence: "Choice of aircraft.", Lifts: "choosing the aircraft"})
	}
	out.Hours, out.NoHours = s.hours(ctx, f.Site, t, ask, days)
	return out, nil
}

// over judges the latest weather of a site. A wind that was measured since, on
// the spot, takes the place of the one in it.
func (s *Service) over(ctx context.Context, at Site, t airframe.Type, work weather.Work, measured *gate.Wind, days []sun.Day, out *Sky) error {
	latest, by, err := s.latest(ctx, at.ID)
	if err != nil {
		return err
	}
	if latest == nil {
		out.Findings = append(out.Findings, judge.Finding{Rule: "weather-age", Verdict: judge.Stop, Sentence: "No weather is on file for this site.", Source: "14 CFR 107.49(a)", Evidence: "None.", Lifts: "read it"})
		return nil
	}
	if measured != nil && measured.At.After(latest.At) {
		steady := float64(measured.SteadyMS)
		latest.Beaufort = nil
		latest.WindMS, latest.GustMS, latest.WindHeightM, latest.Ground = &steady, nil, float64(measured.MeasuredM), string(measured.Ground)
		if measured.GustMS != nil {
			gust := float64(*measured.GustMS)
			latest.GustMS = &gust
		}
	}
	l := limits(t, at, work, latest.At, days)
	if r, err := metar.Decode(latest.Raw); err == nil {
		l.Light, out.Report = &r, &r
	}
	x := weather.Assess(*latest, l, s.Clock.Now())
	out.Latest, out.By = &x, by
	out.Findings = append(out.Findings, x.Findings...)
	return nil
}

func (s *Service) latest(ctx context.Context, id uuid.UUID) (*weather.Air, string, error) {
	var rows []struct {
		Content string
		ByName  string
	}
	if err := s.DB.WithContext(ctx).Raw("select content, by_name from site_weather where site_id = ? order by taken_at desc, id desc limit 1", id).Scan(&rows).Error; err != nil || len(rows) == 0 {
		return nil, "", err
	}
	var a weather.Air
	err := json.Unmarshal([]byte(rows[0].Content), &a)
	return &a, rows[0].ByName, err
}

// sunDays are the days before, of and after now.
func sunDays(now time.Time, zone *time.Location, at Site) ([]sun.Day, error) {
	var out []sun.Day
	for i := -1; i <= 2; i++ {
		d, err := sun.On(now.In(zone).AddDate(0, 0, i), zone, at.Lat, at.Lon)
		if err != nil {
			return nil, err
		}
		out = append(out, d)
	}
	return out, nil
}

func limits(t airframe.Type, at Site, work weather.Work, when time.Time, days []sun.Day) weather.Limits {
	l := weather.Limits{WindMS: float64(t.Limits.WindMS), GustMS: float64(t.Limits.GustMS), FlightHeightM: float64(t.Limits.FlightHeightM), MaxMassKg: float64(t.Limits.TakeoffMassKg), TankWork: t.TankL > 0, GroundM: at.ElevationM, Work: work}
	if el, _, err := sun.Position(when, at.Lat, at.Lon); err == nil {
		l.SunElevation = &el
	}
	for _, d := range days {
		if d.Rise == nil || d.Set == nil || when.Sub(d.Noon).Abs() > 12*time.Hour {
			continue
		}
		up, down := when.Sub(*d.Rise).Hours(), d.Set.Sub(when).Hours()
		l.HoursAfterRise, l.HoursToSet = &up, &down
	}
	return l
}

func lightFindings(now time.Time, days []sun.Day) []judge.Finding {
	find := func(v judge.Verdict, words string) []judge.Finding {
		return []judge.Finding{{Rule: "night", Verdict: v, Sentence: words, Source: "14 CFR 107.29", Evidence: "Position of the sun.", At: &now, Lifts: "daylight"}}
	}
	switch sun.LightAt(now, days) {
	case sun.Twilight:
		return find(judge.Watch, "It is civil twilight: the anti-collision light is lit and seen for 3 statute miles.")
	case sun.Night:
		return find(judge.Watch, "It is night: the anti-collision light is lit and seen for 3 statute miles, and the pilot is trained for night.")
	}
	return nil
}

func (s *Service) hours(ctx context.Context, at Site, t airframe.Type, ask AskSky, days []sun.Day) ([]Hour, string) {
	if s.Weather == nil {
		return nil, "No weather service is connected."
	}
	fc, err := askForecast(ctx, s.Weather)
	if err != nil {
		return nil, "The weather service does not answer, or answers what cannot be read."
	}
	var out []Hour
	for _, h := range fc.Hours {
		clear := h.Cover == "CLR" || h.Cover == "FEW"
		a := weather.Air{At: h.At, Source: "forecast", WindMS: &h.WindMS, GustMS: &h.GustMS, FromDeg: &h.FromDeg, WindHeightM: 10, Ground: ask.Ground, TempC: &h.TempC, DewC: &h.DewC, QNH: &h.QNH, VisibilityM: &h.VisibilityM,
			CloudBaseFt: h.CloudBaseFt, CloudKnown: true, ClearSky: &clear, StationM: &fc.StationM, Hazards: []string{}}
		if h.Rain {
			a.Hazards = append(a.Hazards, "rain")
		}
		l := limits(t, at, ask.Work, h.At, days)
		// The cover of the hour as a report would give it, for the light.
		sky := h.Cover
		if h.CloudBaseFt != nil {
			sky += fmt.Sprintf("%03d", *h.CloudBaseFt/100)
		}
		if r, err := metar.Decode("XXXX " + sky); err == nil {
			l.Light = &r
		}
		x := weather.Assess(a, l, h.At)
		one := Hour{At: h.At, Air: a, Light: sun.LightAt(h.At, days), Verdict: judge.Worst(x.Findings)}
		for _, f := range x.Findings {
			if f.Verdict == one.Verdict {
				one.Why = strings.TrimSpace(one.Why + " " + f.Sentence)
			}
		}
		if one.Light != sun.Daylight && one.Verdict < judge.Watch {
			one.Verdict, one.Why = judge.Watch, judge.Capital(string(one.Light))+": lights, and a pilot trained for night."
		}
		if ask.Aircraft == nil && one.Verdict == judge.Clear {
			one.Verdict, one.Why = judge.Watch, "No aircraft is chosen: held against usual limits."
		}
		if x.Wind != nil {
			one.WindAtMS, one.GustAtMS = float64(x.Wind.Steady), float64(x.Wind.Gust)
		}
		out = append(out, one)
	}
	return out, ""
}
