package fleet

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
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
	AircraftID  *uuid.UUID
	Station     *string
	FittedAt    *time.Time
	DiscardedAt *time.Time
	Since       time.Time
	Seconds     int64
	Flights     int
	Landings    int
	Cycles      int
}

// TableName is the table of parts.
func (Part) TableName() string { return "parts" }

// Counters returns what the part has been through.
func (p Part) Counters() wear.Counters {
	return wear.Counters{Seconds: p.Seconds, Flights: p.Flights, Landings: p.Landings, Cycles: p.Cycles, Since: p.Since}
}

// Fit names a part and the station it goes to. A serial that lies on the shelf
// is taken from there with its counters; any other is a new part.
type Fit struct {
	PartID  uuid.UUID
	Station string
	Serial  string
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
		var a Aircraft
		if err := tx.Raw("select * from aircraft where id = ? for update", aircraft).Scan(&a).Error; err != nil {
			return err
		}
		if a.ID == uuid.Nil {
			return fault.Missing("aircraft")
		}
		var flying int64
		if err := tx.Raw("select count(*) from flights where aircraft_id = ? and state <> 'logged'", aircraft).Scan(&flying).Error; err != nil {
			return err
		}
		if flying > 0 {
			return fault.Clash("in-flight", "%s has a flight that is not logged yet. Land and log it first, so that its hours go to the parts that flew.", a.Name)
		}
		t, err := s.Type(ctx, a.TypeKey)
		if err != nil {
			return err
		}
		return s.fit(ctx, tx, a, t, f)
	})
}

func (s *Service) fit(ctx context.Context, tx *gorm.DB, a Aircraft, t airframe.Type, f FitParts) error {
	kinds := map[string]airframe.Station{}
	for _, st := range t.PartStations() {
		kinds[st.ID] = st
	}
	by, now := people.From(ctx), s.Clock.Now()
	var done []map[string]string
	for i, one := range f.Fits {
		field := fmt.Sprintf("fits.%d", i)
		st, ok := kinds[one.Station]
		if !ok {
			return fault.Bad(field+".station", "%s has no part at %q.", t.Name, one.Station)
		}
		serial := strings.TrimSpace(one.Serial)
		if serial == "" {
			return fault.Bad(field+".serial", "Enter the serial number of the new %s at %s.", st.Part, st.Label)
		}
		oldSerial, err := s.takeOff(tx, a, st, f, now)
		if err != nil {
			return err
		}
		id, err := place(tx, a, st, one.PartID, serial, f.Source, now)
		if err != nil {
			return err
		}
		move, err := uuid.NewV7()
		if err != nil {
			return err
		}
		if err := tx.Exec("insert into part_moves (id, part_id, aircraft_id, station, fitted_at, by_name) values (?, ?, ?, ?, ?, ?)", move, id, a.ID, st.ID, now, by.Name).Error; err != nil {
			return err
		}
		done = append(done, map[string]string{"station": st.ID, "fitted": serial, "removed": oldSerial})
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.PartsFitted, Subject: a.ID, At: now, ByID: by.ID, ByName: by.Name,
		Summary: fmt.Sprintf("%s: %d part(s) fitted.", a.Name, len(done)), Content: map[string]any{"parts": done, "source": f.Source, "old": f.Old, "cut_up": f.CutUp}})
	return err
}

// takeOff removes what is at a station and returns its serial, "" for none.
func (s *Service) takeOff(tx *gorm.DB, a Aircraft, st airframe.Station, f FitParts, now time.Time) (string, error) {
	var old Part
	if err := tx.Limit(1).Find(&old, "aircraft_id = ? and station = ?", a.ID, st.ID).Error; err != nil || old.ID == uuid.Nil {
		return "", err
	}
	if old.Kind == "propeller" && f.Old == "discard" && !f.CutUp {
		return "", fault.Bad("cut_up", "Confirm that the old propellers are cut up: a discarded propeller must never come back as a spare.")
	}
	var discarded *time.Time
	if f.Old == "discard" {
		discarded = &now
	}
	if err := tx.Exec("update parts set aircraft_id = null, station = null, fitted_at = null, discarded_at = ? where id = ?", discarded, old.ID).Error; err != nil {
		return "", err
	}
	return old.Serial, tx.Exec("update part_moves set removed_at = ?, removed_to = ? where part_id = ? and removed_at is null", now, f.Old, old.ID).Error
}

