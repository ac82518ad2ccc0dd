package fleet

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Pack is a flight battery.
type Pack struct {
	ID          uuid.UUID
	Label       string
	Serial      string
	Chemistry   string
	Cells       int
	CapacityMAh int `gorm:"column:capacity_mah"`
	Cycles      int
	State       string
	StateSince  time.Time
	FullSince   *time.Time // charged above storage since; nil when it is not
	OutMAh      float64    `gorm:"column:out_mah"` // taken out over its life, as far as counted
	AircraftID  *uuid.UUID
	Seconds     int64
	Flights     int
	Version     int
	CreatedAt   time.Time

	LeftState     string     // the state before this one; empty: not known, or taken back already
	LeftFullSince *time.Time // FullSince in that state
}

// TableName is the table of packs.
func (Pack) TableName() string { return "packs" }

// Reading is one reading of a pack.
type Reading struct {
	ID           uuid.UUID
	PackID       uuid.UUID
	At           time.Time
	ByName       string
	Source       string
	CellMV       db.Array[int64] `gorm:"column:cell_mv;type:int[]"`
	RestedMin    *float64
	Percent      *float64
	TemperatureC *float64          `gorm:"column:temperature_c"`
	MilliOhm     db.Array[float64] `gorm:"column:resistance_mohm;type:double precision[]"`
	MAhIn        *float64          `gorm:"column:mah_in"`
	MAhOut       *float64          `gorm:"column:mah_out"`
	StartPercent *float64
	EndPercent   *float64
	CapacityMAh  *float64 `gorm:"column:capacity_mah"`
	CapacityPM   *float64 `gorm:"column:capacity_pm"`
	Cycles       *float64 // equivalent full cycles then
	LoadA        *float64 // load under which the resistance was worked out, and for how long
	LoadS        *float64

	Confirms  db.UUIDs   `gorm:"type:uuid[]"` // readings of which something was confirmed and stands here too
	CellsFrom *uuid.UUID // the one of them whose cells these are; nil: they were read anew

	WithdrawnAt  *time.Time // it counts for nothing since
	WithdrawnBy  string
	WithdrawnWhy string
}

// TableName is the table of readings.
func (Reading) TableName() string { return "pack_readings" }

// Millivolts returns the cells as the core takes them.
func (r Reading) Millivolts() []units.Millivolts {
	out := make([]units.Millivolts, len(r.CellMV))
	for i, v := range r.CellMV {
		out[i] = units.Millivolts(v)
	}
	return out
}

// EquivalentCycles is the charge taken out over its life in full cycles.
func (p Pack) EquivalentCycles() float64 {
	return pack.EquivalentCycles(p.OutMAh, float64(p.CapacityMAh))
}

// NewPack is what a new pack comes with.
type NewPack struct {
	ID                   uuid.UUID
	Label, Serial        string
	Chemistry            string
	Cells, MilliampHours int
	Cycles               int
	Unmarked             bool // its serial number is not known yet
	Charged              bool // it was charged within the last day; else it lies at storage level
}

// wrong says what of a pack cannot be used; nil: nothing.
func (n NewPack) wrong() error {
	var fields []fault.Field
	if strings.TrimSpace(n.Label) == "" {
		fields = append(fields, fault.Field{Field: "label", Sentence: "Enter what stands on the pack's label."})
	}
	if strings.TrimSpace(n.Serial) == "" && !n.Unmarked {
		fields = append(fields, fault.Field{Field: "serial", Sentence: "Enter the maker's serial number."})
	}
	if _, err := pack.CellOf(pack.Chemistry(n.Chemistry)); err != nil {
		fields = append(fields, fault.Field{Field: "chemistry", Sentence: "Choose a chemistry from the list."})
	}
	return fault.BadFields(fields)
}

// AddPack adds a pack in storage state. Adding the same id twice changes
// nothing.
func (s *Service) AddPack(ctx context.Context, n NewPack) (Pack, error) {
	if err := n.wrong(); err != nil {
		return Pack{}, err
	}
	var old Pack
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil || old.ID != uuid.Nil {
		return old, err
	}
	now, state := s.Clock.Now(), pack.Storage
	var full *time.Time
	if n.Charged {
		state, full = pack.Charged, new(now.Add(-24*time.Hour)) // at some time within the last day: the earliest counts
	}
	p := Pack{ID: n.ID, Label: strings.TrimSpace(n.Label), Serial: strings.TrimSpace(n.Serial), Chemistry: n.Chemistry,
		Cells: n.Cells, CapacityMAh: n.MilliampHours,
		Cycles: n.Cycles, OutMAh: float64(n.Cycles) * float64(n.MilliampHours), State: string(state), StateSince: now,
		FullSince: full, Version: 1, CreatedAt: now}
	return p, db.Translate(s.DB.WithContext(ctx).Create(&p).Error)
}

