package flights_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

// never are conditions that no order of acts may bring about; each query counts
// how often it is broken.
var never = map[string]string{
	"an aircraft in two places":            `select count(*) from (select aircraft_id from (select aircraft_id from releases where state = 'open' union all select aircraft_id from flights where state <> 'logged') x group by aircraft_id having count(*) > 1) y`,
	"a pilot with two aircraft in the air": `select count(*) from (select pilot_id from flights where state = 'air' group by pilot_id having count(*) > 1) x`,
	"a pack in two aircraft":               `select count(*) from (select p from (select unnest(pack_ids) p from releases where state = 'open' union all select unnest(pack_ids) from flights where state <> 'logged') x group by p having count(*) > 1) y`,
	"a pack that is used and not fitted":   `select count(*) from (select unnest(pack_ids) p from releases where state = 'open' union all select unnest(pack_ids) from flights where state <> 'logged') x join packs on packs.id = x.p where packs.state <> 'fitted'`,
	"a fitted pack that nothing uses":      `select count(*) from packs where state = 'fitted' and id not in (select unnest(pack_ids) from releases where state = 'open' union select unnest(pack_ids) from flights where state <> 'logged')`,
	"a release with a Stop":                `select count(*) from releases where verdict = 'stop'`,
	"a take-off of a grounded aircraft":    `select count(*) from flights f join groundings g on g.aircraft_id = f.aircraft_id and g.at <= f.took_off_at and (g.lifted_at is null or g.lifted_at > f.took_off_at)`,
	"a take-off without a release":         `select count(*) from flights f left join releases r on r.id = f.release_id and r.state = 'flown' where r.id is null`,
	"hours that no flight has":             `select count(*) from aircraft a where a.seconds <> (select coalesce(sum(seconds), 0) from flights where aircraft_id = a.id and state = 'logged')`,
	"cycles that no flight has":            `select count(*) from packs p where p.cycles <> (select count(*) from flights where p.id = any(pack_ids) and state = 'logged')`,
}

