package walkround_test

import (
	"context"
	"net/http/httptest"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/practice"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

func begin(s *testbed.Stage, round string) walkround.New {
	return walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Round: round}
}

func lastRecord(t *testing.T, s *testbed.Stage, kind string) (summary, content string) {
	t.Helper()
	var row struct{ Summary, Content string }
	require.NoError(t, s.DB.Raw("select summary, content::text from records where kind = ? order by seq desc limit 1",
		kind).Scan(&row).Error)
	return row.Summary, row.Content
}

// What the day does not ask for is left out with its reason, on the sheet and in the record;
// where nothing is known, it is asked.
func TestWhatTheDayDoesNotAskForIsShown(t *testing.T) {
	s := testbed.NewStage(t)
	first, err := s.Walkrounds.Start(s.As(s.Pilot), begin(s, checks.Full))
	require.NoError(t, err)
	asked := func(sh walkround.Sheet, id string) bool {
		return slices.ContainsFunc(sh.Items, func(it checks.Item) bool { return it.ID == id })
	}
	assert.True(t, asked(first, "gestures"), "the pilot has flown nothing yet")
	assert.True(t, asked(first, "range-check"), "it is new")
	assert.True(t, asked(first, "lights"), "whether it will be dark is not known without a job")
	require.NoError(t, s.Walkrounds.Abandon(s.As(s.Pilot), first.ID))
	s.Fly(checks.Full, s.Packs[0].ID, 300)
	sh := s.Walk(checks.Full, nil, nil)
	assert.False(t, asked(sh, "gestures"))
	assert.False(t, asked(sh, "range-check"))
	assert.True(t, asked(sh, "headings"), "how far it came since the compass was calibrated is not known without a job")
	why := map[string]string{}
	for _, l := range sh.LeftOut {
		why[l.ItemID] = l.Why
	}
	assert.Equal(t, "The pilot flew another type last: no, asked when yes.", why["gestures"])
	assert.Contains(t, why["range-check"], "New aircraft: no, asked when yes; work done since the last check: no")
	_, content := lastRecord(t, s, "walkround")
	assert.Contains(t, content, "asked when yes")
	again, err := s.Walkrounds.Sheet(context.Background(), sh.ID)
	require.NoError(t, err)
	assert.Equal(t, sh.LeftOut, again.LeftOut, "the run keeps the day it began with")
}

// What a check left out for one flight is held against each flight: another pilot, by night, for
// other work.
func TestWhatWasLeftOutIsHeldAgainstTheFlight(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Fly(checks.Full, pk, 300)
	s.Charge(pk)
	job := s.Practice()
	s.WalkFor(&job, checks.Full, []uuid.UUID{pk}, nil)
	said := func(by people.Person) (out []string) {
		a, err := s.Flights.Ask(s.As(by), s.Question(pk))
		require.NoError(t, err)
		for _, f := range a.Output.Findings {
			if f.Rule == judge.RuleWalkround {
				out = append(out, f.Verdict.String()+" "+f.Sentence)
			}
		}
		return out
	}
	assert.Empty(t, said(s.Pilot))
	assert.Equal(t, []string{"watch Left out on the check, and this flight asks for it: Another type than last time: say its gestures aloud."},
		said(s.Chief), "who flies is not who walked")
}

