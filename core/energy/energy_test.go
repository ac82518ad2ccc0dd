package energy_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/energy"
)

func quad() energy.Model {
	return energy.Model{Kind: energy.Rotors, Discs: 4, DiameterM: 0.55, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 12,
		ClimbMS: 3, DescentMS: 2}
}

func wing() energy.Model {
	return energy.Model{Kind: energy.Wing, LiftDrag: 12, WingDrive: 0.5, CruiseMS: 17, ClimbMS: 3, DescentMS: 2}
}

// A figure worked out by hand, and the rule of the textbooks in their units.
func TestHoverPower(t *testing.T) {
	p, err := quad().Hover(12, 1.225)
	require.NoError(t, err)
	assert.InDelta(t, 1521, p, 0.5)
	coaxial := quad()
	coaxial.Coaxial = true
	c, err := coaxial.Hover(12, 1.225)
	require.NoError(t, err)
	assert.InDelta(t, p/0.8, c, 1e-9)
	// Textbooks give the ideal power loading at sea level as 37.9/sqrt(T/A) pounds
	// per horsepower, T/A in pounds per square foot.
	for _, row := range []struct{ pounds, feet float64 }{{1, 0.5}, {2.2, 1.1}, {11, 4.4}, {220, 13}, {2000, 30}} {
		one := energy.Model{Kind: energy.Rotors, Discs: 1, DiameterM: row.feet * 0.3048, Efficiency: 0.95, CruiseShare: 1,
			CruiseMS: 1, ClimbMS: 1, DescentMS: 1}
		p, err := one.Hover(row.pounds*0.45359237, 1.225)
		require.NoError(t, err)
		horsepower := p * 0.95 / 745.69987
		loading := row.pounds / (math.Pi * row.feet * row.feet / 4)
		assert.InEpsilon(t, 37.9/math.Sqrt(loading), row.pounds/horsepower, 0.002)
	}
}

func TestSprayingSortie(t *testing.T) {
	m := energy.Model{Kind: energy.Rotors, Discs: 6, DiameterM: 0.9, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 8,
		ClimbMS: 2, DescentMS: 2}
	e, err := m.Spray(58, 38, 20/317.46, 1.225)
	require.NoError(t, err)
	assert.InDelta(t, 538.4, e, 0.1)
	// Against the sum over small steps.
	sum, n := 0.0, 20000
	for i := range n {
		p, _ := m.Hover(58-20*(float64(i)+0.5)/float64(n), 1.225)
		sum += p * 317.46 / float64(n) / 3600
	}
	assert.InDelta(t, sum, e, 1e-3)
	whole, err := m.Fly(58, 1.225, []energy.Phase{{Kind: energy.Spraying, Seconds: 317.46, KgPerS: 20 / 317.46}})
	require.NoError(t, err)
	assert.InDelta(t, e, whole.Wh, 1e-9)
	assert.InDelta(t, 38, whole.MassKg, 1e-9)
}

func TestUsableEnergy(t *testing.T) {
	p := energy.Pack{AmpereHours: 22, Volts: 22.2, Health: 0.93, Celsius: 20, Percent: 100}
	s, err := energy.Together([]energy.Pack{p})
	require.NoError(t, err)
	assert.InDelta(t, 363.4, s.Usable(20), 0.05)
	w, _ := quad().Hover(12, 1.225)
	assert.InDelta(t, 14.3, s.Usable(20)/w*60, 0.05)
	// Two packs give no more than the weaker lets them.
	weak := p
	weak.Health, weak.Percent = 0.8, 90
	s, err = energy.Together([]energy.Pack{p, weak})
	require.NoError(t, err)
	assert.InDelta(t, 2*22*22.2*0.8*0.7, s.Usable(20), 1e-9)
	assert.Zero(t, s.Usable(95))
	_, err = energy.Together(nil)
	require.ErrorIs(t, err, energy.ErrInput)
}

