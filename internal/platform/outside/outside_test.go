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
