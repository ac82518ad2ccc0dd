package server_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
	"mainstay/internal/testbed"
)

// wrong puts values that can never be right into every place of a body, one at
// a time: a field that is none, the id of nothing, another kind of value, a number out of this world, a text without
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
			misspelt := maps.Clone(v)
			misspelt["misspelt"] = 1
			out[at+" (a field that is none)"] = put(misspelt)
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

// Every address answers what can never be right in it, and in its question,
// with a sentence.
func TestWrongAddressesAreRefusedEverywhere(t *testing.T) {
	s := testbed.NewStage(t)
	c := testbed.NewClient(t, testbed.Serve(t, s.Services)).SignIn("chief", "long enough")
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	tried := 0
	for path, item := range doc.Paths.Map() {
		op := item.GetOperation("GET")
		if op == nil || op.OperationID == "watchChanges" {
			continue
		}
		ask := func(address, what string) {
			a := c.Do("GET", address, nil)
			tried++
			assert.Contains(t, []int{400, 404, 422}, a.Status, "%s: %.200s", what, a.Text())
			assert.NotEmpty(t, a.Problem().Detail, what)
		}
		good := regexp.MustCompile(`\{[^}]+\}`).ReplaceAllString(path, testbed.NewID().String())
		if good != path {
			ask(regexp.MustCompile(`\{[^}]+\}`).ReplaceAllString(path, "%00"), "nothing at "+path)
			ask(regexp.MustCompile(`\{[^}]+\}`).ReplaceAllString(path, "..%2f..%2fetc"), "elsewhere than "+path)
		}
		for _, p := range append(slices.Clone(item.Parameters), op.Parameters...) {
			if p.Value.In != "query" {
				continue
			}
			bad := []string{"%00", strings.Repeat("x", 5000)}
			if k := p.Value.Schema.Value; !k.Type.Is("string") || k.Enum != nil || k.Format != "" {
				bad = append(bad, "x", "-1e30", "1e30")
			}
			for _, v := range bad {
				ask(good+"?"+p.Value.Name+"="+v, fmt.Sprintf("%s?%s=%.20s", path, p.Value.Name, v))
			}
		}
	}
	require.Greater(t, tried, 80)
}
