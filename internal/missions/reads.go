package missions

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/mission"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/core/why"
	"mainstay/internal/formats/missionfile"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Read is what an aircraft held when it was read back.
type Read struct {
	ID          uuid.UUID
	PlanID      uuid.UUID
	Number      int
	PlannedHash string
	Sent        bool // just before, from here
	Source      string
	Content     string
	Differences string
	Judged      string
	Verdict     string
	At          time.Time
	ByName      string
}

func (Read) TableName() string { return "mission_reads" }

// Standing is what the newest reading of a flight is worth now.
type Standing string

// The standings.
const (
	NotRead   Standing = "not-read"
	Old       Standing = "old" // plan, home, aircraft or what is in it changed since
	Different Standing = "different"
	Equal     Standing = "equal"
)

// Standing of a flight: only what was read back equal to the plan of now counts.
func (p Plan) Standing(number int) Standing {
	r := p.read(number)
	switch {
	case r == nil || number < 1 || number > len(p.Missions):
		return NotRead
	case p.Outdated(number) != "":
		return Old
	case r.Verdict == judge.Stop.String():
		return Different
	}
	return Equal
}

// Outdated says why the newest reading of a flight does not hold any more; "" it does. An
// aircraft holds one mission: what was read since for another flight has taken its place,
// and after a flight nobody knows what is in it.
func (p Plan) Outdated(number int) string {
	r := p.read(number)
	switch {
	case r == nil:
	case r.PlannedHash != p.hash(number):
		return "the plan, its take-off place or the aircraft changed"
	case r.ID != p.Newest:
		return "another mission was sent to the aircraft, or read from it"
	case p.FlownAt != nil && p.FlownAt.After(r.At):
		return "the aircraft has flown"
	}
	return ""
}

// hash names what is to be in the aircraft: the mission, its home, and which aircraft.
func (p Plan) hash(number int) string {
	return p.Missions[number-1].Hash() + " " + p.Aircraft.ID.String() + " " + p.Aircraft.Serial
}

// held is the chart that a flight's mission is judged over.
func (p Plan) held(number int) mission.Chart {
	g := p.Ground
	c := mission.Chart{Frame: g.Chart.Frame, Terrain: g.Chart.Terrain, LeastM: intent.LeastGround(p.Type, p.Job.Work)}
	_, _, c.TakeOffM = p.takeOff(number)
	if h := g.Law.HeightM; h > 0 && p.Out.Inspect == nil { // near a structure its plan holds the height
		c.CeilingM = &h
	}
	if p.Out.Inspect != nil {
		c.LeastM = 0.5
	}
	c.Keep = p.noGo()
	if w := p.Wish.Inspect; w != nil && p.Out.Inspect != nil {
		places := g.Chart.Frame.All(g.Feature.Places)
		// What was read may lie a metre off and is equal still; the safe distance of the plan
		// has room for the error of positions.
		c.PositionM, c.OverM = wayhome.PositionM-mission.PlaceM, intent.LeastOver(p.Type)
		c.Stand = append(p.beside(), w.Structure(places, g.Feature.Shape == site.Line, max(0, w.Safe()-wayhome.PositionM))...)
		return c
	}
	if p.Out.Survey != nil {
		if a := p.given.survey.Area; a != nil {
			c.Outline, c.ReachM = a.Outline, p.Out.Survey.BufferM+2*mission.PlaceM
		}
	}
	return c
}

// Send stores the mission of a flight in its aircraft, and reads it back: only what was
// read counts. Nothing is ever started.
func (s *Service) Send(ctx context.Context, job, aircraft uuid.UUID, number int) error {
	p, m, err := s.flight(ctx, job, aircraft, number)
	if err != nil {
		return err
	}
	at, err := s.link(p)
	if err != nil {
		return err
	}
	if err := s.Link.Call(ctx, http.MethodPut, at, m, nil); err != nil {
		switch words := err.Error(); {
		case strings.HasSuffix(words, "said 413"):
			return fault.Clash("link",
				"The aircraft takes fewer than the %d waypoints of this flight. Nothing was changed in it. Make the area smaller, or its edge simpler.",
				len(m.Items))
		case strings.HasSuffix(words, "said 409"):
			return fault.Clash("link", "%s is flying: nothing was sent to it.", p.Aircraft.Name)
		case strings.HasSuffix(words, "said 404"):
			return fault.Clash("link", "The link does not reach %s, serial %s. Switch it on, or look at its serial number.",
				p.Aircraft.Name, p.Aircraft.Serial)
		}
		return fault.Clash("link",
			"The link to %s broke off while the mission was sent: what it holds now is not known. Send it again, and read it back, before it flies.",
			p.Aircraft.Name)
	}
	return s.readLink(ctx, p, number, true)
}

// ReadBack reads what the aircraft holds and compares it with the plan of a flight.
func (s *Service) ReadBack(ctx context.Context, job, aircraft uuid.UUID, number int) error {
	p, _, err := s.flight(ctx, job, aircraft, number)
	if err != nil {
		return err
	}
	if _, err := s.link(p); err != nil {
		return err
	}
	return s.readLink(ctx, p, number, false)
}

