package rack_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/rack"
	"mainstay/internal/standins/charger"
	"mainstay/internal/testbed"
)

func good() map[string]string {
	out := map[string]string{}
	for _, f := range rack.Faces {
		out[f] = "ok"
	}
	return out
}

func TestLookAndDisposal(t *testing.T) {
	s := testbed.NewStage(t)
	pilot, tech, id := s.As(s.Pilot), s.As(s.Tech), s.Packs[0].ID
	l := rack.Look{ID: testbed.NewID(), PackID: id, Faces: good()}
	require.NoError(t, s.Rack.LookAt(pilot, l))
	require.NoError(t, s.Rack.LookAt(pilot, l), "sent twice")
	looks, err := s.Rack.Looks(pilot, id)
	require.NoError(t, err)
	assert.Len(t, looks, 1)
	bad := rack.Look{ID: testbed.NewID(), PackID: id, Faces: good()}
	delete(bad.Faces, "back")
	assert.Error(t, s.Rack.LookAt(pilot, bad), "five faces are not six")
	bad.Faces["back"] = "purple"
	assert.Error(t, s.Rack.LookAt(pilot, bad))
	bad.Faces["back"] = "swollen"
	assert.ErrorContains(t, s.Rack.LookAt(pilot, bad), "what was seen")
	bad.Note, bad.Photos = "bulges", []uuid.UUID{testbed.NewID()}
	assert.ErrorContains(t, s.Rack.LookAt(pilot, bad), "not arrived")
	bad.Photos = nil
	require.NoError(t, s.Rack.LookAt(pilot, bad))
	p, err := s.Fleet.Pack(pilot, id)
	require.NoError(t, err)
	assert.Equal(t, string(pack.Quarantine), p.State)
	bad.ID, bad.PackID = testbed.NewID(), testbed.NewID()
	assert.True(t, fault.Is(s.Rack.LookAt(pilot, bad), "not-found"))

	d := rack.Disposal{Method: "salt water", DeliveredTo: "yard", PIN: testbed.PIN}
	assert.ErrorContains(t, s.Rack.Dispose(tech, id, d), "discharged before")
	d.Discharged = true
	assert.True(t, fault.Is(s.Rack.Dispose(tech, s.Packs[1].ID, d), "move-not-allowed"), "only from quarantine")
	d.PIN = "0000"
	assert.Error(t, s.Rack.Dispose(tech, id, d))
	d.PIN = testbed.PIN
	require.NoError(t, s.Rack.Dispose(tech, id, d))
	assert.True(t, fault.Is(s.Rack.Dispose(tech, id, d), "move-not-allowed"), "once")
}

func TestImportAccountsForEveryLine(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	file := "time,pack,cell_1_mv,cell_2_mv,cell_3_mv,cell_4_mv,cell_5_mv,cell_6_mv,mah_in,start_percent,end_percent,temperature_c\n" +
		"2026-06-01T10:00:00Z,A1,4340,4340,4340,4340,4340,4340,9000,20,100,22\n" +
		"2026-06-01T10:00:00Z,a1,4340,4340,4340,4340,4340,4340,9000,20,100,22\n" +
		"2026-06-02T10:00:00Z,S-A2,4340,4340,4340,4340,4340,4340,,,,\n" +
		"2026-06-02T10:00:00Z,Z9,4340,4340,4340,4340,4340,4340,,,,\n" +
		"2026-06-03T10:00:00Z,A1,4340,4340,4340,,,,,,,\n" +
		"2027-06-03T10:00:00Z,A1,4340,4340,4340,4340,4340,4340,,,,\n"
	rep, err := s.Rack.Import(ctx, strings.NewReader(file))
	require.NoError(t, err)
	assert.Equal(t, 2, rep.Accepted)
	require.Len(t, rep.Refused, 4)
	for i, says := range []string{"Line 3: the same pack and time stand in line 2", `Line 5: no pack is labelled "Z9"`,
		"Line 6: A1 has 6 cells; 3 were entered", "Line 7: The reading is dated in the future"} {
		assert.Contains(t, rep.Refused[i].Sentence, says)
	}
	again, err := s.Rack.Import(ctx, strings.NewReader(file))
	require.NoError(t, err)
	assert.Zero(t, again.Accepted)
	assert.Equal(t, 2, again.Unchanged)
	other, err := s.Rack.Import(ctx, strings.NewReader(strings.Replace(file, "9000", "8000", 2)))
	require.NoError(t, err)
	assert.Contains(t, other.Refused[0].Sentence, "a reading does not change")
	_, err = s.Rack.Import(ctx, strings.NewReader("volts\n"))
	assert.ErrorContains(t, err, "Nothing was saved")
	var n int64
	require.NoError(t, s.DB.Raw("select count(*) from pack_readings").Scan(&n).Error)
	assert.EqualValues(t, 2, n)
}

