package gate

import (
	"time"

	"mainstay/core/judge"
	"mainstay/core/wear"
)

// Life says how the position stands by the part that is fitted there, without
// naming the place: the gate, a drawing and a list of what falls due say the
// same. Nothing fitted is a Stop where the position must carry a part and Watch
// elsewhere; counters that cannot be judged are a Stop. By is "" where no limit
// is set or known.
func (p Part) Life(now time.Time) wear.Due {
	if p.ID == "" {
		d := wear.Due{Fraction: 1, Verdict: judge.Watch, Sentence: "No " + p.Kind + " is recorded here."}
		if p.Required {
			d.Verdict = judge.Stop
		}
		return d
	}
	return wear.Stand(p.Counters, p.Limits, now)
}
