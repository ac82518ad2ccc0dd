package missions

import (
	"context"
	"fmt"
	"time"

	"mainstay/core/energy"
	"mainstay/core/inspect"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/mass"
	"mainstay/core/site"
	"mainstay/core/sun"
	"mainstay/core/survey"
	"mainstay/core/weather"
	"mainstay/internal/planning"
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
		p.Broken = append(p.Broken, judge.Broken{Wish: "area", Verdict: judge.Stop,
			Sentence: "The map has changed since this was planned. Look at it, and save the plan again."})
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
			p.Broken = append(p.Broken, judge.Broken{Wish: "area", Verdict: judge.Stop,
				Sentence: fmt.Sprintf("Flight %d does not come home: %s.", i+1, cannot)})
		}
	}
}

// enough says where a flight that is kept needs more than the packs give now.
func (p *Plan) enough(number int, needWh, usableWh float64) {
	if p.flown(number) == nil && needWh > usableWh {
		p.Broken = append(p.Broken, judge.Broken{Wish: "area", Verdict: judge.Stop,
			Sentence: fmt.Sprintf("Flight %d needs %.0f Wh in the air of now; the packs give %.0f. Save the plan again, so that it is divided anew.",
				number, needWh, usableWh)})
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
	j, err := s.Sites.ForJob(ctx, p.Job.SiteID, sites.JobAsk{JobID: p.Job.ID.String(), Type: p.Type, Flight: flight,
		From: p.Job.FromAt, To: p.Job.ToAt, Zone: crew.Location()})
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
	out.survey = survey.Given{Terrain: p.Ground.Chart.Terrain, Start: p.Ground.Start, Places: p.Ground.Places,
		Camera: camera, PictureM: mb, Canopies: inUse(p.Canopies), Wing: p.winged(), MassKg: kg, Rho: rho,
		Model: carries.Model, UsableWh: carries.UsableWh, FullWh: carries.Store.FullWh, Reserve: reserve, ReturnM: returnM,
		Wind: p.Ground.Wind}
	out.inspect = inspect.Given{Start: p.Ground.Start, Camera: camera, PictureM: mb, MassKg: kg, Rho: rho,
		Model: carries.Model, UsableWh: carries.UsableWh, FullWh: carries.Store.FullWh, Reserve: reserve, ReturnM: returnM,
		Wind: p.Ground.Wind, WindKnown: !p.Ground.Wind.Against}
	if ceiling > 0 {
		out.survey.CeilingM, out.inspect.CeilingM = &ceiling, &ceiling
	}
	if l := p.Ground.Law; l.StructureOver > 0 {
		out.inspect.OverTopM, out.inspect.WithinM = &l.StructureOver, l.StructureWithin
	}
	p.lay(&out)
	return out, nil
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
var fields = planning.Fields{Of: []error{survey.ErrInput, inspect.ErrInput}, Else: "wish",
	By: map[string]string{"ground resolution": "gsd_cm", "height": "height_m", "side overlap": "side",
		"front overlap": "front", "speed": "speed_ms", "shutter": "shutter", "buffer": "buffer_m", "bearing": "bearing_deg",
		"turn": "turn_m", "lead-in": "lead_m", "card": "card_gb", "width": "width_m", "the canopy": "canopy",
		"lowest": "from_m", "radius": "radius_m", "pitch": "pitch_deg", "facing": "faces_deg", "detail": "detail_mm",
		"safe distance": "safe_m", "stand-off": "energised_m", "overlap sideways": "sideways", "overlap upwards": "upwards",
		"sensor width": "sensor_w_mm", "sensor height": "sensor_h_mm", "focal length": "focal_mm",
		"picture width": "pixels_w", "picture height": "pixels_h", "least interval": "least_s"}}
