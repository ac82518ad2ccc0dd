package gate

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mainstay/core/airframe"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/rules"
	"mainstay/core/units"
	"mainstay/core/wear"
	"mainstay/core/wind"
)

func (g *run) wear() {
	if len(g.in.Parts) == 0 && !g.in.PartsNear {
		g.find(judge.RuleWear, judge.RuleWear, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: "No part of it is on record: what is fitted, and how old it is, is not known.",
			Evidence: "Nothing on file.", Lifts: "technician or chief",
			Remedy: &judge.Remedy{Kind: judge.OpenAircraft, ID: g.in.Aircraft.ID},
		})
	}
	type group struct {
		labels []string
		first  Part
		worst  wear.Due
	}
	var order []string
	groups := map[string]*group{}
	var missing []Part
	for _, p := range g.in.Parts {
		if p.ID == "" && !p.Required {
			missing = append(missing, p)
			continue
		}
		d := p.Life(g.in.Now)
		if d.Verdict == judge.Clear {
			continue
		}
		// Parts of one kind that say the same, like a set of propellers, are one finding.
		key := p.Kind + d.Sentence
		if groups[key] == nil {
			groups[key] = &group{first: p, worst: d}
			order = append(order, key)
		}
		groups[key].labels = append(groups[key].labels, p.Label)
	}
	if len(missing) > 0 {
		var labels []string
		for _, p := range missing {
			labels = append(labels, p.Label)
		}
		g.find(judge.RuleWear, judge.RuleWear, judge.Finding{
			Verdict: judge.Watch,
			Sentence: "No part is recorded at " + strings.Join(labels,
				", ") + ": their life is not known.",
			Evidence: "Nothing fitted.", Lifts: "technician or chief", Remedy: g.fit(missing[0]),
		})
	}
	for _, key := range order {
		x := groups[key]
		g.find(judge.RuleWear, judge.RuleWear, judge.Finding{
			Verdict: x.worst.Verdict, Sentence: strings.Join(x.labels, ", ") + ": " + x.worst.Sentence,
			Evidence: "Counters of the parts.", Lifts: "technician or chief replaces it",
			Remedy: g.fit(x.first),
		})
	}
}

func (g *run) fit(p Part) *judge.Remedy {
	return &judge.Remedy{Kind: judge.OpenStation, ID: g.in.Aircraft.ID + "/" + p.Station, Name: p.Label}
}

// Ready reports whether a pack may fly in a type now, by all that a gate asks of a
// pack itself.
func Ready(t airframe.Type, p Pack, now time.Time) bool {
	g := &run{in: Input{Now: now, Type: t, Rules: rules.USSmall}}
	g.pack(p, t.Packs)
	return judge.Worst(g.out) < judge.Stop
}

func (g *run) rack() {
	if n := g.in.Type.Packs.Count; g.in.PacksReady < n {
		g.find(judge.RulePacks, judge.RulePower, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: fmt.Sprintf("%s may fly in it; a flight takes %d.", charged(g.in.PacksReady), n),
			Evidence: "States on the rack.", Lifts: "charging packs",
			Remedy: &judge.Remedy{Kind: judge.OpenRack},
		})
	}
}

func charged(n int) string {
	if n == 0 {
		return "No charged pack"
	}
	return "Only " + judge.Count(n, "charged pack")
}

func (g *run) packs() {
	want := g.in.Type.Packs
	if len(g.in.Packs) != want.Count {
		g.find(judge.RulePacks, judge.RulePower, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: fmt.Sprintf("%s takes %s; %d chosen.", g.in.Type.Name, judge.Count(want.Count, "pack"), len(g.in.Packs)),
			Evidence: "Choice of packs.", Lifts: "choosing packs",
			Remedy: &judge.Remedy{Kind: judge.ChoosePacks},
		})
	}
	for i, p := range g.in.Packs {
		if slices.ContainsFunc(g.in.Packs[:i], func(q Pack) bool { return q.ID == p.ID }) {
			g.find(judge.RulePacks, judge.RulePower, judge.Finding{
				Verdict: judge.Stop, Sentence: p.Label + " was chosen twice.", Evidence: "Choice of packs.",
				Lifts: "choosing another", Remedy: &judge.Remedy{Kind: judge.ChoosePacks},
			})
		}
		g.pack(p, want)
	}
	g.sets()
}

// sets holds the packs of a twin-pack aircraft against each other.
func (g *run) sets() {
	for i, a := range g.in.Packs {
		for _, b := range g.in.Packs[:i] {
			if a.ID == b.ID || a.Chemistry != b.Chemistry || a.Cells != b.Cells {
				continue // named above
			}
			if s := pack.JudgeSet(b.Set, a.Set); s.Verdict != judge.Clear {
				g.find(judge.RulePacks, judge.RulePackPractice, judge.Finding{
					Verdict: s.Verdict, Sentence: s.Sentence, Evidence: "Newest readings of both.",
					Lifts: "choosing another set", Remedy: &judge.Remedy{Kind: judge.ChoosePacks},
				})
			}
		}
	}
}

