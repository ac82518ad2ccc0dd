package missions

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"
	"time"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/inspect"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/mass"
	"mainstay/core/site"
	"mainstay/core/sun"
	"mainstay/core/survey"
	"mainstay/core/wayhome"
	"mainstay/core/weather"
	"mainstay/internal/planning"
	"mainstay/internal/platform/fault"
	"mainstay/internal/sites"
)

// Ground is what a plan is drawn on.
type Ground struct {
	sites.Ground
	Feature site.Feature   // of the wish
	Choose  []site.Feature // that there are to choose from
	Start   survey.Place   // of the job
	Places  []survey.Place
	Air     *weather.Assessment
	Wind    energy.Wind
	Assumed []string
}

// Values that are taken where nobody knows better.
const (
	usualRho     = 1.1 // kg/m3: a warm day at 300 m
	usualReturnM = 40.0
)

// Light is where the sun stands at a time of the job, and how light it is.
type Light struct {
	At           time.Time `json:"at"`
	ElevationDeg float64   `json:"elevation_deg"`
	Low          bool      `json:"low"` // under 30 degrees: long shadows
}

// work works a wish out with what is known now. Anew lays it out again; else its flights
// stay, and are only held against what is known now.
func (s *Service) work(ctx context.Context, p *Plan, anew bool) error {
	g, err := s.given(ctx, p)
	if err != nil {
		return err
	}
	p.given = g
	kept := p.Out
	now, err := g.out(p.Wish)
	if err != nil {
		return fields.Refused(err)
	}
	if anew {
		p.Out = now
	}
	switch {
	case p.Out.Survey != nil:
		p.Broken = append(p.Broken, now.Survey.Broken...)
		if !anew {
			p.hold(g, kept.Survey)
		}
	case p.Out.Inspect != nil:
		p.Broken = append(p.Broken, now.Inspect.Broken...)
		if !anew {
			p.holdStops(g)
		}
	}
	if !anew && p.basis != p.Ground.basis() {
		p.Broken = append(p.Broken, judge.Broken{Wish: "area", Verdict: judge.Stop, Sentence: "The map has changed since this was planned. Look at it, and save the plan again."})
	}
	p.sun()
	return nil
}

// hold holds flights that are kept against the packs, in the air of now.
func (p *Plan) hold(g given, kept *survey.Plan) {
	again := *kept
	again.Flights = nil
	for i, f := range kept.Flights {
		if f.Part < 0 || f.Part >= len(kept.Parts) {
			continue
		}
		one, err := kept.Again(f, *p.Wish.Survey, g.survey)
		if err != nil {
			continue // the plan of now says what is wrong
		}
		again.Flights = append(again.Flights, one)
		p.enough(i+1, one.Wh, g.survey.UsableWh)
	}
	if len(again.Flights) == len(kept.Flights) {
		p.Out.Survey = &again
	}
}

// holdStops does the same for an inspection.
func (p *Plan) holdStops(g given) {
	for i, f := range p.Out.Inspect.Flights {
		one, cannot, err := p.Out.Inspect.Reckon(f, *p.Wish.Inspect, g.inspect)
		if err != nil {
			continue // the plan of now says what is wrong
		}
		p.Out.Inspect.Flights[i] = one
		p.enough(i+1, one.Wh, g.inspect.UsableWh)
		if cannot != "" && p.flown(i+1) == nil {
			p.Broken = append(p.Broken, judge.Broken{Wish: "area", Verdict: judge.Stop, Sentence: fmt.Sprintf("Flight %d does not come home: %s.", i+1, cannot)})
		}
	}
}

// enough says where a flight that is kept needs more than the packs give now.
func (p *Plan) enough(number int, needWh, usableWh float64) {
	if p.flown(number) == nil && needWh > usableWh {
		p.Broken = append(p.Broken, judge.Broken{Wish: "area", Verdict: judge.Stop, Sentence: fmt.Sprintf("Flight %d needs %.0f Wh in the air of now; the packs give %.0f. Save the plan again, so that it is divided anew.", number, needWh, usableWh)})
	}
}

// given is what both kinds of plan are worked out from.
type given struct {
	survey  survey.Given
	inspect inspect.Given
}

func (g given) out(w Wish) (Out, error) {
	if w.Survey != nil {
		out, err := survey.Make(*w.Survey, g.survey)
		return Out{Survey: &out}, err
	}
	out, err := inspect.Make(*w.Inspect, g.inspect)
	return Out{Inspect: &out}, err
}

