package mission_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
	"mainstay/core/mission"
)

func deg(v float64) *float64 { return &v }

// rows is a mission of n waypoints in rows, 20 m apart.
func rows(n int) mission.Mission {
	m := mission.Mission{Name: "rows", Datum: intent.AboveTakeOff, Home: &geo.Point{Lat: 46.3, Lon: -119.7}}
	for i := range n {
		a := mission.Start
		if i%2 == 1 {
			a = mission.Stop
		}
		x := mission.Item{At: geo.Point{Lat: 46.31 + float64(i%40)*0.00018, Lon: -119.71 + float64(i/40)*0.00026},
			HeightM: 80, SpeedMS: 10, Action: a, HeadingDeg: deg(45), GimbalDeg: deg(-90)}
		if a == mission.Start {
			x.EveryM = 22.5
		}
		m.Items = append(m.Items, x)
	}
	return m
}

// Equal missions have no difference; within the limits neither.
func TestEqualMissions(t *testing.T) {
	p := rows(50)
	r := rows(50)
	for i := range r.Items {
		r.Items[i].HeightM += 0.5
		r.Items[i].SpeedMS -= 0.1
		r.Items[i].At.Lat += 0.9 / 111_200
	}
	r.Home = &geo.Point{Lat: p.Home.Lat + 4.9/111_200, Lon: p.Home.Lon}
	d, err := mission.Compare(p, r)
	require.NoError(t, err)
	assert.Empty(t, d)
	assert.Equal(t, judge.Clear, mission.Verdict(d))
	assert.Equal(t, p.Hash(), rows(50).Hash())
	assert.NotEqual(t, p.Hash(), r.Hash())
}

// Each single change of a mission, of any field and waypoint, is found, and told by what
// it is.
func TestEveryMutationIsFound(t *testing.T) {
	p := rows(120)
	changes := map[mission.Kind]func(m *mission.Mission, i int, by float64){
		mission.Place:   func(m *mission.Mission, i int, by float64) { m.Items[i].At.Lat += (1.1 + 5*by) / 111_200 },
		mission.Height:  func(m *mission.Mission, i int, by float64) { m.Items[i].HeightM += 0.51 + 40*by },
		mission.Speed:   func(m *mission.Mission, i int, by float64) { m.Items[i].SpeedMS += 0.11 + 5*by },
		mission.Doing:   func(m *mission.Mission, i int, _ float64) { m.Items[i].Action = mission.Hold },
		mission.Camera:  func(m *mission.Mission, i int, by float64) { m.Items[i].GimbalDeg = deg(-88.9 + 40*by) },
		mission.Missing: func(m *mission.Mission, i int, _ float64) { m.Items = slices.Delete(m.Items, i, i+1) },
		mission.Extra: func(m *mission.Mission, i int, _ float64) {
			x := m.Items[i]
			x.At.Lon += 0.005
			m.Items = slices.Insert(m.Items, i, x)
		},
		mission.Order: func(m *mission.Mission, i int, by float64) {
			j := (i + 1 + int(by*30)) % len(m.Items)
			m.Items[i], m.Items[j] = m.Items[j], m.Items[i]
		},
		mission.Datum: func(m *mission.Mission, _ int, _ float64) { m.Datum = intent.AboveSea },
		mission.Home: func(m *mission.Mission, _ int, by float64) {
			m.Home = &geo.Point{Lat: m.Home.Lat, Lon: m.Home.Lon + (5.2+by)/76_900}
		},
	}
	kinds := []mission.Kind{mission.Place, mission.Height, mission.Speed, mission.Doing, mission.Camera, mission.Missing,
		mission.Extra, mission.Order, mission.Datum, mission.Home}
	rapid.Check(t, func(t *rapid.T) {
		for range 10 { // a thousand changes in a run of a hundred
			kind := rapid.SampledFrom(kinds).Draw(t, "kind")
			m := rows(120)
			changes[kind](&m, rapid.IntRange(0, 119).Draw(t, "waypoint"), rapid.Float64Range(0, 1).Draw(t, "by"))
			d, err := mission.Compare(p, m)
			require.NoError(t, err)
			assert.True(t, slices.ContainsFunc(d, func(x mission.Difference) bool { return x.Kind == kind }),
				"%s is not told: %v", kind, d)
			assert.LessOrEqual(t, len(d), 8, "%s is told once: %v", kind, d)
			assert.Equal(t, judge.Stop, mission.Verdict(d))
		}
	})
	m := rows(120)
	m.Items[3].HeadingDeg, m.Items[5].EveryM, m.Home = nil, 90, nil
	d, err := mission.Compare(p, m)
	require.NoError(t, err)
	assert.Len(t, d, 3, "%v", d)
}

// Another mission is called one; left-over waypoints are named.
func TestAnotherMissionAndLeftOver(t *testing.T) {
	p, r := rows(40), rows(40)
	for i := range r.Items {
		r.Items[i].At.Lon += 0.02
	}
	d, err := mission.Compare(p, r)
	require.NoError(t, err)
	assert.Equal(t, mission.Another, d[0].Kind)
	r = rows(44)
	d, err = mission.Compare(p, r)
	require.NoError(t, err)
	assert.Len(t, d, 5)
	assert.Contains(t, d[4].Sentence, "left over")
	higher := rows(5000)
	for i := range higher.Items {
		higher.Items[i].HeightM += 20
	}
	long, err := mission.Compare(rows(5000), higher)
	require.NoError(t, err)
	assert.Len(t, long, mission.MostShown+1)
	assert.Contains(t, long[len(long)-1].Sentence, "more differences")
}

