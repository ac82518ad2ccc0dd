package firmware_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/firmware"
	"mainstay/core/judge"
)

func TestCompare(t *testing.T) {
	want := firmware.Set{firmware.Aircraft: "4.2.1", firmware.Controller: "2.0", firmware.App: "9"}
	assert.Empty(t, firmware.Compare(want, firmware.Set{firmware.Aircraft: " 4.2.1", firmware.Controller: "2.0",
		firmware.App: "9", firmware.Payload: "7"}, false), "what the set does not name is free")
	got := firmware.Compare(want, firmware.Set{firmware.Aircraft: "4.2.10", firmware.App: "9"}, false)
	assert.Equal(t, []firmware.Component{firmware.Aircraft, firmware.Controller},
		[]firmware.Component{got[0].Component, got[1].Component})
	assert.Equal(t, judge.Stop, got[0].Verdict, "4.2.10 is not 4.2.1")
	assert.Equal(t, judge.Watch, got[1].Verdict, "unknown is a finding")
	for _, isNew := range []bool{false, true} {
		none := firmware.Compare(nil, nil, isNew)
		require.Len(t, none, 2, "aircraft and controller are always wanted")
		assert.Equal(t, map[bool]judge.Verdict{false: judge.Watch, true: judge.Stop}[isNew], none[0].Verdict)
	}
	assert.Empty(t, firmware.Compare(nil, firmware.Set{firmware.Aircraft: "1", firmware.Controller: "2"}, true))
	for _, c := range firmware.AllComponents {
		assert.True(t, firmware.Known(c))
		assert.Len(t, firmware.Compare(firmware.Set{c: "1"},
			firmware.Set{c: "2", firmware.Aircraft: "2", firmware.Controller: "2"}, false), 1)
	}
	assert.False(t, firmware.Known("toaster"))
}
