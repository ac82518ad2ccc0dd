package home_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"mainstay/approved"
	"mainstay/core/geo"
	"mainstay/core/home"
)

var figure = regexp.MustCompile(`-?\d+\.\d+(e[-+]?\d+)?`)

// Scenes of every sort, drawn once: heights, legs, ground, sectors and ways round
// as they were when the definitions held; to the millimetre and the word.
func TestScenesAsApproved(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7)) //nolint:gosec // scenes, no secrets
	at := func(reach float64) geo.XY {
		return geo.XY{X: (r.Float64()*2 - 1) * reach, Y: (r.Float64()*2 - 1) * reach}
	}
	var lines []string
	say := func(scene int, what string, v any, err error) {
		if err != nil {
			lines = append(lines, fmt.Sprintf("%d %s: %v", scene, what, err))
			return
		}
		b, err := json.Marshal(v)
		if err != nil {
			t.Fatal(err)
		}
		rounded := figure.ReplaceAllStringFunc(string(b), func(s string) string {
			v, err := strconv.ParseFloat(s, 64)
			if err != nil {
				t.Fatal(err)
			}
			return strings.TrimPrefix(fmt.Sprintf("%.3f", v), "-0.000")
		})
		lines = append(lines, fmt.Sprintf("%d %s: %s", scene, what, rounded))
	}
	for scene := range 60 {
		ground := &home.Terrain{Origin: geo.XY{X: -300, Y: -300}, CellM: 20, Columns: 31, Rows: 31,
			SigmaM: float64(scene % 3)}
		for i := range ground.Columns * ground.Rows {
			ground.Heights = append(ground.Heights, float32(i%31)/4*float32(scene%4))
		}
		var things []home.Obstacle
		for i := range 1 + scene%5 {
			c := at(180)
			o := home.Obstacle{ID: fmt.Sprint(i), Name: fmt.Sprintf("thing %d", i), Kind: home.PointKind, Places: []geo.XY{c},
				SigmaM: float64(i % 2), BufferM: 2 + float64(i)*3, GroundM: float64(i % 3), GroundKnown: i%4 != 3, Wire: i%3 == 2}
			if h := 5 + r.Float64()*35; i%5 != 4 {
				o.HeightM = &h
			}
			switch i % 3 {
			case 1:
				o.Kind, o.Places = home.AreaKind, []geo.XY{c, {X: c.X + 30, Y: c.Y}, {X: c.X + 30, Y: c.Y + 20},
					{X: c.X, Y: c.Y + 20}}
			case 2:
				o.Kind, o.Places = home.LineKind, []geo.XY{c, {X: c.X + 60, Y: c.Y + 10}}
			}
			things = append(things, o)
		}
		route := []geo.XY{at(200), at(200), at(200)}
		set := 20 + r.Float64()*40
		q := home.Question{Home: geo.XY{}, HomeM: 2, Route: route, Obstacles: things, Terrain: ground, PositionM: 3,
			Margin: home.UsualMargin, CeilingM: 120 - float64(scene%2)*60, SettingM: &set, ClimbMS: 3, DescentMS: 2,
			PercentMin: 4, RouteHeight: 30, TypeMinM: float64(scene%3) * 10}
		if scene%7 == 0 {
			q.Terrain = nil
		}
		a, err := home.ReturnHeight(q)
		say(scene, "return", a, err)
		v, err := home.SideView(q, 40)
		v.Steps, v.Tops = v.Steps[:min(3, len(v.Steps))], v.Tops[:min(3, len(v.Tops))]
		say(scene, "side", v, err)
		path := []home.Place3{{At: geo.XY{}, M: 20}, {At: route[0], M: 25}, {At: route[1], M: 35}}
		legs, err := home.Clearance(path, home.Standing{Obstacles: things, PositionM: 3, OverM: 10})
		say(scene, "legs", legs, err)
		over, err := home.OverGround(path, q.Terrain, 2, 3)
		say(scene, "ground", over, err)
		blocked, err := home.Sector(home.Place3{At: at(50), M: 2}, float64(scene*17%360),
			home.Slope{StartM: float64(scene % 2 * 20), Rise: 0.2 + r.Float64()/3}, things, q.Terrain)
		say(scene, "sector", blocked, err)
		round, err := home.WayRound(at(200), at(200), 12, home.Standing{Obstacles: things, PositionM: 3, OverM: 10}, nil)
		say(scene, "round", round, err)
		for _, k := range []home.Kind{home.PointKind, home.LineKind, home.AreaKind} {
			say(scene, "under "+string(k), ground.UnderShape(k, route, float64(scene%3)*5), nil)
		}
		area := geo.Area{Outline: geo.Ring{at(150), {X: 150, Y: -150}, {X: 150, Y: 150}}}
		say(scene, "fan", []bool{home.FanReaches(geo.XY{}, route, area, 3),
			home.FanMeetsRing(geo.XY{}, route, area.Outline, 3)}, nil)
	}
	approved.Text(t, "scenes", lines)
}
