// Package clock is the one place outside the core that knows the time.
package clock

import (
	"sync"
	"time"
)

// Clock tells the time in UTC, to the microsecond that the database keeps.
type Clock interface{ Now() time.Time }

// System is the machine's clock, moved by Offset (zero for real time).
type System struct{ Offset time.Duration }

// Now returns the time.
func (s System) Now() time.Time { return time.Now().Add(s.Offset).UTC().Truncate(time.Microsecond) }

// From returns a running clock that starts at t.
func From(t time.Time) System { return System{Offset: time.Until(t)} }

// Manual is a clock that moves only when told, for generators and tests.
type Manual struct {
	mu sync.Mutex
	t  time.Time
}

// At returns a manual clock at t.
func At(t time.Time) *Manual { return &Manual{t: t.UTC().Truncate(time.Microsecond)} }

// Now returns the time it was set to.
func (m *Manual) Now() time.Time { m.mu.Lock(); defer m.mu.Unlock(); return m.t }

// Set moves the clock.
func (m *Manual) Set(t time.Time) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.t = t.UTC().Truncate(time.Microsecond)
}

// Advance moves the clock forward.
func (m *Manual) Advance(d time.Duration) { m.Set(m.Now().Add(d)) }
