package spraying

import (
	"context"
	"fmt"
	"time"

	"mainstay/core/judge"
	"mainstay/core/spray"
	"mainstay/core/weather"
	"mainstay/core/wind"
	"mainstay/internal/sites"
)

// Hour is an hour of the forecast for a plan: how many passes may be sprayed in it.
type Hour struct {
	At      time.Time
	Verdict judge.Verdict
	Free    int
	Waiting int
	WindMS  *float64 // at the nozzles
	FromDeg *float64
	Why     string
}

// hours are the hours of the forecast in which passes may be sprayed; none where no
// forecast is to be had.
func (s *Service) hours(ctx context.Context, p Plan) ([]Hour, error) {
	out := []Hour{}
	sky, err := s.Sites.SkyOver(ctx, p.Job.SiteID, sites.AskSky{Aircraft: &p.Aircraft.ID, Work: weather.Spraying,
		Ground: string(wind.Crops), Label: p.label()})
	if err != nil {
		return out, err
	}
	for _, h := range sky.Hours {
		x := Hour{At: h.At, Verdict: h.Verdict, Why: h.Why, FromDeg: h.Air.FromDeg}
		blow := spray.Blow{}
		if known := p.blow(h.Air); known != nil {
			blow, x.WindMS = *known, &known.MeanMS
		}
		x.Waiting = len(blow.Waiting(p.Out.Passes, p.Out.Settings.Swath, p.sensitive, p.Out.Buffer))
		x.Free = len(p.Out.Passes) - x.Waiting
		switch {
		case x.Waiting > 0 && x.Free == 0:
			x.Verdict = judge.Stop
			x.Why = "Drift from every pass would reach something."
		case x.Waiting > 0:
			x.Verdict = max(x.Verdict, judge.Watch)
			x.Why = fmt.Sprintf("%s cannot be sprayed. %s", passes(x.Waiting), x.Why)
		}
		for _, b := range p.Wish.Label.HoldAir(h.Air.TempC, h.DeltaT) {
			if b.Verdict >= x.Verdict {
				x.Verdict, x.Why = b.Verdict, b.Sentence
			}
		}
		out = append(out, x)
	}
	return out, nil
}

// label is what the label says about the air, as entered in the job and in the plan.
func (p Plan) label() weather.Label {
	l := p.Job.Label
	l.LeastDeltaT, l.MostDeltaT = p.Wish.Label.LeastDeltaT, p.Wish.Label.MostDeltaT
	return l
}

func passes(n int) string {
	if n == 1 {
		return "1 pass"
	}
	return fmt.Sprintf("%d passes", n)
}
