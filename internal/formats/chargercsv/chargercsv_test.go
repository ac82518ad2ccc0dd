package chargercsv_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/formats/chargercsv"
)

func read(t *testing.T, text string) ([]chargercsv.Row, []string) {
	t.Helper()
	rows, bad, err := chargercsv.Read(strings.NewReader(text))
	require.NoError(t, err)
	var words []string
	for _, b := range bad {
		words = append(words, b.Error())
	}
	return rows, words
}

func TestUnitsOfTheColumns(t *testing.T) {
	rows, bad := read(t, "\ufefftime,pack,Cell_1_V,cell_2_v,cell_1_ohm,cell_2_ohm,Ah_in,start_percent,end_percent,temperature_f,rested_h\n"+
		"2026-03-01T14:05:00-07:00,D1,4.195,4.19,0.0021,0.0023,22.5,25,100,71.6,2\n")
	require.Empty(t, bad)
	require.Len(t, rows, 1)
	r := rows[0]
	assert.Equal(t, time.Date(2026, 3, 1, 21, 5, 0, 0, time.UTC), r.At)
	assert.Equal(t, []int{4195, 4190}, r.CellMV)
	assert.InDeltaSlice(t, []float64{2.1, 2.3}, r.MilliOhm, 1e-9)
	assert.InDelta(t, 22500, *r.MAhIn, 1e-9)
	assert.InDelta(t, 22, *r.TemperatureC, 1e-9)
	assert.InDelta(t, 120, *r.RestedMin, 1e-9)
	assert.Nil(t, r.MAhOut)
	assert.Equal(t, 2, r.Line)
}

func TestColumnsThatCannotBeUsed(t *testing.T) {
	for head, says := range map[string]string{
		"": "empty", "pack,cell_1_mv": "columns time and pack", "time,pack": "nothing measured",
		"time,pack,volts": `"volts" is not known`, "time,pack,cell_1_kv": "unit is none of",
		"time,pack,cell_0_mv": "from 1 to 24", "time,pack,cell_25_mv": "from 1 to 24",
		"time,pack,cell_1_mv,cell_1_v": "twice", "time;pack;cell_1_mv": "is not known",
	} {
		_, _, err := chargercsv.Read(strings.NewReader(head))
		require.ErrorIs(t, err, chargercsv.ErrColumns, head)
		assert.ErrorContains(t, err, says, head)
	}
}

func TestEachBadLineIsNamed(t *testing.T) {
	rows, bad := read(t, "time,pack,cell_1_mv,cell_2_mv,mah_in,start_percent\n"+
		"2026-03-01T14:05:00Z,D1,4195,4190,,\n"+
		"yesterday,D1,4195,4190,,\n"+
		"2026-03-01T14:05:00Z,,4195,4190,,\n"+
		"2026-03-01T14:05:00Z,D1,,4190,,\n"+
		"2026-03-01T14:05:00Z,D1,4.195,4.190,,\n"+
		"2026-03-01T14:05:00Z,D1,\"4,195\",4190,,\n"+
		"2026-03-01T14:05:00Z,D1,4195\n"+
		"2026-03-01T14:05:00Z,D1,,,,50\n"+
		"2026-03-01T14:05:00Z,D1,,,100,101\n"+
		"2026-03-01T14:06:00Z,D2,,,100,50\n")
	assert.Len(t, rows, 2)
	assert.Equal(t, []string{
		"line 3, time: is not a time like 2026-03-01T14:05:00Z", "line 4, pack: is empty or too long",
		"line 5, cell 1: has no voltage, though a later cell has",
		"line 6, cell_1_mv: 4.195 is not the voltage of a cell; look at the unit in the column's name",
		`line 7, cell_1_mv: "4,195" is not a number with a decimal point`,
		"line 8, line: has 3 fields instead of 6", "line 9, line: holds nothing measured",
		"line 10, start_percent: 101 is out of range",
	}, bad)
}

func FuzzRead(f *testing.F) {
	f.Add("time,pack,cell_1_mv\n2026-03-01T14:05:00Z,D1,4195\n")
	f.Add("time,pack,cell_1_v,cell_1_ohm,ah_in\n\"x,y\n")
	f.Add("time,pack,temperature_f,mah_out\n2026-03-01T14:05:00Z,D1,1e309,-0\n")
	f.Fuzz(func(t *testing.T, text string) {
		rows, bad, err := chargercsv.Read(strings.NewReader(text))
		if err != nil {
			return
		}
		for _, r := range rows {
			if r.Line < 2 || r.Pack == "" || r.At.IsZero() || len(r.CellMV) == 0 && len(r.MilliOhm) == 0 && r.MAhIn == nil &&
				r.MAhOut == nil {
				t.Fatalf("row %+v holds nothing", r)
			}
			for _, v := range r.CellMV {
				if v < 500 || v > 5000 {
					t.Fatalf("cell of %d mV", v)
				}
			}
		}
		for _, b := range bad {
			if b.Line < 1 || b.Err == nil {
				t.Fatalf("bad line %+v", b)
			}
		}
	})
}
