package airspace_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/judge"
)

// The verdict of a square zone for a flight at one place is held against the
// definition written down directly: in reach, in height, in time, and without a
// grant that covers ceiling and window.
func TestVerdictAgainstTheDefinition(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		whole := func(name string, lo, hi int) float64 { return float64(rapid.IntRange(lo, hi).Draw(t, name)) }
		hours := func(name string) time.Time {
			return noon.Add(time.Duration(rapid.IntRange(-4, 6).Draw(t, name)) * time.Hour)
		}
		x, y, side := whole("x", -300, 300), whole("y", -300, 300), whole("side", 10, 400)
		floor, height := whole("floor", 0, 150), whole("height", 5, 120)
		from, to := hours("from"), hours("to")
		if !to.After(from) {
			to = from.Add(time.Hour)
		}
		zone := airspace.Zone{ID: "z", Name: "Zone", Class: rapid.SampledFrom([]airspace.Class{airspace.D,
			airspace.Restricted, airspace.G}).Draw(t, "class"), Area: box(x, y, side), FloorM: &floor, From: &from, To: &to}
		grant := airspace.Grant{ID: "g", ZoneID: "z", Number: rapid.SampledFrom([]string{"", "A-1"}).Draw(t, "number"),
			CeilingM: whole("granted", 5, 120), From: hours("granted from"), To: hours("granted to")}
		q := airspace.Question{Places: []geo.XY{{}}, ReachM: 20, HeightM: height, From: noon, To: noon.Add(2 * time.Hour),
			Now: noon}

		dx, dy := max(x, -(x+side), 0), max(y, -(y+side), 0)
		outside := max(dx, dy) > 0
		near := (dx*dx + dy*dy) <= 20*20
		inReach := !outside || near
		inTime := from.Before(q.To) && to.After(q.From)
		met := inReach && inTime && height >= floor
		open := zone.Class == airspace.G
		granted := grant.Number != "" && grant.CeilingM >= height && !grant.From.After(q.From) && !grant.To.Before(q.To) &&
			grant.To.After(q.Now)
		want := judge.Clear
		switch {
		case met && !open && !granted:
			want = judge.Stop
		case inReach && inTime && !met && floor-height < 15:
			want = judge.Watch // it passes close under
		}
		got, findings := airspace.Judge(q, []airspace.Zone{zone}, []airspace.Grant{grant}, &noon)
		if len(got) != 1 {
			t.Fatalf("%d zones", len(got))
		}
		assert.Equal(t, want, got[0].Verdict, "%s", got[0].Sentence)
		assert.Equal(t, want, judge.Worst(findings))
	})
}

// Taking a grant away never makes a flight better, and a lower flight is never
// worse off under one ceiling.
func TestGrantsOnlyHelp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		zone := airspace.Zone{ID: "z", Name: "Zone", Class: airspace.D, Area: box(-100, -100, 200)}
		var grants []airspace.Grant
		for range rapid.IntRange(0, 4).Draw(t, "grants") {
			grants = append(grants, airspace.Grant{ZoneID: "z", Number: "A",
				CeilingM: float64(rapid.IntRange(10, 100).Draw(t, "ceiling")), From: noon.Add(-time.Hour),
				To: noon.Add(time.Duration(rapid.IntRange(-2, 5).Draw(t, "to")) * time.Hour)})
		}
		q := question()
		verdict := func(gs []airspace.Grant, h float64) judge.Verdict {
			q.HeightM = h
			_, f := airspace.Judge(q, []airspace.Zone{zone}, gs, &noon)
			return judge.Worst(f)
		}
		with := verdict(grants, 60)
		if len(grants) > 0 {
			assert.GreaterOrEqual(t, verdict(grants[1:], 60), with)
		}
		assert.LessOrEqual(t, verdict(grants, 30), with)
	})
}
