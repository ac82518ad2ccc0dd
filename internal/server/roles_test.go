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
	"mainstay/internal/testbed"
)

// holders names a demo person for each role; a chief holds every role.
var holders = map[crew.Role]string{crew.Pilot: "odile", crew.Hand: "bao", crew.Technician: "tamsin", crew.Chief: "imre", crew.Reader: "rhea"}

// Every operation is tried by every role and by nobody. Only those whom the
// contract names get past the door; what happens behind it is for other tests.
func TestEveryOperationWithEveryRole(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	tried, signedIn := 0, map[crew.Role]*testbed.Client{}
	for path, item := range doc.Paths.Map() {
		for method, op := range item.Operations() {
			allowed := rolesOf(t, op)
			at := strings.NewReplacer("{id}", uuid.NewString(), "{event}", uuid.NewString(), "{feature}", uuid.NewString(), "{key}", "none", "{day}", "2026-06-11", "{channel}", "1", "{item}", "pad").Replace(path)
			var body any
			if op.RequestBody != nil {
				body = map[string]any{}
			}
			stranger := testbed.NewClient(t, base).Do(method, at, body)
			if slices.Contains(allowed, "public") {
				assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden}, stranger.Status, "%s by nobody", op.OperationID)
				continue
			}
			assert.Equal(t, http.StatusUnauthorized, stranger.Status, "%s by nobody", op.OperationID)
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
	assert.Greater(t, tried, 200)
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
