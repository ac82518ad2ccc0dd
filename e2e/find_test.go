package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// Anything is found by a part of its name or number, and a label opens the
// thing it stands on, whether it is scanned as an address or typed.
func TestFindAndLabels(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	p := chromium.Open(t, base, "/", 1280, 800)
	p.SignIn("tamsin", demo.Password)
	p.Keys("/")
	assert.Equal(t, "Find by name, label or serial", browser.Eval[string](p,
		"document.activeElement.getAttribute('aria-label')"))
	p.Fill("Find by name, label or serial", "D5")
	p.See("D-3248 · charged")
	p.Keys("\r")
	p.See("Pack D5", "cell 9 is lowest")
	p.Fill("Find by name, label or serial", "no such thing")
	p.See("Nothing has “no such thing” in its name or number.")
	p.Fill("Find by name, label or serial", base+"/l/LN4-2204-motor-3")
	p.Keys("\r")
	p.See("Motor LN4-2204-motor-3", "Everywhere it has been", "fitted now", "300 hours used")
	p.Go("/l/TV-0088")
	p.See("What is against it", "Wing tip light dim")
	p.Go("/l/nothing")
	p.See("Nothing of this crew carries this label.")
	p.Go("/labels")
	p.See("Print", "L7")
	assert.Equal(t, 24, browser.Eval[int](p, "document.querySelectorAll('.labels svg').length"), "one label per pack")
	assert.Empty(t, p.Faults())
}