// A row of presses faster than anybody can look is said to the pilot at the gate and stands in
// the record; a walk at a usual pace is not.
func TestAFastWalkIsSaid(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Charge(pk)
	said := func() string {
		a, err := s.Flights.Ask(s.As(s.Pilot), s.Question(pk))
		require.NoError(t, err)
		for _, f := range a.Output.Findings {
			if f.Rule == judge.RuleWalkround && f.Verdict == judge.Watch {
				return f.Sentence
			}
		}
		return ""
	}
	job := s.Practice()
	s.WalkFor(&job, checks.Full, []uuid.UUID{pk}, nil)
	assert.Empty(t, said())
	n := begin(s, checks.Full)
	n.Packs, n.Job = []uuid.UUID{pk}, &job
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), n)
	require.NoError(t, err)
	s.Clock.Advance(9 * time.Second)
	es := s.Entries(sh, nil)
	for i := range es {
		es[i].Ago = time.Duration(len(es)-1-i) * 250 * time.Millisecond
	}
	_, err = s.Walkrounds.Save(s.As(s.Pilot), sh.ID, es)
	require.NoError(t, err)
	sh, err = s.Walkrounds.Complete(s.As(s.Pilot), sh.ID)
	require.NoError(t, err)
	assert.Regexp(t, `^The check went fast. \d+ items in 0:0\d by `, sh.PaceSaid)
	assert.Equal(t, sh.PaceSaid, said())
	summary, content := lastRecord(t, s, "walkround")
	assert.Contains(t, summary, "faster than anybody can look")
	assert.Contains(t, content, `"fast":`)
}

// A crew may set how long a full walk takes at least.
func TestAWalkShorterThanTheCrewAllows(t *testing.T) {
	s := testbed.NewStage(t)
	require.NoError(t, s.Practices.Choose(s.As(s.Chief), practice.WalkPace,
		practice.Choice{School: "walk", Numbers: map[string]float64{"minutes": 60}}, "new people", 1))
	assert.Regexp(t, `It took \d:\d\d; the crew takes at least 60:00\.$`, s.Walk(checks.Full, nil, nil).PaceSaid)
	assert.Empty(t, s.Walk(checks.Turnaround, nil, nil).PaceSaid, "a turnaround is short")
}

// What it usually takes is learned from this aircraft's own walks.
func TestAWalkMuchShorterThanUsual(t *testing.T) {
	s := testbed.NewStage(t)
	for range 5 {
		assert.Empty(t, s.Walk(checks.Turnaround, nil, nil).PaceSaid)
	}
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), begin(s, checks.Turnaround))
	require.NoError(t, err)
	s.Clock.Advance(9 * time.Second)
	es := s.Entries(sh, nil)
	ago := time.Duration(0)
	for i := len(es) - 1; i >= 0; i-- { // never five fast ones in a row, and yet a quarter of the time
		es[i].Ago = ago
		ago += 200 * time.Millisecond
		if i%5 == 4 {
			ago += 4 * time.Second
		}
	}
	_, err = s.Walkrounds.Save(s.As(s.Pilot), sh.ID, es)
	require.NoError(t, err)
	sh, err = s.Walkrounds.Complete(s.As(s.Pilot), sh.ID)
	require.NoError(t, err)
	assert.Regexp(t, `It took 0:\d\d; on this aircraft it usually takes \d:\d\d\.$`, sh.PaceSaid, "%+v", sh.Pace)
}

// Whether somebody saw what the picture of a drill showed is theirs alone.
func TestADrillIsToldToThePersonAlone(t *testing.T) {
	s := testbed.NewStage(t)
	require.NoError(t, s.Practices.Choose(s.As(s.Chief), practice.Drills,
		practice.Choice{School: "some", Numbers: map[string]float64{"one-in": 1}}, "to keep awake", 1))
	shown := 0
	for range 4 {
		sh := s.Walk(checks.Full, nil, nil) // says "in order" to every picture
		if sh.Drill.Picture.Key == "" {
			continue
		}
		shown++
		assert.True(t, slices.ContainsFunc(sh.Items, func(it checks.Item) bool {
			return it.ID == checks.DrillID &&
				it.Drawing == sh.Drill.Picture.Key
		}))
		_, content := lastRecord(t, s, "walkround")
		assert.NotContains(t, content, `"drill"`)
	}
	require.NotZero(t, shown)
	own, crew, err := s.Walkrounds.Drills(s.As(s.Pilot))
	require.NoError(t, err)
	assert.Equal(t, shown, own.Shown)
	assert.Equal(t, own, crew)
	other, all, err := s.Walkrounds.Drills(s.As(s.Chief))
	require.NoError(t, err)
	assert.Zero(t, other.Shown)
	assert.Equal(t, crew, all)
}

