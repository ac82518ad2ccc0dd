package jobs

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/brief"
	"mainstay/core/crew"
	"mainstay/core/gate"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/weather"
	"mainstay/internal/airspace"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/sites"
)

// background is what is known about the crew whatever the job; it is read once
// per question.
type background struct {
	Papers
	people []people.Person
	fit    map[uuid.UUID]crew.Fitness
	inAir  map[uuid.UUID]flying
}

type flying struct {
	PilotID    uuid.UUID
	AircraftID uuid.UUID
	Aircraft   string
	JobID      *uuid.UUID
}

// Papers is what rules need about every aircraft: the pack with practice and
// own rules, the documents, the civil day.
type Papers struct {
	Pack rules.Pack
	Docs []rules.Document
	Day  time.Time
	Crew people.Crew
}

// Papers gathers them.
func (s *Service) Papers(ctx context.Context) (Papers, error) {
	var out Papers
	book, err := s.Rules.Book(ctx)
	if err != nil {
		return out, err
	}
	out.Crew = book.Crew
	if out.Pack, err = book.Whole(); err != nil {
		return out, err
	}
	out.Day = out.Crew.Day(s.Clock.Now())
	docs, err := s.People.Documents(ctx)
	for _, d := range docs {
		out.Docs = append(out.Docs, d.Fact())
	}
	return out, err
}

// Facts are the facts about an aircraft that the rules about it judge.
func (p Papers) Facts(a fleet.Aircraft, t airframe.Type) rules.Facts {
	return rules.Facts{Day: p.Day, SightM: p.Crew.SightM, Docs: p.Docs,
		Aircraft: rules.Aircraft{ID: a.ID.String(), Name: a.Name, Registration: a.Registration,
			RegistrationExpires: a.RegistrationExpires, MassKg: float64(t.Limits.TakeoffMassKg), Type: t.Name}}
}

func (s *Service) background(ctx context.Context, papers Papers) (background, error) {
	b := background{Papers: papers}
	var err error
	if b.people, err = s.People.List(ctx); err != nil {
		return b, err
	}
	if b.fit, err = s.People.FitOn(ctx, b.Day); err != nil {
		return b, err
	}
	var air []flying
	if err := s.DB.WithContext(ctx).Raw("select f.pilot_id, f.aircraft_id, a.name as aircraft, f.job_id from flights f join aircraft a on a.id = f.aircraft_id where f.state = 'air'").Scan(&air).Error; err != nil {
		return b, err
	}
	b.inAir = map[uuid.UUID]flying{}
	for _, f := range air {
		b.inAir[f.PilotID] = f
	}
	return b, nil
}

// person is somebody as rules judge them, for an aircraft.
func (b background) person(id uuid.UUID, post string, aircraft uuid.UUID,
	ready map[uuid.UUID]crew.Readiness) rules.Person {
	for _, p := range b.people {
		if p.ID != id {
			continue
		}
		out := rules.Person{ID: id.String(), Name: p.Name, Certificate: p.Certificate, TrainedOn: p.TrainedOn,
			Role: crew.Post(post)}
		for _, r := range p.Held() {
			out.IsPilot = out.IsPilot || r == crew.Pilot // the role itself: a chief without it does not fly
		}
		if f, ok := b.fit[id]; ok {
			out.Fit = &f
		}
		if r, ok := ready[id]; ok {
			out.Ready = &r
		}
		if f, ok := b.inAir[id]; ok && f.AircraftID != aircraft {
			out.InAir = f.Aircraft
		}
		return out
	}
	return rules.Person{ID: id.String(), Name: "somebody unknown", Role: crew.Post(post)}
}

// ForGate is what the gate asks about pilot, rules and job. Without a job the
// site is empty and only the pilot's and the aircraft's rules are judged.
type ForGate struct {
	Pack  rules.Pack
	Facts rules.Facts
	Site  []judge.Finding
	Seen  *airspace.Seen // nil without a job or a route
	HighM *float64       // highest place above ground; nil: no route is known
	Mass  intent.Mass
	// Energy is what its energy is worked out from, without what the airframe learned.
	Energy   gate.Energy
	FirstLeg string   // what the mission in the aircraft does first
	ReturnM  *float64 // return height that the job sets; nil: none
	LostLink intent.LostLink
	about    sites.Judged
}

