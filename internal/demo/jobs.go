package demo

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/intent"
	"mainstay/core/rules"
	"mainstay/core/spray"
	"mainstay/core/weather"
	"mainstay/internal/airspace"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/readiness"
	"mainstay/internal/sites"
	"mainstay/internal/spraying"
	"mainstay/internal/standins/desk"
)

// fitToday has a pilot declare to be fit, once a day.
func (g *generator) fitToday(ctx context.Context, login string) error {
	c, _, err := g.svc.People.Crew(ctx)
	if err != nil {
		return err
	}
	day := c.Day(g.clock.Now())
	if g.fit[login].Equal(day) {
		return nil
	}
	g.fit[login] = day
	return g.svc.People.DeclareFit(g.as(ctx, login), newID(), nil)
}

// exemptions puts on file what the crew flies under, and the practice that opened
// its types, before the year begins.
func (g *generator) exemptions(ctx context.Context, end time.Time) error {
	ctx = g.as(ctx, "imre")
	c, _, err := g.svc.People.Crew(ctx)
	if err != nil {
		return err
	}
	day := c.Day(end)
	of := func(login string) *uuid.UUID { id := g.people[login].ID; return &id }
	ends2, soon := day.AddDate(1, 0, 90), day.AddDate(0, 0, 12)
	issued, older, ends := day.AddDate(-1, 0, -40), day.AddDate(-2, 0, 0), day.AddDate(1, 0, 0)
	for _, d := range []people.Document{
		{Kind: string(rules.HeavyExemption), Number: "QX-2117", IssuedOn: &issued, ExpiresOn: &ends,
			Conditions: "Under 200 ft; a named observer with every flight; 500 ft from people who take no part."},
		{Kind: string(rules.Agricultural), Number: "QA-0093", IssuedOn: &older},
		{Kind: string(rules.Applicator), PersonID: of("imre"), Number: "PA-3301", IssuedOn: &older, ExpiresOn: &ends2},
		{Kind: string(rules.Applicator), PersonID: of("odile"), Number: "PA-3388", IssuedOn: &issued, ExpiresOn: &soon},
	} {
		d.ID = newID()
		if err := g.svc.People.SaveDocument(ctx, d); err != nil {
			return fmt.Errorf("%s: %w", d.Number, err)
		}
	}
	return g.practised(ctx, day)
}

// papers puts what was issued lately on file.
func (g *generator) papers(ctx context.Context, end time.Time) error {
	ctx = g.as(ctx, "imre")
	c, _, err := g.svc.People.Crew(ctx)
	if err != nil {
		return err
	}
	day := c.Day(end)
	on := func(years, days int) *time.Time { t := day.AddDate(years, 0, days); return &t }
	of := func(login string) *uuid.UUID { id := g.people[login].ID; return &id }
	for _, d := range []people.Document{
		{Kind: string(rules.Insurance), Number: "TM-55120", IssuedOn: on(-1, 20), ExpiresOn: on(0, 19),
			Conditions: "Third parties, all aircraft of the crew."},
		{Kind: string(rules.NightTraining), PersonID: of("imre"), Number: "RP-40117/N", IssuedOn: on(-1, -130)},
	} {
		d.ID = newID()
		if err := g.svc.People.SaveDocument(ctx, d); err != nil {
			return fmt.Errorf("%s: %w", d.Number, err)
		}
	}
	// Bao is on the way: two packs of the quad, never nose-in.
	return g.svc.Readiness.Log(ctx, readiness.Practice{ID: newID(), PersonID: g.people["bao"].ID, TypeKey: "lantern-4",
		Phase: "empty", Packs: 2, Landings: 6, FlownOn: day.AddDate(0, 0, -9), Note: "Calm, at the depot."}, Crew[0].PIN)
}

