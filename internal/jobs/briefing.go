package jobs

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/brief"
	"mainstay/core/crew"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/sites"
)

// Briefing is one as it was written, with who signed it.
type Briefing struct {
	ID       uuid.UUID
	JobID    uuid.UUID
	Sections []brief.Section
	Basis    brief.Basis
	Hash     string
	At       time.Time
	By       string
	Signed   []Signed
}

// Signed is the signature of one participant.
type Signed struct {
	PersonID uuid.UUID
	Name     string
	At       time.Time
}

// Newest is the newest briefing of a job; nil when there is none.
func (s *Service) Newest(ctx context.Context, job uuid.UUID) (*Briefing, error) {
	var rows []struct {
		ID      uuid.UUID
		Content string
		Basis   string
		Hash    string
		At      time.Time
		ByName  string
	}
	if err := s.DB.WithContext(ctx).Raw("select id, content, basis, hash, at, by_name from briefings where job_id = ? order by at desc, id desc limit 1",
		job).Scan(&rows).Error; err != nil || len(rows) == 0 {
		return nil, err
	}
	r := rows[0]
	b := Briefing{ID: r.ID, JobID: job, Hash: r.Hash, At: r.At, By: r.ByName}
	if err := json.Unmarshal([]byte(r.Content), &b.Sections); err != nil {
		return nil, err
	}
	if err := json.Unmarshal([]byte(r.Basis), &b.Basis); err != nil {
		return nil, err
	}
	err := s.DB.WithContext(ctx).Raw("select g.person_id, p.name, g.at from briefing_signatures g join people p on p.id = g.person_id where g.briefing_id = ? order by g.at",
		b.ID).Scan(&b.Signed).Error
	return &b, err
}

// missing are the people of the job who have not signed.
func (b Briefing) missing(j Job) []Post {
	out := []Post{}
	for _, p := range j.People {
		if !slices.ContainsFunc(b.Signed, func(g Signed) bool { return g.PersonID == p.PersonID }) {
			out = append(out, p)
		}
	}
	return out
}

// standing is the newest briefing as rules judge it.
func (s *Service) standing(ctx context.Context, bg background, j Job, aircraft uuid.UUID,
	judged sites.Judged) (*rules.Briefing, error) {
	b, err := s.Newest(ctx, j.ID)
	if err != nil || b == nil {
		return nil, err
	}
	now := j.basis(judged.Things, bg.Crew, map[uuid.UUID][]judge.Finding{aircraft: judged.Findings})
	out := rules.Briefing{Changed: b.Basis.For(aircraft.String()).Changed(now)}
	for _, p := range b.missing(j) {
		out.Missing = append(out.Missing, p.Name)
	}
	return &out, nil
}

// onMap are the remedies of what stands on the map or in the way, unlike
// weather, calls and papers, which are looked at anew before every start.
var onMap = []judge.RemedyKind{judge.OpenSite, judge.OpenWayHome, judge.DecideInJob}

// basis is what a briefing of the job rests on now: the day is that of its
// window, and a briefing is not good for another day.
func (j Job) basis(on []site.Feature, c people.Crew, found map[uuid.UUID][]judge.Finding) brief.Basis {
	in := brief.Input{Work: j.Work, Product: j.Product, Meeting: j.Meeting, Channel: j.Channel, Things: things(on),
		Drawn: j.drawn(on)}
	for _, x := range j.Aircraft {
		in.Aircraft = append(in.Aircraft, j.told(x))
	}
	for aircraft, fs := range found {
		for _, f := range fs {
			if f.Verdict == judge.Stop && f.Remedy != nil && slices.Contains(onMap, f.Remedy.Kind) {
				in.Stops = append(in.Stops, brief.Stop{Aircraft: aircraft.String(), Rule: f.Name()})
			}
		}
	}
	for _, p := range j.People {
		in.People = append(in.People, brief.Person{ID: p.PersonID.String(), Post: crew.Post(p.Post)})
	}
	return brief.BasisOf(in, j.SiteID.String(), c.Day(j.FromAt).Format(time.DateOnly))
}

// told is how an aircraft of the job is flown, for people to know.
func (j Job) told(x Craft) brief.Aircraft {
	datum := intent.Datum(x.RouteDatum)
	if datum == "" {
		datum = intent.Usual(j.Work)
	}
	out := brief.Aircraft{Name: x.Name, ReturnM: x.ReturnM, HomeFollows: x.HomeFollows,
		LostLink: intent.LostLink(x.LostLink), RouteM: x.RouteM, Datum: datum.Words(), SpeedMS: x.SpeedMS, MassKg: x.MassKg}
	for _, d := range j.Decided {
		if d.AircraftID == x.AircraftID {
			out.Decided = append(out.Decided, fmt.Sprintf("%s (%s: %s)", d.Kind.Words(), d.By, strings.TrimRight(d.Reason, ".")))
		}
	}
	return out
}

// drawn is what of the map the flights follow, with a fingerprint of its places.
func (j Job) drawn(on []site.Feature) []brief.Drawn {
	var out []brief.Drawn
	for _, f := range on {
		switch f.Kind {
		case site.TakeOff, site.Route, site.Work:
			chosen := false
			for _, id := range []*uuid.UUID{j.TakeOffID, j.LandingID, j.SecondID} {
				chosen = chosen || id != nil && id.String() == f.ID
			}
			b, _ := json.Marshal([]any{f.Places, f.Holes, f.GroundM, f.Main}) // plain numbers
			sum := sha256.Sum256(b)
			out = append(out, brief.Drawn{Kind: string(f.Kind), Name: f.Name, Shape: hex.EncodeToString(sum[:6]),
				Chosen: chosen})
		}
	}
	return out
}

