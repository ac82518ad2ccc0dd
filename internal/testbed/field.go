package testbed

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"mainstay/core/crew"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/server"
	"mainstay/internal/sites"
)

// Field is a practice site with nothing about it to find, and the practice job
// on it.
type Field struct {
	Site uuid.UUID // charted and level
	svc  *server.Services
	team []Mate // the first is in command
	job  jobs.Job
	only string // name of the one aircraft it is for; empty: all
	t    testing.TB
}

// Mate is a person with the post in the practice job.
type Mate struct {
	people.Person
	Post string
	PIN  string
}

// NewField charts a practice site for a team; the first is in command.
func NewField(t testing.TB, svc *server.Services, team ...Mate) *Field {
	f := &Field{svc: svc, team: team, t: t}
	f.chart()
	return f
}

// Only leaves all aircraft out of the practice job but one.
func (f *Field) Only(aircraft string) *Field {
	f.only = aircraft
	return f
}

// Where the practice site of a stage lies.
const (
	SiteLat = 46.31
	SiteLon = -119.70
	SiteM   = 210.0
)

// chart puts the practice site on file, with nothing about it to find.
func (f *Field) chart() {
	f.t.Helper()
	ctx := f.asChief()
	f.Site = NewID()
	require.NoError(f.t, f.svc.Sites.Add(ctx, sites.Site{ID: f.Site, Name: "Practice field", Lat: SiteLat, Lon: SiteLon,
		ElevationM: new(SiteM), Practice: true}))
	yes := true
	for _, x := range []site.Feature{
		{Kind: site.TakeOff, Shape: site.Point, Name: "Field gate", Free: []float64{0, 90, 180, 270},
			Places: []geo.Point{{Lat: SiteLat, Lon: SiteLon}}, Ground: &site.GroundCheck{Flat: &yes, Firm: &yes, Clear: &yes,
				NoPlastic: &yes, NoDust: &yes, NoPeople: &yes}},
		{Kind: site.Route, Shape: site.Line, Name: "Round the field",
			Places: []geo.Point{{Lat: SiteLat + 0.001, Lon: SiteLon}, {Lat: SiteLat + 0.001, Lon: SiteLon + 0.001}}},
	} {
		x.ID = NewID().String()
		require.NoError(f.t, f.svc.Sites.SaveFeature(ctx, f.Site, x, 0))
	}
	require.NoError(f.t, f.svc.Sites.PutTerrain(ctx, f.Site, "level.asc", 0, Level(SiteLat, SiteLon, SiteM)))
}

// asChief acts for a chief of the crew.
func (f *Field) asChief() context.Context {
	f.t.Helper()
	all, err := f.svc.People.List(context.Background())
	require.NoError(f.t, err)
	i := slices.IndexFunc(all, func(p people.Person) bool { return slices.Contains(p.Held(), crew.Chief) })
	require.GreaterOrEqual(f.t, i, 0)
	return people.With(context.Background(), all[i])
}

// as acts for who is in command.
func (f *Field) as() context.Context { return people.With(context.Background(), f.team[0].Person) }

// Practice is a practice job of now with everything about it in order: the
// team posted, weather read, airspace looked up,
// questions answered, briefing signed. It is planned anew when the last one is
// over.
func (f *Field) Practice() uuid.UUID {
	f.t.Helper()
	now, ctx := f.svc.Clock.Now(), f.as()
	stamp := now.UTC().Truncate(time.Minute)
	station, near := SiteM, 12.0
	require.NoError(f.t, f.svc.Sites.AddWeather(ctx, f.Site,
		sites.NewWeather{ID: NewID(), Ground: "open", StationM: &station, StationKm: &near,
			Report: "METAR KZZT " + stamp.Format("021504") + "Z 24006KT 10SM CLR 16/06 A3000"}))
	require.NoError(f.t, f.svc.Airspace.Take(ctx, f.Site, NoZones(SiteLat, SiteLon)))
	for _, m := range f.team {
		require.NoError(f.t, f.svc.People.DeclareFit(people.With(ctx, m.Person), NewID(), nil))
	}
	if f.job.ID != uuid.Nil && now.Before(f.job.ToAt.Add(-time.Hour)) {
		return f.job.ID
	}
	if f.job.ID != uuid.Nil && now.Before(f.job.ToAt) && f.svc.Jobs.End(ctx, f.job.ID, jobs.CalledOff, 1) != nil {
		return f.job.ID // something of it is in the air
	}
	height, speed := 30.0, 5.0
	f.job = jobs.Job{ID: NewID(), Work: rules.Practised, SiteID: f.Site, Aim: "Practice", FromAt: now.Add(-time.Minute),
		ToAt: now.Add(6 * time.Hour)}
	for _, m := range f.team {
		f.job.People = append(f.job.People, jobs.Post{PersonID: m.ID, Post: m.Post})
	}
	list, err := f.svc.Fleet.Conditions(ctx, nil)
	require.NoError(f.t, err)
	for _, c := range list {
		if f.only != "" && c.Aircraft.Name != f.only {
			continue
		}
		f.job.Aircraft = append(f.job.Aircraft, jobs.Craft{AircraftID: c.Aircraft.ID, ReturnM: &height,
			LostLink: string(intent.Returns), SpeedMS: &speed})
	}
	require.NoError(f.t, f.svc.Jobs.Save(ctx, f.job))
	f.answer(f.job)
	return f.job.ID
}

// Include brings aircraft that were added since into the practice job.
func (f *Field) Include() {
	f.t.Helper()
	require.NoError(f.t, f.svc.Jobs.End(f.as(), f.job.ID, jobs.CalledOff, 1))
	f.job = jobs.Job{}
}

// answer gives every question the answer with which all is well, and has
// everybody sign the briefing.
func (f *Field) answer(j jobs.Job) {
	f.t.Helper()
	ctx, said, id := f.as(), map[string]string{}, NewID()
	a, err := f.svc.Jobs.Assess(ctx, j.ID)
	require.NoError(f.t, err)
	for _, q := range a.Asks {
		said[q.ID] = q.Options[0].ID
	}
	require.NoError(f.t, f.svc.Jobs.Answer(ctx, j.ID, said))
	require.NoError(f.t, f.svc.Jobs.Brief(ctx, j.ID, id))
	b, err := f.svc.Jobs.Newest(ctx, j.ID)
	require.NoError(f.t, err)
	for _, m := range f.team {
		require.NoError(f.t, f.svc.Jobs.SignBriefing(ctx, j.ID, id, m.ID, b.Hash, m.PIN))
	}
}

// NoZones is the answer of an airspace desk that knows of no zone round a place.
func NoZones(lat, lon float64) []byte {
	return fmt.Appendf(nil, `{"type":"FeatureCollection","covers":{"lat":%g,"lon":%g,"radius_km":15},"features":[]}`, lat,
		lon)
}

// Level is a terrain of one height round a place, 1.5 km each way.
func Level(lat, lon, m float64) *strings.Reader {
	var s strings.Builder
	const n, cell = 120, 0.00025
	fmt.Fprintf(&s, "ncols %d\nnrows %d\nxllcenter %.6f\nyllcenter %.6f\ncellsize %g\nnodata_value -9999\n", n, n,
		lon-n/2*cell, lat-n/2*cell, cell)
	row := strings.Repeat(fmt.Sprintf("%g ", m), n) + "\n"
	s.WriteString(strings.Repeat(row, n))
	return strings.NewReader(s.String())
}
