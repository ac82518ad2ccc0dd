package db

import (
	"encoding/base64"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/internal/platform/fault"
)

// Cursor names the last row of a page by what the list is ordered by, and its id.
func Cursor(by string, id uuid.UUID) string {
	return base64.RawURLEncoding.EncodeToString([]byte(id.String() + by))
}

// TimeCursor is a cursor in a list that is ordered by time.
func TimeCursor(at time.Time, id uuid.UUID) string {
	return Cursor(at.UTC().Format(time.RFC3339Nano), id)
}

// ParseTimeCursor reads it again.
func ParseTimeCursor(s string) (at time.Time, id uuid.UUID, err error) {
	by, id, err := ParseCursor(s)
	if err != nil {
		return at, id, err
	}
	if at, err = time.Parse(time.RFC3339Nano, by); err != nil {
		return at, id, noPage()
	}
	return at, id, nil
}

// OpenCursor is a cursor in a list whose open ones come first, each part by time.
func OpenCursor(open bool, at time.Time, id uuid.UUID) string {
	first := "0"
	if open {
		first = "1"
	}
	return Cursor(first+at.UTC().Format(time.RFC3339Nano), id)
}

// ParseOpenCursor reads it again.
func ParseOpenCursor(s string) (open bool, at time.Time, id uuid.UUID, err error) {
	by, id, err := ParseCursor(s)
	if err != nil {
		return false, at, id, err
	}
	if by == "" || by[0] != '0' && by[0] != '1' {
		return false, at, id, noPage()
	}
	if at, err = time.Parse(time.RFC3339Nano, by[1:]); err != nil {
		return false, at, id, noPage()
	}
	return by[0] == '1', at, id, nil
}

// Page takes what was read beyond a page off the rows, and says where the next page begins;
// empty on the last. One row more than a page is read, so that it is known.
func Page[T any](rows []T, size int, cursor func(last T) string) (page []T, next string) {
	if len(rows) <= size {
		return rows, ""
	}
	return rows[:size], cursor(rows[size-1])
}

func noPage() error {
	return fault.Bad("cursor", "This page does not exist; start again from the top.")
}

// ParseCursor reads it again.
func ParseCursor(s string) (by string, id uuid.UUID, err error) {
	b, derr := base64.RawURLEncoding.DecodeString(s)
	if derr != nil || len(b) < 36 || strings.ContainsRune(string(b), 0) {
		return "", uuid.Nil, noPage()
	}
	if id, derr = uuid.Parse(string(b[:36])); derr != nil {
		return "", uuid.Nil, noPage()
	}
	return strings.ToValidUTF8(string(b[36:]), ""), id, nil
}

// Like is the pattern of (i)like for texts that hold the words as they stand.
func Like(words string) string {
	return "%" + strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(words) + "%"
}