// Flight is the question: which aircraft, who flies, with which measured wind.
type Flight struct {
	Job      *uuid.UUID
	Aircraft fleet.Aircraft
	Type     airframe.Type
	Pilot    *uuid.UUID // nil: whoever is in command of the job
	Wind     *gate.Wind
}

// Gate gathers what the gate has to know.
func (s *Service) Gate(ctx context.Context, papers Papers, q Flight) (ForGate, error) {
	b, err := s.background(ctx, papers)
	if err != nil {
		return ForGate{}, err
	}
	var j *Job
	if q.Job != nil {
		got, err := s.Get(ctx, *q.Job)
		if err != nil {
			return ForGate{}, err
		}
		j = &got
	}
	return s.gate(ctx, b, j, q)
}

func (s *Service) gate(ctx context.Context, b background, j *Job, q Flight) (ForGate, error) {
	a, t := q.Aircraft, q.Type
	out := ForGate{Pack: b.Pack, Site: []judge.Finding{},
		Mass: intent.Mass{MassKg: a.MassKg, MaxKg: float64(t.Limits.TakeoffMassKg)}}
	out.Facts = b.Facts(a, t)
	var ids []uuid.UUID
	if q.Pilot != nil {
		ids = append(ids, *q.Pilot)
	}
	if j != nil {
		for _, p := range j.People {
			ids = append(ids, p.PersonID)
			if q.Pilot == nil && p.Post == string(crew.InCommand) {
				q.Pilot = &p.PersonID
			}
		}
	}
	ready, err := s.Readiness.On(ctx, t, ids)
	if err != nil {
		return out, err
	}
	if q.Pilot != nil {
		p := b.person(*q.Pilot, "", a.ID, ready)
		out.Facts.Pilot = &p
	}
	if j == nil {
		return out, nil
	}
	for _, p := range j.People {
		one := b.person(p.PersonID, p.Post, a.ID, ready)
		// An observer serves one aircraft: another one of this job in the air counts too.
		for _, f := range b.inAir {
			if p.Post == string(crew.Observer) && f.JobID != nil && *f.JobID == j.ID && f.AircraftID != a.ID {
				one.InAir = f.Aircraft
			}
		}
		out.Facts.People = append(out.Facts.People, one)
		if out.Facts.Pilot != nil && out.Facts.Pilot.ID == one.ID {
			pilot := one
			out.Facts.Pilot = &pilot
		}
	}
	return out, s.site(ctx, b, *j, q, &out)
}

