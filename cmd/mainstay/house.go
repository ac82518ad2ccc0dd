package main

import (
	"context"
	"errors"
	"log/slog"
	"time"

	"mainstay/internal/outbox"
	"mainstay/internal/records"
	"mainstay/internal/server"
)

// keepHouse does what must be done now and then while the server runs: the
// newest head of the records is sent out, and what no longer matters is
// removed.
func (c config) keepHouse(ctx context.Context, svc *server.Services, log *slog.Logger) {
	post := &records.Post{Folder: c.Heads, Command: c.HeadCommand}
	tick := time.NewTicker(max(c.HeadEvery, time.Second))
	defer tick.Stop()
	for {
		if err := svc.People.SendHeads(ctx, post); err != nil && ctx.Err() == nil {
			log.Error("sending the head of the records", "error", err)
		}
		forgotten := errors.Join(svc.People.Forget(ctx), outbox.Forget(ctx, svc.DB, svc.Clock.Now()))
		if err := forgotten; err != nil && ctx.Err() == nil {
			log.Error("removing what is over", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
