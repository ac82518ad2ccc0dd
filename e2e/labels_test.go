package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
)

// camera puts a picture before the camera of the browser: what stands in a box of the page.
func camera(t *testing.T, p *browser.Page, css string) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "page.png")
	p.Shot(file)
	b, err := os.ReadFile(file)
	require.NoError(t, err)
	page, err := png.Decode(bytes.NewReader(b))
	require.NoError(t, err)
	box := browser.Eval[[]float64](p, fmt.Sprintf("(() => { const r = document.querySelector(%q).getBoundingClientRect(); const k = devicePixelRatio; return [r.x * k, r.y * k, r.width * k, r.height * k]; })()", css))
	const w, h, margin = 640, 480, 60
	size := float64(h - 2*margin)
	y := bytes.Repeat([]byte{235}, w*h)
	for row := range int(size) {
		for col := range int(size) {
			at := image.Pt(int(box[0]+float64(col)*box[2]/size), int(box[1]+float64(row)*box[3]/size))
			r, g, b, _ := page.At(at.X, at.Y).RGBA()
			y[(row+margin)*w+col+(w-int(size))/2] = byte((r*299 + g*587 + b*114) / 1000 >> 8)
		}
	}
	var out bytes.Buffer
	fmt.Fprintf(&out, "YUV4MPEG2 W%d H%d F10:1 Ip A1:1 C420jpeg\n", w, h)
	for range 10 {
		out.WriteString("FRAME\n")
		out.Write(y)
		out.Write(bytes.Repeat([]byte{128}, w*h/2))
	}
	require.NoError(t, os.WriteFile(browser.Camera, out.Bytes(), 0o600))
}

// The square code of a label is read with the camera: it picks the pack in hand, says at once
// that it is the wrong one, and opens what carries it.
func TestLabelsAreReadWithTheCamera(t *testing.T) {
	t.Parallel()
	f := goOut(t, tablet, "Dray One")
	p := f.page
	p.Go("/labels")
	p.SeeThing(".labels svg")
	code := func(label string) string {
		css := browser.Eval[string](p, fmt.Sprintf(`(() => { const e = [...document.querySelectorAll('.labels > *')].find((x) => x.textContent.includes(%q)); const q = e.querySelector('svg, img, canvas'); q.id = 'before-the-camera'; e.scrollIntoView({ block: 'center' }); return '#before-the-camera'; })()`, label))
		p.Settle()
		camera(t, p, css)
		return css
	}
	code("D3")
	p.Go("/walk/start/" + id(t, f.svc, "Dray One").String() + "?kind=turnaround")
	p.See("The 2 packs that come along")
	p.Click("Read the label of the pack in hand")
	p.Gone("Number on the label")
	assert.True(t, browser.Eval[bool](p, "[...document.querySelectorAll('.choice [aria-pressed=true]')].some((b) => b.textContent.includes('D3'))"), "the pack in hand is chosen")
	p.Go("/walk/start/" + id(t, f.svc, "Lantern Three").String())
	p.See("The pack that comes along")
	p.Click("Read the label of the pack in hand")
	p.See("D3 does not fit Lantern 4: put it back.")
	p.Fill("Number on the label", "nothing")
	p.Click("Take it")
	p.See("carries the label nothing")
	p.Go("/packs")
	p.Click("Read a label")
	p.Gone("Number on the label")
	p.SeeThing("h1")
	p.SeeIn("h1", "D3")
	assert.Empty(t, p.Faults())
}
