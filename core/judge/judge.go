// Package judge holds the words every judgement in Mainstay is made of: the
// three verdicts and the finding that explains one. Unknown is never Clear.
package judge

import (
	"cmp"
	"encoding/json"
	"fmt"
	"slices"
	"time"
	"unicode"
	"unicode/utf8"
)

// Verdict is the outcome of a judgement. Its order is by severity.
type Verdict int

// The three verdicts. Clear: go on. Watch: go on with eyes open. Stop: do not
// fly until the remedy is done.
const (
	Clear Verdict = iota
	Watch
	Stop
)

// AllVerdicts lists the verdicts from best to worst.
var AllVerdicts = []Verdict{Clear, Watch, Stop}

// ClockSkew is how far the clocks of devices may differ before a later date is
// called one in the future.
const ClockSkew = 2 * time.Minute

// String returns "clear", "watch" or "stop".
func (v Verdict) String() string {
	switch v {
	case Clear:
		return "clear"
	case Watch:
		return "watch"
	default:
		return "stop"
	}
}

// ParseVerdict reads the words that String writes.
func ParseVerdict(s string) (Verdict, error) {
	for _, v := range AllVerdicts {
		if v.String() == s {
			return v, nil
		}
	}
	return Stop, fmt.Errorf("verdict %q is none of clear, watch, stop", s)
}

// MarshalJSON writes the word.
func (v Verdict) MarshalJSON() ([]byte, error) { return json.Marshal(v.String()) }

// UnmarshalJSON reads the word.
func (v *Verdict) UnmarshalJSON(b []byte) error {
	var s string
	if err := json.Unmarshal(b, &s); err != nil {
		return err
	}
	got, err := ParseVerdict(s)
	if err != nil {
		return err
	}
	*v = got
	return nil
}

// Remedy is what to do about a finding: a kind, for which the interface has the
// words and the place, and the id and the name of the thing it acts on.
type Remedy struct {
	Kind RemedyKind `json:"kind"`
	ID   string     `json:"id,omitempty"`
	Name string     `json:"name,omitempty"` // where the words name it
}

// Finding is one reason for a verdict.
type Finding struct {
	Rule     Rule       `json:"rule"`            // stable id of the check
	Own      string     `json:"own,omitempty"`   // which of the crew's own rules, when the rule is RuleOwn
	Verdict  Verdict    `json:"verdict"`         //
	Sentence string     `json:"sentence"`        // what is wrong, for people
	Source   string     `json:"source"`          // law, maker's limit or usual practice it rests on
	Evidence string     `json:"evidence"`        // what was known
	At       *time.Time `json:"at,omitempty"`    // when the evidence was taken
	Lifts    string     `json:"lifts,omitempty"` // who can lift it
	Remedy   *Remedy    `json:"remedy,omitempty"`
	// Asks are the questions that nobody has answered, when that is what was found.
	Asks []string `json:"asks,omitempty"`
	// Limit says that a limit is known to be exceeded. Only that can be waived:
	// what is not known never is.
	Limit bool `json:"-"`
	// Notice says that it is no finding but what is coming up: it stands beside
	// the verdict and never colours it.
	Notice bool `json:"-"`
	// Decide names the decisions that a named person may take about it, with
	// Basis naming what such a decision rests on: when that changes it is void.
	Decide []string `json:"decide,omitempty"`
	Basis  string   `json:"-"`
}

// Notices parts what is coming up from the findings.
func Notices(fs []Finding) (findings, notices []Finding) {
	findings, notices = []Finding{}, []Finding{}
	for _, f := range fs {
		if f.Notice {
			f.Verdict = Clear
			notices = append(notices, f)
		} else {
			findings = append(findings, f)
		}
	}
	return findings, notices
}

// Worst returns the worst verdict of the findings, Clear for none.
func Worst(fs []Finding) Verdict {
	w := Clear
	for _, f := range fs {
		if !f.Notice {
			w = max(w, f.Verdict)
		}
	}
	return w
}

// Sort orders findings worst first, then by rule and sentence, so that the
// same input gives the same output byte for byte.
func Sort(fs []Finding) {
	slices.SortStableFunc(fs, func(a, b Finding) int {
		return cmp.Or(cmp.Compare(b.Verdict, a.Verdict), cmp.Compare(a.Rule, b.Rule), cmp.Compare(a.Sentence, b.Sentence))
	})
}

// Count says how many there are of a thing: 1 pack, 2 packs.
func Count(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %ss", n, one)
}

// Capital begins a sentence with a capital letter, whatever its alphabet.
func Capital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	if n == 0 || r == utf8.RuneError {
		return s
	}
	return string(unicode.ToUpper(r)) + s[n:]
}

// Name tells the finding's rule from every other, the crew's own apart.
func (f Finding) Name() string {
	if f.Rule == RuleOwn {
		return string(f.Rule) + " " + f.Own
	}
	return string(f.Rule)
}
