// Package browser drives the real interface in headless Chromium the way a
// person does: it finds things by their words and clicks and types for real.
package browser

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"
)

// Browser is one running Chromium.
type Browser struct {
	ctx    context.Context
	cancel func()
}

// Camera is the picture before the browser's camera, a film in y4m; a test writes it.
var Camera = filepath.Join(os.TempDir(), fmt.Sprintf("mainstay-camera-%d.y4m", os.Getpid()))

// Start starts Chromium with an empty profile and no background traffic.
func Start() (*Browser, error) {
	path, err := exec.LookPath("chromium")
	if err != nil {
		return nil, fmt.Errorf("chromium is missing; bin/test installs it: %w", err)
	}
	opts := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.ExecPath(path), chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking",
			true), chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true),
		chromedp.Flag("use-fake-device-for-media-stream", true), chromedp.Flag("use-fake-ui-for-media-stream",
			true), chromedp.Flag("use-file-for-fake-video-capture", Camera),
		chromedp.Flag("force-prefers-reduced-motion", true), chromedp.Flag("lang", "en-US"))
	alloc, stop := chromedp.NewExecAllocator(context.Background(), opts...)
	ctx, cancel := chromedp.NewContext(alloc)
	b := &Browser{ctx: ctx, cancel: func() { cancel(); stop() }}
	return b, chromedp.Do(ctx)
}

// Stop ends the browser.
func (b *Browser) Stop() {
	b.cancel()
	_ = os.Remove(Camera)
}

// Page is one tab looking at one server.
type Page struct {
	t       testing.TB
	ctx     context.Context
	base    string
	mu      sync.Mutex
	faults  []string
	timeout time.Duration

	// Presses and Fields count what a person does: each press of a key, link or box, and each field filled or chosen.
	Presses, Fields int
}

// Open opens a tab of width x height at a path of the server. The test fails
// on any uncaught exception or console error, and keeps a picture and the page
// when it fails.
func (b *Browser) Open(t testing.TB, base, path string, width, height int64) *Page {
	t.Helper()
	// Each tab has cookies and storage of its own, like a device of its own.
	ctx, cancel := chromedp.NewContext(b.ctx, chromedp.WithNewBrowserContext())
	ctx, stop := context.WithTimeout(ctx, 4*time.Minute)
	p := &Page{t: t, ctx: ctx, base: base, timeout: 20 * time.Second}
	t.Cleanup(func() {
		if t.Failed() {
			p.keep()
		}
		stop()
		cancel()
	})
	require.NoError(t, chromedp.Do(ctx, chromedp.EmulateViewport(width, height)))
	require.NoError(t, chromedp.Listen(ctx, p.listen))
	p.Go(path)
	return p
}

func (p *Page) listen(ev any) {
	p.mu.Lock()
	defer p.mu.Unlock()
	switch e := ev.(type) {
	case *runtime.EventExceptionThrown:
		words := e.ExceptionDetails.Text
		if x := e.ExceptionDetails.Exception; x != nil {
			words += " " + x.Description
		}
		p.faults = append(p.faults, "exception: "+words)
	case *runtime.EventConsoleAPICalled:
		if e.Type == "error" {
			var args []string
			for _, a := range e.Args {
				args = append(args, string(a.Value)+a.Description)
			}
			p.faults = append(p.faults, "console: "+strings.Join(args, " "))
		}
	}
}

// Faults returns what the page complained about so far.
func (p *Page) Faults() []string {
	p.mu.Lock()
	defer p.mu.Unlock()
	return append([]string{}, p.faults...)
}

func (p *Page) keep() {
	dir := filepath.Join("failures", strings.NewReplacer("/", "_", " ", "_").Replace(p.t.Name()))
	if os.MkdirAll(dir, 0o755) != nil {
		return
	}
	if png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot()); err == nil {
		_ = os.WriteFile(filepath.Join(dir, "page.png"), png, 0o600)
	}
	if html, err := chromedp.Run(p.ctx, chromedp.OuterHTML(chromedp.CSS("html"))); err == nil {
		_ = os.WriteFile(filepath.Join(dir, "page.html"), []byte(html), 0o600)
	}
	p.t.Logf("picture and page kept in e2e/%s; faults: %v", dir, p.Faults())
}

