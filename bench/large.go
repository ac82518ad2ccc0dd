package main

import (
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"mainstay/core/airframe"
	"mainstay/internal/people"
	"mainstay/internal/server"
)

// size is how many of each a made-up fleet has.
type size struct{ aircraft, packs, parts, flights int }

// largeFleet is the large fleet of docs/architecture.md.
var largeFleet = size{aircraft: 500, packs: 5_000, parts: 20_000, flights: 250_000}

const largePassword = "large-fleet-bench"

// fillLarge makes the large fleet in an empty database, straight into the
// tables: a year through the use cases would take hours. Counters agree with
// the flights; the ledger of parts is kept for the last sixty days, which is
// more than any view looks back.
func fillLarge(ctx context.Context, svc *server.Services, conn *pgx.Conn, n size) error {
	if _, ok, err := svc.People.Crew(ctx); err != nil || ok {
		return err
	}
	now := svc.Clock.Now()
	trained := now.AddDate(0, -3, 0)
	chief, err := svc.People.SetUp(ctx, people.Crew{Name: "Large fleet", Zone: "America/Los_Angeles",
		Units: people.Shown{Length: "m", Speed: "m/s", Mass: "kg", Temperature: "degC", Volume: "L"}},
		people.New{Login: "chief", Name: "Chief", Password: largePassword, PIN: "2580", Certificate: "R-1",
			TrainedOn: &trained})
	if err != nil {
		return err
	}
	types, err := svc.Fleet.Types(ctx)
	if err != nil {
		return err
	}
	l := &large{ctx: ctx, conn: conn, size: n, now: now, rand: rand.New(rand.NewPCG(500, 5000)),
		types: map[string]airframe.Type{}, lists: map[string]int{}, chief: chief.ID}
	for _, t := range types {
		l.types[t.Key] = t
		var list int
		row := conn.QueryRow(ctx, "select max(version) from checklists where type_key = $1", t.Key)
		if err := row.Scan(&list); err != nil {
			return err
		}
		l.lists[t.Key] = list
	}
	for _, step := range []func() error{l.aircraft, l.packs, l.flights, l.readings, l.walks, l.counters} {
		if err := step(); err != nil {
			return err
		}
	}
	if _, err := conn.Exec(ctx, "vacuum analyze"); err != nil {
		return err
	}
	return nil
}

type large struct {
	ctx    context.Context
	conn   *pgx.Conn
	size   size
	now    time.Time
	rand   *rand.Rand
	types  map[string]airframe.Type
	lists  map[string]int // the newest version of each type's checklist
	chief  uuid.UUID
	crafts []largeCraft
	rack   map[string][]uuid.UUID // by type key
}

type largeCraft struct {
	id  uuid.UUID
	key string
}

func (l *large) copy(table string, cols []string, rows [][]any) error {
	n, err := l.conn.CopyFrom(l.ctx, pgx.Identifier{table}, cols, pgx.CopyFromRows(rows))
	if err == nil && int(n) != len(rows) {
		err = fmt.Errorf("%s: %d of %d rows", table, n, len(rows))
	}
	return err
}

func pgID() uuid.UUID { return uuid.Must(uuid.NewV7()) }

func (l *large) aircraft() error {
	var crafts, parts, moves [][]any
	for i := range l.size.aircraft {
		key := "dray-30"
		switch {
		case i%10 >= 9:
			key = "tally-v"
		case i%10 >= 6:
			key = "lantern-4"
		}
		id, began := pgID(), l.now.AddDate(-3, 0, 0)
		l.crafts = append(l.crafts, largeCraft{id, key})
		crafts = append(crafts, []any{id[:], key, fmt.Sprintf("Craft %03d", i+1), fmt.Sprintf("LF-%04d", i+1),
			fmt.Sprintf("LF%d", i+1), l.now.AddDate(1, 0, 0), true, began})
		for _, at := range l.types[key].Positions() {
			pid, fitted := pgID(), began
			if at.Kind == "propeller" {
				fitted = l.now.AddDate(0, 0, -1-l.rand.IntN(50))
			} else if l.types[key].Wear[at.Kind].Months > 0 {
				fitted = l.now.AddDate(0, 0, -1-l.rand.IntN(600)) // renewed in time, as a crew does
			}
			parts = append(parts, []any{pid[:], at.Kind, fmt.Sprintf("LF-%04d-%s", i+1, at.ID), "maker", key, id[:], at.ID,
				fitted, fitted})
			moves = append(moves, []any{pgIDBytes(), pid[:], id[:], at.ID, fitted, "Chief"})
		}
	}
	for i := len(parts); i < l.size.parts; i++ { // the rest lies on the shelf
		pid := pgID()
		parts = append(parts, []any{pid[:], "propeller", fmt.Sprintf("SH-%05d", i), "maker", "dray-30", nil, nil, nil, l.now})
	}
	if err := l.copy("aircraft", []string{"id", "type_key", "name", "serial", "registration", "registration_expires",
		"active", "created_at"}, crafts); err != nil {
		return err
	}
	if err := l.copy("parts", []string{"id", "kind", "serial", "source", "type_key", "aircraft_id", "station", "fitted_at",
		"since"}, parts); err != nil {
		return err
	}
	return l.copy("part_moves", []string{"id", "part_id", "aircraft_id", "station", "fitted_at", "by_name"}, moves)
}

