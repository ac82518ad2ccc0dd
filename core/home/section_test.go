package home_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// A thing is in the section exactly when the line comes within its reach, as a
// plain search over many places of the line finds it; and it stands there where it
// is nearest.
func TestSectionHoldsWhatStandsNearTheLine(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		place := func(name string) geo.XY {
			return geo.XY{X: rapid.Float64Range(-300, 300).Draw(t, name+" x"),
				Y: rapid.Float64Range(-300, 300).Draw(t, name+" y")}
		}
		line := []geo.XY{place("a"), place("b"), place("c")}
		h := rapid.Float64Range(0, 40).Draw(t, "height")
		tree := home.Obstacle{ID: "t", Name: "tree", Kind: home.PointKind, Places: []geo.XY{place("tree")}, HeightM: &h,
			BufferM: rapid.Float64Range(0, 30).Draw(t, "buffer")}
		got, err := home.Along(line, nil, nil, []home.Obstacle{tree}, 2)
		require.NoError(t, err)
		near, length := math.Inf(1), 0.0
		for i := 1; i < len(line); i++ {
			length += geo.Dist(line[i-1], line[i])
			for k := range 2001 {
				near = min(near, geo.Dist(tree.Places[0], line[i-1].Add(line[i].Sub(line[i-1]).Times(float64(k)/2000))))
			}
		}
		require.InDelta(t, length, got.LengthM, 1e-9)
		require.InDelta(t, length, got.Steps[len(got.Steps)-1].AlongM, 1e-9)
		reach := tree.BufferM + 2
		if math.Abs(near-reach) < 0.5 {
			return // nearer than the plain search can tell
		}
		require.Len(t, got.Tops, map[bool]int{true: 1, false: 0}[near < reach])
	})
}

func TestSectionOverHills(t *testing.T) {
	ground := &home.Terrain{Origin: geo.XY{X: -100, Y: -100}, CellM: 10, Columns: 21, Rows: 21,
		Heights: make([]float32, 21*21)}
	for i := range ground.Heights {
		ground.Heights[i] = float32(200 + 10*(i%21)) // rises eastward, a metre a metre
	}
	got, err := home.Along([]geo.XY{{X: -100}, {X: 0}, {X: 200}}, ground, nil, nil, 0)
	require.NoError(t, err)
	for _, s := range got.Steps {
		if s.AlongM > 205.1 {
			assert.Nil(t, s.GroundM, "the terrain ends there")
			continue
		}
		if s.AlongM > 204.9 {
			continue
		}
		require.NotNil(t, s.GroundM, s.AlongM)
		assert.InDelta(t, 200+s.AlongM, *s.GroundM, 5.01, "to half a cell")
	}
	level := 210.0
	got, err = home.Along([]geo.XY{{}, {X: 50}}, nil, &level, nil, 0)
	require.NoError(t, err)
	assert.InDelta(t, 210, *got.Steps[7].GroundM, 1e-9)
	got, err = home.Along([]geo.XY{{}, {X: 50}}, nil, nil, nil, 0)
	require.NoError(t, err)
	assert.Nil(t, got.Steps[7].GroundM, "nobody knows it")
	for _, bad := range [][]geo.XY{nil, {{}}, {{}, {X: math.NaN()}}} {
		_, err := home.Along(bad, nil, nil, nil, 0)
		require.ErrorIs(t, err, home.ErrInput)
	}
}
