package checks

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mainstay/core/judge"
)

// Mark is one of the things that a group looks at together.
type Mark struct {
	ID      string        `json:"id"`
	Station string        `json:"station"`
	Title   string        `json:"title"`
	Bad     string        `json:"bad,omitempty"`    // what it looks like when it is not in order
	Defect  judge.Verdict `json:"defect,omitempty"` // what that means; clear: as the item says
}

// Option is one answer of a choice.
type Option struct {
	Key     string        `json:"key"`
	Title   string        `json:"title"`
	Verdict judge.Verdict `json:"verdict"`
	Do      string        `json:"do,omitempty"` // what is done then
}

// MostParts bounds the marks and options of an item.
const MostParts = 40

// parts says what is wrong with the marks, options or time of an item.
func (it Item) parts(stations map[string]bool) error {
	refuse := func(format string, a ...any) error { return fmt.Errorf("%w: "+format, append([]any{ErrList}, a...)...) }
	seen := map[string]bool{}
	one := func(key, title string) error {
		if key == "" || title == "" || seen[key] {
			return refuse("item %q has a part without key or title, or the same twice: %q", it.ID, key)
		}
		seen[key] = true
		return nil
	}
	if n := max(len(it.Marks), len(it.Options)); n > MostParts {
		return refuse("item %q has %d parts; %d are the most", it.ID, n, MostParts)
	}
	if (it.Kind == Group) != (len(it.Marks) > 0) || (it.Kind == Choice) != (len(it.Options) > 0) {
		return refuse("item %q: a group has marks, a choice has options, and nothing else has", it.ID)
	}
	for _, m := range it.Marks {
		if err := one(m.ID, m.Title); err != nil {
			return err
		}
		if !stations[m.Station] {
			return refuse("mark %q of item %q is at station %q, which is not there", m.ID, it.ID, m.Station)
		}
	}
	clear := false
	for _, o := range it.Options {
		if err := one(o.Key, o.Title); err != nil {
			return err
		}
		clear = clear || o.Verdict == judge.Clear
	}
	if it.Kind == Choice && !clear {
		return refuse("choice %q has no answer that is in order", it.ID)
	}
	if (it.Kind == Timer) != (it.LeastS > 0) || it.LeastS > 3600 {
		return refuse("item %q: a timer runs for up to 3600 s, and nothing else has a time", it.ID)
	}
	return nil
}

// fill puts the number of a rotor into what has parts of its own.
func (it *Item) fill(r *strings.Replacer) {
	it.Marks, it.Options = slices.Clone(it.Marks), slices.Clone(it.Options)
	for i := range it.Marks {
		m := &it.Marks[i]
		m.ID, m.Station, m.Title = r.Replace(m.ID), r.Replace(m.Station), r.Replace(m.Title)
	}
}

// Stations are where an item looks: its own, and of a group each mark's, each once.
func (it Item) Stations() []string {
	out := []string{it.Station}
	for _, m := range it.Marks {
		if !slices.Contains(out, m.Station) {
			out = append(out, m.Station)
		}
	}
	return out
}

// judgeGroup takes all marks in order, or which are not.
func judgeGroup(it Item, v Value) (Judgement, error) {
	const against = "each as described"
	switch v.Look {
	case "ok":
		if len(v.Wrong) > 0 {
			return Judgement{}, bad("Something is marked as not in order: it cannot all be in order.")
		}
		return Judgement{judge.Clear, fmt.Sprintf("All %d looked at and found in order.", len(it.Marks)), against}, nil
	case "defect":
		worst, words, err := it.wrong(v)
		if err != nil {
			return Judgement{}, err
		}
		return Judgement{worst, "Not in order: " + strings.Join(words, ", ") + ". " + after(worst), against}, nil
	}
	return Judgement{}, bad("Say whether all is in order, or mark what is not.")
}

// wrong are the marks of a group that are not in order, with the worst of what they mean.
func (it Item) wrong(v Value) (worst judge.Verdict, titles []string, err error) {
	if len(v.Wrong) == 0 {
		return worst, nil, bad("Mark what is not in order.")
	}
	if strings.TrimSpace(v.Note) == "" {
		return worst, nil, bad("Say in the note what the defect is.")
	}
	for _, id := range slices.Compact(slices.Clone(v.Wrong)) {
		i := slices.IndexFunc(it.Marks, func(m Mark) bool { return m.ID == id })
		if i < 0 {
			return worst, nil, bad("There is no %q to look at here.", id)
		}
		worst = max(worst, it.of(it.Marks[i]))
		titles = append(titles, it.Marks[i].Title)
	}
	return worst, titles, nil
}

