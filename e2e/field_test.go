package e2e

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
)

// practise plans a practice job for one aircraft of the demo crew in the place
// of what else was planned, with everything about it in order; the first is in
// command, the others at the controls.
func practise(t *testing.T, svc *server.Services, aircraft string, logins ...string) string {
	t.Helper()
	var chief people.Person
	require.NoError(t, svc.DB.Limit(1).Find(&chief, "login = 'imre'").Error)
	var planned []struct {
		ID      uuid.UUID
		Version int
	}
	require.NoError(t, svc.DB.Raw("select id, version from jobs where state = 'planned'").Scan(&planned).Error)
	for _, j := range planned {
		require.NoError(t, svc.Jobs.End(people.With(t.Context(), chief), j.ID, jobs.CalledOff, j.Version))
	}
	var team []testbed.Mate
	for i, l := range logins {
		var p people.Person
		require.NoError(t, svc.DB.Limit(1).Find(&p, "login = ?", l).Error)
		m := testbed.Mate{Person: p, Post: "pilot"}
		if i == 0 {
			m.Post = "rpic"
		}
		for _, w := range demo.Crew {
			if w.Login == l {
				m.PIN = w.PIN
			}
		}
		team = append(team, m)
	}
	return testbed.NewField(t, svc, team...).Only(aircraft).Practice().String()
}
