package server_test

import (
	"context"
	"database/sql"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"slices"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// crowd is a stage served over so many connections, with its aircraft walked
// and one pack charged.
func crowd(t *testing.T, connections int) (s *testbed.Stage, base string) {
	s = testbed.NewStage(t)
	s.Walk(checks.Full, []uuid.UUID{s.Packs[0].ID}, nil)
	s.Fit(s.Pilot)
	svc := testbed.Wide(t, s.URL, s.Clock, connections)
	svc.People.Hash = s.People.Hash
	return s, testbed.Serve(t, svc)
}

// question is what s.Question asks, over HTTP.
func question(s *testbed.Stage, job uuid.UUID) m {
	return m{"aircraft_id": s.Aircraft.ID, "pack_ids": []uuid.UUID{s.Packs[0].ID}, "job_id": job,
		"wind": m{"at": s.Clock.Now(), "steady_ms": 3, "gust_ms": 4, "measured_m": 2, "ground": "open"}}
}

// Forty hands sign one aircraft: one wins, the others are told who it was, and
// nobody waits long, with a single connection as with many.
func TestFortyHandsOnOneAircraft(t *testing.T) {
	for _, connections := range []int{1, 16} {
		t.Run(fmt.Sprint(connections), func(t *testing.T) {
			s, base := crowd(t, connections)
			c := testbed.NewClient(t, base).SignIn("pilot", "long enough")
			q := question(s, s.Practice())
			var gate api.GateAnswer
			c.Do(http.MethodPost, "/gate", q).Into(&gate)
			answers := make([]testbed.Answer, 40)
			var all sync.WaitGroup
			for i := range answers {
				all.Go(func() {
					body := m{"id": testbed.NewID(), "purpose": "Crowd", "gate_hash": gate.Hash, "pin": testbed.PIN}
					for k, v := range q {
						body[k] = v
					}
					answers[i] = c.Do(http.MethodPost, "/releases", body)
				})
			}
			all.Wait()
			won := 0
			for _, a := range answers {
				if a.Status == http.StatusCreated {
					won++
					continue
				}
				assert.Equal(t, "already-released", string(a.Problem().Type), "nobody waits for a deadline: %s", a.Text())
			}
			assert.Equal(t, 1, won)
			assert.Equal(t, http.StatusOK, c.Do(http.MethodGet, "/packs", nil).Status)
		})
	}
}

// While something holds an aircraft and many wait for it, pages that only read
// still come, and who waits in vain hears so and may try again.
func TestReadersPassThoseWhoWait(t *testing.T) {
	s, base := crowd(t, 16)
	c := testbed.NewClient(t, base).SignIn("pilot", "long enough")
	q := question(s, s.Practice())
	var gate api.GateAnswer
	c.Do(http.MethodPost, "/gate", q).Into(&gate)
	other, err := sql.Open("pgx", s.URL)
	require.NoError(t, err)
	defer func() { _ = other.Close() }()
	hold, err := other.BeginTx(context.Background(), nil)
	require.NoError(t, err)
	_, err = hold.Exec("select 1 from aircraft where id = $1 for update", s.Aircraft.ID)
	require.NoError(t, err)
	body := func() m {
		b := m{"id": testbed.NewID(), "purpose": "Crowd", "gate_hash": gate.Hash, "pin": testbed.PIN}
		for k, v := range q {
			b[k] = v
		}
		return b
	}
	answers := make([]testbed.Answer, 20)
	var all sync.WaitGroup
	var gaveUp atomic.Int64
	for i := range answers {
		all.Go(func() {
			answers[i] = c.Do(http.MethodPost, "/releases", body())
			gaveUp.Add(1)
		})
	}
	require.Eventually(t, func() bool {
		var waiting int
		require.NoError(t, other.QueryRow("select count(*) from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'").Scan(&waiting))
		return waiting >= 8
	}, 10*time.Second, 20*time.Millisecond, "half of the connections wait")
	for _, path := range []string{"/day", "/packs", "/aircraft", "/gate"} {
		a := testbed.Answer{}
		if path == "/gate" {
			a = c.Do(http.MethodPost, path, q)
		} else {
			a = c.Do(http.MethodGet, path, nil)
		}
		assert.Equal(t, http.StatusOK, a.Status, path)
	}
	assert.Zero(t, gaveUp.Load(), "before the first waiter gives up")
	all.Wait()
	for _, a := range answers {
		assert.Equal(t, http.StatusServiceUnavailable, a.Status, a.Text())
		assert.Equal(t, "busy", string(a.Problem().Type))
	}
	require.NoError(t, hold.Rollback())
	assert.Equal(t, http.StatusCreated, c.Do(http.MethodPost, "/releases", body()).Status, "it heals by itself")
}

// Sixteen hands do whatever comes to mind with the same two aircraft, packs,
// people and shelf. Things are refused, but nobody waits in vain, also where the
// database has to break a circle of waiting.
func TestManyHandsOnTheSameThings(t *testing.T) {
	s, _ := crowd(t, 16)
	svc := testbed.Wide(t, s.URL, s.Clock, 16)
	svc.People.Hash = s.People.Hash
	second, err := s.Fleet.AddAircraft(s.As(s.Chief), fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4",
		Name: "Quad two", Serial: "Q-2", FitNewParts: true})
	require.NoError(t, err)
	line := workshop.StockLine{ID: testbed.NewID(), Name: "Screws", Quantity: 1000, Minimum: 1, DeliveryDays: 1}
	require.NoError(t, s.Workshop.SaveStock(s.As(s.Tech), line))
	order, err := s.Workshop.OpenOrder(s.As(s.Tech), workshop.NewOrder{ID: testbed.NewID(), Aircraft: second.ID,
		Title: "Something loose", Station: "arm-1", Steps: []string{"Tighten it"}})
	require.NoError(t, err)
	both, packs := []uuid.UUID{s.Aircraft.ID, second.ID}, []uuid.UUID{s.Packs[0].ID, s.Packs[1].ID}
	var parts []uuid.UUID
	require.NoError(t, s.DB.Raw("select id from parts where kind = 'propeller' and aircraft_id = ? order by id",
		second.ID).Scan(&parts).Error)
	job := s.Practice()
	team := []people.Person{s.Chief, s.Pilot, s.Tech}
	level := 95.0
	acts := map[string]func(ctx context.Context, r *rand.Rand) error{
		"release": func(context.Context, *rand.Rand) error {
			ctx, q := s.As(s.Pilot), s.For(job, packs[0])
			a, err := svc.Flights.Ask(ctx, q)
			if err != nil {
				return err
			}
			rel, err := svc.Flights.Release(ctx, flights.NewRelease{ID: testbed.NewID(), Question: q, Purpose: "Crowd",
				GateHash: a.Hash, PIN: testbed.PIN})
			if err == nil {
				_, err = svc.Flights.Withdraw(ctx, rel.ID)
			}
			return err
		},
		"walk": func(ctx context.Context, r *rand.Rand) error {
			sh, err := svc.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: second.ID, Round: checks.Full,
				Packs: packs[1:]})
			if err != nil {
				return err
			}
			if _, err = svc.Walkrounds.Save(ctx, sh.ID, s.Entries(sh, func(it checks.Item, v *checks.Value) {
				if r.IntN(20) == 0 && it.Kind == checks.Look {
					*v = checks.Value{Look: "defect", Note: "Something"}
				}
			})); err != nil {
				return err
			}
			if r.IntN(2) == 0 {
				return svc.Walkrounds.Abandon(ctx, sh.ID)
			}
			_, err = svc.Walkrounds.Complete(ctx, sh.ID)
			return err
		},
		"read": func(ctx context.Context, _ *rand.Rand) error {
			_, err := svc.Fleet.ReadPack(ctx, packs[1], fleet.NewReading{ID: testbed.NewID(), Percent: &level, Source: "hand"})
			return err
		},
		"move": func(ctx context.Context, r *rand.Rand) error {
			p, err := svc.Fleet.Pack(ctx, packs[1])
			if err != nil {
				return err
			}
			_, err = svc.Fleet.MovePack(ctx, p.ID, []pack.State{pack.Storage, pack.Charging, pack.Charged,
				pack.Flown}[r.IntN(4)], "", p.Version)
			return err
		},
		"ground": func(ctx context.Context, _ *rand.Rand) error {
			return svc.Fleet.Ground(ctx, testbed.NewID(), second.ID, "person", "for the crowd")
		},
		"return": func(context.Context, *rand.Rand) error {
			return svc.Workshop.Return(s.As(s.Tech), second.ID, "looked at", testbed.PIN)
		},
		"defect": func(ctx context.Context, r *rand.Rand) error {
			d, err := svc.Walkrounds.Raise(ctx, walkround.Defect{ID: testbed.NewID(), AircraftID: both[r.IntN(2)],
				Station: "arm-2", Title: "Scratch", Severity: "watch"})
			if err == nil {
				err = svc.Walkrounds.Settle(s.As(s.Tech), d.ID, "polished", testbed.PIN)
			}
			return err
		},
		"swap": func(_ context.Context, r *rand.Rand) error {
			return svc.Fleet.SwapParts(s.As(s.Tech), parts[r.IntN(len(parts))], parts[r.IntN(len(parts))])
		},
		"stock": func(ctx context.Context, _ *rand.Rand) error {
			return svc.Workshop.UseStock(ctx, order.ID, testbed.NewID(), line.ID, 1)
		},
		"step": func(context.Context, *rand.Rand) error { return s.Fill(order.ID, nil) },
		"fit":  func(ctx context.Context, _ *rand.Rand) error { return svc.People.DeclareFit(ctx, testbed.NewID(), nil) },
		"person": func(context.Context, *rand.Rand) error {
			p, err := svc.People.Get(context.Background(), s.Pilot.ID)
			if err != nil {
				return err
			}
			_, err = svc.People.Update(s.As(s.Chief), p.ID, edit(p))
			return err
		},
		"pin": func(context.Context, *rand.Rand) error {
			return svc.People.ChangePIN(context.Background(), s.Tech.ID, "long enough", testbed.PIN)
		},
	}
	names := slices.Sorted(maps.Keys(acts))
	var mu sync.Mutex
	done, refused := map[string]int{}, map[string]string{}
	var all sync.WaitGroup
	for hand := range 16 {
		r := rand.New(rand.NewPCG(7, uint64(hand)))
		all.Go(func() {
			for range 40 {
				name := names[r.IntN(len(names))]
				err := acts[name](s.As(team[r.IntN(3)]), r)
				f, ours := fault.As(err)
				mu.Lock()
				switch {
				case err == nil:
					done[name]++
				case !ours || f.Kind == fault.Busy:
					t.Errorf("%s: %v", name, err)
				default:
					refused[name] = err.Error()
				}
				mu.Unlock()
			}
		})
	}
	all.Wait()
	t.Log(done)
	for _, name := range names {
		assert.Positive(t, done[name], "%s was never done: %s", name, refused[name])
	}
	res, err := records.Verify(context.Background(), s.DB, records.Check{})
	require.NoError(t, err)
	assert.True(t, res.OK(), res.Sentence())
}

func edit(p people.Person) people.Edit {
	return people.Edit{Version: p.Version, Name: p.Name, Roles: p.Held(), Active: true, Certificate: p.Certificate,
		TrainedOn: p.TrainedOn}
}