// Go opens a path.
func (p *Page) Go(path string) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.Navigate(p.base+path)))
}

// Turn opens a path within the program, without loading it anew: a tour of many screens
// takes a third of the time.
func (p *Page) Turn(path string) {
	Eval[bool](p, "(history.pushState(null, '', "+quote(path)+"), dispatchEvent(new PopStateEvent('popstate')), true)")
}

// Reload loads the page again.
func (p *Page) Reload() {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.Reload()))
}

// Eval evaluates an expression in the page.
func Eval[T any](p *Page, js string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err, js)
	return v
}

// find is the page's own way of finding things by their words. Dialogs come
// first: what lies under one cannot be reached.
const find = `(() => {
  const root = [...document.querySelectorAll('.modal.show')].pop() ?? document;
  const shown = (e) => { const r = e.getBoundingClientRect(); return r.width > 0 && r.height > 0 && e.checkVisibility({ visibilityProperty: true, contentVisibilityAuto: true }); };
  const name = (e) => (e.getAttribute('aria-label') ?? e.textContent ?? '').replace(/\s+/g, ' ').trim();
  const enabled = (e) => !e.disabled;
  window.__find = {
    button: (words) => {
      const all = [...root.querySelectorAll('button, a, summary, [role=button]')].filter((e) => shown(e) && enabled(e));
      return all.find((e) => name(e) === words) ?? all.find((e) => name(e).startsWith(words)) ?? all.find((e) => name(e).includes(words));
    },
    buttons: (words) => [...root.querySelectorAll('button, a, summary, [role=button]')].filter((e) => shown(e) && enabled(e) && name(e) === words),
    field: (words) => {
      const labels = [...root.querySelectorAll('label')].filter(shown);
      const l = labels.find((e) => name(e) === words) ?? labels.find((e) => name(e).startsWith(words));
      const byLabel = l?.control;
      return byLabel ?? [...root.querySelectorAll('input, select, textarea')].find((e) => e.getAttribute('aria-label') === words);
    },
    text: (words) => document.body.innerText.replace(/\s+/g, ' ').includes(words),
  };
  return true;
})()`

func quote(s string) string {
	b, _ := json.Marshal(s)
	return string(b)
}

// Patient waits longer from now on, for what takes its time on a busy machine.
func (p *Page) Patient(d time.Duration) { p.timeout = d }

// until waits for a condition in the page.
func (p *Page) until(js, what string) {
	p.t.Helper()
	end := time.Now().Add(p.timeout)
	for {
		ok, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool](find+"; "+js))
		if err == nil && ok {
			return
		}
		if time.Now().After(end) {
			p.t.Fatalf("waited in vain for %s (last error: %v)", what, err)
		}
		_ = chromedp.Do(p.ctx, chromedp.Sleep(40*time.Millisecond))
	}
}

// Until waits until an expression holds.
func (p *Page) Until(js string) {
	p.t.Helper()
	p.until("Boolean("+js+")", js)
}

// See waits until the words stand on the page.
func (p *Page) See(words ...string) {
	p.t.Helper()
	for _, w := range words {
		p.until("__find.text("+quote(w)+")", "the words "+quote(w))
	}
}

// SeeThing waits until something stands on the page that the selector finds.
func (p *Page) SeeThing(css string) {
	p.t.Helper()
	p.until("Boolean(document.querySelector("+quote(css)+"))", css)
}

// SeeIn waits until the words stand in a part of the page.
func (p *Page) SeeIn(css, words string) {
	p.t.Helper()
	p.until("[...document.querySelectorAll("+quote(css)+")].some((e) => e.innerText.includes("+quote(words)+"))",
		quote(words)+" in "+css)
}

