package main

import (
	"context"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/platform/clock"
	"mainstay/internal/testbed"
)

// A made-up fleet goes straight into the tables: what changes there, or in the
// shipped types and lists, must not leave the bench behind.
func TestLargeFleetFitsTheDatabase(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	svc, url := testbed.Empty(t, clock.At(testbed.Noon))
	conn, err := pgx.Connect(ctx, url)
	require.NoError(t, err)
	defer func() { _ = conn.Close(ctx) }()
	n := size{aircraft: 20, packs: 60, parts: 900, flights: 400}
	require.NoError(t, fillLarge(ctx, svc, conn, n))
	for table, want := range map[string]int{"aircraft": n.aircraft, "packs": n.packs, "parts": n.parts,
		"flights": n.flights, "pack_readings": 14 * n.packs, "walkrounds": 8 * n.aircraft} {
		var got int
		require.NoError(t, conn.QueryRow(ctx, "select count(*) from "+table).Scan(&got))
		assert.Equal(t, want, got, table)
	}
	fleet, err := svc.Fleet.Overview(ctx)
	require.NoError(t, err)
	assert.Len(t, fleet, n.aircraft)
}
