package survey

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// TurnS is what a turn from line to line takes an aircraft that stops for it, s.
const TurnS = 5.0

// Flight is what is flown on one set of packs.
type Flight struct {
	Part     int             `json:"part"`
	Pieces   []Piece         `json:"pieces"`         // in the order and direction flown
	Ways     [][]home.Place3 `json:"ways,omitempty"` // of each piece where the ground is followed
	Pictures int             `json:"pictures"`
	Seconds  float64         `json:"seconds"`
	Wh       float64         `json:"wh"`
	Percent  float64         `json:"percent"` // of full packs, with the reserve
	LengthM  float64         `json:"length_m"`

	Again     bool    `json:"again"`       // what an earlier one left out
	MostOverM float64 `json:"most_over_m"` // greatest height over the ground where it is followed
}

// fly puts the lines of every part in order and divides them into flights that the packs
// carry.
func (p *Plan) fly(w Wish, g Given) error {
	skip := 1
	if g.Wing && p.LinesM < 2*w.TurnM { // lines nearer than a turn is wide are flown one over the other
		skip = int(math.Ceil(2 * w.TurnM / p.LinesM))
	}
	for i := range p.Parts {
		p.Parts[i].Pieces = InOrder(p.Parts[i].Pieces, skip)
	}
	return p.fillAs(w, g)
}

// fillAs divides the lines of every part, in the order they stand in, into flights.
func (p *Plan) fillAs(w Wish, g Given) error {
	if err := errors.Join(g.Model.Check(), within("mass", g.MassKg, 0.05, 1000),
		within("usable energy", g.UsableWh, 0, 1e6)); err != nil {
		return errors.Join(ErrInput, err)
	}
	for i := range p.Parts {
		x := &p.Parts[i]
		f := &filling{w: w, g: g, p: p, part: i, start: x.TakeOff.At, height: max(0, x.LevelM-x.TakeOff.ElevM)}
		for k := 0; k < len(x.Pieces); k++ {
			if err := f.add(x.Pieces[k]); err != nil {
				return err
			}
		}
		f.close()
		if f.stuck != "" {
			p.say("area", judge.Stop, nil, "%s", f.stuck)
		}
	}
	for _, f := range p.Flights {
		p.Minutes += f.Seconds / 60
	}
	return nil
}

// filling puts pieces into flights until the packs are used.
type filling struct {
	w      Wish
	g      Given
	p      *Plan
	part   int
	start  geo.XY
	height float64 // over take-off
	now    Flight
	whOut  float64 // without the way home
	stuck  string
}

// need is what a flight takes when a piece is added to it.
func (f *filling) need(x Piece) (wh, seconds float64, home energy.Home, err error) {
	from := f.start
	var phases []energy.Phase
	if n := len(f.now.Pieces); n > 0 {
		from = f.now.Pieces[n-1].To
	} else {
		phases = append(phases, energy.Phase{Kind: energy.Climbing, Seconds: f.height / f.g.Model.ClimbMS})
	}
	cruising := f.along(x.From, x.To, f.w.SpeedMS)
	for _, q := range append(slices.Clone(x.Via), x.From) {
		cruising, from = cruising+f.along(from, q, f.g.Model.CruiseMS), q
	}
	if f.g.Wing {
		cruising += (math.Pi*f.w.TurnM + 2*f.w.LeadM) / max(f.w.SpeedMS, 1)
	} else if len(f.now.Pieces) > 0 {
		phases = append(phases, energy.Phase{Kind: energy.Hovering, Seconds: TurnS})
	}
	phases = append(phases, energy.Phase{Kind: energy.Cruising, Seconds: cruising})
	n, err := f.g.Model.Fly(f.g.MassKg, f.g.Rho, phases)
	if err != nil {
		return 0, 0, home, errors.Join(ErrInput, err)
	}
	d := f.start.Sub(x.To)
	home, err = f.g.Model.Home(energy.Return{MassKg: f.g.MassKg, Rho: f.g.Rho, HeightM: f.height, ReturnM: f.g.ReturnM,
		DistanceM: d.Len(), CourseDeg: geo.Turn(math.Atan2(d.X, d.Y) * 180 / math.Pi), Wind: f.g.Wind})
	if err != nil {
		return 0, 0, home, errors.Join(ErrInput, err)
	}
	return n.Wh, n.Seconds, home, nil
}

