package aircraft

import (
	"fmt"
	"math"
	"time"

	"mainstay/core/geo"
	"mainstay/core/mission"
)

// Rates of the simulated aircraft.
const (
	climbMS    = 3.0
	cruiseMS   = 8.0
	hoverS     = 4.0  // at a single picture
	fullS      = 1500 // s that full packs last in still air
	cellFullMV = 4150
	cellLowMV  = 3450
)

// flight is a mission as it is flown: legs in time, and its pictures.
type flight struct {
	begun    time.Time
	seconds  float64
	legs     []leg
	pictures []Picture
	when     []float64 // of each picture, s
}

type leg struct {
	from, to   geo.Point
	fromM, toM float64
	start, end float64 // s
	mode       string
}

// Picture is where one was taken.
type Picture struct {
	Name string     `json:"name"`
	At   *geo.Point `json:"at"`
	Time time.Time  `json:"time"`
}

// State is what an aircraft tells of itself.
type State struct {
	Serial       string     `json:"serial"`
	Mode         string     `json:"mode"`
	At           geo.Point  `json:"at"`
	Home         *geo.Point `json:"home"`
	HeightM      float64    `json:"height_m"`
	Satellites   int        `json:"satellites"`
	HeadingDeg   float64    `json:"heading_deg"`
	CourseDeg    float64    `json:"course_deg"`
	SpeedMS      float64    `json:"speed_ms"`
	Percent      float64    `json:"percent"`
	CellMV       []int      `json:"cell_mv"`
	TemperatureC float64    `json:"temperature_c"`
	MotorPercent []float64  `json:"motor_percent"`
	MotorC       []float64  `json:"motor_c"`
	Pictures     int        `json:"pictures"`
	Warnings     []string   `json:"warnings"`
	ReceiverV    float64    `json:"receiver_v"`
	Corrections  string     `json:"corrections"`
	Switches     []Switch   `json:"switches"`
	Limits       *Limits    `json:"limits"`
	Room         int        `json:"pictures_room"`
}

// Switch is where a switch stands, and the mode that the aircraft is in for it.
type Switch struct {
	Switch string `json:"switch"`
	Set    string `json:"set"`
	Mode   string `json:"mode"`
}

// Limits are what is set in an aircraft.
type Limits struct {
	ReturnM  float64 `json:"return_m"` // above take-off
	HeightM  float64 `json:"height_m"`
	LostLink string  `json:"lost_link"`
}

// plan lays a stored mission out in time.
func (l *Link) plan(c *Craft) *flight {
	f := &flight{begun: l.Now()}
	at, height, t := c.At, 0.0, 0.0
	go2 := func(to geo.Point, h, speed float64, mode string) {
		d := math.Hypot(geo.Distance(at, to), h-height)
		if speed <= 0 {
			speed = cruiseMS
		}
		if mode == "climb" || mode == "land" {
			speed = climbMS
		}
		f.legs = append(f.legs, leg{at, to, height, h, t, t + d/speed, mode})
		at, height, t = to, h, t+d/speed
	}
	every := 0.0
	shoot := func(at geo.Point, when float64) {
		f.pictures = append(f.pictures, Picture{Name: fmt.Sprintf("IMG_%04d.jpg", len(f.pictures)+1), At: &at})
		f.when = append(f.when, when)
	}
	for i, x := range c.mission.Items {
		if i == 0 {
			go2(at, x.HeightM, climbMS, "climb")
		}
		from, start := at, t
		if x.Action == mission.Return {
			break
		}
		go2(x.At, x.HeightM, x.SpeedMS, "mission")
		if every > 0 {
			n := max(1, int(math.Round(geo.Distance(from, x.At)/every)))
			for k := 0; k <= n; k++ {
				// The camera stays out from the middle of a line on.
				if skip := l.faults.CameraSkips; skip > 0 && k >= n/2 && k < n/2+skip {
					continue
				}
				s := float64(k) / float64(n)
				shoot(geo.Point{Lat: from.Lat + (x.At.Lat-from.Lat)*s, Lon: from.Lon + (x.At.Lon-from.Lon)*s}, start+(t-start)*s)
			}
		}
		switch x.Action {
		case mission.Start:
			every = x.EveryM
		case mission.Stop:
			every = 0
		case mission.Picture:
			t += hoverS
			shoot(x.At, t)
		case mission.Fly, mission.Hold, mission.Return:
		}
	}
	home := c.At
	if c.mission.Home != nil {
		home = *c.mission.Home
	}
	go2(home, height, cruiseMS, "return")
	go2(home, 0, climbMS, "land")
	f.seconds = t
	for i := range f.pictures {
		f.pictures[i].Time = f.begun.Add(time.Duration(f.when[i] / l.Speed * float64(time.Second))).UTC()
	}
	return f
}

