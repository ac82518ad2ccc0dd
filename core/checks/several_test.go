package checks_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/checks"
	"mainstay/core/judge"
)

func corner(t *rapid.T) checks.Item {
	it := checks.Item{ID: "corner", Title: "Corner", Kind: checks.Group,
		Defect: rapid.SampledFrom([]judge.Verdict{judge.Watch, judge.Stop}).Draw(t, "item")}
	for i := range rapid.IntRange(1, 6).Draw(t, "marks") {
		it.Marks = append(it.Marks, checks.Mark{ID: fmt.Sprint("m", i), Station: "frame", Title: fmt.Sprint("mark ", i),
			Defect: rapid.SampledFrom([]judge.Verdict{judge.Clear, judge.Watch, judge.Stop}).Draw(t, fmt.Sprint("of ", i))})
	}
	return it
}

// Marks that are not in order never make an answer milder, whichever and in whichever order;
// each is one finding at its own station.
func TestMarksOfAGroup(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		it := corner(t)
		fair, err := checks.Judge(it, checks.Value{Look: "ok"}, nil)
		require.NoError(t, err)
		assert.Equal(t, judge.Clear, fair.Verdict)
		var ids []string
		for _, m := range it.Marks {
			ids = append(ids, m.ID)
		}
		ids = rapid.Permutation(ids).Draw(t, "order")
		before := judge.Clear
		for n := 1; n <= len(ids); n++ {
			v := checks.Value{Look: "defect", Note: "cracked", Wrong: ids[:n]}
			j, err := checks.Judge(it, v, nil)
			require.NoError(t, err)
			assert.GreaterOrEqual(t, j.Verdict, max(before, judge.Watch))
			before = j.Verdict
			turned := slices.Clone(v.Wrong)
			slices.Reverse(turned)
			k, err := checks.Judge(it, checks.Value{Look: "defect", Note: "cracked", Wrong: turned}, nil)
			require.NoError(t, err)
			assert.Equal(t, j.Verdict, k.Verdict)
			spots := checks.Spots(it, v, j.Verdict)
			assert.Len(t, spots, n)
			worst := judge.Clear
			for _, s := range spots {
				worst = max(worst, s.Verdict)
			}
			assert.Equal(t, j.Verdict, worst)
		}
	})
}

// What contradicts itself, or says nothing, is refused in words, never judged.
func TestHalfAnswersAreRefused(t *testing.T) {
	it := func(kind checks.Kind) checks.Item {
		return checks.Item{ID: "x", Kind: kind, Defect: judge.Stop, LeastS: 60,
			Marks: []checks.Mark{{ID: "a", Station: "frame", Title: "A"}, {ID: "1", Station: "motor-1", Title: "Motor 1"}},
			Options: []checks.Option{{Key: "yes", Title: "Yes", Verdict: judge.Clear},
				{Key: "no", Title: "No", Verdict: judge.Stop, Do: "Land."}}}
	}
	short, long := 59.0, 61.0
	for name, c := range map[string]struct {
		kind checks.Kind
		v    checks.Value
		says string
	}{
		"nothing of a group":     {checks.Group, checks.Value{}, "all is in order"},
		"in order, but a mark":   {checks.Group, checks.Value{Look: "ok", Wrong: []string{"a"}}, "cannot all be in order"},
		"not in order, no mark":  {checks.Group, checks.Value{Look: "defect", Note: "x"}, "Mark what is not"},
		"a mark without words":   {checks.Group, checks.Value{Look: "defect", Wrong: []string{"a"}}, "in the note"},
		"a mark that is not":     {checks.Group, checks.Value{Look: "defect", Note: "x", Wrong: []string{"b"}}, "no \"b\""},
		"alike, but one":         {checks.Alike, checks.Value{Look: "ok", Wrong: []string{"1"}}, "cannot all be in order"},
		"not alike, none":        {checks.Alike, checks.Value{Look: "defect"}, "Mark what"},
		"a motor that is not":    {checks.Alike, checks.Value{Look: "defect", Wrong: []string{"5"}}, "no \"5\""},
		"nothing of motors":      {checks.Alike, checks.Value{}, "whether all is in order"},
		"no choice":              {checks.Choice, checks.Value{}, "Choose one"},
		"another choice":         {checks.Choice, checks.Value{Choice: "maybe"}, "Choose one"},
		"no time":                {checks.Timer, checks.Value{Look: "ok"}, "Start the time"},
		"too short":              {checks.Timer, checks.Value{Look: "ok", Seconds: &short}, "59 of 60 s"},
		"long, and nothing seen": {checks.Timer, checks.Value{Seconds: &long}, "ok or defect"},
		"no photo":               {checks.Photo, checks.Value{}, "at least one photo"},
	} {
		_, err := checks.Judge(it(c.kind), c.v, nil)
		require.ErrorIs(t, err, checks.ErrValue, name)
		assert.ErrorContains(t, err, c.says, name)
	}
	j, err := checks.Judge(it(checks.Timer), checks.Value{Look: "ok", Seconds: &long}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear, j.Verdict)
	j, err = checks.Judge(it(checks.Timer), checks.Value{Look: "defect", Note: "it shakes", Seconds: &short}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, j.Verdict, "what is seen counts however long it ran")
	j, err = checks.Judge(it(checks.Choice), checks.Value{Choice: "no"}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, j.Verdict)
	assert.Contains(t, j.Sentence, "Land.")
}

