package spray

import (
	"math"

	"mainstay/core/energy"
	"mainstay/core/geo"
)

// flight is a sortie while it is put together.
type flight struct {
	w       *Work
	at      geo.XY
	litres  float64 // left in the tank
	mass    float64
	wh      float64
	seconds float64
	ferry   float64
	area    float64
	up      bool
}

func (w Work) begin(litres float64) flight {
	return flight{w: &w, at: w.Start, litres: litres, mass: w.DryKg + litres*w.KgPerL}
}

func bearing(a, b geo.XY) float64 {
	return math.Mod(math.Atan2(b.X-a.X, b.Y-a.Y)*180/math.Pi+360, 360)
}

// need flies phases and adds up what they take.
func (f flight) need(phases ...energy.Phase) flight {
	n, err := f.w.Model.Fly(f.mass, f.w.Rho, phases)
	if err != nil {
		f.wh = math.Inf(1) // cannot be flown: it never fits
		return f
	}
	f.wh, f.seconds, f.mass = f.wh+n.Wh, f.seconds+n.Seconds, n.MassKg
	return f
}

// to flies to a place: up first, then along; between passes a turn takes its time.
func (f flight) to(p geo.XY) flight {
	d := geo.Dist(f.at, p)
	seconds := d / f.w.Model.CruiseMS
	if !f.up {
		f = f.need(energy.Phase{Kind: energy.Climbing, Seconds: max(f.w.HeightM, 1) / f.w.Model.ClimbMS})
		f.up = true
	} else {
		seconds = max(seconds, f.w.TurnS)
	}
	f.at, f.ferry = p, f.ferry+d
	return f.need(energy.Phase{Kind: energy.Cruising, Seconds: seconds})
}

// over sprays along a leg: where no section is open it flies on.
func (f flight) over(l Leg) flight {
	litres := l.AreaM2 * f.w.Settings.Rate / 1e4
	seconds := l.long() / f.w.Settings.Speed
	f.at, f.litres, f.area = l.To, f.litres-litres, f.area+l.AreaM2
	if litres <= 0 || seconds <= 0 {
		return f.need(energy.Phase{Kind: energy.Cruising, Seconds: seconds})
	}
	return f.need(energy.Phase{Kind: energy.Spraying, Seconds: seconds, KgPerS: litres * f.w.KgPerL / seconds})
}

// home is the way home from where it is.
func (f flight) home() energy.Home {
	h, err := f.w.Model.Home(energy.Return{MassKg: f.mass, Rho: f.w.Rho, HeightM: f.w.HeightM, ReturnM: f.w.ReturnM,
		DistanceM: geo.Dist(f.at, f.w.Start), CourseDeg: bearing(f.at, f.w.Start), Wind: f.w.Wind})
	if err != nil || h.Cannot != "" {
		return energy.Home{Wh: math.Inf(1)}
	}
	return h
}

// fly flies to a leg and along it, when tank and energy allow it and the way home.
func (f flight) fly(l Leg) (flight, Limit) {
	next := f.to(l.From).over(l)
	switch {
	case next.litres < -1e-9*f.w.TankL:
		return f, ByTank
	case !(next.wh+next.home().Wh <= f.w.UsableWh):
		return f, ByEnergy
	}
	return next, ""
}

// most is the greatest share of a leg, from its beginning, that can be flown: what
// the tank gives, or what the energy gives, found by halving.
func (f flight) most(l Leg) float64 {
	fits := func(share float64) bool {
		first, _ := l.part(share)
		_, why := f.fly(first)
		return why == ""
	}
	hi := 1.0
	if litres := l.AreaM2 * f.w.Settings.Rate / 1e4; litres > 0 {
		hi = min(1, max(0, f.litres/litres))
	}
	if fits(hi) {
		return hi
	}
	lo := 0.0
	for range 30 {
		if mid := (lo + hi) / 2; fits(mid) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}
