package server_test

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/spray"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/outside"
	"mainstay/internal/standins/charger"
	"mainstay/internal/standins/desk"
	"mainstay/internal/standins/weather"
	"mainstay/internal/testbed"
)

// tour calls operations and remembers which ones succeeded.
type tour struct {
	t      *testing.T
	c      *testbed.Client
	router routers.Router
	seen   map[string]bool
	db     *gorm.DB
	before func(x *tour, method, path string, body any) // nil: nothing
}

func (x *tour) do(method, path string, body any, into any) {
	x.t.Helper()
	if values, ok := body.(m); ok && x.before != nil {
		x.before(x, method, path, values)
	}
	a := x.c.Do(method, path, body)
	require.Less(x.t, a.Status, 300, "%s %s: %s", method, path, a.Text())
	req, err := http.NewRequest(method, "/api/v1"+path, nil)
	require.NoError(x.t, err)
	r, _, err := x.router.FindRoute(req)
	require.NoError(x.t, err)
	x.seen[r.Operation.OperationID] = true
	if into != nil {
		a.Into(into)
	}
}

// crew is the version of the crew's settings now.
func (x *tour) crew() int {
	var s api.Session
	x.c.Do(http.MethodGet, "/session", nil).Into(&s)
	return s.Crew.Version
}

type m = map[string]any

// A crew's first days over HTTP alone: every operation of the contract
// succeeds once, and every answer is held against the contract.
func TestTourOfEveryOperation(t *testing.T) { takeTour(t, nil) }