func pgIDBytes() []byte {
	id := pgID()
	return id[:]
}

func (l *large) packs() error {
	l.rack = map[string][]uuid.UUID{}
	var rows [][]any
	for i := range l.size.packs {
		key := "dray-30"
		switch {
		case i%10 >= 9:
			key = "tally-v"
		case i%10 >= 6:
			key = "lantern-4"
		}
		p, id := l.types[key].Packs, pgID()
		l.rack[key] = append(l.rack[key], id)
		state := []string{"charged", "storage", "flown", "storage"}[i%4]
		var full any
		if state == "charged" {
			full = l.now.Add(-time.Duration(l.rand.IntN(40)) * time.Hour)
		}
		rows = append(rows, []any{id[:], fmt.Sprintf("P%04d", i+1), fmt.Sprintf("PS-%05d", i+1), string(p.Chemistry), p.Cells,
			p.CapacityMAh, 40 + l.rand.IntN(200), state, l.now.Add(-time.Hour), full,
			float64(p.CapacityMAh) * float64(40+l.rand.IntN(160)), l.now.AddDate(-3, 0, 0)})
	}
	return l.copy("packs", []string{"id", "label", "serial", "chemistry", "cells", "capacity_mah", "cycles", "state",
		"state_since", "full_since", "out_mah", "created_at"}, rows)
}

func (l *large) flights() error {
	each := l.size.flights / l.size.aircraft
	var rows, use [][]any
	flush := func() error {
		if err := l.copy("flights", []string{"id", "aircraft_id", "pilot_id", "pack_ids", "purpose", "took_off_at",
			"landed_at", "logged_at", "state", "seconds", "landings", "litres", "warmth_set", "hover_set", "source"},
			rows); err != nil {
			return err
		}
		if err := l.copy("flight_use", []string{"flight_id", "thing", "thing_id", "seconds", "flights", "landings", "cycles",
			"litres"}, use); err != nil {
			return err
		}
		rows, use = rows[:0], use[:0]
		return nil
	}
	purposes := []string{"Spraying, north yard", "Spraying, south yard", "Mapping, bank", "Inspection, station"}
	for n, a := range l.crafts {
		t := l.types[a.key]
		for i := range each {
			// Three sorties a day on every sixth day or so, the newest yesterday.
			start := l.now.AddDate(0, 0, -1-(each-1-i)/3*6-n%3).Add(time.Duration(i%3) * time.Hour)
			seconds := 480 + l.rand.IntN(600)
			land, id := start.Add(time.Duration(seconds)*time.Second), pgID()
			var packs []uuid.UUID
			rack := l.rack[a.key]
			for k := range t.Packs.Count {
				packs = append(packs, rack[(n*7+i*2+k)%len(rack)])
			}
			litres := 0.0
			if t.TankL > 0 {
				litres = 22
			}
			warm, out := make([]float64, t.SisterMotors()), make([]float64, t.SisterMotors())
			for k := range warm {
				warm[k], out[k] = float64(38+l.rand.IntN(5)), float64(47+l.rand.IntN(4))
			}
			rows = append(rows, []any{id[:], a.id[:], l.chief[:], packs, purposes[l.rand.IntN(4)], start, land,
				land.Add(time.Minute), "logged", seconds, 1, litres, warm, out, "live"})
			use = append(use, []any{id[:], "aircraft", a.id[:], seconds, 1, 1, 0, litres})
			for _, p := range packs {
				use = append(use, []any{id[:], "pack", p[:], seconds, 1, 0, 1, 0.0})
			}
		}
		if n%25 == 24 {
			if err := flush(); err != nil {
				return err
			}
		}
	}
	return flush()
}