// site adds what the job itself, its site, the air and the airspace say.
func (s *Service) site(ctx context.Context, b background, j Job, q Flight, out *ForGate) error {
	f := &out.Facts
	f.JobID, f.Work, f.Product = j.ID.String(), j.Work, j.Product
	craft, mine := j.craft(q.Aircraft.ID)
	flight := j.flight(craft)
	plan, err := s.plan(ctx, j, q, mine)
	if err != nil {
		return err
	}
	plan.steer(&flight)
	label := j.Label
	if plan != nil {
		label.LeastDeltaT, label.MostDeltaT = plan.LeastDeltaT, plan.MostDeltaT
	}
	judged, err := s.Sites.ForJob(ctx, j.SiteID, sites.JobAsk{JobID: f.JobID, Type: q.Type, Flight: flight, From: j.FromAt,
		To: j.ToAt, Zone: b.Crew.Location(), Wind: q.Wind, Label: label})
	if err != nil {
		return err
	}
	out.HighM = judged.HighM
	out.Mass = intent.Mass{MassKg: flight.MassKg, MaxKg: float64(q.Type.Limits.TakeoffMassKg), LiftKg: judged.LiftKg}
	if q.Type.TankL > 0 && j.Work == string(weather.Spraying) && craft.MassKg == nil {
		out.Mass.MassKg = nil // the liquid changes from job to job
	}
	out.ReturnM, out.LostLink = flight.ReturnM, flight.LostLink
	out.Energy = gate.Energy{FarM: judged.FarM, ReturnM: judged.ShownM}
	if judged.Air != nil {
		out.Energy.Rho = judged.Air.DensityKgM3
	}
	if plan != nil {
		out.take(*plan)
	}
	out.about = judged
	f.Light, f.HeightM, f.OverTopM, f.FarM, f.PeopleM = judged.Light, judged.HighM, judged.OverTopM, judged.FarM,
		judged.PeopleM
	if f.SpeedMS = craft.SpeedMS; f.SpeedMS == nil && q.Type.Limits.SpeedMS > 0 {
		v := float64(q.Type.Limits.SpeedMS)
		f.SpeedMS = &v
	}
	if f.Answers, err = s.answers(ctx, j.ID, q.Aircraft.ID, b.Pack); err != nil {
		return err
	}
	out.Site = append(out.Site, judged.Findings...)
	open := &judge.Remedy{Kind: judge.OpenJob, ID: f.JobID}
	find := func(v judge.Verdict, sentence, evidence, lifts string) {
		out.Site = append(out.Site, judge.Finding{Rule: judge.RuleJob, Verdict: v, Sentence: sentence, Source: rules.Usual,
			Evidence: evidence, Lifts: lifts, Remedy: open})
	}
	now := s.Clock.Now()
	switch {
	case j.State != Planned:
		find(judge.Stop, "This job is "+strings.ReplaceAll(j.State, "-", " ")+".", "State of the job.", "planning it again")
	case now.Before(j.FromAt) || !now.Before(j.ToAt):
		find(judge.Stop, fmt.Sprintf("It is outside the window of the job, %s to %s.",
			j.FromAt.In(b.Crew.Location()).Format("2006-01-02 15:04"), j.ToAt.In(b.Crew.Location()).Format("15:04")),
			"Window of the job.", "waiting, or changing the window")
	}
	if !mine {
		find(judge.Stop, q.Aircraft.Name+" does not belong to this job.", "Aircraft of the job.", "adding it to the job")
	}
	if h := craft.RouteM; plan != nil && plan.Way != nil && h != nil &&
		math.Abs(*h-max(plan.HeightM, plan.HighestM)) > 0.05 {
		find(judge.Watch, fmt.Sprintf("The job says that %s flies at %.1f m; its plan flies at %.1f m %s, and is what is judged.",
			q.Aircraft.Name, *h, plan.HeightM, cmp.Or(plan.Datum, intent.AboveGround).Words()), "The job, and the plan.",
			"the same height in both")
	}
	if j.Work == string(weather.Spraying) && q.Type.TankL == 0 {
		find(judge.Stop, q.Aircraft.Name+" carries no tank; this job is spraying.", "Type profile.", "another aircraft")
	}
	if len(judged.Places) > 0 {
		seen, err := s.Airspace.Meet(ctx, j.SiteID, flown(j, judged))
		if err != nil {
			return err
		}
		out.Seen = &seen
		out.Site = append(out.Site, seen.Findings...)
	}
	if f.Briefing, err = s.standing(ctx, b, j, q.Aircraft.ID, judged); err != nil {
		return err
	}
	judge.Sort(out.Site)
	return nil
}

// plan is what a plan says of the next flight of an aircraft of a job; nil is none.
func (s *Service) plan(ctx context.Context, j Job, q Flight, mine bool) (*PlannedFlight, error) {
	ask := s.Plans[j.Work]
	if ask == nil || !mine || j.Work == string(weather.Spraying) && q.Type.TankL <= 0 {
		return nil, nil
	}
	return ask(ctx, j.ID, q.Aircraft.ID)
}

// Steered is how an aircraft of the job flies by a plan.
func (j Job) Steered(aircraft uuid.UUID, p PlannedFlight) intent.Flight {
	c, _ := j.craft(aircraft)
	f := j.flight(c)
	p.steer(&f)
	return f
}

// steer makes a flight follow its plan: the plan is what is flown, whatever anybody
// wrote down before about the route.
func (p *PlannedFlight) steer(f *intent.Flight) {
	if p == nil || p.Way == nil {
		return
	}
	f.Plan, f.RouteM, f.Datum = p.Way, &p.HeightM, cmp.Or(p.Datum, intent.AboveGround)
	if p.TakeOff != "" && p.TakeOff != f.TakeOff {
		f.TakeOff = p.TakeOff
		if f.Landing != "" {
			f.Landing = p.TakeOff
		}
	}
}

// take takes over what a plan says of the next flight: its energy and findings, and
// its mass where nobody weighed it today.
func (out *ForGate) take(p PlannedFlight) {
	if p.NeedWh > 0 {
		out.Energy.Planned, out.Energy.NeedWh = true, &p.NeedWh
	}
	if out.Energy.FarM != nil && p.FarM > *out.Energy.FarM {
		out.Energy.FarM = &p.FarM
	}
	out.FirstLeg = p.FirstLeg
	out.Site = append(out.Site, p.Findings...)
	switch {
	case p.WeighedKg != nil:
		out.Mass.MassKg = p.WeighedKg
	case out.Mass.MassKg == nil && p.TakeOffKg > 0:
		out.Mass.MassKg = &p.TakeOffKg
	}
}

