package wayhome_test

import (
	"fmt"
	"strings"
	"testing"

	"mainstay/approved"
	"mainstay/core/site"
	"mainstay/core/wayhome"
)

// A whole way, with everything about flight, type and things near where it
// decides.
func TestWayAsApproved(t *testing.T) {
	b := setUp(t)
	b.put("oak", site.Obstacle, site.Point, f(18), [2]float64{4, 120})
	b.put("wood", site.Obstacle, site.Area, f(12), [2]float64{-40, 60}, [2]float64{-20, 60}, [2]float64{-20, 90},
		[2]float64{-40, 90})
	b.put("line wires", site.Wires, site.Line, f(9), [2]float64{40, 0}, [2]float64{60, 150})
	b.put("yard", site.Sensitive, site.Point, nil, [2]float64{90, 100})
	b.put("second", site.TakeOff, site.Point, nil, [2]float64{-60, 0})
	b.q.Flight.Second = "second"
	var lines []string
	base := ""
	say := func(what string, q wayhome.Question) {
		q.Chart.Frame, q.Law, q.Chart.Terrain = b.q.Chart.Frame, b.q.Law, b.q.Chart.Terrain
		a, err := wayhome.Reckon(q)
		said := []string{fmt.Sprint(what, ": ", err)}
		if err == nil {
			said[0] = fmt.Sprintf("%s: return %.3f need %.3f, high %.3f top %.3f far %.3f shown %.3f, legs %d, round %d %s",
				what, a.Return.HeightM, a.Return.NeedM, a.HighM, a.TopM, a.FarM, a.ShownM, len(a.Legs), len(a.WayRound), a.NoWay)
			for _, x := range a.Findings {
				said = append(said, "  "+string(x.Rule)+" "+x.Verdict.String()+" "+
					x.Sentence+" ["+x.Source+"; "+x.Evidence+"; "+x.Lifts+"]")
			}
		}
		text := strings.Join(said, "\n")
		if after := strings.TrimPrefix(text, what); after != base {
			lines = append(lines, said...)
			if what == "" {
				base = after
			}
		}
	}
	say("", b.q)
	q := b.q
	q.Chart.Terrain = nil // too many figures
	approved.Vary(q, func(what string, q wayhome.Question) {
		if !strings.HasPrefix(what, ".Law") && !strings.Contains(what, ".Lat") && !strings.Contains(what, ".Lon") &&
			!strings.HasPrefix(what, ".Chart.Frame") {
			say(what, q)
		}
	})
	approved.Text(t, "way", lines)
}
