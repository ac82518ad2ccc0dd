package checks_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/checks"
	"mainstay/core/judge"
)

func verdict(t *testing.T, it checks.Item, v checks.Value) (judge.Verdict, string) {
	t.Helper()
	j, err := checks.Judge(it, v, nil)
	require.NoError(t, err)
	require.NotEmpty(t, j.Against)
	return j.Verdict, j.Sentence
}

func refused(t *testing.T, it checks.Item, v checks.Value) string {
	t.Helper()
	_, err := checks.Judge(it, v, nil)
	require.ErrorIs(t, err, checks.ErrValue)
	return err.Error()
}

func TestCount(t *testing.T) {
	it := checks.Item{ID: "caps", Kind: checks.Counted, Defect: judge.Stop, Expect: p(6)}
	for n, want := range map[float64]judge.Verdict{5: judge.Stop, 6: judge.Clear, 7: judge.Watch} {
		v, _ := verdict(t, it, checks.Value{Number: &n})
		assert.Equal(t, want, v, n)
	}
	_, words := verdict(t, it, checks.Value{Number: p(4)})
	assert.Equal(t, "4 of 6: 2 missing.", words)
	for _, n := range []float64{-1, 5.5, 1001} {
		refused(t, it, checks.Value{Number: &n})
	}
	refused(t, it, checks.Value{})
}

// What is worked out is read, and a person can only make it worse.
func TestComputed(t *testing.T) {
	it := checks.Item{ID: "mass", Kind: checks.Computed, Defect: judge.Stop, Rule: judge.RuleMass}
	v, words := verdict(t, it, checks.Value{Look: "ok"})
	assert.Equal(t, judge.Clear, v, "nothing was worked out: a person looked")
	assert.Contains(t, words, "by a person")
	it.Known = &checks.Known{Verdict: judge.Clear, Words: "68.2 of 72 kg.", Source: "gate"}
	v, words = verdict(t, it, checks.Value{Look: "ok"})
	assert.Equal(t, judge.Clear, v)
	assert.Equal(t, "68.2 of 72 kg.", words)
	v, _ = verdict(t, it, checks.Value{Look: "defect", Note: "the scale says 74"})
	assert.Equal(t, judge.Stop, v)
	refused(t, it, checks.Value{Look: "defect"})
	refused(t, it, checks.Value{})
	it.Known.Verdict = judge.Stop
	assert.Contains(t, refused(t, it, checks.Value{Look: "ok"}), "what you saw",
		"what is not in order is not pressed away unread")
	v, _ = verdict(t, it, checks.Value{Look: "ok", Note: "read it"})
	assert.Equal(t, judge.Stop, v, "confirming makes it no better")
}

func TestPollAndWho(t *testing.T) {
	it := checks.Item{ID: "poll", Kind: checks.Poll, Names: []string{"A", "B"}}
	v, _ := verdict(t, it, checks.Value{Poll: []checks.Vote{{Name: "A", Go: true}, {Name: "B", Go: true}}})
	assert.Equal(t, judge.Clear, v)
	v, words := verdict(t, it, checks.Value{Poll: []checks.Vote{{Name: "B", Go: false}}})
	assert.Equal(t, judge.Stop, v, "one no is enough")
	assert.Contains(t, words, "No go: B")
	assert.Contains(t, refused(t, it, checks.Value{Poll: []checks.Vote{{Name: "A", Go: true}}}), "B")
	refused(t, it, checks.Value{Poll: []checks.Vote{{Name: "A", Go: true}, {Name: "B", Go: true}, {Name: "C", Go: true}}})
	refused(t, it, checks.Value{Poll: []checks.Vote{{Name: "A", Go: true}, {Name: "A", Go: true}}})
	refused(t, checks.Item{ID: "poll", Kind: checks.Poll}, checks.Value{})
	who := checks.Item{ID: "holder", Kind: checks.Who, Names: []string{"A", "B"}}
	v, words = verdict(t, who, checks.Value{Choice: "B"})
	assert.Equal(t, judge.Clear, v)
	assert.Equal(t, "B.", words)
	refused(t, who, checks.Value{Choice: "C"})
	refused(t, who, checks.Value{})
}

// Headings on either side of north, just under, at and just over each bound.
func TestHeadings(t *testing.T) {
	it := checks.Item{ID: "h", Kind: checks.Set, Per: "heading", Quantity: "heading", Unit: "deg", Step: 1, Min: p(0),
		Max: p(360), Count: 4, Compare: &checks.Compare{How: checks.ByHeading, Watch: 7, Stop: 10}}
	for north, want := range map[float64]judge.Verdict{0: judge.Clear, 360: judge.Clear, 7: judge.Clear, 353: judge.Clear,
		8: judge.Watch, 352: judge.Watch, 10: judge.Watch, 350: judge.Watch, 11: judge.Stop, 349: judge.Stop,
		180: judge.Stop} {
		v, words := verdict(t, it, checks.Value{Set: []float64{north, 90, 180, 270}})
		assert.Equal(t, want, v, north)
		if want != judge.Clear {
			assert.Contains(t, words, "North shows")
		}
	}
	v, _ := verdict(t, it, checks.Value{Set: []float64{0, 90, 180, 259}})
	assert.Equal(t, judge.Stop, v)
	assert.Contains(t, refused(t, it, checks.Value{Set: []float64{-3, 90, 180, 270}}),
		"North: Heading must be between 0 and 360")
	refused(t, it, checks.Value{Set: []float64{0, 90, 180}})
	rapid.Check(t, func(t *rapid.T) {
		h, d := rapid.Float64Range(0, 360).Draw(t, "h"), rapid.SampledFrom([]float64{0, 90, 180, 270}).Draw(t, "d")
		e := checks.HeadingError(h, d)
		if !(e > -180 && e <= 180) {
			t.Fatalf("%v is no shortest angle", e)
		}
		if turned := d + e; !(absMod(turned-h) < 1e-9) {
			t.Fatalf("turning %v by %v does not end at %v", d, e, h)
		}
	})
}

