package people_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/crew"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

var good = people.Crew{Name: "Crew", Zone: "Europe/Berlin",
	Units: people.Shown{Length: "ft", Speed: "kt", Mass: "lb", Temperature: "degF", Volume: "gal"}}

func TestSetUpOnce(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	ctx := context.Background()
	chief := people.New{Login: "first", Name: "First", Password: "long enough", PIN: "2580"}
	bad := good
	bad.Zone, bad.Units.Speed = "Nowhere/City", "ft"
	_, err := svc.People.SetUp(ctx, bad, chief)
	f, ok := fault.As(err)
	require.True(t, ok)
	assert.Len(t, f.Fields, 2)
	_, err = svc.People.SetUp(ctx, good, people.New{Login: "a b", Name: "", Password: "short", PIN: "12"})
	f, ok = fault.As(err)
	require.True(t, ok)
	assert.Len(t, f.Fields, 4)
	_, done, err := svc.People.Crew(ctx)
	require.NoError(t, err)
	assert.False(t, done, "a chief who cannot be made leaves no crew behind")
	p, err := svc.People.SetUp(ctx, good, chief)
	require.NoError(t, err)
	assert.True(t, p.Has(crew.Technician), "a chief may do all")
	_, err = svc.People.SetUp(ctx, good, chief)
	assert.True(t, fault.Is(err, "already-set-up"))
}

func TestPINForms(t *testing.T) {
	s := testbed.NewStage(t)
	for _, pin := range []string{"", "123", "1234567890123", "12a4", "1111", "1234", "4321", "987654", "0123", "7890",
		"2468", "1212", "123123", "1987", "2026", "240687", "06241987", "20260610"} {
		assert.Error(t, s.People.ChangePIN(context.Background(), s.Pilot.ID, "long enough", pin), pin)
	}
	require.NoError(t, s.People.ChangePIN(context.Background(), s.Pilot.ID, "long enough", "7391"))
	assert.NoError(t, s.People.Sign(context.Background(), s.Pilot.ID, "7391"))
	assert.Error(t, s.People.Sign(context.Background(), s.Pilot.ID, testbed.PIN))
	assert.ErrorContains(t, s.People.ChangePIN(context.Background(), s.Pilot.ID, "not mine", "7391"), "not your password")
}

func TestSigningLocksAfterFiveWrongPINs(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	for range 5 {
		err := s.People.Sign(ctx, s.Pilot.ID, "0000")
		assert.True(t, fault.Is(err, "invalid"), "%v", err)
	}
	assert.True(t, fault.Is(s.People.Sign(ctx, s.Pilot.ID, testbed.PIN), "locked"))
	assert.NoError(t, s.People.Sign(ctx, s.Tech.ID, testbed.PIN), "others may still sign")
	s.Clock.Advance(5*time.Minute + time.Second)
	assert.NoError(t, s.People.Sign(ctx, s.Pilot.ID, testbed.PIN))
	assert.True(t, fault.Is(s.People.Sign(ctx, s.Pilot.ID, "0000"), "invalid"), "and the count begins anew")
}

func TestPeopleEdits(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := context.Background()
	_, err := s.People.Add(ctx, people.New{ID: testbed.NewID(), Login: "PILOT", Name: "Twin",
		Roles: []crew.Role{crew.Hand}, Password: "long enough", PIN: "2580"})
	f, ok := fault.As(err)
	require.True(t, ok)
	assert.Equal(t, "login", f.Fields[0].Field)
	future := testbed.Noon.AddDate(0, 1, 0)
	_, err = s.People.Update(ctx, s.Pilot.ID, people.Edit{Version: 1, Name: "x", Roles: []crew.Role{crew.Pilot},
		Active: true, TrainedOn: &future})
	assert.ErrorContains(t, err, "future")
	five, two := 5, 2
	_, err = s.People.Update(ctx, s.Pilot.ID, people.Edit{Version: 1, Name: "x", Roles: []crew.Role{crew.Pilot},
		Active: true, StickMode: &five})
	assert.ErrorContains(t, err, "Stick modes are 1 to 4.")
	e := people.Edit{Version: 1, StickMode: &two, Name: "Renamed", Roles: []crew.Role{crew.Pilot}, Active: true,
		Certificate: "R-9"}
	_, err = s.People.Update(ctx, s.Pilot.ID, e)
	require.NoError(t, err)
	_, err = s.People.Update(ctx, s.Pilot.ID, e)
	assert.True(t, fault.Is(err, "stale"))
	_, err = s.People.Update(ctx, s.Chief.ID, people.Edit{Version: s.Chief.Version, Name: "Chief",
		Roles: []crew.Role{crew.Pilot}, Active: true})
	assert.ErrorContains(t, err, "only chief")
	_, err = s.People.Update(ctx, s.Chief.ID, people.Edit{Version: s.Chief.Version, Name: "Chief",
		Roles: []crew.Role{crew.Chief}, Active: false})
	assert.ErrorContains(t, err, "only chief")
	_, err = s.People.SignIn(ctx, "tech", "long enough")
	require.NoError(t, err)
	require.NoError(t, s.People.ChangePassword(ctx, s.Tech.ID, "long enough", "longer still"))
	_, err = s.People.SignIn(ctx, "tech", "long enough")
	assert.True(t, fault.Is(err, "wrong-password"))
}

func TestDayFollowsTheZone(t *testing.T) {
	late := time.Date(2026, 6, 10, 23, 30, 0, 0, time.UTC)
	assert.Equal(t, 11, good.Day(late).Day(), "half past one in Berlin")
	la := people.Crew{Zone: "America/Los_Angeles"}
	assert.Equal(t, 10, la.Day(late).Day())
}
