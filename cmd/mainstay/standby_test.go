package main_test

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/crew"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
	"mainstay/web"
)

// cluster is a PostgreSQL of the test's own.
type cluster struct {
	t    *testing.T
	dir  string
	port int
}

// pgBin is where the programs of PostgreSQL lie.
func pgBin(t *testing.T) string {
	all, _ := filepath.Glob("/usr/lib/postgresql/*/bin")
	require.NotEmpty(t, all)
	return all[len(all)-1]
}

// freePort is one that nobody listens on.
func freePort(t *testing.T) int {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	return l.Addr().(*net.TCPAddr).Port
}

// pg runs a program of PostgreSQL; the server refuses to run as root.
func pg(t *testing.T, program string, args ...string) error {
	cmd := append([]string{filepath.Join(pgBin(t), program)}, args...)
	if os.Getuid() == 0 {
		cmd = append([]string{"runuser", "-u", "postgres", "--"}, cmd...)
	}
	c := exec.Command(cmd[0], cmd[1:]...)
	c.Dir = "/"
	var said bytes.Buffer
	if program != "pg_ctl" { // a server that goes on would hold the pipe
		c.Stdout, c.Stderr = &said, &said
	}
	if err := c.Run(); err != nil {
		return fmt.Errorf("%s: %w: %s", program, err, said.String())
	}
	return nil
}

func newCluster(t *testing.T, base, name string, port int) *cluster {
	return &cluster{t, filepath.Join(base, name), port}
}

func (c *cluster) start() {
	log := c.dir + ".log"
	opts := fmt.Sprintf("-p %d -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c wal_level=replica -c max_wal_senders=5 -c hot_standby=on -c max_connections=60 -c synchronous_commit=on",
		c.port)
	require.NoError(c.t, pg(c.t, "pg_ctl", "-D", c.dir, "-w", "-t", "60", "-l", log, "-o", opts, "start"))
}

func (c *cluster) sql(q string) error {
	d, err := sql.Open("pgx", fmt.Sprintf("postgres://mainstay@127.0.0.1:%d/postgres?sslmode=disable", c.port))
	if err != nil {
		return err
	}
	defer func() { _ = d.Close() }()
	_, err = d.Exec(q)
	return err
}

// follow makes c a standby of another cluster, whatever it was before, and has
// that one wait for it at every commit.
func (c *cluster) follow(of *cluster) {
	require.NoError(c.t, os.RemoveAll(c.dir))
	require.NoError(c.t, pg(c.t, "pg_basebackup", "-D", c.dir, "-R", "-X", "stream", "-c", "fast", "-d",
		fmt.Sprintf("host=127.0.0.1 port=%d user=mainstay application_name=standby", of.port)))
	c.start()
	require.NoError(c.t, of.sql("alter system set synchronous_standby_names = 'standby'"))
	require.NoError(c.t, of.sql("select pg_reload_conf()"))
	require.Eventually(c.t, func() bool {
		d, err := sql.Open("pgx", fmt.Sprintf("postgres://mainstay@127.0.0.1:%d/postgres?sslmode=disable", of.port))
		if err != nil {
			return false
		}
		defer func() { _ = d.Close() }()
		var n int
		return d.QueryRow("select count(*) from pg_stat_replication where sync_state = 'sync'").Scan(&n) == nil && n == 1
	}, 30*time.Second, 50*time.Millisecond, "the standby follows at every commit")
}

// writer logs flights at the servers, one after the other, each until it is
// acknowledged.
type writer struct {
	http     *http.Client
	servers  []string
	serial   string
	mu       sync.Mutex
	acked    []uuid.UUID
	heads    []string
	repeated int
}

func (w *writer) post(base, path, kind, body string) (int, []byte) {
	req, err := http.NewRequest(http.MethodPost, base+"/api/v1"+path, strings.NewReader(body))
	if err != nil {
		return 0, nil
	}
	req.Header.Set("Content-Type", kind)
	res, err := w.http.Do(req)
	if err != nil {
		return 0, nil
	}
	defer func() { _ = res.Body.Close() }()
	var b bytes.Buffer
	_, _ = b.ReadFrom(res.Body)
	return res.StatusCode, b.Bytes()
}

