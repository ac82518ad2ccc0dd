package missions_test

import (
	"bytes"
	"context"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/inspect"
	"mainstay/core/judge"
	"mainstay/core/survey"
	"mainstay/internal/demo"
	"mainstay/internal/formats/missionfile"
	"mainstay/internal/missions"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/server"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
)

// bank is the flood bank of the demo with a link to its aircraft.
type bank struct {
	*server.Services
	t          *testing.T
	link       *aircraft.Link
	job, craft uuid.UUID
}

func setUp(t *testing.T, name string) bank {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	b := bank{Services: svc, t: t}
	var row struct{ JobID, AircraftID uuid.UUID }
	require.NoError(t, svc.DB.Raw("select p.job_id, p.aircraft_id from mission_plans p join aircraft a on a.id = p.aircraft_id where a.name = ?",
		name).Scan(&row).Error)
	b.job, b.craft = row.JobID, row.AircraftID
	crafts, err := demo.Crafts(context.Background(), svc)
	require.NoError(t, err)
	b.link = aircraft.New(1, svc.Clock.Now, crafts...)
	srv := httptest.NewServer(b.link)
	t.Cleanup(srv.Close)
	svc.Missions.Link = outside.New(srv.URL, "")
	return b
}

func (b bank) as(login string) context.Context {
	p, err := b.People.ByLogin(context.Background(), login)
	require.NoError(b.t, err)
	return people.With(context.Background(), p)
}

func (b bank) plan() missions.Plan {
	p, err := b.Missions.Get(b.as("imre"), b.job, b.craft)
	require.NoError(b.t, err)
	return p
}

// flies sends a flight of the plan, has the stand-in fly it, and says what pictures it took.
func (b bank) flies(number int, f aircraft.Faults) []missionfile.Shot {
	ctx := b.as("imre")
	b.link.Speed = 1e12 // it has landed when it is asked
	b.link.Set(f)
	require.NoError(b.t, b.Missions.Send(ctx, b.job, b.craft, number))
	require.NoError(b.t, b.link.Fly(b.plan().Aircraft.Serial))
	shots, err := b.Missions.Pictures(ctx, b.job, b.craft)
	require.NoError(b.t, err)
	return shots
}

// The demo shows itself: the bank in its parts, a gap planned again, an old mission caught.
func TestBankOfTheDemo(t *testing.T) {
	b := setUp(t, "Tally W")
	p := b.plan()
	assert.Greater(t, len(p.Out.Survey.Parts), 1)
	for _, x := range p.Out.Survey.Parts {
		assert.LessOrEqual(t, x.HighM-x.LowM, survey.MostReliefM)
		assert.True(t, x.Known)
	}
	assert.True(t, p.Out.Survey.Flights[len(p.Out.Survey.Flights)-1].Again)
	assert.Equal(t, 2, p.Next())
	assert.Equal(t, missions.Different, p.Standing(2))
	gate, err := b.Missions.Planned(b.as("imre"), b.job, b.craft)
	require.NoError(t, err)
	var stop string
	for _, f := range gate.Findings {
		if f.Rule == judge.RuleMission && f.Verdict == judge.Stop {
			stop += f.Sentence
		}
	}
	assert.Contains(t, stop, "another mission")
	roof := setUp(t, "Lantern Three").plan()
	assert.Equal(t, missions.Equal, roof.Standing(1))
	assert.Len(t, roof.Found, 1)
	assert.Equal(t, judge.Clear, judge.Worst(nil))
}

