package walkround

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Defect is something wrong with an aircraft that somebody has seen.
type Defect struct {
	ID          uuid.UUID
	AircraftID  uuid.UUID
	Station     string
	Title       string
	Note        string
	Severity    string
	Photos      db.UUIDs `gorm:"type:uuid[]"`
	WalkroundID *uuid.UUID
	Origin      string     // person, walk, flight
	Item        string     // what found it: the item of a walk, the sign of a flight; empty of a person
	FlightID    *uuid.UUID // that showed it
	RaisedBy    string
	RaisedAt    time.Time
	ClosedAt    *time.Time
	ClosedBy    string
	ClosingNote string
}

// TableName is the table of defects.
func (Defect) TableName() string { return "defects" }

// Raise puts a defect where everybody sees it at once. Raising the same id
// twice changes nothing.
func (s *Service) Raise(ctx context.Context, d Defect) (Defect, error) {
	a, err := s.Fleet.Aircraft(ctx, d.AircraftID)
	if err != nil {
		return d, err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return d, err
	}
	if !slices.ContainsFunc(t.Stations(), func(st airframe.Station) bool { return st.ID == d.Station }) {
		return d, fault.Bad("station", "%s has no station %q.", t.Name, d.Station)
	}
	by := people.From(ctx)
	d.RaisedBy, d.RaisedAt, d.Origin = by.Name, outbox.From(ctx).At(s.Clock.Now()), ByPerson
	if d.Photos == nil {
		d.Photos = db.UUIDs{}
	}
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var n int64
		if err := tx.Raw("select count(*) from photos where id in ?",
			append([]uuid.UUID{uuid.Nil}, d.Photos...)).Scan(&n).Error; err != nil {
			return err
		}
		if int(n) != len(d.Photos) {
			return fault.Bad("photos", "One of the photos has not arrived yet; send it again.")
		}
		var old Defect
		if err := tx.Limit(1).Find(&old, "id = ?", d.ID).Error; err != nil || old.ID != uuid.Nil {
			d = old
			return err
		}
		return s.put(ctx, tx, a.Name, d)
	})
	return d, err
}

// Where a defect comes from.
const (
	ByPerson = "person"
	ByWalk   = "walk"
	ByFlight = "flight"
)

func (s *Service) put(ctx context.Context, tx *gorm.DB, aircraft string, d Defect) error {
	if err := tx.Create(&d).Error; err != nil {
		return err
	}
	by := people.From(ctx)
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.DefectRaised, Subject: d.AircraftID, At: d.RaisedAt,
		By:      by.By(),
		Summary: aircraft + ": " + d.Title, Content: map[string]any{"defect": d.ID, "station": d.Station, "title": d.Title,
			"note": d.Note, "severity": d.Severity, "photos": d.Photos, "origin": d.Origin, "item": d.Item, "flight": d.FlightID,
			"walkround": d.WalkroundID}})
	return err
}

// found makes what a walk found an open defect, with its place and photos, unless
// the same is open already: then the worse of both counts.
func (s *Service) found(ctx context.Context, tx *gorm.DB, sh Sheet, f Finding, e Entry) error {
	photos := db.UUIDs{}
	for _, p := range e.Value.Photos {
		if id, err := uuid.Parse(p); err == nil {
			photos = append(photos, id)
		}
	}
	title := f.Title
	if i := strings.Index(title, ":"); i > 0 {
		title = title[:i]
	}
	return s.Found(ctx, tx, sh.Aircraft.Name, Defect{AircraftID: sh.AircraftID, Station: f.Station,
		Title: title + ": " + short(f.Sentence), Note: f.Sentence, Severity: f.Verdict.String(), Photos: photos,
		WalkroundID: &sh.ID, Origin: ByWalk, Item: f.ItemID})
}

// Found makes what a walk or a flight showed an open defect, unless the same is
// open already: then note and photos are added to it, and when it is worse now,
// that counts, nothing puts it off any longer, and it is on record.
func (s *Service) Found(ctx context.Context, tx *gorm.DB, aircraft string, d Defect) error {
	var open Defect
	if err := tx.Limit(1).Find(&open, "aircraft_id = ? and item = ? and closed_at is null", d.AircraftID,
		d.Item).Error; err != nil {
		return err
	}
	if open.ID != uuid.Nil {
		return s.again(ctx, tx, aircraft, open, d)
	}
	id, err := uuid.NewV7()
	if err != nil {
		return err
	}
	if d.Photos == nil {
		d.Photos = db.UUIDs{}
	}
	d.ID, d.RaisedBy, d.RaisedAt = id, people.From(ctx).Name, s.Clock.Now()
	return s.put(ctx, tx, aircraft, d)
}

// again adds what was seen anew to a defect that is open.
func (s *Service) again(ctx context.Context, tx *gorm.DB, aircraft string, open, d Defect) error {
	worse := severity(d.Severity) > severity(open.Severity)
	if worse {
		open.Severity = d.Severity
	}
	if !strings.Contains(open.Note, d.Note) {
		open.Note = strings.TrimSpace(open.Note + " " + d.Note)
		if r := []rune(open.Note); len(r) > 4000 {
			open.Note = string(r[:4000])
		}
	}
	for _, p := range d.Photos {
		if !slices.Contains(open.Photos, p) {
			open.Photos = append(open.Photos, p)
		}
	}
	if err := tx.Exec("update defects set severity = ?, note = ?, photos = ? where id = ?", open.Severity, open.Note,
		open.Photos, open.ID).Error; err != nil || !worse {
		return err
	}
	now, by := s.Clock.Now(), people.From(ctx)
	if err := tx.Exec("update deferrals set ended_at = ? where defect_id = ? and ended_at is null", now,
		open.ID).Error; err != nil {
		return err
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.DefectRaised, Subject: open.AircraftID, At: now,
		By:      by.By(),
		Summary: aircraft + ": worse now: " + open.Title, Content: map[string]any{"defect": open.ID,
			"severity": open.Severity, "note": d.Note, "photos": d.Photos, "origin": d.Origin, "flight": d.FlightID}})
	return err
}

