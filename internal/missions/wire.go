package missions

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/core/geo"
	"mainstay/core/inspect"
	"mainstay/core/judge"
	"mainstay/core/mission"
	"mainstay/core/site"
	"mainstay/core/survey"
	"mainstay/internal/people"
)

// wire is a plan as it goes over the wire, places as latitude and longitude.
func (s *Service) wire(ctx context.Context, p Plan) api.MissionPlan {
	g := p.Ground
	w := api.MissionPlan{Version: p.Version, By: p.ByName, At: utc(p.At), JobId: p.Job.ID, Aim: p.Job.Aim,
		SiteId: p.Job.SiteID, Site: p.Job.Site, AircraftId: p.Aircraft.ID, Aircraft: p.Aircraft.Name,
		May:  people.From(ctx).Has(crew.Pilot),
		Link: s.Link != nil, Winged: p.winged(), Kind: api.MissionPlanKind(p.Kind()),
		Wish: api.MissionWish{Survey: p.Wish.Survey,
			Inspect: p.Wish.Inspect}, FeatureName: g.Feature.Name, FeatureShape: api.MissionPlanFeatureShape(g.Feature.Shape),
		Outline: append([]geo.Point{}, g.Feature.Places...), Holes: append([][]geo.Point{},
			g.Feature.Holes...), Features: []api.FieldRef{}, Things: []api.KeptOut{}, Places: []api.PlanPlace{},
		Cameras: wireCameras(p.Cameras), Canopies: append([]survey.Canopy{}, inUse(p.Canopies)...),
		Parts: []api.MissionPart{}, Flights: []api.MissionFlight{}, Next: p.Next(), Findings: []api.PictureFinding{},
		Sun: []api.SunHour{}, Broken: append([]judge.Broken{},
			p.Broken...), Assumed: append([]string{}, g.Assumed...), UsableWh: p.UsableWh, WindMs: g.Wind.MeanMS}
	if p.ID != uuid.Nil {
		w.Id = &p.ID
	}
	if w.Wish.Inspect != nil && w.Wish.Inspect.Look == nil {
		w.Wish.Inspect.Look = []inspect.Look{}
	}
	if !g.Wind.Against {
		w.WindFromDeg = &g.Wind.FromDeg
	}
	for _, f := range g.Choose {
		w.Features = append(w.Features, api.FieldRef{Id: f.ID, Name: f.Name})
	}
	for _, f := range g.Chart.Features {
		if f.ID == g.Feature.ID {
			continue
		}
		switch f.Kind {
		case site.NoGo, site.Obstacle, site.Wires, site.Sensitive:
			w.Things = append(w.Things, api.KeptOut{Name: f.Name, Area: f.Shape == site.Area, Places: f.Places})
		case site.TakeOff:
			w.Places = append(w.Places, api.PlanPlace{Id: f.ID, Name: f.Name, Place: f.Places[0], Job: f.ID == g.Start.ID})
		}
	}
	for _, b := range p.Broken {
		w.Verdict = max(w.Verdict, b.Verdict)
	}
	for _, l := range p.Sun {
		w.Sun = append(w.Sun, api.SunHour{At: l.At, ElevationDeg: l.ElevationDeg, Low: l.Low})
	}
	for _, f := range p.Found {
		w.Findings = append(w.Findings, api.PictureFinding{Id: f.ID, Picture: f.Picture, Place: f.Place, Words: f.Words,
			Severity: api.PictureFindingSeverity(f.Severity), At: f.At.UTC(), By: f.ByName, Photo: f.PhotoID})
	}
	if c := p.Card; c != nil {
		w.Card = &api.FilledCard{At: c.At.UTC(), By: c.ByName, Card: c.set(),
			Findings: append([]judge.Broken{}, p.judged(p.Now)...)}
	}
	p.wireFigures(&w)
	for i := range p.Missions {
		w.Flights = append(w.Flights, p.wireFlight(i+1))
	}
	return w
}

