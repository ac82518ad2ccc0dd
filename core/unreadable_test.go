package core_test

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math"
	"path/filepath"
	"reflect"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/air"
	"mainstay/core/aircraft"
	"mainstay/core/camera"
	"mainstay/core/checks"
	"mainstay/core/energy"
	"mainstay/core/gate"
	"mainstay/core/geo"
	"mainstay/core/height"
	"mainstay/core/home"
	"mainstay/core/inspect"
	"mainstay/core/judge"
	"mainstay/core/mass"
	"mainstay/core/pack"
	"mainstay/core/practice"
	"mainstay/core/robust"
	"mainstay/core/rotation"
	"mainstay/core/spray"
	"mainstay/core/sun"
	"mainstay/core/survey"
	"mainstay/core/units"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
	"mainstay/core/weather"
	"mainstay/core/wind"
)

type call struct {
	name string
	fn   any
	args []any
}

func num(v float64) *float64 { return &v }

// anArea is a square that pictures are taken of.
var anArea = survey.Area{Outline: geo.Ring{{}, {X: 300}, {X: 300, Y: 300}, {Y: 300}}}

var (
	noon = time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC)
	tree = []home.Obstacle{{Name: "tree", Kind: home.PointKind, Places: []geo.XY{{X: 50, Y: 0}}, HeightM: num(20),
		BufferM: 5, GroundKnown: true}}
	standing = home.Standing{Obstacles: tree, PositionM: 3, OverM: 10}
	band     = func(below, above float64) *checks.Band { return &checks.Band{StopBelow: &below, StopAbove: &above} }
	volts    = checks.Item{ID: "v", Title: "Volts", Kind: checks.Reading, Unit: "V", Step: 0.1, Min: num(0), Max: num(60),
		Band: band(10, 50)}
	latches = checks.Item{ID: "l", Title: "Latches", Kind: checks.Counted, Defect: judge.Stop, Expect: num(6)}
	compass = checks.Item{ID: "h", Title: "Headings", Kind: checks.Set, Per: "heading", Unit: "deg", Step: 1, Min: num(0),
		Max: num(360), Count: 4, Compare: &checks.Compare{How: "heading", Watch: 7, Stop: 10}}
	warm = checks.Item{ID: "w", Title: "Warmth", Kind: checks.Motors, Unit: "C", Step: 1, Min: num(-20), Max: num(120),
		Count: 4, Compare: &checks.Compare{How: "outlier", Watch: 10, Stop: 15}}
	fine = weather.Hour{At: noon, WindMS: num(3), GustMS: num(4), FromDeg: num(270), TempC: num(20), DewC: num(10),
		QNH: num(1013), VisibilityM: num(16000)}
)

