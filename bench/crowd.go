package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"runtime"
	"slices"
	"strings"
	"sync"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/web"
)

// The crowd: so many people at once for so long.
const (
	crowdSize = 50
	crowdFor  = 60 * time.Second
)

// peak watches the memory of this process until it is stopped, and returns the
// most that was in use, in bytes.
func peak() (stop func() uint64) {
	done, out := make(chan struct{}), make(chan uint64)
	runtime.GC()
	go func() {
		var most uint64
		for {
			var m runtime.MemStats
			runtime.ReadMemStats(&m)
			most = max(most, m.HeapInuse+m.StackInuse)
			select {
			case <-done:
				out <- most
				return
			case <-time.After(10 * time.Millisecond):
			}
		}
	}()
	return func() uint64 { close(done); return <-out }
}

type device struct {
	http *http.Client
	base string
}

func (d device) do(ctx context.Context, method, path, kind string, body []byte) (int, []byte, error) {
	req, err := http.NewRequestWithContext(ctx, method, d.base+"/api/v1"+path, bytes.NewReader(body))
	if err != nil {
		return 0, nil, err
	}
	req.Header.Set("Content-Type", kind)
	res, err := d.http.Do(req)
	if err != nil {
		return 0, nil, err
	}
	defer func() { _ = res.Body.Close() }()
	b, err := io.ReadAll(res.Body)
	return res.StatusCode, b, err
}

func signedIn(ctx context.Context, base, login string) (device, error) {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return device{}, err
	}
	d := device{&http.Client{Jar: jar}, base}
	status, b, err := d.do(ctx, http.MethodPost, "/session", "application/json",
		[]byte(`{"login":"`+login+`","password":"`+demo.Password+`"}`))
	if err == nil && status != http.StatusOK {
		err = fmt.Errorf("%s: %d %s", login, status, b)
	}
	return d, err
}

// serveAnew opens the demo year once more, as a server of its own would, with
// the real cost of passwords.
func serveAnew() (base string, done func(), err error) {
	g, err := records.Open(os.Getenv("DATABASE_URL"), db.Options{})
	if err != nil {
		return "", nil, err
	}
	h, err := server.New(server.NewServices(g, clock.From(time.Date(2026, 6, 10, 16, 40, 0, 0, time.UTC)),
		&photos.Memory{}), server.Options{Web: web.Files(), Log: slog.New(slog.DiscardHandler), PerMinute: 1 << 40})
	if err != nil {
		return "", nil, err
	}
	s := httptest.NewServer(h)
	return s.URL, func() { s.Close(); db.Close(g) }, nil
}

// crowd has fifty people look, judge and write for a minute.
func crowd(ctx context.Context, w *tabwriter.Writer) error {
	base, done, err := serveAnew()
	if err != nil {
		return err
	}
	defer done()
	memory := peak()
	began := time.Now()
	var mu sync.Mutex
	var took []time.Duration
	statuses := map[int]int{}
	var all sync.WaitGroup
	errs := make(chan error, crowdSize)
	logins := []string{"imre", "odile", "tamsin", "bao", "rhea"}
	for i := range crowdSize {
		all.Go(func() {
			d, err := signedIn(ctx, base, logins[i%len(logins)])
			if err != nil {
				errs <- err
				return
			}
			for n := 0; time.Since(began) < crowdFor; n++ {
				method, path, body := http.MethodGet, []string{"/day", "/aircraft", "/packs", "/records", "/log", "/jobs",
					"/people"}[rand.IntN(7)], []byte(nil)
				if n%5 == 0 {
					method, path = http.MethodPost, "/fitness"
					body, _ = json.Marshal(map[string]any{"id": uuid.New(), "against": []string{}})
				}
				t := time.Now()
				status, _, err := d.do(ctx, method, path, "application/json", body)
				if err != nil {
					errs <- err
					return
				}
				mu.Lock()
				took = append(took, time.Since(t))
				statuses[status]++
				mu.Unlock()
				time.Sleep(time.Duration(50+rand.IntN(100)) * time.Millisecond) // a quick hand
			}
		})
	}
	all.Wait()
	close(errs)
	for err := range errs {
		return err
	}
	slices.Sort(took)
	at := func(p int) string { return short(took[min(len(took)-1, len(took)*p/100)]) }
	fmt.Fprintf(w, "%d people for %v\t%s\t%s\tp99 %s\t%d requests\t%d MB\tstatus %v\t\t\n", crowdSize, crowdFor, at(50),
		at(95), at(99), len(took), memory()>>20, statuses)
	return nil
}

