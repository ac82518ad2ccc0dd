package checks_test

import (
	"encoding/json"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
)

func load(t *testing.T, key string) (airframe.Type, checks.List) {
	t.Helper()
	return read(t, key)
}

// read reads a shipped type and its list.
func read(t require.TestingT, key string) (airframe.Type, checks.List) {
	var a airframe.Type
	var l checks.List
	for path, into := range map[string]any{"../../internal/fleet/shipped/": &a, "../../internal/walkround/shipped/": &l} {
		b, err := os.ReadFile(path + key + ".json")
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(b, into))
	}
	return a, l
}

var keys = []string{"dray-30", "dray-30-s", "lantern-4", "lantern-8", "tally-w", "tally-v"}

func twoPacks(a airframe.Type) []checks.PackRef {
	var out []checks.PackRef
	for i := range a.Packs.Count {
		id := string(rune('a' + i))
		out = append(out, checks.PackRef{ID: id, Label: "P" + id, Chemistry: a.Packs.Chemistry, Cells: a.Packs.Cells})
	}
	return out
}

// expand gives the items of a round of which nothing is known.
func expand(l checks.List, a airframe.Type, round string, packs []checks.PackRef) []checks.Item {
	items, _ := checks.Expand(l, a, checks.Ask{Round: round, Packs: packs})
	return items
}

func TestShippedListsAreUsableAndVisitEveryStation(t *testing.T) {
	for _, key := range keys {
		a, l := load(t, key)
		require.NoError(t, l.Validate(a), key)
		items := expand(l, a, checks.Full, twoPacks(a))
		visited := map[string]bool{}
		for _, it := range items {
			for _, at := range it.Stations() {
				visited[at] = true
			}
			for _, m := range it.Marks {
				assert.NotEmpty(t, m.Bad, "%s %s says what bad looks like", key, m.ID)
				assert.NotContains(t, m.ID+m.Title+m.Station, "{", "%s: placeholder left", key)
			}
			assert.NotContains(t, it.ID+it.Title+it.Station, "{", "%s: placeholder left", key)
			assert.NotEmpty(t, it.Why, "%s %s says why", key, it.ID)
			assert.NotEmpty(t, it.How, "%s %s says how", key, it.ID)
		}
		for _, s := range a.Stations() {
			assert.True(t, visited[s.ID], "%s: %s is never looked at", key, s.ID)
		}
		short := expand(l, a, checks.Turnaround, twoPacks(a))
		assert.Less(t, len(short), len(items))
		assert.NotEmpty(t, short)
		for i := range a.Geometry.Rotors {
			n := string(rune('1' + i))
			assert.True(t, slices.ContainsFunc(short, func(it checks.Item) bool {
				return slices.Contains(it.Stations(),
					"propeller-"+n)
			}), "every propeller, every pack")
		}
	}
}

func TestExpandPerPackAndSmartOnly(t *testing.T) {
	a, l := load(t, "dray-30")
	items := expand(l, a, checks.Full, twoPacks(a))
	count := func(prefix string) (n int) {
		for _, it := range items {
			if strings.HasPrefix(it.ID, prefix) {
				n++
			}
		}
		return
	}
	assert.Equal(t, 2, count("pack-cells@"))
	assert.Equal(t, 0, count("pack-percent@"), "plain packs show no level")
	assert.Equal(t, 6, count("corner-"))
	b, m := load(t, "lantern-4")
	assert.True(t, slices.ContainsFunc(expand(m, b, checks.Full, twoPacks(b)),
		func(it checks.Item) bool { return it.ID == "pack-percent@a" }))
}

// A turnaround is done in a minute: with every pack, in at most 18 presses, the start and the
// end among them, and 3 numbers where the charger has read the cells and levels.
func TestTurnaroundsAreShort(t *testing.T) {
	for _, key := range keys {
		a, l := load(t, key)
		presses, numbers := 2, 0
		short, _ := checks.Expand(l, a, checks.Ask{Round: checks.Turnaround, Packs: twoPacks(a),
			Facts: checks.Facts{"event": {Word: "no"}}})
		for _, it := range short {
			presses++
			if it.Kind == checks.Reading && it.Quantity != "level" {
				numbers++
			}
		}
		t.Logf("%s: %d presses, %d numbers; the whole walk has %d items", key, presses, numbers,
			len(expand(l, a, checks.Full, twoPacks(a))))
		assert.LessOrEqual(t, presses, 18, key)
		assert.LessOrEqual(t, numbers, 3, key)
	}
}

func p(v float64) *float64 { return &v }

func reading(band checks.Band) checks.Item {
	return checks.Item{ID: "r", Kind: checks.Reading, Quantity: "bus resistance", Unit: "ohm", Step: 1, Min: p(0),
		Max: p(1000), Band: &band}
}

