// Package fault holds the errors that reach people: each is a sentence that
// says what happened and what to do, with the fields at fault.
package fault

import (
	"errors"
	"fmt"
)

// Kind says what sort of error it is; the server maps it to a status.
type Kind int

// The kinds.
const (
	Invalid      Kind = iota // what was entered cannot be used
	Unauthorized             // not signed in, or wrong password or PIN
	Forbidden                // the role does not allow it
	NotFound
	Conflict // somebody else was first, or the state does not allow it
	TooMany  // slow down
	TooLarge
	Busy // the server or the database cannot do it just now
)

// AllKinds lists the kinds.
var AllKinds = []Kind{Invalid, Unauthorized, Forbidden, NotFound, Conflict, TooMany, TooLarge, Busy}

// Field is one field at fault and the sentence shown beside it.
type Field struct {
	Field    string `json:"field"`
	Sentence string `json:"sentence"`
}

// Error is an error for people. Type is stable and meant for programs.
type Error struct {
	Kind   Kind
	Type   string
	Detail string
	Fields []Field
}

func (e *Error) Error() string { return e.Type + ": " + e.Detail }

// As returns the fault in an error chain.
func As(err error) (*Error, bool) {
	var f *Error
	ok := errors.As(err, &f)
	return f, ok
}

// Is reports whether err is a fault of the given type.
func Is(err error, typ string) bool {
	f, ok := As(err)
	return ok && f.Type == typ
}

// Bad says that a field cannot be used.
func Bad(field, format string, a ...any) error {
	s := fmt.Sprintf(format, a...)
	return &Error{Invalid, "invalid", s, []Field{{field, s}}}
}

// BadFields says that several fields cannot be used.
func BadFields(fields []Field) error {
	if len(fields) == 0 {
		return nil
	}
	detail := fields[0].Sentence
	if len(fields) > 1 {
		detail = fmt.Sprintf("%d fields need attention. Nothing was saved; what you entered is still here.", len(fields))
	}
	return &Error{Invalid, "invalid", detail, fields}
}

// Missing says that a thing does not exist.
func Missing(what string) error {
	return &Error{NotFound, "not-found", "This " + what + " does not exist, or no longer does.", nil}
}

// Clash says that the state of things does not allow it.
func Clash(typ, format string, a ...any) error {
	return &Error{Conflict, typ, fmt.Sprintf(format, a...), nil}
}

// Stale says that somebody changed the thing meanwhile.
func Stale(what string) error {
	return Clash("stale",
		"This %s was changed by somebody else since you opened it. Your entry was not saved; load it again and repeat the change.",
		what)
}

// Denied says that the role does not allow it.
func Denied(format string, a ...any) error {
	return &Error{Forbidden, "forbidden", fmt.Sprintf(format, a...), nil}
}
