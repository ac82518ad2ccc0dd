package demo

import (
	"context"
	"fmt"
	"math"
	"strings"
	"time"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/internal/sites"
)

// The places of the district, around the depot.
var (
	depotAt    = geo.Point{Lat: 46.3100, Lon: -119.7000}
	yardAt     = geo.Point{Lat: 46.3120, Lon: -119.7050}
	bankAt     = geo.Point{Lat: 46.3010, Lon: -119.6700}
	cutwaterAt = geo.Point{Lat: 46.3215, Lon: -119.6905}
)

// ground is the terrain of the district, metres: a gentle slope with a valley.
func ground(p geo.Point) float64 {
	x, y := (p.Lon+119.70)*77000, (p.Lat-46.31)*111200
	return 212 + x/180 + 7*math.Sin(y/310) + 4*math.Cos(x/260)
}

// bankGround is the ground of the flood bank: at its east end it climbs a spur.
func bankGround(p geo.Point) float64 {
	east := min(1, max(0, ((p.Lon-bankAt.Lon)*77000-800)/700))
	return ground(p) + 18*east*east*(3-2*east)
}

// grid writes the terrain round a place as an ASCII grid of 5.6 m (north).
func grid(at geo.Point, columns, rows int, ground func(geo.Point) float64) string {
	const cell = 0.00005
	wide, high := float64(columns)/2*cell, float64(rows)/2*cell
	var b strings.Builder
	fmt.Fprintf(&b, "ncols %d\nnrows %d\nxllcorner %.6f\nyllcorner %.6f\ncellsize %g\nNODATA_value -9999\n", columns, rows,
		at.Lon-wide, at.Lat-high, cell)
	for r := range rows {
		for c := range columns {
			p := geo.Point{Lat: at.Lat + high - (float64(r)+0.5)*cell, Lon: at.Lon - wide + (float64(c)+0.5)*cell}
			fmt.Fprintf(&b, "%.1f ", ground(p))
		}
		b.WriteByte('\n')
	}
	return b.String()
}

type mapped struct {
	f     site.Feature
	xy    [][2]float64 // metres from the site's origin
	holes [][][2]float64
}

// measured is a height, m, its standard deviation and how it was taken.
type measured struct {
	m     *float64
	sigma float64
	how   string
}

func height(m, sigma float64, how string) measured { return measured{&m, sigma, how} }

// built is something standing that people built.
func built(m mapped) mapped {
	m.f.What = site.Structure
	return m
}

// standing is something that stands at one place, along two or three, or over four corners.
func standing(kind site.Kind, name string, h measured, buffer float64, xy ...[2]float64) mapped {
	shape := site.Line
	switch len(xy) {
	case 1:
		shape = site.Point
	case 4:
		shape = site.Area
	}
	return mapped{f: site.Feature{Kind: kind, Shape: shape, Name: name, HeightM: h.m, SigmaM: h.sigma,
		Measured: h.how, BufferM: buffer}, xy: xy}
}

type charted struct {
	head     sites.Site
	features []mapped
}

