package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// The technician sees what falls due and goes from a line to the part.
func TestWorkshopLeadsToThePart(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Click("Workshop")
	p.See("Defects 3", "All screws and fasteners", "Put off by Tamsin Okoro through")
	p.Fill("Parts or tasks", "part")
	p.See("22.0 of 24 hours used: 2.0 left.")
	p.Gone("All screws and fasteners")
	p.Fill("How far to look ahead", "all")
	p.See("300 hours used")
	p.Click("Drive propeller")
	p.See("What has been here", "Replace it")
	assert.Empty(t, p.Faults())
}

// From a line of the due list to the signed work and the gate.
func TestDueTaskIsDone(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Go("/workshop")
	p.See("16.9 of 7 days used: due now.")
	p.Click("Do it")
	p.See("Lantern Two")
	p.Click("Open it")
	p.See("because of: programme", "3 steps stand between")
	p.Click("Not in order")
	p.Click("Save as not in order")
	p.See("Say what is not in order")
	p.Fill("What is not in order", "Screw of motor 2 stripped")
	p.Click("Save as not in order")
	p.See("Not in order: Screw of motor 2 stripped", "3 steps stand between")
	p.Click("Back")
	for _, step := range [][2]string{{"Motor screws first", "2 steps stand between"},
		{"Frame, arms", "One step stands between"}, {"Shake it", "Your own PIN"}} {
		p.Click("Done: " + step[0])
		p.See(step[1])
	}
	p.Fill("From stock", "")
	p.Click("Take it")
	p.See("Choose what was taken.")
	var line string
	require.NoError(t, svc.DB.Raw("select id from stock_lines where name like 'Motor screws%'").Scan(&line).Error)
	p.Fill("From stock", line)
	p.Fill("How many", "9")
	p.Click("Take it")
	p.See("There are 3 of Motor screws")
	p.Fill("How many", "1")
	p.Click("Take it")
	p.See("1 × Motor screws")
	p.Fill("What was done and found", "One screw replaced.")
	sign(p, "0000")
	p.Click("Sign the work")
	p.See("This is not Tamsin Okoro's PIN. Nothing was signed.")
	assert.Equal(t, "One screw replaced.", p.FieldValue("What was done and found"))
	sign(p, "3690")
	p.Click("Sign the work")
	p.See("Closed", "One screw replaced.")
	p.Go("/workshop?tab=orders&all=yes")
	p.See("Closed · Tamsin Okoro")
	assert.Empty(t, p.Faults())
}

// A defect is decided: put off within the programme, or put right.
func TestDefectIsPutOffThenPutRight(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Go("/workshop?tab=defects")
	p.See("Wing tip light dim", "Not decided yet.")
	p.Click("Put it off")
	p.Fill("For", "0")
	p.Click("Sign and put it off")
	p.See("Enter a whole number of days, 1 to 365.")
	p.Fill("For", "40")
	p.Fill("Why it waits", "The lamp is on order")
	sign(p, "3690")
	p.Click("Sign and put it off")
	p.See("Put off by Tamsin Okoro through 2026-06-24", "by day only")
	p.Gone("Sign and put it off") // and with it the page as it was before
	p.Click("Put it right")
	p.Click("Open it")
	p.See("Put right: Sensors: Range sensor face scratched")
	for _, step := range []string{"Cause found", "Put right", "Checked"} {
		p.ClickAway("Done: " + step)
	}
	p.Fill("What was done and found", "New lamp")
	sign(p, "3690")
	p.Click("Sign the work")
	p.See("Closed")
	p.Go("/workshop?tab=defects")
	p.See("Open defects: 2", "New lamp")
	assert.Empty(t, p.Faults())
}

// What happened at base grounds the aircraft and opens work; an update asks for
// re-checks; a motor goes to another arm with its hours.
func TestIncidentFirmwareAndSwap(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Click("Lantern Three")
	p.Click("Something happened")
	p.Fill("What", "water")
	p.Fill("How it happened", "Stood in the rain on the truck")
	p.Click("Report it and ground the aircraft")
	p.See("Grounded by Tamsin Okoro: Water inside", "After water inside")
	p.Click("Compass and firmware")
	p.Click("Record an update")
	p.Fill("App on the tablet", "4.8")
	p.Click("Put on record")
	p.Click("Now")
	p.See("The app has 4.8, tested together was 4.6.", "After a firmware change")
	p.Click("Compass and firmware")
	p.Click("Tested together")
	p.Fill("How it was tested", "A day at the depot")
	p.Click("Put the combination on file")
	p.Click("Now")
	p.Gone("The app has 4.8")
	p.Click("Motor 1")
	p.Click("LN4-2291-motor-1")
	p.See("Motor LN4-2291-motor-1")
	p.Click("Swap it")
	var other string
	require.NoError(t, svc.DB.Raw("select id from parts where serial = 'LN4-2291-motor-3'").Scan(&other).Error)
	p.Fill("It changes places with", other)
	p.Click("Put on record")
	p.See("(swap)", "Motor 3")
	p.Click("Take it off")
	p.Fill("Why", "Bearing noisy")
	p.Click("Put on record")
	p.See("On the shelf.")
	p.Go("/")
	p.See("Motor 3: No motor is recorded here.")
	assert.Empty(t, p.Faults())
}

// Several due tasks and defects become work orders with one press, each by itself, and come back with one.
func TestSeveralWorkOrdersWithOnePress(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 390, 844)
	p.SignIn("tamsin", demo.Password)
	orders := func(state string) int {
		return count(t, svc, "select count(*) from work_orders where state = '"+state+"'")
	}
	open, cancelled := orders("open"), orders("cancelled")
	p.Go("/workshop?by=aircraft")
	p.See("What falls due")
	p.Click("Choose several")
	p.See("Nothing chosen yet")
	p.Tick("Choose Lantern One: All screws and fasteners")
	p.Tick("Choose Lantern Two: All screws and fasteners")
	p.See("2 lines chosen")
	assert.Empty(t, p.OnScreen("Open a work order for each", "Done"))
	p.Click("Open a work order for each")
	p.See("2 work orders opened.")
	assert.Equal(t, open+2, orders("open"))
	p.Click("Take back")
	p.Gone("2 work orders opened.")
	assert.Equal(t, open, orders("open"))
	assert.Equal(t, cancelled+2, orders("cancelled"))
	p.Click("Done")
	p.Click("Defects 3")
	p.Pick("Order of open defects", "worst first")
	p.Click("Choose several")
	p.Click("All that are shown")
	p.Click("Open a work order for each")
	p.See("opened.", "Go to the work order")
	assert.Empty(t, p.Faults())
}
