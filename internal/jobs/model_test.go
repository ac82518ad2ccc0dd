package jobs_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/fleet"
	"mainstay/internal/jobs"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// clash is the naive rule: two planned jobs that overlap share an aircraft or a
// person.
func clash(a, b jobs.Job) bool {
	if !a.FromAt.Before(b.ToAt) || !b.FromAt.Before(a.ToAt) {
		return false
	}
	return slices.ContainsFunc(a.Aircraft, func(x jobs.Craft) bool {
		return slices.ContainsFunc(b.Aircraft, func(y jobs.Craft) bool { return x.AircraftID == y.AircraftID })
	}) || slices.ContainsFunc(a.People, func(x jobs.Post) bool {
		return slices.ContainsFunc(b.People, func(y jobs.Post) bool { return x.PersonID == y.PersonID })
	})
}

// Any order of planning, changing, calling off, doing and planning again leaves
// what a plain list of jobs would hold: what clashes with a planned job is
// refused, all else is taken.
func TestAnyOrderOfPlanningAgreesWithAPlainList(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Chief)
	crafts := []uuid.UUID{b.Aircraft.ID}
	for _, name := range []string{"Two", "Three"} {
		a, err := b.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: name,
			Serial: name})
		require.NoError(t, err)
		crafts = append(crafts, a.ID)
	}
	crew := []uuid.UUID{b.Pilot.ID, b.Chief.ID, b.Tech.ID}
	for seed := range uint64(4) {
		r := rand.New(rand.NewPCG(seed, 1))
		var list []jobs.Job
		draw := func(j *jobs.Job) {
			j.FromAt = testbed.Noon.Add(time.Duration(r.IntN(20)) * time.Hour)
			j.ToAt = j.FromAt.Add(time.Duration(1+r.IntN(4)) * time.Hour)
			j.Aircraft, j.People = nil, nil
			for _, id := range crafts {
				if r.IntN(3) == 0 {
					j.Aircraft = append(j.Aircraft, jobs.Craft{AircraftID: id})
				}
			}
			for _, id := range crew {
				if r.IntN(3) == 0 {
					j.People = append(j.People, jobs.Post{PersonID: id, Post: "ground"})
				}
			}
		}
		free := func(j jobs.Job) bool {
			return !slices.ContainsFunc(list, func(x jobs.Job) bool {
				return x.ID != j.ID && x.State == jobs.Planned &&
					clash(x, j)
			})
		}
		for step := range 70 {
			at := fmt.Sprintf("seed %d, step %d", seed, step)
			if len(list) == 0 || r.IntN(3) == 0 {
				j := jobs.Job{ID: testbed.NewID(), Work: "inspection", SiteID: b.site, Aim: "Roof", State: jobs.Planned}
				draw(&j)
				err := b.Jobs.Save(ctx, j)
				require.Equal(t, free(j), err == nil, "%s: new: %v", at, err)
				if err == nil {
					j.Version = 1
					list = append(list, j)
				}
				continue
			}
			i := r.IntN(len(list))
			was := list[i]
			if r.IntN(2) == 0 {
				draw(&list[i])
				err := b.Jobs.Save(ctx, list[i])
				taken := was.State == jobs.Planned && free(list[i])
				require.Equal(t, taken, err == nil, "%s: change of a job that is %s: %v", at, was.State, err)
				if list[i].Version++; !taken {
					list[i] = was
				}
				continue
			}
			state := []string{jobs.Planned, jobs.Done, jobs.CalledOff}[r.IntN(3)]
			err := b.Jobs.End(ctx, was.ID, state, was.Version)
			taken := state != jobs.Planned || free(was)
			require.Equal(t, taken, err == nil, "%s: from %s to %s: %v", at, was.State, state, err)
			if taken {
				list[i].State = state
				list[i].Version++
			}
		}
		for _, want := range list {
			got, err := b.Jobs.Get(ctx, want.ID)
			require.NoError(t, err)
			assert.Equal(t, []any{want.State, want.Version, want.FromAt.UTC(), want.ToAt.UTC(), len(want.Aircraft),
				len(want.People)},
				[]any{got.State, got.Version, got.FromAt.UTC(), got.ToAt.UTC(), len(got.Aircraft), len(got.People)})
			if got.State == jobs.Planned { // makes room for the next seed
				require.NoError(t, b.Jobs.End(ctx, got.ID, jobs.CalledOff, got.Version))
			}
		}
	}
}

// Everybody answers, packs and signs at the same time: nothing is lost, nobody
// signs twice, and the briefing that all signed holds.
func TestManyHandsOnOneJob(t *testing.T) {
	b := setUp(t)
	j := b.job(func(j *jobs.Job) {
		j.People = append(j.People, jobs.Post{PersonID: b.Chief.ID, Post: "observer"},
			jobs.Post{PersonID: b.Tech.ID, Post: "ground"})
	})
	a, err := b.Jobs.Assess(b.As(b.Pilot), j.ID)
	require.NoError(t, err)
	asks := a.Asks
	items, err := b.Jobs.Kit(b.As(b.Pilot), a)
	require.NoError(t, err)
	var wg sync.WaitGroup
	errs := make(chan error, 200)
	do := func(fn func() error) {
		wg.Go(func() { errs <- fn() })
	}
	for _, q := range asks {
		do(func() error { return b.Jobs.Answer(b.As(b.Pilot), j.ID, map[string]string{q.ID: q.Options[0].ID}) })
		do(func() error { return b.Jobs.Answer(b.As(b.Tech), j.ID, map[string]string{q.ID: q.Options[0].ID}) })
	}
	for _, it := range items {
		do(func() error { return b.Jobs.Pack(b.As(b.Tech), j.ID, jobs.Packing{Item: it.ID, Packed: true}) })
	}
	wg.Wait()
	id := testbed.NewID()
	require.NoError(t, b.Jobs.Brief(b.As(b.Pilot), j.ID, id))
	n, err := b.Jobs.Newest(b.As(b.Pilot), j.ID)
	require.NoError(t, err)
	for range 3 {
		for _, p := range j.People {
			do(func() error {
				return b.Jobs.SignBriefing(b.As(b.Pilot), j.ID, id, p.PersonID, n.Hash, testbed.PIN)
			})
		}
	}
	wg.Wait()
	close(errs)
	for err := range errs {
		if f, ok := fault.As(err); err != nil && !ok {
			assert.NoError(t, err, "%+v", f)
		}
	}
	a, err = b.Jobs.Assess(b.As(b.Pilot), j.ID)
	require.NoError(t, err)
	for _, q := range asks {
		id, craft, one := strings.Cut(q.ID, "@")
		if !one || craft == a.Facts.Aircraft.ID {
			assert.Equal(t, q.Options[0].ID, a.Facts.Answers[id], q.Question)
		}
	}
	items, err = b.Jobs.Kit(b.As(b.Pilot), a)
	require.NoError(t, err)
	for _, it := range items {
		assert.NotNil(t, it.PackedAt, it.Label)
	}
	assert.False(t, has(b.stops(j), "briefed"), "%v", b.stops(j))
	var signed int64
	require.NoError(t, b.DB.Raw("select count(*) from briefing_signatures where briefing_id = ?", id).Scan(&signed).Error)
	assert.EqualValues(t, 3, signed, "one signature for each person")
}
