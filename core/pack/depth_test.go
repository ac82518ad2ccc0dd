package pack_test

import (
	"fmt"
	"math"
	"math/bits"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
)

var start = time.Date(2026, 1, 10, 8, 0, 0, 0, time.UTC)

func ptr(v float64) *float64 { return &v }

func TestResistance(t *testing.T) {
	r, err := pack.Resistance(4120, 3860, 18)
	require.NoError(t, err)
	assert.InDelta(t, 14.4, r, 0.05)
	for _, bad := range []struct {
		rest, loaded units.Millivolts
		amps         float64
	}{{3860, 4120, 18}, {4120, 3860, 0}, {4120, 3860, math.NaN()}, {9000, 3860, 18}, {4120, -1, 18}} {
		_, err := pack.Resistance(bad.rest, bad.loaded, bad.amps)
		assert.Error(t, err, "%v", bad)
	}
}

func resistances(now, temp float64, n int) []pack.ResistanceReading {
	var h []pack.ResistanceReading
	for i := range n {
		// The scatter has median 2.0 for cell 1 and 2.2 for cell 2.
		d := []float64{-0.1, 0, 0.1, 0, 0}[i%5]
		h = append(h, pack.ResistanceReading{At: start.AddDate(0, 0, i), TemperatureC: ptr(22 + d*10),
			MilliOhm: []float64{2 + d, 2.2 + d}})
	}
	return append(h, pack.ResistanceReading{At: start.AddDate(0, 6, 0), TemperatureC: &temp, MilliOhm: []float64{2, now}})
}

func TestResistanceAgainstItsBaseline(t *testing.T) {
	for _, c := range []struct {
		name    string
		now, at float64
		n       int
		known   bool
		v       judge.Verdict
	}{
		{"half as much again less a hair", 3.29, 22, 5, true, judge.Clear},
		{"half as much again", 3.3, 22, 5, true, judge.Watch},
		{"double", 4.4, 22, 5, true, judge.Stop},
		{"7 degC away still counts", 4.4, 29, 5, true, judge.Stop},
		{"8 degC away does not", 4.4, 30, 5, false, judge.Watch},
		{"four readings are no baseline", 4.4, 22, 3, false, judge.Watch},
	} {
		got := pack.JudgeResistance(resistances(c.now, c.at, c.n))
		assert.Equal(t, c.known, got.Known, c.name)
		assert.Equal(t, c.v, got.Verdict, "%s: %s", c.name, got.Sentence)
		if c.known {
			assert.Equal(t, 2, got.Cell, c.name)
		}
	}
	assert.False(t, pack.JudgeResistance(nil).Known)
	assert.Equal(t, judge.Watch, pack.JudgeResistance(nil).Verdict, "unknown is never clear")
}

func TestMeasureCapacity(t *testing.T) {
	c, err := pack.MeasureCapacity(15000, 95, 1, 20, 2)
	require.NoError(t, err)
	assert.InDelta(t, 20000, c.MilliampHours, 1e-9)
	assert.InDelta(t, 20000*math.Sqrt(5)/75, c.PlusMinus, 1e-9)
	for _, x := range []struct {
		start, end float64
		ok         bool
	}{{95, 35, true}, {95, 36, false}, {100, 60, true}, {99, 60, false}, {100, 59, false}, {12, 62, true}, {20, 62,
		false}, {20, 80, true}, {-1, 90, false}, {50, math.NaN(), false}, {101, 20, false}, {90, -1, false}, {20, 101, false},
		{0, 100, true}, {100, 0, true}} {
		_, err := pack.MeasureCapacity(10000, x.start, 1, x.end, 1)
		assert.Equal(t, x.ok, err == nil, "%v", x)
	}
}

// A pack losing 5 % of 10 Ah in 50 cycles from 95 %: it meets 80 % after 150
// cycles more. One cycle a day.
func fading(n int, step, from, perCycle float64) []pack.CapacityPoint {
	var out []pack.CapacityPoint
	for i := range n {
		x := float64(i) * step
		out = append(out, pack.CapacityPoint{At: start.AddDate(0, 0, int(x)), Cycles: x, MAh: from - perCycle*x})
	}
	return out
}

