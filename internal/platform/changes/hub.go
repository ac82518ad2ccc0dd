// Package changes passes on which tables changed, from PostgreSQL to whoever
// on this server has a screen open. It carries names, never data.
package changes

import (
	"context"
	"log/slog"
	"sync"
	"time"

	"gorm.io/gorm"

	"mainstay/internal/platform/db"
)

const channel = "mainstay_change"

// Hub listens to the database and tells its subscribers.
type Hub struct {
	mu   sync.Mutex
	subs map[chan string]bool
}

// NewHub returns a hub without subscribers.
func NewHub() *Hub { return &Hub{subs: map[chan string]bool{}} }

// Subscribe returns a channel of table names and a func that ends it. A
// subscriber that does not keep up loses names it already has waiting; a name
// means "look again", so nothing is lost by that. The name "all" means that
// changes may have been missed.
func (h *Hub) Subscribe() (<-chan string, func()) {
	c := make(chan string, 64)
	h.mu.Lock()
	h.subs[c] = true
	h.mu.Unlock()
	return c, func() {
		h.mu.Lock()
		delete(h.subs, c)
		h.mu.Unlock()
	}
}

func (h *Hub) tell(table string) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.subs {
		select {
		case c <- table:
		default:
		}
	}
}

// Run listens until ctx ends, and connects again when the connection is lost.
// At its end the channels of all subscribers are closed.
func (h *Hub) Run(ctx context.Context, g *gorm.DB, log *slog.Logger) {
	defer func() {
		h.mu.Lock()
		defer h.mu.Unlock()
		for c := range h.subs {
			delete(h.subs, c)
			close(c)
		}
	}()
	for ctx.Err() == nil {
		err := h.listen(ctx, g)
		if ctx.Err() != nil {
			return
		}
		log.Warn("change listener lost its connection and connects again", "error", err)
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
	}
}

// listen has a connection of its own, so that the pool serves requests only.
func (h *Hub) listen(ctx context.Context, g *gorm.DB) error {
	c, err := db.Dial(ctx, g)
	if err != nil {
		return err
	}
	defer func() { _ = c.Close(context.WithoutCancel(ctx)) }()
	if _, err := c.Exec(ctx, "listen "+channel); err != nil {
		return err
	}
	h.tell("all")
	for {
		n, err := c.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		h.tell(n.Payload)
	}
}
