package units_test

import (
	"errors"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/units"
)

func TestWithin(t *testing.T) {
	mine := errors.New("mine")
	r := units.Refuser{Wraps: mine}
	for _, v := range []float64{1, 1.5, 2} {
		assert.NoError(t, r.Within("x", v, 1, 2))
	}
	for _, v := range []float64{0.999, 2.001, math.NaN(), math.Inf(1), math.Inf(-1)} {
		err := r.Within("x", v, 1, 2)
		assert.ErrorIs(t, err, mine)
		assert.ErrorContains(t, err, "is not between 1 and 2")
	}
}