// Pack returns one pack.
func (s *Service) Pack(ctx context.Context, id uuid.UUID) (Pack, error) {
	var p Pack
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "id = ?", id).Error; err != nil {
		return p, err
	}
	if p.ID == uuid.Nil {
		return p, fault.Missing("pack")
	}
	return p, nil
}

// MovePack moves a pack to another state by hand. Fitted and back is done by
// release and flight, not by hand. Out of quarantine and into retirement only
// a technician or chief may move it.
func (s *Service) MovePack(ctx context.Context, id uuid.UUID, to pack.State, note string, version int) (Pack, error) {
	var p Pack
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := tx.Raw("select * from packs where id = ? for no key update", id).Scan(&p).Error; err != nil {
			return err
		}
		if p.ID == uuid.Nil {
			return fault.Missing("pack")
		}
		if p.Version != version {
			return fault.Stale("pack")
		}
		return s.Move(ctx, tx, &p, to, note)
	})
	return p, err
}

// Move moves a locked pack as the acting person may move it by hand.
func (s *Service) Move(ctx context.Context, tx *gorm.DB, p *Pack, to pack.State, note string) error {
	from := pack.State(p.State)
	if to == pack.Fitted || from == pack.Fitted && to != pack.Quarantine {
		return fault.Clash("move-not-allowed",
			"A pack is fitted by a release and freed by its withdrawal or by logging the flight, not by hand.")
	}
	if (from == pack.Quarantine || to == pack.Retired) && !people.From(ctx).Has(crew.Technician) {
		return fault.Denied("Only a technician or chief takes a pack out of quarantine or retires it.")
	}
	if (from == pack.Quarantine || to == pack.Quarantine || to == pack.Retired) && len(strings.TrimSpace(note)) < 3 {
		return fault.Bad("note", "Say why: what was seen or measured.")
	}
	return s.SetState(ctx, tx, p, to, nil, note)
}

// SetState moves a pack inside tx when the move is legal, and puts moves that
// matter for safety on record.
func (s *Service) SetState(ctx context.Context, tx *gorm.DB, p *Pack, to pack.State, aircraft *uuid.UUID,
	note string) error {
	from := pack.State(p.State)
	if err := pack.Move(from, to); err != nil {
		return fault.Clash("move-not-allowed", "%s: %s.", p.Label, err)
	}
	now, by := s.Clock.Now(), people.From(ctx)
	p.LeftState, p.LeftFullSince = p.State, p.FullSince
	switch {
	case to == pack.Charged && p.FullSince == nil:
		p.FullSince = &now
	case to != pack.Charged && to != pack.Fitted && to != pack.Quarantine:
		p.FullSince = nil // charging again counts anew
	}
	p.State, p.StateSince, p.AircraftID, p.Version = string(to), now, aircraft, p.Version+1
	if err := tx.Exec("update packs set state = ?, state_since = ?, full_since = ?, aircraft_id = ?, left_state = ?, left_full_since = ?, version = ? where id = ?",
		p.State, now, p.FullSince, aircraft, p.LeftState, p.LeftFullSince, p.Version, p.ID).Error; err != nil {
		return err
	}
	if to != pack.Quarantine && to != pack.Retired && from != pack.Quarantine {
		return nil
	}
	_, err := records.Append(ctx, tx, records.Entry{Kind: records.PackMoved, Subject: p.ID, At: now, By: by.By(),
		Summary: fmt.Sprintf("%s from %s to %s: %s", p.Label, from, to, note), Content: map[string]any{"pack": p.Label,
			"from": from, "to": to, "note": note}})
	return err
}

// together are the states between which packs go back and forth on the ground by
// hand; nothing else is undone: what is hot cools, what is fitted is freed by its
// flight, and only a technician ends a quarantine.
var together = []pack.State{pack.Storage, pack.Charging, pack.Charged, pack.Flown}

