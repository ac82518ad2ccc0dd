package kit_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/kit"
)

func quantity(items []kit.Item, id string) int {
	i := slices.IndexFunc(items, func(it kit.Item) bool { return it.ID == id })
	if i < 0 {
		return -1
	}
	return items[i].Quantity
}

func TestQuantitiesFollowFromTheJob(t *testing.T) {
	six := 6
	j := kit.Job{Work: "spraying", Aircraft: []kit.Aircraft{{Type: "Dray", Packs: 2, Propellers: 6},
		{Type: "Dray", Packs: 2, Propellers: 6}, {Type: "Lantern", Packs: 1, Propellers: 4}}, People: 3, Sorties: &six}
	list := kit.List(j)
	assert.Equal(t, 26, quantity(list, "packs-Dray"), "two aircraft, six flights each, and one more: 13 sets of two")
	assert.Equal(t, 7, quantity(list, "packs-Lantern"))
	assert.Equal(t, 6, quantity(list, "propellers-Dray"))
	assert.Equal(t, 3, quantity(list, "ppe"))
	assert.Equal(t, -1, quantity(list, "cards"))
	assert.Equal(t, -1, quantity(list, "lights"))
	j.Aircraft[0].Sets, j.Aircraft[1].Sets = 4, 4
	assert.Equal(t, 10, quantity(kit.List(j), "packs-Dray"), "four sets go round in the field, and one to spare")
	j.Aircraft[0].Sets, j.Aircraft[1].Sets = 40, 40
	assert.Equal(t, 26, quantity(kit.List(j), "packs-Dray"), "never more than one for each flight")
	j.Sorties = nil
	assert.Equal(t, 4, quantity(kit.List(j), "packs-Dray"), "one flight and one to spare")
	j.Work, j.Night, j.Observer = "mapping", true, true
	list = kit.List(j)
	assert.Equal(t, 6, quantity(list, "cards"))
	assert.Equal(t, 3, quantity(list, "lights"))
	assert.Equal(t, 1, quantity(list, "glasses"))
	assert.Positive(t, len(kit.List(kit.Job{})))
}

func TestIDsAreUnique(t *testing.T) {
	for _, work := range []string{"spraying", "mapping", "inspection"} {
		seen := map[string]bool{}
		for _, it := range kit.List(kit.Job{Work: work, Night: true, Observer: true,
			Aircraft: []kit.Aircraft{{Type: "A", Packs: 1, Propellers: 1}, {Type: "B", Packs: 1, Propellers: 1}}}) {
			assert.False(t, seen[it.ID], it.ID)
			seen[it.ID] = true
			assert.NotEmpty(t, it.Label)
			assert.GreaterOrEqual(t, it.Quantity, 0)
		}
	}
}