// device puts a charger stand-in on the network that follows the stage's clock.
func device(t *testing.T, s *testbed.Stage) *charger.Charger {
	c := charger.New(2, 1, s.Clock.Now)
	srv := httptest.NewServer(c)
	t.Cleanup(srv.Close)
	s.Rack.Charger = outside.New(srv.URL, "")
	return c
}

func (x chargeCase) read(t *testing.T, s *testbed.Stage) {
	level, temp := 30.0, 22.0
	_, err := s.Fleet.ReadPack(s.As(s.Pilot), x.id, fleet.NewReading{ID: testbed.NewID(), Percent: &level,
		TemperatureC: &temp, Source: "hand"})
	require.NoError(t, err)
}

type chargeCase struct{ id uuid.UUID }

func TestChargeFromStartToReading(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Pilot), s.Packs[0].ID
	st, err := s.Rack.Status(ctx)
	require.NoError(t, err)
	assert.False(t, st.Configured)
	assert.True(t, fault.Is(s.Rack.Begin(ctx, 1, id, "full", false), "no-charger"))
	c := device(t, s)
	assert.True(t, fault.Is(s.Rack.Begin(ctx, 1, id, "full", false), "level-unknown"), "unknown never passes as good")
	chargeCase{id}.read(t, s)
	require.NoError(t, s.Rack.Begin(ctx, 1, id, "full", true))
	assert.Error(t, s.Rack.Begin(ctx, 2, id, "full", true), "on one channel at a time")
	chargeCase{s.Packs[1].ID}.read(t, s)
	assert.ErrorContains(t, s.Rack.Begin(ctx, 1, s.Packs[1].ID, "full", true), "another pack")
	s.Clock.Advance(20 * time.Minute)
	st, err = s.Rack.Status(ctx)
	require.NoError(t, err)
	assert.Equal(t, "charging", st.Channels[0].Phase)
	require.NotNil(t, st.Channels[0].Percent)
	assert.Greater(t, *st.Channels[0].Percent, 30.0)
	s.Clock.Advance(3 * time.Hour)
	for range 2 { // asked twice, taken in once
		_, err = s.Rack.Status(ctx)
		require.NoError(t, err)
	}
	p, err := s.Fleet.Pack(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, string(pack.Charged), p.State)
	rs, _, err := s.Fleet.Readings(ctx, id, "")
	require.NoError(t, err)
	require.Len(t, rs, 2)
	assert.Equal(t, "charger", rs[0].Source)
	require.NotNil(t, rs[0].CapacityMAh)
	assert.InDelta(t, 12000, *rs[0].CapacityMAh, 60, "30 to 100 percent by its own count")
	assert.Len(t, rs[0].MilliOhm, 6)
	c.Set(charger.Faults{Nonsense: true})
	st, err = s.Rack.Status(ctx)
	require.NoError(t, err)
	assert.False(t, st.Reachable)
	assert.Contains(t, st.Sentence, "look at it")
}

