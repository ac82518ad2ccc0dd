package brief_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/brief"
	"mainstay/core/crew"
	"mainstay/core/intent"
	"mainstay/core/judge"
)

func ptr[T any](v T) *T { return &v }

func input() brief.Input {
	at := time.Date(2026, 6, 10, 9, 0, 0, 0, time.UTC)
	return brief.Input{Job: "Spray rows 1 to 24", Work: "spraying", Product: "Sulphur 80", Site: "Upper yard", From: at,
		To:     at.Add(3 * time.Hour),
		People: []brief.Person{{"i", "Imre", crew.InCommand}, {"b", "Bao", crew.Ground}},
		Aircraft: []brief.Aircraft{{Name: "Dray One", Type: "Dray 30", ReturnM: ptr(20.0), AdvisedM: ptr(35.0),
			LandByPercent: 30}},
		Things: []brief.Thing{{Kind: "obstacle", Name: "Oak", HeightM: ptr(17.8), SigmaM: 0.84, BufferM: 6},
			{Kind: "wires", Name: "Power line"}, {Kind: "sensitive", Name: "Bee yard", What: "bees", Note: "Tell the keeper."}},
		TakeOffs: []string{"Headland west"}, Weather: []string{"Wind 3 m/s."}, Airspace: []string{"Class G."},
		Findings: []judge.Finding{{Verdict: judge.Watch, Sentence: "Delta T 9."},
			{Verdict: judge.Clear, Sentence: "Fine."}}, Meeting: "the gate"}
}

// text joins a briefing for looking things up.
func text(ss []brief.Section) string {
	var b strings.Builder
	for _, s := range ss {
		b.WriteString("# " + s.Title + "\n" + strings.Join(s.Lines, "\n") + "\n")
	}
	return b.String()
}

func TestBriefingSaysWhatWasAssessed(t *testing.T) {
	ss := brief.Write(input())
	require.Len(t, ss, 6)
	got := text(ss)
	for _, want := range []string{"Spray rows 1 to 24 at Upper yard, 2026-06-10 09:00 to 12:00 UTC.",
		"Product: Sulphur 80", "Wind 3 m/s.", "Class G.", "Wires: Power line, height not known: never fly over.",
		"Obstacle: Oak, 17.8 m ± 1.7, keep 6 m.", "Sensitive: Bee yard (bees). Tell the keeper.", "Watch: Delta T 9.",
		"Drift harms", "climbs to 20 m", "too low: at least 35 m", "Imre: remote pilot in command.", "Bao: ground crew.",
		"Meeting point: the gate."} {
		assert.Contains(t, got, want)
	}
	assert.NotContains(t, got, "Fine.")
	assert.Less(t, strings.Index(got, "Power line"), strings.Index(got, "Oak"), "wires come first")
}

// What is not known is said.
func TestBriefingOfNothingSaysSo(t *testing.T) {
	got := text(brief.Write(brief.Input{Work: "spraying", Aircraft: []brief.Aircraft{{Name: "X"}}}))
	for _, want := range []string{"Weather: not known", "Airspace: not looked up", "Nothing is on the map",
		"Product: not recorded", "return height has not been read", "not charted yet", "Nobody is named",
		"Meeting point: not agreed"} {
		assert.Contains(t, got, want)
	}
}

func TestBasisHoldsForCrewSiteAndDay(t *testing.T) {
	b := brief.BasisOf(input(), "s", "2026-06-10")
	swapped := input()
	swapped.People[0], swapped.People[1] = swapped.People[1], swapped.People[0]
	swapped.Weather = []string{"Wind 4 m/s."}
	assert.Empty(t, b.Changed(brief.BasisOf(swapped, "s", "2026-06-10")), "order and weather do not matter")
	assert.Contains(t, b.Changed(brief.BasisOf(input(), "t", "2026-06-10")), "site")
	assert.Contains(t, b.Changed(brief.BasisOf(input(), "s", "2026-06-11")), "day")
	roles := input()
	roles.People[1].Post = crew.Observer
	assert.Contains(t, b.Changed(brief.BasisOf(roles, "s", "2026-06-10")), "roles")
	for name, c := range map[string]struct {
		change func(*brief.Input)
		says   string
	}{
		"return height": {func(in *brief.Input) { in.Aircraft[0].ReturnM = ptr(61.0) }, "returns at 61 m"},
		"lost link": {func(in *brief.Input) { in.Aircraft[0].LostLink = intent.Lands },
			"without link lands where it is"},
		"home point": {func(in *brief.Input) { in.Aircraft[0].HomeFollows = !in.Aircraft[0].HomeFollows },
			"how it is flown"},
		"height of route": {func(in *brief.Input) { in.Aircraft[0].RouteM = ptr(77.0) }, "route at 77 m"},
		"datum": {func(in *brief.Input) {
			in.Aircraft[0].RouteM, in.Aircraft[0].Datum = ptr(77.0),
				"above sea level"
		}, "above sea level"},
		"speed": {func(in *brief.Input) { in.Aircraft[0].SpeedMS = ptr(9.0) }, "9.0 m/s"},
		"mass":  {func(in *brief.Input) { in.Aircraft[0].MassKg = ptr(6.5) }, "6.5 kg"},
		"decision": {func(in *brief.Input) { in.Aircraft[0].Decided = []string{"by hand to the start"} },
			"decided: by hand"},
		"another aircraft":  {func(in *brief.Input) { in.Aircraft[0].Name = "Other" }, "Other: "},
		"one aircraft less": {func(in *brief.Input) { in.Aircraft = nil }, "no longer "},
		"route": {func(in *brief.Input) { in.Drawn = []brief.Drawn{{Kind: "route", Name: "R", Shape: "x"}} },
			"the route, the area"},
	} {
		in := input()
		in.Aircraft = slices.Clone(in.Aircraft)
		c.change(&in)
		assert.Contains(t, b.Changed(brief.BasisOf(in, "s", "2026-06-10")), c.says, name)
	}
	higher := input()
	higher.Things[0].HeightM = ptr(19.0)
	assert.Contains(t, b.Changed(brief.BasisOf(higher, "s", "2026-06-10")), "site file")
}
