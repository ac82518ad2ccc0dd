package survey

import (
	"errors"
	"math"
	"slices"

	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/why"
)

// Part is what is flown at one height, or along the ground in one go.
type Part struct {
	Cross    bool    `json:"cross"` // of the lines across
	Pieces   []Piece `json:"pieces"`
	LowM     float64 `json:"low_m"` // lowest ground under it, elevation
	HighM    float64 `json:"high_m"`
	Known    bool    `json:"known"`     // the terrain covers all of it
	LevelM   float64 `json:"level_m"`   // elevation flown; the highest where it follows the ground
	GSDCm    float64 `json:"gsd_cm"`    // on the lowest ground
	BestCm   float64 `json:"best_cm"`   // on the highest
	SideLeft float64 `json:"side_left"` // overlap that remains on the highest, percent
	Front    float64 `json:"front_left"`
	TakeOff  Advice  `json:"take_off"`
}

// Advice is where to take off for a part.
type Advice struct {
	ID       string  `json:"id"` // of the place
	Name     string  `json:"name"`
	At       geo.XY  `json:"at"`
	ElevM    float64 `json:"elevation_m"`
	HeightM  float64 `json:"height_m"`      // of the part over it
	Top      *geo.XY `json:"top,omitempty"` // highest ground of a part that no place lies near
	Sentence string  `json:"sentence"`
}

// Plan is a wish worked out.
type Plan struct {
	HeightM    float64        `json:"height_m"` // over the highest ground of each part
	Picture    Picture        `json:"picture"`
	LinesM     float64        `json:"lines_m"`
	PicturesM  float64        `json:"pictures_m"`
	BufferM    float64        `json:"buffer_m"`
	BearingDeg float64        `json:"bearing_deg"`
	Pace       Pace           `json:"pace"`
	Views      int            `json:"views"` // pictures in which each place of the area lies at least
	Parts      []Part         `json:"parts"`
	Flights    []Flight       `json:"flights"`
	Lines      int            `json:"lines"`
	Pictures   int            `json:"pictures"`
	Minutes    float64        `json:"minutes"`
	AreaHa     float64        `json:"area_ha"`
	CardGB     float64        `json:"card_gb"`
	Broken     []judge.Broken `json:"broken"`
	Verdict    judge.Verdict  `json:"verdict"`
}

// Make works a wish out. Errors wrap ErrInput and are about figures that cannot be; what
// cannot be flown is in Broken, with the nearest value that can.
func Make(w Wish, g Given) (Plan, error) {
	p := Plan{Parts: []Part{}, Flights: []Flight{}, Broken: []judge.Broken{}}
	if err := w.check(); err != nil {
		return p, err
	}
	if g.Camera == nil {
		p.say("camera", judge.Stop, nil,
			"Which camera takes the pictures is not chosen: neither lines nor pictures can be counted.")
		p.Verdict = judge.Stop
		return p, nil
	}
	c := *g.Camera
	c.Turned = w.Turned
	if err := p.see(w, g, c); err != nil {
		return p, err
	}
	if err := p.pace(w, g, c); err != nil {
		return p, err
	}
	hatches, err := p.hatches(w, g)
	if err != nil {
		return p, err
	}
	if err := p.parts(w, g, c, hatches); err != nil {
		return p, err
	}
	if err := p.fly(w, g); err != nil {
		return p, err
	}
	p.enters(g)
	p.turns(w, g)
	p.hold(w, g)
	for _, b := range p.Broken {
		p.Verdict = max(p.Verdict, b.Verdict)
	}
	return p, nil
}

// see finds the height, what a picture shows from it, and how far apart they lie.
func (p *Plan) see(w Wish, g Given, c Camera) error {
	var err error
	switch w.By {
	case ByResolution:
		p.HeightM, err = c.HeightFor(w.GSDCm / 100)
	case ByHeight:
		p.HeightM = w.HeightM
	case ByCanopy:
		for _, x := range g.Canopies {
			if x.Key == w.Canopy {
				p.HeightM = x.HeightM
			}
		}
		if p.HeightM == 0 {
			return why.Not(ErrInput, "the canopy is not in the crew's table: choose another")
		}
	}
	if err != nil {
		return err
	}
	if p.Picture, err = c.See(p.HeightM); err != nil {
		return err
	}
	if p.LinesM, p.PicturesM, err = p.Picture.Spacing(w.Side, w.Front); err != nil {
		return err
	}
	need := math.Ceil(math.Hypot(p.Picture.AcrossM, p.Picture.AlongM) / 2)
	p.BufferM = min(need, MostBuffer)
	if g.Area == nil {
		p.BufferM = min(math.Ceil(p.Picture.AlongM/2), MostBuffer)
	}
	p.Views = int(p.Picture.AcrossM/p.LinesM+1e-9) * int(p.Picture.AlongM/p.PicturesM+1e-9)
	if w.BufferM != nil {
		if *w.BufferM < p.BufferM {
			p.say("buffer_m", judge.Watch, ptr(p.BufferM),
				"With %.0f m beyond the edge, places near it lie in fewer than %d pictures; all of them take %.0f m.", *w.BufferM,
				p.Views, p.BufferM)
		}
		p.BufferM = *w.BufferM
	}
	return nil
}

