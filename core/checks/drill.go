package checks

import "slices"

// DrillID is the item of a drill.
const DrillID = "drill"

// Picture is a drawing that a drill may show.
type Picture struct {
	Key    string `json:"key"`
	Of     string `json:"of"` // kind of station that it belongs to
	Shows  string `json:"shows"`
	Damage bool   `json:"damage"`
}

// AllPictures lists the drawings of drills: of each part one in order, and some with damage.
var AllPictures = []Picture{
	{"propeller-whole", "propeller", "A whole propeller.", false},
	{"propeller-nick", "propeller", "A nick in the leading edge, near the tip.", true},
	{"propeller-crack", "propeller", "A hairline crack across the root.", true},
	{"propeller-bend", "propeller", "One blade is bent.", true},
	{"arm-whole", "arm", "An arm, latched.", false},
	{"arm-crack", "arm", "A crack in the tube beside the clamp.", true},
	{"arm-open", "arm", "The latch stands open by a gap.", true},
	{"pack-flat", "bay", "A pack with flat faces.", false},
	{"pack-swollen", "bay", "A pack swollen on one face.", true},
	{"plug-clean", "bay", "A plug with clean contacts, fully mated.", false},
	{"plug-half", "bay", "A plug that is only half mated.", true},
	{"motor-whole", "motor", "A motor, its bell straight over the stator.", false},
	{"motor-tilt", "motor", "The bell stands askew: the gap is wider on one side.", true},
	{"motor-lead", "motor", "A lead rubbed through to the copper.", true},
	{"sensor-clean", "sensor", "A sensor with a clean face.", false},
	{"sensor-dirty", "sensor", "Dried drops on the face of a sensor.", true},
	{"surface-whole", "surface", "A surface in line with the wing.", false},
	{"surface-hinge", "surface", "A hinge torn out of the edge of the wing.", true},
}

// Shown is the picture of a drill in a round, and where it stands among the items.
type Shown struct {
	Picture Picture `json:"picture"`
	At      int     `json:"at"` // before the item of this index
	Station string  `json:"station"`
}

// DrillIn draws whether a round has a drill, one in so many, and which; the same seed always
// says the same. Half of the pictures show damage, so that neither answer is the safe one.
func DrillIn(seed uint64, items []Item, oneIn float64) (Shown, bool) {
	draw := draws(seed)
	if !(oneIn >= 1) || len(items) < 2 || float64(draw(1<<30))/(1<<30)*oneIn >= 1 {
		return Shown{}, false
	}
	damage := draw(2) == 0
	fits := slices.DeleteFunc(slices.Clone(AllPictures), func(p Picture) bool {
		return p.Damage != damage || !slices.ContainsFunc(items, func(it Item) bool { return it.shows(p) != "" })
	})
	if len(fits) == 0 {
		return Shown{}, false
	}
	p := fits[draw(len(fits))]
	var at []int
	for i, it := range items {
		if i > 0 && it.shows(p) != "" {
			at = append(at, i)
		}
	}
	if len(at) == 0 {
		return Shown{}, false
	}
	i := at[draw(len(at))]
	return Shown{p, i, items[i].shows(p)}, true
}

// draws gives numbers from 0 under n, always the same from a seed: the core knows no chance.
// Steele, Lea and Flood, Fast splittable pseudorandom number generators (2014).
func draws(seed uint64) func(n int) int {
	return func(n int) int {
		seed += 0x9e3779b97f4a7c15
		z := seed
		z = (z ^ z>>30) * 0xbf58476d1ce4e5b9
		z = (z ^ z>>27) * 0x94d049bb133111eb
		return int((z ^ z>>31) % uint64(n))
	}
}

// shows is the station of an item at which a picture could have been taken; empty: none.
func (it Item) shows(p Picture) string {
	for _, s := range it.Stations() {
		if s == p.Of || len(s) > len(p.Of) && s[:len(p.Of)+1] == p.Of+"-" {
			return s
		}
	}
	return ""
}

// bad are the drawings of what is not in order at the places where an item looks.
func (it Item) bad() (out []Picture) {
	for _, p := range AllPictures {
		if p.Damage && (it.Kind == Look || it.Kind == Group) && it.shows(p) != "" {
			out = append(out, p)
		}
	}
	return out
}

// With puts the picture of a drill among the items.
func (s Shown) With(items []Item) []Item {
	if s.Picture.Key == "" || s.At > len(items) {
		return items
	}
	one := Item{ID: DrillID, Station: s.Station, Section: "Picture", Title: "A picture: is this in order?", Kind: Drill,
		Bars: true, Drawing: s.Picture.Key,
		How: "A drawing of a part as it may lie in your hand. Look at it as you look at the aircraft, and say what you see.",
		Why: "Eyes that have seen a hundred whole parts stop looking. What was right is told to you alone, at the end."}
	return slices.Insert(slices.Clone(items), s.At, one)
}

// Right reports whether an answer saw what the picture shows.
func (s Shown) Right(v Value) bool { return (v.Look == "defect") == s.Picture.Damage }
