package aircraft_test

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/internal/standins/aircraft"
)

// yard is a link to one aircraft, with a clock that is set by hand.
type yard struct {
	*aircraft.Link
	t   *testing.T
	now time.Time
}

func open(t *testing.T) *yard {
	y := &yard{t: t, now: time.Date(2026, 5, 15, 9, 0, 0, 0, time.UTC)}
	y.Link = aircraft.New(1, func() time.Time { return y.now },
		aircraft.Craft{Serial: "A1", Motors: 4, Cells: 6, At: geo.Point{Lat: 46.3, Lon: -119.7}})
	home := geo.Point{Lat: 46.3, Lon: -119.7}
	item := func(lat float64, a mission.Action, every float64) mission.Item {
		return mission.Item{At: geo.Point{Lat: lat, Lon: -119.7}, HeightM: 40, SpeedMS: 8, Action: a, EveryM: every}
	}
	y.Load("A1", mission.Mission{Name: "line", Datum: intent.AboveTakeOff, Home: &home,
		Items: []mission.Item{item(46.301, mission.Start, 10), item(46.305, mission.Stop, 0), item(46.3, mission.Return, 0)}})
	return y
}

func (y *yard) get(path string, into any) int {
	w := httptest.NewRecorder()
	y.ServeHTTP(w, httptest.NewRequest(http.MethodGet, path, nil))
	if w.Code == http.StatusOK {
		require.NoError(y.t, json.Unmarshal(w.Body.Bytes(), into))
	}
	return w.Code
}

func (y *yard) state() (s aircraft.State) {
	require.Equal(y.t, http.StatusOK, y.get("/aircraft/A1/state", &s))
	return s
}

// It climbs, flies the line, comes home and lands; the packs drain the faster the more wind.
func TestFliesItsMission(t *testing.T) {
	y := open(t)
	assert.Equal(t, "ground", y.state().Mode)
	require.NoError(t, y.Fly("A1"))
	var modes []string
	before := y.state()
	for range 300 {
		y.now = y.now.Add(time.Second)
		s := y.state()
		if len(modes) == 0 || modes[len(modes)-1] != s.Mode {
			modes = append(modes, s.Mode)
		}
		assert.LessOrEqual(t, s.Percent, before.Percent)
		assert.LessOrEqual(t, geo.Distance(s.At, before.At), 8.5, "no leap in a second")
		assert.GreaterOrEqual(t, s.Pictures, before.Pictures)
		before = s
	}
	assert.Equal(t, []string{"climb", "mission", "return", "land", "ground"}, modes)
	assert.InDelta(t, 45, before.Pictures, 2, "445 m, one each 10 m")
	still := before.Percent
	y = open(t)
	y.Wind = 9
	require.NoError(t, y.Fly("A1"))
	y.now = y.now.Add(300 * time.Second)
	assert.Less(t, y.state().Percent, still)
	require.Error(t, y.Fly("no such aircraft"))
}

// What the faults make of the state is there, in the figure that a pilot would see it in.
func TestFaultsShowInTheState(t *testing.T) {
	y := open(t)
	require.NoError(t, y.Fly("A1"))
	y.now = y.now.Add(40 * time.Second)
	fair := y.state()
	spread := func(s aircraft.State) int { return slices.Max(s.CellMV) - slices.Min(s.CellMV) }
	assert.Less(t, spread(fair), 10)
	assert.InDelta(t, fair.CourseDeg, fair.HeadingDeg, 1e-9)
	y.Set(aircraft.Faults{WeakCell: 3, WarmMotor: 2, CompassOff: true})
	s := y.state()
	assert.Equal(t, fair.CellMV[2]-140, s.CellMV[2])
	assert.Equal(t, slices.Min(s.CellMV), s.CellMV[2])
	assert.InDelta(t, fair.MotorC[1]+25, s.MotorC[1], 1e-9)
	assert.Equal(t, []string{"Motor 2 is warm."}, s.Warnings)
	assert.InDelta(t, 20, geo.Turn(s.HeadingDeg-s.CourseDeg), 1e-9)
	y.Set(aircraft.Faults{LinkLost: true})
	var gone aircraft.State
	assert.Equal(t, http.StatusServiceUnavailable, y.get("/aircraft/A1/state", &gone))
	y.now = y.now.Add(59 * time.Second)
	assert.Equal(t, http.StatusServiceUnavailable, y.get("/aircraft/A1/state", &gone))
	y.now = y.now.Add(2 * time.Second)
	assert.Greater(t, y.state().Pictures, fair.Pictures, "it flew on without the link")
}

// A camera that skips takes so many fewer, from the middle of the line on.
func TestCameraSkips(t *testing.T) {
	count := func(f aircraft.Faults) int {
		y := open(t)
		y.Set(f)
		require.NoError(t, y.Fly("A1"))
		y.now = y.now.Add(time.Hour)
		var out struct{ Pictures []aircraft.Picture }
		require.Equal(t, http.StatusOK, y.get("/aircraft/A1/pictures", &out))
		return len(out.Pictures)
	}
	assert.Equal(t, count(aircraft.Faults{})-7, count(aircraft.Faults{CameraSkips: 7}))
}
