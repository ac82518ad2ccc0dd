package sites

import (
	"bytes"
	"context"
	"slices"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/height"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/metar"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/core/weather"
	"mainstay/core/why"
	"mainstay/internal/platform/fault"
)

// Handlers serve the operations of sites.
type Handlers struct{ Sites *Service }

func head(s Site) api.SiteHead {
	return api.SiteHead{Id: s.ID, Name: s.Name, Note: s.Note, Lat: s.Lat, Lon: s.Lon, ElevationM: s.ElevationM,
		Version: s.Version, Features: s.Features, By: s.CreatedBy, Practice: s.Practice}
}

func (h *Handlers) ListSites(ctx context.Context, _ api.ListSitesRequestObject) (api.ListSitesResponseObject, error) {
	sites, err := h.Sites.List(ctx)
	out := api.ListSites200JSONResponse{Sites: []api.SiteHead{}}
	for _, s := range sites {
		out.Sites = append(out.Sites, head(s))
	}
	return out, err
}

func edit(b api.SiteEdit, id uuid.UUID) Site {
	return Site{Practice: b.Practice != nil && *b.Practice, ID: id, Name: b.Name, Note: b.Note, Lat: b.Lat, Lon: b.Lon,
		ElevationM: b.ElevationM, Version: b.Version}
}

func (h *Handlers) AddSite(ctx context.Context, r api.AddSiteRequestObject) (api.AddSiteResponseObject, error) {
	return api.AddSite201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Sites.Add(ctx,
		edit(*r.Body, r.Body.Id))
}

func (h *Handlers) ChangeSite(ctx context.Context,
	r api.ChangeSiteRequestObject) (api.ChangeSiteResponseObject, error) {
	n := edit(*r.Body, r.Id)
	if r.Body.Practice == nil { // not said is not changed
		f, err := h.Sites.Get(ctx, r.Id, false)
		if err != nil {
			return nil, err
		}
		n.Practice = f.Site.Practice
	}
	return api.ChangeSite204Response{}, h.Sites.Change(ctx, n)
}

func (h *Handlers) GetSite(ctx context.Context, r api.GetSiteRequestObject) (api.GetSiteResponseObject, error) {
	f, err := h.Sites.Get(ctx, r.Id, false)
	if err != nil {
		return nil, err
	}
	frame, err := f.Frame()
	if err != nil {
		return nil, err
	}
	found := f.TakeOffs(frame)
	wire := func(fs []Feature) []api.SiteFeature {
		out := []api.SiteFeature{}
		for _, x := range fs {
			j := found[x.ID]
			if j == nil {
				j = []site.Judgement{}
			}
			out = append(out, api.SiteFeature{Feature: x.Feature, Version: x.Version, ChangedAt: x.ChangedAt.UTC(),
				ChangedBy: x.ChangedBy, Findings: j})
		}
		return out
	}
	f.Site.Features = len(f.Features)
	out := api.GetSite200JSONResponse{Head: head(f.Site), Features: wire(f.Features), Removed: wire(f.Removed),
		UsualBufferM: map[string]float64{}}
	for kind, m := range site.UsualBuffer {
		out.UsualBufferM[string(kind)] = m
	}
	if t := f.Terrain; t != nil {
		out.Terrain = &api.SiteTerrain{Source: t.Source, Columns: t.Columns, Rows: t.Rows, Gaps: t.Gaps, SigmaM: t.SigmaM,
			By: t.ByName, At: t.At.UTC()}
	}
	return out, nil
}

func (h *Handlers) SaveFeature(ctx context.Context,
	r api.SaveFeatureRequestObject) (api.SaveFeatureResponseObject, error) {
	f := r.Body.Feature
	f.ID = r.Feature.String()
	return api.SaveFeature204Response{}, h.Sites.SaveFeature(ctx, r.Id, f, r.Body.Version)
}

func (h *Handlers) RemoveFeature(ctx context.Context,
	r api.RemoveFeatureRequestObject) (api.RemoveFeatureResponseObject, error) {
	return api.RemoveFeature204Response{}, h.Sites.RemoveFeature(ctx, r.Id, r.Feature)
}

