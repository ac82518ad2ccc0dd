// Command bench measures the budgets of docs/architecture.md on the demo data
// and on the large fleet, and prints, for each, p50 and p95 beside a baseline
// in the same run: plain SQL that fetches the same data on the same connection,
// or the budget itself where there is nothing to compare with. Only ratios are
// meant to be kept.
package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"maps"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"slices"
	"strings"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"mainstay/core/gate"
	"mainstay/core/spray"
	"mainstay/internal/demo"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/web"
)

const rounds = 400

func main() {
	if err := run(context.Background()); err != nil {
		fmt.Fprintln(os.Stderr, "bench:", err)
		os.Exit(1)
	}
}

// measure runs fn after a warm-up and returns p50 and p95.
func measure(rounds int, fn func() error) (p50, p95 time.Duration, err error) {
	var times []time.Duration
	warm := min(20, rounds/2)
	for i := range rounds + warm {
		start := time.Now()
		if err := fn(); err != nil {
			return 0, 0, err
		}
		if i >= warm {
			times = append(times, time.Since(start))
		}
	}
	slices.Sort(times)
	return times[len(times)/2], times[len(times)*95/100], nil
}

type bench struct {
	name     string
	fn       func() error
	base     func() error  // same data by plain SQL
	budget   time.Duration // for p95, when there is no base
	baseName string
	rounds   int // 0: the usual number
}

func run(ctx context.Context) error {
	w := tabwriter.NewWriter(os.Stdout, 0, 0, 2, ' ', tabwriter.AlignRight)
	fmt.Fprintln(w, "name\tp50\tp95\tbaseline\tbaseline p50\tbaseline p95\tratio p50\tratio p95\t")
	if err := small(ctx, w); err != nil {
		return err
	}
	for name, fn := range map[string]func(context.Context, *tabwriter.Writer) error{"crowd": crowd, "uploads": uploads} {
		if len(os.Args) == 1 || os.Args[1] == name {
			if err := fn(ctx, w); err != nil {
				return err
			}
		}
	}
	if len(os.Args) > 1 && (os.Args[1] == "crowd" || os.Args[1] == "uploads") {
		return w.Flush()
	}
	if err := large500(ctx, w); err != nil {
		return err
	}
	return w.Flush()
}

// bed is a server over a database, with a signed-in client and a plain
// connection beside it.
type bed struct {
	svc  *server.Services
	conn *pgx.Conn
	ask  func(method, path string, body any) error
}

func setUp(ctx context.Context, url, login, password string, fill func(*server.Services, *pgx.Conn) error) (*bed,
	func(), error) {
	g, err := records.Open(url, db.Options{Patient: true}) // sealing the large fleet once takes minutes
	if err != nil {
		return nil, nil, err
	}
	if err := errors.Join(db.Migrate(ctx, g), records.Baseline(ctx, g, "")); err != nil {
		return nil, nil, err
	}
	svc := server.NewServices(g, clock.From(time.Date(2026, 6, 10, 16, 40, 0, 0, time.UTC)), &photos.Memory{})
	if err := svc.Seed(ctx); err != nil {
		return nil, nil, err
	}
	conn, err := pgx.Connect(ctx, url)
	if err != nil {
		return nil, nil, err
	}
	if err := fill(svc, conn); err != nil {
		return nil, nil, err
	}
	h, err := server.New(svc, server.Options{Web: web.Files(), Log: slog.New(slog.DiscardHandler), PerMinute: 1 << 40})
	if err != nil {
		return nil, nil, err
	}
	s := httptest.NewServer(h)
	jar, err := cookiejar.New(nil)
	if err != nil {
		return nil, nil, err
	}
	c := &http.Client{Jar: jar}
	b := &bed{svc: svc, conn: conn, ask: func(method, path string,
		body any) error {
		return request(ctx, c, method, s.URL+"/api/v1"+path, body)
	}}
	done := func() {
		s.Close()
		_ = conn.Close(ctx)
		db.Close(g)
	}
	return b, done, b.ask(http.MethodPost, "/session", map[string]string{"login": login, "password": password})
}

func request(ctx context.Context, c *http.Client, method, url string, body any) error {
	b, err := json.Marshal(body)
	if err != nil {
		return err
	}
	req, err := http.NewRequestWithContext(ctx, method, url, bytes.NewReader(b))
	if err != nil {
		return err
	}
	req.Header.Set("Content-Type", "application/json")
	res, err := c.Do(req)
	if err != nil {
		return err
	}
	defer func() { _ = res.Body.Close() }()
	var out bytes.Buffer
	if _, err := out.ReadFrom(res.Body); err != nil {
		return err
	}
	if res.StatusCode != http.StatusOK {
		return fmt.Errorf("%s %s: %d %s", method, url, res.StatusCode, out.String())
	}
	return nil
}

func small(ctx context.Context, w *tabwriter.Writer) error {
	b, done, err := setUp(ctx, os.Getenv("DATABASE_URL"), "imre", demo.Password,
		func(svc *server.Services, _ *pgx.Conn) error { return demo.Fill(ctx, svc, func(int, int) {}) })
	if err != nil {
		return err
	}
	defer done()
	benches, err := list(ctx, b.svc, b.conn, b.ask)
	if err != nil {
		return err
	}
	id, err := largeSite(ctx, b.svc.Sites)
	if err != nil {
		return err
	}
	if err := printAll(w, "", append(benches, siteBenches(id, b.ask)...)); err != nil {
		return err
	}
	if len(os.Args) == 1 || strings.Contains("import of GeoJSON", os.Args[1]) {
		return bigFile(ctx, w, b, id)
	}
	return nil
}

