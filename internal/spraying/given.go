package spraying

import (
	"context"
	"math"
	"slices"

	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mass"
	"mainstay/core/site"
	"mainstay/core/spray"
	"mainstay/core/units"
	"mainstay/core/weather"
	"mainstay/core/wind"
	"mainstay/internal/planning"
	"mainstay/internal/platform/fault"
	"mainstay/internal/sites"
)

// Ground is what a plan is drawn on.
type Ground struct {
	Frame   geo.Frame
	Field   site.Feature
	Fields  []site.Feature // that there are to choose from
	TakeOff *site.Feature  // nil: none on the map
	Places  []site.Feature // the take-off places of the map
	Refills []site.Feature // those of the wish besides TakeOff
	Things  []site.Feature
	Air     *weather.Assessment // newest; nil: none
	Wind    *energy.Wind        // on the way home, as taken
	Blow    *spray.Blow         // at the nozzles; nil: not known
	Assumed []string
}

// Usual values where nobody knows better.
const (
	usualRho      = 1.1 // kg/m3: a warm day at 300 m
	usualReturnM  = 30.0
	obstacleClear = 3.0 // m around what stands higher than the aircraft flies, at least
)

// given is what is known for a plan; what had to be assumed is in its ground.
func (s *Service) given(ctx context.Context, p *Plan) (spray.Given, error) {
	var g spray.Given
	flight := intent.Flight{Work: p.Job.Work}
	for _, c := range p.Job.Aircraft {
		if c.AircraftID == p.Aircraft.ID {
			flight.ReturnM = c.ReturnM
		}
	}
	if p.Job.TakeOffID != nil {
		flight.TakeOff = p.Job.TakeOffID.String()
	}
	crew, _, err := s.Jobs.People.Crew(ctx)
	if err != nil {
		return g, err
	}
	judged, err := s.Sites.ForJob(ctx, p.Job.SiteID, sites.JobAsk{JobID: p.Job.ID.String(), Type: p.Type, Flight: flight,
		From: p.Job.FromAt, To: p.Job.ToAt, Zone: crew.Location(), Label: p.label()})
	if err != nil {
		return g, err
	}
	p.Ground = Ground{Frame: judged.Frame, Things: judged.Things, Air: judged.Air, Assumed: []string{}}
	if err := p.field(&g, flight.TakeOff); err != nil {
		return g, err
	}
	p.air(&g, judged)
	carries, err := s.Planning.Carries(ctx, p.Aircraft.ID, p.Type, p.tempC)
	if err != nil {
		return g, err
	}
	p.store, g.UsableWh, g.Model = carries.Store, carries.UsableWh, carries.Model
	p.Ground.Assumed = append(p.Ground.Assumed, carries.Assumed...)
	load, _, err := s.Fleet.Load(ctx, p.Aircraft.ID)
	if err != nil {
		return g, err
	}
	p.weight(&g, judged, load)
	if p.Wish.Nozzle != "" && !p.Wish.Granules {
		if g.Nozzle, err = s.nozzle(ctx, p.Wish.Nozzle); err != nil {
			return g, err
		}
	}
	return g, nil
}

// field finds the field of the wish, what is kept out of it, and where it starts.
func (p *Plan) field(g *spray.Given, takeOff string) error {
	for _, f := range p.Ground.Things {
		if f.Kind == site.Work {
			p.Ground.Fields = append(p.Ground.Fields, f)
			if p.Wish.Field == f.ID || p.Wish.Field == "" && p.Ground.Field.ID == "" {
				p.Ground.Field = f
			}
		}
		if f.Kind == site.TakeOff {
			p.Ground.Places = append(p.Ground.Places, f)
		}
		if f.Kind == site.TakeOff && (takeOff == f.ID || takeOff == "" && (p.Ground.TakeOff == nil || f.Main)) {
			p.Ground.TakeOff = &f
		}
	}
	switch {
	case len(p.Ground.Fields) == 0:
		return fault.Clash("no-field", "There is no area on the map of %s: draw the field there, or bring its file.",
			p.Job.Site)
	case p.Ground.Field.ID == "":
		return fault.Bad("field", "This field is not on the map of the site any more. Choose another.")
	}
	frame := p.Ground.Frame
	g.Field.Outline = frame.All(p.Ground.Field.Places)
	for _, h := range p.Ground.Field.Holes {
		g.Field.KeepOuts = append(g.Field.KeepOuts, spray.KeepOut{Name: "a hole of the field", Area: true,
			Places: frame.All(h)})
	}
	for _, f := range p.Ground.Things {
		places := frame.All(f.Places)
		switch {
		case f.Kind == site.NoGo:
			g.Field.KeepOuts = append(g.Field.KeepOuts, spray.KeepOut{Name: f.Name, Area: true, Places: places,
				BufferM: f.BufferM})
		case f.Kind == site.Obstacle || f.Kind == site.Wires:
			if p.above(f) {
				continue
			}
			g.Field.KeepOuts = append(g.Field.KeepOuts, spray.KeepOut{Name: f.Name, Area: f.Shape == site.Area, Places: places,
				BufferM: max(f.BufferM, obstacleClear)})
		case f.Kind == site.Sensitive:
			g.Sensitive = append(g.Sensitive, spray.Sensitive{ID: f.ID, Name: f.Name, Places: places,
				Area: f.Shape == site.Area})
		}
	}
	if p.Ground.TakeOff == nil {
		p.Ground.Assumed = append(p.Ground.Assumed, "no take-off place: the middle of the field")
		lo, hi := corners(g.Field.Outline)
		g.Start = lo.Add(hi).Times(0.5)
		return nil
	}
	g.Start = frame.XY(p.Ground.TakeOff.Places[0])
	for _, id := range p.Wish.Refills {
		i := slices.IndexFunc(p.Ground.Places, func(f site.Feature) bool { return f.ID == id })
		if i < 0 {
			return fault.Bad("refills", "A place for refilling is not on the map of the site any more. Choose again.")
		}
		if id != p.Ground.TakeOff.ID {
			p.Ground.Refills = append(p.Ground.Refills, p.Ground.Places[i])
			g.Refills = append(g.Refills, frame.XY(p.Ground.Places[i].Places[0]))
		}
	}
	return nil
}