// absMod is how far x lies from a multiple of 360.
func absMod(x float64) float64 {
	for x > 180 {
		x -= 360
	}
	for x < -180 {
		x += 360
	}
	return max(x, -x)
}

func TestNozzlesAgainstEachOther(t *testing.T) {
	it := checks.Item{ID: "n", Kind: checks.Set, Per: "nozzle", Quantity: "flow", Unit: "L/min", Step: 0.01, Min: p(0),
		Max: p(10), Count: 4, Compare: &checks.Compare{How: checks.BySpread, Watch: 10, Stop: 20}}
	v, words := verdict(t, it, checks.Value{Set: []float64{1, 1, 1.15, 1}})
	assert.Equal(t, judge.Watch, v)
	assert.Equal(t, "Nozzles differ by 14.5 % of their mean. Find out why.", words)
	v, words = verdict(t, it, checks.Value{Set: []float64{0, 0, 0, 0}})
	assert.Equal(t, judge.Stop, v)
	assert.Contains(t, words, "No nozzle reports any flow")
}

// What can stop a flight cannot be left out; the rest only with a reason.
func TestLeavingOut(t *testing.T) {
	calm := checks.Item{ID: "strap", Kind: checks.Look, Defect: judge.Watch}
	v, words := verdict(t, calm, checks.Value{Skip: "no strap on this one"})
	assert.Equal(t, judge.Watch, v)
	assert.Equal(t, "Left out: no strap on this one", words)
	refused(t, calm, checks.Value{Skip: "  .  "})
	refused(t, calm, checks.Value{Skip: strings.Repeat("x", checks.MaxNote+1)})
	refused(t, calm, checks.Value{Skip: "no strap on this one", Look: "ok"})
	for _, key := range keys {
		a, l := load(t, key)
		for _, it := range expand(l, a, checks.Full, twoPacks(a)) {
			_, err := checks.Judge(it, checks.Value{Skip: "in a hurry today"}, nil)
			assert.Equal(t, it.Stops(), err != nil, "%s %s", key, it.ID)
		}
	}
	mixed := checks.Item{ID: "g", Kind: checks.Group, Defect: judge.Watch,
		Marks: []checks.Mark{{ID: "a"}, {ID: "b", Defect: judge.Stop}}}
	assert.True(t, mixed.Stops(), "one of its marks stops")
	refused(t, mixed, checks.Value{Skip: "in a hurry today"})
}

// A spoiled answer is refused, or judged no milder; the same answer is judged the same.
func TestSpoiledAnswersAreNeverMilder(t *testing.T) {
	names := []string{"A", "B"}
	rapid.Check(t, func(t *rapid.T) {
		known := rapid.SampledFrom([]*checks.Known{nil, {Verdict: judge.Clear, Words: "w", Source: "s"},
			{Verdict: judge.Watch, Words: "w", Source: "s"}, {Verdict: judge.Stop, Words: "w", Source: "s"}}).Draw(t, "known")
		it := rapid.SampledFrom([]checks.Item{
			{ID: "a", Kind: checks.Counted, Defect: judge.Stop, Expect: p(3)},
			{ID: "b", Kind: checks.Computed, Defect: judge.Stop, Rule: judge.RuleMass, Known: known},
			{ID: "c", Kind: checks.Poll, Names: names},
			{ID: "d", Kind: checks.Look, Defect: judge.Watch},
			{ID: "e", Kind: checks.Group, Defect: judge.Watch, Marks: []checks.Mark{{ID: "A", Title: "A"},
				{ID: "B", Title: "B", Defect: judge.Stop}}},
		}).Draw(t, "item")
		v := checks.Value{Look: rapid.SampledFrom([]string{"", "ok", "defect"}).Draw(t, "look"),
			Note: rapid.SampledFrom([]string{"", "seen"}).Draw(t, "note")}
		if rapid.Bool().Draw(t, "number") {
			v.Number = p(float64(rapid.IntRange(0, 5).Draw(t, "n")))
		}
		for _, n := range names {
			if rapid.Bool().Draw(t, n+" asked") {
				v.Poll = append(v.Poll, checks.Vote{Name: n, Go: rapid.Bool().Draw(t, n+" go")})
			}
			if rapid.Bool().Draw(t, n+" wrong") {
				v.Wrong = append(v.Wrong, n)
			}
		}
		fair, err := checks.Judge(it, v, nil)
		if again, err2 := checks.Judge(it, v, nil); fair != again || (err == nil) != (err2 == nil) {
			t.Fatal("judged otherwise the second time")
		}
		if err != nil {
			return
		}
		spoiled := v
		switch rapid.IntRange(0, 3).Draw(t, "spoil") {
		case 0:
			spoiled.Note = ""
		case 1:
			spoiled.Number = nil
		case 2:
			spoiled.Poll = slices.DeleteFunc(slices.Clone(v.Poll), func(x checks.Vote) bool { return x.Go })
		case 3:
			spoiled.Look = ""
		}
		if j, err := checks.Judge(it, spoiled, nil); err == nil && j.Verdict < fair.Verdict {
			t.Fatalf("%+v is milder than %+v", spoiled, v)
		}
	})
}
