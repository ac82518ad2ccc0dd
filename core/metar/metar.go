// Package metar decodes aviation weather reports (METAR and SPECI) as the WMO
// Manual on Codes (FM 15) and the US handbook FMH-1 describe them. A group that
// cannot be used is named and the rest still decodes; what is missing is
// unknown, never zero.
package metar

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"mainstay/core/judge"
	"mainstay/core/units"
	"mainstay/core/why"
)

// Amount is how much of the sky a layer covers.
type Amount string

// The amounts, and the words for a sky without reported cloud.
const (
	Few       Amount = "FEW" // 1-2 eighths
	Scattered Amount = "SCT" // 3-4
	Broken    Amount = "BKN" // 5-7
	Overcast  Amount = "OVC" // 8
	Vertical  Amount = "VV"  // sky hidden: vertical visibility
	Clear     Amount = "CLR" // automatic, nothing under 12,000 ft
	SkyClear  Amount = "SKC"
	NoSig     Amount = "NSC" // nothing significant
	NoneSeen  Amount = "NCD" // automatic, nothing detected
)

// Layer is one layer of cloud.
type Layer struct {
	Amount Amount `json:"amount"`
	BaseFt *int   `json:"base_ft"` // above the station, nil not known
	Type   string `json:"type"`    // CB, TCU or ""
}

// Wind is the reported wind; nil is not known.
type Wind struct {
	Direction *int     `json:"direction"` // degrees true it comes from; nil when variable or not known
	Variable  bool     `json:"variable"`
	SpeedMS   *float64 `json:"speed_ms"`
	GustMS    *float64 `json:"gust_ms"`
	From, To  *int     `json:"-"` // range of a variable direction
}

// Report is a decoded report.
type Report struct {
	Raw          string     `json:"raw"`
	Kind         string     `json:"kind"` // METAR, SPECI or ""
	Station      string     `json:"station"`
	Day          int        `json:"day"` // 0 not known
	Hour, Minute int        `json:"-"`
	Auto         bool       `json:"auto"`
	Corrected    bool       `json:"corrected"`
	Nil          bool       `json:"nil"`
	Wind         Wind       `json:"wind"`
	VisibilityM  *float64   `json:"visibility_m"` // prevailing; 10,000 stands for 10 km or more
	More, Less   bool       `json:"-"`            // over, under the number
	CAVOK        bool       `json:"cavok"`
	RVR          []string   `json:"rvr"`
	Weather      []string   `json:"weather"`
	Layers       []Layer    `json:"layers"`
	SkyKnown     bool       `json:"sky_known"` // every sky group could be read and there was one
	Temperature  *float64   `json:"temperature_c"`
	DewPoint     *float64   `json:"dew_point_c"`
	QNH          *float64   `json:"qnh_hpa"`
	WindShear    []string   `json:"wind_shear"`
	Trend        string     `json:"trend"`         // as written
	Trends       []Trend    `json:"trends"`        // decoded apart: they never change the observation
	WeatherKnown bool       `json:"weather_known"` // every group that may be weather could be read
	Remarks      string     `json:"remarks"`
	Bad          []BadGroup `json:"bad"`
}

// BadGroup is a group that could not be used.
type BadGroup struct {
	Group string `json:"group"`
	Why   string `json:"why"`
}

// ErrReport is wrapped when a text is no report at all.
var ErrReport = errors.New("not a weather report")

// MaxLength bounds a report, in bytes.
const MaxLength = 2000

