// Package evening plans the evening at base: what flies tomorrow, which packs
// go on which charger and when, what goes down to storage, and the gear that
// must hold through the day.
package evening

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/crew"
	"mainstay/core/gear"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/tonight"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/rack"
)

// Service holds the use cases of the evening.
type Service struct {
	DB     *gorm.DB
	Clock  clock.Clock
	People *people.Service
	Fleet  *fleet.Service
	Rack   *rack.Service
}

// Gear is what else holds a charge: any one of them dying ends a flight.
type Gear struct {
	ID        uuid.UUID
	Name      string
	Kind      string
	Minimum   float64
	Level     *float64
	CheckedAt *time.Time
	CheckedBy string
	Active    bool
	Version   int

	AircraftID *uuid.UUID // that it belongs to; nil: to the crew
	LookedAt   *time.Time
	LookedBy   string
	Found      string // by that look; empty: nothing
}

// TableName is the table of gear.
func (Gear) TableName() string { return "gear" }

// Piece is the gear as the core judges it.
func (g Gear) Piece() gear.Piece {
	return gear.Piece{ID: g.ID.String(), Label: g.Name, Kind: gear.Kind(g.Kind), Retired: !g.Active, Percent: g.Level,
		Least: g.Minimum, At: g.CheckedAt, LookedAt: g.LookedAt, Found: g.Found}
}

// Judge says whether the gear is ready at a moment, in one sentence.
func (g Gear) Judge(now time.Time) (judge.Verdict, string) {
	worst, words := judge.Clear, []string{}
	for _, f := range g.Piece().Judge(now) {
		worst, words = max(worst, f.Verdict), append(words, f.Sentence)
	}
	switch {
	case len(words) > 0:
		return worst, strings.Join(words, " ")
	case g.Level == nil: // a charger has none
		return judge.Clear, "Looked at."
	}
	return judge.Clear, fmt.Sprintf("At %.0f %%, looked at.", *g.Level)
}

// Charger is a charger of the crew with equal channels.
type Charger struct {
	ID       uuid.UUID
	Name     string
	Channels int
	Watts    float64 // each channel
	// InField says that it goes to the field; GeneratorW is the most that it gets there,
	// 0 without a limit.
	InField    bool
	GeneratorW float64 `gorm:"column:generator_w"`
	Active     bool
	Version    int
}

// TableName is the table of chargers.
func (Charger) TableName() string { return "chargers" }

type evening struct {
	Day     time.Time `gorm:"type:date;primaryKey"`
	StartAt time.Time
	ReadyBy time.Time
	ByName  string
	At      time.Time
}

func (evening) TableName() string { return "evenings" }

// Flying is one aircraft with its sorties of the day.
type Flying struct {
	Aircraft fleet.Aircraft
	Type     airframe.Type
	Sorties  int
}

// Sheet is the evening before a day.
type Sheet struct {
	Day      time.Time
	StartAt  time.Time
	ReadyBy  time.Time
	Saved    bool
	Flying   []Flying
	Plan     tonight.Plan
	Gear     []Gear
	Chargers []Charger
	Ticks    []Tick
}

