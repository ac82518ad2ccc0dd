package db_test

import (
	"database/sql/driver"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/testbed"
)

// Whatever an array holds comes back from the database as it was, quotes, commas,
// braces and nothing included.
func TestArraysComeBack(t *testing.T) {
	svc, _ := testbed.Empty(t, clock.At(testbed.Noon))
	rapid.Check(t, func(t *rapid.T) {
		texts := db.Array[string](rapid.SliceOf(rapid.SampledFrom([]string{"", "a", "b c", `"`, `\`, "{}", "null", "NULL",
			",", "\u00e4\u2713", "x\ny", "'"})).Draw(t, "texts"))
		numbers := db.Array[float64](rapid.SliceOf(rapid.Float64()).Draw(t, "numbers"))
		whole := db.Array[int64](rapid.SliceOf(rapid.Int64()).Draw(t, "whole"))
		var row struct {
			Texts   db.Array[string]  `gorm:"type:text[]"`
			Numbers db.Array[float64] `gorm:"type:double precision[]"`
			Whole   db.Array[int64]   `gorm:"type:bigint[]"`
			Nothing db.Array[string]  `gorm:"type:text[]"`
		}
		row.Nothing = db.Array[string]{"x"}
		require.NoError(t, svc.DB.Raw("select ?::text[] as texts, ?::double precision[] as numbers, ?::bigint[] as whole, ?::text[] as nothing",
			texts, numbers, whole, db.Array[string](nil)).Scan(&row).Error)
		require.Equal(t, append(db.Array[string]{}, texts...), row.Texts)
		require.Equal(t, append(db.Array[float64]{}, numbers...), row.Numbers)
		require.Equal(t, append(db.Array[int64]{}, whole...), row.Whole)
		require.Nil(t, row.Nothing)
	})
	at := db.Array[time.Time]{testbed.Noon, testbed.Noon.Add(time.Hour)}
	var n int
	require.NoError(t, svc.DB.Raw("select count(*) from unnest(?::timestamptz[]) x where x > ?", at,
		testbed.Noon).Scan(&n).Error)
	assert.Equal(t, 1, n)
	var v driver.Valuer = db.Array[chan int]{nil}
	_, err := v.Value()
	require.Error(t, err)
	var far float64
	require.NoError(t, svc.DB.Raw("select (?::double precision[])[1]", db.Array[float64]{math.Inf(1)}).Scan(&far).Error)
	assert.True(t, math.IsInf(far, 1))
}
