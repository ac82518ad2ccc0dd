package server_test

import (
	"net/http"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/testbed"
)

// The same press sent twenty times at once is one signature and one record, and
// nothing that is made answers that something went wrong here.
func TestTheSamePressManyTimes(t *testing.T) {
	s, base := crowd(t, 16)
	job := s.Practice()
	require.NoError(t, s.DB.Exec("delete from briefing_signatures").Error)
	var b struct {
		ID   uuid.UUID
		Hash string
	}
	require.NoError(t, s.DB.Raw("select id, hash from briefings where job_id = ? order by at desc limit 1",
		job).Scan(&b).Error)
	c := testbed.NewClient(t, base).SignIn("chief", "long enough")
	presses := map[string]m{
		"/jobs/" + job.String() + "/briefing/sign": {"briefing_id": b.ID, "person_id": s.Chief.ID, "hash": b.Hash,
			"pin": testbed.PIN},
		"/people/" + s.Pilot.ID.String() + "/readiness": {"id": testbed.NewID(), "type_key": "lantern-4", "phase": "empty",
			"packs": 1, "landings": 2, "nose_in": true, "flown_on": "2026-06-01", "note": "", "pin": testbed.PIN},
		"/fitness": {"id": testbed.NewID(), "against": []string{}},
		"/aircraft/" + s.Aircraft.ID.String() + "/ground":       {"id": testbed.NewID(), "reason": "twenty presses"},
		"/aircraft/" + s.Aircraft.ID.String() + "/calibrations": {"id": testbed.NewID(), "site_id": nil, "note": ""},
		"/packs": {"id": testbed.NewID(), "labels": "Z9", "serials": []string{"Z-9"}, "chemistry": "LiHV", "cells": 6,
			"capacity_mah": 12000, "cycles": 0},
		"/defects": {"id": testbed.NewID(), "aircraft_id": s.Aircraft.ID, "station": "arm-2", "title": "Crack", "note": "",
			"severity": "watch", "photos": []string{}, "walkround_id": nil},
	}
	before := recordsByKind(t, s)
	for path, body := range presses {
		var all sync.WaitGroup
		for range 20 {
			all.Go(func() {
				a := c.Do(http.MethodPost, path, body)
				assert.Contains(t, []int{http.StatusOK, http.StatusCreated, http.StatusNoContent, http.StatusConflict}, a.Status,
					"%s: %s", path, a.Text())
			})
		}
		all.Wait()
	}
	added := recordsByKind(t, s)
	for kind, n := range added {
		assert.LessOrEqual(t, n-before[kind], 1, kind)
	}
	assert.Equal(t, 1, added["briefing"]-before["briefing"])
	assert.Equal(t, 1, added["practice"]-before["practice"])
	assert.Equal(t, 1, added["grounding"]-before["grounding"])
}

func recordsByKind(t *testing.T, s *testbed.Stage) map[string]int {
	var rows []struct {
		Kind string
		N    int
	}
	require.NoError(t, s.DB.Raw("select kind, count(*) n from records group by kind").Scan(&rows).Error)
	out := map[string]int{}
	for _, r := range rows {
		out[r.Kind] = r.N
	}
	return out
}