// along is how long a way takes. A wing keeps its airspeed; others keep their speed over
// the ground.
func (f *filling) along(a, b geo.XY, speed float64) float64 {
	d := b.Sub(a)
	if d.Len() == 0 {
		return 0
	}
	if f.g.Wing {
		if v, ok := f.g.Wind.Over(geo.Turn(math.Atan2(d.X, d.Y)*180/math.Pi), speed); ok {
			speed = v
		} else {
			f.stuck = fmt.Sprintf("In the wind it does not come forward along some lines at %.0f m/s.", speed)
		}
	}
	return d.Len() / speed
}

func (f *filling) add(x Piece) error {
	x.Via = f.round(x.From)
	wh, seconds, way, err := f.need(x)
	if err != nil {
		return err
	}
	if way.Cannot != "" {
		f.stuck = "It does not come home: " + way.Cannot + "."
	}
	if f.whOut+wh+way.Wh <= f.g.UsableWh {
		f.now.Pieces, f.now.Pictures = append(f.now.Pieces, x), f.now.Pictures+x.Pictures
		f.whOut, f.now.Seconds = f.whOut+wh, f.now.Seconds+seconds
		return nil
	}
	if len(f.now.Pieces) > 0 {
		f.close()
		return f.add(x)
	}
	if x.Pictures < 4 || x.Length() < 2*leastStepM {
		f.stuck = fmt.Sprintf("Line %d lies too far out: full packs do not carry it there and home. Take off nearer to it.",
			x.Line+1)
		f.now.Pieces, f.now.Pictures = append(f.now.Pieces, x), f.now.Pictures+x.Pictures
		f.whOut, f.now.Seconds = wh, seconds
		f.close()
		return nil
	}
	middle := x.From.Add(x.To.Sub(x.From).Times(0.5))
	one, two := x, x
	one.To, two.From = middle, middle
	for _, half := range []*Piece{&one, &two} {
		if half.Pictures, err = Pictures(half.Length(), f.p.PicturesM); err != nil {
			return err
		}
		if err := f.add(*half); err != nil {
			return err
		}
	}
	return nil
}

// round is the way round what is forbidden from the end of the last line to the next; nil
// where the straight way is free. The ways from and to the take-off place are judged as
// the way home is.
func (f *filling) round(to geo.XY) []geo.XY {
	n := len(f.now.Pieces)
	if n == 0 {
		return nil
	}
	from := f.now.Pieces[n-1].To
	all := f.g.forbidden()
	if !slices.ContainsFunc(all, func(x Forbidden) bool { return x.enters(from, to) }) {
		return nil
	}
	var keep []home.Obstacle
	for _, x := range all {
		keep = append(keep, x.obstacle())
	}
	way, err := home.WayRound(from, to, 0, home.Standing{Obstacles: keep}, nil)
	if err != nil {
		f.stuck = fmt.Sprintf("Between two lines there is no way round what is forbidden: %s.", why.Words(err))
		return nil
	}
	return way[1 : len(way)-1]
}

// close ends a flight with its way home.
func (f *filling) close() {
	n := len(f.now.Pieces)
	if n == 0 {
		return
	}
	d := f.start.Sub(f.now.Pieces[n-1].To)
	way, err := f.g.Model.Home(energy.Return{MassKg: f.g.MassKg, Rho: f.g.Rho, HeightM: f.height, ReturnM: f.g.ReturnM,
		DistanceM: d.Len(), CourseDeg: geo.Turn(math.Atan2(d.X, d.Y) * 180 / math.Pi), Wind: f.g.Wind})
	if err == nil {
		f.whOut, f.now.Seconds = f.whOut+way.Wh, f.now.Seconds+way.Seconds
	}
	f.now.Part, f.now.Wh = f.part, f.whOut
	if f.g.FullWh > 0 {
		f.now.Percent = 100*f.whOut/f.g.FullWh + f.g.Reserve
	}
	for _, x := range f.now.Pieces {
		f.now.LengthM += x.Length()
	}
	f.follow()
	f.p.Flights = append(f.p.Flights, f.now)
	f.now, f.whOut = Flight{}, 0
}