// calls are the functions of the core that take figures, each with a call that
// succeeds.
var calls = []call{
	{"air.StationPressure", air.StationPressure, []any{1013.0, 200.0}},
	{"air.Humidity", air.Humidity, []any{20.0, 10.0}},
	{"air.DewPoint", air.DewPoint, []any{20.0, 50.0}},
	{"air.Density", air.Density, []any{1013.0, 20.0, 10.0}},
	{"air.WetBulb", air.WetBulb, []any{20.0, 10.0, 1013.0}},
	{"air.JudgeDeltaT", air.JudgeDeltaT, []any{5.0}},
	{"air.Inversion.Judge", air.Inversion.Judge, []any{air.Inversion{HoursAfterRise: num(4), HoursToSet: num(6),
		WindMS: num(3), LowC: num(20), HighC: num(19)}}},
	{"checks.Judge", func(v float64) (checks.Judgement, error) {
		return checks.Judge(volts, checks.Value{Number: &v},
			nil)
	}, []any{20.0}},
	{"checks.Judge headings", func(v []float64) (checks.Judgement, error) {
		return checks.Judge(compass,
			checks.Value{Set: v}, nil)
	}, []any{[]float64{2, 91, 178, 271}}},
	{"checks.Judge count", func(v float64) (checks.Judgement, error) {
		return checks.Judge(latches,
			checks.Value{Number: &v}, nil)
	}, []any{6.0}},
	{"checks.Judge motors", func(v []float64) (checks.Judgement, error) {
		return checks.Judge(warm, checks.Value{Set: v},
			nil)
	}, []any{[]float64{40, 41, 42, 43}}},
	{"height.Clinometer", height.Clinometer, []any{height.Value{V: 30, Sigma: 0.5}, height.Value{V: 30, Sigma: 0.5}, 1.7}},
	{"height.TwoStations", height.TwoStations, []any{height.Value{V: 20, Sigma: 0.2}, height.Value{V: 20, Sigma: 0.2},
		height.Value{V: 40, Sigma: 0.2}, 1.7}},
	{"home.Clearance", home.Clearance, []any{[]home.Place3{{At: geo.XY{X: 0, Y: 40}, M: 30},
		{At: geo.XY{X: 100, Y: 40}, M: 30}}, standing}},
	{"home.WayRound", home.WayRound, []any{geo.XY{X: 0, Y: 0}, geo.XY{X: 100, Y: 0}, 10.0, standing,
		(*geo.Area)(nil)}},
	{"home.OverGround", home.OverGround, []any{[]home.Place3{{At: geo.XY{}, M: 30}, {At: geo.XY{X: 100}, M: 30}},
		(*home.Terrain)(nil), 0.0, 3.0}},
	{"home.Sector", home.Sector, []any{home.Place3{}, 90.0, home.Slope{StartM: 0, Rise: 0.3}, tree, (*home.Terrain)(nil)}},
	{"home.ReturnHeight", home.ReturnHeight, []any{home.Question{Route: []geo.XY{{X: 100, Y: 0}}, Obstacles: tree,
		PositionM: 3, Margin: home.UsualMargin, CeilingM: 120, RouteHeight: 10, ClimbMS: 3, DescentMS: 2, PercentMin: 5,
		SettingM: num(40)}}},
	{"home.Along", home.Along, []any{[]geo.XY{{}, {X: 100}}, (*home.Terrain)(nil), num(210), tree, 3.0}},
	{"home.SideView", home.SideView, []any{home.Question{Route: []geo.XY{{X: 100, Y: 0}}, Obstacles: tree, PositionM: 3,
		Margin: home.UsualMargin, CeilingM: 120, RouteHeight: 10, ClimbMS: 3, DescentMS: 2, PercentMin: 5, SettingM: num(40)},
		40.0}},
	{"pack.MeasureCapacity", pack.MeasureCapacity, []any{8000.0, 95.0, 1.0, 20.0, 1.0}},
	{"pack.PercentFromVolts", pack.PercentFromVolts, []any{pack.LiPo, units.Millivolts(4100), 60.0}},
	{"pack.JudgeLaunch", pack.JudgeLaunch, []any{units.Percent(99), units.Percent(1), units.Percent(95)}},
	{"pack.JudgeShown", pack.JudgeShown, []any{pack.LiPo, units.Percent(99), []units.Millivolts{4190, 4190}}},
	{"pack.JudgeTakeoffTemperature", pack.JudgeTakeoffTemperature, []any{units.Celsius(20)}},
	{"pack.JudgeCharge", pack.JudgeCharge, []any{func() *units.Celsius { v := units.Celsius(20); return &v }(),
		time.Minute}},
	{"pack.JudgeLandedTemperature", pack.JudgeLandedTemperature, []any{units.Celsius(30)}},
	{"pack.Resistance", pack.Resistance, []any{units.Millivolts(4100), units.Millivolts(4000), 10.0}},
	{"pack.LandBy.Under", func(p, limit, minutes float64) judge.Verdict {
		if (pack.LandBy{Percent: units.Percent(limit), Minutes: minutes,
			Call: practice.ByMinutes}).Under(pack.Landed{Percent: &p, Seconds: 60}) == "" {
			return judge.Clear
		}
		return judge.Watch
	}, []any{40.0, 25.0, 12.0}},
	{"practice.Question.Check", func(v float64) error {
		q, _ := practice.Find(practice.LaunchCharge)
		return q.Check(practice.Choice{School: "least", Numbers: map[string]float64{"percent": v}})
	}, []any{90.0}},
	{"robust.TheilSen", robust.TheilSen, []any{[]float64{0, 1, 2, 3}, []float64{1, 2, 3, 4}}},
	{"sun.Position", sun.Position, []any{noon, 46.0, -119.0}},
	{"sun.On", sun.On, []any{noon, time.UTC, 46.0, -119.0}},
	{"energy.Model.Hover", quadModel.Hover, []any{12.0, 1.2}},
	{"energy.Model.Cruise", quadModel.Cruise, []any{12.0, 1.2}},
	{"energy.Model.Spray", quadModel.Spray, []any{12.0, 10.0, 0.05, 1.2}},
	{"energy.Model.Fly", quadModel.Fly, []any{12.0, 1.2, []energy.Phase{{Kind: energy.Cruising, Seconds: 60}}}},
	{"energy.Model.Check", energy.Model.Check, []any{quadModel}},
	{"energy.Model.Home", quadModel.Home, []any{wayBack}},
	{"energy.Model.Radius", quadModel.Radius, []any{wayBack, 90.0, 200.0}},
	{"energy.Cold", energy.Cold, []any{15.0}},
	{"energy.Pack.Full", energy.Pack.Full, []any{energy.Pack{AmpereHours: 22, Volts: 22, Health: 0.9, Celsius: 20,
		Percent: 100}}},
	{"energy.Together", energy.Together, []any{[]energy.Pack{{AmpereHours: 22, Volts: 22, Health: 0.9, Celsius: 20,
		Percent: 100}}}},
	{"mass.Add", mass.Add, []any{[]mass.Item{{Part: mass.Empty, Kg: 20}, {Part: mass.Packs, Kg: 10}}}},
	{"mass.Limits.Judge", mass.Limits.Judge, []any{mass.Limits{XM: num(0.1), AheadM: num(0.1), BehindM: num(0.1)},
		mass.Sum{Kg: 20}, []mass.Motor{{X: 1, Y: 1}, {X: 1, Y: -1}, {X: -1, Y: -1}, {X: -1, Y: 1}}, 30.0}},
	{"rotation.Day.Simulate", rotation.Day.Simulate, []any{aDay}},
	{"rotation.Day.Simulations", func(d rotation.Day, flights, hands float64) (rotation.Spread, error) {
		return d.Simulations(3, 1, rotation.Vary{Flights: flights, Hands: hands})
	}, []any{aDay, 0.1, 0.1}},
	{"spray.Settings.Solve", spray.Settings.Solve, []any{spray.Settings{Rate: 15, Speed: 6, Swath: 7}, spray.UnknownFlow}},
	{"spray.Nozzle.Check", spray.Nozzle.Check, []any{spray.Nozzle{Name: "Fan", LeastLPM: 0.4, MostLPM: 0.8, LeastBar: 1,
		MostBar: 4, Droplets: "medium"}}},
	{"spray.Product.Check", spray.Product.Check, []any{spray.Product{Name: "A", PerHa: 1, Unit: "L"}}},
	{"spray.LoadOf", spray.LoadOf, []any{2.0, 15.0, []spray.Product{{Name: "A", PerHa: 1, Unit: "L"}}}},
	{"survey.TurnPath", survey.TurnPath, []any{geo.XY{}, geo.XY{Y: 1}, geo.XY{X: 60}, geo.XY{Y: -1}, 30.0}},
	{"survey.Camera.See", lens.See, []any{90.0}},
	{"survey.Camera.HeightFor", lens.HeightFor, []any{0.02}},
	{"survey.Camera.Pace", lens.Pace, []any{survey.Picture{AcrossM: 135, AlongM: 90, GSDAcross: 0.025, GSDAlong: 0.025},
		22.5, 8.0, 0.001}},
	{"survey.Lines", survey.Lines, []any{400.0, 40.0}},
	{"survey.Pictures", survey.Pictures, []any{225.0, 22.5}},
	{"survey.Area.Hatch", anArea.Hatch, []any{90.0, 20.0, 10.0, 5.0}},
	{"survey.Area.BestBearing", anArea.BestBearing, []any{20.0, 5.0}},
	{"survey.Corridor", survey.Corridor, []any{[]geo.XY{{}, {X: 300}}, 60.0, 20.0, 10.0, 5.0}},
	{"camera.Stops", camera.Stops, []any{1.0 / 1600, 1.0 / 50}},
	{"camera.Shutter", camera.Shutter, []any{25.0}},
	{"inspect.Ring", inspect.Ring, []any{inspect.Round{RadiusM: 2, HeightM: 30, WideM: 6, HighM: 4, Sideways: 50,
		Upward: 50}}},
	{"spray.HopperOf", spray.HopperOf, []any{2.0, 15.0, []spray.Product{{Name: "A", PerHa: 15, Unit: "kg"}}}},
	{"spray.Loads", spray.Loads, []any{2.0, 15.0, 30.0, []spray.Product{{Name: "A", PerHa: 1, Unit: "L"}}}},
	{"spray.Catch", spray.Catch, []any{[]float64{1, 1, 1}, 3.0}},
	{"spray.Spread", spray.Spread, []any{[]float64{1, 1, 1}}},
	{"spray.PumpFactor", spray.PumpFactor, []any{1.0, 10.0, 10.0, false}},
	{"spray.ScaleCheck", spray.ScaleCheck, []any{0.0, 20.0, 20.0, 0.02}},
	{"spray.Make", spray.Make, []any{aWish, spray.Given{Field: aField,
		Nozzle: &spray.Nozzle{Name: "Fan", LeastLPM: 0.4, MostLPM: 1, LeastBar: 1, MostBar: 4, Droplets: "medium"}, TankL: 30,
		DryKg: 40, MostKg: 72, Rho: 1.2, Model: quadModel, UsableWh: 2000, ReturnM: 15}}},
	{"spray.Field.Check", spray.Field.Check, []any{aField}},
	{"spray.Field.Passes", aField.Passes, []any{spray.Pattern{SwathM: 7, Sections: 1}}},
	{"spray.Field.BestBearing", aField.BestBearing, []any{spray.Pattern{SwathM: 7, Sections: 1}}},
	{"energy.ChargeTime", energy.ChargeTime, []any{300.0, 200.0, 20.0, 95.0}},
	{"units.Steps", units.Steps, []any{1.5, 0.1}},
	{"upkeep.Step.Judge", upkeep.Step.Judge, []any{upkeep.Step{ID: "s", Text: "Torque",
		Reading: &upkeep.Reading{Quantity: "torque", Unit: "Nm", Bands: []upkeep.Band{{Target: 1.2, Tolerance: 0.2}}}},
		upkeep.Entry{Number: num(1.2)}}},
	{"wear.Judge", wear.Judge, []any{wear.Counters{Seconds: 3600, Litres: 10, Since: noon.AddDate(0, -1, 0)},
		wear.Limits{Hours: 24, Litres: 100, Months: 6}, noon}},
	{"wear.Stand", wear.Stand, []any{wear.Counters{Seconds: 3600, Litres: 10, Since: noon.AddDate(0, -1, 0)},
		wear.Limits{Hours: 24, Litres: 100, Months: 6}, noon}},
	{"gate.Part.Life", gate.Part.Life, []any{worn, noon}},
	{"aircraft.PartDue", aircraft.PartDue, []any{"A", worn, wear.Recent{Litres: []wear.DayUse{{DaysAgo: 1, Amount: 5}}},
		noon, noon}},
	{"aircraft.TaskDue", aircraft.TaskDue, []any{"A", upkeep.Standing{Task: upkeep.Task{Every: wear.Limits{Hours: 24}},
		Since: wear.Counters{Seconds: 3600, Litres: 10, Since: noon}}, wear.Due{Fraction: 0.1},
		wear.Recent{Hours: []wear.DayUse{{DaysAgo: 1, Amount: 5}}}, noon}},
	{"wear.First", wear.First, []any{wear.Counters{Seconds: 3600, Litres: 10, Since: noon.AddDate(0, -1, 0)},
		wear.Limits{Hours: 24, Litres: 100, Months: 6}, noon}},
	{"wear.When", wear.When, []any{wear.Counters{Seconds: 3600, Litres: 10, Since: noon.AddDate(0, -1, 0)},
		wear.Limits{Hours: 24, Litres: 100, Months: 6}, wear.Recent{Litres: []wear.DayUse{{DaysAgo: 1, Amount: 5}}}, noon}},
	{"wear.Forecast", wear.Forecast, []any{[]wear.DayUse{{DaysAgo: 1, Amount: 5}}, 10.0}},
	{"weather.Far", weather.Far, []any{"the station", num(10)}},
	{"weather.JudgeForecast", func(km *float64) judge.Verdict {
		if at := noon.Add(-time.Hour); len(weather.JudgeForecast(&at, km, noon)) == 0 {
			return judge.Clear
		}
		return judge.Watch
	}, []any{num(10)}},
	{"weather.JudgeHour", weather.JudgeHour, []any{fine, weather.Station{ElevationM: num(200), Ground: "open"},
		weather.Limits{WindMS: 8, GustMS: 10, FlightHeightM: 30, MaxMassKg: 7, Work: weather.Inspection}, sun.Light("day"),
		false}},
	{"wind.Scale", wind.Scale, []any{units.MetresPerSecond(3), (*units.MetresPerSecond)(nil), units.Metres(2),
		units.Metres(30), wind.Open}},
	{"wind.Hold", func(steady, gust, l, lg float64) judge.Verdict {
		var v []judge.Verdict
		for _, h := range wind.Hold(wind.AtHeight{Steady: units.MetresPerSecond(steady), Gust: units.MetresPerSecond(gust)},
			units.MetresPerSecond(l), units.MetresPerSecond(lg), 30) {
			v = append(v, h.Verdict)
		}
		return worst(reflect.ValueOf(v))
	}, []any{3.0, 4.0, 8.0, 10.0}},
	{"wind.BestHeading", wind.BestHeading, []any{units.MetresPerSecond(5), 270.0, []float64{260, 90},
		units.MetresPerSecond(6)}},
	{"wind.GroundSpeed", wind.GroundSpeed, []any{units.MetresPerSecond(10), units.MetresPerSecond(5), 270.0, 90.0}},
}

