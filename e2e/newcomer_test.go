package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/upkeep"
	"mainstay/e2e/browser"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// tally counts presses and fields part by part.
type tally struct {
	t               *testing.T
	p               *browser.Page
	presses, fields int // up to the part that is being counted
}

// part ends a part and says what it took. A PIN is one field, whatever its digits.
func (c *tally) part(what string) (presses, fields int) {
	presses, fields = c.p.Presses-c.presses, c.p.Fields-c.fields
	c.t.Logf("%-32s %3d presses %3d fields", what, presses, fields)
	c.presses, c.fields = c.p.Presses, c.p.Fields
	return presses, fields
}

// signs enters a PIN and counts it as one field.
func (c *tally) signs(pin string) {
	before := c.p.Presses
	sign(c.p, pin)
	c.p.Presses = before
	c.p.Fields++
}

// A newcomer gets from nothing to the first flight on record, with a type of their own. What
// is looked at on the aircraft, on the walk and at acceptance, has budgets of its own and is
// printed beside: nobody is hurried there.
func TestNewcomerFlies(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Empty(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	c := &tally{t: t, p: p}
	p.See("Set up your crew")
	for _, f := range [][2]string{{"Name of the crew", "Fieldside"}, {"Your name", "Ada Field"},
		{"Password", "a long password"}, {"PIN for your signatures", "7391"}, {"The PIN once more", "7391"}} {
		p.Fill(f[0], f[1])
	}
	p.Click("Set up the crew")
	p.See("From here to the first flight")
	presses, fields := c.part("crew and first chief")
	sum := func(what string) {
		n, m := c.part(what)
		presses, fields = presses+n, fields+m
	}

	p.Click("Set-up")
	p.See("Lantern 4")
	browser.Eval[bool](p, `(document.querySelector('a[href="/types/lantern-4?copy=1"]').click(), true)`)
	p.Presses++
	p.See("19 places on the walk")
	p.Fill("Name of the type", "Kite 4")
	p.Click("Keep the type")
	p.See("Kite 4")
	sum("a type of one's own")

	p.Click("Day")
	p.Click("Aircraft: do it")
	p.Fill("Type", "kite-4")
	for _, f := range [][2]string{{"Name the crew calls it by", "Kite"}, {"Maker's serial number", "K-1"},
		{"Registration", "FF-1"}, {"Registration valid through", "2028-06-01"}, {"Usual take-off mass", "7.1"},
		{"Weighed on", "2026-06-10"}} {
		p.Fill(f[0], f[1])
	}
	p.Click("Add the aircraft")
	p.See("Kite 4 · FF-1")
	sum("an aircraft")

	p.Click("Packs")
	p.Click("Add packs")
	p.Pick("They fly in", "Kite 4")
	p.Fill("Labels", "K1 to K3")
	p.Tick("Charged within the last day; else they lie at storage level")
	p.Click("Add the packs")
	p.See("K3")
	sum("packs")

	var ada people.Person
	require.NoError(t, svc.DB.Limit(1).Find(&ada, "login = 'ada'").Error)
	p.Click("Crew")
	p.Click("Ada Field")
	p.Click("Change Ada Field")
	p.Fill("Remote pilot certificate number", "RP-1")
	p.Fill("Last recurrent training", "2026-01-15")
	p.Click("Save")
	p.See("current through 2028-01-31")
	sum("papers of the pilot")

	p.Click("Fleet")
	p.Click("Kite")
	p.Click("Compass and firmware")
	p.Click("Record an update")
	p.Fill("Aircraft", "2.8.4")
	p.Fill("Controller", "2.8.1")
	p.Click("Put on record")
	p.See("2.8.4")
	sum("firmware")

	p.Click("Now")
	p.Click("Acceptance of a new or rebuilt aircraft")
	for _, step := range upkeep.Commissioning(false).Steps {
		p.Click("Done: " + step.Text)
	}
	p.Fill("What was done and found", "As the list says; all in order.")
	c.signs("7391")
	p.Click("Sign the work")
	p.See("without load: due")
	c.part("(acceptance, looked at)")

	p.Click("Fleet")
	p.Click("Kite")
	p.Click("Walkround")
	p.Click("Start the walkround")
	walkAll(t, p, "4.345")
	p.Click("Complete the walkround")
	p.See("On record")
	c.part("(walk, looked at)")

	f := testbed.NewField(t, svc, testbed.Mate{Person: ada, Post: "rpic", PIN: "7391"})
	f.Practice() // the first planned job has a test of its own
	p.Click("Fleet")
	p.Click("Kite")
	p.Click("Acceptance of a new or rebuilt aircraft")
	p.Click("Ask the gate for the flight without load")
	p.Fill("Steady wind", "3")
	p.Fill("Gusts, if seen", "4")
	p.See("Sign and release")
	c.signs("7391")
	p.Click("Sign and release")
	p.Click("Take off")
	p.See("Kite in the air")
	p.Click("LAND")
	p.See("Disconnect the pack first")
	sum("gate and flight")

	p.Fill("Motor 1", "35")
	p.Click("All feel like motor 1")
	p.Fill("Level of K1", "88")
	p.Fill("Temperature of K1", "30")
	p.Click("Log the flight")
	p.See("On record", "Turnaround for the next one")
	sum("log")
	t.Logf("%-32s %3d presses %3d fields", "all but what is looked at", presses, fields)
	assert.LessOrEqual(t, presses, 45)
	assert.LessOrEqual(t, fields, 25)
	assert.Empty(t, p.Faults())
}

// The first job is planned where nothing is on file yet: its site is begun inside its form,
// and its map begins by itself.
func TestNewcomerPlansAJob(t *testing.T) {
	t.Parallel()
	s := testbed.NewStage(t)
	p := chromium.Open(t, testbed.Serve(t, s.Services), "/jobs?new=1", 1280, 800)
	c := &tally{t: t, p: p}
	p.SignIn(s.Pilot.Login, "long enough")
	c.part("signing in")
	p.Fill("Aim, in one line", "Look at the roof")
	p.Click("It is a new site")
	p.Fill("Name", "Mill")
	p.Fill("Place", "46.31, -119.70")
	p.Tick("Begin its map: we take off there, and fly over a square of 100 m round it")
	p.Click("Begin the site file")
	p.Tick(s.Aircraft.Name)
	p.Fill("Return height set in "+s.Aircraft.Name, "60")
	p.Pick("Link lost: "+s.Aircraft.Name, "returns")
	p.Click("Plan it")
	p.See("No weather is on file for this site.", "There is no briefing")
	presses, fields := c.part("the first planned job")
	assert.LessOrEqual(t, presses, 8)
	assert.LessOrEqual(t, fields, 8)
	var n int64
	require.NoError(t, s.DB.Raw("select count(*) from site_features f join sites s on s.id = f.site_id where s.name = 'Mill'").Scan(&n).Error)
	assert.EqualValues(t, 2, n, "a take-off place and a field")
	assert.Empty(t, p.Faults())
}
