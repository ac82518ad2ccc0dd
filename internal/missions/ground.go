package missions

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/survey"
	"mainstay/core/wayhome"
	"mainstay/internal/platform/fault"
	"slices"
)

// lay puts the feature of the wish into what is worked out from.
func (p *Plan) lay(g *given) {
	frame, f := p.Ground.Chart.Frame, p.Ground.Feature
	if p.Wish.Inspect != nil {
		g.inspect.Places = frame.All(f.Places)
		g.inspect.Line = f.Shape == site.Line
		g.inspect.GroundM, g.inspect.Known = p.Ground.Chart.Elevation(f)
		g.inspect.Stand, g.inspect.OverM, g.inspect.PositionM = p.beside(), intent.LeastOver(p.Type), wayhome.PositionM
		return
	}
	var forbidden []survey.Forbidden
	for _, x := range p.Ground.Chart.Features {
		if x.Kind == site.NoGo {
			forbidden = append(forbidden, survey.Forbidden{Name: x.Name, Places: frame.All(x.Places), Area: x.Shape == site.Area,
				BufferM: x.Buffer() + wayhome.PositionM})
		}
	}
	if f.Shape == site.Line {
		g.survey.Line, g.survey.Forbidden = frame.All(f.Places), forbidden
		return
	}
	a := survey.Area{Outline: frame.All(f.Places), Forbidden: forbidden}
	for _, h := range f.Holes {
		a.LeaveOut = append(a.LeaveOut, frame.All(h))
	}
	g.survey.Area = &a
}

// beside is what stands beside the structure that is inspected, no-go areas among it.
func (p *Plan) beside() []home.Obstacle {
	c := p.Ground.Chart
	var others []site.Feature
	for _, f := range c.Features {
		if f.ID != p.Ground.Feature.ID {
			others = append(others, f)
		}
	}
	return append(site.Standing(others, c.Frame, c.Terrain, c.Reference()), p.noGo()...)
}

// noGo are the areas where nothing flies, at any height.
func (p *Plan) noGo() []home.Obstacle {
	var out []home.Obstacle
	for _, f := range p.Ground.Chart.Features {
		if f.Kind == site.NoGo {
			kind := map[site.Shape]home.Kind{site.Point: home.PointKind, site.Line: home.LineKind,
				site.Area: home.AreaKind}[f.Shape]
			out = append(out, home.Obstacle{ID: f.ID, Name: f.Name, Kind: kind, Places: p.Ground.Chart.Frame.All(f.Places),
				BufferM: f.Buffer()})
		}
	}
	return out
}

// choose finds the feature of the wish: an area or a route of a survey, a structure or
// any obstacle of an inspection.
func (p *Plan) choose() error {
	id := ""
	want := func(f site.Feature) bool {
		return f.Kind == site.Work || f.Kind == site.Route && f.Shape == site.Line
	}
	if p.Wish.Inspect != nil {
		id = p.Wish.Inspect.Feature
		want = func(f site.Feature) bool {
			return f.Kind == site.Obstacle || f.Kind == site.Work || f.Kind == site.Wires
		}
	} else {
		id = p.Wish.Survey.Area
	}
	for _, f := range p.Ground.Chart.Features {
		if !want(f) {
			continue
		}
		p.Ground.Choose = append(p.Ground.Choose, f)
	}
	// An area comes before a route, and what stands before the area round it.
	first := map[bool]site.Kind{true: site.Obstacle, false: site.Work}[p.Wish.Inspect != nil]
	slices.SortStableFunc(p.Ground.Choose, func(a, b site.Feature) int {
		rank := func(f site.Feature) int {
			if f.Kind == first {
				return 0
			}
			return 1
		}
		return rank(a) - rank(b)
	})
	for _, f := range p.Ground.Choose {
		if f.ID == id || id == "" && p.Ground.Feature.ID == "" {
			p.Ground.Feature = f
		}
	}
	switch {
	case len(p.Ground.Choose) == 0 && p.Wish.Inspect != nil:
		return fault.Clash("no-field", "Nothing stands on the map of %s: draw what is inspected there as an obstacle.",
			p.Job.Site)
	case len(p.Ground.Choose) == 0:
		return fault.Clash("no-field", "There is no area and no route on the map of %s: draw it there, or bring its file.",
			p.Job.Site)
	case p.Ground.Feature.ID == "":
		return fault.Bad("area", "What this plan is of is not on the map of the site any more. Choose another.")
	}
	return nil
}

// places are the take-off places of the map, and that of the job.
func (p *Plan) places(takeOff string) {
	c := p.Ground.Chart
	for _, f := range c.Features {
		if f.Kind != site.TakeOff {
			continue
		}
		s := survey.Place{ID: f.ID, Name: f.Name, At: c.Frame.XY(f.Places[0])}
		s.ElevM, s.Known = c.Elevation(f)
		for _, j := range p.Ground.TakeOffs[f.ID] {
			if j.Verdict == judge.Stop {
				s.Why = j.Sentence
			}
		}
		p.Ground.Places = append(p.Ground.Places, s)
	}
	if f := c.Place(takeOff); f != nil {
		for _, s := range p.Ground.Places {
			if s.ID == f.ID {
				p.Ground.Start = s
			}
		}
		return
	}
	p.Ground.Assumed = append(p.Ground.Assumed, "no take-off place: the beginning of what is pictured")
	p.Ground.Start = survey.Place{Name: "nowhere on the map", At: c.Frame.XY(p.Ground.Feature.Places[0])}
	p.Ground.Start.ElevM, p.Ground.Start.Known = c.Elevation(p.Ground.Feature)
}

// basis names what of the map a plan was laid over.
func (g Ground) basis() string {
	h := sha256.New()
	put := func(f site.Feature) {
		fmt.Fprintf(h, "%s %s %.2f\n", f.ID, f.Kind, f.BufferM)
		for _, ring := range append([][]geo.Point{f.Places}, f.Holes...) {
			for _, q := range ring {
				fmt.Fprintf(h, "%.7f %.7f\n", q.Lat, q.Lon)
			}
		}
	}
	put(g.Feature)
	for _, f := range g.Chart.Features {
		if f.Kind == site.NoGo || f.Kind == site.TakeOff {
			put(f)
		}
	}
	if t := g.Chart.Terrain; t != nil {
		fmt.Fprintf(h, "terrain %d %d %.3f %v\n", t.Columns, t.Rows, t.CellM, t.Origin)
	}
	return hex.EncodeToString(h.Sum(nil)[:12])
}