// PutBack undoes the last move of a pack that was a slip of the hand: it is again
// in the state it left, and charged since it was. Once; only among the states
// that people give it by hand on the ground.
func (s *Service) PutBack(ctx context.Context, tx *gorm.DB, p *Pack) error {
	if !slices.Contains(together, pack.State(p.State)) || !slices.Contains(together, pack.State(p.LeftState)) {
		return fault.Clash("move-not-allowed", "The last move of %s is not one that is taken back. Move it on instead.",
			p.Label)
	}
	p.State, p.FullSince, p.LeftState, p.LeftFullSince, p.StateSince, p.Version = p.LeftState, p.LeftFullSince, "", nil,
		s.Clock.Now(), p.Version+1
	return tx.Exec("update packs set state = ?, state_since = ?, full_since = ?, left_state = '', left_full_since = null, version = ? where id = ?",
		p.State, p.StateSince, p.FullSince, p.Version, p.ID).Error
}

// NewReading is a reading entered for a pack. At is now when it is zero.
type NewReading struct {
	ID           uuid.UUID
	At           time.Time
	CellMV       []int
	RestedMin    *float64
	Percent      *float64
	TemperatureC *float64
	MilliOhm     []float64
	MAhIn        *float64
	MAhOut       *float64
	StartPercent *float64 // levels between which the mAh went in or out
	EndPercent   *float64
	Load         *Load // nil: no load was put on
	Source       string
	Confirms     db.UUIDs   // as in Reading
	CellsFrom    *uuid.UUID // as in Reading
}

// Load is what the cells read under a current after some seconds. With the
// volts at rest it tells the resistance.
type Load struct {
	CellMV  []int
	Amps    float64
	Seconds float64
}

// underLoad works out the resistance of each cell from its volts at rest and
// under load.
func (n *NewReading) underLoad() error {
	l := n.Load
	switch {
	case l == nil:
		return nil
	case len(n.MilliOhm) > 0:
		return fault.Bad("under_load", "Enter the resistance or the volts under load, not both.")
	case len(n.CellMV) != len(l.CellMV):
		return fault.Bad("under_load", "Enter the volts of every cell at rest, and of every cell under load.")
	}
	for i, mv := range l.CellMV {
		r, err := pack.Resistance(units.Millivolts(n.CellMV[i]), units.Millivolts(mv), l.Amps)
		if err != nil {
			return fault.Bad("under_load", "Cell %d: under a load of %g A it reads less than at rest, between 500 and 5000 mV.",
				i+1, l.Amps)
		}
		n.MilliOhm = append(n.MilliOhm, r)
	}
	return nil
}

// ReadPack stores a reading. A reading with the same id is stored once.
func (s *Service) ReadPack(ctx context.Context, id uuid.UUID, n NewReading) (Reading, error) {
	var r Reading
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		packs, err := LockPacks(tx, []uuid.UUID{id})
		if err != nil {
			return err
		}
		if len(packs) == 0 {
			return fault.Missing("pack")
		}
		r, err = s.store(ctx, tx, packs[0], n)
		return err
	})
	return r, err
}

// levelError is how well a level shown by a pack or a charger is known, in
// percent points.
const levelError = 2

func (n NewReading) check(p Pack, now time.Time) error {
	var fields []fault.Field
	bad := func(field, format string, a ...any) {
		fields = append(fields, fault.Field{Field: field, Sentence: fmt.Sprintf(format, a...)})
	}
	if len(n.CellMV) != 0 && len(n.CellMV) != p.Cells {
		bad("cell_mv", "%s has %d cells; %d were entered.", p.Label, p.Cells, len(n.CellMV))
	}
	if len(n.MilliOhm) != 0 && len(n.MilliOhm) != p.Cells {
		bad("resistance_mohm", "%s has %d cells; the resistance of %d was entered.", p.Label, p.Cells, len(n.MilliOhm))
	}
	if len(n.CellMV) == 0 && len(n.MilliOhm) == 0 && n.Percent == nil && n.TemperatureC == nil && n.MAhIn == nil &&
		n.MAhOut == nil {
		bad("cell_mv", "Enter the cells, the level or the temperature.")
	}
	if i := slices.IndexFunc(n.CellMV, func(v int) bool { return v < 500 || v > 5000 }); i >= 0 {
		bad("cell_mv", "Cell %d must be between 500 and 5000 mV.", i+1)
	}
	if i := slices.IndexFunc(n.MilliOhm, func(v float64) bool { return !(v > 0 && v <= 1000) }); i >= 0 {
		bad("resistance_mohm", "The resistance of cell %d must be above 0 and at most 1000 mΩ.", i+1)
	}
	within := func(field string, v *float64, lo, hi float64, unit string) {
		if v != nil && !(*v >= lo && *v <= hi) {
			bad(field, "Enter %g to %g %s.", lo, hi, unit)
		}
	}
	within("percent", n.Percent, 0, 100, "%")
	within("temperature_c", n.TemperatureC, -40, 120, "°C")
	within("rested_min", n.RestedMin, 0, 1000000, "min")
	within("mah_in", n.MAhIn, 0, 400000, "mAh")
	within("mah_out", n.MAhOut, 0, 400000, "mAh")
	within("start_percent", n.StartPercent, 0, 100, "%")
	within("end_percent", n.EndPercent, 0, 100, "%")
	if n.At.After(now.Add(2 * time.Minute)) {
		bad("at", "The reading is dated in the future.")
	}
	return fault.BadFields(fields)
}

