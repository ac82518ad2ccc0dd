package e2e

import (
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/clock"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

// craftOf is a healthy aircraft of a type with packs that a charger has just read: one of the
// demo where it has one without open work and without an event since its last check, else a new one.
func craftOf(t *testing.T, svc *server.Services, ctx context.Context, key string) uuid.UUID {
	t.Helper()
	var have string
	require.NoError(t, svc.DB.Raw("select id from aircraft a where type_key = ? and not exists (select 1 from work_orders o where o.aircraft_id = a.id and o.closed_at is null) and not exists (select 1 from flight_events e join flights f on f.id = e.flight_id where f.aircraft_id = a.id and e.at > (select max(completed_at) from walkrounds w where w.aircraft_id = a.id)) order by name desc limit 1",
		key).Scan(&have).Error)
	ty, err := svc.Fleet.Type(ctx, key)
	require.NoError(t, err)
	var at uuid.UUID
	if have != "" {
		at = uuid.MustParse(have)
	} else {
		a, err := svc.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: key, Name: "New " + ty.Name,
			Serial: "N-" + key, FitNewParts: true})
		require.NoError(t, err)
		at = a.ID
	}
	for i := range ty.Packs.Count {
		p, err := svc.Fleet.AddPack(ctx, fleet.NewPack{ID: testbed.NewID(), Label: fmt.Sprintf("N%d %s", i+1, key),
			Serial: fmt.Sprintf("NP%d-%s", i+1, key), Chemistry: string(ty.Packs.Chemistry), Cells: ty.Packs.Cells,
			MilliampHours: ty.Packs.CapacityMAh})
		require.NoError(t, err)
		for _, to := range []pack.State{pack.Charging, pack.Charged} {
			p, err = svc.Fleet.MovePack(ctx, p.ID, to, "", p.Version)
			require.NoError(t, err)
		}
		c, err := pack.CellOf(ty.Packs.Chemistry)
		require.NoError(t, err)
		rested, level, warm := 40.0, 100.0, 22.0
		_, err = svc.Fleet.ReadPack(ctx, p.ID, fleet.NewReading{ID: testbed.NewID(), At: svc.Fleet.Clock.Now(),
			CellMV: slices.Repeat([]int{int(c.Full) - 5}, ty.Packs.Cells), RestedMin: &rested, Percent: &level,
			TemperatureC: &warm, Source: "charger"})
		require.NoError(t, err)
	}
	return at
}

// Every shipped list: a healthy aircraft with every pack is turned round in at most 18 presses
// and 3 numbers. Its other rounds are walked without a browser, in internal/walkround.
func TestEveryShippedListIsWalked(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	ctx := as(t, svc, "imre")
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	all, err := fleet.Shipped()
	require.NoError(t, err)
	for _, ty := range all {
		a := craftOf(t, svc, ctx, ty.Key)
		p.Go("/walk/start/" + a.String() + "?kind=turnaround")
		p.Click("Start the turnaround")
		p.Judges()
		presses, numbers := 2, 0
		for s := next(t, p, ""); !s.Done; s = next(t, p, s.At) {
			if s.Kind == "reading" || s.Kind == "set" {
				numbers += max(1, len(s.Labels))
			}
			enter(t, p, s, "4195")
			presses++
		}
		p.Click("Complete the turnaround")
		p.See("On record")
		t.Logf("%s: turnaround in %d presses and %d numbers", ty.Name, presses, numbers)
		assert.LessOrEqual(t, presses, 18, ty.Name)
		assert.LessOrEqual(t, numbers, 3, ty.Name)
	}
	assert.Empty(t, p.Faults())
}

// From the case to the release of a healthy quad: the whole walk and the gate, counted.
func TestPressesFromTheWalkToTheRelease(t *testing.T) {
	t.Parallel()
	f := goOut(t, tablet, "Lantern Three")
	p := f.page
	f.begin(t, "Lantern Three", "walkround")
	p.Judges()
	presses := 1 + walkAll(t, p, "4,345")
	p.Click("Complete the walkround")
	p.See("On record")
	p.Click("Ask the gate")
	presses += 2
	p.Fill("This flight belongs to", f.job)
	p.Fill("Steady wind", "3")
	p.Fill("What this flight is for", "Practice")
	presses += 3
	p.Gone("The wind has not been entered")
	for _, d := range demo.Crew[0].PIN {
		p.Click(string(d))
		presses++
	}
	p.Click("Sign and release")
	presses++
	p.See("Released by you")
	t.Logf("from the start of the walk to the release: %d interactions", presses)
	assert.LessOrEqual(t, presses, 40)
	assert.Empty(t, p.Faults())
}

