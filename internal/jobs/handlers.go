package jobs

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"golang.org/x/sync/errgroup"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/internal/outbox"
	"mainstay/internal/platform/db"
)

// Handlers serve the jobs.
type Handlers struct{ Jobs *Service }

// listAssesses is how many jobs of a list, the soonest, are judged for it.
const listAssesses = 12

func (h *Handlers) ListJobs(ctx context.Context, r api.ListJobsRequestObject) (api.ListJobsResponseObject, error) {
	p := r.Params
	js, next, err := h.Jobs.Page(ctx, Which{Past: api.Value(p.Past), Since: p.Since, Words: api.Value(p.Q),
		Cursor: api.Value(p.Cursor)})
	if err != nil {
		return nil, err
	}
	flown, err := h.Jobs.flown(ctx, js)
	if err != nil {
		return nil, err
	}
	verdicts, err := h.Jobs.verdicts(ctx, js)
	out := api.ListJobs200JSONResponse{Jobs: []api.JobHead{}, NextCursor: next}
	for _, j := range js {
		w := api.JobHead{Id: j.ID, Work: api.JobHeadWork(j.Work), SiteId: j.SiteID, Site: j.Site, Aim: j.Aim,
			From: j.FromAt.UTC(), To: j.ToAt.UTC(), State: api.JobHeadState(j.State), Aircraft: []string{}, People: []string{},
			Flights: flown[j.ID]}
		if v, ok := verdicts[j.ID]; ok {
			w.Verdict = &v
		}
		for _, c := range j.Aircraft {
			w.Aircraft = append(w.Aircraft, c.Name)
		}
		for _, p := range j.People {
			w.People = append(w.People, p.Name)
		}
		out.Jobs = append(out.Jobs, w)
	}
	return out, err
}

// near reports whether a job is planned for about now: then its verdict is
// worth working out for a list.
func (j Job) near(now time.Time) bool {
	return j.State == Planned && now.Before(j.ToAt) && now.Add(12*time.Hour).After(j.FromAt)
}

// verdicts judges the soonest of the jobs that are planned for about now, several at once:
// each asks the database many small questions.
func (s *Service) verdicts(ctx context.Context, of []Job) (map[uuid.UUID]judge.Verdict, error) {
	near := slices.DeleteFunc(slices.Clone(of), func(j Job) bool { return !j.near(s.Clock.Now()) })
	near = near[:min(len(near), listAssesses)]
	found := make([]judge.Verdict, len(near))
	g, ctx := errgroup.WithContext(ctx)
	g.SetLimit(4)
	for i, j := range near {
		g.Go(func() error {
			a, err := s.Assess(ctx, j.ID)
			found[i] = a.Verdict
			return err
		})
	}
	err := g.Wait()
	out := map[uuid.UUID]judge.Verdict{}
	for i, j := range near {
		out[j.ID] = found[i]
	}
	return out, err
}

// flown counts the flights of each job.
func (s *Service) flown(ctx context.Context, of []Job) (map[uuid.UUID]int, error) {
	ids := make(db.UUIDs, len(of))
	for i, j := range of {
		ids[i] = j.ID
	}
	var rows []struct {
		JobID uuid.UUID
		N     int
	}
	err := s.DB.WithContext(ctx).Raw("select job_id, count(*) as n from flights where job_id = any(?::uuid[]) group by job_id",
		ids).Scan(&rows).Error
	out := map[uuid.UUID]int{}
	for _, r := range rows {
		out[r.JobID] = r.N
	}
	return out, err
}

func (h *Handlers) SaveJob(ctx context.Context, r api.SaveJobRequestObject) (api.SaveJobResponseObject, error) {
	b := r.Body
	j := Job{ID: r.Id, Work: string(b.Work), SiteID: b.SiteId, Aim: b.Aim, Product: b.Product, FromAt: b.From.UTC(),
		ToAt: b.To.UTC(), Sorties: b.Sorties, Meeting: b.Meeting, Channel: b.Channel, Version: b.Version,
		TakeOffID: b.TakeOffId, LandingID: b.LandingId, SecondID: b.SecondId}
	if b.Label != nil {
		j.Label = *b.Label
	}
	was, err := h.lostLinks(ctx, r.Id, b.Version)
	if err != nil {
		return nil, err
	}
	for _, c := range b.Aircraft {
		one := Craft{AircraftID: c.AircraftId, ReturnM: c.ReturnM, HomeFollows: c.HomeFollows, RouteM: c.RouteM,
			MassKg: c.MassKg, SpeedMS: c.SpeedMs, LostLink: was[c.AircraftId]}
		if c.LostLink != nil {
			one.LostLink = string(*c.LostLink)
		}
		if c.Datum != nil {
			one.RouteDatum = string(*c.Datum)
		}
		j.Aircraft = append(j.Aircraft, one)
	}
	if b.GearIds != nil {
		j.Gear = []JobGear{}
		for _, id := range *b.GearIds {
			j.Gear = append(j.Gear, JobGear{ID: id})
		}
	}
	for _, p := range b.People {
		j.People = append(j.People, Post{PersonID: p.PersonId, Post: string(p.Post)})
	}
	return api.SaveJob204Response{}, h.Jobs.Save(ctx, j)
}

