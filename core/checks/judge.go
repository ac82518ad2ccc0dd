package checks

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/core/why"
)

// Value is what was entered for an item. Which fields count depends on the
// item's kind: Look and Note, Number, or Set.
type Value struct {
	Look   string    `json:"look,omitempty"` // "ok" or "defect"
	Note   string    `json:"note,omitempty"`
	Photos []string  `json:"photos,omitempty"`
	Number *float64  `json:"number,omitempty"`
	Set    []float64 `json:"set,omitempty"`
	// Wrong are the marks of a group that are not in order, or the numbers of the motors that
	// are not like the others, from 1.
	Wrong   []string `json:"wrong,omitempty"`
	Choice  string   `json:"choice,omitempty"`
	Seconds *float64 `json:"seconds,omitempty"` // that a timer ran
	Poll    []Vote   `json:"poll,omitempty"`
	Skip    string   `json:"skip,omitempty"` // why it was left out
	From    string   `json:"from,omitempty"` // the reading that was offered and confirmed
}

// Judgement is what the entry means.
type Judgement struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
	Against  string        `json:"against"` // the limit it was held against
}

// ErrValue is wrapped by every error about an entry that cannot be used; the
// text is a sentence for the person who made it.
var ErrValue = errors.New("entry not usable")

func bad(format string, a ...any) error {
	return why.Not(ErrValue, format, a...)
}

// MaxNote is the longest note in characters.
const MaxNote = 2000

// Judge judges one entry. What was offered and is not in order is confirmed in words: nobody
// presses a warning away unread.
func Judge(it Item, v Value, pk *PackRef) (Judgement, error) {
	j, err := judgeOf(it, v, pk)
	if err == nil && it.Kind != Computed && it.Known != nil && v.Skip == "" {
		if it.Known.Verdict != judge.Clear && strings.TrimSpace(v.Note) == "" {
			return Judgement{}, bad("It tells: %s Say in the note what you saw.", it.Known.Words)
		}
		j.Verdict, j.Sentence = max(j.Verdict, it.Known.Verdict), j.Sentence+" "+it.Known.Words
	}
	if err == nil && v.From != "" && j.Verdict != judge.Clear && strings.TrimSpace(v.Note) == "" {
		return Judgement{}, bad("It is not in order. Say in the note what you saw.")
	}
	return j, err
}

// judgeOf judges one entry. pk is the pack of a per-pack item, else nil. Entries
// out of the instrument's range, of the wrong size or empty are errors
// wrapping ErrValue, never a verdict.
func judgeOf(it Item, v Value, pk *PackRef) (Judgement, error) {
	if len([]rune(v.Note)) > MaxNote {
		return Judgement{}, bad("The note is longer than %d characters.", MaxNote)
	}
	if v.Skip != "" {
		return judgeSkip(it, v)
	}
	switch it.Kind {
	case Look:
		return judgeLook(it, v)
	case Reading:
		if v.Number == nil {
			return Judgement{}, bad("Enter %s in %s.", it.Quantity, Sign(it.Unit))
		}
		if err := inRange(it, *v.Number, ""); err != nil {
			return Judgement{}, err
		}
		return judgeBand(it, *v.Number), nil
	case Cells:
		return judgeCells(it, v, pk)
	case Motors, Set:
		return judgeSet(it, v)
	case Counted:
		return judgeCount(it, v)
	case Computed:
		return judgeComputed(it, v)
	case Poll:
		return judgePoll(it, v)
	case Who:
		return judgeWho(it, v)
	case Drill:
		return judgeDrill(v)
	case Group:
		return judgeGroup(it, v)
	case Alike:
		return judgeAlike(it, v)
	case Choice:
		return judgeChoice(it, v)
	case Timer:
		return judgeTimer(it, v)
	case Photo:
		if len(v.Photos) == 0 {
			return Judgement{}, bad("Take at least one photo.")
		}
		return Judgement{judge.Clear, judge.Count(len(v.Photos), "photo") + " taken.", "at least one photo"}, nil
	}
	return Judgement{}, bad("Items of kind %q are not known here.", it.Kind)
}

