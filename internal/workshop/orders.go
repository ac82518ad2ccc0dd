package workshop

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/core/why"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/walkround"
)

// States of a work order.
const (
	Open      = "open"
	Signed    = "signed" // acceptance flights are due
	Closed    = "closed"
	Cancelled = "cancelled"
)

// Causes of a work order.
const (
	ByProgramme = "programme"
	ByEvent     = "event"
	ByDefect    = "defect"
	ByHand      = "hand"
)

// Work is what an order asks for, kept as it was when the order was opened.
type Work struct {
	Why          string        `json:"why"`
	Steps        []upkeep.Step `json:"steps"`
	Tools        []string      `json:"tools,omitempty"`
	Parts        []upkeep.Need `json:"parts,omitempty"`
	SecondPerson bool          `json:"second_person,omitempty"`
	Acceptance   []upkeep.Load `json:"acceptance,omitempty"`
}

// Order is a work order.
type Order struct {
	ID               uuid.UUID
	AircraftID       uuid.UUID
	Station          string
	Title            string
	Cause            string
	CauseNote        string
	TaskID           string
	ProgrammeVersion int
	DefectID         *uuid.UUID
	Grounds          bool
	Work             Work `gorm:"serializer:json"`
	OpenedBy         string
	OpenedAt         time.Time
	State            string
	SignedBy         string
	SignedAt         *time.Time
	SecondBy         string
	Note             string
	ClosedAt         *time.Time
	Version          int
	Flown            *string `gorm:"->"` // the acceptance flight already made, when signed
}

// TableName is the table of work orders.
func (Order) TableName() string { return "work_orders" }

// Next is the acceptance flight that is due after the signature, "" for none.
func (o Order) Next() upkeep.Load {
	for _, l := range o.Work.Acceptance {
		if o.Flown == nil || string(l) != *o.Flown {
			return l
		}
	}
	return ""
}

// NewOrder opens a work order: for a task of the programme, for a defect, or
// by hand with its own steps.
type NewOrder struct {
	ID           uuid.UUID
	Aircraft     uuid.UUID
	TaskID       string
	DefectID     *uuid.UUID
	Station      string
	Title        string
	Steps        []string
	SecondPerson bool
	Acceptance   []upkeep.Load
}

// OpenOrder opens a work order. Opening the same id twice changes nothing.
func (s *Service) OpenOrder(ctx context.Context, n NewOrder) (Order, error) {
	var o Order
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := tx.Limit(1).Find(&o, "id = ?", n.ID).Error; err != nil || o.ID != uuid.Nil {
			return err
		}
		a, err := s.Fleet.Aircraft(ctx, n.Aircraft)
		if err != nil {
			return err
		}
		o = Order{ID: n.ID, AircraftID: a.ID, Station: n.Station, Title: strings.TrimSpace(n.Title), Cause: ByHand,
			Work: Work{SecondPerson: n.SecondPerson, Acceptance: n.Acceptance}}
		switch {
		case n.TaskID != "":
			p, err := s.Programme(ctx, a.TypeKey)
			if err != nil {
				return err
			}
			t, ok := p.Task(n.TaskID)
			if !ok {
				return fault.Bad("task_id", "The programme of this type has no task %q.", n.TaskID)
			}
			o.fromTask(t, p.Version)
			o.Cause = ByProgramme
		case n.DefectID != nil:
			if err := s.fromDefect(tx, &o, *n.DefectID); err != nil {
				return err
			}
		}
		if len(o.Work.Steps) == 0 {
			for i, text := range n.Steps {
				if text = strings.TrimSpace(text); text != "" {
					o.Work.Steps = append(o.Work.Steps, upkeep.Step{ID: fmt.Sprintf("step-%d", i+1), Text: text})
				}
			}
		}
		if err := s.checkOrder(ctx, a, o); err != nil {
			return err
		}
		return s.open(ctx, tx, a, &o)
	})
	return o, err
}

