package day_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/internal/day"
	"mainstay/internal/testbed"
)

// A crew that begins is told what is left to set; with the first flight the list is gone.
func TestTheStartOfACrew(t *testing.T) {
	s := testbed.NewStage(t)
	h := &day.Handlers{Flights: s.Flights}
	steps := func() map[api.StartStepKey]bool {
		r, err := h.GetDay(s.As(s.Pilot), api.GetDayRequestObject{})
		require.NoError(t, err)
		d := api.Day(r.(api.GetDay200JSONResponse))
		if d.Start == nil {
			return nil
		}
		out := map[api.StartStepKey]bool{}
		for _, x := range *d.Start {
			out[x.Key] = x.Done
		}
		return out
	}
	got := steps()
	require.Len(t, got, 7)
	assert.True(t, got[api.StartStepKeyAircraft])
	assert.True(t, got[api.StartStepKeyPacks])
	assert.False(t, got[api.StartStepKeyPractice])
	require.NoError(t, s.DB.Exec("update people set trained_on = null").Error)
	assert.False(t, steps()[api.StartStepKeyPeople], "nobody's training is on file")
	require.NoError(t, s.DB.Exec("update people set trained_on = '2026-01-15', certificate = 'RP-1'").Error)
	assert.True(t, steps()[api.StartStepKeyPeople])
	require.NoError(t, s.DB.Exec("update aircraft set mass_kg = null").Error)
	assert.False(t, steps()[api.StartStepKeyMass])
	require.NoError(t, s.DB.Exec("update aircraft set mass_kg = 7").Error)
	s.Fly(checks.Full, s.Packs[0].ID, 120)
	assert.Nil(t, steps())
}
