package walkround_test

import (
	"encoding/json"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/docs/protocols"
	"mainstay/internal/fleet"
	"mainstay/internal/testbed"
)

// Every shipped list is of the published form; what is not is refused by it, as by the server.
func TestTheSchemaOfLists(t *testing.T) {
	s := testbed.NewStage(t)
	all, err := fleet.Shipped()
	require.NoError(t, err)
	for _, ty := range all {
		l, err := s.Walkrounds.List(s.As(s.Pilot), ty.Key, 0)
		require.NoError(t, err)
		b, err := json.Marshal(l)
		require.NoError(t, err)
		require.NoError(t, protocols.Fits(protocols.Checklist, "list", b), ty.Key)
	}
	for name, text := range map[string]string{
		"unknown kind":    `{"id":"a","station":"frame","title":"A","kind":"guess"}`,
		"no station":      `{"id":"a","title":"A","kind":"look","defect":"stop"}`,
		"unknown field":   `{"id":"a","station":"frame","title":"A","kind":"look","defect":"stop","colour":"red"}`,
		"defect of clear": `{"id":"a","station":"frame","title":"A","kind":"look","defect":"clear"}`,
		"half a count":    `{"id":"a","station":"frame","title":"A","kind":"count","defect":"stop","expect":2.5}`,
	} {
		assert.Error(t, protocols.Fits(protocols.Checklist, "list",
			[]byte(`{"type":"lantern-4","version":1,"sections":[{"title":"S","items":[`+text+`]}]}`)), name)
	}
}

// What the schema names is what the program knows: kinds, rounds, and every field of an item
// that a list may give.
func TestTheSchemaNamesWhatTheProgramKnows(t *testing.T) {
	b, err := protocols.Schema(protocols.Checklist)
	require.NoError(t, err)
	var loose map[string]any
	require.NoError(t, json.Unmarshal(b, &loose))
	defs := loose["$defs"].(map[string]any)
	enum := func(path ...string) (out []string) {
		at := any(defs)
		for _, k := range path {
			at = at.(map[string]any)[k]
		}
		for _, x := range at.([]any) {
			out = append(out, x.(string))
		}
		return out
	}
	var kinds, rounds []string
	for _, k := range checks.AllKinds {
		kinds = append(kinds, string(k))
	}
	for _, r := range checks.AllRounds {
		rounds = append(rounds, r.Key)
	}
	assert.Equal(t, kinds, enum("item", "properties", "kind", "enum"))
	assert.Equal(t, rounds, enum("section", "properties", "in", "items", "enum"))
	assert.Equal(t, checks.AllTells, enum("item", "properties", "tells", "items", "enum"))
	var facts []string
	for _, f := range checks.AllFacts {
		facts = append(facts, f.Key)
	}
	fact := defs["when"].(map[string]any)["properties"].(map[string]any)["fact"].(map[string]any)
	of := fact["anyOf"].([]any)[0].(map[string]any)["enum"]
	assert.ElementsMatch(t, facts, of, "what a condition may ask about")
	filled := []string{"layer", "pictures", "section", "pack_id", "names", "bars", "known", "drawing"}
	props := defs["item"].(map[string]any)["properties"].(map[string]any)
	ty := reflect.TypeFor[checks.Item]()
	for i := range ty.NumField() {
		name, _, _ := strings.Cut(ty.Field(i).Tag.Get("json"), ",")
		_, there := props[name]
		assert.Equal(t, !slices.Contains(filled, name), there, "field %s of an item", name)
	}
}

// A list is tried without being kept: what it asks, what is wrong with it, what it leaves
// uncovered; versions stay readable.
func TestTryingAList(t *testing.T) {
	s := testbed.NewStage(t)
	ctx := s.As(s.Chief)
	l, err := s.Walkrounds.List(ctx, "lantern-4", 0)
	require.NoError(t, err)
	whole, err := s.Walkrounds.Try(ctx, "lantern-4", checks.Full, l)
	require.NoError(t, err)
	assert.Empty(t, whole.Wrong)
	assert.Empty(t, whole.Uncovered)
	assert.NotEmpty(t, whole.Items)
	cut := l
	cut.Sections = slices.DeleteFunc(slices.Clone(l.Sections),
		func(x checks.Section) bool { return x.Title == "Power-up and link" })
	less, err := s.Walkrounds.Try(ctx, "lantern-4", checks.Full, cut)
	require.NoError(t, err)
	assert.Contains(t, less.Uncovered, "Compass calibration")
	// What is looked at in the evening does not cover what comes before the flight.
	evening := cut
	evening.Sections = append(slices.Clone(cut.Sections),
		checks.Section{Title: "Evening", In: []string{checks.StandDown},
			Items: []checks.Item{{ID: "compass", Station: "frame", Title: "Compass", Kind: checks.Look, Defect: judge.Stop}}})
	less, err = s.Walkrounds.Try(ctx, "lantern-4", checks.Full, evening)
	require.NoError(t, err)
	assert.Contains(t, less.Uncovered, "Compass calibration")
	bad := l
	bad.Type = "dray-30"
	wrong, err := s.Walkrounds.Try(ctx, "lantern-4", checks.Full, bad)
	require.NoError(t, err)
	assert.Contains(t, wrong.Wrong, "it is for type")
	before, err := s.Walkrounds.Versions(ctx, "lantern-4")
	require.NoError(t, err)
	cut.Version = 9
	require.NoError(t, s.Walkrounds.AddList(ctx, "lantern-4", cut))
	after, err := s.Walkrounds.Versions(ctx, "lantern-4")
	require.NoError(t, err)
	assert.Len(t, after, len(before)+1)
	assert.Equal(t, 9, after[0].Version)
	old, err := s.Walkrounds.List(ctx, "lantern-4", l.Version)
	require.NoError(t, err)
	assert.Len(t, old.Sections, len(l.Sections))
}
