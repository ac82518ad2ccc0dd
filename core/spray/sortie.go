package spray

import (
	"errors"
	"fmt"
	"math"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/judge"
)

// Work is what is flown over a covered field.
type Work struct {
	Cover    *Cover
	Settings Settings  // solved
	Start    geo.XY    // where it takes off, is filled and lands
	Refills  []geo.XY  // other places for that: each flight takes the nearest to where it goes on
	Sprayed  []Sprayed // of the cover already, the last one last

	TankL      float64 // or what the hopper takes, kg
	Granules   bool
	KgPerL     float64 // of the mix; 1 for granules, whose loads are kg
	DryKg      float64 // take-off mass without the mix
	MostKg     float64 // that it takes off with today
	TurnS      float64 // from the end of a pass to the next, at least
	ReturnM    float64 // return height above take-off
	HeightM    float64 // over the crop, above take-off as far as energy goes
	Rho        float64
	Wind       energy.Wind
	Model      energy.Model
	UsableWh   float64 // of a set of packs over the reserve
	WholePass  bool    // a pass is not broken off
	EndAtStart bool    // end a sortie at the near end of a pass
}

// Sprayed is a part of a pass that is sprayed, as shares of its length from its
// beginning.
type Sprayed struct {
	Pass int     `json:"pass"`
	From float64 `json:"from"`
	To   float64 `json:"to"`
}

// left is what is left of a pass: the shares that nothing sprayed covers.
func left(pass int, all []Sprayed) [][2]float64 {
	var done []span
	for _, s := range all {
		if s.Pass == pass && s.To > s.From {
			done = append(done, span{s.From, s.To})
		}
	}
	at, out := 0.0, [][2]float64{}
	for _, d := range union(done) {
		if d.from > at {
			out = append(out, [2]float64{at, min(1, d.from)})
		}
		at = max(at, d.to)
	}
	if at < 1 {
		out = append(out, [2]float64{at, 1})
	}
	return out
}

// Limit is what ends a sortie.
type Limit string

// The limits.
const (
	ByTank   Limit = "tank"
	ByMass   Limit = "mass"
	ByEnergy Limit = "energy"
	ByArea   Limit = "area" // nothing is left
)

// AllLimits lists them.
var AllLimits = []Limit{ByTank, ByMass, ByEnergy, ByArea}

// Leg is a pass or a part of one as it is flown in a sortie.
type Leg struct {
	Pass   int        `json:"pass"` // in the cover
	From   geo.XY     `json:"from"`
	To     geo.XY     `json:"to"`
	AreaM2 float64    `json:"area_m2"`
	Share  [2]float64 `json:"share"` // of the pass, from its beginning, 0-1
	Back   bool       `json:"back"`  // flown from its far end
}

// Sortie is one flight: a fill, and the legs it sprays.
type Sortie struct {
	Legs      []Leg   `json:"legs"`
	AreaM2    float64 `json:"area_m2"`
	Litres    float64 `json:"litres"`
	TakeOffKg float64 `json:"take_off_kg"`
	Wh        float64 `json:"wh"`
	Seconds   float64 `json:"seconds"`
	FerryM    float64 `json:"ferry_m"` // out, between passes and home
	Limit     Limit   `json:"limit"`
	Start     int     `json:"start"` // where it takes off and lands: 0 the start, else the refill place of that number
}

// Flown is a field divided into sorties in the order flown.
type Flown struct {
	Sorties []Sortie `json:"sorties"`
	AreaM2  float64  `json:"area_m2"`
	Litres  float64  `json:"litres"`
	Wh      float64  `json:"wh"`
	Seconds float64  `json:"seconds"` // in the air
	Broken  []Broken `json:"broken"`  // wishes that cannot be met; with one of Stop there may be no sorties
}

