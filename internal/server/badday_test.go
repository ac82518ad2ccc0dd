package server_test

import (
	"context"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
	"mainstay/web"
)

// Without its database every operation answers with a problem document; with
// it, the first try after works.
func TestDatabaseGoesAndComesBack(t *testing.T) {
	s := testbed.NewStage(t)
	wire := testbed.NewWire(t, s.URL)
	svc := testbed.Wide(t, wire.URL, s.Clock, 4)
	svc.People.Hash = s.People.Hash
	h, err := server.New(svc, server.Options{Web: web.Files(), Log: slog.New(slog.DiscardHandler), PerMinute: 1_000_000})
	require.NoError(t, err)
	srv := httptest.NewServer(h)
	defer srv.Close()
	c := testbed.NewClient(t, srv.URL).SignIn("chief", "long enough")
	for range 3 {
		wire.Cut()
		tried := 0
		doc, err := openapi3.NewLoader().LoadFromData(api.Document)
		require.NoError(t, err)
		for path, item := range doc.Paths.Map() {
			for method, op := range item.Operations() {
				if op.OperationID == "watchChanges" {
					continue
				}
				at := strings.NewReplacer("{id}", uuid.NewString(), "{event}", uuid.NewString(), "{feature}", uuid.NewString(),
					"{key}", "none", "{day}", "2026-06-11", "{channel}", "1", "{item}", "pad").Replace(path)
				var body any
				if op.RequestBody != nil {
					body = map[string]any{}
				}
				a := c.Do(method, at, body)
				assert.GreaterOrEqual(t, a.Status, 422, op.OperationID)
				assert.Equal(t, "application/problem+json", a.Header.Get("Content-Type"), op.OperationID)
				if a.Status != http.StatusUnprocessableEntity {
					assert.Equal(t, "database-away", string(a.Problem().Type), "%s: %s", op.OperationID, a.Text())
				}
				tried++
			}
		}
		assert.Greater(t, tried, 100)
		res, err := http.Get(srv.URL + "/packs")
		require.NoError(t, err)
		_ = res.Body.Close()
		assert.Equal(t, http.StatusOK, res.StatusCode, "the page itself comes")
		wire.Mend()
		assert.Equal(t, http.StatusOK, c.Do(http.MethodGet, "/day", nil).Status, "the first try after")
		assert.Equal(t, http.StatusCreated, c.Do(http.MethodPost, "/fitness",
			m{"id": testbed.NewID(), "against": []string{}}).Status)
	}
}

// A clock that goes back is on record, and the order stays.
func TestClockSetBack(t *testing.T) {
	s := testbed.NewStage(t)
	require.NoError(t, s.Fleet.Ground(s.As(s.Chief), testbed.NewID(), s.Aircraft.ID, "person", "first"))
	s.Clock.Advance(-3 * time.Hour)
	require.NoError(t, s.Fleet.Ground(s.As(s.Chief), testbed.NewID(), s.Aircraft.ID, "person", "second"))
	require.NoError(t, s.Fleet.Ground(s.As(s.Chief), testbed.NewID(), s.Aircraft.ID, "person", "third"))
	lines, err := records.Page(context.Background(), s.DB, records.Filter{}, 4)
	require.NoError(t, err)
	var kinds []string
	for _, l := range lines {
		kinds = append(kinds, l.Kind)
	}
	assert.Equal(t, []string{"grounding", "grounding", "clock-set-back", "grounding"}, kinds, "told once")
	res, err := records.Verify(context.Background(), s.DB, records.Check{})
	require.NoError(t, err)
	assert.True(t, res.OK(), res.Sentence())
}

// Behind TLS browsers are told to stay there.
func TestStrictTransport(t *testing.T) {
	s := testbed.NewStage(t)
	for _, secure := range []bool{false, true} {
		h, err := server.New(s.Services, server.Options{Secure: secure, Web: web.Files(), Log: slog.New(slog.DiscardHandler)})
		require.NoError(t, err)
		w := httptest.NewRecorder()
		h.ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/", nil))
		assert.Equal(t, secure, w.Header().Get("Strict-Transport-Security") != "")
	}
}

// Whatever somebody asks for, the figures do not grow with it, and no page of
// the application shows them.
func TestFiguresStayFew(t *testing.T) {
	s := testbed.NewStage(t)
	figures := prometheus.NewRegistry()
	h, err := server.New(s.Services, server.Options{Web: web.Files(), Log: slog.New(slog.DiscardHandler),
		Figures: figures})
	require.NoError(t, err)
	for i := range 60 {
		for _, target := range []string{fmt.Sprintf("/api/v1/nothing-%d", i), fmt.Sprintf("/page-%d", i),
			"/api/v1/packs/" + uuid.NewString(), "/metrics"} {
			w := httptest.NewRecorder()
			h.ServeHTTP(w, httptest.NewRequest(fmt.Sprintf("METHOD%d", i), target, nil))
			assert.NotContains(t, w.Body.String(), "mainstay_request_seconds")
		}
	}
	got, err := figures.Gather()
	require.NoError(t, err)
	series := 0
	for _, f := range got {
		series += len(f.GetMetric())
	}
	assert.Less(t, series, 10)
}