// jobsToday plans the work of today and tomorrow. Each leaves something to do.
func (g *generator) jobsToday(ctx context.Context, end time.Time) error {
	ctx = g.as(ctx, "imre")
	hour := end.Truncate(time.Hour)
	if g.clock.Now().Before(end.Add(-5 * time.Minute)) {
		g.clock.Set(end.Add(-5 * time.Minute))
	}
	if err := g.lookUp(ctx); err != nil {
		return err
	}
	six, twelve, eight, tank := 6, 12.0, 8.0, 68.5
	thirty, two := 30.0, 2
	person := func(login, post string) jobs.Post { return jobs.Post{PersonID: g.people[login].ID, Post: post} }
	inspection := jobs.Job{ID: newID(), Work: string(weather.Inspection), SiteID: g.sites["Cutwater station"],
		Aim: "Roof panels and intake, pictures for the operator", FromAt: hour.Add(-time.Hour), ToAt: hour.Add(4 * time.Hour),
		Sorties: &two,
		Meeting: "Car park, at the gate", Channel: "Radio channel 4", People: []jobs.Post{person("imre", "rpic"),
			person("bao", "observer")},
		Aircraft: []jobs.Craft{{AircraftID: byName("Lantern Three").id, ReturnM: &thirty, LostLink: string(intent.Returns),
			SpeedMS: &eight}}}
	low := 4.0
	yard, err := g.svc.Fleet.Type(ctx, "dray-30")
	if err != nil {
		return err
	}
	says, err := g.svc.Sites.ForJob(ctx, g.sites["Upper Tolmere yard"],
		sites.JobAsk{Type: yard, Flight: intent.Flight{Work: string(weather.Spraying), RouteM: &low}, From: hour,
			To: hour.Add(time.Hour), Zone: time.UTC})
	if err != nil {
		return err
	}
	hopYard := jobs.Job{ID: newID(), Work: string(weather.Spraying), SiteID: g.sites["Upper Tolmere yard"],
		Aim: "Hops, rows 25 to 60, mildew", Product: "Wettable sulphur 80 %", FromAt: hour.Add(-time.Hour),
		ToAt: hour.Add(3 * time.Hour), Sorties: &six,
		Meeting: "Track at the gate", People: []jobs.Post{person("odile", "rpic"), person("tamsin", "ground")},
		Aircraft: []jobs.Craft{{AircraftID: byName("Dray One").id, ReturnM: says.AdvisedM, LostLink: string(intent.Returns),
			RouteM: &low, RouteDatum: string(intent.AboveGround), MassKg: &tank, SpeedMS: &eight}}}
	survey := jobs.Job{ID: newID(), Work: string(weather.Mapping), SiteID: g.sites["Long Bank"],
		Aim: "Flood bank, surface model, km 0 to 4", FromAt: hour.Add(23 * time.Hour), ToAt: hour.Add(28 * time.Hour),
		People: []jobs.Post{person("imre", "rpic"), person("bao",
			"observer")}, Aircraft: []jobs.Craft{{AircraftID: byName("Tally W").id, SpeedMS: &twelve}}}
	later := jobs.Job{ID: newID(), Work: string(weather.Spraying), SiteID: g.sites["Upper Tolmere yard"],
		Aim: "Hops, rows 61 to 90, spider mites", Product: "Mite oil", FromAt: hour.Add(4 * time.Hour),
		ToAt:    hour.Add(8 * time.Hour),
		Meeting: "Track at the gate", People: []jobs.Post{person("odile", "rpic"), person("tamsin", "ground")},
		Aircraft: []jobs.Craft{{AircraftID: byName("Dray Two").id, ReturnM: says.AdvisedM, LostLink: string(intent.Returns),
			RouteM: &low, RouteDatum: string(intent.AboveGround), SpeedMS: &eight}}}
	for _, j := range []jobs.Job{inspection, hopYard, survey, later} {
		if err := g.svc.Jobs.Save(ctx, j); err != nil {
			return fmt.Errorf("%s: %w", j.Aim, err)
		}
	}
	roof, hops := inspection.Aircraft[0].AircraftID.String(), hopYard.Aircraft[0].AircraftID.String()
	if err := g.svc.Jobs.Answer(ctx, inspection.ID, map[string]string{"looked-over": "yes", "attached@" + roof: "none",
		"people-under": "participants", "road-under": "no", "sight": "observer", "drops": "nothing", "hazmat": "none",
		"vehicle": "no", "remote-id@" + roof: "standard", "landowner": "yes", "energised": "agreed"}); err != nil {
		return err
	}
	if err := g.svc.Jobs.Answer(ctx, hopYard.ID, map[string]string{"looked-over": "yes", "attached@" + hops: "none",
		"people-under": "participants", "road-under": "no", "sight": "pilot", "landowner": "yes",
		"label": "yes"}); err != nil {
		return err
	}
	for _, it := range []string{"packs-Lantern 4", "propellers-Lantern 4", "chargers", "controller", "drivers", "pad",
		"fire", "aid"} {
		if err := g.svc.Jobs.Pack(g.as(ctx, "bao"), inspection.ID, jobs.Packing{
			Item: it, Packed: true, Checked: it != "fire",
		}); err != nil {
			return err
		}
	}
	if err := g.fitToday(ctx, "bao"); err != nil {
		return err
	}
	if err := g.sprayPlan(ctx, hopYard.ID, hopYard.Aircraft[0].AircraftID); err != nil {
		return fmt.Errorf("spray plan: %w", err)
	}
	if err := g.heavyPlan(ctx, later.ID, later.Aircraft[0].AircraftID); err != nil {
		return fmt.Errorf("spray plan: %w", err)
	}
	if err := g.surveyPlan(ctx, survey.ID, survey.Aircraft[0].AircraftID); err != nil {
		return fmt.Errorf("survey plan: %w", err)
	}
	if err := g.roofPlan(ctx, inspection.ID, inspection.Aircraft[0].AircraftID); err != nil {
		return fmt.Errorf("inspection plan: %w", err)
	}
	return g.briefedByOne(ctx, inspection.ID)
}

