package gate_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/crew"
	"mainstay/core/firmware"
	"mainstay/core/gate"
	"mainstay/core/gear"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/practice"
	"mainstay/core/rules"
	"mainstay/core/units"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
	"mainstay/core/wind"
)

var now = time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC)

func ago(d time.Duration) time.Time               { return now.Add(-d) }
func ptr[T any](v T) *T                           { return &v }
func date(y, m, d int) *time.Time                 { return ptr(time.Date(y, time.Month(m), d, 0, 0, 0, 0, time.UTC)) }
func mv(v ...units.Millivolts) []units.Millivolts { return v }

// facts of a job about which nothing is wrong.
func facts() rules.Facts {
	ivo := rules.Person{ID: "i", Name: "Ivo", IsPilot: true, Certificate: "R-1", TrainedOn: date(2025, 3, 3),
		Role: crew.InCommand, Fit: &crew.Fitness{At: ago(time.Hour)}, Ready: &crew.Readiness{Open: true}}
	f := rules.Facts{Day: *date(2026, 6, 10), JobID: "j", Work: "inspection", Pilot: &ivo, People: []rules.Person{ivo},
		Light: []string{"day"},
		Aircraft: rules.Aircraft{ID: "a", Name: "Quad one", Registration: "FA-1", RegistrationExpires: date(2027, 6, 1),
			MassKg: 7.5},
		HeightM: ptr(40.0), SpeedMS: ptr(8.0), FarM: ptr(200.0), SightM: 500, Briefing: &rules.Briefing{},
		Answers: map[string]string{}}
	for _, a := range rules.USSmall.With(nil).Questions(f) {
		f.Answers[a.ID] = a.Options[0].ID
	}
	return f
}

// good is a flight about which nothing is wrong.
func good() gate.Input {
	ty := airframe.Type{Key: "quad", Name: "Quad", Sticks: &airframe.Sticks{Start: "down and in", Stop: "down",
		Emergency: "down and out"}, Limits: airframe.Limits{TakeoffMassKg: 7.5, WindMS: 10, GustMS: 14, FlightHeightM: 30,
		LaunchPercent: 95, LandByPercent: 25, PlannedMinutes: 5},
		Geometry: airframe.Geometry{Kind: airframe.Multirotor, Rotors: 4, ArmM: 0.6,
			RotorDiameterM: 0.8}, Power: &airframe.Power{Efficiency: 0.7, CruiseMS: 16},
		Packs: airframe.Packs{Count: 1, Chemistry: pack.LiPo, Cells: 3, CapacityMAh: 5000, PercentFrom: "volts",
			MaxCycles: 300}}
	return gate.Input{
		Scope: gate.WholeFlight, Now: now, Type: ty,
		Aircraft: gate.Aircraft{ID: "a", Name: "Quad one", Active: true},
		Walkround: &gate.Run{ID: "w", By: "Bo", At: ago(time.Hour), PackIDs: []string{"b"}, Kept: checks.Kept(ty),
			LeftOut: []checks.LeftOut{}, Asked: []string{}},
		Compass: &gate.Calibration{By: "Bo", At: ago(5 * 24 * time.Hour), MovedKm: ptr(12.0)},
		HighM:   ptr(30.0), Mass: intent.Mass{MassKg: ptr(7.2), MaxKg: 7.5, LiftKg: ptr(7.4)},
		Gear: []gear.Piece{{ID: "c", Label: "Controller 1", Kind: "controller", Percent: ptr(80.0), Least: 30,
			At: ptr(ago(time.Hour)), LookedAt: ptr(ago(time.Hour))}},
		Parts: []gate.Part{{ID: "p", FittedAt: ago(30 * 24 * time.Hour), Station: "propeller-1", Label: "Propeller 1",
			Kind: "propeller", Required: true,
			Counters: wear.Counters{Seconds: 3600, Since: ago(30 * 24 * time.Hour)}, Limits: wear.Limits{Hours: 24, Months: 6}}},
		Packs: []gate.Pack{{ID: "b", Label: "B1", Chemistry: pack.LiPo, Cells: 3, Capacity: 5000, State: pack.Charged,
			FullSince: ptr(ago(5 * time.Hour)), Cycles: 20, Set: pack.Candidate{CapacityMAh: ptr(4900.0)},
			Reading: &gate.PackReading{At: ago(time.Hour), CellMV: mv(4200, 4195, 4198), RestedMin: 60,
				Temperature: ptr(units.Celsius(22))}}},
		Energy:     gate.Energy{FarM: ptr(200.0), ReturnM: ptr(30.0), Rho: ptr(1.2), Planned: true, NeedWh: ptr(30.0)},
		PacksReady: 3, Programme: true,
		Rules: rules.USSmall.With(nil), Facts: facts(),
		Wind: &gate.Wind{At: ago(5 * time.Minute), SteadyMS: 3, GustMS: ptr(units.MetresPerSecond(4)), MeasuredM: 2,
			Ground: wind.Open},
	}
}

