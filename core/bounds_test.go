package core_test

import (
	"errors"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/core/air"
	"mainstay/core/checks"
	"mainstay/core/energy"
	"mainstay/core/gear"
	"mainstay/core/geo"
	"mainstay/core/height"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/site"
	"mainstay/core/sun"
	"mainstay/core/units"
	"mainstay/core/wear"
	"mainstay/core/weather"
	"mainstay/core/wind"
)

// bound is a range that a figure must lie in, ends included; over means that the
// lower end is not.
type bound struct {
	what   string
	lo, hi float64
	over   bool
	try    func(v float64) error
}

var errStop = errors.New("stop")

func question(set func(q *home.Question, v float64)) func(float64) error {
	return func(v float64) error {
		q := home.Question{Route: []geo.XY{{X: 100}}, PositionM: 3, Margin: home.UsualMargin, CeilingM: 120, RouteHeight: 10,
			ClimbMS: 3, DescentMS: 2, PercentMin: 5}
		set(&q, v)
		_, err := home.ReturnHeight(q)
		return err
	}
}

func obstacle(set func(o *home.Obstacle, v float64)) func(float64) error {
	return func(v float64) error {
		o := home.Obstacle{Name: "tree", Kind: home.PointKind, Places: []geo.XY{{X: 50}}, HeightM: num(20), BufferM: 5,
			GroundKnown: true}
		set(&o, v)
		_, err := home.Clearance([]home.Place3{{M: 30}, {At: geo.XY{X: 10}, M: 30}}, home.Standing{
			Obstacles: []home.Obstacle{o}, PositionM: 3, OverM: 10,
		})
		return err
	}
}

func feature(set func(f *site.Feature, v float64)) func(float64) error {
	return func(v float64) error {
		f := site.Feature{ID: "x", Kind: site.Obstacle, Shape: site.Point, Name: "tree", HeightM: num(10),
			Places: []geo.Point{{Lat: 46, Lon: -119}}}
		set(&f, v)
		return f.Check()
	}
}

// shown is whether what a weather says is taken: what cannot be is a finding.
func shown(set func(a *weather.Air, v float64)) func(float64) error {
	return func(v float64) error {
		a := weather.Air{Source: "hand", At: noon}
		set(&a, v)
		for _, f := range weather.Assess(a, weather.Limits{}, noon).Findings {
			if f.Rule == judge.RuleWeatherAge && f.Verdict == judge.Stop {
				return errStop
			}
		}
		return nil
	}
}

func refuse[T any](_ T, err error) error { return err }

func angle(v float64) height.Value { return height.Value{V: v, Sigma: 0.1} }

