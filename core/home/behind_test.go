package home_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/home"
)

// The sector reaches its buffer behind the place and beyond its end, not farther.
func TestSectorReachesItsBuffer(t *testing.T) {
	tall := 300.0
	blocked := func(x float64) bool {
		o := []home.Obstacle{{Name: "mast", Kind: home.PointKind, Places: []geo.XY{{X: x}}, HeightM: &tall, BufferM: 5,
			GroundKnown: true}}
		b, err := home.Sector(home.Place3{At: geo.XY{}}, 90, home.Slope{Rise: 0.3}, o, nil)
		require.NoError(t, err)
		return b != nil
	}
	assert.True(t, blocked(-4.9))
	assert.False(t, blocked(-5.1))
	assert.True(t, blocked(home.SectorLengthM+4.9))
	assert.False(t, blocked(home.SectorLengthM+5.1))
}