var (
	quadModel = energy.Model{Kind: energy.Rotors, Discs: 4, DiameterM: 0.5, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 10,
		ClimbMS: 3, DescentMS: 2}
	wayBack = energy.Return{MassKg: 12, Rho: 1.2, HeightM: 30, ReturnM: 40, DistanceM: 500, CourseDeg: 90,
		Wind: energy.Wind{MeanMS: 3, GustMS: 5, FromDeg: 270}}
	aDay = rotation.Day{Sorties: []rotation.Sortie{{Seconds: 600, Wh: 50, Done: 1}}, Aircraft: 1, Sets: 1, PerSet: 1,
		PackWh: 100, ChargeTo: 100, CoolS: 600, Channels: 1, ChannelW: 100, GeneratorW: 1000, Hands: 1, SwapS: 60, FillS: 60,
		DayS: 36000}
	aField = spray.Field{Outline: geo.Ring{{X: 0, Y: 0}, {X: 70, Y: 0}, {X: 70, Y: 100}, {X: 0, Y: 100}}, EdgeM: 1}
)

var aWish = spray.Defaults()

// elsewhere are functions that take figures and are not called here, with why.
var elsewhere = map[string]string{
	"energy.Model.With":       "an efficiency that was learned; checked by energy.Model.Check",
	"gate.Level":              "the level that core/gate judges",
	"energy.Learn":            "leaves out what nobody can read (core/energy)",
	"energy.Flown.Judge":      "says why a flight is left out (core/energy)",
	"energy.Store.":           "adds up what energy.Together let in",
	"energy.Model.CallOuts":   "calls energy.Model.Home for each distance",
	"energy.Model.Verticals":  "a height that is none gives no phases",
	"home.Obstacle.Within":    "what is no number is near (core/home)",
	"home.Terrain.Smooth":     "a place of the terrain, as home.Terrain.At",
	"units.Refuser.Within":    "is the refusal itself",
	"camera.Card.Judge":       "a card that camera.Card.Check let in (core/camera)",
	"energy.Wind.Over":        "a wind that energy.Model.Home let in",
	"mission.Mission.First":   "a mission that mission.Mission.Check let in (core/mission)",
	"survey.Following":        "keeps to the ground that it is given (core/survey)",
	"survey.Picture.Spacing":  "refuses what is no percent (core/survey)",
	"mass.Shares":             "called by mass.Limits.Judge",
	"rotation.Day.Check":      "called by rotation.Day.Simulate",
	"rotation.Day.Gains":      "calls rotation.Day.Simulate",
	"rotation.Bottleneck":     "reads what was simulated",
	"spray.Nozzle.Pressure":   "shown only: no number in is no number out",
	"spray.Settings.Need":     "shown only: no number in is no number out",
	"spray.Settings.Speed":    "called by spray.Settings.HoldNozzles",
	"spray.Settings.Hold":     "reads what spray.Settings.Solve let in",
	"spray.Product.Amount":    "called by spray.LoadOf",
	"spray.Label.":            "what a label does not say holds nothing; the rate was solved before",
	"spray.KeepOut":           "part of a field, whose check refuses it",
	"spray.Field.Holds":       "plain geometry of a checked field",
	"spray.Cover.":            "plain geometry of a checked field",
	"spray.Pass.":             "plain geometry of a checked field",
	"spray.Work.":             "checked by spray.Work.Check (core/spray)",
	"spray.Blow.":             "a wind that nobody can read goes all round (core/spray)",
	"geo.":                    "plain geometry: no number in is no number out; whoever judges refuses it (tests of home, site and airspace)",
	"units.Unit.":             "conversion: no number in is no number out",
	"air.Saturation":          "formula: no number in is no number out",
	"air.DensityAltitude":     "shown only: no number in is no number out",
	"air.MassLimit":           "walked in core/weather, whose test takes every figure away",
	"airspace.Words":          "words for what the readers already refused",
	"checks.Outliers":         "called by checks.Judge",
	"checks.HeadingError":     "called by checks.Judge",
	"checks.PaceOf":           "a validated number of the practice; tried with none in core/checks (pace_test)",
	"checks.Pace.Said":        "times of the server; tried with no number in core/checks (pace_test)",
	"checks.Usual":            "times of the server",
	"checks.DrillIn":          "a validated number of the practice; judges nothing",
	"checks.SpreadPercent":    "called by checks.Judge",
	"checks.Outlier":          "called by checks.Judge",
	"relief.":                 "drawings, in which what is not known is a gap; tried in core/relief",
	"home.Following":          "walked in core/wayhome, whose test takes every figure away",
	"home.FanReaches":         "walked in core/wayhome",
	"home.FanMeetsRing":       "walked in core/wayhome",
	"home.Terrain.UnderShape": "walked in core/wayhome",
	"intent.Level":            "walked in core/wayhome",
	"intent.LeastGround":      "reads a validated profile",
	"pack.EquivalentCycles":   "shown only: no number in is no number out",
	"pack.Stand":              "walked in core/pack (unreadable_test)",
	"pack.Forecast":           "walked in core/pack (unreadable_test)",
	"robust.Median":           "no number in is no number out",
	"robust.MAD":              "no number in is no number out",
	"robust.Line.At":          "no number in is no number out",
	"rules.Law.Over":          "walked in core/rules, whose test takes every figure away",
	"rules.Facts.NearPeople":  "walked in core/gate",
	"rules.Pack.At":           "walked in core/rules",
	"site.Standing":           "walked in core/wayhome",
	"site.Stand":              "a place on the map; the wind is refused before",
	"site.FindCover":          "a place on the map; the wind is refused before",
	"trend.Deviations":        "called by trend.Judge",
	"trend.Judge":             "reads what checks.Judge let in",
	"wind.Components":         "called by wind.BestHeading",
	"aircraft.NextDue":        "reads what the gate judged",
	"weather.Hour.Air":        "called by weather.JudgeHour",
	"pack.JudgeResistance":    "walked in core/pack (unreadable_test)",
	"home.Terrain.At":         "no height is unknown; walked in core/wayhome",
	"home.Terrain.Highest":    "no height is unknown; walked in core/wayhome",
	"inspect.Wish.Structure":  "walked in inspect.Make",
	"height.":                 "the same form as those called here; tested in core/height",
	"metar.":                  "makes figures from text, fuzzed in core/metar",
}

