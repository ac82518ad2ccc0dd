// Package why carries the reason of a refusal, in words for people, beside its kind, for
// the program.
package why

import (
	"errors"
	"fmt"
)

// Error is a refusal: of a kind that callers tell apart, for a reason that people read.
type Error struct {
	Kind   error
	Reason string
	inner  error
}

// Error is the kind and the reason, for logs.
func (e *Error) Error() string { return e.Kind.Error() + ": " + e.Reason }

// Unwrap gives the kind, and what else the reason rests on.
func (e *Error) Unwrap() []error { return []error{e.Kind, e.inner} }

// Not refuses: a kind, and the reason as fmt.Errorf takes it. A refusal among the values
// stands there with its reason alone.
func Not(kind error, format string, values ...any) error {
	for i, v := range values {
		if err, ok := v.(error); ok {
			var e *Error
			if errors.As(err, &e) {
				values[i] = said{err, e.Reason}
			}
		}
	}
	inner := fmt.Errorf(format, values...)
	return &Error{Kind: kind, Reason: inner.Error(), inner: inner}
}

// said is a refusal as it stands in the reason of another.
type said struct {
	error
	reason string
}

func (s said) Error() string { return s.reason }
func (s said) Unwrap() error { return s.error }

// Of is the reason of a refusal, and whether an error is one.
func Of(err error) (string, bool) {
	var e *Error
	if !errors.As(err, &e) {
		return "", false
	}
	return e.Reason, true
}

// Words are the reason of a refusal, or else the whole of an error.
func Words(err error) string {
	if r, ok := Of(err); ok {
		return r
	}
	return err.Error()
}
