package sheets

import (
	"bytes"
	"fmt"
	"image/png"
	"math"

	"github.com/fogleman/gg"
	"github.com/johnfercher/maroto/v2/pkg/consts/extension"

	"mainstay/core/geo"
	"mainstay/core/site"
	"mainstay/internal/missions"
	"mainstay/internal/spraying"
)

// Size of a picture in pixels; on paper it is 190 mm wide.
const (
	wide   = 1520
	margin = 40.0
)

// chart is a drawing from above in metres, north up.
type chart struct {
	dc     *gg.Context
	lo, hi geo.XY
	scale  float64
	high   float64
}

// newChart makes a drawing that holds all places.
func newChart(high int, places []geo.XY) *chart {
	c := &chart{dc: gg.NewContext(wide, high), lo: geo.XY{X: math.Inf(1), Y: math.Inf(1)},
		hi: geo.XY{X: math.Inf(-1), Y: math.Inf(-1)}, high: float64(high)}
	for _, p := range places {
		c.lo = geo.XY{X: min(c.lo.X, p.X), Y: min(c.lo.Y, p.Y)}
		c.hi = geo.XY{X: max(c.hi.X, p.X), Y: max(c.hi.Y, p.Y)}
	}
	w, h := max(c.hi.X-c.lo.X, 1), max(c.hi.Y-c.lo.Y, 1)
	c.scale = min((wide-2*margin)/w, (c.high-2*margin-30)/h)
	c.dc.SetRGB(1, 1, 1)
	c.dc.Clear()
	return c
}

func (c *chart) to(p geo.XY) (x, y float64) {
	middle := c.lo.Add(c.hi).Times(0.5)
	return wide/2 + (p.X-middle.X)*c.scale, c.high/2 - 12 - (p.Y-middle.Y)*c.scale
}

// pen is how a line is drawn: its width, and how dark it is and is filled, 0 not at all to 1.
type pen struct {
	width, ink, fill float64
	dashed           bool
}

// line draws a line or an outline.
func (c *chart) line(places []geo.XY, closed bool, p pen) {
	if len(places) == 0 {
		return
	}
	for i, at := range places {
		x, y := c.to(at)
		if i == 0 {
			c.dc.MoveTo(x, y)
		} else {
			c.dc.LineTo(x, y)
		}
	}
	if closed {
		c.dc.ClosePath()
	}
	if p.fill > 0 {
		c.dc.SetRGB(1-p.fill, 1-p.fill, 1-p.fill)
		c.dc.FillPreserve()
	}
	c.dc.SetRGB(1-p.ink, 1-p.ink, 1-p.ink)
	c.dc.SetLineWidth(p.width)
	c.dc.SetDash()
	if p.dashed {
		c.dc.SetDash(14, 8)
	}
	c.dc.Stroke()
	c.dc.SetDash()
}

// spot draws a place: a ring for a take-off, a cross for what stands there.
func (c *chart) spot(p geo.XY, ring bool) {
	x, y := c.to(p)
	c.dc.SetRGB(0, 0, 0)
	c.dc.SetLineWidth(4)
	if ring {
		c.dc.DrawCircle(x, y, 12)
	} else {
		c.dc.DrawLine(x-9, y-9, x+9, y+9)
		c.dc.DrawLine(x-9, y+9, x+9, y-9)
	}
	c.dc.Stroke()
}

// scaleBar draws a length of so many metres; what it is stands in the words under the picture.
func (c *chart) scaleBar() float64 {
	most := (c.hi.X - c.lo.X + 1) / 3
	bar := math.Pow(10, math.Floor(math.Log10(max(most, 1))))
	for _, k := range []float64{5, 2} {
		if k*bar <= most {
			bar *= k
			break
		}
	}
	y := c.high - 18
	c.dc.SetRGB(0, 0, 0)
	c.dc.SetLineWidth(4)
	c.dc.DrawLine(margin, y, margin+bar*c.scale, y)
	c.dc.DrawLine(margin, y-8, margin, y+8)
	c.dc.DrawLine(margin+bar*c.scale, y-8, margin+bar*c.scale, y+8)
	c.dc.Stroke()
	return bar
}

func (c *chart) png() ([]byte, error) {
	var b bytes.Buffer
	err := png.Encode(&b, c.dc.Image())
	return b.Bytes(), err
}

// things draws what stands there, where nobody flies, and the take-off places.
func (c *chart) things(all []site.Feature, frame geo.Frame) {
	for _, f := range all {
		places := frame.All(f.Places)
		switch {
		case f.Kind == site.TakeOff:
			c.spot(places[0], true)
		case f.Kind != site.Obstacle && f.Kind != site.Wires && f.Kind != site.NoGo && f.Kind != site.Sensitive:
		case len(places) == 1:
			c.spot(places[0], false)
		default:
			c.line(places, f.Shape == site.Area, pen{width: 5, ink: 0.9, dashed: f.Kind == site.Wires})
		}
	}
}