// takeTour calls before ahead of every request with a JSON body.
func takeTour(t *testing.T, before func(x *tour, method, path string, body any)) {
	_, url := testbed.Empty(t, clock.From(testbed.Noon))
	// Under the role of the application, which owns nothing, and over one connection.
	svc := testbed.Wide(t, testbed.App(t, url), clock.From(testbed.Noon), 1)
	require.NoError(t, db.OwnsNothing(context.Background(), svc.DB))
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	router, err := gorillamux.NewRouter(doc)
	require.NoError(t, err)
	device := httptest.NewServer(charger.New(2, 1, svc.Clock.Now))
	defer device.Close()
	svc.Rack.Charger = outside.New(device.URL, "")
	sky := httptest.NewServer(weather.New(svc.Clock.Now))
	defer sky.Close()
	svc.Sites.Weather = outside.New(sky.URL, "")
	board := desk.New(svc.Clock.Now)
	board.Set(desk.Faults{})
	counter := httptest.NewServer(board)
	defer counter.Close()
	svc.Airspace.Desk = outside.New(counter.URL, "")
	air := httptest.NewServer(surveyor())
	defer air.Close()
	svc.Missions.Link = outside.New(air.URL, "")
	svc.Walkrounds.Link = svc.Missions.Link
	x := &tour{t, testbed.NewClient(t, testbed.Serve(t, svc)), router, map[string]bool{}, svc.DB, before}
	units := m{"length": "m", "speed": "m/s", "mass": "kg", "temperature": "degC", "volume": "L"}
	id := func() string { return testbed.NewID().String() }

	x.do("GET", "/setup", nil, nil)
	x.do("POST", "/setup", m{"crew_name": "Tour", "zone": "UTC", "units": units, "name": "Chief", "login": "chief",
		"password": "long enough", "pin": "2580"}, nil)
	x.do("PUT", "/crew", m{"name": "Tour crew", "zone": "UTC", "units": units, "tile_url": "",
		"head_to": "chief@crew.example\nfile:heads.txt", "keep_places": false, "version": 1}, nil)
	var session api.Session
	x.do("GET", "/session", nil, &session)
	x.do("PUT", "/session/pin", m{"password": "long enough", "pin": "7391"}, nil)
	x.do("PUT", "/session/password", m{"password": "long enough", "new_password": "longer still"}, nil)
	x.do("DELETE", "/session", nil, nil)
	x.do("POST", "/session", m{"login": "chief", "password": "longer still"}, nil)
	x.do("PUT", "/people/"+session.Person.Id.String(), m{"version": session.Person.Version, "name": "Chief",
		"roles": []string{"chief", "pilot"}, "active": true, "certificate": "R-1", "trained_on": "2026-01-01"}, nil)
	var hand api.Enrolled
	x.do("POST", "/people", m{"id": id(), "login": "hand", "name": "Hand", "roles": []string{"crew"}, "certificate": "",
		"trained_on": nil}, &hand)
	var once api.OncePassword
	x.do("POST", "/people/"+hand.Person.Id.String()+"/one-time-password", nil, &once)
	x.do("DELETE", "/session", nil, nil)
	x.do("POST", "/session", m{"login": "hand", "password": once.Password}, nil)
	x.do("PUT", "/session/secrets", m{"new_password": "hop hedge drum", "pin": "7391"}, nil)
	x.do("DELETE", "/session", nil, nil)
	x.do("POST", "/session", m{"login": "chief", "password": "longer still"}, nil)
	x.do("GET", "/people", nil, nil)
	x.papers(session.Person.Id.String())

	x.do("GET", "/types", nil, nil)
	var profile m
	x.do("GET", "/types/lantern-4", nil, &profile)
	profile["version"] = 5
	x.do("POST", "/types/try", profile, nil)
	x.do("POST", "/types", profile, nil)
	var list m
	x.do("GET", "/types/lantern-4/checklist", nil, &list)
	x.do("GET", "/types/lantern-4/checklists", nil, nil)
	x.do("POST", "/types/lantern-4/checklist/try?round=turnaround", list, nil)
	x.do("GET", "/schemas/checklist", nil, nil)
	x.do("GET", "/types/lantern-4/rounds", nil, nil)
	x.do("GET", "/types/lantern-4/paper.pdf?round=turnaround", nil, nil)
	list["version"] = 4
	x.do("POST", "/types/lantern-4/checklist", list, nil)
	var craft api.Aircraft
	x.do("POST", "/aircraft", m{"id": id(), "type_key": "lantern-4", "name": "Kite", "serial": "K-1", "registration": "",
		"registration_expires": nil, "fit_new_parts": true, "mass_kg": nil, "weighed_on": nil}, &craft)
	at := "/aircraft/" + craft.Id.String()
	x.do("PUT", at, m{"version": craft.Version, "name": "Kite", "registration": "T-1",
		"registration_expires": "2028-01-01", "active": true, "mass_kg": 7.2, "weighed_on": "2026-05-01"}, nil)
	x.do("POST", at+"/calibrations", m{"id": id(), "site_id": nil, "note": "field behind the shed"}, nil)
	x.do("GET", "/practices", nil, nil)
	x.do("PUT", "/practices/satellites", m{"school": "eight", "numbers": m{}, "why": "open sky everywhere",
		"version": x.crew()}, nil)
	x.do("GET", "/aircraft", nil, nil)
	x.do("GET", at, nil, nil)
	var img bytes.Buffer
	require.NoError(t, png.Encode(&img, image.NewGray(image.Rect(0, 0, 4, 4))))
	var photo api.Photo
	x.do("POST", "/photos?id="+id(), img.Bytes(), &photo)
	x.accept(craft.Id.String(), photo.Id.String())
	x.do("POST", at+"/ground", m{"id": id(), "reason": "smells odd"}, nil)
	x.do("POST", at+"/return", m{"note": "it was the truck", "pin": "7391"}, nil)
	x.do("POST", at+"/parts", m{"fits": []m{{"part_id": id(), "station": "propeller-1", "serial": "P-9"}},
		"source": "maker", "old": "discard", "cut_up": true}, nil)
	pk := x.pack("K1", "S-1")
	pack := "/packs/" + pk.Id.String()
	var moved api.PackOutcomes
	x.do("POST", "/packs/moves", m{"state": "charging", "packs": []m{{"id": pk.Id, "version": pk.Version}}}, &moved)
	x.do("POST", "/packs/moves/back", m{"packs": []m{{"id": pk.Id, "version": moved.Packs[0].Version}}}, nil)
	pk.Version += 2
	x.do("POST", pack+"/state", m{"state": "charged", "note": "", "version": pk.Version}, nil)
	x.do("POST", pack+"/readings", m{"id": id(), "cell_mv": []int{4340, 4340, 4340, 4340, 4340, 4340}, "rested_min": 40,
		"percent": 99, "temperature_c": 21,
		"under_load": m{"cell_mv": []int{4200, 4200, 4200, 4200, 4200, 4190}, "amps": 12, "seconds": 10}}, nil)
	x.do("GET", "/packs", nil, nil)
	x.do("GET", "/find?q=K1", nil, nil)
	x.do("GET", "/due", nil, nil)
	x.do("GET", pack, nil, nil)
	x.rack(pk.Id.String())

	x.do("GET", "/photos/"+photo.Id.String(), nil, nil)
	var defect api.Defect
	x.do("POST", "/defects", m{"id": id(), "aircraft_id": craft.Id, "station": "frame", "title": "Scratch", "note": "",
		"severity": "stop", "photos": []any{photo.Id}, "walkround_id": nil}, &defect)
	x.do("GET", "/defects", nil, nil)
	x.shop(craft.Id.String(), defect.Id.String(), photo.Id.String())
	scratch := id()
	x.do("POST", "/defects", m{"id": scratch, "aircraft_id": craft.Id, "station": "frame", "title": "Sticker loose",
		"note": "", "severity": "watch", "photos": []any{}, "walkround_id": nil}, nil)
	x.do("POST", "/defects/"+scratch+"/settle", m{"note": "Stuck down again.", "pin": "7391"}, nil)
	job := x.job(craft.Id.String(), session.Person.Id.String())
	flight := x.fly(craft.Id.String(), pk.Id.String(), job)
	var after api.Job
	x.do("GET", "/jobs/"+job, nil, &after)
	x.do("POST", "/jobs/"+job+"/state", m{"state": "called-off", "version": after.Version}, nil)
	x.do("POST", "/flights/"+flight+"/corrections", m{"id": id(), "seconds": 60, "landings": 2, "litres": 0,
		"reason": "landed twice", "pin": "7391"}, nil)

	x.spraying(session.Person.Id.String())
	x.missions(session.Person.Id.String())
	x.do("GET", "/log?q=tour", nil, nil)
	x.do("GET", "/log/totals", nil, nil)
	x.do("GET", "/log/weeks", nil, nil)
	x.do("GET", "/aircraft/year", nil, nil)
	x.do("GET", "/packs/health", nil, nil)
	x.do("GET", "/outside", nil, nil)
	x.do("GET", "/log.csv", nil, nil)
	csv := x.c.Do("GET", "/log.csv", nil).Text()
	assert.Contains(t, csv, flight)
	var rep api.ImportReport
	x.do("POST", "/log/import", csv, &rep)
	assert.Equal(t, 1, rep.Unchanged)
	x.do("GET", "/records", nil, nil)
	var rack api.Packs
	x.do("GET", "/packs", nil, &rack)
	x.do("GET", "/packs/"+rack.Packs[0].Id.String()+"/readings", nil, nil)
	var v api.Verification
	x.do("POST", "/records/verify", nil, &v)
	assert.True(t, v.Ok)
	x.do("GET", "/day", nil, nil)
	x.evening(craft.Id.String())
	x.site(craft.Id.String())
	assert.Equal(t, 200, x.c.Peek("/changes"))
	x.seen["watchChanges"] = true

	// Whatever was done, every change of it is sealed, and a head known outside is still on the way.
	var head api.ChainHead
	x.do("GET", "/records/head", nil, &head)
	x.do("POST", "/records/verify", m{"head": head.Place + " " + head.Words}, &v)
	assert.True(t, v.Ok, v.Sentence)
	assert.Contains(t, v.Sentence, "known outside")
	var touched int64
	require.NoError(t, svc.DB.Raw("select count(*) from row_touched").Scan(&touched).Error)
	assert.Zero(t, touched)
	export := x.c.Do("GET", "/records/export", nil)
	require.Equal(t, 200, export.Status)
	assert.Contains(t, export.Text(), `"type":"end"`)
	x.seen["exportRecords"] = true

	for _, item := range doc.Paths.Map() {
		for _, op := range item.Operations() {
			assert.True(t, x.seen[op.OperationID], "%s was never called", op.OperationID)
		}
	}
}

