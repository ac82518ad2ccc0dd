// Package charger is a stand-in for a charger on the network: a small HTTP
// server that charges simulated packs over time and reports each cell. Faults
// can be switched on. It ships with the program for trying and for tests; its
// form of talking is described in docs/formats.md.
package charger

import (
	"encoding/json"
	"math"
	"net/http"
	"strconv"
	"sync"
	"time"
)

// Phases of a channel.
const (
	Idle     = "idle"
	Charging = "charging"
	Done     = "done"
	Fault    = "fault"
)

// Start is what a channel is told.
type Start struct {
	Session     string  `json:"session"` // names this charge
	Pack        string  `json:"pack"`    // label, for the display
	Cells       int     `json:"cells"`
	CapacityMAh float64 `json:"capacity_mah"`
	FullMV      int     `json:"full_mv"`
	EmptyMV     int     `json:"empty_mv"`
	FromPercent float64 `json:"from_percent"`
	ToPercent   float64 `json:"to_percent"` // lower than from: it discharges
	Watts       float64 `json:"watts"`
}

// Channel is what a channel reports.
type Channel struct {
	Channel      int       `json:"channel"`
	Phase        string    `json:"phase"`
	Session      string    `json:"session"`
	Pack         string    `json:"pack"`
	Percent      float64   `json:"percent"`
	CellMV       []int     `json:"cell_mv"`
	MilliOhm     []float64 `json:"cell_mohm"`
	TemperatureC float64   `json:"temperature_c"`
	MAhIn        float64   `json:"mah_in"`
	MAhOut       float64   `json:"mah_out"`
	Message      string    `json:"message"`
}

// Faults are what can be switched on.
type Faults struct {
	Unreachable bool `json:"unreachable"`  // answers 503
	MissingCell bool `json:"missing_cell"` // leaves the last cell out
	Overheat    bool `json:"overheat"`     // the pack gets hotter than 45 degC and the channel stops
	WeakCell    int  `json:"weak_cell"`    // this cell, from 1, stays 150 mV behind
	Nonsense    bool `json:"nonsense"`     // answers what is not JSON
}

type channel struct {
	start   Start
	phase   string
	begun   time.Time
	stopped time.Time
	message string
}

// Charger is the stand-in. Speed is how many times faster than the clock it
// charges; Now is its clock.
type Charger struct {
	Speed float64
	Now   func() time.Time

	mu       sync.Mutex
	channels []channel
	faults   Faults
}

// New makes a charger with idle channels.
func New(channels int, speed float64, now func() time.Time) *Charger {
	c := &Charger{Speed: speed, Now: now, channels: make([]channel, channels)}
	for i := range c.channels {
		c.channels[i].phase = Idle
	}
	return c
}

// Set switches faults on or off.
func (c *Charger) Set(f Faults) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.faults = f
}

// ServeHTTP answers GET /channels, POST /channels/{n}/start, POST
// /channels/{n}/stop, and GET and PUT /faults.
func (c *Charger) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	c.mu.Lock()
	defer c.mu.Unlock()
	mux := http.NewServeMux()
	mux.HandleFunc("GET /channels", c.list)
	mux.HandleFunc("POST /channels/{n}/start", c.begin)
	mux.HandleFunc("POST /channels/{n}/stop", c.end)
	mux.HandleFunc("GET /faults", func(w http.ResponseWriter, _ *http.Request) { answer(w, c.faults) })
	mux.HandleFunc("PUT /faults", func(w http.ResponseWriter, r *http.Request) {
		var f Faults
		if err := json.NewDecoder(http.MaxBytesReader(w, r.Body, 4096)).Decode(&f); err != nil {
			http.Error(w, "not JSON", http.StatusBadRequest)
			return
		}
		c.faults = f
		answer(w, f)
	})
	if c.faults.Unreachable && r.URL.Path != "/faults" {
		http.Error(w, "busy", http.StatusServiceUnavailable)
		return
	}
	mux.ServeHTTP(w, r)
}

func answer(w http.ResponseWriter, v any) {
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(v)
}

func (c *Charger) list(w http.ResponseWriter, _ *http.Request) {
	if c.faults.Nonsense {
		_, _ = w.Write([]byte("<html>welcome</html>"))
		return
	}
	out := []Channel{}
	for i := range c.channels {
		out = append(out, c.report(i))
	}
	answer(w, map[string]any{"channels": out})
}