func (g *run) pack(p Pack, want airframe.Packs) {
	other := &judge.Remedy{Kind: judge.ChoosePacks}
	read := &judge.Remedy{Kind: judge.ReadPack, ID: p.ID, Name: p.Label}
	stop := func(s, evidence, lifts string, r *judge.Remedy) {
		g.find(judge.RulePacks, judge.RulePackPractice, judge.Finding{
			Verdict: judge.Stop, Sentence: p.Label + ": " + s, Evidence: evidence, Lifts: lifts, Remedy: r,
		})
	}
	if p.Chemistry != want.Chemistry || p.Cells != want.Cells {
		stop(fmt.Sprintf("it is %s with %d cells; %s needs %s with %d.", p.Chemistry, p.Cells, g.in.Type.Name, want.Chemistry,
			want.Cells), "Pack on file.", "choosing another", other)
		return
	}
	if p.Capacity < want.CapacityMAh {
		stop(fmt.Sprintf("it holds %d mAh; %s is planned for %d.", p.Capacity, g.in.Type.Name, want.CapacityMAh),
			"Pack on file.", "choosing another", other)
	}
	switch {
	case p.InUseBy != "":
		stop("it is fitted to "+p.InUseBy+".", "State on the rack.", "choosing another", other)
	case p.State == pack.Quarantine || p.State == pack.Retired:
		stop(fmt.Sprintf("it is in %s and must not fly.", p.State), "State on the rack.",
			"technician or chief, never the pilot", other)
	case !pack.MayFly(p.State):
		stop(fmt.Sprintf("it is %s, not charged.", p.State), "State on the rack.", "charging it", read)
	}
	if want.MaxCycles > 0 && p.Cycles >= want.MaxCycles {
		stop(fmt.Sprintf("%d of %d cycles used: retire it.", p.Cycles, want.MaxCycles), "Cycles counted.",
			"technician or chief", other)
	}
	if p.FullSince != nil || p.State == pack.Charged {
		var since time.Time
		if p.FullSince != nil {
			since = *p.FullSince
		}
		if j := pack.JudgeFull(since, g.in.Now, p.LookedAt); j.Verdict != judge.Clear {
			g.find(judge.RulePacks, judge.RulePackPractice, judge.Finding{
				Verdict: j.Verdict, Sentence: p.Label + ": " + j.Sentence, Evidence: "State on the rack.",
				At: p.FullSince, Lifts: "a look at all six faces",
				Remedy: &judge.Remedy{Kind: judge.LookAtPack, ID: p.ID, Name: p.Label},
			})
		}
	}
	for _, j := range p.Condition {
		if j.Verdict != judge.Clear {
			g.find(judge.RulePacks, judge.RulePackPractice, judge.Finding{
				Verdict: j.Verdict, Sentence: p.Label + ": " + j.Sentence, Evidence: "History of the pack.",
				Lifts: "technician, or another pack", Remedy: read,
			})
		}
	}
	g.packReading(p, want, read)
}

func (g *run) packReading(p Pack, want airframe.Packs, read *judge.Remedy) {
	r := p.Reading
	if r == nil {
		g.find(judge.RulePacks, judge.RulePackPractice, judge.Finding{
			Verdict: judge.Stop, Sentence: p.Label + " has never been read.", Evidence: "No reading.",
			Lifts: "reading it", Remedy: read,
		})
		return
	}
	add := func(v judge.Verdict, s string) {
		if v != judge.Clear {
			g.find(judge.RulePacks, judge.RulePackPractice, judge.Finding{
				Verdict: v, Sentence: p.Label + ": " + s, Evidence: "Newest reading.", At: &r.At,
				Lifts: "technician, or another pack", Remedy: read,
			})
		}
	}
	if g.in.Now.Sub(r.At) > pack.CheckValidFor {
		add(judge.Stop, fmt.Sprintf("the last reading is %s old; it holds for 24 h.", age(g.in.Now.Sub(r.At))))
		return
	}
	if r.At.After(g.in.Now) {
		add(judge.Stop, "the reading is dated in the future.")
		return
	}
	if len(r.CellMV) == 0 {
		add(judge.Stop, "its cells were not read.")
	} else if j, err := pack.JudgeCells(p.Chemistry, p.Cells, r.CellMV); err != nil {
		add(judge.Stop, err.Error()+".")
	} else {
		add(j.Verdict, j.Sentence)
	}
	if c, err := charge(p, want); err != nil {
		add(judge.Stop, "its charge is not known: "+err.Error()+".")
	} else {
		j := pack.JudgeLaunch(c.Percent, c.PlusMinus, units.Percent(g.in.Type.LaunchPercent()))
		add(j.Verdict, j.Sentence)
	}
	if r.Percent != nil {
		j := pack.JudgeShown(p.Chemistry, *r.Percent, r.CellMV)
		add(j.Verdict, j.Sentence)
	}
	if r.Temperature == nil {
		add(judge.Stop, "its temperature was not read.")
	} else {
		j := pack.JudgeTakeoffTemperature(*r.Temperature)
		add(j.Verdict, j.Sentence)
	}
}

