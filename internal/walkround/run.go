package walkround

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/practice"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Run is a walkround or turnaround of one aircraft.
type Run struct {
	ID               uuid.UUID
	AircraftID       uuid.UUID
	Kind             string
	ChecklistVersion int
	TypeKey          string
	TypeVersion      int
	PackIDs          db.UUIDs `gorm:"type:uuid[]"`
	StartedBy        string
	StartedAt        time.Time
	CompletedBy      string
	CompletedAt      *time.Time
	AbandonedAt      *time.Time
	Verdict          string
	Findings         []Finding `gorm:"serializer:json"`
	RecordSeq        *int64
	Kept             string            // what was to be set, in words
	Practice         practice.Settings `gorm:"serializer:json"` // as the crew kept it when the check began
}

// TableName is the table of runs.
func (Run) TableName() string { return "walkrounds" }

// Finding is an entry of a complete run that was not clear.
type Finding struct {
	ItemID   string        `json:"item_id"`
	Station  string        `json:"station"`
	Title    string        `json:"title"`
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
	PackID   string        `json:"pack_id,omitempty"`
	Lasting  bool          `json:"lasting,omitempty"` // it is an open defect now, and lasts beyond this walk
	By       string        `json:"by,omitempty"`
}

// Entry is what was entered for one item, with its judgement.
type Entry struct {
	ID          uuid.UUID
	WalkroundID uuid.UUID
	PersonID    *uuid.UUID
	Until       *time.Time // when its maker put another in its place; nil: it holds
	ItemID      string
	Value       checks.Value `gorm:"serializer:json"`
	Verdict     string
	Sentence    string
	Against     string
	ByName      string
	At          time.Time
}

// TableName is the table of entries.
func (Entry) TableName() string { return "walkround_entries" }

// Sheet is a run with everything needed to show and judge it.
type Sheet struct {
	Run
	Aircraft fleet.Aircraft
	Type     airframe.Type
	Packs    []checks.PackRef
	Items    []checks.Item
	Entries  []Entry // that hold: one of each person for an item
	Earlier  []Entry // that their makers replaced
	Notes    []Note  // of the last flights, marked for this walk
}

// Note is what a pilot wanted changed before the next flight.
type Note struct {
	At   time.Time
	By   string
	Text string
}

// Worst are the entries that count: of several people's for one item the worse.
func (sh Sheet) Worst() []Entry {
	at, out := map[string]int{}, []Entry{}
	for _, e := range sh.Entries {
		i, ok := at[e.ItemID]
		switch {
		case !ok:
			at[e.ItemID] = len(out)
			out = append(out, e)
		case severity(e.Verdict) > severity(out[i].Verdict):
			out[i] = e
		}
	}
	return out
}

// SlipFor is how long an entry may be taken for a slip of the hand: changed
// later, what it said was seen.
const SlipFor = time.Minute

// seen are the entries that say what somebody saw: those that hold, and those
// that stood longer than a slip of the hand before they were replaced.
func (sh Sheet) seen() []Entry {
	out := sh.Worst()
	for _, e := range sh.Earlier {
		if e.Until.Sub(e.At) > SlipFor && severity(e.Verdict) > judge.Clear {
			out = append(out, e)
		}
	}
	return out
}

// Start begins a run. Packs may be none: then the pack items fall away and the
// gate asks for readings later. Starting the same id twice changes nothing.
func (s *Service) Start(ctx context.Context, id, aircraft uuid.UUID, kind string, packs []uuid.UUID) (Sheet, error) {
	a, err := s.Fleet.Aircraft(ctx, aircraft)
	if err != nil {
		return Sheet{}, err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return Sheet{}, err
	}
	l, err := s.List(ctx, t.Key, 0)
	if err != nil {
		if fault.Is(err, "not-found") {
			err = fault.Clash("no-checklist", "%s has no checklist yet. A chief adds one in Set-up; until then it cannot be walked or flown.", t.Name)
		}
		return Sheet{}, err
	}
	if err := s.checkPacks(ctx, t, packs); err != nil {
		return Sheet{}, err
	}
	r := Run{ID: id, AircraftID: aircraft, Kind: kind, ChecklistVersion: l.Version, TypeKey: t.Key, TypeVersion: t.Version, PackIDs: packs,
		StartedBy: people.From(ctx).Name, StartedAt: s.Clock.Now(), Findings: []Finding{}, Practice: t.Practice, Kept: checks.Kept(t)}
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var old Run
		if err := tx.Limit(1).Find(&old, "id = ?", id).Error; err != nil || old.ID != uuid.Nil {
			return err
		}
		var open Run
		if err := tx.Limit(1).Find(&open, "aircraft_id = ? and completed_at is null and abandoned_at is null", aircraft).Error; err != nil {
			return err
		}
		if open.ID != uuid.Nil {
			return fault.Clash("walkround-open", "%s has been walking round %s since %s. Go on with that one or give it up first.", open.StartedBy, a.Name, open.StartedAt.Format("15:04 UTC"))
		}
		return tx.Create(&r).Error
	})
	if err != nil {
		return Sheet{}, err
	}
	return s.Sheet(ctx, id)
}

