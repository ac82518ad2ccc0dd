package gate

import (
	"fmt"
	"math"
	"strings"

	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/core/why"
	"mainstay/core/wind"
)

// Energy is what the energy of a flight is worked out from, beside packs, mass and
// wind; nil is not known and weighs as the worst it could be.
type Energy struct {
	FarM    *float64        // farthest place from the landing place; nil: as far as the crew sees
	ReturnM *float64        // return height above take-off
	Rho     *float64        // density of the air, kg/m3
	Planned bool            // somebody planned what is flown: NeedWh is its need
	NeedWh  *float64        // of the planned flight, way home with it; nil: cannot be worked out
	Own     *energy.Learned // what the airframe's flights say; nil: too few, the type's holds
}

// The worst that may be where nothing is known.
const (
	thinAir     = 0.9   // kg/m3: 3000 m on a hot day
	weakPack    = 0.8   // health at which packs are retired
	highReturnM = 120.0 // m
	farAwayM    = 500.0 // as far as a small aircraft is seen
	tableSteps  = 5
	leastStepM  = 50.0
)

// EnergyAnswer is the energy of a flight in figures.
type EnergyAnswer struct {
	FullWh   float64          `json:"full_wh"`
	UsableWh float64          `json:"usable_wh"` // over the level at which it lands
	NeedWh   float64          `json:"need_wh"`
	LandBy   float64          `json:"land_by_percent"`
	Minutes  float64          `json:"minutes"`  // that the usable energy lasts in cruise, at today's mass
	RadiusM  float64          `json:"radius_m"` // out and back against the wind
	FarM     float64          `json:"far_m"`
	Home     []energy.CallOut `json:"home"` // what the packs must show to come home, by distance
	Assumed  []string         `json:"assumed"`
	Own      *energy.Learned  `json:"own,omitempty"` // the airframe's own efficiency
}

