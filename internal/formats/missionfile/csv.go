package missionfile

import (
	"bytes"
	"io"
	"strconv"

	"mainstay/core/intent"
	"mainstay/core/mission"
	"mainstay/core/why"
	"mainstay/internal/formats/table"
)

// writeCSV writes one waypoint a line; home is the line with the number 0.
func writeCSV(w io.Writer, m mission.Mission) error {
	t := table.NewWriter(w, names)
	deg := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	if m.Home != nil {
		t.Row("0", deg(m.Home.Lat), deg(m.Home.Lon), "", "", "", "home", "", "", "")
	}
	for i, x := range m.Items {
		f := fields(m, i)
		t.Row(f["number"], deg(x.At.Lat), deg(x.At.Lon), f["height_m"], f["datum"], f["speed_ms"], f["action"], f["every_m"],
			f["heading_deg"], f["gimbal_deg"])
	}
	return t.Flush()
}

func readCSV(b []byte) (mission.Mission, error) {
	t, err := table.NewReader(bytes.NewReader(b))
	if err != nil {
		return mission.Mission{}, why.Not(ErrFile, "%w", err)
	}
	for _, c := range []string{"latitude", "longitude", "height_m", "datum"} {
		if !t.Has(c) {
			return mission.Mission{}, why.Not(ErrFile, "it has no column %s", c)
		}
	}
	var rows []row
	err = t.Each(func(line int, get func(string) string) *table.RowError {
		at, err := place(get("latitude"), get("longitude"))
		if err != nil {
			return &table.RowError{Line: line, Column: "latitude", Err: err}
		}
		r := row{number: numberOf(get("number")), at: at, values: map[string]string{}, datum: intent.Datum(get("datum"))}
		for _, k := range names {
			r.values[k] = get(k)
		}
		rows = append(rows, r)
		return nil
	})
	if err != nil {
		return mission.Mission{}, why.Not(ErrFile, "%w", err)
	}
	if bad := t.Bad(); len(bad) > 0 {
		return mission.Mission{}, why.Not(ErrFile, "%w", bad[0]) // a mission with a line missing is another mission
	}
	return gather("", rows)
}