func (h *Handlers) RestoreFeature(ctx context.Context,
	r api.RestoreFeatureRequestObject) (api.RestoreFeatureResponseObject, error) {
	return api.RestoreFeature204Response{}, h.Sites.RestoreFeature(ctx, r.Id, r.Feature)
}

func (h *Handlers) ImportSite(ctx context.Context,
	r api.ImportSiteRequestObject) (api.ImportSiteResponseObject, error) {
	bring := h.Sites.Import
	if r.Params.Look != nil && *r.Params.Look {
		bring = h.Sites.Look
	}
	rep, err := bring(ctx, r.Id, string(r.Params.Format), r.Body)
	return api.ImportSite200JSONResponse(rep), err
}

func (h *Handlers) ExportSite(ctx context.Context,
	r api.ExportSiteRequestObject) (api.ExportSiteResponseObject, error) {
	var b bytes.Buffer
	err := h.Sites.Export(ctx, r.Id, string(r.Params.Format), &b)
	return api.ExportSite200TextResponse(b.String()), err
}

func (h *Handlers) PutTerrain(ctx context.Context,
	r api.PutTerrainRequestObject) (api.PutTerrainResponseObject, error) {
	return api.PutTerrain204Response{}, h.Sites.PutTerrain(ctx, r.Id, r.Params.Name, r.Params.SigmaM, r.Body)
}

// flight is what a question about the way home says of the flight.
func flightOf(p api.GetWayHomeParams) intent.Flight {
	id := func(v *uuid.UUID) string {
		if v == nil {
			return ""
		}
		return v.String()
	}
	f := intent.Flight{TakeOff: id(p.TakeOff), Landing: id(p.Landing), Second: id(p.Second), RouteM: p.RouteM,
		ReturnM: p.SettingM}
	if p.Datum != nil {
		f.Datum = intent.Datum(*p.Datum)
	}
	if p.Work != nil {
		f.Work = string(*p.Work)
	}
	return f
}

func (h *Handlers) GetWayHome(ctx context.Context,
	r api.GetWayHomeRequestObject) (api.GetWayHomeResponseObject, error) {
	w, err := h.Sites.WayHome(ctx, r.Id, Ask{Aircraft: r.Params.Aircraft, Flight: flightOf(r.Params)})
	if err != nil {
		return nil, err
	}
	a, p := w.Return, w.Profile
	out := api.GetWayHome200JSONResponse{HeightM: a.HeightM, NeedM: a.NeedM, MarginM: a.MarginM, Decides: a.Decides,
		DecidesId: a.DecidesID, MaxAglM: w.HighM, InWay: a.InWay, Verdict: judge.Worst(w.Findings), Findings: w.Findings,
		TakeOff: w.TakeOff.Places[0], HomeM: w.HomeM, RouteM: w.RouteM, Datum: api.Datum(w.Datum), Route: w.Route,
		Legs: w.Legs, WayRound: w.WayRound, NoWay: w.NoWay,
		Steps: p.Steps, Tops: p.Tops, LengthM: p.LengthM, ReturnM: p.ReturnM, CeilingM: w.CeilingM, Stand: w.Stand,
		StandOffM: w.StandOffM, Cover: w.Cover, Landing: w.Wind, KeptM: w.Margin.M, KeptPercent: w.Margin.Percent,
		FarM: w.FarM, HomeSpeedMs: w.HomeSpeedMS}
	out.Sectors = sectorsOf(w)
	if out.WayRound == nil {
		out.WayRound = []api.Place{}
	}
	return out, nil
}

func sectorsOf(w wayhome.Answer) []api.Sector {
	out := []api.Sector{}
	if !w.Sectored {
		return out
	}
	for _, h := range w.TakeOff.Free {
		out = append(out, api.Sector{Heading: h, Clear: slices.Contains(w.Clear, h), HalfDeg: home.SectorHalfDeg,
			HalfM: home.SectorHalfM, LengthM: home.SectorLengthM})
	}
	return out
}