// energy works out whether the packs bring it out, through its work, and home.
func (g *run) energy() *EnergyAnswer {
	if g.in.Wind == nil || len(g.in.Packs) == 0 {
		// Without them nothing flies anyway; guessing the worst would only hide what is missing.
		kind := judge.ChoosePacks
		if g.in.Wind == nil {
			kind = judge.EnterWind
		}
		g.find(judge.RuleEnergy, judge.RulePower, judge.Finding{
			Verdict:  judge.Watch,
			Sentence: "The energy of this flight is worked out when packs and wind are entered.",
			Evidence: "None.", Lifts: "entering them", Remedy: &judge.Remedy{Kind: kind},
		})
		return nil
	}
	a, store, back, model, err := g.supply()
	say := func(v judge.Verdict, r *judge.Remedy, lifts, format string, x ...any) {
		g.find(judge.RuleEnergy, judge.RulePower, judge.Finding{
			Verdict: v, Sentence: fmt.Sprintf(format, x...),
			Evidence: "Packs, mass and wind as entered" + assumedWords(a.Assumed) + ".", Lifts: lifts, Remedy: r,
		})
	}
	usual := func(v judge.Verdict, lifts, format string, x ...any) {
		say(v, &judge.Remedy{Kind: judge.ChoosePacks}, lifts, format, x...)
	}
	if err != nil {
		usual(judge.Stop, "packs that are read, and a mass", "The energy of this flight cannot be worked out: %s.",
			why.Words(err))
		return nil
	}
	if f := g.in.Energy.FarM; g.in.Facts.JobID != "" && (f == nil || !(*f >= 0 && *f <= 200_000)) {
		usual(judge.Stop, "a route on the site", "How far this flight goes is not known, so neither is its way home.")
		return nil
	}
	far := back
	far.DistanceM = a.FarM
	home, err := model.Home(far)
	if err != nil {
		usual(judge.Stop, "a nearer place to take off", "The way home from %.0f m cannot be worked out: %s.", a.FarM,
			why.Words(err))
		return nil
	}
	cruise, _ := model.Cruise(back.MassKg, back.Rho)
	a.Minutes = a.UsableWh / cruise * 60
	planned := g.in.Energy.Planned
	switch need := g.in.Energy.NeedWh; {
	case planned && (need == nil || !(*need >= 0) || !finite(*need)):
		usual(judge.Stop, "a plan that can be worked out", "What the planned flight needs cannot be worked out.")
		return nil
	case planned:
		a.NeedWh = *need
	default:
		a.NeedWh = g.usualNeed(model, back, cruise)
		a.Assumed = append(a.Assumed, fmt.Sprintf("no plan: the type's %.0f minutes", g.in.Type.Limits.PlannedMinutes))
	}
	if r, err := model.Radius(back, 0, a.UsableWh); err == nil {
		a.RadiusM = r
	}
	a.Home, _ = model.CallOuts(back, store, a.LandBy, distances(a.FarM))
	// Out in still air and home against the wind: one of them is never better.
	out, _ := model.Fly(back.MassKg, back.Rho, []energy.Phase{{Kind: energy.Climbing,
		Seconds: back.ReturnM / model.ClimbMS}, {Kind: energy.Cruising, Seconds: a.FarM / model.CruiseMS}})
	switch {
	case home.Cannot != "":
		usual(judge.Stop, "less wind, or a nearer place to take off", "There is no way home from %.0f m: %s.", a.FarM,
			home.Cannot)
	case !(out.Wh+home.Wh <= a.UsableWh):
		usual(judge.Stop, "fuller packs, or a nearer place to take off",
			"The packs give %.0f Wh over %.0f %%; the farthest place, %.0f m away, takes %.0f out and home.", a.UsableWh,
			a.LandBy, a.FarM, out.Wh+home.Wh)
	case planned && !(a.NeedWh <= a.UsableWh):
		usual(judge.Stop, "fuller packs, or a shorter flight in the plan",
			"The planned flight needs %.0f Wh; these packs give %.0f over %.0f %%.", a.NeedWh, a.UsableWh, a.LandBy)
	case !(a.NeedWh <= a.UsableWh):
		usual(judge.Watch, "fuller packs, less on board, or a shorter flight",
			"It needs %.0f Wh; the packs give %.0f over %.0f %%: about %.0f minutes.", a.NeedWh, a.UsableWh, a.LandBy,
			math.Floor(a.Minutes))
	case len(a.Assumed) > 0:
		say(judge.Watch, nil, "the pilot, by landing early",
			"The energy is worked out with what had to be assumed: %s. Land by the pack's level.", strings.Join(a.Assumed, "; "))
	}
	return &a
}

// usualNeed is what the type's usual minutes take: in cruise, and on its rotors up and
// down for a vertical take-off wing.
func (g *run) usualNeed(m energy.Model, back energy.Return, cruise float64) float64 {
	seconds := g.in.Type.Limits.PlannedMinutes * 60
	up, err := m.Fly(back.MassKg, back.Rho, m.Verticals(g.in.Type.Transition()))
	if err != nil {
		return math.Inf(1) // cannot be flown: it never fits
	}
	return up.Wh + cruise*max(0, seconds-up.Seconds)/3600
}

func assumedWords(assumed []string) string {
	if len(assumed) == 0 {
		return ""
	}
	return "; assumed: " + strings.Join(assumed, "; ")
}

