package wayhome_test

import (
	"fmt"
	"testing"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/site"
	"mainstay/core/wayhome"
)

// The passes of 500 ha, 7 m apart, over relief and a hundred poles and wires.
func BenchmarkPlan(b *testing.B) {
	frame, err := geo.NewFrame(depot)
	if err != nil {
		b.Fatal(err)
	}
	x := &bed{frame: frame}
	x.q.Type.Limits.FlightHeightM = 5
	x.q.Flight.ReturnM = f(60)
	t := &home.Terrain{Origin: geo.XY{X: -1500, Y: -1500}, CellM: 10, Columns: 400, Rows: 400}
	for i := range 400 * 400 {
		t.Heights = append(t.Heights, float32(200+i%400/20))
	}
	x.q.Chart = wayhome.Chart{Frame: frame, ElevationM: new(200.0), Terrain: t}
	x.put("start", site.TakeOff, site.Point, nil, [2]float64{-20, -20})
	for i := range 50 {
		at := float64(i) * 40
		x.put(fmt.Sprint("pole", i), site.Obstacle, site.Point, f(8), [2]float64{at, 2400})
		x.put(fmt.Sprint("wire", i), site.Wires, site.Line, f(8), [2]float64{at, 2420}, [2]float64{at + 30, 2450})
	}
	p := intent.Plan{SpeedMS: 6}
	for i := range 320 {
		at := float64(i) * 7
		p.Passes = append(p.Passes, frame.Point(geo.XY{X: at, Y: 0}), frame.Point(geo.XY{X: at, Y: 2230}))
	}
	x.q.Flight.Work, x.q.Flight.Plan, x.q.Flight.Datum, x.q.Flight.RouteM = "spraying", &p, intent.AboveGround, f(4)
	for b.Loop() {
		if _, err := wayhome.Reckon(x.q); err != nil {
			b.Fatal(err)
		}
	}
}
