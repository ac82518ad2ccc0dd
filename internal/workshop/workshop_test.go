package workshop_test

import (
	"context"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/core/firmware"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

func TestShippedProgrammesFitTheirTypes(t *testing.T) {
	types, err := fleet.Shipped()
	require.NoError(t, err)
	ps, err := workshop.Shipped()
	require.NoError(t, err)
	require.Len(t, ps, len(types))
	for _, ty := range types {
		i := slices.IndexFunc(ps, func(p upkeep.Programme) bool { return p.TypeKey == ty.Key })
		require.GreaterOrEqual(t, i, 0, ty.Key)
		require.NoError(t, workshop.Check(ps[i], ty), ty.Key)
		for _, e := range upkeep.AllEvents {
			if e == upkeep.Built { // has a task of its own, whatever the programme says
				own := ps[i]
				own.Tasks = append(slices.Clone(own.Tasks), upkeep.Commissioning(ty.TankL > 0))
				require.NoError(t, workshop.Check(own, ty), ty.Key)
				continue
			}
			assert.NotEmpty(t, ps[i].OpenedBy(e), "%s after %s", ty.Key, e)
		}
	}
}

// gateSays asks the gate about a light wind and returns its findings of a rule.
func gateSays(t *testing.T, s *testbed.Stage, q flights.Question, rule judge.Rule) []judge.Finding {
	t.Helper()
	a, err := s.Flights.Ask(s.As(s.Pilot), q)
	require.NoError(t, err)
	return slices.DeleteFunc(slices.Clone(a.Output.Findings), func(f judge.Finding) bool { return f.Rule != rule })
}

func TestWeeklyTaskFromDueToDone(t *testing.T) {
	s := testbed.NewStage(t)
	assert.Empty(t, gateSays(t, s, s.Question(), "programme"), "new today")
	s.Clock.Advance(7*24*time.Hour - time.Hour)
	soon := gateSays(t, s, s.Question(), "programme")
	require.Len(t, soon, 1)
	assert.Equal(t, judge.Watch, soon[0].Verdict, "warned before")
	s.Clock.Advance(2 * time.Hour)
	due := gateSays(t, s, s.Question(), "programme")
	require.Len(t, due, 1)
	assert.Equal(t, judge.Stop, due[0].Verdict)
	assert.Contains(t, due[0].Sentence, "All screws and fasteners: 7.0 of 7 days used: due now")

	tech := s.As(s.Tech)
	n := workshop.NewOrder{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, TaskID: "weekly-screws"}
	o, err := s.Workshop.OpenOrder(tech, n)
	require.NoError(t, err)
	_, err = s.Workshop.OpenOrder(tech, n)
	require.NoError(t, err, "opened twice by the same press")
	n.ID = testbed.NewID()
	_, err = s.Workshop.OpenOrder(tech, n)
	assert.ErrorContains(t, err, "open already")
	err = s.Workshop.Sign(tech, o.ID, testbed.Signature())
	assert.ErrorContains(t, err, "Not done yet: Motor screws first")
	require.NoError(t, s.Fill(o.ID, func(st upkeep.Step, e *upkeep.Entry) {
		if st.ID == "rattle" {
			*e = upkeep.Entry{NotOK: true, Note: "something rolls in arm 2"}
		}
	}))
	err = s.Workshop.Sign(tech, o.ID, testbed.Signature())
	assert.ErrorContains(t, err, "something rolls in arm 2", "what is not in order cannot be signed")
	require.NoError(t, s.Fill(o.ID, nil))
	wrong := testbed.Signature()
	wrong.PIN = "0000"
	assert.Error(t, s.Workshop.Sign(tech, o.ID, wrong))
	require.NoError(t, s.Workshop.Sign(tech, o.ID, testbed.Signature()))
	assert.Empty(t, gateSays(t, s, s.Question(), "programme"), "counts from here")
	assert.ErrorContains(t, s.Workshop.Sign(tech, o.ID, testbed.Signature()), "does not change")
	assert.ErrorContains(t, s.Fill(o.ID, nil), "does not change")
	assert.ErrorContains(t, s.Workshop.Cancel(tech, o.ID, "slip"), "does not change")
}

func TestDeferralHoldsAndEnds(t *testing.T) {
	s := testbed.NewStage(t)
	tech := s.As(s.Tech)
	s.Clock.Advance(8 * 24 * time.Hour)
	n := workshop.NewDeferral{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, TaskID: "weekly-screws", Days: 30,
		Reason: "driver on order", PIN: testbed.PIN}
	d, err := s.Workshop.Defer(tech, n)
	require.NoError(t, err)
	assert.Equal(t, "2026-06-21", d.ExpiresOn.Format(time.DateOnly), "three days, as the programme allows, not thirty")
	f := gateSays(t, s, s.Question(), "programme")
	require.Len(t, f, 1)
	assert.Equal(t, judge.Watch, f[0].Verdict)
	assert.Contains(t, f[0].Sentence, "Near flights without load only.")
	n.ID = testbed.NewID()
	_, err = s.Workshop.Defer(tech, n)
	assert.True(t, fault.Is(err, "already-deferred"), "%v", err)
	s.Clock.Advance(4 * 24 * time.Hour)
	f = gateSays(t, s, s.Question(), "programme")
	assert.Equal(t, judge.Stop, f[0].Verdict)
	assert.Contains(t, f[0].Sentence, "it ended on 2026-06-21")
	n.TaskID = "after-contact"
	_, err = s.Workshop.Defer(tech, n)
	assert.True(t, fault.Is(err, "may-not-defer"), "%v", err)
	n.TaskID = "polish"
	_, err = s.Workshop.Defer(tech, n)
	assert.Error(t, err)
	n.TaskID = ""
	_, err = s.Workshop.Defer(tech, n)
	assert.Error(t, err, "of what?")
}

func TestDefectIsNeverSilent(t *testing.T) {
	s := testbed.NewStage(t)
	tech := s.As(s.Tech)
	raise := func(station, severity string) walkround.Defect {
		d, err := s.Walkrounds.Raise(s.As(s.Pilot), walkround.Defect{ID: testbed.NewID(), AircraftID: s.Aircraft.ID,
			Station: station, Title: "Dull " + station, Severity: severity})
		require.NoError(t, err)
		return d
	}
	lens, arm := raise("sensor", "stop"), raise("arm-2", "watch")
	says := func() map[string]judge.Finding {
		out := map[string]judge.Finding{}
		for _, f := range gateSays(t, s, s.Question(), "defects") {
			out[strings.Fields(f.Sentence)[3]] = f
		}
		return out
	}
	assert.Contains(t, says()["Sensors:"].Sentence, "No work order and no deferral yet")
	put := workshop.NewDeferral{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, DefectID: &arm.ID, Days: 5, Reason: "later",
		PIN: testbed.PIN}
	_, err := s.Workshop.Defer(tech, put)
	assert.True(t, fault.Is(err, "may-not-defer"), "an arm is never put off: %v", err)
	put.DefectID = &lens.ID
	_, err = s.Workshop.Defer(tech, put)
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, says()["Sensors:"].Verdict)
	s.Clock.Advance(6 * 24 * time.Hour)
	assert.Equal(t, judge.Stop, says()["Sensors:"].Verdict, "the deferral has ended")

	o, err := s.Workshop.OpenOrder(tech, workshop.NewOrder{ID: testbed.NewID(), Aircraft: s.Aircraft.ID,
		DefectID: &lens.ID})
	require.NoError(t, err)
	assert.True(t, o.Grounds)
	ds, err := s.Workshop.WireDefects(tech, []walkround.Defect{lens, arm})
	require.NoError(t, err)
	assert.Equal(t, o.ID, *ds[0].OrderId)
	assert.NotEmpty(t, ds[0].Deferral)
	assert.False(t, ds[1].Deferrable)
	require.NoError(t, s.Fill(o.ID, nil))
	require.NoError(t, s.Workshop.Sign(tech, o.ID, testbed.Signature()))
	assert.NotContains(t, says(), "Sensors:", "the signed work closes the defect")
	_, err = s.Workshop.OpenOrder(tech, workshop.NewOrder{ID: testbed.NewID(), Aircraft: s.Aircraft.ID,
		DefectID: &lens.ID})
	assert.True(t, fault.Is(err, "already-closed"), "%v", err)
}

