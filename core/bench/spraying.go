package bench

import (
	"fmt"

	"mainstay/core/spray"
)

var spraying = []Calculator{
	solve(spray.UnknownFlow, "flow", "Flow", "flow = rate x speed x swath x 0.006"),
	solve(spray.UnknownSpeed, "speed", "Speed for a flow", "speed = flow/(rate x swath x 0.006)"),
	solve(spray.UnknownRate, "rate", "Rate of a flow", "rate = flow/(speed x swath x 0.006)"),
	solve(spray.UnknownSwath, "swath", "Swath for a flow", "swath = flow/(rate x speed x 0.006)"),
	{
		Key: "loads", Group: "Spraying", Title: "Loads, product and water",
		Formula: "loads = area x rate/tank, rounded up; product = area x its rate; water = load - product",
		Limits:  "The last load is a part load, and exact.", Source: "Arithmetic.",
		Inputs: []Input{{"ha", "Area", "ha", 8, 0, 10_000}, {"rate", "Rate", "L/ha", 25, 0.1, 1000},
			{"tank", "Tank", "L", 30, 0.1, 1000}, {"product", "Product", "L/ha", 0.5, 0, 1000}},
		compute: func(v values) ([]Result, string, error) {
			var mix []spray.Product
			if v["product"] > 0 {
				mix = append(mix, spray.Product{Name: "product", PerHa: v["product"], Unit: "L"})
			}
			all, err := spray.Loads(v["ha"], v["rate"], v["tank"], mix)
			if err != nil || len(all) == 0 {
				return []Result{{"Loads", 0, "", 0}}, "", err
			}
			first, last := all[0], all[len(all)-1]
			out := []Result{{"Loads", float64(len(all)), "", 0}, {"Mix altogether", v["ha"] * v["rate"], "L", 1},
				{"Water in a full load", first.Water, "L", 2}, {"Last load", last.Litres, "L", 2},
				{"Water in the last", last.Water, "L", 2}}
			if len(mix) > 0 {
				out = append(out, Result{"Product in a full load", first.Amounts[0], "L", 3},
					Result{"Product in the last", last.Amounts[0], "L", 3})
			}
			return out, "", nil
		},
	},
	{
		Key: "pump", Group: "Spraying", Title: "Pump factor",
		Formula: "new = old x caught/shown; turned over where it is pulses for each litre",
		Limits:  "More than a doubling or halving is no drift.", Source: "Usual calibration.",
		Inputs: []Input{{"old", "Factor now", "", 1, 1e-6, 1e6}, {"caught", "Caught", "L", 9.5, 0.01, 1000},
			{"shown", "Shown", "L", 10, 0.01, 1000}, {"pulses", "1: pulses for each litre", "", 0, 0, 1}},
		compute: func(v values) ([]Result, string, error) {
			f, err := spray.PumpFactor(v["old"], v["caught"], v["shown"], v["pulses"] >= 1)
			return []Result{{"New factor", f, "", 5}}, "", err
		},
	},
	{
		Key: "scale", Group: "Spraying", Title: "Tank scale",
		Formula: "new span = old x known/shown",
		Limits:  "Empty within 0.05 kg, then a known mass of 10 kg or more within 1 %.", Source: "Usual calibration.",
		Inputs: []Input{{"empty", "Shown empty", "kg", 0, -1000, 1000}, {"known", "Known mass", "kg", 20, 10, 1000},
			{"shown", "Shown for it", "kg", 20, 0.1, 2000}, {"span", "Span now", "", 1, 1e-9, 1e6}},
		compute: func(v values) ([]Result, string, error) {
			s, err := spray.ScaleCheck(v["empty"], v["known"], v["shown"], v["span"])
			out := []Result{}
			if s.Span != nil {
				out = append(out, Result{"New span", *s.Span, "", 6})
			}
			return out, s.Sentence, err
		},
	},
	{
		Key: "nozzle", Group: "Spraying", Title: "Flow and speed of nozzles",
		Formula: "each = rate x speed x swath x 0.006/nozzles; flow grows with the root of pressure",
		Limits:  "Inside the range of the nozzle's table.", Source: "Orifice law.",
		Inputs: []Input{{"rate", "Rate", "L/ha", 25, 0.1, 1000}, {"speed", "Speed", "m/s", 5, 0.1, 30},
			{"swath", "Swath", "m", 6, 0.2, 60}, {"nozzles", "Nozzles", "", 4, 1, 64},
			{"least", "Least of each", "L/min", 0.68, 0.01, 50}, {"most", "Most of each", "L/min", 1.53, 0.01, 50},
			{"least_bar", "At", "bar", 1, 0.1, 50}, {"most_bar", "At", "bar", 5, 0.1, 50}},
		compute: func(v values) ([]Result, string, error) {
			s, err := spray.Settings{Rate: v["rate"], Speed: v["speed"], Swath: v["swath"]}.Solve(spray.UnknownFlow)
			n := spray.Nozzle{Name: "the nozzle", LeastLPM: v["least"], MostLPM: v["most"], LeastBar: v["least_bar"],
				MostBar: v["most_bar"], Droplets: "medium"}
			if err == nil {
				err = n.Check()
			}
			if err != nil {
				return nil, "", err
			}
			each := s.Need(int(v["nozzles"]))
			says := "Inside the range of the nozzle."
			if b := s.HoldNozzles(n, int(v["nozzles"])); len(b) > 0 {
				says = b[0].Sentence
			}
			return []Result{{"Each", each, "L/min", 3}, {"At", n.Pressure(each), "bar", 1}}, says, nil
		},
	},
}

// solve is the calculator of one unknown of rate, speed, swath and flow.
func solve(u spray.Unknown, key, title, formula string) Calculator {
	all := []Input{{"rate", "Rate", "L/ha", 15, 0.1, 1000}, {"speed", "Speed", "m/s", 6, 0.1, 30},
		{"swath", "Swath", "m", 7, 0.2, 60}, {"flow", "Flow", "L/min", 3.78, 0.001, 500}}
	var in []Input
	for _, i := range all {
		if i.Name != string(u) {
			in = append(in, i)
		}
	}
	return Calculator{Key: key, Group: "Spraying", Title: title, Formula: formula, Limits: "All nozzles together.",
		Source: "60 s in a minute, 10,000 m2 in a hectare.", Inputs: in,
		compute: func(v values) ([]Result, string, error) {
			s, err := spray.Settings{Rate: v["rate"], Speed: v["speed"], Swath: v["swath"], Flow: v["flow"]}.Solve(u)
			unit := map[spray.Unknown]string{spray.UnknownFlow: "L/min", spray.UnknownRate: "L/ha", spray.UnknownSpeed: "m/s",
				spray.UnknownSwath: "m"}[u]
			value := map[spray.Unknown]float64{spray.UnknownFlow: s.Flow, spray.UnknownRate: s.Rate, spray.UnknownSpeed: s.Speed,
				spray.UnknownSwath: s.Swath}[u]
			return []Result{{title, value, unit, 2}}, fmt.Sprintf("%.2f ha an hour while spraying.", s.Speed*s.Swath*0.36), err
		}}
}