func (h *Handlers) GetSky(ctx context.Context, r api.GetSkyRequestObject) (api.GetSkyResponseObject, error) {
	s, err := h.Sites.SkyOver(ctx, r.Id, AskSky{Aircraft: r.Params.Aircraft, Work: weather.Work(r.Params.Work),
		Ground: string(r.Params.Ground)})
	if err != nil {
		return nil, err
	}
	judge.Sort(s.Findings)
	out := api.Sky{Verdict: judge.Worst(s.Findings), Findings: s.Findings, Sun: s.Sun, Hours: []api.SkyHour{},
		NoHours: s.NoHours, About: append([]string{}, s.About...), Bad: []metar.BadGroup{}, LateAt: s.LateAt}
	for _, x := range s.Hours {
		out.Hours = append(out.Hours, api.SkyHour{At: x.At.UTC(), Verdict: x.Verdict, Why: x.Why,
			Light: api.SkyHourLight(x.Light), WindMs: x.WindAtMS, GustMs: x.GustAtMS, FromDeg: x.Air.FromDeg, TempC: x.Air.TempC,
			CoverFt: x.Air.CloudBaseFt})
	}
	if x := s.Latest; x != nil {
		now := api.SkyNow{Air: x.Air, By: s.By, PressureHpa: x.PressureHPa, DensityAltitudeM: x.DensityAltitudeM,
			MassLimitKg: x.MassLimitKg, DeltaT: x.DeltaT, HumidityPercent: x.HumidityPercent, CloudCeilingM: x.CloudCeilingM,
			HeightM: s.HeightM, WindNotes: []string{}}
		if s.Report != nil {
			out.Bad = append(out.Bad, s.Report.Bad...)
			ft, known := s.Report.Ceiling()
			now.CeilingFt, now.CeilingKnown = ft, known
		}
		if w := x.Wind; w != nil {
			steady, gust := float64(w.Steady), float64(w.Gust)
			now.WindMs, now.GustMs, now.WindNotes = &steady, &gust, x.Notes
		}
		out.Latest = &now
	}
	return api.GetSky200JSONResponse(out), nil
}

func (h *Handlers) AddWeather(ctx context.Context,
	r api.AddWeatherRequestObject) (api.AddWeatherResponseObject, error) {
	n := NewWeather{ID: r.Body.Id, StationM: r.Body.StationM, StationKm: r.Body.StationKm, Ground: string(r.Body.Ground),
		Hand: r.Body.Hand}
	if r.Body.Report != nil {
		n.Report = *r.Body.Report
	}
	return api.AddWeather201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Sites.AddWeather(ctx,
		r.Id, n)
}

func (h *Handlers) FetchWeather(ctx context.Context,
	r api.FetchWeatherRequestObject) (api.FetchWeatherResponseObject, error) {
	return api.FetchWeather201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}},
		h.Sites.FetchWeather(ctx, r.Id, r.Body.Id, string(r.Body.Ground))
}

func (h *Handlers) MeasureHeight(_ context.Context,
	r api.MeasureHeightRequestObject) (api.MeasureHeightResponseObject, error) {
	b := r.Body
	missing := func(vs ...*height.Value) bool {
		for _, v := range vs {
			if v == nil {
				return true
			}
		}
		return false
	}
	eye := 1.6
	if b.EyeM != nil {
		eye = *b.EyeM
	}
	var m height.Measured
	err := why.Not(height.ErrInput, "a reading is missing")
	switch string(b.How) {
	case "clinometer":
		if !missing(b.Distance, b.Angle) {
			m, err = height.Clinometer(*b.Distance, *b.Angle, eye)
		}
	case "two angles":
		if !missing(b.Distance, b.Angle, b.BaseAngle) {
			m, err = height.TwoAngles(*b.Distance, *b.Angle, *b.BaseAngle)
		}
	case "two stations":
		if !missing(b.Distance, b.Angle, b.BaseAngle) {
			m, err = height.TwoStations(*b.Distance, *b.Angle, *b.BaseAngle, eye)
		}
	default:
		if !missing(b.Shadow, b.Stick, b.StickShadow) {
			m, err = height.Shadow(*b.Shadow, *b.Stick, *b.StickShadow)
		}
	}
	if err != nil {
		return nil, fault.Bad("distance", "The height cannot be worked out: %s.", why.Words(err))
	}
	return api.MeasureHeight200JSONResponse{M: m.M, Sigma: m.Sigma}, nil
}
