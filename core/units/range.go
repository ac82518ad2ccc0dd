package units

import "mainstay/core/why"

// Refuser refuses input of a package: its errors wrap one that the package exports.
type Refuser struct{ Wraps error }

// Sayf is a refusal in words.
func (r Refuser) Sayf(format string, a ...any) error {
	return why.Not(r.Wraps, format, a...)
}

// Within refuses a number that is none, or out of its range; both ends belong to it.
func (r Refuser) Within(name string, v, lo, hi float64) error {
	if v >= lo && v <= hi {
		return nil
	}
	return r.Sayf("%s %g is not between %g and %g", name, v, lo, hi)
}
