package upkeep_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
)

var noon = time.Date(2026, 6, 10, 12, 0, 0, 0, time.UTC)
var day = time.Date(2026, 6, 10, 0, 0, 0, 0, time.UTC)

func valid() upkeep.Programme {
	return upkeep.Programme{TypeKey: "q", Version: 1, Tasks: []upkeep.Task{{ID: "screws", Title: "All screws",
		Station: "frame", Every: wear.Limits{Hours: 10, Days: 7},
		Steps: []upkeep.Step{{ID: "one", Text: "Tighten."}}, Defer: &upkeep.Grace{Days: 3, Hours: 2,
			Limits: "Empty tank only."}},
		{ID: "hard", Title: "After a hard landing", Station: "frame", After: []upkeep.Event{upkeep.HardLanding},
			Grounds: true, Steps: []upkeep.Step{{ID: "one", Text: "Look."}}}},
		Leaves: []upkeep.Leave{{Stations: []string{"sensor"}, Grace: upkeep.Grace{Days: 10}}}}
}

func TestValidate(t *testing.T) {
	check := func(p upkeep.Programme) error {
		return p.Validate([]string{"frame", "sensor"}, []string{"frame", "sensor"})
	}
	require.NoError(t, check(valid()))
	for name, spoil := range map[string]func(p *upkeep.Programme){
		"no version":        func(p *upkeep.Programme) { p.Version = 0 },
		"no tasks":          func(p *upkeep.Programme) { p.Tasks = nil },
		"twice":             func(p *upkeep.Programme) { p.Tasks[1].ID = "screws" },
		"bad id":            func(p *upkeep.Programme) { p.Tasks[0].ID = "Screws!" },
		"no title":          func(p *upkeep.Programme) { p.Tasks[0].Title = " " },
		"unknown station":   func(p *upkeep.Programme) { p.Tasks[0].Station = "keel" },
		"negative":          func(p *upkeep.Programme) { p.Tasks[0].Every.Hours = -1 },
		"never due":         func(p *upkeep.Programme) { p.Tasks[0].Every = wear.Limits{} },
		"no steps":          func(p *upkeep.Programme) { p.Tasks[0].Steps = nil },
		"unknown event":     func(p *upkeep.Programme) { p.Tasks[1].After = []upkeep.Event{"rain"} },
		"endless deferral":  func(p *upkeep.Programme) { p.Tasks[0].Defer.Days = 0 },
		"unknown load":      func(p *upkeep.Programme) { p.Tasks[0].Acceptance = []upkeep.Load{"half"} },
		"no parts count":    func(p *upkeep.Programme) { p.Tasks[0].Parts = []upkeep.Need{{Kind: "filter"}} },
		"reading, no bands": func(p *upkeep.Programme) { p.Tasks[0].Steps[0].Reading = &upkeep.Reading{Quantity: "play"} },
		"leave for nothing": func(p *upkeep.Programme) { p.Leaves[0].Stations = []string{"wing"} },
	} {
		p := valid()
		spoil(&p)
		assert.ErrorIs(t, check(p), upkeep.ErrProgramme, name)
	}
}

func TestReadingsInEitherBand(t *testing.T) {
	s := upkeep.Step{ID: "bus", Text: "Measure the bus.",
		Reading: &upkeep.Reading{Quantity: "bus resistance", Unit: "Ω", Bands: []upkeep.Band{{60, 3}, {120, 3}}}}
	for v, want := range map[float64]judge.Verdict{57: judge.Clear, 63: judge.Clear, 63.1: judge.Stop, 56.9: judge.Stop,
		90: judge.Stop, 117: judge.Clear, 123: judge.Clear, 123.2: judge.Stop, 0: judge.Stop} {
		j, err := s.Judge(upkeep.Entry{Number: &v})
		require.NoError(t, err)
		assert.Equal(t, want, j.Verdict, "%g: %s", v, j.Sentence)
	}
	_, err := s.Judge(upkeep.Entry{Done: true})
	assert.ErrorIs(t, err, upkeep.ErrEntry, "a reading is a number")
	_, err = upkeep.Step{ID: "x", Photo: true}.Judge(upkeep.Entry{Done: true})
	assert.ErrorIs(t, err, upkeep.ErrEntry)
	_, err = upkeep.Step{ID: "x"}.Judge(upkeep.Entry{})
	assert.ErrorIs(t, err, upkeep.ErrEntry)
	_, err = upkeep.Step{ID: "x"}.Judge(upkeep.Entry{NotOK: true})
	assert.ErrorIs(t, err, upkeep.ErrEntry, "what is wrong must be said")
	j, err := upkeep.Step{ID: "x"}.Judge(upkeep.Entry{NotOK: true, Note: "stripped"})
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, j.Verdict)
}

