package bench

import (
	"mainstay/core/air"
	"mainstay/core/units"
	"mainstay/core/why"
	"mainstay/core/wind"
)

var airAndWind = []Calculator{
	{
		Key: "density", Group: "Air", Title: "Air density and density altitude",
		Formula: "p = (q^0.190263 - 8.417286e-5 h)^(1/0.190263); e = es(dew point), es(T) = 610.94 exp(17.625 T/(T+243.04)) Pa; rho = (p-e)/(287.05 T) + e/(461.495 T), T in K; height = 44330.8 (1 - (rho/1.225)^0.234969)",
		Limits:  "QNH 850-1100 hPa, up to 6000 m, dew point not over the temperature.",
		Source:  "ICAO standard atmosphere; August-Roche-Magnus form of the vapour pressure.",
		Inputs: []Input{{"qnh", "QNH", "hPa", 1013, 850, 1100}, {"height", "Elevation", "m", 210, -400, 6000},
			{"temp", "Temperature", "degC", 20, -60, 60}, {"dew", "Dew point", "degC", 10, -80, 60},
			{"mass", "Greatest mass of the type", "kg", 72, 0.1, 1000},
			{"reference", "Density it holds for", "kg/m3", 1.225, 0.7, 1.5}},
		compute: func(v values) ([]Result, string, error) {
			p, err := air.StationPressure(v["qnh"], v["height"])
			if err != nil {
				return nil, "", err
			}
			rho, err := air.Density(p, v["temp"], v["dew"])
			if err != nil {
				return nil, "", err
			}
			return []Result{{"Pressure here", p, "hPa", 1}, {"Density", rho, "kg/m3", 4},
					{"Density altitude", air.DensityAltitude(rho), "m", 0},
					{"Largest mass today", air.MassLimit(v["mass"], rho, v["reference"]), "kg", 1}},
				"A maker's table wins over the largest mass.", nil
		},
	},
	{
		Key: "delta-t", Group: "Air", Title: "Wet bulb and delta T",
		Formula: "e = es(Tw) - 6.53e-4 (1 + 9.44e-4 Tw) p (T - Tw); delta T = T - Tw",
		Limits:  "Spray window of the usual practice: 2 to 8 good, 8 to 10 marginal; the label wins.",
		Source:  "Psychrometer equation, solved by halving.",
		Inputs: []Input{{"temp", "Temperature", "degC", 20, -20, 60}, {"humidity", "Relative humidity", "%", 60, 1, 100},
			{"pressure", "Pressure here", "hPa", 990, 300, 1100}},
		compute: func(v values) ([]Result, string, error) {
			dew, err := air.DewPoint(v["temp"], v["humidity"])
			if err != nil {
				return nil, "", err
			}
			wet, err := air.WetBulb(v["temp"], dew, v["pressure"])
			if err != nil {
				return nil, "", err
			}
			_, says := air.JudgeDeltaT(v["temp"] - wet)
			return []Result{{"Dew point", dew, "degC", 1}, {"Wet bulb", wet, "degC", 1},
				{"Delta T", v["temp"] - wet, "K", 1}}, says, nil
		},
	},
	{
		Key: "wind-height", Group: "Wind", Title: "Wind at flight height",
		Formula: "v(h) = v_ref (h/h_ref)^a; a: water 0.10, open 0.14, crops 0.22, built or wood 0.30",
		Limits:  "A hand-held reading has 2 m; from there to over 30 m is rough, at night and in an inversion rougher.",
		Source:  "Power law of the neutral surface layer.",
		Inputs: []Input{{"steady", "Wind", "m/s", 5, 0, 60}, {"gust", "Gust; 0: none reported", "m/s", 0, 0, 90},
			{"ref", "Measured at", "m", 10, 0.5, 500}, {"height", "Flight height", "m", 30, 0.5, 500},
			{"ground", "Ground: 1 water, 2 open, 3 crops, 4 built", "", 3, 1, 4}},
		compute: func(v values) ([]Result, string, error) {
			var gust *units.MetresPerSecond
			if v["gust"] > 0 {
				g := units.MetresPerSecond(v["gust"])
				gust = &g
			}
			at, err := wind.Scale(units.MetresPerSecond(v["steady"]), gust, units.Metres(v["ref"]), units.Metres(v["height"]),
				wind.AllGrounds[int(v["ground"])-1])
			if err != nil {
				return nil, "", err
			}
			says := ""
			if at.GustAssumed {
				says = "No gust was reported: 1.4 times the wind is assumed."
			}
			return []Result{{"Wind there", float64(at.Steady), "m/s", 2}, {"Gust there", float64(at.Gust), "m/s", 2}}, says, nil
		},
	},
	{
		Key: "components", Group: "Wind", Title: "Headwind and crosswind",
		Formula: "d = from - heading; head = v cos d, cross = v sin d, positive from the right",
		Limits:  "Directions are true.", Source: "Trigonometry.",
		Inputs: []Input{{"speed", "Wind", "m/s", 8, 0, 60}, {"from", "From", "°", 240, 0, 360},
			{"heading", "Heading", "°", 200, 0, 360}},
		compute: func(v values) ([]Result, string, error) {
			head, cross := wind.Components(units.MetresPerSecond(v["speed"]), v["from"], v["heading"])
			return []Result{{"Headwind", float64(head), "m/s", 2},
				{"Crosswind, from the right", float64(cross), "m/s", 2}}, "", nil
		},
	},
	{
		Key: "ground-speed", Group: "Wind", Title: "Ground speed on a course",
		Formula: "angle into the wind = asin(cross/Va); Vg = Va cos(angle) - head",
		Limits:  "A crosswind over the airspeed: the course cannot be held.", Source: "Wind triangle.",
		Inputs: []Input{{"airspeed", "Airspeed", "m/s", 12, 0.5, 80}, {"speed", "Wind", "m/s", 6, 0, 60},
			{"from", "From", "°", 240, 0, 360}, {"course", "Course", "°", 200, 0, 360}},
		compute: func(v values) ([]Result, string, error) {
			g, ok := wind.GroundSpeed(units.MetresPerSecond(v["airspeed"]), units.MetresPerSecond(v["speed"]), v["from"],
				v["course"])
			if !ok {
				return nil, "", why.Not(ErrInput, "it does not come forward on this course")
			}
			return []Result{{"Over the ground", float64(g), "m/s", 2}}, "", nil
		},
	},
}