// uploads sends the worst files there are, one after the other.
func uploads(ctx context.Context, w *tabwriter.Writer) error {
	base, done, err := serveAnew()
	if err != nil {
		return err
	}
	defer done()
	d, err := signedIn(ctx, base, "imre")
	if err != nil {
		return err
	}
	_, b, err := d.do(ctx, http.MethodGet, "/sites", "", nil)
	if err != nil {
		return err
	}
	var sites struct{ Sites []struct{ ID uuid.UUID } }
	if err := json.Unmarshal(b, &sites); err != nil || len(sites.Sites) == 0 {
		return fmt.Errorf("no site to send to: %w", err)
	}
	site := "/sites/" + sites.Sites[0].ID.String()
	var picture bytes.Buffer
	if err := png.Encode(&picture, image.NewGray(image.Rect(0, 0, 7000, 7000))); err != nil {
		return err
	}
	head := "id,took_off_at,landed_at,aircraft_serial,pilot_login,packs,seconds,landings,purpose,remarks\n"
	for _, x := range []struct {
		name, path string
		body       []byte
	}{
		{"6 MB of commas as a log", "/log/import", bytes.Repeat([]byte(","), 6<<20)},
		{"60 MB of commas as a log", "/log/import", bytes.Repeat([]byte(","), 60<<20)},
		{"16 MB of lines that cannot be used", "/log/import", append([]byte(head), bytes.Repeat([]byte("x\n"), 7<<20)...)},
		{"90,000 lines about no aircraft", "/log/import", append([]byte(head),
			bytes.Repeat([]byte("01a21404-0000-7000-8000-000000000000,2026-01-01T10:00:00Z,2026-01-01T10:10:00Z,NONE,imre,,600,1,Work,\n"),
				90_000)...)},
		{"a charger's file of commas", "/packs/import", bytes.Repeat([]byte(","), 16<<20)},
		{"deep GeoJSON", site + "/import?format=geojson",
			[]byte(`{"type":"FeatureCollection","features":` + strings.Repeat("[", 4<<20))},
		{"10 MB of features that are none", site + "/import?format=geojson",
			[]byte(`{"type":"FeatureCollection","features":[` + strings.Repeat(`{},`, 3<<20) + `{}]}`)},
		{"a KML of one tag", site + "/import?format=kml",
			[]byte(`<kml xmlns="http://www.opengis.net/kml/2.2">` + strings.Repeat("<Folder>", 1<<20))},
		{"a grid of one line", site + "/terrain?name=x&sigma_m=1",
			append([]byte("ncols 9999999\nnrows 9999999\nxllcorner 0\nyllcorner 0\ncellsize 1\n"),
				bytes.Repeat([]byte("1 "), 10<<20)...)},
		{"a picture of 49 million pixels", "/photos?id=" + uuid.NewString(), picture.Bytes()},
	} {
		memory := peak()
		t := time.Now()
		status, answer, err := d.do(ctx, map[bool]string{true: http.MethodPut,
			false: http.MethodPost}[strings.Contains(x.path, "/terrain")], x.path, kindOf(x.path), x.body)
		most := memory() - min(uint64(len(x.body)), 1<<62)
		if err != nil { // the server hung up on a body that is too long
			status = 0
		}
		fmt.Fprintf(w, "%s (%d kB)\t%s\t\t\tstatus %d\tanswer %d B\t%d MB\t\t\n", x.name, len(x.body)>>10,
			short(time.Since(t)), status, len(answer), most>>20)
	}
	return nil
}

func kindOf(path string) string {
	if strings.HasPrefix(path, "/photos") || strings.Contains(path, "geojson") || strings.Contains(path, "kml") ||
		strings.Contains(path, "terrain") {
		return "application/octet-stream"
	}
	return "text/csv"
}
