package e2e

import (
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

type violation struct {
	ID     string `json:"id"`
	Impact string `json:"impact"`
	Help   string `json:"help"`
	Where  string `json:"where"`
}

// accessible runs the accessibility check on what is shown.
func accessible(t *testing.T, p *browser.Page, axe, name string) {
	t.Helper()
	p.Settle()
	browser.Eval[bool](p, axe+"; true")
	vs := browser.Eval[[]violation](p, `axe.run(document, {resultTypes: ['violations']}).then((r) => r.violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
		.map((v) => ({id: v.id, impact: v.impact, help: v.help, where: v.nodes.slice(0, 3).map((n) => n.target.join(' ')).join(' | ')})))`)
	for _, v := range vs {
		t.Errorf("%s: %s (%s): %s at %s", name, v.ID, v.Impact, v.Help, v.Where)
	}
}

// Every screen, by day and by night, has no serious finding and fits a tablet
// and a phone.
func TestEveryScreenIsAccessibleAndFits(t *testing.T) {
	t.Parallel()
	b, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err)
	axe := string(b)
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	id := func(sql string) string {
		var u string
		require.NoError(t, svc.DB.Raw(sql).Scan(&u).Error)
		return u
	}
	quad := id("select id from aircraft where name = 'Lantern Two'")
	yard := id("select id from sites where name = 'Cutwater station'")
	job := id("select id from jobs where work = 'inspection' and state = 'planned' order by from_at limit 1")
	screens := map[string]string{
		"/": "Lantern Three", "/fleet": "Tally W", "/fleet?add=aircraft": "Put a new part", "/fleet/" + quad: "What is against it", "/fleet/" + quad + "?station=motor-3": "Motor 3", "/fleet/" + quad + "?act=fit": "Replace all",
		"/fleet/" + quad + "?act=defect": "May it fly with this?", "/packs": "Charged, ready to fly", "/packs/" + id("select id from packs where label = 'D5'"): "Readings, newest first",
		"/walk/start/" + quad: "Which check", "/walk/" + id("select id from walkrounds where completed_at is not null order by completed_at desc limit 1"): "On record",
		"/gate/" + id("select id from aircraft where name = 'Tally W'"): "Wind here, now", "/fly/" + id("select id from flights order by took_off_at desc limit 1"): "On record",
		"/log": "Show older flights", "/log/records": "Show older records", "/crew": "Odile Varga", "/setup": "Dray 30", "/workshop": "What falls due", "/workshop?tab=defects": "Wing tip light dim", "/workshop?tab=orders": "After contact", "/workshop?tab=stock": "Propellers, Dray 30",
		"/workshop/orders/" + id("select id from work_orders where state = 'open' limit 1"): "Torque", "/workshop/orders/new?aircraft=" + quad: "What for", "/part/" + id("select id from parts where serial = 'LN4-2204-motor-3'"): "Everywhere it has been",
		"/sites": "Long Bank", "/sites/" + yard: "Radio mast", "/sites/" + yard + "?tab=home&setting=30": "Set it to", "/sites/" + yard + "?tab=weather": "Delta T", "/sites/" + yard + "?tab=files": "Terrain:",
		"/sites/" + yard + "?tab=airspace": "TD-1093", "/jobs": "Flood bank", "/jobs/" + job: "Site, air, airspace, people", "/jobs/" + job + "?tab=asks": "to answer", "/jobs/" + job + "?tab=kit": "to pack", "/jobs/" + job + "?tab=briefing": "Read and understood",
		"/jobs/" + job + "?change=1": "Return height set in", "/crew?tab=fit": "Declared today", "/crew?tab=papers": "QX-2117", "/crew/" + id("select id from people where login = 'bao'"): "Ready for which type", "/rules": "What it demands", "/rules?tab=own": "has no rules of its own",
		"/rules?tab=coverage": "Advisory item", "/rules?tab=reports": "Nothing is due",
		"/tonight": "Gear to charge", "/packs?tab=charge": "Bring in the file", "/packs?tab=sets": "Without a partner", "/packs/" + id("select id from packs where label = 'L3'"): "It meets 80 %", "/labels": "L7", "/parts": "Airframes", "/nowhere": "There is nothing at this address",
	}
	t.Run("screens", func(t *testing.T) {
		for name, w := range map[string]struct{ width, height int64 }{"tablet": {1280, 800}, "phone": {390, 844}} {
			t.Run(name, func(t *testing.T) {
				t.Parallel()
				p := chromium.Open(t, base, "/", w.width, w.height)
				accessible(t, p, axe, "sign-in")
				p.SignIn("imre", demo.Password)
				for path, words := range screens {
					p.Go(path)
					p.See(words)
					accessible(t, p, axe, path)
					assert.LessOrEqual(t, p.Wide(), 0, "%s at %d", path, w.width)
				}
				p.Go("/")
				p.Click("Night")
				for _, path := range []string{"/", "/parts", "/gate/" + quad} {
					p.Go(path)
					accessible(t, p, axe, fmt.Sprintf("%s by night", path))
				}
				assert.Empty(t, p.Faults())
			})
		}
	})
	empty, _ := testbed.Empty(t, clock.From(testbed.Noon))
	first := chromium.Open(t, testbed.Serve(t, empty), "/", 1280, 800)
	first.See("Set up your crew")
	accessible(t, first, axe, "first run")
}

// A server that does not answer: old data stays and is called old, a sentence
// says what is safe, and work goes on when it is back.
func TestServerGone(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Click("Lantern Three")
	p.Click("Raise a defect")
	p.Fill("What is wrong, in a few words", "Loose foot")
	p.Offline(true)
	p.Click("Raise the defect")
	p.See("The server does not answer. What you entered is kept on this device")
	assert.Equal(t, "Loose foot", p.FieldValue("What is wrong, in a few words"))
	p.Offline(false)
	p.Click("Raise the defect")
	p.See("Open defect at Frame: Loose foot")
	var n int64
	require.NoError(t, svc.DB.Raw("select count(*) from defects where title = 'Loose foot'").Scan(&n).Error)
	assert.EqualValues(t, 1, n)
}
