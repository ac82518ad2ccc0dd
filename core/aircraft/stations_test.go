package aircraft_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/aircraft"
	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
)

var now = time.Date(2026, 6, 10, 15, 0, 0, 0, time.UTC)

// quad is an aircraft about whose stations nothing is wrong.
func quad() gate.Input {
	ty := airframe.Type{Key: "q", Name: "Quad", Geometry: airframe.Geometry{Kind: "multirotor", Rotors: 4}}
	in := gate.Input{Scope: gate.AircraftOnly, Now: now, Type: ty,
		Aircraft: gate.Aircraft{ID: "a", Name: "Quad one", Active: true}, Programme: true, PacksReady: 9,
		Walkround: &gate.Run{ID: "w", By: "Bo", At: now.Add(-time.Hour), Kept: checks.Kept(ty)}}
	for _, p := range ty.Positions() {
		in.Parts = append(in.Parts, gate.Part{ID: "p-" + p.ID, Station: p.ID, Label: p.Label, Kind: p.Kind,
			Required: p.Required, FittedAt: now.AddDate(0, -2, 0),
			Counters: wear.Counters{Seconds: 3600, Since: now.AddDate(0, -2, 0)}, Limits: wear.Limits{Hours: 20}})
	}
	return in
}

func TestStationsByHand(t *testing.T) {
	in := quad()
	for _, s := range aircraft.Stations(in) {
		assert.Equal(t, judge.Clear, s.Verdict, "%s: %s", s.Station, s.Sentence)
	}
	due := aircraft.NextDue(in.Type, aircraft.Stations(in), nil)
	require.NotNil(t, due.HoursLeft)
	assert.InDelta(t, 19, *due.HoursLeft, 1e-9)
	assert.InDelta(t, 0.05, due.Fraction, 1e-9)
	in.Parts, in.PartsNear = nil, true
	few := 3.0
	assert.Equal(t, &few, aircraft.NextDue(in.Type, aircraft.Stations(in), &few).HoursLeft)
	assert.Empty(t, aircraft.Odd(aircraft.Stations(in)))
}

// A drawing and the gate cannot disagree: the worst of the stations is the worst
// that the gate says about what sits at one, whatever is wrong where.
func TestStationsAgreeWithTheGate(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := quad()
		stations := in.Type.Stations()
		place := func() string { return rapid.SampledFrom(stations).Draw(t, "place").ID }
		verdict := rapid.SampledFrom(judge.AllVerdicts)
		for i := range rapid.IntRange(0, 2).Draw(t, "defects") {
			d := gate.Defect{ID: fmt.Sprint(i), Title: "x", Place: place(), Station: "there",
				Severity: verdict.Draw(t, "severity"), At: now}
			switch rapid.IntRange(0, 3).Draw(t, "decided") {
			case 0:
				d.Deferred = "Put off."
			case 1:
				d.Ended = "it ended"
			case 2:
				d.Order = "o"
			}
			in.Defects = append(in.Defects, d)
		}
		for i := range rapid.IntRange(0, 2).Draw(t, "orders") {
			in.Orders = append(in.Orders, gate.Order{ID: fmt.Sprint(i), Title: "y", Place: place(), At: now,
				Grounds: rapid.Bool().Draw(t, "grounds"), Signed: rapid.Bool().Draw(t, "signed"), Next: upkeep.NoLoad})
		}
		for range rapid.IntRange(0, 2).Draw(t, "tasks") {
			in.Tasks = append(in.Tasks, gate.Task{ID: "t", Title: "z", Place: place(),
				Due: wear.Due{Verdict: verdict.Draw(t, "due"), Sentence: "due."}})
		}
		for range rapid.IntRange(0, 2).Draw(t, "found") {
			in.Walkround.Findings = append(in.Walkround.Findings,
				gate.RunFinding{Title: "f", Place: place(), Verdict: verdict.Draw(t, "found"), Sentence: "s"})
		}
		if rapid.Bool().Draw(t, "flown since") {
			in.Aircraft.LastLanding = new(time.Time)
			*in.Aircraft.LastLanding = now.Add(-30 * time.Minute)
			in.Turnaround = &gate.Run{ID: "t", By: "Bo", At: now.Add(-10 * time.Minute), Kept: checks.Kept(in.Type),
				Findings: []gate.RunFinding{{Title: "g", Place: place(), Verdict: verdict.Draw(t, "turned"), Sentence: "s"}}}
		}
		n := rapid.IntRange(0, len(in.Parts)-1).Draw(t, "part")
		switch rapid.IntRange(0, 4).Draw(t, "life") {
		case 0:
			in.Parts[n].ID = ""
		case 1:
			in.Parts[n].Counters.Seconds = 20 * 3600
		case 2:
			in.Parts[n].Counters.Seconds = 19 * 3600
		}
		worst := judge.Clear
		for _, f := range gate.Judge(in).Findings {
			if slices.Contains([]judge.Rule{"defects", "work-orders", "programme", "wear", "walkround"}, f.Rule) {
				worst = max(worst, f.Verdict)
			}
		}
		drawn := judge.Clear
		for _, s := range aircraft.Stations(in) {
			drawn = max(drawn, s.Verdict)
		}
		assert.Equal(t, worst, drawn)
	})
}