var unreadable = []float64{math.NaN(), math.Inf(1), math.Inf(-1), -1e300}

// No figure that nobody can read makes an answer milder, is answered with a
// number, or breaks the function.
func TestUnreadableIsRefused(t *testing.T) {
	for _, c := range calls {
		fn, good := reflect.ValueOf(c.fn), values(c.args)
		fair := fn.Call(good)
		require.True(t, errOf(fair) == nil, "%s: the good call fails: %v", c.name, errOf(fair))
		for i := range c.args {
			for n := range figures(good[i], -1, 0) {
				for _, bad := range unreadable {
					args := values(c.args)
					args[i] = copyOf(args[i])
					figures(args[i], n, bad)
					what := fmt.Sprintf("%s argument %d figure %d = %g", c.name, i, n, bad)
					var got []reflect.Value
					if !assert.NotPanics(t, func() { got = fn.Call(args) }, what) || errOf(got) != nil {
						continue
					}
					assert.GreaterOrEqual(t, worstOf(got), worstOf(fair), "%s made it milder", what)
					if last := got[len(got)-1]; last.Kind() == reflect.Bool && !last.Bool() {
						continue // not ok: what else it answers says nothing
					}
					for _, r := range got {
						assert.False(t, unheard(r), "%s is answered with no number", what)
					}
				}
			}
		}
	}
}

