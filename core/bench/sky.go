package bench

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"mainstay/core/metar"
	"mainstay/core/sun"
	"mainstay/core/units"
	"mainstay/core/weather"
)

var sky = []Calculator{
	{
		Key: "sun", Group: "Sun and reports", Title: "Where the sun stands",
		Formula: "NOAA solar position: declination and equation of time of the day, hour angle of the place",
		Limits:  "Between 65 S and 65 N within a minute of published times. Sunrise and sunset at -0.833 degrees, twilight at -6.",
		Source:  "Equations published by NOAA.",
		Inputs: []Input{{"lat", "Latitude, degrees north", "", 46.3, -90, 90},
			{"lon", "Longitude, degrees east", "", -119.7, -180, 180}, {"year", "Year", "", 2026, 1950, 2100},
			{"month", "Month", "", 6, 1, 12}, {"day", "Day", "", 10, 1, 31}, {"hour", "Hour UTC", "", 17, 0, 23.999}},
		compute: func(v values) ([]Result, string, error) {
			day := time.Date(int(v["year"]), time.Month(int(v["month"])), int(v["day"]), 0, 0, 0, 0, time.UTC)
			if day.Day() != int(v["day"]) {
				return nil, "", errors.New("sun: that month has no such day")
			}
			up, azimuth, err := sun.Position(day.Add(time.Duration(v["hour"]*3600)*time.Second), v["lat"], v["lon"])
			if err != nil {
				return nil, "", err
			}
			// The civil day of the place, whatever its zone is called.
			zone := time.FixedZone("", int(math.Round(v["lon"]/15))*3600)
			d, err := sun.On(day, zone, v["lat"], v["lon"])
			if err != nil {
				return nil, "", err
			}
			return []Result{{"Elevation", up, "deg", 1}, {"Bearing", azimuth, "deg", 1}}, sunWords(d, up), nil
		},
	},
	{
		Key: "report", Group: "Sun and reports", Title: "A weather report, decoded",
		Text: "Report", TextDefault: "METAR KZZT 101653Z 24008G14KT 10SM FEW040 BKN070 24/11 A2992",
		Formula: "group by group; what cannot be read is not known, never fine",
		Limits:  "METAR and SPECI. Trends change nothing of what was observed.",
		Source:  "Form of aerodrome reports as published by the World Meteorological Organization.",
		decode:  decodeReport,
	},
}

func sunWords(d sun.Day, up float64) string {
	clock := func(what string, t *time.Time) string {
		if t == nil {
			return ""
		}
		return what + " " + t.UTC().Format("15:04") + " UTC, "
	}
	says := strings.TrimSuffix(clock("dawn", d.Dawn)+clock("sunrise", d.Rise)+clock("noon", &d.Noon)+clock("sunset",
		d.Set)+clock("dusk", d.Dusk), ", ") + "."
	if d.Kind != sun.Normal {
		says += " " + strings.ToUpper(string(d.Kind[:1])) + string(d.Kind[1:]) + "."
	}
	if up < weather.LowSun {
		says += fmt.Sprintf(" Under %g degrees shadows are long: no light for mapping.", weather.LowSun)
	}
	return strings.ToUpper(says[:1]) + says[1:]
}

func decodeReport(text string) ([]Result, string, error) {
	r, err := metar.Decode(text)
	if err != nil {
		return nil, "", err
	}
	// The moment does not matter: only what the groups say is shown.
	a := weather.FromReport(r, time.Time{}, "open")
	var out []Result
	add := func(label string, v *float64, unit string, digits int) {
		if v != nil {
			out = append(out, Result{label, *v, unit, digits})
		}
	}
	add("Wind", a.WindMS, "m/s", 1)
	add("Gust", a.GustMS, "m/s", 1)
	add("From", a.FromDeg, "deg", 0)
	add("Visibility", a.VisibilityM, "m", 0)
	add("Temperature", a.TempC, "degC", 0)
	add("Dew point", a.DewC, "degC", 0)
	add("QNH", a.QNH, "hPa", 1)
	if base, known := r.LowestBase(); known && base != nil {
		out = append(out, Result{"Lowest cloud, over the station", float64(*base) * units.MetresPerFoot, "m", 0})
	}
	var says []string
	missing := func(known bool, what string) {
		if !known {
			says = append(says, what+" not known.")
		}
	}
	missing(a.WindMS != nil, "Wind")
	missing(a.VisibilityM != nil, "Visibility")
	missing(r.SkyKnown, "Sky")
	missing(r.WeatherKnown, "Weather")
	if len(r.Weather) > 0 {
		says = append(says, "Weather: "+strings.Join(r.Weather, " ")+".")
	}
	if r.Trend != "" {
		says = append(says, "Trend, not observed: "+r.Trend+".")
	}
	for _, b := range r.Bad {
		says = append(says, fmt.Sprintf("%s: %s.", b.Group, b.Why))
	}
	return out, strings.Join(says, " "), nil
}
