package server_test

import (
	"context"
	"database/sql"
	"fmt"
	"net/http"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/internal/testbed"
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
	return m{"aircraft_id": s.Aircraft.ID, "pack_ids": []uuid.UUID{s.Packs[0].ID}, "job_id": job, "wind": m{"at": s.Clock.Now(), "steady_ms": 3, "gust_ms": 4, "measured_m": 2, "ground": "open"}}
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
			began := time.Now()
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
				assert.Equal(t, "already-released", string(a.Problem().Type), a.Text())
			}
			assert.Equal(t, 1, won)
			assert.Less(t, time.Since(began), 15*time.Second, "nobody waits for a deadline")
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
	for i := range answers {
		all.Go(func() { answers[i] = c.Do(http.MethodPost, "/releases", body()) })
	}
	require.Eventually(t, func() bool {
		var waiting int
		require.NoError(t, other.QueryRow("select count(*) from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'").Scan(&waiting))
		return waiting >= 8
	}, 10*time.Second, 20*time.Millisecond, "half of the connections wait")
	began := time.Now()
	for _, path := range []string{"/day", "/packs", "/aircraft", "/gate"} {
		a := testbed.Answer{}
		if path == "/gate" {
			a = c.Do(http.MethodPost, path, q)
		} else {
			a = c.Do(http.MethodGet, path, nil)
		}
		assert.Equal(t, http.StatusOK, a.Status, path)
	}
	assert.Less(t, time.Since(began), 4*time.Second, "before the first waiter gives up")
	all.Wait()
	for _, a := range answers {
		assert.Equal(t, http.StatusServiceUnavailable, a.Status, a.Text())
		assert.Equal(t, "busy", string(a.Problem().Type))
	}
	require.NoError(t, hold.Rollback())
	assert.Equal(t, http.StatusCreated, c.Do(http.MethodPost, "/releases", body()).Status, "it heals by itself")
}