// A list that was filled in by hand is entered with the photo of the paper, and has no pace.
func TestEnteredFromPaper(t *testing.T) {
	s := testbed.NewStage(t)
	n := begin(s, checks.Turnaround)
	n.Paper = []uuid.UUID{testbed.NewID()}
	_, err := s.Walkrounds.Start(s.As(s.Pilot), n)
	assert.True(t, fault.Is(err, "invalid"), "a photo that is not there: %v", err)
	n.Paper = []uuid.UUID{uuid.MustParse(s.Photo())}
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), n)
	require.NoError(t, err)
	es := s.Entries(sh, nil)
	for i := range es {
		es[i].Ago = 0
	}
	_, err = s.Walkrounds.Save(s.As(s.Pilot), sh.ID, es)
	require.NoError(t, err)
	sh, err = s.Walkrounds.Complete(s.As(s.Pilot), sh.ID)
	require.NoError(t, err)
	assert.Equal(t, "It was entered from paper, with 1 photo of it: how it was walked is not known here.", sh.PaceSaid,
		"paper is no way round the pace")
	_, content := lastRecord(t, s, "walkround")
	assert.Contains(t, content, n.Paper[0].String())
}

// Rounds beside the check before a flight do not bar it, and each is open once.
func TestRoundsBesideEachOther(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	_, err := s.Walkrounds.Start(ctx, begin(s, checks.Full))
	require.NoError(t, err)
	_, err = s.Walkrounds.Start(ctx, begin(s, checks.Turnaround))
	assert.True(t, fault.Is(err, "walkround-open"), "%v", err)
	hover, err := s.Walkrounds.Start(ctx, begin(s, checks.Hover))
	require.NoError(t, err)
	_, err = s.Walkrounds.Start(ctx, begin(s, checks.Hover))
	assert.True(t, fault.Is(err, "walkround-open"), "%v", err)
	_, err = s.Walkrounds.Start(ctx, begin(s, "brunch"))
	assert.True(t, fault.Is(err, "invalid"), "%v", err)
	s.Clock.Advance(3 * time.Minute)
	es := s.Entries(hover, func(it checks.Item, v *checks.Value) {
		if it.ID == "hover-sound" {
			*v = checks.Value{Look: "defect", Note: "a whistle from the front"}
		}
	})
	_, err = s.Walkrounds.Save(ctx, hover.ID, es)
	require.NoError(t, err)
	hover, err = s.Walkrounds.Complete(ctx, hover.ID)
	require.NoError(t, err)
	assert.Equal(t, "stop", hover.Verdict)
	open, _, err := s.Walkrounds.Defects(ctx, &s.Aircraft.ID, "")
	require.NoError(t, err)
	require.Len(t, open, 1, "what failed in the hover stays until somebody puts it right")
	assert.Equal(t, "a whistle from the front", open[0].Note)
}

// What is worked out is the gate's own word: it is confirmed with what was seen, never bettered,
// and what can stop a flight is never left out.
func TestWhatIsWorkedOutIsTheGatesWord(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	l, err := s.Walkrounds.List(ctx, "lantern-4", 0)
	require.NoError(t, err)
	l.Version++
	l.Sections = append(l.Sections, checks.Section{Title: "More",
		Items: []checks.Item{{ID: "weight", Station: "frame", Title: "Mass", Kind: checks.Computed, Defect: judge.Stop,
			Rule: judge.RuleMass},
			{ID: "tidy", Station: "frame", Title: "Tidy", Kind: checks.Look, Defect: judge.Watch}}})
	require.NoError(t, s.Walkrounds.AddList(s.As(s.Chief), "lantern-4", l))
	sh, err := s.Walkrounds.Start(ctx, begin(s, checks.Full))
	require.NoError(t, err)
	i := slices.IndexFunc(sh.Items, func(it checks.Item) bool { return it.ID == "weight" })
	require.GreaterOrEqual(t, i, 0)
	require.NotNil(t, sh.Items[i].Known)
	worked := sh.Items[i].Known.Verdict
	save := func(item string, v checks.Value) error {
		_, err := s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: item, Value: v}})
		return err
	}
	if worked != judge.Clear {
		assert.ErrorContains(t, save("weight", checks.Value{Look: "ok"}), "what you saw")
	}
	require.NoError(t, save("weight", checks.Value{Look: "ok", Note: "read"}))
	got, err := s.Walkrounds.Sheet(ctx, sh.ID)
	require.NoError(t, err)
	assert.Equal(t, worked.String(), got.Entries[0].Verdict)
	assert.ErrorContains(t, save("weight", checks.Value{Skip: "in a hurry"}), "cannot be left out")
	assert.Empty(t, checks.Spots(sh.Items[i], checks.Value{Look: "ok", Note: "read"}, judge.Stop),
		"the gate says it itself, as it is then")
	assert.Len(t, checks.Spots(sh.Items[i], checks.Value{Look: "defect", Note: "the scale says more"}, judge.Stop), 1)
	assert.ErrorContains(t, save("tidy", checks.Value{Skip: "x"}), "Say why")
	require.NoError(t, save("tidy", checks.Value{Skip: "raining, in the van"}))
}

