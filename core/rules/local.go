package rules

import (
	"errors"
	"slices"
	"strings"

	"mainstay/core/judge"
	"mainstay/core/why"
)

// Local is a rule of the crew's own: its text, and a question for every job.
type Local struct {
	ID        string        `json:"id"`
	Citation  string        `json:"citation"`
	Statement string        `json:"statement"`
	Question  string        `json:"question"` // answered yes when all is well
	Work      []string      `json:"work"`     // kinds of work it is for; empty: all
	Verdict   judge.Verdict `json:"verdict"`  // when the answer is no
}

// ErrLocal is wrapped by every refusal of a local rule.
var ErrLocal = errors.New("rule not usable")

// Rule turns it into a rule like any other.
func (l Local) Rule() (Rule, error) {
	bad := func(s string) (Rule, error) { return Rule{}, why.Not(ErrLocal, "%s", s) }
	switch {
	case strings.TrimSpace(l.Statement) == "":
		return bad("what it demands is empty")
	case !strings.HasSuffix(strings.TrimSpace(l.Question), "?"):
		return bad("its question ends with a question mark and is answered yes when all is well")
	case l.Verdict == judge.Clear:
		return bad("a rule whose breach is Clear is no rule")
	}
	cite := strings.TrimSpace(l.Citation)
	if cite == "" {
		cite = "the crew's own rule"
	}
	r := Rule{ID: judge.RuleOwn, Own: l.ID, Citation: cite, Statement: l.Statement, Evidence: "The crew's answer.",
		Scope: OfJob,
		Asks: choice("local-"+l.ID, l.Question, fine("yes", "Yes"),
			Option{ID: "no", Words: "No", Verdict: l.Verdict,
				Then: "Against the crew's own rule: " + strings.TrimRight(l.Statement, ".") + "."})}
	if len(l.Work) > 0 {
		r.when = func(f Facts) bool { return slices.Contains(l.Work, f.Work) }
	}
	return r, nil
}
