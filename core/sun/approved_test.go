package sun_test

import (
	"fmt"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/sun"
)

// Elevation, azimuth, rise and set over the year and the latitudes, as they were
// when they agreed with the almanac; nothing may move them by a thousandth of a
// degree or a second.
func TestSunAsApproved(t *testing.T) {
	var lines []string
	for _, lat := range []float64{-66, -35, 0, 23.4, 46.3, 60, 67, 71} {
		for month := time.January; month <= time.December; month++ {
			day := time.Date(2026, month, 3*int(month), 0, 0, 0, 0, time.UTC)
			for _, hour := range []int{0, 7, 13, 19} {
				el, az, err := sun.Position(day.Add(time.Duration(hour)*time.Hour+37*time.Second), lat, -119.7)
				if err != nil {
					t.Fatal(err)
				}
				lines = append(lines, fmt.Sprintf("%g %s %02d h: %.3f %.3f", lat, day.Format(time.DateOnly), hour, el, az))
			}
			d, err := sun.On(day, time.FixedZone("", -8*3600), lat, -119.7)
			if err != nil {
				t.Fatal(err)
			}
			said := func(at *time.Time) string {
				if at == nil {
					return "none"
				}
				return at.UTC().Format("02 15:04:05")
			}
			lines = append(lines, fmt.Sprintf("%g %s: dawn %s, rise %s, noon %s, set %s, dusk %s", lat,
				day.Format(time.DateOnly), said(d.Dawn), said(d.Rise), said(&d.Noon), said(d.Set), said(d.Dusk)))
			for _, last := range []time.Duration{0, 30 * time.Minute} {
				light := ""
				for h := range 48 {
					light += string(sun.LightAt(day.Add(time.Duration(h)*30*time.Minute), []sun.Day{d}, last))[:1]
				}
				lines = append(lines, light)
			}
		}
	}
	approved.Text(t, "sun", lines)
}
