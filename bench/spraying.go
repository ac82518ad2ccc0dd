package main

import (
	"fmt"
	"math"
	"time"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/rotation"
	"mainstay/core/spray"
)

// bigField is a round field of so many hectares with so many ponds of ten corners.
func bigField(ha float64, ponds int) spray.Field {
	r := math.Sqrt(ha * 1e4 / math.Pi)
	f := spray.Field{EdgeM: 5}
	for i := range 60 {
		a := 2 * math.Pi * float64(i) / 60
		f.Outline = append(f.Outline, geo.XY{X: r * math.Cos(a), Y: r * math.Sin(a)})
	}
	for i := range ponds {
		a, d := 2.4*float64(i), r*0.85*math.Sqrt(float64(i)/float64(ponds))
		k := spray.KeepOut{Name: "pond", Area: true, BufferM: 5}
		for c := range 10 {
			k.Places = append(k.Places, geo.XY{X: d*math.Cos(a) + 15*math.Cos(float64(c)*math.Pi/5),
				Y: d*math.Sin(a) + 15*math.Sin(float64(c)*math.Pi/5)})
		}
		f.KeepOuts = append(f.KeepOuts, k)
	}
	return f
}

// sprayPlans shows how the time of a plan grows with area and holes, and of a day over
// 200 runs.
func sprayPlans() ([]bench, error) {
	var out []bench
	for _, x := range []struct {
		ha    float64
		ponds int
	}{{50, 0}, {500, 0}, {500, 100}, {1000, 100}} {
		f := bigField(x.ha, x.ponds)
		s, err := spray.Settings{Rate: 15, Speed: 6, Swath: 7}.Solve(spray.UnknownFlow)
		if err != nil {
			return nil, err
		}
		w := spray.Work{Settings: s, Start: geo.XY{}, TankL: 30, KgPerL: 1, DryKg: 40, MostKg: 72, TurnS: 6, ReturnM: 15,
			HeightM: 3, Rho: 1.2, UsableWh: 4000,
			Model: energy.Model{Kind: energy.Rotors, Discs: 6, DiameterM: 1, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 8,
				ClimbMS: 3, DescentMS: 2}}
		out = append(out, bench{name: fmt.Sprintf("spray plan, core, %g ha, %d holes", x.ha, x.ponds), rounds: 40,
			budget: 50 * time.Millisecond, baseName: "budget", fn: func() error {
				c, err := f.Passes(spray.Pattern{BearingDeg: 20, SwathM: 7, Sections: 1})
				if err != nil {
					return err
				}
				w.Cover = c
				_, err = w.Fly()
				return err
			}})
	}
	d := rotation.Day{Aircraft: 2, Sets: 6, PerSet: 2, PackWh: 1450, ChargeTo: 95, CoolS: 700, Channels: 8, ChannelW: 900,
		Hands: 2, SwapS: 120, FillS: 150}
	for range 64 {
		d.Sorties = append(d.Sorties, rotation.Sortie{Seconds: 540, Wh: 1300, Done: 1.2, Fill: true})
	}
	return append(out, bench{name: "rotation of 64 flights, 200 runs, core", rounds: 20, budget: time.Second,
		baseName: "budget", fn: func() error {
			_, err := d.Simulations(200, 1, rotation.Usual)
			return err
		}}), nil
}