// A hard landing reported at base: work, second look, return, acceptance
// flight, and only then a job.
func TestEventToAcceptanceFlight(t *testing.T) {
	s := testbed.NewStage(t)
	tech, pk := s.As(s.Tech), s.Packs[0].ID
	id := testbed.NewID()
	require.NoError(t, s.Workshop.Report(s.As(s.Pilot), id, s.Aircraft.ID, upkeep.HardLanding, "fell off the truck step"))
	require.NoError(t, s.Workshop.Report(s.As(s.Pilot), id, s.Aircraft.ID, upkeep.HardLanding, "fell off the truck step"),
		"twice by the same press")
	require.Len(t, gateSays(t, s, s.Question(), "grounding"), 1)
	work := gateSays(t, s, s.Question(), "work-orders")
	require.Len(t, work, 1)
	assert.Equal(t, judge.Stop, work[0].Verdict)
	assert.ErrorContains(t, s.Workshop.Return(tech, s.Aircraft.ID, "fine", testbed.PIN),
		"not signed yet: After a hard landing")
	assert.True(t, fault.Is(s.Workshop.Cancel(tech, uuid.MustParse(work[0].Remedy.ID), "no"), "forbidden"))
	order := s.DoOrder("after-hard-landing")
	require.NoError(t, s.Workshop.Return(tech, s.Aircraft.ID, "inspected", testbed.PIN))

	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	_, err := s.Release(s.Pilot, pk)
	assert.ErrorContains(t, err, "An acceptance flight without load is due")
	q := s.Question(pk)
	q.Acceptance = &order
	fly := func(event string) {
		a, err := s.Flights.Ask(s.As(s.Pilot), q)
		require.NoError(t, err)
		r, err := s.Flights.Release(s.As(s.Pilot), flights.NewRelease{ID: testbed.NewID(), Question: q, Purpose: "Acceptance",
			GateHash: a.Hash, PIN: testbed.PIN})
		require.NoError(t, err)
		f, err := s.Flights.TakeOff(s.As(s.Pilot), testbed.NewID(), r.ID, nil)
		require.NoError(t, err)
		if event != "" {
			require.NoError(t, s.Flights.AddEvent(s.As(s.Pilot), f.ID, flights.Event{ID: testbed.NewID(), Kind: event}))
		}
		s.Clock.Advance(3 * time.Minute)
		_, err = s.Flights.Land(s.As(s.Pilot), f.ID)
		require.NoError(t, err)
		_, err = s.Flights.Log(s.As(s.Pilot), f.ID, testbed.Landed(f))
		require.NoError(t, err)
		s.Clock.Advance(time.Minute)
		s.Charge(pk)
		s.Walk(checks.Turnaround, []uuid.UUID{pk}, nil)
		q.Wind.At = s.Clock.Now()
	}
	fly("warning")
	assert.Len(t, gateSays(t, s, s.Question(pk), "work-orders"), 1, "a flight with a warning is no acceptance")
	fly("")
	assert.Empty(t, gateSays(t, s, s.Question(pk), "work-orders"))
	assert.Len(t, gateSays(t, s, q, "work-orders"), 1, "there is nothing left to accept")
	_, err = s.Release(s.Pilot, pk)
	require.NoError(t, err)
}

