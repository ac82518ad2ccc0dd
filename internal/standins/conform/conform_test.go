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
	for want, h := range map[string]http.Handler{protocols.Charger: charger.New(2, 1, time.Now),
		protocols.Weather: weather.New(time.Now), protocols.Desk: desk.New(time.Now),
		protocols.Aircraft: aircraft.New(1, time.Now, aircraft.Craft{Serial: "A 1", Motors: 4, Cells: 6})} {
		kind, out := run(t, h, conform.Service{})
		assert.Equal(t, want, kind, "found out by itself")
		assert.Empty(t, wrong(out), want)
		_, keyed := run(t, standins.Keyed(h, "a key"), conform.Service{Key: "a key"})
		assert.Empty(t, wrong(keyed), want)
		assert.Greater(t, len(keyed), len(out)-1)
	}
}

// A link to aircraft that does with missions what a bad one does is told what, and so is one
// that does not answer or speaks nonsense; a weak cell or a warm motor is nothing against it.
func TestBadLinksAreTold(t *testing.T) {
	one := aircraft.Craft{Serial: "A 1", Motors: 4, Cells: 6}
	for name, c := range map[string]struct {
		fault aircraft.Faults
		fair  bool
	}{
		"a weak cell": {aircraft.Faults{WeakCell: 2}, true}, "a warm motor": {aircraft.Faults{WarmMotor: 1},
			true}, "a compass that is off": {aircraft.Faults{CompassOff: true}, true},
		"a waypoint dropped": {aircraft.Faults{Dropped: 2}, false}, "two swapped": {aircraft.Faults{Swapped: 1},
			false}, "another home": {aircraft.Faults{WrongHome: true}, false},
		"another datum": {aircraft.Faults{OtherDatum: true}, false}, "it breaks off": {aircraft.Faults{DiesAfter: 1},
			false}, "it takes one": {aircraft.Faults{Most: 1}, false},
	} {
		l := aircraft.New(1, time.Now, one)
		l.Set(c.fault)
		_, out := run(t, l, conform.Service{})
		assert.Equal(t, c.fair, len(wrong(out)) == 0, "%s: %v", name, wrong(out))
	}
	for _, f := range []aircraft.Faults{{Nonsense: true}, {Unreachable: true}} {
		l := aircraft.New(1, time.Now, one)
		l.Set(f)
		srv := httptest.NewServer(l)
		_, out, err := conform.Run(context.Background(), conform.Service{URL: srv.URL, Kind: protocols.Aircraft})
		assert.True(t, err != nil || len(wrong(out)) > 0, "%+v", f)
		srv.Close()
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
	for body, why := range map[string]string{`[{"channel":1,"phase":"idle"}]`: "object", `{"channels":[]}`: "minItems",
		`{"channels":[{"channel":1,"phase":"cooking"}]}`:                     "phase",
		`{"channels":[{"channel":1,"phase":"idle","temperature_c":"warm"}]}`: "temperature_c", `nonsense`: "not JSON"} {
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
