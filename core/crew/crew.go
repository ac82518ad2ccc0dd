// Package crew judges what a person may do: roles, and the recency of a remote
// pilot. Dates are civil dates; only year, month and day count.
package crew

import (
	"slices"
	"time"
)

// Role is what a person does in the crew.
type Role string

// The roles.
const (
	Pilot      Role = "pilot"      // remote pilot in command
	Hand       Role = "crew"       // runs checks together with a pilot
	Technician Role = "technician" // maintenance, return to service
	Chief      Role = "chief"      // everything
	Reader     Role = "reader"     // looks and exports
)

// AllRoles lists the roles.
var AllRoles = []Role{Pilot, Hand, Technician, Chief, Reader}

// Has reports whether the roles held include one of the wanted. A chief may do
// all that the crew's rules allow; acting as pilot still needs a certificate.
func Has(held []Role, wanted ...Role) bool {
	for _, r := range held {
		if r == Chief || slices.Contains(wanted, r) {
			return true
		}
	}
	return false
}

// RecencyMonths is how long recurrent training lasts, in calendar months.
const RecencyMonths = 24

// CurrentThrough returns the last day on which a pilot trained on that day is
// current: the end of the 24th calendar month after it.
func CurrentThrough(trained time.Time) time.Time {
	y, m, _ := trained.Date()
	return time.Date(y, m+RecencyMonths+1, 0, 0, 0, 0, 0, time.UTC)
}

// Current reports whether a pilot trained on that day is current on day, both
// civil dates in the crew's zone.
func Current(trained, day time.Time) bool {
	y, m, d := day.Date()
	return !time.Date(y, m, d, 0, 0, 0, 0, time.UTC).After(CurrentThrough(trained))
}