func TestNothingWrongIsClear(t *testing.T) {
	out := gate.Judge(good())
	assert.Equal(t, judge.Clear, out.Verdict, "%+v", out.Findings)
	assert.Contains(t, out.Checked, judge.RuleEnergy)
	require.NotNil(t, out.Energy)
	assert.Contains(t, out.Checked, judge.RuleWalkround)
	require.NotNil(t, out.Wind)
	assert.InDelta(t, 3*1.4609, float64(out.Wind.Steady), 0.01) // (30/2)^0.14
}

// wrong is one thing that is wrong about a good flight, and what the gate says.
var wrong = []struct {
	name   string
	change func(*gate.Input)
	rule   judge.Rule
	v      judge.Verdict
	says   string
}{
	{"out of service", func(i *gate.Input) { i.Aircraft.Active = false }, "aircraft-active", judge.Stop, "out of service"},
	{"in the air", func(i *gate.Input) { i.InAir = &gate.InAir{FlightID: "f", Pilot: "Oda"} }, "one-aircraft", judge.Stop,
		"in the air with Oda"},
	{"not logged", func(i *gate.Input) { i.InAir = &gate.InAir{FlightID: "f", Pilot: "Oda", Landed: true} },
		"one-aircraft", judge.Stop, "not logged"},
	{"released by another", func(i *gate.Input) { i.Released = &gate.Release{ID: "r", Pilot: "Oda", At: now} },
		"one-aircraft", judge.Stop, "released by Oda"},
	{"grounded", func(i *gate.Input) { i.Groundings = []gate.Grounding{{Reason: "shakes", By: "Bo", At: now}} },
		"grounding", judge.Stop, "Grounded by Bo: shakes"},
	{"left out by day, flown by night", func(i *gate.Input) {
		i.Walkround.LeftOut = []checks.LeftOut{{ItemID: "lights", Title: "Light lit", Stops: true, Why: "Night: no.",
			When: []checks.When{{Fact: "night", Is: []string{"yes"}}}}}
		i.Day = checks.Facts{"night": {Word: "yes"}}
	}, "walkround", judge.Stop, "this flight asks for it: Light lit"},
	{"left out, and nobody knows whether it is night", func(i *gate.Input) {
		i.Walkround.LeftOut = []checks.LeftOut{{ItemID: "lights", Title: "Light lit", Stops: true,
			When: []checks.When{{Fact: "night", Is: []string{"yes"}}}}}
	}, "walkround", judge.Stop, "Left out on the check"},
	{"a watch left out", func(i *gate.Input) {
		i.Walkround.LeftOut = []checks.LeftOut{{ItemID: "gestures", Title: "Gestures",
			When: []checks.When{{Fact: "other-type", Is: []string{"yes"}}}}}
		i.Day = checks.Facts{"other-type": {Word: "yes"}}
	}, "walkround", judge.Watch, "Gestures"},
	{"nobody knows who was asked", func(i *gate.Input) { i.Walkround.Asked = nil }, "walkround", judge.Watch,
		"is not known"},
	{"not asked for go", func(i *gate.Input) { i.Walkround.Asked = []string{"Bo"} }, "walkround", judge.Watch,
		"Go or no go was not asked of Ivo."},
	{"walked fast", func(i *gate.Input) { i.Walkround.Pace = "The check went fast." }, "walkround", judge.Watch,
		"went fast"},
	{"contact", func(i *gate.Input) {
		i.Groundings = []gate.Grounding{{Reason: "branch", By: "Bo", At: now, Cause: "contact"}}
	}, "grounding", judge.Stop, "branch"},
	{"defect", func(i *gate.Input) {
		i.Defects = []gate.Defect{{ID: "d", Title: "crack", Station: "Arm 1", Severity: judge.Stop, By: "Bo", At: now}}
	}, "defects", judge.Stop, "crack"},
	{"small defect is never clear", func(i *gate.Input) {
		i.Defects = []gate.Defect{{ID: "d", Title: "scratch", Station: "Arm 1", By: "Bo", At: now}}
	}, "defects", judge.Watch, "scratch"},
	{"kept otherwise since the walk", func(i *gate.Input) {
		i.Type.Practice = practice.Settings{practice.Sensing: {School: "off-open"}}
	}, "walkround", judge.Stop, "Obstacle sensing on, off only over open areas"},
	{"never calibrated", func(i *gate.Input) { i.Compass = nil }, "compass", judge.Watch, "not known"},
	{"calibrated tomorrow", func(i *gate.Input) { i.Compass.At = now.Add(time.Hour) }, "compass", judge.Watch, "future"},
	{"calibrated long ago", func(i *gate.Input) { i.Compass.At = ago(30*24*time.Hour + time.Minute) }, "compass",
		judge.Watch, "holds for 30 days"},
	{"calibrated far away", func(i *gate.Input) { i.Compass.MovedKm = ptr(50.1) }, "compass", judge.Watch, "50 km"},
	{"calibrated nobody knows where", func(i *gate.Input) { i.Compass.MovedKm = nil }, "compass", judge.Watch,
		"How far it came"},
	{"worked on since", func(i *gate.Input) { i.Compass.Since = "Receiver replaced" }, "compass", judge.Watch,
		"Receiver replaced"},
	{"not calibrated today", func(i *gate.Input) {
		i.Type.Practice = practice.Settings{practice.Compass: {School: "flying-day"}}
	}, "compass", judge.Watch, "not calibrated today"},
	{"foreign propeller by people", func(i *gate.Input) {
		i.Parts[0].Foreign, i.Facts.Answers["people-under"] = true, "sheltered"
	}, "other-propellers", judge.Stop, "away from people only"},
	{"foreign propeller never", func(i *gate.Input) {
		i.Parts[0].Foreign, i.Type.Practice = true, practice.Settings{practice.OtherPropellers: {School: "never"}}
	}, "other-propellers", judge.Stop, "never flies them"},
	{"no walkround", func(i *gate.Input) { i.Walkround = nil }, "walkround", judge.Stop, "no complete walkround"},
	{"old walkround", func(i *gate.Input) { i.Walkround.At = ago(12*time.Hour + time.Minute) }, "walkround", judge.Stop,
		"12 h old"},
	{"future walkround", func(i *gate.Input) { i.Walkround.At = now.Add(time.Minute) }, "walkround", judge.Stop, "future"},
	{"flown since", func(i *gate.Input) { i.Aircraft.LastLanding = ptr(ago(10 * time.Minute)) }, "walkround", judge.Stop,
		"flown since"},
	{"stale turnaround", func(i *gate.Input) {
		i.Aircraft.LastLanding = ptr(ago(10 * time.Minute))
		i.Turnaround = &gate.Run{At: ago(20 * time.Minute)}
	}, "walkround", judge.Stop, "flown since"},
	{"work since the walk", func(i *gate.Input) { i.Parts[0].FittedAt = ago(30 * time.Minute) }, "walkround", judge.Stop,
		"Propeller 1 is newly fitted"},
	{"found on the walk", func(i *gate.Input) {
		i.Walkround.Findings = []gate.RunFinding{{Title: "Arm 2", Verdict: judge.Watch, Sentence: "play"}}
	}, "walkround", judge.Watch, "Arm 2: play"},
	{"no registration", func(i *gate.Input) { i.Facts.Aircraft.Registration = " " }, "registration", judge.Stop,
		"No registration"},
	{"no expiry", func(i *gate.Input) { i.Facts.Aircraft.RegistrationExpires = nil }, "registration", judge.Stop,
		"not known"},
	{"expired", func(i *gate.Input) { i.Facts.Aircraft.RegistrationExpires = date(2026, 6, 9) }, "registration",
		judge.Stop, "expired on 2026-06-09"},
	{"expires today is watch", func(i *gate.Input) { i.Facts.Aircraft.RegistrationExpires = date(2026, 6, 10) },
		"registration", judge.Watch, "expires"},
	{"part missing", func(i *gate.Input) { i.Parts[0].ID = "" }, "wear", judge.Stop, "No propeller"},
	{"lesser part missing", func(i *gate.Input) {
		i.Parts = append(i.Parts, gate.Part{Station: "light", Label: "Light", Kind: "light"})
	}, "wear", judge.Watch, "No part is recorded at Light"},
	{"no programme", func(i *gate.Input) { i.Programme = false }, "programme", judge.Watch, "not known"},
	{"task due", func(i *gate.Input) {
		i.Tasks = []gate.Task{{ID: "s", Title: "Screws", Due: wear.Due{Verdict: judge.Stop,
			Sentence: "7 of 7 days used: due now."}}}
	}, "programme", judge.Stop, "Screws: 7 of 7"},
	{"work open", func(i *gate.Input) { i.Orders = []gate.Order{{ID: "o", Title: "Arm 2", Grounds: true}} }, "work-orders",
		judge.Stop, "Work is open: Arm 2"},
	{"small work open", func(i *gate.Input) { i.Orders = []gate.Order{{ID: "o", Title: "Light"}} }, "work-orders",
		judge.Watch, "A work order is open"},
	{"acceptance flight due", func(i *gate.Input) {
		i.Orders = []gate.Order{{ID: "o", Title: "Arm 2", Signed: true, Next: upkeep.NoLoad}}
	}, "work-orders", judge.Stop, "acceptance flight without load"},
	{"this is the acceptance flight", func(i *gate.Input) {
		i.Acceptance, i.Orders = "o", []gate.Order{{ID: "o", Title: "Arm 2", Signed: true, Next: upkeep.Loaded}}
	}, "work-orders", judge.Watch, "Acceptance flight with load"},
	{"acceptance of nothing", func(i *gate.Input) { i.Acceptance = "o" }, "work-orders", judge.Stop,
		"No acceptance flight is due"},
	{"firmware", func(i *gate.Input) {
		i.Firmware = firmware.Compare(firmware.Set{"app": "2"}, firmware.Set{"app": "1"}, false)
	}, "firmware", judge.Stop, "tested together was 2"},
	{"defect put off", func(i *gate.Input) {
		i.Defects = []gate.Defect{{Title: "dim", Station: "Light", Severity: judge.Stop, At: now,
			Deferred: "Put off through 2026-06-20."}}
	}, "defects", judge.Watch, "Put off through"},
	{"deferral ended", func(i *gate.Input) {
		i.Defects = []gate.Defect{{Title: "dim", Station: "Light", Severity: judge.Watch, At: now,
			Ended: "it ended on 2026-06-09"}}
	}, "defects", judge.Stop, "it ended on"},
	{"defect not decided", func(i *gate.Input) {
		i.Defects = []gate.Defect{{Title: "dim", Severity: judge.Watch,
			At: now}}
	}, "defects", judge.Watch, "No work order and no deferral"},
	{"pack charged too long", func(i *gate.Input) { i.Packs[0].FullSince = ptr(ago(11 * 24 * time.Hour)) }, "packs",
		judge.Stop, "six faces"},
	{"pack flown and full too long", func(i *gate.Input) {
		i.Packs[0].State, i.Packs[0].FullSince = pack.Flown,
			ptr(ago(11*24*time.Hour))
	}, "packs", judge.Stop, "six faces"},
	{"pack shows more than its cells hold", func(i *gate.Input) {
		i.Packs[0].Reading.Percent, i.Packs[0].Reading.CellMV = ptr(units.Percent(99)), []units.Millivolts{3760, 3750, 3760}
	}, "packs", judge.Stop, "It shows 99 %, but with cell 2 at 3.75 V"},
	{"pack worn inside", func(i *gate.Input) {
		i.Packs[0].Condition = []pack.Judgement{{Verdict: judge.Stop, Sentence: "Health 78 %."}}
	}, "packs", judge.Stop, "Health 78"},
	{"packs no set", func(i *gate.Input) {
		i.Type.Packs.Count = 2
		b := i.Packs[0]
		b.ID, b.Label, b.Set = "c", "B2", pack.Candidate{ID: "c", Label: "B2", Cycles: 90}
		i.Packs = append(i.Packs, b)
	}, "packs", judge.Stop, "do not make a set"},
	{"packs of two kinds", func(i *gate.Input) {
		i.Type.Packs.Count = 2
		b := i.Packs[0]
		b.ID, b.Label, b.Cells, b.Set = "c", "B2", 6, pack.Candidate{ID: "c", Label: "B2", Cycles: 90}
		i.Packs = append(i.Packs, b)
	}, "packs", judge.Stop, "with 6 cells"},
	{"part overdue", func(i *gate.Input) { i.Parts[0].Counters.Seconds = 24 * 3600 }, "wear", judge.Stop, "due now"},
	{"part nearly due", func(i *gate.Input) { i.Parts[0].Counters.Seconds = 22 * 3600 }, "wear", judge.Watch, "2.0 left"},
	{"pack not looked at", func(i *gate.Input) { i.Walkround.PackIDs = nil }, "packs", judge.Stop, "B1 was not looked at"},
	{"another pack looked at", func(i *gate.Input) { i.Walkround.PackIDs = []string{"x"} }, "packs", judge.Stop,
		"B1 was not looked at"},
	{"pack flown since the look", func(i *gate.Input) { i.Packs[0].FlownAt = ptr(ago(30 * time.Minute)) }, "packs",
		judge.Stop, "B1 was not looked at"},
	{"pack looked at too long ago", func(i *gate.Input) {
		i.Walkround.PackIDs, i.Packs[0].LookedAt = nil,
			ptr(ago(13*time.Hour))
	}, "packs", judge.Stop, "B1 was not looked at"},
	{"mass not known", func(i *gate.Input) { i.Mass.MassKg = nil }, "mass", judge.Stop, "not known"},
	{"mass of the type not known", func(i *gate.Input) { i.Mass.MaxKg = 0 }, "mass", judge.Stop, "greatest take-off mass"},
	{"gestures not known", func(i *gate.Input) { i.Type.Sticks = nil }, "sticks", judge.Watch, "gestures"},
	{"packs too empty for the plan", func(i *gate.Input) { i.Energy.NeedWh = ptr(45.0) }, "energy", judge.Stop,
		"The planned flight needs 45 Wh; these packs give"},
	{"packs too empty for the usual minutes", func(i *gate.Input) {
		i.Energy.Planned, i.Type.Limits.PlannedMinutes = false,
			90
	}, "energy", judge.Watch, "Wh; the packs give"},
	{"plan that cannot be worked out", func(i *gate.Input) { i.Energy.NeedWh = nil }, "energy", judge.Stop,
		"cannot be worked out"},
	{"no plan", func(i *gate.Input) { i.Energy.Planned, i.Energy.NeedWh = false, nil }, "energy", judge.Watch, "no plan"},
	{"too far out", func(i *gate.Input) { i.Energy.FarM = ptr(5000.0) }, "energy", judge.Stop,
		"the farthest place, 5000 m away"},
	{"no way home in gusts", func(i *gate.Input) { i.Wind.GustMS = ptr(units.MetresPerSecond(11)) }, "energy", judge.Stop,
		"in the gusts it does not come forward"},
	{"air not known", func(i *gate.Input) { i.Energy.Rho = nil }, "energy", judge.Watch, "thin air"},
	{"capacity never measured", func(i *gate.Input) { i.Packs[0].Set.CapacityMAh = nil }, "energy", judge.Watch,
		"capacity of B1 never measured"},
	{"no packs", func(i *gate.Input) { i.Packs = nil }, "packs", judge.Stop, ""},
	{"last flew a type of unknown gestures", func(i *gate.Input) {
		i.LastType = &airframe.Type{Key: "other",
			Name: "Other"}
	}, "sticks", judge.Watch, "Other"},
	{"gesture means something else", func(i *gate.Input) {
		i.LastType = &airframe.Type{Name: "Hexa", Sticks: &airframe.Sticks{Start: "Down and  out", Stop: "down",
			Emergency: "down and in"}}
	}, "sticks", judge.Watch, "Down and out is emergency stop here, and was start on the Hexa"},
	{"too heavy", func(i *gate.Input) { i.Mass.MassKg = ptr(7.51) }, "mass", judge.Stop, "the type takes 7.5"},
	{"heavy for the air", func(i *gate.Input) { i.Mass.LiftKg = ptr(7.19) }, "mass", judge.Watch, "thinner air"},
	{"lift not known", func(i *gate.Input) { i.Mass.LiftKg = nil }, "mass", judge.Watch, "lifts is not known"},
	{"controller flat", func(i *gate.Input) { i.Gear[0].Percent = ptr(29.0) }, "gear", judge.Stop, "stands at 29 %"},
	{"controller not read", func(i *gate.Input) { i.Gear[0].Percent = nil }, "gear", judge.Stop, "never been read"},
	{"controller read long ago", func(i *gate.Input) { i.Gear[0].At = ptr(ago(25 * time.Hour)) }, "gear", judge.Stop,
		"25 h ago"},
	{"controller not looked at", func(i *gate.Input) { i.Gear[0].LookedAt = nil }, "gear", judge.Stop,
		"Nobody has looked"},
	{"controller swollen", func(i *gate.Input) { i.Gear[0].Found = "swollen" }, "gear", judge.Stop, "found: swollen"},
	{"controller out of use", func(i *gate.Input) { i.Gear[0].Retired = true }, "gear", judge.Stop, "out of use"},
	{"wind from the future", func(i *gate.Input) { i.Wind.At = now.Add(3 * time.Hour) }, "wind", judge.Stop, "future"},
	{"wind up there", func(i *gate.Input) {
		i.HighM, i.Wind.SteadyMS, i.Wind.GustMS = ptr(115.0), 5, ptr(units.MetresPerSecond(8))
	}, "wind", judge.Stop, "at 115 m"},
	{"a set is one finding", func(i *gate.Input) {
		p := i.Parts[0]
		p.Label, p.Counters.Seconds = "Propeller 2", 24*3600
		i.Parts[0].Counters.Seconds = 24 * 3600
		i.Parts = append(i.Parts, p)
	}, "wear", judge.Stop, "Propeller 1, Propeller 2: 24.0"},
	{"part of unknown age", func(i *gate.Input) { i.Parts[0].Counters.Since = time.Time{} }, "wear", judge.Stop,
		"not known"},
	{"no pack", func(i *gate.Input) { i.Packs = nil }, "packs", judge.Stop, "takes 1"},
	{"same pack twice", func(i *gate.Input) { i.Type.Packs.Count = 2; i.Packs = append(i.Packs, i.Packs[0]) }, "packs",
		judge.Stop, "twice"},
	{"wrong pack", func(i *gate.Input) { i.Packs[0].Cells = 4 }, "packs", judge.Stop, "needs LiPo with 3"},
	{"small pack", func(i *gate.Input) { i.Packs[0].Capacity = 4000 }, "packs", judge.Stop, "4000 mAh"},
	{"pack elsewhere", func(i *gate.Input) { i.Packs[0].InUseBy = "Quad two" }, "packs", judge.Stop, "Quad two"},
	{"quarantine", func(i *gate.Input) { i.Packs[0].State = pack.Quarantine }, "packs", judge.Stop, "quarantine"},
	{"not charged", func(i *gate.Input) { i.Packs[0].State = pack.Storage }, "packs", judge.Stop, "storage, not charged"},
	{"worn out", func(i *gate.Input) { i.Packs[0].Cycles = 300 }, "packs", judge.Stop, "retire"},
	{"never read", func(i *gate.Input) { i.Packs[0].Reading = nil }, "packs", judge.Stop, "never been read"},
	{"read yesterday", func(i *gate.Input) { i.Packs[0].Reading.At = ago(25 * time.Hour) }, "packs", judge.Stop,
		"25 h old"},
	{"cells not read", func(i *gate.Input) { i.Packs[0].Reading.CellMV = nil }, "packs", judge.Stop,
		"cells were not read"},
	{"uneven cells", func(i *gate.Input) { i.Packs[0].Reading.CellMV = mv(4200, 4150, 4200) }, "packs", judge.Watch,
		"50 mV"},
	{"not rested", func(i *gate.Input) { i.Packs[0].Reading.RestedMin = 5 }, "packs", judge.Stop, "not rested"},
	{"half charged", func(i *gate.Input) { i.Packs[0].Reading.CellMV = mv(3850, 3850, 3850) }, "packs", judge.Stop,
		"under 95"},
	{"level not entered", func(i *gate.Input) { i.Type.Packs.PercentFrom = "pack" }, "packs", judge.Stop,
		"was not entered"},
	{"cold pack", func(i *gate.Input) { i.Packs[0].Reading.Temperature = ptr(units.Celsius(2)) }, "packs", judge.Stop,
		"warm it"},
	{"temperature unknown", func(i *gate.Input) { i.Packs[0].Reading.Temperature = nil }, "packs", judge.Stop, "not read"},
	{"no pilot", func(i *gate.Input) { i.Facts.Pilot = nil }, "operator", judge.Stop, "No pilot"},
	{"not a pilot", func(i *gate.Input) { i.Facts.Pilot.IsPilot = false }, "operator", judge.Stop, "not a pilot"},
	{"no certificate", func(i *gate.Input) { i.Facts.Pilot.Certificate = "" }, "operator", judge.Stop,
		"no remote pilot certificate"},
	{"training unknown", func(i *gate.Input) { i.Facts.Pilot.TrainedOn = nil }, "operator", judge.Stop, "not known"},
	{"not current", func(i *gate.Input) { i.Facts.Pilot.TrainedOn = date(2024, 5, 31) }, "operator", judge.Stop,
		"2026-05-31"},
	{"current to the end of the month", func(i *gate.Input) {
		i.Facts.Pilot.TrainedOn, i.Facts.Day = date(2024, 6, 1),
			*date(2026, 6, 23)
	}, "operator", judge.Watch, "2026-06-30"},
	{"trained tomorrow", func(i *gate.Input) { i.Facts.Pilot.TrainedOn = date(2026, 6, 11) }, "operator", judge.Stop,
		"future"},
	{"pilot has another in the air", func(i *gate.Input) { i.Facts.People[0].InAir = "Quad two" }, "one-aircraft",
		judge.Stop, "Quad two in the air"},
	{"report to the authority", func(i *gate.Input) {
		i.Reports = []gate.Report{{What: "a broken fence", DueAt: now.AddDate(0, 0, 4)}}
	}, "accident", judge.Watch, "by 2026-06-14: a broken fence"},
	{"report late", func(i *gate.Input) { i.Reports = []gate.Report{{What: "a broken fence", DueAt: ago(time.Hour)}} },
		"accident", judge.Stop, "was due"},
	{"site stops it", func(i *gate.Input) {
		i.Site = []judge.Finding{{Rule: "airspace", Verdict: judge.Stop, Sentence: "Inside a zone.", Source: "x", Lifts: "y"}}
	}, "airspace", judge.Stop, "Inside a zone"},
	{"site stops it, lifted by a waiver", func(i *gate.Input) {
		i.Site = []judge.Finding{{Rule: "visibility", Verdict: judge.Stop, Sentence: "Haze.", Source: "x", Lifts: "y",
			Limit: true}}
		i.Facts.Docs = []rules.Document{{Kind: rules.Waiver, Number: "W-9", Rules: []judge.Rule{"visibility"},
			Conditions: "Over the river."}}
	}, "visibility", judge.Watch, "waiver W-9"},
	{"wind unknown", func(i *gate.Input) { i.Wind = nil }, "wind", judge.Stop, "not been entered"},
	{"old wind", func(i *gate.Input) { i.Wind.At = ago(61 * time.Minute) }, "wind", judge.Stop, "61 min old"},
	{"windy", func(i *gate.Input) { i.Wind.SteadyMS, i.Wind.GustMS = 8, nil }, "wind", judge.Stop, "the limit is 14.0"},
	{"gusty", func(i *gate.Input) { i.Wind.GustMS = ptr(units.MetresPerSecond(8.5)) }, "wind", judge.Watch,
		"Gusts 12.4 m/s at 30 m"},
	{"wind nonsense", func(i *gate.Input) { i.Wind.SteadyMS = -3 }, "wind", judge.Stop, "cannot be used"},
}

