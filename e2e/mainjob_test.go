package e2e

import (
	"context"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
)

// The crew's main job on the demo data: a sprayer that has flown this morning
// is walked round, released, flown and logged; its hours land where they must.
func TestMainJobOnDemoData(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	job := practise(t, svc, "Dray One", "imre")
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	var before struct{ Seconds, Flights int }
	require.NoError(t, svc.DB.Raw("select seconds, flights from aircraft where name = 'Dray One'").Scan(&before).Error)

	p.See("It has flown since the last check")
	p.Click("Turnaround check")
	p.See("The 2 packs that come along")
	p.Click("Start the turnaround")
	walkAll(t, p, "4,195")
	p.Click("Complete the turnaround")
	p.See("On record")
	p.Click("Ask the gate")
	p.See("The wind has not been entered")
	p.Fill("This flight belongs to", job)
	p.Fill("Steady wind", "3")
	p.Fill("Gusts, if seen", "4,5")
	p.Fill("What this flight is for", "Spraying, Upper Tolmere yard, rows 1-24")
	p.Gone("The wind has not been entered")
	p.See("Sign and release")

	sign(p, "9999")
	p.Click("Sign and release")
	p.See("This is not Imre Castellan's PIN. Nothing was signed.")
	assert.Equal(t, "Spraying, Upper Tolmere yard, rows 1-24", p.FieldValue("What this flight is for"),
		"nothing typed is lost")
	sign(p, demo.Crew[0].PIN)
	p.Click("Sign and release")
	p.See("Released by you")
	p.Click("Take off")
	p.See("Next pack call in", "Dray One in the air")
	p.Click("Gust")
	p.Click("Called")
	p.See("Logged 1")
	p.Reload()
	p.See("Dray One in the air", "Logged 1")
	p.Click("First minute")
	for i := range 6 {
		p.Fill("Motor "+string(rune('1'+i)), "48")
	}
	p.Click("Judge")
	p.See("Motors differ by 0.0 %")
	p.Click("Bird")
	p.See("Logged 2")
	p.Click("Take back: Bird")
	p.See("Logged 1")
	p.Click("LAND")
	p.See("Disconnect the packs first")
	p.Click("Still in the air")
	p.See("Dray One in the air")
	p.Click("LAND")
	p.See("Disconnect the packs first")
	p.Click("Log the flight")
	p.See("Motor 1: feel or measure it and enter its warmth.")
	for i, v := range []string{"41", "42", "41", "40", "42", "41"} {
		p.Fill("Motor "+string(rune('1'+i)), v)
	}
	p.Reload()
	assert.Equal(t, "40", p.FieldValue("Motor 4"), "a reload loses nothing")
	labels := flown(t, svc)
	for _, l := range labels {
		p.Fill("Level of "+l, "31")
		p.Fill("Temperature of "+l, "39")
	}
	p.Fill("Remarks", "Row 24: mind the guy wire.")
	p.Click("Log the flight")
	p.See("Enter what was sprayed; 0 when nothing was.")
	p.Fill("Sprayed", "21,5")
	p.Fill("Motor 2", "")
	p.Click("Log the flight")
	p.See("Motor 2: feel or measure it and enter its warmth.")
	p.Fill("Motor 2", "42")
	p.Click("Log the flight")
	p.See("On record", "Row 24: mind the guy wire.", "All motors alike.")

	var after struct{ Seconds, Flights int }
	require.NoError(t, svc.DB.Raw("select seconds, flights from aircraft where name = 'Dray One'").Scan(&after).Error)
	assert.Equal(t, before.Flights+1, after.Flights)
	var parts int64
	require.NoError(t, svc.DB.Raw(`select count(*) from flight_use u join (select id from flights order by took_off_at desc limit 1) f on f.id = u.flight_id where u.thing = 'part'`).Scan(&parts).Error)
	assert.EqualValues(t, 44, parts, "every part of a sprayer")
	var litres float64
	require.NoError(t, svc.DB.Raw("select litres from flights order by took_off_at desc limit 1").Scan(&litres).Error)
	assert.InDelta(t, 21.5, litres, 1e-9)
	p.Go("/log/records?tab=check")
	p.Click("Check everything")
	p.See("records hold")
	assert.Empty(t, p.Faults())
}

func flown(t *testing.T, svc *server.Services) []string {
	t.Helper()
	var out []string
	// The landing is on the device first, and then with the server.
	require.Eventually(t, func() bool {
		require.NoError(t, svc.DB.Raw("select k.label from flights f join packs k on k.id = any(f.pack_ids) where f.state = 'landed' order by k.label").Scan(&out).Error)
		return len(out) > 0
	}, 30*time.Second, 50*time.Millisecond)
	return out
}

