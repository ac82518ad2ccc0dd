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
	fs := []judge.Finding{{Rule: "b", Verdict: judge.Watch}, {Rule: "a", Verdict: judge.Watch},
		{Rule: "c", Verdict: judge.Stop}}
	assert.Equal(t, judge.Stop, judge.Worst(fs))
	judge.Sort(fs)
	assert.Equal(t, []judge.Rule{"c", "a", "b"}, []judge.Rule{fs[0].Rule, fs[1].Rule, fs[2].Rule})
}

func TestCapital(t *testing.T) {
	for in, want := range map[string]string{"": "", "wind": "Wind", "Wind": "Wind", "öl": "Öl", "9 m": "9 m",
		"éa: b": "Éa: b", "\xff": "\xff"} {
		assert.Equal(t, want, judge.Capital(in))
	}
}