func TestSecondPersonSigns(t *testing.T) {
	s := testbed.NewStage(t)
	tech := s.As(s.Tech)
	require.NoError(t, s.Workshop.Report(s.As(s.Pilot), testbed.NewID(), s.Aircraft.ID, upkeep.Contact, ""))
	var o workshop.Order
	require.NoError(t, s.DB.Limit(1).Find(&o, "task_id = 'after-contact'").Error)
	v := 0.9
	err := s.Workshop.Enter(tech, o.ID, []workshop.NewEntry{{Step: "torque", Value: upkeep.Entry{Number: &v}}})
	require.NoError(t, err, "out of tolerance is kept, not signed")
	require.NoError(t, s.Fill(o.ID, func(st upkeep.Step, e *upkeep.Entry) {
		if st.ID == "torque" {
			e.Number = &v
		}
	}))
	assert.ErrorContains(t, s.Workshop.Sign(tech, o.ID, testbed.Signature()), "0.9 N·m is outside 0.6 ± 0.1 N·m")
	require.NoError(t, s.Fill(o.ID, nil))
	sig := testbed.Signature()
	for login, says := range map[string]string{"": "choose who", "tech": "somebody else than you",
		"nobody": "choose who"} {
		sig.SecondLogin = login
		assert.ErrorContains(t, s.Workshop.Sign(tech, o.ID, sig), says)
	}
	sig.SecondLogin, sig.SecondPIN = "chief", "1111"
	err = s.Workshop.Sign(tech, o.ID, sig)
	f, ok := fault.As(err)
	require.True(t, ok, "%v", err)
	assert.Equal(t, "second_pin", f.Fields[0].Field)
	require.NoError(t, s.Workshop.Sign(tech, o.ID, testbed.Signature()))
	require.NoError(t, s.DB.Limit(1).Find(&o, "id = ?", o.ID).Error)
	assert.Equal(t, "Chief Person", o.SecondBy)
	assert.Equal(t, workshop.Signed, o.State, "the acceptance flight is still to come")
	_, err = s.Workshop.Stock(tech, nil)
	require.NoError(t, err)
	assert.Error(t, s.Workshop.Enter(tech, o.ID, []workshop.NewEntry{{Step: "keel", Value: upkeep.Entry{Done: true}}}))
}

