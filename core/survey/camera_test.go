package survey_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/survey"
)

// inch is a camera with a sensor of 13.2 x 8.8 mm behind 8.8 mm.
var inch = survey.Camera{SensorWMM: 13.2, SensorHMM: 8.8, FocalMM: 8.8, PixelsW: 5472, PixelsH: 3648, LeastS: 2}

// From 90 m: 2.467 cm, 135 x 90 m, lines 40.5 m and pictures 22.5 m apart for 70 and 75
// percent; at 8 m/s one each 2.81 s, 0.41 pixels of blur at 1/800 s.
func TestPicturesByHand(t *testing.T) {
	p, err := inch.See(90)
	require.NoError(t, err)
	assert.InDelta(t, 0.02467, p.GroundGSDM, 1e-5)
	assert.InDelta(t, 135, p.AcrossM, 1e-9)
	assert.InDelta(t, 90, p.AlongM, 1e-9)
	lines, pictures, err := p.Spacing(70, 75)
	require.NoError(t, err)
	assert.InDelta(t, 40.5, lines, 1e-9)
	assert.InDelta(t, 22.5, pictures, 1e-9)
	pace, err := inch.Pace(p, pictures, 8, 1.0/800)
	require.NoError(t, err)
	assert.InDelta(t, 2.8125, pace.IntervalS, 1e-9)
	assert.InDelta(t, 0.405, pace.BlurPx, 5e-4)
	assert.Equal(t, judge.Clear, pace.Verdict)
	pace, err = inch.Pace(p, pictures, 10, 1.0/800)
	require.NoError(t, err)
	assert.Equal(t, judge.Stop, pace.Verdict, "2.25 s are under 1.2 times 2 s")
	assert.InDelta(t, 9.375, pace.FitsMS, 1e-9)
	c := inch
	c.Turned = true
	turned, err := c.See(90)
	require.NoError(t, err)
	assert.InDelta(t, 90, turned.AcrossM, 1e-9)
}

// The height for a resolution gives that resolution back, and overlap shrinks spacing.
func TestHeightAndResolutionAreOne(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		gsd := rapid.Float64Range(0.002, 0.5).Draw(r, "gsd")
		h, err := inch.HeightFor(gsd)
		require.NoError(r, err)
		if h < 0.5 || h > 5000 {
			return
		}
		p, err := inch.See(h)
		require.NoError(r, err)
		assert.InDelta(r, gsd, p.GroundGSDM, 1e-9)
		a, b, err := p.Spacing(60, 70)
		require.NoError(r, err)
		c, d, err := p.Spacing(70, 80)
		require.NoError(r, err)
		assert.True(r, c < a && d < b)
	})
}

func TestLinesAndPictures(t *testing.T) {
	for _, c := range []struct {
		width, spacing float64
		want           int
	}{{0, 40, 1}, {40, 40, 1}, {41, 40, 2}, {400, 40, 10}, {0.3, 0.1, 3}} {
		n, err := survey.Lines(c.width, c.spacing)
		require.NoError(t, err)
		assert.Equal(t, c.want, n, "%g by %g", c.width, c.spacing)
	}
	n, err := survey.Pictures(225, 22.5)
	require.NoError(t, err)
	assert.Equal(t, 11, n)
	_, err = survey.Lines(math.NaN(), 1)
	assert.ErrorIs(t, err, survey.ErrInput)
	p, _ := inch.See(50)
	_, _, err = p.Spacing(100, 70)
	assert.ErrorIs(t, err, survey.ErrInput, "full overlap never comes on")
}
