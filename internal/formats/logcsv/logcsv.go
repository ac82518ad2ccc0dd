// Package logcsv reads and writes the flight log as CSV (RFC 4180, UTF-8, one
// header line). Times are RFC 3339 in UTC, durations whole seconds. A text that
// a spreadsheet would take for a formula is written with a leading apostrophe,
// which reading takes off again.
package logcsv

import (
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/internal/formats/table"
)

// Columns are the columns in the order they are written. Reading takes them
// in any order.
var Columns = []string{"id", "took_off_at", "landed_at", "aircraft_serial", "pilot_login", "packs", "seconds",
	"landings", "purpose", "remarks"}

// Row is one flight.
type Row struct {
	Line           int // 1-based line of the file, 0 when writing
	ID             uuid.UUID
	TookOffAt      time.Time
	LandedAt       time.Time
	AircraftSerial string
	PilotLogin     string
	Packs          []string // labels
	Seconds        int
	Landings       int
	Purpose        string
	Remarks        string
}

// RowError says what is wrong with one line.
type RowError = table.RowError

// ErrHeader is returned when the first line does not name the columns.
var ErrHeader = errors.New("the first line must name the columns " + strings.Join(Columns, ", "))

// Write writes rows with the header.
func Write(w io.Writer, rows []Row) error {
	t := table.NewWriter(w, Columns)
	for _, r := range rows {
		packs := make([]string, len(r.Packs))
		for i, p := range r.Packs {
			packs[i] = strings.NewReplacer(`\`, `\\`, ";", `\;`).Replace(p)
		}
		t.Row(r.ID.String(), stamp(r.TookOffAt), stamp(r.LandedAt), r.AircraftSerial, r.PilotLogin, strings.Join(packs, ";"),
			strconv.Itoa(r.Seconds), strconv.Itoa(r.Landings), r.Purpose, r.Remarks)
	}
	return t.Flush()
}

func stamp(t time.Time) string { return t.UTC().Format(time.RFC3339Nano) }

// Read reads rows; rows that cannot be used are returned as errors with their
// line and column, the others still count. err is about the file as a whole.
func Read(r io.Reader) (rows []Row, bad []*RowError, err error) {
	t, err := table.NewReader(r)
	if err != nil {
		return nil, nil, fmt.Errorf("%w; %w", err, ErrHeader)
	}
	for _, name := range Columns {
		if !t.Has(name) {
			return nil, nil, fmt.Errorf("%w; %q is missing", ErrHeader, name)
		}
	}
	err = t.Each(func(line int, get func(string) string) *RowError {
		row, rerr := parse(get)
		if rerr != nil {
			return rerr
		}
		row.Line = line
		rows = append(rows, row)
		return nil
	})
	if err != nil {
		return nil, nil, err
	}
	return rows, t.Bad(), nil
}

func parse(get func(string) string) (Row, *RowError) {
	var r Row
	fail := func(col, format string, a ...any) (Row, *RowError) {
		return Row{}, &RowError{Column: col, Err: fmt.Errorf(format, a...)}
	}
	var err error
	if r.ID, err = uuid.Parse(get("id")); err != nil || r.ID == uuid.Nil {
		return fail("id", "is not an id")
	}
	for col, into := range map[string]*time.Time{"took_off_at": &r.TookOffAt, "landed_at": &r.LandedAt} {
		t, err := time.Parse(time.RFC3339Nano, strings.TrimSpace(get(col)))
		if err != nil || t.Year() < 1990 || t.Year() > 2200 {
			return fail(col, "is not a time like 2026-03-01T14:05:00Z")
		}
		*into = t.UTC()
	}
	for col, into := range map[string]*int{"seconds": &r.Seconds, "landings": &r.Landings} {
		if *into, err = strconv.Atoi(strings.TrimSpace(get(col))); err != nil {
			return fail(col, "is not a whole number")
		}
	}
	r.AircraftSerial, r.PilotLogin = get("aircraft_serial"), get("pilot_login")
	r.Purpose, r.Remarks = get("purpose"), get("remarks")
	r.Packs = splitPacks(get("packs"))
	switch {
	case r.LandedAt.Before(r.TookOffAt):
		return fail("landed_at", "is before take-off")
	case r.Seconds < 0 || r.Seconds > 86400:
		return fail("seconds", "must be between 0 and 86400")
	case abs(r.LandedAt.Sub(r.TookOffAt)-time.Duration(r.Seconds)*time.Second) > 90*time.Second:
		return fail("seconds", "do not agree with take-off and landing")
	case r.Landings < 1 || r.Landings > 50:
		return fail("landings", "must be between 1 and 50")
	case r.AircraftSerial == "":
		return fail("aircraft_serial", "is empty")
	case r.PilotLogin == "":
		return fail("pilot_login", "is empty")
	case len(r.Purpose) > 500 || len(r.Remarks) > 4000:
		return fail("remarks", "is too long")
	}
	return r, nil
}

func abs(d time.Duration) time.Duration { return max(d, -d) }

func splitPacks(s string) []string {
	out, cur, esc := []string{}, strings.Builder{}, false
	for _, c := range s {
		switch {
		case esc:
			cur.WriteRune(c)
			esc = false
		case c == '\\':
			esc = true
		case c == ';':
			out = append(out, cur.String())
			cur.Reset()
		default:
			cur.WriteRune(c)
		}
	}
	out = append(out, cur.String())
	return slices.DeleteFunc(out, func(p string) bool { return p == "" })
}
