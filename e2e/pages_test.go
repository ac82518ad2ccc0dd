package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"mainstay/e2e/browser"
)

// What lies pages deep in a list is found by its words, and read on to by a key; nothing says
// that it is not there while it has not been read.
func TestWhatLiesPagesDeepIsFound(t *testing.T) {
	t.Parallel()
	svc, p, _ := atBase(t)
	require.NoError(t, svc.DB.Exec(`insert into work_orders (id, aircraft_id, station, title, cause, grounds, work,
			opened_by, opened_at, closed_at, state)
		select gen_random_uuid(), a.id, 'arm-1', case when i = 1 then 'Rattle of last March' else 'Mended ' || i end, 'hand',
			false, '{"steps": [], "tools": [], "parts": [], "acceptance": []}', 'Tamsin Okoro',
			timestamptz '2025-03-01 08:00Z' + i * interval '1 hour', timestamptz '2025-03-02 08:00Z' + i * interval '1 hour', 'closed'
		from generate_series(1, 260) i, (select id from aircraft where name = 'Dray One') a`).Error)
	require.NoError(t, svc.DB.Exec(`insert into jobs (id, work, site_id, aim, from_at, to_at, created_at, created_by, state)
		select gen_random_uuid(), 'inspection', s.id, case when i = 1 then 'Weir in the flood' else 'Bank ' || i end, at,
			at + interval '1 hour', at, 'Imre Castellan', 'done'
		from (select i, timestamptz '2025-03-01 08:00Z' + i * interval '1 day' as at from generate_series(1, 260) i) x,
			(select id from sites where name = 'Long Bank') s`).Error)
	p.Go("/workshop?tab=orders&all=yes")
	p.Fill("Search the work orders", "rattle march")
	p.See("Rattle of last March")
	p.Fill("Search the work orders", "never was")
	p.See("Nothing here has these words.")

	p.Go("/jobs?tab=past")
	p.See("Show older jobs")
	before := browser.Eval[int](p, "document.querySelectorAll('main li').length")
	p.Click("Show older jobs")
	p.Until(fmt.Sprintf("document.querySelectorAll('main li').length > %d", before))
	p.Fill("Words in aim, site, people or aircraft", "weir long")
	p.See("Weir in the flood")
	p.Gone("Bank 200")
	p.Fill("Words in aim, site, people or aircraft", "never was")
	p.See("No job has these words.")
}
