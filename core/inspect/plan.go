package inspect

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"mainstay/core/energy"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/judge"
	"mainstay/core/survey"
	"mainstay/core/why"
)

// Form is what a structure is taken as.
type Form string

// The forms.
const (
	Box      Form = "box"      // upright walls along an outline
	Cylinder Form = "cylinder" // a tower, a tank
	Roof     Form = "roof"     // a plane seen from above, panels among them
	Poles    Form = "poles"    // one after the other along a line
)

// AllForms lists them.
var AllForms = []Form{Box, Cylinder, Roof, Poles}

// Usual values (usual practice).
const (
	UsualSafeM   = 5.0  // m from anything that stands
	StopS        = 4.0  // s to come to rest and take a picture
	LeeHeights   = 5.0  // the air behind a structure is rough over so many of its heights
	LeeWindMS    = 5.0  // from this wind on
	PolePictures = 4    // round a pole alone, in each row
	MostPictures = 5000 // of one plan
)

// Wish is how somebody wants a structure pictured.
type Wish struct {
	Feature    string  `json:"feature"` // id of what stands there, on the site
	Form       Form    `json:"form"`
	HeightM    float64 `json:"height_m"` // of its top over the ground
	FromM      float64 `json:"from_m"`   // lowest that is wanted, over the ground
	RadiusM    float64 `json:"radius_m"` // of a cylinder or a pole
	PitchDeg   float64 `json:"pitch_deg"`
	FacesDeg   float64 `json:"faces_deg"` // where a roof looks to, true
	DetailMM   float64 `json:"detail_mm"` // that one pixel is to show
	SafeM      float64 `json:"safe_m"`
	EnergisedM float64 `json:"energised_m"` // stand-off that the owner sets; 0: nothing is energised
	Camera     string  `json:"camera"`
	Sideways   float64 `json:"sideways"` // overlap, percent
	Upwards    float64 `json:"upwards"`
	SpeedMS    float64 `json:"speed_ms"` // from picture to picture
	CardGB     float64 `json:"card_gb"`
	Look       []Look  `json:"look"`
}

// Look is something that is to be looked at; which picture shows it is found afterwards.
type Look struct {
	What    string `json:"what"`
	Picture string `json:"picture"`
}

// Defaults are what a wish begins with.
func Defaults() Wish {
	return Wish{Form: Box, HeightM: 8, FromM: 1.5, RadiusM: 1, FacesDeg: 180, DetailMM: 2, SafeM: UsualSafeM, Sideways: 40,
		Upwards: 40, SpeedMS: 2, CardGB: 64, Look: []Look{}}
}

// Given is what is known of structure, aircraft and air.
type Given struct {
	Places    []geo.XY        // outline, middle, or line
	Line      bool            // the places are a line, not an outline
	Stand     []home.Obstacle // what else stands there
	PositionM float64         // by which positions are off
	OverM     float64         // kept over it
	Start     survey.Place
	GroundM   float64 // elevation of its ground
	Known     bool
	Camera    *survey.Camera
	PictureM  float64 // megabytes
	CeilingM  *float64
	OverTopM  *float64 // over a structure's top that is allowed near it; nil: no such rule
	WithinM   float64  // how near that is
	MassKg    float64
	Rho       float64
	Model     energy.Model
	UsableWh  float64
	FullWh    float64
	Reserve   float64
	ReturnM   float64
	Wind      energy.Wind
	WindKnown bool
}

// Stop is a place where the aircraft rests and takes a picture.
type Stop struct {
	At         geo.XY  `json:"at"`
	HeightM    float64 `json:"height_m"` // over the ground of the structure
	HeadingDeg float64 `json:"heading_deg"`
	GimbalDeg  float64 `json:"gimbal_deg"` // 0 level, -90 down
	Face       int     `json:"face"`
	Row        int     `json:"row"`
	Lee        bool    `json:"lee"` // in the rough air behind the structure
	// Via is flown through to it, at the greater height of both ends, round what stands.
	Via []geo.XY `json:"via,omitempty"`
}

// Plan is a wish worked out.
type Plan struct {
	StandM   float64        `json:"stand_m"` // from the surface
	DetailMM float64        `json:"detail_mm"`
	WideM    float64        `json:"wide_m"` // of the surface in one picture
	HighM    float64        `json:"high_m"`
	Stops    []Stop         `json:"stops"`
	Rows     int            `json:"rows"`
	Faces    int            `json:"faces"`
	Flights  []Flight       `json:"flights"`
	Pictures int            `json:"pictures"`
	Minutes  float64        `json:"minutes"`
	CardGB   float64        `json:"card_gb"`
	TopM     float64        `json:"top_m"` // highest flown, over the ground
	Broken   []judge.Broken `json:"broken"`
	Verdict  judge.Verdict  `json:"verdict"`

	safe float64 // kept from the structure
	laid int     // places, before any is left out
}

// Flight is the stops flown on one set of packs, the end not in it.
type Flight struct {
	From    int     `json:"from"`
	To      int     `json:"to"`
	Seconds float64 `json:"seconds"`
	Wh      float64 `json:"wh"`
	Percent float64 `json:"percent"` // of full packs, with the reserve
}

func (p *Plan) say(wish string, v judge.Verdict, nearest *float64, format string, a ...any) {
	p.Broken = append(p.Broken, judge.Broken{Wish: wish, Verdict: v, Sentence: fmt.Sprintf(format, a...),
		Nearest: nearest})
}