func (l *large) readings() error {
	var rows [][]any
	for key, ids := range l.rack {
		p := l.types[key].Packs
		for _, id := range ids {
			health := 0.99 - l.rand.Float64()*0.05
			for k := range 14 {
				cells, ohms := make([]int32, p.Cells), make([]float64, p.Cells)
				for c := range cells {
					cells[c], ohms[c] = int32(4190-l.rand.IntN(10)), 2+float64(k)*0.03+l.rand.Float64()*0.05
				}
				mah := float64(p.CapacityMAh) * (health - float64(k)*0.006)
				rows = append(rows, []any{pgIDBytes(), id[:], l.now.AddDate(0, 0, -14*(13-k)).Add(-time.Hour), "Chief", "charger",
					cells, 45.0, 99.0, 21.0, ohms, mah * 0.75, 25.0, 100.0, mah, mah * 0.03, float64(60 + 6*k)})
			}
		}
	}
	return l.copy("pack_readings", []string{"id", "pack_id", "at", "by_name", "source", "cell_mv", "rested_min", "percent",
		"temperature_c", "resistance_mohm", "mah_in", "start_percent", "end_percent", "capacity_mah", "capacity_pm",
		"cycles"}, rows)
}

func (l *large) walks() error {
	var rows [][]any
	for _, a := range l.crafts {
		for k := range 8 {
			at := l.now.AddDate(0, 0, -6*k).Add(-2 * time.Hour)
			kind := "walkround"
			if k%2 == 1 {
				kind = "turnaround"
			}
			rows = append(rows, []any{pgIDBytes(), a.id[:], kind, l.lists[a.key], a.key, l.types[a.key].Version,
				[]uuid.UUID{}, "Chief", at, "Chief", at.Add(20 * time.Minute), "clear", []byte("[]")})
		}
	}
	return l.copy("walkrounds", []string{"id", "aircraft_id", "kind", "checklist_version", "type_key", "type_version",
		"pack_ids", "started_by", "started_at", "completed_by", "completed_at", "verdict", "findings"}, rows)
}

// counters makes every counter the sum of its flights.
func (l *large) counters() error {
	for _, sql := range []string{
		`insert into flight_use (flight_id, thing, thing_id, seconds, flights, landings, cycles, litres) select f.id, 'part', p.id, f.seconds, 1, 1, 0, f.litres
			from flights f join parts p on p.aircraft_id = f.aircraft_id and p.fitted_at <= f.took_off_at where f.took_off_at > $1::timestamptz - interval '60 days'`,
		`update aircraft a set seconds = x.s, flights = x.n, landings = x.n, litres = x.l, last_landing_at = x.at from (select aircraft_id, sum(seconds) s, count(*) n, sum(litres) l, max(landed_at) at from flights group by 1) x where x.aircraft_id = a.id and $1::timestamptz is not null`,
		`update parts p set seconds = x.s, flights = x.n, landings = x.n, litres = x.l from (select p.id, sum(f.seconds) s, count(*) n, sum(f.litres) l from parts p join flights f on f.aircraft_id = p.aircraft_id and f.took_off_at >= p.fitted_at group by 1) x where x.id = p.id and $1::timestamptz is not null`,
		`update packs p set seconds = x.s, flights = x.n from (select thing_id, sum(seconds) s, count(*) n from flight_use where thing = 'pack' group by 1) x where x.thing_id = p.id and $1::timestamptz is not null`,
		`insert into task_done (aircraft_id, task_id, done_at, seconds, flights, landings, litres) select a.id, t, $1::timestamptz - interval '2 days', a.seconds, a.flights, a.landings, a.litres
			from aircraft a cross join unnest(array['after-flying', 'weekly-screws', 'monthly-inside', 'spray-system', 'surfaces']) t`,
		`insert into firmware_installed (thing_id, component, version, at, by_name) select id, c, '1.0', $1::timestamptz, 'Chief' from aircraft cross join unnest(array['aircraft', 'controller', 'app']) c`,
	} {
		if _, err := l.conn.Exec(l.ctx, sql, l.now); err != nil {
			return fmt.Errorf("%.60s: %w", sql, err)
		}
	}
	return nil
}