func (s *Service) store(ctx context.Context, tx *gorm.DB, p Pack, n NewReading) (Reading, error) {
	now := s.Clock.Now()
	if err := n.underLoad(); err != nil {
		return Reading{}, err
	}
	if err := n.check(p, now); err != nil {
		return Reading{}, err
	}
	if n.At.IsZero() {
		n.At = now
		var later bool
		if err := tx.Raw("select exists (select 1 from pack_readings where pack_id = ? and withdrawn_at is null and at > ?)",
			p.ID, now.Add(2*time.Minute)).Scan(&later).Error; err != nil {
			return Reading{}, err
		}
		if later {
			return Reading{}, fault.Clash("clock",
				"The server's clock reads earlier than the last reading of %s. Nothing was saved; ask a chief to check the clock.",
				p.Label)
		}
	}
	r := Reading{ID: n.ID, PackID: p.ID, At: n.At, ByName: people.From(ctx).Name, Source: n.Source,
		CellMV: db.Array[int64]{}, RestedMin: n.RestedMin, Percent: n.Percent, TemperatureC: n.TemperatureC,
		MilliOhm: append(db.Array[float64]{},
			n.MilliOhm...), MAhIn: n.MAhIn, MAhOut: n.MAhOut, StartPercent: n.StartPercent, EndPercent: n.EndPercent}
	r.Confirms, r.CellsFrom = n.Confirms, n.CellsFrom
	if n.Load != nil {
		r.LoadA, r.LoadS = &n.Load.Amps, &n.Load.Seconds
	}
	for _, v := range n.CellMV {
		r.CellMV = append(r.CellMV, int64(v))
	}
	out := p.OutMAh
	if n.MAhOut != nil {
		out += *n.MAhOut
	}
	cycles := pack.EquivalentCycles(out, float64(p.CapacityMAh))
	r.Cycles = &cycles
	r.measure()
	res := tx.Exec(`insert into pack_readings (id, pack_id, at, by_name, source, cell_mv, rested_min, percent, temperature_c, resistance_mohm, mah_in, mah_out, start_percent, end_percent, capacity_mah, capacity_pm, cycles, load_a, load_s, confirms, cells_from)
		values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) on conflict (id) do nothing`,
		r.ID, r.PackID, r.At, r.ByName, r.Source, r.CellMV, r.RestedMin, r.Percent, r.TemperatureC, r.MilliOhm, r.MAhIn,
		r.MAhOut, r.StartPercent, r.EndPercent, r.CapacityMAh, r.CapacityPM, r.Cycles, r.LoadA, r.LoadS,
		r.Confirms, r.CellsFrom)
	if res.Error != nil || res.RowsAffected == 0 {
		return r, res.Error
	}
	if n.MAhOut != nil {
		if err := tx.Exec("update packs set out_mah = out_mah + ? where id = ?", *n.MAhOut, p.ID).Error; err != nil {
			return r, err
		}
	}
	if r.CapacityMAh == nil && len(r.MilliOhm) == 0 && (len(r.CellMV) == 0 || r.RestedMin == nil || r.CellsFrom != nil) {
		return r, nil // it adds nothing to what the history says
	}
	return r, s.standPack(ctx, tx, p)
}