func TestFaultsOfTheCharger(t *testing.T) {
	for name, x := range map[string]struct {
		faults charger.Faults
		says   string
	}{
		"overheat":     {charger.Faults{Overheat: true}, "47 °C on the charger"},
		"missing cell": {charger.Faults{MissingCell: true}, "reads 5 cells"},
		"weak cell":    {charger.Faults{WeakCell: 3}, "Cells differ by"},
	} {
		s := testbed.NewStage(t)
		ctx, id := s.As(s.Pilot), s.Packs[0].ID
		c := device(t, s)
		chargeCase{id}.read(t, s)
		require.NoError(t, s.Rack.Begin(ctx, 2, id, "full", true))
		c.Set(x.faults)
		s.Clock.Advance(30 * time.Minute)
		st, err := s.Rack.Status(ctx)
		require.NoError(t, err)
		if name != "overheat" { // that one has stopped by itself
			assert.Equal(t, judge.Stop, st.Channels[1].Verdict, name)
			assert.Contains(t, st.Channels[1].Sentence, x.says, name)
		}
		s.Clock.Advance(5 * time.Hour)
		_, err = s.Rack.Status(ctx)
		require.NoError(t, err)
		p, err := s.Fleet.Pack(ctx, id)
		require.NoError(t, err)
		assert.Equal(t, string(pack.Quarantine), p.State, name)
	}
	s := testbed.NewStage(t)
	c := device(t, s)
	chargeCase{s.Packs[0].ID}.read(t, s)
	c.Set(charger.Faults{Unreachable: true})
	err := s.Rack.Begin(s.As(s.Pilot), 1, s.Packs[0].ID, "full", true)
	assert.True(t, fault.Is(err, "charger"), "%v", err)
	p, err := s.Fleet.Pack(context.Background(), s.Packs[0].ID)
	require.NoError(t, err)
	assert.Equal(t, string(pack.Charged), p.State, "a charger that refuses takes everything back")
	assert.True(t, fault.Is(s.Rack.End(s.As(s.Pilot), 1), "charger"))
}

func TestStoppedByHandAndToStorage(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Pilot), s.Packs[0].ID
	device(t, s)
	level, temp := 98.0, 45.0
	_, err := s.Fleet.ReadPack(ctx, id, fleet.NewReading{ID: testbed.NewID(), Percent: &level, TemperatureC: &temp,
		Source: "hand"})
	require.NoError(t, err)
	assert.ErrorContains(t, s.Rack.Begin(ctx, 1, id, "storage", false), "Charge between 5 and 40")
	s.Clock.Advance(2 * time.Hour)
	assert.True(t, fault.Is(s.Rack.Begin(ctx, 1, id, "storage", false), "feel-it"), "what nobody knows any more is felt")
	require.NoError(t, s.Rack.Begin(ctx, 1, id, "storage", true))
	var felt string
	require.NoError(t, s.DB.Raw("select by_name from charges where pack_id = ? and felt", id).Scan(&felt).Error)
	assert.Equal(t, s.Pilot.Name, felt, "who felt it is on file")
	s.Clock.Advance(30 * time.Minute)
	require.NoError(t, s.Rack.End(ctx, 1))
	p, err := s.Fleet.Pack(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, string(pack.Storage), p.State)
	assert.Nil(t, p.FullSince)
	assert.Greater(t, p.OutMAh, 0.0, "what went out counts as use")
}

func TestForecastsOfTheWholeRack(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	_, err := s.Rack.AskForecasts(ctx)
	assert.True(t, fault.Is(err, "no-background"), "%v", err)
	mah, from, to := 9000.0, 20.0, 100.0
	_, err = s.Fleet.ReadPack(ctx, s.Packs[0].ID, fleet.NewReading{ID: testbed.NewID(), MAhIn: &mah, StartPercent: &from,
		EndPercent: &to, Source: "hand"})
	require.NoError(t, err)
	require.NoError(t, s.DB.Exec("delete from pack_outlooks").Error)
	require.NoError(t, s.Rack.ComputeAll(ctx))
	work, err := s.Rack.Background(ctx)
	require.NoError(t, err)
	require.Len(t, work, 1)
	assert.Equal(t, "done", work[0].State)
	assert.Equal(t, 2, work[0].Done)
	views, err := s.Fleet.PackViews(ctx, []uuid.UUID{s.Packs[0].ID})
	require.NoError(t, err)
	assert.InDelta(t, 93.75, *views[0].Standing.Capacity.Health, 1e-9)
	// Through the queue, on a server that works.
	testbed.Serve(t, s.Services)
	_, err = s.Rack.AskForecasts(ctx)
	require.NoError(t, err)
	require.Eventually(t, func() bool {
		work, err := s.Rack.Background(ctx)
		return err == nil && work[0].State == "done" && work[0].EndedAt != nil
	}, 20*time.Second, 50*time.Millisecond)
}

