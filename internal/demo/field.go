package demo

import (
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/core/crew"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/site"
	"mainstay/core/weather"
	"mainstay/internal/jobs"
	"mainstay/internal/readiness"
	"mainstay/internal/sites"
	"mainstay/internal/walkround"
)

// depot is the base: practice and check flights are flown there.
const depotName = "Sedge Lane depot"

// early is what was on a site's map all through the year: where it starts and
// what is flown. What stands there was charted lately.
func early(m mapped) bool {
	return m.f.Kind == site.TakeOff || m.f.Kind == site.Route || m.f.Kind == site.Work
}

// base puts the sites on file as they were through the year.
func (g *generator) base(ctx context.Context) error {
	ctx = g.as(ctx, "imre")
	for _, chart := range sitesOfTheDistrict() {
		head := chart.head
		head.ID, head.ElevationM = newID(), new(math.Round(ground(head.Origin())))
		if err := g.svc.Sites.Add(ctx, head); err != nil {
			return err
		}
		g.sites[head.Name] = head.ID
		if err := g.chart(ctx, chart, early); err != nil {
			return err
		}
		if head.Name != "Long Bank" { // nobody brings the terrain of the bank before the survey
			if err := g.svc.Sites.PutTerrain(ctx, head.ID, strings.ReplaceAll(strings.ToLower(head.Name), " ", "-")+".asc", 0.5,
				strings.NewReader(grid(head.Origin(), 240, 240, ground))); err != nil {
				return err
			}
		}
	}
	return nil
}

// chart puts the features that are wanted on the map of a site.
func (g *generator) chart(ctx context.Context, c charted, wanted func(mapped) bool) error {
	frame, err := geo.NewFrame(c.head.Origin())
	if err != nil {
		return err
	}
	places := func(xy [][2]float64) []geo.Point {
		var out []geo.Point
		for _, q := range xy {
			out = append(out, frame.Point(geo.XY{X: q[0], Y: q[1]}))
		}
		return out
	}
	for _, m := range c.features {
		if !wanted(m) {
			continue
		}
		m.f.ID, m.f.Places = newID().String(), places(m.xy)
		for _, h := range m.holes {
			m.f.Holes = append(m.f.Holes, places(h))
		}
		if err := g.svc.Sites.SaveFeature(ctx, g.sites[c.head.Name], m.f, 0); err != nil {
			return fmt.Errorf("%s: %w", m.f.Name, err)
		}
	}
	return nil
}

// where a flight of a purpose is flown, and as what work.
func where(a *craft, purpose string) (place string, work weather.Work) {
	work = weather.Inspection
	switch a.typeKey {
	case "dray-30":
		work = weather.Spraying
	case "tally-v", "tally-w":
		work = weather.Mapping
	}
	for _, c := range sitesOfTheDistrict() {
		if strings.Contains(purpose, c.head.Name) {
			return c.head.Name, work
		}
	}
	return depotName, weather.Practice
}

// look reads the weather of a site and looks its airspace up, as the crew does
// before each job.
func (g *generator) look(ctx context.Context, place string) error {
	id, now := g.sites[place], g.clock.Now().UTC()
	station, far := 225.0, 9.0
	if err := g.svc.Sites.AddWeather(ctx, id, sites.NewWeather{ID: newID(), Ground: "crops", StationM: &station,
		StationKm: &far,
		Report: fmt.Sprintf("METAR KZZT %sZ AUTO 24005KT 10SM FEW060 16/06 A3000 RMK AO2",
			now.Format("021504"))}); err != nil {
		return err
	}
	for _, c := range sitesOfTheDistrict() {
		if c.head.Name == place {
			answer := fmt.Appendf(nil, `{"type":"FeatureCollection","covers":{"lat":%g,"lon":%g,"radius_km":6},"features":[]}`,
				c.head.Lat, c.head.Lon)
			return g.svc.Airspace.Take(ctx, id, answer)
		}
	}
	return fmt.Errorf("no site %q", place)
}

