package e2e

import (
	"fmt"
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/server"
	"mainstay/internal/testbed"
)

// sprayAt is the address of the spray plan of the demo.
func sprayAt(t *testing.T, svc *server.Services) string {
	t.Helper()
	var at string
	require.NoError(t, svc.DB.Raw("select '/jobs/' || p.job_id || '/spray/' || p.aircraft_id from spray_plans p join aircraft a on a.id = p.aircraft_id where a.name = 'Dray One'").Scan(&at).Error)
	return at
}

// From the plan to the load sheet, broken off and gone on, to the signed record.
func TestHopYardFromPlanToRecord(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	at := sprayAt(t, svc)
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Click("Jobs")
	p.Click("Hops, rows 25 to 60, mildew")
	p.Click("Spray plan of Dray One")
	p.See("What follows", "planned by Odile Varga", "1 pass waits for another wind", "Part of it is sprayed")

	// A wish that breaks says which, and the nearest value is one press away.
	p.Fill("Rate", "60")
	p.See("The label allows at most 40 L/ha; 60 are planned.", "Take the nearest")
	p.Click("Take the nearest")
	p.Gone("The label allows at most")
	assert.Equal(t, "40", p.FieldValue("Rate"))
	p.Fill("Speed", "3")
	p.Gone("Each nozzle would have to give")
	p.Fill("Rate", "x")
	p.Click("Keep this plan")
	p.See("is not a number")
	p.Fill("Rate", "25")
	p.Click("Keep this plan")
	p.Gone("Back to what is kept")
	var rate float64
	require.NoError(t, svc.DB.Raw("select (p.wish->>'speed_ms')::float from spray_plans p join aircraft a on a.id = p.aircraft_id where a.name = 'Dray One'").Scan(&rate).Error)
	assert.InDelta(t, 3, rate, 1e-9)

	// The load sheet on a phone, seen by two, weighed.
	p.Size(390, 844)
	p.Go(at + "?tab=load")
	p.See("Fill 1:")
	for _, what := range []string{"Water, first half", "Wettable sulphur", "Wetter", "Water, the rest"} {
		p.Click(what)
		p.SeeIn(".fill-lines", "in, Odile Varga")
	}
	p.See("Seen by")
	p.Pick("Seen by", "Tamsin Okoro")
	p.Fill("Your own PIN", demo.Crew[2].PIN)
	p.Click("Seen: all of it is in")
	p.See("seen by Tamsin Okoro")
	p.Fill("Weighed before take-off", "20")
	p.Click("Weighed")
	p.See("Look what is in the tank")
	var should float64
	require.NoError(t, svc.DB.Raw("select litres + 38.3 from spray_fills").Scan(&should).Error)
	p.Fill("Weighed before take-off", fmt1(should))
	p.Click("Weighed")
	p.See("Filled", "weighed")
	assert.LessOrEqual(t, p.Wide(), 0)

	// Broken off: what is sprayed is on record, and what is left is smaller.
	p.Size(1280, 800)
	p.Go(at + "?tab=done")
	p.See("The flight just flown")
	n := count(t, svc, "select count(*) from spray_done where back_at is null")
	p.See(fmt.Sprintf("in %d parts", n))
	p.Click("All of it is sprayed")
	p.Gone(fmt.Sprintf("in %d parts", n))
	onRecord := func(is func(int) bool) {
		t.Helper()
		require.Eventually(t, func() bool {
			return is(count(t, svc,
				"select count(*) from spray_done where back_at is null"))
		}, 10*time.Second, 50*time.Millisecond)
	}
	onRecord(func(k int) bool { return k > n })
	p.Click("Take the last back")
	p.See(fmt.Sprintf("in %d parts", n))
	onRecord(func(k int) bool { return k == n })

	// The record.
	p.Go(at + "?tab=record")
	p.See("QX-REG 4471", "PA-3388", "Nobody enters before")
	p.Fill("Your own PIN", demo.Crew[1].PIN)
	p.Click("Sign the record")
	p.See("Say who was told")
	p.Fill("Neighbours told", "The beekeeper, the evening before")
	p.Click("Sign the record")
	p.See("by Odile Varga", "The beekeeper, the evening before", "Nothing is put on record as sprayed since")
	assert.Empty(t, p.Faults())
}

// At the truck there is no network: what goes in, what it weighs and what was sprayed is
// kept on the tablet and handed over later, once, from when it was pressed.
func TestTruckWithoutNetwork(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	at := sprayAt(t, svc)
	wire := testbed.NewWire(t, testbed.Serve(t, svc))
	p := chromium.Open(t, wire.URL, "/", 820, 1180)
	p.SignIn("odile", demo.Password)
	p.Kept()
	p.Go(at + "?tab=load")
	p.See("Fill 1:")
	p.Settle()
	before := count(t, svc, "select count(*) from spray_done where back_at is null")
	p.Holds("spray")
	wire.Cut()
	p.See("No connection")
	p.Click("Water, first half")
	p.SeeIn(".fill-lines", "in, Odile Varga")
	p.See("Water, first half is in", "waiting for network")
	p.Click("Wettable sulphur")
	p.Click("Wettable sulphur") // not that one, after all
	p.Click("Sprayed")
	p.See("The flight just flown")
	p.Click("All of it is sprayed")
	p.See("What was sprayed", "waiting for network")
	p.Go(at + "?tab=load") // a reload loses nothing
	p.See("Fill 1:", "waiting for network")
	p.SeeIn(".fill-lines", "in, Odile Varga")
	assert.Zero(t, count(t, svc, "select count(*) from spray_fills"))
	wire.Mend()
	p.Gone("waiting for network")
	require.Eventually(t, func() bool {
		return count(t, svc, "select count(*) from spray_done where back_at is null") > before
	}, 10*time.Second, 50*time.Millisecond)
	assert.Equal(t, 1, count(t, svc, "select count(*) from spray_fills"))
	assert.Equal(t, 1, count(t, svc,
		"select count(*) from spray_fills f, jsonb_array_elements(f.lines::jsonb) l where l->>'first' = 'Odile Varga'"))
	assert.Empty(t, p.Faults())
}