// Same reports whether a reading says what n says.
func (r Reading) Same(n NewReading) bool {
	eq := func(a, b *float64) bool { return (a == nil) == (b == nil) && (a == nil || math.Abs(*a-*b) < 1e-9) }
	cells := make([]int, len(r.CellMV))
	for i, v := range r.CellMV {
		cells[i] = int(v)
	}
	return slices.Equal(cells, n.CellMV) && slices.Equal([]float64(r.MilliOhm), n.MilliOhm) &&
		eq(r.RestedMin, n.RestedMin) && eq(r.Percent, n.Percent) && eq(r.TemperatureC, n.TemperatureC) &&
		eq(r.MAhIn, n.MAhIn) && eq(r.MAhOut, n.MAhOut) && eq(r.StartPercent, n.StartPercent) && eq(r.EndPercent, n.EndPercent)
}

// measure finds the capacity when the reading tells it: mAh between two levels.
func (r *Reading) measure() {
	mah := r.MAhOut
	if mah == nil || *mah <= 0 {
		mah = r.MAhIn
	}
	if mah == nil || r.StartPercent == nil || r.EndPercent == nil {
		return
	}
	if c, err := pack.MeasureCapacity(*mah, *r.StartPercent, levelError, *r.EndPercent, levelError); err == nil {
		r.CapacityMAh, r.CapacityPM = &c.MilliampHours, &c.PlusMinus
	}
}

// StoreReading stores a reading inside another use case's transaction.
func (s *Service) StoreReading(ctx context.Context, tx *gorm.DB, p Pack, n NewReading) error {
	_, err := s.store(ctx, tx, p, n)
	return err
}

// Flown counts the charge that a flight took out of a pack: from the level
// before to the level after in percent; a whole charge when one is not known.
func Flown(tx *gorm.DB, p Pack, before, after *float64) error {
	share := 1.0
	if before != nil && after != nil {
		share = max(*before-*after, 0) / 100
	}
	return tx.Exec("update packs set out_mah = out_mah + ? where id = ?", share*float64(p.CapacityMAh), p.ID).Error
}

// LockPacks locks and reads packs in a fixed order, so that two transactions
// never wait for each other in a ring.
func LockPacks(tx *gorm.DB, ids []uuid.UUID) ([]Pack, error) {
	var out []Pack
	if len(ids) == 0 {
		return out, nil
	}
	err := tx.Raw("select * from packs where id in ? order by id for no key update", ids).Scan(&out).Error
	return out, err
}

// Pages of lists.
const (
	packsPage    = 500
	readingsPage = 60
)

// Readings returns a page of the readings of a pack, newest first, and where
// the next begins; empty when there is none.
func (s *Service) Readings(ctx context.Context, id uuid.UUID, cursor string) ([]Reading, string, error) {
	where, args := "pack_id = ?", []any{id}
	if cursor != "" {
		at, last, err := db.ParseTimeCursor(cursor)
		if err != nil {
			return nil, "", err
		}
		where, args = where+" and (at, id) < (?::timestamptz, ?::uuid)", append(args, at, last)
	}
	var out []Reading
	err := s.DB.WithContext(ctx).Raw("select * from pack_readings where "+where+" order by at desc, id desc limit ?",
		append(args, readingsPage+1)...).Scan(&out).Error
	out, next := db.Page(out, readingsPage, func(r Reading) string { return db.TimeCursor(r.At, r.ID) })
	return out, next, err
}

// PackPage returns the ids of a page of the rack, by label, and where the next begins.
func (s *Service) PackPage(ctx context.Context, cursor string) ([]uuid.UUID, string, error) {
	where, args := "true", []any{}
	if cursor != "" {
		label, last, err := db.ParseCursor(cursor)
		if err != nil {
			return nil, "", err
		}
		where, args = "(label, id) > (?, ?::uuid)", []any{label, last}
	}
	type row struct {
		ID    uuid.UUID
		Label string
	}
	var rows []row
	if err := s.DB.WithContext(ctx).Raw("select id, label from packs where "+where+" order by label, id limit ?",
		append(args, packsPage+1)...).Scan(&rows).Error; err != nil {
		return nil, "", err
	}
	rows, next := db.Page(rows, packsPage, func(r row) string { return db.Cursor(r.Label, r.ID) })
	ids := make([]uuid.UUID, len(rows))
	for i, r := range rows {
		ids[i] = r.ID
	}
	return ids, next, nil
}

// PutBack gives a pack the state again that it had before something that did not begin.
func PutBack(tx *gorm.DB, id uuid.UUID, before pack.State) error {
	return tx.Exec("update packs set state = ?, version = version + 1 where id = ?", before, id).Error
}