// flown is a flight of the job as the airspace meets it.
func flown(j Job, judged sites.Judged) airspace.Flown {
	f := airspace.Flown{Law: judged.Law, Frame: judged.Frame, Places: judged.Places, Second: judged.SecondAt,
		From: j.FromAt, To: j.ToAt}
	if judged.HighM != nil {
		f.HeightM = *judged.HighM
	}
	f.TopM = judged.TopM
	if judged.Air != nil {
		f.QNH = judged.Air.Air.QNH
	}
	return f
}

// craft is an aircraft of the job; ok is false for one that is not.
func (j Job) craft(id uuid.UUID) (Craft, bool) {
	for _, c := range j.Aircraft {
		if c.AircraftID == id {
			return c, true
		}
	}
	return Craft{}, false
}

// Assessed is a job as judged now: once for itself and each aircraft.
type Assessed struct {
	Job     Job
	Common  []judge.Finding            // what every aircraft of it meets
	Each    map[uuid.UUID]AircraftPart // by aircraft
	Asks    []rules.Ask                // that apply; those for each aircraft carry its id
	Facts   rules.Facts
	Pack    rules.Pack
	Verdict judge.Verdict
	Notices []judge.Finding
	Judged  sites.Judged
}

// AircraftPart is what only one aircraft of a job meets.
type AircraftPart struct {
	Findings  []judge.Finding
	AdvisedM  *float64
	HighM     *float64
	WayRound  []geo.Point
	Type      string
	LandBy    float64         // percent
	StandOffM float64         // of the crew
	charted   []judge.Finding // of site, way home and air, before anything is lifted
}

// Assess judges a job: what every aircraft meets, and what only one does. The
// aircraft's own condition is the gate's matter.
func (s *Service) Assess(ctx context.Context, id uuid.UUID) (Assessed, error) {
	j, err := s.Get(ctx, id)
	if err != nil {
		return Assessed{}, err
	}
	papers, err := s.Papers(ctx)
	if err != nil {
		return Assessed{}, err
	}
	b, err := s.background(ctx, papers)
	if err != nil {
		return Assessed{}, err
	}
	out := Assessed{Job: j, Each: map[uuid.UUID]AircraftPart{}, Pack: b.Pack, Common: []judge.Finding{}}
	met := map[string]int{}
	var all [][]judge.Finding
	for i, c := range j.Aircraft {
		a, err := s.Fleet.Aircraft(ctx, c.AircraftID)
		if err != nil {
			return out, err
		}
		t, err := s.Fleet.Type(ctx, a.TypeKey)
		if err != nil {
			return out, err
		}
		g, err := s.gate(ctx, b, &j, Flight{Job: &j.ID, Aircraft: a, Type: t})
		if err != nil {
			return out, err
		}
		found := g.found()
		found, notices := judge.Notices(found)
		for _, x := range notices {
			if !slices.ContainsFunc(out.Notices, func(y judge.Finding) bool { return key(x) == key(y) }) {
				out.Notices = append(out.Notices, x)
			}
		}
		out.Asks = asks(out.Asks, g.Pack, g.Facts)
		if i == 0 {
			out.Facts, out.Judged = g.Facts, g.about
		}
		once := map[string]bool{}
		for _, f := range found {
			if !once[key(f)] {
				once[key(f)] = true
				met[key(f)]++
			}
		}
		all = append(all, found)
		out.Each[c.AircraftID] = AircraftPart{charted: g.about.Findings, AdvisedM: g.about.AdvisedM, HighM: g.about.HighM,
			WayRound: g.about.WayRound, Type: t.Name, LandBy: float64(t.Limits.LandByPercent), StandOffM: t.Kept().StandOffM()}
		out.Verdict = max(out.Verdict, judge.Worst(found))
	}
	if len(j.Aircraft) == 0 {
		if err := s.withoutAircraft(ctx, b, &out); err != nil {
			return out, err
		}
	}
	for i, found := range all {
		part := out.Each[j.Aircraft[i].AircraftID]
		for _, f := range found {
			if met[key(f)] == len(all) {
				if i == 0 {
					out.Common = append(out.Common, f)
				}
				continue
			}
			part.Findings = append(part.Findings, f)
		}
		judge.Sort(part.Findings)
		part.Findings = rules.Gather(part.Findings)
		out.Each[j.Aircraft[i].AircraftID] = part
	}
	judge.Sort(out.Common)
	out.Common = rules.Gather(out.Common)
	return out, nil
}

