// Package outside talks to devices and services on the network: a charger, a
// weather service, an airspace desk. A page must not wait for them, so every
// link gives up soon.
package outside

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"
)

// ErrService is wrapped by everything that goes wrong outside: no answer, a
// refusal, an answer that cannot be read.
var ErrService = errors.New("service outside")

// Link is one service on the network.
type Link struct {
	URL  string
	Key  string // sent as "Authorization: Bearer …"; empty: none
	HTTP http.Client
}

// New returns a link that gives up after three seconds. A redirect is followed
// on the same host only: another would hear the key, and might be one inside
// this network that nobody outside may reach.
func New(url, key string) *Link {
	return &Link{URL: strings.TrimRight(url, "/"), Key: key,
		HTTP: http.Client{Timeout: 3 * time.Second, CheckRedirect: func(req *http.Request, via []*http.Request) error {
			switch first := via[0].URL; {
			case req.URL.Host != first.Host || req.URL.Scheme != first.Scheme:
				return errElsewhere
			case len(via) > 3:
				return errRound
			}
			return nil
		}}}
}

var (
	errElsewhere = errors.New("it sent us on to another place, which is not followed")
	errRound     = errors.New("it sent us round in a circle")
)

// most is the largest answer that is read.
const most = 2 << 20

// Get returns what the service answers at a path.
func (l *Link) Get(ctx context.Context, path string) ([]byte, error) {
	return l.send(ctx, http.MethodGet, path, nil)
}

// Call sends body as JSON (nil: none) and reads the JSON answer into into. With
// nil the answer is of no interest, and may be empty (204).
func (l *Link) Call(ctx context.Context, method, path string, body, into any) error {
	text, err := l.send(ctx, method, path, body)
	if err != nil {
		return err
	}
	if into == nil {
		return nil
	}
	if err := json.Unmarshal(text, into); err != nil {
		return fmt.Errorf("%w speaks another language: %w", ErrService, err)
	}
	return nil
}

func (l *Link) send(ctx context.Context, method, path string, body any) ([]byte, error) {
	var b []byte
	if body != nil {
		var err error
		if b, err = json.Marshal(body); err != nil {
			return nil, err
		}
	}
	req, err := http.NewRequestWithContext(ctx, method, l.URL+path, bytes.NewReader(b))
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrService, err)
	}
	if body != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	if l.Key != "" {
		req.Header.Set("Authorization", "Bearer "+l.Key)
	}
	res, err := l.HTTP.Do(req)
	if err != nil {
		return nil, fmt.Errorf("%w does not answer: %w", ErrService, err)
	}
	defer func() { _ = res.Body.Close() }()
	text, err := io.ReadAll(io.LimitReader(res.Body, most))
	if err != nil {
		return nil, fmt.Errorf("%w broke off: %w", ErrService, err)
	}
	if res.StatusCode != http.StatusOK && res.StatusCode != http.StatusNoContent {
		return nil, fmt.Errorf("%w said %d", ErrService, res.StatusCode)
	}
	return text, nil
}
