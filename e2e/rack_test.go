package e2e

import (
	"fmt"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/outside"
	"mainstay/internal/standins/charger"
	"mainstay/internal/testbed"
)

// A swollen pack, from the look at its faces to its disposal.
func TestSwollenPackToDisposal(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Go("/packs")
	p.Click("L6")
	p.Click("Look at it now")
	p.Click("Put on record")
	p.See("Say what the top face looks like.")
	p.Fill("Bottom", "swollen")
	p.Click("All that are left are in order")
	p.Click("Put on record and quarantine it")
	p.See("Say what was seen")
	p.Fill("What was seen", "Bulges 3 mm, rocks on the table")
	p.Upload("input[type=file]", picture(t))
	p.See("Remove")
	p.Click("Put on record and quarantine it")
	p.See("Now: quarantine", "swollen on the bottom: Bulges 3 mm", "In quarantine: must not be charged or flown.")
	p.Click("Dispose of it")
	p.Fill("How it was discharged", "Salt water, two days")
	p.Fill("Delivered to", "District recycling yard")
	sign(p, "3690")
	p.Click("Sign and retire it for good")
	p.See("A pack is discharged before it is given away.")
	p.Tick("It is discharged")
	sign(p, "3690")
	p.Click("Sign and retire it for good")
	p.See("Now: retired", "This is its last state.")
	p.Go("/log/records")
	p.See("L6 disposed of: Salt water, two days, delivered to District recycling yard")
	assert.Empty(t, p.Faults())
}

