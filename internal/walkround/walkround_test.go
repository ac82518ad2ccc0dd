package walkround_test

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

func TestDraftIsKeptAndCompletesOnlyWhole(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, packs := s.As(s.Pilot), []uuid.UUID{s.Packs[0].ID}
	id := testbed.NewID()
	sh, err := s.Walkrounds.Start(ctx, walkround.New{ID: id, Aircraft: s.Aircraft.ID, Round: checks.Full, Packs: packs})
	require.NoError(t, err)
	_, err = s.Walkrounds.Start(ctx, walkround.New{ID: id, Aircraft: s.Aircraft.ID, Round: checks.Full, Packs: packs})
	require.NoError(t, err, "started twice by the same press")
	_, err = s.Walkrounds.Start(s.As(s.Tech), walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID,
		Round: checks.Full})
	assert.ErrorContains(t, err, s.Pilot.Name, "a second walk is told who walks")
	es := s.Entries(sh, nil)
	_, err = s.Walkrounds.Save(ctx, id, es[:5])
	require.NoError(t, err)
	back, err := s.Walkrounds.Sheet(context.Background(), id)
	require.NoError(t, err)
	assert.Len(t, back.Entries, 5, "a reload finds what was entered")
	_, err = s.Walkrounds.Complete(ctx, id)
	assert.True(t, fault.Is(err, "incomplete"), "%v", err)
	_, err = s.Walkrounds.Save(ctx, id, es)
	require.NoError(t, err)
	done, err := s.Walkrounds.Complete(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, judge.Clear.String(), done.Verdict)
	_, err = s.Walkrounds.Complete(ctx, id)
	require.NoError(t, err, "completed twice by the same press")
	_, err = s.Walkrounds.Save(ctx, id, es[:1])
	assert.True(t, fault.Is(err, "run-ended"), "a record does not change")
	assert.True(t, fault.Is(s.Walkrounds.Abandon(ctx, id), "run-ended"))
	var readings int64
	require.NoError(t, s.DB.Raw("select count(*) from pack_readings where source = 'walkround'").Scan(&readings).Error)
	assert.EqualValues(t, 1, readings, "cells, level and temperature become one reading of the pack")
}

func TestEntriesAreRefusedAtTheirField(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Pilot)
	sh, err := s.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Round: checks.Full,
		Packs: []uuid.UUID{s.Packs[0].ID}})
	require.NoError(t, err)
	over := 120.0
	for name, e := range map[string]walkround.NewEntry{
		"unknown item":        {ItemID: "keel", Value: checks.Value{Look: "ok"}},
		"over the range":      {ItemID: "controller-level", Value: checks.Value{Number: &over}},
		"empty":               {ItemID: "controller-level"},
		"defect without note": {ItemID: "frame", Value: checks.Value{Look: "defect"}},
		"a cell too few": {ItemID: "pack-cells@" + s.Packs[0].ID.String(),
			Value: checks.Value{Set: []float64{4300, 4300, 4300, 4300, 4300}}},
		"note too long": {ItemID: "frame", Value: checks.Value{Look: "ok", Note: strings.Repeat("x", 2001)}},
	} {
		_, err := s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{e})
		f, ok := fault.As(err)
		require.True(t, ok, "%s: %v", name, err)
		assert.NotEmpty(t, f.Fields, name)
		assert.NotContains(t, f.Detail, "entry not usable", "people read the sentence, not the sentinel")
	}
	_, err = s.Walkrounds.Save(ctx, sh.ID, []walkround.NewEntry{{ItemID: "frame", Value: checks.Value{Look: "ok"}},
		{ItemID: "keel"}})
	require.Error(t, err)
	back, err := s.Walkrounds.Sheet(ctx, sh.ID)
	require.NoError(t, err)
	assert.Empty(t, back.Entries, "all or none")
	require.NoError(t, s.Walkrounds.Abandon(ctx, sh.ID))
	_, err = s.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Round: checks.Full,
		Packs: []uuid.UUID{s.Packs[0].ID, s.Packs[1].ID}})
	assert.ErrorContains(t, err, "takes 1")
	_, err = s.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Round: checks.Full,
		Packs: []uuid.UUID{testbed.NewID()}})
	assert.ErrorContains(t, err, "does not exist")
}

func TestSwollenPackGoesToQuarantine(t *testing.T) {
	s := testbed.NewStage(t)
	pk := s.Packs[0].ID
	s.Walk(checks.Full, []uuid.UUID{pk}, func(it checks.Item, v *checks.Value) {
		if it.ID == "pack-look@"+pk.String() {
			*v = checks.Value{Look: "defect", Note: "bulge under the label"}
		}
	})
	p, err := s.Fleet.Pack(context.Background(), pk)
	require.NoError(t, err)
	assert.Equal(t, "quarantine", p.State)
	ev, err := s.Walkrounds.ForGate(context.Background(), []uuid.UUID{s.Aircraft.ID})
	require.NoError(t, err)
	require.Len(t, ev[s.Aircraft.ID].Findings, 1)
	assert.Equal(t, "bulge under the label", ev[s.Aircraft.ID].Findings[0].Sentence)
}

