package aircraft_test

import (
	"fmt"
	"math"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/approved"
	"mainstay/core/aircraft"
	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
)

var (
	dueNow   = time.Date(2026, 6, 10, 16, 40, 0, 0, time.UTC)
	dueToday = time.Date(2026, 6, 10, 0, 0, 0, 0, time.UTC)
)

func lately(hoursADay float64) wear.Recent {
	var r wear.Recent
	for d := range 28 {
		r.Hours = append(r.Hours, wear.DayUse{DaysAgo: d, Amount: hoursADay})
	}
	return r
}

func dueLine(it aircraft.Item, ok bool) string {
	on := "no day"
	if it.On != nil {
		on = it.On.Format(time.DateOnly)
	}
	return fmt.Sprintf("%v %s %.4f %s by %q forecast %v, %v: %s", ok, it.Verdict, it.Fraction, on, it.By, it.Forecast,
		it.Kinds, it.Sentence)
}

func TestDueLinesAsApproved(t *testing.T) {
	var lines []string
	part := gate.Part{ID: "p", Station: "motor-1", Label: "Motor 1", Kind: "motor", Required: true,
		Counters: wear.Counters{Seconds: 90 * 3600, Flights: 300, Since: dueNow.AddDate(0, -11, 0)},
		Limits:   wear.Limits{Hours: 100, Flights: 400, Months: 12}}
	say := func(what string, p gate.Part) {
		lines = append(lines, what+": "+dueLine(aircraft.PartDue("Lantern One", p, lately(0.5), dueNow, dueToday)))
	}
	say("part", part)
	approved.Vary(part, say)
	bare := part
	bare.ID = ""
	say("nothing fitted", bare)
	bare.Required = false
	say("nothing fitted, not needed", bare)
	bare.Limits = wear.Limits{}
	say("nothing fitted, no limit", bare)
	free := part
	free.Limits = wear.Limits{}
	say("no limit", free)
	idle := part
	idle.Limits.Months = 0
	lines = append(lines, "not flown of late: "+dueLine(aircraft.PartDue("Lantern One", idle, wear.Recent{}, dueNow,
		dueToday)))

	task := upkeep.Standing{Task: upkeep.Task{ID: "screws", Title: "Screws", Station: "frame",
		Every: wear.Limits{Hours: 20}, Parts: []upkeep.Need{{Kind: "screw", Count: 2}, {Kind: "ring", Count: 1}}},
		Since: wear.Counters{Seconds: 15 * 3600, Since: dueNow.AddDate(0, -1, 0)}}
	for _, h := range []int64{0, 15, 18, 20, 25} {
		task.Since.Seconds = h * 3600
		due, err := task.Judge(dueNow, dueToday, time.UTC, 0, 0)
		assert.NoError(t, err)
		lines = append(lines, fmt.Sprintf("task at %d h: %s", h,
			dueLine(aircraft.TaskDue("Lantern One", task, due, lately(0.5), dueToday))))
	}
	task.Task.AfterFlying = true
	for _, f := range []float64{0, 0.95, 1} {
		lines = append(lines, fmt.Sprintf("after flying, %.2f: %s", f,
			dueLine(aircraft.TaskDue("Lantern One", task, wear.Due{Fraction: f}, wear.Recent{}, dueToday))))
	}
	approved.Text(t, "due", lines)
}

// The gate, the drawing and the list of what falls due say the same of a part,
// whatever is known of it.
func TestListDrawingAndGateAgree(t *testing.T) {
	fl := airframe.Type{Key: "x", Name: "X", Geometry: airframe.Geometry{Kind: airframe.Multirotor, Rotors: 4, ArmM: 0.3,
		RotorDiameterM: 0.25}}
	at := fl.Positions()[0]
	good := gate.Part{ID: "p", Station: at.ID, Label: at.Label, Kind: at.Kind, Required: true,
		Counters: wear.Counters{Seconds: 3600, Since: dueNow.AddDate(0, 0, -1)}, Limits: wear.Limits{Hours: 100, Days: 30}}
	for name, change := range map[string]func(*gate.Part){
		"good":            func(*gate.Part) {},
		"nothing fitted":  func(p *gate.Part) { p.ID = "" },
		"not needed":      func(p *gate.Part) { p.ID, p.Required = "", false },
		"near its end":    func(p *gate.Part) { p.Counters.Seconds = 91 * 3600 },
		"at its end":      func(p *gate.Part) { p.Counters.Seconds = 100 * 3600 },
		"age not known":   func(p *gate.Part) { p.Counters.Since = time.Time{} },
		"unread litres":   func(p *gate.Part) { p.Counters.Litres = math.NaN() },
		"counts below 0":  func(p *gate.Part) { p.Counters.Flights = -1 },
		"limit not known": func(p *gate.Part) { p.Limits.Hours = math.Inf(1) },
	} {
		p := good
		change(&p)
		it, _ := aircraft.PartDue("X", p, wear.Recent{}, dueNow, dueToday)
		in := gate.Input{Type: fl, Now: dueNow, Parts: []gate.Part{p}}
		states := aircraft.Stations(in)
		n := slices.IndexFunc(states, func(s aircraft.State) bool { return s.Station == at.ID })
		assert.Equal(t, it.Verdict, states[n].Verdict, name)
		atGate := judge.Clear
		for _, f := range gate.Judge(in).Findings {
			if f.Rule == judge.RuleWear {
				atGate = max(atGate, f.Verdict)
			}
		}
		assert.Equal(t, it.Verdict, atGate, name)
	}
}

func TestDueOrder(t *testing.T) {
	on := func(d int) *time.Time { x := dueToday.AddDate(0, 0, d); return &x }
	want := []aircraft.Item{
		{Verdict: judge.Stop, Fraction: 2}, {Verdict: judge.Stop, Fraction: 1}, {Verdict: judge.Stop, Fraction: 1, On: on(0)},
		{Verdict: judge.Watch, On: on(1)}, {On: on(2), Fraction: 0.5, Aircraft: "A", Station: "a"}, {On: on(2), Fraction: 0.5,
			Aircraft: "A", Station: "b"}, {On: on(2), Fraction: 0.5, Aircraft: "B", Station: "a"}, {On: on(2), Fraction: 0.4},
		{Verdict: judge.Watch, Fraction: 0.9}, {},
	}
	got := slices.Clone(want)
	slices.Reverse(got)
	slices.SortStableFunc(got, aircraft.DueOrder)
	assert.Equal(t, want, got)
}
