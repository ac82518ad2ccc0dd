package server_test

import (
	"net/http"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/checks"
	"mainstay/core/practice"
	"mainstay/core/site"
	"mainstay/internal/fleet"
	"mainstay/internal/testbed"
)

// Every practice is used by a judgement at once: for each question a place where
// its answer shows, and no two schools show the same there. A new question fails
// here until it is used.
func TestEveryPracticeIsUsedAtOnce(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	craft := h.Aircraft.ID.String()
	h.chart(site.Obstacle, site.Point, "Poplar", ptr(30.0), xy(0, 60))
	sky := "/sites/" + h.Site.String() + "/weather"
	hand := h.pilot.Do(http.MethodPost, sky, m{"id": testbed.NewID(), "ground": "open",
		"hand": m{"at": h.Clock.Now(), "wind_height_m": 2, "ground": "open", "cloud_known": true, "wind_ms": 4,
			"gust_ms": 4.2, "from_deg": 270, "temp_c": 20, "dew_c": 12, "qnh_hpa": 1013, "visibility_m": 16000,
			"source": "hand"}})
	require.Less(t, hand.Status, 300, hand.Text())
	require.NoError(t, h.Workshop.Approve(h.As(h.Chief), "propeller", "lantern-4", "measured"))
	require.NoError(t, h.Fleet.FitParts(h.As(h.Tech), h.Aircraft.ID,
		fleet.FitParts{Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "propeller-1", Serial: "X-1"}},
			Source: fleet.ThirdParty, Old: fleet.Discard, CutUp: true}))
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	get := func(path string) string {
		a := h.pilot.Do(http.MethodGet, path, nil)
		require.Less(t, a.Status, 300, a.Text())
		return a.Text()
	}
	gate := func() string {
		out := h.gate(h.pilot, job, h.Packs[0].ID).Output
		said := slices.Clone(out.Cautions)
		for _, f := range append(slices.Clone(out.Findings), out.Notices...) {
			said = append(said, f.Verdict.String()+" "+f.Sentence)
		}
		return strings.Join(said, "\n")
	}
	run := testbed.NewID()
	walk := func() string { // one begun now
		h.pilot.Do(http.MethodDelete, "/walkrounds/"+run.String(), nil)
		run = testbed.NewID()
		a := h.pilot.Do(http.MethodPost, "/walkrounds", m{"id": run, "aircraft_id": h.Aircraft.ID, "kind": "walkround",
			"pack_ids": []string{}})
		require.Less(t, a.Status, 300, a.Text())
		return regexp.MustCompile(`"(id|started_at)":"[^"]*"`).ReplaceAllString(a.Text(), "")
	}
	home := func() string { return get("/sites/" + h.Site.String() + "/way-home?work=inspection&aircraft=" + craft) }
	shows := map[practice.ID]func() string{
		practice.Compass: gate, practice.PowerOrder: gate, practice.LaunchCharge: gate, practice.OtherPropellers: gate,
		practice.Satellites: walk, practice.Sensing: walk, practice.TakeOffBy: walk, practice.Corrections: walk,
		practice.Antennas: walk, practice.VerticalSensing: walk,
		practice.Propellers:   func() string { return get("/aircraft/" + craft) },
		practice.LandBy:       func() string { return get("/types") },
		practice.SprayWind:    func() string { return get(sky + "?aircraft=" + craft + "&work=spraying&ground=open") },
		practice.SafeDistance: home, practice.ReturnMargin: home,
	}
	// What needs days of flying, a fast hand or luck to show has a test of its own, in the core
	// and in internal/walkround.
	elsewhere := []practice.ID{practice.FullInspection, practice.WalkPace, practice.Drills}
	// Schools that differ only under what this stage is not: schools that say the same here.
	same := map[string]string{"compass/none": "flying-day", "land-by/percent": "pack",
		"third-party-propellers/approved": "away-from-people"}

	now := h.Clock.Now()
	for _, q := range practice.Questions {
		show, ok := shows[q.ID]
		if !ok {
			assert.Contains(t, elsewhere, q.ID, "nothing shows how %s is kept", q.ID)
			continue
		}
		said := map[string]string{}
		for _, s := range q.Schools {
			a := h.chief.Do(http.MethodPut, "/practices/"+string(q.ID),
				m{"school": s.ID, "numbers": m{}, "why": "for the test", "version": h.crew()})
			require.Equal(t, http.StatusNoContent, a.Status, a.Text())
			text := show()
			require.Equal(t, text, show(), "%s: nothing but the practice may change what is said", q.ID)
			if before, again := said[text]; again {
				assert.Equal(t, same[string(q.ID)+"/"+s.ID], before, "%s: %s says what %s says", q.ID, s.ID, before)
				assert.NotEmpty(t, same[string(q.ID)+"/"+s.ID], "%s: %s says what %s says", q.ID, s.ID, before)
			}
			said[text] = s.ID
		}
		a := h.chief.Do(http.MethodPut, "/practices/"+string(q.ID),
			m{"school": q.Default, "numbers": m{}, "why": "as usual", "version": h.crew()})
		require.Equal(t, http.StatusNoContent, a.Status)
	}
	require.Equal(t, now, h.Clock.Now())

	for _, c := range []*testbed.Client{h.pilot, h.tech} {
		assert.Equal(t, http.StatusForbidden, c.Do(http.MethodPut, "/practices/satellites",
			m{"school": "eight", "numbers": m{}, "why": "client waits", "version": h.crew()}).Status)
	}
	for _, bad := range []m{{"school": "moon", "numbers": m{}, "why": "why not", "version": h.crew()},
		{"school": "least", "numbers": m{"percent": 20}, "why": "why not", "version": h.crew()},
		{"school": "least", "numbers": m{"moon": 90}, "why": "why not", "version": h.crew()},
		{"school": "least", "numbers": m{}, "why": "", "version": h.crew()}} {
		assert.Equal(t, http.StatusUnprocessableEntity, h.chief.Do(http.MethodPut, "/practices/launch-charge", bad).Status,
			"%v", bad)
	}
	assert.Contains(t, []int{404, 422}, h.chief.Do(http.MethodPut, "/practices/moon",
		m{"school": "x", "numbers": m{}, "why": "why not", "version": h.crew()}).Status)
}