// supply is what there is: the packs, the way home from nowhere, the power.
func (g *run) supply() (a EnergyAnswer, store energy.Store, back energy.Return, model energy.Model, err error) {
	e := g.in.Energy
	a.LandBy, a.Assumed, a.Home, a.Own = float64(g.in.Type.Limits.LandByPercent), []string{}, []energy.CallOut{}, e.Own
	var assumed []string
	model, assumed = g.in.Type.Model(e.Own)
	for _, what := range assumed {
		a.Assumed = append(a.Assumed, what+" of the type")
	}
	or := func(v *float64, lo, hi, worst float64, what string) float64 {
		if v != nil && *v >= lo && *v <= hi {
			return *v
		}
		a.Assumed = append(a.Assumed, what)
		return worst
	}
	sight := farAwayM
	if g.in.Facts.SightM > 0 {
		sight = g.in.Facts.SightM
	}
	a.FarM = or(e.FarM, 0, 200_000, sight, fmt.Sprintf("no route: %.0f m away", sight))
	back = energy.Return{MassKg: or(g.in.Mass.MassKg, 0.05, 1000, float64(g.in.Type.Limits.TakeoffMassKg),
		"the type's greatest mass"),
		Rho: or(e.Rho, 0.3, 1.5, thinAir, "thin air"), ReturnM: or(e.ReturnM, 0, 5000, highReturnM,
			fmt.Sprintf("return at %.0f m", highReturnM))}
	back.Wind = g.homeWind(back.ReturnM, &a)
	packs := make([]energy.Pack, 0, len(g.in.Packs))
	for _, p := range g.in.Packs {
		one, err := g.energyPack(p, &a)
		if err != nil {
			return a, store, back, model, err
		}
		packs = append(packs, one)
	}
	store, err = energy.Together(packs)
	a.FullWh, a.UsableWh = store.FullWh, store.Usable(a.LandBy)
	return a, store, back, model, err
}

// energyPack is a chosen pack as its energy is worked out.
func (g *run) energyPack(p Pack, a *EnergyAnswer) (energy.Pack, error) {
	if p.Reading == nil {
		return energy.Pack{}, fmt.Errorf("%s was not read", p.Label)
	}
	c, err := charge(p, g.in.Type.Packs)
	if err != nil {
		return energy.Pack{}, fmt.Errorf("the level of %s is not known", p.Label)
	}
	cell, err := pack.CellOf(p.Chemistry)
	if err != nil {
		return energy.Pack{}, fmt.Errorf("the chemistry of %s is not known", p.Label)
	}
	out := energy.Pack{AmpereHours: float64(p.Capacity) / 1000, Volts: float64(cell.Nominal) / 1000 * float64(p.Cells),
		Health: weakPack, Celsius: energy.ColdTo, Percent: float64(c.Percent)}
	if m := p.Set.CapacityMAh; m != nil && p.Capacity > 0 && *m > 0 && *m < 2*float64(p.Capacity) {
		out.Health = *m / float64(p.Capacity)
	} else {
		a.Assumed = append(a.Assumed, "capacity of "+p.Label+" never measured")
	}
	if t := p.Reading.Temperature; t != nil && float64(*t) >= energy.ColdTo && float64(*t) <= 80 {
		out.Celsius = float64(*t)
	} else {
		a.Assumed = append(a.Assumed, p.Label+" as cold as may be")
	}
	return out, nil
}

// homeWind is the wind on the way home, taken as against it: where a measured wind
// comes from at that height nobody knows.
func (g *run) homeWind(heightM float64, a *EnergyAnswer) energy.Wind {
	l := g.in.Type.Limits
	worst := energy.Wind{MeanMS: float64(l.WindMS), GustMS: float64(l.GustMS)}
	w := g.in.Wind
	at, err := wind.Scale(w.SteadyMS, w.GustMS, w.MeasuredM, units.Metres(max(heightM, 1)), w.Ground)
	if err != nil || !finite(float64(at.Steady)) || !finite(float64(at.Gust)) {
		a.Assumed = append(a.Assumed, "the wind at the type's limits")
		return worst
	}
	return energy.Wind{MeanMS: float64(at.Steady), GustMS: float64(at.Gust)}
}

// distances of the call-outs: five steps to the farthest place, rounded up.
func distances(far float64) []float64 {
	step := max(leastStepM, math.Ceil(far/tableSteps/10)*10)
	var out []float64
	for d := step; d < far+step; d += step {
		out = append(out, d)
	}
	return out
}

func finite(v float64) bool { return !math.IsNaN(v) && !math.IsInf(v, 0) }

// Level is the level of a pack in percent, as it shows it or as its resting volts
// say; ok is false where that is not known.
func Level(p Pack, want airframe.Packs) (float64, bool) {
	if p.Reading == nil {
		return 0, false
	}
	c, err := charge(p, want)
	return float64(c.Percent), err == nil
}