func TestStockAndApprovals(t *testing.T) {
	s := testbed.NewStage(t)
	tech := s.As(s.Tech)
	line := workshop.StockLine{ID: testbed.NewID(), Name: "Propellers", Kind: "propeller", TypeKey: "lantern-4",
		Minimum: 2, DeliveryDays: 10}
	require.NoError(t, s.Workshop.SaveStock(tech, line))
	screws := workshop.StockLine{ID: testbed.NewID(), Name: "Screws", Quantity: 5, Minimum: 1, DeliveryDays: 3}
	require.NoError(t, s.Workshop.SaveStock(tech, screws))
	twin := line
	twin.ID, twin.Name = testbed.NewID(), "Propellers again"
	assert.ErrorContains(t, s.Workshop.SaveStock(tech, twin), "already")
	twin.Kind = "rudder"
	assert.ErrorContains(t, s.Workshop.SaveStock(tech, twin), "no part of this kind")
	for _, serial := range []string{"P-1", "P-2", "P-3"} {
		_, err := s.Fleet.AddPart(tech, fleet.NewPart{ID: testbed.NewID(), Kind: "propeller", TypeKey: "lantern-4",
			Serial: serial, Source: "maker"})
		require.NoError(t, err)
	}
	_, err := s.Fleet.AddPart(tech, fleet.NewPart{ID: testbed.NewID(), Kind: "propeller", TypeKey: "lantern-4",
		Serial: "p-1", Source: "maker"})
	assert.ErrorContains(t, err, "already exists")
	lines, err := s.Workshop.Stock(tech, workshop.Needs{"propeller/lantern-4": {testbed.Noon.AddDate(0, 0, 5),
		testbed.Noon.AddDate(0, 0, 6)}})
	require.NoError(t, err)
	assert.Equal(t, 3, lines[0].OnHand())
	assert.Equal(t, judge.Stop, lines[0].Order.Verdict, "needed in six days, delivery takes ten: %s",
		lines[0].Order.Sentence)

	fit := fleet.FitParts{Source: fleet.Maker, Old: fleet.Shelf,
		Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "propeller-1", Serial: "P-2"}}}
	require.NoError(t, s.Fleet.FitParts(tech, s.Aircraft.ID, fit))
	lines, err = s.Workshop.Stock(tech, nil)
	require.NoError(t, err)
	assert.Equal(t, 3, lines[0].OnHand(), "one went, the old one came")
	third := fleet.FitParts{Source: fleet.ThirdParty, Old: fleet.Shelf,
		Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "propeller-2", Serial: "X-1"}}}
	assert.ErrorContains(t, s.Fleet.FitParts(tech, s.Aircraft.ID, third), "has not approved")
	require.NoError(t, s.Workshop.Approve(s.As(s.Chief), "propeller", "lantern-4", "measured"))
	assert.Error(t, s.Workshop.Approve(s.As(s.Chief), "rudder", "lantern-4", "measured"))
	require.NoError(t, s.Fleet.FitParts(tech, s.Aircraft.ID, third))

	o, err := s.Workshop.OpenOrder(tech, workshop.NewOrder{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Station: "frame",
		Title: "Loose cover", Steps: []string{"Tighten it", " "}})
	require.NoError(t, err)
	use := testbed.NewID()
	require.NoError(t, s.Workshop.UseStock(tech, o.ID, use, screws.ID, 4))
	require.NoError(t, s.Workshop.UseStock(tech, o.ID, use, screws.ID, 4), "twice by the same press")
	assert.ErrorContains(t, s.Workshop.UseStock(tech, o.ID, testbed.NewID(), screws.ID, 2), "There are 1 of Screws")
	assert.ErrorContains(t, s.Workshop.UseStock(tech, o.ID, testbed.NewID(), line.ID, 1), "serial numbers")
	lines, err = s.Workshop.Stock(tech, nil)
	require.NoError(t, err)
	assert.Equal(t, 1, lines[1].Quantity)
	require.NotNil(t, lines[1].Order.By, "four used in 90 days foretell the next four: %s", lines[1].Order.Sentence)
	assert.Equal(t, "2026-06-29", lines[1].Order.By.Format(time.DateOnly),
		"the next one in 22 days, three days for delivery")
	screws.Version = 1
	assert.True(t, fault.Is(s.Workshop.SaveStock(tech, screws), "stale"), "the line has moved on")
	for _, bad := range []workshop.NewOrder{{Station: "frame", Title: " ", Steps: []string{"x"}},
		{Station: "keel", Title: "x", Steps: []string{"x"}}, {Station: "frame", Title: "x"}, {TaskID: "polish"}} {
		bad.ID, bad.Aircraft = testbed.NewID(), s.Aircraft.ID
		_, err := s.Workshop.OpenOrder(tech, bad)
		assert.Error(t, err, "%v", bad)
	}
	require.NoError(t, s.Workshop.Cancel(tech, o.ID, "was not loose"))
	assert.ErrorContains(t, s.Fill(o.ID, nil), "cancelled")
}

