// Package testbed gives tests real PostgreSQL databases of their own and whole
// servers on loopback.
package testbed

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"image"
	"image/png"
	"log/slog"
	"net/http/httptest"
	"os"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	_ "github.com/jackc/pgx/v5/stdlib" // the driver used to make databases
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"mainstay/internal/demo"
	"mainstay/internal/platform/changes"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/web"
)

// Noon is the moment at which tests and pictures begin: 09:40 in the demo
// crew's zone.
var Noon = time.Date(2026, 6, 10, 16, 40, 0, 0, time.UTC)

var serial atomic.Int64

func base(t testing.TB) string {
	u := os.Getenv("TEST_PG_URL")
	if u == "" {
		t.Fatal("TEST_PG_URL is not set: run these tests with bin/test, or start PostgreSQL and set it to postgres://user@host:port")
	}
	return u
}

// databaseURL names a database on the test server.
func databaseURL(t testing.TB, name string) string {
	return fmt.Sprintf("%s/%s?sslmode=disable", base(t), name)
}

func admin(t testing.TB) *sql.DB {
	c, err := sql.Open("pgx", databaseURL(t, "postgres"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = c.Close() })
	return c
}

// template makes a template database once per run of bin/test, whichever test
// comes first; fill brings it from empty to what the name promises.
func template(t testing.TB, name string, fill func(g *gorm.DB) error) {
	ctx := context.Background()
	c, err := admin(t).Conn(ctx)
	require.NoError(t, err)
	defer func() { _ = c.Close() }()
	_, err = c.ExecContext(ctx, "select pg_advisory_lock(hashtext($1))", name)
	require.NoError(t, err)
	defer func() { _, _ = c.ExecContext(ctx, "select pg_advisory_unlock(hashtext($1))", name) }()
	var ready bool
	require.NoError(t, c.QueryRowContext(ctx, "select exists (select from pg_database where datname = $1)",
		name).Scan(&ready))
	if ready {
		return
	}
	raw := name + "_making"
	_, err = c.ExecContext(ctx, "drop database if exists "+raw+" with (force)")
	require.NoError(t, err)
	_, err = c.ExecContext(ctx, "create database "+raw)
	require.NoError(t, err)
	g, err := records.Open(databaseURL(t, raw), db.Options{})
	require.NoError(t, err)
	err = fill(g)
	db.Close(g)
	require.NoError(t, err)
	_, err = c.ExecContext(ctx, fmt.Sprintf("alter database %s rename to %s", raw, name))
	require.NoError(t, err)
}

func clone(t testing.TB, from string) string {
	name := strings.ToLower(fmt.Sprintf("t_%d_%d", os.Getpid(), serial.Add(1)))
	a := admin(t)
	// A template is busy while another test copies it.
	require.Eventually(t, func() bool {
		_, err := a.Exec(fmt.Sprintf("create database %s template %s", name, from))
		return err == nil
	}, 30*time.Second, 50*time.Millisecond, "copy of %s", from)
	t.Cleanup(func() {
		c, err := sql.Open("pgx", databaseURL(t, "postgres"))
		if err == nil {
			_, _ = c.Exec("drop database if exists " + name + " with (force)")
			_ = c.Close()
		}
	})
	return name
}

// Empty returns services over a database with the schema and the shipped types
// and nothing else, and its URL.
func Empty(t testing.TB, c clock.Clock) (*server.Services, string) {
	template(t, "mainstay_empty", func(g *gorm.DB) error {
		if err := errors.Join(db.Migrate(context.Background(), g),
			records.Baseline(context.Background(), g, "")); err != nil {
			return err
		}
		return server.NewServices(g, clock.At(Noon), nil).Seed(context.Background())
	})
	return open(t, clone(t, "mainstay_empty"), c)
}

// Demo returns services over a copy of the demo crew's year ending at Noon,
// and its URL.
func Demo(t testing.TB, c clock.Clock) (*server.Services, string) {
	template(t, "mainstay_demo_year", func(g *gorm.DB) error {
		ctx := context.Background()
		if err := errors.Join(db.Migrate(ctx, g), records.Baseline(ctx, g, "")); err != nil {
			return err
		}
		svc := server.NewServices(g, clock.At(Noon), &photos.Memory{})
		if err := svc.Seed(ctx); err != nil {
			return err
		}
		return demo.Fill(ctx, svc, func(int, int) {})
	})
	svc, url := open(t, clone(t, "mainstay_demo_year"), c)
	// The store of the copy is empty; every photo of the year shows the same small picture.
	var ids []string
	require.NoError(t, svc.DB.Raw("select id from photos").Scan(&ids).Error)
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 8, 6))))
	for _, id := range ids {
		require.NoError(t, svc.Walkrounds.Photos.Put(id, b.Bytes()))
	}
	return svc, url
}

// open gives the services a single connection: whatever asks for a second one
// while it holds the first would wait for itself, in every test.
func open(t testing.TB, name string, c clock.Clock) (*server.Services, string) {
	g, err := records.Open(databaseURL(t, name), db.Options{Size: 1})
	require.NoError(t, err)
	t.Cleanup(func() { db.Close(g) })
	return server.NewServices(g, c, &photos.Memory{}), databaseURL(t, name)
}

// App returns the URL of the database under the role of the application, which
// owns nothing in it.
func App(t testing.TB, url string) string {
	g, err := records.Open(url, db.Options{Size: 1})
	require.NoError(t, err)
	defer db.Close(g)
	_, err = admin(t).Exec(`do $$ begin create role mainstay_app login; exception when duplicate_object or unique_violation then null; end $$`)
	require.NoError(t, err)
	require.NoError(t, db.Grant(context.Background(), g, "mainstay_app"))
	return strings.Replace(url, "//mainstay@", "//mainstay_app@", 1)
}

// Wide returns services over the database at url with so many connections, for
// tests of many hands at once.
func Wide(t testing.TB, url string, c clock.Clock, connections int) *server.Services {
	g, err := records.Open(url, db.Options{Size: connections})
	require.NoError(t, err)
	t.Cleanup(func() { db.Close(g) })
	return server.NewServices(g, c, &photos.Memory{})
}

// Serve puts services behind a server on loopback and returns its address.
func Serve(t testing.TB, svc *server.Services) string {
	log := slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelError}))
	hub := changes.NewHub()
	ctx, stop := context.WithCancel(context.Background())
	t.Cleanup(stop)
	go hub.Run(ctx, svc.DB, log)
	queue, err := svc.Queue(log)
	require.NoError(t, err)
	require.NoError(t, queue.Start(ctx))
	t.Cleanup(func() { _ = queue.StopAndCancel(context.Background()) })
	h, err := server.New(svc, server.Options{Changes: hub, Web: web.Files(), Log: log, PerMinute: 1_000_000})
	require.NoError(t, err)
	s := httptest.NewServer(h)
	t.Cleanup(func() {
		s.CloseClientConnections() // open streams would hold it for long
		s.Close()
	})
	return s.URL
}
