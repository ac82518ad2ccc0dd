package checks_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
)

// A timer runs longer when its condition holds, or when nobody knows.
func TestATimerRunsLonger(t *testing.T) {
	five, six := 5.0, 6.0
	it := checks.Item{ID: "hold", Station: "frame", Title: "Hold", Kind: checks.Timer, Defect: judge.Stop, LeastS: 60,
		Longer: &checks.Longer{When: checks.When{Fact: "wind", Over: &five}, LeastS: 120}}
	l := checks.List{Type: "lantern-4", Version: 1, Sections: []checks.Section{{Title: "S", Items: []checks.Item{it}}}}
	ty, _ := load(t, "lantern-4")
	require.NoError(t, l.Validate(ty))
	for name, x := range map[string]struct {
		facts checks.Facts
		want  float64
		says  string
	}{"calm": {checks.Facts{"wind": {Number: &five}}, 60, ""}, "wind": {checks.Facts{"wind": {Number: &six}}, 120,
		"120 s today: the wind, with gusts, of the last hour is 6 m/s, over 5."},
		"not known": {nil, 120, "120 s today: the wind, with gusts, of the last hour is not known."}} {
		got, _ := checks.Expand(l, ty, checks.Ask{Round: checks.Full, Facts: x.facts})
		assert.Equal(t, x.want, got[0].LeastS, name)
		assert.Equal(t, x.says, got[0].How, name)
	}
	for name, bad := range map[string]checks.Longer{"shorter": {When: checks.When{Fact: "wind", Over: &five}, LeastS: 59},
		"endless":      {When: checks.When{Fact: "wind", Over: &five}, LeastS: 3601},
		"unknown fact": {When: checks.When{Fact: "mood", Over: &five}, LeastS: 90}} {
		it.Longer = &bad
		assert.Error(t, checks.List{Type: "lantern-4", Version: 1,
			Sections: []checks.Section{{Title: "S", Items: []checks.Item{it}}}}.Validate(ty), name)
	}
}

// A coaxial type has two motors on each arm: both are looked at, and each layer has its own
// sisters.
func TestCoaxialMotors(t *testing.T) {
	ty, l := load(t, "lantern-4")
	ty.Power = &airframe.Power{Coaxial: true}
	ty = ty.Prepared()
	require.Equal(t, 8, ty.SisterMotors())
	require.NoError(t, l.Validate(ty))
	seen := map[string]bool{}
	items, _ := checks.Expand(l, ty, checks.Ask{Round: checks.Full})
	for _, it := range items {
		for _, s := range it.Stations() {
			seen[s] = true
		}
	}
	for _, s := range ty.Stations() {
		if s.Kind == "motor" || s.Kind == "propeller" {
			assert.True(t, seen[s.ID], "%s is not looked at", s.ID)
		}
	}
	hot := checks.WarmthItem(ty)
	j, err := checks.Judge(hot, checks.Value{Set: []float64{40, 40, 40, 40, 70, 70, 70, 70}}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, j.Verdict, "the lower ones are warmer, and alike")
	j, err = checks.Judge(hot, checks.Value{Set: []float64{40, 40, 40, 40, 70, 70, 99, 70}}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, j.Verdict)
	out := checks.HoverItem(ty)
	j, err = checks.Judge(out, checks.Value{Set: []float64{40, 41, 40, 40, 60, 61, 60, 60}}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, j.Verdict)
	j, err = checks.Judge(out, checks.Value{Set: []float64{40, 41, 40, 40, 60, 61, 75, 60}}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, j.Verdict)
	parents := map[string]string{}
	ty.Equipment = append(ty.Equipment, airframe.Equipment{Kind: "arm", At: "arm"})
	for _, p := range ty.Prepared().Positions() {
		parents[p.ID] = p.Parent
	}
	assert.Equal(t, "arm-2", parents["motor-6"], "the lower motor of the second arm sits on it")
	assert.Equal(t, "motor-6", parents["propeller-6"])
}

// A section for each surface visits every one, those of a V-tail too.
func TestEachSurface(t *testing.T) {
	ty, _ := load(t, "tally-w")
	ty.Geometry.Tail = airframe.VTail
	ty = ty.Prepared()
	require.NoError(t, ty.Validate())
	l := checks.List{Type: "tally-w", Version: 1, Sections: []checks.Section{{Title: "Surfaces", Each: "surface",
		Items: []checks.Item{{ID: "move-{s}", Station: "{s}", Title: "{surface}: free, right way", Kind: checks.Look,
			Defect: judge.Stop}}}}}
	require.NoError(t, l.Validate(ty))
	items, _ := checks.Expand(l, ty, checks.Ask{Round: checks.Full})
	var titles []string
	for _, it := range items {
		if it.ID != checks.KeptID {
			titles = append(titles, it.Title)
		}
	}
	assert.Equal(t, []string{"Right aileron: free, right way", "Right tail surface: free, right way",
		"Left tail surface: free, right way", "Left aileron: free, right way"}, titles)
	ty.Geometry.Tail = "y"
	assert.ErrorContains(t, ty.Validate(), "geometry.tail: It must be v")
}

// What bad looks like is shown where a drawing belongs to a place of the item, never what is whole.
func TestPicturesOfWhatIsBad(t *testing.T) {
	ty, l := load(t, "lantern-4")
	items := expand(l, ty, checks.Full, nil)
	n := 0
	for _, it := range items {
		for _, p := range it.Pictures {
			n++
			assert.True(t, p.Damage, it.ID)
			assert.True(t, slices.ContainsFunc(it.Stations(), func(s string) bool { return strings.HasPrefix(s, p.Of) }),
				"%s shows %s", it.ID, p.Key)
		}
	}
	assert.Greater(t, n, 20)
}