var lens = survey.Camera{SensorWMM: 13.2, SensorHMM: 8.8, FocalMM: 8.8, PixelsW: 5472, PixelsH: 3648, LeastS: 2}

var worn = gate.Part{ID: "p", Kind: "motor", Counters: wear.Counters{Seconds: 3600, Litres: 10,
	Since: noon.AddDate(0, -1, 0)}, Limits: wear.Limits{Hours: 24, Litres: 100, Months: 6}}

// Every exported function of the core that takes figures is called above, or
// listed with the reason why not.
func TestEveryFigureIsTried(t *testing.T) {
	tried := map[string]bool{}
	for _, c := range calls {
		tried[strings.Fields(c.name)[0]] = true
	}
	root := "."
	require.NoError(t, filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		for _, dec := range f.Decls {
			fd, ok := dec.(*ast.FuncDecl)
			if !ok || !fd.Name.IsExported() || !takesFigures(fd) {
				continue
			}
			name := f.Name.Name + "." + fd.Name.Name
			if fd.Recv != nil {
				name = f.Name.Name + "." + receiver(fd) + "." + fd.Name.Name
			}
			known := tried[name]
			for e := range elsewhere {
				known = known || name == e || strings.HasSuffix(e, ".") && strings.HasPrefix(name, e)
			}
			assert.True(t, known, "%s takes figures and is not tried with what nobody can read", name)
		}
		return nil
	}))
}

