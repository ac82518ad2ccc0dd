package sites

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/air"
	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/metar"
	"mainstay/core/rules"
	"mainstay/core/sun"
	"mainstay/core/weather"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// NewWeather is weather taken at a site: a report as text, or read by hand.
type NewWeather struct {
	ID        uuid.UUID
	Report    string // METAR or SPECI
	StationM  *float64
	StationKm *float64
	Ground    string
	Hand      *weather.Air
}

// AddWeather puts weather on the site's file.
func (s *Service) AddWeather(ctx context.Context, id uuid.UUID, n NewWeather) error {
	now := s.Clock.Now()
	var a weather.Air
	switch {
	case n.Hand != nil:
		a = *n.Hand
		a.Source, a.Hazards, a.Vicinity, a.Trends = "hand", append([]string{}, a.Hazards...), []string{}, []metar.Trend{}
		a.NoStorms, a.StationKm = false, nil
		if err := checkHand(&a, now); err != nil {
			return err
		}
	default:
		return s.addReports(ctx, id, n)
	}
	return s.storeWeather(ctx, id, n.ID, a)
}

// addReports puts every report of a text on file: two are two.
func (s *Service) addReports(ctx context.Context, id uuid.UUID, n NewWeather) error {
	now := s.Clock.Now()
	rs, err := metar.DecodeAll(n.Report)
	if err != nil {
		return fault.Bad("report",
			"This is no weather report: it begins with METAR or the four letters of a station. Nothing was saved.")
	}
	airs := make([]weather.Air, len(rs))
	for i, r := range rs {
		if r.Nil {
			return fault.Bad("report", "The station %s sent no report (NIL). Nothing was saved.", r.Station)
		}
		airs[i] = weather.FromReport(r, now, n.Ground)
		airs[i].StationM, airs[i].StationKm = n.StationM, n.StationKm
		if airs[i].At.After(now.Add(weather.Future)) {
			return fault.Bad("report",
				"The report of %s is dated in the future. Nothing was saved; check the report and the clock.", r.Station)
		}
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, _ *gorm.DB) error {
		for i, a := range airs {
			one := n.ID
			if i > 0 {
				one = uuid.NewSHA1(n.ID, []byte{byte(i)})
			}
			if err := s.storeWeather(ctx, id, one, a); err != nil {
				return err
			}
		}
		return nil
	})
}

