package server_test

import (
	"fmt"
	"net/http"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// A list judges the soonest jobs at once and each as its own page does, however many ask;
// more than it judges have no verdict, which says nothing.
func TestJobsOfAListAreJudgedAsAlone(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.At(testbed.Noon))
	c := testbed.NewClient(t, testbed.Serve(t, svc)).SignIn("imre", demo.Password)
	verdicts := func() map[string]any {
		var page struct{ Jobs []m }
		c.Do(http.MethodGet, "/jobs", nil).Into(&page)
		out := map[string]any{}
		for _, j := range page.Jobs {
			if v, ok := j["verdict"]; ok && v != nil {
				out[fmt.Sprint(j["id"])] = v
			}
		}
		return out
	}
	listed := verdicts()
	require.GreaterOrEqual(t, len(listed), 3)
	for id, v := range listed {
		var job m
		c.Do(http.MethodGet, "/jobs/"+id, nil).Into(&job)
		assert.Equal(t, job["verdict"], v, id)
	}
	var all sync.WaitGroup
	for range 20 {
		all.Go(func() { assert.Equal(t, listed, verdicts()) })
	}
	all.Wait()
	require.NoError(t, svc.DB.Exec(`insert into jobs (id, work, site_id, aim, from_at, to_at, created_at, created_by, state)
		select gen_random_uuid(), work, site_id, 'look ' || i, ?::timestamptz, ?::timestamptz + interval '2 hours', created_at,
			created_by, 'planned'
		from (select * from jobs where state = 'planned' limit 1) j, generate_series(1, 30) i`, testbed.Noon, testbed.Noon).Error)
	assert.Len(t, verdicts(), 12)
}