func TestColdPacks(t *testing.T) {
	for _, row := range [][2]float64{{-10, 0.70}, {-5, 0.775}, {0, 0.85}, {5, 0.90}, {10, 0.95}, {15, 0.975},
		{19.999, 0.999995}, {20, 1}, {45, 1}} {
		c, err := energy.Cold(row[0])
		require.NoError(t, err)
		assert.InDelta(t, row[1], c, 1e-6, row[0])
	}
	for _, bad := range []float64{-10.001, 80.1, math.NaN()} {
		_, err := energy.Cold(bad)
		require.ErrorIs(t, err, energy.ErrInput)
	}
}

func calm() energy.Return {
	return energy.Return{MassKg: 12, Rho: 1.225, HeightM: 30, ReturnM: 45, DistanceM: 600, CourseDeg: 180}
}

func TestWayHomeByHand(t *testing.T) {
	h, err := quad().Home(calm())
	require.NoError(t, err)
	hover, _ := quad().Hover(12, 1.225)
	climb := hover + 12*energy.Gravity*3/0.55
	want := (climb*5 + hover*50 + hover*(45.0/2+15)) / 3600 // 37.5 s down: the least of 45 holds
	want += hover * (45 - 37.5) / 3600
	assert.InDelta(t, want, h.Wh, 1e-9)
	assert.InDelta(t, 5+50+45, h.Seconds, 1e-9)
	s := energy.Store{FullWh: 450, Percent: 100}
	table, err := quad().CallOuts(calm(), s, 20, []float64{0, 200, 600})
	require.NoError(t, err)
	assert.InDelta(t, h.Wh/450*100+20, table[2].Percent, 1e-9)
	assert.Less(t, table[0].Percent, table[1].Percent)
}

func TestNoWayHome(t *testing.T) {
	r := calm()
	r.CourseDeg, r.Wind = 180, energy.Wind{MeanMS: 8, GustMS: 12.1, FromDeg: 180}
	h, err := quad().Home(r)
	require.NoError(t, err)
	assert.Equal(t, energy.AgainstGust, h.Cannot)
	r.Wind = energy.Wind{MeanMS: 12, GustMS: 12, FromDeg: 180}
	h, err = quad().Home(r)
	require.NoError(t, err)
	assert.Equal(t, energy.AgainstMean, h.Cannot)
	r.Wind = energy.Wind{MeanMS: 12, GustMS: 12, FromDeg: 0}
	h, err = quad().Home(r)
	require.NoError(t, err)
	assert.Empty(t, h.Cannot, "with the wind it comes home")
	r.Wind = energy.Wind{MeanMS: 12, GustMS: 12, FromDeg: 270}
	h, err = quad().Home(r)
	require.NoError(t, err)
	assert.Equal(t, energy.AgainstMean, h.Cannot, "the course cannot be held")
}

// The farthest place by Radius is where out and back take exactly what there is.
func TestRadiusClosesTheBooks(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		m := rapid.SampledFrom([]energy.Model{quad(), wing()}).Draw(rt, "model")
		mean := rapid.Float64Range(0, 8).Draw(rt, "wind")
		r := calm()
		r.Wind = energy.Wind{MeanMS: mean, GustMS: mean * rapid.Float64Range(1, 1.3).Draw(rt, "gust"),
			FromDeg: rapid.Float64Range(0, 360).Draw(rt, "from")}
		b := rapid.Float64Range(0, 360).Draw(rt, "bearing")
		may := rapid.Float64Range(1, 600).Draw(rt, "wh")
		far, err := m.Radius(r, b, may)
		require.NoError(rt, err)
		if far == 0 {
			return
		}
		// Out: a way home with the course turned round, less its descent; home: from there.
		r.HeightM, r.DistanceM, r.CourseDeg = r.ReturnM, far, math.Mod(b+180, 360)
		home, err := m.Home(r)
		require.NoError(rt, err)
		require.Empty(rt, home.Cannot)
		r.HeightM, r.CourseDeg = 0, b
		r.Wind.GustMS = r.Wind.MeanMS
		out, err := m.Home(r)
		require.NoError(rt, err)
		r.HeightM, r.DistanceM = r.ReturnM, 0
		down, err := m.Home(r)
		require.NoError(rt, err)
		assert.InDelta(rt, may, home.Wh+out.Wh-down.Wh, 1e-6*may)
	})
}