func (s *Service) readLink(ctx context.Context, p Plan, number int, sent bool) error {
	at, err := s.link(p)
	if err != nil {
		return err
	}
	text, err := s.Link.Get(ctx, at)
	switch {
	case err != nil && strings.HasSuffix(err.Error(), "said 404"):
		return fault.Clash("link", "The link does not reach %s, serial %s. Switch it on, or look at its serial number.",
			p.Aircraft.Name, p.Aircraft.Serial)
	case err != nil:
		return fault.Clash("link", "The link to %s does not answer: what the aircraft holds is not known.", p.Aircraft.Name)
	case len(text) == 0:
		return fault.Clash("link", "%s holds no mission.", p.Aircraft.Name)
	}
	var read mission.Mission
	if err := json.Unmarshal(text, &read); err != nil {
		return fault.Clash("link", "What %s answered is no mission: what it holds is not known.", p.Aircraft.Name)
	}
	return s.take(ctx, p, number, read, "aircraft", sent)
}

// ReadFile compares a file, as another program read it from the aircraft, with the plan.
func (s *Service) ReadFile(ctx context.Context, job, aircraft uuid.UUID, number int, name string, r io.Reader) error {
	p, _, err := s.flight(ctx, job, aircraft, number)
	if err != nil {
		return err
	}
	read, err := missionfile.Read(r)
	if errors.Is(err, missionfile.ErrFile) {
		return fault.Bad("file", "The file cannot be compared: %s. Nothing was saved.", why.Words(err))
	}
	if err != nil {
		return err
	}
	return s.take(ctx, p, number, read, "file "+name, false)
}

// take compares what was read and keeps it.
func (s *Service) take(ctx context.Context, p Plan, number int, read mission.Mission, source string, sent bool) error {
	if err := read.Check(); err != nil {
		return fault.Clash("link", "What was read cannot be flown: %s. Send the plan again.", why.Words(err))
	}
	found, err := mission.Compare(p.Missions[number-1], read)
	if err != nil {
		return fault.Clash("link", "What was read cannot be compared: %s.", err)
	}
	judged := read.Judge(p.held(number))
	verdict := mission.Verdict(found)
	for _, b := range judged {
		verdict = max(verdict, b.Verdict)
	}
	id, err := uuid.NewV7()
	if err != nil {
		return err
	}
	content, err1 := json.Marshal(read)
	differences, err2 := json.Marshal(found)
	said, err3 := json.Marshal(judged)
	if err := errors.Join(err1, err2, err3); err != nil {
		return err
	}
	by, now := people.From(ctx), s.Clock.Now()
	row := Read{ID: id, PlanID: p.ID, Number: number, PlannedHash: p.hash(number), Sent: sent, Source: source,
		Content: string(content), Differences: string(differences), Judged: string(said), Verdict: verdict.String(), At: now,
		ByName: by.Name}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		words := "equal to the plan"
		if len(found) > 0 {
			words = found[0].Sentence
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.MissionRead, Subject: p.Aircraft.ID, At: now,
			By: by.By(), Summary: p.Aircraft.Name + ": mission read back from " + source + ", " + words,
			Content: map[string]any{"plan": p.ID, "flight": number, "planned": row.PlannedHash, "read": read.Hash(),
				"differences": found, "verdict": verdict}})
		return err
	})
}

// lock holds a plan as it was looked at.
func (p Plan) lock(tx *gorm.DB) error {
	var version int
	if err := tx.Raw("select version from mission_plans where id = ? for no key update",
		p.ID).Scan(&version).Error; err != nil {
		return err
	}
	if version != p.Version {
		return fault.Stale("mission plan")
	}
	return nil
}

// flight is one flight of a plan that somebody saved.
func (s *Service) flight(ctx context.Context, job, aircraft uuid.UUID, number int) (Plan, mission.Mission, error) {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return p, mission.Mission{}, err
	}
	if number < 1 || number > len(p.Missions) {
		return p, mission.Mission{}, fault.Missing("flight of this plan")
	}
	m := p.Missions[number-1]
	if err := m.Check(); err != nil {
		return p, m, fault.Clash("no-plan", "This flight cannot be given to an aircraft: %s.", why.Words(err))
	}
	return p, m, nil
}

// link is the path of an aircraft's mission.
func (s *Service) link(p Plan) (string, error) {
	if s.Link == nil {
		return "", fault.Clash("link",
			"There is no link to aircraft here. Bring the file that your program read from the aircraft, or have MAINSTAY_AIRCRAFT_URL name a link.")
	}
	if p.Aircraft.Serial == "" {
		return "", fault.Clash("link", "%s has no serial number in its file: the link names aircraft by it.", p.Aircraft.Name)
	}
	return "/aircraft/" + url.PathEscape(p.Aircraft.Serial) + "/mission", nil
}

// First is what it would do first, by what was read where there is that.
func (p Plan) First(number int) (mission.FirstLeg, bool) {
	m := p.Missions[number-1]
	if r := p.read(number); r != nil && r.PlannedHash == p.hash(number) {
		var read mission.Mission
		if json.Unmarshal([]byte(r.Content), &read) == nil {
			m = read
		}
	}
	_, at, elevation := p.takeOff(number)
	return m.First(p.Ground.Chart.Frame.Point(at), &elevation)
}
