package airspace_test

import (
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/internal/airspace"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/sites"
	"mainstay/internal/standins/desk"
	"mainstay/internal/testbed"
)

type bed struct {
	*testbed.Stage
	desk *desk.Desk
	site uuid.UUID
}

// setUp is a stage with a site inside the desk's control zone.
func setUp(t *testing.T) bed {
	b := bed{Stage: testbed.NewStage(t), site: testbed.NewID()}
	b.desk = desk.New(b.Stage.Services.Clock.Now)
	srv := httptest.NewServer(b.desk)
	t.Cleanup(srv.Close)
	b.Airspace.Desk = outside.New(srv.URL, "")
	require.NoError(t, b.Sites.Add(b.As(b.Chief), sites.Site{ID: b.site, Name: "Station", Lat: 46.3215, Lon: -119.6905,
		ElevationM: new(210.0)}))
	return b
}

func (b bed) over(t *testing.T) airspace.Seen {
	t.Helper()
	seen, err := b.Airspace.Over(b.As(b.Pilot), b.site, 60, testbed.Noon, testbed.Noon.Add(time.Hour))
	require.NoError(t, err)
	return seen
}

func (b bed) zone(t *testing.T, class string) uuid.UUID {
	t.Helper()
	for _, z := range b.over(t).Zoned {
		if string(z.Zone.Class) == class {
			return uuid.MustParse(z.Zone.ID)
		}
	}
	t.Fatal("no zone of class " + class)
	return uuid.Nil
}

func TestLookingUpTheAirspace(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Pilot)
	assert.Contains(t, b.over(t).Findings[0].Sentence, "has not been looked up")
	for name, f := range map[string]desk.Faults{"away": {Unreachable: true}, "nonsense": {Nonsense: true},
		"latitude first": {Swapped: true}} {
		b.desk.Set(f)
		assert.True(t, fault.Is(b.Airspace.Look(ctx, b.site), "desk"), name)
	}
	assert.Contains(t, b.over(t).Findings[0].Sentence, "has not been looked up", "nothing half-read was kept")
	b.desk.Set(desk.Faults{Fire: true})
	require.NoError(t, b.Airspace.Look(ctx, b.site))
	seen := b.over(t)
	assert.Equal(t, judge.Stop, judge.Worst(seen.Findings))
	assert.Len(t, seen.Zoned, 4, "the range is too far")
	assert.True(t, strings.HasPrefix(seen.Zoned[0].Sentence, "Inside Fire fighting, canal") ||
		strings.HasPrefix(seen.Zoned[1].Sentence, "Inside Fire fighting, canal"))
	b.desk.Set(desk.Faults{})
	require.NoError(t, b.Airspace.Look(ctx, b.site))
	assert.Len(t, b.over(t).Zoned, 3, "the temporary area is gone")
	b.Clock.Advance(25 * time.Hour)
	assert.Contains(t, b.over(t).Findings[0].Sentence, "over 24 hours")
	assert.True(t, fault.Is(b.Airspace.Look(ctx, testbed.NewID()), "not-found"))
}

func TestZonesByFile(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Pilot)
	file := func(class string) string {
		return `{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Polygon","coordinates":[[[-119.70,46.31],[-119.68,46.31],[-119.68,46.33],[-119.70,46.33],[-119.70,46.31]]]},"properties":{"id":"r","name":"Range","class":"` +
			class + `"}},
			{"type":"Feature","geometry":{"type":"Point","coordinates":[-119.7,46.3]},"properties":{"name":"Dot","class":"D"}}]}`
	}
	rep, err := b.Airspace.Import(ctx, b.site, strings.NewReader(file("restricted")))
	require.NoError(t, err)
	assert.Equal(t, 1, rep.Accepted)
	assert.Contains(t, rep.Refused[0].Sentence, "Zone 2 (Dot): a zone is an area")
	assert.Contains(t, b.over(t).Findings[0].Sentence, "has not been looked up",
		"a zone that could not be read may be the one that matters")
	_, err = b.Airspace.Import(ctx, b.site, strings.NewReader(file("Q")))
	assert.True(t, fault.Is(err, "invalid"))
	assert.Contains(t, err.Error(), "is none of", "it says why")
	err = b.Airspace.Ask(ctx, airspace.New{ID: testbed.NewID(), Site: b.site, Zone: b.zone(t, "restricted"), CeilingM: 60,
		From: testbed.Noon, To: testbed.Noon.Add(time.Hour)})
	assert.True(t, fault.Is(err, "invalid"), "no desk takes requests for it: %v", err)
	require.NoError(t, b.Airspace.Ask(ctx, airspace.New{ID: testbed.NewID(), Site: b.site, Zone: b.zone(t, "restricted"),
		Number: "P-3", CeilingM: 60, From: testbed.Noon, To: testbed.Noon.Add(time.Hour)}))
	assert.Contains(t, b.over(t).Zoned[0].Sentence, "P-3 holds")
	require.NoError(t, b.Airspace.Remove(ctx, b.zone(t, "restricted")))
	assert.Empty(t, b.over(t).Zoned, "taken off the file")
	require.NoError(t, b.Airspace.Look(ctx, b.site))
	assert.True(t, fault.Is(b.Airspace.Remove(ctx, b.zone(t, "D")), "not-found"), "zones of the desk go when it says so")
}