// pace holds speed and shutter against the camera, at the greatest speed over the ground.
func (p *Plan) pace(w Wish, g Given, c Camera) error {
	fast := w.SpeedMS
	if g.Wing { // it keeps its airspeed, and the wind adds to it
		fast += g.Wind.MeanMS
	}
	var err error
	if p.Pace, err = c.Pace(p.Picture, p.PicturesM, min(fast, 60), 1/w.Shutter); err != nil {
		return err
	}
	if p.Pace.Verdict == judge.Clear {
		return nil
	}
	near := floor1(min(p.Pace.FitsMS, BlurWatch*p.Picture.GSDAlong*w.Shutter) - (fast - w.SpeedMS))
	words := p.Pace.Sentence
	if fast > w.SpeedMS {
		words += " With the wind from behind it is that fast over the ground."
	}
	if near < 0.5 {
		p.say("speed_ms", p.Pace.Verdict, nil,
			"%s No speed is slow enough: fly higher, take less overlap, or a shorter exposure.", words)
		return nil
	}
	p.say("speed_ms", p.Pace.Verdict, &near, "%s", words)
	return nil
}

// hatches lays the lines: once, and a second time across.
func (p *Plan) hatches(w Wish, g Given) ([]Hatch, error) {
	if g.Area == nil {
		h, err := Corridor(g.Line, w.WidthM, p.LinesM, p.PicturesM, p.BufferM)
		if err != nil {
			return nil, err
		}
		if w.Cross {
			p.say("cross", judge.Watch, nil, "Along a line nothing is flown across.")
		}
		p.BearingDeg = h.BearingDeg
		return []Hatch{h}, nil
	}
	p.AreaHa = math.Abs(g.Area.Outline.Area()) / 1e4
	for _, h := range g.Area.LeaveOut {
		p.AreaHa -= math.Abs(h.Area()) / 1e4
	}
	bearing := w.BearingDeg
	var err error
	switch {
	case w.Direction == Along:
	case w.Direction == AcrossWind && !g.Wind.Against:
		bearing = math.Mod(g.Wind.FromDeg+90, 180)
	default:
		if w.Direction == AcrossWind {
			p.say("direction", judge.Watch, nil, "Where the wind comes from is not known: the lines lie for the fewest turns.")
		}
		bearing, err = g.Area.BestBearing(p.LinesM, p.BufferM)
	}
	if err != nil {
		return nil, err
	}
	p.BearingDeg = bearing
	one, err := g.Area.Hatch(bearing, p.LinesM, p.PicturesM, p.BufferM)
	out := []Hatch{one}
	if err == nil && w.Cross {
		var two Hatch
		two, err = g.Area.Hatch(math.Mod(bearing+90, 360), p.LinesM, p.PicturesM, p.BufferM)
		out = append(out, two)
	}
	return out, err
}

// hold holds what came out against ceiling, card and aircraft.
func (p *Plan) hold(w Wish, g Given) {
	most := 0.0
	unknown := false
	for _, x := range p.Parts {
		if x.Known && w.Relief != Follow { // what follows the ground is found when it is flown
			most = max(most, x.LevelM-x.LowM)
		}
		unknown = unknown || !x.Known
	}
	switch {
	case len(p.Parts) == 0:
		p.say("area", judge.Stop, nil, "Nothing is left to fly over: the area lies in what is forbidden or left out.")
	case unknown:
		p.say("relief", judge.Watch, nil,
			"The terrain does not cover all of it: resolution, overlap and height over the ground are those of level ground at take-off there.")
		most = max(most, p.HeightM)
	}
	if w.Relief == Follow {
		most = p.mostOver(most)
	}
	if g.CeilingM != nil && most > *g.CeilingM+0.05 {
		near := *g.CeilingM - (most - p.HeightM)
		// from another height the parts are others, but none has more relief than this
		if w.Relief == Split && g.Terrain != nil {
			near = min(near, *g.CeilingM-MostReliefM)
		}
		words := "Fly lower, or in parts."
		if near < 2 {
			p.say("height_m", judge.Stop, nil,
				"It flies up to %.0f m over the ground; %.0f m are allowed. Fly in parts, or follow the ground.", most, *g.CeilingM)
		} else {
			near = floor1(near)
			p.say("height_m", judge.Stop, &near, "It flies up to %.0f m over the ground; %.0f m are allowed. %s", most,
				*g.CeilingM, words)
		}
	}
	p.CardGB = float64(p.Pictures) * g.PictureM / 1000
	if p.CardGB > w.CardGB {
		p.say("card_gb", judge.Stop, ptr(math.Ceil(p.CardGB)), "%d pictures take %.1f GB; the card holds %.0f.", p.Pictures,
			p.CardGB, w.CardGB)
	}
	if g.MostWay > 0 {
		for i, f := range p.Flights {
			if n := 2*len(f.Pieces) + 2; n > g.MostWay {
				p.say("area", judge.Stop, nil,
					"Flight %d has %d waypoints; the aircraft takes %d. Make the area smaller, or its edge simpler.", i+1, n,
					g.MostWay)
			}
		}
	}
}

