package bench

import (
	"mainstay/core/energy"
	"mainstay/core/mass"
)

// rotors are the inputs of a multirotor, in every calculator alike.
var rotors = []Input{{"rotors", "Rotors", "", 6, 1, 32}, {"diameter", "Rotor diameter", "m", 1, 0.05, 10},
	{"efficiency", "Efficiency", "", 0.55, 0.1, 0.95}, {"rho", "Air density", "kg/m3", 1.2, 0.3, 1.5}}

func (v values) model() energy.Model {
	return energy.Model{Kind: energy.Rotors, Discs: int(v["rotors"]), DiameterM: v["diameter"],
		Efficiency: v["efficiency"], CruiseShare: 1, CruiseMS: or(v["cruise"], 8), ClimbMS: or(v["climb"], 3),
		DescentMS: or(v["descent"], 2)}
}

func or(v, usual float64) float64 {
	if v > 0 {
		return v
	}
	return usual
}

func with(more ...Input) []Input { return append(append([]Input{}, rotors...), more...) }

var power = []Calculator{
	{
		Key: "hover", Group: "Power and endurance", Title: "Hover power and endurance",
		Formula: "P = (m g)^1.5/(eta sqrt(2 rho A)), A = n pi (D/2)^2; minutes = usable Wh/P x 60",
		Limits:  "A still hover. Coaxial rotors: both discs, efficiency less by a fifth.",
		Source:  "Momentum theory of the actuator disc.",
		Inputs:  with(Input{"mass", "Mass", "kg", 60, 0.05, 1000}, Input{"energy", "Usable energy", "Wh", 2000, 0, 1e5}),
		compute: func(v values) ([]Result, string, error) {
			p, err := v.model().Hover(v["mass"], v["rho"])
			return []Result{{"Hover power", p, "W", 0}, {"Lasts", v["energy"] / p * 60, "min", 1}}, "", err
		},
	},
	{
		Key: "usable", Group: "Power and endurance", Title: "Usable energy of packs",
		Formula: "rated Ah x nominal V x health x cold(temperature) x (percent - reserve)/100, packs together by the weaker",
		Limits:  "Cold: 1 from 20 °C, 0.95 at 10, 0.85 at 0, 0.70 at -10; colder is not known.",
		Source:  "Usual values of lithium polymer; the maker's win.",
		Inputs: []Input{{"packs", "Packs", "", 2, 1, 12}, {"ah", "Rated, each", "Ah", 30, 0.1, 1000},
			{"volts", "Nominal", "V", 51.8, 1, 1000}, {"health", "Health", "%", 93, 5, 120},
			{"temp", "Pack temperature", "degC", 20, -10, 80}, {"percent", "Level", "%", 100, 0, 100},
			{"reserve", "Reserve", "%", 25, 0, 100}},
		compute: func(v values) ([]Result, string, error) {
			var all []energy.Pack
			for range int(v["packs"]) {
				all = append(all, energy.Pack{AmpereHours: v["ah"], Volts: v["volts"], Health: v["health"] / 100,
					Celsius: v["temp"], Percent: v["percent"]})
			}
			s, err := energy.Together(all)
			return []Result{{"Full, today", s.FullWh, "Wh", 1}, {"Usable", s.Usable(v["reserve"]), "Wh", 1}}, "", err
		},
	},
	{
		Key: "spray-energy", Group: "Power and endurance", Title: "Energy of a spraying flight",
		Formula: "E = k g^1.5 (2/5)(m0^2.5 - m1^2.5)/(dm/dt), k = 1/(eta sqrt(2 rho A))",
		Limits:  "Without turns, ferry, climb and landing.", Source: "Hover power with falling mass, integrated.",
		Inputs: with(Input{"before", "Mass before", "kg", 68, 0.1, 1000}, Input{"litres", "Sprayed", "L", 30, 0.1, 900},
			Input{"flow", "Flow", "L/min", 4.5, 0.01, 500}, Input{"density", "Of the mix", "kg/L", 1, 0.3, 3}),
		compute: func(v values) ([]Result, string, error) {
			kg := v["litres"] * v["density"]
			e, err := v.model().Spray(v["before"], v["before"]-kg, v["flow"]*v["density"]/60, v["rho"])
			return []Result{{"Energy", e, "Wh", 1}, {"Takes", v["litres"] / v["flow"], "min", 1}}, "", err
		},
	},
	{
		Key: "way-home", Group: "Power and endurance", Title: "Way home",
		Formula: "climb (hover + m g Vc/eta) t + cruise against the wind + descent h/Vd + 15 s hover, at least 45 s; percent = energy/full x 100 + reserve",
		Limits:  "Mean wind for the energy, gust for whether it comes forward.", Source: "Hover power; wind triangle.",
		Inputs: with(Input{"mass", "Mass", "kg", 45, 0.05, 1000}, Input{"height", "Height now", "m", 10, 0, 1000},
			Input{"return", "Return height", "m", 30, 0, 1000}, Input{"distance", "Distance", "m", 500, 0, 50_000},
			Input{"cruise", "Airspeed", "m/s", 8, 0.5, 80}, Input{"wind", "Wind against", "m/s", 3, 0, 60},
			Input{"gust", "Gust", "m/s", 5, 0, 90}, Input{"full", "Full packs", "Wh", 2800, 1, 1e5},
			Input{"reserve", "Reserve", "%", 25, 0, 100}),
		compute: func(v values) ([]Result, string, error) {
			h, err := v.model().Home(energy.Return{MassKg: v["mass"], Rho: v["rho"], HeightM: v["height"], ReturnM: v["return"],
				DistanceM: v["distance"], Wind: energy.Wind{MeanMS: v["wind"], GustMS: max(v["gust"], v["wind"])}})
			if err != nil {
				return nil, "", err
			}
			if h.Cannot != "" {
				return []Result{}, "There is no way home: " + h.Cannot + ".", nil
			}
			return []Result{{"Energy", h.Wh, "Wh", 1}, {"Takes", h.Seconds / 60, "min", 1},
				{"The packs must show", energy.Store{FullWh: v["full"]}.PercentOf(h.Wh) + v["reserve"], "%", 0}}, "", nil
		},
	},
	{
		Key: "radius", Group: "Power and endurance", Title: "Out and back in wind",
		Formula: "R = (usable - climb - descent)/(P (1/V out + 1/V back))",
		Limits:  "On the bearing of the wind, out with it and back against it.", Source: "Hover power; wind triangle.",
		Inputs: with(Input{"mass", "Mass", "kg", 6, 0.05, 1000}, Input{"return", "Height of the way", "m", 40, 0, 1000},
			Input{"cruise", "Airspeed", "m/s", 11, 0.5, 80}, Input{"wind", "Wind", "m/s", 4, 0, 60},
			Input{"gust", "Gust", "m/s", 6, 0, 90}, Input{"usable", "Usable energy", "Wh", 200, 0, 1e5}),
		compute: func(v values) ([]Result, string, error) {
			r := energy.Return{MassKg: v["mass"], Rho: v["rho"], ReturnM: v["return"],
				Wind: energy.Wind{MeanMS: v["wind"], GustMS: max(v["gust"], v["wind"]), FromDeg: 180}}
			far, err := v.model().Radius(r, 0, v["usable"])
			return []Result{{"Reaches and returns", far, "m", 0}}, "", err
		},
	},
	{
		Key: "wing", Group: "Power and endurance", Title: "Power of a wing",
		Formula: "P = m g V/((L/D) eta)", Limits: "Level flight at that airspeed.", Source: "Lift over drag.",
		Inputs: []Input{{"mass", "Mass", "kg", 4.2, 0.05, 1000}, {"cruise", "Airspeed", "m/s", 16, 0.5, 80},
			{"lift_drag", "Lift over drag", "", 12, 2, 60}, {"drive", "Efficiency of the drive", "", 0.5, 0.1, 0.95},
			{"energy", "Usable energy", "Wh", 220, 0, 1e5}},
		compute: func(v values) ([]Result, string, error) {
			m := energy.Model{Kind: energy.Wing, LiftDrag: v["lift_drag"], WingDrive: v["drive"], CruiseMS: v["cruise"],
				ClimbMS: 3, DescentMS: 2}
			p, err := m.Cruise(v["mass"], 1.2)
			return []Result{{"Power", p, "W", 0}, {"Lasts", v["energy"] / p * 60, "min", 1},
				{"Flies, in still air", v["energy"] / p * 3600 * v["cruise"] / 1000, "km", 1}}, "", err
		},
	},
	{
		Key: "balance", Group: "Power and endurance", Title: "Centre of gravity of two masses",
		Formula: "sum(m x)/sum(m)", Limits: "Against the range of the type.", Source: "Statics.",
		Inputs: []Input{{"m1", "Mass 1", "kg", 38, 0, 1000}, {"y1", "Lies ahead", "m", -0.01, -10, 10},
			{"m2", "Mass 2", "kg", 30, 0, 1000}, {"y2", "Lies ahead", "m", 0.02, -10, 10}},
		compute: func(v values) ([]Result, string, error) {
			s, err := mass.Add([]mass.Item{{Part: mass.Empty, Kg: v["m1"], Y: v["y1"]},
				{Part: mass.Payload, Kg: v["m2"], Y: v["y2"]}})
			return []Result{{"Together", s.Kg, "kg", 2}, {"Lies ahead", s.Y, "m", 3}}, "", err
		},
	},
}
