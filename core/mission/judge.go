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
	Frame    geo.Frame
	Terrain  *home.Terrain
	TakeOffM float64 // elevation of the place it takes off from
	CeilingM *float64
	LeastM   float64         // over the ground
	Areas    []geo.Area      // that it must stay in; none: no bound is charted
	Keep     []home.Obstacle // no-go areas, by their outline
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
	for i, x := range way {
		for _, a := range c.Areas {
			if !a.Holds(x.At) {
				say(judge.Stop, "Waypoint %d lies %.0f m outside of where it may fly.", i+1, a.Outline.ToEdge(x.At))
				return out
			}
		}
	}
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
		say(judge.Stop, "Between waypoint %d and %d it comes down to %.1f m over the ground; %.1f m are kept.", lowAt+1, lowAt+2, low, c.LeastM)
	}
	if c.CeilingM != nil && high > *c.CeilingM+0.05 {
		say(judge.Stop, "Between waypoint %d and %d it flies %.0f m over the ground; %.0f m are allowed.", highAt+1, highAt+2, high, *c.CeilingM)
	}
	if unknown > 0 {
		say(judge.Watch, "The terrain does not cover all of its way: the height over the ground is not known there.")
	}
}