// lostLinks is what the aircraft of a job do without link, as it stands: who leaves
// it out changes nothing.
func (h *Handlers) lostLinks(ctx context.Context, job uuid.UUID, version int) (map[uuid.UUID]string, error) {
	out := map[uuid.UUID]string{}
	if version == 0 {
		return out, nil
	}
	j, err := h.Jobs.Get(ctx, job)
	for _, c := range j.Aircraft {
		out[c.AircraftID] = c.LostLink
	}
	return out, err
}

func (h *Handlers) EndJob(ctx context.Context, r api.EndJobRequestObject) (api.EndJobResponseObject, error) {
	return api.EndJob204Response{}, h.Jobs.End(ctx, r.Id, string(r.Body.State), r.Body.Version)
}

func (h *Handlers) AnswerJob(ctx context.Context, r api.AnswerJobRequestObject) (api.AnswerJobResponseObject, error) {
	said := map[string]string{}
	for _, a := range r.Body.Answers {
		said[a.Ask] = a.Option
	}
	return api.AnswerJob204Response{}, h.Jobs.Answer(ctx, r.Id, said)
}

func (h *Handlers) DecideJob(ctx context.Context, r api.DecideJobRequestObject) (api.DecideJobResponseObject, error) {
	b := r.Body
	return api.DecideJob201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Jobs.Decide(ctx, r.Id,
		NewDecision{ID: b.Id, Aircraft: b.AircraftId, Kind: intent.Kind(b.Kind), Reason: b.Reason, Place: b.PlaceId})
}

func (h *Handlers) WithdrawDecision(ctx context.Context,
	r api.WithdrawDecisionRequestObject) (api.WithdrawDecisionResponseObject, error) {
	return api.WithdrawDecision204Response{}, h.Jobs.Withdraw(ctx, r.Id, r.Decision, r.Body.Reason)
}

func (h *Handlers) PackKit(ctx context.Context, r api.PackKitRequestObject) (api.PackKitResponseObject, error) {
	ctx, err := outbox.With(ctx, r.Params.PressId, r.Params.PressAgo, r.Params.PressBy)
	if err != nil {
		return nil, err
	}
	b := r.Body
	return api.PackKit204Response{}, h.Jobs.Pack(ctx, r.Id, Packing{
		Item: r.Item, Label: b.Label, Quantity: b.Quantity, Packed: b.Packed, Checked: b.Checked,
	})
}

func (h *Handlers) WriteBriefing(ctx context.Context,
	r api.WriteBriefingRequestObject) (api.WriteBriefingResponseObject, error) {
	return api.WriteBriefing201JSONResponse{MadeJSONResponse: api.MadeJSONResponse{Id: r.Body.Id}}, h.Jobs.Brief(ctx, r.Id,
		r.Body.Id)
}

func (h *Handlers) SignBriefing(ctx context.Context,
	r api.SignBriefingRequestObject) (api.SignBriefingResponseObject, error) {
	b := r.Body
	return api.SignBriefing204Response{}, h.Jobs.SignBriefing(ctx, r.Id, b.BriefingId, b.PersonId, b.Hash, b.Pin)
}