func (l *Link) elapsed(c *Craft) float64 { return l.Now().Sub(c.flight.begun).Seconds() * l.Speed }

// state is where an aircraft is now.
func (l *Link) state(c *Craft) State {
	s := State{Serial: c.Serial, Mode: "ground", At: c.At, Home: &c.At, Satellites: 17, Percent: 100, TemperatureC: 24,
		Warnings: []string{}, ReceiverV: 5.2, Corrections: "fixed"}
	t := 0.0
	if c.flight != nil {
		t = min(l.elapsed(c), c.flight.seconds)
		for _, g := range c.flight.legs {
			if t < g.start {
				break
			}
			k := 1.0
			if g.end > g.start {
				k = min(1, (t-g.start)/(g.end-g.start))
			}
			s.At = geo.Point{Lat: g.from.Lat + (g.to.Lat-g.from.Lat)*k, Lon: g.from.Lon + (g.to.Lon-g.from.Lon)*k}
			s.HeightM, s.Mode = g.fromM+(g.toM-g.fromM)*k, g.mode
			s.CourseDeg = geo.Bearing(g.from, g.to)
			if g.end > g.start && k < 1 {
				s.SpeedMS = geo.Distance(g.from, g.to) / (g.end - g.start)
			}
		}
		if t >= c.flight.seconds {
			s.Mode, s.SpeedMS = "ground", 0
		}
		s.Percent = max(0, 100-100*t/fullS*(1+0.02*l.Wind*l.Wind))
		s.TemperatureC += min(18, t/60)
		s.Pictures = len(l.pictures(c))
		if c.mission != nil && c.mission.Home != nil {
			s.Home = c.mission.Home
		}
	}
	if l.faults.HomeOff {
		s.Home = &geo.Point{Lat: s.At.Lat, Lon: s.At.Lon + 180/(111320*math.Cos(s.At.Lat*math.Pi/180))}
	}
	if l.faults.NoFix {
		s.Corrections = "none"
	}
	s.Switches = []Switch{{"flight mode", "normal", "normal"}, {"pause", "off", "off"}}
	if l.faults.WrongMode {
		s.Switches[0].Mode = "fast"
	}
	s.Limits = c.Limits
	if m := l.faults.ReturnM; m > 0 {
		s.Limits = &Limits{ReturnM: float64(m), HeightM: 120, LostLink: "return"}
	}
	if s.Room = 1800; l.faults.CardFull {
		s.Room = 0
	}
	if l.faults.Warns != "" {
		s.Warnings = append(s.Warnings, l.faults.Warns)
	}
	s.HeadingDeg = s.CourseDeg
	if l.faults.CompassOff {
		s.HeadingDeg = geo.Turn(s.CourseDeg + 20)
	}
	for i := range c.Cells {
		mv := cellLowMV + (cellFullMV-cellLowMV)*s.Percent/100 - float64(i%3)
		if l.faults.WeakCell == i+1 {
			mv -= 140
		}
		if i == 0 && l.faults.LowCell > 0 {
			mv = float64(l.faults.LowCell)
		}
		s.CellMV = append(s.CellMV, int(math.Round(mv)))
	}
	for i := range c.Motors {
		out, warm := 0.0, 24.0
		if s.Mode != "ground" {
			out = 52 + float64(i%3)
		}
		if t > 0 {
			warm += 20 + float64(i%2)
		}
		if l.faults.WarmMotor == i+1 {
			warm += 25
			s.Warnings = append(s.Warnings, fmt.Sprintf("Motor %d is warm.", i+1))
		}
		s.MotorPercent, s.MotorC = append(s.MotorPercent, out), append(s.MotorC, warm)
	}
	return s
}

// pictures are those taken so far on the last flight.
func (l *Link) pictures(c *Craft) []Picture {
	out := []Picture{}
	if c.flight == nil {
		return out
	}
	t := l.elapsed(c)
	for i, p := range c.flight.pictures {
		if c.flight.when[i] <= t {
			out = append(out, p)
		}
	}
	return out
}