// Two people change one plan: the second is told, keeps what was typed, and can put it
// on top of the other's.
func TestTwoPeopleOnOnePlan(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	at, url := sprayAt(t, svc), testbed.Serve(t, svc)
	odile, imre := chromium.Open(t, url, "/", 1280, 800), chromium.Open(t, url, "/", 820, 1180)
	odile.SignIn("odile", demo.Password)
	imre.SignIn("imre", demo.Password)
	for _, p := range []*browser.Page{odile, imre} {
		p.Go(at)
		p.See("What follows")
		p.Settle()
	}
	keeps := func(field, value string) {
		t.Helper()
		odile.Fill(field, value)
		odile.Click("Keep this plan")
		odile.Gone("Back to what is kept")
	}
	has := func(field, value string) {
		t.Helper()
		require.Eventually(t, func() bool { return imre.FieldValue(field) == value }, 10*time.Second, 50*time.Millisecond,
			"%s %s", field, value)
	}
	imre.Fill("Turn", "9")
	imre.Go("/jobs") // left as it was typed
	keeps("Speed", "4")
	imre.Go(at)
	imre.See("What follows")
	has("Turn", "9")
	has("Speed", "4")
	keeps("Crop height", "5.9") // and while it is open
	has("Crop height", "5.9")
	has("Turn", "9")
	imre.Click("Keep this plan")
	imre.Gone("Keep this plan")
	require.Eventually(t, func() bool { return number(t, svc, "turn_s") == 9 }, 10*time.Second, 50*time.Millisecond)
	assert.InDelta(t, 4, number(t, svc, "speed_ms"), 1e-9)
	assert.Empty(t, odile.Faults())
}

// number is what the kept plan of Dray One says.
func number(t *testing.T, svc *server.Services, field string) float64 {
	t.Helper()
	var v float64
	require.NoError(t, svc.DB.Raw("select (p.wish->>?)::float from spray_plans p join aircraft a on a.id = p.aircraft_id where a.name = 'Dray One'",
		field).Scan(&v).Error)
	return v
}

// Calibrations are guided, judged and on record; one that failed stops at the gate.
func TestSpraySystemIsCalibrated(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/fleet/"+id(t, svc, "Dray One").String()+"?tab=spray", 820, 1180)
	p.SignIn("tamsin", demo.Password)
	p.See("Newest catch test", "Nozzle 3 is 7.1 % from the mean")
	p.Click("Calibrate")
	p.See("Put on a known mass")
	p.Fill("Shown when empty", "0,02")
	p.Fill("Known mass", "20")
	p.Fill("Shown for it", "20.3")
	p.Click("Judge and put on record")
	p.See("Enter it: span set now.")
	p.Fill("Span set now", "0.02")
	p.Click("Judge and put on record")
	p.See("1.5 % off: set the new span and weigh again. New span: 0.0197044.")
	assert.Empty(t, p.Faults())
}

// The bench answers while one types, keeps its inputs in the address, and the day's
// rotation names what holds it up.
func TestBenchAndRotation(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/bench?q=hover", 1280, 800)
	p.SignIn("rhea", demo.Password)
	p.Click("Hover power and endurance")
	for label, v := range map[string]string{"Rotors": "4", "Rotor diameter": "0.55", "Air density": "1.225",
		"Mass": "12"} {
		p.Fill(label, v)
	}
	p.See("1521 W")
	assert.Contains(t, p.Path(), "mass=12")
	p.Reload()
	p.See("1521 W")
	p.Fill("Mass", "26.4555 lb")
	p.See("1521 W")
	p.Fill("Mass", "heavy")
	p.See("is not a number", "Correct what is marked")
	p.Go("/bench/wind-height?height=120")
	p.See("8.64 m/s", "19.3")
	p.Go("/rotation")
	p.See("With one more set of packs", "sooner", "until the last landing")
	p.Fill("Charging channels", "0")
	p.See("the work never ends like this", "With one more charging channel")
	p.Fill("Sets of packs", "0")
	p.See("Enter 1 to 500 sets.")
	assert.Empty(t, p.Faults())
}

// The list of nozzles is the crew's own: what is wrong is refused at its field, and a
// plan chooses from it.
func TestNozzlesOfTheCrew(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/setup", 390, 844)
	p.SignIn("tamsin", demo.Password)
	p.Click("Practices and lists")
	p.Click("Nozzles")
	p.See("Kinds of nozzle", "Flat fan 020")
	p.Click("Add a nozzle")
	for label, v := range map[string]string{"Name": "Our drift fan", "Least flow": "0.6", "Most flow": "0.4",
		"Least pressure": "1", "Most pressure": "4"} {
		p.Fill(label, v)
	}
	p.Pick("Droplets", "coarse")
	p.Click("Save")
	p.See("The most is under the least.")
	p.Fill("Most flow", "1.2")
	p.Click("Save")
	p.See("0.6 to 1.2")
	p.Click("Change Our drift fan")
	p.Tick("In use: plans may choose it")
	p.Click("Save")
	p.See("not in use")
	assert.Empty(t, p.Faults())
}

func fmt1(v float64) string { return strconv.FormatFloat(v, 'f', 1, 64) }