// What the aircraft tells is shown where it is looked at: a warning is not pressed away unread,
// and a home point that lies elsewhere stops.
func TestWhatTheAircraftTells(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	l := aircraft.New(1, s.Clock.Now, aircraft.Craft{Serial: s.Aircraft.Serial, Motors: 4, Cells: 6,
		At: geo.Point{Lat: 46.31, Lon: -119.7}})
	srv := httptest.NewServer(l)
	t.Cleanup(srv.Close)
	s.Walkrounds.Link = outside.New(srv.URL, "")
	sh, err := s.Walkrounds.Start(ctx, begin(s, checks.Turnaround))
	require.NoError(t, err)
	power := func() checks.Item {
		s.Clock.Advance(10 * time.Second) // what was told is old then
		got, err := s.Walkrounds.Sheet(ctx, sh.ID)
		require.NoError(t, err)
		return got.Items[slices.IndexFunc(got.Items, func(it checks.Item) bool { return it.ID == "power-up" })]
	}
	save := func(note string) error {
		_, err := s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: "power-up",
			Value: checks.Value{Look: "ok", Note: note}}})
		return err
	}
	require.NotNil(t, power().Known)
	assert.Equal(t, "It warns of nothing. Home point 0.0 m from it. Corrections fixed. As its switches say: flight mode normal, pause off.",
		power().Known.Words)
	require.NoError(t, save(""))
	l.Set(aircraft.Faults{Warns: "Compass disturbed", NoFix: true})
	assert.Equal(t, judge.Watch, power().Known.Verdict)
	assert.ErrorContains(t, save(""), "It warns: Compass disturbed. Home point 0.0 m from it. Corrections: none.")
	require.NoError(t, save("a car stood beside it; moved it"))
	l.Set(aircraft.Faults{HomeOff: true})
	assert.Contains(t, power().Known.Words, "Its home point lies 180 m from where it stands")
	require.NoError(t, save("home is over there"))
	got, err := s.Walkrounds.Sheet(ctx, sh.ID)
	require.NoError(t, err)
	assert.Equal(t, "stop", got.Entries[0].Verdict)
	l.Set(aircraft.Faults{WrongMode: true})
	assert.Contains(t, power().Known.Words, "The switch flight mode says normal; the aircraft is in fast")
	assert.Equal(t, judge.Stop, power().Known.Verdict)
	l.Set(aircraft.Faults{ReturnM: 25})
	assert.Contains(t, power().Known.Words, "It returns at 25 m; no job says at which height it ought to.")
	// A number that is typed against what it tells is answered for, and the worse counts.
	require.NoError(t, s.Walkrounds.Abandon(ctx, sh.ID))
	full, err := s.Walkrounds.Start(ctx, begin(s, checks.Full))
	require.NoError(t, err)
	good := 4.0
	typed := func(note string) error {
		_, err := s.Walkrounds.Save(ctx, full.ID, []walkround.NewEntry{{ItemID: "load-cell",
			Value: checks.Value{Number: &good, Note: note}}})
		return err
	}
	require.NoError(t, typed(""))
	l.Set(aircraft.Faults{LowCell: 3300})
	s.Clock.Advance(10 * time.Second)
	assert.ErrorContains(t, typed(""), "It tells 3.30 V.")
	require.NoError(t, typed("the display said 4.0"))
	got, err = s.Walkrounds.Sheet(ctx, full.ID)
	require.NoError(t, err)
	assert.Equal(t, "stop", got.Entries[0].Verdict)
	assert.Equal(t, 4.0, *got.Entries[0].Value.Number, "what was typed is kept")
	camera := func() checks.Known {
		s.Clock.Advance(10 * time.Second)
		got, err := s.Walkrounds.Sheet(ctx, full.ID)
		require.NoError(t, err)
		k := got.Items[slices.IndexFunc(got.Items, func(it checks.Item) bool { return it.ID == "camera" })].Known
		require.NotNil(t, k)
		return *k
	}
	l.Set(aircraft.Faults{})
	assert.Equal(t, "Its camera has counted 0 pictures. Room for 1800 pictures.", camera().Words)
	l.Set(aircraft.Faults{CardFull: true})
	assert.Equal(t, judge.Stop, camera().Verdict, "a full card")
	l.Set(aircraft.Faults{Unreachable: true})
	s.Clock.Advance(10 * time.Second)
	require.NoError(t, typed(""), "no link: a person looks")
	require.NoError(t, s.Walkrounds.Abandon(ctx, full.ID))
	sh, err = s.Walkrounds.Start(ctx, begin(s, checks.Turnaround))
	require.NoError(t, err)
	assert.Nil(t, power().Known, "no link: a person looks")
	require.NoError(t, save(""))
}