// A contact in flight grounds the aircraft; a technician replaces the
// propellers and returns it to service.
func TestContactToReturnToService(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	p := chromium.Open(t, base, "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Click("Dray Two")
	p.See("Grounded by Imre Castellan")
	p.Click("Return to service")
	p.Fill("What was done and found", "Propellers look fine")
	sign(p, "3690")
	p.Click("Sign and return to service")
	p.See("Still the old ones")
	p.Keys("\x1b")
	p.Click("Replace the propellers")
	p.See("Replace all 6 propellers")
	for i := range 6 {
		n := string(rune('1' + i))
		p.Fill("Serial of the new propeller at Propeller "+n, "DP-90"+n)
	}
	p.Click("Put on record")
	p.See("Confirm that the old propellers are cut up")
	p.Tick("The old propellers are cut up")
	p.Click("Put on record")
	p.Gone("Replace all 6 propellers")
	p.Click("Return to service")
	p.Fill("What was done and found", "Six new propellers")
	sign(p, "3690")
	p.Click("Sign and return to service")
	p.See("Work that grounds it is not signed yet: After contact with something hard")
	p.Keys("\x1b")
	p.Click("After contact with something hard")
	p.See("5 steps stand between this and the signature")
	for _, step := range []string{"All propellers replaced", "Shafts straight", "Pack bay and packs"} {
		p.ClickAway("Done: " + step)
	}
	p.Click("Done: Every arm and mount")
	p.See("This step asks for a photo")
	p.Upload("input[type=file]", picture(t))
	p.See("Remove")
	p.Click("Done: Every arm and mount")
	p.Fill("torque", "1,5")
	p.Click("Save the reading: Torque")
	p.See("1.5 N·m is outside 1.2 ± 0.2 N·m.", "One step stands between")
	p.Fill("torque", "1,3")
	p.Click("Save the reading: Torque")
	p.See("1.3 N·m is inside 1.2 ± 0.2 N·m.", "Sign the work")
	p.Fill("What was done and found", "Six new propellers, arm 2 and motor 2 looked at, nothing found.")
	sign(p, "3690")
	p.Click("Sign the work")
	p.See("A second person looks at this work: choose who.")
	p.Fill("Who", "imre")
	p.Fill("Their PIN", "2580")
	sign(p, "3690")
	p.Click("Sign the work")
	p.See("Signed, acceptance flight due", "with Imre Castellan")
	p.Go("/")
	p.Click("Dray Two")
	p.Click("Return to service")
	p.Fill("What was done and found", "Six new propellers, arm 2 and motor 2 looked at, nothing found.")
	sign(p, "3690")
	p.Click("Sign and return to service")
	p.Gone("Grounded by Imre Castellan")
	p.See("The last walkround is", "An acceptance flight without load is due after: After contact")
	p.Click("Propeller 2")
	p.See("DP-902", "discarded")
	assert.Empty(t, p.Faults())
}

// Tampering shows on the screen too.
func TestBrokenChainIsNamed(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("rhea", demo.Password)
	var seq int64
	require.NoError(t, svc.DB.Raw("select min(seq) from records where content like '%walkround%'").Scan(&seq).Error)
	require.NoError(t, svc.DB.Exec("alter table records disable trigger user").Error)
	require.NoError(t, svc.DB.Exec("update records set content = replace(content, 'walkround', 'nothing') where seq = ?",
		seq).Error)
	p.Go("/log/records?tab=check")
	p.See("The newest head: ")
	p.Click("Check everything")
	p.See(fmt.Sprintf("Record %d does not hold: its content was changed", seq))
	res, err := records.Verify(context.Background(), svc.DB, records.Check{})
	require.NoError(t, err)
	assert.EqualValues(t, seq, res.FirstBad)
}

// Paper carries the newest head, and the head from paper is checked later; what
// was changed by hand is named.
func TestPaperCarriesTheHead(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("rhea", demo.Password)
	head, err := records.NewestHead(context.Background(), svc.DB)
	require.NoError(t, err)
	p.Go("/log")
	p.Paper(true)
	p.See("records up to " + head.Place() + ": " + head.Words())
	p.Paper(false)
	p.Go("/log/records?tab=check")
	p.Fill("A head you kept", head.Place()+" "+head.Words())
	p.Click("Check everything")
	p.See("The chain leads through the head at " + head.Place())
	p.Fill("A head you kept", "9999.1 "+head.Words())
	p.Click("Check everything")
	p.See("The newest records were removed")
	require.NoError(t, svc.DB.Exec("update packs set cycles = cycles + 1 where label = 'D1'").Error)
	require.NoError(t, svc.DB.Exec("set session_replication_role = replica").Error)
	require.NoError(t, svc.DB.Exec("update packs set cycles = cycles - 1 where label = 'D2'").Error)
	p.Fill("A head you kept", "")
	p.Click("Check everything")
	p.See("Changed without Mainstay was the pack D2")
}

// Bad input at a walkround: the sentence stands at once, and nothing is lost.
func TestWalkroundBadInputDraftAndPhoto(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("bao", demo.Password)
	p.Click("Walk round Lantern One")
	p.Click("Start the walkround")
	p.See("Corner 1: arm, motor, propeller")
	p.Click("Defect")
	p.Click("Save, next")
	p.See("Press what is not in order.")
	p.Click("Arm 1: latched")
	p.Click("Save, next")
	p.See("Say in the note what the defect is.")
	p.Fill("What the defect is", "Hairline crack at the hinge")
	p.See("This stops the flight until it is put right")
	p.Upload("input[type=file]", picture(t))
	p.See("Remove")
	p.Reload()
	assert.Equal(t, "Hairline crack at the hinge", p.FieldValue("What the defect is"), "what was typed survives a reload")
	p.Click("Raise it as a defect of the aircraft too")
	p.Click("Raise the defect")
	p.Gone("May it fly with this?")
	p.Click("Save, next")
	p.See("Stops the flight:", "Corner 2: arm, motor, propeller")
	p.Click("All ")
	p.Click("Controller charge")
	for typed, says := range map[string]string{"abc": "is not a number", "140": "Enter 0 to 100 %",
		"1.234,5": "thousands mark", "-3": "Enter 0 to 100 %"} {
		p.Fill("Controller charge", typed)
		p.See(says)
	}
	p.Fill("Controller charge", "40")
	p.See("near the limit", "stop under 30")
	p.Fill("Controller charge", "22,5")
	p.See("outside what may fly")
	p.Fill("Controller charge", "88")
	p.See("is good")
	p.Keys("\r")
	p.See("Satellites and home point")
	p.Go("/")
	p.See("Open defect at Arm 1: Hairline crack at the hinge")
	assert.Empty(t, p.Faults())
}

// Two people at the same gate: one releases, the other reads who.
func TestTwoPilotsAtOneGate(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	require.NoError(t, svc.DB.Exec("update people set trained_on = ? where login = 'odile'",
		testbed.Noon.AddDate(0, -3, 0)).Error)
	job := practise(t, svc, "Lantern Three", "imre", "odile")
	base := testbed.Serve(t, svc)
	one, two := chromium.Open(t, base, "/", 1280, 800), chromium.Open(t, base, "/", 1280, 800)
	one.SignIn("imre", demo.Password)
	two.SignIn("odile", demo.Password)
	one.Click("Lantern Three")
	one.Click("Gate")
	path := one.Path()
	two.Go(path)
	for _, p := range []*browser.Page{one, two} {
		p.See("Wind here, now")
		p.Fill("This flight belongs to", job)
	}
	one.Fill("Steady wind", "3")
	one.Fill("Gusts, if seen", "4")
	one.Fill("What this flight is for", "Inspection")
	two.Fill("Steady wind", "3")
	two.Fill("Gusts, if seen", "4")
	two.Fill("What this flight is for", "Inspection too")
	one.See("Sign and release")
	two.See("Sign and release")
	sign(one, "2580")
	sign(two, "1470")
	one.Click("Sign and release")
	one.See("Released by you")
	two.PressIfThere("Sign and release") // unless the news was faster
	two.See("Released by Imre Castellan")
	var open int64
	require.NoError(t, svc.DB.Raw("select count(*) from releases where state = 'open'").Scan(&open).Error)
	assert.EqualValues(t, 1, open)
	one.Click("Withdraw the release")
	one.See("Sign and release")
}

// An expired certificate stops its pilot at the gate, with the date.
func TestExpiredPilotIsStopped(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("Lantern Three")
	p.Click("Gate")
	p.See("Odile Varga was current through 2026-05-31 and needs recurrent training.", "It cannot be released.")
}

func TestKeyboard(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("rhea", demo.Password)
	p.See("Day 2026-06-10")
	p.Keys("gf")
	p.See("All plans at one scale")
	p.Keys("/")
	assert.Equal(t, "search", browser.Eval[string](p, "document.activeElement.type"))
	p.Fill("Find an aircraft", "tally")
	p.Gone("Lantern One")
	p.Keys("\t")
	p.Click("Sign out")
	p.See("May this aircraft fly now")
	p.SignIn("rhea", demo.Password)
	p.Keys("?")
	p.See("Aircraft: how it is done here")
	p.Click("Life of a part")
	p.See("the counter stays with the part", "Source: type file, from the maker.")
	p.Click("Keyboard")
	p.See("Go to Packs")
	p.Keys("\x1b")
	p.Gone("Go to Packs")
	assert.Empty(t, p.Faults())
}

// picture writes a small photo to a file.
func picture(t *testing.T) string {
	t.Helper()
	name := filepath.Join(t.TempDir(), "photo.png")
	f, err := os.Create(name)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, image.NewGray(image.Rect(0, 0, 8, 8))))
	require.NoError(t, f.Close())
	return name
}
