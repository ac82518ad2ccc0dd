package tonight_test

import (
	"fmt"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/energy"
	"mainstay/core/pack"
	"mainstay/core/tonight"
)

// An evening with everything about packs, flying and chargers near where it
// decides.
func TestEveningsAsApproved(t *testing.T) {
	in := tonight.Input{Start: evening, ReadyBy: evening.Add(10 * time.Hour),
		Packs: rack(pack.Charged, pack.Flown, pack.Storage, pack.Charged, pack.Quarantine, pack.Charged, pack.Storage,
			pack.Charged),
		Flying: []tonight.Flying{{Aircraft: "Dray One", TypeKey: "dray", Sorties: 3, Packs: 2},
			{Aircraft: "Dray Two", TypeKey: "dray", Sorties: 1, Packs: 1}},
		Chargers: []tonight.Charger{{Name: "Truck", Channels: 2, Watts: 500}, {Name: "Shed", Channels: 1, Watts: 200}}}
	for _, pair := range [][2]int{{0, 1}, {2, 3}, {5, 6}} {
		a, b := &in.Packs[pair[0]], &in.Packs[pair[1]]
		a.Mate, b.Mate = b.ID, a.ID
	}
	in.Packs[4].Stop = "In quarantine."
	in.Packs[7].FullFor = 48 * time.Hour
	var lines []string
	base := ""
	say := func(what string, in tonight.Input) {
		p, err := tonight.Make(in)
		said := []string{}
		if err != nil {
			said = append(said, "  "+err.Error())
		}
		for _, j := range p.Charge {
			said = append(said, fmt.Sprintf("  charge %s for %s on %s %d to %g, %s to %s", j.Label, j.For, j.Charger, j.Channel,
				j.To, j.Start.Format("15:04:05"), j.End.Format("15:04:05")))
		}
		for _, r := range p.Ready {
			said = append(said, "  ready "+r.Label+" for "+r.For)
		}
		for _, l := range p.Lower {
			said = append(said, "  lower "+l.Label+" "+l.Verdict.String()+" "+l.Why)
		}
		for _, f := range p.Findings {
			said = append(said, "  "+f.Verdict.String()+" "+f.Sentence)
		}
		if text := fmt.Sprint(said); text != base { // what changes nothing says nothing
			lines = append(append(lines, what+": "+p.Verdict.String()), said...)
			if what == "" {
				base = text
			}
		}
	}
	say("", in)
	approved.Vary(in, say)
	for i := range in.Packs {
		for _, s := range []pack.State{pack.Charged, pack.Flown, pack.Storage, pack.Retired} {
			x := in
			x.Packs = append([]tonight.Pack{}, in.Packs...)
			x.Packs[i].State = s
			say(fmt.Sprintf("pack %d %s", i, s), x)
		}
	}
	approved.Text(t, "evenings", lines)
	lines = nil
	for _, from := range []float64{0, 20, 79, 80, 81, 95, 100} {
		for _, to := range []float64{0, 50, 80, 81, 95, 100} {
			d, err := energy.ChargeTime(500, 400, from, to)
			lines = append(lines, fmt.Sprintf("%g to %g: %s %v", from, to, d, err))
		}
	}
	approved.Text(t, "charging", lines)
}
