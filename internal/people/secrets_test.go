package people_test

import (
	"context"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/crew"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// on is a context of a request from a browser.
func on(token, address string) context.Context {
	return people.On(context.Background(), people.Device{Token: token, Address: address})
}

func TestPasswordsThatAreGuessedFirst(t *testing.T) {
	s := testbed.NewStage(t)
	for _, pw := range []string{"", "short", "aaaaaaaaaaaa", "abababababab", "1234567890", "9876543210", "abcdefghijkl",
		"password2026", "Password!!!!", "2026202620", "06101987!!", "pilot-pilot", "pilotperson1", "1111122222"} {
		assert.Error(t, s.People.ChangePassword(context.Background(), s.Pilot.ID, "long enough", pw), pw)
	}
	for _, pw := range []string{"green cellar stone", "tv8!kw02-lmQ", "hop hedge drum oak"} {
		svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
		_, err := svc.People.SetUp(context.Background(), good,
			people.New{Login: "first", Name: "First Person", Password: pw, PIN: "2580"})
		assert.NoError(t, err, pw)
	}
}

// However many guess at once, and however the name is spelt, no more are judged
// than the limit lets through.
func TestGuessesAtOnceAreNoMoreThanTheLimit(t *testing.T) {
	s := testbed.NewStage(t)
	svc := testbed.Wide(t, s.URL, s.Clock, 16)
	svc.People.Hash = s.People.Hash
	var judged, locked atomic.Int64
	var all sync.WaitGroup
	for i := range 400 {
		all.Go(func() {
			login := []string{"chief", "CHIEF", "Chief", "cHiEf"}[i%4]
			_, err := svc.People.SignIn(on(fmt.Sprintf("device %d", i), fmt.Sprintf("10.0.%d.%d", i/200, i%200)), login,
				fmt.Sprintf("guess number %d", i))
			switch {
			case fault.Is(err, "wrong-password"):
				judged.Add(1)
			case fault.Is(err, "locked"):
				locked.Add(1)
			default:
				t.Errorf("%v", err)
			}
		})
	}
	all.Wait()
	assert.EqualValues(t, 5, judged.Load())
	assert.EqualValues(t, 395, locked.Load())
	judged.Store(0)
	for i := range 100 {
		all.Go(func() {
			asker := people.With(on("the tablet", "10.9.9.9"), s.Tech)
			if err := svc.People.Sign(asker, s.Chief.ID, fmt.Sprintf("%04d", 3000+i*7)); fault.Is(err, "invalid") {
				judged.Add(1)
			}
		})
	}
	all.Wait()
	assert.EqualValues(t, 5, judged.Load(), "of the PIN too")
}

// Forty right ones at once are no guesses.
func TestRightPINsAtOnceLockNobody(t *testing.T) {
	s := testbed.NewStage(t)
	svc := testbed.Wide(t, s.URL, s.Clock, 16)
	svc.People.Hash = s.People.Hash
	var all sync.WaitGroup
	for range 40 {
		all.Go(func() { assert.NoError(t, svc.People.Sign(on("t", "10.0.0.1"), s.Pilot.ID, testbed.PIN)) })
	}
	all.Wait()
}

// Whoever guesses elsewhere locks elsewhere: on their own device the person
// goes on.
func TestGuessingElsewhereDoesNotLockOwnDevice(t *testing.T) {
	s := testbed.NewStage(t)
	own := people.With(on("own tablet", "10.0.0.1"), s.Pilot)
	_, err := s.People.SignIn(own, "pilot", "long enough")
	require.NoError(t, err)
	for i := range 8 {
		_, _ = s.People.SignIn(on("", fmt.Sprintf("10.0.7.%d", i)), "pilot", "guess guess")
		_ = s.People.Sign(people.With(on("another", "10.0.8.8"), s.Tech), s.Pilot.ID, "0007")
	}
	_, err = s.People.SignIn(on("new", "10.0.0.2"), "pilot", "long enough")
	assert.True(t, fault.Is(err, "locked"), "a device never seen waits: %v", err)
	_, err = s.People.SignIn(own, "pilot", "long enough")
	assert.NoError(t, err)
	assert.NoError(t, s.People.Sign(own, s.Pilot.ID, testbed.PIN))
	for range 5 {
		assert.True(t, fault.Is(s.People.Sign(own, s.Pilot.ID, "0007"), "invalid"))
	}
	assert.True(t, fault.Is(s.People.Sign(own, s.Pilot.ID, testbed.PIN), "locked"), "on their own device tries count too")
}

// Whoever knows a password, or a one-time one, cannot try PINs from one new
// browser after the other.
func TestNewDevicesGiveNoNewGuesses(t *testing.T) {
	s := testbed.NewStage(t)
	tryAll := func(password string) (judged int) {
		for i := range 40 {
			ctx := people.With(on(testbed.NewID().String(), fmt.Sprintf("10.1.%d.%d", len(password), i)), s.Pilot)
			if _, err := s.People.SignIn(ctx, "pilot", password); err != nil {
				continue
			}
			for range 6 {
				if err := s.People.Sign(ctx, s.Pilot.ID, "0007"); fault.Is(err, "invalid") {
					judged++
				} else if err := s.People.FirstSecrets(ctx, s.Pilot.ID, "hop hedge drum", "0007"); fault.Is(err, "invalid") {
					judged++
				}
			}
		}
		return judged
	}
	assert.LessOrEqual(t, tryAll("long enough"), 5*5+5)
	once, err := s.People.Reset(s.As(s.Chief), s.Pilot.ID)
	require.NoError(t, err)
	s.Clock.Advance(6 * time.Minute)
	assert.LessOrEqual(t, tryAll(once), 5)
}

// One who asks at many people on one tablet is stopped, whoever they are.
func TestAskerAndDeviceAreCounted(t *testing.T) {
	s := testbed.NewStage(t)
	var many []uuid.UUID
	for i := range 6 {
		p, err := s.People.Add(context.Background(), people.New{ID: testbed.NewID(), Login: fmt.Sprintf("hand%d", i),
			Name: fmt.Sprintf("Hand %c", 'A'+i), Roles: []crew.Role{crew.Hand}, Password: "green cellar", PIN: "7391"})
		require.NoError(t, err)
		many = append(many, p.ID)
	}
	judged := 0
	for i := range 30 {
		if err := s.People.Sign(people.With(on("tablet", "10.0.0.1"), s.Tech), many[i%6], "0007"); fault.Is(err, "invalid") {
			judged++
		}
	}
	assert.Equal(t, 10, judged)
	assert.True(t, fault.Is(s.People.Sign(people.With(on("other tablet", "10.0.0.2"), s.Tech), many[0], "7391"), "locked"),
		"the asker, on another device")
	assert.NoError(t, s.People.Sign(people.With(on("third", "10.0.0.3"), s.Chief), many[0], "7391"),
		"somebody else who asks")
}

// Each lock that follows another is longer, and a day later it is forgotten.
func TestLocksGrow(t *testing.T) {
	s := testbed.NewStage(t)
	guess := func() error { return s.People.Sign(context.Background(), s.Pilot.ID, "0007") }
	for _, wait := range []time.Duration{5, 10, 20, 40} {
		for range 5 {
			assert.True(t, fault.Is(guess(), "invalid"))
		}
		assert.True(t, fault.Is(guess(), "locked"))
		s.Clock.Advance(wait*time.Minute - time.Second)
		assert.True(t, fault.Is(guess(), "locked"), "%v", wait)
		s.Clock.Advance(2 * time.Second)
	}
	s.Clock.Advance(26 * time.Hour)
	for range 6 {
		_ = guess()
	}
	s.Clock.Advance(5*time.Minute + time.Second)
	assert.True(t, fault.Is(guess(), "invalid"))
	require.NoError(t, s.People.Forget(context.Background()))

	// A lock made while the clock was a year ahead does not last a year.
	s.Clock.Advance(365 * 24 * time.Hour)
	for range 12 {
		_ = guess()
	}
	assert.True(t, fault.Is(guess(), "locked"))
	s.Clock.Advance(-365 * 24 * time.Hour)
	assert.True(t, fault.Is(guess(), "invalid"))
}

// A chief gives one-time passwords, and with none of them can sign as the
// person.
func TestNobodySignsAsSomebodyElse(t *testing.T) {
	s := testbed.NewStage(t)
	chief := s.As(s.Chief)
	once, err := s.People.Reset(chief, s.Pilot.ID)
	require.NoError(t, err)
	assert.Regexp(t, "^[a-z2-9]{5}-[a-z2-9]{5}-[a-z2-9]{5}$", once)
	_, err = s.People.SignIn(context.Background(), "pilot", "long enough")
	assert.True(t, fault.Is(err, "wrong-password"), "the old one is gone")
	p, err := s.People.SignIn(context.Background(), "pilot", once)
	require.NoError(t, err)
	assert.Equal(t, "reset", p.Once)
	assert.ErrorContains(t, s.People.Sign(context.Background(), s.Pilot.ID, testbed.PIN), "has not chosen")
	assert.ErrorContains(t, s.People.ChangePIN(context.Background(), s.Pilot.ID, once, "7391"), "first",
		"the one-time password changes no PIN")
	assert.ErrorContains(t, s.People.ChangePassword(context.Background(), s.Pilot.ID, once, "hop hedge drum"), "first")
	assert.ErrorContains(t, s.People.FirstSecrets(context.Background(), s.Pilot.ID, "hop hedge drum", "7391"),
		"not your PIN", "a chief who does not know it comes no further")
	assert.ErrorContains(t, s.People.FirstSecrets(context.Background(), s.Pilot.ID, once, testbed.PIN), "one-time")
	again, err := s.People.Reset(chief, s.Pilot.ID)
	require.NoError(t, err, "a second reset changes nothing about the PIN")
	assert.NotEqual(t, once, again)
	assert.ErrorContains(t, s.People.FirstSecrets(context.Background(), s.Pilot.ID, "hop hedge drum", "4729"),
		"not your PIN")
	require.NoError(t, s.People.FirstSecrets(context.Background(), s.Pilot.ID, "hop hedge drum", testbed.PIN))
	assert.NoError(t, s.People.Sign(context.Background(), s.Pilot.ID, testbed.PIN))
	_, err = s.People.Reset(chief, s.Chief.ID)
	assert.Error(t, err, "nobody resets their own")

	n := people.New{ID: testbed.NewID(), Login: "newbie", Name: "New Person", Roles: []crew.Role{crew.Pilot}}
	_, once, err = s.People.Enrol(chief, n)
	require.NoError(t, err)
	_, second, err := s.People.Enrol(chief, n)
	require.NoError(t, err, "the same press again")
	_, err = s.People.SignIn(context.Background(), "newbie", once)
	assert.Error(t, err, "the first is void then")
	s.Clock.Advance(8 * 24 * time.Hour)
	_, err = s.People.SignIn(context.Background(), "newbie", second)
	assert.ErrorContains(t, err, "run out")
	once, err = s.People.Reset(chief, n.ID)
	require.NoError(t, err)
	p, err = s.People.SignIn(context.Background(), "newbie", once)
	require.NoError(t, err)
	assert.Equal(t, "new", p.Once)
	require.NoError(t, s.People.FirstSecrets(context.Background(), n.ID, "oak drum hop hedge", "7391"))
	assert.True(t, fault.Is(s.People.FirstSecrets(context.Background(), n.ID, "oak drum hop hedge", "7392"),
		"secrets-chosen"))
	assert.NoError(t, s.People.Sign(context.Background(), n.ID, "7391"))

	var kinds []string
	require.NoError(t, s.DB.Raw("select kind from records where subject = ? order by seq", n.ID).Scan(&kinds).Error)
	assert.Equal(t, []string{"person-added", "secret-reset", "secret-reset", "secret-changed"}, kinds)
}

// Who left, or lost a role, between the press and the signature signs nothing.
func TestStandingIsLookedAtWhenItIsSigned(t *testing.T) {
	s := testbed.NewStage(t)
	pilot := s.As(s.Pilot) // as it was when the request came
	edit := people.Edit{Version: s.Pilot.Version, Name: s.Pilot.Name, Roles: []crew.Role{crew.Reader}, Active: true,
		Certificate: "R-2"}
	p, err := s.People.Update(s.As(s.Chief), s.Pilot.ID, edit)
	require.NoError(t, err)
	err = s.Fleet.Ground(pilot, testbed.NewID(), s.Aircraft.ID, "hard-landing", "Came down hard.")
	assert.ErrorContains(t, err, "roles")
	edit.Version, edit.Active = p.Version, false
	_, err = s.People.Update(s.As(s.Chief), s.Pilot.ID, edit)
	require.NoError(t, err)
	assert.ErrorContains(t, s.People.Sign(pilot, s.Pilot.ID, testbed.PIN), "no longer active")
	err = s.Fleet.Ground(people.With(context.Background(), p), testbed.NewID(), s.Aircraft.ID, "hard-landing",
		"Came down hard.")
	assert.ErrorContains(t, err, "no longer active")
}

func TestNoNamePassesForAnother(t *testing.T) {
	s := testbed.NewStage(t)
	for name, why := range map[string]string{"CHIEF  person": "has this name", "Chief\u200bPerson": "cannot be seen",
		"Сhief Person": "two scripts", "Chief Pers\u043en": "two scripts", " ": "Enter", "Ｃhief Person": "has this name"} {
		_, _, err := s.People.Enrol(s.As(s.Chief), people.New{ID: testbed.NewID(), Login: "other", Name: name,
			Roles: []crew.Role{crew.Hand}})
		assert.ErrorContains(t, err, why, "%q", name)
	}
}
