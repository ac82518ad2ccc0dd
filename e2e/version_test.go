package e2e

import (
	"bytes"
	"io"
	"net/http"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"strconv"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// renewed is the server with a newer program in front of it as soon as the switch is on.
func renewed(t *testing.T, at string, newer *atomic.Bool) string {
	t.Helper()
	u, err := url.Parse(at)
	require.NoError(t, err)
	p := &httputil.ReverseProxy{FlushInterval: -1} // what changed is told at once
	p.Rewrite = func(r *httputil.ProxyRequest) {
		r.SetURL(u)
		r.Out.Host = r.In.Host
		if r.In.URL.Path == "/sw.js" {
			r.Out.Header.Del("Accept-Encoding")
			r.Out.Header.Del("If-None-Match")
			r.Out.Header.Del("If-Modified-Since")
		}
	}
	p.ModifyResponse = func(r *http.Response) error {
		if r.Request.URL.Path != "/sw.js" || !newer.Load() {
			return nil
		}
		body, err := io.ReadAll(r.Body)
		if err != nil {
			return err
		}
		body = append(body, "\n// newer\n"...)
		r.Body, r.ContentLength = io.NopCloser(bytes.NewReader(body)), int64(len(body))
		r.Header.Set("Content-Length", strconv.Itoa(len(body)))
		r.Header.Del("ETag")
		return nil
	}
	s := httptest.NewServer(p)
	t.Cleanup(func() { s.CloseClientConnections(); s.Close() })
	return s.URL
}

// A newer program waits while a walk is open, says so, and breaks into nothing.
func TestNewVersionWaitsForTheWalk(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	var newer atomic.Bool
	p := chromium.Open(t, renewed(t, testbed.Serve(t, svc), &newer), "/", 390, 844)
	p.SignIn("imre", demo.Password)
	p.Kept()
	p.Go("/walk/start/" + id(t, svc, "Dray One").String() + "?kind=turnaround")
	p.Settle()
	p.Click("Start the turnaround")
	p.See("1 of ")
	browser.Eval[bool](p, "(document.body.insertAdjacentHTML('beforeend', '<p>The page as it was.</p>'), true)")
	newer.Store(true)
	browser.Eval[bool](p, "navigator.serviceWorker.getRegistration().then((r) => r.update()).then(() => true)")
	p.See("A new version waits.", "The page as it was.", "1 of ")
	p.Click("In order, next")
	p.See("2 of ", "The page as it was.")
	// Where the walk is left, it comes.
	browser.Eval[bool](p, "(document.querySelector('.rail a').click(), true)")
	p.Gone("The page as it was.")
	p.See("Connected")
	assert.Empty(t, p.Faults())
}