// Whatever two pilots and a technician do in whatever order, each act is done or
// refused with a sentence, and nothing above ever comes about.
func TestNoOrderOfActsBreaksTheRulesOfTheField(t *testing.T) {
	done := map[string]int{}
	for seed := range uint64(3) {
		s := testbed.NewStage(t)
		second, err := s.Fleet.AddAircraft(s.As(s.Chief), fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4",
			Name: "Quad two", Serial: "Q-2", Registration: "T-2", RegistrationExpires: s.Aircraft.RegistrationExpires,
			FitNewParts: true})
		require.NoError(t, err)
		crafts := []fleet.Aircraft{s.Aircraft, second}
		r := rand.New(rand.NewPCG(seed, 3))
		one := func(table, where string) uuid.UUID {
			var ids []uuid.UUID
			require.NoError(t, s.DB.Raw("select id from "+table+" where "+where+" order by id").Scan(&ids).Error)
			if len(ids) == 0 {
				return testbed.NewID() // of nothing: refused
			}
			return ids[r.IntN(len(ids))]
		}
		acts := []struct {
			name string
			do   func(p people.Person, craft fleet.Aircraft, pk uuid.UUID) error
		}{
			{"walk", func(p people.Person, craft fleet.Aircraft, pk uuid.UUID) error {
				kind := []string{checks.Full, checks.Turnaround}[r.IntN(2)]
				sh, err := s.Walkrounds.Start(s.As(p), walkround.New{ID: testbed.NewID(), Aircraft: craft.ID, Round: kind,
					Packs: []uuid.UUID{pk}})
				if err != nil {
					return err
				}
				if _, err = s.Walkrounds.Save(s.As(p), sh.ID, s.Entries(sh, nil)); err != nil {
					return err
				}
				if r.IntN(5) == 0 {
					return s.Walkrounds.Abandon(s.As(p), sh.ID)
				}
				_, err = s.Walkrounds.Complete(s.As(p), sh.ID)
				return err
			}},
			{"release", func(p people.Person, craft fleet.Aircraft, pk uuid.UUID) error {
				s.Aircraft = craft
				q := s.Question(pk)
				a, err := s.Flights.Ask(s.As(p), q)
				if err != nil {
					return err
				}
				_, err = s.Flights.Release(s.As(p), flights.NewRelease{ID: testbed.NewID(), Question: q, Purpose: "Any order",
					GateHash: a.Hash, PIN: testbed.PIN})
				return err
			}},
			{"withdraw", func(p people.Person, _ fleet.Aircraft, _ uuid.UUID) error {
				_, err := s.Flights.Withdraw(s.As(p), one("releases", "true"))
				return err
			}},
			{"take off", func(p people.Person, _ fleet.Aircraft, _ uuid.UUID) error {
				_, err := s.Flights.TakeOff(s.As(p), testbed.NewID(), one("releases", "state = 'open'"), nil)
				return err
			}},
			{"land", func(p people.Person, _ fleet.Aircraft, _ uuid.UUID) error {
				s.Clock.Advance(time.Duration(60+r.IntN(600)) * time.Second)
				_, err := s.Flights.Land(s.As(p), one("flights", "true"))
				return err
			}},
			{"resume", func(p people.Person, _ fleet.Aircraft, _ uuid.UUID) error {
				_, err := s.Flights.Resume(s.As(p), one("flights", "true"))
				return err
			}},
			{"log", func(p people.Person, _ fleet.Aircraft, _ uuid.UUID) error {
				id := one("flights", "state <> 'logged'")
				f, err := s.Flights.Flight(s.As(p), id)
				if err != nil {
					return err
				}
				_, err = s.Flights.Log(s.As(p), id, testbed.Landed(f))
				return err
			}},
			{"ground", func(_ people.Person, craft fleet.Aircraft, _ uuid.UUID) error {
				if r.IntN(8) > 0 {
					return fault.Clash("not-now", "Not every time.")
				}
				return s.Fleet.Ground(s.As(s.Tech), testbed.NewID(), craft.ID, fleet.ByPerson, "smells odd")
			}},
			{"return", func(_ people.Person, craft fleet.Aircraft, _ uuid.UUID) error {
				return s.Workshop.Return(s.As(s.Tech), craft.ID, "it was the truck", testbed.PIN)
			}},
			{"charge", func(p people.Person, _ fleet.Aircraft, pk uuid.UUID) error {
				x, err := s.Fleet.Pack(context.Background(), pk)
				if err != nil {
					return err
				}
				if r.IntN(2) == 0 {
					s.Charge(pk)
					return nil
				}
				to := []pack.State{pack.Charging, pack.Charged, pack.Flown, pack.Storage}[r.IntN(4)]
				_, err = s.Fleet.MovePack(s.As(p), pk, to, "", x.Version)
				return err
			}},
		}
		for step := range 220 {
			s.Clock.Advance(time.Second)
			s.Fit(s.Pilot)
			s.Fit(s.Chief)
			act := acts[r.IntN(len(acts))]
			if r.IntN(2) == 0 { // the way of a flight, more often than not
				act = acts[[]int{0, 1, 1, 3, 4, 6}[r.IntN(6)]]
			}
			who := []people.Person{s.Pilot, s.Chief}[r.IntN(2)]
			err := act.do(who, crafts[r.IntN(2)], s.Packs[r.IntN(len(s.Packs))].ID)
			at := fmt.Sprintf("seed %d, step %d, %s", seed, step, act.name)
			if err == nil {
				done[act.name]++
			} else if f, ok := fault.As(err); assert.True(t, ok, "%s: %v", at, err) {
				assert.NotEmpty(t, f.Detail, at)
			}
			for what, sql := range never {
				var n int
				require.NoError(t, s.DB.Raw(sql).Scan(&n).Error, what)
				require.Zero(t, n, "%s: %s", at, what)
			}
		}
		res, err := records.Verify(context.Background(), s.DB, records.Check{})
		require.NoError(t, err)
		assert.Zero(t, res.FirstBad)
	}
	t.Log(done)
	for _, name := range []string{"walk", "release", "withdraw", "take off", "land", "resume", "log", "ground", "return",
		"charge"} {
		assert.Positive(t, done[name], "%s was never possible: the test tries too little", name)
	}
}
