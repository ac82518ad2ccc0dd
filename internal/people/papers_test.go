package people_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

func TestDocuments(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	on := func(days int) *time.Time { d := testbed.Noon.Truncate(24*time.Hour).AddDate(0, 0, days); return &d }
	good := people.Document{ID: testbed.NewID(), Kind: "waiver", Number: " W-1 ", IssuedOn: on(-10), ExpiresOn: on(10),
		Rules: []string{"height"}}
	for field, change := range map[string]func(*people.Document){
		"kind":       func(d *people.Document) { d.Kind = "diploma" },
		"number":     func(d *people.Document) { d.Number = "  " },
		"person_id":  func(d *people.Document) { d.PersonID = &s.Pilot.ID },
		"issued_on":  func(d *people.Document) { d.IssuedOn = on(3) },
		"expires_on": func(d *people.Document) { d.ExpiresOn = on(-20) },
		"rules":      func(d *people.Document) { d.Rules = nil },
	} {
		d := good
		change(&d)
		f, ok := fault.As(s.People.SaveDocument(ctx, d))
		require.True(t, ok, field)
		assert.Equal(t, field, f.Fields[0].Field)
	}
	require.NoError(t, s.People.SaveDocument(ctx, good))
	good.Number = "W-2"
	assert.True(t, fault.Is(s.People.SaveDocument(ctx, good), "stale"), "an older version does not overwrite")
	good.Version = 1
	require.NoError(t, s.People.SaveDocument(ctx, good))
	docs, err := s.People.Documents(ctx)
	require.NoError(t, err)
	require.Len(t, docs, 1)
	assert.Equal(t, "W-2", docs[0].Number)
	assert.True(t, docs[0].Fact().InForce(*on(10)), "the last day counts")
	assert.False(t, docs[0].Fact().InForce(*on(11)))
	require.NoError(t, s.People.RemoveDocument(ctx, good.ID))
	assert.True(t, fault.Is(s.People.RemoveDocument(ctx, good.ID), "not-found"))
}

// The newest declaration of the civil day counts, and only for that day.
func TestFitness(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	c, _, err := s.People.Crew(ctx)
	require.NoError(t, err)
	fit := func() (words []string, declared bool) {
		m, err := s.People.FitOn(ctx, c.Day(s.Clock.Now()))
		require.NoError(t, err)
		f, ok := m[s.Tech.ID]
		return f.Words(), ok
	}
	_, declared := fit()
	assert.False(t, declared)
	assert.Error(t, s.People.DeclareFit(ctx, testbed.NewID(), []string{"hunger"}))
	id := testbed.NewID()
	require.NoError(t, s.People.DeclareFit(ctx, id, nil))
	require.NoError(t, s.People.DeclareFit(ctx, id, []string{"stress"}), "the same id twice changes nothing")
	words, declared := fit()
	assert.True(t, declared)
	assert.Empty(t, words)
	s.Clock.Advance(time.Second)
	require.NoError(t, s.People.DeclareFit(ctx, testbed.NewID(), []string{"stress"}))
	words, _ = fit()
	assert.Equal(t, []string{"stress"}, words)
	s.Clock.Advance(24 * time.Hour)
	_, declared = fit()
	assert.False(t, declared, "another day, another declaration")
}
