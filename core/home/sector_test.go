package home_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/geo"
	"mainstay/core/home"
)

var gentle = home.Slope{Rise: 0.2} // 1 in 5

func TestSectorByHand(t *testing.T) {
	pole := func(x, y, h float64) home.Obstacle {
		return home.Obstacle{Name: "Pole", Kind: home.PointKind, Places: []geo.XY{{X: x, Y: y}}, HeightM: &h, GroundM: 100}
	}
	unknown := pole(0, 150, 0)
	unknown.HeightM = nil
	wire := home.Obstacle{Name: "Wire", Kind: home.LineKind, Places: []geo.XY{{X: -500, Y: 100}, {X: 500, Y: 100}},
		HeightM: f(9), GroundM: 100, Wire: true}
	hedge := wire
	hedge.Wire, hedge.Name = false, "Hedge"
	wood := home.Obstacle{Name: "Wood", Kind: home.AreaKind,
		Places: []geo.XY{{X: -900, Y: 200}, {X: 900, Y: 200}, {X: 900, Y: 900}, {X: -900, Y: 900}}, HeightM: f(35),
		GroundM: 100}
	for name, x := range map[string]struct {
		o       home.Obstacle
		along   float64
		blocked bool
	}{
		"ahead, under the path":         {pole(0, 100, 10), 0, false}, // the path is at 20 m and keeps 10
		"ahead, a little too high":      {pole(0, 100, 10.1), 0, true},
		"near and low":                  {pole(0, 20, 2), 0, false}, // at 4 m it keeps 2
		"near and too high":             {pole(0, 20, 2.1), 0, true},
		"beside the sector":             {pole(40, 100, 60), 0, false}, // 10 + 100 tan 15 = 36.8 m
		"inside its edge":               {pole(36, 100, 60), 0, true},
		"behind":                        {pole(0, -50, 60), 0, false},
		"behind, the other way":         {pole(0, -50, 60), 180, true},
		"too far to matter":             {pole(0, 301, 90), 0, false},
		"height not known":              {unknown, 0, true},
		"not known, another way":        {unknown, 90, false},
		"a hedge across":                {hedge, 0, false}, // 9 m under 10
		"wires across keep ten":         {wire, 0, false},  // 20 - 10 = 10 over 9
		"a wood whose edges lie beside": {wood, 0, true},   // at 200 m the path is at 40 m
	} {
		b, err := home.Sector(home.Place3{At: geo.XY{}, M: 100}, x.along, gentle, []home.Obstacle{x.o}, nil)
		require.NoError(t, err)
		assert.Equal(t, x.blocked, b != nil, "%s: %+v", name, b)
	}
	wire.HeightM = f(11)
	b, err := home.Sector(home.Place3{At: geo.XY{}, M: 100}, 0, gentle, []home.Obstacle{pole(0, 250, 50), wire}, nil)
	require.NoError(t, err)
	assert.Equal(t, "Wire reaches 11 m, 100 m away, where the path is at 20 m", b.Sentence, "the nearest is named")
	buffered := pole(0, 110, 10)
	buffered.BufferM = 15
	b, err = home.Sector(home.Place3{At: geo.XY{}, M: 100}, 0, gentle, []home.Obstacle{buffered}, nil)
	require.NoError(t, err)
	assert.InDelta(t, 95, b.AheadM, 1e-9, "the buffer begins before it")
}

func TestSectorOverRisingGround(t *testing.T) {
	hill := slope(80, 10, func(_, y float64) float64 { return 100 + max(0, y)*0.3 }) // 3 in 10 to the north
	b, err := home.Sector(home.Place3{At: geo.XY{}, M: 100}, 0, gentle, nil, hill)
	require.NoError(t, err)
	assert.Equal(t, "the ground", b.Name)
	b, err = home.Sector(home.Place3{At: geo.XY{}, M: 100}, 180, gentle, nil, hill)
	require.NoError(t, err)
	assert.Nil(t, b)
}

