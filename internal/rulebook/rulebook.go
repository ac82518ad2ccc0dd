// Package rulebook keeps which rule pack a crew flies under, the rules of its
// own, and what it has to report to the authority.
package rulebook

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/why"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/walkround"
)

// Service keeps the rule book.
type Service struct {
	DB         *gorm.DB
	Clock      clock.Clock
	People     *people.Service
	Fleet      *fleet.Service
	Walkrounds *walkround.Service
}

// Local is a rule of the crew's own with who changed it last.
type Local struct {
	rules.Local
	Version   int
	ChangedBy string
}

// Book is the rule book as it holds now.
type Book struct {
	Crew  people.Crew
	Pack  rules.Pack // chosen, without practice and own rules
	Local []Local
}

// Whole is the chosen pack with usual practice and the own rules.
func (b Book) Whole() (rules.Pack, error) {
	var own []rules.Rule
	for _, l := range b.Local {
		r, err := l.Rule()
		if err != nil {
			return rules.Pack{}, err
		}
		own = append(own, r)
	}
	return b.Pack.With(own), nil
}

// Book returns what holds now.
func (s *Service) Book(ctx context.Context) (Book, error) {
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return Book{}, err
	}
	out := Book{Crew: c}
	if c.RulePack == "" { // before the crew is set up
		c.RulePack = rules.USSmall.Name
	}
	if out.Pack, err = rules.Find(c.RulePack); err != nil {
		return out, err
	}
	var rows []struct {
		ID        uuid.UUID
		Content   string
		Version   int
		ChangedBy string
	}
	if err := s.DB.WithContext(ctx).Raw("select id, content, version, changed_by from local_rules where removed_at is null order by id").Scan(&rows).Error; err != nil {
		return out, err
	}
	for _, r := range rows {
		l := Local{Version: r.Version, ChangedBy: r.ChangedBy}
		if err := json.Unmarshal([]byte(r.Content), &l.Local); err != nil {
			return out, err
		}
		out.Local = append(out.Local, l)
	}
	return out, nil
}

// Choice is what the crew flies under: a pack, and how far it sees.
type Choice struct {
	Pack   string  `json:"pack"`
	SightM float64 `json:"sight_m"` // how far it sees an aircraft well
}

// Choose sets what the crew flies under, if nobody changed the crew meanwhile;
// the change is on record.
func (s *Service) Choose(ctx context.Context, c Choice, version int) error {
	if _, err := rules.Find(c.Pack); err != nil {
		return fault.Bad("pack", "Choose one of the rule packs.")
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := people.ChangeCrew(tx, version, map[string]any{"rule_pack": c.Pack, "sight_m": c.SightM}); err != nil {
			return err
		}
		by := people.From(ctx)
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.RulesChosen, At: s.Clock.Now(), By: by.By(), Content: c,
			Summary: fmt.Sprintf("Flies under %s; sees an aircraft up to %.0f m", c.Pack, c.SightM)})
		return err
	})
}

// SaveLocal adds a rule of the own (version 0) or changes it, if nobody did so
// meanwhile.
func (s *Service) SaveLocal(ctx context.Context, l rules.Local, version int) error {
	if _, err := l.Rule(); err != nil {
		return fault.Bad("question", "The rule cannot be used: %s.", why.Words(err))
	}
	content, err := json.Marshal(l)
	if err != nil {
		return err
	}
	rows, err := records.Change(ctx, s.DB, records.Entry{Kind: records.OwnRuleSaved, At: s.Clock.Now(),
		By: people.From(ctx).By(), Summary: "Own rule: " + l.Question, Content: l},
		`insert into local_rules as o (id, content, changed_at, changed_by) values (?, ?, ?, ?)
		on conflict (id) do update set content = excluded.content, version = o.version + 1, changed_at = excluded.changed_at, changed_by = excluded.changed_by where o.version = ? and o.removed_at is null`,
		l.ID, string(content), s.Clock.Now(), people.From(ctx).Name, version)
	if err == nil && rows == 0 {
		return fault.Stale("rule")
	}
	return err
}

// RemoveLocal takes a rule of the own out of the book.
func (s *Service) RemoveLocal(ctx context.Context, id uuid.UUID) error {
	rows, err := records.Change(ctx, s.DB, records.Entry{Kind: records.OwnRuleRemoved, At: s.Clock.Now(),
		By: people.From(ctx).By(), Summary: "Own rule taken out of the book.", Content: map[string]any{"rule": id}},
		"update local_rules set removed_at = ? where id = ? and removed_at is null", s.Clock.Now(), id)
	if err == nil && rows == 0 {
		return fault.Missing("rule")
	}
	return err
}