func TestReadingBands(t *testing.T) {
	it := reading(checks.Band{StopBelow: p(57), WatchBelow: p(58), WatchAbove: p(62), StopAbove: p(63)})
	for x, want := range map[float64]judge.Verdict{56: judge.Stop, 57: judge.Watch, 58: judge.Clear, 60: judge.Clear,
		62: judge.Clear, 63: judge.Watch, 64: judge.Stop} {
		j, err := checks.Judge(it, checks.Value{Number: &x}, nil)
		require.NoError(t, err)
		assert.Equal(t, want, j.Verdict, "%v ohm", x)
		assert.Contains(t, j.Against, "58 to 62 Ω")
	}
	for name, v := range map[string]checks.Value{"empty": {}, "over": {Number: p(1001)}, "under": {Number: p(-1)},
		"nan": {Number: p(math.NaN())}, "inf": {Number: p(math.Inf(1))}} {
		_, err := checks.Judge(it, v, nil)
		assert.ErrorIs(t, err, checks.ErrValue, name)
	}
}

func TestLook(t *testing.T) {
	it := checks.Item{ID: "l", Kind: checks.Look, Defect: judge.Stop}
	for _, c := range []struct {
		v    checks.Value
		want judge.Verdict
		bad  bool
	}{
		{checks.Value{Look: "ok"}, judge.Clear, false}, {checks.Value{Look: "defect", Note: "crack"}, judge.Stop, false},
		{checks.Value{Look: "defect", Note: "  "}, 0, true}, {checks.Value{}, 0, true}, {checks.Value{Look: "fine"}, 0, true},
		{checks.Value{Look: "ok", Note: strings.Repeat("x", checks.MaxNote+1)}, 0, true},
	} {
		j, err := checks.Judge(it, c.v, nil)
		if c.bad {
			assert.ErrorIs(t, err, checks.ErrValue)
			continue
		}
		require.NoError(t, err)
		assert.Equal(t, c.want, j.Verdict)
	}
	it.Defect = judge.Watch
	j, err := checks.Judge(it, checks.Value{Look: "defect", Note: "dusty"}, nil)
	require.NoError(t, err)
	assert.Equal(t, judge.Watch, j.Verdict)
}

func TestCells(t *testing.T) {
	pk := &checks.PackRef{ID: "a", Chemistry: pack.LiPo, Cells: 3}
	it := checks.Item{ID: "c", Kind: checks.Cells}
	_, err := checks.Judge(it, checks.Value{Set: []float64{4180, 400, 4182}}, pk)
	assert.ErrorContains(t, err, "Cell 2 must be between 500 and 5000 mV.")
	j, err := checks.Judge(it, checks.Value{Set: []float64{4180, 4075, 4182}}, pk)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, j.Verdict)
	assert.Contains(t, j.Sentence, "107 mV; cell 2")
	for _, set := range [][]float64{nil, {4180, 4180}, {4180, 4180, 4.18}, {4180, 4180, math.NaN()}} {
		_, err := checks.Judge(it, checks.Value{Set: set}, pk)
		assert.ErrorIs(t, err, checks.ErrValue, "%v", set)
	}
	_, err = checks.Judge(it, checks.Value{Set: []float64{1, 2, 3}}, nil)
	assert.ErrorIs(t, err, checks.ErrValue)
}

func motors(how string, watch, stop float64, n int) checks.Item {
	return checks.Item{ID: "m", Kind: checks.Motors, Quantity: "warmth", Unit: "degC", Step: 1, Min: p(-30), Max: p(200),
		Count: n, Compare: &checks.Compare{How: how, Watch: watch, Stop: stop}}
}

func TestMotorsAgainstTheirSisters(t *testing.T) {
	for _, c := range []struct {
		how  string
		set  []float64
		want judge.Verdict
	}{
		{"outlier", []float64{40, 41, 42, 40}, judge.Clear}, {"outlier", []float64{40, 41, 56, 41}, judge.Clear},
		{"outlier", []float64{40, 41, 57, 41}, judge.Watch}, {"outlier", []float64{40, 41, 67, 41}, judge.Stop},
		{"spread-percent", []float64{50, 52, 54, 55}, judge.Clear}, {"spread-percent", []float64{50, 52, 54, 58},
			judge.Watch},
		{"spread-percent", []float64{45, 52, 54, 58}, judge.Stop}, {"spread-percent", []float64{0, 0, 0, 0}, judge.Stop},
	} {
		it := motors(c.how, 15, 25, 4)
		if c.how == "spread-percent" {
			it = motors(c.how, 10, 20, 4)
		}
		j, err := checks.Judge(it, checks.Value{Set: c.set}, nil)
		require.NoError(t, err)
		assert.Equal(t, c.want, j.Verdict, "%s %v: %s", c.how, c.set, j.Sentence)
	}
	_, err := checks.Judge(motors("outlier", 15, 25, 4), checks.Value{Set: []float64{1, 2, 3}}, nil)
	assert.ErrorIs(t, err, checks.ErrValue)
	_, err = checks.Judge(motors("outlier", 15, 25, 2), checks.Value{Set: []float64{1, 2000}}, nil)
	assert.ErrorContains(t, err, "Motor 2")
}

