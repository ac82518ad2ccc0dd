package e2e

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
)

// What a crew hangs on the wall or takes along fits on as few sheets as it needs,
// without controls, by day and by night.
func TestPaperTakesFewSheets(t *testing.T) {
	t.Parallel()
	_, p, one := atBase(t)
	job := one("select id from jobs where aim like 'Roof panels%'")
	for _, c := range []struct {
		path, words string
		most        int
	}{
		{"/tonight", "Gear to charge", 2},
		{"/jobs/" + job, "Roof panels", 2},
		{"/jobs/" + job + "?tab=kit", "to pack", 2},
		{"/jobs/" + job + "?tab=briefing", "Read and understood", 3},
		{"/workshop/orders/" + one("select id from work_orders where state = 'open' limit 1"), "Torque", 2},
		{"/log", "Show older flights", 3},
	} {
		p.Go(c.path)
		p.See(c.words)
		file := ""
		if dir := os.Getenv("PAPER"); dir != "" {
			file = dir + "/" + c.words + ".pdf"
		}
		sheets, controls := p.Pages(file)
		t.Logf("%s: sheets of A4: %d", c.path, sheets)
		assert.LessOrEqual(t, sheets, c.most, c.path)
		assert.Positive(t, sheets, c.path)
		assert.Empty(t, controls, c.path)
	}
}