func (h *Handlers) GetJob(ctx context.Context, r api.GetJobRequestObject) (api.GetJobResponseObject, error) {
	a, err := h.Jobs.Assess(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	j := a.Job
	held := []api.JobGear{}
	for _, g := range j.Gear {
		held = append(held, api.JobGear{Id: g.ID, Name: g.Name})
	}
	out := api.GetJob200JSONResponse{Gear: held, Id: j.ID, Work: api.JobWork(j.Work), SiteId: j.SiteID, Site: j.Site,
		Aim: j.Aim, Product: j.Product, From: j.FromAt.UTC(), To: j.ToAt.UTC(), Sorties: j.Sorties, Meeting: j.Meeting,
		Channel: j.Channel, State: api.JobState(j.State),
		Version: j.Version, CreatedBy: j.CreatedBy, Aircraft: []api.JobCraftSeen{}, People: wirePosts(j.People),
		Verdict: a.Verdict, Findings: a.Common, Rules: fmt.Sprintf("%s %d",
			a.Pack.Name, a.Pack.Version), Kit: []api.KitItem{}, Flights: []api.JobFlight{},
		Notices: append([]judge.Finding{},
			a.Notices...), TakeOffId: j.TakeOffID, LandingId: j.LandingID, SecondId: j.SecondID, Label: j.Label,
		Decisions: []api.JobDecisionSeen{}}
	for _, d := range j.Decided {
		w := api.JobDecisionSeen{Id: uuid.MustParse(d.ID), AircraftId: d.AircraftID, Kind: string(d.Kind), Reason: d.Reason,
			By: d.By, At: d.At}
		if x := d.Withdrawn; x != nil {
			w.Withdrawn = &api.WithdrawnSeen{By: x.By, At: x.At, Why: x.Why}
		}
		out.Decisions = append(out.Decisions, w)
	}
	for _, c := range j.Aircraft {
		p := a.Each[c.AircraftID]
		w := api.JobCraftSeen{AircraftId: c.AircraftID, Name: c.Name, Type: p.Type, ReturnM: c.ReturnM, AdvisedM: p.AdvisedM,
			HomeFollows: c.HomeFollows, LostLink: api.LostLink(c.LostLink), RouteM: c.RouteM, Datum: api.Datum(c.RouteDatum),
			MassKg: c.MassKg, UsualMassKg: c.UsualMassKg, HighM: p.HighM, SpeedMs: c.SpeedMS, Verdict: judge.Worst(p.Findings),
			Findings: p.Findings}
		if w.Findings == nil {
			w.Findings = []judge.Finding{}
		}
		out.Aircraft = append(out.Aircraft, w)
	}
	if out.Asks, err = h.asks(ctx, a); err != nil {
		return nil, err
	}
	items, err := h.Jobs.Kit(ctx, a)
	if err != nil {
		return nil, err
	}
	for _, k := range items {
		out.Kit = append(out.Kit, api.KitItem{Id: k.ID, Label: k.Label, Quantity: k.Quantity, Why: k.Why, Own: k.Own,
			Packed: k.PackedAt != nil, PackedBy: k.PackedBy, Checked: k.CheckedAt != nil, CheckedBy: k.CheckedBy})
	}
	if out.Briefing, err = h.briefing(ctx, a); err != nil {
		return nil, err
	}
	var flights []struct {
		ID        uuid.UUID
		Aircraft  string
		Pilot     string
		TookOffAt time.Time
		State     string
		Seconds   int
	}
	err = h.Jobs.DB.WithContext(ctx).Raw("select f.id, a.name as aircraft, p.name as pilot, f.took_off_at, f.state, f.seconds from flights f join aircraft a on a.id = f.aircraft_id join people p on p.id = f.pilot_id where f.job_id = ? order by f.took_off_at",
		j.ID).Scan(&flights).Error
	for _, f := range flights {
		out.Flights = append(out.Flights, api.JobFlight{Id: f.ID, Aircraft: f.Aircraft, Pilot: f.Pilot,
			TookOffAt: f.TookOffAt.UTC(), State: f.State, Seconds: f.Seconds})
	}
	return out, err
}

func wirePosts(ps []Post) []api.JobPersonSeen {
	out := []api.JobPersonSeen{}
	for _, p := range ps {
		out = append(out, api.JobPersonSeen{PersonId: p.PersonID, Name: p.Name, Post: string(crew.Post(p.Post))})
	}
	return out
}

// asks are the questions that apply, with what was answered.
func (h *Handlers) asks(ctx context.Context, a Assessed) ([]api.AskedRule, error) {
	rows, err := h.Jobs.answerRows(ctx, a.Job.ID)
	out := []api.AskedRule{}
	for _, q := range a.Asks {
		w := api.AskedRule{Id: q.ID, Question: q.Question, Options: q.Options}
		if r := ruleOf(a.Pack, q.ID); r != nil {
			w.Rule, w.Citation, w.Statement = r.ID, r.Citation, r.Statement
		}
		for _, x := range rows {
			if x.Ask == q.ID {
				at := x.At.UTC()
				w.Option, w.By, w.At = x.Option, x.ByName, &at
			}
		}
		out = append(out, w)
	}
	return out, err
}

func ruleOf(p rules.Pack, ask string) *rules.Rule {
	for i, r := range p.Rules {
		id, _, _ := strings.Cut(ask, "@")
		for _, a := range r.Asks {
			if a.ID == id {
				return &p.Rules[i]
			}
		}
	}
	return nil
}

func (h *Handlers) briefing(ctx context.Context, a Assessed) (*api.Briefing, error) {
	b, err := h.Jobs.Newest(ctx, a.Job.ID)
	if err != nil || b == nil {
		return nil, err
	}
	out := api.Briefing{Id: b.ID, At: b.At.UTC(), By: b.By, Hash: b.Hash, Sections: b.Sections,
		Signed: []api.BriefSigned{}, Missing: wirePosts(b.missing(a.Job))}
	if a.Facts.Briefing != nil {
		out.Changed = a.Facts.Briefing.Changed
	}
	for _, g := range b.Signed {
		out.Signed = append(out.Signed, api.BriefSigned{PersonId: g.PersonID, Name: g.Name, At: g.At.UTC()})
	}
	return &out, nil
}