// enters says which of what is forbidden a corridor passes through: its lines follow what
// is charted, and are not cut as those of an area are.
func (p *Plan) enters(g Given) {
	if g.Area != nil {
		return
	}
	for _, n := range g.Forbidden {
		for _, x := range p.Parts {
			if slices.ContainsFunc(x.Pieces, func(y Piece) bool { return n.enters(y.From, y.To) }) {
				p.say("area", judge.Stop, nil, "The lines pass through %s. Chart the line round it, or in two.", n.Name)
				break
			}
		}
	}
}

// mostOver is the greatest height over the ground where the ground is followed.
func (p *Plan) mostOver(most float64) float64 {
	for _, f := range p.Flights {
		most = max(most, f.MostOverM)
	}
	return most
}

// parts divides the lines by the ground under them.
func (p *Plan) parts(w Wish, g Given, c Camera, hatches []Hatch) error {
	for i, h := range hatches {
		p.Lines += h.Lines
		var err error
		switch {
		case g.Area == nil:
			err = p.stretches(w, g, c, h)
		default:
			err = p.blocks(w, g, c, h, i > 0)
		}
		if err != nil {
			return err
		}
	}
	for i := range p.Parts {
		for _, x := range p.Parts[i].Pieces {
			p.Pictures += x.Pictures
		}
	}
	return nil
}

// blocks are the parts of an area.
func (p *Plan) blocks(w Wish, g Given, c Camera, h Hatch, cross bool) error {
	r := reliefUnder(h, g.Terrain)
	if len(h.Pieces) == 0 {
		return nil
	}
	all := []block{{0, r.rows, 0, r.cols}}
	if w.Relief == Split && g.Terrain != nil {
		var ok bool
		if all, ok = r.split(MostReliefM); !ok {
			p.tooRough()
		}
	}
	for _, b := range all {
		low, high, known := r.heights(b)
		pieces := r.within(h, b)
		if len(pieces) == 0 {
			continue
		}
		if err := p.part(w, g, c, Part{Cross: cross, Pieces: pieces, LowM: low, HighM: high, Known: known}); err != nil {
			return err
		}
	}
	return nil
}

// tooRough says once that parts do not help.
func (p *Plan) tooRough() {
	for _, b := range p.Broken {
		if b.Wish == "relief" && b.Verdict == judge.Stop {
			return
		}
	}
	p.say("relief", judge.Stop, nil,
		"The ground is too rough to be split into parts of %.0f m relief. Follow the ground instead.", MostReliefM)
}

// part adds one, with its height, what is seen from it, and where to take off.
func (p *Plan) part(w Wish, g Given, c Camera, x Part) error {
	if !x.Known {
		x.LowM, x.HighM = min(x.LowM, g.Start.ElevM), max(x.HighM, g.Start.ElevM)
		if math.IsInf(x.LowM, 0) || math.IsInf(x.HighM, 0) {
			x.LowM, x.HighM = g.Start.ElevM, g.Start.ElevM
		}
	}
	x.LevelM = x.HighM + p.HeightM
	if w.Relief == Level {
		x.LevelM = g.Start.ElevM + p.HeightM
	}
	over := x.LevelM - x.HighM
	low, high := x.LevelM-x.LowM, over
	if w.Relief == Follow {
		low, high = p.HeightM, p.HeightM // what the climb adds is found when it is flown
	}
	if over < 2 {
		p.say("relief", judge.Stop, ptr(math.Ceil(x.HighM-g.Start.ElevM+p.HeightM)),
			"The ground rises to %.0f m over take-off: at %.0f m it would be flown into. Fly in parts, or follow the ground.",
			x.HighM-g.Start.ElevM, p.HeightM)
		high, low = max(high, 2), max(low, 2)
	}
	near, err := c.See(high)
	far, err2 := c.See(min(low, 5000))
	if err := errors.Join(err, err2); err != nil {
		return err
	}
	x.GSDCm, x.BestCm = far.GroundGSDM*100, near.GroundGSDM*100
	x.SideLeft, x.Front = 100*(1-p.LinesM/near.AcrossM), 100*(1-p.PicturesM/near.AlongM)
	if least := min(x.SideLeft, x.Front); least < min(w.Side, w.Front)-10 || least < 0 {
		v := judge.Watch
		if least < 30 {
			v = judge.Stop
		}
		p.say("relief", v, nil, "On the highest ground %.0f %% of overlap remain of %.0f %%.", max(0, least),
			min(w.Side, w.Front))
	}
	if x.TakeOff = advise(x, g); x.TakeOff.Top != nil {
		p.say("area", judge.Watch, nil, "%s", x.TakeOff.Sentence)
	}
	p.Parts = append(p.Parts, x)
	return nil
}
