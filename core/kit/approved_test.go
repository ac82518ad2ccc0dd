package kit_test

import (
	"fmt"
	"testing"

	"mainstay/approved"
	"mainstay/core/kit"
)

func TestKitAsApproved(t *testing.T) {
	var lines []string
	base := map[string]bool{}
	say := func(what string, j kit.Job) { // only what is not on the list as it is
		lines = append(lines, what+":")
		for _, i := range kit.List(j) {
			l := fmt.Sprintf("  %d %s (%s): %s", i.Quantity, i.Label, i.ID, i.Why)
			if !base[l] {
				lines = append(lines, l)
			}
			if what == j.Work {
				base[l] = true
			}
		}
	}
	three := 3
	for _, work := range []string{"spraying", "mapping", "inspection", "practice"} {
		j := kit.Job{Work: work, People: 2, Sorties: &three, Lights: "seen for 3 statute miles",
			Aircraft: []kit.Aircraft{{Type: "Dray 30", Packs: 2, Propellers: 6}, {Type: "Dray 30", Packs: 2, Propellers: 6},
				{Type: "Tally W", Packs: 1}}}
		say(work, j)
		approved.Vary(j, func(what string, j kit.Job) { say(work+what, j) })
		j.Sorties = nil
		say(work+", not planned", j)
	}
	say("nothing", kit.Job{})
	approved.Text(t, "kit", lines)
}