// More mass, more headwind, more distance never need less.
func TestMoreNeedsMore(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		m := rapid.SampledFrom([]energy.Model{quad(), wing(),
			{Kind: energy.RotorsOnWing, Discs: 4, DiameterM: 0.5, Efficiency: 0.5, LiftDrag: 11, WingDrive: 0.5, CruiseMS: 18,
				ClimbMS: 2, DescentMS: 2}}).Draw(rt, "model")
		r := calm()
		r.MassKg = rapid.Float64Range(1, 40).Draw(rt, "mass")
		r.DistanceM = rapid.Float64Range(0, 5000).Draw(rt, "distance")
		r.Wind = energy.Wind{MeanMS: rapid.Float64Range(0, 9).Draw(rt, "wind"), GustMS: 11, FromDeg: r.CourseDeg}
		a, err := m.Home(r)
		require.NoError(rt, err)
		more := r
		switch rapid.IntRange(0, 3).Draw(rt, "what") {
		case 0:
			more.MassKg *= 1.1
		case 1:
			more.DistanceM += 50
		case 2:
			more.Wind.MeanMS += 0.5
		case 3:
			more.ReturnM += 10
		}
		b, err := m.Home(more)
		require.NoError(rt, err)
		require.Empty(rt, a.Cannot)
		require.Empty(rt, b.Cannot)
		assert.GreaterOrEqual(rt, b.Wh, a.Wh-1e-12)
		assert.False(rt, math.IsNaN(a.Wh) || math.IsInf(a.Wh, 0))
	})
}

func TestRefusals(t *testing.T) {
	good := calm()
	for name, spoil := range map[string]func(*energy.Model, *energy.Return){
		"no rotors":      func(m *energy.Model, _ *energy.Return) { m.Discs = 0 },
		"no kind":        func(m *energy.Model, _ *energy.Return) { m.Kind = "" },
		"perfect":        func(m *energy.Model, _ *energy.Return) { m.Efficiency = 1 },
		"no speed":       func(m *energy.Model, _ *energy.Return) { m.CruiseMS = 0 },
		"no mass":        func(_ *energy.Model, r *energy.Return) { r.MassKg = 0 },
		"mass not known": func(_ *energy.Model, r *energy.Return) { r.MassKg = math.NaN() },
		"no air":         func(_ *energy.Model, r *energy.Return) { r.Rho = 0 },
		"far away":       func(_ *energy.Model, r *energy.Return) { r.DistanceM = math.Inf(1) },
		"gust under":     func(_ *energy.Model, r *energy.Return) { r.Wind = energy.Wind{MeanMS: 5, GustMS: 4} },
	} {
		m, r := quad(), good
		spoil(&m, &r)
		_, err := m.Home(r)
		require.ErrorIs(t, err, energy.ErrInput, name)
	}
	_, err := wing().Hover(5, 1.2)
	require.ErrorIs(t, err, energy.ErrInput)
	_, err = quad().Spray(10, 9, 0, 1.2)
	require.ErrorIs(t, err, energy.ErrInput)
	_, err = quad().Spray(9, 10, 1, 1.2)
	require.ErrorIs(t, err, energy.ErrInput)
	_, err = quad().Fly(10, 1.2, []energy.Phase{{Kind: energy.Spraying, Seconds: 100, KgPerS: 1}})
	require.ErrorIs(t, err, energy.ErrInput)
	_, err = quad().Fly(10, 1.2, []energy.Phase{{Kind: "rest"}})
	require.ErrorIs(t, err, energy.ErrInput)
}