// The clever outlier agrees with sorting the others by hand.
func TestOutlierAgainstNaiveOracle(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set := rapid.SliceOfN(rapid.Float64Range(-20, 120), 2, 9).Draw(t, "set")
		i, by := checks.Outlier(set)
		best := math.Inf(-1)
		for k := range set {
			var others []float64
			for j := range set {
				if j != k {
					others = append(others, set[j])
				}
			}
			slices.Sort(others)
			m := (others[(len(others)-1)/2] + others[len(others)/2]) / 2
			best = max(best, set[k]-m)
		}
		assert.InDelta(t, best, by, 1e-9)
		assert.True(t, i >= 0 && i < len(set))
	})
	_, by := checks.Outlier([]float64{5})
	assert.Zero(t, by)
}

func TestMissingKeepsTheWalkingOrder(t *testing.T) {
	items := []checks.Item{{ID: "a"}, {ID: "b"}, {ID: "c"}}
	left := checks.Missing(items, map[string]bool{"b": true})
	require.Len(t, left, 2)
	assert.Equal(t, "a", left[0].ID)
	assert.Equal(t, "c", left[1].ID)
}

func TestValidateNamesTheItem(t *testing.T) {
	a, _ := load(t, "lantern-4")
	one := func(it checks.Item) checks.List {
		return checks.List{Type: a.Key, Version: 1, Sections: []checks.Section{{Items: []checks.Item{it}}}}
	}
	good := checks.Item{ID: "x", Title: "X", Station: "frame", Kind: checks.Look, Defect: judge.Stop}
	assert.NoError(t, one(good).Validate(a))
	assert.NoError(t, one(volts()).Validate(a))
	assert.NoError(t, one(warmth()).Validate(a))
	for name, change := range map[string]func(*checks.Item){
		"id": func(it *checks.Item) { it.ID = "" }, "station": func(it *checks.Item) { it.Station = "keel" },
		"defect":             func(it *checks.Item) { it.Defect = judge.Clear },
		"reading":            func(it *checks.Item) { it.Kind = checks.Reading },
		"cells":              func(it *checks.Item) { it.Kind = checks.Cells },
		"motors":             func(it *checks.Item) { it.Kind = checks.Motors },
		"kind":               func(it *checks.Item) { it.Kind = "smell" },
		"no band":            func(it *checks.Item) { *it = volts(); it.Band = nil },
		"no step":            func(it *checks.Item) { *it = volts(); it.Step = 0 },
		"no unit":            func(it *checks.Item) { *it = volts(); it.Unit = "" },
		"no comparison":      func(it *checks.Item) { *it = warmth(); it.Compare = nil },
		"no step of motors":  func(it *checks.Item) { *it = warmth(); it.Step = 0 },
		"no unit of motors":  func(it *checks.Item) { *it = warmth(); it.Unit = "" },
		"no least of motors": func(it *checks.Item) { *it = warmth(); it.Min = nil },
		"no most of motors":  func(it *checks.Item) { *it = warmth(); it.Max = nil },
		"no range of motors": func(it *checks.Item) { *it = warmth(); it.Max = it.Min },
		"no least":           func(it *checks.Item) { *it = volts(); it.Min = nil },
		"no most":            func(it *checks.Item) { *it = volts(); it.Max = nil },
		"no range":           func(it *checks.Item) { *it = volts(); it.Max = it.Min },
		"how":                func(it *checks.Item) { *it = motors("guess", 1, 2, 4); it.Title, it.Station = "M", "frame" },
	} {
		it := good
		change(&it)
		assert.ErrorIs(t, one(it).Validate(a), checks.ErrList, name)
	}
	twice := one(good)
	twice.Sections = append(twice.Sections, twice.Sections[0])
	assert.ErrorContains(t, twice.Validate(a), "twice")
	assert.ErrorIs(t, checks.List{Type: "other", Version: 1}.Validate(a), checks.ErrList)
	assert.ErrorIs(t, checks.List{Type: a.Key}.Validate(a), checks.ErrList)
	assert.ErrorIs(t, checks.List{Type: a.Key, Version: 1}.Validate(a), checks.ErrList)
}

func TestOutliersNeedSomethingToCompare(t *testing.T) {
	it := checks.Item{ID: "w", Kind: checks.Motors, Step: 1, Compare: &checks.Compare{How: "outlier", Watch: 10, Stop: 15}}
	assert.Len(t, checks.Outliers(it, []float64{40, 40, 40, 60}), 1)
	assert.Empty(t, checks.Outliers(it, []float64{60}))
	it.Compare = nil
	assert.Empty(t, checks.Outliers(it, []float64{40, 40, 60}))
}

// volts is a reading that is in order.
func volts() checks.Item {
	num := func(v float64) *float64 { return &v }
	return checks.Item{ID: "v", Title: "V", Station: "frame", Kind: checks.Reading, Quantity: "volts", Unit: "V",
		Step: 0.1, Min: num(0), Max: num(60), Band: &checks.Band{StopBelow: num(10)}}
}

// warmth is a set of motors that is in order.
func warmth() checks.Item {
	it := motors("outlier", 10, 15, 4)
	it.Title, it.Station = "M", "frame"
	return it
}