// What cannot be flown is refused with its waypoint.
func TestMissionsThatCannotBe(t *testing.T) {
	for want, change := range map[string]func(*mission.Mission){
		"no waypoint":   func(m *mission.Mission) { m.Items = nil },
		"waypoint 3":    func(m *mission.Mission) { m.Items[2].HeightM = math.NaN() },
		"waypoint 2":    func(m *mission.Mission) { m.Items[1].Action = "dance" },
		"date line":     func(m *mission.Mission) { m.Items[4].At.Lon, m.Items[5].At.Lon = 179.99, -179.99 },
		"none of":       func(m *mission.Mission) { m.Datum = "moon" },
		"home":          func(m *mission.Mission) { m.Home = &geo.Point{Lat: 91} },
		"gimbal":        func(m *mission.Mission) { m.Items[1].GimbalDeg = deg(200) },
		"20001 waypoin": func(m *mission.Mission) { m.Items = rows(20001).Items },
	} {
		m := rows(9)
		change(&m)
		err := m.Check()
		require.ErrorIs(t, err, mission.ErrMission, want)
		assert.Contains(t, err.Error(), want)
		_, err = mission.Compare(rows(9), m)
		assert.ErrorContains(t, err, "what was read")
		_, err = mission.Compare(m, rows(9))
		assert.ErrorContains(t, err, "what was planned")
	}
	for _, a := range mission.AllActions {
		assert.NotEmpty(t, a.Words())
	}
}

// The first leg as it is read out.
func TestFirstLeg(t *testing.T) {
	m := rows(2)
	m.Items[0].HeightM = 40
	from := geo.Point{Lat: m.Items[0].At.Lat + 152.6/111_195, Lon: m.Items[0].At.Lon + 95.4/76_810}
	f, ok := m.First(from, nil)
	require.True(t, ok)
	assert.Equal(t, "It will climb to 40 m and fly 212 degrees for 180 m.", f.Sentence)
	m.Datum, m.Items[0].HeightM = intent.AboveSea, 340
	f, _ = m.First(from, deg(300))
	assert.InDelta(t, 40, f.ClimbM, 1e-9)
	f, _ = m.First(from, nil)
	assert.Contains(t, f.Sentence, "340 m above sea level")
	_, ok = mission.Mission{}.First(from, nil)
	assert.False(t, ok)
}

// What was read is held against ground, ceiling and areas even when it equals the plan.
func TestWayIsJudged(t *testing.T) {
	frame, err := geo.NewFrame(geo.Point{Lat: 46.31, Lon: -119.71})
	require.NoError(t, err)
	ground := &home.Terrain{Origin: geo.XY{X: -500, Y: -500}, CellM: 10, Columns: 200, Rows: 200,
		Heights: make([]float32, 40_000)}
	for i := range ground.Heights {
		ground.Heights[i] = 300
	}
	ceiling := 120.0
	c := mission.Chart{Frame: frame, Terrain: ground, TakeOffM: 300, CeilingM: &ceiling, LeastM: 15}
	m := rows(10)
	assert.Empty(t, m.Judge(c))
	for name, change := range map[string]func(*mission.Mission, *mission.Chart){
		"120 m are allowed": func(m *mission.Mission, _ *mission.Chart) { m.Items[4].HeightM = 120.2 },
		"15.0 m are kept":   func(m *mission.Mission, _ *mission.Chart) { m.Items[4].HeightM = 14.9 },
		"outside of what": func(_ *mission.Mission, c *mission.Chart) {
			c.Outline, c.ReachM = geo.Ring{{X: -10, Y: -10}, {X: 50, Y: -10}, {X: 50, Y: 50}}, 20
		},
		"runs into the mast": func(_ *mission.Mission, c *mission.Chart) {
			tall := 90.0
			c.OverM, c.Stand = 10, []home.Obstacle{{Name: "the mast", Kind: home.PointKind, Places: []geo.XY{{X: 0, Y: 50}},
				HeightM: &tall, GroundM: 300, BufferM: 5}}
		},
		"enters the school": func(_ *mission.Mission, c *mission.Chart) {
			c.Keep = []home.Obstacle{{Name: "the school", Kind: home.PointKind, Places: []geo.XY{{X: 0, Y: 50}}, BufferM: 5}}
		},
		"does not cover all":  func(_ *mission.Mission, c *mission.Chart) { c.Terrain = nil },
		"over the ground; 15": func(m *mission.Mission, _ *mission.Chart) { m.Datum = intent.AboveSea },
	} {
		m, c := rows(10), c
		change(&m, &c)
		out := m.Judge(c)
		if assert.NotEmpty(t, out, name) {
			assert.Contains(t, fmt.Sprint(out), name)
		}
	}
	m.Datum = intent.AboveGround
	assert.Empty(t, m.Judge(c))
}

// BenchmarkCompare compares missions of 5,000 waypoints, equal and with one dropped early.
func BenchmarkCompare(b *testing.B) {
	p, r := rows(5000), rows(5000)
	r.Items = slices.Delete(r.Items, 10, 11)
	for b.Loop() {
		if _, err := mission.Compare(p, r); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkCompareAnother compares two that have nothing in common.
func BenchmarkCompareAnother(b *testing.B) {
	p, r := rows(5000), rows(5000)
	for i := range r.Items {
		r.Items[i].At.Lon += 0.02
	}
	for b.Loop() {
		if _, err := mission.Compare(p, r); err != nil {
			b.Fatal(err)
		}
	}
}