// Every way in which one thing is wrong gives the finding it should, with a
// sentence, a source and, where someone can act, a remedy.
func TestOneThingWrong(t *testing.T) {
	for _, c := range wrong {
		in := good()
		c.change(&in)
		out := gate.Judge(in)
		assert.Equal(t, c.v, out.Verdict, "%s: %+v", c.name, out.Findings)
		n := slices.IndexFunc(out.Findings, func(f judge.Finding) bool {
			return f.Rule == c.rule && f.Verdict == c.v && strings.Contains(f.Sentence, c.says)
		})
		require.GreaterOrEqual(t, n, 0, "%s: %+v", c.name, out.Findings)
		f := out.Findings[n]
		assert.Contains(t, f.Sentence, c.says, c.name)
		assert.NotEmpty(t, f.Source, c.name)
		assert.NotEmpty(t, f.Lifts, c.name)
	}
}

// What hurts people is said whatever the verdict.
func TestCautions(t *testing.T) {
	says := func(change func(*gate.Input)) string {
		in := good()
		change(&in)
		return strings.Join(gate.Judge(in).Cautions, " ")
	}
	assert.Contains(t, says(func(*gate.Input) {}), "Wires")
	assert.Contains(t, says(func(*gate.Input) {}), "Energised")
	assert.NotContains(t, says(func(*gate.Input) {}), "dark")
	assert.Contains(t, says(func(i *gate.Input) { i.Facts.Work = "spraying" }), "label decides")
	assert.Contains(t, says(func(i *gate.Input) { i.Facts.Light = []string{"night"} }), "dark")
	assert.Empty(t, says(func(i *gate.Input) { i.Scope = gate.AircraftOnly }))
}

