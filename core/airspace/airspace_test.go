package airspace_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airspace"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/rules"
)

var noon = time.Date(2026, 6, 10, 19, 0, 0, 0, time.UTC)

func f(v float64) *float64 { return &v }

func box(x, y, side float64) geo.Area {
	return geo.Area{Outline: geo.Ring{{X: x, Y: y}, {X: x + side, Y: y}, {X: x + side, Y: y + side}, {X: x, Y: y + side}}}
}

func question() airspace.Question {
	return airspace.Question{Places: []geo.XY{{X: 0, Y: 0}, {X: 100, Y: 0}}, ReachM: 20, HeightM: 60, From: noon,
		To: noon.Add(2 * time.Hour), Now: noon}
}

func TestZonesOfEachKind(t *testing.T) {
	later, ended := noon.Add(3*time.Hour), noon.Add(-time.Hour)
	for name, c := range map[string]struct {
		zone airspace.Zone
		want judge.Verdict
		word string
	}{
		"control zone": {airspace.Zone{Class: airspace.D, Area: box(-500, -500, 1000)}, judge.Stop,
			"without authorisation"},
		"way through": {airspace.Zone{Class: airspace.C, Area: box(40, -10, 20)}, judge.Stop,
			"without authorisation"},
		"within reach": {airspace.Zone{Class: airspace.D, Area: box(115, -50, 100)}, judge.Stop,
			"without authorisation"},
		"beside": {airspace.Zone{Class: airspace.D, Area: box(300, -50, 100)}, judge.Clear, "begins 200 m away"},
		"above": {airspace.Zone{Class: airspace.B, Area: box(-500, -500, 1000), FloorM: f(370)}, judge.Clear,
			"under it"},
		"just above": {airspace.Zone{Class: airspace.B, Area: box(-500, -500, 1000), FloorM: f(70)}, judge.Watch,
			"under it"},
		"restricted": {airspace.Zone{Class: airspace.Restricted, Area: box(-500, -500, 1000)}, judge.Stop,
			"permission"},
		"temporary": {airspace.Zone{Class: airspace.Temporary, Area: box(-500, -500, 1000), From: &ended,
			To: &later}, judge.Stop, "permission"},
		"temporary, not yet": {airspace.Zone{Class: airspace.Temporary, Area: box(-500, -500, 1000), From: &later},
			judge.Clear, "not in force"},
		"temporary, over": {airspace.Zone{Class: airspace.Temporary, Area: box(-500, -500, 1000), To: &ended},
			judge.Clear, "not in force"},
		"uncontrolled": {airspace.Zone{Class: airspace.G, Area: box(-500, -500, 1000)}, judge.Clear,
			"no authorisation"},
		"advisory": {airspace.Zone{Class: airspace.Advisory, Area: box(-500, -500, 1000)}, judge.Watch,
			"read what it asks"},
		"in a hole of a zone": {airspace.Zone{Class: airspace.D,
			Area: geo.Area{Outline: box(-900, -900, 1800).Outline, Holes: []geo.Ring{box(-300, -300, 600).Outline}}},
			judge.Clear, "begins 200 m away"},
	} {
		c.zone.ID, c.zone.Name = "z", "Test"
		require.NoError(t, c.zone.Check(), name)
		got, found := airspace.Judge(question(), []airspace.Zone{c.zone}, nil, &noon)
		require.Len(t, got, 1, name)
		assert.Equal(t, c.want, got[0].Verdict, "%s: %s", name, got[0].Sentence)
		assert.Contains(t, got[0].Sentence, c.word, name)
		assert.Equal(t, c.want, judge.Worst(found), name)
	}
}

