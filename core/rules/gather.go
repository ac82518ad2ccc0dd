package rules

import (
	"fmt"
	"slices"

	"mainstay/core/judge"
)

// Gather makes one finding of all that say that a question is not answered and
// are put right in the same place, where the worst of them stood: one page
// answers them all. A single one stays as it is.
func Gather(fs []judge.Finding) []judge.Finding {
	out := make([]judge.Finding, 0, len(fs))
	at := map[judge.Remedy]int{}
	for _, f := range fs {
		if len(f.Asks) == 0 || f.Remedy == nil {
			out = append(out, f)
			continue
		}
		i, ok := at[*f.Remedy]
		if !ok {
			at[*f.Remedy] = len(out)
			out = append(out, f)
			continue
		}
		asks := append(slices.Clone(out[i].Asks), f.Asks...)
		out[i] = judge.Finding{Rule: judge.RuleAnswers, Verdict: max(out[i].Verdict, f.Verdict),
			Sentence: fmt.Sprintf("%d questions about this job are not answered.", len(asks)),
			Source:   "rules and usual practice, question by question",
			Evidence: "No answers.", Lifts: "answers", Remedy: f.Remedy, Asks: asks}
	}
	return out
}
