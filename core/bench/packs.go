package bench

import (
	"math"

	"mainstay/core/energy"
	"mainstay/core/pack"
	"mainstay/core/units"
)

var packs = []Calculator{
	{
		Key: "percent", Group: "Packs", Title: "Level of a resting cell",
		Formula: "a table of resting volts, linear between its points",
		Limits:  "Lithium polymer that rested 30 minutes; between 3.71 and 3.87 V 10 mV are 2.5 to 5 points.",
		Source:  "Usual table of lithium polymer cells.",
		Inputs:  []Input{{"volts", "Cell", "V", 3.85, 2.5, 4.4}, {"rested", "Rested", "min", 60, 30, 5_256_000}},
		compute: func(v values) ([]Result, string, error) {
			c, err := pack.PercentFromVolts(pack.LiPo, units.Millivolts(math.Round(v["volts"]*1000)), v["rested"])
			says := ""
			if c.Overcharged {
				says = "Over 4.20 V: overcharged."
			}
			return []Result{{"Level", float64(c.Percent), "%", 0}, {"Within", float64(c.PlusMinus), "%", 1}}, says, err
		},
	},
	{
		Key: "resistance", Group: "Packs", Title: "Resistance of a cell",
		Formula: "R = (rest - loaded)/current",
		Limits:  "Compared only within 7 °C and the same time under load; half more is Watch, twice is the end.",
		Source:  "Ohm.",
		Inputs: []Input{{"rest", "At rest", "V", 4.12, 2, 4.5}, {"loaded", "Under load", "V", 3.86, 2, 4.5},
			{"amps", "Current", "A", 18, 0.5, 1000}},
		compute: func(v values) ([]Result, string, error) {
			r, err := pack.Resistance(units.Millivolts(math.Round(v["rest"]*1000)),
				units.Millivolts(math.Round(v["loaded"]*1000)), v["amps"])
			return []Result{{"Resistance", r, "mohm", 1}}, "", err
		},
	},
	{
		Key: "capacity", Group: "Packs", Title: "Capacity and health",
		Formula: "mAh/((end - start)/100)", Limits: "Over at least 60 points of level.",
		Source: "Charge counted by the charger.",
		Inputs: []Input{{"mah", "Went in", "mAh", 24000, 1, 200000}, {"start", "From", "%", 20, 0, 100},
			{"end", "To", "%", 100, 0, 100}, {"rated", "Rated", "mAh", 30000, 100, 200000}},
		compute: func(v values) ([]Result, string, error) {
			c, err := pack.MeasureCapacity(v["mah"], v["start"], 1, v["end"], 1)
			return []Result{{"Capacity", c.MilliampHours, "mAh", 0}, {"Within", c.PlusMinus, "mAh", 0},
				{"Health", c.MilliampHours / v["rated"] * 100, "%", 1}}, "", err
		},
	},
	{
		Key: "charge", Group: "Packs", Title: "Time to charge",
		Formula: "constant power to 80 %, then a straight line down to a fifth of it at 100 %; 0.92 of it stays",
		Limits:  "One pack on one channel.", Source: "Usual course of a charge.",
		Inputs: []Input{{"wh", "Pack", "Wh", 1554, 1, 1e5}, {"watts", "Channel", "W", 900, 1, 1e5},
			{"from", "From", "%", 25, 0, 100}, {"to", "To", "%", 100, 0, 100}},
		compute: func(v values) ([]Result, string, error) {
			t, err := energy.ChargeTime(v["wh"], v["watts"], v["from"], v["to"])
			return []Result{{"Takes", t.Minutes(), "min", 0}}, "", err
		},
	},
	{
		Key: "cycles", Group: "Packs", Title: "Equivalent full cycles",
		Formula: "all mAh taken out/rated mAh", Limits: "", Source: "Definition.",
		Inputs: []Input{{"out", "Taken out", "mAh", 1_200_000, 0, 1e9}, {"rated", "Rated", "mAh", 30000, 100, 200000}},
		compute: func(v values) ([]Result, string, error) {
			return []Result{{"Cycles", pack.EquivalentCycles(v["out"], v["rated"]), "", 1}}, "", nil
		},
	},
}
