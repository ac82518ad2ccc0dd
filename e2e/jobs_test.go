package e2e

import (
	"net/http/httptest"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/outside"
	"mainstay/internal/standins/desk"
	"mainstay/internal/testbed"
)

// withDesk is the demo crew with an airspace desk that answers after a second.
func withDesk(t *testing.T) (*desk.Desk, string) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	d := desk.New(svc.Clock.Now)
	d.Set(desk.Faults{DelayS: 1})
	srv := httptest.NewServer(d)
	t.Cleanup(srv.Close)
	svc.Airspace.Desk = outside.New(srv.URL, "")
	return d, testbed.Serve(t, svc)
}

// The main job of the site: a job is stopped by what is known of it; each thing
// is put right where the finding points, the briefing signed by everybody, the
// flight released and flown under the authorisation.
func TestJobIsBriefedReleasedAndFlown(t *testing.T) {
	t.Parallel()
	d, base := withDesk(t)
	p := chromium.Open(t, base, "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Click("Roof panels and intake")
	p.See("Not briefed yet: Imre Castellan.", "must be told before the start", "questions about this job are not answered",
		"Set it to 45 m")
	require.Equal(t, 0, p.Wide(), "the page fits")

	p.Click("Change")
	p.Fill("Return height set in Lantern Three", "far")
	p.Click("Save")
	p.See("“far” is not a number.")
	p.Fill("Return height set in Lantern Three", "45")
	p.Click("Save")
	p.See("45 m, worked out") // the plan of the inspection is what is flown: it goes over no poplars
	p.Gone("passes only")
	p.Click("Questions")
	p.Tick("Asked: none")
	p.Tick("No cloud comes down that low")
	p.See("All answered")

	p.Click("Open the airspace")
	p.See("Tolmere control zone", "Call before the start")
	p.Click("Call the start")
	p.See("the start was called")
	require.Len(t, d.Calls(), 1)
	assert.Equal(t, "TD-1093", d.Calls()[0].Number)

	p.Go("/jobs")
	p.Click("Roof panels and intake")
	job := p.Path()
	p.Click("Briefing")
	p.See("Radio channel 4", "Meeting point: Car park, at the gate.", "Poplars along the canal", "climbs to 30 m")
	p.Click("Write it anew") // the return height is another one now
	p.See("climbs to 45 m")
	p.Click("Bao signs")
	sign(p, "9999")
	p.Click("Sign")
	p.See("This is not Bao Lindqvist's PIN. Nothing was signed.")
	sign(p, demo.Crew[3].PIN)
	p.Click("Sign")
	p.Gone("Bao signs")
	p.Click("Imre signs")
	sign(p, demo.Crew[0].PIN)
	p.Click("Sign")
	p.Gone("Not briefed yet")
	p.Go(job)
	p.Click("Gate")
	p.Fill("Steady wind", "3,5")
	p.Fill("Gusts, if seen", "5")
	p.Click("Held and found in order:")
	p.See("briefing", "Car park: Not looked at: dust.")
	sign(p, demo.Crew[0].PIN)
	p.Click("Sign and release")
	p.See("Released by you", "Roof panels and intake")
	p.Click("Take off")
	p.See("Next pack call in")
	d.Set(desk.Faults{Fire: true}) // a temporary area comes up while it is in the air
	other := chromium.Open(t, base, "/sites", 1280, 800)
	other.SignIn("bao", demo.Password)
	other.Click("Cutwater station")
	other.See("On the map")
	other.Go(other.Path() + "?tab=airspace")
	other.Click("Ask the airspace desk")
	other.See("Fire fighting, canal")
	p.See("Inside Fire fighting, canal", "Land now.")
	p.Click("LAND")
	p.See("has landed")
}

// A job is planned; what cannot be is refused with a sentence at its field, and
// nothing entered is lost.
func TestJobIsPlanned(t *testing.T) {
	t.Parallel()
	_, base := withDesk(t)
	p := chromium.Open(t, base, "/jobs", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Click("Plan a job")
	p.Click("Plan it")
	p.See("Choose the site.")
	p.Fill("Aim, in one line", "Roof again")
	p.Reload()
	p.Click("Plan a job")
	p.See("Kind of work")
	assert.Equal(t, "Roof again", p.FieldValue("Aim, in one line"), "what was typed is still there")
}

// The hop yard: wires bar the automatic way to the rows. Who is in command decides
// to fly it by hand, with a reason; then nothing of the job stops the flight.
func TestHopYardIsFlownByDecision(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	job := uuid.MustParse(asImre(t, svc, "Hops, rows 25 to 60, mildew"))
	p := chromium.Open(t, testbed.Serve(t, svc), "/jobs/"+job.String(), 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See("It meets the wires of Trellis, west end: no automatic start.", "lifted by pilot in command or chief")
	p.Click("Fly by hand to the start")
	p.See("No automatic start: fly to the start of the route by hand")
	p.Click("Put it on record")
	p.See("Enter at least 3 characters.")
	p.Fill("Why: what was looked at",
		"Both ends of the trellis seen; over the gap at 10 m by hand, Tamsin watches the wires.")
	p.Click("Put it on record")
	p.See("Decided by Imre Castellan", "by hand, Tamsin watches the wires")
	allInOrder(t, svc, job)
	p.Reload()
	p.Click("Briefing")
	p.See("decided: fly by hand to the start of the route (Imre Castellan: Both ends of the trellis seen")
	p.See("Decided by Imre Castellan")
	a, err := svc.Jobs.Assess(t.Context(), job)
	require.NoError(t, err)
	for _, f := range append(a.Common, a.Each[a.Job.Aircraft[0].AircraftID].Findings...) {
		assert.NotEqual(t, judge.Stop, f.Verdict, f.Sentence)
	}
	p.Click("Team")
	p.Click("Take back")
	p.Click("Take it back")
	p.See("Say why it no longer holds.")
	p.Fill("Why it no longer holds", "Tamsin was called away: nobody watches the wires.")
	p.Click("Take it back")
	p.See("Taken back", "by Imre Castellan, because Tamsin was called away", "Fly by hand to the start")
	assert.Empty(t, p.Faults())
}

// The desk is asked for an authorisation; it refuses, is away, speaks another
// language, and grants.
func TestAuthorisationIsAskedFor(t *testing.T) {
	t.Parallel()
	d, base := withDesk(t)
	p := chromium.Open(t, base, "/sites", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("Cutwater station")
	p.See("On the map")
	p.Go(p.Path() + "?tab=airspace")
	p.See("TD-1093", "Goose marsh")
	require.Equal(t, 0, p.Wide(), "the page fits")
	d.Set(desk.Faults{Unreachable: true})
	p.Click("Ask the airspace desk")
	p.See("The airspace desk does not answer. What is on file is unchanged")
	d.Set(desk.Faults{Swapped: true})
	p.Click("Ask the airspace desk")
	p.See("answers what cannot be read")
	d.Set(desk.Faults{Refuse: true})
	p.Click("Authorisation for Tolmere control zone")
	p.Fill("Up to, above ground", "0")
	p.Click("Ask for it")
	p.See("Enter 1 to 3000 m.")
	p.Fill("Up to, above ground", "60")
	p.Click("Ask for it")
	p.See("Refused: Traffic in the zone at that time.")
	d.Set(desk.Faults{DelayS: 2})
	p.Click("Authorisation for Tolmere control zone")
	p.Fill("Up to, above ground", "60")
	p.Click("Ask for it")
	p.See("Asked for, not answered yet.")
	p.See("TD-1102", "Granted up to 60 m")
}

// What a person declares about today counts at once, and a licence that ends is
// named.
func TestFitnessPapersAndOwnRules(t *testing.T) {
	t.Parallel()
	_, base := withDesk(t)
	p := chromium.Open(t, base, "/crew?tab=fit", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.See("Odile Varga has not said anything yet")
	p.Tick("Slept and awake")
	p.Click("I do not fly today")
	p.See("not fit: fatigue")
	p.Go("/crew?tab=papers")
	p.See("ends in 12 days", "QX-2117")
	p.Go("/jobs")
	p.Click("Hops, rows 25 to 60")
	p.See("Odile Varga is not fit to fly today: fatigue.", "was current through", "the applicator licence PA-3388 ends on")

	chief := chromium.Open(t, base, "/rules?tab=own", 1280, 800)
	chief.SignIn("imre", demo.Password)
	chief.Click("Add a rule")
	chief.Fill("What it demands", "The gate of the yard is closed")
	chief.Fill("Question for every job", "The gate is closed")
	chief.Click("Save")
	chief.See("The rule cannot be used: its question ends with a question mark")
	chief.Fill("Question for every job", "Is the gate closed?")
	chief.Click("Save")
	chief.See("Asked: Is the gate closed?")
	p.Click("Which questions")
	p.See("Is the gate closed?")
	chief.Go("/rules?tab=coverage")
	chief.See("every item is covered", "Position fix of at least four satellites")
	chief.Go("/rules?tab=reports")
	chief.Click("Something must be reported")
	chief.Fill("What happened, to whom or what", "A greenhouse pane was broken, about 800 USD")
	chief.Click("Start the countdown")
	chief.See("9 days left")
	chief.Click("It is reported")
	chief.Fill("Reference of the report", "AR-17")
	chief.Click("Save")
	chief.See("Reported", "AR-17")
}

// A flight with a contact asks whether it must be reported, and takes what is
// known along.
func TestContactAsksForAReport(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	var flight, craft string
	require.NoError(t, svc.DB.Raw("select f.id, f.aircraft_id from flights f join flight_events e on e.flight_id = f.id where e.kind = 'contact' order by e.at desc limit 1").Row().Scan(&flight,
		&craft))
	p := chromium.Open(t, testbed.Serve(t, svc), "/fly/"+flight, 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See("is reported within 10 calendar days")
	p.Click("It must be reported")
	p.See("Something must be reported")
	assert.Equal(t, "Contact of Dray Two: Brushed the top wire of row 63, propeller 2.",
		p.FieldValue("What happened, to whom or what"))
	p.Click("Start the countdown")
	p.See("noted by Imre Castellan", "days left")
	p.Gone("Start the countdown")
	var n int64
	require.NoError(t, svc.DB.Raw("select count(*) from incident_reports where aircraft_id = ?", craft).Scan(&n).Error)
	assert.EqualValues(t, 1, n)
	assert.Empty(t, p.Faults())
}

// A site that is not on file yet is begun inside the form of the job, which keeps what was typed
// and takes the new one.
func TestASiteFromTheFormOfAJob(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Go("/jobs?new=1")
	p.Fill("Kind of work", "mapping")
	p.Fill("Aim, in one line", "Map the lower meadow")
	p.Click("It is a new site")
	p.Fill("Name", "Lower meadow")
	p.Fill("Place", "46,31; -119,70")
	p.Fill("Elevation of the ground", "212")
	p.Click("Begin the site file")
	p.Gone("Begin the site file")
	assert.Equal(t, "Map the lower meadow", p.FieldValue("Aim, in one line"))
	var at string
	require.NoError(t, svc.DB.Raw("select id from sites where name = 'Lower meadow'").Scan(&at).Error)
	assert.Equal(t, at, p.FieldValue("Site"))
	var jobs int64
	require.NoError(t, svc.DB.Raw("select count(*) from jobs where aim = 'Map the lower meadow'").Scan(&jobs).Error)
	assert.Zero(t, jobs, "the job itself is not sent yet")
	assert.Empty(t, p.Faults())
}
