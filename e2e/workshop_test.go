package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// The technician sees what falls due and goes from a line to the station.
func TestWorkshopLeadsToTheStation(t *testing.T) {
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Click("Workshop")
	p.See("Open defects: 1", "Tally V: Wing tip light dim", "22.0 of 24 hours used: 2.0 left.")
	p.Fill("How far to look ahead", "all")
	p.See("300 hours used")
	p.Click("Drive propeller")
	p.See("What has been here", "Replace it")
	assert.Empty(t, p.Faults())
}