func (s *Service) checkPacks(ctx context.Context, t airframe.Type, ids []uuid.UUID) error {
	if len(ids) > t.Packs.Count {
		return fault.Bad("pack_ids", "%s takes %s; %d were chosen.", t.Name, judge.Count(t.Packs.Count, "pack"), len(ids))
	}
	views, err := s.Fleet.PackViews(ctx, append([]uuid.UUID{}, ids...)) // nil would mean the whole rack
	if err != nil {
		return err
	}
	if len(views) != len(ids) {
		return fault.Bad("pack_ids", "One of the packs does not exist or was chosen twice.")
	}
	for _, v := range views {
		if v.Chemistry != string(t.Packs.Chemistry) || v.Cells != t.Packs.Cells {
			return fault.Bad("pack_ids", "%s does not fit %s.", v.Label, t.Name)
		}
	}
	return nil
}

// Sheet returns a run with its items and entries.
func (s *Service) Sheet(ctx context.Context, id uuid.UUID) (Sheet, error) {
	var sh Sheet
	if err := s.DB.WithContext(ctx).Limit(1).Find(&sh.Run, "id = ?", id).Error; err != nil {
		return sh, err
	}
	if sh.ID == uuid.Nil {
		return sh, fault.Missing("walkround")
	}
	var err error
	if sh.Aircraft, err = s.Fleet.Aircraft(ctx, sh.AircraftID); err != nil {
		return sh, err
	}
	if sh.Type, err = s.typeVersion(ctx, sh.TypeKey, sh.TypeVersion); err != nil {
		return sh, err
	}
	sh.Type.Practice = sh.Practice
	l, err := s.List(ctx, sh.TypeKey, sh.ChecklistVersion)
	if err != nil {
		return sh, err
	}
	views, err := s.Fleet.PackViews(ctx, append([]uuid.UUID{}, sh.PackIDs...))
	if err != nil {
		return sh, err
	}
	for _, id := range sh.PackIDs {
		if i := slices.IndexFunc(views, func(v fleet.PackView) bool { return v.ID == id }); i >= 0 {
			v := views[i]
			sh.Packs = append(sh.Packs, checks.PackRef{ID: v.ID.String(), Label: v.Label, Chemistry: pack.Chemistry(v.Chemistry), Cells: v.Cells})
		}
	}
	sh.Items = checks.Expand(l, sh.Type, sh.Kind, sh.Packs)
	var all []Entry
	if err := s.DB.WithContext(ctx).Order("at, item_id").Find(&all, "walkround_id = ?", id).Error; err != nil {
		return sh, err
	}
	for _, e := range all {
		if e.Until == nil {
			sh.Entries = append(sh.Entries, e)
		} else {
			sh.Earlier = append(sh.Earlier, e)
		}
	}
	sh.Notes, err = s.notes(ctx, sh.AircraftID)
	return sh, err
}

// notes are what pilots marked to change, since the last complete full walk of
// the aircraft.
func (s *Service) notes(ctx context.Context, aircraft uuid.UUID) ([]Note, error) {
	var out []Note
	err := s.DB.WithContext(ctx).Raw(`select f.landed_at as at, p.name as by, f.next_time as text from flights f join people p on p.id = f.pilot_id where f.aircraft_id = ? and f.next_time <> ''
		and f.landed_at > coalesce((select max(completed_at) from walkrounds w where w.aircraft_id = f.aircraft_id and w.kind = 'walkround' and w.completed_at is not null), '-infinity') order by f.landed_at desc limit 20`, aircraft).Scan(&out).Error
	return out, err
}

