package spray

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/judge"
)

// Direction is how the strips of a field lie.
type Direction string

// The directions.
const (
	Best     Direction = "best"      // fewest passes
	Along    Direction = "rows"      // along the rows: BearingDeg
	IntoWind Direction = "into-wind" // across the wind, so that the passes begin downwind
)

// AllDirections lists them.
var AllDirections = []Direction{Best, Along, IntoWind}

// Wish is how somebody wants to spray a field.
type Wish struct {
	Field      string    `json:"field"` // id of the area on the site; empty: its only one
	EdgeM      float64   `json:"edge_m"`
	Settings             // rate, speed, swath, flow
	Unknown    Unknown   `json:"unknown"`
	Direction  Direction `json:"direction"`
	BearingDeg float64   `json:"bearing_deg"`
	HeightM    float64   `json:"height_m"` // over the crop
	CropM      float64   `json:"crop_m"`   // height of the crop
	Sections   int       `json:"sections"`
	Edges      bool      `json:"edges"`
	WholePass  bool      `json:"whole_pass"`
	EndAtStart bool      `json:"end_at_start"`
	Nozzle     string    `json:"nozzle"` // key; empty: granules, or not chosen
	Nozzles    int       `json:"nozzles"`
	Granules   bool      `json:"granules"` // spread, kg: rates are kg/ha, the tank a hopper
	Mix        []Product `json:"mix"`      // in the order of mixing that the label gives
	Number     string    `json:"number"`   // registration number of the product
	Label      Label     `json:"label"`
	KgPerL     float64   `json:"kg_per_l"` // of the mix; of granules as they lie in the hopper
	TankL      float64   `json:"tank_l"`   // that is filled at most, kg of granules; 0: what the tank holds
	TurnS      float64   `json:"turn_s"`
	Refills    []string  `json:"refills,omitempty"` // ids of take-off places besides the job's, where it may be filled
	DryKg      *float64  `json:"dry_kg"`            // take-off mass without the mix, as weighed; nil: from the type's file
}

// Defaults are what a wish begins with.
func Defaults() Wish {
	return Wish{Settings: Settings{Rate: 20, Speed: 6, Swath: 6}, Unknown: UnknownFlow, Direction: Best, HeightM: 2.5,
		Sections: 1, WholePass: true, Nozzles: 4, Mix: []Product{}, KgPerL: 1, TurnS: 6}
}

// Given is what is known about field, aircraft and air.
type Given struct {
	Field     Field
	Start     geo.XY
	Refills   []geo.XY
	Sensitive []Sensitive
	Nozzle    *Nozzle // of the wish; nil: not on the list
	TankL     float64
	DryKg     float64
	MostKg    float64
	Rho       float64
	Model     energy.Model
	UsableWh  float64
	ReturnM   float64
	Wind      energy.Wind // on the way home
	Blow      *Blow       // at the nozzles now; nil: not known
	Sprayed   []Sprayed
}

// Plan is a wish worked out.
type Plan struct {
	Settings   Settings      `json:"settings"`
	BearingDeg float64       `json:"bearing_deg"`
	NozzleLPM  float64       `json:"nozzle_l_min"` // of one
	Bar        float64       `json:"bar"`          // at which it gives that; 0 without a nozzle
	Passes     []Pass        `json:"passes"`
	FieldHa    float64       `json:"field_ha"` // inside the outline
	AreaHa     float64       `json:"area_ha"`  // that may be sprayed
	OnceHa     float64       `json:"once_ha"`  // that is reached
	TwiceHa    float64       `json:"twice_ha"`
	DoneHa     float64       `json:"done_ha"` // sprayed already
	Flown      Flown         `json:"flown"`
	Loads      []Load        `json:"loads"` // of each sortie
	Waiting    []Waits       `json:"waiting"`
	Buffer     float64       `json:"buffer_m"` // downwind, that was held
	Broken     []Broken      `json:"broken"`
	Verdict    judge.Verdict `json:"verdict"`
}

