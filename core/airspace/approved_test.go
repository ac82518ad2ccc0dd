package airspace_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/airspace"
	"mainstay/core/rules"
)

// Zones and what was granted in them, with every figure and time near where it
// decides.
func TestZonesAsApproved(t *testing.T) {
	type scene struct {
		Q      airspace.Question
		Zone   airspace.Zone
		Grant  airspace.Grant
		Looked time.Time
	}
	var lines []string
	for _, datum := range []airspace.Datum{airspace.AboveGround, airspace.AboveSea, airspace.FlightLevel} {
		for _, class := range []airspace.Class{airspace.B, airspace.D, airspace.G, airspace.Restricted, airspace.Temporary,
			airspace.Advisory} {
			later, ended := noon.Add(3*time.Hour), noon.Add(-time.Hour)
			s := scene{Q: question(), Zone: airspace.Zone{ID: "z", Name: "Test", Class: class, Area: box(40, -50, 200),
				FloorM: f(50), CeilingM: f(300), FloorDatum: datum, CeilingDatum: datum, From: &ended, To: &later},
				Grant: airspace.Grant{ZoneID: "z", Number: "A-1", CeilingM: 80, From: ended,
					To: later}, Looked: noon.Add(-time.Hour)}
			s.Q.TopM, s.Q.QNH, s.Q.Law = f(270), f(1010), rules.USSmall.Law
			base := ""
			say := func(what string, s scene) {
				s.Q.Law = rules.USSmall.Law
				got, found := airspace.Judge(s.Q, []airspace.Zone{s.Zone}, []airspace.Grant{s.Grant}, &s.Looked)
				var said []string
				for _, z := range got {
					said = append(said, fmt.Sprintf("  %v %.3f %s %s", z.Inside, z.BorderM, z.Verdict, z.Sentence))
				}
				for _, x := range found {
					said = append(said, "  "+x.Verdict.String()+" "+x.Sentence)
				}
				switch text := strings.Join(said, "\n"); {
				case what == "":
					base = text
				case text == base: // what changes nothing is not said
					return
				}
				lines = append(append(lines, fmt.Sprintf("%s %s%s", datum, class, what)), said...)
			}
			say("", s)
			if datum != airspace.AboveGround && class != airspace.D {
				continue
			}
			approved.Vary(s, func(what string, s scene) {
				if len(what) < 6 || what[:6] != ".Q.Law" {
					say(" "+what, s)
				}
			})
		}
	}
	approved.Text(t, "zones", lines)
}