func flown(measured, predicted float64) energy.Flown {
	mass := 12.0
	return energy.Flown{Seconds: 600, UsedPercent: 50, MassKg: &mass, MeasuredWh: &measured, PredictedWh: &predicted}
}

func TestAirframeLearns(t *testing.T) {
	// Measured with a known efficiency: 0.5 where the type says 0.55.
	var all []energy.Flown
	for range 4 {
		all = append(all, flown(110, 100))
	}
	l := energy.Learn(0.55, all)
	assert.Equal(t, energy.Learned{Count: 4, Efficiency: 0.55}, l, "four are too few")
	all = append(all, flown(110, 100))
	l = energy.Learn(0.55, all)
	assert.True(t, l.Own)
	assert.InDelta(t, 0.5, l.Efficiency, 1e-9)
	assert.InDelta(t, 0, l.Spread, 1e-12)
	// What does not fit changes nothing, wherever it stands.
	odd := flown(300, 100)
	assert.Equal(t, energy.Strange, odd.Judge())
	assert.InDelta(t, 0.5, energy.Learn(0.55, append([]energy.Flown{odd}, append(all, odd)...)).Efficiency, 1e-9)
	// Only the last ten count.
	for range 10 {
		all = append(all, flown(100, 100))
	}
	l = energy.Learn(0.55, all)
	assert.Equal(t, energy.LastFlights, l.Count)
	assert.InDelta(t, 0.55, l.Efficiency, 1e-9)
}

func TestWhyAFlightIsLeftOut(t *testing.T) {
	seen := map[energy.Left]bool{}
	for want, spoil := range map[energy.Left]func(*energy.Flown){
		energy.NoMass:     func(f *energy.Flown) { f.MassKg = nil },
		energy.NoCapacity: func(f *energy.Flown) { f.MeasuredWh = nil },
		energy.NoPlan:     func(f *energy.Flown) { f.PredictedWh = nil },
		energy.TooShort:   func(f *energy.Flown) { f.Seconds = energy.LeastSeconds - 1 },
		energy.TooLittle:  func(f *energy.Flown) { f.UsedPercent = energy.LeastUsed - 0.1 },
		energy.Strange:    func(f *energy.Flown) { *f.MeasuredWh = 39.9 },
	} {
		f := flown(100, 100)
		spoil(&f)
		assert.Equal(t, want, f.Judge())
		seen[want] = true
	}
	for _, l := range energy.AllLeft {
		assert.True(t, seen[l], l)
	}
	edge := flown(40, 100)
	edge.Seconds, edge.UsedPercent = energy.LeastSeconds, energy.LeastUsed
	assert.Equal(t, energy.Used, edge.Judge())
}

// A vertical take-off wing hovers up and down and cruises between: more than cruise
// alone, and the higher it goes over, the more.
func TestVerticalsOfAWing(t *testing.T) {
	m := energy.Model{Kind: energy.RotorsOnWing, Discs: 4, DiameterM: 0.5, Efficiency: 0.55, LiftDrag: 12, WingDrive: 0.5,
		CruiseMS: 16, ClimbMS: 3, DescentMS: 2}
	last := 0.0
	for _, h := range []float64{10, 30, 60} {
		up := m.Verticals(h)
		n, err := m.Fly(6, 1.2, up)
		require.NoError(t, err)
		assert.InDelta(t, h/3+h/2+energy.LandingSeconds, n.Seconds, 1e-9)
		cruise, err := m.Fly(6, 1.2, []energy.Phase{{Kind: energy.Cruising, Seconds: n.Seconds}})
		require.NoError(t, err)
		assert.Greater(t, n.Wh, cruise.Wh)
		assert.Greater(t, n.Wh, last)
		last = n.Wh
	}
	assert.Empty(t, m.Verticals(0))
	m.Kind = energy.Rotors
	assert.Empty(t, m.Verticals(30))
}
