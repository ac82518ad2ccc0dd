package airframe_test

import (
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airframe"
	"mainstay/core/pack"
	"mainstay/core/wear"
)

func shipped(t *testing.T) map[string]airframe.Type {
	t.Helper()
	files, err := filepath.Glob("../../internal/fleet/shipped/*.json")
	require.NoError(t, err)
	require.Len(t, files, 6)
	out := map[string]airframe.Type{}
	for _, f := range files {
		b, err := os.ReadFile(f)
		require.NoError(t, err)
		var a airframe.Type
		require.NoError(t, json.Unmarshal(b, &a), f)
		out[a.Key] = a
	}
	return out
}

func TestShippedTypesAreUsable(t *testing.T) {
	kinds := map[airframe.Kind]bool{}
	for key, a := range shipped(t) {
		assert.NoError(t, a.Validate(), key)
		kinds[a.Geometry.Kind] = true
		ids := map[string]bool{}
		for _, s := range a.Stations() {
			assert.False(t, ids[s.ID], "%s: %s twice", key, s.ID)
			ids[s.ID] = true
		}
		for _, s := range a.PartStations() {
			assert.Contains(t, a.Lives(), s.Part, "%s: %s has a life", key, s.ID)
		}
	}
	for _, k := range airframe.AllKinds {
		assert.True(t, kinds[k], "a shipped type shows layout %s", k)
	}
}

// Discs of neighbouring rotors must not touch: the distance between adjacent
// motors on a circle is 2 r sin(pi/n).
func TestShippedRotorsDoNotTouch(t *testing.T) {
	for key, a := range shipped(t) {
		g := a.Geometry
		if g.Rotors == 0 {
			continue
		}
		gap := 2*float64(g.ArmM)*math.Sin(math.Pi/float64(g.Rotors)) - float64(g.RotorDiameterM)
		assert.Positive(t, gap, key)
	}
}

func TestRotorsGoClockwiseFromTheFrontRight(t *testing.T) {
	a := shipped(t)["lantern-4"]
	at := map[string]airframe.Station{}
	for _, s := range a.Stations() {
		at[s.ID] = s
	}
	assert.True(t, at["motor-1"].X > 0 && at["motor-1"].Y > 0, "front right")
	assert.True(t, at["motor-2"].X > 0 && at["motor-2"].Y < 0, "rear right")
	assert.True(t, at["motor-3"].X < 0 && at["motor-3"].Y < 0, "rear left")
	assert.True(t, at["motor-4"].X < 0 && at["motor-4"].Y > 0, "front left")
	for i := range 4 {
		m := at["motor-"+string(rune('1'+i))]
		assert.InDelta(t, 0.48, math.Hypot(float64(m.X), float64(m.Y)), 1e-3)
	}
	assert.Equal(t, 4, a.SisterMotors())
	assert.Equal(t, 4, shipped(t)["tally-v"].SisterMotors(), "the drive motor has no sister")
	assert.Equal(t, 1, shipped(t)["tally-w"].SisterMotors())
	assert.Len(t, a.PartStations(), 4+4+1)
}