// shop calls every operation of the workshop.
func (x *tour) shop(craft, defect, photo string) {
	id := func() string { return testbed.NewID().String() }
	at := "/aircraft/" + craft
	var programme m
	x.do("GET", "/types/lantern-4/programme", nil, &programme)
	programme["version"] = 2
	x.do("POST", "/types/lantern-4/programme", programme, nil)
	set := m{"type_key": "lantern-4", "version": 1, "versions": m{"aircraft": "2.0", "app": "4"}, "note": "flown a day"}
	x.do("POST", "/types/lantern-4/firmware", set, nil)
	x.do("GET", "/types/lantern-4/firmware", nil, nil)
	x.do("PUT", at+"/firmware", m{"versions": m{"aircraft": "2.0", "app": "4", "controller": "1"}}, nil)
	x.do("GET", at+"/firmware", nil, nil)

	var stock api.Stock
	line := m{"id": id(), "name": "Screws", "kind": "", "type_key": "", "quantity": 20, "minimum": 5, "delivery_days": 3,
		"price_cents": 650, "source": "shop", "version": 0}
	x.do("PUT", "/stock", line, &stock)
	x.do("GET", "/stock", nil, nil)
	x.do("POST", "/approvals", m{"kind": "filter", "type_key": "dray-30", "note": "measured"}, nil)
	var part api.PartDetail
	x.do("POST", "/parts", m{"id": id(), "kind": "light", "type_key": "lantern-4", "serial": "LT-1", "batch": "26",
		"source": "maker", "price_cents": nil}, &part)
	x.do("GET", "/parts/"+part.Id.String(), nil, nil)
	x.do("POST", "/parts/"+part.Id.String()+"/remove", m{"to": "discard", "cut_up": false, "reason": "cracked glass"}, nil)
	var d api.AircraftDetail
	x.do("GET", at, nil, &d)
	motors := []string{}
	for _, p := range d.Parts {
		if p.Kind == "motor" {
			motors = append(motors, p.Id.String())
		}
	}
	x.do("POST", "/parts/"+motors[0]+"/swap", m{"with": motors[1]}, nil)
	x.do("GET", at+"/trends", nil, nil)

	blank := func() m {
		return m{"id": id(), "aircraft_id": craft, "task_id": "", "defect_id": nil, "station": "", "title": "",
			"steps": []string{}, "second_person": false, "acceptance": []string{}}
	}
	open := blank()
	open["defect_id"] = defect
	var o api.WorkOrder
	x.do("POST", "/work-orders", open, &o)
	work := "/work-orders/" + o.Id.String()
	var entries []m
	for _, s := range o.Steps {
		entries = append(entries, m{"step_id": s.Step.ID, "value": m{"done": true, "photos": []string{photo}}})
	}
	x.do("PUT", work+"/entries", m{"entries": entries}, nil)
	x.do("POST", work+"/parts", m{"id": id(), "line_id": stock.Lines[0].Id, "quantity": 2}, nil)
	x.do("GET", work, nil, nil)
	x.do("POST", work+"/sign", m{"note": "polished", "pin": "7391", "second_login": "", "second_pin": ""}, &o)
	assert.Equal(x.t, api.WorkOrderStateClosed, o.State)
	mistake := blank()
	mistake["task_id"] = "weekly-screws"
	x.do("POST", "/work-orders", mistake, &o)
	x.do("POST", "/work-orders/"+o.Id.String()+"/cancel", m{"reason": "opened twice"}, nil)
	x.do("GET", "/work-orders?all=true", nil, nil)
	x.do("POST", "/deferrals", m{"id": id(), "aircraft_id": craft, "defect_id": nil, "task_id": "weekly-screws", "days": 2,
		"reason": "driver on order", "pin": "7391"}, nil)
	x.do("POST", at+"/incidents", m{"id": id(), "event": "chemical-spill", "note": ""}, nil)
	x.accept(craft, photo)
	x.do("POST", at+"/return", m{"note": "clean and dry", "pin": "7391"}, nil)
}

