package server

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"mainstay/api"
	"mainstay/internal/platform/changes"
)

// How long one stream lasts before the browser opens the next, and how often
// it shows that it lives: a page says within two seconds that the server has
// gone.
const (
	streamFor  = 90 * time.Second
	streamBeat = time.Second
)

// streamAPI serves the stream of changes.
type streamAPI struct{ hub *changes.Hub }

// WatchChanges streams the names of tables that changed, as server-sent events.
func (s streamAPI) WatchChanges(ctx context.Context,
	_ api.WatchChangesRequestObject) (api.WatchChangesResponseObject, error) {
	return stream{ctx, s.hub}, nil
}

type stream struct {
	ctx context.Context
	hub *changes.Hub
}

// VisitWatchChangesResponse writes events until the time is up or the browser
// goes away. Names that pile up while one is written are sent once.
func (s stream) VisitWatchChangesResponse(w http.ResponseWriter) error {
	names, stop := s.hub.Subscribe()
	defer stop()
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("X-Accel-Buffering", "no") // proxies pass it on at once
	w.WriteHeader(http.StatusOK)
	out := http.NewResponseController(w)
	send := func(text string) error {
		if _, err := fmt.Fprint(w, text); err != nil {
			return err
		}
		return out.Flush()
	}
	if err := send("retry: 500\ndata: all\n\n"); err != nil {
		return nil // the browser went away; nobody is there to tell
	}
	end, beat := time.After(streamFor), time.NewTicker(streamBeat)
	defer beat.Stop()
	for {
		var err error
		select {
		case <-s.ctx.Done():
			return nil
		case <-end:
			return nil
		case <-beat.C:
			err = send("event: beat\ndata: .\n\n")
		case first, open := <-names:
			if !open {
				return nil // the server is stopping
			}
			text := "data: " + first + "\n\n"
			for seen := map[string]bool{first: true}; len(names) > 0; {
				if n := <-names; n != "" && !seen[n] {
					seen[n] = true
					text += "data: " + n + "\n\n"
				}
			}
			err = send(text)
		}
		if err != nil {
			return nil
		}
	}
}