// Gone waits until the words no longer stand on the page.
func (p *Page) Gone(words string) {
	p.t.Helper()
	p.until("!__find.text("+quote(words)+")", "the words to go: "+quote(words))
}

// spot scrolls an element into view, waits until it stands still, and returns
// its centre: a page that is still settling must not get a press meant for
// another place.
func (p *Page) spot(js, what string) (x, y float64) {
	p.t.Helper()
	p.until("Boolean("+js+")", what)
	var last []float64
	for range 80 {
		at := Eval[[]float64](p,
			find+`; (() => { const e = `+js+`; if (!e) return []; e.scrollIntoView({block: 'center', behavior: 'instant'}); const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]; })()`)
		if len(at) == 2 && slices.Equal(at, last) {
			return at[0], at[1]
		}
		last = at
		p.Pause()
	}
	require.Fail(p.t, what+" does not stand still")
	return 0, 0
}

// aim lets the next press through only if it meets the element e, or its
// label. A press that meets something else, because the page moved between
// looking and pressing, is swallowed and counts as missed.
const aim = `(() => {
  const e = %s;
  if (!e) return false;
  let met;
  const guard = (ev) => {
    const on = e.contains(ev.target) || ev.target.closest?.('label')?.control === e;
    met ??= on;
    window.__met = met;
    // Where the thing moved between press and release, the click is no one's.
    if (ev.type === 'click') window.__clicked = on;
    if (!met || ev.type === 'click' && !on) { ev.preventDefault(); ev.stopImmediatePropagation(); }
  };
  window.__met = false;
  window.__clicked = false;
  window.__disarm?.();
  for (const k of ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click']) addEventListener(k, guard, true);
  window.__disarm = () => { for (const k of ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click']) removeEventListener(k, guard, true); };
  return true;
})()`

// press presses the middle of an element, again if it had moved away.
func (p *Page) press(js, what string) {
	p.t.Helper()
	for range 20 {
		x, y := p.spot(js, what)
		if !Eval[bool](p, find+"; "+fmt.Sprintf(aim, js)) {
			continue
		}
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.MouseClickXY(x, y)))
		// A press that opened another page took the mark with it. One that met the
		// thing but made no click, because the page drew it anew under the finger, is
		// made again, unless the thing has gone with it.
		met, err := chromedp.Run(p.ctx,
			chromedp.Evaluate[bool](find+"; (() => { window.__disarm?.(); return window.__met === undefined || window.__met && (window.__clicked || !("+js+")); })()"))
		if err != nil || met {
			return
		}
		p.Pause()
	}
	require.Fail(p.t, what+" cannot be pressed: something lies over it")
}

// Click clicks the button, link or station with these words.
func (p *Page) Click(words string) {
	p.t.Helper()
	p.Presses++
	p.press("__find.button("+quote(words)+")", "a button "+quote(words))
}

// ClickAway clicks a button and waits until it has gone with what it did, so
// that what comes next meets the page as it is then.
func (p *Page) ClickAway(words string) {
	p.t.Helper()
	p.Click(words)
	p.until("__find.buttons("+quote(words)+").length === 0", "the button "+quote(words)+" to go")
}

// PressIfThere presses a button in the moment in which it is looked for, and
// does nothing when it has gone.
func (p *Page) PressIfThere(words string) {
	p.t.Helper()
	Eval[bool](p, find+"; (() => { __find.button("+quote(words)+")?.click(); return true; })()")
}

// Press presses a place inside an element, by shares of its width and height
// from its top left.
func (p *Page) Press(css string, right, down float64) {
	p.t.Helper()
	p.Presses++
	p.until("Boolean(document.querySelector("+quote(css)+"))", css)
	at := Eval[[]float64](p,
		fmt.Sprintf("(() => { const e = document.querySelector(%s); e.scrollIntoView({block: 'center', behavior: 'instant'}); const r = e.getBoundingClientRect(); return [r.x + r.width * %g, r.y + r.height * %g]; })()",
			quote(css), right, down))
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.MouseClickXY(at[0], at[1])))
}