// checkHand refuses readings that contradict each other.
func checkHand(a *weather.Air, now time.Time) error {
	switch {
	case a.At.After(now.Add(weather.Future)):
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
		if err := s.DB.WithContext(ctx).Raw("select count(*) from site_weather where id = ?",
			id).Scan(&n).Error; err != nil || n > 0 {
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
		return fault.Clash("weather-service",
			"The weather service does not answer. Paste a report or read the air by hand; nothing was saved.")
	}
	fc, err := askForecast(ctx, s.Weather)
	if err != nil {
		return fault.Clash("weather-service",
			"The weather service answers what cannot be read. Paste a report or read the air by hand; nothing was saved.")
	}
	r, err := metar.Decode(string(b))
	if err != nil {
		return fault.Clash("weather-service",
			"The weather service answers what is no report. Paste one or read the air by hand; nothing was saved.")
	}
	at, err := s.head(ctx, site)
	if err != nil {
		return err
	}
	a := weather.FromReport(r, s.Clock.Now(), ground)
	a.StationM, a.StationKm = fc.StationM, fc.km(at)
	if a.At.After(s.Clock.Now().Add(weather.Future)) {
		return fault.Clash("weather-service",
			"The weather service sent a report dated in the future. Read the air by hand; nothing was saved.")
	}
	return s.storeWeather(ctx, site, id, a)
}

// Sky is the weather of a site as judged for an aircraft and a kind of work.
type Sky struct {
	Latest   *weather.Assessment
	By       string
	LateAt   *time.Time    // of what was entered last, when it is older than what counts
	Report   *metar.Report // as decoded; nil: read by hand
	Replaced bool          // its wind gave way to one measured since, on the spot
	Sun      sun.Day
	Hours    []weather.HourOf // forecast, judged; empty without a weather service
	NoHours  string           // why there are none
	About    []string         // what is to be known about age and place of the forecast
	HeightM  float64          // above ground, at which the wind is judged
	Findings []judge.Finding
}

// AskSky is what the weather is judged for.
type AskSky struct {
	Aircraft *uuid.UUID
	Work     weather.Work
	Ground   string
	Label    weather.Label // of the product; its limits of wind win
}

// above is what the air over a site is held against.
type above struct {
	site     Site
	law      rules.Law
	t        airframe.Type
	work     weather.Work
	highM    *float64   // highest place above ground that the flight reaches; nil: no way to judge
	measured *gate.Wind // since, on the spot
	from, to time.Time  // window of the job
	label    weather.Label
	days     []sun.Day
}

// SkyOver judges the latest weather of a site and the forecast of the next day
// and a half. The height that counts is the highest of the usual flight there.
func (s *Service) SkyOver(ctx context.Context, id uuid.UUID, ask AskSky) (Sky, error) {
	t, err := s.typeOf(ctx, ask.Aircraft)
	if err != nil {
		return Sky{}, err
	}
	c, err := s.charted(ctx, id, t, intent.Flight{Work: string(ask.Work)})
	if err != nil {
		return Sky{}, err
	}
	crew, _, err := s.People.Crew(ctx)
	if err != nil {
		return Sky{}, err
	}
	now := s.Clock.Now()
	days, err := sunDays(now, crew.Location(), c.file.Site)
	if err != nil {
		return Sky{}, fault.Clash("site-not-ready", "Where the sun stands over this site is not known: %v.", err)
	}
	over := above{site: c.file.Site, law: c.law, t: t, work: ask.Work, label: ask.Label, days: days}
	if c.noWay == nil {
		over.highM = &c.way.HighM
	}
	out := Sky{Sun: days[1], Findings: []judge.Finding{}}
	if err := s.over(ctx, over, &out); err != nil {
		return out, err
	}
	out.Findings = append(out.Findings, lightFindings(now, days, c.law)...)
	if ask.Aircraft == nil { // usual limits are nobody's limits
		out.Findings = append(out.Findings, judge.Finding{Rule: judge.RuleMakerLimits, Verdict: judge.Watch,
			Sentence: fmt.Sprintf("No aircraft is chosen: the wind is held against usual limits of %.0f m/s, gusts %.0f.",
				float64(t.Limits.WindMS), float64(t.Limits.GustMS)),
			Source: "maker's manual", Evidence: "Choice of aircraft.", Lifts: "choosing the aircraft"})
	}
	s.hours(ctx, over, ask, &out)
	return out, nil
}

// over judges the latest weather of a site. A wind that was measured since, on
// the spot, takes the place of the one in it.
func (s *Service) over(ctx context.Context, o above, out *Sky) error {
	latest, by, late, err := s.latest(ctx, o.site.ID)
	if err != nil {
		return err
	}
	out.HeightM = o.height()
	if latest == nil {
		out.Findings = append(out.Findings, judge.Finding{Rule: judge.RuleWeatherAge, Verdict: judge.Stop,
			Sentence: "No weather is on file for this site.", Source: o.law.Site(), Evidence: "None.", Lifts: "read it"})
		return nil
	}
	out.Replaced = o.measured != nil && o.measured.At.After(latest.At)
	if out.Replaced {
		steady := float64(o.measured.SteadyMS)
		latest.Beaufort = nil
		latest.WindMS, latest.GustMS, latest.WindHeightM, latest.Ground = &steady, nil, float64(o.measured.MeasuredM),
			string(o.measured.Ground)
		if o.measured.GustMS != nil {
			gust := float64(*o.measured.GustMS)
			latest.GustMS = &gust
		}
	}
	l := o.limits(latest.At)
	if r, err := metar.Decode(latest.Raw); err == nil {
		l.Light, out.Report = &r, &r
	}
	x := weather.Assess(*latest, l, s.Clock.Now())
	out.Latest, out.By, out.LateAt = &x, by, late
	out.Findings = append(out.Findings, x.Findings...)
	return nil
}

// latest is the newest air of a site and who entered it: not what was entered
// last, for an old report brought in later is not fresher. Where that was older,
// late is its time.
func (s *Service) latest(ctx context.Context, id uuid.UUID) (newest *weather.Air, by string, late *time.Time,
	err error) {
	var rows []struct {
		Content string
		ByName  string
		At      time.Time
		LastAt  time.Time
	}
	err = s.DB.WithContext(ctx).Raw(`select content, by_name, at, (select at from site_weather where site_id = w.site_id order by taken_at desc, at desc limit 1) last_at
		from site_weather w where site_id = ? order by at desc, taken_at desc, id desc limit 1`, id).Scan(&rows).Error
	if err != nil || len(rows) == 0 {
		return nil, "", nil, err
	}
	r := rows[0]
	if r.LastAt.Before(r.At) {
		at := r.LastAt.UTC()
		late = &at
	}
	var a weather.Air
	err = json.Unmarshal([]byte(r.Content), &a)
	return &a, r.ByName, late, err
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

// height is the highest place above ground that the flight reaches, or else the
// usual height of the type.
func (o above) height() float64 {
	if o.highM != nil {
		return *o.highM
	}
	return float64(o.t.Limits.FlightHeightM)
}

func (o above) limits(when time.Time) weather.Limits {
	t := o.t.Limits
	l := weather.Limits{WindMS: float64(t.WindMS), GustMS: float64(t.GustMS), FlightHeightM: o.height(),
		HeightAssumed: o.highM == nil, MaxMassKg: float64(t.TakeoffMassKg), ReferenceKgM3: t.ReferenceKgM3,
		TankWork: o.t.TankL > 0, GroundM: o.site.ElevationM, Work: o.work, Law: o.law, From: o.from, To: o.to, Label: o.label,
		Kept: o.t.Kept()}
	if el, _, err := sun.Position(when, o.site.Lat, o.site.Lon); err == nil {
		l.SunElevation = &el
	}
	for _, d := range o.days {
		if d.Rise == nil || d.Set == nil || when.Sub(d.Noon).Abs() > 12*time.Hour {
			continue
		}
		up, down := when.Sub(*d.Rise).Hours(), d.Set.Sub(when).Hours()
		l.HoursAfterRise, l.HoursToSet = &up, &down
	}
	return l
}

func lightFindings(now time.Time, days []sun.Day, law rules.Law) []judge.Finding {
	find := func(words string) []judge.Finding {
		return []judge.Finding{{Rule: judge.RuleNight, Verdict: judge.Watch, Sentence: words, Source: law.NightCite,
			Evidence: "Position of the sun.", At: &now, Lifts: "daylight"}}
	}
	switch sun.LightAt(now, days, law.TwilightLast) {
	case sun.Twilight:
		return find("It is civil twilight: " + law.TwilightSays + ".")
	case sun.Night:
		return find("It is night: " + law.NightSays + ".")
	}
	return nil
}

// hours judges the forecast, with what is to be known about its age and place.
func (s *Service) hours(ctx context.Context, o above, ask AskSky, out *Sky) {
	if s.Weather == nil {
		out.NoHours = "No weather service is connected."
		return
	}
	fc, err := askForecast(ctx, s.Weather)
	if err != nil {
		out.NoHours = "The weather service does not answer, or answers what cannot be read."
		return
	}
	out.About = weather.JudgeForecast(fc.MadeAt, fc.km(o.site), s.Clock.Now())
	for _, h := range fc.Hours {
		out.Hours = append(out.Hours, weather.JudgeHour(h, weather.Station{ElevationM: fc.StationM, Ground: ask.Ground},
			o.limits(h.At),
			sun.LightAt(h.At, o.days, o.law.TwilightLast), ask.Aircraft == nil))
	}
}

// AirAt is the newest weather of a site that was observed by a time, and at most three
// hours before it; nil where there is none.
func (s *Service) AirAt(ctx context.Context, id uuid.UUID, at time.Time) (*weather.Air, error) {
	var rows []string
	err := s.DB.WithContext(ctx).Raw("select content from site_weather where site_id = ? and at <= ? and at > ? order by at desc, taken_at desc, id desc limit 1",
		id, at, at.Add(-3*time.Hour)).Scan(&rows).Error
	if err != nil || len(rows) == 0 {
		return nil, err
	}
	var a weather.Air
	return &a, json.Unmarshal([]byte(rows[0]), &a)
}
