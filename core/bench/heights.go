package bench

import "mainstay/core/height"

var heights = []Calculator{
	{
		Key: "clinometer", Group: "Heights", Title: "Height by angle and distance",
		Formula: "h = d tan(a) + eye; sigma^2 = (tan a sd)^2 + (d/cos^2 a sa)^2",
		Limits:  "The base level with the feet. Two standard deviations are added where it decides.",
		Source:  "Trigonometry; errors in quadrature.",
		Inputs: []Input{{"distance", "Distance", "m", 40, 1, 2000}, {"sd", "Distance within", "m", 0.5, 0, 100},
			{"angle", "Angle to the top", "°", 22, 0.5, 85}, {"sa", "Angle within", "°", 1, 0, 20},
			{"eye", "Eye height", "m", 1.6, 0, 3}},
		compute: func(v values) ([]Result, string, error) {
			m, err := height.Clinometer(height.Value{V: v["distance"], Sigma: v["sd"]},
				height.Value{V: v["angle"], Sigma: v["sa"]}, v["eye"])
			return measured(m), "", err
		},
	},
	{
		Key: "two-stations", Group: "Heights", Title: "Height from two stations in line",
		Formula: "h = b tan a tan c/(tan c - tan a) + eye, a far, c near",
		Limits:  "The two angles must differ clearly: errors grow fast when they do not.",
		Source:  "Trigonometry; errors in quadrature.",
		Inputs: []Input{{"base", "Between the stations", "m", 20, 1, 1000}, {"sb", "Base within", "m", 0.1, 0, 50},
			{"far", "Angle, far", "°", 18, 0.5, 85}, {"sf", "Far within", "°", 1, 0, 20},
			{"near", "Angle, near", "°", 31, 0.5, 85}, {"sn", "Near within", "°", 1, 0, 20},
			{"eye", "Eye height", "m", 1.6, 0, 3}},
		compute: func(v values) ([]Result, string, error) {
			m, err := height.TwoStations(height.Value{V: v["base"], Sigma: v["sb"]}, height.Value{V: v["far"], Sigma: v["sf"]},
				height.Value{V: v["near"], Sigma: v["sn"]}, v["eye"])
			return measured(m), "", err
		},
	},
	{
		Key: "shadow", Group: "Heights", Title: "Height by its shadow",
		Formula: "h = shadow x stick/stick's shadow, relative errors in quadrature",
		Limits:  "Level ground, both shadows at the same time.", Source: "Similar triangles.",
		Inputs: []Input{{"shadow", "Its shadow", "m", 12, 0.1, 1000}, {"ss", "Within", "m", 0.2, 0, 50},
			{"stick", "Stick", "m", 1.5, 0.1, 10}, {"stick_shadow", "Stick's shadow", "m", 1.8, 0.05, 50},
			{"st", "Within", "m", 0.02, 0, 5}},
		compute: func(v values) ([]Result, string, error) {
			m, err := height.Shadow(height.Value{V: v["shadow"], Sigma: v["ss"]}, height.Value{V: v["stick"]},
				height.Value{V: v["stick_shadow"], Sigma: v["st"]})
			return measured(m), "", err
		},
	},
}

func measured(m height.Measured) []Result {
	return []Result{{"Height", m.M, "m", 2}, {"Within, one standard deviation", m.Sigma, "m", 2}}
}
