package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// overlaps counts the pairs of names on a map that lie on each other.
const overlaps = `(() => {
	const r = [...document.querySelectorAll('.sitemap span.mapname')].map((e) => e.getBoundingClientRect());
	let n = 0;
	r.forEach((a, i) => r.slice(i + 1).forEach((b) => {
		if (a.left < b.right - 0.5 && b.left < a.right - 0.5 && a.top < b.bottom - 0.5 && b.top < a.bottom - 0.5) n++;
	}));
	return n;
})()`

const named = `document.querySelectorAll('.sitemap span.mapname').length`

// Names never lie on each other, however near one looks; the ground is drawn under
// the map and along a line; a new site is begun with a press on the map of all.
func TestMapOfASite(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/sites", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.See("4 sites on file")
	p.Until(named + " > 3")
	assert.Zero(t, browser.Eval[int](p, overlaps))
	var ids []string
	require.NoError(t, svc.DB.Raw("select id from sites").Scan(&ids).Error)
	for _, id := range ids {
		p.Go("/sites/" + id)
		p.See("On the map")
		p.Until("document.querySelectorAll('.contour').length > 3")
		p.Until("document.querySelector('.leaflet-image-layer')?.naturalWidth > 10")
		for range 3 {
			p.Until(named + " > 0")
			assert.Zero(t, browser.Eval[int](p, overlaps), id)
			p.Press(".leaflet-control-zoom-out", 0.5, 0.5) // the farther away, the more of them in one place
		}
		require.Equal(t, 0, p.Wide(), "the page fits")
	}
	p.Go("/sites/" + ids[0])
	p.See("On the map")
	p.Click("Heights along a line")
	p.Press(".leaflet-container", 0.3, 0.4)
	p.See("1 so far, at least 2")
	p.Press(".leaflet-container", 0.7, 0.6)
	p.Click("Done")
	p.See("Heights along the line", "it rises")
	p.Click("Close")

	p.Go("/sites?new=1")
	p.Fill("Name", "Between them")
	p.Click("On the map")
	p.Press(".place-field .leaflet-container", 0.5, 0.5)
	p.See("As pressed on the map.")
	p.Click("Begin the site file")
	p.See("The map is empty.")
	var lat, m *float64
	require.NoError(t, svc.DB.Raw("select lat, elevation_m from sites where name = 'Between them'").Row().Scan(&lat, &m))
	assert.InDelta(t, 46.31, *lat, 0.05)
	assert.Nil(t, m, "nobody has said it, and no terrain has")
	assert.Empty(t, p.Faults())
}
