package spraying

import (
	"context"
	"math"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/wayhome"
	"mainstay/internal/jobs"
	"mainstay/internal/platform/fault"
	"mainstay/internal/sites"
)

// Way is how the passes of a plan stand over the site, and how far it comes out and
// back in the wind of now.
type Way struct {
	Findings []judge.Finding
	Relief   *wayhome.Relief // nil: no terrain
	FarM     float64
	Reach    []geo.Point      // out and back, in each direction
	Homes    []energy.CallOut // what the packs must show, by distance
}

// How the reach is drawn.
const (
	reachPoints = 36
	rings       = 4
	ringM       = 50.0 // rings lie at whole multiples of it
)

// along judges the way of a plan as the gate will. Without a pass there is none.
func (s *Service) along(ctx context.Context, p Plan) (*Way, error) {
	way := p.way()
	if way == nil {
		return nil, nil
	}
	out := Way{Findings: []judge.Finding{}, Reach: []geo.Point{}, Homes: []energy.CallOut{}}
	planned := jobs.PlannedFlight{Way: way, HeightM: p.Wish.HeightM + p.Wish.CropM}
	start := p.start
	if f := p.Out.Flown.Sorties; len(f) > 0 {
		if at := p.Ground.place(f[0]); at != nil {
			planned.TakeOff, start = at.ID, p.Ground.Frame.XY(at.Places[0])
		}
	}
	flight := p.Job.Steered(p.Aircraft.ID, planned)
	a, err := s.Sites.WayHome(ctx, p.Job.SiteID, sites.Ask{Aircraft: &p.Aircraft.ID, Flight: flight})
	if f, people := fault.As(err); people {
		out.Findings = append(out.Findings, p.finding(judge.RulePath, judge.Stop,
			"The way of this plan cannot be judged: "+f.Detail))
		return &out, nil
	}
	if err != nil {
		return nil, err
	}
	for _, f := range a.Findings {
		f.Remedy = &judge.Remedy{Kind: judge.OpenWayHome, ID: p.Job.SiteID.String()}
		if len(f.Decide) > 0 {
			f.Remedy = &judge.Remedy{Kind: judge.DecideInJob, ID: p.Job.ID.String()}
		}
		out.Findings = append(out.Findings, f)
	}
	out.Relief, out.FarM = a.Relief, a.FarM
	return &out, p.reach(&out, start, a.ShownM)
}

// reach works out how far it comes out and back, and what the packs must show on the
// way, full as the next flight takes off. Where the energy cannot be worked out,
// nothing is drawn: the gate says why.
func (p Plan) reach(out *Way, start geo.XY, returnM float64) error {
	g := p.given
	back := energy.Return{MassKg: g.DryKg, Rho: g.Rho, ReturnM: returnM, Wind: g.Wind}
	if f := p.Out.Flown.Sorties; len(f) > 0 {
		back.MassKg = f[0].TakeOffKg
	}
	least := math.Inf(1)
	for i := range reachPoints {
		b := float64(i) * 360 / reachPoints
		d, err := g.Model.Radius(back, b, g.UsableWh)
		if err != nil {
			out.Reach = []geo.Point{}
			return nil //nolint:nilerr // drawn only where it is known
		}
		least = min(least, d)
		sin, cos := math.Sincos(b * math.Pi / 180)
		out.Reach = append(out.Reach, p.Ground.Frame.Point(start.Add(geo.XY{X: sin * d, Y: cos * d})))
	}
	up := func(m float64) float64 { return max(ringM, math.Ceil(m/ringM)*ringM) }
	step, far := up(max(least, out.FarM)/rings), up(out.FarM)
	at := []float64{far} // of the farthest pass, and on to where it can no longer come back
	for k := 1.0; k <= rings; k++ {
		if k*step > far+step*0.75 { // two words have room
			at = append(at, k*step)
		}
	}
	back.Wind.Against = true // whichever way it comes home
	out.Homes, _ = g.Model.CallOuts(back, p.store, float64(p.Type.Limits.LandByPercent), at)
	return nil
}