// order plans the job of one flight and brings everything about it in order.
func (g *generator) order(ctx context.Context, a *craft, pilot, purpose string) (uuid.UUID, error) {
	ctx = g.as(ctx, pilot)
	place, work := where(a, purpose)
	if err := g.look(ctx, place); err != nil {
		return uuid.Nil, err
	}
	now := g.clock.Now()
	height, speed := 40.0, 8.0
	c := jobs.Craft{AircraftID: a.id, ReturnM: &height, LostLink: string(intent.Returns), SpeedMS: &speed}
	j := jobs.Job{ID: newID(), Work: string(work), SiteID: g.sites[place], Aim: purpose, FromAt: now.Add(-time.Minute),
		ToAt: now.Add(80 * time.Minute), Channel: "Radio channel 4", Meeting: "The truck",
		People: []jobs.Post{{PersonID: g.people[pilot].ID, Post: string(crew.InCommand)}}}
	if work == weather.Spraying {
		low, tank := 4.0, 68.0
		c.RouteM, c.RouteDatum, c.MassKg, j.Product = &low, string(intent.AboveGround), &tank, "Wettable sulphur 80 %"
	}
	if work == weather.Practice {
		high := 20.0
		c.RouteM, c.RouteDatum = &high, string(intent.AboveGround)
	}
	j.Aircraft = []jobs.Craft{c}
	if err := g.svc.Jobs.Save(ctx, j); err != nil {
		return uuid.Nil, err
	}
	said := map[string]string{}
	seen, err := g.svc.Jobs.Assess(ctx, j.ID)
	if err != nil {
		return uuid.Nil, err
	}
	for _, q := range seen.Asks {
		said[q.ID] = q.Options[0].ID
	}
	if err := g.svc.Jobs.Answer(ctx, j.ID, said); err != nil {
		return uuid.Nil, err
	}
	if place == "Long Bank" {
		if err := g.svc.Jobs.Decide(ctx, j.ID, jobs.NewDecision{ID: newID(), Aircraft: a.id, Kind: intent.LevelGround,
			Reason: "walked the bank, level within a metre"}); err != nil {
			return uuid.Nil, err
		}
	}
	brief := newID()
	if err := g.svc.Jobs.Brief(ctx, j.ID, brief); err != nil {
		return uuid.Nil, err
	}
	b, err := g.svc.Jobs.Newest(ctx, j.ID)
	if err != nil {
		return uuid.Nil, err
	}
	return j.ID, g.svc.Jobs.SignBriefing(ctx, j.ID, brief, g.people[pilot].ID, b.Hash, pin(pilot))
}

// done closes the job of a flight and has the technician look at what the
// flight showed.
func (g *generator) done(ctx context.Context, a *craft, job uuid.UUID) error {
	j, err := g.svc.Jobs.Get(ctx, job)
	if err != nil {
		return err
	}
	if err := g.svc.Jobs.End(g.as(ctx, "imre"), job, jobs.Done, j.Version); err != nil {
		return err
	}
	if a.name == "Lantern Two" && g.share > 0.93 {
		return nil // its motor is still being watched
	}
	open, _, err := g.svc.Walkrounds.Defects(ctx, &a.id, "")
	if err != nil {
		return err
	}
	for _, d := range open {
		if d.ClosedAt != nil || d.Origin != walkround.ByFlight {
			continue
		}
		g.clock.Advance(6 * time.Minute)
		if err := g.svc.Walkrounds.Settle(g.as(ctx, "tamsin"), d.ID, "Looked at and spun by hand: nothing found.",
			pin("tamsin")); err != nil {
			return err
		}
	}
	return nil
}

// practised logs the practice that opened the types, each signed by the other
// pilot who watched.
func (g *generator) practised(ctx context.Context, day time.Time) error {
	types := []string{"lantern-4", "dray-30", "tally-w", "tally-v"}
	for i, login := range []string{"imre", "odile"} {
		other := []string{"odile", "imre"}[i]
		for k, key := range types {
			first := day.AddDate(-1, -2, 7*k+i)
			rows := []readiness.Practice{{Phase: "empty", Packs: 3 + i, Landings: 5, NoseIn: true, FlownOn: first}}
			if key == "dray-30" {
				rows = append(rows, readiness.Practice{Phase: "loaded", Packs: 3, Landings: 4, FlownOn: first.AddDate(0, 0, 2),
					Note: "Full tank, not spraying."})
			}
			for _, r := range rows {
				r.ID, r.PersonID, r.TypeKey = newID(), g.people[login].ID, key
				if err := g.svc.Readiness.Log(g.as(ctx, other), r, pin(other)); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