func TestAuthorisationsAndCalls(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Pilot)
	b.desk.Set(desk.Faults{DelayS: 20})
	require.NoError(t, b.Airspace.Look(ctx, b.site))
	zone := b.zone(t, "D")
	ask := func(id uuid.UUID, ceiling float64) error {
		return b.Airspace.Ask(ctx, airspace.New{ID: id, Site: b.site, Zone: zone, CeilingM: ceiling, From: testbed.Noon,
			To: testbed.Noon.Add(2 * time.Hour)})
	}
	newest := func() airspace.Authorisation {
		require.NoError(t, b.Airspace.Refresh(ctx, b.site))
		as, err := b.Airspace.Authorisations(ctx, b.site)
		require.NoError(t, err)
		return as[0]
	}
	first := testbed.NewID()
	require.NoError(t, ask(first, 60))
	require.NoError(t, ask(first, 60), "the same press twice is one request")
	assert.Equal(t, "asked", newest().State)
	assert.True(t, fault.Is(b.Airspace.Call(ctx, first, airspace.Call{ID: testbed.NewID(), Kind: "start", How: "desk"}),
		"not-granted"))
	b.Clock.Advance(21 * time.Second)
	got := newest()
	assert.Equal(t, "granted", got.State)
	assert.NotEmpty(t, got.Number)
	assert.Contains(t, b.over(t).Findings[0].Sentence, "must be told before the start")

	b.desk.Set(desk.Faults{Unreachable: true})
	assert.True(t, fault.Is(b.Airspace.Call(ctx, first, airspace.Call{ID: testbed.NewID(), Kind: "start", How: "desk"}),
		"desk"))
	require.NoError(t, b.Airspace.Call(ctx, first, airspace.Call{ID: testbed.NewID(), Kind: "start", How: "spoken"}))
	assert.Empty(t, b.over(t).Findings)
	b.desk.Set(desk.Faults{})
	require.NoError(t, b.Airspace.Call(ctx, first, airspace.Call{ID: testbed.NewID(), Kind: "end", How: "desk"}))
	assert.NotEmpty(t, b.over(t).Findings, "after the end another start needs another call")
	require.NoError(t, b.Airspace.Withdraw(ctx, first))
	assert.Contains(t, b.over(t).Findings[0].Sentence, "without authorisation")

	b.desk.Set(desk.Faults{Refuse: true})
	require.NoError(t, ask(testbed.NewID(), 60))
	assert.Equal(t, "refused", newest().State)
	b.desk.Set(desk.Faults{Lower: true})
	b.Clock.Advance(time.Second)
	require.NoError(t, ask(testbed.NewID(), 100))
	assert.InDelta(t, 50, newest().CeilingM, 1e-9, "what was granted counts, not what was asked")
	assert.Contains(t, b.over(t).Zoned[0].Sentence, "ends at 50 m, the flight goes to 60 m")
	b.desk.Set(desk.Faults{Unreachable: true})
	lost := testbed.NewID()
	assert.True(t, fault.Is(ask(lost, 60), "desk"))
	b.desk.Set(desk.Faults{Silent: true})
	require.NoError(t, ask(lost, 60), "it can be asked again")
	for name, n := range map[string]airspace.New{
		"backwards": {Zone: zone, CeilingM: 60, From: testbed.Noon, To: testbed.Noon.Add(-time.Hour)},
		"over":      {Zone: zone, CeilingM: 60, From: testbed.Noon.Add(-3 * time.Hour), To: testbed.Noon.Add(-2 * time.Hour)},
		"advisory":  {Zone: b.zone(t, "advisory"), CeilingM: 60, From: testbed.Noon, To: testbed.Noon.Add(time.Hour)},
	} {
		n.ID, n.Site = testbed.NewID(), b.site
		assert.True(t, fault.Is(b.Airspace.Ask(ctx, n), "invalid"), name)
	}
	assert.True(t, fault.Is(b.Airspace.Ask(ctx, airspace.New{ID: testbed.NewID(), Site: b.site, Zone: testbed.NewID(),
		From: testbed.Noon, To: testbed.Noon.Add(time.Hour)}), "not-found"))
}

// A desk that grants without a number, or answers another request, grants
// nothing.
func TestAnswersThatCannotBe(t *testing.T) {
	b := setUp(t)
	ctx := b.As(b.Pilot)
	require.NoError(t, b.Airspace.Look(ctx, b.site))
	zone := b.zone(t, "D")
	for name, answer := range map[string]string{
		"no number": `{"ref":"REF","state":"granted","ceiling_m":60,"from":"2026-06-10T16:00:00Z","to":"2026-06-10T18:00:00Z"}`,
		"other":     `{"ref":"other","state":"granted","number":"X","ceiling_m":60,"from":"2026-06-10T16:00:00Z","to":"2026-06-10T18:00:00Z"}`,
		"state":     `{"ref":"REF","state":"perhaps"}`,
		"backwards": `{"ref":"REF","state":"granted","number":"X","ceiling_m":60,"from":"2026-06-10T18:00:00Z","to":"2026-06-10T16:00:00Z"}`,
	} {
		id := testbed.NewID()
		srv := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
			_, _ = w.Write([]byte(strings.ReplaceAll(answer, "REF", id.String())))
		}))
		b.Airspace.Desk = outside.New(srv.URL, "")
		err := b.Airspace.Ask(ctx, airspace.New{ID: id, Site: b.site, Zone: zone, CeilingM: 60, From: testbed.Noon,
			To: testbed.Noon.Add(time.Hour)})
		assert.True(t, fault.Is(err, "desk"), "%s: %v", name, err)
		srv.Close()
	}
	as, err := b.Airspace.Authorisations(ctx, b.site)
	require.NoError(t, err)
	assert.Empty(t, as)
}