// typeVersion returns the profile a run was started with.
func (s *Service) typeVersion(ctx context.Context, key string, version int) (airframe.Type, error) {
	var row struct {
		Profile airframe.Type `gorm:"serializer:json"`
	}
	err := s.DB.WithContext(ctx).Table("aircraft_types").Select("profile").Where("key = ? and version = ?", key, version).Limit(1).Find(&row).Error
	return row.Profile, err
}

// item finds an item and its pack.
func (sh Sheet) item(id string) (checks.Item, *checks.PackRef, error) {
	i := slices.IndexFunc(sh.Items, func(it checks.Item) bool { return it.ID == id })
	if i < 0 {
		return checks.Item{}, nil, fault.Bad("item_id", "This run has no item %q.", id)
	}
	it := sh.Items[i]
	for k := range sh.Packs {
		if sh.Packs[k].ID == it.PackID {
			return it, &sh.Packs[k], nil
		}
	}
	return it, nil, nil
}

// Judge judges an entry without saving it.
func (s *Service) Judge(ctx context.Context, run uuid.UUID, itemID string, v checks.Value) (checks.Judgement, error) {
	sh, err := s.Sheet(ctx, run)
	if err != nil {
		return checks.Judgement{}, err
	}
	return sh.judge("value", itemID, v)
}

func (sh Sheet) judge(field, itemID string, v checks.Value) (checks.Judgement, error) {
	it, pk, err := sh.item(itemID)
	if err != nil {
		return checks.Judgement{}, err
	}
	j, err := checks.Judge(it, v, pk)
	if errors.Is(err, checks.ErrValue) {
		_, sentence, _ := strings.Cut(err.Error(), ": ")
		return j, fault.Bad(field, "%s", sentence)
	}
	return j, err
}

// NewEntry is one entry to save.
type NewEntry struct {
	ItemID string
	Value  checks.Value
}

// Save judges and saves entries; entering an item again replaces the person's own
// entry, never another's, and what it said stays on record. All entries are
// saved or none. A run that has ended takes no more.
func (s *Service) Save(ctx context.Context, run uuid.UUID, entries []NewEntry) (Sheet, error) {
	sh, err := s.Sheet(ctx, run)
	if err != nil {
		return sh, err
	}
	by, now := people.From(ctx), s.Clock.Now()
	at := outbox.From(ctx).At(now)
	if at.Before(sh.StartedAt) {
		at = sh.StartedAt // a device whose clock is wrong
	}
	var rows []Entry
	for i, e := range entries {
		field := "value"
		if len(entries) > 1 {
			field = fmt.Sprintf("entries.%d.value", i)
		}
		j, err := sh.judge(field, e.ItemID, e.Value)
		if err != nil {
			return sh, err
		}
		if e.Value.From != "" {
			it, _, err := sh.item(e.ItemID)
			if err != nil {
				return sh, err
			}
			if err := s.confirmed(ctx, it, e.Value, at); err != nil {
				return sh, err
			}
		}
		id, err := uuid.NewV7()
		if err != nil {
			return sh, err
		}
		rows = append(rows, Entry{ID: id, PersonID: &by.ID, WalkroundID: run, ItemID: e.ItemID, Value: e.Value, Verdict: j.Verdict.String(), Sentence: j.Sentence, Against: j.Against, ByName: by.Name, At: at})
	}
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var r Run
		if err := tx.Raw("select * from walkrounds where id = ? for no key update", run).Scan(&r).Error; err != nil {
			return err
		}
		if fresh, err := outbox.Once(ctx, tx, "entries "+run.String(), now); err != nil || !fresh {
			return err
		}
		if err := r.stillOpen(); err != nil {
			return err
		}
		if len(rows) == 0 {
			return nil
		}
		items := make([]string, len(rows))
		for i, e := range rows {
			items[i] = e.ItemID
		}
		if err := tx.Exec("update walkround_entries set until = greatest(at, ?) where walkround_id = ? and person_id = ? and item_id in ? and until is null", at, run, by.ID, items).Error; err != nil {
			return err
		}
		return tx.Create(&rows).Error
	})
	if err != nil {
		return sh, err
	}
	return s.Sheet(ctx, run)
}