func (w *writer) run(stop <-chan struct{}, from time.Time) {
	for i := 0; ; i++ {
		at := from.Add(time.Duration(i) * 10 * time.Minute)
		id := uuid.Must(uuid.NewV7())
		row := fmt.Sprintf("id,took_off_at,landed_at,aircraft_serial,pilot_login,packs,seconds,landings,purpose,remarks\n%s,%s,%s,%s,pilot,,300,1,Standby,\n",
			id, at.Format(time.RFC3339), at.Add(5*time.Minute).Format(time.RFC3339), w.serial)
		for try := 0; ; try++ {
			select {
			case <-stop:
				return
			default:
			}
			status, b := w.post(w.servers[(i+try)%len(w.servers)], "/log/import", "text/csv", row)
			var rep struct{ Accepted, Unchanged int }
			if status == http.StatusOK && json.Unmarshal(b, &rep) == nil && rep.Accepted+rep.Unchanged == 1 {
				w.mu.Lock()
				w.acked = append(w.acked, id)
				w.repeated += rep.Unchanged
				w.mu.Unlock()
				break
			}
			time.Sleep(20 * time.Millisecond)
		}
		if i%5 == 0 {
			if res, err := w.http.Get(w.servers[i%len(w.servers)] + "/api/v1/records/head"); err == nil {
				var h struct{ Place, Words string }
				if res.StatusCode == http.StatusOK && json.NewDecoder(res.Body).Decode(&h) == nil {
					w.mu.Lock()
					w.heads = append(w.heads, h.Place+" "+h.Words)
					w.mu.Unlock()
				}
				_ = res.Body.Close()
			}
		}
	}
}

