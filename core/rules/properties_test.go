package rules_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/site"
)

// Whatever evidence is taken away, and in whatever order, no verdict gets
// better; and the same facts give the same findings.
func TestTakingEvidenceAwayNeverHelps(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := rapid.SampledFrom(rules.Packs).Draw(t, "pack")
		f := spray(p)
		away := []func(){
			func() { f.Pilot = nil }, func() { f.HeightM = nil }, func() { f.SpeedMS = nil }, func() { f.FarM = nil },
			func() { f.Briefing = nil }, func() { f.Product = "" }, func() { f.Docs = nil },
			func() { f.Aircraft.RegistrationExpires = nil }, func() { f.People[0].Fit = nil },
			func() { f.People = f.People[:1] },
			func() {
				for k := range f.Answers {
					delete(f.Answers, k)
				}
			},
		}
		last := judge.Clear
		for _, k := range rapid.Permutation(indices(len(away))).Draw(t, "order") {
			away[k]()
			found, held := all(p).Judge(f, rules.AllScopes...)
			again, _ := all(p).Judge(f, rules.AllScopes...)
			assert.Equal(t, found, again)
			assert.GreaterOrEqual(t, worst(found), last, "step %d", k)
			last = worst(found)
			for _, x := range found {
				assert.NotContains(t, held, x.Rule, "a rule that found something was not held")
				assert.NotEmpty(t, x.Sentence)
				assert.NotEmpty(t, x.Source)
			}
		}
		assert.Equal(t, judge.Stop, last)
	})
}

func indices(n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = i
	}
	return out
}

// Every question belongs to a rule that applies, and its first answer is the
// one under which all is well.
func TestTheFirstAnswerIsTheGoodOne(t *testing.T) {
	for _, p := range append(rules.Packs, rules.Practice) {
		for _, work := range []string{"spraying", "mapping", "inspection"} {
			for _, a := range p.Questions(rules.Facts{Work: work}) {
				assert.Equal(t, judge.Clear, a.Options[0].Verdict, a.ID)
				seen := map[string]bool{}
				for _, o := range a.Options {
					assert.False(t, seen[o.ID], "%s: %s twice", a.ID, o.ID)
					seen[o.ID] = true
				}
			}
		}
	}
}

// A document counts from the day it is issued to its last day, and never
// without a number.
func TestInForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from, long, at := rapid.IntRange(0, 200).Draw(t, "from"), rapid.IntRange(0, 200).Draw(t, "long"), rapid.IntRange(-10,
			420).Draw(t, "at")
		base := day(2026, 1, 1)
		d := rules.Document{Number: rapid.SampledFrom([]string{"", " ", "N-1"}).Draw(t, "number"),
			Issued: ptr(base.AddDate(0, 0, from)), Expires: ptr(base.AddDate(0, 0, from+long))}
		assert.Equal(t, d.Number == "N-1" && at >= from && at <= from+long, d.InForce(base.AddDate(0, 0, at)))
	})
}

// What is charted near counts whatever was said; what was said counts where
// nothing is charted; what nobody said is near, but in the subcategory that keeps
// away.
func TestNearPeople(t *testing.T) {
	near, far := 29.9, 30.0
	for _, c := range []struct {
		charted  *float64
		under    string
		category string
		want     bool
	}{
		{&near, "nobody", "a3", true}, {&far, "nobody", "", false}, {nil, "nobody", "", false}, {nil, "participants", "",
			false}, {nil, "sheltered", "", true}, {&far, "others", "", true},
		{nil, "", "", true}, {&far, "", "", true}, {nil, "", "a3", false}, {nil, "", "a1", true}, {nil, "", "a2",
			true}, {&near, "", "a3", true},
	} {
		f := rules.Facts{PeopleM: c.charted, Answers: map[string]string{}}
		if c.under != "" {
			f.Answers["people-under"] = c.under
		}
		if c.category != "" {
			f.Answers["category"] = c.category
		}
		assert.Equal(t, c.want, f.NearPeople(30), "%+v", c)
	}
	for what, people := range map[string]bool{"": true, "house": true, "school": true, "bees": false, "Water": false,
		"bees by the house": true, "field with people": true, "stock": false, "cattle": false, "birds": false, "crop": false,
		"organic": false} {
		assert.Equal(t, people, site.WherePeopleAre(what), what)
	}
}