// Check refuses a work that cannot be judged.
func (w Work) Check() error {
	if w.Cover == nil {
		return refuse("no covered field")
	}
	for _, s := range w.Sprayed {
		if s.Pass < 0 || s.Pass >= len(w.Cover.Passes) || !(s.From >= 0 && s.From <= s.To && s.To <= 1) {
			return refuse("sprayed %g to %g of pass %d of %d", s.From, s.To, s.Pass+1, len(w.Cover.Passes))
		}
	}
	if _, err := w.Settings.Solve(UnknownFlow); err != nil {
		return err
	}
	return errors.Join(within("tank", w.TankL, 0.1, 1000), within("density of the mix", w.KgPerL, 0.3, 3),
		within("dry mass", w.DryKg, 0.1, 1000), within("greatest mass", w.MostKg, 0.1, 1000),
		within("turn", w.TurnS, 0, 300), within("return height", w.ReturnM, 0, 500), within("height", w.HeightM, 0,
			500), within("density", w.Rho, 0.3, 1.5), within("energy", w.UsableWh, 0, 1e6), w.Model.Check(), geo.Finite(w.Start),
		geo.Finite(w.Refills...))
}

// Fly divides the passes that are left into sorties. A sortie takes passes in order,
// the nearest next, until the tank, the mass, or the energy that is left over the
// way home ends it; a whole pass is not broken off when that is asked for. What it
// is filled with is what it sprays, so that the last load is exact. Turns, ferry,
// climb and landing are counted. Errors wrap ErrInput.
func (w Work) Fly() (Flown, error) {
	out := Flown{Sorties: []Sortie{}, Broken: []Broken{}}
	if err := w.Check(); err != nil {
		return out, err
	}
	room := min(w.TankL, (w.MostKg-w.DryKg)/w.KgPerL)
	if room <= 0 {
		out.Broken = append(out.Broken, broken("mass", judge.Stop,
			fmt.Sprintf("Dry it takes off with %.1f kg of %.1f: nothing can be filled in.", w.DryKg, w.MostKg), nil))
		return out, nil
	}
	if room < w.TankL*(1-1e-9) {
		out.Broken = append(out.Broken, broken("tank", judge.Watch,
			fmt.Sprintf("The mass allows %.1f %s of the %.1f that it holds.", room, UnitOf(w.Granules), w.TankL), &room))
	}
	legs := w.order()
	places := append([]geo.XY{w.Start}, w.Refills...)
	for len(legs) > 0 {
		start := 0
		for k, at := range places {
			if geo.Dist(at, legs[0].From) < geo.Dist(places[start], legs[0].From) {
				start = k
			}
		}
		w.Start = places[start]
		s, rest, why := w.sortie(legs, room)
		s.Start = start
		if len(s.Legs) == 0 {
			out.Broken = append(out.Broken, why)
			return out, nil
		}
		out.Sorties = append(out.Sorties, s)
		out.AreaM2, out.Litres, out.Wh, out.Seconds = out.AreaM2+s.AreaM2, out.Litres+s.Litres, out.Wh+s.Wh,
			out.Seconds+s.Seconds
		legs = rest
	}
	return out, nil
}

// order is the passes that are left in the order flown: from the one that begins
// nearest to the start, always on to the nearest end.
func (w Work) order() []Leg {
	var legs []Leg
	for i, p := range w.Cover.Passes {
		way := p.To.Sub(p.From)
		for _, s := range left(i, w.Sprayed) {
			if (s[1]-s[0])*p.Length() >= ShortestPass {
				legs = append(legs, Leg{Pass: i, From: p.From.Add(way.Times(s[0])), To: p.From.Add(way.Times(s[1])),
					AreaM2: p.Area * (s[1] - s[0]), Share: s})
			}
		}
	}
	at := w.Start
	if n := len(w.Sprayed); n > 0 && len(w.Refills) > 0 { // the truck stays where the work is
		p := w.Cover.Passes[w.Sprayed[n-1].Pass]
		at = p.From.Add(p.To.Sub(p.From).Times(w.Sprayed[n-1].To))
	}
	for i := range legs {
		best, far, back := i, math.Inf(1), false
		for j := i; j < len(legs); j++ {
			if d := geo.Dist(at, legs[j].From); d < far {
				best, far, back = j, d, false
			}
			if d := geo.Dist(at, legs[j].To); d < far {
				best, far, back = j, d, true
			}
		}
		l := legs[best]
		legs[best] = legs[i] // the order among those left does not matter
		if back {
			l.From, l.To, l.Back = l.To, l.From, true
		}
		legs[i], at = l, l.To
	}
	return legs
}

