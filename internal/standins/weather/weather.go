// Package weather is a stand-in for a weather service: a small HTTP server that
// makes up the report and the hourly forecast of the demo district. Scenarios
// and faults can be switched on. Its form of talking is described in
// docs/formats.md.
package weather

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"sync"
	"time"
)

// Scenarios that can be switched on.
const (
	Calm      = "calm"
	Gusty     = "gusty"
	Front     = "front passing"
	Fog       = "fog"
	Inversion = "inversion morning"
	Heat      = "heat"
)

// Scenarios lists them.
var Scenarios = []string{Calm, Gusty, Front, Fog, Inversion, Heat}

// Hour is the forecast of one hour.
type Hour struct {
	At          time.Time `json:"at"`
	WindMS      float64   `json:"wind_ms"` // at 10 m
	GustMS      float64   `json:"gust_ms"`
	FromDeg     float64   `json:"from_deg"`
	TempC       float64   `json:"temp_c"`
	DewC        float64   `json:"dew_c"`
	QNH         float64   `json:"qnh_hpa"`
	VisibilityM float64   `json:"visibility_m"`
	Cover       string    `json:"cover"`         // CLR, FEW, SCT, BKN, OVC
	CloudBaseFt *int      `json:"cloud_base_ft"` // above the station
	Rain        bool      `json:"rain"`
}

// Faults are what can be switched on.
type Faults struct {
	Scenario    string `json:"scenario"`
	Unreachable bool   `json:"unreachable"` // answers 503
	Stale       bool   `json:"stale"`       // reports three hours old
	Garbled     bool   `json:"garbled"`     // groups that cannot be read
	Nonsense    bool   `json:"nonsense"`    // answers what is neither
}

// StationElevationM and Station are of the made-up station; OffsetH is the
// district's solar time against UTC.
const (
	Station           = "KZZT"
	StationElevationM = 225.0
	StationLat        = 46.35
	StationLon        = -119.75
	OffsetH           = -8
)

// Service is the stand-in; Now is its clock.
type Service struct {
	Now func() time.Time

	mu     sync.Mutex
	faults Faults
}

// New makes a service with a calm day.
func New(now func() time.Time) *Service { return &Service{Now: now, faults: Faults{Scenario: Calm}} }

// Set switches scenario and faults.
func (s *Service) Set(f Faults) error {
	if f.Scenario == "" {
		f.Scenario = Calm
	}
	if !slices.Contains(Scenarios, f.Scenario) {
		return fmt.Errorf("scenario %q is none of %v", f.Scenario, Scenarios)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.faults = f
	return nil
}

// ServeHTTP answers GET /metar, GET /forecast, and GET and PUT /faults.
func (s *Service) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	s.mu.Lock()
	f := s.faults
	s.mu.Unlock()
	mux := http.NewServeMux()
	mux.HandleFunc("GET /metar", func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "text/plain; charset=utf-8")
		_, _ = fmt.Fprintln(w, s.report(f))
	})
	mux.HandleFunc("GET /forecast", func(w http.ResponseWriter, _ *http.Request) {
		from := s.Now().UTC().Truncate(time.Hour)
		var hours []Hour
		for i := range 36 {
			hours = append(hours, hour(f.Scenario, from.Add(time.Duration(i)*time.Hour)))
		}
		answer(w, map[string]any{"station_m": StationElevationM, "lat": StationLat, "lon": StationLon, "made_at": from,
			"hours": hours})
	})
	mux.HandleFunc("GET /faults", func(w http.ResponseWriter, _ *http.Request) { answer(w, f) })
	mux.HandleFunc("PUT /faults", func(w http.ResponseWriter, r *http.Request) {
		var n Faults
		if err := json.NewDecoder(http.MaxBytesReader(w, r.Body, 4096)).Decode(&n); err != nil {
			http.Error(w, "not JSON", http.StatusBadRequest)
			return
		}
		if err := s.Set(n); err != nil {
			http.Error(w, err.Error(), http.StatusBadRequest)
			return
		}
		answer(w, n)
	})
	switch {
	case r.URL.Path == "/faults":
	case f.Unreachable:
		http.Error(w, "down", http.StatusServiceUnavailable)
		return
	case f.Nonsense:
		_, _ = w.Write([]byte("<html>hello</html>"))
		return
	}
	mux.ServeHTTP(w, r)
}