// found is all that the job's page says about one aircraft of it.
func (g ForGate) found() []judge.Finding {
	found, _ := g.Pack.Judge(g.Facts, rules.OfPilot, rules.OfJob)
	all := append(slices.Clone(g.Site), found...)
	if v, words := g.Mass.Judge(); v != judge.Clear {
		all = append(all, judge.Finding{Rule: judge.RuleMass, Verdict: v, Sentence: g.Facts.Aircraft.Name + ": " + words,
			Source:   g.Pack.Source(judge.RuleMakerLimits),
			Evidence: "Mass of the job, or as weighed for the aircraft; newest weather.", Lifts: "weighing it, or less on board",
			Remedy: &judge.Remedy{Kind: judge.EnterJobMass, ID: g.Facts.JobID}})
	}
	return g.Pack.Lift(all, g.Facts.Docs, g.Facts.Day)
}

// Judge judges one aircraft of a job as it will be flown.
func (s *Service) Judge(ctx context.Context, j Job, c Craft) (AircraftPart, error) {
	papers, err := s.Papers(ctx)
	if err != nil {
		return AircraftPart{}, err
	}
	b, err := s.background(ctx, papers)
	if err != nil {
		return AircraftPart{}, err
	}
	a, err := s.Fleet.Aircraft(ctx, c.AircraftID)
	if err != nil {
		return AircraftPart{}, err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return AircraftPart{}, err
	}
	g, err := s.gate(ctx, b, &j, Flight{Job: &j.ID, Aircraft: a, Type: t})
	found, _ := judge.Notices(g.found())
	return AircraftPart{Findings: found, AdvisedM: g.about.AdvisedM, HighM: g.about.HighM, WayRound: g.about.WayRound,
		Type: t.Name}, err
}

// key tells findings apart.
func key(f judge.Finding) string { return f.Name() + "\x00" + f.Verdict.String() + f.Sentence }

// withoutAircraft judges a job that has none yet by usual values.
func (s *Service) withoutAircraft(ctx context.Context, b background, out *Assessed) error {
	usual, err := s.Sites.Usual(ctx)
	if err != nil {
		return err
	}
	g, err := s.gate(ctx, b, &out.Job, Flight{Job: &out.Job.ID, Type: usual})
	if err != nil {
		return err
	}
	found, _ := judge.Notices(g.found())
	out.Facts, out.Asks = g.Facts, asks(nil, g.Pack, g.Facts)
	out.Common = append(out.Common, judge.Finding{Rule: judge.RuleJob, Verdict: judge.Stop,
		Sentence: "No aircraft is named for this job.", Source: rules.Usual, Evidence: "The job.", Lifts: "naming one",
		Remedy: &judge.Remedy{Kind: judge.OpenJob, ID: out.Job.ID.String()}})
	for _, f := range found {
		if f.Rule != judge.RuleJob && f.Rule != judge.RuleReturnHeight && f.Rule != judge.RuleMass {
			out.Common = append(out.Common, f)
		}
	}
	out.Verdict, out.Judged = judge.Stop, g.about
	return nil
}

// InFlight judges what may end while an aircraft of a job is in the air.
func (s *Service) InFlight(ctx context.Context, job uuid.UUID, a fleet.Aircraft,
	t airframe.Type) ([]judge.Finding, error) {
	papers, err := s.Papers(ctx)
	if err != nil {
		return nil, err
	}
	g, err := s.Gate(ctx, papers, Flight{Job: &job, Aircraft: a, Type: t})
	if err != nil || g.Seen == nil {
		return nil, err
	}
	return airspace.InFlight(s.Clock.Now(), *g.Seen), nil
}

// things of the map that people must know about.
func things(fs []site.Feature) []brief.Thing {
	var out []brief.Thing
	for _, f := range fs {
		switch f.Kind {
		case site.Obstacle, site.Wires, site.Interference, site.Sensitive, site.NoGo:
			out = append(out, brief.Thing{Kind: string(f.Kind), Name: f.Name, What: f.What, HeightM: f.HeightM, SigmaM: f.SigmaM,
				BufferM: f.Buffer(), Note: f.Note})
		}
	}
	return out
}