func judgeLook(it Item, v Value) (Judgement, error) {
	switch v.Look {
	case "ok":
		return Judgement{judge.Clear, "Looked at and found in order.", "as described"}, nil
	case "defect":
		if strings.TrimSpace(v.Note) == "" {
			return Judgement{}, bad("Say in the note what the defect is.")
		}
		if it.Defect == judge.Watch {
			return Judgement{judge.Watch, "Defect noted; flight is possible with care.", "as described"}, nil
		}
		return Judgement{judge.Stop, "Defect here stops the flight until it is put right.", "as described"}, nil
	}
	return Judgement{}, bad("Choose ok or defect.")
}

func inRange(it Item, x float64, which string) error {
	if math.IsNaN(x) || math.IsInf(x, 0) {
		return bad("%sEnter a number.", which)
	}
	if x < *it.Min || x > *it.Max {
		return bad("%s%s must be between %s and %s %s.", which, judge.Capital(it.Quantity), num(*it.Min), num(*it.Max),
			Sign(it.Unit))
	}
	return nil
}

func judgeBand(it Item, x float64) Judgement {
	b, against := it.Band, it.Band.describe(Sign(it.Unit))
	n, _ := units.Steps(x, it.Step)
	under := func(l *float64) bool { return l != nil && n < steps(*l, it.Step) }
	over := func(l *float64) bool { return l != nil && n > steps(*l, it.Step) }
	shown := num(x) + " " + Sign(it.Unit)
	switch {
	case under(b.StopBelow), over(b.StopAbove):
		return Judgement{judge.Stop, fmt.Sprintf("%s of %s is outside what may fly.", judge.Capital(it.Quantity), shown),
			against}
	case under(b.WatchBelow), over(b.WatchAbove):
		return Judgement{judge.Watch, fmt.Sprintf("%s of %s is near the limit.", judge.Capital(it.Quantity), shown), against}
	}
	return Judgement{judge.Clear, fmt.Sprintf("%s of %s is good.", judge.Capital(it.Quantity), shown), against}
}

func (b Band) describe(unit string) string {
	var parts []string
	lo, hi := cmpOr(b.WatchBelow, b.StopBelow), cmpOr(b.WatchAbove, b.StopAbove)
	switch {
	case lo != nil && hi != nil:
		parts = append(parts, fmt.Sprintf("clear %s to %s %s", num(*lo), num(*hi), unit))
	case lo != nil:
		parts = append(parts, fmt.Sprintf("clear from %s %s", num(*lo), unit))
	case hi != nil:
		parts = append(parts, fmt.Sprintf("clear up to %s %s", num(*hi), unit))
	}
	if b.StopBelow != nil {
		parts = append(parts, "stop under "+num(*b.StopBelow))
	}
	if b.StopAbove != nil {
		parts = append(parts, "stop over "+num(*b.StopAbove))
	}
	return strings.Join(parts, ", ")
}

func judgeCells(it Item, v Value, pk *PackRef) (Judgement, error) {
	if pk == nil {
		return Judgement{}, bad("This item belongs to a pack, and none was named.")
	}
	if len(v.Set) != pk.Cells {
		return Judgement{}, bad("Enter %d cells; there are %d.", pk.Cells, len(v.Set))
	}
	mv := make([]units.Millivolts, len(v.Set))
	for i, x := range v.Set {
		if !(x >= 500 && x <= 5000) {
			return Judgement{}, bad("Cell %d must be between 500 and 5000 mV.", i+1)
		}
		mv[i] = units.Millivolts(math.Round(x))
	}
	j, err := pack.JudgeCells(pk.Chemistry, pk.Cells, mv)
	if err != nil {
		return Judgement{}, bad("%v.", err)
	}
	return Judgement{j.Verdict, j.Sentence, j.Against}, nil
}

// Apart is one value, mostly of a motor, that lies apart from its sisters.
type Apart struct {
	Index    int // from 0
	By       float64
	Verdict  judge.Verdict
	Sentence string
}

// Outliers are all motors that lie above the median of the others by more than
// the item allows, not the worst alone, in their order. Two that are hot
// together still stand out: each is held against the median of the others.
func Outliers(it Item, set []float64) []Apart {
	if it.Compare == nil || len(set) < 2 {
		return nil
	}
	var out []Apart
	for i, x := range set {
		from, to := it.layer(i, len(set))
		if to-from < 2 {
			continue
		}
		by := x - median(slices.Delete(slices.Clone(set[from:to]), i-from, i-from+1))
		if v := it.Compare.grade(by, it.Step); v != judge.Clear {
			out = append(out, Apart{i, by, v, fmt.Sprintf("%s is %s %s above its sisters%s", it.NameOf(i), num(by),
				Sign(it.Unit), overworking(it))})
		}
	}
	return out
}

