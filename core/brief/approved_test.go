package brief_test

import (
	"fmt"
	"strings"
	"testing"

	"mainstay/approved"
	"mainstay/core/brief"
	"mainstay/core/crew"
)

// The briefing, and what changes in it with everything it is written from.
func TestBriefingAsApproved(t *testing.T) {
	base := map[string]bool{}
	var lines []string
	say := func(what string, in brief.Input) {
		var said []string
		for _, s := range brief.Write(in) {
			for _, l := range s.Lines {
				said = append(said, s.Title+": "+l)
			}
		}
		if what == "" {
			for _, l := range said {
				base[l] = true
			}
			lines = append(lines, said...)
			return
		}
		var other []string
		now := map[string]bool{}
		for _, l := range said {
			now[l] = true
			if !base[l] {
				other = append(other, "  + "+l)
			}
		}
		for _, l := range lines {
			if base[l] && !now[l] {
				other = append(other, "  - "+l)
			}
		}
		if len(other) > 0 {
			lines = append(append(lines, strings.TrimSpace(what)), other...)
		}
	}
	say("", input())
	first := len(lines)
	approved.Vary(input(), func(what string, in brief.Input) {
		kept := lines
		lines = lines[:first:first]
		say(what, in)
		lines = append(kept, lines[first:]...)
	})
	for _, more := range []float64{-1, 0, 1} {
		in := input()
		in.Aircraft = append(in.Aircraft[:0:0], in.Aircraft...)
		set, advised := 30.0, 30+more
		in.Aircraft[0].ReturnM, in.Aircraft[0].AdvisedM = &set, &advised
		kept := lines
		lines = lines[:first:first]
		say(fmt.Sprintf("set at 30, advised %g", advised), in)
		lines = append(kept, lines[first:]...)
	}
	for _, post := range crew.AllPosts {
		in := input()
		in.People = []brief.Person{{ID: "p", Name: "Odile", Post: post}}
		kept := lines
		lines = lines[:first:first]
		say("only "+string(post), in)
		lines = append(kept, lines[first:]...)
	}
	approved.Text(t, "briefing", lines)
}