// Route is the two ends of every pass, sprayed or not, in the order flown from start.
func Route(passes []Pass, start geo.XY) []geo.XY {
	var out []geo.XY
	for _, l := range (Work{Cover: &Cover{Passes: passes}, Start: start}).order() {
		out = append(out, l.From, l.To)
	}
	return out
}

// part is the share of a leg from its beginning.
func (l Leg) part(share float64) (first, rest Leg) {
	mid := l.From.Add(l.To.Sub(l.From).Times(share))
	first, rest = l, l
	first.To, rest.From = mid, mid
	first.AreaM2, rest.AreaM2 = l.AreaM2*share, l.AreaM2*(1-share)
	cut := l.Share[0] + (l.Share[1]-l.Share[0])*share
	if l.Back {
		cut = l.Share[1] - (l.Share[1]-l.Share[0])*share
		first.Share[0], rest.Share[1] = cut, cut
	} else {
		first.Share[1], rest.Share[0] = cut, cut
	}
	return first, rest
}

func (l Leg) long() float64 { return geo.Dist(l.From, l.To) }

// sortie takes legs from those left.
func (w Work) sortie(legs []Leg, room float64) (Sortie, []Leg, Broken) {
	f := w.begin(room)
	var s Sortie
	limit := ByArea
	for len(legs) > 0 {
		after, why := f.fly(legs[0])
		if why == "" {
			s.Legs, legs, f = append(s.Legs, legs[0]), legs[1:], after
			continue
		}
		limit = why
		if w.WholePass && (len(s.Legs) > 0 || w.fits(legs[0], room)) {
			break
		}
		if share := f.most(legs[0]); share*legs[0].long() >= ShortestPass {
			first, rest := legs[0].part(share)
			s.Legs = append(s.Legs, first)
			legs = append([]Leg{rest}, legs[1:]...)
		}
		break
	}
	if limit == ByTank && room < w.TankL*(1-1e-9) {
		limit = ByMass
	}
	if n := len(s.Legs); w.EndAtStart && n > 1 && len(legs) > 0 {
		if l := s.Legs[n-1]; geo.Dist(l.To, w.Start) > geo.Dist(l.From, w.Start) {
			s.Legs, legs = s.Legs[:n-1], append([]Leg{l}, legs...)
		}
	}
	if len(s.Legs) == 0 {
		return s, legs, w.none(legs[0], limit, room)
	}
	// What it really takes along is what it sprays: lighter, so it fits all the more.
	litres := 0.0
	for _, l := range s.Legs {
		litres += l.AreaM2 * w.Settings.Rate / 1e4
	}
	f = w.begin(litres * (1 + 1e-12))
	for _, l := range s.Legs {
		f, _ = f.fly(l)
	}
	home := f.home()
	s.AreaM2, s.Litres, s.TakeOffKg, s.Limit = f.area, litres, w.DryKg+litres*w.KgPerL, limit
	s.Wh, s.Seconds, s.FerryM = f.wh+home.Wh, f.seconds+home.Seconds, f.ferry+geo.Dist(f.at, w.Start)
	return s, legs, Broken{}
}

// fits reports whether a whole pass could be flown by a flight of its own.
func (w Work) fits(l Leg, room float64) bool {
	_, why := w.begin(room).fly(l)
	return why == ""
}

// none says why no flight can be made.
func (w Work) none(l Leg, limit Limit, room float64) Broken {
	if limit == ByEnergy {
		h, err := w.Model.Home(energy.Return{MassKg: w.DryKg, Rho: w.Rho, ReturnM: w.ReturnM, HeightM: w.HeightM,
			DistanceM: geo.Dist(l.From, w.Start), CourseDeg: bearing(l.From, w.Start), Wind: w.Wind})
		if err == nil && h.Cannot != "" {
			return broken("wind", judge.Stop, fmt.Sprintf("There is no way home from the next pass, %.0f m away: %s.",
				geo.Dist(l.From, w.Start), h.Cannot), nil)
		}
		return broken("energy", judge.Stop,
			fmt.Sprintf("The packs give %.0f Wh over the reserve; that does not take it to the next pass, %.0f m away, and home. Take off nearer to it.",
				w.UsableWh, geo.Dist(l.From, w.Start)), nil)
	}
	return broken("tank", judge.Stop, fmt.Sprintf("%.1f %s do not last for %g m of the next pass.", room,
		UnitOf(w.Granules), ShortestPass), nil)
}
