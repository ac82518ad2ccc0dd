package server_test

import (
	"bytes"
	"context"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
	"mainstay/web"
)

func TestHeadersAreStrict(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.System{})
	base := testbed.Serve(t, svc)
	for _, path := range []string{"/", "/api/v1/setup", "/healthz", "/fleet"} {
		res, err := http.Get(base + path)
		require.NoError(t, err)
		_ = res.Body.Close()
		assert.Contains(t, res.Header.Get("Content-Security-Policy"), "default-src 'self'", path)
		// The judgement is a WebAssembly program of ours; nothing else may be unsafe.
		assert.NotContains(t, strings.ReplaceAll(res.Header.Get("Content-Security-Policy"), "'wasm-unsafe-eval'", ""),
			"unsafe", path)
		assert.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"), path)
		assert.Equal(t, "DENY", res.Header.Get("X-Frame-Options"), path)
	}
	for path, want := range map[string]int{"/healthz": 200, "/readyz": 200, "/metrics": 404, "/api/v1/openapi.json": 200,
		"/api/v1": 200, "/api/v1/nothing": 404} {
		res, err := http.Get(base + path)
		require.NoError(t, err)
		_ = res.Body.Close()
		assert.Equal(t, want, res.StatusCode, path)
	}
}

func TestSessionCookie(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	h, err := server.New(svc, server.Options{Secure: true, Web: web.Files(), Log: slog.New(slog.DiscardHandler)})
	require.NoError(t, err)
	s := httptest.NewServer(h)
	defer s.Close()
	res, err := http.Post(s.URL+"/api/v1/session", "application/json",
		strings.NewReader(`{"login":"imre","password":"`+demo.Password+`"}`))
	require.NoError(t, err)
	_ = res.Body.Close()
	set := res.Header.Values("Set-Cookie")
	require.Len(t, set, 2, "the session, and the browser's own name")
	for _, c := range set {
		for _, part := range []string{"HttpOnly", "SameSite=Strict", "Secure", "Path=/"} {
			assert.Contains(t, c, part)
		}
	}
	var kept []string
	require.NoError(t, svc.DB.Raw("select token from sessions").Scan(&kept).Error)
	for _, k := range kept {
		assert.NotContains(t, strings.Join(set, " "), k, "a copy of the database opens no session")
	}
}

func TestOtherSitesAreRefused(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	c := testbed.NewClient(t, base).SignIn("imre", demo.Password)
	for header, value := range map[string]string{"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"} {
		c.Header = http.Header{header: {value}}
		assert.Equal(t, http.StatusForbidden, c.Do(http.MethodPost, "/records/verify", nil).Status, header)
		assert.Equal(t, http.StatusOK, c.Do(http.MethodGet, "/day", nil).Status, "reading is not changing")
	}
	c.Header = http.Header{"Origin": {base}, "Sec-Fetch-Site": {"same-origin"}}
	assert.Equal(t, http.StatusOK, c.Do(http.MethodPost, "/records/verify", nil).Status)
}

func TestGuessingIsSlowed(t *testing.T) {
	now := clock.At(testbed.Noon)
	svc, _ := testbed.Demo(t, now)
	base := testbed.Serve(t, svc)
	c := testbed.NewClient(t, base)
	try := func(password string) int {
		return c.Do(http.MethodPost, "/session", map[string]string{"login": "odile", "password": password}).Status
	}
	for range 5 {
		assert.Equal(t, http.StatusUnauthorized, try("wrong password"))
	}
	assert.Equal(t, http.StatusTooManyRequests, try("wrong password"))
	assert.Equal(t, http.StatusTooManyRequests, try(demo.Password), "even the right one, for a while")
	now.Advance(6 * time.Minute)
	assert.Equal(t, http.StatusOK, try(demo.Password))
	assert.Equal(t, http.StatusUnauthorized, c.Do(http.MethodPost, "/session",
		map[string]string{"login": "nobody", "password": "wrong password"}).Status,
		"an unknown login sounds like a wrong password")
}

func TestDeactivatedPersonIsOutAtOnce(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	bao := testbed.NewClient(t, base).SignIn("bao", demo.Password)
	chief := testbed.NewClient(t, base).SignIn("imre", demo.Password)
	var people struct {
		People []struct {
			ID, Login, Name string
			Version         int
		}
	}
	chief.Do(http.MethodGet, "/people", nil).Into(&people)
	for _, p := range people.People {
		if p.Login == "bao" {
			a := chief.Do(http.MethodPut, "/people/"+p.ID, map[string]any{"version": p.Version, "name": p.Name,
				"roles": []string{"crew"}, "active": false, "certificate": "", "trained_on": nil})
			require.Equal(t, http.StatusOK, a.Status, a.Text())
		}
	}
	assert.Equal(t, http.StatusUnauthorized, bao.Do(http.MethodGet, "/day", nil).Status)
}

func TestTooMuchAtOnceIsRefused(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.System{})
	h, err := server.New(svc, server.Options{PerMinute: 5, Web: web.Files(), Log: slog.New(slog.DiscardHandler)})
	require.NoError(t, err)
	s := httptest.NewServer(h)
	defer s.Close()
	c := testbed.NewClient(t, s.URL)
	last := 0
	for range 7 {
		last = c.Do(http.MethodGet, "/setup", nil).Status
	}
	assert.Equal(t, http.StatusTooManyRequests, last)
}