func TestGrants(t *testing.T) {
	zone := airspace.Zone{ID: "z", Name: "Cutwater", Class: airspace.D, Area: box(-500, -500, 1000)}
	grant := airspace.Grant{ID: "g", ZoneID: "z", Number: "A-17", CeilingM: 60, From: noon.Add(-time.Hour),
		To: noon.Add(3 * time.Hour)}
	ask := func(change func(*airspace.Grant)) airspace.Zoned {
		g := grant
		change(&g)
		got, _ := airspace.Judge(question(), []airspace.Zone{zone}, []airspace.Grant{g}, &noon)
		return got[0]
	}
	held := ask(func(*airspace.Grant) {})
	assert.Equal(t, judge.Clear, held.Verdict)
	require.NotNil(t, held.Grant)
	assert.Contains(t, held.Sentence, "A-17 holds up to 60 m")
	for word, change := range map[string]func(*airspace.Grant){
		"no number":              func(g *airspace.Grant) { g.Number = " " },
		"ends at 45 m":           func(g *airspace.Grant) { g.CeilingM = 45 },
		"has run out":            func(g *airspace.Grant) { g.To = noon },
		"whole planned window":   func(g *airspace.Grant) { g.To = noon.Add(time.Hour) },
		"without authorisation.": func(g *airspace.Grant) { g.ZoneID = "another" },
	} {
		x := ask(change)
		assert.Equal(t, judge.Stop, x.Verdict, word)
		assert.Contains(t, x.Sentence, word)
	}
}

func TestNotLookedUpIsStop(t *testing.T) {
	_, found := airspace.Judge(question(), nil, nil, nil)
	assert.Equal(t, judge.Stop, judge.Worst(found))
}

func TestZonesThatAreRefused(t *testing.T) {
	early := noon.Add(-time.Hour)
	for word, z := range map[string]airspace.Zone{
		"class":                     {Class: "Z", Area: box(0, 0, 10)},
		"ceiling":                   {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(100), CeilingM: f(50)},
		"begins":                    {Class: airspace.D, Area: box(0, 0, 10), From: &noon, To: &early},
		"corners":                   {Class: airspace.D},
		"counted from none":         {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(10), FloorDatum: "roof"},
		"heights are counted from":  {Class: airspace.D, Area: box(0, 0, 10), CeilingM: f(10), CeilingDatum: "roof"},
		"is no number":              {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(math.Inf(1))},
		"height of it is no number": {Class: airspace.D, Area: box(0, 0, 10), CeilingM: f(math.NaN())},
		"not above the ground":      {Class: airspace.D, Area: box(0, 0, 10), CeilingM: f(0)},
		"ceiling is not above the gr": {Class: airspace.D, Area: box(0, 0, 10), CeilingM: f(0),
			CeilingDatum: airspace.AboveGround},
		"ceiling is not over its": {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(50), CeilingM: f(50)},
		"it begins":               {Class: airspace.D, Area: box(0, 0, 10), From: &noon, To: &noon},
	} {
		err := z.Check()
		require.ErrorIs(t, err, airspace.ErrZone)
		assert.ErrorContains(t, err, word)
	}
	for name, z := range map[string]airspace.Zone{
		"from the sea, under its floor over ground": {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(100),
			FloorDatum: airspace.AboveGround, CeilingM: f(50), CeilingDatum: airspace.AboveSea},
		"under the sea": {Class: airspace.D, Area: box(0, 0, 10), CeilingM: f(-3), CeilingDatum: airspace.AboveSea},
		"just over":     {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(50), CeilingM: f(50.1)},
		"open upwards":  {Class: airspace.D, Area: box(0, 0, 10), FloorM: f(50)},
	} {
		assert.NoError(t, z.Check(), name)
	}
}