// accept does and signs the open work on an aircraft.
func (x *tour) accept(craft, photo string) {
	var orders api.WorkOrders
	x.do("GET", "/work-orders?aircraft="+craft, nil, &orders)
	for _, w := range orders.Orders {
		if w.State != api.WorkLineStateOpen {
			continue
		}
		var o api.WorkOrder
		x.do("GET", "/work-orders/"+w.Id.String(), nil, &o)
		entries := []m{}
		for _, s := range o.Steps {
			entries = append(entries, m{"step_id": s.Step.ID, "value": m{"done": true, "photos": []string{photo}}})
		}
		x.do("PUT", "/work-orders/"+w.Id.String()+"/entries", m{"entries": entries}, nil)
		x.do("POST", "/work-orders/"+w.Id.String()+"/sign", m{"note": "done", "pin": "7391", "second_login": "",
			"second_pin": ""}, nil)
	}
}

// rack calls every operation of the rack; a second pack goes all the way.
// pack puts a pack on the rack.
func (x *tour) pack(label, serial string) api.Pack {
	var out api.PacksAdded
	x.do("POST", "/packs", m{"id": testbed.NewID(), "labels": label, "serials": []string{serial}, "chemistry": "LiHV",
		"cells": 6, "capacity_mah": 12000, "cycles": 3}, &out)
	return out.Packs[0]
}

func (x *tour) rack(other string) {
	id := func() string { return testbed.NewID().String() }
	p := x.pack("K2", "S-2")
	at := "/packs/" + p.Id.String()
	x.do("POST", "/packs", m{"id": id(), "labels": "R1 to R2", "chemistry": "LiHV", "cells": 6,
		"capacity_mah": 12000, "cycles": 0}, nil)
	x.do("PUT", at, m{"version": p.Version, "label": "K2", "serial": "S-22", "chemistry": "LiHV", "cells": 6,
		"capacity_mah": 12000, "cycles": 3}, &p)
	var wrong api.PackReading
	x.do("POST", at+"/readings", m{"id": id(), "cell_mv": []int{3700, 3700, 3700, 3700, 3700, 3100}, "rested_min": 40,
		"percent": 50, "temperature_c": 21}, &wrong)
	x.do("POST", at+"/readings/"+wrong.Id.String()+"/withdraw", m{"why": "of another pack"}, nil)
	var rep api.ImportReport
	x.do("POST", "/packs/import", "time,pack,cell_1_mv\n2026-06-01T12:00:00Z,K2,3850\n", &rep)
	assert.Len(x.t, rep.Refused, 1, "one cell of six")
	x.do("GET", "/packs/sets", nil, nil)
	x.do("POST", "/packs/forecasts", nil, nil)
	x.do("GET", "/background", nil, nil)
	var st api.ChargerStatus
	x.do("GET", "/charger", nil, &st)
	assert.True(x.t, st.Reachable, st.Sentence)
	x.do("POST", at+"/readings", m{"id": id(), "cell_mv": []int{3850, 3850, 3850, 3850, 3850, 3850}, "rested_min": 40,
		"percent": 50, "temperature_c": 21}, nil)
	x.do("POST", "/charger/1", m{"pack_id": p.Id, "target": "full"}, nil)
	x.do("DELETE", "/charger/1", nil, nil)
	faces := m{"top": "ok", "bottom": "swollen", "left": "ok", "right": "ok", "front": "ok", "back": "ok"}
	x.do("POST", at+"/looks", m{"id": id(), "faces": faces, "photos": []string{}, "note": "bulges"}, &p)
	assert.EqualValues(x.t, "quarantine", p.State)
	x.do("POST", at+"/dispose", m{"method": "salt water, two days", "discharged": true, "delivered_to": "recycling yard",
		"note": "", "pin": "7391"}, &p)
	assert.EqualValues(x.t, "retired", p.State)
}

func (x *tour) evening(craft string) {
	id := func() string { return testbed.NewID().String() }
	gear := id()
	x.do("PUT", "/gear", m{"id": gear, "name": "Tablet 1", "kind": "tablet", "minimum": 80, "active": true,
		"aircraft_id": nil, "version": 0}, nil)
	x.do("POST", "/gear/"+gear+"/level", m{"level": 95}, nil)
	x.do("POST", "/gear/"+gear+"/look", m{"found": ""}, nil)
	x.do("PUT", "/chargers", m{"id": id(), "name": "Truck", "channels": 2, "watts": 600, "active": true, "version": 0},
		nil)
	x.do("PUT", "/evenings/2026-06-11", m{"start_at": "2026-06-11T02:00:00Z", "ready_by": "2026-06-11T13:00:00Z",
		"sorties": []m{{"aircraft_id": craft, "sorties": 1}}}, nil)
	x.do("PUT", "/evenings/2026-06-11/ticks", m{"item": "gear:" + gear, "done": true}, nil)
	x.do("GET", "/evenings/2026-06-11", nil, nil)
}

