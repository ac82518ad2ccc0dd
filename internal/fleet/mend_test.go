package fleet_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
	"mainstay/internal/testbed"
)

// Packs that come charged are so since some time within the last day, and count from the
// earliest; the others lie at storage level.
func TestPacksComeChargedOrNot(t *testing.T) {
	s := testbed.NewStage(t)
	for charged, want := range map[bool]string{true: "charged", false: "storage"} {
		got, err := s.Fleet.AddPacks(s.As(s.Tech), fleet.NewPacks{ID: testbed.NewID(), Labels: want, Chemistry: "LiPo",
			Cells: 6, MilliampHours: 5000, Charged: charged})
		require.NoError(t, err)
		assert.Equal(t, want, got[0].State)
		if charged {
			assert.Equal(t, s.Clock.Now().Add(-24*time.Hour), *got[0].FullSince)
		} else {
			assert.Nil(t, got[0].FullSince)
		}
	}
}

// Several packs are added at once, all or none; the same sent twice is once.
func TestPacksAreAddedTogether(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	n := fleet.NewPacks{ID: testbed.NewID(), Labels: "K1 to K8", Chemistry: "LiHV", Cells: 6, MilliampHours: 12000}
	for range 2 {
		got, err := s.Fleet.AddPacks(ctx, n)
		require.NoError(t, err)
		require.Len(t, got, 8)
		assert.Equal(t, "K8", got[7].Label)
	}
	var count int64
	require.NoError(t, s.DB.Raw("select count(*) from packs where label like 'K%'").Scan(&count).Error)
	assert.EqualValues(t, 8, count)
	for name, change := range map[string]func(*fleet.NewPacks){
		"labels":    func(n *fleet.NewPacks) { n.Labels = "M8 to M1" },
		"serials":   func(n *fleet.NewPacks) { n.Labels, n.Serials = "M1 to M3", []string{"a", "b"} },
		"chemistry": func(n *fleet.NewPacks) { n.Labels, n.Chemistry = "M1", "lead" },
	} {
		bad := n
		bad.ID = testbed.NewID()
		change(&bad)
		_, err := s.Fleet.AddPacks(ctx, bad)
		assert.True(t, fault.Is(err, "invalid"), "%s: %v", name, err)
	}
	bad := n
	bad.ID, bad.Labels = testbed.NewID(), "M1, K3"
	_, err := s.Fleet.AddPacks(ctx, bad)
	require.ErrorContains(t, err, "K3")
	require.NoError(t, s.DB.Raw("select count(*) from packs where label = 'M1'").Scan(&count).Error)
	assert.Zero(t, count, "all or none")
}

// What is on file of a pack is put right on record, not under readings, and not in an aircraft.
func TestAPackIsCorrected(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	p, err := s.Fleet.Pack(ctx, s.Packs[0].ID)
	require.NoError(t, err)
	n := fleet.NewPack{ID: p.ID, Label: "A9", Serial: p.Serial, Chemistry: p.Chemistry, Cells: p.Cells,
		MilliampHours: 11000, Cycles: 40}
	require.NoError(t, s.Fleet.CorrectPack(ctx, n, p.Version))
	assert.True(t, fault.Is(s.Fleet.CorrectPack(ctx, n, p.Version), "stale"))
	got, err := s.Fleet.Pack(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, []any{"A9", 11000, 40}, []any{got.Label, got.CapacityMAh, got.Cycles})
	// 40 cycles of 11000 mAh, whatever stood there before; the pack of the stage has none behind it.
	assert.InDelta(t, 40*11000, got.OutMAh, 1)
	var summary string
	require.NoError(t, s.DB.Raw("select summary from records where kind = 'pack-corrected'").Scan(&summary).Error)
	assert.Contains(t, summary, "label A9, not A1")
	assert.Contains(t, summary, "capacity 11000, not 12000")
	_, err = s.Fleet.ReadPack(ctx, p.ID, fleet.NewReading{ID: testbed.NewID(),
		CellMV: []int{4340, 4340, 4340, 4340, 4340, 4340}, Source: "hand"})
	require.NoError(t, err)
	n.Cells = 4
	require.ErrorContains(t, s.Fleet.CorrectPack(ctx, n, got.Version), "Withdraw those first")
	other, err := s.Fleet.Pack(ctx, s.Packs[1].ID)
	require.NoError(t, err)
	got, err = s.Fleet.MovePack(ctx, other.ID, pack.Charging, "", other.Version)
	require.NoError(t, err)
	on := fleet.NewPack{ID: got.ID, Label: got.Label, Serial: got.Serial, Chemistry: "LiPo", Cells: got.Cells,
		MilliampHours: got.CapacityMAh, Cycles: got.Cycles}
	require.ErrorContains(t, s.Fleet.CorrectPack(ctx, on, got.Version), "is on charge as")
	got, err = s.Fleet.Pack(ctx, p.ID)
	require.NoError(t, err)
	n.Cells, n.Serial = 6, ""
	assertField(t, s.Fleet.CorrectPack(ctx, n, got.Version), "serial")
}

// A reading that was taken of another pack is withdrawn: nothing is judged by it any more, the
// charge it counted is taken back, and it stays to be read with who withdrew it and why.
func TestAReadingIsWithdrawn(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Tech)
	id := s.Packs[0].ID
	read := func(mv int, out float64) uuid.UUID {
		r := fleet.NewReading{ID: testbed.NewID(), CellMV: []int{mv, mv, mv, mv, mv, mv}, Source: "hand", MAhOut: &out}
		if out > 0 {
			r.CellMV[5] -= 120
		}
		s.Clock.Advance(time.Minute)
		_, err := s.Fleet.ReadPack(ctx, id, r)
		require.NoError(t, err)
		return r.ID
	}
	view := func() fleet.PackView {
		v, err := s.Fleet.PackViews(ctx, []uuid.UUID{id})
		require.NoError(t, err)
		return v[0]
	}
	read(4340, 0)
	before := view()
	wrong := read(4300, 500)
	verdict, _ := view().Judge()
	require.Equal(t, judge.Stop, verdict)
	require.InDelta(t, before.OutMAh+500, view().OutMAh, 1e-6)
	assertField(t, s.Fleet.WithdrawReading(ctx, id, wrong, " x "), "why")
	for range 2 {
		require.NoError(t, s.Fleet.WithdrawReading(ctx, id, wrong, "read at B4"))
	}
	after := view()
	assert.InDelta(t, before.OutMAh, after.OutMAh, 1e-6)
	verdict, sentence := after.Judge()
	assert.Equal(t, judge.Watch, verdict)
	assert.Equal(t, "Its newest reading was withdrawn: read it again.", sentence)
	assert.Nil(t, after.GatePack(s.Aircraft.ID).Reading, "what was read before is not good again")
	list, _, err := s.Fleet.Readings(ctx, id, "")
	require.NoError(t, err)
	require.NotEmpty(t, list)
	assert.Equal(t, []string{"read at B4", s.Tech.Name}, []string{list[0].WithdrawnWhy, list[0].WithdrawnBy})
	again := read(4330, 0)
	require.NotEqual(t, uuid.Nil, again)
	verdict, _ = view().Judge()
	assert.Equal(t, judge.Clear, verdict, "read again, it is known again")
	assert.True(t, fault.Is(s.Fleet.WithdrawReading(ctx, s.Packs[1].ID, wrong, "of another"), "not-found"))
}