// around are the places of a drawing: those of the work and the take-off places near it.
func around(work []geo.XY, all []site.Feature, frame geo.Frame) []geo.XY {
	for _, f := range all {
		if f.Kind == site.TakeOff {
			work = append(work, frame.XY(f.Places[0]))
		}
	}
	return work
}

// missionMap draws the lines or places of a mission plan.
func missionMap(p missions.Plan) ([]byte, error) {
	frame := p.Ground.Chart.Frame
	outline := frame.All(p.Ground.Feature.Places)
	all := append([]geo.XY{}, outline...)
	for _, m := range p.Missions {
		for _, x := range m.Items {
			all = append(all, frame.XY(x.At))
		}
	}
	c := newChart(560, around(all, p.Ground.Chart.Features, frame))
	c.line(outline, p.Ground.Feature.Shape == site.Area, pen{width: 4, ink: 1, fill: 0.08})
	for i, m := range p.Missions {
		var way []geo.XY
		for _, x := range m.Items[:max(0, len(m.Items)-1)] {
			way = append(way, frame.XY(x.At))
		}
		c.line(way, false, pen{width: 2.5, ink: 0.45 + 0.4*float64(i%2)})
	}
	c.things(p.Ground.Chart.Features, frame)
	c.scaleBar()
	return c.png()
}

// sprayMap draws the passes of a spray plan.
func sprayMap(p spraying.Plan) ([]byte, error) {
	frame := p.Ground.Frame
	outline := frame.All(p.Ground.Field.Places)
	c := newChart(640, around(append([]geo.XY{}, outline...), p.Ground.Things, frame))
	c.line(outline, true, pen{width: 4, ink: 1, fill: 0.08})
	for _, h := range p.Ground.Field.Holes {
		c.line(frame.All(h), true, pen{width: 3, ink: 1, fill: 0.25})
	}
	for _, x := range p.Out.Passes {
		c.line([]geo.XY{x.From, x.To}, false, pen{width: 2.5, ink: 0.6})
	}
	c.things(p.Ground.Things, frame)
	c.scaleBar()
	return c.png()
}

// map0 draws a site of a job without a plan.
func (o *sheet) map0() error {
	frame, err := o.site.Frame()
	if err != nil {
		return err
	}
	var all []geo.XY
	features := o.site.Plain()
	for _, f := range features {
		if f.Kind == site.Work || f.Kind == site.Route {
			all = append(all, frame.All(f.Places)...)
		}
	}
	if all = around(all, features, frame); len(all) == 0 {
		return nil
	}
	c := newChart(560, all)
	for _, f := range features {
		if f.Kind == site.Work || f.Kind == site.Route {
			c.line(frame.All(f.Places), f.Shape == site.Area, pen{
				width: 4, ink: 1, fill: map[bool]float64{true: 0.08}[f.Kind == site.Work],
			})
		}
	}
	c.things(features, frame)
	bar := c.scaleBar()
	b, err := c.png()
	o.pictures = append(o.pictures, drawing{b, extension.Png, 70,
		fmt.Sprintf("%s from above, north is up; the bar is %.0f m.", o.job.Job.Site, bar)})
	return err
}

// sideView draws a flight over its ground.
func sideView(p missions.Plan, number int) ([]byte, string, error) {
	side := p.Side(number)
	dc := gg.NewContext(wide, 300)
	dc.SetRGB(1, 1, 1)
	dc.Clear()
	long, low, high := 1.0, math.Inf(1), math.Inf(-1)
	for _, s := range side {
		long, low, high = max(long, s.AlongM), min(low, s.FlownM), max(high, s.FlownM)
		if s.GroundM != nil {
			low, high = min(low, *s.GroundM), max(high, *s.GroundM)
		}
	}
	x := func(m float64) float64 { return margin + (wide-2*margin)*m/long }
	y := func(m float64) float64 { return 300 - 30 - 240*(m-low)/max(high-low, 10) }
	started := false
	for _, s := range side {
		if s.GroundM == nil {
			continue
		}
		if !started {
			dc.MoveTo(x(s.AlongM), 300-20)
			started = true
		}
		dc.LineTo(x(s.AlongM), y(*s.GroundM))
	}
	if started {
		dc.LineTo(x(side[len(side)-1].AlongM), 300-20)
		dc.ClosePath()
		dc.SetRGB(0.85, 0.85, 0.85)
		dc.FillPreserve()
		dc.SetRGB(0.4, 0.4, 0.4)
		dc.SetLineWidth(2)
		dc.Stroke()
	}
	for _, s := range side {
		dc.LineTo(x(s.AlongM), y(s.FlownM))
	}
	dc.SetRGB(0, 0, 0)
	dc.SetLineWidth(4)
	dc.Stroke()
	var b bytes.Buffer
	err := png.Encode(&b, dc.Image())
	return b.Bytes(), fmt.Sprintf("Flight %d from the side, take-off at the left: elevations %.0f to %.0f m over %.1f km of way; grey is the ground.",
		number, low, high, long/1000), err
}
