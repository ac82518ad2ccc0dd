package metar

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"time"
)

// Trend is what a report expects for the next hours. It is decoded apart and
// never overrides what was observed.
type Trend struct {
	Text        string     `json:"text"` // as written
	Kind        string     `json:"kind"` // NOSIG, BECMG, TEMPO, INTER, FM or PROB
	From        *Clock     `json:"from"` // nil: from the report on
	To          *Clock     `json:"to"`   // nil: as long as the trend of a report lasts
	Hazards     []string   `json:"hazards"`
	WindMS      *float64   `json:"wind_ms"`
	GustMS      *float64   `json:"gust_ms"`
	VisibilityM *float64   `json:"visibility_m"`
	BaseFt      *int       `json:"base_ft"` // lowest layer, above the station
	Bad         []BadGroup `json:"bad"`
}

// Clock is a time of day in UTC, with the day of the month where one is given.
type Clock struct {
	Day    int `json:"day"` // 0: not given
	Hour   int `json:"hour"`
	Minute int `json:"minute"`
}

// TrendLasts is how long the trend of a report reaches (WMO FM 15: two hours).
const TrendLasts = 2 * time.Hour

var (
	reTrendTime = regexp.MustCompile(`^(FM|TL|AT)(\d{2})?(\d{2})(\d{2})Z?$`)
	reTrendSpan = regexp.MustCompile(`^(\d{2})(\d{2})/(\d{2})(\d{2})$`)
	reProb      = regexp.MustCompile(`^PROB\d{2}$`)
	reFromFull  = regexp.MustCompile(`^FM\d{4,6}$`)
)

func beginsTrend(x string) bool {
	return slices.Contains([]string{"NOSIG", "BECMG", "TEMPO", "INTER", "FM"}, x) || reProb.MatchString(x) ||
		reFromFull.MatchString(x)
}

// trends decodes what follows the observation, one trend after the other.
func trends(g []string) []Trend {
	out := []Trend{}
	for i := 0; i < len(g); {
		n := i + 1
		if n < len(g) && (reProb.MatchString(g[i]) && (g[n] == "TEMPO" || g[n] == "INTER") || reFromFull.MatchString(g[n]) &&
			!reFromFull.MatchString(g[i])) {
			n++ // PROB40 TEMPO is one trend, and BECMG FM1030 too
		}
		for n < len(g) && !beginsTrend(g[n]) {
			n++
		}
		out = append(out, trend(g[i:n]))
		i = n
	}
	return out
}

func trend(g []string) Trend {
	t := Trend{Text: strings.Join(g, " "), Kind: g[0], Hazards: []string{}, Bad: []BadGroup{}}
	switch {
	case reProb.MatchString(g[0]):
		t.Kind = "PROB"
	case reFromFull.MatchString(g[0]):
		t.Kind = "FM"
		g = append([]string{"FM"}, g...)
	}
	r := Report{RVR: []string{}, Weather: []string{}, Layers: []Layer{}, WindShear: []string{}, Bad: []BadGroup{}}
	d := decoder{r: &r}
	rest := g[1:]
	for i := 0; i < len(rest); i++ {
		x := rest[i]
		switch {
		case slices.Contains([]string{"TEMPO", "INTER", "BECMG", "NSW"}, x):
		case reTrendTime.MatchString(x):
			t.time(x)
		case reTrendSpan.MatchString(x):
			m := reTrendSpan.FindStringSubmatch(x)
			t.From, t.To = &Clock{number(m[1]), number(m[2]), 0}, &Clock{number(m[3]), number(m[4]), 0}
			t.check(x)
		default:
			i += d.group(rest[i:])
		}
	}
	t.Bad = append(t.Bad, r.Bad...)
	t.Hazards, t.WindMS, t.GustMS, t.VisibilityM = append(r.Hazards(),
		r.Vicinity()...), r.Wind.SpeedMS, r.Wind.GustMS, r.VisibilityM
	t.BaseFt = r.lowest(Few, Scattered, Broken, Overcast, Vertical)
	return t
}

func (t *Trend) time(x string) {
	m := reTrendTime.FindStringSubmatch(x)
	c := &Clock{Hour: number(m[3]), Minute: number(m[4])}
	if m[2] != "" {
		c.Day = number(m[2])
	}
	switch m[1] {
	case "FM":
		t.From = c
	case "TL":
		t.To = c
	default:
		t.From, t.To = c, c
	}
	t.check(x)
}

// check drops times that no clock shows: the trend then counts all the time.
func (t *Trend) check(x string) {
	for _, c := range []*Clock{t.From, t.To} {
		if c != nil && (c.Day > 31 || c.Hour > 24 || c.Minute > 59 || c.Hour == 24 && c.Minute > 0) {
			t.Bad = append(t.Bad, BadGroup{x, "there is no such day or time"})
			t.From, t.To = nil, nil
			return
		}
	}
}

// Window is when a trend counts, for a report made at a time.
func (t Trend) Window(made time.Time) (from, to time.Time) {
	from, to = made, made.Add(TrendLasts)
	at := func(c Clock) time.Time {
		day := made.UTC()
		if c.Day > 0 {
			for range 3 { // this day of the month, or the next that has its number
				if day.Day() == c.Day {
					break
				}
				day = day.AddDate(0, 0, 1)
			}
		}
		x := time.Date(day.Year(), day.Month(), day.Day(), c.Hour, c.Minute, 0, 0, time.UTC)
		if c.Day == 0 && x.Before(made.Add(-TrendLasts)) {
			x = x.AddDate(0, 0, 1)
		}
		return x
	}
	if t.From != nil {
		from = at(*t.From)
		to = from.Add(TrendLasts)
	}
	if t.To != nil {
		to = at(*t.To)
	}
	if !to.After(from) {
		to = from.Add(TrendLasts)
	}
	return from, to
}

// Words is the trend as people read it: its hazards, wind and cloud.
func (t Trend) Words() string {
	var out []string
	if len(t.Hazards) > 0 {
		out = append(out, strings.Join(t.Hazards, ", "))
	}
	if t.WindMS != nil {
		w := fmt.Sprintf("wind %.1f m/s", *t.WindMS)
		if t.GustMS != nil {
			w += fmt.Sprintf(", gusts %.1f", *t.GustMS)
		}
		out = append(out, w)
	}
	if t.VisibilityM != nil {
		out = append(out, fmt.Sprintf("visibility %.1f km", *t.VisibilityM/1000))
	}
	if t.BaseFt != nil {
		out = append(out, fmt.Sprintf("cloud from %d ft", *t.BaseFt))
	}
	if len(t.Bad) > 0 {
		out = append(out, "part of it cannot be read")
	}
	return strings.Join(out, "; ")
}
