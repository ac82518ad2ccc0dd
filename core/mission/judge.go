package mission

import (
	"fmt"
	"math"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/intent"
	"mainstay/core/judge"
)

// Chart is what a mission is flown over.
type Chart struct {
	Frame     geo.Frame
	Terrain   *home.Terrain
	TakeOffM  float64 // elevation of the place it takes off from
	CeilingM  *float64
	LeastM    float64         // over the ground
	Outline   geo.Ring        // of what is pictured; empty: nothing holds it
	ReachM    float64         // how far beyond it the mission goes, ways round what is forbidden apart
	Keep      []home.Obstacle // no-go areas, by their outline
	Stand     []home.Obstacle // what stands there; empty: the way home judges it
	PositionM float64         // by which positions are off
	OverM     float64         // kept over it
}

// Judge holds the way of a mission, as it was read, against ground, ceiling and areas. It
// is asked of what the aircraft holds even where that equals the plan.
func (m Mission) Judge(c Chart) []judge.Broken {
	out := []judge.Broken{}
	say := func(v judge.Verdict, format string, a ...any) {
		out = append(out, judge.Broken{Wish: "mission", Verdict: v, Sentence: fmt.Sprintf(format, a...)})
	}
	var way []home.Place3
	unknown := 0
	for _, x := range m.Items {
		q := c.Frame.XY(x.At)
		level := c.TakeOffM + x.HeightM
		switch m.Datum {
		case intent.AboveSea:
			level = x.HeightM
		case intent.AboveGround:
			g, ok := c.Terrain.At(q)
			if !ok {
				unknown++
				g = c.TakeOffM
			}
			level = g + x.HeightM
		}
		way = append(way, home.Place3{At: q, M: level})
	}
	c.heights(m, way, unknown, say)
	c.area(m, way, say)
	c.stand(way, say)
	for i := 1; i < len(way); i++ {
		for _, o := range c.Keep {
			if o.Within(way[i-1].At, way[i].At, 0) {
				say(judge.Stop, "The leg from waypoint %d to %d enters %s.", i, i+1, o.Name)
				return out
			}
		}
	}
	return out
}

// area says which place with a picture lies outside of what is to be pictured.
func (c Chart) area(m Mission, way []home.Place3, say func(judge.Verdict, string, ...any)) {
	if len(c.Outline) < 3 {
		return
	}
	for i, x := range m.Items {
		if d := c.Outline.ToEdge(way[i].At); (x.Action == Start || x.Action == Stop) && !c.Outline.Holds(way[i].At) &&
			d > c.ReachM {
			say(judge.Stop, "Waypoint %d, with the camera running, lies %.0f m outside of what is pictured.", i+1, d)
			return
		}
	}
}

// stand says the first leg that comes too near to what stands there.
func (c Chart) stand(way []home.Place3, say func(judge.Verdict, string, ...any)) {
	if len(c.Stand) == 0 || len(way) < 2 {
		return
	}
	legs, err := home.Clearance(way, home.Standing{Obstacles: c.Stand, PositionM: c.PositionM, OverM: c.OverM})
	if err != nil {
		say(judge.Stop, "How near it comes to what stands there cannot be judged: %s.", err)
		return
	}
	for i, l := range legs[:len(legs)-1] { // on the last leg it returns, which the way home judges
		if l.Verdict == judge.Stop {
			say(judge.Stop, "From waypoint %d to %d: %s", i+1, i+2, l.Sentence)
			return
		}
	}
}

func (c Chart) heights(m Mission, way []home.Place3, unknown int, say func(judge.Verdict, string, ...any)) {
	if len(way) == 1 {
		way = append(way, way[0])
	}
	legs, err := home.OverGround(way, c.Terrain, c.TakeOffM, 0)
	if err != nil {
		say(judge.Stop, "Its way over the ground cannot be judged: %s.", err)
		return
	}
	low, high, lowAt, highAt := math.Inf(1), math.Inf(-1), 0, 0
	for i, l := range legs {
		if !l.Known {
			unknown++
		}
		if l.LowestM < low {
			low, lowAt = l.LowestM, i
		}
		if l.HighestM > high {
			high, highAt = l.HighestM, i
		}
	}
	if low < c.LeastM-0.05 {
		say(judge.Stop, "Between waypoint %d and %d it comes down to %.1f m over the ground; %.1f m are kept.", lowAt+1,
			lowAt+2, low, c.LeastM)
	}
	if c.CeilingM != nil && high > *c.CeilingM+0.05 {
		say(judge.Stop, "Between waypoint %d and %d it flies %.0f m over the ground; %.0f m are allowed.", highAt+1, highAt+2,
			high, *c.CeilingM)
	}
	if unknown > 0 {
		say(judge.Watch, "The terrain does not cover all of its way: the height over the ground is not known there.")
	}
}