var (
	reTime    = regexp.MustCompile(`^(\d{2})(\d{2})(\d{2})Z$`)
	reWind    = regexp.MustCompile(`^(\d{3}|VRB|///)(P?\d{2,3}|//)(?:G(P?\d{2,3}|//))?(KT|MPS|KMH)$`)
	reVary    = regexp.MustCompile(`^(\d{3})V(\d{3})$`)
	reVisM    = regexp.MustCompile(`^(\d{4})(NDV|N|NE|E|SE|S|SW|W|NW)?$`)
	reVisSM   = regexp.MustCompile(`^([MP])?(\d{1,2})(?:/(\d{1,2}))?SM$`)
	reRVR     = regexp.MustCompile(`^R\d{2}[LCR]?/[PM]?(\d{4}|////)(V[PM]?\d{4})?(FT)?/?[UDN]?$`)
	reWeather = regexp.MustCompile(`^(RE)?(\+|-|VC)?(MI|PR|BC|DR|BL|SH|TS|FZ)?((DZ|RA|SN|SG|IC|PL|GR|GS|UP|BR|FG|FU|VA|DU|SA|HZ|PY|PO|SQ|FC|SS|DS)*)$`)
	reSky     = regexp.MustCompile(`^(FEW|SCT|BKN|OVC|VV|///)(\d{3}|///)(CB|TCU|///)?$`)
	reTemp    = regexp.MustCompile(`^(M?\d{2}|//)/(M?\d{2}|//)?$`)
	reQNH     = regexp.MustCompile(`^([QA])(\d{4}|////)$`)
	reStation = regexp.MustCompile(`^[A-Z][A-Z0-9]{3}$`)
	// wind, visibility, pressure, temperature or time, mistyped
	rePlain = regexp.MustCompile(`^(\S*\d\S*(KT|MPS|KMH|SM)|[QA]\d[\d/]*|M?\d{1,3}/M?\d{1,3}|\d{6}Z?)$`)
	reWhole = regexp.MustCompile(`^\d{1,2}$`)
)

type decoder struct {
	r          *Report
	skyBad     bool
	skySet     bool
	weatherBad bool
}