// Drag moves the thing with this title by so many pixels, as a hand does.
func (p *Page) Drag(title string, right, down float64) {
	p.t.Helper()
	x, y := p.spot("document.querySelector("+quote("[title='"+title+"']")+")", "a handle "+quote(title))
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.DragAndDropXY(x, y, x+right, y+down, 10)))
}

// Fill types into the field with this label, in place of what stands there.
func (p *Page) Fill(label, text string) {
	p.t.Helper()
	p.Fields++
	js, what := "__find.field("+quote(label)+")", "a field "+quote(label)
	p.spot(js, what)
	kind := Eval[string](p, find+"; "+js+".type")
	if kind == "select-one" { // the choices may still be on their way
		p.until("[...("+js+"?.options ?? [])].some((o) => o.value === "+quote(text)+")", what+" with the choice "+quote(text))
	}
	if kind == "date" || kind == "datetime-local" || kind == "select-one" || kind == "checkbox" {
		set := fmt.Sprintf(`const e = %s; const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(e), 'value').set; set.call(e, %s); e.dispatchEvent(new Event('input', {bubbles: true})); e.dispatchEvent(new Event('change', {bubbles: true})); e.dispatchEvent(new FocusEvent('focusout', {bubbles: true})); return true;`,
			js, quote(text))
		Eval[bool](p, find+"; (() => { "+set+" })()")
		return
	}
	p.press(js, what)
	Eval[bool](p, find+"; (() => { "+js+".select(); return true; })()")
	if text == "" {
		require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(kb.Backspace)))
		return
	}
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(text)))
}

// Pick chooses what begins with these words in the list with this label.
func (p *Page) Pick(label, words string) {
	p.t.Helper()
	js := "[...(__find.field(" + quote(label) + ")?.options ?? [])].find((o) => o.text.trim().startsWith(" + quote(words) +
		"))"
	p.until("Boolean("+js+")", "the choice "+quote(words)+" of "+quote(label))
	p.Fill(label, Eval[string](p, find+"; "+js+".value"))
}

// Tick clicks the checkbox with this label.
func (p *Page) Tick(label string) {
	p.t.Helper()
	p.Presses++
	p.press("__find.field("+quote(label)+")", "a box "+quote(label))
}

// Keys presses keys.
func (p *Page) Keys(keys string) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.KeyEvent(keys)))
}

// FieldValue returns what stands in a field.
func (p *Page) FieldValue(label string) string {
	p.t.Helper()
	p.until("Boolean(__find.field("+quote(label)+"))", "a field "+quote(label))
	return Eval[string](p, find+"; __find.field("+quote(label)+").value")
}

// Path returns where the page is.
func (p *Page) Path() string { return Eval[string](p, "location.pathname + location.search") }

// SignIn signs in on the sign-in page.
func (p *Page) SignIn(login, password string) {
	p.t.Helper()
	p.Fill("Sign-in name", login)
	p.Fill("Password", password)
	p.Click("Sign in")
	p.until("Boolean(document.querySelector('.shell'))", "the application")
}

// Shot takes a picture of what the window shows.
func (p *Page) Shot(file string) {
	p.t.Helper()
	p.Settle()
	png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	require.NoError(p.t, err)
	require.NoError(p.t, os.WriteFile(file, png, 0o600))
}

// Scroll brings the heading with these words to the top.
func (p *Page) Scroll(heading string) {
	p.until(`[...document.querySelectorAll("h2,h3")].some(h => { if (!h.innerText.startsWith(`+quote(heading)+`)) return false; h.scrollIntoView(); return true; })`,
		"heading "+heading)
}

// Settle waits until nothing is loading and fonts are there.
func (p *Page) Settle() {
	p.t.Helper()
	p.until("document.fonts.status === 'loaded' && ![...document.querySelectorAll('.loading')].some((e) => !e.closest('[data-sample]')) && document.images.length === [...document.images].filter((i) => i.complete).length",
		"the page to settle")
}