// What a link does wrong with a mission is found by reading it back, whatever it answered.
func TestUploadIsNotProof(t *testing.T) {
	b := setUp(t, "Tally W")
	ctx := b.as("imre")
	for name, c := range map[string]struct {
		fault aircraft.Faults
		want  missions.Standing
		says  string // in the differences
	}{
		"it keeps it":     {aircraft.Faults{}, missions.Equal, ""},
		"it keeps an old": {aircraft.Faults{Stale: true}, missions.Different, "another mission"},
		"one is dropped":  {aircraft.Faults{Dropped: 3}, missions.Different, "Waypoint 3 is not in the aircraft"},
		"two are swapped": {aircraft.Faults{Swapped: 2}, missions.Different, "Waypoints 2 and 3 are in the wrong order"},
		"wrong home": {aircraft.Faults{WrongHome: true}, missions.Different,
			"Its home lies 181 m from where it takes off"},
		"another datum": {aircraft.Faults{OtherDatum: true}, missions.Different, "counts heights above sea level"},
	} {
		b.link.Set(c.fault)
		p := b.plan()
		b.link.Load(p.Aircraft.Serial, p.Missions[0])
		require.NoError(t, b.Missions.Send(ctx, b.job, b.craft, 2), name)
		p = b.plan()
		assert.Equal(t, c.want, p.Standing(2), name)
		if c.says != "" {
			i := len(p.Reads) - 1
			for p.Reads[i].Number != 2 {
				i--
			}
			assert.Contains(t, p.Reads[i].Differences, c.says, name)
		}
	}
	// A link that is away, breaks off, is full, or speaks nonsense: each is a sentence, and nothing counts.
	require.NoError(t, b.DB.Exec("alter table mission_reads disable trigger mission_reads_append_only").Error)
	require.NoError(t, b.DB.Exec("delete from mission_reads").Error)
	for want, f := range map[string]aircraft.Faults{"broke off": {DiesAfter: 3}, "fewer than the": {Most: 2},
		"does not answer": {Unreachable: true}, "is no mission": {Nonsense: true}} {
		b.link.Set(f)
		err := b.Missions.Send(ctx, b.job, b.craft, 2)
		if want == "does not answer" || want == "is no mission" {
			err = b.Missions.ReadBack(ctx, b.job, b.craft, 2)
		}
		said, ok := fault.As(err)
		require.True(t, ok, "%v", err)
		assert.Contains(t, said.Detail, want)
		assert.Equal(t, missions.NotRead, b.plan().Standing(2))
	}
	// Half of it is in there now: reading it back says so.
	b.link.Set(aircraft.Faults{DiesAfter: 3})
	require.Error(t, b.Missions.Send(ctx, b.job, b.craft, 2))
	b.link.Set(aircraft.Faults{})
	require.NoError(t, b.Missions.ReadBack(ctx, b.job, b.craft, 2))
	assert.Equal(t, missions.Different, b.plan().Standing(2))
}

// A plan that changes, another take-off place or another serial number makes what was read old.
func TestReadingsGrowOld(t *testing.T) {
	b := setUp(t, "Lantern Three")
	ctx := b.as("imre")
	p := b.plan()
	require.Equal(t, missions.Equal, p.Standing(1))
	w := p.Wish
	w.Inspect.DetailMM = 3
	require.NoError(t, b.Missions.Save(ctx, p.ID, b.job, b.craft, w, p.Version))
	assert.Equal(t, missions.Old, b.plan().Standing(1))
	require.NoError(t, b.Missions.Send(ctx, b.job, b.craft, 1))
	assert.Equal(t, missions.Equal, b.plan().Standing(1))
	require.NoError(t, b.DB.Exec("update aircraft set serial = 'L4-NEW' where id = ?", b.craft).Error)
	assert.Equal(t, missions.Old, b.plan().Standing(1))
	err := b.Missions.Send(ctx, b.job, b.craft, 1)
	assert.ErrorContains(t, err, "link")
	// The map changes under a plan: it says so, and stops.
	require.NoError(t, b.DB.Exec(`update site_features set content = jsonb_set(content::jsonb, '{places,0,lat}', to_jsonb((content::jsonb->'places'->0->>'lat')::float8 + 0.0002)), version = version + 1 where content::jsonb->>'name' = 'Station building'`).Error)
	p = b.plan()
	found := false
	for _, x := range p.Broken {
		found = found || strings.Contains(x.Sentence, "The map has changed")
	}
	assert.True(t, found, "%v", p.Broken)
	err = b.Missions.Save(ctx, p.ID, b.job, b.craft, p.Wish, p.Version-1)
	assert.True(t, fault.Is(err, "stale"), "%v", err)
}

