package rules_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/rules"
)

// Of several papers that ran out, the one that ran out last is named, in whatever
// order they lie; one in force wins over all.
func TestOfSeveralPapersTheNewestIsNamed(t *testing.T) {
	says := func(docs ...rules.Document) string {
		f := spray(rules.USSmall)
		kept := f.Docs[:0:0]
		for _, d := range f.Docs {
			if d.Kind != rules.Agricultural {
				kept = append(kept, d)
			}
		}
		f.Docs = append(kept, docs...)
		found, _ := all(rules.USSmall).Judge(f, rules.OfAircraft, rules.OfPilot, rules.OfJob)
		out := ""
		for _, x := range found {
			out += x.Sentence + "\n"
		}
		return out
	}
	early := rules.Document{Kind: rules.Agricultural, Number: "A", Expires: on(2026, 1, 31)}
	late := rules.Document{Kind: rules.Agricultural, Number: "B", Expires: on(2026, 5, 31)}
	good := rules.Document{Kind: rules.Agricultural, Number: "C", Expires: on(2027, 5, 31)}
	for _, docs := range [][]rules.Document{{early, late}, {late, early}} {
		assert.Contains(t, says(docs...), "2026-05-31")
		assert.NotContains(t, says(docs...), "2026-01-31")
	}
	assert.NotContains(t, says(early, good), "2026-01-31")
	assert.NotContains(t, says(good, late), "2026-05-31")
}
