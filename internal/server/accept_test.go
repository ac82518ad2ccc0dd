package server_test

import (
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/internal/testbed"
)

// A new aircraft, and one built again, is accepted before it works: work that
// grounds it, nobody's to wave away, signed by a technician, then flown.
func TestNewAircraftIsAcceptedFirst(t *testing.T) {
	h := inAHurry(t)
	open := func(craft string) []api.WorkLine {
		var list api.WorkOrders
		h.chief.Do(http.MethodGet, "/work-orders?aircraft="+craft, nil).Into(&list)
		return list.Orders
	}
	sign := func(w api.WorkLine) {
		var o api.WorkOrder
		h.tech.Do(http.MethodGet, "/work-orders/"+w.Id.String(), nil).Into(&o)
		entries := []m{}
		for _, s := range o.Steps {
			entries = append(entries, m{"step_id": s.Step.ID, "value": m{"done": true}})
		}
		a := h.tech.Do(http.MethodPut, "/work-orders/"+w.Id.String()+"/entries", m{"entries": entries})
		require.Equal(t, http.StatusOK, a.Status, a.Text())
		a = h.tech.Do(http.MethodPost, "/work-orders/"+w.Id.String()+"/sign",
			m{"note": "done", "pin": testbed.PIN, "second_login": "", "second_pin": ""})
		require.Equal(t, http.StatusOK, a.Status, a.Text())
	}
	kite := m{"id": testbed.NewID(), "type_key": "dray-30", "name": "Kite", "serial": "K-1", "registration": "K-1",
		"registration_expires": "2028-01-01", "fit_new_parts": true, "mass_kg": nil, "weighed_on": nil}
	for range 2 { // a repeated press opens nothing anew
		a := h.chief.Do(http.MethodPost, "/aircraft", kite)
		require.Equal(t, http.StatusCreated, a.Status, a.Text())
	}
	craft := kite["id"]
	at := open(craft.(uuid.UUID).String())
	require.Len(t, at, 1)
	assert.Equal(t, "Acceptance of a new or rebuilt aircraft", at[0].Title)
	assert.True(t, at[0].Grounds)

	ask := func(extra m) api.GateAnswer {
		body := m{"aircraft_id": craft, "pack_ids": []string{}, "job_id": nil,
			"wind": m{"at": h.Clock.Now(), "steady_ms": 3, "gust_ms": 4, "measured_m": 2, "ground": "open"}}
		for k, v := range extra {
			body[k] = v
		}
		a := h.pilot.Do(http.MethodPost, "/gate", body)
		require.Equal(t, http.StatusOK, a.Status, a.Text())
		var out api.GateAnswer
		a.Into(&out)
		return out
	}
	assert.Contains(t, stops(ask(nil).Output.Findings), "Acceptance of a new or rebuilt aircraft")
	cancel := "/work-orders/" + at[0].Id.String() + "/cancel"
	for _, c := range []*testbed.Client{h.pilot, h.tech} {
		assert.Equal(t, http.StatusForbidden, c.Do(http.MethodPost, cancel, m{"reason": "client waits"}).Status)
	}
	a := h.tech.Do(http.MethodPost, "/work-orders/"+at[0].Id.String()+"/sign",
		m{"note": "", "pin": testbed.PIN, "second_login": "", "second_pin": ""})
	assert.NotEqual(t, http.StatusOK, a.Status, "signed with nothing done: %s", a.Text())

	sign(at[0])
	at = open(craft.(uuid.UUID).String())
	require.Len(t, at, 1)
	assert.EqualValues(t, "signed", at[0].State, "waits for its acceptance flights")
	assert.Contains(t, stops(ask(nil).Output.Findings), "acceptance flight")
	assert.NotContains(t, stops(ask(m{"acceptance": at[0].Id}).Output.Findings), "acceptance flight")

	// Built again: the same over again, whatever the programme of the type says.
	a = h.pilot.Do(http.MethodPost, "/aircraft/"+craft.(uuid.UUID).String()+"/incidents",
		m{"id": testbed.NewID(), "event": "rebuilt", "note": "new arms"})
	require.Less(t, a.Status, 300, a.Text())
	again := open(craft.(uuid.UUID).String())
	require.Len(t, again, 1)
	assert.EqualValues(t, "open", again[0].State)
	assert.NotEqual(t, at[0].Id, again[0].Id)
}