// lookUp brings the zones of the district in, and the authorisation for today.
func (g *generator) lookUp(ctx context.Context) error {
	zones, err := desk.New(g.clock.Now).Zones()
	if err != nil {
		return err
	}
	for _, name := range []string{"Cutwater station", "Upper Tolmere yard"} { // nobody has asked about Long Bank yet
		if err := g.svc.Airspace.Take(ctx, g.sites[name], zones); err != nil {
			return err
		}
	}
	now := g.clock.Now()
	hour := now.Add(5 * time.Minute).Truncate(time.Hour)
	seen, err := g.svc.Airspace.Over(ctx, g.sites["Cutwater station"], 60, now, now.Add(time.Hour))
	if err != nil {
		return err
	}
	for _, z := range seen.Zoned {
		if z.Inside && z.Zone.Class == "D" {
			id, err := uuid.Parse(z.Zone.ID)
			if err != nil {
				return err
			}
			return g.svc.Airspace.Ask(ctx, airspace.New{ID: newID(), Site: g.sites["Cutwater station"], Zone: id,
				Number: "TD-1093", CeilingM: 90, From: hour.Add(-time.Hour), To: hour.Add(4 * time.Hour)})
		}
	}
	return fmt.Errorf("the control zone of the demo is missing")
}

// briefedByOne writes the briefing of a job; only Bao has signed it.
func (g *generator) briefedByOne(ctx context.Context, job uuid.UUID) error {
	id := newID()
	if err := g.svc.Jobs.Brief(ctx, job, id); err != nil {
		return err
	}
	b, err := g.svc.Jobs.Newest(ctx, job)
	if err != nil {
		return err
	}
	return g.svc.Jobs.SignBriefing(ctx, job, id, g.people["bao"].ID, b.Hash, pin("bao"))
}