func (p Plan) wireFigures(w *api.MissionPlan) {
	if o := p.Out.Inspect; o != nil {
		w.Figures = api.MissionFigures{StandM: o.StandM, DetailMm: o.DetailMM, WideM: o.WideM, HighM: o.HighM, Rows: o.Rows,
			Faces: o.Faces, TopM: o.TopM, Pictures: o.Pictures, Minutes: o.Minutes, CardGb: o.CardGB}
		return
	}
	o := p.Out.Survey
	if o == nil {
		return
	}
	w.Figures = api.MissionFigures{HeightM: o.HeightM, AcrossM: o.Picture.AcrossM, AlongM: o.Picture.AlongM,
		LinesM: o.LinesM, PicturesM: o.PicturesM, BufferM: o.BufferM, BearingDeg: o.BearingDeg, IntervalS: o.Pace.IntervalS,
		BlurPx: o.Pace.BlurPx, Views: o.Views, Lines: o.Lines, Pictures: o.Pictures, Minutes: o.Minutes, AreaHa: o.AreaHa,
		CardGb: o.CardGB}
	at := p.Ground.Chart.Frame.Point
	for _, x := range o.Parts {
		var top *geo.Point
		if x.TakeOff.Top != nil {
			top = new(geo.Point)
			*top = at(*x.TakeOff.Top)
		}
		n := 0
		for _, y := range x.Pieces {
			n += y.Pictures
		}
		w.Parts = append(w.Parts, api.MissionPart{Cross: x.Cross, LowM: x.LowM, HighM: x.HighM, Known: x.Known,
			LevelM: x.LevelM, GsdCm: x.GSDCm, BestCm: x.BestCm, SideLeft: x.SideLeft, FrontLeft: x.Front, Pictures: n,
			TakeOff: x.TakeOff.Name, TakeOffId: x.TakeOff.ID, TakeOffAt: at(x.TakeOff.At), TopAt: top, TakeOffM: x.TakeOff.ElevM,
			HeightM: x.TakeOff.HeightM, Sentence: x.TakeOff.Sentence})
	}
}

func (p Plan) wireFlight(number int) api.MissionFlight {
	at := p.Ground.Chart.Frame.Point
	w := api.MissionFlight{Number: number, Pieces: []api.MissionPiece{}, Stops: []api.MissionStop{},
		Waypoints: len(p.Missions[number-1].Items), Standing: api.MissionFlightStanding(p.Standing(number)),
		Side: p.Side(number), Way: []geo.Point{}}
	for _, x := range p.Missions[number-1].Items {
		w.Way = append(w.Way, x.At)
	}
	if why := p.Outdated(number); why != "" {
		w.Outdated = &why
	}
	if f, ok := p.First(number); ok {
		w.First = f.Sentence
	}
	if o := p.Out.Survey; o != nil {
		f := o.Flights[number-1]
		w.Part, w.Again, w.Pictures, w.Seconds, w.Wh, w.Percent, w.LengthM = f.Part, f.Again, f.Pictures, f.Seconds, f.Wh,
			f.Percent, f.LengthM
		for _, x := range f.Pieces {
			w.Pieces = append(w.Pieces, api.MissionPiece{Line: x.Line + 1, From: at(x.From), To: at(x.To), Pictures: x.Pictures})
		}
	} else {
		o := p.Out.Inspect
		f := o.Flights[number-1]
		w.Pictures, w.Seconds, w.Wh, w.Percent = f.To-f.From, f.Seconds, f.Wh, f.Percent
		for i, x := range o.Stops[f.From:min(f.To, len(o.Stops))] {
			if i > 0 {
				w.LengthM += geo.Dist(o.Stops[f.From+i-1].At, x.At)
			}
			w.Stops = append(w.Stops, api.MissionStop{At: at(x.At), HeightM: x.HeightM, HeadingDeg: x.HeadingDeg,
				GimbalDeg: x.GimbalDeg, Face: x.Face + 1, Row: x.Row + 1, Lee: x.Lee})
		}
	}
	if r := p.read(number); r != nil {
		w.Read = r.wire()
	}
	if f := p.flown(number); f != nil {
		w.Flown = &api.MissionFlown{At: f.At.UTC(), By: f.ByName, Running: f.Running, Shake: f.Shake,
			Taken: p.wireTaken(f.taken())}
	}
	return w
}

