package fleet

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/judge"
	"mainstay/core/wear"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Part is a thing with a life. Its counters stay with it wherever it goes.
type Part struct {
	ID          uuid.UUID
	Kind        string
	Serial      string
	Source      string
	TypeKey     string // the type it is made for
	Batch       string
	PriceCents  *int64
	AircraftID  *uuid.UUID
	Station     *string // position on the aircraft
	FittedAt    *time.Time
	DiscardedAt *time.Time
	Since       time.Time
	Seconds     int64
	Flights     int
	Landings    int
	Cycles      int
	Litres      float64

	DiscardedWhy string
}

// TableName is the table of parts.
func (Part) TableName() string { return "parts" }

// Counters returns what the part has been through.
func (p Part) Counters() wear.Counters {
	return wear.Counters{Seconds: p.Seconds, Flights: p.Flights, Landings: p.Landings, Cycles: p.Cycles, Litres: p.Litres,
		Since: p.Since}
}

// Where a part is from, and where it goes when it is taken off.
const (
	Maker      = "maker"
	ThirdParty = "third-party"
	Shelf      = "shelf"
	Discard    = "discard"
)

// Fit names a part and the station it goes to. A serial that lies on the shelf
// is taken from there with its counters; any other is a new part.
type Fit struct {
	PartID  uuid.UUID
	Station string // position
	Serial  string
	Batch   string
}

// FitParts is one act of fitting.
type FitParts struct {
	Fits   []Fit
	Source string // maker or third-party
	Old    string // discard or shelf
	CutUp  bool   // discarded propellers are cut up
}

// FitParts fits parts in place of what is at the stations, all or none.
func (s *Service) FitParts(ctx context.Context, aircraft uuid.UUID, f FitParts) error {
	if len(f.Fits) == 0 {
		return fault.Bad("fits", "Choose at least one station.")
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		a, err := LockOnGround(tx, aircraft)
		if err != nil {
			return err
		}
		t, err := s.Type(ctx, a.TypeKey)
		if err != nil {
			return err
		}
		return s.fit(ctx, tx, a, t, f)
	})
}

// LockOnGround locks an aircraft that has no flight that is not logged, so that
// the hours go to the parts that flew.
func LockOnGround(tx *gorm.DB, aircraft uuid.UUID) (Aircraft, error) {
	var a Aircraft
	if err := tx.Raw("select * from aircraft where id = ? for no key update", aircraft).Scan(&a).Error; err != nil {
		return a, err
	}
	if a.ID == uuid.Nil {
		return a, fault.Missing("aircraft")
	}
	var flying int64
	if err := tx.Raw("select count(*) from flights where aircraft_id = ? and state <> 'logged'",
		aircraft).Scan(&flying).Error; err != nil {
		return a, err
	}
	if flying > 0 {
		return a, fault.Clash("in-flight",
			"%s has a flight that is not logged yet. Land and log it first, so that its hours go to the parts that flew.",
			a.Name)
	}
	return a, nil
}

func (s *Service) fit(ctx context.Context, tx *gorm.DB, a Aircraft, t airframe.Type, f FitParts) error {
	places := map[string]airframe.Position{}
	for _, p := range t.Positions() {
		places[p.ID] = p
	}
	if f.Source == ThirdParty {
		if err := approved(tx, t, places, f.Fits); err != nil {
			return err
		}
	}
	by, now := people.From(ctx), s.Clock.Now()
	var done []map[string]string
	for i, one := range f.Fits {
		field := fmt.Sprintf("fits.%d", i)
		at, ok := places[one.Station]
		if !ok {
			return fault.Bad(field+".station", "%s has no part at %q.", t.Name, one.Station)
		}
		serial := strings.TrimSpace(one.Serial)
		if serial == "" {
			return fault.Bad(field+".serial", "Enter the serial number of the new %s at %s.", airframe.KindName(at.Kind),
				at.Label)
		}
		oldSerial, err := s.takeOff(tx, a, at, f, now)
		if err != nil {
			return err
		}
		id, err := place(tx, a, at, Part{ID: one.PartID, Kind: at.Kind, Serial: serial, Batch: strings.TrimSpace(one.Batch),
			Source: f.Source, TypeKey: a.TypeKey, Since: now}, now)
		if err != nil {
			return err
		}
		move, err := uuid.NewV7()
		if err != nil {
			return err
		}
		if err := tx.Exec("insert into part_moves (id, part_id, aircraft_id, station, fitted_at, by_name) values (?, ?, ?, ?, ?, ?)",
			move, id, a.ID, at.ID, now, by.Name).Error; err != nil {
			return err
		}
		done = append(done, map[string]string{"station": at.ID, "fitted": serial, "removed": oldSerial})
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.PartsFitted, Subject: a.ID, At: now, By: by.By(),
		Summary: fmt.Sprintf("%s: %s fitted.", a.Name, judge.Count(len(done), "part")), Content: map[string]any{"parts": done,
			"source": f.Source, "old": f.Old, "cut_up": f.CutUp}})
	return err
}