// Of returns the evening before a civil day: as it was saved, or as a proposal
// that begins now at the earliest and is ready at six in the morning.
func (s *Service) Of(ctx context.Context, day time.Time) (Sheet, error) {
	g := s.DB.WithContext(ctx)
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return Sheet{}, err
	}
	sh := Sheet{Day: day}
	local := func(hour int) time.Time {
		return time.Date(day.Year(), day.Month(), day.Day(), hour, 0, 0, 0, c.Location())
	}
	sh.StartAt, sh.ReadyBy = local(0).Add(-6*time.Hour), local(6)
	if now := s.Clock.Now(); sh.StartAt.Before(now) && now.Before(sh.ReadyBy) {
		sh.StartAt = now.Truncate(time.Minute)
	}
	var saved evening
	if err := g.Limit(1).Find(&saved, "day = ?", day.Format(time.DateOnly)).Error; err != nil {
		return sh, err
	}
	if saved.ByName != "" {
		sh.Saved, sh.StartAt, sh.ReadyBy = true, saved.StartAt, saved.ReadyBy
	}
	if sh.Flying, err = s.flying(ctx, day); err != nil {
		return sh, err
	}
	if err := g.Order("lower(name)").Find(&sh.Gear).Error; err != nil {
		return sh, err
	}
	if err := g.Order("lower(name)").Find(&sh.Chargers).Error; err != nil {
		return sh, err
	}
	if err := g.Raw("select t.item, t.by_name, t.at, coalesce(p.label, '') as label from evening_ticks t left join packs p on p.id::text = split_part(t.item, ':', 2) where t.day = ? order by t.at",
		day.Format(time.DateOnly)).Scan(&sh.Ticks).Error; err != nil {
		return sh, err
	}
	in, err := s.input(ctx, sh)
	if err != nil {
		return sh, err
	}
	if sh.Plan, err = tonight.Make(in); err != nil {
		return sh, fault.Clash("no-plan", "The evening cannot be planned: %v. Correct the chargers below.", err)
	}
	return sh, nil
}

func (s *Service) flying(ctx context.Context, day time.Time) ([]Flying, error) {
	var rows []struct {
		fleet.Aircraft
		Sorties int
	}
	// Until somebody plans the evening of that day, the flights are those of its jobs, with
	// each of their aircraft.
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	d := day.Format(time.DateOnly)
	if err := s.DB.WithContext(ctx).Raw(`with planned as (select x.aircraft_id, sum(j.sorties)::int as sorties
		from jobs j join job_aircraft x on x.job_id = j.id
		where j.state = 'planned' and j.sorties is not null and (j.from_at at time zone ?)::date = ?::date and not exists (select from evenings v where v.day = ?) group by 1)
		select a.*, coalesce(e.sorties, case when p.sorties > 60 then 60 else p.sorties end, 0) as sorties from aircraft a left join evening_sorties e on e.aircraft_id = a.id and e.day = ? left join planned p on p.aircraft_id = a.id
		where a.active or e.sorties > 0 order by lower(a.name)`, c.Zone, d, d, d).Scan(&rows).Error; err != nil {
		return nil, err
	}
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return nil, err
	}
	out := []Flying{}
	for _, r := range rows {
		i := slices.IndexFunc(types, func(t airframe.Type) bool { return t.Key == r.TypeKey })
		if i >= 0 {
			out = append(out, Flying{r.Aircraft, types[i], r.Sorties})
		}
	}
	return out, nil
}

func (s *Service) input(ctx context.Context, sh Sheet) (tonight.Input, error) {
	in := tonight.Input{Start: sh.StartAt, ReadyBy: sh.ReadyBy}
	types := map[string]airframe.Type{}
	field, err := s.Field(ctx)
	if err != nil {
		return in, err
	}
	flying := 0
	for _, f := range sh.Flying {
		if f.Sorties > 0 {
			flying++
		}
	}
	field = field.Share(1, flying)
	for _, f := range sh.Flying {
		types[f.Type.Key] = f.Type
		if f.Sorties > 0 {
			in.Flying = append(in.Flying, tonight.Flying{Aircraft: f.Aircraft.Name, TypeKey: f.Type.Key, Sorties: f.Sorties,
				Packs: f.Type.Packs.Count, Sets: field.Sets(f.Type, f.Sorties, 1)})
		}
	}
	for _, c := range sh.Chargers {
		if c.Active {
			in.Chargers = append(in.Chargers, tonight.Charger{Name: c.Name, Channels: c.Channels, Watts: c.Watts})
		}
	}
	views, err := s.Fleet.PackViews(ctx, nil)
	if err != nil {
		return in, err
	}
	mates, err := s.mates(ctx)
	if err != nil {
		return in, err
	}
	for _, v := range views {
		in.Packs = append(in.Packs, s.pack(v, types, mates))
	}
	return in, nil
}

