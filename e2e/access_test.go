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
	if !browser.Eval[bool](p, "'axe' in window") {
		browser.Eval[bool](p, axe+"; true")
	}
	vs := browser.Eval[[]violation](p,
		`axe.run(document, {resultTypes: ['violations']}).then((r) => r.violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
		.map((v) => ({id: v.id, impact: v.impact, help: v.help, where: v.nodes.slice(0, 3).map((n) => n.target.join(' ')).join(' | ')})))`)
	for _, v := range vs {
		t.Errorf("%s: %s (%s): %s at %s", name, v.ID, v.Impact, v.Help, v.Where)
	}
}

// small finds words under 16 px and things to press under 48 px. A link or a word of the trade within a
// sentence is as high as its line; a box belongs to its label; a station of a
// drawing is chosen from a list too.
const small = `(() => {
  const out = new Set();
  const shown = (e) => { const r = e.getBoundingClientRect(); return r.width > 1 && r.height > 1 && e.checkVisibility({ visibilityProperty: true }); };
  const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let n = words.nextNode(); n; n = words.nextNode()) {
    const e = n.parentElement;
    if (!n.data.trim() || !e || !shown(e) || e.closest('.visually-hidden, script, style, title, option, datalist')) continue;
    const scale = e.ownerSVGElement ? e.getScreenCTM().a : 1;
    const px = parseFloat(getComputedStyle(e).fontSize) * scale;
    if (px < 15.9) out.add('words of ' + px.toFixed(1) + ' px: ' + n.data.trim().slice(0, 40) + ' in ' + (e.closest('[class]')?.getAttribute('class') ?? e.tagName));
  }
  for (const e of document.querySelectorAll('button:not(.term), a.btn, input:not([type=hidden]), select, textarea, summary')) {
    if (!shown(e) || e.closest('svg')) continue;
    const box = e.matches('[type=checkbox], [type=radio]') ? e.closest('label, li, .field, .form-check') ?? e : e;
    const r = box.getBoundingClientRect();
    if (r.height < 47.5 || r.width < 47.5) out.add('to press, ' + Math.round(r.width) + 'x' + Math.round(r.height) + ' px: ' + (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40) + ' <' + e.tagName.toLowerCase() + ' class="' + e.className + '">');
  }
  return [...out];
})()`

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
	spraying := sprayAt(t, svc)
	survey, _ := planAt(t, svc, "Tally W")
	roof, _ := planAt(t, svc, "Lantern Three")
	screens := map[string]string{
		"/": "Lantern Three", "/fleet": "Tally W", "/fleet?add=aircraft": "Put a new part", "/fleet/" +
			quad: "What is against it", "/fleet/" + quad + "?station=motor-3": "Motor 3",
		"/fleet/" + quad + "?tab=parts": "Parts, nearest", "/fleet/" + quad + "?tab=trends": "sisters",
		"/fleet/" + quad + "?tab=set": "Calibrated now", "/fleet/" + quad + "?act=fit": "Replace all",
		"/fleet/" + quad + "?act=defect": "May it fly with this?", "/packs": "Charged, ready to fly", "/packs/" +
			id("select id from packs where label = 'D5'"): "Read it",
		"/packs/" + id("select id from packs where label = 'D5'") + "?tab=readings": "Readings, newest first",
		"/walk/start/" + quad: "Which round", "/walk/" +
			id("select id from walkrounds where completed_at is not null order by completed_at desc limit 1"): "On record",
		"/gate/" + id("select id from aircraft where name = 'Tally W'"): "Wind here, now", "/fly/" +
			id("select id from flights order by took_off_at desc limit 1"): "On record",
		"/log": "Show older flights", "/log/records": "Show older records", "/log/records?tab=check": "Check everything",
		"/rules?tab=chosen": "What this crew flies under", "/crew": "Odile Varga", "/setup": "Dray 30",
		"/workshop": "What falls due", "/workshop?tab=defects": "Wing tip light dim",
		"/workshop?tab=orders": "After contact", "/workshop?tab=stock": "Propellers, Dray 30",
		"/workshop/orders/" +
			id("select id from work_orders where state = 'open' limit 1"): "Torque",
		"/workshop/orders/new?aircraft=" + quad:                                 "What for",
		"/part/" + id("select id from parts where serial = 'LN4-2204-motor-3'"): "Everywhere it has been",
		"/sites": "Long Bank", "/sites/" + yard: "Radio mast", "/sites/" + yard +
			"?tab=home&setting=30": "Set it to", "/sites/" + yard + "?tab=weather": "Delta T",
		"/sites/" + yard + "?tab=files":    "Terrain:",
		"/sites/" + yard + "?tab=airspace": "TD-1093", "/jobs": "Flood bank", "/jobs/" +
			job: "Site, air, airspace, people", "/jobs/" + job + "?tab=asks": "to answer",
		"/jobs/" + job + "?tab=kit": "to pack", "/jobs/" + job + "?tab=briefing": "Read and understood",
		"/jobs/" + job + "?change=1": "Return height set in", "/crew?tab=fit": "Declared today",
		"/crew?tab=papers": "QX-2117", "/crew/" + id("select id from people where login = 'bao'"): "Ready for which type",
		"/rules": "What it demands", "/rules?tab=own": "has no rules of its own",
		"/rules?tab=coverage": "Advisory item", "/rules?tab=reports": "Nothing is due",
		survey: "What follows", survey + "?tab=aircraft&flight=2": "another mission", survey +
			"?tab=camera": "Nobody has filled", survey + "?tab=pictures&flight=1": "is flown", roof + "?tab=found": "Panel 4",
		"/cameras": "Mapper 42",
		spraying:   "What follows", spraying + "?tab=load": "Fill 1", spraying +
			"?tab=done": "The flight just flown", spraying + "?tab=checks": "Newest catch test",
		spraying + "?tab=record": "Not signed yet",
		"/bench":                 "Spraying", "/bench/hover": "Comes out", "/rotation": "What comes of it", "/nozzles": "Kinds of nozzle",
		"/fleet/" + id("select id from aircraft where name = 'Dray One'") + "?tab=energy": "Mass and balance",
		"/tonight": "Gear to charge", "/packs?tab=charge": "Bring in the file", "/packs?tab=sets": "Without a partner",
		"/packs/" + id("select id from packs where label = 'L3'") + "?tab=health": "It meets 80 %", "/labels": "L7",
		"/checklists/lantern-4": "Frame and inside", "/checklists/lantern-4?tab=try": "every condition asked",
		"/checklists/lantern-4?tab=compare": "Compared with version", "/parts": "Airframes",
		"/nowhere": "There is nothing at this address",
	}
	t.Run("screens", func(t *testing.T) {
		for name, w := range map[string]struct{ width, height int64 }{"tablet": {1280, 800}, "phone": {390, 844}} {
			t.Run(name, func(t *testing.T) {
				t.Parallel()
				p := chromium.Open(t, base, "/", w.width, w.height)
				accessible(t, p, axe, "sign-in")
				p.SignIn("imre", demo.Password)
				for path, words := range screens {
					p.Turn(path)
					p.See(words)
					accessible(t, p, axe, path)
					for _, s := range browser.Eval[[]string](p, small) {
						t.Errorf("%s at %d: %s", path, w.width, s)
					}
					assert.LessOrEqual(t, p.Wide(), 0, "%s at %d", path, w.width)
				}
				p.Go("/")
				if w.width < 900 {
					p.Click("More")
				}
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

// A server that does not answer: what is pressed meanwhile is kept, in sight, and
// handed over once when it is back.
func TestServerGone(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Click("Lantern Three")
	p.Click("Raise a defect")
	p.Fill("What is wrong, in a few words", "Loose foot")
	p.Offline(true)
	p.See("No connection")
	p.Click("Raise the defect")
	p.Click("1 press waits to be sent")
	p.See("Defect: Loose foot", "It is kept on this device")
	p.Keys("\x1b")
	p.Offline(false)
	p.See("Open defect at Frame: Loose foot")
	var n int64
	require.NoError(t, svc.DB.Raw("select count(*) from defects where title = 'Loose foot'").Scan(&n).Error)
	assert.EqualValues(t, 1, n)
}