// Tonight's plan: what flies changes the plan at once; ticks stay and are seen
// by others; what cannot be ready in time says so.
func TestTonightsPlan(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	p := chromium.Open(t, base, "/", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("Tonight")
	p.See("Tonight, for Thursday 2026-06-11", "for Dray One: Depot rack, channel 1", "Level not known, planned from empty",
		"V2", "Charged for 2 days.", "It stands at 64 %, it needs 80 %: charge it.", "Its level has never been read.")
	p.Click("One sortie more for Dray One")
	p.See("packs in sets may fly, 4 sorties take 8.")
	p.Click("One sortie fewer for Dray One")
	p.Gone("4 sorties take 8")
	p.Tick("Charge D2")
	p.See("Odile Varga, 09:")
	p.Click("D2 is charged")
	p.See("D2 on charge", "D2 charged")
	p.Click("Take back: D2 charged")
	p.Gone("Take back: D2 charged")
	other := chromium.Open(t, base, "/tonight", 1280, 800)
	other.SignIn("bao", demo.Password)
	other.See("Odile Varga, 09:")
	other.Click("Read Tablet 2")
	other.Fill("Level it shows", "108")
	other.Click("Save")
	other.See("Enter 0 to 100 %")
	other.Fill("Level it shows", "93")
	other.Click("Save")
	other.See("At 93 %, looked at.")
	p.See("At 93 %, looked at.")
	p.Reload()
	p.See("Odile Varga, 09:")
	p.Fill("All ready by", "2026-06-10 19:30")
	p.Keys("\r")
	p.See("is not ready by then")
	assert.Empty(t, p.Faults())
	assert.Empty(t, other.Faults())
}

// The charger on the network charges a pack, and what it measured is on the
// pack; a charger that is lost says so.
func TestChargerOnTheNetwork(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	c := charger.New(2, 7200, time.Now) // two hours in a second
	device := httptest.NewServer(c)
	defer device.Close()
	svc.Rack.Charger = outside.New(device.URL, "")
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("bao", demo.Password)
	var id string
	require.NoError(t, svc.DB.Raw("select id from packs where label = 'D2'").Scan(&id).Error)
	p.Go("/packs?tab=charge")
	p.Fill("Pack for channel 1", id)
	p.Click("Charge")
	p.See("Its temperature is not known: feel it before it goes on the charger.")
	p.Click("Felt it, neither cold nor hot: charge")
	require.Eventually(t, func() bool {
		var state string
		_ = svc.DB.Raw("select state from packs where id = ?", id).Scan(&state).Error
		return state == "charged"
	}, 20*time.Second, 100*time.Millisecond, "the page asks the charger, which takes in what has finished")
	p.Go("/packs/" + id)
	p.See("Now: charged")
	p.Click("Readings")
	p.See("charger", "holds ")
	c.Set(charger.Faults{Unreachable: true})
	p.Go("/packs?tab=charge")
	p.See("The charger does not answer. What it is doing now is not known: look at it.")
	assert.Empty(t, p.Faults())
}

// A file of a charger: every line is accounted for, twice.
func TestChargerFile(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Go("/packs?tab=charge")
	file := filepath.Join(t.TempDir(), "log.csv")
	write := func(text string) { require.NoError(t, os.WriteFile(file, []byte(text), 0o600)) }
	write("time,pack,cell_1_v,cell_2_v,cell_3_v,cell_4_v,cell_5_v,cell_6_v\n2026-06-09T20:00:00Z,L3,3.9,3.9,3.9,3.9,3.9,3.9\n2026-06-09T20:00:00Z,L3,3.9,3.9,3.9,3.9,3.9,3.9\n2026-06-09T20:05:00Z,X9,3.9,3.9,3.9,3.9,3.9,3.9\n2026-06-09T20:10:00Z,L3,3.9,,3.9,3.9,3.9,3.9\n2026-06-09T20:20:00Z,D1,3.9,3.9,3.9,3.9,3.9,3.9\n")
	p.Upload("input[type=file]", file)
	p.See("1 reading taken, 0 were here already, 4 refused.", "Line 3: the same pack and time stand in line 2.",
		`no pack is labelled "X9"`, "cell 2 has no voltage", "D1 has 14 cells; 6 were entered.")
	p.Upload("input[type=file]", file)
	p.See("0 readings taken, 1 was here already, 4 refused.")
	write("time,pack,cell_1_volts\n")
	p.Upload("input[type=file]", file)
	p.See("The file cannot be read", "Nothing was saved.")
	p.Click("Compute all forecasts again")
	p.See("24 packs, just now")
	assert.Empty(t, p.Faults())
}

// Volts at rest and under a load tell the resistance of each cell; it is never
// held against what a charger measured.
func TestResistanceFromALoad(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/packs", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("L5")
	p.Click("Health")
	p.See("Resistance of cell 6 is 3.8 mΩ")
	p.Click("Now")
	p.Click("Charge and resistance, from a charger")
	for i := range 6 {
		p.Fill(fmt.Sprintf("Cell %d", i+1), "4.12")
		p.Fill(fmt.Sprintf("Cell %d under load", i+1), "3.86")
	}
	p.Fill("Load", "18")
	p.Click("Save the reading")
	p.See("Enter the load and for how long it was on.")
	p.Fill("On for", "10")
	p.Click("Save the reading")
	p.Click("Readings")
	p.See("14.4 14.4 14.4 14.4 14.4 14.4 mΩ, under 18 A after 10 s")
	p.Click("Health")
	p.See("Resistance of cell 6 is 3.8 mΩ")
	assert.Empty(t, p.Faults())
}

// Several packs go to storage with one press; what may not go says why, and one
// press brings the rest back.
func TestSeveralPacksWithOnePress(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	for _, h := range hands {
		p := chromium.Open(t, testbed.Serve(t, svc), "/packs?state=charged", h.width, h.height)
		p.SignIn("odile", demo.Password)
		p.Click("Choose several")
		p.Click("Choose D3")
		p.Click("Choose D4")
		p.See("2 packs chosen")
		assert.Empty(t, p.OnScreen("At storage level", "Done"))
		p.Click("At storage level")
		p.See("2 packs moved: D3, D4")
		assert.Equal(t, 2, count(t, svc, "select count(*) from packs where label in ('D3', 'D4') and state = 'storage'"))
		p.Click("Take back")
		p.Gone("2 packs moved")
		assert.Equal(t, 2, count(t, svc, "select count(*) from packs where label in ('D3', 'D4') and state = 'charged'"))
		p.Pick("Order", "weakest first")
		p.Click("Done")
		p.Gone("chosen")
		assert.Empty(t, p.Faults())
	}
}

// A pack is put right, and a reading that was taken of another pack is withdrawn: both with who
// and why; the withdrawn one counts for nothing and can still be read.
func TestAPackIsPutRight(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Go("/packs/" + packID(t, svc, "L4").String())
	p.Click("Correct")
	p.Fill("Rated capacity", "12.000.000")
	p.Click("Save")
	p.See("Leave out the thousands mark")
	p.Fill("Rated capacity", "11500")
	p.Click("Save")
	p.See("11500 mAh")
	p.Go("/packs/" + packID(t, svc, "L4").String() + "?tab=readings")
	p.Click("Withdraw")
	p.See("counts for nothing then")
	p.Click("Withdraw it")
	p.See("Say why")
	p.Fill("Why", "It was read at L5")
	p.Click("Withdraw it")
	p.See("Withdrawn by Tamsin Okoro", "It was read at L5")
	p.Go("/log/records?q=L4")
	p.See("L4 corrected: capacity 11500, not 12000.", "withdrawn: It was read at L5.")
	assert.Empty(t, p.Faults())
}