// A naive oracle: every place of the sector, in steps, against the buffered
// shape.
func TestSectorAgainstEveryPlaceOfIt(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		coord := rapid.Float64Range(-350, 350)
		h := rapid.Float64Range(1, 60).Draw(t, "height")
		o := home.Obstacle{Name: "Thing", Kind: home.LineKind, HeightM: &h,
			BufferM: rapid.Float64Range(0, 20).Draw(t, "buffer")}
		for range 2 {
			o.Places = append(o.Places, geo.XY{X: coord.Draw(t, "x"), Y: coord.Draw(t, "y")})
		}
		dir := rapid.Float64Range(0, 359).Draw(t, "direction")
		b, err := home.Sector(home.Place3{At: geo.XY{}}, dir, gentle, []home.Obstacle{o}, nil)
		require.NoError(t, err)
		sin, cos := math.Sincos(dir * math.Pi / 180)
		nearest := math.Inf(1)
		for d := 0.0; d <= home.SectorLengthM; d += 2 {
			half := home.SectorHalfM + d*math.Tan(home.SectorHalfDeg*math.Pi/180)
			for y := -half; y <= half; y += 2 {
				p := geo.XY{X: sin*d + cos*y, Y: cos*d - sin*y}
				if q, _ := geo.Nearest(p, o.Places[0], o.Places[1]); geo.Dist(p, q) <= o.BufferM {
					nearest = min(nearest, d)
				}
			}
		}
		// Where a place of the sector is met before the path has risen over it, it is blocked.
		if !math.IsInf(nearest, 1) && h > gentle.Rise*nearest-min(10, gentle.Rise*nearest/2)+0.5 {
			assert.NotNil(t, b, "met at %.0f m", nearest)
		}
		if b != nil { // it may say so a little early, never far off
			assert.LessOrEqual(t, b.AheadM, home.SectorLengthM)
			far := math.Inf(1)
			for d := 0.0; d <= home.SectorLengthM; d += 2 {
				half := home.SectorHalfM + d*math.Tan(home.SectorHalfDeg*math.Pi/180)
				q, _ := geo.Nearest(geo.XY{X: sin * d, Y: cos * d}, o.Places[0], o.Places[1])
				far = min(far, geo.Dist(geo.XY{X: sin * d, Y: cos * d}, q)-half)
			}
			assert.LessOrEqual(t, far, 2*o.BufferM+12, "nothing far beside the sector blocks it")
		}
	})
}

func TestSectorRefusals(t *testing.T) {
	for _, s := range []home.Slope{{}, {Rise: -1}, {StartM: -1, Rise: 0.1}, {Rise: math.NaN()}} {
		_, err := home.Sector(home.Place3{At: geo.XY{}}, 90, s, nil, nil)
		assert.ErrorIs(t, err, home.ErrInput)
	}
	_, err := home.Sector(home.Place3{At: geo.XY{}}, 361, gentle, nil, nil)
	assert.ErrorIs(t, err, home.ErrInput)
}

// What only touches the edge of a sector is in it.
func TestSectorIsTouched(t *testing.T) {
	wall := home.Obstacle{Name: "wall", Kind: home.LineKind, Places: []geo.XY{{Y: -10}, {}}, HeightM: f(3)}
	got, err := home.Sector(home.Place3{At: geo.XY{}}, 0, home.Slope{Rise: 0.3}, []home.Obstacle{wall}, nil)
	require.NoError(t, err)
	assert.NotNil(t, got, "it ends where the start begins")
	wall.Places = []geo.XY{{Y: -10}, {Y: -0.1}}
	got, err = home.Sector(home.Place3{At: geo.XY{}}, 0, home.Slope{Rise: 0.3}, []home.Obstacle{wall}, nil)
	require.NoError(t, err)
	assert.Nil(t, got)
}

// A knoll in the sector is met in every direction, and one beside it in none.
func TestSectorTurnsWithItsDirection(t *testing.T) {
	for dir := 0.0; dir < 360; dir += 15 {
		sin, cos := math.Sincos(dir * math.Pi / 180)
		for _, side := range []float64{-1, 1} {
			for _, c := range []struct {
				share float64
				in    bool
			}{{0.85, true}, {1.6, false}} {
				ahead := 150.0
				y := side * c.share * (home.SectorHalfM + ahead*math.Tan(home.SectorHalfDeg*math.Pi/180))
				top := geo.XY{X: sin*ahead + cos*y, Y: cos*ahead - sin*y}
				knoll := slope(200, 5, func(px, py float64) float64 {
					if geo.Dist(geo.XY{X: px, Y: py}, top) <= 6 {
						return 300
					}
					return 0
				})
				got, err := home.Sector(home.Place3{At: geo.XY{}}, dir, home.Slope{Rise: 0.3}, nil, knoll)
				require.NoError(t, err)
				assert.Equal(t, c.in, got != nil, "direction %g, %g of the half width", dir, side*c.share)
			}
		}
	}
}

// Ground that only reaches the room under the path is under it: at 10 m ahead,
// where the look at the ground begins, a path rising one in one keeps half of its
// 10 m.
func TestGroundAtTheRoomUnderThePath(t *testing.T) {
	for top, blocked := range map[float64]bool{4.9: false, 5: false, 5.1: true} {
		flat := slope(200, 5, func(_, _ float64) float64 { return top })
		got, err := home.Sector(home.Place3{At: geo.XY{}}, 0, home.Slope{Rise: 1}, nil, flat)
		require.NoError(t, err)
		assert.Equal(t, blocked, got != nil, "%g m", top)
	}
}
