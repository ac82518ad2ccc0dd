package e2e

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"image/png"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
)

// camera puts the square code of a label of the page before the camera of the browser.
func camera(t *testing.T, p *browser.Page, label string) {
	t.Helper()
	const w, h, margin = 640, 480, 60
	drawn := browser.Eval[string](p, fmt.Sprintf(`(() => {
		const svg = [...document.querySelectorAll('.labels > *')].find((x) => x.textContent.includes(%q)).querySelector('svg').cloneNode(true);
		svg.setAttribute('xmlns', 'http://www.w3.org/2000/svg'); svg.setAttribute('width', %d); svg.setAttribute('height', %d); svg.style.color = 'black';
		const picture = new Image();
		return new Promise((done, fail) => {
			picture.onload = () => { const c = document.createElement('canvas'); c.width = c.height = %d; const pen = c.getContext('2d'); pen.fillStyle = 'white'; pen.fillRect(0, 0, c.width, c.height); pen.drawImage(picture, 0, 0, c.width, c.height); done(c.toDataURL('image/png')); };
			picture.onerror = fail;
			picture.src = 'data:image/svg+xml,' + encodeURIComponent(new XMLSerializer().serializeToString(svg));
		});
	})()`, label, h-2*margin, h-2*margin, h-2*margin))
	b, err := base64.StdEncoding.DecodeString(strings.TrimPrefix(drawn, "data:image/png;base64,"))
	require.NoError(t, err)
	code, err := png.Decode(bytes.NewReader(b))
	require.NoError(t, err)
	y := bytes.Repeat([]byte{235}, w*h)
	for row := range h - 2*margin {
		for col := range h - 2*margin {
			r, g, b, _ := code.At(col, row).RGBA()
			y[(row+margin)*w+col+(w-h+2*margin)/2] = byte((r*299 + g*587 + b*114) / 1000 >> 8)
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
	p.Patient(time.Minute) // a camera starts late beside other browsers
	p.Go("/labels")
	p.SeeThing(".labels svg")
	p.See("D3")
	camera(t, p, "D3")
	p.Go("/walk/start/" + id(t, f.svc, "Dray One").String() + "?kind=turnaround")
	p.See("The 2 packs that come along")
	p.Click("Read the label of the pack in hand")
	p.Gone("Number on the label")
	assert.True(t, browser.Eval[bool](p,
		"[...document.querySelectorAll('[role=group] [aria-pressed=true]')].some((b) => b.textContent.includes('D3'))"),
		"the pack in hand is chosen")
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
	p.Go("/labels?of=gear")
	p.SeeThing(".labels svg")
	gear := browser.Eval[string](p, "document.querySelector('.labels strong').textContent")
	camera(t, p, gear)
	p.Go("/packs")
	p.Click("Read a label")
	p.Gone("Number on the label")
	p.See("Gear to charge")
	p.See(gear)
	assert.Empty(t, p.Faults())
}