func TestDefectFromRaisedToClosed(t *testing.T) {
	s := testbed.NewStage(t)
	var img bytes.Buffer
	require.NoError(t, png.Encode(&img, image.NewGray(image.Rect(0, 0, 4, 4))))
	photo, err := s.Walkrounds.KeepPhoto(s.As(s.Pilot), testbed.NewID(), &img)
	require.NoError(t, err)
	d := walkround.Defect{ID: testbed.NewID(), AircraftID: s.Aircraft.ID, Station: "arm-2", Title: "Crack",
		Severity: "stop", Photos: []uuid.UUID{photo.ID}}
	_, err = s.Walkrounds.Raise(s.As(s.Pilot), d)
	require.NoError(t, err)
	_, err = s.Walkrounds.Raise(s.As(s.Pilot), d)
	require.NoError(t, err, "raised twice by the same press")
	got, b, err := s.Walkrounds.Photo(context.Background(), photo.ID)
	require.NoError(t, err)
	assert.Equal(t, "image/png", got.MediaType)
	assert.Len(t, b, got.Bytes)
	bad := d
	bad.ID, bad.Station = testbed.NewID(), "keel"
	_, err = s.Walkrounds.Raise(s.As(s.Pilot), bad)
	assert.ErrorContains(t, err, "no station")
	bad.Station, bad.Photos = "arm-2", []uuid.UUID{testbed.NewID()}
	_, err = s.Walkrounds.Raise(s.As(s.Pilot), bad)
	assert.ErrorContains(t, err, "not arrived")
	list, _, err := s.Walkrounds.Defects(context.Background(), &s.Aircraft.ID, "")
	require.NoError(t, err)
	assert.Len(t, list, 1)
}

func TestPhotosAreToldByTheirBytes(t *testing.T) {
	s := testbed.NewStage(t)
	picture := func(w int) *bytes.Buffer {
		var b bytes.Buffer
		require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, w, 4))))
		return &b
	}
	id := testbed.NewID()
	first, err := s.Walkrounds.KeepPhoto(s.As(s.Pilot), id, picture(4))
	require.NoError(t, err)
	again, err := s.Walkrounds.KeepPhoto(s.As(s.Pilot), id, picture(4))
	require.NoError(t, err, "sent twice is one")
	assert.Equal(t, first.Sha256, again.Sha256)
	_, err = s.Walkrounds.KeepPhoto(s.As(s.Tech), id, picture(5))
	assert.True(t, fault.Is(err, "id-in-use"), "nobody replaces a photo")
	// The server died between the bytes and the file: the same is taken again, another is not.
	half := testbed.NewID()
	require.NoError(t, s.Walkrounds.Photos.Put(half.String(), picture(6).Bytes()))
	_, err = s.Walkrounds.KeepPhoto(s.As(s.Tech), half, picture(7))
	assert.True(t, fault.Is(err, "id-in-use"), "%v", err)
	_, err = s.Walkrounds.KeepPhoto(s.As(s.Tech), half, picture(6))
	require.NoError(t, err)
	for name, body := range map[string]string{"text": "hello", "page": "<html><script>alert(1)</script>", "empty": "",
		"vector": `<svg xmlns="http://www.w3.org/2000/svg"/>`} {
		_, err := s.Walkrounds.KeepPhoto(s.As(s.Pilot), testbed.NewID(), strings.NewReader(body))
		assert.ErrorContains(t, err, "not a JPEG", name)
	}
	_, err = s.Walkrounds.KeepPhoto(s.As(s.Pilot), testbed.NewID(), bytes.NewReader(make([]byte, walkround.MaxPhoto+1)))
	assert.True(t, fault.Is(err, "too-large"))
}

func TestRunsKeepTheirListVersion(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	first := s.Walk(checks.Full, nil, nil)
	l, err := s.Walkrounds.List(ctx, "lantern-4", 0)
	require.NoError(t, err)
	require.Error(t, s.Walkrounds.AddList(ctx, "lantern-4", l), "the same version twice")
	l.Version, l.Sections = 4, l.Sections[:1]
	require.NoError(t, s.Walkrounds.AddList(ctx, "lantern-4", l))
	second, err := s.Walkrounds.Start(ctx, walkround.New{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, Round: checks.Full})
	require.NoError(t, err)
	assert.Less(t, len(second.Items), len(first.Items))
	back, err := s.Walkrounds.Sheet(ctx, first.ID)
	require.NoError(t, err)
	assert.Equal(t, len(first.Items), len(back.Items))
	l.Version, l.Sections[0].Items[0].Station = 5, "keel"
	assert.ErrorContains(t, s.Walkrounds.AddList(ctx, "lantern-4", l), "keel")
}