// charge takes the percent a smart pack shows, else the weakest cell's resting
// volts.
func charge(p Pack, want airframe.Packs) (pack.Charge, error) {
	if p.Reading.Percent != nil {
		return pack.Charge{Percent: *p.Reading.Percent}, nil
	}
	if want.PercentFrom == "pack" {
		return pack.Charge{}, fmt.Errorf("the level it shows was not entered")
	}
	_, low, err := pack.Spread(p.Reading.CellMV)
	if err != nil {
		return pack.Charge{}, err
	}
	return pack.PercentFromVolts(p.Chemistry, p.Reading.CellMV[low], p.Reading.RestedMin)
}

func (g *run) wind() (*wind.AtHeight, float64) {
	enter := &judge.Remedy{Kind: judge.EnterWind}
	w, l := g.in.Wind, g.in.Type.Limits
	if w == nil {
		g.find(judge.RuleWind, judge.RuleFamiliariseSite, judge.Finding{
			Verdict: judge.Stop, Sentence: "The wind has not been entered.", Evidence: "None.",
			Lifts: "measuring it", Remedy: enter,
		})
		return nil, 0
	}
	switch old := g.in.Now.Sub(w.At); {
	case w.At.After(g.in.Now.Add(ClockSkew)):
		g.find(judge.RuleWind, judge.RuleFamiliariseSite, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: "The wind reading is dated in the future: check the clock of the device.",
			Evidence: "Reading.", At: &w.At, Lifts: "measuring it", Remedy: enter,
		})
	case old > WindValidFor:
		g.find(judge.RuleWind, judge.RuleFamiliariseSite, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: fmt.Sprintf("The wind reading is %s old; it holds for %s.", age(old), age(WindValidFor)),
			Evidence: "Reading.", At: &w.At, Lifts: "measuring it", Remedy: enter,
		})
	}
	height, said := float64(l.FlightHeightM), ", the usual height of the type: no route is known"
	if g.in.HighM == nil && g.in.Facts.JobID != "" {
		g.find(judge.RuleWind, judge.RuleFamiliariseSite, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: "How high this flight goes is not known, and with it the wind up there.",
			Evidence: "Site file and job.", Lifts: "a route that can be judged", Remedy: enter,
		})
	}
	if g.in.HighM != nil {
		height, said = *g.in.HighM, ", the highest place that the flight reaches"
	}
	at, err := wind.Scale(w.SteadyMS, w.GustMS, w.MeasuredM, units.Metres(least(height)), w.Ground)
	if err != nil {
		g.find(judge.RuleWind, judge.RuleFamiliariseSite, judge.Finding{
			Verdict: judge.Stop, Sentence: "The wind reading cannot be used: " + err.Error() + ".",
			Evidence: "Reading.", At: &w.At, Lifts: "measuring it", Remedy: enter,
		})
		return nil, 0
	}
	evidence := fmt.Sprintf("%.1f m/s at %g m, %s ground, brought to %.0f m%s.", float64(w.SteadyMS), float64(w.MeasuredM),
		w.Ground, height, said)
	for _, h := range wind.Hold(at, l.WindMS, l.GustMS, units.Metres(height)) {
		g.find(judge.RuleWind, judge.RuleMakerLimits, judge.Finding{
			Verdict: h.Verdict, Sentence: h.Sentence, Evidence: evidence, At: &w.At,
			Lifts: "waiting, or flying lower under its own limits", Remedy: enter,
		})
	}
	return &at, height
}

// least is a height at which wind can be reckoned; no number stays none.
func least(m float64) float64 {
	if math.IsInf(m, -1) {
		return math.NaN()
	}
	return max(m, float64(wind.Least))
}

// gear holds what else must not die in flight.
func (g *run) gear() {
	for _, x := range g.in.Gear {
		for _, f := range x.Judge(g.in.Now) {
			g.find(judge.RuleGear, judge.RulePackPractice, judge.Finding{
				Verdict: f.Verdict, Sentence: fmt.Sprintf("%s (%s): %s", x.Label, x.Kind, f.Sentence),
				Evidence: "Gear on file.", At: f.At, Lifts: "another one, or putting it right",
				Remedy: &judge.Remedy{Kind: judge.OpenGear, ID: x.ID, Name: x.Label},
			})
		}
	}
}