func TestDeferralHoldsUntilItsFirstLimit(t *testing.T) {
	p := valid()
	task := p.Tasks[0]
	d, ok := task.Defer.Defer(day, 36000, 40, 0)
	require.True(t, ok)
	assert.Equal(t, day.AddDate(0, 0, 3), d.ExpiresOn)
	assert.EqualValues(t, 36000+7200, d.MaxSeconds)
	flights := upkeep.Grace{Days: 5, Flights: 7}
	few, ok := flights.Defer(day, 36000, 40, 5)
	require.True(t, ok)
	assert.Equal(t, []any{47, int64(0), day.AddDate(0, 0, 5)}, []any{few.MaxFlights, few.MaxSeconds, few.ExpiresOn})
	short, _ := task.Defer.Defer(day, 0, 0, 1)
	assert.Equal(t, day.AddDate(0, 0, 1), short.ExpiresOn)
	long, _ := task.Defer.Defer(day, 0, 0, 99)
	assert.Equal(t, day.AddDate(0, 0, 3), long.ExpiresOn, "never longer than the programme allows")
	_, ok = p.Tasks[1].Defer.Defer(day, 0, 0, 1)
	assert.False(t, ok, "not where the programme allows none")

	d.By = "Tamsin"
	s := upkeep.Standing{Task: task, Since: wear.Counters{Seconds: 36000, Since: noon}, Deferral: &d}
	for _, c := range []struct {
		day     time.Time
		seconds int64
		v       judge.Verdict
		says    string
	}{{day, 36000, judge.Watch, "Put off by Tamsin through 2026-06-13. Empty tank only."}, {day.AddDate(0, 0, 3), 36000,
		judge.Watch, ""}, {day.AddDate(0, 0, 4), 36000, judge.Stop, "it ended on 2026-06-13"}, {day, 43200, judge.Stop,
		"it ended at 12.0 h"}} {
		got, err := s.Judge(noon, c.day, time.UTC, c.seconds, 40)
		require.NoError(t, err)
		assert.Equal(t, c.v, got.Verdict, got.Sentence)
		assert.Contains(t, got.Sentence, c.says)
	}
	s.Deferral = nil
	got, _ := s.Judge(noon, day, time.UTC, 36000, 40)
	assert.Equal(t, judge.Stop, got.Verdict)
	for _, want := range p.Tasks {
		got, ok := p.Task(want.ID)
		assert.True(t, ok)
		assert.Equal(t, want, got)
	}
	_, ok = p.Task("none")
	assert.False(t, ok)
	assert.NotNil(t, p.LeaveFor("sensor"))
	assert.Nil(t, p.LeaveFor("frame"))
	assert.Len(t, p.OpenedBy(upkeep.HardLanding), 1)
	assert.Empty(t, p.OpenedBy(upkeep.Water))
}

// A task done now is never due now, and use since then counts alone.
func TestUseSinceItWasDone(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		at := wear.Counters{Seconds: rapid.Int64Range(0, 1e6).Draw(t, "s"), Flights: rapid.IntRange(0, 1000).Draw(t, "f"),
			Landings: rapid.IntRange(0, 1000).Draw(t, "l"), Litres: rapid.Float64Range(0, 1e4).Draw(t, "lit"), Since: noon}
		s := upkeep.Standing{Task: upkeep.Task{Every: wear.Limits{Hours: 5, Flights: 20, Litres: 300, Days: 7}},
			Since: at.From(at)}
		d, err := s.Judge(noon, day, time.UTC, at.Seconds, at.Flights)
		require.NoError(t, err)
		assert.Equal(t, judge.Clear, d.Verdict)
		use := wear.Use{Seconds: rapid.Int64Range(0, 5*3600-1).Draw(t, "us"), Flights: rapid.IntRange(0, 19).Draw(t, "uf"),
			Litres: rapid.Float64Range(0, 299).Draw(t, "ul")}
		s.Since = at.Add(use).From(at)
		d, err = s.Judge(noon, day, time.UTC, 0, 0)
		require.NoError(t, err)
		assert.NotEqual(t, judge.Stop, d.Verdict)
		s.Since = at.Add(wear.Use{Litres: 300.001}).From(at)
		d, _ = s.Judge(noon, day, time.UTC, 0, 0)
		assert.Equal(t, judge.Stop, d.Verdict, "litres count")
	})
}

func TestAfterTheDaysFlying(t *testing.T) {
	zone := time.FixedZone("west", -7*3600)
	at := func(d, h int) *time.Time { x := time.Date(2026, 6, d, h, 0, 0, 0, time.UTC); return &x }
	for _, c := range []struct {
		name   string
		landed *time.Time
		done   time.Time
		v      judge.Verdict
		says   string
	}{
		{"not flown", nil, time.Time{}, judge.Clear, "Not flown"},
		{"flown today", at(10, 9), time.Time{}, judge.Clear, "this evening"},
		{"flown last night by the crew's clock", at(10, 6), time.Time{}, judge.Watch, "2026-06-09"},
		{"done since", at(9, 20), *at(9, 22), judge.Clear, "Done"},
		{"flown again since", at(9, 23), *at(9, 22), judge.Watch, "2026-06-09"},
	} {
		s := upkeep.Standing{Task: upkeep.Task{AfterFlying: true}, LastLanding: c.landed, DoneAt: c.done}
		d, err := s.Judge(noon, day, zone, 0, 0)
		require.NoError(t, err)
		assert.Equal(t, c.v, d.Verdict, "%s: %s", c.name, d.Sentence)
		assert.Contains(t, d.Sentence, c.says, c.name)
	}
}
