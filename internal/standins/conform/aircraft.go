package conform

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/url"

	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/mission"
)

// aircraft tries a link to aircraft. With Write it stores a mission in the first one that
// it reaches and reads it back; nothing is ever started.
func (t *try) aircraft() {
	text := t.want("GET /aircraft", call{method: http.MethodGet, path: "/aircraft"}, "aircraft", http.StatusOK)
	t.want("an aircraft that is none is not known", call{
		method: http.MethodGet, path: "/aircraft/never-built/state",
	}, "",
		http.StatusNotFound)
	var all struct{ Aircraft []struct{ Serial string } }
	if text == nil || json.Unmarshal(text, &all) != nil {
		return
	}
	if len(all.Aircraft) == 0 {
		t.note("an aircraft to try", errors.New("it reaches none now; switch one on"))
		return
	}
	at := "/aircraft/" + url.PathEscape(all.Aircraft[0].Serial)
	t.want("GET "+at+"/state", call{method: http.MethodGet, path: at + "/state"}, "state", http.StatusOK)
	t.want("GET "+at+"/mission", call{method: http.MethodGet, path: at + "/mission"}, "mission", http.StatusOK,
		http.StatusNoContent)
	t.want("GET "+at+"/pictures", call{method: http.MethodGet, path: at + "/pictures"}, "pictures", http.StatusOK)
	if !t.s.Write {
		return
	}
	ninety := 90.0
	m := mission.Mission{Name: "check", Datum: intent.AboveTakeOff, Home: &geo.Point{Lat: 46.31, Lon: -119.7},
		Items: []mission.Item{
			{At: geo.Point{Lat: 46.311, Lon: -119.7}, HeightM: 40, SpeedMS: 6, Action: mission.Start, EveryM: 12,
				HeadingDeg: &ninety},
			{At: geo.Point{Lat: 46.312, Lon: -119.7}, HeightM: 42, SpeedMS: 6, Action: mission.Stop},
			{At: geo.Point{Lat: 46.312, Lon: -119.7}, HeightM: 42, SpeedMS: 6, Action: mission.Return}}}
	t.want("a mission without a waypoint is refused", call{
		method: http.MethodPut, path: at + "/mission",
		body: map[string]any{"datum": "take-off", "items": []any{}},
	}, "", http.StatusBadRequest, http.StatusUnprocessableEntity)
	t.want("PUT "+at+"/mission", call{method: http.MethodPut, path: at + "/mission", body: m}, "", http.StatusOK,
		http.StatusNoContent)
	text = t.want("GET "+at+"/mission after it", call{method: http.MethodGet, path: at + "/mission"}, "mission",
		http.StatusOK)
	var read mission.Mission
	err := json.Unmarshal(text, &read)
	if err == nil {
		var d []mission.Difference
		if d, err = mission.Compare(m, read); err == nil && len(d) > 0 {
			err = fmt.Errorf("%d differences: %s", len(d), d[0].Sentence)
		}
	}
	t.note("it holds what was sent", err)
}