// A part that disturbs the compass, fitted after its calibration, asks for another.
func TestCompassAfterWorkOnIt(t *testing.T) {
	h := inAHurry(t)
	craft := "/aircraft/" + h.Aircraft.ID.String()
	said := func() string { return h.pilot.Do(http.MethodGet, craft, nil).Text() }
	assert.NotContains(t, said(), "work was done that disturbs it")
	h.Clock.Advance(time.Minute)
	require.NoError(t, h.Fleet.FitParts(h.As(h.Tech), h.Aircraft.ID,
		fleet.FitParts{Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: "receiver", Serial: "RX-2"}}, Source: fleet.Maker,
			Old: fleet.Discard}))
	assert.Contains(t, said(), "work was done that disturbs it: receiver fitted")
	h.Clock.Advance(time.Minute)
	a := h.pilot.Do(http.MethodPost, craft+"/calibrations", m{"id": testbed.NewID(), "site_id": h.Site, "note": ""})
	require.Equal(t, http.StatusCreated, a.Status, a.Text())
	assert.NotContains(t, said(), "work was done that disturbs it")
	h.Clock.Advance(time.Minute)
	require.Less(t, h.pilot.Do(http.MethodPost, craft+"/incidents",
		m{"id": testbed.NewID(), "event": "rebuilt", "note": ""}).Status, 300)
	assert.Contains(t, said(), "work was done that disturbs it")
	assert.Equal(t, http.StatusUnprocessableEntity, h.pilot.Do(http.MethodPost, craft+"/calibrations",
		m{"id": testbed.NewID(), "site_id": testbed.NewID(), "note": ""}).Status)
}

// A check looked at what was kept when it began: a change since stops the gate
// until a check looks again.
func TestPracticeChangedAfterTheWalk(t *testing.T) {
	h := inAHurry(t)
	job := h.Practice()
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	says := func() string { return stops(h.gate(h.pilot, job, h.Packs[0].ID).Output.Findings) }
	assert.NotContains(t, says(), "What the crew keeps")
	a := h.chief.Do(http.MethodPut, "/practices/obstacle-sensing",
		m{"school": "off-open", "numbers": m{}, "why": "open fields this week", "version": h.crew()})
	require.Equal(t, http.StatusNoContent, a.Status)
	assert.Contains(t, says(), "What the crew keeps is not what the last check looked at")
	h.Clock.Advance(time.Minute)
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	assert.NotContains(t, says(), "What the crew keeps")
	// More satellites than the walk asked for are asked for again.
	a = h.chief.Do(http.MethodPut, "/practices/satellites",
		m{"school": "eight", "numbers": m{}, "why": "open sky", "version": h.crew()})
	require.Equal(t, http.StatusNoContent, a.Status)
	h.Clock.Advance(time.Minute)
	h.Walk(checks.Full, []uuid.UUID{h.Packs[0].ID}, nil)
	assert.NotContains(t, says(), "What the crew keeps")
	a = h.chief.Do(http.MethodPut, "/practices/satellites",
		m{"school": "ten", "numbers": m{}, "why": "trees again", "version": h.crew()})
	require.Equal(t, http.StatusNoContent, a.Status)
	assert.Contains(t, says(), "at least 10 satellites")
	var list api.Practices
	h.pilot.Do(http.MethodGet, "/practices", nil).Into(&list)
	assert.Len(t, list.Practices, len(practice.Questions))
	assert.Contains(t, h.chief.Do(http.MethodGet, "/records", nil).Text(), "open fields this week")
}
