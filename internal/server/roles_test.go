package server_test

import (
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
)

// holders names a demo person for each role; a chief holds every role.
var holders = map[crew.Role]string{crew.Pilot: "odile", crew.Hand: "bao", crew.Technician: "tamsin", crew.Chief: "imre",
	crew.Reader: "rhea"}

// Every operation is tried by every role and by nobody. Only those whom the
// contract names get past the door; what happens behind it is for other tests.
func TestEveryOperationWithEveryRole(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	tried, signedIn := 0, map[crew.Role]*testbed.Client{}
	outside := outsiders(t, svc, base)
	for path, item := range doc.Paths.Map() {
		for method, op := range item.Operations() {
			allowed := rolesOf(t, op)
			at := strings.NewReplacer("{id}", uuid.NewString(), "{event}", uuid.NewString(), "{feature}", uuid.NewString(),
				"{key}", "none", "{day}", "2026-06-11", "{channel}", "1", "{item}", "pad").Replace(path)
			var body any
			if op.RequestBody != nil {
				body = map[string]any{}
			}
			stranger := testbed.NewClient(t, base).Do(method, at, body)
			if slices.Contains(allowed, "public") {
				assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden}, stranger.Status, "%s by nobody",
					op.OperationID)
				continue
			}
			assert.Equal(t, http.StatusUnauthorized, stranger.Status, "%s by nobody", op.OperationID)
			for who, c := range outside {
				want := http.StatusUnauthorized
				if who == "with a one-time password" {
					if op.Extensions["x-before-secrets"] == true {
						continue
					}
					want = http.StatusForbidden
				}
				assert.Equal(t, want, c.Do(method, at, body).Status, "%s by somebody %s", op.OperationID, who)
				tried++
			}
			for _, role := range crew.AllRoles {
				c, got := signedIn[role], 0
				if c == nil {
					c = testbed.NewClient(t, base).SignIn(holders[role], demo.Password)
					signedIn[role] = c
				}
				if op.OperationID == "signOut" {
					delete(signedIn, role)
				}
				if op.OperationID == "watchChanges" {
					got = c.Peek(at) // it does not end by itself
				} else {
					got = c.Do(method, at, body).Status
				}
				may := slices.Contains(allowed, "any") || slices.Contains(allowed, string(role)) || role == crew.Chief
				if may {
					assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden}, got, "%s by %s", op.OperationID, role)
				} else {
					assert.Equal(t, http.StatusForbidden, got, "%s by %s", op.OperationID, role)
				}
				tried++
			}
		}
	}
	assert.Greater(t, tried, 1000)
	t.Logf("%d tries", tried)
}

// outsiders are sessions that once were good, or never were.
func outsiders(t *testing.T, svc *server.Services, base string) map[string]*testbed.Client {
	chief := testbed.NewClient(t, base).SignIn("imre", demo.Password)
	enrol := func(login string) (api.Enrolled, *testbed.Client) {
		var e api.Enrolled
		a := chief.Do(http.MethodPost, "/people", m{"id": uuid.New(), "login": login, "name": login,
			"roles": []string{"chief", "pilot"}, "certificate": "", "trained_on": nil})
		require.Equal(t, http.StatusCreated, a.Status, a.Text())
		a.Into(&e)
		return e, testbed.NewClient(t, base).SignIn(login, e.Once.Password)
	}
	_, once := enrol("newcomer")
	left, gone := enrol("leaver")
	require.Equal(t, http.StatusNoContent, gone.Do(http.MethodPut, "/session/secrets",
		m{"new_password": "hop hedge drum", "pin": "7391"}).Status)
	a := chief.Do(http.MethodPut, "/people/"+left.Person.Id.String(),
		m{"version": left.Person.Version, "name": "leaver", "roles": []string{"chief"}, "active": false, "certificate": "",
			"trained_on": nil})
	require.Equal(t, http.StatusOK, a.Status, a.Text())
	expired := testbed.NewClient(t, base).SignIn("tamsin", demo.Password)
	require.NoError(t, svc.DB.Exec(`update sessions set expiry = now() - interval '1 minute' where token = (select token from sessions order by expiry desc limit 1)`).Error)
	foreign := testbed.NewClient(t, base)
	foreign.Header.Set("Cookie", "mainstay=dG9rZW4gb2YgYW5vdGhlciBzZXJ2ZXIgYWx0b2dldGhlcg; mainstay-device=x")
	reset := testbed.NewClient(t, base).SignIn("bao", demo.Password)
	var people api.People
	chief.Do(http.MethodGet, "/people", nil).Into(&people)
	for _, p := range people.People {
		if p.Login == "bao" {
			require.Equal(t, http.StatusOK, chief.Do(http.MethodPost, "/people/"+p.Id.String()+"/one-time-password", nil).Status)
		}
	}
	// bao is needed again, as one of the roles
	require.NoError(t, svc.DB.Exec(`update people set once = '', password_hash = (select password_hash from people where login = 'tamsin') where login = 'bao'`).Error)
	return map[string]*testbed.Client{"with a one-time password": once, "deactivated": gone,
		"whose session ran out": expired, "with the cookie of another server": foreign, "whose password was reset": reset}
}

func rolesOf(t *testing.T, op *openapi3.Operation) []string {
	list, ok := op.Extensions["x-roles"].([]any)
	require.True(t, ok, op.OperationID)
	var out []string
	for _, r := range list {
		s, ok := r.(string)
		require.True(t, ok)
		if s != "public" && s != "any" {
			assert.Contains(t, crew.AllRoles, crew.Role(s), op.OperationID)
		}
		out = append(out, s)
	}
	return out
}