// DecodeAll reads every report of a text, in its order: one ends at "=", at the
// next METAR or SPECI, or where another station with its time begins.
func DecodeAll(text string) ([]Report, error) {
	if len(text) > MaxLength {
		return nil, why.Not(ErrReport, "it has over %d characters", MaxLength)
	}
	var out []Report
	for _, one := range split(text) {
		r, err := Decode(one)
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	if len(out) == 0 {
		return nil, why.Not(ErrReport, "it is empty")
	}
	return out, nil
}

// split cuts a text into its reports.
func split(text string) []string {
	var out []string
	for _, part := range strings.Split(strings.ToUpper(text), "=") {
		g := strings.Fields(part)
		from, begun := 0, 0 // begun: groups of the report besides its kind
		for i, x := range g {
			head := x == "METAR" || x == "SPECI" || x == "COR"
			next := reStation.MatchString(x) && i+1 < len(g) && reTime.MatchString(g[i+1])
			if begun > 0 && (head && x != "COR" || next) {
				out, from, begun = append(out, strings.Join(g[from:i], " ")), i, 0
			}
			if !head {
				begun++
			}
		}
		if len(g) > from {
			out = append(out, strings.Join(g[from:], " "))
		}
	}
	return out
}

// Decode reads one report. It fails when there is no station, and when the text
// holds more than one report.
func Decode(text string) (Report, error) {
	if len(text) > MaxLength {
		return Report{}, why.Not(ErrReport, "it has over %d characters", MaxLength)
	}
	parts := split(text)
	if len(parts) != 1 {
		return Report{}, why.Not(ErrReport, "it holds %d reports", len(parts))
	}
	raw := strings.Join(strings.Fields(strings.ToUpper(text)), " ")
	r := Report{Raw: raw, RVR: []string{}, Weather: []string{}, Layers: []Layer{}, WindShear: []string{},
		Bad: []BadGroup{}, Trends: []Trend{}}
	body, _, _ := strings.Cut(raw, "=")
	body, r.Remarks, _ = strings.Cut(body+" ", " RMK ")
	r.Remarks = strings.TrimSpace(r.Remarks)
	g := strings.Fields(body)
	for len(g) > 0 && (g[0] == "METAR" || g[0] == "SPECI" || g[0] == "COR") {
		if g[0] == "COR" {
			r.Corrected = true
		} else {
			r.Kind = g[0]
		}
		g = g[1:]
	}
	if len(g) == 0 || !reStation.MatchString(g[0]) {
		return Report{}, why.Not(ErrReport, "it does not begin with a station of four letters")
	}
	r.Station, g = g[0], g[1:]
	if len(g) == 0 {
		return Report{}, why.Not(ErrReport, "nothing follows the station")
	}
	d := decoder{r: &r}
	for i := 0; i < len(g); i++ {
		if beginsTrend(g[i]) {
			r.Trend, r.Trends = strings.Join(g[i:], " "), trends(g[i:])
			break
		}
		i += d.group(g[i:])
	}
	r.SkyKnown = d.skySet && !d.skyBad
	remarks := strings.Fields(r.Remarks)
	r.WeatherKnown = !d.weatherBad && !slices.Contains(remarks, "PWINO") && !r.Nil
	return r, nil
}

func (d *decoder) bad(group, why string, a ...any) {
	d.r.Bad = append(d.r.Bad, BadGroup{group, fmt.Sprintf(why, a...)})
}

// group decodes the first of the groups and returns how many more it took.
func (d *decoder) group(g []string) int {
	r, x := d.r, g[0]
	switch {
	case x == "AUTO":
		r.Auto = true
	case x == "COR":
		r.Corrected = true
	case x == "NIL":
		r.Nil = true
	case x == "CAVOK":
		v := 10000.0
		r.CAVOK, r.VisibilityM, r.More, d.skySet = true, &v, true, true
	case reTime.MatchString(x):
		d.time(x)
	case reWind.MatchString(x):
		d.wind(x)
	case reVary.MatchString(x):
		m := reVary.FindStringSubmatch(x)
		from, to := number(m[1]), number(m[2])
		if from > 360 || to > 360 {
			d.bad(x, "a direction is over 360")
			break
		}
		r.Wind.From, r.Wind.To = &from, &to
	case reQNH.MatchString(x):
		d.qnh(x)
	case reTemp.MatchString(x):
		d.temperature(x)
	case strings.Trim(x, "/") == "": // not known: two stand for weather, six for the sky; the others are nothing's own
		d.skyBad = d.skyBad || len(x) != 2 && len(x) != 4
		d.weatherBad = d.weatherBad || len(x) < 4 || len(x) == 5
	case x == "/////KT" || x == "////SM": // wind or visibility not known
	case reVisSM.MatchString(x):
		d.miles(x, 0)
	case reWhole.MatchString(x) && len(g) > 1 && reVisSM.MatchString(g[1]) && strings.Contains(g[1], "/"):
		d.miles(g[1], float64(number(x)))
		return 1
	case reVisM.MatchString(x):
		d.metres(x)
	case reRVR.MatchString(x):
		r.RVR = append(r.RVR, x)
	case x == "WS":
		n := min(len(g), 3)
		if n > 1 && g[1] == "ALL" {
			r.WindShear = append(r.WindShear, strings.Join(g[:n], " "))
			return n - 1
		}
		n = min(n, 2)
		r.WindShear = append(r.WindShear, strings.Join(g[:n], " "))
		return n - 1
	case slices.Contains([]Amount{Clear, SkyClear, NoSig, NoneSeen}, Amount(x)):
		r.Layers, d.skySet = append(r.Layers, Layer{Amount: Amount(x)}), true
	case reSky.MatchString(x):
		d.sky(x)
	case strings.HasPrefix(x, "FEW") || strings.HasPrefix(x, "SCT") || strings.HasPrefix(x, "BKN") ||
		strings.HasPrefix(x, "OVC") || strings.HasPrefix(x, "VV"):
		d.skyBad = true
		d.bad(x, "the layer of cloud cannot be read")
	case reWeather.MatchString(x) && x != "" && x != "RE" && x != "VC":
		r.Weather = append(r.Weather, x)
	default:
		d.bad(x, "is not known")
		// What cannot be read may be cloud or weather, unless it is plainly something else.
		if !rePlain.MatchString(x) {
			d.skyBad, d.weatherBad = true, true
		}
	}
	return 0
}

func number(s string) int {
	n, err := strconv.Atoi(s)
	if err != nil {
		return -1 // the patterns let only digits through
	}
	return n
}

func (d *decoder) time(x string) {
	m := reTime.FindStringSubmatch(x)
	day, hour, minute := number(m[1]), number(m[2]), number(m[3])
	if day < 1 || day > 31 || hour > 23 || minute > 59 {
		d.bad(x, "there is no such day or time")
		return
	}
	d.r.Day, d.r.Hour, d.r.Minute = day, hour, minute
}

func (d *decoder) wind(x string) {
	m := reWind.FindStringSubmatch(x)
	factor := map[string]float64{"KT": units.MetresPerSecondPerKnot, "MPS": 1, "KMH": 1 / 3.6}[m[4]]
	speed := func(s string) *float64 {
		s = strings.TrimPrefix(s, "P")
		if s == "" || strings.HasPrefix(s, "/") {
			return nil
		}
		v := float64(number(s)) * factor
		return &v
	}
	w := Wind{SpeedMS: speed(m[2]), GustMS: speed(m[3]), Variable: m[1] == "VRB"}
	if !w.Variable && m[1] != "///" {
		n := number(m[1])
		if n > 360 {
			d.bad(x, "the direction %d is over 360", n)
			return
		}
		n %= 360
		w.Direction = &n
	}
	switch {
	case w.SpeedMS != nil && *w.SpeedMS > 103:
		d.bad(x, "the speed is beyond any wind")
		return
	case w.GustMS != nil && w.SpeedMS != nil && *w.GustMS < *w.SpeedMS:
		d.bad(x, "the gust is under the wind")
		return
	case w.SpeedMS != nil && *w.SpeedMS == 0:
		w.Direction = nil // calm comes from nowhere
	}
	d.r.Wind = w
}

func (d *decoder) miles(x string, whole float64) {
	m := reVisSM.FindStringSubmatch(x)
	v := float64(number(m[2]))
	if m[3] != "" {
		den := float64(number(m[3]))
		if den == 0 {
			d.bad(x, "divides by zero")
			return
		}
		v /= den
	}
	v = (v + whole) * units.MetresPerStatuteMile
	d.r.VisibilityM, d.r.Less, d.r.More = &v, m[1] == "M", m[1] == "P"
}

func (d *decoder) metres(x string) {
	m := reVisM.FindStringSubmatch(x)
	v := float64(number(m[1]))
	more := v == 9999
	if more {
		v = 10000
	}
	if d.r.VisibilityM != nil && *d.r.VisibilityM <= v {
		return // the lowest of the directions counts
	}
	d.r.VisibilityM, d.r.More = &v, more
}

func (d *decoder) sky(x string) {
	m := reSky.FindStringSubmatch(x)
	d.skySet = true
	if m[1] == "///" {
		d.skyBad = true
		return
	}
	l := Layer{Amount: Amount(m[1]), Type: strings.Trim(m[3], "/")}
	if m[2] == "///" {
		d.skyBad = true
	} else {
		b := number(m[2]) * 100
		l.BaseFt = &b
	}
	d.r.Layers = append(d.r.Layers, l)
}

func (d *decoder) temperature(x string) {
	m := reTemp.FindStringSubmatch(x)
	read := func(s string) *float64 {
		if s == "" || s == "//" {
			return nil
		}
		v := float64(number(strings.TrimPrefix(s, "M")))
		if s[0] == 'M' {
			v = -v
		}
		return &v
	}
	t, dew := read(m[1]), read(m[2])
	if t != nil && (*t > 60 || *t < -90) || t != nil && dew != nil && *dew > *t {
		d.bad(x, "temperature and dew point cannot be")
		return
	}
	d.r.Temperature, d.r.DewPoint = t, dew
}

func (d *decoder) qnh(x string) {
	m := reQNH.FindStringSubmatch(x)
	if m[2] == "////" {
		return
	}
	v := float64(number(m[2]))
	if m[1] == "A" {
		v = v / 100 * units.HectopascalsPerInHg
	}
	if v < 850 || v > 1100 {
		d.bad(x, "no air pressure is like that")
		return
	}
	d.r.QNH = &v
}

// At is the time of the report: the latest such day and time that is not more
// than a day after now. ok is false when the report has no time.
func (r Report) At(now time.Time) (t time.Time, ok bool) {
	if r.Day == 0 {
		return time.Time{}, false
	}
	u := now.UTC()
	for back := range 4 {
		t := time.Date(u.Year(), u.Month()-time.Month(back-1), r.Day, r.Hour, r.Minute, 0, 0, time.UTC)
		if t.Day() == r.Day && !t.After(now.Add(24*time.Hour)) {
			return t, true
		}
	}
	return time.Time{}, false
}

// Ceiling is the lowest broken or overcast layer or vertical visibility in feet
// above the station. known is false when the sky could not be read; a nil
// ceiling with known is a sky without one.
func (r Report) Ceiling() (feet *int, known bool) {
	if !r.SkyKnown {
		return nil, false
	}
	return r.lowest(Broken, Overcast, Vertical), true
}

// LowestBase is the base of the lowest layer of any amount, as Ceiling.
func (r Report) LowestBase() (feet *int, known bool) {
	if !r.SkyKnown {
		return nil, false
	}
	return r.lowest(Few, Scattered, Broken, Overcast, Vertical), true
}

func (r Report) lowest(of ...Amount) *int {
	var best *int
	for _, l := range r.Layers {
		if l.BaseFt != nil && slices.Contains(of, l.Amount) && (best == nil || *l.BaseFt < *best) {
			best = l.BaseFt
		}
	}
	return best
}

// Light judges the evenness of the light for mapping.
func (r Report) Light() (judge.Verdict, string) {
	has := func(of ...Amount) bool {
		return slices.ContainsFunc(r.Layers, func(l Layer) bool { return slices.Contains(of, l.Amount) })
	}
	switch {
	case !r.SkyKnown:
		return judge.Watch, "The light is not known: the sky of the report cannot be read. Look up."
	case has(Overcast, Vertical):
		return judge.Clear, "Even light under an overcast."
	case has(Scattered, Broken):
		return judge.Watch, "Uneven light: clouds drift through. Wait for a clear sky or an overcast."
	case has(NoSig, NoneSeen) || r.CAVOK:
		return judge.Watch, "Even light only if you see it: the report leaves out high cloud."
	}
	return judge.Clear, "Even light under a clear sky."
}

// Vicinity is the weather reported near the station, not at it: thunderstorms
// there are among the hazards.
func (r Report) Vicinity() []string {
	out := []string{}
	for _, w := range r.Weather {
		if strings.HasPrefix(w, "VC") && !strings.Contains(w, "TS") {
			out = append(out, w)
		}
	}
	return out
}

// NoStorms reports whether the station says that it cannot tell thunderstorms.
func (r Report) NoStorms() bool { return slices.Contains(strings.Fields(r.Remarks), "TSNO") }

// Hazards are the weather groups in which nobody flies a small aircraft:
// thunderstorms, rain, snow, ice, hail, fog, sand and squalls, and convective
// cloud.
func (r Report) Hazards() []string {
	out := []string{}
	for _, w := range r.Weather {
		if strings.HasPrefix(w, "RE") || strings.HasPrefix(w, "VC") && !strings.Contains(w, "TS") {
			continue
		}
		for _, bad := range []string{"TS", "RA", "DZ", "SN", "SG", "IC", "PL", "GR", "GS", "UP", "FG", "SQ", "FC", "SS", "DS",
			"VA"} {
			if strings.Contains(w, bad) {
				out = append(out, w)
				break
			}
		}
	}
	for _, l := range r.Layers {
		if l.Type == "CB" || l.Type == "TCU" {
			out = append(out, string(l.Amount)+" "+l.Type)
		}
	}
	return append(out, r.WindShear...)
}
