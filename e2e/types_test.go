package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/e2e/browser"
	"mainstay/internal/demo"
	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// A type of one's own: copied, changed, drawn as it is typed, kept with the lists of the other;
// bad figures are said at their field and nothing typed is lost.
func TestATypeOfOnesOwn(t *testing.T) {
	t.Parallel()
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	p := chromium.Open(t, testbed.Serve(t, svc), "/", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.Go("/types/lantern-4?copy=1")
	p.See("19 places on the walk", "Takes over checklist and programme of")
	p.Click("Keep the type")
	p.See("Enter the name of the type.")
	p.Fill("Name of the type", "Kite 6")
	assert.Equal(t, "kite-6", p.FieldValue("Key of its files"))
	p.Fill("Arms with lifting rotors", "6")
	p.See("25 places on the walk")
	p.Fill("Arms are opened in this order", "1, 4, 2")
	p.See("It must name each of the 6 arms once.")
	p.Fill("Arms are opened in this order", "1, 4, 2, 5, 3, 6")
	p.Fill("Wind, steady", "strong")
	p.Click("Keep the type")
	p.See("is not a number")
	p.Fill("Wind, steady", "9,5")
	p.Fill("Gusts", "8")
	p.See("It must be at least wind_ms")
	p.Fill("Gusts", "13")
	p.Reload()
	p.See("25 places on the walk")
	assert.Equal(t, "Kite 6", p.FieldValue("Name of the type"))
	p.Click("Keep the type")
	p.See("Aircraft types and their checklists", "Kite 6")
	ctx := as(t, svc, "imre")
	ty, err := svc.Fleet.Type(ctx, "kite-6")
	require.NoError(t, err)
	assert.Equal(t, []int{1, 4, 2, 5, 3, 6}, ty.Unfold)
	assert.InDelta(t, 9.5, float64(ty.Limits.WindMS), 1e-9)
	assert.NotEmpty(t, ty.Sticks.Start, "what was not changed is copied")
	l, err := svc.Walkrounds.List(ctx, "kite-6", 0)
	require.NoError(t, err)
	items, _ := checks.Expand(l, ty, checks.Ask{Round: checks.Full})
	assert.Equal(t, "corner-4", items[1].ID, "the arms are walked as they open")

	p.Go("/types/new")
	p.See("Wind, steady: enter it.")
	p.Fill("Layout", string(airframe.FixedWing))
	p.See("Wing span: enter it.")
	p.Go("/types/kite-6")
	p.See("Keep as version 2")
	p.Tick("Two motors on each arm, one over the other")
	p.See("37 places on the walk")
	assert.Equal(t, 12, browser.Eval[int](p,
		"[...document.querySelectorAll('.type-preview .station title')].filter((s) => s.textContent.includes('Motor')).length"))
	p.Click("Keep as version 2")
	p.See("Kite 6 version 2")
	assert.Empty(t, p.Faults())
}
