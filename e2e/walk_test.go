package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
	"mainstay/internal/demo"
)

// readings are good values by the label of the field.
var readings = map[string]string{"Controller charge": "88", "Number of satellites": "14", "Heading difference": "2",
	"Pack temperature": "21", "Level": "99", "Bus resistance": "60",
	"Flow at idle": "0,02", "Empty scale": "0", "Covered airspeed": "0.4", "Lowest cell under load": "3.98",
	"Receiver supply": "5.2", "Empty hopper": "0"}

// directions are good headings by the label of their field.
var directions = map[string]string{"North": "1", "East": "91", "South": "179", "West": "271"}

type shown struct {
	Title  string   `json:"title"`
	Kind   string   `json:"kind"`
	Key    string   `json:"key"` // the main one
	Label  string   `json:"label"`
	Labels []string `json:"labels"` // of a set; the names in a round of go
	Done   bool     `json:"done"`
	At     string   `json:"at"`
}

const look = `(() => {
  const f = document.querySelector('.walk form');
  const text = (e) => (e?.textContent ?? '').trim();
  if (!f) return { title: '', kind: '', key: '', label: '', labels: [], done: document.body.innerText.includes('Every item has an entry'), at: '' };
  const cells = f.querySelectorAll('.cells input');
  const label = text(f.querySelector('.field label'));
  const key = text(f.querySelector('[type=submit]'));
  const asked = [...f.querySelectorAll('.vote button[aria-label$=": go"]')].map((b) => b.getAttribute('aria-label'));
  const named = text(f.querySelector('[role=radio]'));
  if (asked.length || named) return { title: text(f.querySelector('h2')), key, kind: named ? 'one' : 'poll', label: named, labels: asked, done: false, at: text(f.querySelector('.soft')) };
  return { title: text(f.querySelector('h2')), key, kind: key.startsWith('Still so') ? 'offer' : cells.length ? 'set' : label ? 'reading' : 'look', label, labels: [...f.querySelectorAll('.cells label')].map(text), done: false, at: text(f.querySelector('.soft')) };
})()`

// next waits until another item than the last is in hand, or none is left.
func next(t *testing.T, p *browser.Page, last string) shown {
	t.Helper()
	for end := time.Now().Add(time.Minute); time.Now().Before(end); {
		if s := browser.Eval[shown](p, look); s.Done || s.Title != "" && s.At != last && s.Key != "Noted ✓" {
			return s
		}
		p.Pause()
	}
	t.Fatal("no other item than " + last + " comes")
	return shown{}
}

// enter enters something good for the item in hand.
func enter(t *testing.T, p *browser.Page, s shown, cell string) {
	t.Helper()
	switch s.Kind {
	case "look", "offer":
		p.Click(s.Key)
	case "poll":
		for _, l := range s.Labels {
			p.Click(l)
		}
		p.Click("Save, next")
	case "one":
		p.Click(s.Label)
	case "reading" /* or what is worked out and not in order */ :
		if s.Label == "What you saw" {
			p.Fill(s.Label, "Read, and said at the gate")
			p.Click("Save, next")
			return
		}
		v, ok := readings[s.Label]
		require.True(t, ok, "no value for %q", s.Label)
		p.Fill(s.Label, v)
		p.Click("Save, next")
	case "set":
		if strings.HasPrefix(s.Labels[0], "Motor") {
			cell = "19"
		}
		for _, l := range s.Labels {
			v := cell
			if d, ok := directions[l]; ok {
				v = d
			}
			p.Fill(l, v)
		}
		p.See("Against:")
		p.Click("Save, next")
	}
}

// walkAll enters something good for every item that is left, as a person does,
// until nothing is, and returns in how many presses.
func walkAll(t *testing.T, p *browser.Page, cell string) (presses int) {
	t.Helper()
	for s := next(t, p, ""); !s.Done; s = next(t, p, s.At) {
		enter(t, p, s, cell)
		presses++
		require.Less(t, presses, 120, "the walk does not end")
	}
	return presses
}

// sign enters a PIN on the pad, digit by digit.
func sign(p *browser.Page, pin string) {
	p.Click("Clear the PIN")
	for _, d := range pin {
		p.Click(string(d))
	}
}

// Hands on the keys: Enter goes on from item to item and from cell to cell, and
// signs.
func TestKeysAlone(t *testing.T) {
	t.Parallel()
	f := goOut(t, hand{"desk", 1280, 800}, "Dray One")
	p := f.page
	f.begin(t, "Dray One", "turnaround")
	p.Judges()
	for s := next(t, p, ""); !s.Done; s = next(t, p, s.At) {
		switch s.Kind {
		case "reading":
			p.Keys(readings[s.Label])
		case "set":
			for i, l := range s.Labels {
				p.Keys(map[bool]string{true: "19", false: "4195"}[strings.HasPrefix(l, "Motor")])
				if i < len(s.Labels)-1 {
					p.Keys("\r")
				}
			}
		}
		p.Keys("\r")
	}
	p.Click("Complete the turnaround")
	p.See("On record")
	p.Click("Ask the gate")
	p.Fill("This flight belongs to", f.job)
	p.Fill("Steady wind", "3")
	p.Fill("What this flight is for", "Practice")
	p.Gone("The wind has not been entered")
	p.Fill("Your own PIN", demo.Crew[0].PIN)
	p.Keys("\r")
	p.See("Released by you")
	assert.Empty(t, p.Faults())
}