// mates are the partners of the best pairing, by pack id.
func (s *Service) mates(ctx context.Context) (map[string]string, error) {
	all, err := s.Rack.MatchFull(ctx)
	out := map[string]string{}
	for _, m := range all {
		for _, x := range m.Sets {
			out[x.A], out[x.B] = x.B, x.A
		}
	}
	return out, err
}

func (s *Service) pack(v fleet.PackView, types map[string]airframe.Type, mates map[string]string) tonight.Pack {
	p := tonight.Pack{ID: v.ID.String(), Label: v.Label, State: pack.State(v.State), Mate: mates[v.ID.String()],
		Health: 100}
	p.Percent, _, _ = v.Level()
	if v.Standing != nil && v.Standing.Capacity.Health != nil {
		p.Health = *v.Standing.Capacity.Health
	}
	if cell, err := pack.CellOf(pack.Chemistry(v.Chemistry)); err == nil {
		p.WattHours = float64(v.CapacityMAh) / 1000 * float64(cell.Nominal) / 1000 * float64(v.Cells)
	}
	for _, t := range types {
		if string(t.Packs.Chemistry) == v.Chemistry && t.Packs.Cells == v.Cells && v.CapacityMAh >= t.Packs.CapacityMAh {
			p.Types = append(p.Types, t.Key)
			if t.Packs.MaxCycles > 0 && v.Cycles >= t.Packs.MaxCycles {
				p.Stop = "All its cycles are used."
			}
		}
	}
	if verdict, sentence := v.Judge(); verdict == judge.Stop {
		p.Stop = sentence
	}
	if v.FullSince != nil {
		now := s.Clock.Now()
		p.FullFor = now.Sub(*v.FullSince)
		if j := pack.JudgeFull(*v.FullSince, now, v.LookedAt); j.Verdict == judge.Stop {
			p.Stop = j.Sentence
		}
	}
	return p
}

// Edit is what flies on a day and when packs must be ready.
type Edit struct {
	StartAt time.Time
	ReadyBy time.Time
	Sorties map[uuid.UUID]int
}

// Save keeps what flies on a day. The last to save wins; ticks stay.
func (s *Service) Save(ctx context.Context, day time.Time, e Edit) error {
	by := people.From(ctx)
	switch span := e.ReadyBy.Sub(e.StartAt); {
	case span <= 0:
		return fault.Bad("ready_by", "Packs cannot be ready before charging begins.")
	case span > 36*time.Hour:
		return fault.Bad("ready_by", "From the beginning to the end there must be at most 36 hours.")
	}
	return db.Tx(ctx, s.DB, func(_ context.Context, tx *gorm.DB) error {
		d := day.Format(time.DateOnly)
		if err := tx.Exec(`insert into evenings (day, start_at, ready_by, by_name, at) values (?, ?, ?, ?, ?)
			on conflict (day) do update set start_at = excluded.start_at, ready_by = excluded.ready_by, by_name = excluded.by_name, at = excluded.at`, d, e.StartAt, e.ReadyBy, by.Name, s.Clock.Now()).Error; err != nil {
			return err
		}
		if err := tx.Exec("delete from evening_sorties where day = ?", d).Error; err != nil {
			return err
		}
		for id, n := range e.Sorties {
			if n == 0 {
				continue
			}
			var a fleet.Aircraft
			if err := tx.Limit(1).Find(&a, "id = ?", id).Error; err != nil {
				return err
			}
			if a.ID == uuid.Nil {
				return fault.Missing("aircraft")
			}
			if err := tx.Exec("insert into evening_sorties (day, aircraft_id, sorties) values (?, ?, ?)", d, id,
				n).Error; err != nil {
				return err
			}
		}
		return nil
	})
}