// layer is the range of the sisters of the i-th value of a set.
func (it Item) layer(i, n int) (from, to int) {
	if it.Layer <= 0 {
		return 0, n
	}
	from = i / it.Layer * it.Layer
	return from, min(from+it.Layer, n)
}

// spread is the greatest spread among sisters, percent of their mean; not a number where it is
// of none.
func (it Item) spread(set []float64) float64 {
	if len(set) == 0 {
		return math.NaN()
	}
	worst := 0.0
	for from := 0; from < len(set); {
		_, to := it.layer(from, len(set))
		s := SpreadPercent(set[from:to])
		if math.IsNaN(s) {
			return s
		}
		worst, from = max(worst, s), to
	}
	return worst
}

// overworking says what it means that one lies above the others.
func overworking(it Item) string {
	if it.Per == "" {
		return ": it is overworking."
	}
	return "."
}

func judgeSpread(it Item, set []float64) Judgement {
	c, s, motors := *it.Compare, it.spread(set), it.Per == ""
	find, landed := " Find out why.", " Find out why."
	if motors {
		find, landed = " Land and find out.", " Land and find out; an off-centre load shows too."
	}
	against := fmt.Sprintf("spread up to %s %% of the mean clear, to %s %% watch", num(c.Watch), num(c.Stop))
	n, ok := units.Steps(s, 0.1)
	sentence := fmt.Sprintf("%ss differ by %.1f %% of their mean.", judge.Capital(it.member()), s)
	switch {
	case !ok:
		return Judgement{judge.Stop, fmt.Sprintf("No %s reports any %s: it is not known whether they agree.", it.member(),
			it.Quantity), against}
	case n > steps(c.Stop, 0.1):
		return Judgement{judge.Stop, sentence + landed, against}
	case n > steps(c.Watch, 0.1):
		return Judgement{judge.Watch, sentence + find, against}
	}
	return Judgement{judge.Clear, sentence, against}
}

// SpreadPercent is (max - min)/mean in percent; NaN when the mean is zero or
// the set is empty.
func SpreadPercent(set []float64) float64 {
	if len(set) == 0 {
		return math.NaN()
	}
	sum := 0.0
	for _, x := range set {
		sum += x
	}
	mean := sum / float64(len(set))
	if mean == 0 {
		return math.NaN()
	}
	return (slices.Max(set) - slices.Min(set)) / mean * 100
}

// Outlier returns the index of the value that lies highest above the median
// of the others, and by how much. A set of fewer than two has no others: 0, 0.
func Outlier(set []float64) (index int, by float64) {
	if len(set) < 2 {
		return 0, 0
	}
	by = math.Inf(-1)
	for i, x := range set {
		others := slices.Delete(slices.Clone(set), i, i+1)
		if d := x - median(others); d > by {
			index, by = i, d
		}
	}
	return index, by
}

func median(xs []float64) float64 {
	s := slices.Sorted(slices.Values(xs))
	n := len(s)
	if n%2 == 1 {
		return s[n/2]
	}
	return (s[n/2-1] + s[n/2]) / 2
}

// Missing lists the items that have no usable entry yet, in walking order.
func Missing(items []Item, entered map[string]bool) []Item {
	var out []Item
	for _, it := range items {
		if !entered[it.ID] {
			out = append(out, it)
		}
	}
	return out
}

func steps(v, step float64) int64 { n, _ := units.Steps(v, step); return n }

// Sign is how a unit is written for people.
func Sign(unit string) string {
	switch unit {
	case "degC":
		return "°C"
	case "deg":
		return "°"
	case "ohm":
		return "Ω"
	}
	return unit
}

func num(v float64) string { return strconv.FormatFloat(math.Round(v*1000)/1000, 'f', -1, 64) }

func cmpOr(a, b *float64) *float64 {
	if a != nil {
		return a
	}
	return b
}
