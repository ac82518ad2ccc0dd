package checks_test

import (
	"encoding/json"
	"testing"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/pack"
)

// A type and a list come as files from anywhere: whatever is accepted can be
// drawn, expanded and judged without a panic.
func FuzzTypeAndList(f *testing.F) {
	// Small seeds: the engine spends its time on finding, not on shrinking.
	typ := `{"key":"q","version":1,"name":"Q","geometry":{"kind":"multirotor","rotors":4,"arm_m":0.4,"rotor_diameter_m":0.5},"limits":{"takeoff_mass_kg":7,"wind_ms":9,"gust_ms":12,"flight_height_m":40,"launch_percent":95,"land_by_percent":25,"land_by_cell_mv":3500,"planned_minutes":20,"warmth_outlier_c":15},"packs":{"count":1,"chemistry":"LiPo","cells":2,"capacity_mah":5000,"percent_from":"volts","call_out_every_s":60},"power_order":"aircraft-first"}`
	for _, item := range []string{
		`{"id":"a","station":"frame","title":"A","kind":"look","defect":"stop"}`,
		`{"id":"a","station":"frame","title":"A","kind":"reading","quantity":"x","unit":"V","step":0.1,"min":0,"max":9,"band":{"stop_above":5}}`,
		`{"id":"a","station":"bay","title":"{pack}","kind":"cells","per_pack":true}`,
		`{"id":"a","station":"frame","title":"A","kind":"motors","unit":"%","step":1,"min":0,"max":99,"compare":{"how":"outlier","watch":10,"stop":20}}`,
		`{"id":"a","station":"frame","title":"A","kind":"group","defect":"stop","marks":[{"id":"m","station":"frame","title":"M"}]}`,
		`{"id":"a","station":"frame","title":"A","kind":"alike","defect":"watch","unit":"degC","step":1,"min":0,"max":99,"compare":{"how":"outlier","watch":10,"stop":20}}`,
		`{"id":"a","station":"frame","title":"A","kind":"choice","options":[{"key":"y","title":"Y","verdict":"clear"}]}`,
		`{"id":"a","station":"frame","title":"A","kind":"timer","defect":"stop","least_s":60}`,
		`{"id":"a","station":"frame","title":"A","kind":"photo"}`,
	} {
		f.Add(typ, `{"type":"q","version":1,"sections":[{"title":"S","items":[`+item+`]}]}`, 12.5, "ok")
	}
	f.Fuzz(func(t *testing.T, typ, list string, number float64, look string) {
		var a airframe.Type
		if json.Unmarshal([]byte(typ), &a) != nil || a.Validate() != nil {
			return
		}
		ids := map[string]bool{}
		for _, s := range a.Stations() {
			if ids[s.ID] {
				t.Fatalf("station %s twice", s.ID)
			}
			ids[s.ID] = true
		}
		var l checks.List
		if json.Unmarshal([]byte(list), &l) != nil || l.Validate(a) != nil {
			return
		}
		p := checks.PackRef{ID: "p", Chemistry: a.Packs.Chemistry, Cells: a.Packs.Cells}
		for _, it := range expand(l, a, checks.Full, []checks.PackRef{p}) {
			set := make([]float64, it.Count)
			for i := range set {
				set[i] = number
			}
			j, err := checks.Judge(it, checks.Value{Look: look, Note: look, Number: &number, Set: set, Wrong: []string{look},
				Choice: look, Seconds: &number}, &p)
			if err == nil && (j.Sentence == "" || j.Against == "") {
				t.Fatalf("item %s judged without a word", it.ID)
			}
		}
		if _, err := pack.CellOf(a.Packs.Chemistry); err != nil {
			t.Fatal("a usable type has a known chemistry")
		}
	})
}