// Gear returns all gear by name.
func (s *Service) Gear(ctx context.Context) (out []Gear, err error) {
	err = s.DB.WithContext(ctx).Order("lower(name)").Find(&out).Error
	return out, err
}

// SaveGear adds gear, or changes it if nobody did so meanwhile; version 0 means
// it is new.
func (s *Service) SaveGear(ctx context.Context, n Gear) error {
	if n.Name = strings.TrimSpace(n.Name); n.Name == "" {
		return fault.Bad("name", "Enter what it is called.")
	}
	if n.Version == 0 {
		return db.Translate(s.DB.WithContext(ctx).Exec("insert into gear (id, name, kind, minimum, active, aircraft_id) values (?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
			n.ID, n.Name, n.Kind, n.Minimum, n.Active, n.AircraftID).Error)
	}
	res := s.DB.WithContext(ctx).Exec("update gear set name = ?, kind = ?, minimum = ?, active = ?, aircraft_id = ?, version = version + 1 where id = ? and version = ?",
		n.Name, n.Kind, n.Minimum, n.Active, n.AircraftID, n.ID, n.Version)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Stale("gear")
	}
	return db.Translate(res.Error)
}

// CheckGear notes the level of gear as read now.
func (s *Service) CheckGear(ctx context.Context, id uuid.UUID, level float64) error {
	res := s.DB.WithContext(ctx).Exec("update gear set level = ?, checked_at = ?, checked_by = ? where id = ?", level,
		s.Clock.Now(), people.From(ctx).Name, id)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Missing("gear")
	}
	return res.Error
}

// LookAtGear notes that somebody looked at a piece of gear, and what that found;
// nothing is empty. What was found is ended by a technician or chief only: nobody
// looks it away.
func (s *Service) LookAtGear(ctx context.Context, id uuid.UUID, found string) error {
	var open []string
	if err := s.DB.WithContext(ctx).Raw("select found from gear where id = ? and found <> ''",
		id).Scan(&open).Error; err != nil {
		return err
	}
	if len(open) > 0 && strings.TrimSpace(found) == "" && !people.From(ctx).Has(crew.Technician) {
		return fault.Denied("The last look found: %s. A technician or chief says when that is put right.",
			strings.TrimRight(open[0], "."))
	}
	if len(open) > 0 && strings.TrimSpace(found) != "" && !strings.Contains(found, open[0]) {
		found = open[0] + "; " + found // both were seen
	}
	res := s.DB.WithContext(ctx).Exec("update gear set looked_at = ?, looked_by = ?, found = ? where id = ?",
		s.Clock.Now(), people.From(ctx).Name, strings.TrimSpace(found), id)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Missing("gear")
	}
	return res.Error
}

// SaveCharger adds a charger, or changes it if nobody did so meanwhile; version
// 0 means it is new.
func (s *Service) SaveCharger(ctx context.Context, c Charger) error {
	if c.Name = strings.TrimSpace(c.Name); c.Name == "" {
		return fault.Bad("name", "Enter what it is called.")
	}
	res := s.DB.WithContext(ctx).Exec(`insert into chargers as o (id, name, channels, watts, in_field, generator_w, active) values (?, ?, ?, ?, ?, ?, ?)
		on conflict (id) do update set name = excluded.name, channels = excluded.channels, watts = excluded.watts, in_field = excluded.in_field, generator_w = excluded.generator_w, active = excluded.active, version = o.version + 1 where o.version = ?`, c.ID, c.Name, c.Channels, c.Watts, c.InField, c.GeneratorW, c.Active, c.Version)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Stale("charger")
	}
	return db.Translate(res.Error)
}

// byVerdict puts the gear to charge first.
func byVerdict(gear []Gear, now time.Time) []Gear {
	out := slices.Clone(gear)
	slices.SortStableFunc(out, func(a, b Gear) int {
		va, _ := a.Judge(now)
		vb, _ := b.Judge(now)
		return cmp.Or(cmp.Compare(vb, va), cmp.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name)))
	})
	return out
}
