// Package year shows the last year of each aircraft, week by week: what it flew,
// what was done to it, and what kept it on the ground.
package year

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/internal/fleet"
	"mainstay/internal/logbook"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// Weeks is how many are shown: a year, and the week that is not over.
const Weeks = 53

// Service reads the year from those who keep its parts.
type Service struct {
	Clock    clock.Clock
	People   *people.Service
	Fleet    *fleet.Service
	Log      *logbook.Service
	Walks    *walkround.Service
	Workshop *workshop.Service
}

// Of is the year of one aircraft, one value for each week.
type Of struct {
	ID                           uuid.UUID
	Flights, Seconds, Work, Stop []int
	Down                         []bool // something stood open against it in that week
}

// Year is the last year of the fleet.
type Year struct {
	Mondays  []time.Time // days, in the zone of the crew
	Aircraft []Of        // those at which anything happened
}

// Last is the year until now.
func (s *Service) Last(ctx context.Context) (Year, error) {
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return Year{}, err
	}
	b := begin(s.Clock.Now(), c.Location())
	flown, err := s.Log.FlownSince(ctx, b.starts[0], c.Location())
	if err != nil {
		return Year{}, err
	}
	for _, f := range flown {
		if w := b.week(time.Date(f.From.Year(), f.From.Month(), f.From.Day(), 12, 0, 0, 0, c.Location())); w >= 0 {
			of := b.of(f.AircraftID)
			of.Flights[w], of.Seconds[w] = of.Flights[w]+f.Flights, of.Seconds[w]+f.Seconds
		}
	}
	signed, err := s.Workshop.SignedSince(ctx, b.starts[0])
	if err != nil {
		return Year{}, err
	}
	for _, x := range signed {
		if w := b.week(x.SignedAt); w >= 0 {
			b.of(x.AircraftID).Work[w]++
		}
	}
	for _, read := range []func(context.Context, time.Time) ([]fleet.Stopped, error){s.Fleet.Groundings, s.Walks.Stops} {
		stops, err := read(ctx, b.starts[0])
		if err != nil {
			return Year{}, err
		}
		for _, x := range stops {
			b.stopped(x)
		}
	}
	return b.year, nil
}

// book sorts what happened into weeks.
type book struct {
	starts []time.Time // when each week begins
	end    time.Time   // of the newest
	year   Year
	at     map[uuid.UUID]int
}

// begin opens the weeks of a year that end with the one of now.
func begin(now time.Time, zone *time.Location) *book {
	day := now.In(zone)
	monday := time.Date(day.Year(), day.Month(), day.Day()-(int(day.Weekday())+6)%7, 0, 0, 0, 0, zone)
	b := &book{end: monday.AddDate(0, 0, 7), at: map[uuid.UUID]int{}}
	for i := range Weeks {
		m := monday.AddDate(0, 0, 7*(i-Weeks+1))
		b.starts = append(b.starts, m)
		b.year.Mondays = append(b.year.Mondays, time.Date(m.Year(), m.Month(), m.Day(), 0, 0, 0, 0, time.UTC))
	}
	return b
}

// week is the number of the week that holds a time; -1: none does.
func (b *book) week(t time.Time) int {
	if t.Before(b.starts[0]) || !t.Before(b.end) {
		return -1
	}
	for i := len(b.starts) - 1; i > 0; i-- {
		if !t.Before(b.starts[i]) {
			return i
		}
	}
	return 0
}

func (b *book) of(id uuid.UUID) *Of {
	i, ok := b.at[id]
	if !ok {
		i = len(b.year.Aircraft)
		b.at[id] = i
		b.year.Aircraft = append(b.year.Aircraft, Of{ID: id, Flights: make([]int, Weeks), Seconds: make([]int, Weeks),
			Work: make([]int, Weeks), Stop: make([]int, Weeks), Down: make([]bool, Weeks)})
	}
	return &b.year.Aircraft[i]
}

// stopped marks every week in which something stood open, and that in which it began.
func (b *book) stopped(x fleet.Stopped) {
	of := b.of(x.AircraftID)
	if w := b.week(x.Since); w >= 0 {
		of.Stop[w]++
	}
	for i, start := range b.starts {
		end := b.end
		if i+1 < len(b.starts) {
			end = b.starts[i+1]
		}
		if x.Since.Before(end) && (x.Until == nil || !x.Until.Before(start)) {
			of.Down[i] = true
		}
	}
}
