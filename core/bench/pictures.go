package bench

import (
	"mainstay/core/inspect"
	"mainstay/core/survey"
)

// lens are the inputs that say what a camera is.
var lens = []Input{{"sensor_w", "Sensor width, mm", "", 13.2, 1, 100},
	{"sensor_h", "Sensor height, mm", "", 8.8, 1, 100}, {"focal", "Focal length, mm", "", 8.8, 1, 1000},
	{"pixels_w", "Picture width, pixels", "", 5472, 100, 50000},
	{"pixels_h", "Picture height, pixels", "", 3648, 100, 50000}}

func camera(v values) survey.Camera {
	return survey.Camera{SensorWMM: v["sensor_w"], SensorHMM: v["sensor_h"], FocalMM: v["focal"], PixelsW: v["pixels_w"],
		PixelsH: v["pixels_h"], LeastS: v["least"]}
}

var pictures = []Calculator{
	{
		Key: "pictures", Group: "Mapping and inspection", Title: "Pictures of the ground",
		Formula: "W = sensor H/f, resolution = W/pixels; across = W (1 - side), along = L (1 - front); interval = along/speed, at least 1.2 times the camera's; blur = speed exposure/resolution along",
		Limits:  "Level ground, camera straight down. Blur over half a pixel is Watch, over one Stop. Over relief the highest ground has the least overlap.",
		Source:  "Central projection; usual practice.",
		Inputs: append(append([]Input{}, lens...), Input{"least", "Least interval of the camera, s", "", 2, 0, 60},
			Input{"height", "Height over the ground", "m", 90, 0.5, 5000}, Input{"side", "Side overlap", "%", 70, 0, 95},
			Input{"front", "Front overlap", "%", 75, 0, 95}, Input{"speed", "Speed", "m/s", 8, 0.1, 60},
			Input{"exposure", "Exposure: one part of a second", "", 800, 1, 20000},
			Input{"width", "Width to cover", "m", 400, 0, 100000}),
		compute: func(v values) ([]Result, string, error) {
			c := camera(v)
			p, err := c.See(v["height"])
			if err != nil {
				return nil, "", err
			}
			lines, along, err := p.Spacing(v["side"], v["front"])
			if err != nil {
				return nil, "", err
			}
			pace, err := c.Pace(p, along, v["speed"], 1/v["exposure"])
			if err != nil {
				return nil, "", err
			}
			n, err := survey.Lines(v["width"], lines)
			if err != nil {
				return nil, "", err
			}
			return []Result{{"Resolution, cm", p.GroundGSDM * 100, "", 3}, {"A picture across", p.AcrossM, "m", 1},
				{"A picture along", p.AlongM, "m", 1}, {"Lines apart", lines, "m", 1}, {"Pictures apart", along, "m", 1},
				{"Interval, s", pace.IntervalS, "", 2}, {"Blur, pixels", pace.BlurPx, "", 2},
				{"Lines over the width", float64(n), "", 0}}, pace.Sentence, nil
		},
	},
	{
		Key: "height-for", Group: "Mapping and inspection", Title: "Height or stand-off for a resolution",
		Formula: "H = resolution f pixels/sensor, by the coarser side", Limits: "Never nearer than the safe distance.",
		Source: "Central projection.",
		Inputs: append(append([]Input{}, lens...), Input{"gsd", "Resolution, cm", "", 2, 0.05, 500}),
		compute: func(v values) ([]Result, string, error) {
			c := camera(v)
			h, err := c.HeightFor(v["gsd"] / 100)
			if err != nil {
				return nil, "", err
			}
			return []Result{{"Height or stand-off", h, "m", 1}}, "", nil
		},
	},
	{
		Key: "ring", Group: "Mapping and inspection", Title: "Rings round a structure",
		Formula: "round = ceil(2 pi R/(W (1 - sideways))); rows = ceil((height - L)/(L (1 - upward))) + 1, one where a picture shows all",
		Limits:  "Spacing is measured on the surface; W and L are what a picture shows of it.", Source: "Usual practice.",
		Inputs: append(append([]Input{}, lens...), Input{"stand_off", "Stand-off", "m", 5, 0.5, 500},
			Input{"radius", "Radius of the structure", "m", 2, 0.05, 500}, Input{"height", "Its height", "m", 30, 0.1, 1000},
			Input{"sideways", "Overlap sideways", "%", 60, 0, 95}, Input{"upward", "Overlap upwards", "%", 60, 0, 95}),
		compute: func(v values) ([]Result, string, error) {
			p, err := camera(v).See(v["stand_off"])
			if err != nil {
				return nil, "", err
			}
			s, err := inspect.Ring(inspect.Round{
				RadiusM: v["radius"], HeightM: v["height"], WideM: p.AcrossM, HighM: p.AlongM,
				Sideways: v["sideways"], Upward: v["upward"],
			})
			if err != nil {
				return nil, "", err
			}
			return []Result{{"A picture shows, wide", p.AcrossM, "m", 2}, {"A picture shows, high", p.AlongM, "m", 2},
				{"Pictures round it", float64(s.Around), "", 0}, {"Rows", float64(s.Rows), "", 0},
				{"Pictures in all", float64(s.All), "", 0}}, "", nil
		},
	},
}