func TestValidateNamesWhatIsWrong(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*airframe.Type)
		says   string
	}{
		"key":         {func(a *airframe.Type) { a.Key = "Dray 30" }, "key"},
		"name":        {func(a *airframe.Type) { a.Name = "" }, "name"},
		"version":     {func(a *airframe.Type) { a.Version = 0 }, "version"},
		"order":       {func(a *airframe.Type) { a.PowerOrder = "any" }, "power_order"},
		"mass":        {func(a *airframe.Type) { a.Limits.TakeoffMassKg = 0 }, "takeoff_mass_kg"},
		"wind":        {func(a *airframe.Type) { a.Limits.GustMS = 1 }, "gust_ms"},
		"height":      {func(a *airframe.Type) { a.Limits.FlightHeightM = 0 }, "flight_height_m"},
		"launch":      {func(a *airframe.Type) { a.Limits.LaunchPercent = 101 }, "launch_percent"},
		"minutes":     {func(a *airframe.Type) { a.Limits.PlannedMinutes = math.NaN() }, "planned_minutes"},
		"warmth":      {func(a *airframe.Type) { a.Limits.WarmthOutlierC = 0 }, "warmth_outlier_c"},
		"cells":       {func(a *airframe.Type) { a.Packs.Cells = 0 }, "cells"},
		"percent":     {func(a *airframe.Type) { a.Packs.PercentFrom = "guess" }, "percent_from"},
		"no table":    {func(a *airframe.Type) { a.Packs.Chemistry = pack.LiHV }, "only known for LiPo"},
		"chemistry":   {func(a *airframe.Type) { a.Packs.PercentFrom, a.Packs.Chemistry = "pack", "lead" }, "chemistry"},
		"land by":     {func(a *airframe.Type) { a.Limits.LandByCellMV = 5000 }, "land_by_cell_mv"},
		"call":        {func(a *airframe.Type) { a.Packs.CallOutEvery = 0 }, "call_out"},
		"wear":        {func(a *airframe.Type) { a.Wear = map[string]wear.Limits{"motor": {Hours: -1}} }, "not within"},
		"rotors":      {func(a *airframe.Type) { a.Geometry.Rotors = 1 }, "rotors"},
		"arm":         {func(a *airframe.Type) { a.Geometry.ArmM = 0 }, "arm_m"},
		"layout":      {func(a *airframe.Type) { a.Geometry.Kind = "balloon" }, "balloon"},
		"wing":        {func(a *airframe.Type) { a.Geometry = airframe.Geometry{Kind: airframe.FixedWing} }, "span_m"},
		"wing rotors": {func(a *airframe.Type) { *a = shipped(t)["tally-w"]; a.Geometry.Rotors = 2 }, "no lifting"},
		"vertical":    {func(a *airframe.Type) { *a = shipped(t)["tally-v"]; a.Geometry.Rotors = 6 }, "4 lifting"},
	} {
		a := shipped(t)["dray-30"]
		c.change(&a)
		err := a.Validate()
		require.ErrorIs(t, err, airframe.ErrType, name)
		assert.Contains(t, err.Error(), c.says, name)
	}
}

func TestPositionsMakeATree(t *testing.T) {
	typ := shipped(t)["lantern-4"]
	typ.Equipment = []airframe.Equipment{{Kind: "arm", At: "arm"}, {Kind: "speed-controller", At: "arm"},
		{Kind: "nozzle", At: "payload", Count: 4}, {Kind: "light", At: "arm", Count: 2},
		{Kind: "receiver", At: "electronics"}}
	require.NoError(t, typ.Validate())
	ps := typ.Positions()
	byID := map[string]airframe.Position{}
	for _, p := range ps {
		byID[p.ID] = p
	}
	assert.Len(t, byID, len(ps), "each position has its own id")
	assert.Len(t, ps, 1+4+4+4+4+4+8+1)
	assert.Equal(t, "motor-2", byID["propeller-2"].Parent)
	assert.Equal(t, "arm-2", byID["motor-2"].Parent)
	assert.Equal(t, "arm-2", byID["speed-controller-2"].Parent)
	assert.Equal(t, "Speed controller 2", byID["speed-controller-2"].Label)
	assert.Equal(t, "Light 3 2", byID["light-3-2"].Label)
	assert.Equal(t, "Nozzle 4", byID["nozzle-4"].Label)
	assert.Equal(t, "electronics", byID["receiver"].Station)
	assert.False(t, byID["nozzle-1"].Required)
	for _, p := range ps {
		steps := 0
		for at := p.ID; at != "frame"; at = byID[at].Parent {
			require.Less(t, steps, 5, "%s reaches the frame", p.ID)
			steps++
		}
	}
	for _, e := range []airframe.Equipment{{Kind: "keel", At: "arm"}, {Kind: "light", At: "keel"},
		{Kind: "light", At: "arm", Count: 41}} {
		bad := typ
		bad.Equipment = []airframe.Equipment{e}
		assert.Error(t, bad.Validate(), "%v", e)
	}
	twice := typ
	twice.Equipment = []airframe.Equipment{{Kind: "light", At: "frame"}, {Kind: "light", At: "payload"}}
	assert.Error(t, twice.Validate())
}