// Two people on two tablets walk one round: each sees the other's marks, both names are kept.
func TestTwoPeopleWalkOneRound(t *testing.T) {
	t.Parallel()
	f := goOut(t, tablet, "Dray One")
	a := f.page
	f.begin(t, "Dray One", "turnaround")
	a.See("1 of ")
	b := chromium.Open(t, f.wire.URL, "/", tablet.width, tablet.height)
	b.SignIn("bao", demo.Password)
	b.Go(a.Path())
	b.See("1 of ")
	const done = "Number(document.querySelector('[role=progressbar]').getAttribute('aria-valuenow'))"
	for i := range 6 {
		from, to := a, b
		if i%2 == 1 { // the other one begins at the far end
			from, to = b, a
			b.Click("All ")
			b.Click([]string{"Tank: seated", "Bay, seat, plugs", "Power-up"}[i/2])
		}
		from.Click("In order, next")
		began := time.Now()
		for browser.Eval[int](to, done) < i+1 {
			require.Less(t, time.Since(began), 20*time.Second, "the other one never sees it")
			to.Pause()
		}
		t.Logf("mark %d seen by the other after %s", i+1, time.Since(began).Round(time.Millisecond))
	}
	var names []string
	require.NoError(t, f.svc.DB.Raw("select distinct e.by_name from walkround_entries e join walkrounds w on w.id = e.walkround_id where w.completed_at is null and w.abandoned_at is null and w.started_at >= ? order by 1",
		testbed.Noon).Scan(&names).Error)
	assert.Equal(t, []string{"Bao Lindqvist", "Imre Castellan"}, names)
	assert.Empty(t, append(a.Faults(), b.Faults()...))
}

// kinds is a list with an item of each kind.
func kinds(key string) checks.List {
	num := func(v float64) *float64 { return &v }
	item := func(id string, k checks.Kind, more func(*checks.Item)) checks.Item {
		it := checks.Item{ID: id, Station: "frame", Title: "Try " + id, How: "Look.", Why: "It matters.", Kind: k}
		more(&it)
		return it
	}
	stops := func(it *checks.Item) { it.Defect = judge.Stop }
	return checks.List{Type: key, Version: 90, Sections: []checks.Section{{Title: "All kinds", Items: []checks.Item{
		item("look", checks.Look, stops),
		item("group", checks.Group, func(it *checks.Item) {
			it.Defect, it.Marks = judge.Stop, []checks.Mark{{ID: "m1", Station: "frame", Title: "The first"},
				{ID: "m2", Station: "bay", Title: "The second"}}
		}),
		item("strap", checks.Look, func(it *checks.Item) { it.Defect = judge.Watch }),
		item("count", checks.Counted, func(it *checks.Item) { it.Defect, it.Expect = judge.Stop, num(4) }),
		item("volts", checks.Reading, func(it *checks.Item) {
			it.Quantity, it.Unit, it.Step, it.Min, it.Max, it.Band = "receiver supply", "V", 0.1, num(0), num(30),
				&checks.Band{StopBelow: num(4.8)}
		}),
		item("headings", checks.Set, func(it *checks.Item) {
			it.Per, it.Quantity, it.Unit, it.Step, it.Min, it.Max, it.Compare = "heading", "heading", "deg", 1, num(0), num(360),
				&checks.Compare{How: checks.ByHeading,
					Watch: 7, Stop: 10}
		}),
		item("alike", checks.Alike, stops),
		item("choice", checks.Choice, func(it *checks.Item) {
			it.Options = []checks.Option{{Key: "even", Title: "An even note"},
				{Key: "whistle", Title: "A whistle", Verdict: judge.Stop, Do: "Land."}}
		}),
		item("time", checks.Timer, func(it *checks.Item) { it.Defect, it.LeastS = judge.Stop, 1 }),
		item("mass", checks.Computed, func(it *checks.Item) { it.Defect, it.Rule = judge.Stop, judge.RuleMass }),
		item("holder", checks.Who, func(*checks.Item) {}),
		item("poll", checks.Poll, func(*checks.Item) {}),
	}}}}
}