func TestLookCallsAndRefusals(t *testing.T) {
	zone := airspace.Zone{ID: "z", Name: "Cutwater", Class: airspace.D, Area: box(-500, -500, 1000)}
	at := func(d time.Duration) *time.Time { x := noon.Add(d); return &x }
	grant := airspace.Grant{ID: "g", ZoneID: "z", Number: "A-17", CeilingM: 60, From: noon.Add(-time.Hour),
		To: noon.Add(3 * time.Hour)}
	verdict := func(change func(*airspace.Grant)) (judge.Verdict, string) {
		g := grant
		change(&g)
		_, found := airspace.Judge(question(), []airspace.Zone{zone}, []airspace.Grant{g}, &noon)
		if len(found) == 0 {
			return judge.Clear, ""
		}
		return judge.Worst(found), found[0].Sentence
	}
	for _, c := range []struct {
		name   string
		change func(*airspace.Grant)
		want   judge.Verdict
		says   string
	}{
		{"granted", func(*airspace.Grant) {}, judge.Clear, ""},
		{"not answered", func(g *airspace.Grant) { g.Asked, g.Number = true, "" }, judge.Stop, "not answered yet"},
		{"refused", func(g *airspace.Grant) { g.Refused, g.Number = "traffic.", "" }, judge.Stop, "refused: traffic"},
		{"call due", func(g *airspace.Grant) { g.NeedsCalls = true }, judge.Stop, "must be told"},
		{"called", func(g *airspace.Grant) { g.NeedsCalls, g.Started = true, at(-time.Minute) }, judge.Clear, ""},
		{"called off again", func(g *airspace.Grant) {
			g.NeedsCalls, g.Started, g.Ended = true, at(-time.Hour),
				at(-time.Minute)
		}, judge.Stop, "must be told"},
	} {
		v, says := verdict(c.change)
		assert.Equal(t, c.want, v, c.name)
		assert.Contains(t, says, c.says, c.name)
	}
	_, found := airspace.Judge(question(), nil, nil, at(-24*time.Hour-time.Second))
	assert.Contains(t, found[0].Sentence, "over 24 hours")
	_, found = airspace.Judge(question(), nil, nil, at(-24*time.Hour))
	assert.Empty(t, found)
}

func TestWhatEndsInFlightIsSaid(t *testing.T) {
	zone := airspace.Zone{ID: "z", Name: "Cutwater", Class: airspace.D, Area: box(-500, -500, 1000)}
	grant := airspace.Grant{ZoneID: "z", Number: "A-17", CeilingM: 60, From: noon, To: noon.Add(2 * time.Hour)}
	zoned, _ := airspace.Judge(question(), []airspace.Zone{zone}, []airspace.Grant{grant}, &noon)
	assert.Empty(t, airspace.InFlight(noon.Add(109*time.Minute), rules.USSmall.Law, zoned))
	assert.Equal(t, judge.Watch, judge.Worst(airspace.InFlight(noon.Add(110*time.Minute), rules.USSmall.Law, zoned)))
	got := airspace.InFlight(noon.Add(2*time.Hour), rules.USSmall.Law, zoned)
	assert.Equal(t, judge.Stop, judge.Worst(got))
	assert.Contains(t, got[0].Sentence, "Land now")
	fire := airspace.Zone{ID: "t", Name: "Fire", Class: airspace.Temporary, Area: box(-100, -100, 400)}
	zoned, _ = airspace.Judge(question(), []airspace.Zone{fire}, nil, &noon)
	assert.Equal(t, judge.Stop, judge.Worst(airspace.InFlight(noon, rules.USSmall.Law, zoned)), "a temporary area came up")
}

// Of what stops a flight only controlled airspace is a limit that a waiver may
// lift; never an area that is closed, a look that is missing, a call that is due.
func TestOnlyControlledAirspaceIsALimit(t *testing.T) {
	for _, class := range airspace.AllClasses {
		_, found := airspace.Judge(question(), []airspace.Zone{{ID: "z", Name: "Zone", Class: class,
			Area: box(-500, -500, 1000)}}, nil, nil)
		assert.False(t, found[0].Limit, "not looked up")
		if len(found) > 1 {
			assert.Equal(t, class.NeedsAuthorisation(), found[1].Limit, class)
		}
	}
	low := -5.0
	assert.ErrorIs(t, airspace.Zone{Class: airspace.D, Area: box(0, 0, 10), CeilingM: &low}.Check(), airspace.ErrZone,
		"a ceiling under the ground")
}