func takesFigures(fd *ast.FuncDecl) bool {
	for _, p := range fd.Type.Params.List {
		e := p.Type
		for {
			if a, ok := e.(*ast.ArrayType); ok {
				e = a.Elt
			} else if s, ok := e.(*ast.StarExpr); ok {
				e = s.X
			} else {
				break
			}
		}
		if i, ok := e.(*ast.Ident); ok && i.Name == "float64" {
			return true
		}
		if s, ok := e.(*ast.SelectorExpr); ok {
			if x, ok := s.X.(*ast.Ident); ok && x.Name == "units" && s.Sel.Name != "Millivolts" {
				return true
			}
		}
	}
	return false
}

func receiver(fd *ast.FuncDecl) string {
	e := fd.Recv.List[0].Type
	if s, ok := e.(*ast.StarExpr); ok {
		e = s.X
	}
	if i, ok := e.(*ast.Ident); ok {
		return i.Name
	}
	return "?"
}

func values(args []any) []reflect.Value {
	out := make([]reflect.Value, len(args))
	for i, a := range args {
		out[i] = reflect.ValueOf(a)
	}
	return out
}

// copyOf copies a value so deep that its figures can be changed.
func copyOf(v reflect.Value) reflect.Value {
	out := reflect.New(v.Type()).Elem()
	switch v.Kind() {
	case reflect.Slice:
		if v.IsNil() {
			return v
		}
		out = reflect.New(v.Type()).Elem()
		out.Set(reflect.MakeSlice(v.Type(), v.Len(), v.Len()))
		for i := range v.Len() {
			out.Index(i).Set(copyOf(v.Index(i)))
		}
	case reflect.Pointer:
		if v.IsNil() {
			return v
		}
		out.Set(reflect.New(v.Type().Elem()))
		out.Elem().Set(copyOf(v.Elem()))
	case reflect.Struct:
		out.Set(v)
		for i := range v.NumField() {
			if out.Field(i).CanSet() {
				out.Field(i).Set(copyOf(v.Field(i)))
			}
		}
	default:
		out.Set(v)
	}
	return out
}

