// Package work is the queue of background work. It lies in the database, so
// that work survives a restart and any of several servers may do it.
package work

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverdatabasesql"
	"github.com/riverqueue/river/rivermigrate"
)

// Client puts work on the queue and does it.
type Client = river.Client[*sql.Tx]

// Migrate brings the tables of the queue up to date.
func Migrate(ctx context.Context, pool *sql.DB) error {
	m, err := rivermigrate.New(riverdatabasesql.New(pool), &rivermigrate.Config{Logger: slog.New(slog.DiscardHandler)})
	if err != nil {
		return err
	}
	if _, err = m.Migrate(ctx, rivermigrate.DirectionUp, nil); err != nil {
		return fmt.Errorf("tables of the work queue: %w", err)
	}
	return nil
}

// MigrateDown takes the tables of the queue away.
func MigrateDown(ctx context.Context, pool *sql.DB) error {
	m, err := rivermigrate.New(riverdatabasesql.New(pool), &rivermigrate.Config{Logger: slog.New(slog.DiscardHandler)})
	if err != nil {
		return err
	}
	_, err = m.Migrate(ctx, rivermigrate.DirectionDown, &rivermigrate.MigrateOpts{TargetVersion: -1})
	return err
}

// New makes a client with the given workers; Start begins to work. One piece
// of work runs at a time on each server: the pages come first.
func New(pool *sql.DB, workers *river.Workers, log *slog.Logger) (*Client, error) {
	return river.NewClient(riverdatabasesql.New(pool), &river.Config{
		Queues:            map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: 1}},
		Workers:           workers,
		Logger:            log,
		FetchPollInterval: time.Second,
		JobTimeout:        10 * time.Minute,
	})
}