func (s *Service) checkOrder(ctx context.Context, a fleet.Aircraft, o Order) error {
	var fields []fault.Field
	if o.Title == "" {
		fields = append(fields, fault.Field{Field: "title", Sentence: "Say in a few words what the work is."})
	}
	if len(o.Work.Steps) == 0 {
		fields = append(fields, fault.Field{Field: "steps", Sentence: "Enter at least one step."})
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return err
	}
	if stationLabel(t, o.Station) == "" {
		fields = append(fields, fault.Field{Field: "station", Sentence: "Choose a station of this type."})
	}
	return fault.BadFields(fields)
}

func (o *Order) fromTask(t upkeep.Task, version int) {
	o.TaskID, o.ProgrammeVersion, o.Station, o.Title = t.ID, version, t.Station, t.Title
	o.Work = Work{Why: t.Why, Steps: t.Steps, Tools: t.Tools, Parts: t.Parts, SecondPerson: t.SecondPerson,
		Acceptance: t.Acceptance}
}

func (s *Service) fromDefect(tx *gorm.DB, o *Order, id uuid.UUID) error {
	var d struct {
		ID         uuid.UUID
		AircraftID uuid.UUID
		Station    string
		Title      string
		Severity   string
		ClosedAt   *time.Time
	}
	if err := tx.Raw("select * from defects where id = ? for no key update", id).Scan(&d).Error; err != nil {
		return err
	}
	if d.ID == uuid.Nil || d.AircraftID != o.AircraftID {
		return fault.Missing("defect")
	}
	if d.ClosedAt != nil {
		return fault.Clash("already-closed", "This defect is closed already.")
	}
	o.Cause, o.DefectID, o.Station, o.Title, o.Grounds = ByDefect, &id, d.Station, d.Title,
		d.Severity == judge.Stop.String()
	o.Work.Steps = []upkeep.Step{{ID: "found", Text: "Cause found; write it down."},
		{ID: "put-right", Text: "Put right: " + d.Title}, {ID: "checked",
			Text: "Checked, and nothing else touched is left open or loose."}}
	return nil
}

// open stores an order and puts it on record.
func (s *Service) open(ctx context.Context, tx *gorm.DB, a fleet.Aircraft, o *Order) error {
	by, now := people.From(ctx), s.Clock.Now()
	o.OpenedBy, o.OpenedAt, o.State, o.Version = by.Name, now, Open, 1
	if o.Work.Steps == nil {
		o.Work.Steps = []upkeep.Step{}
	}
	if err := tx.Omit("flown").Create(o).Error; err != nil {
		return err
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.WorkOpened, Subject: a.ID, At: now, By: by.By(),
		Summary: a.Name + ": work order opened: " + o.Title,
		Content: map[string]any{"order": o.ID, "title": o.Title, "cause": o.Cause, "note": o.CauseNote, "task": o.TaskID,
			"programme_version": o.ProgrammeVersion, "defect": o.DefectID, "grounds": o.Grounds, "work": o.Work}})
	return err
}

// Entry is what was done and found in one step of an order.
type Entry struct {
	OrderID  uuid.UUID
	StepID   string
	Value    upkeep.Entry `gorm:"serializer:json"`
	Verdict  string
	Sentence string
	ByName   string
	At       time.Time
}

// TableName is the table of entries.
func (Entry) TableName() string { return "work_entries" }

// NewEntry is one entry as it comes in.
type NewEntry struct {
	Step  string
	Value upkeep.Entry
}

// lockOrder locks the aircraft of an order, then the order.
func lockOrder(tx *gorm.DB, id uuid.UUID) (Order, fleet.Aircraft, error) {
	var o Order
	var a fleet.Aircraft
	if err := tx.Raw("select * from aircraft where id = (select aircraft_id from work_orders where id = ?) for no key update",
		id).Scan(&a).Error; err != nil {
		return o, a, err
	}
	if err := tx.Raw("select w.*, (select min(load) from acceptance_flights a where a.order_id = w.id) as flown from work_orders w where id = ? for no key update",
		id).Scan(&o).Error; err != nil {
		return o, a, err
	}
	if o.ID == uuid.Nil {
		return o, a, fault.Missing("work order")
	}
	return o, a, nil
}

