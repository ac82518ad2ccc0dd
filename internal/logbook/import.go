package logbook

import (
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/formats/logcsv"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Import takes flights from CSV. A row that is on record already with the same
// data changes nothing; one that differs is refused, because records do not
// change. Rows that cannot be used are named; the others count, all in one
// transaction and in a handful of statements however long the file is.
func (s *Service) Import(ctx context.Context, r io.Reader) (api.ImportReport, error) {
	rep := api.NewImportReport()
	rows, bad, err := logcsv.Read(r)
	if err != nil {
		return rep, fault.Bad("file", "The file cannot be read: %v.", err)
	}
	for _, b := range bad {
		rep.Refuse(b.Line, "%s %v.", b.Column, b.Err)
	}
	read := rep.Clip()
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		rep = read
		if err := errors.Join(db.OneImport(ctx, tx), db.Long(ctx, tx, importDeadline)); err != nil {
			return err
		}
		sift, err := s.sift(ctx, tx, rows)
		if err != nil {
			return err
		}
		var fresh []flight
		for i, row := range rows {
			f, sentence := sift.take(i, row)
			switch {
			case sentence != "":
				rep.Refuse(row.Line, "%s", sentence)
			case f != nil:
				fresh = append(fresh, *f)
			default:
				rep.Unchanged++
			}
		}
		rep.Accepted = len(fresh)
		return s.store(ctx, tx, fresh)
	})
	rep.Sort()
	return rep, err
}

// flight is a row that was taken, with the names resolved.
type flight struct {
	row             logcsv.Row
	aircraft, pilot uuid.UUID
	packs           db.UUIDs
}

// sift decides row by row from what is known before the first is stored.
type sift struct {
	known
	now   time.Time
	onLog map[uuid.UUID]logcsv.Row // on record, or taken from an earlier line
	clash []bool                   // by row: the log has a flight of that aircraft then
	taken map[uuid.UUID][]span     // by aircraft, ordered, without overlap
}

type span struct{ from, to time.Time }

func (s *Service) sift(ctx context.Context, tx *gorm.DB, rows []logcsv.Row) (*sift, error) {
	names, err := lookups(tx)
	if err != nil {
		return nil, err
	}
	out := &sift{known: names, now: s.Clock.Now(), onLog: map[uuid.UUID]logcsv.Row{}, clash: make([]bool, len(rows)),
		taken: map[uuid.UUID][]span{}}
	ids, crafts, begin, end := make(db.UUIDs, len(rows)), make(db.UUIDs, len(rows)), make([]time.Time,
		len(rows)), make([]time.Time, len(rows))
	for i, r := range rows {
		ids[i], crafts[i], begin[i], end[i] = r.ID, names.aircraft[strings.ToLower(r.AircraftSerial)], r.TookOffAt, r.LandedAt
	}
	have, err := s.lines(ctx, "where f.id = any(?::uuid[])", []any{ids}, "")
	if err != nil {
		return nil, err
	}
	for _, l := range have {
		out.onLog[l.ID] = l.row()
	}
	// Flights of one aircraft do not overlap, so the last that began before the
	// row ends is the only one that can reach into it.
	var numbers []int
	err = tx.Raw(`select x.n from unnest(?::uuid[], ?::timestamptz[], ?::timestamptz[]) with ordinality x (aircraft, begins, ends, n)
		where x.begins < (select coalesce(f.landed_at, 'infinity') from flights f where f.aircraft_id = x.aircraft and f.took_off_at < x.ends order by f.took_off_at desc limit 1)`,
		crafts, db.Array[time.Time](begin), db.Array[time.Time](end)).Scan(&numbers).Error
	for _, n := range numbers {
		out.clash[n-1] = true
	}
	return out, err
}