func TestForecast(t *testing.T) {
	o := pack.Forecast(fading(11, 5, 9500, 10), 10000)
	require.NotNil(t, o.AtCycles, o.Sentence)
	assert.InDelta(t, 150, *o.AtCycles, 1e-6)
	assert.Equal(t, "2026-06-09", o.On.Format(time.DateOnly), "150 days after 10 January")
	assert.InDelta(t, -10, *o.SlopePer100, 1e-9)
	assert.InDelta(t, 91, *o.Health, 1e-9, "median of the last five: 9100")
	assert.InDelta(t, 150, *o.EarlyCycles, 1e-6, "no scatter, no interval")
	assert.Equal(t, judge.Clear, o.Verdict)

	assert.Contains(t, pack.Forecast(fading(7, 5, 9500, 10), 10000).Sentence, "Not enough data")
	assert.Contains(t, pack.Forecast(fading(11, 1.9, 9500, 10), 10000).Sentence, "Not enough data", "19 cycles")
	assert.Contains(t, pack.Forecast(fading(11, 5, 9500, 0), 10000).Sentence, "No decline seen")
	assert.Contains(t, pack.Forecast(fading(11, 5, 9500, -1), 10000).Sentence, "No decline seen")
	assert.Nil(t, pack.Forecast(fading(11, 5, 9500, 1), 10000).AtCycles, "1500 cycles ahead of 50 seen")
	old := pack.Forecast(fading(11, 5, 8100, 10), 10000)
	assert.Equal(t, judge.Stop, old.Verdict, old.Sentence)
	assert.Equal(t, judge.Watch, pack.Forecast(nil, 10000).Verdict, "never measured is not clear")
	soon := pack.Forecast(fading(11, 5, 8700, 10), 10000)
	assert.Equal(t, judge.Watch, soon.Verdict, soon.Sentence)
}

// With scatter, the interval holds the middle, and an end that does not fall
// has no date.
func TestForecastIntervalHoldsTheMiddle(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pts := fading(rapid.IntRange(8, 30).Draw(t, "n"), 5, rapid.Float64Range(8500, 10000).Draw(t, "from"),
			rapid.Float64Range(-2, 20).Draw(t, "loss"))
		for i := range pts {
			pts[i].MAh += rapid.Float64Range(-150, 150).Draw(t, "scatter")
		}
		o := pack.Forecast(pts, 10000)
		assert.NotEmpty(t, o.Sentence)
		last := pts[len(pts)-1]
		if o.AtCycles == nil {
			assert.Nil(t, o.On)
			return
		}
		assert.GreaterOrEqual(t, *o.AtCycles, last.Cycles)
		assert.LessOrEqual(t, *o.AtCycles, last.Cycles*4+1e-6, "three times the span ahead at most")
		require.NotNil(t, o.EarlyCycles, "what falls faster meets it sooner")
		assert.LessOrEqual(t, *o.EarlyCycles, *o.AtCycles+1e-9)
		if o.LateCycles != nil {
			assert.GreaterOrEqual(t, *o.LateCycles, *o.AtCycles-1e-9)
		}
		assert.False(t, o.EarlyOn.After(*o.On))
	})
}

func resting(days float64, mv ...units.Millivolts) pack.RestingReading {
	return pack.RestingReading{At: start.Add(time.Duration(days * 24 * float64(time.Hour))), CellMV: mv}
}

func TestSelfDischarge(t *testing.T) {
	d, ok := pack.SelfDischarge(start, resting(1, 4190, 4190, 4190), resting(5, 4186, 4186, 4162))
	require.True(t, ok)
	assert.Equal(t, []float64{1, 1, 7}, d.MVPerDay)
	assert.Equal(t, 3, d.Suspect)
	assert.Equal(t, judge.Stop, d.Verdict)
	d, _ = pack.SelfDischarge(start, resting(1, 4190, 4190, 4190), resting(5, 4186, 4186, 4170))
	assert.Zero(t, d.Suspect, "exactly 5 mV a day is not over it")
	d, _ = pack.SelfDischarge(start, resting(1, 4190, 4190, 4190), resting(5, 4178, 4178, 4160))
	assert.Zero(t, d.Suspect, "7.5 against 3: not three times")
	d, _ = pack.SelfDischarge(start, resting(1, 4190, 4190, 4190, 4190, 4190), resting(5, 4188, 4162, 4188, 4162, 4188))
	assert.Equal(t, 2, d.Suspect, "the first of two that lose the same")
	_, ok = pack.SelfDischarge(start, resting(0.9, 4190), resting(5, 4100))
	assert.False(t, ok, "still settling after the charge")
	_, ok = pack.SelfDischarge(start, resting(1, 4190), resting(3.9, 4100))
	assert.False(t, ok, "too close together")
}

func TestChargedTooLong(t *testing.T) {
	for _, c := range []struct {
		hours  float64
		looked *float64 // hours after the charge
		v      judge.Verdict
	}{{47.9, nil, judge.Clear}, {48, nil, judge.Watch}, {239, nil, judge.Watch}, {240, nil, judge.Stop}, {260, ptr(239),
		judge.Stop}, {260, ptr(241), judge.Watch}} {
		var at *time.Time
		if c.looked != nil {
			x := start.Add(time.Duration(*c.looked * float64(time.Hour)))
			at = &x
		}
		got := pack.JudgeFull(start, start.Add(time.Duration(c.hours*float64(time.Hour))), at)
		assert.Equal(t, c.v, got.Verdict, "%v: %s", c, got.Sentence)
	}
}

