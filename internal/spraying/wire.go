package spraying

import (
	"context"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/site"
	"mainstay/core/spray"
)

// wire is a plan as it goes over the wire, places as latitude and longitude.
func (p Plan) wire(ctx context.Context) api.SprayPlan {
	o, at := p.Out, p.Ground.Frame.Point
	w := api.SprayPlan{Version: p.Version, By: p.ByName, At: utc(p.At), JobId: p.Job.ID, Aim: p.Job.Aim,
		SiteId: p.Job.SiteID, Site: p.Job.Site, AircraftId: p.Aircraft.ID, Aircraft: p.Aircraft.Name, May: mayPlan(ctx),
		Wish: p.Wish, Settings: o.Settings, NozzleLMin: o.NozzleLPM, Bar: o.Bar, BearingDeg: o.BearingDeg,
		FieldName: p.Ground.Field.Name, Outline: p.Ground.Field.Places,
		Loads: o.Loads, Waiting: o.Waiting, BufferM: o.Buffer, FieldHa: o.FieldHa, AreaHa: o.AreaHa, OnceHa: o.OnceHa,
		TwiceHa: o.TwiceHa, DoneHa: o.DoneHa, Broken: o.Broken, Verdict: o.Verdict, Assumed: p.Ground.Assumed,
		TankL: p.Type.TankL, DryKg: p.Dry, MostKg: p.Most, UsableWh: p.UsableWh,
		Fields: []api.FieldRef{}, KeepOuts: []api.KeptOut{}, Sensitive: []api.KeptOut{}, Passes: []api.SprayPass{},
		Sorties: []api.SpraySortie{}, Fills: []api.SprayFill{}, Done: []api.SprayedPart{}, Hours: []api.SprayHour{}}
	if p.ID != uuid.Nil {
		w.Id = &p.ID
	}
	if w.Wish.Mix == nil {
		w.Wish.Mix = []spray.Product{}
	}
	if b := p.Ground.Blow; b != nil {
		w.WindMs, w.WindFromDeg = &b.MeanMS, b.FromDeg
	}
	if t := p.Ground.TakeOff; t != nil {
		w.Start = t.Places[0]
	} else if len(p.Ground.Field.Places) > 0 {
		w.Start = p.Ground.Field.Places[0]
	}
	for _, f := range p.Ground.Fields {
		w.Fields = append(w.Fields, api.FieldRef{Id: f.ID, Name: f.Name})
	}
	for _, hole := range p.Ground.Field.Holes {
		w.KeepOuts = append(w.KeepOuts, api.KeptOut{Name: "left out", Area: true, Places: hole})
	}
	for _, f := range p.Ground.Things {
		k := api.KeptOut{Name: f.Name, Area: f.Shape == site.Area, Places: f.Places}
		switch {
		case f.Kind == site.Sensitive:
			w.Sensitive = append(w.Sensitive, k)
		case f.Kind == site.NoGo || (f.Kind == site.Obstacle || f.Kind == site.Wires) && !p.above(f):
			w.KeepOuts = append(w.KeepOuts, k)
		}
	}
	p.wireWay(ctx, &w)
	p.wirePasses(&w, at)
	p.wireWork(&w)
	return w
}

// NameOf names the place where a flight takes off and lands.
func (g Ground) NameOf(f spray.Sortie) string {
	if at := g.place(f); at != nil {
		return at.Name
	}
	return ""
}

func (p Plan) wireWay(ctx context.Context, w *api.SprayPlan) {
	places := []api.PlanPlace{}
	for _, f := range p.Ground.Places {
		places = append(places, api.PlanPlace{Id: f.ID, Name: f.Name, Place: f.Places[0],
			Job: p.Ground.TakeOff != nil && f.ID == p.Ground.TakeOff.ID})
	}
	w.Places = &places
	if a := p.Along; a != nil {
		w.Verdict = max(w.Verdict, judge.Worst(a.Findings))
		w.Way = &api.PlanWay{Findings: a.Findings, FarM: a.FarM, Relief: a.Relief, Reach: a.Reach, Homes: a.Homes}
	}
}

func (p Plan) wirePasses(w *api.SprayPlan, at func(geo.XY) geo.Point) {
	sortie, waits := map[int]int{}, map[int]string{}
	for i, s := range p.Out.Flown.Sorties {
		x := api.SpraySortie{Ha: s.AreaM2 / 1e4, Litres: s.Litres, TakeOffKg: s.TakeOffKg, Wh: s.Wh, Seconds: s.Seconds,
			FerryM: s.FerryM, Limit: api.SpraySortieLimit(s.Limit), From: p.Ground.NameOf(s), Legs: []api.SprayLeg{}}
		for _, l := range s.Legs {
			x.Legs = append(x.Legs, api.SprayLeg{Pass: l.Pass, From: at(l.From), To: at(l.To), FromShare: l.Share[0],
				ToShare: l.Share[1], Back: l.Back})
			if _, ok := sortie[l.Pass]; !ok {
				sortie[l.Pass] = i + 1
			}
		}
		w.Sorties = append(w.Sorties, x)
	}
	for _, x := range p.Out.Waiting {
		waits[x.Pass] = x.Reaches
	}
	for i, x := range p.Out.Passes {
		w.Passes = append(w.Passes, api.SprayPass{From: at(x.From), To: at(x.To), LengthM: x.Length(), AreaM2: x.Area,
			Edge: x.Edge, Sortie: sortie[i], Waits: waits[i]})
	}
}

func (p Plan) wireWork(w *api.SprayPlan) {
	for _, f := range p.Fills {
		x := api.SprayFill{Number: f.Number, Litres: f.Litres, Ha: f.Ha, MassKg: f.MassKg, By: f.ByName, At: f.At.UTC(),
			Version: f.Version, Complete: f.Complete(), Lines: []api.FillLine{}}
		for _, l := range f.Lines {
			x.Lines = append(x.Lines, api.FillLine{What: l.What, Amount: l.Amount, Unit: l.Unit, First: l.First,
				Second: l.Second})
		}
		w.Fills = append(w.Fills, x)
	}
	for _, d := range p.Done {
		w.Done = append(w.Done, api.SprayedPart{Id: d.ID, Pass: d.Pass, FromShare: d.FromShare, ToShare: d.ToShare,
			Ha: d.AreaM2 / 1e4, Litres: d.Litres, At: d.At.UTC(), By: d.ByName})
	}
	for _, h := range p.Hours {
		w.Hours = append(w.Hours, api.SprayHour{At: h.At.UTC(), Verdict: h.Verdict, Free: h.Free, Waiting: h.Waiting,
			WindMs: h.WindMS, FromDeg: h.FromDeg, Why: h.Why})
	}
}