// mustBeOpen refuses changes to an order that is signed or at its end.
func (o Order) mustBeOpen() error {
	switch o.State {
	case Open:
		return nil
	case Cancelled:
		return fault.Clash("cancelled", "This work order was cancelled. Open another.")
	}
	return fault.Clash("already-signed",
		"%s has signed this work order; a record does not change. Open another for further work.", o.SignedBy)
}

// Enter keeps what was done in some steps; a step entered again is replaced
// until the order is signed.
func (s *Service) Enter(ctx context.Context, id uuid.UUID, entries []NewEntry) error {
	by := people.From(ctx)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		o, _, err := lockOrder(tx, id)
		if err != nil {
			return err
		}
		if err := o.mustBeOpen(); err != nil {
			return err
		}
		for _, e := range entries {
			i := slices.IndexFunc(o.Work.Steps, func(st upkeep.Step) bool { return st.ID == e.Step })
			if i < 0 {
				return fault.Bad("step_id", "This work order has no step %q.", e.Step)
			}
			j, err := o.Work.Steps[i].Judge(e.Value)
			if err != nil {
				return fault.Bad(e.Step, "%s.", judge.Capital(why.Words(err)))
			}
			if err := photosHere(tx, e.Step, e.Value.Photos); err != nil {
				return err
			}
			b, err := json.Marshal(e.Value)
			if err != nil {
				return err
			}
			if err := tx.Exec(`insert into work_entries (order_id, step_id, value, verdict, sentence, by_name, at) values (?, ?, ?, ?, ?, ?, ?)
				on conflict (order_id, step_id) do update set value = excluded.value, verdict = excluded.verdict, sentence = excluded.sentence, by_name = excluded.by_name, at = excluded.at`,
				id, e.Step, string(b), j.Verdict.String(), j.Sentence, by.Name, s.Clock.Now()).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

func photosHere(tx *gorm.DB, field string, ids []string) error {
	for _, p := range ids {
		id, err := uuid.Parse(p)
		if err != nil {
			return fault.Bad(field, "A photo has no usable id; take it again.")
		}
		var n int64
		if err := tx.Raw("select count(*) from photos where id = ?", id).Scan(&n).Error; err != nil {
			return err
		}
		if n == 0 {
			return fault.Bad(field, "One of the photos has not arrived yet; send it again.")
		}
	}
	return nil
}

// missing lists what stands between an order and its signature.
func (o Order) missing(entries []Entry) []string {
	var out []string
	for _, st := range o.Work.Steps {
		i := slices.IndexFunc(entries, func(e Entry) bool { return e.StepID == st.ID })
		switch {
		case i < 0:
			out = append(out, "Not done yet: "+st.Text)
		case entries[i].Verdict == judge.Stop.String():
			out = append(out, st.Text+" "+entries[i].Sentence)
		}
	}
	return out
}

// Signature closes the work of an order.
type Signature struct {
	Note        string
	PIN         string
	SecondLogin string
	SecondPIN   string
}

// maySecond are the roles in which somebody looks at work as second person.
var maySecond = []crew.Role{crew.Technician, crew.Pilot}

// Sign signs the work: every step done and in order, by a technician or chief,
// and by a second person where the task asks for one. A defect that the order
// was opened for is closed with it; a task of the programme counts from here.
// The order is closed, or waits for its acceptance flights.
func (s *Service) Sign(ctx context.Context, id uuid.UUID, sig Signature) error {
	by := people.From(ctx)
	if err := s.People.Sign(ctx, by.ID, sig.PIN); err != nil {
		return err
	}
	var o Order
	if err := s.DB.WithContext(ctx).Limit(1).Find(&o, "id = ?", id).Error; err != nil {
		return err
	}
	var second []people.Person
	if o.Work.SecondPerson {
		p, err := s.People.SecondPerson(ctx, sig.SecondLogin, sig.SecondPIN, maySecond...)
		if err != nil {
			return err
		}
		second = []people.Person{p}
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		o, a, err := lockOrder(tx, id)
		if err != nil {
			return err
		}
		if err := o.mustBeOpen(); err != nil {
			return err
		}
		var entries []Entry
		if err := tx.Find(&entries, "order_id = ?", id).Error; err != nil {
			return err
		}
		if m := o.missing(entries); len(m) > 0 {
			return fault.Clash("work-open", "Nothing was signed. %s", strings.Join(m, " "))
		}
		now := s.Clock.Now()
		o.SignedBy, o.SignedAt, o.SecondBy, o.Note, o.State = by.Name, &now, "", strings.TrimSpace(sig.Note), Signed
		for _, p := range second {
			o.SecondBy = p.Name
		}
		if o.Next() == "" {
			o.State, o.ClosedAt = Closed, &now
		}
		o.Version++
		if err := tx.Omit("flown").Save(&o).Error; err != nil {
			return err
		}
		if err := s.signed(ctx, tx, a, o, entries, by, second); err != nil {
			return err
		}
		if o.DefectID != nil {
			return s.Walkrounds.CloseDefect(ctx, tx, *o.DefectID, o.Note)
		}
		return nil
	})
}

func (s *Service) signed(ctx context.Context, tx *gorm.DB, a fleet.Aircraft, o Order, entries []Entry, by people.Person,
	second []people.Person) error {
	if o.TaskID != "" {
		if err := tx.Exec(`insert into task_done (aircraft_id, task_id, done_at, seconds, flights, landings, litres) values (?, ?, ?, ?, ?, ?, ?)
			on conflict (aircraft_id, task_id) do update set done_at = excluded.done_at, seconds = excluded.seconds, flights = excluded.flights, landings = excluded.landings, litres = excluded.litres`,
			a.ID, o.TaskID, o.SignedAt, a.Seconds, a.Flights, a.Landings, a.Litres).Error; err != nil {
			return err
		}
		if err := walkround.EndDeferral(tx, a.ID, o.TaskID, *o.SignedAt); err != nil {
			return err
		}
	}
	var used []map[string]any
	if err := tx.Raw("select name, quantity, by_name from work_used where order_id = ? order by at",
		o.ID).Scan(&used).Error; err != nil {
		return err
	}
	steps := []map[string]any{}
	for _, e := range entries {
		steps = append(steps, map[string]any{"step": e.StepID, "value": e.Value, "verdict": e.Verdict, "sentence": e.Sentence,
			"by": e.ByName, "at": e.At})
	}
	var also []records.By
	for _, p := range second {
		also = append(also, p.By())
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.WorkSigned, Subject: a.ID, At: *o.SignedAt, By: by.By(),
		Also: also, Signed: true, Summary: a.Name + ": work signed: " + o.Title,
		Content: map[string]any{"order": o.ID, "title": o.Title, "work": o.Work, "entries": steps, "used": used,
			"note": o.Note, "second": also, "seconds": a.Seconds, "flights": a.Flights,
			"statement": "I have done or inspected this work, it is complete and in order."}})
	return err
}

// Cancel ends an order that was opened by mistake. One that an event opened is
// done, not cancelled; a chief may say otherwise.
func (s *Service) Cancel(ctx context.Context, id uuid.UUID, reason string) error {
	by := people.From(ctx)
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		o, a, err := lockOrder(tx, id)
		if err != nil {
			return err
		}
		if err := o.mustBeOpen(); err != nil {
			return err
		}
		if o.Cause == ByEvent && !by.Has("chief") {
			return fault.Denied("An event opened this work; it is done and signed. Only a chief may cancel it.")
		}
		now := s.Clock.Now()
		if err := tx.Exec("update work_orders set state = ?, note = ?, closed_at = ?, version = version + 1 where id = ?",
			Cancelled, reason, now, id).Error; err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.WorkCancelled, Subject: a.ID, At: now, By: by.By(),
			Summary: a.Name + ": work order cancelled: " + o.Title,
			Content: map[string]any{"order": id, "reason": reason}})
		return err
	})
}
