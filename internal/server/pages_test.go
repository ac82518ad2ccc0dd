package server_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/platform/db"
	"mainstay/internal/testbed"
)

// Lists that grow with the years are read in pages: each line once and in order, also where
// many have one time, whatever is begun while somebody reads.
func TestLongListsAreReadInPages(t *testing.T) {
	s := testbed.NewStage(t)
	c := testbed.NewClient(t, testbed.Serve(t, s.Services)).SignIn("chief", "long enough")
	site := testbed.NewID()
	require.Equal(t, http.StatusCreated, c.Do(http.MethodPost, "/sites", m{"id": site, "name": "Long meadow", "lat": 0.1,
		"lon": 0.1, "elevation_m": 20, "note": "", "practice": false, "version": 0}).Status)
	const rows = 230
	for _, sql := range []string{
		`insert into jobs (id, work, site_id, aim, from_at, to_at, created_at, created_by, state)
			select gen_random_uuid(), 'inspection', '` + site.String() + `', 'look ' || i, at, at + interval '1 hour', at, 'Pia',
				case when i % 2 = 0 then 'done' else 'called-off' end
			from (select i, timestamptz '2026-03-01 08:00Z' + (i / 7) * interval '1 day' as at from generate_series(1, $1) i) x`,
		`insert into defects (id, aircraft_id, station, title, note, severity, photos, raised_by, raised_at, closed_at)
			select gen_random_uuid(), '` + s.Aircraft.ID.String() + `', 'arm-1', 'chip', '', 'watch', '{}', 'Pia',
				timestamptz '2026-03-01 08:00Z' + (i / 7) * interval '1 day',
				case when i % 3 = 0 then timestamptz '2026-05-01 08:00Z' end from generate_series(1, $1) i`,
		`insert into work_orders (id, aircraft_id, station, title, cause, grounds, work, opened_by, opened_at, state)
			select gen_random_uuid(), '` + s.Aircraft.ID.String() + `', 'arm-1', 'mend', 'hand', false, '{}', 'Pia',
				timestamptz '2026-03-01 08:00Z' + (i / 7) * interval '1 day',
				(array['open', 'closed', 'cancelled', 'signed'])[i % 4 + 1] from generate_series(1, $1) i`,
		`insert into incident_reports (id, what, happened_at, due_at, raised_by, at, reported_at, reference)
			select gen_random_uuid(), 'hit a pole', at, at + interval '10 days', 'Pia', at,
				case when i % 3 > 0 then at + interval '2 days' end, 'R' from (select i,
				timestamptz '2026-03-01 08:00Z' + (i / 7) * interval '1 day' as at from generate_series(1, $1) i) x`,
	} {
		require.NoError(t, s.DB.Exec(sql, rows).Error)
	}
	for _, x := range []struct {
		path, list string
		open       func(line m) bool // nil: the list is not parted
		at         string
	}{
		{"/jobs?past=true", "jobs", nil, "from"},
		{"/defects?", "defects", func(l m) bool { return l["closed_at"] == nil }, "raised_at"},
		{"/work-orders?all=true", "orders", func(l m) bool { return l["state"] == "open" || l["state"] == "signed" },
			"opened_at"},
		{"/reports?", "reports", func(l m) bool { return l["reported_at"] == nil }, "due_at"},
	} {
		seen, cursor, pages, last, openLast := map[any]bool{}, "", 0, "", true
		for {
			var page m
			at := x.path
			if cursor != "" {
				at += "&cursor=" + cursor
			}
			c.Do(http.MethodGet, at, nil).Into(&page)
			pages++
			for _, l := range page[x.list].([]any) {
				line := m(l.(map[string]any))
				assert.False(t, seen[line["id"]], "%s: a line came twice", x.path)
				seen[line["id"]] = true
				open := x.open != nil && x.open(line)
				if last != "" && open == openLast {
					assert.LessOrEqual(t, line[x.at].(string), last, x.path)
				}
				assert.False(t, open && !openLast, "%s: an open one stands after a closed one", x.path)
				last, openLast = line[x.at].(string), open
			}
			if cursor = page["next_cursor"].(string); cursor == "" {
				break
			}
		}
		assert.Len(t, seen, rows, x.path)
		assert.Greater(t, pages, 1, x.path)
		for _, bad := range []string{"x", "AAAA", "//", "%00", db.Cursor("2not a time", site), db.Cursor("1", site)} {
			assert.Equal(t, http.StatusUnprocessableEntity, c.Do(http.MethodGet, x.path+"&cursor="+bad, nil).Status, "%s %s",
				x.path, bad)
		}
	}
	// Words and times that a device may send, and some that none should.
	at := func(query string) int { return c.Do(http.MethodGet, "/jobs?"+query, nil).Status }
	assert.Equal(t, http.StatusOK, at("past=true&q="+url.QueryEscape(`100 % of "bank" \ _`)))
	assert.Equal(t, http.StatusUnprocessableEntity, at("q=%00"))
	assert.Equal(t, http.StatusUnprocessableEntity, at("since=yesterday"))
	assert.Equal(t, http.StatusUnprocessableEntity, at("q="+strings.Repeat("a+", 150)))
	for _, year := range []string{"0000", "9999"} {
		assert.Equal(t, http.StatusOK, at("past=true&cursor="+db.Cursor(year+"-01-01T00:00:00Z", site)), year)
		assert.Equal(t, http.StatusOK, c.Do(http.MethodGet, "/defects?cursor="+db.Cursor("1"+year+"-01-01T00:00:00Z", site),
			nil).Status, year)
	}
	// What nobody closed for months does not hide today.
	require.NoError(t, s.DB.Exec("update jobs set state = 'planned'").Error)
	today := testbed.Noon.Add(-24 * time.Hour).UTC().Format(time.RFC3339)
	var page m
	c.Do(http.MethodGet, "/jobs?since="+today, nil).Into(&page)
	var want int64
	require.NoError(t, s.DB.Raw("select count(*) from jobs where to_at > ?", testbed.Noon.Add(-24*time.Hour)).Scan(&want).Error)
	assert.Len(t, page["jobs"], int(want))
	assert.Empty(t, page["next_cursor"])
}