// take judges one row: a flight to store, or a sentence when it is refused, or
// neither when it is on record already.
func (s *sift) take(i int, r logcsv.Row) (*flight, string) {
	if have, ok := s.onLog[r.ID]; ok {
		if same(have, r) {
			return nil, ""
		}
		return nil, "this flight is on record with other values; a record does not change."
	}
	f := &flight{row: r, packs: db.UUIDs{}}
	var ok bool
	if f.aircraft, ok = s.aircraft[strings.ToLower(r.AircraftSerial)]; !ok {
		return nil, fmt.Sprintf("no aircraft has serial %q.", r.AircraftSerial)
	}
	if f.pilot, ok = s.pilots[strings.ToLower(r.PilotLogin)]; !ok {
		return nil, fmt.Sprintf("nobody signs in as %q.", r.PilotLogin)
	}
	for _, p := range r.Packs {
		id, ok := s.packs[strings.ToLower(p)]
		if !ok {
			return nil, fmt.Sprintf("no pack is labelled %q.", p)
		}
		f.packs = append(f.packs, id)
	}
	if r.LandedAt.After(s.now) {
		return nil, "the flight lies in the future."
	}
	spans := s.taken[f.aircraft]
	// the first that begins when this one has ended
	at, _ := slices.BinarySearchFunc(spans, r.LandedAt, func(x span, t time.Time) int { return x.from.Compare(t) })
	if s.clash[i] || at > 0 && spans[at-1].to.After(r.TookOffAt) {
		return nil, "the aircraft was on another flight at that time."
	}
	s.taken[f.aircraft] = slices.Insert(spans, at, span{r.TookOffAt, r.LandedAt})
	s.onLog[r.ID] = r
	return f, ""
}

// importDeadline is the time one statement of an import may take.
const importDeadline = time.Minute

// blockSize bounds the rows of one statement.
const blockSize = 5_000

// store writes the flights, what they put on the things that flew, and last
// their records: whoever appends to the chain holds everybody else who signs.
func (s *Service) store(ctx context.Context, tx *gorm.DB, all []flight) error {
	now, by := s.Clock.Now(), people.From(ctx)
	entries := make([]records.Entry, 0, len(all))
	for block := range slices.Chunk(all, blockSize) {
		rows, uses := make([]map[string]any, len(block)), make([]fleet.Use, len(block))
		for i, f := range block {
			r := f.row
			rows[i] = map[string]any{"id": r.ID, "aircraft_id": f.aircraft, "pilot_id": f.pilot, "pack_ids": f.packs.Literal(),
				"purpose": r.Purpose, "took_off_at": r.TookOffAt, "landed_at": r.LandedAt,
				"seconds": r.Seconds, "landings": r.Landings, "remarks": r.Remarks}
			entries = append(entries, records.Entry{Kind: records.FlightLogged, Subject: f.aircraft, At: now, By: by.By(),
				Summary: fmt.Sprintf("Imported: %s, %d min", r.AircraftSerial,
					(r.Seconds+30)/60), Content: map[string]any{"flight": r.ID, "imported": r}})
			uses[i] = fleet.Use{Flight: r.ID, Aircraft: f.aircraft, Packs: f.packs, TookOff: r.TookOffAt, Landed: r.LandedAt,
				Seconds: r.Seconds, Landings: r.Landings}
		}
		set, err := db.Rows(rows)
		if err != nil {
			return err
		}
		if err := flights.TakeIn(tx, set, now); err != nil {
			return err
		}
		if err := fleet.ApplyUse(tx, uses...); err != nil {
			return err
		}
	}
	for block := range slices.Chunk(entries, blockSize) {
		if _, err := records.Append(ctx, tx, block...); err != nil {
			return err
		}
	}
	return nil
}

type known struct{ aircraft, pilots, packs map[string]uuid.UUID }

func lookups(tx *gorm.DB) (known, error) {
	k := known{map[string]uuid.UUID{}, map[string]uuid.UUID{}, map[string]uuid.UUID{}}
	for sql, into := range map[string]map[string]uuid.UUID{"select id, serial as name from aircraft": k.aircraft,
		"select id, login as name from people": k.pilots, "select id, label as name from packs": k.packs} {
		var rows []struct {
			ID   uuid.UUID
			Name string
		}
		if err := tx.Raw(sql).Scan(&rows).Error; err != nil {
			return k, err
		}
		for _, r := range rows {
			into[strings.ToLower(r.Name)] = r.ID
		}
	}
	return k, nil
}

func same(a, b logcsv.Row) bool {
	slices.Sort(a.Packs)
	b.Packs = slices.Sorted(slices.Values(b.Packs))
	return a.ID == b.ID && a.TookOffAt.Equal(b.TookOffAt) && a.LandedAt.Equal(b.LandedAt) &&
		strings.EqualFold(a.AircraftSerial, b.AircraftSerial) && strings.EqualFold(a.PilotLogin, b.PilotLogin) &&
		slices.Equal(a.Packs, b.Packs) && a.Seconds == b.Seconds && a.Landings == b.Landings && a.Purpose == b.Purpose &&
		a.Remarks == b.Remarks
}