// site charts a place of work and judges it.
func (x *tour) site(craft string) {
	id := func() string { return testbed.NewID().String() }
	at := "/sites/" + id()
	head := m{"id": at[len("/sites/"):], "name": "Yard", "note": "", "lat": 46.31, "lon": -119.70, "elevation_m": 210,
		"version": 0}
	x.do("POST", "/sites", head, nil)
	head["note"], head["version"] = "Close the gate.", 1
	x.do("PUT", at, head, nil)
	var list struct{ Sites []api.SiteHead }
	x.do("GET", "/sites", nil, &list)
	assert.Equal(x.t, "Close the gate.", list.Sites[len(list.Sites)-1].Note)
	feature := func(kind, shape string, places ...m) string {
		f := id()
		x.do("PUT", at+"/features/"+f, m{"feature": m{"id": f, "kind": kind, "name": kind, "shape": shape, "places": places},
			"version": 0}, nil)
		return f
	}
	feature("take-off", "point", m{"lat": 46.31, "lon": -119.70})
	feature("route", "line", m{"lat": 46.311, "lon": -119.70}, m{"lat": 46.311, "lon": -119.699})
	tree := feature("obstacle", "point", m{"lat": 46.3105, "lon": -119.6999})
	x.do("DELETE", at+"/features/"+tree, nil, nil)
	x.do("POST", at+"/features/"+tree+"/restore", nil, nil)
	var file api.Site
	x.do("GET", at, nil, &file)
	assert.Len(x.t, file.Features, 3)
	var height struct{ M, Sigma float64 }
	x.do("POST", "/tools/height", m{"how": "clinometer", "distance": m{"v": 40, "sigma": 0.5},
		"angle": m{"v": 22, "sigma": 1}, "eye_m": 1.6}, &height)
	assert.InDelta(x.t, 17.76, height.M, 0.005)
	var way api.WayHome
	x.do("GET", at+"/way-home?aircraft="+craft+"&setting_m=30", nil, &way)
	assert.EqualValues(x.t, "stop", way.Verdict.String(), "the tree's height is not known")
	var rep api.ImportReport
	x.do("POST", at+"/import?format=csv", "lat,lon,kind,name,height_ft\n46.3104,-119.7001,obstacle,Pole,30\n", &rep)
	assert.Equal(x.t, 1, rep.Accepted)
	x.do("GET", at+"/export?format=kml", nil, nil)
	x.do("PUT", at+"/terrain?name=yard.asc&sigma_m=1",
		"ncols 4\nnrows 4\nxllcorner -119.72\nyllcorner 46.29\ncellsize 0.01\n1 2 3 4\n3 4 5 6\n5 6 7 8\n7 8 9 9\n", nil)
	x.do("GET", at+"/relief", nil, nil)
	x.do("GET", at+"/shade", nil, nil)
	x.do("GET", at+"/heights?line=46.31,-119.70&line=46.311,-119.699", nil, nil)
	x.do("POST", at+"/weather", m{"id": id(), "ground": "crops", "report": "KZZT 101630Z 24005KT 10SM CLR 18/08 A3001",
		"station_m": 225}, nil)
	x.do("POST", at+"/weather/fetch", m{"id": id(), "ground": "crops"}, nil)
	var sky api.Sky
	x.do("GET", at+"/weather?work=spraying&ground=crops&aircraft="+craft, nil, &sky)
	assert.NotEmpty(x.t, sky.Hours)
	assert.NotNil(x.t, sky.Latest)
}

// papers are documents, fitness, practice, rules and reports.
func (x *tour) papers(chief string) {
	id := func() string { return testbed.NewID().String() }
	waiver := "/documents/" + id()
	x.do("PUT", waiver, m{"kind": "waiver", "person_id": nil, "number": "W-1", "issued_on": "2026-01-01",
		"expires_on": nil, "rules": []string{"height"}, "conditions": "At the bank.", "version": 0}, nil)
	var docs api.Documents
	x.do("GET", "/documents", nil, &docs)
	assert.True(x.t, docs.Documents[0].InForce)
	x.do("DELETE", waiver, nil, nil)
	x.do("POST", "/fitness", m{"id": id(), "against": []string{}}, nil)
	var fit api.FitnessToday
	x.do("GET", "/fitness", nil, &fit)
	assert.Len(x.t, fit.Declared, 1)
	x.do("POST", "/people/"+chief+"/readiness", m{"id": id(), "type_key": "lantern-4", "phase": "empty", "packs": 3,
		"landings": 6, "nose_in": true, "flown_on": "2026-06-01", "note": "", "pin": "7391"}, nil)
	var ready api.Readiness
	x.do("GET", "/people/"+chief+"/readiness", nil, &ready)
	assert.Len(x.t, ready.Log, 1)
	x.do("PUT", "/rules", m{"pack": "us-small", "sight_m": 400, "version": x.crew()}, nil)
	rule := "/rules/local/" + id()
	x.do("PUT", rule, m{"citation": "", "statement": "The gate is closed.", "question": "Is the gate closed?",
		"work": []string{"spraying"}, "verdict": "watch", "version": 0}, nil)
	var book api.RuleBook
	x.do("GET", "/rules", nil, &book)
	assert.Len(x.t, book.Local, 1)
	assert.EqualValues(x.t, 400, book.SightM)
	x.do("DELETE", rule, nil, nil)
	var cover api.Coverage
	x.do("GET", "/rules/coverage", nil, &cover)
	assert.Len(x.t, cover.Types, 6)
	report := id()
	x.do("POST", "/reports", m{"id": report, "aircraft_id": nil, "what": "A fence was broken",
		"happened_at": "2026-06-09T10:00:00Z"}, nil)
	x.do("POST", "/reports/"+report+"/done", m{"reference": "R-5"}, nil)
	x.do("GET", "/reports", nil, nil)
}

