package rules_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/rules"
)

func TestRulesAreUniqueAndComplete(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range rules.USSmall.Rules {
		assert.False(t, seen[r.ID], r.ID)
		seen[r.ID] = true
		assert.NotEmpty(t, r.Citation)
		assert.NotEmpty(t, r.Statement)
		assert.Equal(t, r.Citation, rules.USSmall.Source(r.ID))
	}
	assert.Panics(t, func() { rules.USSmall.Source("none") })
}
