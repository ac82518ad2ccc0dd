package rules_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/rules"
)

// Unanswered questions with one place to answer them are one finding, as bad as
// the worst; one alone, and what somebody did answer, stay as they are.
func TestUnansweredQuestionsAreOneFinding(t *testing.T) {
	here, there := &judge.Remedy{Kind: judge.AnswerInJob, ID: "1"}, &judge.Remedy{Kind: judge.AnswerInJob, ID: "2"}
	ask := func(q string, v judge.Verdict, r *judge.Remedy) judge.Finding {
		return judge.Finding{Rule: judge.RuleDrift, Verdict: v, Sentence: "Not answered: " + q, Asks: []string{q}, Remedy: r}
	}
	wind := judge.Finding{Rule: judge.RuleWind, Verdict: judge.Stop, Sentence: "Wind."}
	answered := judge.Finding{Rule: judge.RuleDrift, Verdict: judge.Watch, Sentence: "Bees.", Remedy: here}
	in := []judge.Finding{ask("a", judge.Watch, here), wind, ask("b", judge.Stop, here), answered,
		ask("c", judge.Stop, there), ask("d", judge.Watch, here)}
	got := rules.Gather(in)
	require.Len(t, got, 4)
	assert.Equal(t, judge.Finding{Rule: judge.RuleAnswers, Verdict: judge.Stop,
		Sentence: "3 questions about this job are not answered.", Source: got[0].Source, Evidence: "No answers.",
		Lifts: "answers", Remedy: here, Asks: []string{"a", "b", "d"}}, got[0])
	assert.Equal(t, []judge.Finding{wind, answered, in[4]}, got[1:])
	assert.Equal(t, judge.Worst(in), judge.Worst(got), "no verdict becomes milder")
	assert.Equal(t, "a", in[0].Asks[0])
	assert.Len(t, in[0].Asks, 1, "what was given is not changed")
}