func TestTheSameCellLowest(t *testing.T) {
	low := func(i int) []units.Millivolts {
		mv := []units.Millivolts{3850, 3850, 3850}
		mv[i] -= 12
		return mv
	}
	assert.Equal(t, 2, pack.LowestRepeats([][]units.Millivolts{low(0), low(1), low(1), low(1)}))
	assert.Zero(t, pack.LowestRepeats([][]units.Millivolts{low(1), low(0), low(1)}))
	assert.Zero(t, pack.LowestRepeats([][]units.Millivolts{low(1), low(1)}))
	assert.Zero(t, pack.LowestRepeats([][]units.Millivolts{low(1), low(1), {3850, 3849, 3850}}), "within 5 mV is no cell")
}

func candidate(i int, mv, cap, cycles, r float64) pack.Candidate {
	return pack.Candidate{ID: fmt.Sprint(i), Label: fmt.Sprintf("D%d", i), Model: "m", MeanMV: &mv, CapacityMAh: &cap,
		Cycles: cycles, ResistanceMO: &r}
}

func TestJudgeSet(t *testing.T) {
	a := candidate(1, 4180, 10000, 50, 2)
	for _, c := range []struct {
		b pack.Candidate
		v judge.Verdict
	}{
		{candidate(2, 4200, 9500, 70, 2.5), judge.Clear}, // all exactly at their limit
		{candidate(2, 4201, 10000, 50, 2), judge.Stop},
		{candidate(2, 4180, 9499, 50, 2), judge.Stop},
		{candidate(2, 4180, 10000, 71, 2), judge.Stop},
		{candidate(2, 4180, 10000, 50, 2.51), judge.Stop},
		{pack.Candidate{ID: "2", Label: "D2", Model: "m", MeanMV: a.MeanMV, Cycles: 50}, judge.Watch},
		{pack.Candidate{ID: "2", Label: "D2", Model: "other"}, judge.Stop},
	} {
		s := pack.JudgeSet(a, c.b)
		assert.Equal(t, c.v, s.Verdict, s.Sentence)
		assert.Equal(t, s, pack.JudgeSet(c.b, a), "the order does not matter")
	}
	assert.InDelta(t, 4, pack.JudgeSet(a, candidate(2, 4200, 9500, 70, 2.5)).Cost, 1e-9)
}

// The naive way: try every way of pairing a small rack, for every part of it once.
func bestByTrying(ps []pack.Candidate) (sets int, cost float64) {
	type best struct {
		sets int
		cost float64
	}
	fits := make([][]pack.Set, len(ps))
	for i := range ps {
		for j := range ps {
			fits[i] = append(fits[i], pack.JudgeSet(ps[i], ps[j]))
		}
	}
	of := make([]best, 1<<len(ps)) // the packs of the bits
	for rack := 1; rack < len(of); rack++ {
		i := bits.TrailingZeros(uint(rack))
		of[rack] = of[rack&^(1<<i)] // i stays alone
		for j := i + 1; j < len(ps); j++ {
			if rack&(1<<j) == 0 || fits[i][j].Verdict == judge.Stop {
				continue
			}
			b := of[rack&^(1<<i)&^(1<<j)]
			b.sets, b.cost = b.sets+1, b.cost+fits[i][j].Cost
			if b.sets > of[rack].sets || b.sets == of[rack].sets && b.cost < of[rack].cost {
				of[rack] = b
			}
		}
	}
	all := of[len(of)-1]
	return all.sets, all.cost
}

func TestMatchingAgainstTryingAll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var ps []pack.Candidate
		for i := range rapid.IntRange(0, 10).Draw(t, "n") {
			c := candidate(i, float64(rapid.IntRange(4150, 4200).Draw(t, "mv")),
				float64(rapid.IntRange(9000, 10000).Draw(t, "cap")), float64(rapid.IntRange(20, 70).Draw(t, "cycles")),
				rapid.Float64Range(1.8, 2.6).Draw(t, "r"))
			if rapid.IntRange(0, 4).Draw(t, "unknown") == 0 {
				c.CapacityMAh = nil
			}
			ps = append(ps, c)
		}
		got := pack.MatchSets(ps)
		sets, cost := bestByTrying(ps)
		require.Len(t, got, sets)
		sum, seen := 0.0, map[string]bool{}
		for _, s := range got {
			sum += s.Cost
			require.NotEqual(t, judge.Stop, s.Verdict)
			require.False(t, seen[s.A] || seen[s.B], "a pack is in one set")
			seen[s.A], seen[s.B] = true, true
		}
		assert.InDelta(t, cost, sum, 1e-4)
	})
}