var bounds = []bound{
	{"latitude of the sun", -90, 90, false, func(v float64) error { return refuse(sun.On(noon, time.UTC, v, 0)) }},
	{"longitude of the sun", -180, 180, false, func(v float64) error { return refuse(sun.On(noon, time.UTC, 0, v)) }},
	{"QNH", 850, 1100, false, func(v float64) error { return refuse(air.StationPressure(v, 0)) }},
	{"height above the sea", -400, 6000, false, func(v float64) error { return refuse(air.StationPressure(1013, v)) }},
	{"humidity", 0, 100, true, func(v float64) error { return refuse(air.DewPoint(20, v)) }},
	{"temperature", -60, 60, false, func(v float64) error { return refuse(air.DewPoint(v, 50)) }},
	{"temperature over the dew point", -60, 60, false, func(v float64) error { return refuse(air.Humidity(v, -80)) }},
	{"lowest dew point", -80, 20, false, func(v float64) error {
		if v > 20 {
			v = 20.001 // a dew point right at the temperature may be a rounding over it
		}
		return refuse(air.Humidity(20, v))
	}},
	{"pressure of the density", 300, 1100, false, func(v float64) error { return refuse(air.Density(v, 20, 10)) }},
	{"pressure of the wet bulb", 300, 1100, false, func(v float64) error { return refuse(air.WetBulb(20, 10, v)) }},
	{"steady wind", 0, 60, false, func(v float64) error {
		return refuse(wind.Scale(units.MetresPerSecond(v), nil, 10, 10,
			"open"))
	}},
	{"gust", 5, 90, false, func(v float64) error {
		g := units.MetresPerSecond(v)
		return refuse(wind.Scale(5, &g, 10, 10, "open"))
	}},
	{"height of the wind", 0.5, 500, false, func(v float64) error {
		return refuse(wind.Scale(5, nil, units.Metres(v), 10,
			"open"))
	}},
	{"height the wind is brought to", 0.5, 500, false, func(v float64) error {
		return refuse(wind.Scale(5, nil, 10,
			units.Metres(v), "open"))
	}},
	{"gust for a heading", 0, 100, false, func(v float64) error {
		return refuse(wind.BestHeading(units.MetresPerSecond(v),
			0, []float64{0}, 5))
	}},
	{"route above take-off", -500, 500, false, func(v float64) error { return intent.Flight{RouteM: &v}.Check() }},
	{"route above the sea", -500, 7000, false, func(v float64) error {
		return intent.Flight{RouteM: &v,
			Datum: intent.AboveSea}.Check()
	}},
	{"return height", 0, 500, false, func(v float64) error { return intent.Flight{ReturnM: &v}.Check() }},
	{"mass", 0.05, 1000, false, func(v float64) error { return intent.Flight{MassKg: &v}.Check() }},
	{"charge from", 0, 100, false, func(v float64) error { return refuse(energy.ChargeTime(300, 200, v, 95)) }},
	{"charge to", 0, 100, false, func(v float64) error { return refuse(energy.ChargeTime(300, 200, 20, v)) }},
	{"level at launch", 95, 101, false, func(v float64) error {
		return stopped(pack.JudgeLaunch(units.Percent(v), 0,
			95))
	}},
	{"uncertainty at launch", 0, 100, false, func(v float64) error {
		return stopped(pack.JudgeLaunch(100, units.Percent(v),
			95))
	}},
	{"least level at launch", 0, 100, false, func(v float64) error {
		return stopped(pack.JudgeLaunch(100, 0,
			units.Percent(v)))
	}},
	{"current of a resistance", 0.5, 1000, false, func(v float64) error { return refuse(pack.Resistance(4100, 4000, v)) }},
	{"temperature before a charge", float64(pack.ChargeFromC), float64(pack.ChargeToC), false, func(v float64) error {
		c := units.Celsius(v)
		return stopped(pack.JudgeCharge(&c, time.Minute))
	}},
	{"minutes at rest", pack.RestMinutes, 10 * 365 * 24 * 60, false,
		func(v float64) error { return refuse(pack.PercentFromVolts(pack.LiPo, 4100, v)) }},
	{"charge that was taken", 1, 200000, false, func(v float64) error {
		return refuse(pack.MeasureCapacity(v, 95, 1, 20,
			1))
	}},
	{"level before", 60, 100, false, func(v float64) error { return refuse(pack.MeasureCapacity(8000, v, 1, 0, 1)) }},
	{"level after", 0, 35, false, func(v float64) error { return refuse(pack.MeasureCapacity(8000, 95, 1, v, 1)) }},
	{"limit of wear", 0, wear.Most, false, func(v float64) error {
		if (wear.Limits{Litres: v}).Beyond() || (wear.Limits{Hours: v}).Beyond() {
			return errStop
		}
		return nil
	}},
	{"reading of a check", 0, 60, false, func(v float64) error {
		return refuse(checks.Judge(volts,
			checks.Value{Number: &v}, nil))
	}},
	{"cell", 500, 5000, false, func(v float64) error {
		it := checks.Item{ID: "c", Title: "Cells", Kind: checks.Cells, Unit: "mV", Step: 1}
		return refuse(checks.Judge(it, checks.Value{Set: []float64{v, v}}, &checks.PackRef{Cells: 2, Chemistry: pack.LiPo}))
	}},
	{"level of gear", 30, 100, false, func(v float64) error {
		for _, f := range (gear.Piece{Kind: gear.Controller, LookedAt: &noon, Percent: &v, At: &noon,
			Least: 30}).Judge(noon) {
			if f.Verdict == judge.Stop {
				return errStop
			}
		}
		return nil
	}},
	{"distance of a clinometer", 1, 2000, false, func(v float64) error {
		return refuse(height.Clinometer(angle(v),
			angle(30), 1.7))
	}},
	{"angle of a clinometer", 0, 80, false, func(v float64) error {
		return refuse(height.Clinometer(angle(50), angle(v),
			1.7))
	}},
	{"height of the eye", 0, 3, false, func(v float64) error {
		return refuse(height.Clinometer(angle(50), angle(30),
			v))
	}},
	{"distance with two angles", 1, 2000, false, func(v float64) error {
		return refuse(height.TwoAngles(angle(v),
			angle(30), angle(-5)))
	}},
	{"angle to the top", -79.9, 80, false, func(v float64) error {
		if v < -79.9 {
			v = -80 // not over the foot
		}
		return refuse(height.TwoAngles(angle(50), angle(v), angle(-80)))
	}},
	{"angle to the foot", -80, 79.9, false, func(v float64) error {
		if v > 79.9 {
			v = 80
		}
		return refuse(height.TwoAngles(angle(50), angle(80), angle(v)))
	}},
	{"distance of the stations", 1, 1000, false, func(v float64) error {
		return refuse(height.TwoStations(angle(v),
			angle(20), angle(40), 1.7))
	}},
	{"far angle", 1, 38, false, func(v float64) error {
		if v > 38 {
			v = 39.9
		}
		return refuse(height.TwoStations(angle(20), angle(v), angle(40), 1.7))
	}},
	{"near angle", 22, 80, false, func(v float64) error {
		if v < 22 {
			v = 20.1
		}
		return refuse(height.TwoStations(angle(20), angle(20), angle(v), 1.7))
	}},
	{"eye at two stations", 0, 3, false, func(v float64) error {
		return refuse(height.TwoStations(angle(20), angle(20),
			angle(40), v))
	}},
	{"shadow", 0.1, 1000, false, func(v float64) error { return refuse(height.Shadow(angle(v), angle(1), angle(2))) }},
	{"stick", 0.1, 10, false, func(v float64) error { return refuse(height.Shadow(angle(10), angle(v), angle(2))) }},
	{"shadow of the stick", 0.05, 50, false, func(v float64) error {
		return refuse(height.Shadow(angle(10), angle(1), height.Value{V: v, Sigma: 0.01}))
	}},
	{"position error", 0, 100, false, question(func(q *home.Question, v float64) { q.PositionM = v })},
	{"height of home", -1000, 10000, false, question(func(q *home.Question, v float64) { q.HomeM = v })},
	{"height of the route", -1000, 10000, false, question(func(q *home.Question, v float64) { q.RouteHeight = v })},
	{"least percent", 0, 1000, false, question(func(q *home.Question, v float64) { q.PercentMin = v })},
	{"least return of the type", 0, 500, false, question(func(q *home.Question, v float64) { q.TypeMinM = v })},
	{"setting", 0, 1000, false, question(func(q *home.Question, v float64) { q.SettingM = &v })},
	{"margin", 0, 500, false, question(func(q *home.Question, v float64) { q.Margin.M = v })},
	{"margin in percent", 0, 1000, false, question(func(q *home.Question, v float64) { q.Margin.Percent = v })},
	{"step of rounding", 0, 100, true, question(func(q *home.Question, v float64) { q.Margin.RoundM = v })},
	{"ceiling", 0, 10000, false, question(func(q *home.Question, v float64) { q.CeilingM = v })},
	{"climb", 0, 100, true, question(func(q *home.Question, v float64) { q.ClimbMS = v })},
	{"descent", 0, 100, true, question(func(q *home.Question, v float64) { q.DescentMS = v })},
	{"height of an obstacle", 0, 1000, false, obstacle(func(o *home.Obstacle, v float64) { o.HeightM = &v })},
	{"uncertainty of an obstacle", 0, 200, false, obstacle(func(o *home.Obstacle, v float64) { o.SigmaM = v })},
	{"buffer of an obstacle", 0, 1000, false, obstacle(func(o *home.Obstacle, v float64) { o.BufferM = v })},
	{"position error of legs", 0, 100, false, func(v float64) error {
		return refuse(home.Clearance(make([]home.Place3, 2),
			home.Standing{PositionM: v, OverM: 10}))
	}},
	{"room over things", 0, 200, false, func(v float64) error {
		return refuse(home.Clearance(make([]home.Place3, 2), home.Standing{PositionM: 3, OverM: v}))
	}},
	{"position error over ground", 0, 100, false, func(v float64) error {
		return refuse(home.OverGround(make([]home.Place3,
			2), nil, 0, v))
	}},
	{"direction of a sector", 0, 360, false, func(v float64) error {
		return refuse(home.Sector(home.Place3{At: geo.XY{}}, v,
			home.Slope{Rise: 0.3}, nil, nil))
	}},
	{"begin of a slope", 0, 500, false, func(v float64) error {
		return refuse(home.Sector(home.Place3{At: geo.XY{}}, 0, home.Slope{StartM: v, Rise: 0.3}, nil, nil))
	}},
	{"rise of a slope", 0, 10, true, func(v float64) error {
		return refuse(home.Sector(home.Place3{At: geo.XY{}}, 0, home.Slope{Rise: v},
			nil, nil))
	}},
	{"height on the map", 0, 1000, false, feature(func(f *site.Feature, v float64) { f.HeightM = &v })},
	{"uncertainty on the map", 0, 200, false, feature(func(f *site.Feature, v float64) { f.SigmaM = v })},
	{"buffer on the map", 0, 1000, false, feature(func(f *site.Feature, v float64) { f.BufferM = v })},
	{"sag on the map", 0, 100, false, feature(func(f *site.Feature, v float64) { f.SagM = v })},
	{"elevation on the map", -500, 6000, false, feature(func(f *site.Feature, v float64) { f.GroundM = &v })},
	{"cloud base of a weather", 0, 100_000, false, shown(func(a *weather.Air, v float64) {
		ft := int(math.Floor(v))
		if v > 100_000 {
			ft = 100_001
		}
		a.CloudBaseFt, a.CloudKnown = &ft, true
	})},
	{"wind of a weather", 0, 60, false, shown(func(a *weather.Air, v float64) { a.WindMS = &v })},
	{"gust of a weather", 0, 90, false, shown(func(a *weather.Air, v float64) { a.GustMS = &v })},
	{"direction of a weather", 0, 360, false, shown(func(a *weather.Air, v float64) { a.FromDeg = &v })},
	{"temperature of a weather", -60, 60, false, shown(func(a *weather.Air, v float64) { a.TempC = &v })},
	{"pressure of a weather", 850, 1100, false, shown(func(a *weather.Air, v float64) { a.QNH = &v })},
	{"visibility of a weather", 0, 1e6, false, shown(func(a *weather.Air, v float64) { a.VisibilityM = &v })},
	{"elevation of the station", -500, 6000, false, shown(func(a *weather.Air, v float64) { a.StationM = &v })},
}

func stopped(j pack.Judgement) error {
	if j.Verdict == judge.Stop {
		return errStop
	}
	return nil
}

// What a function says it takes it takes, ends included, and nothing beyond.
func TestRangesHoldAtTheirEnds(t *testing.T) {
	for _, b := range bounds {
		width := (b.hi - b.lo) * 1e-6
		if b.over {
			assert.Error(t, b.try(b.lo), "%s at %g", b.what, b.lo)
			assert.NoError(t, b.try(b.lo+width), "%s just over %g", b.what, b.lo)
		} else {
			assert.NoError(t, b.try(b.lo), "%s at %g", b.what, b.lo)
			assert.Error(t, b.try(math.Nextafter(b.lo, math.Inf(-1))-width), "%s just under %g", b.what, b.lo)
		}
		assert.NoError(t, b.try(b.hi), "%s at %g", b.what, b.hi)
		assert.Error(t, b.try(b.hi+width), "%s just over %g", b.what, b.hi)
	}
}