// Upload puts a file into a file field.
func (p *Page) Upload(css string, files ...string) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.SetUploadFiles(chromedp.CSS(css), files, chromedp.NodeReady)))
}

// Wide reports by how many pixels the page is wider than the window.
func (p *Page) Wide() int { return Eval[int](p, "document.documentElement.scrollWidth - innerWidth") }

// Pause lets the page go on for a moment; only for loops that look for
// something themselves.
func (p *Page) Pause() { _ = chromedp.Do(p.ctx, chromedp.Sleep(25*time.Millisecond)) }

// Paper shows the page as it is printed, or as on a screen again.
func (p *Page) Paper(on bool) {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, emulation.SetEmulatedMedia,
		emulation.SetEmulatedMediaParams{Media: map[bool]string{true: "print"}[on]})
	require.NoError(p.t, err)
}

// network is what every Chromium of the last years calls it. The command that
// is to replace it is newer than some of them.
var network = cdp.Command[conditions, cdp.Empty]{Method: "Network.emulateNetworkConditions"}

type conditions struct {
	Offline            bool    `json:"offline"`
	Latency            float64 `json:"latency"` // ms
	DownloadThroughput float64 `json:"downloadThroughput"`
	UploadThroughput   float64 `json:"uploadThroughput"`
}

// Offline takes the page's network away, or gives it back.
func (p *Page) Offline(off bool) {
	p.t.Helper()
	p.conditions(conditions{Offline: off, DownloadThroughput: -1, UploadThroughput: -1})
}

// Slow makes every answer come so much later, and the processor so many times
// slower; 0 and 1 are as it is.
func (p *Page) Slow(latency time.Duration, processor float64) {
	p.t.Helper()
	p.conditions(conditions{Latency: float64(latency.Milliseconds()), DownloadThroughput: -1, UploadThroughput: -1})
	_, err := chromedp.Call(p.ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: processor})
	require.NoError(p.t, err)
}

func (p *Page) conditions(c conditions) {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, network, c)
	require.NoError(p.t, err)
}

// Size makes the window so large, as when a tablet is turned.
func (p *Page) Size(width, height int64) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, chromedp.EmulateViewport(width, height)))
}

// within is how much of an element can be seen and pressed where the page
// stands: what is outside the window or covered is said.
const within = `((e, what) => {
  if (!e) return what + ' is not there';
  const r = e.getBoundingClientRect(), w = innerWidth, h = innerHeight;
  if (r.left < -0.5 || r.top < -0.5 || r.right > w + 0.5 || r.bottom > h + 0.5) return what + ' lies outside the screen: ' + [r.left, r.top, r.right, r.bottom].map(Math.round) + ' of ' + w + 'x' + h;
  for (const [x, y] of [[r.left + r.width / 2, r.top + r.height / 2], [r.left + 4, r.top + 4], [r.right - 4, r.bottom - 4]]) {
    const at = document.elementFromPoint(x, y);
    if (at && !e.contains(at) && !at.contains(e)) return what + ' is covered by <' + at.tagName.toLowerCase() + ' class="' + at.className + '">';
  }
  return '';
})`

// OnScreen says what of these buttons cannot be pressed where the page stands,
// at its top and at its foot, and which message of an error cannot be read;
// nothing when all can.
func (p *Page) OnScreen(buttons ...string) []string {
	p.t.Helper()
	for _, b := range buttons {
		p.until("Boolean(__find.button("+quote(b)+"))", "a button "+quote(b))
	}
	var out []string
	for _, y := range []string{"0", "document.documentElement.scrollHeight", "document.documentElement.scrollHeight / 2"} {
		js := "(() => { window.scrollTo({top: " + y + ", behavior: 'instant'}); const out = [];"
		for _, b := range buttons {
			// The same thing may be offered in two places; one of them has to be at hand.
			js += "{ const all = __find.buttons(" + quote(b) + "), why = (all.length ? all : [__find.button(" + quote(b) +
				")]).map((e) => " + within + "(e, " + quote(b) + ")); if (!why.includes('')) out.push(why[0]); }"
		}
		// An error stands above the keys, or at the field it belongs to.
		js += "document.querySelectorAll('.thumb [role=alert]').forEach((e) => out.push(" + within +
			"(e, 'the error ' + e.textContent)));"
		js += "return out.filter(Boolean).map((s) => s + ' (scrolled to ' + Math.round(scrollY) + ')'); })()"
		out = append(out, Eval[[]string](p, find+"; "+js)...)
	}
	return out
}