func TestFirmware(t *testing.T) {
	s := testbed.NewStage(t)
	tech := s.As(s.Tech)
	assert.Empty(t, gateSays(t, s, s.Question(), "firmware"), "no set, nothing to hold against")
	set := workshop.FirmwareSet{TypeKey: "lantern-4", Version: 1,
		Content: firmware.Set{firmware.Aircraft: "1.0", firmware.App: "4"}}
	require.NoError(t, s.Workshop.AddFirmwareSet(tech, set))
	assert.ErrorContains(t, s.Workshop.AddFirmwareSet(tech, set), "exists already")
	unknown := gateSays(t, s, s.Question(), "firmware")
	require.Len(t, unknown, 1, "unknown is a finding")
	assert.Equal(t, judge.Stop, unknown[0].Verdict, "it has never flown")
	require.NoError(t, s.DB.Exec("update aircraft set flights = 1 where id = ?", s.Aircraft.ID).Error)
	assert.Equal(t, judge.Watch, gateSays(t, s, s.Question(), "firmware")[0].Verdict)
	require.NoError(t, s.Workshop.Install(tech, s.Aircraft.ID, firmware.Set{firmware.App: "4"}))
	assert.Empty(t, gateSays(t, s, s.Question(), "firmware"))
	assert.Empty(t, gateSays(t, s, s.Question(), "work-orders"), "known for the first time is no change")
	require.NoError(t, s.Workshop.Install(tech, s.Aircraft.ID, firmware.Set{firmware.App: "5"}))
	f := gateSays(t, s, s.Question(), "firmware")
	require.Len(t, f, 1)
	assert.Equal(t, judge.Stop, f[0].Verdict)
	assert.Contains(t, gateSays(t, s, s.Question(), "work-orders")[0].Sentence, "After a firmware change")
	require.NoError(t, s.Workshop.Install(tech, s.Aircraft.ID, firmware.Set{firmware.App: "5"}),
		"the same again changes nothing")
	assert.Error(t, s.Workshop.Install(tech, s.Aircraft.ID, firmware.Set{"toaster": "5"}))
	assert.Error(t, s.Workshop.Install(tech, s.Aircraft.ID, firmware.Set{firmware.App: strings.Repeat("5", 41)}))
	assert.Error(t, s.Workshop.Install(tech, testbed.NewID(), firmware.Set{firmware.App: "5"}))
}

