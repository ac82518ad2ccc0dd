package e2e

import (
	"context"
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
	callOff(t, svc, "")
	var team []testbed.Mate
	for i, l := range logins {
		m := testbed.Mate{Person: person(t, svc, l), Post: "pilot"}
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

// asImre puts the demo chief in command of a job of the demo crew, with the
// technician as ground crew, and returns its id.
func asImre(t *testing.T, svc *server.Services, aim string) string {
	t.Helper()
	var id string
	require.NoError(t, svc.DB.Raw("select id from jobs where aim = ?", aim).Scan(&id).Error)
	callOff(t, svc, id)
	j, err := svc.Jobs.Get(t.Context(), uuid.MustParse(id))
	require.NoError(t, err)
	j.People = []jobs.Post{{PersonID: person(t, svc, "imre").ID, Post: "rpic"},
		{PersonID: person(t, svc, "tamsin").ID, Post: "ground"}}
	require.NoError(t, svc.Jobs.Save(as(t, svc, "imre"), j))
	return id
}

// allInOrder declares, looks up, answers and briefs all that a job asks for.
func allInOrder(t *testing.T, svc *server.Services, id uuid.UUID) {
	t.Helper()
	ctx := as(t, svc, "imre")
	require.NoError(t, svc.People.DeclareFit(ctx, testbed.NewID(), nil))
	a, err := svc.Jobs.Assess(ctx, id)
	require.NoError(t, err)
	said := map[string]string{}
	for _, q := range a.Asks {
		said[q.ID] = q.Options[0].ID
	}
	require.NoError(t, svc.Jobs.Answer(ctx, id, said))
	brief := testbed.NewID()
	require.NoError(t, svc.Jobs.Brief(ctx, id, brief))
	b, err := svc.Jobs.Newest(ctx, id)
	require.NoError(t, err)
	for _, p := range a.Job.People {
		for _, w := range demo.Crew {
			if w.Name == p.Name {
				require.NoError(t, svc.Jobs.SignBriefing(ctx, id, brief, p.PersonID, b.Hash, w.PIN))
			}
		}
	}
}

func person(t *testing.T, svc *server.Services, login string) people.Person {
	t.Helper()
	var p people.Person
	require.NoError(t, svc.DB.Limit(1).Find(&p, "login = ?", login).Error)
	return p
}

func as(t *testing.T, svc *server.Services, login string) context.Context {
	t.Helper()
	return people.With(t.Context(), person(t, svc, login))
}

// callOff ends every planned job but one.
func callOff(t *testing.T, svc *server.Services, but string) {
	t.Helper()
	var planned []struct {
		ID      uuid.UUID
		Version int
	}
	require.NoError(t, svc.DB.Raw("select id, version from jobs where state = 'planned'").Scan(&planned).Error)
	for _, j := range planned {
		if j.ID.String() == but {
			continue
		}
		require.NoError(t, svc.Jobs.End(as(t, svc, "imre"), j.ID, jobs.CalledOff, j.Version))
	}
}