// approved refuses third-party parts of kinds that the crew has not approved
// for the type: an identical look proves nothing.
func approved(tx *gorm.DB, t airframe.Type, places map[string]airframe.Position, fits []Fit) error {
	var kinds []string
	if err := tx.Raw("select kind from part_approvals where type_key = ?", t.Key).Scan(&kinds).Error; err != nil {
		return err
	}
	for _, f := range fits {
		if at, ok := places[f.Station]; ok && !slices.Contains(kinds, at.Kind) {
			return fault.Bad("source",
				"The crew has not approved third-party parts of the kind %s for %s. A chief approves them in the workshop, under Stock.",
				airframe.KindName(at.Kind), t.Name)
		}
	}
	return nil
}

// takeOff removes what is at a position and returns its serial, "" for none.
func (s *Service) takeOff(tx *gorm.DB, a Aircraft, at airframe.Position, f FitParts, now time.Time) (string, error) {
	var old Part
	if err := tx.Limit(1).Find(&old, "aircraft_id = ? and station = ?", a.ID, at.ID).Error; err != nil ||
		old.ID == uuid.Nil {
		return "", err
	}
	return old.Serial, remove(tx, old, f.Old, f.CutUp, "Replaced.", now)
}

// remove takes a part off its aircraft, to the shelf or for ever.
func remove(tx *gorm.DB, old Part, to string, cutUp bool, why string, now time.Time) error {
	if old.Kind == "propeller" && to == Discard && !cutUp {
		return fault.Bad("cut_up",
			"Confirm that the old propellers are cut up: a discarded propeller must never come back as a spare.")
	}
	var discarded *time.Time
	if to == Discard {
		discarded = &now
	} else {
		why = ""
	}
	if err := tx.Exec("update parts set aircraft_id = null, station = null, fitted_at = null, discarded_at = ?, discarded_why = ? where id = ?",
		discarded, why, old.ID).Error; err != nil {
		return err
	}
	return tx.Exec("update part_moves set removed_at = ?, removed_to = ? where part_id = ? and removed_at is null", now,
		to, old.ID).Error
}

func place(tx *gorm.DB, a Aircraft, at airframe.Position, p Part, now time.Time) (uuid.UUID, error) {
	var have Part
	if err := tx.Limit(1).Find(&have, "kind = ? and lower(serial) = lower(?)", at.Kind, p.Serial).Error; err != nil {
		return p.ID, err
	}
	switch {
	case have.ID == uuid.Nil:
		p.AircraftID, p.Station, p.FittedAt = &a.ID, &at.ID, &now
		return p.ID, tx.Create(&p).Error
	case have.DiscardedAt != nil:
		return p.ID, fault.Bad("serial", "%s %s was discarded and must not fly again.", airframe.KindName(at.Kind), p.Serial)
	case have.AircraftID != nil:
		return p.ID, fault.Bad("serial", "%s %s is fitted to an aircraft; take it off there first.",
			airframe.KindName(at.Kind), p.Serial)
	case have.TypeKey != "" && have.TypeKey != a.TypeKey:
		return p.ID, fault.Bad("serial", "%s %s is made for another type.", airframe.KindName(at.Kind), p.Serial)
	}
	return have.ID, tx.Exec("update parts set aircraft_id = ?, station = ?, fitted_at = ? where id = ?", a.ID, at.ID, now,
		have.ID).Error
}

// Move is one stay of a part at a station.
type Move struct {
	Serial    string
	Kind      string
	Station   string
	FittedAt  time.Time
	RemovedAt *time.Time
	RemovedTo string
	ByName    string
}

// History returns the moves of parts of an aircraft, newest first.
func (s *Service) History(ctx context.Context, aircraft uuid.UUID) ([]Move, error) {
	var out []Move
	err := s.DB.WithContext(ctx).Raw(`select p.serial, p.kind, m.station, m.fitted_at, m.removed_at, m.removed_to, m.by_name
		from part_moves m join parts p on p.id = m.part_id where m.aircraft_id = ? order by m.fitted_at desc, m.station limit 5000`, aircraft).Scan(&out).Error
	return out, err
}

