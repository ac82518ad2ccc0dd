package server_test

import (
	"net/http"
	"runtime"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/internal/testbed"
)

// Four hundred guesses of a PIN at once, over HTTP, by a crew member on a tablet
// of their own: no more than five are judged, and none signs.
func TestRaceOfGuesses(t *testing.T) {
	s, base := crowd(t, 16)
	c := testbed.NewClient(t, base).SignIn("tech", "long enough")
	job := s.Practice()
	var b struct {
		ID   uuid.UUID
		Hash string
	}
	require.NoError(t, s.DB.Exec("delete from briefing_signatures").Error)
	require.NoError(t, s.DB.Raw("select id, hash from briefings where job_id = ? order by at desc limit 1",
		job).Scan(&b).Error)
	before, judged, locked, away := signatures(t, s), 0, 0, 0
	var mu sync.Mutex
	var all sync.WaitGroup
	for range 400 {
		all.Go(func() {
			a := c.Do(http.MethodPost, "/jobs/"+job.String()+"/briefing/sign",
				m{"briefing_id": b.ID, "person_id": s.Chief.ID, "hash": b.Hash, "pin": "0007"})
			mu.Lock()
			defer mu.Unlock()
			switch string(a.Problem().Type) {
			case "locked":
				locked++
			case "invalid":
				judged++
			case "busy", "database-away":
				away++ // a machine that cannot keep up sends people away, and judges nothing
			}
		})
	}
	all.Wait()
	t.Logf("400 guesses at once: %d judged, %d locked, %d sent away", judged, locked, away)
	assert.Equal(t, 5, judged)
	assert.Equal(t, 395, locked+away)
	assert.Equal(t, before, signatures(t, s))
}

func signatures(t *testing.T, s *testbed.Stage) (n int64) {
	require.NoError(t, s.DB.Raw("select count(*) from records where signed").Scan(&n).Error)
	return n
}

// Three hundred sign-ins at once take no more memory than two of them: hashing
// takes turns.
func TestSigningInTakesLittleMemory(t *testing.T) {
	s := testbed.NewStage(t)
	s.Walk(checks.Full, []uuid.UUID{s.Packs[0].ID}, nil)
	svc := testbed.Wide(t, s.URL, s.Clock, 16)
	svc.People.Hash = &argon2id.Params{Memory: 32 * 1024, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}
	base := testbed.Serve(t, svc)
	stop := make(chan struct{})
	peak := make(chan uint64)
	go func() {
		var most uint64
		for {
			var ms runtime.MemStats
			runtime.ReadMemStats(&ms)
			most = max(most, ms.HeapInuse)
			select {
			case <-stop:
				peak <- most
				return
			case <-time.After(20 * time.Millisecond):
			}
		}
	}()
	var all sync.WaitGroup
	got := map[int]int{}
	var mu sync.Mutex
	for range 300 {
		all.Go(func() {
			res, err := http.Post(base+"/api/v1/session", "application/json",
				strings.NewReader(`{"login":"`+uuid.NewString()[:30]+`","password":"guess guess guess"}`))
			if !assert.NoError(t, err) {
				return
			}
			_ = res.Body.Close()
			mu.Lock()
			got[res.StatusCode]++
			mu.Unlock()
		})
	}
	all.Wait()
	close(stop)
	most := <-peak
	t.Logf("300 sign-ins at once: %v, heap at most %d MB", got, most>>20)
	assert.Less(t, most, uint64(600<<20))
	assert.LessOrEqual(t, got[http.StatusUnauthorized], 100)
}