// A charger that says less than it could: what is missing is missing, not zero,
// and an answer of another form is none.
func TestChargerThatSaysLittle(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Pilot), s.Packs[0].ID
	chargeCase{id}.read(t, s)
	session, says := "", ""
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodPost {
			var b struct{ Session string }
			_ = json.NewDecoder(r.Body).Decode(&b)
			if b.Session != "" {
				session = b.Session
			}
			w.WriteHeader(http.StatusNoContent) // done, with nothing to say
			return
		}
		_, _ = fmt.Fprint(w, strings.ReplaceAll(says, "SESSION", session))
	}))
	t.Cleanup(srv.Close)
	s.Rack.Charger = outside.New(srv.URL, "")
	says = `{"channels":[{"channel":1,"phase":"idle"}]}`
	require.NoError(t, s.Rack.Begin(ctx, 1, id, "full", true))
	const cells = `"cell_mv":[4300,4300,4300,4300,4300,4300],"cell_mohm":[2,2,2,2,2,2]`
	look := func() rack.ChannelStatus {
		st, err := s.Rack.Status(ctx)
		require.NoError(t, err)
		require.True(t, st.Reachable, st.Sentence)
		return st.Channels[0]
	}
	says = `{"channels":[{"channel":1,"phase":"charging","session":"SESSION",` + cells + `}]}`
	x := look()
	assert.Equal(t, judge.Watch, x.Verdict)
	assert.Contains(t, x.Sentence, "does not say how warm")
	assert.Contains(t, x.Sentence, "level not said")
	says = `{"channels":[{"channel":1,"session":"SESSION","percent":50,"temperature_c":25,` + cells + `}]}`
	x = look()
	assert.Equal(t, judge.Watch, x.Verdict, "no phase is no phase")
	for _, bad := range []string{`[{"channel":1,"phase":"charging"}]`, `{"channels":[]}`,
		`{"channels":[{"channel":1,"phase":"charging","percent":400}]}`,
		`{"channels":[{"channel":1,"phase":"charging","temperature_c":-900}]}`, ``} {
		says = bad
		st, err := s.Rack.Status(ctx)
		require.NoError(t, err)
		assert.False(t, st.Reachable, bad)
	}
	says = `{"channels":[{"channel":1,"phase":"done","session":"SESSION",` + cells + `}]}`
	_, err := s.Rack.Status(ctx)
	require.NoError(t, err)
	var r struct{ Percent, TemperatureC, MahIn *float64 }
	require.NoError(t, s.DB.Raw("select percent, temperature_c, mah_in from pack_readings where pack_id = ? and source = 'charger'",
		id).Scan(&r).Error)
	assert.Nil(t, r.Percent)
	assert.Nil(t, r.TemperatureC, "not 0 degrees")
	assert.Nil(t, r.MahIn)
	p, err := s.Fleet.Pack(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, "storage", p.State, "a pack whose level nobody knows is not charged")
}

// A charger that is slow or refuses holds nobody up, and the pack is what it was.
func TestChargerThatRefuses(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, id := s.As(s.Pilot), s.Packs[0].ID
	chargeCase{id}.read(t, s)
	before, err := s.Fleet.Pack(ctx, id)
	require.NoError(t, err)
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		// While it thinks, others sign, over the one connection there is.
		assert.NoError(t, s.Fleet.Ground(s.As(s.Tech), testbed.NewID(), s.Aircraft.ID, "person", "while the charger thinks"))
		http.Error(w, "busy", http.StatusConflict)
	}))
	t.Cleanup(srv.Close)
	s.Rack.Charger = outside.New(srv.URL, "")
	assert.True(t, fault.Is(s.Rack.Begin(ctx, 1, id, "full", true), "charger"))
	after, err := s.Fleet.Pack(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, before.State, after.State)
	var open int64
	require.NoError(t, s.DB.Raw("select count(*) from charges where ended_at is null").Scan(&open).Error)
	assert.Zero(t, open)
}
