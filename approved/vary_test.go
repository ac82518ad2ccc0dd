package approved_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"mainstay/approved"
)

type thing struct {
	A float64
	B *float64
	C []bool
	D time.Time
	n int
}

// Every leaf is changed by itself, and the value handed in stays as it was.
func TestVaryChangesOneThingAtATime(t *testing.T) {
	b := 2.0
	v := thing{A: 1, B: &b, C: []bool{true}, D: time.Unix(0, 0).UTC(), n: 3}
	seen := map[string]thing{}
	approved.Vary(v, func(what string, x thing) { seen[what] = x })
	assert.Len(t, seen, 9+1+9+1+5)
	assert.Equal(t, 10.0, seen[".A 10"].A)
	assert.Equal(t, 2.0, *seen[".A 10"].B)
	assert.Nil(t, seen[".B none"].B)
	assert.Equal(t, 4.0, *seen[".B 4"].B)
	assert.False(t, seen[".C[0] false"].C[0])
	assert.Equal(t, int64(1), seen[".D 1s"].D.Unix())
	assert.Equal(t, thing{A: 1, B: &b, C: []bool{true}, D: time.Unix(0, 0).UTC(), n: 3}, v)
}
