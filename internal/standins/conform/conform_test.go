package conform_test

import (
	"context"
	"net/http"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/docs/protocols"
	"mainstay/internal/standins"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/standins/charger"
	"mainstay/internal/standins/conform"
	"mainstay/internal/standins/desk"
	"mainstay/internal/standins/weather"
)

func run(t *testing.T, h http.Handler, s conform.Service) (string, []conform.Result) {
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	s.URL, s.Write, s.Channel = srv.URL, true, 1
	kind, out, err := conform.Run(context.Background(), s)
	require.NoError(t, err)
	return kind, out
}

func wrong(out []conform.Result) (all []string) {
	for _, r := range out {
		if r.Why != "" {
			all = append(all, r.What+": "+r.Why)
		}
	}
	return all
}

// The stand-ins that ship with the program speak the protocols that it
// publishes, with a key and without.
func TestStandinsConform(t *testing.T) {
	for want, h := range map[string]http.Handler{protocols.Charger: charger.New(2, 1, time.Now), protocols.Weather: weather.New(time.Now), protocols.Desk: desk.New(time.Now), protocols.Aircraft: aircraft.New(1, time.Now, aircraft.Craft{Serial: "A 1", Motors: 4, Cells: 6})} {
		kind, out := run(t, h, conform.Service{})
		assert.Equal(t, want, kind, "found out by itself")
		assert.Empty(t, wrong(out), want)
		_, keyed := run(t, standins.Keyed(h, "a key"), conform.Service{Key: "a key"})
		assert.Empty(t, wrong(keyed), want)
		assert.Greater(t, len(keyed), len(out)-1)
	}
}

// A service that does otherwise is told what.
func TestWhatDoesNotConformIsNamed(t *testing.T) {
	odd := func(path, body string) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.URL.Path == path {
				_, _ = w.Write([]byte(body))
				return
			}
			http.NotFound(w, r)
		})
	}
	for body, why := range map[string]string{`[{"channel":1,"phase":"idle"}]`: "object", `{"channels":[]}`: "minItems", `{"channels":[{"channel":1,"phase":"cooking"}]}`: "phase", `{"channels":[{"channel":1,"phase":"idle","temperature_c":"warm"}]}`: "temperature_c", `nonsense`: "not JSON"} {
		_, out := run(t, odd("/channels", body), conform.Service{})
		assert.Contains(t, wrong(out)[0], why, body)
	}
	_, out := run(t, odd("/zones", `{"type":"FeatureCollection","features":[]}`), conform.Service{})
	assert.Contains(t, wrong(out)[0], "covers")
	_, out = run(t, odd("/metar", "hello"), conform.Service{})
	assert.Len(t, wrong(out), 2, "neither report nor forecast")
	_, out = run(t, odd("/channels", `{"channels":[{"channel":1,"phase":"idle"}]}`), conform.Service{Key: "a key"})
	assert.Contains(t, wrong(out)[0], "wrong key")
	srv := httptest.NewServer(http.NotFoundHandler())
	defer srv.Close()
	_, _, err := conform.Run(context.Background(), conform.Service{URL: srv.URL})
	assert.ErrorIs(t, err, conform.ErrKind)
}
