package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// What one person does is on every open screen, on another server too: nobody
// reloads, and the screens ask by themselves only once a minute.
func TestGroundingIsLiveOnEveryScreen(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	job := practise(t, svc, "Lantern Three", "imre")
	one, other := testbed.Serve(t, svc), testbed.Serve(t, svc)
	pilot := chromium.Open(t, one, "/", 1280, 800)
	pilot.SignIn("imre", demo.Password)
	pilot.Click("Lantern Three")
	pilot.Click("Gate")
	pilot.See("Wind here, now")
	pilot.Fill("This flight belongs to", job)
	pilot.Fill("Steady wind", "3")
	pilot.Fill("Gusts, if seen", "4")
	pilot.See("Sign and release")
	hand := chromium.Open(t, other, "/", 390, 844)
	hand.SignIn("bao", demo.Password)
	hand.Click("Lantern Three")
	hand.Click("Other acts")
	hand.Click("Ground it")
	hand.Fill("Why it must not fly", "Smell of burning at the bay")
	hand.Click("Ground it now")
	pilot.See("Grounded by Bao Lindqvist: Smell of burning at the bay", "It cannot be released.")
	assert.Empty(t, pilot.Faults())
	assert.Empty(t, hand.Faults())
}
