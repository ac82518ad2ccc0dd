package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// Pictures on phone and tablet come over a slow network to a slow device, fit, and stay
// when the network goes; what is asked for then says that it waits.
func TestPicturesOnASlowNetwork(t *testing.T) {
	inHands(t, func(t *testing.T, h hand) {
		svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
		p := chromium.Open(t, testbed.Serve(t, svc), "/", h.width, h.height)
		p.SignIn("odile", demo.Password)
		p.See("Connected")
		p.Patient(60 * time.Second)
		var site string
		require.NoError(t, svc.DB.Raw("select id from sites where name = 'Upper Tolmere yard'").Scan(&site).Error)
		p.Slow(300*time.Millisecond, 4)
		for path, words := range map[string]string{"/log": "Flights by week", "/packs?tab=health": "Health of the rack",
			"/fleet": "All plans at one scale", "/sites": "4 sites on file", "/setup?tab=outside": "Weather service"} {
			p.Turn(path)
			p.See(words)
			require.Equal(t, 0, p.Wide(), "%s fits", path)
		}
		p.Turn("/sites/" + site)
		p.See("On the map", "The route from the side")
		p.Until("document.querySelectorAll('.contour').length > 3")
		p.Until(named + " > 2")
		assert.Zero(t, browser.Eval[int](p, overlaps))
		p.Offline(true)
		p.See("No connection")
		p.Click("Heights along a line")
		p.Press(".leaflet-container", 0.3, 0.4)
		p.Press(".leaflet-container", 0.7, 0.6)
		p.Click("Done")
		p.SeeIn(".sheet", "Heights along the line")
		p.See("the heights along the line")
		assert.Positive(t, browser.Eval[int](p, "document.querySelectorAll('.contour').length"), "the map stays")
		p.Offline(false)
		p.See("it rises")
	})
}