// By hand or by number: of motors that are not alike the worse counts.
func TestMotorsByHandAndByNumber(t *testing.T) {
	lo, hi := -30.0, 200.0
	it := checks.Item{ID: "warmth", Kind: checks.Alike, Quantity: "warmth", Unit: "degC", Step: 1, Min: &lo, Max: &hi,
		Defect: judge.Watch, Count: 4, Compare: &checks.Compare{How: "outlier", Watch: 10, Stop: 15}}
	for i := range 4 {
		n := fmt.Sprint(i + 1)
		it.Marks = append(it.Marks, checks.Mark{ID: n, Station: "motor-" + n, Title: "Motor " + n})
	}
	for name, c := range map[string]struct {
		v    checks.Value
		want judge.Verdict
		at   []string // stations of what was found
	}{
		"all alike":   {checks.Value{Look: "ok"}, judge.Clear, []string{""}},
		"one by hand": {checks.Value{Look: "defect", Wrong: []string{"3"}}, judge.Watch, []string{"motor-3"}},
		"one said twice": {checks.Value{Look: "defect", Wrong: []string{"3", "1", "3"}}, judge.Watch,
			[]string{"motor-1", "motor-3"}},
		"alike, but the number": {checks.Value{Look: "ok", Set: []float64{30, 30, 60, 30}}, judge.Stop,
			[]string{"motor-3"}},
		"by hand and by number": {checks.Value{Look: "defect", Wrong: []string{"2"}, Set: []float64{30, 30, 60, 30}},
			judge.Stop, []string{"motor-2", "motor-3"}},
		"by hand, number is alike": {checks.Value{Look: "defect", Wrong: []string{"1", "3"}, Set: []float64{30, 31, 30, 30}},
			judge.Watch, []string{"motor-1", "motor-3"}},
	} {
		j, err := checks.Judge(it, c.v, nil)
		require.NoError(t, err, name)
		assert.Equal(t, c.want, j.Verdict, name)
		var at []string
		for _, s := range checks.Spots(it, c.v, j.Verdict) {
			at = append(at, s.Station)
		}
		assert.Equal(t, c.at, at, name)
	}
	// The spread of outputs is held against its own limits, whichever way one lies apart.
	it.Compare = &checks.Compare{How: "spread-percent", Watch: 10, Stop: 20}
	for low, want := range map[float64]judge.Verdict{30: judge.Clear, 27.5: judge.Clear, 26: judge.Watch, 15: judge.Stop,
		0: judge.Stop} {
		j, err := checks.Judge(it, checks.Value{Look: "ok", Set: []float64{30, 30, low, 30}}, nil)
		require.NoError(t, err)
		assert.Equal(t, want, j.Verdict, "one at %v", low)
	}
}