func answer(w http.ResponseWriter, v any) {
	w.Header().Set("Content-Type", "application/json")
	_ = json.NewEncoder(w).Encode(v)
}

func at(v int) *int { return &v }

// hour makes up one hour of a scenario from the district's solar hour.
func hour(scenario string, t time.Time) Hour {
	h := float64(t.Hour()) + OffsetH
	if h < 0 {
		h += 24
	}
	day := math.Max(0, math.Sin((h-6)/12*math.Pi)) // 0 at night, 1 at noon
	round := func(v float64) float64 { return math.Round(v*10) / 10 }
	x := Hour{At: t, WindMS: 1.6 + 1.6*day, FromDeg: 240, TempC: 9 + 13*math.Max(0, math.Sin((h-8)/12*math.Pi)), DewC: 6,
		QNH: 1016, VisibilityM: 16000, Cover: "FEW", CloudBaseFt: at(6000)}
	x.GustMS = x.WindMS * 1.3
	switch scenario {
	case Gusty:
		x.WindMS, x.Cover, x.CloudBaseFt, x.FromDeg = 5+4*day, "SCT", at(4500), 250
		x.GustMS = x.WindMS * 1.6
	case Front:
		x.Cover, x.CloudBaseFt = "BKN", at(3500)
		if h >= 13 && h < 17 {
			x.WindMS, x.GustMS, x.FromDeg, x.Cover, x.CloudBaseFt, x.Rain, x.VisibilityM = 9, 15, 310, "OVC", at(1200), true,
				6000
		}
	case Fog:
		if h < 10 {
			x.WindMS, x.GustMS, x.TempC, x.DewC, x.VisibilityM, x.Cover, x.CloudBaseFt = 0.5, 1, 6, 6, 400, "OVC", at(200)
		}
	case Inversion:
		if h < 9 || h > 18 {
			x.WindMS, x.GustMS, x.Cover, x.CloudBaseFt = 0.6, 1, "CLR", nil
		}
	case Heat:
		x.TempC, x.DewC, x.QNH, x.Cover, x.CloudBaseFt = x.TempC+16, 4, 1008, "CLR", nil
	}
	x.WindMS, x.GustMS, x.TempC, x.DewC = round(x.WindMS), round(x.GustMS), round(x.TempC), round(x.DewC)
	return x
}

// report writes the hour that is now as a report.
func (s *Service) report(f Faults) string {
	now := s.Now().UTC()
	made := now.Add(-time.Duration(now.Minute()%20) * time.Minute)
	if f.Stale {
		made = made.Add(-3 * time.Hour)
	}
	x := hour(f.Scenario, now.Truncate(time.Hour))
	knots := func(v float64) int { return int(math.Round(v * 3600 / 1852)) }
	wind := fmt.Sprintf("%03.0f%02d", x.FromDeg, knots(x.WindMS))
	if knots(x.GustMS) >= knots(x.WindMS)+5 {
		wind += fmt.Sprintf("G%02d", knots(x.GustMS))
	}
	vis := "10SM"
	switch {
	case x.VisibilityM < 1000:
		vis = "1/4SM FG"
	case x.VisibilityM < 16000:
		vis = fmt.Sprintf("%.0fSM", x.VisibilityM/1609.344)
	}
	if x.Rain {
		vis += " RA"
	}
	sky := x.Cover
	if x.CloudBaseFt != nil {
		sky += fmt.Sprintf("%03d", *x.CloudBaseFt/100)
	}
	temp := func(v float64) string {
		if r := math.Round(v); r < 0 {
			return fmt.Sprintf("M%02.0f", -r)
		}
		return fmt.Sprintf("%02.0f", math.Round(v))
	}
	if f.Garbled {
		wind, sky = "37099", "BKNX"
	}
	return fmt.Sprintf("METAR %s %sZ AUTO %sKT %s %s %s/%s A%04.0f RMK AO2", Station, made.Format("021504"), wind, vis,
		sky, temp(x.TempC), temp(x.DewC), x.QNH/33.86389*100)
}