// place is where a flight of the plan takes off and lands; nil: none is on the map.
func (g Ground) place(f spray.Sortie) *site.Feature {
	if f.Start > 0 && f.Start <= len(g.Refills) {
		return &g.Refills[f.Start-1]
	}
	return g.TakeOff
}

func corners(r geo.Ring) (lo, hi geo.XY) {
	lo, hi = r[0], r[0]
	for _, q := range r {
		lo, hi = geo.XY{X: min(lo.X, q.X), Y: min(lo.Y, q.Y)}, geo.XY{X: max(hi.X, q.X), Y: max(hi.Y, q.Y)}
	}
	return lo, hi
}

// above reports whether the aircraft passes over something as it does over the crop:
// wires of a trellis are part of it. A height that nobody knows is never passed over.
func (p *Plan) above(f site.Feature) bool {
	return f.HeightM != nil && *f.HeightM+2*f.SigmaM+intent.LeastSprayingM <= p.Wish.CropM+p.Wish.HeightM
}

// air is the air and the wind: at the nozzles, and on the way home.
func (p *Plan) air(g *spray.Given, j sites.Judged) {
	g.Rho, g.ReturnM = usualRho, usualReturnM
	if j.ShownM != nil {
		g.ReturnM = *j.ShownM
	}
	if j.Air == nil || j.Air.DensityKgM3 == nil {
		p.Ground.Assumed = append(p.Ground.Assumed, "no weather: a warm day")
	} else {
		g.Rho = *j.Air.DensityKgM3
	}
	if j.Air != nil {
		p.tempC, p.deltaT = j.Air.Air.TempC, j.Air.DeltaT
	}
	var now weather.Air
	if j.Air != nil {
		now = j.Air.Air
	}
	var assumed string
	if g.Wind, assumed = planning.HomeWind(p.Type, now, g.ReturnM); assumed != "" {
		p.Ground.Assumed = append(p.Ground.Assumed, assumed)
	}
	g.Blow = p.blow(now)
	p.Ground.Wind, p.Ground.Blow = &g.Wind, g.Blow
}

// usualNozzleM is the height of the nozzles above ground where no label names one.
const usualNozzleM = float64(wind.HandHeight)

// blow is the air as drift follows it at the height that the label names; the weakest
// that the wind may be decides whether drift goes all round. nil is not known.
func (p Plan) blow(a weather.Air) *spray.Blow {
	if a.WindMS == nil {
		return nil
	}
	height := usualNozzleM
	if p.Job.Label.HeightM != nil {
		height = *p.Job.Label.HeightM
	}
	w, err := wind.Scale(units.MetresPerSecond(a.Least()), nil, units.Metres(a.WindHeightM), units.Metres(height),
		wind.Ground(a.Ground))
	if err != nil {
		return nil
	}
	return &spray.Blow{MeanMS: float64(w.Steady), FromDeg: a.FromDeg, VariesFrom: a.VariesFrom, VariesTo: a.VariesTo}
}

// weight is what it weighs dry, and what it may take off with today.
func (p *Plan) weight(g *spray.Given, j sites.Judged, dry airframe.Load) {
	g.TankL, g.MostKg = p.Type.TankL, float64(p.Type.Limits.TakeoffMassKg)
	if j.LiftKg != nil && *j.LiftKg > 0 {
		g.MostKg = math.Min(g.MostKg, *j.LiftKg)
	}
	items, ok := p.Type.Items(dry)
	switch sum, err := mass.Add(items); {
	case p.Wish.DryKg != nil:
		g.DryKg = *p.Wish.DryKg
	case ok && err == nil:
		g.DryKg = sum.Kg
	default:
		g.DryKg = max(0.1, float64(p.Type.Limits.TakeoffMassKg)-p.Type.TankL*p.Wish.KgPerL)
		p.Ground.Assumed = append(p.Ground.Assumed, "never weighed dry: the type's greatest mass less a full tank")
	}
}