// Two servers log flights while the database is killed again and again at a
// random moment and its standby takes over: nothing that was acknowledged is
// lost, nothing is there twice, the chain holds and leads through every head
// that anybody was told.
func TestStandbyTakesOver(t *testing.T) {
	rounds, err := strconv.Atoi(os.Getenv("STANDBY_ROUNDS"))
	if err != nil {
		t.Skip("bin/test standby runs this")
	}
	base, err := os.MkdirTemp("/var/tmp", "mainstay-standby-")
	require.NoError(t, err)
	t.Cleanup(func() { _ = os.RemoveAll(base) })
	if os.Getuid() == 0 {
		require.NoError(t, exec.Command("chown", "postgres", base).Run())
	}
	one, two := newCluster(t, base, "one", freePort(t)), newCluster(t, base, "two", freePort(t))
	t.Cleanup(func() {
		for _, c := range []*cluster{one, two} {
			_ = pg(t, "pg_ctl", "-D", c.dir, "-m", "immediate", "stop")
		}
	})
	require.NoError(t, pg(t, "initdb", "-D", one.dir, "-U", "mainstay", "--auth=trust", "--encoding=UTF8",
		"--locale=C.UTF-8"))
	one.start()
	require.NoError(t, one.sql("create database crew"))
	url := fmt.Sprintf("postgres://mainstay@127.0.0.1:%d,127.0.0.1:%d/crew?sslmode=disable&target_session_attrs=read-write&connect_timeout=2",
		one.port, two.port)

	hash := &argon2id.Params{Memory: 1024, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}
	ctx := context.Background()
	var servers []string
	var svc *server.Services
	for range 2 {
		g, err := records.Open(url, db.Options{Size: 8})
		require.NoError(t, err)
		t.Cleanup(func() { db.Close(g) })
		s := server.NewServices(g, clock.System{}, &photos.Memory{})
		s.People.Hash = hash
		if svc == nil {
			svc = s
			require.NoError(t, db.Migrate(ctx, g))
			require.NoError(t, s.Seed(ctx))
		}
		h, err := server.New(s, server.Options{Web: web.Files(), Log: slog.New(slog.DiscardHandler), PerMinute: 1_000_000})
		require.NoError(t, err)
		srv := httptest.NewServer(h)
		t.Cleanup(srv.Close)
		servers = append(servers, srv.URL)
	}
	chief, err := svc.People.SetUp(ctx, people.Crew{Name: "Crew", Zone: "UTC",
		Units: people.Shown{Length: "m", Speed: "m/s", Mass: "kg", Temperature: "degC", Volume: "L"}},
		people.New{Login: "chief", Name: "Chief Person", Password: "hop hedge drum", PIN: testbed.PIN})
	require.NoError(t, err)
	_, err = svc.People.Add(ctx, people.New{ID: testbed.NewID(), Login: "pilot", Name: "Pilot Person",
		Roles: []crew.Role{crew.Pilot}, Password: "hop hedge drum", PIN: testbed.PIN})
	require.NoError(t, err)
	two.follow(one)

	var writers []*writer
	for i := range 4 {
		serial := fmt.Sprintf("S-%d", i)
		_, err := svc.Fleet.AddAircraft(people.With(ctx, chief),
			fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "lantern-4", Name: serial, Serial: serial, FitNewParts: true})
		require.NoError(t, err)
		jar, err := cookiejar.New(nil)
		require.NoError(t, err)
		w := &writer{http: &http.Client{Jar: jar, Timeout: 20 * time.Second}, servers: servers, serial: serial}
		status, b := w.post(servers[0], "/session", "application/json", `{"login":"chief","password":"hop hedge drum"}`)
		require.Equal(t, http.StatusOK, status, string(b))
		writers = append(writers, w)
	}
	acked := func() (n int) {
		for _, w := range writers {
			w.mu.Lock()
			n += len(w.acked)
			w.mu.Unlock()
		}
		return n
	}
	primary, standby := one, two
	for round := range rounds {
		stop := make(chan struct{})
		var all sync.WaitGroup
		from := time.Now().AddDate(-2, 0, 0).Add(time.Duration(round) * 30 * 24 * time.Hour).UTC().Truncate(time.Second)
		for _, w := range writers {
			all.Go(func() { w.run(stop, from) })
		}
		before := acked()
		require.Eventually(t, func() bool { return acked() >= before+5 }, 60*time.Second, 10*time.Millisecond,
			"flights are logged")
		time.Sleep(time.Duration(rand.IntN(700)) * time.Millisecond)
		require.NoError(t, pg(t, "pg_ctl", "-D", primary.dir, "-m", "immediate", "stop"))
		require.NoError(t, pg(t, "pg_ctl", "-D", standby.dir, "-w", "promote"))
		require.NoError(t, standby.sql("alter system reset synchronous_standby_names"))
		require.NoError(t, standby.sql("select pg_reload_conf()"))
		at := acked()
		require.Eventually(t, func() bool { return acked() >= at+5 }, 60*time.Second, 10*time.Millisecond,
			"it goes on by itself")
		close(stop)
		all.Wait()
		wholeAndOnce(t, svc, writers)
		primary, standby = standby, primary
		standby.follow(primary)
	}
	repeated, heads := 0, 0
	for _, w := range writers {
		repeated += w.repeated
		heads += len(w.heads)
	}
	t.Logf("%d kills, %d acknowledged flights on two servers: none lost, none twice; %d were saved without an answer and answered on the second try; %d heads told, all on the chain",
		rounds, acked(), repeated, heads)
}

func wholeAndOnce(t *testing.T, svc *server.Services, writers []*writer) {
	t.Helper()
	for _, w := range writers {
		var ids []uuid.UUID
		require.NoError(t, svc.DB.Raw("select f.id from flights f join aircraft a on a.id = f.aircraft_id where a.serial = ?",
			w.serial).Scan(&ids).Error)
		have := map[uuid.UUID]bool{}
		for _, id := range ids {
			have[id] = true
		}
		for _, id := range w.acked {
			assert.True(t, have[id], "an acknowledged flight is lost")
		}
		var sums struct{ Counted, Flights, Used, Recorded int }
		require.NoError(t, svc.DB.Raw(`select a.flights as counted, (select count(*) from flights f where f.aircraft_id = a.id) as flights,
			(select count(*) from flight_use u where u.thing_id = a.id) as used, (select count(*) from records r where r.kind = 'flight' and r.subject = a.id) as recorded from aircraft a where a.serial = ?`, w.serial).Scan(&sums).Error)
		assert.Equal(t, struct{ Counted, Flights, Used, Recorded int }{len(ids), len(ids), len(ids), len(ids)}, sums,
			"nothing is there twice, or by half")
		for _, said := range w.heads[max(0, len(w.heads)-3):] {
			h, err := records.ParseHead(said)
			require.NoError(t, err)
			res, err := records.Verify(context.Background(), svc.DB, records.Check{Head: &h})
			require.NoError(t, err)
			require.True(t, res.OK(), res.Sentence())
		}
	}
}
