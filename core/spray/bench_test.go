package spray_test

import (
	"fmt"
	"math"
	"testing"

	"mainstay/core/geo"
	"mainstay/core/spray"
)

// big is a field of so many hectares with so many round ponds.
func big(ha float64, ponds int) spray.Field {
	r := math.Sqrt(ha * 1e4 / math.Pi)
	f := spray.Field{EdgeM: 5}
	for i := range 60 {
		a := 2 * math.Pi * float64(i) / 60
		d := r * (1 + 0.05*math.Sin(5*a))
		f.Outline = append(f.Outline, geo.XY{X: d * math.Cos(a), Y: d * math.Sin(a)})
	}
	for i := range ponds {
		a, d := 2.4*float64(i), r*0.85*math.Sqrt(float64(i)/float64(max(1, ponds)))
		k := spray.KeepOut{Name: "pond", Area: true, BufferM: 5}
		for c := range 10 {
			k.Places = append(k.Places, geo.XY{X: d*math.Cos(a) + 15*math.Cos(float64(c)*math.Pi/5),
				Y: d*math.Sin(a) + 15*math.Sin(float64(c)*math.Pi/5)})
		}
		f.KeepOuts = append(f.KeepOuts, k)
	}
	return f
}

// BenchmarkPlan is a whole plan: passes, and sorties in the order flown.
func BenchmarkPlan(b *testing.B) {
	for _, row := range []struct {
		ha    float64
		ponds int
	}{{50, 0}, {500, 0}, {500, 100}, {1000, 100}} {
		b.Run(fmt.Sprintf("%g ha %d holes", row.ha, row.ponds), func(b *testing.B) {
			f := big(row.ha, row.ponds)
			for b.Loop() {
				c, err := f.Passes(spray.Pattern{BearingDeg: 20, SwathM: 7, Sections: 1})
				if err != nil {
					b.Fatal(err)
				}
				w := work(b)
				w.Cover, w.UsableWh = c, 4000
				if _, err := w.Fly(); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
