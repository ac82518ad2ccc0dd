package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/internal/demo"
)

// Nothing decisive lies outside the screen, on a phone or a tablet, in any state
// of walkround, gate and flight: LAND, Defect, the main button, and what went
// wrong.
func TestNothingDecisiveIsOffTheScreen(t *testing.T) {
	inHands(t, func(t *testing.T, h hand) {
		f := goOut(t, h, "Dray One")
		p := f.page
		see := func(state string, buttons ...string) {
			t.Helper()
			assert.Empty(t, p.OnScreen(buttons...), state)
			assert.LessOrEqual(t, p.Wide(), 0, "%s: the page is wider than the window", state)
		}
		dray := id(t, f.svc, "Dray One").String()
		p.Go("/gate/" + dray)
		p.Fill("This flight belongs to", f.job)
		p.SeeIn(".thumb", "Enter the wind")
		see("gate, stopped", "Enter the wind")

		p.Go("/walk/start/" + dray + "?kind=walkround")
		p.Click("Start the walkround")
		tried := map[string]bool{}
		s := next(t, p, "")
		for ; !s.Done; s = next(t, p, s.At) {
			see("item "+s.Title, s.Key)
			if s.Kind == "look" {
				see("item "+s.Title, "Defect")
			}
			if !tried[s.Kind] && s.Kind != "offer" {
				tried[s.Kind] = true
				if s.Kind == "look" {
					p.Click("Defect")
				}
				p.Click("Save, next")
				p.SeeThing(".thumb [role=alert]")
				see("error at "+s.Title, "Save, next")
				if s.Kind == "look" {
					p.Click("No defect")
				}
			}
			enter(t, p, s, "4,195")
		}
		see("every item entered", "Complete the walkround")
		p.Offline(true)
		p.See("No connection")
		see("every item entered, without network", "Complete the walkround")
		p.Offline(false)
		p.See("Connected")
		p.Click("Complete the walkround")
		p.See("On record")
		see("walk on record", "Ask the gate")

		p.Click("Ask the gate")
		p.Fill("This flight belongs to", f.job)
		p.Fill("Steady wind", "3")
		p.Gone("The wind has not been entered")
		p.Click("Sign and release")
		p.See("Enter your PIN")
		see("gate, no PIN", "Sign and release")
		sign(p, "9999")
		p.Click("Sign and release")
		p.See("Nothing was signed")
		see("gate, wrong PIN", "Sign and release")
		p.Fill("What this flight is for", "Practice")
		sign(p, demo.Crew[0].PIN)
		p.Click("Sign and release")
		p.See("Released by you")
		see("released", "Take off", "Withdraw the release")
		p.Click("Take off")
		p.See("in the air")
		see("in the air", "LAND", "Called", "Warning", "Contact")
		p.Click("Gust")
		see("in the air, with a slip to take back", "LAND", "Take back: Gust")
		p.Offline(true)
		p.See("No connection")
		p.Click("Vibration")
		see("in the air without network", "LAND", "Take back: Vibration")
		p.Click("LAND")
		p.See("has landed")
		p.Offline(false)
		p.See("Connected")
		see("landed", "Log the flight")
		p.Click("Log the flight")
		p.See("Motor 1: feel or measure it")
		see("landed, with an error", "Log the flight")
		assert.Empty(t, p.Faults())
	})
}