// Make works a wish out. Errors wrap ErrInput and are about figures that cannot be;
// what cannot be flown, sprayed or allowed is in Broken, with the nearest value that
// can.
func Make(w Wish, g Given) (Plan, error) {
	p := Plan{Passes: []Pass{}, Loads: []Load{}, Waiting: []Waits{}, Broken: []Broken{},
		FieldHa: math.Abs(g.Field.Outline.Area()) / 1e4}
	s, err := w.Settings.Solve(w.Unknown)
	if g.Nozzle != nil {
		err = errors.Join(err, g.Nozzle.Check())
	}
	if err = errors.Join(err, w.check()); err != nil {
		return p, err
	}
	p.Settings = s
	p.hold(w, g, s)
	pattern := Pattern{SwathM: s.Swath, Sections: w.Sections, Edges: w.Edges}
	g.Field.EdgeM = w.EdgeM
	if pattern.BearingDeg, err = w.bearing(g, pattern); err != nil {
		return p, err
	}
	p.BearingDeg = pattern.BearingDeg
	c, err := g.Field.Passes(pattern)
	if err != nil {
		return p, err
	}
	p.Passes = append(p.Passes, c.Passes...)
	p.AreaHa, p.OnceHa, p.TwiceHa = c.AreaM2/1e4, c.OnceM2/1e4, c.TwiceM2/1e4
	p.reach(w, g, c)
	if err := p.fly(w, g, s, c); err != nil {
		return p, err
	}
	p.drift(w, g, s)
	for _, b := range p.Broken {
		p.Verdict = max(p.Verdict, b.Verdict)
	}
	return p, nil
}

func (w Wish) check() error {
	var err error
	for _, x := range w.Mix {
		err = errors.Join(err, x.Check())
	}
	known := false
	for _, d := range AllDirections {
		known = known || d == w.Direction
	}
	if !known {
		err = errors.Join(err, refuse("%q is none of %v", w.Direction, AllDirections))
	}
	return errors.Join(err, within("edge", w.EdgeM, 0, MostBuffer), within("height over the crop", w.HeightM, 0.5, 30),
		within("height of the crop", w.CropM, 0, 60), within("sections", float64(w.Sections), 1, 16),
		within("bearing", w.BearingDeg, 0, 360), within("tank", w.TankL, 0, 1000))
}

func (w Wish) bearing(g Given, p Pattern) (float64, error) {
	switch w.Direction {
	case Along:
		return w.BearingDeg, nil
	case IntoWind:
		if g.Blow == nil || g.Blow.FromDeg == nil {
			return g.Field.BestBearing(p) // no wind to turn into; hold says so
		}
		return math.Mod(*g.Blow.FromDeg+90, 180), nil
	}
	return g.Field.BestBearing(p)
}

func (p *Plan) say(wish string, v judge.Verdict, nearest *float64, format string, a ...any) {
	p.Broken = append(p.Broken, broken(wish, v, fmt.Sprintf(format, a...), nearest))
}

// hold holds what was chosen against label, nozzles and mix.
func (p *Plan) hold(w Wish, g Given, s Settings) {
	p.Broken = append(p.Broken, w.Label.Hold(s.Rate, UnitOf(w.Granules))...)
	if w.Edges && w.Label.MostRate != nil && !(2*s.Rate <= *w.Label.MostRate) {
		p.say("edges", judge.Watch, nil, "Where a pass along an edge overlaps, %g go on each hectare; the label allows %g.",
			2*s.Rate, *w.Label.MostRate)
	}
	switch {
	case w.Granules:
	case g.Nozzle == nil:
		p.say("nozzle", judge.Watch, nil, "Which nozzles are fitted is not chosen: whether they give this flow is not known.")
	default:
		p.Broken = append(p.Broken, s.HoldNozzles(*g.Nozzle, w.Nozzles)...)
		if w.Nozzles > 0 {
			p.NozzleLPM = s.Need(w.Nozzles)
			p.Bar = g.Nozzle.Pressure(p.NozzleLPM)
		}
	}
	if len(w.Mix) == 0 {
		p.say("mix", judge.Watch, nil, "Which product is used, and how much, is not entered: loads are water only.")
	}
	if w.Granules {
		p.holdGranules(w, s)
	} else if _, err := LoadOf(1, s.Rate, w.Mix); err != nil {
		least := 0.0
		for _, x := range w.Mix {
			if x.Unit == "L" {
				least += x.PerHa / (1 - min(0.99, x.Percent/100))
			}
		}
		p.say("rate", judge.Stop, &least, "The products alone are more than %g L on each hectare.", s.Rate)
	}
	if w.Direction == IntoWind && (g.Blow == nil || g.Blow.FromDeg == nil) {
		p.say("direction", judge.Watch, nil, "Where the wind comes from is not known: the strips lie for the fewest passes.")
	}
	if w.Label.BufferM == nil && len(g.Sensitive) > 0 {
		p.say("label", judge.Watch, nil,
			"The distance that the label asks for to what is sensitive is not entered; %g m are held.", UsualBufferM)
	}
}