// Answered presses a button and returns how long it took from the press until
// the page showed what the expression looks for, in the frame after.
func (p *Page) Answered(button, js string) time.Duration {
	p.t.Helper()
	p.until("Boolean(__find.button("+quote(button)+"))", "a button "+quote(button))
	Eval[bool](p, `(() => {
  window.__took = -1;
  addEventListener('click', (e) => {
    const look = () => requestAnimationFrame(() => { if (`+js+`) window.__took = performance.now() - e.timeStamp; else look(); });
    look();
  }, { capture: true, once: true });
  return true;
})()`)
	p.Click(button)
	p.until("window.__took >= 0", "an answer to "+quote(button))
	return time.Duration(Eval[float64](p, "window.__took") * float64(time.Millisecond))
}

// Kept waits until the program is on the device, so that it opens without network.
func (p *Page) Kept() {
	p.t.Helper()
	p.until("Boolean(navigator.serviceWorker.controller) || (window.__ready ??= (navigator.serviceWorker.ready.then(() => { window.__kept = true; }), true)) && window.__kept === true",
		"the program to be kept on the device")
}

// Holds waits until this device keeps an answer of a kind for a page without network.
func (p *Page) Holds(kind string) {
	p.t.Helper()
	p.until(`(window.__holds?.() ?? (() => {
  let keys = '';
  window.__holds = () => keys.includes('["`+kind+`"');
  const look = () => { const r = indexedDB.open('mainstay'); r.onsuccess = () => { const q = r.result.transaction('kept').objectStore('kept').getAllKeys(); q.onsuccess = () => { keys = String(q.result); r.result.close(); setTimeout(look, 100); }; }; };
  look();
  return false;
})())`, "this device to keep "+kind)
}

// Judges waits until this device judges entries by itself.
func (p *Page) Judges() {
	p.t.Helper()
	p.until("typeof window.mainstayJudge === 'function'", "the judgement on this device")
}

// Calm waits until the page has nothing to do, as it has when a person reads it.
func (p *Page) Calm() {
	p.t.Helper()
	Eval[bool](p, "new Promise((go) => { const idle = (n) => requestIdleCallback(() => n ? setTimeout(() => idle(n - 1), 60) : go(true)); idle(6); })")
}

// sheet is how a page begins in a PDF as Chromium writes it.
var sheet = regexp.MustCompile(`/Type\s*/Page[^s]`)

// Pages prints the page on A4 and returns how many sheets it takes, and which
// controls are printed with it; with a file it keeps the PDF there.
func (p *Page) Pages(file string) (sheets int, controls []string) {
	p.t.Helper()
	p.Settle()
	css := true
	r, err := chromedp.Call(p.ctx, page.PrintToPDF, page.PrintToPDFParams{PaperWidth: 8.27, PaperHeight: 11.69,
		PreferCSSPageSize: &css})
	require.NoError(p.t, err)
	if file != "" {
		require.NoError(p.t, os.WriteFile(file, r.Data, 0o600))
	}
	p.Paper(true)
	defer p.Paper(false)
	controls = Eval[[]string](p,
		`[...document.querySelectorAll('button, .btn, input[type=search], input[type=file]')].filter((e) => e.checkVisibility() && e.getBoundingClientRect().height > 0 && !e.closest('svg, summary')).map((e) => (e.getAttribute('aria-label') ?? e.textContent).trim())`)
	return len(sheet.FindAll(r.Data, -1)), controls
}
