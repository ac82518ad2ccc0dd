package bench

import (
	"math"

	"mainstay/core/geo"
	"mainstay/core/spray"
)

var signs = []Calculator{
	{
		Key: "motor-spread", Group: "Flight signs", Title: "Spread of motor outputs",
		Formula: "(greatest - least)/mean",
		Limits:  "At a still hover: to 10 % in order, to 20 % land and find out, above stop; an off-centre load shows too.",
		Source:  "Usual practice.",
		Inputs: []Input{{"least", "Least output", "%", 48, 0, 100}, {"most", "Greatest output", "%", 53, 0, 100},
			{"mean", "Mean of all", "%", 50, 1, 100}},
		compute: func(v values) ([]Result, string, error) {
			s := (v["most"] - v["least"]) / v["mean"] * 100
			says := "In order."
			switch {
			case s > 20:
				says = "Stop: land and do not fly on before the cause is found."
			case s > 10:
				says = "Watch: land and find out."
			case s < 0:
				says = "The least is over the greatest: look again."
			}
			return []Result{{"Spread", s, "%", 1}}, says, nil
		},
	},
	{
		Key: "heading", Group: "Flight signs", Title: "Heading check",
		Formula: "shortest signed angle from the true heading to the shown one", Limits: "Each of four headings within 10°.",
		Source: "Usual practice.",
		Inputs: []Input{{"true", "Stands at", "°", 0, 0, 360}, {"shown", "Shows", "°", 356, 0, 360}},
		compute: func(v values) ([]Result, string, error) {
			d := math.Mod(v["shown"]-v["true"]+540, 360) - 180
			says := "In order."
			if geo.AngleBetween(v["true"], v["shown"]) > 10 {
				says = "More than 10° off: calibrate the compass away from metal."
			}
			return []Result{{"Off by", d, "°", 1}}, says, nil
		},
	},
	{
		Key: "camera", Group: "Flight signs", Title: "Shutter and filter",
		Formula: "shutter = 1/(2 x frames a second); stops = log2(wanted time/metered time)",
		Limits:  "Negative: too dark, no filter.", Source: "Half-frame shutter of film.",
		Inputs: []Input{{"fps", "Frames a second", "", 25, 1, 240}, {"metered", "Metered: 1/", "s", 1600, 1, 32000}},
		compute: func(v values) ([]Result, string, error) {
			return []Result{{"Shutter: 1/", 2 * v["fps"], "s", 0},
				{"Filter", math.Log2(v["metered"] / (2 * v["fps"])), "stops", 1}}, "", nil
		},
	},
	{
		Key: "drift", Group: "Flight signs", Title: "Where drift goes",
		Formula: "wind direction + 180° and 22.5° to both sides; all round under 2 m/s",
		Limits:  "At the height of the nozzles. The label's distance downwind wins.", Source: "Usual practice.",
		Inputs: []Input{{"from", "Wind from", "°", 240, 0, 360}, {"speed", "Wind at the nozzles", "m/s", 3, 0, 60}},
		compute: func(v values) ([]Result, string, error) {
			from := v["from"]
			start, width := spray.Blow{MeanMS: v["speed"], FromDeg: &from}.Sector()
			says := ""
			if width >= 360 {
				says = "Too little wind: drift may go anywhere."
			}
			return []Result{{"From bearing", start, "°", 1}, {"Clockwise over", width, "°", 1}}, says, nil
		},
	},
}
