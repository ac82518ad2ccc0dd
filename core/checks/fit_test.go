package checks_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mainstay/core/airframe"
	"mainstay/core/checks"
)

// Whatever arms a type gets, whichever list of its layout it takes over: the list can be used,
// looks at every place, keeps all that has a place, and fits once for all.
func TestAnyListFitsAnyTypeOfItsLayout(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := rapid.SampledFrom(keys).Draw(t, "list")
		a, l := read(t, from)
		var layout []string
		for _, k := range keys {
			if b, _ := read(t, k); b.Geometry.Kind == a.Geometry.Kind {
				layout = append(layout, k)
			}
		}
		to, _ := read(t, rapid.SampledFrom(layout).Draw(t, "type"))
		if to.Geometry.Kind == airframe.Multirotor {
			to.Geometry.Rotors = rapid.IntRange(3, 12).Draw(t, "arms")
			to.Unfold = nil
			to.Power = &airframe.Power{Coaxial: rapid.Bool().Draw(t, "coaxial")}
		} else {
			to.Geometry.Tail = rapid.SampledFrom([]string{"", airframe.VTail}).Draw(t, "tail")
		}
		to = to.Prepared()
		l.Type = to.Key
		got, _ := l.Fit(to, "another")
		require.NoError(t, got.Validate(to))
		assert.Empty(t, got.Unvisited(to))
		again, changed := got.Fit(to, "another")
		assert.False(t, changed, "once fitted, it fits")
		assert.Equal(t, got, again)
		// What has its place is kept.
		there := map[string]bool{}
		for _, s := range to.Stations() {
			there[s.ID] = true
		}
		kept := items(got)
		for _, it := range items(l) {
			if there[it.Station] {
				assert.True(t, slices.ContainsFunc(kept, func(k checks.Item) bool { return k.ID == it.ID }), "%s at %s is lost",
					it.ID, it.Station)
			}
		}
	})
}

// The shipped lists fit their own types as they are.
func TestShippedListsFit(t *testing.T) {
	for _, k := range keys {
		a, l := load(t, k)
		got, changed := l.Fit(a, "itself")
		assert.False(t, changed, k)
		assert.Equal(t, l, got, k)
	}
}

func items(l checks.List) (out []checks.Item) {
	for _, s := range l.Sections {
		out = append(out, s.Items...)
	}
	return out
}
