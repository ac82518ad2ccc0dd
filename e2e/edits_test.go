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

// A pack goes to quarantine by anyone's hand, with a reason, and no pilot gets
// it out; a reading out of range says so and is kept on the screen.
func TestPackToQuarantineAndReading(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/packs", 1280, 800)
	p.SignIn("odile", demo.Password)
	p.Fill("Find a pack", "L2")
	p.Gone("L1")
	p.Click("L2")
	p.See("Now: charged")
	for i := range 6 {
		p.Fill("Cell "+string(rune('1'+i)), "4.34")
	}
	p.Fill("Cell 3", "43")
	p.Click("Save the reading")
	p.See("Cell 3 must be between 500 and 5000 mV")
	p.Fill("Cell 3", "4,21")
	p.Fill("Level it shows", "101")
	p.Click("Save the reading")
	p.See("Enter 0 to 100 %.")
	p.Fill("Level it shows", "98")
	p.Click("Save the reading")
	p.See("Saved. Cells differ by 130 mV; cell 3 is lowest.")
	p.Click("Quarantine")
	p.Click("Put on record")
	p.See("Say why: what was seen or measured.")
	p.Fill("Why: what was seen or measured", "Cell 3 far behind the others")
	p.Click("Put on record")
	p.See("Now: quarantine", "must not be charged or flown")
	p.Click("At storage level")
	p.Fill("Why: what was seen or measured", "Looks fine now")
	p.Click("Put on record")
	p.See("Only a technician or chief takes a pack out of quarantine")
	assert.Empty(t, p.Faults())
}

// Two people change the same thing: the second is told, and keeps what was typed.
func TestStaleEditAndDuplicatePerson(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	base := testbed.Serve(t, svc)
	p := chromium.Open(t, base, "/crew", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Click("Change Odile Varga")
	p.Fill("Last recurrent training", "2026-06-01")
	require.NoError(t, svc.DB.Exec("update people set version = version + 1 where login = 'odile'").Error)
	p.Click("Save")
	p.See("This person was changed by somebody else since you opened it.")
	assert.Equal(t, "2026-06-01", p.FieldValue("Last recurrent training"))
	p.Keys("\x1b")
	p.Click("Add a person")
	p.Fill("Name", "Second Bao")
	p.Fill("Sign-in name", "BAO")
	p.Tick("Crew: runs checks")
	p.Click("Save")
	p.See("Somebody already signs in with this name.")
	p.Fill("Sign-in name", "bao2")
	p.Click("Save")
	p.See("Give this to Second Bao")
	once := browser.Eval[string](p, `document.querySelector("[aria-label='One-time password']").textContent`)
	p.Click("Done, I passed it on")
	p.See("Second Bao bao2")
	assert.Empty(t, p.Faults())

	// The new one comes in with it, and gets no further without secrets of their own.
	comeIn := func(path string) *browser.Page {
		q := chromium.Open(t, base, path, 1280, 800)
		q.Fill("Sign-in name", "bao2")
		q.Fill("Password", once)
		q.Click("Sign in")
		return q
	}
	q := comeIn("/packs")
	q.See("Welcome, Second Bao")
	q.Fill("Your own password", "hop hedge drum")
	q.Fill("The password again", "hop hedge dru")
	q.Fill("A PIN for signatures", "1987")
	q.Fill("The PIN again", "1987")
	q.Click("Keep them")
	q.See("This differs from the password above.")
	q.Fill("The password again", "hop hedge drum")
	q.Click("Keep them")
	q.See("it reads like a year")
	q.Fill("A PIN for signatures", "7391")
	q.Fill("The PIN again", "7391")
	q.Click("Keep them")
	q.See("Packs")
	q.Go("/")
	q.See("Second Bao")
	assert.Empty(t, q.Faults())

	// A reset: the chief learns nothing that signs.
	p.Click("Change Second Bao")
	p.Click("Forgot the password")
	p.See("Their PIN stays")
	p.Click("Give Second Bao a one-time password")
	p.See("is shown only now")
	once = browser.Eval[string](p, `document.querySelector("[aria-label='One-time password']").textContent`)
	r := comeIn("/")
	r.See("your password was reset")
	r.Fill("Your new password", "cellar stone green")
	r.Fill("The password again", "cellar stone green")
	r.Fill("The PIN you sign with", "4826")
	r.Click("Keep them")
	r.See("This is not your PIN.")
	r.Fill("The PIN you sign with", "7391")
	r.Click("Keep them")
	r.See("Second Bao")
	r.Gone("your password was reset")
}