// CoverageOf is the advisory list held against the checklist of one type.
type CoverageOf struct {
	Type    airframe.Type
	Version int
	Items   []rules.Covered
}

// Coverage holds the advisory pre-flight list against the checklist of every
// type.
func (s *Service) Coverage(ctx context.Context) ([]CoverageOf, error) {
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return nil, err
	}
	var out []CoverageOf
	for _, t := range types {
		l, err := s.Walkrounds.List(ctx, t.Key, 0)
		if err != nil {
			if _, ok := fault.As(err); ok {
				continue // a type without a checklist cannot be walked either
			}
			return nil, err
		}
		out = append(out, CoverageOf{t, l.Version, walkround.Covered(l, t)})
	}
	return out, nil
}

// Report is something the authority must be told.
type Report struct {
	ID         uuid.UUID
	AircraftID *uuid.UUID
	What       string
	HappenedAt time.Time
	DueAt      time.Time
	ReportedAt *time.Time
	Reference  string
	RaisedBy   string
	At         time.Time
}

// TableName is the table of reports.
func (Report) TableName() string { return "incident_reports" }

// Verdict of a report: Watch while it is due, Stop when it is late.
func (r Report) Verdict(now time.Time) judge.Verdict {
	switch {
	case r.ReportedAt != nil:
		return judge.Clear
	case now.After(r.DueAt):
		return judge.Stop
	}
	return judge.Watch
}

// Raise notes that something must be reported; the pack says by when.
func (s *Service) Raise(ctx context.Context, r Report) error {
	now := s.Clock.Now()
	if r.HappenedAt.After(now.Add(2 * time.Minute)) {
		return fault.Bad("happened_at", "The time lies in the future.")
	}
	b, err := s.Book(ctx)
	if err != nil {
		return err
	}
	r.DueAt, r.RaisedBy, r.At = rules.ReportDue(b.Pack.Name, r.HappenedAt), people.From(ctx).Name, now
	return s.DB.WithContext(ctx).Exec("insert into incident_reports (id, aircraft_id, what, happened_at, due_at, raised_by, at) select ?, a.id, ?, ?, ?, ?, ? from (select ?::uuid as want) w left join aircraft a on a.id = w.want on conflict (id) do nothing",
		r.ID, strings.TrimSpace(r.What), r.HappenedAt, r.DueAt, r.RaisedBy, r.At, r.AircraftID).Error
}

// Done notes under which reference it was reported.
func (s *Service) Done(ctx context.Context, id uuid.UUID, reference string) error {
	res := s.DB.WithContext(ctx).Exec("update incident_reports set reported_at = ?, reference = ? where id = ? and reported_at is null",
		s.Clock.Now(), strings.TrimSpace(reference), id)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Missing("report that is still due")
	}
	return res.Error
}

const reportsPage = 100

// Reports returns a page of them, those still due first, each part by when it was due, the
// latest first; and where the next begins, empty when there is none.
func (s *Service) Reports(ctx context.Context, cursor string) ([]Report, string, error) {
	q := s.DB.WithContext(ctx).Order("(reported_at is null) desc, due_at desc, id desc").Limit(reportsPage + 1)
	if cursor != "" {
		open, at, id, err := db.ParseOpenCursor(cursor)
		if err != nil {
			return nil, "", err
		}
		q = q.Where("(reported_at is null, due_at, id) < (?, ?::timestamptz, ?::uuid)", open, at, id)
	}
	var out []Report
	err := q.Find(&out).Error
	out, next := db.Page(out, reportsPage, func(r Report) string {
		return db.OpenCursor(r.ReportedAt == nil, r.DueAt, r.ID)
	})
	return out, next, err
}

// ForGate are the reports that are still due.
func (s *Service) ForGate(ctx context.Context) ([]gate.Report, error) {
	var rows []Report
	if err := s.DB.WithContext(ctx).Order("due_at").Find(&rows, "reported_at is null").Error; err != nil {
		return nil, err
	}
	var out []gate.Report
	for _, r := range rows {
		out = append(out, gate.Report{ID: r.ID.String(), What: r.What, DueAt: r.DueAt})
	}
	return out, nil
}