// short cuts a sentence to what fits a title.
func short(s string) string {
	r := []rune(strings.TrimRight(strings.TrimSpace(s), "."))
	if len(r) > 90 {
		r = append(r[:89], '…')
	}
	return string(r)
}

// Settle ends a defect without a work order: a technician or chief has looked at
// it, says what was found or done, and signs. The walk that follows shows the
// rest.
func (s *Service) Settle(ctx context.Context, id uuid.UUID, note, pin string) error {
	by := people.From(ctx)
	if !by.Has(crew.Technician) {
		return fault.Denied("Only a technician or chief ends a defect.")
	}
	if len([]rune(strings.TrimSpace(note))) < 3 {
		return fault.Bad("note", "Say what was looked at and what was done.")
	}
	var d Defect
	if err := s.DB.WithContext(ctx).Limit(1).Find(&d, "id = ?", id).Error; err != nil {
		return err
	}
	switch {
	case d.ID == uuid.Nil:
		return fault.Missing("defect")
	case d.ClosedAt != nil:
		return nil
	}
	var orders int64
	if err := s.DB.WithContext(ctx).Raw("select count(*) from work_orders where defect_id = ? and state in ('open', 'signed')",
		id).Scan(&orders).Error; err != nil {
		return err
	}
	if orders > 0 {
		return fault.Clash("order-open", "A work order deals with this defect: sign it there, or cancel it first.")
	}
	if err := s.People.Sign(ctx, by.ID, pin); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		return s.CloseDefect(ctx, tx, id, strings.TrimSpace(note))
	})
}

// CloseDefect ends a defect with the note of the signed work that put it right,
// and what had put it off.
func (s *Service) CloseDefect(ctx context.Context, tx *gorm.DB, id uuid.UUID, note string) error {
	by, now := people.From(ctx), s.Clock.Now()
	var d Defect
	if err := tx.Raw("select * from defects where id = ? for no key update", id).Scan(&d).Error; err != nil {
		return err
	}
	if d.ClosedAt != nil {
		return nil
	}
	d.ClosedAt, d.ClosedBy, d.ClosingNote = &now, by.Name, note
	if err := tx.Save(&d).Error; err != nil {
		return err
	}
	if err := tx.Exec("update deferrals set ended_at = ? where defect_id = ? and ended_at is null", now,
		id).Error; err != nil {
		return err
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.DefectClosed, Subject: d.AircraftID, At: now,
		By: by.By(), Signed: true,
		Summary: d.Title + ": " + note, Content: map[string]any{"defect": d.ID, "title": d.Title, "note": note,
			"statement": "I have put this defect right and inspected the work."}})
	return err
}

const defectsPage = 100

// Defects returns a page of the defects of one aircraft, or of all for a nil id: open ones
// first, newest first; and where the next begins, empty when there is none.
func (s *Service) Defects(ctx context.Context, aircraft *uuid.UUID, cursor string) ([]Defect, string, error) {
	q := s.DB.WithContext(ctx).Order("(closed_at is null) desc, raised_at desc, id desc").Limit(defectsPage + 1)
	if aircraft != nil {
		q = q.Where("aircraft_id = ?", *aircraft)
	}
	if cursor != "" {
		open, at, id, err := db.ParseOpenCursor(cursor)
		if err != nil {
			return nil, "", err
		}
		q = q.Where("(closed_at is null, raised_at, id) < (?, ?::timestamptz, ?::uuid)", open, at, id)
	}
	var out []Defect
	err := q.Find(&out).Error
	out, next := db.Page(out, defectsPage, func(d Defect) string {
		return db.OpenCursor(d.ClosedAt == nil, d.RaisedAt, d.ID)
	})
	return out, next, err
}

// severity reads the word kept in the database.
func severity(s string) judge.Verdict {
	v, err := judge.ParseVerdict(s)
	if err != nil {
		return judge.Stop
	}
	return v
}

// DeferOf is within which limits the list of a run lets a defect found at an item be put off;
// nil: it says nothing of it.
func (s *Service) DeferOf(ctx context.Context, run uuid.UUID, item string) (*upkeep.Grace, error) {
	sh, err := s.bare(ctx, run)
	if err != nil {
		return nil, err
	}
	item, _, _ = strings.Cut(item, "#") // a mark belongs to its item
	for _, it := range sh.Items {
		if it.ID == item && it.Defer != nil {
			return &upkeep.Grace{Days: it.Defer.Days, Flights: it.Defer.Flights, Hours: it.Defer.Hours,
				Limits: it.Defer.Limits}, nil
		}
	}
	return nil, nil
}

// EndDeferral ends that of a task of an aircraft: the task is done.
func EndDeferral(tx *gorm.DB, aircraft uuid.UUID, task string, at time.Time) error {
	return tx.Exec("update deferrals set ended_at = ? where aircraft_id = ? and task_id = ? and ended_at is null", at,
		aircraft, task).Error
}
