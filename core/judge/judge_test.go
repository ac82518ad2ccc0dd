package judge_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
)

func TestVerdictWordsRoundTrip(t *testing.T) {
	for _, v := range judge.AllVerdicts {
		b, err := json.Marshal(v)
		require.NoError(t, err)
		var back judge.Verdict
		require.NoError(t, json.Unmarshal(b, &back))
		assert.Equal(t, v, back)
	}
	var v judge.Verdict
	assert.Error(t, json.Unmarshal([]byte(`"fine"`), &v))
	assert.Error(t, json.Unmarshal([]byte(`1`), &v))
}

func TestWorstAndOrder(t *testing.T) {
	assert.Equal(t, judge.Clear, judge.Worst(nil))
	fs := []judge.Finding{{Rule: "b", Verdict: judge.Watch}, {Rule: "a", Verdict: judge.Watch}, {Rule: "c", Verdict: judge.Stop}}
	assert.Equal(t, judge.Stop, judge.Worst(fs))
	judge.Sort(fs)
	assert.Equal(t, []judge.Rule{"c", "a", "b"}, []judge.Rule{fs[0].Rule, fs[1].Rule, fs[2].Rule})
}

func TestCapital(t *testing.T) {
	for in, want := range map[string]string{"": "", "wind": "Wind", "Wind": "Wind", "öl": "Öl", "9 m": "9 m", "éa: b": "Éa: b", "\xff": "\xff"} {
		assert.Equal(t, want, judge.Capital(in))
	}
}

// Unanswered questions with one place to answer them are one finding, as bad as
// the worst; one alone, and what somebody did answer, stay as they are.
func TestUnansweredQuestionsAreOneFinding(t *testing.T) {
	here, there := &judge.Remedy{Kind: judge.AnswerInJob, ID: "1"}, &judge.Remedy{Kind: judge.AnswerInJob, ID: "2"}
	ask := func(q string, v judge.Verdict, r *judge.Remedy) judge.Finding {
		return judge.Finding{Rule: judge.RuleDrift, Verdict: v, Sentence: "Not answered: " + q, Asks: []string{q}, Remedy: r}
	}
	wind := judge.Finding{Rule: judge.RuleWind, Verdict: judge.Stop, Sentence: "Wind."}
	answered := judge.Finding{Rule: judge.RuleDrift, Verdict: judge.Watch, Sentence: "Bees.", Remedy: here}
	in := []judge.Finding{ask("a", judge.Watch, here), wind, ask("b", judge.Stop, here), answered, ask("c", judge.Stop, there), ask("d", judge.Watch, here)}
	got := judge.Gather(in)
	require.Len(t, got, 4)
	assert.Equal(t, judge.Finding{Rule: judge.RuleAnswers, Verdict: judge.Stop, Sentence: "3 questions about this job are not answered.", Source: got[0].Source, Evidence: "No answers.", Lifts: "answers", Remedy: here, Asks: []string{"a", "b", "d"}}, got[0])
	assert.Equal(t, []judge.Finding{wind, answered, in[4]}, got[1:])
	assert.Equal(t, judge.Worst(in), judge.Worst(got), "no verdict becomes milder")
	assert.Equal(t, "a", in[0].Asks[0])
	assert.Len(t, in[0].Asks, 1, "what was given is not changed")
}