func sitesOfTheDistrict() []charted {
	yes := true
	looked := &site.GroundCheck{Flat: &yes, Firm: &yes, Clear: &yes, NoPlastic: &yes, NoPeople: &yes}
	six := height(6, 0.2, "known")
	line := height(11.4, 0.7, "clinometer")
	oak := height(17.8, 0.84, "clinometer")
	poplar := height(28, 1.9, "two stations")
	mast := height(42, 0.5, "known")
	house := height(9, 0.5, "estimate")
	willow := height(16, 1.2, "shadow")
	start := func(name string, main bool, x, y float64, free ...float64) mapped {
		return mapped{f: site.Feature{Kind: site.TakeOff, Shape: site.Point, Name: name, Main: main, Ground: looked,
			Free: free}, xy: [][2]float64{{x, y}}}
	}
	return []charted{
		{sites.Site{Name: "Upper Tolmere yard",
			Note: "Trellised hops. Poles and wires 6 m high everywhere; a power line along the road. Ask the grower to close the gate.",
			Lat:  yardAt.Lat, Lon: yardAt.Lon}, []mapped{
			{f: site.Feature{Kind: site.Work, Shape: site.Area, Name: "Hop yard"},
				xy:    [][2]float64{{-180, -110}, {190, -110}, {190, 120}, {-180, 120}},
				holes: [][][2]float64{{{-20, -10}, {30, -10}, {30, 25}, {-20, 25}}}},
			standing(site.Wires, "Trellis, north side", six, 8, [2]float64{-180, 124}, [2]float64{190, 124}),
			standing(site.Wires, "Trellis, south side", six, 8, [2]float64{-180, -114},
				[2]float64{190, -114}),
			standing(site.Wires, "Trellis, west end", six, 8, [2]float64{-184, -110}, [2]float64{-184, 120}),
			{f: site.Feature{Kind: site.Route, Shape: site.Line, Name: "Round the rows"},
				xy: [][2]float64{{-160, -90}, {170, -90}, {170, 98}, {-160, 98}, {-160, -90}}},
			standing(site.Wires, "Power line along the road", line, 15, [2]float64{-260, -175},
				[2]float64{-40, -178}, [2]float64{240, -170}),
			standing(site.Obstacle, "Oak at the pump house", oak, 6, [2]float64{5, 8}),
			{f: site.Feature{Kind: site.Sensitive, Shape: site.Point, Name: "Bee yard", What: "bees", BufferM: 60,
				Note: "Tell the keeper the evening before."}, xy: [][2]float64{{260, 170}}},
			{f: site.Feature{Kind: site.Interference, Shape: site.Line, Name: "Power line", What: "power line"},
				xy: [][2]float64{{-260, -175}, {240, -170}}},
			start("Headland west", true, -225, -20, 180, 0), start("Headland east", false, 230, -20, 0, 180),
			{f: site.Feature{Kind: site.Access, Shape: site.Line, Name: "Gate and track"},
				xy: [][2]float64{{-250, -170}, {-240, -60}, {-230, -25}}},
		}},
		{sites.Site{Name: depotName, Note: "Base. Practice and check flights over the meadow behind the sheds.",
			Lat: depotAt.Lat, Lon: depotAt.Lon, Practice: true}, []mapped{
			{f: site.Feature{Kind: site.Route, Shape: site.Line, Name: "Round the meadow"},
				xy: [][2]float64{{-60, 60}, {80, 60}, {80, 160}, {-60, 160}, {-60, 60}}},
			start("Pad", true, 0, 0, 0, 90, 180, 270),
			{f: site.Feature{Kind: site.Access, Shape: site.Line, Name: "Yard gate"}, xy: [][2]float64{{-40, -60}, {-10, -10}}},
		}},
		{sites.Site{Name: "Long Bank", Note: "Flood bank, 4 km. Two parts, take off from the highest of each.",
			Lat: bankAt.Lat, Lon: bankAt.Lon}, []mapped{
			{f: site.Feature{Kind: site.Work, Shape: site.Area, Name: "Bank"},
				xy: [][2]float64{{-2000, -40}, {-600, 10}, {800, -20}, {2000, 30}, {2000, 90}, {800, 40}, {-600, 70}, {-2000, 20}}},
			{f: site.Feature{Kind: site.Route, Shape: site.Line, Name: "Km 2, in sight of the sluice"},
				xy: [][2]float64{{-220, 30}, {150, 0}, {480, -5}, {480, 30}, {150, 40}, {-220, 60}}},
			standing(site.Obstacle, "Willows", willow, 6, [2]float64{-420, -60},
				[2]float64{-90, -75}),
			standing(site.Obstacle, "Gauge mast", measured{}, 10, [2]float64{640, 60}),
			start("Sluice", true, 150, -95, 270, 90),
		}},
		{sites.Site{Name: "Cutwater station",
			Note: "Pumping station and roof panels. Near a radio mast, inside a control zone. The usual return height of the aircraft is too low here.",
			Lat:  cutwaterAt.Lat, Lon: cutwaterAt.Lon}, []mapped{
			{f: site.Feature{Kind: site.Work, Shape: site.Area, Name: "Roof and yard"},
				xy: [][2]float64{{-60, -35}, {65, -35}, {65, 45}, {-60, 45}}},
			built(standing(site.Obstacle, "Station building", house, 4, [2]float64{-40, -20},
				[2]float64{40, -20}, [2]float64{40, 25}, [2]float64{-40, 25})),
			standing(site.Obstacle, "Poplars along the canal", poplar, 6, [2]float64{-90, -70},
				[2]float64{95, -72}),
			built(standing(site.Obstacle, "Radio mast", mast, 30, [2]float64{210, 130})),
			{f: site.Feature{Kind: site.Interference, Shape: site.Point, Name: "Radio mast", What: "mast"},
				xy: [][2]float64{{210, 130}}},
			start("Car park", true, -20, -130, 225, 270),
		}},
	}
}

// district charts what stands on the sites and reads the weather of this morning.
func (g *generator) district(ctx context.Context, end time.Time) error {
	ctx = g.as(ctx, "odile")
	for _, c := range sitesOfTheDistrict() {
		if err := g.chart(ctx, c, func(m mapped) bool { return !early(m) }); err != nil {
			return err
		}
		station, far := 225.0, 9.0
		at := g.clock.Now().Add(-12 * time.Minute).UTC()
		if err := g.svc.Sites.AddWeather(ctx, g.sites[c.head.Name],
			sites.NewWeather{ID: newID(), Ground: "crops", StationM: &station, StationKm: &far,
				Report: fmt.Sprintf("METAR KZZT %sZ AUTO 24005KT 10SM FEW060 16/06 A3000 RMK AO2",
					at.Format("021504"))}); err != nil {
			return err
		}
	}
	return nil
}
