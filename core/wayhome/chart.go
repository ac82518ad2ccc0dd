// Package wayhome judges the way out and home of a flight over a site as it is
// charted: return height, clearance of every leg over the ground and over what
// stands on it, the fan home against no-go areas, take-off places, sectors of a
// wing, and the wind on the way home. All lengths are metres, elevations are
// metres above one datum, directions degrees true.
package wayhome

import (
	"errors"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/site"
)

// Chart is a site as it is charted.
type Chart struct {
	Features   []site.Feature
	Frame      geo.Frame
	Terrain    *home.Terrain // nil: nobody has brought any
	ElevationM *float64      // of the site's ground, where the terrain says nothing; nil: not known
}

// ErrNotReady says that a chart has no take-off place or nothing to fly over.
var ErrNotReady = errors.New("put a take-off place and an area or a route on the map first; then the way home can be judged")

// ErrNoElevation says that some heights count from the sea, and nobody knows how high the site lies.
var ErrNoElevation = errors.New("enter the elevation of the site: something on its map has one of its own, and heights cannot be compared without it")

// Reference is the elevation that heights count from where the terrain says
// nothing, m; without any, all heights count from the site's own ground.
func (c Chart) Reference() float64 {
	if c.ElevationM == nil {
		return 0
	}
	return *c.ElevationM
}

// AboveSea tells whether elevations are known above the sea.
func (c Chart) AboveSea() bool { return c.ElevationM != nil || c.Terrain != nil }

// comparable tells whether all heights count from one reference.
func (c Chart) comparable() bool {
	return c.AboveSea() || !slices.ContainsFunc(c.Features, func(f site.Feature) bool { return f.GroundM != nil })
}

// Place finds a take-off place by its id; "" is the main one, or else the first.
func (c Chart) Place(id string) *site.Feature {
	var best *site.Feature
	for i := range c.Features {
		x := &c.Features[i]
		if x.Kind != site.TakeOff {
			continue
		}
		if id != "" && x.ID == id {
			return x
		}
		if id == "" && (best == nil || x.Main && !best.Main) {
			best = x
		}
	}
	return best
}

// Way is the way that is flown: the routes in order, else round the work areas.
func (c Chart) Way() []geo.XY {
	var out []geo.XY
	for _, kind := range []site.Kind{site.Route, site.Work} {
		for _, x := range c.Features {
			if x.Kind != kind {
				continue
			}
			ps := c.Frame.All(x.Places)
			out = append(out, ps...)
			if x.Shape == site.Area { // back to where it began: the whole outline is flown
				out = append(out, ps[0])
			}
		}
		if len(out) > 0 {
			return out
		}
	}
	return nil
}

// Elevation is that of the ground at a place of a feature, and whether
// anybody knows it.
func (c Chart) Elevation(f site.Feature) (float64, bool) {
	at := c.Frame.XY(f.Places[0])
	if g, ok := c.Terrain.At(at); ok {
		return g, true
	}
	if f.GroundM != nil {
		return *f.GroundM, true
	}
	return c.Reference(), c.Terrain == nil // without any terrain it is the reference itself
}

// noGo turns every no-go area into an obstacle that is never passed over: one
// without a known height.
func (c Chart) noGo() []home.Obstacle {
	var out []home.Obstacle
	for _, x := range c.Features {
		if x.Kind == site.NoGo {
			out = append(out, home.Obstacle{ID: x.ID, Name: "the no-go area " + x.Name, Kind: home.AreaKind,
				Places: c.Frame.All(x.Places), BufferM: x.Buffer()})
		}
	}
	return out
}

// nearPeople is how near a route comes to where people live, work or rest, as
// charted; nil when nothing of the kind is.
func (c Chart) nearPeople(way []geo.XY) *float64 {
	var best *float64
	for _, x := range c.Features {
		if x.Kind != site.Sensitive || !site.WherePeopleAre(x.What) {
			continue
		}
		places := c.Frame.All(x.Places)
		for i, p := range way {
			q := way[max(0, i-1)]
			d := math.Inf(1)
			if x.Shape == site.Area && x.Area(c.Frame).Holds(p) {
				d = 0
			}
			for k := range places {
				next := places[min(k+1, len(places)-1)]
				if x.Shape == site.Area {
					next = places[(k+1)%len(places)]
				}
				s, _ := geo.Segments(p, q, places[k], next)
				d = min(d, s)
			}
			if best == nil || d < *best {
				v := d
				best = &v
			}
		}
	}
	return best
}

// overTop is the greatest height over the top of the structure that the whole
// route stays within reach of, counted from the ground the structure stands on;
// nil without one. A tree is no structure: only what is charted as one counts.
func (c Chart) overTop(way []geo.XY, highestElevation, within float64) *float64 {
	var best *float64
	for _, f := range c.Features {
		if f.Kind != site.Obstacle || f.What != site.Structure || f.HeightM == nil {
			continue
		}
		places, far := c.Frame.All(f.Places), false
		for _, p := range way {
			d := math.Inf(1)
			if f.Shape == site.Area && f.Area(c.Frame).Holds(p) {
				d = 0
			}
			for i := range places {
				q, _ := geo.Nearest(p, places[i], places[(i+1)%len(places)])
				d = min(d, geo.Dist(p, q))
			}
			if far = d > within; far {
				break
			}
		}
		if far {
			continue
		}
		o := site.Standing([]site.Feature{f}, c.Frame, c.Terrain, c.Reference())[0]
		low := o.GroundM
		if u := c.Terrain.UnderShape(o.Kind, o.Places, 0); u.Known {
			low = u.LowM
		}
		if over := highestElevation - (low + *f.HeightM); best == nil || over < *best {
			best = &over
		}
	}
	return best
}
