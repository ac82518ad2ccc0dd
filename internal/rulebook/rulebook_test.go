package rulebook_test

import (
	"context"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/internal/platform/fault"
	"mainstay/internal/rulebook"
	"mainstay/internal/testbed"
)

// Every item of the advisory list is covered for every shipped type.
func TestShippedListsCoverTheAdvisoryList(t *testing.T) {
	s := testbed.NewStage(t)
	cs, err := s.Rules.Coverage(s.As(s.Chief))
	require.NoError(t, err)
	require.Len(t, cs, 6)
	for _, c := range cs {
		for _, it := range c.Items {
			assert.False(t, it.Missing, "%s: %s", c.Type.Name, it.Item)
		}
	}
}

// Another pack judges by other rules at once; the record of the gate names it.
func TestChoosingAPack(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	h := rulebook.Handlers{Rules: s.Rules}
	told := func() api.ListReports200JSONResponse {
		r, err := h.ListReports(ctx, api.ListReportsRequestObject{})
		require.NoError(t, err)
		return r.(api.ListReports200JSONResponse)
	}
	assert.Equal(t, "14 CFR 107.9", told().Citation)
	require.NoError(t, s.Rules.Choose(ctx, rulebook.Choice{Pack: "eu-specific", SightM: 300}, 1))
	assert.True(t, fault.Is(s.Rules.Choose(ctx, rulebook.Choice{Pack: "moon", SightM: 300}, 2), "invalid"))
	assert.Contains(t, told().Statement, "within 72 hours")
	a, err := s.Flights.Ask(s.As(s.Pilot), s.Question(s.Packs[0].ID))
	require.NoError(t, err)
	assert.Equal(t, "eu-specific 2", a.Output.Rules)
	found := false
	for _, f := range a.Output.Findings {
		found = found || f.Rule == "operator" && f.Verdict == judge.Stop
	}
	assert.True(t, found, "no proof of competency is on file")
}

func TestOwnRules(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	id := testbed.NewID()
	l := rules.Local{ID: id.String(), Statement: "Boots.", Question: "Boots on?", Work: []string{}, Verdict: judge.Watch}
	require.NoError(t, s.Rules.SaveLocal(ctx, l, 0))
	l.Verdict = judge.Stop
	assert.True(t, fault.Is(s.Rules.SaveLocal(ctx, l, 0), "stale"))
	require.NoError(t, s.Rules.SaveLocal(ctx, l, 1))
	l.Question = "no mark"
	assert.True(t, fault.Is(s.Rules.SaveLocal(ctx, l, 2), "invalid"))
	b, err := s.Rules.Book(ctx)
	require.NoError(t, err)
	require.Len(t, b.Local, 1)
	assert.Equal(t, judge.Stop, b.Local[0].Verdict)
	require.NoError(t, s.Rules.RemoveLocal(ctx, id))
	assert.True(t, fault.Is(s.Rules.RemoveLocal(ctx, id), "not-found"))
}

// Ten days, counted down in the gate, and over once it is reported.
func TestReports(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	id := testbed.NewID()
	assert.True(t, fault.Is(s.Rules.Raise(ctx, rulebook.Report{ID: id, What: "Fence",
		HappenedAt: testbed.Noon.Add(time.Hour)}), "invalid"))
	require.NoError(t, s.Rules.Raise(ctx, rulebook.Report{ID: id, What: "Fence", HappenedAt: testbed.Noon}))
	verdict := func() judge.Verdict {
		a, err := s.Flights.Ask(s.As(s.Pilot), s.Question(s.Packs[0].ID))
		require.NoError(t, err)
		for _, f := range a.Output.Findings {
			if f.Rule == "accident" {
				return f.Verdict
			}
		}
		return judge.Clear
	}
	assert.Equal(t, judge.Watch, verdict())
	s.Clock.Advance(10*24*time.Hour + time.Second)
	assert.Equal(t, judge.Stop, verdict())
	require.NoError(t, s.Rules.Done(ctx, id, "R-1"))
	assert.Equal(t, judge.Clear, verdict())
	assert.True(t, fault.Is(s.Rules.Done(ctx, id, "R-1"), "not-found"))
	rs, _, err := s.Rules.Reports(context.Background(), "")
	require.NoError(t, err)
	assert.Equal(t, "R-1", rs[0].Reference)
	assert.NotEqual(t, uuid.Nil, rs[0].ID)
}
