package server_test

import (
	"maps"
	"os"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/testbed"
)

// quiet are tables of which no open screen has to hear, with why.
var quiet = map[string]string{
	"aircraft_types": "come with a reload", "checklists": "come with a reload", "records": "follow what they record",
	"seals": "follow what they seal", "row_states": "follow what they seal", "row_touched": "of one transaction",
	"sessions":           "one's own",
	"acceptance_flights": "follow the flight", "part_moves": "follow the part", "photos": "follow what shows them",
	"goose_db_version": "no data", "attempts": "guesses, of no screen", "devices": "for guesses, of no screen",
	"presses": "what they did tells of itself", "evening_sorties": "follow the evening",
	"flight_use": "follows the flight",
}

// What one person does is on every open screen at once: every table tells its
// changes or is named here, and the interface knows every table that tells.
func TestEveryTableTellsItsChanges(t *testing.T) {
	s := testbed.NewStage(t)
	b, err := os.ReadFile("../../web/src/api/touched.ts")
	require.NoError(t, err)
	heard := map[string]bool{}
	for _, m := range regexp.MustCompile(`(?m)^  ([a-z_]+): \[`).FindAllStringSubmatch(string(b), -1) {
		heard[m[1]] = true
	}
	var tables []struct {
		Name  string
		Tells bool
	}
	require.NoError(t, s.DB.Raw(`select c.relname as name, exists (select 1 from pg_trigger t join pg_proc p on p.oid = t.tgfoid where t.tgrelid = c.oid and p.proname = 'tell_change') as tells
		from pg_class c join pg_namespace n on n.oid = c.relnamespace where c.relkind = 'r' and n.nspname = 'public' and c.relname not like 'river%' order by 1`).Scan(&tables).Error)
	require.Greater(t, len(tables), 40)
	rest := maps.Clone(quiet)
	for _, x := range tables {
		if x.Tells {
			assert.True(t, heard[x.Name], "%s tells its changes, and the interface does not know it", x.Name)
		} else {
			assert.Contains(t, quiet, x.Name, "%s does not tell its changes", x.Name)
		}
		delete(heard, x.Name)
		if !x.Tells {
			delete(rest, x.Name)
		}
	}
	assert.Empty(t, rest, "named here, and no quiet table")
	assert.Empty(t, heard, "the interface waits for tables that are none")
}