func place(tx *gorm.DB, a Aircraft, st airframe.Station, id uuid.UUID, serial, source string, now time.Time) (uuid.UUID, error) {
	var have Part
	if err := tx.Limit(1).Find(&have, "kind = ? and lower(serial) = lower(?)", st.Part, serial).Error; err != nil {
		return id, err
	}
	switch {
	case have.ID == uuid.Nil:
		p := Part{ID: id, Kind: st.Part, Serial: serial, Source: source, AircraftID: &a.ID, Station: &st.ID, FittedAt: &now, Since: now}
		return id, tx.Create(&p).Error
	case have.DiscardedAt != nil:
		return id, fault.Bad("serial", "%s %s was discarded and must not fly again.", st.Part, serial)
	case have.AircraftID != nil:
		return id, fault.Bad("serial", "%s %s is fitted to an aircraft; take it off there first.", st.Part, serial)
	}
	return have.ID, tx.Exec("update parts set aircraft_id = ?, station = ?, fitted_at = ? where id = ?", a.ID, st.ID, now, have.ID).Error
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

// History returns the latest moves of parts of an aircraft, newest first.
func (s *Service) History(ctx context.Context, aircraft uuid.UUID) ([]Move, error) {
	var out []Move
	err := s.DB.WithContext(ctx).Raw(`select p.serial, p.kind, m.station, m.fitted_at, m.removed_at, m.removed_to, m.by_name
		from part_moves m join parts p on p.id = m.part_id where m.aircraft_id = ? order by m.fitted_at desc, m.station limit 200`, aircraft).Scan(&out).Error
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
}

// ApplyUse puts one flight on the aircraft, on every part that was fitted at
// take-off, and on the packs: a ledger row for each, and the counters.
func ApplyUse(tx *gorm.DB, u Use) error {
	packs := db.UUIDs(u.Packs)
	steps := []struct {
		sql  string
		args []any
	}{
		{`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles) values (?, 'aircraft', ?, ?, 1, ?, 0)`, []any{u.Flight, u.Aircraft, u.Seconds, u.Landings}},
		{`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles)
			select distinct ?::uuid, 'part', part_id, ?::int, 1, ?::int, 0 from part_moves where aircraft_id = ? and fitted_at <= ? and (removed_at is null or removed_at > ?)`,
			[]any{u.Flight, u.Seconds, u.Landings, u.Aircraft, u.TookOff, u.TookOff}},
		{`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles) select ?::uuid, 'pack', unnest(?::uuid[]), ?::int, 1, 0, 1`, []any{u.Flight, packs, u.Seconds}},
		{`update aircraft set seconds = seconds + ?, flights = flights + 1, landings = landings + ?, last_landing_at = greatest(last_landing_at, ?) where id = ?`,
			[]any{u.Seconds, u.Landings, u.Landed, u.Aircraft}},
		{`update parts p set seconds = p.seconds + x.seconds, flights = p.flights + x.flights, landings = p.landings + x.landings, cycles = p.cycles + x.cycles
			from flight_use x where x.flight_id = ? and x.thing = 'part' and x.thing_id = p.id`, []any{u.Flight}},
		{`update packs p set seconds = p.seconds + x.seconds, flights = p.flights + x.flights, cycles = p.cycles + x.cycles
			from flight_use x where x.flight_id = ? and x.thing = 'pack' and x.thing_id = p.id`, []any{u.Flight}},
	}
	for _, st := range steps {
		if err := tx.Exec(st.sql, st.args...).Error; err != nil {
			return err
		}
	}
	return nil
}
