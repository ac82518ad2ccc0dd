package spraycsv_test

import (
	"bytes"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/formats/spraycsv"
	"mainstay/internal/formats/table"
)

// What is written is read back by the one reader of tables, words that look like
// formulas too.
func TestRecordsComeBack(t *testing.T) {
	from := time.Date(2026, 6, 10, 15, 0, 0, 0, time.FixedZone("x", -7*3600))
	r := spraycsv.Signed{Record: spraycsv.Record{Site: "Upper yard", Field: "Hops, \"west\"", Lat: 46.312, Lon: -119.7,
		Product: "=sum(A1)", Rate: 25, RateUnit: "L/ha", AreaHa: 1.0004, Volume: 25.01, From: &from, Neighbours: "+bees"},
		At: from, By: "Odile Varga"}
	var out bytes.Buffer
	require.NoError(t, spraycsv.Write(&out, []spraycsv.Signed{r, {By: "B", At: from}}))
	in, err := table.NewReader(&out)
	require.NoError(t, err)
	assert.Equal(t, spraycsv.Columns, in.Columns())
	var got []map[string]string
	require.NoError(t, in.Each(func(_ int, get func(string) string) *table.RowError {
		row := map[string]string{}
		for _, c := range spraycsv.Columns {
			row[c] = get(c)
		}
		got = append(got, row)
		return nil
	}))
	require.Len(t, got, 2)
	assert.Equal(t, "2026-06-10T22:00:00Z", got[0]["from"])
	assert.Equal(t, "=sum(A1)", got[0]["product"])
	assert.Equal(t, "+bees", got[0]["neighbours_told"])
	assert.Equal(t, "1.0004", got[0]["area_ha"])
	assert.Empty(t, got[1]["from"])
}