// What falls due is listed by the day: a propeller flown an hour a day by its
// hours, a station without a part first.
func TestDueList(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	require.NoError(t, s.DB.Exec("update parts set aircraft_id = null, station = null, fitted_at = null where station = 'motor-4'").Error)
	// Ten hours in the last ten days, through the ledger.
	for d := range 10 {
		s.Clock.Set(testbed.Noon.AddDate(0, 0, d))
		id := testbed.NewID()
		require.NoError(t, s.DB.Exec(`insert into flights (id, aircraft_id, pilot_id, pack_ids, purpose, took_off_at, landed_at, logged_at, state, seconds, landings)
			values (?, ?, ?, '{}', 'test', ?, ?, ?, 'logged', 3600, 1)`, id, s.Aircraft.ID, s.Pilot.ID, s.Clock.Now(), s.Clock.Now().Add(time.Hour), s.Clock.Now().Add(time.Hour)).Error)
		require.NoError(t, fleet.ApplyUse(s.DB, fleet.Use{Flight: id, Aircraft: s.Aircraft.ID, TookOff: s.Clock.Now(),
			Landed: s.Clock.Now().Add(time.Hour), Seconds: 3600, Landings: 1}))
	}
	list, needs, err := s.Workshop.DueList(ctx)
	require.NoError(t, err)
	tasks := list.Items
	list.Items = slices.DeleteFunc(slices.Clone(list.Items),
		func(i api.DueItem) bool { return i.What != api.DueItemWhatPart })
	assert.Greater(t, len(tasks), len(list.Items), "tasks of the programme are on the list")
	assert.NotEmpty(t, needs["propeller/lantern-4"])
	assert.Equal(t, "motor-4", list.Items[0].Station, "a missing part is due now")
	assert.Equal(t, judge.Stop, list.Items[0].Verdict)
	first := list.Items[1]
	assert.Equal(t, "propeller-1", first.Station)
	assert.Equal(t, "hours", first.By)
	assert.True(t, first.Forecast)
	// 14 h left; 10 h in the last 14 days count double over 42: 20/42 h a day, 29.4 days from 19 June.
	assert.Equal(t, "2026-07-18", first.DueOn.String())
	for i := 1; i < len(list.Items)-1; i++ {
		a, b := list.Items[i], list.Items[i+1]
		if a.DueOn != nil && b.DueOn != nil {
			assert.False(t, a.DueOn.Time.After(b.DueOn.Time), "nearest first")
		}
	}
}

func TestProgrammeIsVersioned(t *testing.T) {
	s := testbed.NewStage(t)
	chief := s.As(s.Chief)
	p, err := s.Workshop.Programme(chief, "lantern-4")
	require.NoError(t, err)
	assert.ErrorContains(t, s.Workshop.AddProgramme(chief, "lantern-4", p), "exists already")
	p.Version = 2
	assert.Error(t, s.Workshop.AddProgramme(chief, "dray-30", p), "for another type")
	p.Tasks = p.Tasks[1:2]
	require.NoError(t, s.Workshop.AddProgramme(chief, "lantern-4", p))
	p.Version, p.Tasks[0].Station = 3, "keel"
	assert.ErrorContains(t, s.Workshop.AddProgramme(chief, "lantern-4", p), "keel")
	_, err = s.Workshop.Programme(chief, "kite")
	assert.True(t, fault.Is(err, "not-found"))
	// Without any programme the gate says so.
	require.NoError(t, s.DB.Exec("delete from programmes").Error)
	assert.Contains(t, gateSays(t, s, s.Question(), "programme")[0].Sentence, "what falls due is not known")
}

// A list may say within which limits a defect at one of its items is put off; they take the
// place of the programme's.
func TestALimitOfTheList(t *testing.T) {
	s := testbed.NewStage(t)
	l, err := s.Walkrounds.List(s.As(s.Chief), "lantern-4", 0)
	require.NoError(t, err)
	l.Version++
	l.Sections = append(l.Sections, checks.Section{Title: "More",
		Items: []checks.Item{{ID: "dim-light", Station: "frame", Title: "Light bright", Kind: checks.Look, Defect: judge.Stop,
			Defer: &checks.Defer{Days: 3, Flights: 5, Limits: "By day, over nobody."}}}})
	require.NoError(t, s.Walkrounds.AddList(s.As(s.Chief), "lantern-4", l))
	s.Walk(checks.Full, nil, func(it checks.Item, v *checks.Value) {
		if it.ID == "dim-light" {
			*v = checks.Value{Look: "defect", Note: "half of it is dark"}
		}
	})
	open, _, err := s.Walkrounds.Defects(s.As(s.Tech), &s.Aircraft.ID, "")
	require.NoError(t, err)
	require.Len(t, open, 1)
	put := workshop.NewDeferral{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, DefectID: &open[0].ID, Days: 30,
		Reason: "light ordered", PIN: testbed.PIN}
	d, err := s.Workshop.Defer(s.As(s.Tech), put)
	require.NoError(t, err)
	assert.Equal(t, "By day, over nobody.", d.Limits)
	assert.Equal(t, 3, int(d.ExpiresOn.Sub(testbed.Noon.Truncate(24*time.Hour)).Hours()/24),
		"never longer than the list says")
}
