// Package aircraft is a stand-in for a link to aircraft: a small HTTP server behind which
// simulated aircraft keep missions, fly them in simulated time, and take pictures. Faults
// can be switched on. It ships with the program for trying and for tests; its form of
// talking is described in docs/protocols/aircraft.json.
package aircraft

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"sync"
	"time"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mission"
)

// Faults are what can be switched on, for all aircraft of the link.
type Faults struct {
	Unreachable bool   `json:"unreachable"`   // answers 503
	Nonsense    bool   `json:"nonsense"`      // answers what is not JSON
	Stale       bool   `json:"stale_mission"` // takes a mission and keeps the one of before
	Dropped     int    `json:"dropped_item"`  // loses this waypoint, from 1
	Swapped     int    `json:"swapped_items"` // swaps this waypoint with the next
	WrongHome   bool   `json:"wrong_home"`    // 180 m to the east
	OtherDatum  bool   `json:"other_datum"`   // counts heights from the sea
	WeakCell    int    `json:"weak_cell"`     // this cell, from 1, is 140 mV behind
	WarmMotor   int    `json:"warm_motor"`    // this motor, from 1, is 25 degC over its sisters
	CompassOff  bool   `json:"compass_off"`   // by 20 degrees
	LowCell     int    `json:"low_cell"`      // its first cell shows so many mV
	HomeOff     bool   `json:"home_off"`      // remembers a home 180 m to the east
	NoFix       bool   `json:"no_fix"`        // its corrections do not come
	Warns       string `json:"warns"`         // it warns of this
	WrongMode   bool   `json:"wrong_mode"`    // is in another mode than its switch says
	ReturnM     int    `json:"return_m"`      // yesterday's return height; 0: as usual
	CardFull    bool   `json:"card_full"`     // no room for a picture
	LinkLost    bool   `json:"link_lost"`     // answers nothing for a minute of its time
	CameraSkips int    `json:"camera_skips"`  // so many pictures of each line from the middle on are not taken
	DiesAfter   int    `json:"dies_after"`    // an upload breaks off after so many waypoints
	Most        int    `json:"most"`          // waypoints that it takes; 0: 5000
}

// Craft is one simulated aircraft.
type Craft struct {
	Serial string
	Motors int
	Cells  int
	At     geo.Point // where it stands
	Limits *Limits   // set in it; nil: it does not tell

	mission *mission.Mission
	flight  *flight
}

// Link is the stand-in. Speed is how many times faster than the clock it flies; Now is its
// clock.
type Link struct {
	Speed float64
	Now   func() time.Time
	Wind  float64 // m/s; it drains the packs

	mu     sync.Mutex
	crafts []*Craft
	faults Faults
	lostAt time.Time
}

// New makes a link that reaches aircraft on the ground.
func New(speed float64, now func() time.Time, crafts ...Craft) *Link {
	l := &Link{Speed: speed, Now: now, Wind: 3}
	for _, c := range crafts {
		l.crafts = append(l.crafts, &c)
	}
	return l
}

// Set switches faults on or off.
func (l *Link) Set(f Faults) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if f.LinkLost && !l.faults.LinkLost {
		l.lostAt = l.Now()
	}
	l.faults = f
}

// Load puts a mission into an aircraft, as one that was left in it.
func (l *Link) Load(serial string, m mission.Mission) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if c := l.find(serial); c != nil {
		c.mission = &m
	}
}

// Fly starts the stored mission, as the pilot does at the controller.
func (l *Link) Fly(serial string) error {
	l.mu.Lock()
	defer l.mu.Unlock()
	c := l.find(serial)
	if c == nil || c.mission == nil {
		return fmt.Errorf("%s holds no mission", serial)
	}
	c.flight = l.plan(c)
	return nil
}

func (l *Link) find(serial string) *Craft {
	i := slices.IndexFunc(l.crafts, func(c *Craft) bool { return c.Serial == serial })
	if i < 0 {
		return nil
	}
	return l.crafts[i]
}