// reach says what of the field is not sprayed.
func (p *Plan) reach(w Wish, g Given, c *Cover) {
	switch {
	case len(c.Passes) == 0 && c.AreaM2 <= 0:
		p.say("edge_m", judge.Stop, ptr(0), "Nothing of the field is left inside edge and keep-outs.")
	case len(c.Passes) == 0:
		p.say("swath_m", judge.Stop, nil,
			"No pass fits: the field is nowhere one swath of %g m wide inside edge and keep-outs.", w.Swath)
	case c.OnceM2 < 0.98*c.AreaM2:
		more := "Switch sections alone, or add passes along the edges."
		if w.Edges {
			more = "What is left lies in corners; spray it by hand or leave it."
		}
		p.say("edges", judge.Watch, nil, "%.2f of %.2f ha are not reached, since nothing outside is sprayed. %s",
			p.AreaHa-p.OnceHa, p.AreaHa, more)
	}
}

// fly divides the passes into sorties and loads.
func (p *Plan) fly(w Wish, g Given, s Settings, c *Cover) error {
	if len(c.Passes) == 0 {
		p.Flown = Flown{Sorties: []Sortie{}, Broken: []Broken{}}
		return nil
	}
	tank, kgPerL := g.TankL, w.KgPerL
	if w.Granules { // by the kilogram: the hopper takes its litres of them
		tank, kgPerL = tank*kgPerL, 1
	}
	if w.TankL > 0 {
		tank = min(tank, w.TankL)
	}
	work := Work{Cover: c, Settings: s, Start: g.Start, Refills: g.Refills, Sprayed: g.Sprayed, TankL: tank,
		Granules: w.Granules, KgPerL: kgPerL, DryKg: g.DryKg, MostKg: g.MostKg, TurnS: w.TurnS, ReturnM: g.ReturnM,
		HeightM: w.HeightM + w.CropM, Rho: g.Rho, Wind: g.Wind, Model: g.Model, UsableWh: g.UsableWh, WholePass: w.WholePass,
		EndAtStart: w.EndAtStart}
	f, err := work.Fly()
	if err != nil {
		return err
	}
	p.Flown = f
	p.Broken = append(p.Broken, f.Broken...)
	left := 0.0
	for _, x := range f.Sorties {
		left += x.AreaM2
		l, err := LoadOf(x.AreaM2/1e4, s.Rate, w.Mix)
		if w.Granules {
			l, err = HopperOf(x.AreaM2/1e4, s.Rate, w.Mix), nil
		}
		if err != nil {
			l = Load{Litres: x.Litres, Ha: x.AreaM2 / 1e4, Amounts: []float64{}} // hold says that the mix does not fit
		}
		p.Loads = append(p.Loads, l)
	}
	if len(f.Sorties) > 0 || len(f.Broken) == 0 {
		p.DoneHa = max(0, c.OpenedM2-left) / 1e4
	}
	return nil
}

// drift finds the passes that wait for another wind.
func (p *Plan) drift(w Wish, g Given, s Settings) {
	p.Buffer = UsualBufferM
	if w.Label.BufferM != nil {
		p.Buffer = *w.Label.BufferM
	}
	if len(g.Sensitive) == 0 {
		return
	}
	blow := Blow{}
	if g.Blow != nil {
		blow = *g.Blow
	}
	p.Waiting = blow.Waiting(p.Passes, s.Swath, g.Sensitive, p.Buffer)
	if n := len(p.Waiting); n > 0 {
		p.say("wind", judge.Watch, nil, "%s for another wind: drift would come within %g m of %s.", waitWords(n), p.Buffer,
			p.Waiting[0].Reaches)
	}
}

func waitWords(n int) string {
	if n == 1 {
		return "1 pass waits"
	}
	return fmt.Sprintf("%d passes wait", n)
}
