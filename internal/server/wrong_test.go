package server_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wrong puts values that can never be right into every place of a body, one at
// a time: the id of nothing, another kind of value, a number out of this world, a text without
// end, a text that no database holds.
func wrong(body any) map[string]any {
	raw, _ := json.Marshal(body)
	var clean any
	_ = json.Unmarshal(raw, &clean)
	out := map[string]any{}
	var walk func(at string, v any, put func(any) any)
	walk = func(at string, v any, put func(any) any) {
		for i, bad := range unfit(v) {
			out[fmt.Sprintf("%s (%d)", at, i)] = put(bad)
		}
		switch v := v.(type) {
		case map[string]any:
			for _, k := range slices.Sorted(maps.Keys(v)) {
				if _, text := v[k].(string); text && strings.HasSuffix(k, "_id") && k != "part_id" { // a part may be new
					other := maps.Clone(v)
					other[k] = "01a21404-0000-7000-8000-000000000000"
					out[at+"."+k+" (of nothing)"] = put(other)
				}
				walk(at+"."+k, v[k], func(bad any) any {
					other := maps.Clone(v)
					other[k] = bad
					return put(other)
				})
			}
		case []any:
			if len(v) > 0 { // the others are alike
				walk(at+"[0]", v[0], func(bad any) any { return put(append([]any{bad}, v[1:]...)) })
			}
		}
	}
	walk("", clean, func(bad any) any { return bad })
	return out
}

func unfit(v any) []any {
	switch v.(type) {
	case string:
		return []any{12, "\x00", strings.Repeat("x", 150_000)}
	case float64:
		return []any{"x", 1e30, -1e30, 3e9}
	case nil:
		return []any{[]any{[]any{}}}
	}
	return []any{"x"}
}

// Every place of every body of the contract refuses what cannot be right, with
// a sentence and without an inner error. The tour makes sure that each is asked
// when the right body would succeed.
func TestWrongValuesAreRefusedEverywhere(t *testing.T) {
	tried := 0
	takeTour(t, func(x *tour, method, path string, body any) {
		places := wrong(body)
		for _, at := range slices.Sorted(maps.Keys(places)) {
			bad := places[at]
			a := x.c.Do(method, path, bad)
			tried++
			what := fmt.Sprintf("%s %s with a wrong %s: %d %.300s", method, path, at, a.Status, a.Text())
			assert.GreaterOrEqual(t, a.Status, 400, what)
			assert.Less(t, a.Status, 500, what)
			if a.Status >= 400 {
				assert.NotEmpty(t, strings.TrimSpace(a.Problem().Detail), what)
			}
		}
	})
	require.Greater(t, tried, 500)
}
