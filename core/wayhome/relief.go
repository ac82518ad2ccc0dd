package wayhome

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
)

// Relief is the ground under a planned route, as far as the terrain covers it.
type Relief struct {
	LowM     float64 `json:"low_m"`    // elevation
	HighM    float64 `json:"high_m"`   // elevation
	Steepest float64 `json:"steepest"` // rise over run of the steepest stretch; a pass may be flown either way
	On       string  `json:"on"`       // what it lies on, as in "pass 4"
}

// stretchM is the least length over which a slope is taken: shorter ones are the
// roughness of the terrain file.
const stretchM = 10.0

// relief holds the slope under a planned route that follows the ground against what
// the aircraft climbs at the speed of the plan. Without terrain nothing is known, and
// ground says so.
func (r *reckoning) relief() error {
	plan := r.Flight.Plan
	if plan == nil || r.Chart.Terrain == nil {
		return nil
	}
	path, leg := home.Following(append([]geo.XY{r.at}, r.way...), r.Chart.Terrain, r.out.HomeM, 0)
	out := Relief{LowM: math.Inf(1), HighM: math.Inf(-1)}
	known, from := false, 0 // from is where the stretch begins
	for i := 1; i < len(path); i++ {
		m, ok := r.Chart.Terrain.Smooth(path[i].At)
		if !ok || leg[i-1] <= r.in {
			from = i + 1
			continue
		}
		path[i].M = m
		known = true
		out.LowM, out.HighM = min(out.LowM, path[i].M), max(out.HighM, path[i].M)
		if from > 0 && leg[from-1] != leg[i-1] { // a stretch lies on one leg
			from = i - 1
		}
		run := geo.Dist(path[from].At, path[i].At)
		if run < stretchM {
			continue
		}
		if s := math.Abs(path[i].M-path[from].M) / run; s > out.Steepest {
			out.Steepest, out.On = s, r.leg(leg[i-1])
		}
		from = i
	}
	if !known {
		return nil
	}
	r.out.Relief = &out
	if r.out.Datum != intent.AboveGround {
		return nil
	}
	climb := min(r.Type.Limits.Climb(), r.Type.Limits.Descent())
	if need := out.Steepest * plan.SpeedMS; need > climb+1e-9 {
		r.find(judge.Finding{Rule: judge.RulePath, Verdict: judge.Stop, Lifts: "a slower plan, or passes along the slope",
			Sentence: fmt.Sprintf("%s rises or falls %.0f %%: at %.1f m/s it would have to climb or sink %.1f m/s to keep its height, and does %.1f. Fly at most %.1f m/s, or along the slope.",
				judge.Capital(out.On), out.Steepest*100, plan.SpeedMS, need, climb, climb/out.Steepest)})
	}
	return nil
}