func TestTurnaroundAfterAFlightIsEnough(t *testing.T) {
	in := good()
	in.Aircraft.LastLanding = ptr(ago(10 * time.Minute))
	in.Turnaround = &gate.Run{ID: "t", By: "Bo", At: ago(5 * time.Minute), PackIDs: []string{"b"},
		Kept: checks.Kept(in.Type), LeftOut: []checks.LeftOut{}, Asked: []string{}}
	assert.Equal(t, judge.Clear, gate.Judge(in).Verdict)
	in.Turnaround.Findings = []gate.RunFinding{{Title: "Pack B9", Verdict: judge.Stop, Sentence: "swollen",
		PackID: "other"}}
	assert.Equal(t, judge.Clear, gate.Judge(in).Verdict, "a pack that stays behind does not stop the flight")
	in.Turnaround.Findings[0].PackID = "b"
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict)
	in.Turnaround.Findings, in.Turnaround.PackIDs = nil, nil
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict, "a turnaround without a pack opens the gate for none")
	in.Packs[0].LookedAt = ptr(ago(time.Minute))
	assert.Equal(t, judge.Clear, gate.Judge(in).Verdict, "the pack was looked at by itself")
}

// Where the full inspection follows the last flight at base, a short check opens
// the day; without the inspection it does not.
func TestFullInspectionAtBase(t *testing.T) {
	in := good()
	in.Type.Practice = practice.Settings{practice.FullInspection: {School: "after"}}
	in.Aircraft.LastLanding = ptr(ago(20 * time.Hour))
	in.Walkround = nil
	in.Turnaround = &gate.Run{ID: "t", By: "Bo", At: ago(5 * time.Minute), PackIDs: []string{"b"},
		Kept: checks.Kept(in.Type), LeftOut: []checks.LeftOut{}, Asked: []string{}}
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict, "nobody inspected it")
	in.Inspected = ptr(ago(21 * time.Hour))
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict, "inspected, then flown")
	in.Inspected = ptr(ago(19 * time.Hour))
	assert.Equal(t, judge.Clear, gate.Judge(in).Verdict)
	in.Inspected = ptr(ago(time.Minute))
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict, "the check was before the inspection")
	in.Inspected = ptr(ago(19 * time.Hour))
	in.Type.Practice = nil
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict, "usually the walkround stands before the flight as well")
	in.Type.Practice = practice.Settings{practice.FullInspection: {School: "after"}}
	in.Turnaround.At = ago(12*time.Hour + time.Minute)
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict, "too old")
}

