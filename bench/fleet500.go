package main

import (
	"context"
	"fmt"
	"net/http"
	"os"
	"strings"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"mainstay/internal/server"
)

// large500 measures the views on the large fleet, kept between runs.
func large500(ctx context.Context, w *tabwriter.Writer) error {
	began := time.Now()
	b, done, err := setUp(ctx, os.Getenv("LARGE_URL"), "chief", largePassword,
		func(svc *server.Services, conn *pgx.Conn) error { return fillLarge(ctx, svc, conn, largeFleet) })
	if err != nil {
		return err
	}
	defer done()
	if took := time.Since(began); took > 5*time.Second {
		fmt.Fprintf(os.Stderr, "large fleet made in %s\n", took.Round(time.Second))
	}
	var pack string
	if err := b.conn.QueryRow(ctx, "select id from packs where label = 'P2500'").Scan(&pack); err != nil {
		return err
	}
	began = time.Now()
	if err := b.svc.Rack.ComputeAll(ctx); err != nil {
		return err
	}
	forecast := time.Since(began)
	get := func(path string) func() error {
		return func() error { return b.ask(http.MethodGet, path, nil) }
	}
	sql := func(q []string, args ...any) func() error {
		return func() error { return fetch(ctx, b.conn, q, args...) }
	}
	id := uuid.MustParse(pack)
	if err := printAll(w, "500 aircraft: ", []bench{
		{name: "day", fn: get("/day"), base: sql(overviewSQL), baseName: "plain SQL", rounds: 60},
		{name: "fleet", fn: get("/aircraft"), base: sql(overviewSQL), baseName: "plain SQL", rounds: 60},
		{name: "rack", fn: get("/packs"), base: sql(rackSQL), baseName: "plain SQL", rounds: 30},
		{name: "due list", fn: get("/due"), base: sql(dueSQL), baseName: "plain SQL", rounds: 30},
		{name: "one pack", fn: get("/packs/" + pack), base: sql(packSQL, id), baseName: "plain SQL"},
		{name: "log search", fn: get("/log?q=spraying"), base: sql(logSQL), baseName: "plain SQL", rounds: 100},
	}); err != nil {
		return err
	}
	fmt.Fprintf(w, "500 aircraft: forecast of %d packs\t%s\t\tbackground\t\t\t\t\t\n", largeFleet.packs, short(forecast))
	fmt.Fprintf(w, "500 aircraft: resident memory\t%s\t\tbudget 150 MB\t\t\t\t\t\n", resident())
	if len(os.Args) == 1 || strings.Contains("500 aircraft: log import", os.Args[1]) {
		return importing(ctx, w, b)
	}
	return nil
}

// resident is the memory of this process, which holds the server and the
// measuring client.
func resident() string {
	b, err := os.ReadFile("/proc/self/status")
	if err != nil {
		return "not known here"
	}
	for line := range strings.Lines(string(b)) {
		if rest, ok := strings.CutPrefix(line, "VmRSS:"); ok {
			var kb int
			if _, err := fmt.Sscan(rest, &kb); err == nil {
				return fmt.Sprintf("%d MB", kb/1024)
			}
		}
	}
	return "not known here"
}
