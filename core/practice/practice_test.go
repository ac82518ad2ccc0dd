package practice_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/practice"
)

// Every question can be shown and kept: a default among its schools, a reason,
// numbers whose usual value is allowed, and no two of one name.
func TestEveryQuestionCanBeKept(t *testing.T) {
	require.Len(t, practice.Questions, 18)
	seen := map[practice.ID]bool{}
	for _, q := range practice.Questions {
		assert.False(t, seen[q.ID], q.ID)
		seen[q.ID] = true
		assert.NotEmpty(t, q.Asks, q.ID)
		assert.NotEmpty(t, q.Why, q.ID)
		assert.NotEmpty(t, q.Where, q.ID)
		assert.GreaterOrEqual(t, len(q.Schools), 2, q.ID)
		assert.NoError(t, q.Check(practice.Choice{School: q.Default}), q.ID)
		for _, s := range q.Schools {
			c := practice.Choice{School: s.ID, Numbers: map[string]float64{}}
			require.NoError(t, q.Check(c), "%s %s", q.ID, s.ID)
			for _, n := range s.Numbers {
				for _, v := range []float64{n.Min, n.Usual, n.Max} {
					c.Numbers[n.Key] = v
					if q.ID != practice.SprayWind { // its numbers hold each other
						assert.NoError(t, q.Check(c), "%s %s %s %g", q.ID, s.ID, n.Key, v)
					}
				}
				for _, v := range []float64{math.Nextafter(n.Min, -math.MaxFloat64), math.Nextafter(n.Max, math.MaxFloat64),
					math.NaN(), math.Inf(1), math.Inf(-1)} {
					c.Numbers[n.Key] = v
					assert.ErrorIs(t, q.Check(c), practice.ErrPractice, "%s %s %s %g", q.ID, s.ID, n.Key, v)
				}
				delete(c.Numbers, n.Key)
			}
			c.Numbers["no such number"] = 1
			assert.ErrorIs(t, q.Check(c), practice.ErrPractice)
		}
		assert.ErrorIs(t, q.Check(practice.Choice{School: "moon"}), practice.ErrPractice)
	}
	_, err := practice.Find("moon")
	assert.ErrorIs(t, err, practice.ErrPractice)
	assert.ErrorIs(t, practice.Settings{"moon": {School: "x"}}.Validate(), practice.ErrPractice)
	assert.ErrorIs(t, practice.Settings{practice.Compass: {School: "x"}}.Validate(), practice.ErrPractice)
	assert.NoError(t, practice.Settings{practice.Compass: {School: "none"}}.Validate())
	window := practice.Choice{School: "window", Numbers: map[string]float64{"low": 3, "high": 3}}
	spray, _ := practice.Find(practice.SprayWind)
	assert.ErrorIs(t, spray.Check(window), practice.ErrPractice)
}

