// Package table reads and writes comma-separated text (RFC 4180) for the
// formats that are tables. Reading is bounded in every direction: bytes, length
// of a line, columns, rows, and lines that cannot be used. Writing keeps a cell
// from being taken for a formula.
package table

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"
)

// Limits of what is read.
const (
	MaxBytes   = 16 << 20
	MaxLine    = 64 << 10 // bytes of one line
	MaxColumns = 100
	MaxRows    = 100_000
	MaxBad     = 500 // lines that cannot be used, after which the file is refused as a whole
)

// ErrTable is the kind of all that makes a file as a whole unusable.
var ErrTable = errors.New("table not usable")

// unusable is such an error; its text goes on from "the file cannot be read: ".
type unusable struct{ why string }

func (e unusable) Error() string        { return e.why }
func (e unusable) Is(target error) bool { return target == ErrTable }

func unfit(format string, a ...any) error { return unusable{fmt.Sprintf(format, a...)} }

// RowError says what is wrong with one line.
type RowError struct {
	Line   int // 1-based
	Column string
	Err    error
}

func (e *RowError) Error() string { return fmt.Sprintf("line %d, %s: %v", e.Line, e.Column, e.Err) }

// Unwrap is the reason.
func (e *RowError) Unwrap() error { return e.Err }

// Reader reads a table with one header line.
type Reader struct {
	csv  *csv.Reader
	in   *bounded
	head []string
	at   map[string]int
	rows int
	bad  []*RowError
}

// NewReader reads the header of a table: the names of its columns, in any case,
// each once.
func NewReader(r io.Reader) (*Reader, error) {
	t := &Reader{in: &bounded{r: r}, at: map[string]int{}}
	t.csv = csv.NewReader(t.in)
	t.csv.FieldsPerRecord = -1
	t.csv.ReuseRecord = true
	head, err := t.csv.Read()
	if t.in.why != "" {
		return nil, unfit("%s", t.in.why)
	}
	if err != nil {
		return nil, unfit("it is empty or not comma-separated text")
	}
	if len(head) > MaxColumns {
		return nil, unfit("it has more than %d columns", MaxColumns)
	}
	for i, h := range head {
		name := strings.ToLower(strings.TrimSpace(strings.TrimPrefix(h, "\ufeff")))
		t.head = append(t.head, name)
		if _, twice := t.at[name]; !twice {
			t.at[name] = i
		}
	}
	return t, nil
}

// Columns are the names in the header, in small letters.
func (t *Reader) Columns() []string { return t.head }

// Has reports whether there is such a column.
func (t *Reader) Has(column string) bool { _, ok := t.at[column]; return ok }

// Each gives every row to take, with its line; what take returns is kept as what
// is wrong with the line. An error means that nothing of the file counts.
func (t *Reader) Each(take func(line int, get func(column string) string) *RowError) error {
	for {
		rec, err := t.csv.Read()
		if t.in.why != "" {
			return unfit("%s", t.in.why)
		}
		if errors.Is(err, io.EOF) {
			return nil
		}
		var perr *csv.ParseError
		switch {
		case errors.As(err, &perr):
			if err := t.refuse(&RowError{perr.Line, "line", perr.Err}); err != nil {
				return err
			}
			continue
		case err != nil:
			return err
		}
		line, _ := t.csv.FieldPos(0)
		if t.rows++; t.rows > MaxRows {
			return unfit("it has more than %d lines; split it", MaxRows)
		}
		bad := t.fits(rec, line)
		if bad == nil {
			if bad = take(line, func(column string) string {
				if i, ok := t.at[column]; ok {
					return unguard(strings.Clone(rec[i])) // the record is used again
				}
				return ""
			}); bad != nil {
				bad.Line = line
			}
		}
		if err := t.refuse(bad); err != nil {
			return err
		}
	}
}

func (t *Reader) fits(rec []string, line int) *RowError {
	if len(rec) != len(t.head) {
		return &RowError{line, "line", fmt.Errorf("has %d fields instead of %d", len(rec), len(t.head))}
	}
	for _, f := range rec {
		if !utf8.ValidString(f) || strings.ContainsRune(f, 0) {
			return &RowError{line, "line", errors.New("holds characters that are not text")}
		}
	}
	return nil
}

func (t *Reader) refuse(bad *RowError) error {
	if bad == nil {
		return nil
	}
	if len(t.bad) >= MaxBad {
		return unfit("more than %d of its lines cannot be used, the first of them line %d (%s %v); is it the right file?",
			MaxBad, t.bad[0].Line, t.bad[0].Column, t.bad[0].Err)
	}
	t.bad = append(t.bad, bad)
	return nil
}

// Bad are the lines that cannot be used, in their order.
func (t *Reader) Bad() []*RowError { return t.bad }

// bounded ends a file that is too long, or a line that is.
type bounded struct {
	r         io.Reader
	all, line int
	why       string
}

func (b *bounded) Read(p []byte) (int, error) {
	if b.why != "" {
		return 0, io.EOF
	}
	n, err := b.r.Read(p)
	for _, c := range p[:n] {
		if b.line++; c == '\n' {
			b.line = 0
		}
		if b.line > MaxLine {
			b.why = fmt.Sprintf("a line of it is longer than %d kB", MaxLine>>10)
			return 0, io.EOF
		}
	}
	if b.all += n; b.all > MaxBytes {
		b.why = fmt.Sprintf("it is larger than %d MB", MaxBytes>>20)
		return 0, io.EOF
	}
	return n, err
}

// formula are the signs with which a spreadsheet begins a formula, and the sign
// that guards against it.
const formula = "=+-@\t\r'"

// guard puts an apostrophe before what a spreadsheet would compute; a plain
// number stays one.
func guard(s string) string {
	if s == "" || !strings.ContainsRune(formula, rune(s[0])) {
		return s
	}
	if _, err := strconv.ParseFloat(s, 64); err == nil && strings.Trim(s, "-+.0123456789") == "" {
		return s
	}
	return "'" + s
}

func unguard(s string) string {
	if len(s) > 1 && s[0] == '\'' && strings.ContainsRune(formula, rune(s[1])) {
		return s[1:]
	}
	return s
}

// Writer writes a table.
type Writer struct{ csv *csv.Writer }

// NewWriter begins a table with its header.
func NewWriter(w io.Writer, columns []string) *Writer {
	t := &Writer{csv.NewWriter(w)}
	t.Row(columns...)
	return t
}

// Row writes one row; an error comes back from Flush.
func (t *Writer) Row(cells ...string) {
	out := make([]string, len(cells))
	for i, c := range cells {
		out[i] = guard(c)
	}
	_ = t.csv.Write(out)
}

// Flush ends the table.
func (t *Writer) Flush() error {
	t.csv.Flush()
	return t.csv.Error()
}
