package desk_test

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/standins/desk"
)

func TestDesk(t *testing.T) {
	now := time.Date(2026, 6, 10, 16, 40, 0, 0, time.UTC)
	d := desk.New(func() time.Time { return now })
	do := func(method, path, body string) (int, map[string]any) {
		w := httptest.NewRecorder()
		d.ServeHTTP(w, httptest.NewRequest(method, path, strings.NewReader(body)))
		var out map[string]any
		_ = json.Unmarshal(w.Body.Bytes(), &out)
		return w.Code, out
	}
	request := `{"ref":"a","zone":"td-ctr","ceiling_m":100,"from":"2026-06-10T17:00:00Z","to":"2026-06-10T18:00:00Z"}`
	for _, bad := range []string{"{", `{"ref":"a"}`, strings.Replace(request, "18:00", "16:00", 1)} {
		code, _ := do("POST", "/requests", bad)
		assert.GreaterOrEqual(t, code, 400, bad)
	}
	code, got := do("POST", "/requests", request)
	require.Equal(t, http.StatusOK, code)
	assert.Equal(t, "pending", got["state"])
	now = now.Add(20 * time.Second)
	_, got = do("GET", "/requests/a", "")
	assert.Equal(t, "granted", got["state"])
	number := got["number"]
	_, got = do("POST", "/requests", request)
	assert.Equal(t, number, got["number"], "sent twice is one request")
	code, _ = do("GET", "/requests/none", "")
	assert.Equal(t, http.StatusNotFound, code)
	code, _ = do("POST", "/calls", `{"number":"TD-1","kind":"lunch"}`)
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	_, _ = do("POST", "/calls", `{"number":"TD-1","kind":"start"}`)
	assert.Len(t, d.Calls(), 1)
	code, got = do("PUT", "/faults", `{"unreachable":true}`)
	require.Equal(t, http.StatusOK, code)
	assert.Equal(t, true, got["unreachable"])
	code, _ = do("GET", "/zones", "")
	assert.Equal(t, http.StatusServiceUnavailable, code)
	code, _ = do("GET", "/faults", "")
	assert.Equal(t, http.StatusOK, code, "the faults can always be switched")
}