func (r Run) stillOpen() error {
	switch {
	case r.CompletedAt != nil:
		return fault.Clash("run-ended", "This run was completed by %s; a record does not change. Walk again to correct it.", r.CompletedBy)
	case r.AbandonedAt != nil:
		return fault.Clash("run-ended", "This run was given up. Start a new one.")
	}
	return nil
}

// Missing lists the items without an entry, in walking order.
func (sh Sheet) Missing() []checks.Item {
	hands, have := map[string]int{}, map[string]bool{}
	for _, e := range sh.Entries { // one of each person
		hands[e.ItemID]++
	}
	for _, it := range sh.Items {
		have[it.ID] = hands[it.ID] >= max(1, it.Hands)
	}
	return checks.Missing(sh.Items, have)
}

// lockWithPacks locks a run and its packs: what is found at its end goes on
// record, and whoever waits for that must not hold what the end still needs.
func lockWithPacks(tx *gorm.DB, run uuid.UUID) (Run, error) {
	var r Run
	if err := tx.Raw("select * from walkrounds where id = ? for no key update", run).Scan(&r).Error; err != nil {
		return r, err
	}
	_, err := fleet.LockPacks(tx, r.PackIDs)
	return r, err
}

// Complete ends a run and puts it on record. Every item must have an entry.
// Cell, level and temperature entries become readings of their packs; a pack
// found defective goes to quarantine in the same transaction.
func (s *Service) Complete(ctx context.Context, run uuid.UUID) (Sheet, error) {
	by := people.From(ctx)
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		r, err := lockWithPacks(tx, run)
		if err != nil {
			return err
		}
		if r.ID == uuid.Nil {
			return fault.Missing("walkround")
		}
		if r.CompletedAt != nil {
			return nil // the same completion sent twice
		}
		if err := r.stillOpen(); err != nil {
			return err
		}
		sh, err := s.Sheet(ctx, run)
		if err != nil {
			return err
		}
		if left := sh.Missing(); len(left) > 0 {
			return fault.Clash("incomplete", "%d of %d items are still open; the next is %q.", len(left), len(sh.Items), left[0].Title)
		}
		now := s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, "complete "+run.String(), now); err != nil || !fresh {
			return err
		}
		at := outbox.From(ctx).At(now)
		for _, e := range sh.Entries {
			if e.At.After(at) {
				at = e.At // no walk is complete before its last entry
			}
		}
		findings, worst, err := s.keepFound(ctx, tx, sh)
		if err != nil {
			return err
		}
		if err := s.packsAfter(ctx, tx, sh, findings); err != nil {
			return err
		}
		seq, err := records.Append(ctx, tx, records.Entry{Kind: records.WalkroundDone, Subject: r.AircraftID, At: now, By: by.By(),
			Summary: fmt.Sprintf("%s: %s complete, %s.", sh.Aircraft.Name, r.Kind, worst),
			Content: map[string]any{"walkround": run, "aircraft": sh.Aircraft.Name, "kind": r.Kind, "type": r.TypeKey, "type_version": r.TypeVersion, "checklist_version": r.ChecklistVersion,
				"packs": sh.Packs, "entries": contentOf(sh), "started_at": r.StartedAt, "completed_at": at, "verdict": worst, "findings": findings}})
		if err != nil {
			return err
		}
		r.CompletedAt, r.CompletedBy, r.Verdict, r.Findings, r.RecordSeq = &at, by.Name, worst.String(), findings, &seq
		return tx.Save(&r).Error
	})
	if err != nil {
		return Sheet{}, err
	}
	return s.Sheet(ctx, run)
}

// keepFound makes what was seen on a run open defects of the aircraft where it
// lasts, and says what was found and the worst of it.
func (s *Service) keepFound(ctx context.Context, tx *gorm.DB, sh Sheet) (findings []Finding, worst judge.Verdict, err error) {
	findings = []Finding{}
	for _, e := range sh.seen() {
		it, _, err := sh.item(e.ItemID)
		if err != nil {
			continue // an item of a pack that has been taken out of the database cannot be
		}
		v, err := judge.ParseVerdict(e.Verdict)
		if err != nil {
			return nil, judge.Stop, err
		}
		worst = max(worst, v)
		if v == judge.Clear {
			continue
		}
		sentence := e.Sentence
		if e.Value.Note != "" {
			sentence = e.Value.Note
		}
		for _, spot := range checks.Spots(it, e.Value, v) {
			f := Finding{ItemID: spot.Item, Station: spot.Station, Title: spot.Title, Verdict: spot.Verdict, Sentence: sentence, PackID: it.PackID, Lasting: it.Lasting(), By: e.ByName}
			findings = append(findings, f)
			if !f.Lasting {
				continue
			}
			if err := s.found(ctx, tx, sh, f, e); err != nil {
				return nil, worst, err
			}
		}
	}
	return findings, worst, nil
}