// Brief writes the briefing from what is known now. An earlier one stays on
// record; its signatures are not taken over.
func (s *Service) Brief(ctx context.Context, job, id uuid.UUID) error {
	a, err := s.Assess(ctx, job)
	if err != nil {
		return err
	}
	if len(a.Job.People) == 0 {
		return fault.Clash("nobody-to-brief",
			"Nobody has a role in this job yet. Name who is in command and who helps; then brief them.")
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return err
	}
	seen, err := s.Airspace.Meet(ctx, a.Job.SiteID, flown(a.Job, a.Judged))
	if err != nil {
		return err
	}
	in := a.input(c)
	for _, z := range seen.Zoned {
		in.Airspace = append(in.Airspace, z.Sentence)
	}
	if len(seen.Zoned) == 0 && seen.Looked.LookedAt != nil {
		in.Airspace = append(in.Airspace, "No zone within 5 km.")
	}
	sections := brief.Write(in)
	content, err := json.Marshal(sections)
	if err != nil {
		return err
	}
	basis, err := json.Marshal(a.Job.basis(a.Judged.Things, c, a.charted()))
	if err != nil {
		return err
	}
	sum := sha256.Sum256(append(content, basis...))
	return s.DB.WithContext(ctx).Exec("insert into briefings (id, job_id, content, basis, hash, at, by_name) values (?, ?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
		id, job, string(content), string(basis), hex.EncodeToString(sum[:]), s.Clock.Now(), people.From(ctx).Name).Error
}

// charted are what site, way home and air say to each aircraft of the job.
func (a Assessed) charted() map[uuid.UUID][]judge.Finding {
	out := map[uuid.UUID][]judge.Finding{}
	for id, part := range a.Each {
		out[id] = part.charted
	}
	if len(out) == 0 {
		out[uuid.Nil] = a.Judged.Findings
	}
	return out
}

// input is what the briefing is written from.
func (a Assessed) input(c people.Crew) brief.Input {
	j, zone := a.Job, c.Location()
	in := brief.Input{Job: j.Aim, Work: j.Work, Product: j.Product, Site: j.Site, SiteNote: a.Judged.Site.Note,
		From: j.FromAt.In(zone), To: j.ToAt.In(zone), Things: things(a.Judged.Things), TakeOffs: a.Judged.TakeOffs,
		Weather: a.Judged.AirWords(),
		Meeting: j.Meeting, Channel: j.Channel}
	if d := a.Judged.Sun; d.Rise != nil && d.Set != nil {
		in.Sun = append(in.Sun, fmt.Sprintf("Sunrise %s, sunset %s.", d.Rise.In(zone).Format("15:04"),
			d.Set.In(zone).Format("15:04")))
	}
	for _, p := range j.People {
		in.People = append(in.People, brief.Person{ID: p.PersonID.String(), Name: p.Name, Post: crew.Post(p.Post)})
	}
	about := func(fs []judge.Finding) {
		for _, f := range fs {
			switch f.Rule { // what people do not need to know on the field: papers, signatures, and the briefing itself
			case judge.RuleBriefing, judge.RuleJob, judge.RuleFitness, judge.RuleOperator, judge.RuleReadiness, judge.RuleRoles,
				judge.RuleAgricultural, judge.RuleHeavy, judge.RuleReturnHeight, judge.RuleLandowner:
			default:
				if f.Evidence != "No answer." {
					in.Findings = append(in.Findings, f)
				}
			}
		}
	}
	about(a.Common)
	for _, x := range j.Aircraft {
		part := a.Each[x.AircraftID]
		one := j.told(x)
		one.Type, one.AdvisedM, one.LandByPercent, one.StandOffM = part.Type, part.AdvisedM, part.LandBy, part.StandOffM
		in.Aircraft = append(in.Aircraft, one)
		about(part.Findings)
	}
	return in
}

// SignBriefing has a participant sign the newest briefing as they read it.
// Signing twice changes nothing.
func (s *Service) SignBriefing(ctx context.Context, job, briefing, person uuid.UUID, hash, pin string) error {
	j, err := s.Get(ctx, job)
	if err != nil {
		return err
	}
	b, err := s.Newest(ctx, job)
	if err != nil {
		return err
	}
	if b == nil || b.ID != briefing || b.Hash != hash {
		return fault.Clash("briefing-changed",
			"There is a newer briefing than the one you read. Nothing was signed; read the new one.")
	}
	i := slices.IndexFunc(j.People, func(p Post) bool { return p.PersonID == person })
	if i < 0 {
		return fault.Bad("person_id", "This person has no role in the job.")
	}
	if slices.ContainsFunc(b.Signed, func(g Signed) bool { return g.PersonID == person }) {
		return nil
	}
	who, err := s.People.Get(ctx, person)
	if err != nil {
		return err
	}
	if err := s.People.Sign(ctx, person, pin); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		now := s.Clock.Now()
		res := tx.Exec("insert into briefing_signatures (briefing_id, person_id, at) values (?, ?, ?) on conflict do nothing",
			b.ID, person, now)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error // signed meanwhile by the same press
		}
		seq, err := records.Append(ctx, tx, records.Entry{Kind: records.Briefed, Subject: job, At: now, By: who.By(),
			Signed:  true,
			Summary: fmt.Sprintf("%s briefed as %s for: %s", j.People[i].Name, crew.Post(j.People[i].Post).Words(), j.Aim),
			Content: map[string]any{"job": job, "briefing": b.ID, "hash": b.Hash, "sections": b.Sections,
				"statement": "I have read and understood this briefing."}})
		if err != nil {
			return err
		}
		return tx.Exec("update briefing_signatures set record_seq = ? where briefing_id = ? and person_id = ?", seq, b.ID,
			person).Error
	})
}