// ServeHTTP answers what docs/protocols/aircraft.json says, and for the stand-in alone POST
// /aircraft/{serial}/fly, PUT /aircraft/{serial}/place, and GET and PUT /faults.
func (l *Link) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	l.mu.Lock()
	defer l.mu.Unlock()
	mux := http.NewServeMux()
	mux.HandleFunc("GET /aircraft", func(w http.ResponseWriter, _ *http.Request) {
		all := []map[string]string{}
		for _, c := range l.crafts {
			all = append(all, map[string]string{"serial": c.Serial})
		}
		answer(w, map[string]any{"aircraft": all})
	})
	for pattern, do := range map[string]func(http.ResponseWriter, *http.Request, *Craft){
		"GET /aircraft/{serial}/state": func(w http.ResponseWriter, _ *http.Request, c *Craft) { answer(w, l.state(c)) },
		"GET /aircraft/{serial}/mission": func(w http.ResponseWriter, _ *http.Request, c *Craft) {
			if c.mission == nil {
				w.WriteHeader(http.StatusNoContent)
				return
			}
			answer(w, c.mission)
		},
		"PUT /aircraft/{serial}/mission": l.store,
		"GET /aircraft/{serial}/pictures": func(w http.ResponseWriter, _ *http.Request, c *Craft) {
			answer(w, map[string]any{"pictures": l.pictures(c)})
		},
		"POST /aircraft/{serial}/fly": func(w http.ResponseWriter, _ *http.Request, c *Craft) {
			if c.mission == nil {
				http.Error(w, "it holds no mission", http.StatusConflict)
				return
			}
			c.flight = l.plan(c)
			answer(w, l.state(c))
		},
		"PUT /aircraft/{serial}/place": func(w http.ResponseWriter, r *http.Request, c *Craft) {
			var p geo.Point
			if !read(w, r, &p) {
				return
			}
			c.At = p
			answer(w, l.state(c))
		},
	} {
		mux.HandleFunc(pattern, func(w http.ResponseWriter, r *http.Request) {
			c := l.find(r.PathValue("serial"))
			if c == nil {
				http.Error(w, "this aircraft is not reached", http.StatusNotFound)
				return
			}
			do(w, r, c)
		})
	}
	mux.HandleFunc("GET /faults", func(w http.ResponseWriter, _ *http.Request) { answer(w, l.faults) })
	mux.HandleFunc("PUT /faults", func(w http.ResponseWriter, r *http.Request) {
		var f Faults
		if !read(w, r, &f) {
			return
		}
		if f.LinkLost && !l.faults.LinkLost {
			l.lostAt = l.Now()
		}
		l.faults = f
		answer(w, f)
	})
	lost := l.faults.LinkLost && l.Now().Sub(l.lostAt).Seconds()*l.Speed < 60
	switch {
	case r.URL.Path == "/faults":
	case l.faults.Unreachable || lost:
		http.Error(w, "no link", http.StatusServiceUnavailable)
		return
	case l.faults.Nonsense:
		_, _ = w.Write([]byte("<html>welcome</html>"))
		return
	}
	mux.ServeHTTP(w, r)
}

func answer(w http.ResponseWriter, v any) {
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(v)
}

func read(w http.ResponseWriter, r *http.Request, into any) bool {
	if err := json.NewDecoder(http.MaxBytesReader(w, r.Body, 8<<20)).Decode(into); err != nil {
		http.Error(w, "not JSON", http.StatusBadRequest)
		return false
	}
	return true
}

// mostItems is how many waypoints an aircraft takes.
const mostItems = 5000

// store keeps a mission, with what the faults do to it.
func (l *Link) store(w http.ResponseWriter, r *http.Request, c *Craft) {
	var m mission.Mission
	if !read(w, r, &m) {
		return
	}
	if err := m.Check(); err != nil {
		http.Error(w, err.Error(), http.StatusBadRequest)
		return
	}
	most := mostItems
	if l.faults.Most > 0 {
		most = l.faults.Most
	}
	switch f := l.faults; {
	case c.flight != nil && l.elapsed(c) < c.flight.seconds:
		http.Error(w, "it is flying", http.StatusConflict)
		return
	case len(m.Items) > most:
		http.Error(w, fmt.Sprintf("it takes %d waypoints", most), http.StatusRequestEntityTooLarge)
		return
	case f.DiesAfter > 0:
		m.Items = m.Items[:min(f.DiesAfter, len(m.Items))]
		c.mission = &m // half of it is in there
		if h, ok := w.(http.Hijacker); ok {
			if conn, _, err := h.Hijack(); err == nil {
				_ = conn.Close()
			}
		}
		return
	case f.Stale && c.mission != nil:
		w.WriteHeader(http.StatusNoContent)
		return
	}
	l.spoil(&m)
	c.mission = &m
	w.WriteHeader(http.StatusNoContent)
}

func (l *Link) spoil(m *mission.Mission) {
	f := l.faults
	m.Items = slices.Clone(m.Items)
	if i := f.Dropped; i > 0 && i <= len(m.Items) && len(m.Items) > 1 {
		m.Items = slices.Delete(m.Items, i-1, i)
	}
	if i := f.Swapped; i > 0 && i < len(m.Items) {
		m.Items[i-1], m.Items[i] = m.Items[i], m.Items[i-1]
	}
	if f.WrongHome && m.Home != nil {
		m.Home = &geo.Point{Lat: m.Home.Lat, Lon: m.Home.Lon + 0.00235}
	}
	if f.OtherDatum {
		m.Datum = intent.AboveSea
	}
}