// job plans one at a new site inside the control zone, and does all that it
// asks for, up to the briefing.
// spraying calls every operation of a spray plan, on an aircraft and a field of its own.
func (x *tour) spraying(chief string) {
	id := func() string { return testbed.NewID().String() }
	var craft api.Aircraft
	x.do("POST", "/aircraft", m{"id": id(), "type_key": "dray-30", "name": "Barrow", "serial": "B-1", "registration": "",
		"registration_expires": nil, "fit_new_parts": true, "mass_kg": nil, "weighed_on": nil}, &craft)
	field := id()
	x.do("POST", "/sites", m{"id": field, "name": "Field", "note": "", "lat": 46.25, "lon": -119.6, "elevation_m": 210,
		"practice": false, "version": 0}, nil)
	for kind, places := range map[string][]m{"take-off": {{"lat": 46.25, "lon": -119.601}},
		"area": {{"lat": 46.25, "lon": -119.6}, {"lat": 46.252, "lon": -119.6}, {"lat": 46.252, "lon": -119.599},
			{"lat": 46.25, "lon": -119.599}}} {
		f := id()
		x.do("PUT", "/sites/"+field+"/features/"+f, m{"feature": m{"id": f, "kind": kind, "name": kind,
			"shape": map[bool]string{true: "point", false: "area"}[len(places) == 1], "places": places}, "version": 0}, nil)
	}
	at := "/jobs/" + id()
	x.do("PUT", at, m{"work": "spraying", "site_id": field, "aim": "Weeds", "product": "Weed wash", "from": testbed.Noon,
		"to": testbed.Noon.Add(3 * time.Hour), "sorties": nil, "meeting": "", "channel": "", "version": 0,
		"aircraft": []m{{"aircraft_id": craft.Id, "return_m": 30, "home_follows": false, "lost_link": "return",
			"route_m": nil, "datum": "ground", "mass_kg": nil, "speed_ms": 5}}, "take_off_id": nil, "landing_id": nil,
		"second_id": nil,
		"label":     m{"low_ms": nil, "high_ms": nil, "height_m": nil}, "people": []m{{"person_id": chief,
			"post": "rpic"}}}, nil)
	plan := at + "/spray/" + craft.Id.String()
	var p api.SprayPlan
	x.do("GET", plan, nil, &p)
	p.Wish.Mix = []spray.Product{{Name: "Weed wash", PerHa: 1, Unit: "L"}}
	x.do("POST", plan+"/try", p.Wish, nil)
	x.do("PUT", plan, m{"id": id(), "version": 0, "wish": p.Wish}, &p)
	require.NotEmpty(x.t, p.Sorties)
	part := id()
	x.do("POST", plan+"/done", m{"parts": []m{{"id": part, "pass": 0, "from_share": 0, "to_share": 0.5}}}, nil)
	slip := id()
	x.do("POST", plan+"/done", m{"parts": []m{{"id": slip, "pass": 0, "from_share": 0.5, "to_share": 0.6}}}, nil)
	x.do("POST", plan+"/done/back", m{"ids": []string{slip}}, nil)
	x.do("GET", plan+"/record", nil, nil)
	x.do("PUT", "/documents/"+id(), m{"kind": "applicator", "person_id": chief, "number": "PA-1",
		"issued_on": "2026-01-01", "expires_on": "2027-01-01", "conditions": "", "rules": []string{}, "version": 0}, nil)
	p.Wish.Number = "X-1"
	x.do("PUT", plan, m{"id": p.Id, "version": 1, "wish": p.Wish}, nil)
	x.do("POST", "/sites/"+field+"/weather", m{"id": id(), "ground": "crops",
		"report": "KZZT 101630Z 24005KT 10SM CLR 18/08 A3001", "station_m": 225, "station_km": 9}, nil)
	x.do("POST", plan+"/record", m{"id": id(), "neighbours": "The beekeeper", "note": "", "pin": "7391"}, nil)
	x.do("GET", "/spray-records.csv", nil, nil)
	x.do("PUT", plan+"/fills/1", m{"id": id(), "version": 0, "line": 0}, nil)
	x.do("GET", "/nozzles", nil, nil)
	x.do("PUT", "/nozzles/"+id(), m{"id": id(), "key": "tour-1", "name": "Tour", "least_l_min": 0.5, "most_l_min": 1,
		"least_bar": 1, "most_bar": 4, "droplets": "coarse", "active": true, "version": 0}, nil)
	x.do("POST", "/aircraft/"+craft.Id.String()+"/weighings",
		m{"id": id(), "part": "empty", "kg": 1.2, "scale": "Bench scale", "on": "2026-06-01"}, nil)
	x.do("GET", "/aircraft/"+craft.Id.String()+"/energy?liquid_l=20&payload_kg=1&attached_kg=0.4", nil, nil)
	x.do("GET", "/bench", nil, nil)
	x.do("POST", "/bench/flow", m{"values": m{"rate": 20}}, nil)
	x.do("POST", "/rotation", m{"day": m{"sorties": []m{{"seconds": 600, "wh": 50, "done": 1, "fill": true}},
		"aircraft": 1, "sets": 1, "per_set": 1, "pack_wh": 100, "charge_to": 100, "cool_s": 60, "channels": 1,
		"channel_w": 100, "generator_w": 0, "hands": 1, "swap_s": 60, "fill_s": 60, "day_s": 0}, "runs": 10, "seed": 1}, nil)
	checks := "/aircraft/" + craft.Id.String() + "/spray-checks"
	x.do("POST", checks, m{"id": id(), "kind": "catch", "caught": []float64{1, 1, 1}, "target": 3}, nil)
	x.do("GET", checks, nil, nil)
}