// contentOf is every entry of a run for its record, those that were replaced too.
func contentOf(sh Sheet) []map[string]any {
	out := []map[string]any{}
	for _, e := range slices.Concat(sh.Entries, sh.Earlier) {
		one := map[string]any{"item": e.ItemID, "value": e.Value, "verdict": e.Verdict, "against": e.Against, "by": e.ByName, "at": e.At}
		if e.Until != nil {
			one["replaced_at"] = e.Until
		}
		out = append(out, one)
	}
	return out
}

// Rested is how long the cells are taken to have rested at a walkround: the
// item asks for 30 minutes without load.
const Rested = 30.0

func (s *Service) packsAfter(ctx context.Context, tx *gorm.DB, sh Sheet, findings []Finding) error {
	packs, err := fleet.LockPacks(tx, sh.PackIDs)
	if err != nil {
		return err
	}
	for i := range packs {
		p := &packs[i]
		id, err := uuid.NewV7()
		if err != nil {
			return err
		}
		n := fleet.NewReading{ID: id, At: outbox.ReadAt(ctx, s.Clock.Now()), Source: "walkround"}
		for _, e := range sh.Worst() {
			it, _, err := sh.item(e.ItemID)
			if err != nil || it.PackID != p.ID.String() || e.Value.From != "" { // what was confirmed is a reading already
				continue
			}
			switch {
			case it.Kind == checks.Cells:
				rested := Rested
				n.RestedMin = &rested
				for _, mv := range e.Value.Set {
					n.CellMV = append(n.CellMV, int(mv+0.5))
				}
			case it.Quantity == "level":
				n.Percent = e.Value.Number
			case it.Quantity == "pack temperature":
				n.TemperatureC = e.Value.Number
			}
		}
		if len(n.CellMV) > 0 || n.Percent != nil || n.TemperatureC != nil {
			if err := s.Fleet.StoreReading(ctx, tx, *p, n); err != nil {
				return err
			}
		}
		for _, f := range findings {
			if f.PackID == p.ID.String() && f.Verdict == judge.Stop && strings.HasPrefix(f.ItemID, "pack-look@") && p.State != string(pack.Quarantine) && p.State != string(pack.Retired) {
				if err := s.Fleet.SetState(ctx, tx, p, pack.Quarantine, nil, "found on the walk: "+f.Sentence); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// BelongTo notes the job that a run was walked for.
func (s *Service) BelongTo(ctx context.Context, run, job uuid.UUID) error {
	return s.DB.WithContext(ctx).Exec("update walkrounds set job_id = (select id from jobs where id = ?) where id = ?", job, run).Error
}

// Abandon gives a run up; it is no check, but what was seen and read on it stays:
// defects are open, packs have their readings, a bulging one is in quarantine.
func (s *Service) Abandon(ctx context.Context, run uuid.UUID) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		r, err := lockWithPacks(tx, run)
		if err != nil {
			return err
		}
		switch {
		case r.ID == uuid.Nil:
			return fault.Missing("walkround")
		case r.AbandonedAt != nil:
			return nil
		case r.CompletedAt != nil:
			return r.stillOpen()
		}
		sh, err := s.Sheet(ctx, run)
		if err != nil {
			return err
		}
		findings, _, err := s.keepFound(ctx, tx, sh)
		if err != nil {
			return err
		}
		if err := s.packsAfter(ctx, tx, sh, findings); err != nil {
			return err
		}
		now, by := s.Clock.Now(), people.From(ctx)
		if err := tx.Exec("update walkrounds set abandoned_at = ? where id = ?", now, run).Error; err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.WalkroundGivenUp, Subject: r.AircraftID, At: now, By: by.By(), Summary: fmt.Sprintf("Walkround begun by %s given up after %d entries.", r.StartedBy, len(sh.Entries)),
			Content: map[string]any{"walkround": run, "started_by": r.StartedBy, "entries": sh.Entries}})
		return err
	})
}
