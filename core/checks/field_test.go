package checks_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/judge"
)

func answer(t testing.TB, question any) checks.FieldAnswer {
	t.Helper()
	b, err := json.Marshal(question)
	require.NoError(t, err)
	var out checks.FieldAnswer
	require.NoError(t, json.Unmarshal([]byte(checks.AnswerJSON(string(b))), &out))
	return out
}

// What the browser asks in JSON is judged as everywhere else.
func TestFieldQuestionIsJudgedAsAnyOther(t *testing.T) {
	low, high, step := 0.0, 100.0, 1.0
	stop := 20.0
	level := checks.Item{ID: "level", Kind: checks.Reading, Quantity: "level", Unit: "%", Min: &low, Max: &high,
		Step: step, Band: &checks.Band{StopBelow: &stop}}
	look := checks.Item{ID: "arm", Kind: checks.Look, Defect: judge.Stop}
	num := func(v float64) checks.Value { return checks.Value{Number: &v} }
	for _, c := range []struct {
		name string
		it   checks.Item
		v    checks.Value
	}{
		{"good", level, num(88)}, {"at the limit", level, num(20)}, {"under it", level, num(19)}, {"out of range", level,
			num(101)}, {"nothing", level, checks.Value{}},
		{"in order", look, checks.Value{Look: "ok"}}, {"a defect", look,
			checks.Value{Look: "defect", Note: "crack"}}, {"a defect without words", look, checks.Value{Look: "defect"}},
	} {
		t.Run(c.name, func(t *testing.T) {
			got := answer(t, checks.FieldQuestion{Item: c.it, Value: c.v})
			want, err := checks.Judge(c.it, c.v, nil)
			if err != nil {
				assert.Nil(t, got.Judgement)
				assert.NotEmpty(t, got.Sentence)
				return
			}
			require.NotNil(t, got.Judgement)
			assert.Equal(t, want, *got.Judgement)
		})
	}
}

// What the program in the browser cannot read is a sentence, never a verdict,
// and never the end of the program.
func FuzzAnswerJSON(f *testing.F) {
	for _, s := range []string{"", "{}", "null", `{"item":{"kind":"reading"},"value":{"number":1}}`,
		`{"item":{"kind":"motors","count":2},"value":{"set":[1,2]}}`,
		`{"item":{"kind":"cells"},"value":{"set":[1]},"pack":{"cells":1,"chemistry":"LiPo"}}`,
		`{"item":{"kind":"look"},"value":{"look":"ok"}}`,
		`{"item":{"kind":"reading","min":0,"max":1},"value":{"number":0.5}}`} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, question string) {
		var out checks.FieldAnswer
		require.NoError(t, json.Unmarshal([]byte(checks.AnswerJSON(question)), &out))
		assert.True(t, (out.Judgement != nil) != (out.Sentence != ""), "a verdict or a sentence, not both or neither")
	})
}