// Use is what a flight puts on the things that flew.
type Use struct {
	Flight   uuid.UUID
	Aircraft uuid.UUID
	Packs    []uuid.UUID
	TookOff  time.Time
	Landed   time.Time
	Seconds  int
	Landings int
	Litres   float64 // sprayed
}

// ApplyUse puts flights on the aircraft, on every part that was fitted at
// take-off, and on the packs: a ledger row for each, and the counters.
func ApplyUse(tx *gorm.DB, uses ...Use) error {
	flights, each := make(db.UUIDs, len(uses)), make([]map[string]any, len(uses))
	for i, u := range uses {
		flights[i] = u.Flight
		each[i] = map[string]any{"flight": u.Flight, "aircraft": u.Aircraft, "packs": db.UUIDs(u.Packs).Literal(),
			"took_off": u.TookOff, "landed": u.Landed, "seconds": u.Seconds, "landings": u.Landings, "litres": u.Litres}
	}
	set, err := db.Rows(each)
	if err != nil {
		return err
	}
	const used = ` jsonb_to_recordset(cast(@set as jsonb)) as u (flight uuid, aircraft uuid, packs text, took_off timestamptz, landed timestamptz, seconds int, landings int, litres double precision) `
	for _, sql := range []string{
		`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles, litres) select flight, 'aircraft', aircraft, seconds, 1, landings, 0, litres from` +
			used,
		`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles, litres)
			select distinct u.flight, 'part', m.part_id, u.seconds, 1, u.landings, 0, u.litres from` + used + `join part_moves m on m.aircraft_id = u.aircraft and m.fitted_at <= u.took_off and (m.removed_at is null or m.removed_at > u.took_off)`,
		`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles) select flight, 'pack', unnest(packs::uuid[]), seconds, 1, 0, 1 from` +
			used,
		`update aircraft a set seconds = a.seconds + x.seconds, flights = a.flights + x.flights, landings = a.landings + x.landings, litres = a.litres + x.litres, last_landing_at = greatest(a.last_landing_at, x.landed)
			from (select aircraft, sum(seconds) as seconds, count(*) as flights, sum(landings) as landings, sum(litres) as litres, max(landed) as landed from` + used + `group by aircraft) x where x.aircraft = a.id`,
		`update parts p set seconds = p.seconds + x.seconds, flights = p.flights + x.flights, landings = p.landings + x.landings, cycles = p.cycles + x.cycles, litres = p.litres + x.litres
			from (` + ledger + `) x where x.thing = 'part' and x.thing_id = p.id`,
		`update packs p set seconds = p.seconds + x.seconds, flights = p.flights + x.flights, cycles = p.cycles + x.cycles
			from (` + ledger + `) x where x.thing = 'pack' and x.thing_id = p.id`,
	} {
		if err := tx.Exec(sql, map[string]any{"set": set, "flights": flights}).Error; err != nil {
			return err
		}
	}
	return nil
}

// ledger sums what the given flights put on each thing.
const ledger = `select thing, thing_id, sum(seconds) as seconds, sum(flights) as flights, sum(landings) as landings, sum(cycles) as cycles, sum(litres) as litres
	from flight_use where flight_id = any(cast(@flights as uuid[])) group by thing, thing_id`

// CorrectUse changes what one flight has put on the aircraft and its parts, and
// on the running time of its packs: the ledger, and the counters by the
// difference.
func CorrectUse(tx *gorm.DB, flight uuid.UUID, seconds, landings int, litres float64) error {
	steps := []struct {
		sql  string
		args []any
	}{
		{`update aircraft a set seconds = a.seconds - x.seconds + ?, landings = a.landings - x.landings + ?, litres = greatest(a.litres - x.litres + ?, 0)
			from flight_use x where x.flight_id = ? and x.thing = 'aircraft' and x.thing_id = a.id`, []any{seconds, landings, litres, flight}},
		{`update parts p set seconds = p.seconds - x.seconds + ?, landings = p.landings - x.landings + ?, litres = greatest(p.litres - x.litres + ?, 0)
			from flight_use x where x.flight_id = ? and x.thing = 'part' and x.thing_id = p.id`, []any{seconds, landings, litres, flight}},
		{`update packs p set seconds = p.seconds - x.seconds + ? from flight_use x where x.flight_id = ? and x.thing = 'pack' and x.thing_id = p.id`,
			[]any{seconds, flight}},
		{`update flight_use set seconds = ?, landings = case when thing = 'pack' then landings else ? end, litres = case when thing = 'pack' then litres else ? end where flight_id = ?`,
			[]any{seconds, landings, litres, flight}},
	}
	for _, st := range steps {
		if err := tx.Exec(st.sql, st.args...).Error; err != nil {
			return err
		}
	}
	return nil
}