// sprayPlan plans the yard for Dray One, a quarter of it sprayed, and calibrates it:
// one nozzle is worn.
func (g *generator) sprayPlan(ctx context.Context, job, aircraft uuid.UUID) error {
	w := spray.Defaults()
	w.Rate, w.Speed, w.Swath, w.CropM, w.HeightM, w.EdgeM, w.Nozzle, w.Nozzles, w.Sections = 25, 5, 6, 6, 2.5, 4,
		"drift-030", 4, 2
	w.Mix = []spray.Product{{Name: "Wettable sulphur 80 %", PerHa: 3, Unit: "kg"},
		{Name: "Wetter", Percent: 0.1, Unit: "L"}}
	w.Number = "QX-REG 4471"
	buffer, most, entry := 95.0, 40.0, 24.0
	w.Label = spray.Label{BufferM: &buffer, MostRate: &most, ReEntryHours: &entry}
	odile, tamsin := g.as(ctx, "odile"), g.as(ctx, "tamsin")
	if err := g.svc.Spraying.Save(odile, newID(), job, aircraft, w, 0); err != nil {
		return err
	}
	p, err := g.svc.Spraying.Get(odile, job, aircraft)
	if err != nil {
		return err
	}
	if s := p.Out.Flown.Sorties; len(s) > 1 {
		var parts []spraying.Done
		for _, l := range s[0].Legs {
			parts = append(parts, spraying.Done{ID: newID(), Pass: l.Pass, FromShare: l.Share[0], ToShare: l.Share[1]})
		}
		if err := g.svc.Spraying.Spray(odile, job, aircraft, parts, 0); err != nil {
			return err
		}
	}
	num := func(v float64) *float64 { return &v }
	yes, caught := true, []float64{0.76, 0.75, 0.69, 0.77}
	for _, c := range []api.NewSprayCheck{
		{Kind: "scale", Empty: num(0.02), Known: num(20), Shown: num(20.1), Factor: num(0.0213)},
		{Kind: "pump", Target: num(9.8), Shown: num(10), Factor: num(1.04)},
		{Kind: "catch", Caught: &caught, Target: num(3)},
		{Kind: "bled", InOrder: &yes}, {Kind: "idle-zero", InOrder: &yes}, {Kind: "cleaned", InOrder: &yes},
	} {
		c.Id = newID()
		if err := g.svc.Spraying.AddCheck(tamsin, aircraft, c); err != nil {
			return err
		}
	}
	return nil
}

// byHand decides how it comes over the trellis to where the flights begin.
func (g *generator) byHand(ctx context.Context, job, aircraft uuid.UUID) error {
	return g.svc.Jobs.Decide(ctx, job, jobs.NewDecision{ID: newID(), Aircraft: aircraft, Kind: intent.ByHand,
		Reason: "flown by hand over the end of the trellis, Bao watches the wires"})
}

// heavyPlan plans the afternoon for Dray Two: so much water that the mass, and not the
// tank, ends a flight.
func (g *generator) heavyPlan(ctx context.Context, job, aircraft uuid.UUID) error {
	w := spray.Defaults()
	w.Rate, w.Speed, w.Swath, w.CropM, w.HeightM, w.EdgeM, w.Nozzle, w.Nozzles, w.Direction, w.BearingDeg = 60, 3, 5, 6, 3,
		4, "air-030", 4, spray.Along, 90
	w.Mix = []spray.Product{{Name: "Mite oil", Percent: 1, Unit: "L"}}
	w.Number = "QX-REG 5120"
	buffer, entry, dry := 40.0, 12.0, 44.5
	w.Label, w.DryKg = spray.Label{BufferM: &buffer, ReEntryHours: &entry}, &dry
	odile := g.as(ctx, "odile")
	if err := g.svc.Spraying.Save(odile, newID(), job, aircraft, w, 0); err != nil {
		return err
	}
	return g.byHand(odile, job, aircraft)
}