func (c *Charger) at(w http.ResponseWriter, r *http.Request) (int, bool) {
	n, err := strconv.Atoi(r.PathValue("n"))
	if err != nil || n < 1 || n > len(c.channels) {
		http.Error(w, "no such channel", http.StatusNotFound)
		return 0, false
	}
	return n - 1, true
}

func (c *Charger) begin(w http.ResponseWriter, r *http.Request) {
	i, ok := c.at(w, r)
	if !ok {
		return
	}
	var s Start
	if err := json.NewDecoder(http.MaxBytesReader(w, r.Body, 4096)).Decode(&s); err != nil || s.Cells < 1 ||
		s.Cells > 24 || s.CapacityMAh <= 0 || s.Session == "" {
		http.Error(w, "start not usable", http.StatusBadRequest)
		return
	}
	if ch := c.channels[i]; ch.phase == Charging && ch.start.Session != s.Session {
		http.Error(w, "channel in use", http.StatusConflict)
		return
	} else if ch.start.Session != s.Session {
		c.channels[i] = channel{start: s, phase: Charging, begun: c.Now()}
	}
	answer(w, c.report(i))
}

func (c *Charger) end(w http.ResponseWriter, r *http.Request) {
	i, ok := c.at(w, r)
	if !ok {
		return
	}
	c.report(i)
	c.channels[i] = channel{phase: Idle}
	answer(w, c.report(i))
}

// report works out where a channel stands now. Full power to 80 percent, then
// falling in a straight line to a fifth at 100.
func (c *Charger) report(i int) Channel {
	ch := &c.channels[i]
	out := Channel{Channel: i + 1, Phase: ch.phase, Session: ch.start.Session, Pack: ch.start.Pack, CellMV: []int{},
		MilliOhm: []float64{}, Message: ch.message}
	if ch.phase == Idle {
		return out
	}
	s := ch.start
	now := c.Now()
	if ch.phase != Charging {
		now = ch.stopped
	}
	hours := now.Sub(ch.begun).Hours() * c.Speed
	percent := s.advance(hours)
	out.TemperatureC = 22 + 10*math.Min(hours, 1)
	if ch.phase == Charging {
		switch {
		case c.faults.Overheat && hours > 0.05:
			ch.phase, ch.stopped, ch.message = Fault, now, "Pack over 45 degC, charge stopped."
			out.TemperatureC = 47
		case math.Abs(percent-s.ToPercent) < 0.01:
			ch.phase, ch.stopped = Done, now
		}
	}
	if ch.phase == Fault {
		out.TemperatureC = 47
	}
	out.Phase, out.Message, out.Percent = ch.phase, ch.message, math.Round(percent*10)/10
	moved := (percent - s.FromPercent) / 100 * s.CapacityMAh
	out.MAhIn, out.MAhOut = math.Round(max(moved, 0)), math.Round(max(-moved, 0))
	for k := range s.Cells {
		mv := float64(s.EmptyMV) + float64(s.FullMV-s.EmptyMV)*math.Pow(percent/100, 0.8) - float64(k%3)
		if c.faults.WeakCell == k+1 {
			mv -= 150
		}
		out.CellMV = append(out.CellMV, int(math.Round(mv)))
		out.MilliOhm = append(out.MilliOhm, math.Round((1.5+40000/s.CapacityMAh+float64(k%4)*0.03)*100)/100)
	}
	if c.faults.MissingCell {
		out.CellMV = out.CellMV[:len(out.CellMV)-1]
	}
	return out
}

// advance steps the charge forward.
func (s Start) advance(hours float64) float64 {
	perHour := 100.0 // percent of capacity at one C
	if s.Watts > 0 {
		perHour = s.Watts / (s.CapacityMAh / 1000 * 3.75 * float64(s.Cells)) * 100
	}
	p := s.FromPercent
	if s.ToPercent < p {
		return math.Max(p-perHour*hours, s.ToPercent)
	}
	if toEighty := math.Max(0, math.Min(s.ToPercent, 80)-p) / perHour; hours <= toEighty {
		return p + perHour*hours
	} else if p < 80 {
		hours -= toEighty
		p = 80
	}
	// dp/dt = perHour (1 - 0.8 (p-80)/20): the distance from 105 falls exponentially.
	p = 105 - (105-p)*math.Exp(-perHour*0.04*hours)
	return math.Min(p, s.ToPercent)
}
