package main_test

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/internal/flights"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

var binary string

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "mainstay")
	if err == nil {
		binary = filepath.Join(dir, "mainstay")
		var out []byte
		if out, err = exec.Command("go", "build", "-o", binary, ".").CombinedOutput(); err != nil {
			err = fmt.Errorf("%w: %s", err, out)
		}
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	code := m.Run()
	_ = os.RemoveAll(dir)
	os.Exit(code)
}

// process is the real program as its own process.
type process struct {
	cmd  *exec.Cmd
	base string
}

func start(t *testing.T, s *testbed.Stage) *process {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	address := l.Addr().String()
	require.NoError(t, l.Close())
	p := &process{cmd: exec.Command(binary, "serve"), base: "http://" + address}
	p.cmd.Env = append(os.Environ(), "DATABASE_URL="+s.URL, "MAINSTAY_ADDRESS="+address, "MAINSTAY_PHOTOS="+t.TempDir(),
		"MAINSTAY_CLOCK="+s.Clock.Now().Add(time.Minute).Format(time.RFC3339))
	require.NoError(t, p.cmd.Start())
	t.Cleanup(p.kill)
	require.Eventually(t, func() bool {
		res, err := http.Get(p.base + "/readyz")
		if err != nil {
			return false
		}
		_ = res.Body.Close()
		return res.StatusCode == http.StatusOK
	}, 20*time.Second, 20*time.Millisecond)
	return p
}

// kill is SIGKILL: nothing is finished, nothing is said.
func (p *process) kill() {
	_ = p.cmd.Process.Kill()
	_ = p.cmd.Wait()
}

// landed brings the stage's aircraft to a flight that waits to be logged.
func landed(t *testing.T, s *testbed.Stage) flights.Flight {
	pk := s.Packs[0].ID
	s.Charge(pk)
	s.Walk(checks.Full, []uuid.UUID{pk}, nil)
	r, err := s.Release(s.Pilot, pk)
	require.NoError(t, err)
	ctx := s.As(s.Pilot)
	f, err := s.Flights.TakeOff(ctx, testbed.NewID(), r.ID, nil)
	require.NoError(t, err)
	s.Clock.Advance(10 * time.Minute)
	f, err = s.Flights.Land(ctx, f.ID)
	require.NoError(t, err)
	return f
}

func body(f flights.Flight) map[string]any {
	return map[string]any{"landings": 1, "warmth_c": []float64{40, 40, 41, 40}, "remarks": "",
		"packs": []map[string]any{{"pack_id": f.PackIDs[0], "percent": 33, "cell_mv": nil, "temperature_c": 35}}}
}

// send logs a flight; no answer may come, but never a refusal.
func send(t *testing.T, base, cookie string, f flights.Flight) {
	b, err := json.Marshal(body(f))
	if err != nil {
		return
	}
	req, err := http.NewRequest(http.MethodPost, base+"/api/v1/flights/"+f.ID.String()+"/log", bytes.NewReader(b))
	if err != nil {
		return
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Cookie", cookie)
	if res, err := http.DefaultClient.Do(req); err == nil {
		_ = res.Body.Close()
		assert.Equal(t, http.StatusOK, res.StatusCode)
	}
}

func signIn(t *testing.T, base string) string {
	res, err := http.Post(base+"/api/v1/session", "application/json",
		strings.NewReader(`{"login":"pilot","password":"long enough"}`))
	require.NoError(t, err)
	_ = res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode)
	var cookies []string
	for _, c := range res.Cookies() {
		cookies = append(cookies, c.Name+"="+c.Value)
	}
	return strings.Join(cookies, "; ")
}

// consistent holds what is in the database against itself: a flight is either
// logged with record, ledger and counters, or nothing of it is there.
func consistent(t *testing.T, s *testbed.Stage, f flights.Flight) (logged bool) {
	t.Helper()
	got, err := s.Flights.Flight(context.Background(), f.ID)
	require.NoError(t, err)
	logged = got.State == "logged"
	want := int64(0)
	if logged {
		want = 1
	}
	for what, sql := range map[string]string{
		"records": "select count(*) from records where kind = 'flight' and content like '%' || ? || '%'",
		"ledger":  "select count(*) from flight_use where thing = 'aircraft' and flight_id = ?::uuid",
	} {
		var n int64
		require.NoError(t, s.DB.Raw(sql, f.ID.String()).Scan(&n).Error)
		assert.Equal(t, want, n, what)
	}
	for table, thing := range map[string]string{"parts": "part", "aircraft": "aircraft", "packs": "pack"} {
		var wrong int64
		require.NoError(t, s.DB.Raw("select count(*) from "+table+" x where seconds <> (select coalesce(sum(u.seconds), 0) from flight_use u where u.thing = ? and u.thing_id = x.id)",
			thing).Scan(&wrong).Error)
		assert.Zero(t, wrong, table)
	}
	res, err := records.Verify(context.Background(), s.DB, records.Check{})
	require.NoError(t, err)
	assert.Zero(t, res.FirstBad, res.Why)
	return logged
}