// One failure of each kind of item, entered as a person does, stops or warns; what can stop
// cannot be left out, the rest only with a reason; bad input is answered in words.
func TestOneFailureOfEachKind(t *testing.T) {
	t.Parallel()
	f := goOut(t, tablet, "Lantern Three")
	p := f.page
	require.NoError(t, f.svc.Walkrounds.AddList(as(t, f.svc, "imre"), "lantern-4", kinds("lantern-4")))
	_, err := f.svc.Walkrounds.Raise(as(t, f.svc, "imre"),
		walkround.Defect{ID: testbed.NewID(), AircraftID: id(t, f.svc, "Lantern Three"), Station: "frame",
			Title: "Foot scratched", Severity: "watch"})
	require.NoError(t, err)
	f.begin(t, "Lantern Three", "walkround")
	p.Judges()
	at := func(id string) { p.See("Try " + id) }
	at("look")
	p.See("Foot scratched") // what is open at this place
	assert.False(t, browser.Eval[bool](p, "document.body.innerText.includes('Leave out')"),
		"what can stop a flight cannot be left out")
	p.Click("Defect")
	p.Click("Save, next")
	p.See("Say in the note what the defect is.")
	p.Fill("What the defect is", "A line in the tube")
	p.Click("Save, next")
	at("group")
	p.Click("The second")
	p.Fill("What the defect is", "Grit in the bay")
	p.Click("Save, next")
	at("strap")
	p.Click("Leave out")
	p.Fill("Why it is left out", "no strap on this one")
	p.Click("Save, next")
	at("count")
	p.Fill("How many there are", "3,5")
	p.Click("Save, next")
	p.See("whole number")
	p.Fill("How many there are", "3")
	p.See("3 of 4: 1 missing.")
	p.Click("Save, next")
	at("volts")
	p.Fill("Receiver supply", "412")
	p.Click("Save, next")
	p.See("Enter 0 to 30 V.")
	p.Fill("Receiver supply", "4,7")
	p.See("outside what may fly")
	p.Click("Save, next")
	at("headings")
	p.Fill("North", "-3")
	p.Fill("East", "90")
	p.Fill("South", "180")
	p.Fill("West", "255")
	p.Click("Save, next")
	p.See("North: Heading must be between 0 and 360")
	p.Fill("North", "357")
	p.See("West shows 255°, off by -15°.")
	p.Click("Save, next")
	at("alike")
	p.Click("Motor 3")
	p.Fill("What the defect is", "It grinds")
	p.Click("Save, next")
	at("choice")
	p.Click("A whistle")
	p.See("A whistle. Land.")
	p.Click("Save, next")
	at("time")
	p.Click("Start the time")
	p.Click("Defect")
	p.Fill("What the defect is", "It shakes")
	p.Click("Save, next")
	at("mass")
	p.Click("Not so")
	p.Fill("What you saw", "The scale says more")
	p.Click("Save, next")
	at("holder")
	p.Click("Odile Varga")
	at("poll")
	p.Click("Imre Castellan: no go")
	p.See("No go: Imre Castellan.")
	p.Click("Save, next")
	p.See("Set as the crew keeps it")
	p.Click("In order, next")
	p.See("Every item has an entry")
	p.Click("Complete the walkround")
	p.See("On record", "A line in the tube", "Left out: no strap on this one", "3 of 4: 1 missing.")
	var got []string
	require.NoError(t, f.svc.DB.Raw("select item_id from walkround_entries e join walkrounds w on w.id = e.walkround_id where w.checklist_version = 90 and e.verdict = 'stop' order by e.at").Scan(&got).Error)
	// Each comes by itself, and two of one moment in any order.
	assert.ElementsMatch(t, []string{"look", "group", "count", "volts", "headings", "alike", "choice", "time", "mass",
		"poll"}, got)
	assert.Equal(t, 6, count(t, f.svc,
		"select count(*) from defects where walkround_id in (select id from walkrounds where checklist_version = 90)"),
		"what lasts is a defect at its place")
	assert.Empty(t, p.Faults())
}

// The picture of a drill is answered like an item; what it showed is told to who answered alone.
func TestADrillOnTheWalk(t *testing.T) {
	t.Parallel()
	f := goOut(t, tablet, "Lantern Three")
	p := f.page
	shown := walkround.New{ID: testbed.NewID(), Aircraft: id(t, f.svc, "Lantern Three"), Round: checks.Full}
	require.NoError(t, f.svc.DB.Exec(`update crew set practices = practices || '{"drills": {"school": "some", "numbers": {"one-in": 1}}}'::jsonb`).Error)
	_, err := f.svc.Walkrounds.Start(as(t, f.svc, "imre"), shown)
	require.NoError(t, err)
	p.Go("/walk/" + shown.ID.String() + "?item=" + checks.DrillID)
	p.See("A picture: is this in order?")
	p.SeeThing("svg.drill")
	p.Click("Damage")
	p.Click("Save, next")
	walkAll(t, p, "4,345")
	p.Click("Complete the walkround")
	p.See("The picture showed:", "Only you are told")
	assert.Empty(t, p.Faults())
}
