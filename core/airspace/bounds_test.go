package airspace_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/judge"
)

// A flight of which nobody knows where it goes cannot be judged: each figure by
// itself.
func TestWhereTheFlightGoesMustBeKnown(t *testing.T) {
	says := func(change func(*airspace.Question)) judge.Verdict {
		q := question()
		change(&q)
		_, found := airspace.Judge(q, nil, nil, &noon)
		return judge.Worst(found)
	}
	assert.Equal(t, judge.Clear, says(func(*airspace.Question) {}))
	assert.Equal(t, judge.Clear, says(func(q *airspace.Question) { q.HeightM, q.ReachM = 0, 0 }), "on the ground")
	bad := math.NaN()
	for name, change := range map[string]func(*airspace.Question){
		"height":     func(q *airspace.Question) { q.HeightM = bad },
		"under it":   func(q *airspace.Question) { q.HeightM = -1 },
		"reach":      func(q *airspace.Question) { q.ReachM = bad },
		"less reach": func(q *airspace.Question) { q.ReachM = -1 },
		"place":      func(q *airspace.Question) { q.Places[1].X = bad },
		"home":       func(q *airspace.Question) { q.Homes = []geo.XY{{X: bad}} },
		"no place":   func(q *airspace.Question) { q.Places = nil },
	} {
		assert.Equal(t, judge.Stop, says(change), name)
	}
}

// When the airspace was looked up, at the edges.
func TestHowLongALookHolds(t *testing.T) {
	at := func(d time.Duration) judge.Verdict {
		looked := noon.Add(d)
		_, found := airspace.Judge(question(), nil, nil, &looked)
		return judge.Worst(found)
	}
	assert.Equal(t, judge.Clear, at(-24*time.Hour))
	assert.Equal(t, judge.Stop, at(-24*time.Hour-time.Second))
	assert.Equal(t, judge.Clear, at(5*time.Minute))
	assert.Equal(t, judge.Stop, at(5*time.Minute+time.Second))
}

// A zone is shown from 5 km on.
func TestHowNearAZoneIsShown(t *testing.T) {
	shown := func(from float64) int {
		z := airspace.Zone{ID: "z", Name: "Far", Class: airspace.D, Area: box(100+from, -50, 100)}
		got, _ := airspace.Judge(question(), []airspace.Zone{z}, nil, &noon)
		return len(got)
	}
	assert.Equal(t, 1, shown(4999))
	assert.Equal(t, 1, shown(5000))
	assert.Equal(t, 0, shown(5001))
}
