package types_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
	"mainstay/internal/workshop"
)

func kite(t *testing.T, s *testbed.Stage, like string) airframe.Type {
	t.Helper()
	ty, err := s.Fleet.Type(context.Background(), like)
	require.NoError(t, err)
	ty.Key, ty.Name, ty.Version, ty.Practice = "kite", "Kite", 1, nil
	return ty
}

// A type of one's own takes over the checklist and the programme of one that it is like, and can
// be walked at once; with other arms, what does not fit is said, and nothing is kept.
func TestATypeLikeAnother(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	ty := kite(t, s, "lantern-4")
	ty.Geometry.Rotors, ty.Limits.WindMS, ty.Limits.GustMS = 6, 8, 11
	ty = ty.Prepared()
	got, err := s.Types.Try(ctx, ty)
	require.NoError(t, err)
	assert.Empty(t, got.Wrong)
	require.NotEmpty(t, got.Like)
	assert.Contains(t, got.Like, "lantern-4", "a corner for each arm fits any number of arms")
	require.NoError(t, s.Types.Add(ctx, ty, "lantern-4"))
	l, err := s.Walkrounds.List(ctx, "kite", 0)
	require.NoError(t, err)
	assert.Equal(t, 1, l.Version)
	items, _ := checks.Expand(l, ty, checks.Ask{Round: checks.Full})
	corners := 0
	for _, it := range items {
		if len(it.ID) > 7 && it.ID[:7] == "corner-" {
			corners++
		}
	}
	assert.Equal(t, 6, corners)
	p, err := s.Workshop.Programme(ctx, "kite")
	require.NoError(t, err)
	assert.NotEmpty(t, p.Tasks)

	wing := kite(t, s, "tally-w")
	wing.Key, wing.Name = "gull", "Gull"
	got, err = s.Types.Try(ctx, wing)
	require.NoError(t, err)
	assert.Equal(t, "tally-w", got.Like[0])
	assert.NotContains(t, got.Like, "lantern-4")
	err = s.Types.Add(ctx, wing, "lantern-4")
	assert.True(t, fault.Is(err, "invalid"), "%v", err)
	_, err = s.Fleet.Type(ctx, "gull")
	assert.True(t, fault.Is(err, "not-found"), "nothing is kept of a type whose list does not fit: %v", err)
	wing.Geometry.Tail = airframe.VTail
	wing = wing.Prepared()
	require.NoError(t, s.Types.Add(ctx, wing, "tally-w"))
	l, err = s.Walkrounds.List(ctx, "gull", 0)
	require.NoError(t, err)
	assert.Empty(t, l.Unvisited(wing), "places that the other type does not have are looked at too")
	assert.Equal(t, "also-surface-tail-right", l.Sections[1].Items[0].ID)
}

// A new version keeps the lists that the crew made for it.
func TestANewVersionKeepsItsLists(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	ty, err := s.Fleet.Type(ctx, "lantern-4")
	require.NoError(t, err)
	before, err := s.Walkrounds.List(ctx, "lantern-4", 0)
	require.NoError(t, err)
	ty.Version, ty.Practice = ty.Version+1, nil
	require.NoError(t, s.Types.Add(ctx, ty, "lantern-8"))
	after, err := s.Walkrounds.List(ctx, "lantern-4", 0)
	require.NoError(t, err)
	assert.Equal(t, before.Version, after.Version)
	bad := ty
	bad.Version, bad.Limits.WindMS, bad.Packs.Cells = bad.Version+1, 99, 0
	got, err := s.Types.Try(ctx, bad)
	require.NoError(t, err)
	assert.Len(t, got.Wrong, 3, "%v", got.Wrong)
	assert.Empty(t, got.Like)
}

// A type that gets other arms takes its lists after it: no place goes unseen, no task is lost, and
// what is being walked keeps the list that it began with.
func TestListsFollowTheType(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	ty := kite(t, s, "lantern-8")
	ty = ty.Prepared()
	require.NoError(t, s.Types.Add(ctx, ty, "lantern-8"))
	step := func(change func(*airframe.Type)) checks.List {
		change(&ty)
		ty.Version++
		ty = ty.Prepared()
		require.NoError(t, s.Types.Add(ctx, ty, ""))
		l, err := s.Walkrounds.List(ctx, "kite", 0)
		require.NoError(t, err)
		require.NoError(t, l.Validate(ty))
		assert.Empty(t, l.Unvisited(ty))
		return l
	}
	six := step(func(t *airframe.Type) { t.Geometry.Rotors, t.Unfold = 6, nil })
	assert.Equal(t, 2, six.Version)
	twelve := step(func(t *airframe.Type) { t.Power = &airframe.Power{Coaxial: true} })
	assert.Equal(t, 3, twelve.Version)
	named := step(func(t *airframe.Type) { t.Name = "Kite B" })
	assert.Equal(t, 3, named.Version, "nothing changed for the list")
	before, err := s.Workshop.Programme(ctx, "lantern-8")
	require.NoError(t, err)
	p, err := s.Workshop.Programme(ctx, "kite")
	require.NoError(t, err)
	assert.Len(t, p.Tasks, len(before.Tasks), "no task is lost")
	require.NoError(t, workshop.Check(p, ty))
}
