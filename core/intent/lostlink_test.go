package intent_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/intent"
	"mainstay/core/judge"
)

// Returning is judged as the way home; everything else, and what was not read,
// is Watch and says what it means; what nobody can set is refused.
func TestLostLink(t *testing.T) {
	for _, l := range intent.AllLostLinks {
		v, words := l.Judge()
		assert.NotEmpty(t, l.Words(), l)
		assert.NoError(t, intent.Flight{LostLink: l}.Check(), l)
		if l == intent.Returns {
			assert.Equal(t, judge.Clear, v)
			continue
		}
		assert.Equal(t, judge.Watch, v, l)
		assert.NotEmpty(t, words, l)
	}
	v, words := intent.LostLink("").Judge()
	assert.Equal(t, judge.Watch, v)
	assert.Contains(t, words, "not been read")
	assert.ErrorIs(t, intent.Flight{LostLink: "climb"}.Check(), intent.ErrFlight)
}
