// Package sun computes where the sun stands and when it rises and sets, after
// the solar position equations published by NOAA (from Meeus, Astronomical
// Algorithms). Between 65 S and 65 N times are within a minute of the almanac.
package sun

import (
	"errors"
	"mainstay/core/why"
	"math"
	"time"
)

// Elevations of the sun's centre at which events happen, degrees.
const (
	RiseElevation     = -0.833 // upper edge on the horizon with mean refraction
	TwilightElevation = -6     // civil
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("sun: input out of range")

// Kind says what sort of day it is when there is no rise or twilight.
type Kind string

// The kinds of day.
const (
	Normal           Kind = "normal"
	PolarDay         Kind = "polar day"          // the sun does not set
	PolarNight       Kind = "polar night"        // it does not rise, but there is twilight
	TwilightAllNight Kind = "twilight all night" // it sets, but it does not get dark
	NoTwilight       Kind = "no twilight"        // it does not even get near the horizon
)

// Day is the sun on one civil date. Times that do not happen are nil.
type Day struct {
	Kind Kind       `json:"kind"`
	Noon time.Time  `json:"noon"` // highest
	Rise *time.Time `json:"rise"`
	Set  *time.Time `json:"set"`
	Dawn *time.Time `json:"dawn"` // civil twilight begins
	Dusk *time.Time `json:"dusk"` // and ends
}

const rad = math.Pi / 180

// orbit returns declination (deg), equation of time (minutes) at t.
func orbit(t time.Time) (decl, eqTime float64) {
	jd := float64(t.UnixMilli())/86400000 + 2440587.5
	c := (jd - 2451545) / 36525
	l0 := math.Mod(280.46646+c*(36000.76983+c*0.0003032), 360)
	m := 357.52911 + c*(35999.05029-0.0001537*c)
	e := 0.016708634 - c*(0.000042037+0.0000001267*c)
	center := math.Sin(m*rad)*(1.914602-c*(0.004817+0.000014*c)) + math.Sin(2*m*rad)*(0.019993-0.000101*c) +
		math.Sin(3*m*rad)*0.000289
	omega := 125.04 - 1934.136*c
	lambda := l0 + center - 0.00569 - 0.00478*math.Sin(omega*rad)
	obliq := 23 + (26+(21.448-c*(46.815+c*(0.00059-c*0.001813)))/60)/60 + 0.00256*math.Cos(omega*rad)
	decl = math.Asin(math.Sin(obliq*rad)*math.Sin(lambda*rad)) / rad
	y := math.Pow(math.Tan(obliq/2*rad), 2)
	eqTime = 4 / rad * (y*math.Sin(2*l0*rad) - 2*e*math.Sin(m*rad) +
		4*e*y*math.Sin(m*rad)*math.Cos(2*l0*rad) - 0.5*y*y*math.Sin(4*l0*rad) - 1.25*e*e*math.Sin(2*m*rad))
	return decl, eqTime
}

func check(lat, lon float64) error {
	if !(lat >= -90 && lat <= 90) || !(lon >= -180 && lon <= 180) {
		return why.Not(ErrInput, "latitude %g, longitude %g", lat, lon)
	}
	return nil
}

// Position is the elevation of the sun's centre above the horizon without
// refraction and its azimuth clockwise from north, degrees, at latitude and
// longitude in degrees (north and east positive).
func Position(t time.Time, lat, lon float64) (elevation, azimuth float64, err error) {
	if err := check(lat, lon); err != nil {
		return 0, 0, err
	}
	decl, eq := orbit(t)
	u := t.UTC()
	minutes := float64(u.Hour()*60+u.Minute()) + float64(u.Second())/60 + eq + 4*lon
	ha := minutes/4 - 180
	sinEl := math.Sin(lat*rad)*math.Sin(decl*rad) + math.Cos(lat*rad)*math.Cos(decl*rad)*math.Cos(ha*rad)
	elevation = math.Asin(max(-1, min(1, sinEl))) / rad
	azimuth = math.Atan2(math.Sin(ha*rad),
		math.Cos(ha*rad)*math.Sin(lat*rad)-math.Tan(decl*rad)*math.Cos(lat*rad))/rad + 180
	return elevation, math.Mod(azimuth+360, 360), nil
}

// On gives the sun's day that belongs to the solar noon of a civil date in a
// zone. Only the year, month and day of date count.
func On(date time.Time, zone *time.Location, lat, lon float64) (Day, error) {
	if err := check(lat, lon); err != nil {
		return Day{}, err
	}
	guess := time.Date(date.Year(), date.Month(), date.Day(), 12, 0, 0, 0, zone)
	// The solar noon nearest to the civil noon of the zone.
	noon := guess
	for range 3 {
		_, eq := orbit(noon)
		u := noon.UTC()
		off := float64(u.Hour()*60+u.Minute()) + float64(u.Second())/60 + eq + 4*lon - 720
		off = math.Mod(off+720+1440*2, 1440) - 720
		noon = noon.Add(-time.Duration(off * float64(time.Minute)))
	}
	d := Day{Kind: Normal, Noon: noon.Round(time.Second)}
	var up, light int
	d.Rise, d.Set, up = cross(noon, lat, lon, RiseElevation)
	d.Dawn, d.Dusk, light = cross(noon, lat, lon, TwilightElevation)
	switch {
	case up > 0:
		d.Kind = PolarDay
	case up < 0 && light < 0:
		d.Kind = NoTwilight
	case up < 0:
		d.Kind = PolarNight
	case light > 0:
		d.Kind = TwilightAllNight
	}
	return d, nil
}

// cross finds when the sun passes an elevation before and after noon. side is 1
// when it stays above, -1 when it stays below.
func cross(noon time.Time, lat, lon, elevation float64) (before, after *time.Time, side int) {
	at := func(sign float64) (*time.Time, int) {
		t := noon
		for range 6 {
			decl, eq := orbit(t)
			c := (math.Sin(elevation*rad) - math.Sin(lat*rad)*math.Sin(decl*rad)) / (math.Cos(lat*rad) * math.Cos(decl*rad))
			if c < -1 || math.IsNaN(c) && lat*decl > 0 {
				return nil, 1
			}
			if c > 1 || math.IsNaN(c) {
				return nil, -1
			}
			ha := math.Acos(c) / rad * sign
			// Minutes of UTC at which the sun has that hour angle, on the day of noon.
			want := 720 + 4*ha - eq - 4*lon
			_, eqNoon := orbit(noon)
			t = noon.Add(time.Duration((want - (720 - eqNoon - 4*lon)) * float64(time.Minute)))
		}
		t = t.Round(time.Second)
		return &t, 0
	}
	before, side = at(-1)
	if side != 0 {
		return nil, nil, side
	}
	after, side = at(1)
	if side != 0 {
		return nil, nil, side
	}
	return before, after, 0
}

// Light is what the lights rule makes of a time.
type Light string

// The lights of the rule.
const (
	Daylight Light = "day"
	Twilight Light = "twilight"
	Night    Light = "night"
)

// LightAt sorts a time into day, twilight or night. Civil twilight lasts for
// last before sunrise and after sunset, and night is from the earlier of its end
// and the almanac's dusk; with a last of 0 it is the almanac's alone. days are
// the sun's days of the date before, of the date and after it.
func LightAt(t time.Time, days []Day, last time.Duration) Light {
	best := Night
	for _, d := range days {
		switch {
		case d.Kind == PolarDay && absDuration(t.Sub(d.Noon)) <= 12*time.Hour:
			return Daylight
		case d.Rise == nil || d.Set == nil:
			continue
		}
		if !t.Before(*d.Rise) && t.Before(*d.Set) {
			return Daylight
		}
		from, to := d.Rise.Add(-last), d.Set.Add(last)
		if d.Dawn != nil && (last == 0 || d.Dawn.After(from)) {
			from = *d.Dawn
		}
		if d.Dusk != nil && (last == 0 || d.Dusk.Before(to)) {
			to = *d.Dusk
		}
		if last == 0 && (d.Dawn == nil || d.Dusk == nil) { // twilight all night
			from, to = d.Noon.Add(-12*time.Hour), d.Noon.Add(12*time.Hour)
		}
		if !t.Before(from) && t.Before(to) {
			best = Twilight
		}
	}
	return best
}

func absDuration(d time.Duration) time.Duration {
	if d < 0 {
		return -d
	}
	return d
}
