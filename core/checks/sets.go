package checks

import (
	"fmt"
	"math"
	"strings"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// headings are the four directions that a heading is held against.
var headings = []struct {
	Name string
	Deg  float64
}{{"North", 0}, {"East", 90}, {"South", 180}, {"West", 270}}

// NameOf names the i-th value of a set, from 0.
func (it Item) NameOf(i int) string {
	switch it.Per {
	case "heading":
		if i < len(headings) {
			return headings[i].Name
		}
	case "arm", "nozzle":
		return fmt.Sprintf("%s %d", judge.Capital(it.Per), i+1)
	}
	return fmt.Sprintf("Motor %d", i+1)
}

// judgeSet judges one number each of motors, arms, nozzles or headings.
func judgeSet(it Item, v Value) (Judgement, error) {
	if len(v.Set) != it.Count {
		return Judgement{}, bad("Enter a value for each of the %d %ss.", it.Count, it.member())
	}
	for i, x := range v.Set {
		if err := inRange(it, x, it.NameOf(i)+": "); err != nil {
			return Judgement{}, err
		}
	}
	switch it.Compare.How {
	case BySpread:
		return judgeSpread(it, v.Set), nil
	case ByHeading:
		return judgeHeadings(it, v.Set), nil
	}
	against := fmt.Sprintf("each within %s %s of the median of the others", num(it.Compare.Watch), Sign(it.Unit))
	worst, words := judge.Clear, []string{}
	for _, o := range Outliers(it, v.Set) {
		worst, words = max(worst, o.Verdict), append(words, o.Sentence)
	}
	if worst == judge.Clear {
		return Judgement{judge.Clear, fmt.Sprintf("All %ss alike.", it.member()), against}, nil
	}
	return Judgement{worst, strings.Join(words, " "), against}, nil
}

func (it Item) member() string {
	if it.Per == "" {
		return "motor"
	}
	return it.Per
}

// HeadingError is the shortest signed angle from a direction to a heading, degrees, over -180
// to 180; positive is clockwise.
func HeadingError(heading, direction float64) float64 {
	d := math.Mod(heading-direction, 360)
	switch {
	case d > 180:
		return d - 360
	case d <= -180:
		return d + 360
	}
	return d
}

// grade is what it means to lie apart by so much, in whole steps of the instrument.
func (c Compare) grade(by, step float64) judge.Verdict {
	switch n, ok := units.Steps(by, step); {
	case !ok || n > steps(c.Stop, step):
		return judge.Stop
	case n > steps(c.Watch, step):
		return judge.Watch
	}
	return judge.Clear
}

func judgeHeadings(it Item, set []float64) Judgement {
	against := fmt.Sprintf("each within %s° clear, to %s° watch", num(it.Compare.Watch), num(it.Compare.Stop))
	worst, words := judge.Clear, []string{}
	for i, x := range set {
		by := HeadingError(x, headings[i].Deg)
		if v := it.Compare.grade(math.Abs(by), it.Step); v != judge.Clear {
			worst, words = max(worst, v), append(words, fmt.Sprintf("%s shows %s°, off by %s°.", headings[i].Name, num(x),
				num(by)))
		}
	}
	if worst == judge.Clear {
		return Judgement{worst, "All four headings agree.", against}
	}
	return Judgement{worst, strings.Join(words, " ") + " Calibrate the compass away from metal, then look again.", against}
}