// What ends soon stands beside the verdict and is still held.
func TestNoticesColourNothing(t *testing.T) {
	in := good()
	in.Facts.Aircraft.RegistrationExpires = date(2026, 6, 30)
	out := gate.Judge(in)
	require.Len(t, out.Notices, 1)
	assert.Equal(t, judge.Clear, out.Notices[0].Verdict)
	assert.Contains(t, out.Checked, judge.RuleRegistration)
	assert.Empty(t, out.Findings)
}

func TestAircraftScopeAsksNoPilotAndNoWind(t *testing.T) {
	in := good()
	in.Scope, in.Facts.Pilot, in.Wind, in.Packs = gate.AircraftOnly, nil, nil, nil
	assert.Equal(t, judge.Clear, gate.Judge(in).Verdict)
	in.PacksReady = 0
	assert.Equal(t, judge.Stop, gate.Judge(in).Verdict)
}

// An input about which nothing is known is stopped, whatever the scope.
func TestUnknownIsNeverClear(t *testing.T) {
	for _, s := range []gate.Scope{gate.AircraftOnly, gate.WholeFlight} {
		out := gate.Judge(gate.Input{Scope: s, Now: now})
		assert.Equal(t, judge.Stop, out.Verdict)
	}
}

// Same input, same bytes; and taking evidence away never makes it better.
func TestDeterministicAndMonotonic(t *testing.T) {
	away := []func(*gate.Input){
		func(i *gate.Input) { i.Walkround = nil }, func(i *gate.Input) { i.Packs = nil },
		func(i *gate.Input) { i.Facts.Pilot = nil },
		func(i *gate.Input) { i.Wind = nil }, func(i *gate.Input) { i.Facts.Aircraft.RegistrationExpires = nil },
		func(i *gate.Input) { i.Parts[0].ID = "" },
		func(i *gate.Input) { i.Defects = append(i.Defects, gate.Defect{ID: "d", Title: "x"}) },
	}
	rapid.Check(t, func(t *rapid.T) {
		in := good()
		last := gate.Judge(in)
		for _, k := range rapid.Permutation([]int{0, 1, 2, 3, 4, 5, 6}).Draw(t, "order") {
			away[k](&in)
			a, err := json.Marshal(gate.Judge(in))
			require.NoError(t, err)
			b, err := json.Marshal(gate.Judge(in))
			require.NoError(t, err)
			assert.Equal(t, string(a), string(b))
			next := gate.Judge(in)
			assert.GreaterOrEqual(t, next.Verdict, last.Verdict)
			assert.Greater(t, len(next.Findings), len(last.Findings))
			last = next
		}
	})
}

func TestOutputNamesTheRulePack(t *testing.T) {
	assert.True(t, strings.HasPrefix(gate.Judge(good()).Rules, rules.USSmall.Name))
}

// The packs of an aircraft that is released or in the air are with it: that the
// rack has no more of them is nothing against it.
func TestRackIsNoMatterOfAReleasedAircraft(t *testing.T) {
	in := good()
	in.Scope, in.Facts.Pilot, in.Wind, in.Packs, in.PacksReady = gate.AircraftOnly, nil, nil, nil, 0
	says := func(in gate.Input) bool {
		return slices.ContainsFunc(gate.Judge(in).Findings, func(f judge.Finding) bool { return f.Rule == judge.RulePacks })
	}
	assert.True(t, says(in))
	in.Released = &gate.Release{ID: "r", Pilot: "P", At: in.Now}
	assert.False(t, says(in))
	in.Released, in.InAir = nil, &gate.InAir{FlightID: "f", Pilot: "P"}
	assert.False(t, says(in))
}
