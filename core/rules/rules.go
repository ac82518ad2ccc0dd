// Package rules holds rule packs: statements with the source they come from,
// the evidence each needs, and a predicate that judges the facts of a flight.
// Guidance only: the law, the crew's authorisations, the maker's manual and the
// product label decide. What is not known is a finding, never a pass. All dates
// are civil dates as UTC midnight; lengths are metres, masses kg.
package rules

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/judge"
)

// Scope is what a rule is about.
type Scope string

// The scopes: an aircraft alone, whoever flies it, a flight that belongs to a
// job.
const (
	OfAircraft Scope = "aircraft"
	OfPilot    Scope = "pilot"
	OfJob      Scope = "job"
)

// AllScopes lists the scopes.
var AllScopes = []Scope{OfAircraft, OfPilot, OfJob}

// Rule is one requirement and where it comes from.
type Rule struct {
	ID        judge.Rule   `json:"id"`
	Own       string       `json:"own,omitempty"` // which of the crew's own, when it is one
	Citation  string       `json:"citation"`
	Statement string       `json:"statement"`
	Evidence  string       `json:"evidence"` // what it needs to be judged
	Scope     Scope        `json:"scope"`
	By        []judge.Rule `json:"by,omitempty"`   // checks of the gate that judge it
	Asks      []Ask        `json:"asks,omitempty"` // what only a person can say
	Waivable  bool         `json:"waivable,omitempty"`

	check func(c *checker)
	when  func(f Facts) bool // whether it applies at all; nil: always
}

// Ask is a question that a person answers for a job.
type Ask struct {
	ID       string   `json:"id"`
	Question string   `json:"question"`
	Options  []Option `json:"options"`
	Each     bool     `json:"each,omitempty"` // answered for each aircraft of the job by itself
}

// Option is one answer and what it means.
type Option struct {
	ID      string        `json:"id"`
	Words   string        `json:"words"`
	Verdict judge.Verdict `json:"verdict"`
	Then    string        `json:"then,omitempty"`   // the sentence when it is not Clear
	Unsure  bool          `json:"unsure,omitempty"` // nobody knows: no waiver lifts it
}

// Pack is a named set of rules as reviewed on a date.
type Pack struct {
	Name       string `json:"name"`
	Title      string `json:"title"`
	Version    int    `json:"version"`
	ReviewedOn string `json:"reviewed_on"`
	Outline    bool   `json:"outline,omitempty"` // not complete: says so wherever it is shown
	Rules      []Rule `json:"rules"`
	Law        Law    `json:"-"`
}

// Caution stands wherever a rule is shown.
const Caution = "Guidance only. The law, your authorisations, the maker's manual and the product label decide; ask your authority."

// Packs lists the packs a crew may choose from.
var Packs = []Pack{USSmall, EUSpecific}

// Find returns a pack by its name.
func Find(name string) (Pack, error) {
	for _, p := range Packs {
		if p.Name == name {
			return p, nil
		}
	}
	return Pack{}, fmt.Errorf("no rule pack %q", name)
}

// Source returns the citation of a rule of the pack or of usual practice; of one
// that the pack does not have, usual practice.
func (p Pack) Source(id judge.Rule) string {
	for _, rs := range [][]Rule{p.Rules, Practice.Rules} { // asked for every finding: nothing is copied
		for i := range rs {
			if rs[i].ID == id {
				return rs[i].Citation
			}
		}
	}
	return Usual
}

// With returns the pack with usual practice and the crew's own rules behind its
// own.
func (p Pack) With(local []Rule) Pack {
	p.Rules = slices.Concat(p.Rules, Practice.Rules, local)
	return p
}

// Questions are the questions that apply to the facts, in the order of the
// rules.
func (p Pack) Questions(f Facts) []Ask {
	var out []Ask
	for _, r := range p.Rules {
		if r.applies(f) {
			out = append(out, r.Asks...)
		}
	}
	return out
}

func (r Rule) applies(f Facts) bool { return r.when == nil || r.when(f) }