func (it Item) of(m Mark) judge.Verdict {
	if m.Defect != judge.Clear {
		return m.Defect
	}
	return max(it.Defect, judge.Watch)
}

func after(v judge.Verdict) string {
	if v == judge.Stop {
		return "This stops the flight until it is put right."
	}
	return "Flight is possible with care."
}

// judgeAlike takes what a hand tells: all alike, or which are not. Numbers, where they are
// taken, are held against each other too; the worse counts.
func judgeAlike(it Item, v Value) (Judgement, error) {
	out := Judgement{judge.Clear, "All motors alike.", "each like the others"}
	if len(v.Set) > 0 && it.Compare != nil {
		j, err := judgeMotors(it, v)
		if err != nil {
			return j, err
		}
		out = j
	}
	switch v.Look {
	case "ok":
		if len(v.Wrong) > 0 {
			return Judgement{}, bad("A motor is marked as not like the others: they cannot all be alike.")
		}
		return out, nil
	case "defect":
	default:
		return Judgement{}, bad("Say whether all are alike, or which are not.")
	}
	if len(v.Wrong) == 0 {
		return Judgement{}, bad("Mark which are not like the others.")
	}
	for _, n := range v.Wrong {
		if i, err := strconv.Atoi(n); err != nil || i < 1 || i > it.Count {
			return Judgement{}, bad("There is no motor %q; there are %d.", n, it.Count)
		}
	}
	worst := max(it.Defect, judge.Watch)
	words := "Motor " + v.Wrong[0] + " is"
	if len(v.Wrong) > 1 {
		words = "Motors " + strings.Join(v.Wrong, ", ") + " are"
	}
	sentence := words + " not like the others. " + after(worst)
	if out.Verdict != judge.Clear {
		sentence += " " + out.Sentence
	}
	return Judgement{max(worst, out.Verdict), sentence, out.Against}, nil
}

func judgeChoice(it Item, v Value) (Judgement, error) {
	for _, o := range it.Options {
		if o.Key != v.Choice {
			continue
		}
		words := o.Title + "."
		if o.Do != "" {
			words += " " + o.Do
		}
		return Judgement{o.Verdict, words, "the answers of the list"}, nil
	}
	return Judgement{}, bad("Choose one of the answers.")
}

// judgeTimer takes what was seen while it ran; one that ran too short is no answer.
func judgeTimer(it Item, v Value) (Judgement, error) {
	against := fmt.Sprintf("at least %s s", num(it.LeastS))
	if v.Seconds == nil || !(*v.Seconds >= 0 && *v.Seconds <= 86400) {
		return Judgement{}, bad("Start the time and let it run.")
	}
	if v.Look == "defect" { // what was seen counts however long it ran
		return judgeLook(it, v)
	}
	if *v.Seconds < it.LeastS {
		return Judgement{}, bad("It ran %.0f of %s s. Let it run on.", *v.Seconds, num(it.LeastS))
	}
	j, err := judgeLook(it, v)
	j.Against = against
	return j, err
}

// Spot is one thing that an entry found not in order, and where.
type Spot struct {
	Item    string // id; of a group the mark's own
	Station string
	Title   string
	Verdict judge.Verdict
}

// Spots are what an entry found, one for each mark or motor that is named; an entry that
// names none is one spot, the item itself. verdict is that of the entry.
func Spots(it Item, v Value, verdict judge.Verdict) []Spot {
	var out []Spot
	if v.Look == "defect" && it.Kind == Group {
		for _, id := range v.Wrong {
			for _, m := range it.Marks {
				if m.ID == id {
					out = append(out, Spot{it.ID + "#" + m.ID, m.Station, m.Title, it.of(m)})
				}
			}
		}
	}
	if len(out) == 0 {
		out = []Spot{{it.ID, it.Station, it.Title, verdict}}
	}
	return out
}