// A full rack is paired in no time.
func TestMatchingOfALargeRack(t *testing.T) {
	var ps []pack.Candidate
	for i := range 200 {
		ps = append(ps, candidate(i, 4150+float64(i*37%50), 9500+float64(i*71%500), float64(i*13%60), 2+float64(i*29%50)/100))
	}
	assert.GreaterOrEqual(t, len(pack.MatchSets(ps)), 95)
}

func TestStandingNamesWhatIsKnownAndWhatIsNot(t *testing.T) {
	s := pack.Stand(10000, nil)
	assert.Equal(t, judge.Clear, s.Verdict)
	assert.Len(t, s.NotKnown, 3, "%v", s.NotKnown)

	var h []pack.Measured
	rest := func(day, minutes float64, mv ...units.Millivolts) pack.Measured {
		return pack.Measured{At: start.Add(time.Duration(day*24) * time.Hour), CellMV: mv, RestedMin: &minutes}
	}
	for i, r := range resistances(4.4, 22, 5) {
		h = append(h, pack.Measured{At: r.At, TemperatureC: r.TemperatureC, MilliOhm: r.MilliOhm,
			Capacity: &pack.Capacity{MilliampHours: 7900, PlusMinus: 100}, Cycles: float64(i)})
	}
	h = append(h, rest(200, 1440, 3900, 3900, 3890), rest(204, 1440*5, 3896, 3896, 3862),
		rest(205, 1440*6, 3896, 3896, 3861))
	s = pack.Stand(10000, h)
	assert.Equal(t, judge.Stop, s.Verdict)
	require.Len(t, s.Concerns, 4, "%v", s.Concerns)
	require.NotNil(t, s.Discharge)
	assert.Equal(t, 3, s.Discharge.Suspect)
	assert.InDelta(t, 5.8, s.Discharge.MVPerDay[2], 1e-9, "over five days, from the earliest reading of the rest")
	assert.Equal(t, 3, s.LowestCell)
	assert.InDelta(t, 7900, *s.MAh, 1e-9)
	assert.InDelta(t, 3.2, *s.MilliOhm, 1e-9)

	// Charged between the two: another rest.
	h = []pack.Measured{rest(0, 1440, 3900, 3900, 3890), rest(5, 600, 3896, 3896, 3850)}
	assert.Nil(t, pack.Stand(10000, h).Discharge)
}

// A load of seconds reads more than the pulse of a charger: the two are never
// held against each other.
func TestResistanceComparesLikeWithLike(t *testing.T) {
	at := time.Date(2026, 1, 1, 12, 0, 0, 0, time.UTC)
	warm := 20.0
	m := func(day int, mohm float64, seconds ...float64) pack.Measured {
		out := pack.Measured{At: at.AddDate(0, 0, day), TemperatureC: &warm, MilliOhm: []float64{mohm, mohm}}
		if len(seconds) > 0 {
			out.LoadS = &seconds[0]
		}
		return out
	}
	var h []pack.Measured
	for day := range 7 {
		h = append(h, m(day, 3.4))
	}
	h = append(h, m(8, 14.4, 10))
	s := pack.Stand(10000, h)
	assert.Equal(t, judge.Clear, s.Resistance.Verdict, s.Resistance.Sentence)
	assert.Len(t, s.Trend, 7, "the curve is of one kind")
	for day := range 5 {
		h = append(h, m(9+day, 14.4, 10))
	}
	h = append(h, m(20, 18, 30)) // another load time begins anew
	assert.Equal(t, judge.Clear, pack.Stand(10000, h).Resistance.Verdict)
	h = append(h, m(21, 29, 11))
	s = pack.Stand(10000, h)
	assert.Equal(t, judge.Stop, s.Resistance.Verdict, s.Resistance.Sentence)
	assert.Contains(t, s.Resistance.Sentence, "Measured under load.")
	only := pack.Stand(10000, []pack.Measured{m(1, 14.4, 10)})
	assert.False(t, only.Resistance.Known)
	assert.Len(t, only.Trend, 1)
}

// Racks of up to twelve packs of which few fit each other, so that the best
// pairing must be found round odd circles of packs.
func TestMatchingOfOddRacks(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 7))
	for range 1500 {
		var ps []pack.Candidate
		for i := range 3 + r.IntN(10) {
			ps = append(ps, candidate(i, float64(4150+r.IntN(60)), float64(9000+r.IntN(1500)), float64(20+r.IntN(60)),
				1.8+r.Float64()*1.2))
		}
		sets, cost := bestByTrying(ps)
		got, sum, seen := pack.MatchSets(ps), 0.0, map[string]bool{}
		require.Len(t, got, sets)
		for _, s := range got {
			require.False(t, seen[s.A] || seen[s.B], "a pack in two sets")
			seen[s.A], seen[s.B] = true, true
			sum += s.Cost
		}
		require.InDelta(t, cost, sum, 1e-6)
	}
}
