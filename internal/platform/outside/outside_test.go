package outside_test

import (
	"context"
	"net/http"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/internal/platform/outside"
)

func TestWhateverGoesWrongOutsideIsNamed(t *testing.T) {
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		switch r.URL.Path {
		case "/good":
			_, _ = w.Write([]byte(`{"v":1}`))
		case "/slow":
			time.Sleep(300 * time.Millisecond)
		case "/cut":
			w.Header().Set("Content-Length", "100")
			_, _ = w.Write([]byte("{"))
		case "/html":
			_, _ = w.Write([]byte("<html>"))
		default:
			http.Error(w, "down", http.StatusServiceUnavailable)
		}
	}))
	defer srv.Close()
	ctx := context.Background()
	l := outside.New(srv.URL+"/", "")
	l.HTTP.Timeout = 100 * time.Millisecond
	var got struct{ V int }
	assert.NoError(t, l.Call(ctx, http.MethodPost, "/good", map[string]int{"a": 1}, &got))
	assert.Equal(t, 1, got.V)
	for _, bad := range []string{"/slow", "/cut", "/html", "/none"} {
		assert.ErrorIs(t, l.Call(ctx, http.MethodGet, bad, nil, &got), outside.ErrService, bad)
	}
	_, err := outside.New("http://127.0.0.1:1", "").Get(ctx, "/")
	assert.ErrorIs(t, err, outside.ErrService)
	_, err = outside.New("::", "").Get(ctx, "/")
	assert.ErrorIs(t, err, outside.ErrService)
}

// A redirect to another host is not followed, whatever it promises; one on the
// same host is. The key goes along, and nowhere else.
func TestRedirectsStayOnTheHost(t *testing.T) {
	heard := ""
	elsewhere := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		heard = r.Header.Get("Authorization")
		_, _ = w.Write([]byte(`{"v":2}`))
	}))
	defer elsewhere.Close()
	var key string
	srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		key = r.Header.Get("Authorization")
		switch r.URL.Path {
		case "/away":
			http.Redirect(w, r, elsewhere.URL+"/", http.StatusTemporaryRedirect)
		case "/near":
			http.Redirect(w, r, "/good", http.StatusTemporaryRedirect)
		case "/round":
			http.Redirect(w, r, "/round", http.StatusTemporaryRedirect)
		case "/empty":
			w.WriteHeader(http.StatusNoContent)
		default:
			_, _ = w.Write([]byte(`{"v":1}`))
		}
	}))
	defer srv.Close()
	ctx, l := context.Background(), outside.New(srv.URL, "a key")
	var got struct{ V int }
	assert.NoError(t, l.Call(ctx, http.MethodPost, "/near", map[string]int{"a": 1}, &got))
	assert.Equal(t, 1, got.V)
	assert.Equal(t, "Bearer a key", key)
	assert.ErrorIs(t, l.Call(ctx, http.MethodGet, "/away", nil, &got), outside.ErrService)
	assert.ErrorIs(t, l.Call(ctx, http.MethodGet, "/round", nil, &got), outside.ErrService)
	assert.Empty(t, heard, "nobody else hears the key")
	assert.NoError(t, l.Call(ctx, http.MethodPost, "/empty", nil, nil), "done, with nothing to say")
	assert.ErrorIs(t, l.Call(ctx, http.MethodGet, "/empty", nil, &got), outside.ErrService,
		"an answer is needed and there is none")
}
