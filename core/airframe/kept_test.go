package airframe_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/airframe"
	"mainstay/core/practice"
	"mainstay/core/wear"
)

// What a profile gives is the maker's and overrules the crew; what it leaves out
// is the crew's.
func TestMakerOverCrew(t *testing.T) {
	crew := practice.Settings{practice.LaunchCharge: {School: "full"}, practice.PowerOrder: {School: "aircraft-first"},
		practice.Propellers:      {School: "hours", Numbers: map[string]float64{"hours": 10}},
		practice.VerticalSensing: {School: "off"}}
	open := airframe.Type{Practice: crew}
	assert.Equal(t, 100.0, open.LaunchPercent())
	assert.Equal(t, "aircraft-first", open.Kept().Power())
	assert.Equal(t, wear.Limits{Hours: 10}, open.Lives()["propeller"])
	assert.Empty(t, open.Demanded())

	for id, x := range map[practice.ID]airframe.Type{
		practice.LaunchCharge:    {Practice: crew, Limits: airframe.Limits{LaunchPercent: 90}},
		practice.PowerOrder:      {Practice: crew, PowerOrder: "controller-first"},
		practice.Propellers:      {Practice: crew, Wear: map[string]wear.Limits{"propeller": {Hours: 30}}},
		practice.VerticalSensing: {Practice: crew, Demands: practice.Settings{practice.VerticalSensing: {School: "on"}}},
	} {
		assert.Equal(t, []practice.ID{id}, x.Demanded())
		assert.Equal(t, id == practice.LaunchCharge, x.LaunchPercent() == 90, id)
		assert.Equal(t, id == practice.PowerOrder, x.Kept().Power() == "controller-first", id)
		assert.Equal(t, id == practice.Propellers, x.Lives()["propeller"].Hours == 30, id)
		assert.Equal(t, id == practice.VerticalSensing, x.Kept().ToSet(true)[1] == "vertical sensing on", id)
	}
	assert.Len(t, airframe.Type{Geometry: airframe.Geometry{Kind: airframe.FixedWing}}.Kept().ToSet(false), 4)
	assert.False(t, airframe.Type{Geometry: airframe.Geometry{Kind: airframe.FixedWing}}.Lifts())
	assert.True(t, airframe.Type{Geometry: airframe.Geometry{Kind: airframe.VerticalWing}}.Lifts())
}