// The server is killed in the middle of writing a log: the record, the flight
// and half of the counters are written, one part is held back. Nothing of it
// stays; after a restart the same log goes through once.
func TestKilledInTheMiddleOfALog(t *testing.T) {
	s := testbed.NewStage(t)
	f := landed(t, s)
	p := start(t, s)
	cookie := signIn(t, p.base)
	other, err := sql.Open("pgx", s.URL)
	require.NoError(t, err)
	defer func() { _ = other.Close() }()
	hold, err := other.BeginTx(context.Background(), nil)
	require.NoError(t, err)
	_, err = hold.Exec("select 1 from parts where aircraft_id = $1 and station = 'motor-4' for update", s.Aircraft.ID)
	require.NoError(t, err)
	go send(t, p.base, cookie, f)
	require.Eventually(t, func() bool {
		var n int64
		err := s.DB.Raw("select count(*) from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock' and query like 'update parts%'").Scan(&n).Error
		return err == nil && n == 1
	}, 20*time.Second, 10*time.Millisecond, "the log waits for the part")
	p.kill()
	require.NoError(t, hold.Rollback())
	require.Eventually(t, func() bool {
		var n int64
		err := s.DB.Raw("select count(*) from pg_stat_activity where datname = current_database() and state <> 'idle' and pid <> pg_backend_pid()").Scan(&n).Error
		return err == nil && n == 0
	}, 20*time.Second, 10*time.Millisecond, "the database has cleaned up")
	assert.False(t, consistent(t, s, f), "nothing of the log is left")

	p = start(t, s)
	c := testbed.NewClient(t, p.base).SignIn("pilot", "long enough")
	for range 2 {
		a := c.Do(http.MethodPost, "/flights/"+f.ID.String()+"/log", body(f))
		require.Equal(t, http.StatusOK, a.Status, a.Text())
	}
	assert.True(t, consistent(t, s, f), "sent twice after the restart, it is there once")
}

// Killed at any moment, the log is whole or absent.
func TestKilledAtAnyMoment(t *testing.T) {
	s := testbed.NewStage(t)
	r := rand.New(rand.NewPCG(1, 2))
	saved := 0
	for range 6 {
		f := landed(t, s)
		p := start(t, s)
		cookie := signIn(t, p.base)
		go send(t, p.base, cookie, f)
		time.Sleep(time.Duration(r.IntN(40)) * time.Millisecond) // the moment is the test: no signal to wait for
		p.kill()
		require.Eventually(t, func() bool {
			var n int64
			err := s.DB.Raw("select count(*) from pg_stat_activity where datname = current_database() and state <> 'idle' and pid <> pg_backend_pid()").Scan(&n).Error
			return err == nil && n == 0
		}, 20*time.Second, 10*time.Millisecond)
		if consistent(t, s, f) {
			saved++
		} else {
			_, err := s.Flights.Log(s.As(s.Pilot), f.ID, testbed.Landed(f))
			require.NoError(t, err)
		}
		s.Clock.Advance(5 * time.Minute)
	}
	t.Logf("6 kills of the server in the middle of a log: %d were saved whole, %d not at all, none by half", saved,
		6-saved)
}

// Stopped in good order, the server ends although screens listen to it.
func TestStopsWithOpenScreens(t *testing.T) {
	s := testbed.NewStage(t)
	p := start(t, s)
	req, err := http.NewRequest(http.MethodGet, p.base+"/api/v1/changes", nil)
	require.NoError(t, err)
	req.Header.Set("Cookie", signIn(t, p.base))
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer func() { _ = res.Body.Close() }()
	require.Equal(t, http.StatusOK, res.StatusCode)
	ended := make(chan error, 1)
	require.NoError(t, p.cmd.Process.Signal(syscall.SIGTERM))
	go func() { ended <- p.cmd.Wait() }()
	select {
	case err := <-ended:
		assert.NoError(t, err, "exit code 0")
	case <-time.After(15 * time.Second):
		t.Fatal("it still waits for the screens")
	}
}

func TestCommandsSayWhatIsWrong(t *testing.T) {
	s := testbed.NewStage(t)
	run := func(env []string, args ...string) string {
		cmd := exec.Command(binary, args...)
		cmd.Env = append([]string{"HOME=" + t.TempDir(), "PATH=" + os.Getenv("PATH")}, env...)
		out, _ := cmd.CombinedOutput()
		return string(out)
	}
	assert.Contains(t, run(nil, "serve"), "DATABASE_URL")
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = l.Close() }()
	assert.Contains(t, run([]string{"DATABASE_URL=" + s.URL, "MAINSTAY_ADDRESS=" + l.Addr().String()}, "serve"),
		"in use by another program")
	assert.Contains(t, run([]string{"DATABASE_URL=" + s.URL}, "reset-password", "nobody-here"), "does not exist")
	assert.Contains(t, run([]string{"DATABASE_URL=" + s.URL}, "reset-password", s.Chief.Login),
		"One-time password of "+s.Chief.Login)
	var once, by string
	require.NoError(t, s.DB.Raw("select once from people where id = ?", s.Chief.ID).Scan(&once).Error)
	assert.Equal(t, "reset", once)
	require.NoError(t, s.DB.Raw("select by_name from records order by seq desc limit 1").Scan(&by).Error)
	assert.Contains(t, by, "Whoever runs the server")
	assert.Contains(t, run([]string{"DATABASE_URL=" + s.URL}, "verify"), "records hold")
	require.NoError(t, s.DB.Exec("alter table records disable trigger user").Error)
	require.NoError(t, s.DB.Exec("update records set summary = 'x' where seq = 1").Error)
	assert.Contains(t, run([]string{"DATABASE_URL=" + s.URL}, "verify"), "Record 1 does not hold")
	require.NoError(t, s.DB.Exec("delete from goose_db_version where version_id = (select max(version_id) from goose_db_version)").Error)
	assert.Contains(t, run([]string{"DATABASE_URL=" + s.URL, "MAINSTAY_ADDRESS=127.0.0.1:0"}, "serve"), "mainstay migrate")
}