// What is kept by default, and under each other school.
func TestWhatIsKept(t *testing.T) {
	var d practice.Settings
	keep := func(id practice.ID, school string, numbers map[string]float64) practice.Settings {
		return practice.Settings{id: {School: school, Numbers: numbers}}
	}
	pair := func(a, b float64) []float64 { return []float64{a, b} }

	assert.Equal(t, 10.0, d.MinSatellites())
	assert.Equal(t, 8.0, keep(practice.Satellites, "eight", nil).MinSatellites())
	life := func(s practice.Settings) []float64 { h, m := s.PropellerLife(); return pair(h, float64(m)) }
	assert.Equal(t, pair(24, 6), life(d))
	assert.Equal(t, pair(24, 0), life(keep(practice.Propellers, "hours", nil)))
	assert.Equal(t, pair(0, 6), life(keep(practice.Propellers, "months", nil)))
	assert.Equal(t, pair(0, 0), life(keep(practice.Propellers, "condition", nil)))
	assert.Equal(t, pair(50, 12), life(keep(practice.Propellers, "first", map[string]float64{"hours": 50, "months": 12})))
	assert.Equal(t, []bool{true, true}, []bool{d.InspectsBefore(), d.InspectsAfter()})
	before, after := keep(practice.FullInspection, "before", nil), keep(practice.FullInspection, "after", nil)
	assert.Equal(t, []bool{true, false, false, true}, []bool{before.InspectsBefore(), before.InspectsAfter(),
		after.InspectsBefore(), after.InspectsAfter()})
	assert.Equal(t, "controller-first", d.Power())
	assert.Equal(t, "aircraft-first", keep(practice.PowerOrder, "aircraft-first", nil).Power())
	assert.Equal(t, 95.0, d.LaunchPercent())
	assert.Equal(t, 90.0, keep(practice.LaunchCharge, "least", map[string]float64{"percent": 90}).LaunchPercent())
	assert.Equal(t, 100.0, keep(practice.LaunchCharge, "full", nil).LaunchPercent())
	assert.Equal(t, practice.ByPercent, d.LandingCall(true))
	assert.Equal(t, practice.ByVolts, d.LandingCall(false))
	assert.Equal(t, practice.ByMinutes, keep(practice.LandBy, "minutes", nil).LandingCall(true))
	wind := func(s practice.Settings) []float64 { a, b := s.SprayWindow(); return pair(a, b) }
	assert.Equal(t, pair(1, 4.5), wind(d))
	assert.Equal(t, pair(0, 3), wind(keep(practice.SprayWind, "calm", nil)))
	assert.Equal(t, 10.0, d.StandOffM())
	assert.Equal(t, 9.0, keep(practice.SafeDistance, "cover", nil).StandOffM())
	assert.Equal(t, 30.0, keep(practice.SafeDistance, "far", nil).StandOffM())
	margin := func(s practice.Settings) []float64 { a, b := s.Margin(); return pair(a, b) }
	assert.Equal(t, pair(10, 20), margin(d))
	assert.Equal(t, pair(12, 0), margin(keep(practice.ReturnMargin, "fixed", map[string]float64{"m": 12})))
	assert.Equal(t, pair(5, 30), margin(keep(practice.ReturnMargin, "percent", map[string]float64{"percent": 30})))
	km, days, need := d.CompassNeed()
	assert.Equal(t, []any{50.0, 30.0, true, false}, []any{km, days, need, d.CompassDaily()})
	assert.True(t, keep(practice.Compass, "flying-day", nil).CompassDaily())
	other := func(s practice.Settings) []bool { a, b := s.OtherPropellersFly(); return []bool{a, b} }
	assert.Equal(t, []bool{true, false}, other(d))
	assert.Equal(t, []bool{true, true}, other(keep(practice.OtherPropellers, "approved", nil)))
	assert.Equal(t, []bool{false, false}, other(keep(practice.OtherPropellers, "never", nil)))
}

// Every school of what is set on the controller is said in words, and no two
// schools of one question the same way.
func TestToSetSaysEverySchool(t *testing.T) {
	for _, id := range []practice.ID{practice.Satellites, practice.Sensing, practice.TakeOffBy, practice.Corrections,
		practice.Antennas, practice.VerticalSensing} {
		q, err := practice.Find(id)
		require.NoError(t, err)
		said := map[string]bool{}
		for _, s := range q.Schools {
			words := practice.Settings{id: {School: s.ID}}.ToSet(true)
			assert.NotContains(t, words, "", "%s %s", id, s.ID)
			said[strings.Join(words, ";")] = true
		}
		assert.Len(t, said, len(q.Schools), id)
	}
	assert.Len(t, practice.Settings{}.ToSet(true), 6)
	assert.Len(t, practice.Settings{}.ToSet(false), 4, "a wing thrown by hand has no vertical sensing and no hover")
}

// What a maker demands wins; what nobody can read is the default.
func TestMakersWin(t *testing.T) {
	crew := practice.Settings{practice.LaunchCharge: {School: "full"}, practice.Satellites: {School: "eight"}}
	got := crew.Over(practice.Settings{practice.Satellites: {School: "ten"}})
	assert.Equal(t, 10.0, got.MinSatellites())
	assert.Equal(t, 100.0, got.LaunchPercent())
	assert.Equal(t, 8.0, crew.MinSatellites(), "the crew's own stay as they are")
	assert.Equal(t, 10.0, practice.Settings{practice.Satellites: {School: "moon"}}.MinSatellites())
	assert.Equal(t, 95.0, practice.Settings{practice.LaunchCharge: {School: "least",
		Numbers: map[string]float64{"percent": math.NaN()}}}.LaunchPercent())
}
