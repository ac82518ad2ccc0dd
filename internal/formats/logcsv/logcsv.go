// Package logcsv reads and writes the flight log as CSV (RFC 4180, UTF-8, one
// header line). Times are RFC 3339 in UTC, durations whole seconds. A text that
// a spreadsheet would take for a formula is written with a leading apostrophe,
// which reading takes off again.
package logcsv

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/google/uuid"
)

// Columns are the columns in the order they are written. Reading takes them
// in any order.
var Columns = []string{"id", "took_off_at", "landed_at", "aircraft_serial", "pilot_login", "packs", "seconds", "landings", "purpose", "remarks"}

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
type RowError struct {
	Line   int // 1-based
	Column string
	Err    error
}

func (e *RowError) Error() string { return fmt.Sprintf("line %d, %s: %v", e.Line, e.Column, e.Err) }
func (e *RowError) Unwrap() error { return e.Err }

// ErrHeader is returned when the first line does not name the columns.
var ErrHeader = errors.New("the first line must name the columns " + strings.Join(Columns, ", "))

const formula = "=+-@\t\r'"

func guard(s string) string {
	if s != "" && strings.ContainsRune(formula, rune(s[0])) {
		return "'" + s
	}
	return s
}

func unguard(s string) string {
	if len(s) > 1 && s[0] == '\'' && strings.ContainsRune(formula, rune(s[1])) {
		return s[1:]
	}
	return s
}

// Write writes rows with the header.
func Write(w io.Writer, rows []Row) error {
	c := csv.NewWriter(w)
	if err := c.Write(Columns); err != nil {
		return err
	}
	for _, r := range rows {
		packs := make([]string, len(r.Packs))
		for i, p := range r.Packs {
			packs[i] = strings.NewReplacer(`\`, `\\`, ";", `\;`).Replace(p)
		}
		if err := c.Write([]string{r.ID.String(), stamp(r.TookOffAt), stamp(r.LandedAt), guard(r.AircraftSerial), guard(r.PilotLogin), guard(strings.Join(packs, ";")),
			strconv.Itoa(r.Seconds), strconv.Itoa(r.Landings), guard(r.Purpose), guard(r.Remarks)}); err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}

func stamp(t time.Time) string { return t.UTC().Format(time.RFC3339Nano) }

// Read reads rows; rows that cannot be used are returned as errors with their
// line and column, the others still count. err is about the file as a whole.
func Read(r io.Reader) (rows []Row, bad []*RowError, err error) {
	c := csv.NewReader(r)
	c.FieldsPerRecord = -1
	head, err := c.Read()
	if err != nil {
		return nil, nil, ErrHeader
	}
	head[0] = strings.TrimPrefix(head[0], "\ufeff")
	at := map[string]int{}
	for i, h := range head {
		at[strings.TrimSpace(strings.ToLower(h))] = i
	}
	for _, name := range Columns {
		if _, ok := at[name]; !ok {
			return nil, nil, fmt.Errorf("%w; %q is missing", ErrHeader, name)
		}
	}
	for {
		rec, err := c.Read()
		if errors.Is(err, io.EOF) {
			return rows, bad, nil
		}
		var perr *csv.ParseError
		if errors.As(err, &perr) {
			bad = append(bad, &RowError{perr.Line, "line", perr.Err})
			continue
		}
		if err != nil {
			return rows, bad, err
		}
		line, _ := c.FieldPos(0)
		if len(rec) != len(head) {
			bad = append(bad, &RowError{line, "line", fmt.Errorf("has %d fields instead of %d", len(rec), len(head))})
			continue
		}
		if slices.ContainsFunc(rec, func(f string) bool { return !utf8.ValidString(f) || strings.ContainsRune(f, 0) }) {
			bad = append(bad, &RowError{line, "line", errors.New("holds characters that are not text")})
			continue
		}
		row, rerr := parse(func(name string) string { return rec[at[name]] })
		if rerr != nil {
			rerr.Line = line
			bad = append(bad, rerr)
			continue
		}
		row.Line = line
		rows = append(rows, row)
	}
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
	r.AircraftSerial, r.PilotLogin = unguard(get("aircraft_serial")), unguard(get("pilot_login"))
	r.Purpose, r.Remarks = unguard(get("purpose")), unguard(get("remarks"))
	r.Packs = splitPacks(unguard(get("packs")))
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
