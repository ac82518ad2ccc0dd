package spraying

import (
	"context"
	"fmt"
	"time"

	"mainstay/core/judge"
	"mainstay/core/spray"
	"mainstay/core/units"
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
	sky, err := s.Sites.SkyOver(ctx, p.Job.SiteID, sites.AskSky{Aircraft: &p.Aircraft.ID, Work: weather.Spraying, Ground: string(wind.Crops)})
	if err != nil {
		return out, err
	}
	height := 2.0
	if p.Job.Label.HeightM != nil {
		height = *p.Job.Label.HeightM
	}
	for _, h := range sky.Hours {
		x := Hour{At: h.At, Verdict: h.Verdict, Why: h.Why, FromDeg: h.Air.FromDeg}
		blow := spray.Blow{FromDeg: h.Air.FromDeg}
		if h.Air.WindMS != nil {
			at, err := wind.Scale(units.MetresPerSecond(*h.Air.WindMS), nil, units.Metres(h.Air.WindHeightM), units.Metres(height), wind.Crops)
			if err == nil {
				v := float64(at.Steady)
				blow.MeanMS, x.WindMS = v, &v
			}
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
		if b := p.Wish.Label.HoldAir(h.Air.TempC, h.DeltaT); len(b) > 0 {
			x.Verdict, x.Why = judge.Stop, b[0].Sentence
		}
		out = append(out, x)
	}
	return out, nil
}

func passes(n int) string {
	if n == 1 {
		return "1 pass"
	}
	return fmt.Sprintf("%d passes", n)
}
