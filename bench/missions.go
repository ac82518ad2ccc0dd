package main

import (
	"fmt"
	"math"
	"slices"
	"time"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/survey"
)

// surveyed is a square of so many hectares with so many round holes, and what flies over it.
func surveyed(ha float64, holes int) survey.Given {
	side := math.Sqrt(ha * 1e4)
	a := survey.Area{Outline: geo.Ring{{}, {X: side}, {X: side, Y: side}, {Y: side}}}
	n := int(math.Ceil(math.Sqrt(float64(holes))))
	for i := range holes {
		c := geo.XY{X: side * (0.5 + float64(i%n)) / float64(n), Y: side * (0.5 + float64(i/n)) / float64(n)}
		var hole geo.Ring
		for k := range 12 {
			sin, cos := math.Sincos(float64(k) * math.Pi / 6)
			hole = append(hole, c.Add(geo.XY{X: 40 * cos, Y: 40 * sin}))
		}
		a.LeaveOut = append(a.LeaveOut, hole)
	}
	at := survey.Place{ID: "t", Name: "gate", Known: true}
	return survey.Given{Area: &a, Start: at, Places: []survey.Place{at},
		Camera:   &survey.Camera{SensorWMM: 13.2, SensorHMM: 8.8, FocalMM: 8.8, PixelsW: 5472, PixelsH: 3648, LeastS: 1},
		PictureM: 9, Canopies: survey.UsualCanopies, MassKg: 7, Rho: 1.1, UsableWh: 400, FullWh: 500, Reserve: 20,
		ReturnM: 40,
		Model: energy.Model{Kind: energy.Rotors, Discs: 4, DiameterM: 0.6, Efficiency: 0.55, CruiseShare: 1, CruiseMS: 12,
			ClimbMS: 4, DescentMS: 3}}
}

// hills are smooth hills of 60 m over a grid of n x n cells.
func hills(n int, cell float64) *home.Terrain {
	t := &home.Terrain{Origin: geo.XY{X: -50, Y: -50}, CellM: cell, Columns: n, Rows: n, Heights: make([]float32, n*n)}
	for i := range t.Heights {
		x, y := float64(i%n)*cell, float64(i/n)*cell
		t.Heights[i] = float32(230 + 30*math.Sin(x/500)*math.Cos(y/430))
	}
	return t
}

// missionPlans shows how the time of a survey grows with area, holes and terrain, of a
// comparison with waypoints, and of looking at pictures with their number.
func missionPlans() ([]bench, error) {
	var out []bench
	plan := func(name string, g survey.Given, budget time.Duration) {
		out = append(out, bench{name: name, rounds: 30, budget: budget, baseName: "budget", fn: func() error {
			_, err := survey.Make(survey.Defaults(false), g)
			return err
		}})
	}
	plan("survey, core, 50 ha, 10 holes", surveyed(50, 10), 50*time.Millisecond)
	plan("survey, core, 500 ha, 100 holes", surveyed(500, 100), 50*time.Millisecond)
	plan("survey, core, 2000 ha, 400 holes", surveyed(2000, 400), 200*time.Millisecond)
	for _, n := range []int{250, 1000} {
		g := surveyed(500, 100)
		g.Terrain = hills(n, 2400/float64(n))
		plan(fmt.Sprintf("survey split over %d x %d cells, core", n, n), g, 300*time.Millisecond)
	}
	for _, n := range []int{500, 5000} {
		a := waypoints(n)
		b := waypoints(n)
		b.Items = slices.Delete(b.Items, n/2, n/2+1)
		out = append(out, bench{name: fmt.Sprintf("read-back compared, core, %d waypoints", n), rounds: 100,
			budget: 20 * time.Millisecond, baseName: "budget", fn: func() error {
				_, err := mission.Compare(a, b)
				return err
			}})
	}
	g := surveyed(500, 0)
	p, err := survey.Make(survey.Defaults(false), g)
	if err != nil {
		return nil, err
	}
	for _, n := range []int{500, 5000} {
		var shots []survey.Shot
		for _, f := range p.Flights {
			for _, x := range f.Pieces {
				for _, s := range x.Shots() {
					if len(shots) < n {
						shots = append(shots, survey.Shot{At: &s})
					}
				}
			}
		}
		out = append(out, bench{name: fmt.Sprintf("pictures judged, core, %d places", len(shots)), rounds: 30,
			budget: 200 * time.Millisecond, baseName: "budget", fn: func() error {
				_, err := p.Look(p.Parts[0].Pieces, shots, g.Area)
				return err
			}})
	}
	return out, nil
}

// waypoints is a mission of so many, in rows.
func waypoints(n int) mission.Mission {
	m := mission.Mission{Datum: intent.AboveTakeOff, Home: &geo.Point{Lat: 46.3, Lon: -119.7}}
	for i := range n {
		m.Items = append(m.Items, mission.Item{At: geo.Point{Lat: 46.31 + float64(i%40)*0.00018,
			Lon: -119.71 + float64(i/40)*0.00026}, HeightM: 80, SpeedMS: 10, Action: mission.Fly})
	}
	return m
}
