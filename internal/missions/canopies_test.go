package missions_test

import (
	"math"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/survey"
	"mainstay/internal/missions"
	"mainstay/internal/planning"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// A plan follows the crew's table; a row that is not in use any more is said at its field.
func TestHeightFollowsTheTable(t *testing.T) {
	b := setUp(t, "Tally W")
	ctx := b.as("imre")
	row := missions.Canopy{Kind: planning.Kind{ID: testbed.NewID(), Key: "reeds", Name: "Reeds", Active: true},
		HeightM: 87}
	require.NoError(t, b.Missions.SaveCanopy(ctx, row))
	require.NoError(t, b.Missions.SaveCanopy(ctx, row), "the same press twice")
	all, err := b.Missions.CanopyList(ctx)
	require.NoError(t, err)
	assert.Len(t, all, len(survey.UsualCanopies)+1)
	w := *b.plan().Wish.Survey
	w.By, w.Canopy = survey.ByCanopy, "reeds"
	p, err := b.Missions.Try(ctx, b.job, b.craft, missions.Wish{Survey: &w})
	require.NoError(t, err)
	assert.InDelta(t, 87, p.Out.Survey.HeightM, 1e-9)
	row.Version, row.HeightM, row.Active = 1, 91, false
	require.NoError(t, b.Missions.SaveCanopy(ctx, row))
	assert.True(t, fault.Is(b.Missions.SaveCanopy(ctx, row), "stale"), "another has changed it")
	_, err = b.Missions.Try(ctx, b.job, b.craft, missions.Wish{Survey: &w})
	said, ok := fault.As(err)
	require.True(t, ok, "%v", err)
	assert.Equal(t, "canopy", said.Fields[0].Field)
	for field, bad := range map[string]missions.Canopy{"height_m": {Kind: planning.Kind{Name: "x"}, HeightM: math.NaN()},
		"name": {Kind: planning.Kind{Name: strings.Repeat("x", 61)}, HeightM: 90}} {
		said, ok := fault.As(b.Missions.SaveCanopy(ctx, bad))
		require.True(t, ok)
		assert.Equal(t, field, said.Fields[0].Field)
	}
}

// A figure of a camera that cannot be is said at its field.
func TestCameraFiguresAreNamed(t *testing.T) {
	b := setUp(t, "Tally W")
	all, err := b.Missions.CameraList(b.as("imre"))
	require.NoError(t, err)
	for field, spoil := range map[string]func(*missions.Camera){
		"sensor_w_mm": func(c *missions.Camera) { c.SensorWMM = 0 },
		"sensor_h_mm": func(c *missions.Camera) { c.SensorHMM = 900 },
		"focal_mm":    func(c *missions.Camera) { c.FocalMM = math.NaN() },
		"pixels_w":    func(c *missions.Camera) { c.PixelsW = 3 },
		"pixels_h":    func(c *missions.Camera) { c.PixelsH = -1 }, "least_s": func(c *missions.Camera) { c.LeastS = 61 },
	} {
		c := all[0]
		spoil(&c)
		said, ok := fault.As(b.Missions.SaveCamera(b.as("imre"), c))
		require.True(t, ok, field)
		assert.Equal(t, field, said.Fields[0].Field)
	}
}

// A finding keeps the picture that it was seen on; one that never arrived is refused.
func TestFindingKeepsItsPicture(t *testing.T) {
	b := setUp(t, "Lantern Three")
	p := b.plan()
	require.Len(t, p.Found, 1)
	require.NotNil(t, p.Found[0].PhotoID)
	nowhere := uuid.New()
	f := missions.Found{ID: testbed.NewID(), Picture: "IMG_1.jpg", Place: "ridge", Words: "loose rod", Severity: "watch",
		PhotoID: &nowhere}
	said, ok := fault.As(b.Missions.Find(b.as("imre"), b.job, b.craft, f))
	require.True(t, ok)
	assert.Equal(t, "photo", said.Fields[0].Field)
	f.PhotoID = p.Found[0].PhotoID
	require.NoError(t, b.Missions.Find(b.as("imre"), b.job, b.craft, f))
}
