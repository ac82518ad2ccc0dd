package e2e

import (
	"context"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/outside"
	"mainstay/internal/server"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
)

// linked gives the demo a link to its aircraft, whose flights are over when they are asked for.
func linked(t *testing.T, svc *server.Services) *aircraft.Link {
	crafts, err := demo.Crafts(context.Background(), svc)
	require.NoError(t, err)
	l := aircraft.New(1e12, svc.Clock.Now, crafts...)
	srv := httptest.NewServer(l)
	t.Cleanup(srv.Close)
	svc.Missions.Link = outside.New(srv.URL, "")
	return l
}

// planAt is the address of the mission plan of an aircraft.
func planAt(t *testing.T, svc *server.Services, name string) (at, serial string) {
	var row struct{ Job, Aircraft, Serial string }
	require.NoError(t, svc.DB.Raw("select p.job_id as job, p.aircraft_id as aircraft, a.serial from mission_plans p join aircraft a on a.id = p.aircraft_id where a.name = ?",
		name).Scan(&row).Error)
	return "/jobs/" + row.Job + "/mission/" + row.Aircraft, row.Serial
}

// A survey in parts: the old mission in the aircraft is caught, the plan sent and read back,
// flown by the stand-in with a camera that skips, the gap found and flown again.
func TestSurveyToTheLastPicture(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	link := linked(t, svc)
	at, serial := planAt(t, svc, "Tally W")
	p := chromium.Open(t, testbed.Serve(t, svc), at, 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See("What follows", "parts by their ground", "Take off at Sluice", "Part of this plan is flown")
	p.Click("In the aircraft")
	p.See("different from the plan", "the aircraft holds another mission", "It will climb to")
	link.Set(aircraft.Faults{Dropped: 4})
	p.Click("Send and read back")
	p.See("Waypoint 4 is not in the aircraft")
	link.Set(aircraft.Faults{CameraSkips: 6})
	p.Click("Send and read back")
	p.See("read back, equal to the plan", "No difference")
	require.NoError(t, link.Fly(serial))
	p.Click("Pictures")
	p.Click("As the aircraft lists them")
	p.See("pictures are here; nothing is kept yet", "have no picture")
	p.Fill("Was the camera still running at landing?", "yes")
	p.Click("Put flight 2 on record as flown")
	p.See("Flight 2 is flown")
	link.Set(aircraft.Faults{})
	p.Click(again(p))
	p.See("again · next")
	p.Go(at + "?tab=aircraft&flight=4")
	p.Click("Send and read back")
	p.See("read back, equal to the plan")
	require.NoError(t, link.Fly(serial))
	p.Click("Pictures")
	p.Click("As the aircraft lists them")
	p.See("pictures are here; nothing is kept yet")
	p.Gone("have no picture")
	p.Gone("has no picture")
	assert.Equal(t, 0, p.Wide())
	assert.Empty(t, p.Faults())
}

// again is the words of the key that plans the gaps.
func again(p *browser.Page) string {
	p.SeeIn("button", "again")
	return browser.Eval[string](p,
		"[...document.querySelectorAll('main .btn')].map(b => b.textContent).find(t => /^Fly .* again$/.test(t)) ?? ''")
}

// A pilot plans a survey of the same bank anew: what cannot be is said with the nearest that
// can, which one press takes.
func TestPlanASurvey(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	at, _ := planAt(t, svc, "Tally W")
	p := chromium.Open(t, testbed.Serve(t, svc), at+"?tab=pictures&flight=1", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Click("Not flown after all")
	p.See("Pictures of flight 1")
	p.Go(at)
	p.See("What follows")
	p.Fill("Height over the ground", "130")
	p.See("122 m are allowed")
	p.Click("Take ")
	p.Gone("122 m are allowed")
	p.Fill("Overlap of lines", "100")
	p.Click("Keep this plan")
	p.See("Enter 0 to 95 %.")
	p.Fill("Overlap of lines", "60")
	p.Fill("The ground", "follow")
	p.See("followed, up and down")
	p.Click("Keep this plan")
	p.See("not read back")
	p.Gone("Keep this plan")
	assert.Empty(t, p.Faults())
}

// An inspection: the camera card, a finding, and both on the sheet of the job.
func TestInspectionToTheSheet(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	linked(t, svc)
	at, _ := planAt(t, svc, "Lantern Three")
	p := chromium.Open(t, testbed.Serve(t, svc), at, 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See("From the surface", "read back, equal to the plan")
	p.Click("Camera")
	p.See("Everything is in order")
	p.Fill("Lens cap is off", "no")
	p.Click("Put the card on record")
	p.See("The lens cap is on.", "No test picture was taken")
	p.Click("Found")
	p.See("Panel 4, south row")
	p.Click("Put on record")
	p.See("Name the picture that shows it.")
	p.Fill("Picture", "IMG_0019.jpg")
	p.Fill("Where on it", "Intake grate")
	p.Fill("What is seen", "Leaves over half of it.")
	p.Click("Put on record")
	p.See("Leaves over half of it.", "IMG_0019.jpg")
	p.Click("Job")
	p.See("Job sheet (PDF)")
	size := browser.Eval[int](p, `(async () => {
		const r = await fetch([...document.querySelectorAll("a")].find(a => a.textContent.includes("Job sheet")).href);
		const b = new Uint8Array(await r.arrayBuffer());
		return r.ok && String.fromCharCode(...b.slice(0, 5)) === "%PDF-" ? b.length : 0;
	})()`)
	assert.Greater(t, size, 10_000)
	assert.Equal(t, 0, p.Wide())
	assert.Empty(t, p.Faults())
}
