package airframe_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/mass"
)

// Every shipped type has a model that can be used, and says what is assumed.
func TestModelsOfTheShippedTypes(t *testing.T) {
	for key, ty := range shipped(t) {
		m, assumed := ty.Model(nil)
		require.NoError(t, m.Check(), key)
		assert.Empty(t, assumed, key)
		bare := ty
		bare.Power = nil
		m, assumed = bare.Model(nil)
		require.NoError(t, m.Check(), key)
		assert.NotEmpty(t, assumed, key)
	}
	hexa := shipped(t)["dray-30"]
	m, _ := hexa.Model(&energy.Learned{Own: true, Efficiency: 0.5})
	assert.InDelta(t, 0.5, m.Efficiency, 0)
	m, _ = hexa.Model(&energy.Learned{Efficiency: 0.5})
	assert.InDelta(t, 0.58, m.Efficiency, 0, "too few flights")
	wing := shipped(t)["tally-w"]
	m, _ = wing.Model(&energy.Learned{Own: true, Efficiency: 0.4})
	assert.InDelta(t, 0.4, m.Own(), 0)
	hexa.Power.Coaxial = true
	m, _ = hexa.Model(nil)
	assert.Equal(t, 12, m.Discs)
}

func TestMassOfASprayerAndItsMotors(t *testing.T) {
	hexa := shipped(t)["dray-30"]
	items, ok := hexa.Items(hexaLoad())
	require.True(t, ok)
	s, err := mass.Add(items)
	require.NoError(t, err)
	assert.InDelta(t, 25.5+12.8+30, s.Kg, 1e-9)
	b, err := hexa.BalanceLimits().Judge(s, hexa.LiftMotors(), 72)
	require.NoError(t, err)
	assert.Len(t, b.Shares, 6)
	assert.Empty(t, b.Says, "full tank and standard packs are in its range")
	_, ok = shipped(t)["tally-w"].Items(hexaLoad())
	assert.False(t, ok, "what a type does not say is not guessed")
}

func hexaLoad() airframe.Load { return airframe.Load{LiquidKg: 30} }
