package pack_test

import (
	"fmt"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/pack"
)

// The story of a pack's resistance, cut off after each reading, and with every
// figure of it near where it decides.
func TestResistanceAsApproved(t *testing.T) {
	temp := func(c float64) *float64 { return &c }
	from := time.Date(2026, 1, 1, 12, 0, 0, 0, time.UTC)
	var story []pack.ResistanceReading
	for i, r := range []struct {
		c    float64
		ohms []float64
	}{{20, []float64{2, 2.1, 2}}, {21, []float64{2, 2, 2.1}}, {22, []float64{2.1, 2.1, 2}}, {20,
		[]float64{2.2, 2.9, 2.2}}, {30, []float64{2.2, 3, 2.1}}, {24, []float64{2.4, 3.1, 2.3}}} {
		story = append(story, pack.ResistanceReading{At: from.AddDate(0, 0, 7*i), TemperatureC: temp(r.c), MilliOhm: r.ohms})
	}
	var lines []string
	base := ""
	say := func(what string, story []pack.ResistanceReading) {
		r := pack.JudgeResistance(story)
		text := fmt.Sprintf("%v %s cell %d %+.2f %%, %.3f after %.3f: %s", r.Known, r.Verdict, r.Cell, r.Percent, r.Now,
			r.Baseline, r.Sentence)
		if text != base {
			lines = append(lines, what+": "+text)
		}
	}
	for n := range len(story) + 1 {
		say(fmt.Sprint(n, " readings"), story[:n])
	}
	r := pack.JudgeResistance(story)
	base = fmt.Sprintf("%v %s cell %d %+.2f %%, %.3f after %.3f: %s", r.Known, r.Verdict, r.Cell, r.Percent, r.Now,
		r.Baseline, r.Sentence)
	approved.Vary(story, say)
	for i := range story {
		for _, ohms := range [][]float64{nil, {2}, {9, 9, 9}} {
			x := append([]pack.ResistanceReading{}, story...)
			x[i].MilliOhm = ohms
			say(fmt.Sprintf("%d reads %v", i, ohms), x)
		}
	}
	approved.Text(t, "resistance", lines)
}