func printAll(w *tabwriter.Writer, prefix string, benches []bench) error {
	for _, b := range benches {
		if len(os.Args) > 1 && !strings.Contains(prefix+b.name, os.Args[1]) {
			continue
		}
		n := rounds
		if b.rounds > 0 {
			n = b.rounds
		}
		p50, p95, err := measure(n, b.fn)
		if err != nil {
			return fmt.Errorf("%s: %w", b.name, err)
		}
		b50, b95 := b.budget, b.budget
		if b.base != nil {
			if b50, b95, err = measure(n, b.base); err != nil {
				return fmt.Errorf("%s baseline: %w", b.name, err)
			}
		}
		fmt.Fprintf(w, "%s%s\t%s\t%s\t%s\t%s\t%s\t%.2f\t%.2f\t\n", prefix, b.name, short(p50), short(p95), b.baseName,
			short(b50), short(b95), float64(p50)/float64(b50), float64(p95)/float64(b95))
	}
	return nil
}

func short(d time.Duration) string {
	if d < time.Millisecond {
		return fmt.Sprintf("%.1f µs", float64(d.Nanoseconds())/1e3)
	}
	return fmt.Sprintf("%.2f ms", float64(d.Nanoseconds())/1e6)
}

func list(ctx context.Context, svc *server.Services, conn *pgx.Conn,
	ask func(method, path string, body any) error) ([]bench, error) {
	var aircraft, pack, pilot, job uuid.UUID
	for sql, into := range map[string]*uuid.UUID{"select id from jobs where work = 'inspection'": &job,
		"select id from aircraft where name = 'Lantern Three'": &aircraft, "select id from packs where label = 'L5'": &pack,
		"select id from people where login = 'imre'": &pilot} {
		var id string
		if err := conn.QueryRow(ctx, sql).Scan(&id); err != nil {
			return nil, err
		}
		*into = uuid.MustParse(id)
	}
	who, err := svc.People.Get(ctx, pilot)
	if err != nil {
		return nil, err
	}
	ctx = people.With(ctx, who)
	ks, err := svc.Flights.Know(ctx, nil)
	if err != nil {
		return nil, err
	}
	now := svc.Clock.Now()
	question := map[string]any{"aircraft_id": aircraft, "pack_ids": []uuid.UUID{pack},
		"wind": map[string]any{"at": now, "steady_ms": 3, "gust_ms": 4, "measured_m": 2, "ground": "open"}}
	ofJob := maps.Clone(question)
	ofJob["job_id"] = job
	if _, err := svc.Flights.Ask(ctx, flights.Question{Aircraft: aircraft, Packs: []uuid.UUID{pack}}); err != nil {
		return nil, err
	}
	var plan string
	if err := svc.DB.Raw("select '/jobs/' || job_id || '/spray/' || aircraft_id from spray_plans order by at limit 1").Scan(&plan).Error; err != nil {
		return nil, err
	}
	grow, err := sprayPlans()
	if err != nil {
		return nil, err
	}
	shots, err := missionPlans()
	if err != nil {
		return nil, err
	}
	grow = append(grow, shots...)
	wish := spray.Defaults()
	wish.Mix = []spray.Product{}
	return append(grow, []bench{
		{name: "spray plan while a slider moves, request", fn: func() error {
			return ask(http.MethodPost, plan+"/try",
				wish)
		}, budget: 100 * time.Millisecond, baseName: "budget"},
		{name: "gate, core, one aircraft", fn: func() error { gate.Judge(ks[len(ks)/2].Input); return nil },
			budget: 200 * time.Microsecond, baseName: "budget"},
		{name: "gate of a job, request", fn: func() error { return ask(http.MethodPost, "/gate", ofJob) },
			budget: 30 * time.Millisecond, baseName: "budget"},
		{name: "job, request", fn: func() error { return ask(http.MethodGet, "/jobs/"+job.String(), nil) },
			budget: 60 * time.Millisecond, baseName: "budget"},
		{name: "jobs, request", fn: func() error { return ask(http.MethodGet, "/jobs", nil) }, budget: 60 * time.Millisecond,
			baseName: "budget"},
		{name: "gate, request", fn: func() error { return ask(http.MethodPost, "/gate", question) },
			base: func() error { return fetch(ctx, conn, gateSQL, aircraft, pack, pilot) }, baseName: "plain SQL"},
		{name: "day, request", fn: func() error { return ask(http.MethodGet, "/day", nil) },
			base: func() error { return fetch(ctx, conn, daySQL) }, baseName: "plain SQL"},
		{name: "fleet, request", fn: func() error { return ask(http.MethodGet, "/aircraft", nil) },
			base: func() error { return fetch(ctx, conn, daySQL) }, baseName: "plain SQL"},
		{name: "log, one page", fn: func() error { return ask(http.MethodGet, "/log?q=spraying", nil) },
			base: func() error { return fetch(ctx, conn, logSQL) }, baseName: "plain SQL"},
	}...), nil
}

// fetch runs statements one after the other and reads every row.
func fetch(ctx context.Context, conn *pgx.Conn, sql []string, args ...any) error {
	for _, q := range sql {
		var use []any
		for i := range args {
			if strings.Contains(q, fmt.Sprintf("$%d", i+1)) {
				use = append(use, args[i])
			}
		}
		// Parameters are numbered over all statements; each takes those it names.
		n := 0
		for i := range args {
			if strings.Contains(q, fmt.Sprintf("$%d", i+1)) {
				n++
				q = strings.ReplaceAll(q, fmt.Sprintf("$%d", i+1), fmt.Sprintf("$%d", n))
			}
		}
		rows, err := conn.Query(ctx, q, use...)
		if err != nil {
			return err
		}
		for rows.Next() {
			if _, err := rows.Values(); err != nil {
				return err
			}
		}
		if err := rows.Err(); err != nil {
			return err
		}
	}
	return nil
}