// Judge runs every rule of the given scopes and returns what was found, with
// the ids of the rules that were held and found nothing. Rules that only the
// gate's own checks judge are left to them.
func (p Pack) Judge(f Facts, scopes ...Scope) (findings []judge.Finding, held []judge.Rule) {
	for _, r := range p.Rules {
		if !slices.Contains(scopes, r.Scope) || !r.applies(f) || r.check == nil && len(r.Asks) == 0 {
			continue
		}
		c := &checker{Facts: f, rule: r, law: p.Law}
		c.answers()
		if r.check != nil {
			r.check(c)
		}
		if found, _ := judge.Notices(c.out); len(found) == 0 {
			held = append(held, r.ID)
		}
		findings = append(findings, c.out...)
	}
	return findings, held
}

// Lift turns a Stop into Watch where a waiver or exemption in force names its
// rule, a limit is known to be exceeded and the conditions are on file; what is
// not known is never lifted. Only rules that the law lets be waived are lifted.
func (p Pack) Lift(findings []judge.Finding, docs []Document, day time.Time) []judge.Finding {
	out := slices.Clone(findings)
	for i, f := range out {
		if f.Verdict != judge.Stop || !f.Limit {
			continue
		}
		n := slices.IndexFunc(p.Rules, func(r Rule) bool { return r.ID == f.Rule })
		if n < 0 {
			continue
		}
		for _, d := range docs {
			if !p.Rules[n].Waivable || !d.Kind.lifts() || !d.InForce(day) || !slices.Contains(d.Rules, f.Rule) {
				continue
			}
			if strings.TrimSpace(d.Conditions) == "" {
				out[i].Sentence = fmt.Sprintf("%s The %s %s lifts nothing: its conditions are not on file.", f.Sentence,
					d.Kind.Name(), d.Number)
				continue
			}
			out[i].Verdict = judge.Watch
			out[i].Sentence = fmt.Sprintf("%s Flown under %s %s: %s.", f.Sentence, d.Kind.Name(), d.Number,
				strings.TrimRight(d.Conditions, "."))
			break
		}
	}
	return out
}

// checker gathers what one rule finds.
type checker struct {
	Facts
	rule Rule
	law  Law
	out  []judge.Finding
}

func (c *checker) find(v judge.Verdict, sentence, evidence, lifts string, remedy *judge.Remedy) {
	if evidence == "" {
		evidence = c.rule.Evidence
	}
	c.out = append(c.out, judge.Finding{Rule: c.rule.ID, Own: c.rule.Own, Verdict: v, Sentence: sentence,
		Source: c.rule.Citation, Evidence: evidence, Lifts: lifts, Remedy: remedy})
}

// What merely ends soon is a notice for a month and Watch in its last week.
const (
	NoticeEnds = 30 * 24 * time.Hour
	WatchEnds  = 7 * 24 * time.Hour
)

// ends names what ends on a day; that day still counts.
func (c *checker) ends(on time.Time, sentence, evidence, lifts string, remedy *judge.Remedy) {
	left := on.Sub(c.Day)
	if left > NoticeEnds {
		return
	}
	c.find(judge.Watch, sentence, evidence, lifts, remedy)
	if left > WatchEnds {
		n := &c.out[len(c.out)-1]
		n.Verdict, n.Notice = judge.Clear, true
	}
}

// limit says that the newest finding is a limit that is known to be exceeded.
func (c *checker) limit() { c.out[len(c.out)-1].Limit = true }

// answers judges what people said. What was not answered is a Stop.
func (c *checker) answers() {
	open := &judge.Remedy{Kind: judge.AnswerInJob, ID: c.JobID}
	for _, a := range c.rule.Asks {
		said, ok := c.Answers[a.ID]
		n := slices.IndexFunc(a.Options, func(o Option) bool { return o.ID == said })
		if !ok || n < 0 {
			c.find(judge.Stop, "Not answered: "+a.Question, "No answer.", "an answer", open)
			c.out[len(c.out)-1].Asks = []string{a.Question}
			continue
		}
		if o := a.Options[n]; o.Verdict != judge.Clear {
			c.find(o.Verdict, o.Then, "Answered: "+o.Words+".", "putting it right, then another answer", open)
			c.out[len(c.out)-1].Limit = !o.Unsure
		}
	}
}