// figures counts the figures of a value, and sets the nth to bad.
func figures(v reflect.Value, nth int, bad float64) int {
	n := 0
	var walk func(reflect.Value)
	walk = func(v reflect.Value) {
		switch v.Kind() {
		case reflect.Float64:
			if n == nth {
				v.SetFloat(bad)
			}
			n++
		case reflect.Slice:
			for i := range v.Len() {
				walk(v.Index(i))
			}
		case reflect.Pointer:
			if !v.IsNil() {
				walk(v.Elem())
			}
		case reflect.Struct:
			for i := range v.NumField() {
				if v.Type().Field(i).IsExported() {
					walk(v.Field(i))
				}
			}
		}
	}
	walk(v)
	return n
}

func errOf(out []reflect.Value) error {
	if len(out) == 0 {
		return nil
	}
	err, _ := out[len(out)-1].Interface().(error)
	return err
}

func worstOf(out []reflect.Value) judge.Verdict {
	w := judge.Clear
	for _, v := range out {
		w = max(w, worst(v))
	}
	return w
}

var verdict = reflect.TypeFor[judge.Verdict]()

// worst is the worst verdict anywhere in a value.
func worst(v reflect.Value) judge.Verdict {
	w := judge.Clear
	switch {
	case !v.IsValid():
	case v.Type() == verdict:
		return judge.Verdict(v.Int())
	case v.Kind() == reflect.Slice:
		for i := range v.Len() {
			w = max(w, worst(v.Index(i)))
		}
	case v.Kind() == reflect.Pointer && !v.IsNil():
		return worst(v.Elem())
	case v.Kind() == reflect.Struct:
		for i := range v.NumField() {
			w = max(w, worst(v.Field(i)))
		}
	}
	return w
}

// unheard reports whether a plain answer is no number.
func unheard(v reflect.Value) bool {
	return v.Kind() == reflect.Float64 && (math.IsNaN(v.Float()) || math.IsInf(v.Float(), 0))
}
