package checks_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/practice"
)

func ids(items []checks.Item) (out []string) {
	for _, it := range items {
		out = append(out, it.ID)
	}
	return out
}

// drawFacts draws what may be known of a day: any part of it.
func drawFacts(t *rapid.T) checks.Facts {
	f := checks.Facts{}
	for _, n := range checks.AllFacts {
		switch {
		case !rapid.Bool().Draw(t, n.Key+" known"):
		case len(n.Words) > 0:
			f[n.Key] = checks.Fact{Word: rapid.SampledFrom(n.Words).Draw(t, n.Key)}
		default:
			v := rapid.Float64Range(0, 200).Draw(t, n.Key)
			f[n.Key] = checks.Fact{Number: &v}
		}
	}
	return f
}

func drawWhen(t *rapid.T) (out []checks.When) {
	for range rapid.IntRange(0, 3).Draw(t, "conditions") {
		n := rapid.SampledFrom(checks.AllFacts).Draw(t, "fact")
		if len(n.Words) > 0 {
			out = append(out, checks.When{Fact: n.Key, Is: []string{rapid.SampledFrom(n.Words).Draw(t, "is")}})
			continue
		}
		v := rapid.Float64Range(0, 200).Draw(t, "over")
		out = append(out, checks.When{Fact: n.Key, Over: &v})
	}
	return out
}

// No condition makes an item vanish unseen: it is asked, or it is left out with its reason.
// What is not known asks: knowing less never asks less. The order is that of the list.
func TestNothingVanishesUnseen(t *testing.T) {
	a, _ := load(t, "lantern-4")
	rapid.Check(t, func(t *rapid.T) {
		l := checks.List{Type: a.Key, Version: 1}
		for s := range rapid.IntRange(1, 3).Draw(t, "sections") {
			sec := checks.Section{Title: fmt.Sprint("S", s)}
			for i := range rapid.IntRange(1, 5).Draw(t, "items") {
				sec.Items = append(sec.Items, checks.Item{ID: fmt.Sprintf("i%d-%d", s, i), Station: "frame", Title: "T",
					Kind: checks.Look, When: drawWhen(t),
					Defect: rapid.SampledFrom([]judge.Verdict{judge.Watch, judge.Stop}).Draw(t, "defect")})
			}
			l.Sections = append(l.Sections, sec)
		}
		if err := l.Validate(a); err != nil {
			t.Fatal(err)
		}
		all, none := checks.Expand(l, a, checks.Ask{Round: checks.Full})
		if len(none) > 0 {
			t.Fatal("something is left out though nothing is known")
		}
		facts := drawFacts(t)
		asked, left := checks.Expand(l, a, checks.Ask{Round: checks.Full, Facts: facts})
		again, _ := checks.Expand(l, a, checks.Ask{Round: checks.Full, Facts: facts})
		if !slices.Equal(ids(asked), ids(again)) {
			t.Fatal("the same day asks otherwise")
		}
		if len(asked)+len(left) != len(all) {
			t.Fatalf("%d of %d items are neither asked nor left out", len(all)-len(asked)-len(left), len(all))
		}
		for _, x := range left {
			i := slices.IndexFunc(all, func(it checks.Item) bool { return it.ID == x.ItemID })
			if x.Why == "" || i < 0 || x.Stops != all[i].Stops() {
				t.Fatalf("left out without a word: %+v", x)
			}
		}
		at := -1
		for _, id := range ids(asked) {
			i := slices.Index(ids(all), id)
			if i <= at {
				t.Fatal("out of the order of the list")
			}
			at = i
		}
		for k := range facts {
			fewer := checks.Facts{}
			for f, v := range facts {
				if f != k {
					fewer[f] = v
				}
			}
			more, _ := checks.Expand(l, a, checks.Ask{Round: checks.Full, Facts: fewer})
			for _, id := range ids(asked) {
				if !slices.Contains(ids(more), id) {
					t.Fatalf("without %s, %s is not asked any more", k, id)
				}
			}
		}
	})
}

// What can stop says so on every item of every round, so that no key offers to leave it out.
func TestBarsIsSaidOfEveryItem(t *testing.T) {
	for _, key := range keys {
		a, l := load(t, key)
		for _, r := range checks.AllRounds {
			for _, it := range expand(l, a, r.Key, twoPacks(a)) {
				assert.Equal(t, it.Stops(), it.Bars, "%s %s %s", key, r.Key, it.ID)
			}
		}
	}
	s := checks.Shown{Picture: checks.AllPictures[0], At: 0, Station: "frame"}
	assert.True(t, s.With(nil)[0].Bars)
}