func (x *tour) job(craft, chief string) string {
	id := func() string { return testbed.NewID().String() }
	yard := id()
	x.do("POST", "/sites", m{"id": yard, "name": "Station", "note": "", "lat": 46.3215, "lon": -119.6905,
		"elevation_m": 210, "practice": true, "version": 0}, nil)
	x.do("POST", "/sites/"+yard+"/weather", m{"id": id(), "ground": "crops",
		"report": "KZZT 101630Z 24005KT 10SM CLR 18/08 A3001", "station_m": 225, "station_km": 9}, nil)
	for kind, places := range map[string][]m{"take-off": {{"lat": 46.3215, "lon": -119.6905}},
		"route": {{"lat": 46.3218, "lon": -119.6905}, {"lat": 46.3218, "lon": -119.6900}}} {
		f := id()
		x.do("PUT", "/sites/"+yard+"/features/"+f, m{"feature": m{"id": f, "kind": kind, "name": kind,
			"shape": map[bool]string{true: "point", false: "line"}[len(places) == 1], "places": places}, "version": 0}, nil)
	}
	x.do("POST", "/sites/"+yard+"/airspace/look", nil, nil)
	x.do("POST", "/sites/"+yard+"/airspace/import",
		`{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Polygon","coordinates":[[[-119.5,46.3],[-119.4,46.3],[-119.4,46.4],[-119.5,46.3]]]},"properties":{"name":"Far","class":"restricted"}}]}`,
		nil)
	var far string
	require.NoError(x.t, x.db.Raw("select id from zones where source = 'file'").Scan(&far).Error)
	x.do("DELETE", "/zones/"+far, nil, nil)
	var air api.Airspace
	x.do("GET", "/sites/"+yard+"/airspace", nil, &air)
	zone := air.Zones[0]
	assert.Equal(x.t, "D", zone.Class)
	assert.EqualValues(x.t, "stop", air.Verdict.String())
	for i, number := range []string{"", "SPOKEN-1"} {
		at := "/authorisations/" + id()
		x.do("PUT", at, m{"site_id": yard, "zone_id": zone.Id, "number": number, "ceiling_m": 100,
			"from": testbed.Noon.Add(-time.Hour), "to": testbed.Noon.Add(5 * time.Hour)}, nil)
		x.do("POST", at+"/calls", m{"id": id(), "kind": "start", "how": []string{"desk", "spoken"}[i]}, nil)
		if i == 1 {
			x.do("DELETE", at, nil, nil)
		}
	}
	at := "/jobs/" + id()
	plan := m{"work": "practice", "site_id": yard, "aim": "Roof", "product": "", "from": testbed.Noon.Add(-time.Hour),
		"to": testbed.Noon.Add(4 * time.Hour), "sorties": 2, "meeting": "Gate", "channel": "", "version": 0,
		"aircraft": []m{{"aircraft_id": craft, "return_m": 30, "home_follows": false, "lost_link": "return", "route_m": nil,
			"datum": "take-off", "mass_kg": nil, "speed_ms": 5}}, "take_off_id": nil, "landing_id": nil, "second_id": nil,
		"label": m{"low_ms": nil, "high_ms": nil, "height_m": nil}, "people": []m{{"person_id": chief, "post": "rpic"}}}
	x.do("GET", "/gear", nil, nil)
	x.do("PUT", at, plan, nil)
	var j api.Job
	x.do("GET", at, nil, &j)
	var said []m
	for _, a := range j.Asks {
		said = append(said, m{"ask": a.Id, "option": a.Options[0].ID})
	}
	x.do("PUT", at+"/answers", m{"answers": said}, nil)
	hasty := id()
	x.do("POST", at+"/decisions", m{"id": hasty, "aircraft_id": craft, "kind": "level-ground", "reason": "looks level"},
		nil)
	x.do("POST", at+"/decisions/"+hasty+"/withdraw", m{"reason": "not walked yet"}, nil)
	x.do("POST", at+"/decisions", m{"id": id(), "aircraft_id": craft, "kind": "level-ground", "reason": "walked it"}, nil)
	x.do("PUT", at+"/kit/pad", m{"packed": true, "checked": true, "label": "", "quantity": 0}, nil)
	brief := id()
	x.do("POST", at+"/briefing", m{"id": brief}, nil)
	x.do("GET", at, nil, &j)
	x.do("POST", at+"/briefing/sign", m{"briefing_id": brief, "person_id": chief, "hash": j.Briefing.Hash, "pin": "7391"},
		nil)
	x.do("GET", at, nil, &j)
	for _, f := range j.Findings {
		assert.NotEqual(x.t, "stop", f.Verdict.String(), "all that the job asks for is done: %s", f.Sentence)
	}
	x.do("GET", "/jobs", nil, nil)
	return strings.TrimPrefix(at, "/jobs/")
}

