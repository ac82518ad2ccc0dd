package missions

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/inspect"
	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/survey"
)

// missions makes what the aircraft is given for each flight.
func (p *Plan) missions() {
	p.Missions = nil
	switch {
	case p.Out.Survey != nil:
		for i, f := range p.Out.Survey.Flights {
			p.Missions = append(p.Missions, p.lines(i, f))
		}
	case p.Out.Inspect != nil:
		for i, f := range p.Out.Inspect.Flights {
			p.Missions = append(p.Missions, p.stops(i, f))
		}
	}
}

func (p *Plan) name(i int) string { return fmt.Sprintf("%s, flight %d", p.Job.Aim, i+1) }

// fineM is how far heights along a line may lie from straight before a waypoint is set.
const fineM = 0.5

// lines is a flight of a survey: each piece begins and ends the pictures; a wing is led
// straight into it.
func (p *Plan) lines(i int, f survey.Flight) mission.Mission {
	w, o := p.Wish.Survey, p.Out.Survey
	part := o.Parts[f.Part]
	frame := p.Ground.Chart.Frame
	at := frame.Point(part.TakeOff.At)
	m := mission.Mission{Name: p.name(i), Datum: intent.AboveTakeOff, Home: &at}
	down := -90.0
	add := func(q geo.XY, elevation float64, a mission.Action) {
		x := mission.Item{At: frame.Point(q), HeightM: centi(elevation - part.TakeOff.ElevM), SpeedMS: w.SpeedMS, Action: a,
			GimbalDeg: &down}
		if a == mission.Start {
			x.EveryM = centi(o.PicturesM)
		}
		m.Items = append(m.Items, x)
	}
	for k, piece := range f.Pieces {
		way := []home.Place3{{At: piece.From, M: part.LevelM}, {At: piece.To, M: part.LevelM}}
		if k < len(f.Ways) {
			way = thin(f.Ways[k])
		}
		for _, q := range piece.Via {
			add(q, way[0].M, mission.Fly)
		}
		if q := p.leadIn(piece); q != piece.From {
			add(q, way[0].M, mission.Fly)
		}
		for n, q := range way {
			switch n {
			case 0:
				add(q.At, q.M, mission.Start)
			case len(way) - 1:
				add(q.At, q.M, mission.Stop)
			default:
				add(q.At, q.M, mission.Fly)
			}
		}
	}
	if n := len(m.Items); n > 0 {
		last := m.Items[n-1]
		m.Items = append(m.Items, mission.Item{At: at, HeightM: last.HeightM, SpeedMS: w.SpeedMS, Action: mission.Return})
	}
	return m
}

// leadIn is where a wing begins to fly straight into a line; others begin with it.
func (p Plan) leadIn(x survey.Piece) geo.XY {
	d := x.To.Sub(x.From)
	if l := d.Len(); p.winged() && l > 0 {
		return x.From.Sub(d.Times(p.Wish.Survey.LeadM / l))
	}
	return x.From
}

func centi(v float64) float64 { return math.Round(v*100) / 100 }

// thin drops the places of a way that lie straight between others.
func thin(way []home.Place3) []home.Place3 {
	out := way[:1:1]
	for i := 1; i+1 < len(way); i++ {
		from := out[len(out)-1]
		straight := true
		for k := i; k <= i && straight; k++ {
			whole := geo.Dist(from.At, way[i+1].At)
			share := geo.Dist(from.At, way[k].At) / max(whole, 1e-9)
			straight = math.Abs(from.M+(way[i+1].M-from.M)*share-way[k].M) <= fineM/4
		}
		if !straight {
			out = append(out, way[i])
		}
	}
	return append(out, way[len(way)-1])
}

// stops is a flight of an inspection: it rests at each place and takes a picture.
func (p *Plan) stops(i int, f inspect.Flight) mission.Mission {
	o := p.Out.Inspect
	frame := p.Ground.Chart.Frame
	at := frame.Point(p.Ground.Start.At)
	ground := p.standsAt()
	m := mission.Mission{Name: p.name(i), Datum: intent.AboveTakeOff, Home: &at}
	speed := p.Wish.Inspect.SpeedMS
	before := 0.0
	for i, x := range o.Stops[f.From:min(f.To, len(o.Stops))] {
		high := x.HeightM
		if i > 0 {
			high = max(high, before)
		}
		for _, q := range x.Via {
			m.Items = append(m.Items, mission.Item{At: frame.Point(q), HeightM: centi(ground + high - p.Ground.Start.ElevM),
				SpeedMS: speed, Action: mission.Fly})
		}
		before = x.HeightM
		m.Items = append(m.Items, mission.Item{At: frame.Point(x.At),
			HeightM: centi(ground + x.HeightM - p.Ground.Start.ElevM), SpeedMS: speed, Action: mission.Picture,
			HeadingDeg: ptr(centi(x.HeadingDeg)), GimbalDeg: ptr(centi(x.GimbalDeg))})
	}
	if n := len(m.Items); n > 0 {
		m.Items = append(m.Items, mission.Item{At: at, HeightM: m.Items[n-1].HeightM, SpeedMS: speed, Action: mission.Return})
	}
	return m
}

// standsAt is the elevation of the ground that what is inspected stands on; unknown is that
// of the take-off place, and said in what was assumed.
func (p Plan) standsAt() float64 {
	if m, known := p.Ground.Chart.Elevation(p.Ground.Feature); known {
		return m
	}
	return p.Ground.Start.ElevM
}

func ptr[T any](v T) *T { return &v }

// takeOff is where a flight takes off: the id of the place, where it is on the map.
func (p Plan) takeOff(number int) (id string, at geo.XY, elevation float64) {
	if o := p.Out.Survey; o != nil && number >= 1 && number <= len(o.Flights) {
		a := o.Parts[o.Flights[number-1].Part].TakeOff
		return a.ID, a.At, a.ElevM
	}
	return p.Ground.Start.ID, p.Ground.Start.At, p.Ground.Start.ElevM
}