func TestConditions(t *testing.T) {
	a, _ := load(t, "lantern-4")
	look := func(w ...checks.When) checks.List {
		return checks.List{Type: a.Key, Version: 1, Sections: []checks.Section{{Title: "S",
			Items: []checks.Item{{ID: "x", Station: "frame", Title: "Light", Kind: checks.Look, Defect: judge.Stop, When: w}}}}}
	}
	asked := func(f checks.Facts, w ...checks.When) (bool, string) {
		items, left := checks.Expand(look(w...), a, checks.Ask{Round: checks.Full, Facts: f})
		if len(left) > 0 {
			assert.True(t, left[0].Stops)
			return false, left[0].Why
		}
		return slices.Contains(ids(items), "x"), ""
	}
	night := checks.When{Fact: "night", Is: []string{"yes"}}
	yes, why := asked(checks.Facts{"night": {Word: "no"}}, night)
	assert.False(t, yes)
	assert.Equal(t, "Night or twilight: no, asked when yes.", why)
	yes, _ = asked(checks.Facts{"night": {Word: "yes"}}, night)
	assert.True(t, yes)
	yes, _ = asked(nil, night)
	assert.True(t, yes, "not known: asked")
	for km, want := range map[float64]bool{49.9: false, 50: false, 50.1: true} {
		yes, why = asked(checks.Facts{"km-since-compass": {Number: &km}}, checks.When{Fact: "km-since-compass", Over: p(50)})
		assert.Equal(t, want, yes, km)
		if !want {
			assert.Contains(t, why, "km, asked over 50")
		}
	}
	// One of several is enough.
	yes, _ = asked(checks.Facts{"night": {Word: "no"}, "event": {Word: "yes"}}, night,
		checks.When{Fact: "event", Is: []string{"yes"}})
	assert.True(t, yes)
	kept := checks.Facts{}.WithPractice(practice.Settings{practice.Compass: {School: "flying-day"}})
	yes, _ = asked(kept, checks.When{Fact: "practice.compass", Is: []string{"flying-day"}})
	assert.True(t, yes)
	yes, why = asked(kept, checks.When{Fact: "practice.compass", Is: []string{"none"}})
	assert.False(t, yes)
	assert.Contains(t, why, "flying-day")
	for name, w := range map[string]checks.When{"unknown": {Fact: "moon", Is: []string{"yes"}}, "no word": {Fact: "night"},
		"other word": {Fact: "night", Is: []string{"maybe"}}, "number for a word": {Fact: "night", Over: p(1)},
		"word for a number": {Fact: "days-since-flight", Is: []string{"yes"}}, "unknown practice": {Fact: "practice.moon",
			Is: []string{"x"}}, "unknown school": {Fact: "practice.compass", Is: []string{"moon"}}} {
		assert.ErrorIs(t, look(w).Validate(a), checks.ErrList, name)
	}
}

func TestRoundsOfAList(t *testing.T) {
	a, _ := load(t, "dray-30")
	one := func(id string, short bool) checks.Item {
		return checks.Item{ID: id, Station: "frame", Title: id, Kind: checks.Look, Defect: judge.Stop, Short: short}
	}
	l := checks.List{Type: a.Key, Version: 1, Sections: []checks.Section{
		{Title: "A", Items: []checks.Item{one("full", false), one("short", true)}},
		{Title: "B", In: []string{checks.StandDown, checks.Weekly}, Items: []checks.Item{one("evening", false)}},
		{Title: "C", In: []string{checks.Full, checks.Weekly}, Items: []checks.Item{one("both", true)}},
	}}
	require.NoError(t, l.Validate(a))
	got := map[string][]string{}
	for _, r := range checks.AllRounds {
		got[r.Key] = ids(expand(l, a, r.Key, nil))
	}
	assert.Equal(t, []string{"full", "short", "both", checks.KeptID}, got[checks.Full])
	assert.Equal(t, []string{"short", "both", checks.KeptID}, got[checks.Turnaround])
	assert.Equal(t, []string{"evening"}, got[checks.StandDown], "what the crew sets is asked before a flight, not after")
	assert.Equal(t, []string{"evening", "both"}, got[checks.Weekly])
	assert.Empty(t, got[checks.Bench])
	var keys []string
	for _, r := range l.Rounds() {
		keys = append(keys, r.Key)
	}
	assert.Equal(t, []string{checks.Full, checks.Turnaround, checks.StandDown, checks.Weekly}, keys)
	l.Sections[1].In = []string{"brunch"}
	assert.ErrorIs(t, l.Validate(a), checks.ErrList)
}

// Arms are opened in the order of the type, and a list may speak in its words.
func TestOrderAndWordsOfTheType(t *testing.T) {
	a, l := load(t, "dray-30")
	a.Unfold = []int{2, 5, 1, 3, 4, 6}
	require.NoError(t, a.Validate())
	var corners []string
	for _, id := range ids(expand(l, a, checks.Full, nil)) {
		if len(id) > 7 && id[:7] == "corner-" {
			corners = append(corners, id)
		}
	}
	assert.Equal(t, []string{"corner-2", "corner-5", "corner-1", "corner-3", "corner-4", "corner-6"}, corners)
	for _, wrong := range [][]int{{1, 2, 3}, {1, 1, 2, 3, 4, 5}, {0, 1, 2, 3, 4, 5}, {1, 2, 3, 4, 5, 7}} {
		a.Unfold = wrong
		assert.ErrorIs(t, a.Validate(), airframe.ErrType, wrong)
	}
	b, _ := load(t, "lantern-4")
	b.RangeCheck = &airframe.RangeCheck{DistanceM: 30, Power: "at reduced power"}
	say := checks.List{Type: b.Key, Version: 1, Sections: []checks.Section{{Title: "S",
		Items: []checks.Item{{ID: "x", Station: "frame", Title: "T", Kind: checks.Look, Defect: judge.Stop,
			How: "First {power-order}. {range-check}. Land by {land-by}. Stand {stand-off} off. Start: {stick-start}."}}}}}
	how := expand(say, b, checks.Full, nil)[0].How
	assert.Contains(t, how,
		"First the controller, then the aircraft. 30 m away, at reduced power. Land by 3.55 V a cell under load, or ")
	assert.Contains(t, how, "Stand 10 m off. Start: "+b.Sticks.Start)
	b.Sticks = nil
	assert.Contains(t, expand(say, b, checks.Full, nil)[0].How, "Start: as the maker's manual says")
}