func (w Wish) check() error {
	var err error
	if !slices.Contains(AllForms, w.Form) {
		err = why.Not(ErrInput, "%q is none of %v", w.Form, AllForms)
	}
	return errors.Join(err, within("height", w.HeightM, 0.5, 500), within("lowest", w.FromM, 0, w.HeightM),
		within("radius", w.RadiusM, 0.05, 500), within("pitch", w.PitchDeg, 0, 80), within("facing", w.FacesDeg, 0, 360),
		within("detail", w.DetailMM, 0.05, 500),
		within("safe distance", w.SafeM, 1, 200), within("stand-off from what is energised", w.EnergisedM, 0,
			200), within("overlap sideways", w.Sideways, 0, 95), within("overlap upwards", w.Upwards, 0, 95), within("speed",
			w.SpeedMS, 0.2, 20), within("card", w.CardGB, 0.1, 10_000))
}

// Make works a wish out. Errors wrap ErrInput and are about figures that cannot be; what
// cannot be flown is in Broken, with the nearest value that can.
func Make(w Wish, g Given) (Plan, error) {
	p := Plan{Stops: []Stop{}, Flights: []Flight{}, Broken: []judge.Broken{}}
	if err := w.check(); err != nil {
		return p, err
	}
	if err := geo.Finite(g.Places...); err != nil || len(g.Places) == 0 {
		return p, errors.Join(ErrInput, errors.New("what is inspected has no place on the map"), err)
	}
	if g.Camera == nil {
		p.say("camera", judge.Stop, nil,
			"Which camera takes the pictures is not chosen: stand-off and pictures cannot be found.")
		p.Verdict = judge.Stop
		return p, nil
	}
	if err := p.stand(w, g); err != nil {
		return p, err
	}
	if err := p.lay(w, g); err != nil {
		return p, err
	}
	if err := within("the number of pictures", float64(p.laid), 0, MostPictures); err != nil {
		return p, err
	}
	p.clear(w, g)
	p.lee(w, g)
	if err := p.fly(w, g); err != nil {
		return p, err
	}
	p.hold(w, g)
	for _, b := range p.Broken {
		p.Verdict = max(p.Verdict, b.Verdict)
	}
	return p, nil
}

// stand is how far off it stands: as the detail asks, never nearer than is safe.
func (p *Plan) stand(w Wish, g Given) error {
	far, err := g.Camera.HeightFor(w.DetailMM / 1000)
	if err != nil {
		return errors.Join(ErrInput, err)
	}
	safe, why := w.Safe(), "the safe distance"
	if w.EnergisedM > w.SafeM {
		why = "the stand-off that the owner sets"
	}
	p.safe = safe
	p.StandM = max(far, safe)
	see, err := g.Camera.See(p.StandM)
	if err != nil {
		return errors.Join(ErrInput, err)
	}
	p.DetailMM, p.WideM, p.HighM = see.GroundGSDM*1000, see.AcrossM, see.AlongM
	if far < safe-0.005 {
		near := math.Ceil(p.DetailMM*100) / 100
		p.say("detail_mm", judge.Watch, &near,
			"%g mm would be seen from %.1f m; nearer than %.1f m, %s, it does not come: one pixel shows %.2f mm. A longer lens shows more.",
			w.DetailMM, far, safe, why, p.DetailMM)
	}
	return nil
}

// hold holds what came out against rules, card and what is energised.
func (p *Plan) hold(w Wish, g Given) {
	p.Pictures = len(p.Stops)
	for _, s := range p.Stops {
		p.TopM = max(p.TopM, s.HeightM)
	}
	most := math.Inf(1)
	if g.CeilingM != nil {
		most = *g.CeilingM
	}
	if g.OverTopM != nil && p.StandM <= g.WithinM {
		most = max(most, w.HeightM+*g.OverTopM)
	}
	if p.TopM > most+0.05 {
		p.say("height_m", judge.Stop, &most, "The highest picture is taken %.0f m over the ground; %.0f m are allowed here.",
			p.TopM, most)
	}
	p.CardGB = float64(p.Pictures) * g.PictureM / 1000
	if p.CardGB > w.CardGB {
		near := math.Ceil(p.CardGB)
		p.say("card_gb", judge.Stop, &near, "%d pictures take %.1f GB; the card holds %.0f.", p.Pictures, p.CardGB, w.CardGB)
	}
	n := 0
	for _, s := range p.Stops {
		if s.Lee {
			n++
		}
	}
	switch {
	case !g.WindKnown:
		p.say("wind", judge.Watch, nil,
			"Where the wind comes from is not known: which pictures lie in the rough air behind the structure neither.")
	case n > 0:
		p.say("wind", judge.Watch, nil,
			"%d pictures lie in the rough air behind the structure: begin on the other side, and keep more distance there.", n)
	}
	if len(p.Stops) == 0 {
		p.say("feature", judge.Stop, nil, "No place is left from which a picture could be taken.")
	}
	if !g.Known {
		p.say("feature", judge.Watch, nil, "The ground under the structure is not known: heights count from take-off.")
	}
	if w.EnergisedM == 0 && w.Form == Poles {
		p.say("energised_m", judge.Watch, nil,
			"Ask the owner of the line how far to stay from what is energised, and enter it.")
	}
}

// lee marks the pictures taken behind the structure.
func (p *Plan) lee(w Wish, g Given) {
	if !g.WindKnown || g.Wind.MeanMS < LeeWindMS {
		return
	}
	sin, cos := math.Sincos(g.Wind.FromDeg * math.Pi / 180)
	behind := geo.XY{X: -sin, Y: -cos}
	for i, s := range p.Stops {
		near := math.Inf(1)
		var d geo.XY
		for _, q := range g.Places {
			if v := s.At.Sub(q); v.Len() < near {
				near, d = v.Len(), v
			}
		}
		along := d.X*behind.X + d.Y*behind.Y
		p.Stops[i].Lee = w.Form != Roof && along > 0.5*near && near <= LeeHeights*w.HeightM+p.StandM &&
			s.HeightM < 1.5*w.HeightM
	}
}
