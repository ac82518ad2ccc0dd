package e2e

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
)

// What is due in the air stands out from what is not, by day and by night.
func TestCallsThatAreDueStandOut(t *testing.T) {
	inHands(t, func(t *testing.T, h hand) {
		f := goOut(t, h, "Dray One")
		p := f.page
		f.release(t, "Dray One")
		p.Click("Take off")
		p.See("Dray One in the air", "Next pack call in")
		const painted = `[...document.querySelectorAll('.callouts > *')].map((e) => {
			const s = getComputedStyle(e);
			return s.backgroundColor + ' ' + s.borderTopWidth;
		})`
		before := browser.Eval[[]string](p, painted)
		assert.Equal(t, before[2], before[0], "nothing is due yet")
		p.Kept()
		require.NoError(t, f.svc.DB.Exec(
			"update flights set took_off_at = took_off_at - interval '1 hour' where state = 'air'").Error)
		p.Reload()
		for _, theme := range []string{"light", "dark"} {
			browser.Eval[bool](p, "(document.documentElement.dataset.bsTheme = "+strconv.Quote(theme)+", true)")
			p.See("Call the pack now", "Over the planned time by")
			got := browser.Eval[[]string](p, painted)
			for i := range 2 {
				assert.NotEqual(t, got[2], got[i], "%s, %d", theme, i)
			}
		}
		assert.Empty(t, p.Faults())
	})
}