func (r Read) wire() *api.MissionRead {
	out := api.MissionRead{At: r.At.UTC(), By: r.ByName, Source: r.Source, Sent: r.Sent,
		Differences: []mission.Difference{}, Judged: []judge.Broken{}, Places: []geo.Point{}}
	var m mission.Mission
	if json.Unmarshal([]byte(r.Content), &m) != nil || json.Unmarshal([]byte(r.Differences), &out.Differences) != nil ||
		json.Unmarshal([]byte(r.Judged), &out.Judged) != nil {
		out.Verdict = judge.Stop
		return &out
	}
	out.Verdict = mission.Verdict(out.Differences)
	for _, b := range out.Judged {
		out.Verdict = max(out.Verdict, b.Verdict)
	}
	out.Datum, out.Count = m.Datum.Words(), len(m.Items)
	for _, x := range m.Items {
		out.Places = append(out.Places, x.At)
	}
	return &out
}

func (p Plan) wireTaken(t survey.Taken) api.PicturesTaken {
	at := p.Ground.Chart.Frame.Point
	out := api.PicturesTaken{Planned: t.Planned, Count: t.Count, Placed: t.Placed, OnLines: t.OnLines,
		Gaps: []api.PictureGap{}, GapHa: t.GapHa, Views: t.Views, Least: t.LeastOf, ThinHa: t.ThinHa, Verdict: t.Verdict,
		Findings: append([]judge.Broken{}, t.Findings...)}
	for _, g := range t.Gaps {
		ring := []geo.Point{}
		for _, q := range g.Ring {
			ring = append(ring, at(q))
		}
		out.Gaps = append(out.Gaps, api.PictureGap{From: at(g.From), To: at(g.To), LongM: g.LongM, Ring: ring})
	}
	o := t.Overlap
	out.Overlap = api.OverlapMap{SouthWest: at(o.Origin),
		NorthEast: at(o.Origin.Add(geo.XY{X: o.CellM * float64(o.Columns), Y: o.CellM * float64(o.Rows)})),
		Columns:   o.Columns, Rows: o.Rows, Views: append([]int{}, o.Views...)}
	return out
}

// sidePlaces is how many places the side view of a flight has at most.
const sidePlaces = 240

// Side is a flight from the side: how high it flies, and the ground under it.
func (p Plan) Side(number int) []api.SidePlace {
	out := []api.SidePlace{}
	m := p.Missions[number-1]
	_, start, elevation := p.takeOff(number)
	frame, ground := p.Ground.Chart.Frame, p.Ground.Chart.Terrain
	long, before := 0.0, start
	for _, x := range m.Items {
		long += geo.Dist(before, frame.XY(x.At))
		before = frame.XY(x.At)
	}
	step := max(long/sidePlaces, 1)
	along, q, h := 0.0, start, 0.0
	put := func(at geo.XY, height float64) {
		y := api.SidePlace{AlongM: along, FlownM: elevation + height}
		if v, ok := ground.At(at); ok {
			y.GroundM = &v
		}
		out = append(out, y)
	}
	put(start, 0)
	for i, x := range m.Items {
		to := frame.XY(x.At)
		if i == 0 {
			h = x.HeightM
			put(start, h)
		}
		d := geo.Dist(q, to)
		n := max(1, int(d/step))
		for k := 1; k <= n; k++ {
			share := float64(k) / float64(n)
			along += d / float64(n)
			put(q.Add(to.Sub(q).Times(share)), h+(x.HeightM-h)*share)
		}
		q, h = to, x.HeightM
	}
	return out
}

func wireCameras(all []Camera) []api.CameraKind {
	out := []api.CameraKind{}
	for _, c := range all {
		out = append(out, api.CameraKind{Id: c.ID, Key: c.Key, Name: c.Name, SensorWMm: c.SensorWMM, SensorHMm: c.SensorHMM,
			FocalMm: c.FocalMM, PixelsW: c.PixelsW, PixelsH: c.PixelsH, LeastS: c.LeastS, PictureMb: c.PictureMB,
			BaseIso: c.BaseISO, Active: c.Active, Version: c.Version})
	}
	return out
}

func wireCanopies(all []Canopy) []api.CanopyKind {
	out := []api.CanopyKind{}
	for _, c := range all {
		out = append(out, api.CanopyKind{Id: c.ID, Key: c.Key, Name: c.Name, HeightM: c.HeightM, Active: c.Active,
			Version: c.Version})
	}
	return out
}

func utc(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}
