// Package desk is a stand-in for an airspace desk: a small HTTP server that
// knows the made-up zones of the demo district, takes requests for
// authorisation, answers them after a delay, and takes the calls at start and
// end. Faults can be switched on. Its form of talking is described in
// docs/formats.md.
package desk

import (
	"encoding/json"
	"fmt"
	"net/http"
	"sync"
	"time"
)

// Faults are what can be switched on.
type Faults struct {
	Unreachable bool `json:"unreachable"` // answers 503
	Nonsense    bool `json:"nonsense"`    // answers what is no JSON
	Refuse      bool `json:"refuse"`      // refuses every request
	DelayS      int  `json:"delay_s"`     // how long a request waits for its answer
	Silent      bool `json:"silent"`      // never answers a request
	Lower       bool `json:"lower"`       // grants half the height that was asked for
	Fire        bool `json:"fire"`        // a temporary area round the pumping station
	Swapped     bool `json:"swapped"`     // gives latitude before longitude
}

// Request for an authorisation.
type Request struct {
	Ref      string    `json:"ref"`
	Zone     string    `json:"zone"`
	CeilingM float64   `json:"ceiling_m"`
	From     time.Time `json:"from"`
	To       time.Time `json:"to"`
	State    string    `json:"state"` // pending, granted, refused
	Number   string    `json:"number,omitempty"`
	Why      string    `json:"why,omitempty"`

	at time.Time
}

// Call at start or end.
type Call struct {
	Number string    `json:"number"`
	Kind   string    `json:"kind"` // start, end
	At     time.Time `json:"at"`
}

// Desk is the stand-in; Now is its clock.
type Desk struct {
	Now func() time.Time

	mu       sync.Mutex
	faults   Faults
	requests map[string]*Request
	calls    []Call
}

// New makes a desk that answers after 20 seconds.
func New(now func() time.Time) *Desk {
	return &Desk{Now: now, faults: Faults{DelayS: 20}, requests: map[string]*Request{}}
}

// Set switches faults.
func (d *Desk) Set(f Faults) {
	d.mu.Lock()
	defer d.mu.Unlock()
	d.faults = f
}

// Calls are those taken so far.
func (d *Desk) Calls() []Call {
	d.mu.Lock()
	defer d.mu.Unlock()
	return append([]Call{}, d.calls...)
}

// ServeHTTP answers GET /zones, POST /requests, GET /requests/{ref}, POST
// /calls, and GET and PUT /faults.
func (d *Desk) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	d.mu.Lock()
	defer d.mu.Unlock()
	switch {
	case r.URL.Path == "/faults":
	case d.faults.Unreachable:
		http.Error(w, "down", http.StatusServiceUnavailable)
		return
	case d.faults.Nonsense:
		_, _ = w.Write([]byte("<html>hello</html>"))
		return
	}
	mux := http.NewServeMux()
	mux.HandleFunc("GET /zones", func(w http.ResponseWriter,
		r *http.Request) {
		answer(w, http.StatusOK, d.zones(asked(r)))
	})
	mux.HandleFunc("POST /requests", d.take)
	mux.HandleFunc("GET /requests/{ref}", func(w http.ResponseWriter, r *http.Request) {
		q := d.requests[r.PathValue("ref")]
		if q == nil {
			http.Error(w, "no such request", http.StatusNotFound)
			return
		}
		d.decide(q)
		answer(w, http.StatusOK, q)
	})
	mux.HandleFunc("POST /calls", func(w http.ResponseWriter, r *http.Request) {
		var c Call
		if !read(w, r, &c) {
			return
		}
		if c.Number == "" || c.Kind != "start" && c.Kind != "end" {
			http.Error(w, "a call names an authorisation and start or end", http.StatusUnprocessableEntity)
			return
		}
		c.At = d.Now().UTC()
		d.calls = append(d.calls, c)
		answer(w, http.StatusOK, c)
	})
	mux.HandleFunc("GET /faults", func(w http.ResponseWriter, _ *http.Request) { answer(w, http.StatusOK, d.faults) })
	mux.HandleFunc("PUT /faults", func(w http.ResponseWriter, r *http.Request) {
		var f Faults
		if read(w, r, &f) {
			d.faults = f
			answer(w, http.StatusOK, f)
		}
	})
	mux.ServeHTTP(w, r)
}

func (d *Desk) take(w http.ResponseWriter, r *http.Request) {
	var q Request
	if !read(w, r, &q) {
		return
	}
	if q.Ref == "" || q.Zone == "" || q.CeilingM <= 0 || !q.To.After(q.From) {
		http.Error(w, "a request names its reference, zone, ceiling and window", http.StatusUnprocessableEntity)
		return
	}
	if old := d.requests[q.Ref]; old != nil { // the same request sent twice is one
		d.decide(old)
		answer(w, http.StatusOK, old)
		return
	}
	q.State, q.at, q.Number, q.Why = "pending", d.Now(), "", ""
	d.requests[q.Ref] = &q
	d.decide(&q)
	answer(w, http.StatusOK, q)
}

// decide answers a request once its delay is over.
func (d *Desk) decide(q *Request) {
	if q.State != "pending" || d.faults.Silent || d.Now().Sub(q.at) < time.Duration(d.faults.DelayS)*time.Second {
		return
	}
	switch {
	case d.faults.Refuse:
		q.State, q.Why = "refused", "Traffic in the zone at that time."
	case q.CeilingM > 120:
		q.State, q.Why = "refused", "Over 120 m is not granted here."
	default:
		q.State, q.Number = "granted", fmt.Sprintf("TD-%04d", 1100+len(d.requests))
		if d.faults.Lower {
			q.CeilingM /= 2
		}
	}
}

func read(w http.ResponseWriter, r *http.Request, v any) bool {
	if err := json.NewDecoder(http.MaxBytesReader(w, r.Body, 4096)).Decode(v); err != nil {
		http.Error(w, "not JSON", http.StatusBadRequest)
		return false
	}
	return true
}

func answer(w http.ResponseWriter, status int, v any) {
	w.Header().Set("Content-Type", "application/json")
	w.WriteHeader(status)
	_ = json.NewEncoder(w).Encode(v)
}