// One no in the round by name stops; who is not named is not asked.
func TestPollStopsByOneNo(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	sh, err := s.Walkrounds.Start(ctx, begin(s, checks.Full))
	require.NoError(t, err)
	assert.Equal(t, []string{people.From(ctx).Name}, sh.Names, "without a job it is who walks")
	_, err = s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: "poll",
		Value: checks.Value{Poll: []checks.Vote{{Name: "nobody", Go: true}}}}})
	assert.ErrorContains(t, err, "not asked here")
	sh, err = s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: "poll",
		Value: checks.Value{Poll: []checks.Vote{{Name: sh.Names[0], Go: false}}}}})
	require.NoError(t, err)
	assert.Equal(t, "stop", sh.Entries[0].Verdict)
}

// What earlier walks said in words or photos stands at the same item of the next.
func TestBeforeAtTheSamePlace(t *testing.T) {
	s := testbed.NewStage(t)
	photo := s.Photo()
	s.Walk(checks.Full, nil, func(it checks.Item, v *checks.Value) {
		if it.ID == "corner-2" {
			*v = checks.Value{Look: "defect", Wrong: []string{"propeller-2"}, Note: "nick near the tip", Photos: []string{photo}}
		}
	})
	sh, err := s.Walkrounds.Start(s.As(s.Pilot), begin(s, checks.Full))
	require.NoError(t, err)
	before, err := s.Walkrounds.Before(s.As(s.Pilot), sh.ID)
	require.NoError(t, err)
	i := slices.IndexFunc(before, func(b walkround.Before) bool { return b.ItemID == "corner-2" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, "nick near the tip", before[i].Value.Note)
	assert.Equal(t, []string{photo}, before[i].Value.Photos)
}

// What another round found that bars nothing is told on the next walk, until it is walked; counted
// again, the newer count stands.
func TestWhatOtherRoundsFoundIsToldOnTheWalk(t *testing.T) {
	s := testbed.NewStage(t)
	count := func(n float64) {
		s.Walk(checks.KitIn, nil, func(it checks.Item, v *checks.Value) {
			if it.Kind == checks.Counted {
				*v = checks.Value{Number: &n, Note: "one lies in the grass"}
			}
		})
	}
	told := func(round string) (out []string) {
		sh, err := s.Walkrounds.Start(s.As(s.Pilot), begin(s, round))
		require.NoError(t, err)
		require.NoError(t, s.Walkrounds.Abandon(s.As(s.Pilot), sh.ID))
		for _, n := range sh.Notes {
			out = append(out, n.By+" "+n.Text)
		}
		return out
	}
	count(1)
	require.Len(t, told(checks.Full), 1)
	assert.Regexp(t, `^`+s.Pilot.Name+` Covers, .*: one lies in the grass`, told(checks.Full)[0])
	count(6)
	assert.Empty(t, told(checks.Full), "found again")
	count(1)
	require.Len(t, told(checks.Full), 1)
	s.Walk(checks.Full, nil, nil)
	assert.Empty(t, told(checks.Full), "said on the walk before")
}

// Every round of every shipped list is walked to its end by somebody who finds all in order, and
// once more by somebody who finds nothing in order: then each stop reason is reached.
func TestEveryRoundOfEveryList(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	all, err := fleet.Shipped()
	require.NoError(t, err)
	for _, ty := range all {
		a, err := s.Fleet.AddAircraft(s.As(s.Chief), fleet.NewAircraft{ID: testbed.NewID(), TypeKey: ty.Key,
			Name: "A " + ty.Name, Serial: "A-" + ty.Key, FitNewParts: true})
		require.NoError(t, err)
		l, err := s.Walkrounds.List(ctx, ty.Key, 0)
		require.NoError(t, err)
		for _, r := range l.Rounds() {
			walk := func(change func(it checks.Item, v *checks.Value)) walkround.Sheet {
				sh, err := s.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: a.ID, Round: r.Key})
				require.NoError(t, err, "%s %s", ty.Key, r.Key)
				s.Clock.Advance(time.Duration(len(sh.Items)) * testbed.Each)
				_, err = s.Walkrounds.Save(ctx, sh.ID, testbed.Entries(sh, 4000, change))
				require.NoError(t, err, "%s %s", ty.Key, r.Key)
				sh, err = s.Walkrounds.Complete(ctx, sh.ID)
				require.NoError(t, err)
				return sh
			}
			good := walk(func(it checks.Item, v *checks.Value) {
				if it.ID == "bus-one" {
					one := 120.0
					v.Number = &one
				}
			})
			assert.Empty(t, good.Findings, "%s %s", ty.Key, r.Key)
			bad := walk(func(it checks.Item, v *checks.Value) {
				if it.Rule == "" { // what is worked out is the gate's
					*v = spoil(it)
				}
			})
			for _, it := range bad.Items {
				i := slices.IndexFunc(bad.Entries, func(e walkround.Entry) bool { return e.ItemID == it.ID })
				if it.Stops() && it.Rule == "" && it.Kind != checks.Who {
					assert.Equal(t, "stop", bad.Entries[i].Verdict, "%s %s %s can stop, and does not", ty.Key, r.Key, it.ID)
				}
			}
		}
	}
}

// spoil answers an item as badly as it can be.
func spoil(it checks.Item) checks.Value {
	v := checks.Value{Look: "defect", Note: "not in order"}
	switch it.Kind {
	case checks.Reading:
		v.Number = it.Min
		if it.Band.StopBelow == nil || *it.Min >= *it.Band.StopBelow {
			v.Number = it.Max
		}
	case checks.Counted:
		v.Number = new(float64)
	case checks.Group, checks.Alike:
		for _, m := range it.Marks {
			v.Wrong = append(v.Wrong, m.ID)
		}
	case checks.Motors, checks.Set:
		v.Set = slices.Repeat([]float64{*it.Min}, it.Count)
		v.Set[0] = *it.Max
		if it.Per == "heading" {
			v.Set[0] = 180
		}
	case checks.Timer:
		v.Seconds = &it.LeastS
	case checks.Poll:
		v.Poll = []checks.Vote{{Name: it.Names[0]}}
	case checks.Who:
		v.Choice = it.Names[0]
	case checks.Choice:
		v.Choice = it.Options[len(it.Options)-1].Key
	case checks.Look, checks.Cells, checks.Photo, checks.Computed, checks.Drill:
	}
	return v
}