// Files of the plan, read back, are equal to it; a file of nothing is refused in words.
func TestReadBackFromFiles(t *testing.T) {
	b := setUp(t, "Lantern Three")
	ctx := b.as("imre")
	for _, f := range missionfile.All {
		var file bytes.Buffer
		require.NoError(t, missionfile.Write(&file, f, b.plan().Missions[0]))
		require.NoError(t, b.Missions.ReadFile(ctx, b.job, b.craft, 1, "back."+string(f), &file))
		p := b.plan()
		assert.Equal(t, missions.Equal, p.Standing(1), "%s: %s %s", f, p.Reads[0].Differences, p.Reads[0].Judged)
	}
	err := b.Missions.ReadFile(ctx, b.job, b.craft, 1, "x", strings.NewReader("hello"))
	said, ok := fault.As(err)
	require.True(t, ok)
	assert.Contains(t, said.Fields[0].Sentence, "cannot be compared")
	assert.ErrorContains(t, b.Missions.ReadBack(ctx, b.job, b.craft, 99), "not-found")
}

// Flown by the stand-in with a camera that skips: the gaps are found, planned again, and
// flown; nothing is missing then, and what is flown keeps the plan as it is.
func TestGapsFlownAgain(t *testing.T) {
	b := setUp(t, "Tally W")
	ctx := b.as("imre")
	p := b.plan()
	running := true
	shots := b.flies(2, aircraft.Faults{CameraSkips: 6})
	require.NotEmpty(t, shots)
	require.NoError(t, b.Missions.Fly(ctx, b.job, b.craft,
		missions.After{ID: testbed.NewID(), Number: 2, Shots: shots, Running: &running}))
	before := len(b.plan().Missions)
	require.NoError(t, b.Missions.FlyAgain(ctx, b.job, b.craft, 2))
	p = b.plan()
	require.Greater(t, len(p.Missions), before)
	require.NoError(t, b.Missions.FlyAgain(ctx, b.job, b.craft, 2), "pressed twice")
	assert.Len(t, b.plan().Missions, len(p.Missions))
	again := len(p.Missions)
	more := b.flies(again, aircraft.Faults{})
	_, taken, err := b.Missions.Look(ctx, b.job, b.craft,
		missions.After{ID: testbed.NewID(), Number: again, Shots: more, Running: &running})
	require.NoError(t, err)
	assert.Empty(t, taken.Gaps)
	err = b.Missions.Save(ctx, p.ID, b.job, b.craft, p.Wish, p.Version)
	assert.True(t, fault.Is(err, "flown-already"), "%v", err)
	err = b.Missions.Fly(ctx, b.job, b.craft, missions.After{ID: testbed.NewID(), Number: 2, Shots: shots})
	assert.True(t, fault.Is(err, "flown-already"), "%v", err)
	nowhere := []missionfile.Shot{{Name: "a", At: &geo.Point{Lat: 99}}}
	_, _, err = b.Missions.Look(ctx, b.job, b.craft, missions.After{Number: again, Shots: nowhere})
	_, people := fault.As(err)
	assert.True(t, people, "%v", err)
	_, taken, err = b.Missions.Look(ctx, b.job, b.craft, missions.After{Number: again, Shots: more[:3], Shake: "shook"})
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, taken.Verdict)
	assert.Len(t, taken.Findings, 4, "%v", taken.Findings)
}

// A survey cannot be kept for an inspection, nor a plan of nothing.
func TestPlansOfOtherWork(t *testing.T) {
	b := setUp(t, "Lantern Three")
	ctx := b.as("imre")
	w := survey.Defaults(false)
	i := inspect.Defaults()
	for _, bad := range []missions.Wish{{}, {Survey: &w}, {Survey: &w, Inspect: &i}} {
		_, err := b.Missions.Try(ctx, b.job, b.craft, bad)
		_, people := fault.As(err)
		assert.True(t, people, "%v", err)
	}
	i.DetailMM = 1e9
	_, err := b.Missions.Try(ctx, b.job, b.craft, missions.Wish{Inspect: &i})
	said, ok := fault.As(err)
	require.True(t, ok, "%v", err)
	assert.Equal(t, "detail_mm", said.Fields[0].Field)
	_, err = b.Missions.Get(ctx, uuid.New(), b.craft)
	assert.True(t, fault.Is(err, "not-found"))
}
