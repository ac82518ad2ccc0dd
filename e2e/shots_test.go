package e2e

import (
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/rack"
	"mainstay/internal/standins/charger"
	"mainstay/internal/testbed"
)

// TestShots makes the pictures of docs/screenshots from the demo data. It runs
// only when asked: SHOTS=docs/screenshots bin/shots.
func TestShots(t *testing.T) {
	dir := os.Getenv("SHOTS")
	if dir == "" {
		t.Skip("pictures are made by bin/shots")
	}
	only := os.Getenv("SHOTS_ONLY")
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	device := httptest.NewServer(charger.New(4, 1, svc.Clock.Now))
	defer device.Close()
	svc.Rack.Charger = rack.NewLink(device.URL)
	base := testbed.Serve(t, svc)
	p := chromium.Open(t, base, "/", 1280, 800)
	shot := func(name string) {
		if only == "" || only == name {
			require.NoError(t, os.MkdirAll(dir, 0o755))
			p.Shot(filepath.Join(dir, name+".png"))
		}
	}
	if os.Getenv("SHOTS_ALL") != "" { // screens that are looked at but not shown in the README
		moreShots(t, dir, base)
	}
	p.SignIn("imre", demo.Password)
	p.See("Lantern Three")
	shot("day")
	p.Go("/fleet")
	p.See("Tally W")
	shot("fleet")
	p.Click("Lantern Two")
	p.See("What is against it")
	shot("aircraft")
	p.Go("/packs")
	p.See("Charged, ready to fly")
	shot("packs")
	p.Click("D5")
	p.See("Readings, newest first")
	shot("pack")
	p.Go("/workshop")
	p.See("Lantern One", "What falls due")
	shot("workshop")
	p.Go("/workshop?tab=orders")
	p.Click("After contact with something hard")
	p.See("Torque of the motor screws")
	shot("work-order")
	p.Go("/tonight")
	p.See("ready by", "Gear to charge")
	shot("tonight")
	p.Go("/crew")
	p.See("Odile Varga")
	shot("crew")
	p.Go("/log")
	p.See("Show older flights")
	shot("log")
	p.Go("/log/records")
	p.See("Show older records")
	p.Click("Check the chain")
	p.See("records hold")
	shot("records")
	p.Go("/setup")
	p.See("Dray 30")
	shot("setup")
	p.Go("/parts")
	p.See("Airframes")
	shot("parts")
	p.Go("/")
	p.Click("Turnaround check")
	p.Click("Start the turnaround")
	p.See("1 of")
	for range 12 {
		p.Click("In order, next")
		p.Settle()
	}
	shot("walkround")
	p.Go("/")
	p.Click("Lantern Three")
	p.Click("Gate")
	p.Fill("Steady wind", "3,5")
	p.Fill("Gusts, if seen", "5")
	p.Fill("What this flight is for", "Inspection, Cutwater station, roof panels")
	p.See("gusts")
	shot("gate")
	for _, d := range demo.Crew[0].PIN {
		p.Click(string(d))
	}
	p.Click("Sign and release")
	p.See("Released by you")
	p.Click("Take off")
	p.See("Next pack call in")
	p.Click("Gust")
	shot("fly")
	p.Click("Night")
	p.Go("/")
	p.See("Lantern Three")
	shot("night")
	p.Click("Daylight")
	small := chromium.Open(t, base, "/", 390, 844)
	small.SignIn("imre", demo.Password)
	small.See("Lantern Three")
	if only == "" || only == "phone" {
		small.Shot(filepath.Join(dir, "phone.png"))
	}
	p.Click("Go to the flight")
	p.Click("LAND")
	p.See("has landed")
	shot("landed")
}

func moreShots(t *testing.T, dir, base string) {
	t.Helper()
	p := chromium.Open(t, base, "/", 1280, 800)
	shot := func(name string) { p.Shot(filepath.Join(dir, "more-"+name+".png")) }
	shot("sign-in")
	p.SignIn("tamsin", demo.Password)
	p.Click("Dray Two")
	p.Click("Propeller 2")
	p.See("What has been here")
	shot("station")
	p.Click("Replace it")
	p.See("Serial of the new propeller")
	shot("fit")
	p.Go("/workshop?tab=stock")
	p.See("Propellers, Dray 30")
	shot("stock")
	p.Go("/workshop?tab=defects")
	p.See("Wing tip light dim")
	shot("defects")
	p.Go("/workshop?tab=orders")
	p.See("After contact")
	shot("orders")
	p.Go("/packs?tab=sets")
	p.See("Without a partner")
	shot("sets")
	p.Go("/packs?tab=charge")
	p.See("Channel 4")
	shot("charge")
	p.Go("/packs")
	p.Click("L3")
	p.See("All six faces")
	p.Click("Look at it now")
	p.See("Lay it on a flat table")
	shot("faces")
	p.Go("/fleet")
	p.Click("Lantern Two")
	p.See("Motors over time")
	p.Scroll("Motors over time")
	shot("trends")
	p.Click("Arm 2")
	p.See("Speed controller 2")
	shot("arm")
	p.Go("/")
	p.Click("Walk round Lantern One")
	p.See("Which check")
	shot("walk-start")
	p.Click("Start the walkround")
	p.See("Arm 1: latch")
	p.Click("All ")
	p.Click("cells at rest")
	for i := range 6 {
		p.Fill("Cell "+string(rune('1'+i)), "4.335")
	}
	p.Fill("Cell 4", "4.28")
	p.See("Against:")
	shot("cells")
	empty, _ := testbed.Empty(t, clock.From(testbed.Noon))
	first := chromium.Open(t, testbed.Serve(t, empty), "/", 1280, 800)
	first.See("Set up your crew")
	first.Shot(filepath.Join(dir, "more-first-run.png"))
	small := chromium.Open(t, base, "/", 390, 844)
	small.SignIn("imre", demo.Password)
	small.Click("Finish the walkround")
	small.See("1 of")
	small.Shot(filepath.Join(dir, "more-phone-walk.png"))
}