// fly walks, releases, withdraws, releases again, flies and logs.
func (x *tour) fly(craft, pack, job string) string {
	id := func() string { return testbed.NewID().String() }
	var run api.Walkround
	start := m{"id": id(), "aircraft_id": craft, "kind": "walkround", "pack_ids": []string{pack}}
	x.do("POST", "/walkrounds", start, &run)
	x.do("DELETE", "/walkrounds/"+run.Id.String(), nil, nil)
	start["id"] = id()
	x.do("POST", "/walkrounds", start, &run)
	walk := "/walkrounds/" + run.Id.String()
	var entries []m
	for _, it := range run.Items {
		entries = append(entries, m{"item_id": it.ID, "value": testbed.InOrder(it, 4340)})
	}
	x.do("GET", walk+"/before", nil, nil)
	x.do("GET", "/drills", nil, nil)
	x.do("GET", walk+"/offers", nil, nil)
	x.do("POST", walk+"/judge", entries[0], nil)
	x.do("PUT", walk+"/entries", m{"entries": entries}, nil)
	x.do("POST", walk+"/complete", nil, nil)
	x.do("GET", walk, nil, nil)

	var orders api.WorkOrders
	x.do("GET", "/work-orders?aircraft="+craft, nil, &orders)
	require.Len(x.t, orders.Orders, 1, "the acceptance of a new aircraft waits for its flight")
	accepted := orders.Orders[0].Id
	wind := m{"at": testbed.Noon.Add(time.Second), "steady_ms": 3, "gust_ms": nil, "measured_m": 2, "ground": "open"}
	release := func() string {
		var answer api.GateAnswer
		x.do("POST", "/gate", m{"aircraft_id": craft, "pack_ids": []string{pack}, "wind": wind, "job_id": job,
			"acceptance": accepted}, &answer)
		var r api.Release
		x.do("POST", "/releases", m{"id": id(), "aircraft_id": craft, "pack_ids": []string{pack}, "wind": wind,
			"purpose": "Tour flight", "gate_hash": answer.Hash, "job_id": job, "acceptance": accepted, "pin": "7391"}, &r)
		return r.Id.String()
	}
	x.do("POST", "/releases/"+release()+"/withdraw", nil, nil)
	var f api.Flight
	x.do("POST", "/flights", m{"id": id(), "release_id": release(), "device_at": nil}, &f)
	at := "/flights/" + f.Id.String()
	event := id()
	x.do("POST", at+"/events", m{"id": event, "kind": "bird", "note": ""}, nil)
	x.do("DELETE", at+"/events/"+event, nil, nil)
	x.do("PUT", at+"/hover", m{"outputs": []int{50, 50, 51, 50}}, nil)
	x.do("GET", at, nil, nil)
	x.do("POST", at+"/land", nil, nil)
	x.do("POST", at+"/resume", nil, nil)
	x.do("POST", at+"/land", nil, nil)
	x.do("POST", at+"/log", m{"landings": 1, "warmth_c": []int{40, 40, 41, 40}, "remarks": "",
		"next_time": "Softer sticks.", "signs": []string{"vibration"},
		"packs": []m{{"pack_id": pack, "percent": 40, "cell_mv": nil, "temperature_c": 30}}}, nil)
	return f.Id.String()
}

// What cannot be right is answered with the field and a sentence, for every
// way in which a number or a text can be wrong.
func TestFieldsAreRefusedWithASentence(t *testing.T) {
	s := testbed.NewStage(t)
	c := testbed.NewClient(t, testbed.Serve(t, s.Services)).SignIn("chief", "long enough")
	pack := m{"id": testbed.NewID(), "labels": "X1", "serials": []string{"S"}, "chemistry": "LiPo", "cells": 6, "capacity_mah": 5000,
		"cycles": 0}
	for _, x := range []struct {
		field string
		value any
		says  string
	}{
		{"cells", 0, "between 1 and 24"}, {"cells", 25, "between 1 and 24"}, {"cells", 6.5, "Enter a number"}, {"cells", "6",
			"Enter a number"}, {"cells", nil, "Enter a number"},
		{"capacity_mah", 1e9, "between 100 and 200000"}, {"cycles", -1, "between 0 and 5000"}, {"labels", "",
			"This must not stay empty"}, {"labels", "123456789012345678901", "at most 20 characters"},
		{"chemistry", "lead", "Choose one of"}, {"labels", "  ", "what stands on them"}, {"labels", "a1",
			"Another pack has this label"}, {"serials", []string{"s-a1"}, "Another pack has this serial"},
	} {
		body := m{}
		for k, v := range pack {
			body[k] = v
		}
		body[x.field] = x.value
		a := c.Do("POST", "/packs", body)
		assert.Contains(t, []int{409, 422}, a.Status, a.Text())
		assert.Contains(t, a.Field(x.field), x.says, "%s = %v", x.field, x.value)
	}
	a := c.Do("POST", "/packs", m{"labels": "X1"})
	assert.Equal(t, "This is missing.", a.Field("chemistry"))
	assert.Contains(t, a.Problem().Detail, "Nothing was saved")
	a = c.Do("POST", "/gate", m{"aircraft_id": s.Aircraft.ID, "pack_ids": []string{},
		"wind": m{"at": testbed.Noon.AddDate(0, 0, 1), "steady_ms": 3, "gust_ms": nil, "measured_m": 2, "ground": "open"}})
	assert.Contains(t, a.Field("wind.at"), "future")
	a = c.Do("POST", "/log/import",
		"id,took_off_at,landed_at,aircraft_serial,pilot_login,packs,seconds,landings,purpose,remarks\nnot,a,flight\n\"unfinished")
	assert.Equal(t, 200, a.Status, a.Text())
	assert.Contains(t, a.Text(), "Line 2: line has 3 fields instead of 10.")
	a = c.Do("POST", "/log/import", "date;pilot\n")
	assert.Contains(t, a.Field("file"), "the first line must name the columns")
	a = c.Do("GET", "/log?from=1.3.2026", nil)
	assert.Equal(t, 422, a.Status, a.Text())
	a = c.Do("GET", "/aircraft/not-an-id", nil)
	assert.Contains(t, []int{404, 422}, a.Status, a.Text())
}