func TestLargeBodiesAreRefused(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	c := testbed.NewClient(t, testbed.Serve(t, svc)).SignIn("imre", demo.Password)
	a := c.Do(http.MethodPost, "/defects", map[string]any{"note": strings.Repeat("x", 2<<20)})
	assert.Equal(t, http.StatusRequestEntityTooLarge, a.Status, a.Text())
	a = c.Do(http.MethodPost, "/photos?id="+testbed.NewID().String(), bytes.Repeat([]byte{0xff}, 11<<20))
	assert.Equal(t, http.StatusRequestEntityTooLarge, a.Status)
}

// A mistake of ours reaches people as a sentence, and its cause only the log.
func TestInnerErrorsStayInside(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	var log bytes.Buffer
	h, err := server.New(svc, server.Options{Web: web.Files(), Log: slog.New(slog.NewTextHandler(&log, nil))})
	require.NoError(t, err)
	s := httptest.NewServer(h)
	defer s.Close()
	c := testbed.NewClient(t, s.URL).SignIn("imre", demo.Password)
	require.NoError(t, svc.DB.WithContext(context.Background()).Exec("alter table packs rename to packs_gone").Error)
	a := c.Do(http.MethodGet, "/packs", nil)
	assert.Equal(t, http.StatusInternalServerError, a.Status)
	assert.NotContains(t, a.Text(), "packs_gone")
	assert.NotContains(t, a.Text(), "relation")
	assert.Contains(t, a.Problem().Detail, "Nothing was saved")
	assert.Contains(t, log.String(), "relation")
	assert.NotContains(t, log.String(), demo.Password)
}

func TestEveryKindOfFaultHasAStatus(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.System{})
	base := testbed.Serve(t, svc)
	assert.Len(t, fault.AllKinds, 8)
	res, err := http.Get(base + "/api/v1/day")
	require.NoError(t, err)
	b, err := io.ReadAll(res.Body)
	_ = res.Body.Close()
	require.NoError(t, err)
	assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"))
	assert.Contains(t, string(b), "not-signed-in")
}

// Behind a proxy each device counts for itself; without a trusted proxy nobody
// can pretend to be another device.
func TestAddressBehindAProxy(t *testing.T) {
	for _, c := range []struct {
		proxies []string
		want    int
	}{{nil, http.StatusTooManyRequests}, {[]string{"127.0.0.1"}, http.StatusOK}} {
		svc, _ := testbed.Empty(t, clock.System{})
		h, err := server.New(svc, server.Options{PerMinute: 3, Proxies: c.proxies, Web: web.Files(),
			Log: slog.New(slog.DiscardHandler)})
		require.NoError(t, err)
		s := httptest.NewServer(h)
		client, last := testbed.NewClient(t, s.URL), 0
		for _, device := range []string{"10.0.0.1", "10.0.0.2", "10.0.0.3", "10.0.0.4", "10.0.0.5"} {
			client.Header = http.Header{"X-Forwarded-For": {device}}
			last = client.Do(http.MethodGet, "/setup", nil).Status
		}
		assert.Equal(t, c.want, last, "%v", c.proxies)
		s.Close()
	}
}

// Map pictures come from nowhere unless the crew names a place, and nothing
// that is no address gets into the header.
func TestMapPictures(t *testing.T) {
	s := testbed.NewStage(t)
	base := testbed.Serve(t, s.Services)
	policy := func() string {
		res, err := http.Get(base + "/sites")
		require.NoError(t, err)
		_ = res.Body.Close()
		return res.Header.Get("Content-Security-Policy")
	}
	assert.Contains(t, policy(), "img-src 'self' blob: data:;")
	c := testbed.NewClient(t, base).SignIn("chief", "long enough")
	put := func(tiles string) testbed.Answer {
		var session api.Session
		c.Do("GET", "/session", nil).Into(&session)
		version := session.Crew.Version
		return c.Do("PUT", "/crew", map[string]any{"name": "Crew", "zone": "UTC", "tile_url": tiles, "head_to": "",
			"keep_places": false, "version": version, "units": map[string]string{"length": "m", "speed": "m/s", "mass": "kg",
				"temperature": "degC", "volume": "L"}})
	}
	for _, bad := range []string{"ftp://x/{z}/{x}/{y}", "https://x/{z}/{x}", "https://x;script-src */{z}/{x}/{y}",
		"https://x /{z}/{x}/{y}", "javascript:{z}{x}{y}"} {
		assert.Contains(t, put(bad).Field("tile_url"), "looks like https://", bad)
	}
	require.Equal(t, 200, put("https://tiles.example.org:8443/{z}/{x}/{y}.png").Status)
	assert.Contains(t, policy(), "img-src 'self' blob: data: https://tiles.example.org:8443;")
	require.Equal(t, 200, put("").Status)
	assert.Contains(t, policy(), "img-src 'self' blob: data:;")
}