func (s *Service) given(ctx context.Context, p *Plan) (given, error) {
	var out given
	var err error
	if p.Canopies, err = s.CanopyList(ctx); err != nil {
		return out, err
	}
	if p.Cameras, err = s.CameraList(ctx); err != nil {
		return out, err
	}
	flight := intent.Flight{Work: p.Job.Work}
	for _, c := range p.Job.Aircraft {
		if c.AircraftID == p.Aircraft.ID {
			flight.ReturnM = c.ReturnM
		}
	}
	if p.Job.TakeOffID != nil {
		flight.TakeOff = p.Job.TakeOffID.String()
	}
	if p.Ground.Ground, err = s.Sites.Ground(ctx, p.Job.SiteID); err != nil {
		return out, err
	}
	crew, _, err := s.Jobs.People.Crew(ctx)
	if err != nil {
		return out, err
	}
	j, err := s.Sites.ForJob(ctx, p.Job.SiteID, sites.JobAsk{JobID: p.Job.ID.String(), Type: p.Type, Flight: flight, From: p.Job.FromAt, To: p.Job.ToAt, Zone: crew.Location()})
	if err != nil {
		return out, err
	}
	if err := p.choose(); err != nil {
		return out, err
	}
	p.places(flight.TakeOff)
	rho, returnM := usualRho, usualReturnM
	if j.ShownM != nil {
		returnM = *j.ShownM
	}
	var now weather.Air
	var tempC *float64
	if p.Ground.Air = j.Air; j.Air != nil {
		now, tempC = j.Air.Air, j.Air.Air.TempC
		if j.Air.DensityKgM3 != nil {
			rho = *j.Air.DensityKgM3
		}
	}
	if j.Air == nil || j.Air.DensityKgM3 == nil {
		p.Ground.Assumed = append(p.Ground.Assumed, "no weather: a warm day")
	}
	var assumed string
	if p.Ground.Wind, assumed = planning.HomeWind(p.Type, now, returnM); assumed != "" {
		p.Ground.Assumed = append(p.Ground.Assumed, assumed)
	}
	carries, err := s.Planning.Carries(ctx, p.Aircraft.ID, p.Type, tempC)
	if err != nil {
		return out, err
	}
	p.Ground.Assumed = append(p.Ground.Assumed, carries.Assumed...)
	load, _, err := s.Fleet.Load(ctx, p.Aircraft.ID)
	if err != nil {
		return out, err
	}
	kg := float64(p.Type.Limits.TakeoffMassKg)
	if items, ok := p.Type.Items(load); ok {
		if sum, err := mass.Add(items); err == nil {
			kg = sum.Kg
		}
	} else {
		p.Ground.Assumed = append(p.Ground.Assumed, "never weighed: the type's greatest mass")
	}
	ceiling := p.Ground.Law.HeightM
	p.UsableWh = carries.UsableWh
	reserve := float64(p.Type.Limits.LandByPercent)
	camera, mb := p.camera()
	out.survey = survey.Given{Terrain: p.Ground.Chart.Terrain, Start: p.Ground.Start, Places: p.Ground.Places, Camera: camera, PictureM: mb, Canopies: inUse(p.Canopies), Wing: p.winged(), MassKg: kg, Rho: rho,
		Model: carries.Model, UsableWh: carries.UsableWh, FullWh: carries.Store.FullWh, Reserve: reserve, ReturnM: returnM, Wind: p.Ground.Wind}
	out.inspect = inspect.Given{Start: p.Ground.Start, Camera: camera, PictureM: mb, MassKg: kg, Rho: rho, Model: carries.Model, UsableWh: carries.UsableWh, FullWh: carries.Store.FullWh, Reserve: reserve, ReturnM: returnM, Wind: p.Ground.Wind, WindKnown: !p.Ground.Wind.Against}
	if ceiling > 0 {
		out.survey.CeilingM, out.inspect.CeilingM = &ceiling, &ceiling
	}
	if l := p.Ground.Law; l.StructureOver > 0 {
		out.inspect.OverTopM, out.inspect.WithinM = &l.StructureOver, l.StructureWithin
	}
	p.lay(&out)
	return out, nil
}

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
			forbidden = append(forbidden, survey.Forbidden{Name: x.Name, Places: frame.All(x.Places), Area: x.Shape == site.Area, BufferM: x.Buffer() + wayhome.PositionM})
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
	return append(site.Standing(others, c.Frame, c.Terrain, c.ElevationM), p.noGo()...)
}

// noGo are the areas where nothing flies, at any height.
func (p *Plan) noGo() []home.Obstacle {
	var out []home.Obstacle
	for _, f := range p.Ground.Chart.Features {
		if f.Kind == site.NoGo {
			kind := map[site.Shape]home.Kind{site.Point: home.PointKind, site.Line: home.LineKind, site.Area: home.AreaKind}[f.Shape]
			out = append(out, home.Obstacle{ID: f.ID, Name: f.Name, Kind: kind, Places: p.Ground.Chart.Frame.All(f.Places), BufferM: f.Buffer()})
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
		return fault.Clash("no-field", "Nothing stands on the map of %s: draw what is inspected there as an obstacle.", p.Job.Site)
	case len(p.Ground.Choose) == 0:
		return fault.Clash("no-field", "There is no area and no route on the map of %s: draw it there, or bring its file.", p.Job.Site)
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

// sun is where it stands over the window of the job.
func (p *Plan) sun() {
	p.Sun = []Light{}
	at := p.Ground.Chart.Frame.Origin
	step := max(p.Job.ToAt.Sub(p.Job.FromAt)/8, 15*time.Minute)
	for t := p.Job.FromAt; !t.After(p.Job.ToAt); t = t.Add(step) {
		high, _, err := sun.Position(t, at.Lat, at.Lon)
		if err != nil {
			return
		}
		p.Sun = append(p.Sun, Light{At: t.UTC(), ElevationDeg: high, Low: high < weather.LowSun})
	}
}

// fields are the fields of a wish, of a camera and of what comes after a flight by the names
// that the core gives them.
var fields = planning.Fields{Of: []error{survey.ErrInput, inspect.ErrInput}, Else: "wish", By: map[string]string{"ground resolution": "gsd_cm", "height": "height_m", "side overlap": "side", "front overlap": "front", "speed": "speed_ms", "shutter": "shutter", "buffer": "buffer_m", "bearing": "bearing_deg", "turn": "turn_m", "lead-in": "lead_m", "card": "card_gb", "width": "width_m", "the canopy": "canopy",
	"lowest": "from_m", "radius": "radius_m", "pitch": "pitch_deg", "facing": "faces_deg", "detail": "detail_mm", "safe distance": "safe_m", "stand-off": "energised_m", "overlap sideways": "sideways", "overlap upwards": "upwards",
	"sensor width": "sensor_w_mm", "sensor height": "sensor_h_mm", "focal length": "focal_mm", "picture width": "pixels_w", "picture height": "pixels_h", "least interval": "least_s"}}
