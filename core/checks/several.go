package checks

import (
	"fmt"
	"slices"
	"strings"

	"mainstay/core/airframe"
	"mainstay/core/judge"
)

// Mark is one of the things that are looked at together: of a group as the list has it, of
// motors that ought to be alike each motor.
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

// sisters are the motors of a type as marks, numbered from 1.
func sisters(t airframe.Type) (out []Mark) {
	for i := range t.SisterMotors() {
		n := fmt.Sprint(i + 1)
		m := Mark{ID: n, Station: "motor-" + n, Title: "Motor " + n,
			Bad: "It sounds, turns or feels otherwise than the others."}
		if t.Geometry.Rotors == 0 {
			m.Station, m.Title = "motor-drive", "Drive motor"
		}
		out = append(out, m)
	}
	return out
}

// parts says what is wrong with the marks, options or time of an expanded item.
func (it Item) parts(stations map[string]bool) error {
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
	if (it.Kind == Group || it.Kind == Alike) != (len(it.Marks) > 0) || (it.Kind == Choice) != (len(it.Options) > 0) {
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
	good := false
	for _, o := range it.Options {
		if err := one(o.Key, o.Title); err != nil {
			return err
		}
		good = good || o.Verdict == judge.Clear
	}
	if it.Kind == Choice && !good {
		return refuse("choice %q has no answer that is in order", it.ID)
	}
	if (it.Kind == Timer) != (it.LeastS > 0) || it.LeastS > 3600 {
		return refuse("item %q: a timer runs for up to 3600 s, and nothing else has a time", it.ID)
	}
	return nil
}

// Stations are where an item looks: its own, and each mark's, each once.
func (it Item) Stations() []string {
	out := []string{it.Station}
	for _, m := range it.Marks {
		if !slices.Contains(out, m.Station) {
			out = append(out, m.Station)
		}
	}
	return out
}

// named are the marks that a value says are not in order, in the order of the list, each once;
// one that the item does not have is refused.
func (it Item) named(v Value) (out []Mark, err error) {
	for _, id := range v.Wrong {
		if !slices.ContainsFunc(it.Marks, func(m Mark) bool { return m.ID == id }) {
			return nil, bad("There is no %q to look at here.", id)
		}
	}
	for _, m := range it.Marks {
		if slices.Contains(v.Wrong, m.ID) {
			out = append(out, m)
		}
	}
	return out, nil
}

// of is what a mark that is not in order means.
func (it Item) of(m Mark) judge.Verdict {
	if m.Defect != judge.Clear {
		return m.Defect
	}
	return max(it.Defect, judge.Watch)
}

// told judges what was seen of the marks: all in order, or which are not.
func (it Item) told(v Value, allWell, against string) (Judgement, error) {
	wrong, err := it.named(v)
	switch {
	case err != nil:
		return Judgement{}, err
	case v.Look == "ok" && len(wrong) > 0:
		return Judgement{}, bad("Something is marked as not in order: it cannot all be in order.")
	case v.Look == "ok":
		return Judgement{judge.Clear, allWell, against}, nil
	case v.Look != "defect":
		return Judgement{}, bad("Say whether all is in order, or mark what is not.")
	case len(wrong) == 0:
		return Judgement{}, bad("Mark what is not in order.")
	}
	worst, titles := judge.Clear, []string{}
	for _, m := range wrong {
		worst, titles = max(worst, it.of(m)), append(titles, m.Title)
	}
	then := "Flight is possible with care."
	if worst == judge.Stop {
		then = "This stops the flight until it is put right."
	}
	return Judgement{worst, "Not in order: " + strings.Join(titles, ", ") + ". " + then, against}, nil
}

func judgeGroup(it Item, v Value) (Judgement, error) {
	j, err := it.told(v, fmt.Sprintf("All %d looked at and found in order.", len(it.Marks)), "each as described")
	if err == nil && v.Look == "defect" && strings.TrimSpace(v.Note) == "" {
		return Judgement{}, bad("Say in the note what the defect is.")
	}
	return j, err
}

// judgeAlike takes what a hand tells: all alike, or which are not. Numbers, where they are
// taken, are held against each other too; the worse counts.
func judgeAlike(it Item, v Value) (Judgement, error) {
	byHand, err := it.told(v, "All motors alike.", "each like the others")
	if err != nil || len(v.Set) == 0 || it.Compare == nil {
		return byHand, err
	}
	byNumber, err := judgeSet(it, v)
	if err != nil || byNumber.Verdict > byHand.Verdict || byHand.Verdict == judge.Clear {
		return byNumber, err
	}
	byHand.Against = byNumber.Against
	return byHand, nil
}

func judgeChoice(it Item, v Value) (Judgement, error) {
	for _, o := range it.Options {
		if o.Key == v.Choice {
			return Judgement{o.Verdict, strings.TrimSpace(o.Title + ". " + o.Do), "the answers of the list"}, nil
		}
	}
	return Judgement{}, bad("Choose one of the answers.")
}

// judgeTimer takes what was seen while it ran; one that ran too short is no answer, except
// that something was wrong.
func judgeTimer(it Item, v Value) (Judgement, error) {
	if v.Seconds == nil || !(*v.Seconds >= 0 && *v.Seconds <= 86400) {
		return Judgement{}, bad("Start the time and let it run.")
	}
	if v.Look == "ok" && *v.Seconds < it.LeastS {
		return Judgement{}, bad("It ran %.0f of %s s. Let it run on.", *v.Seconds, num(it.LeastS))
	}
	j, err := judgeLook(it, v)
	j.Against = fmt.Sprintf("at least %s s", num(it.LeastS))
	return j, err
}

// Spot is one thing that an entry found not in order, and where.
type Spot struct {
	Item    string // id; of a mark its own
	Station string
	Title   string
	Verdict judge.Verdict
}

// Spots are what an entry with a verdict found, one for each mark that was named or stands out
// by its number; an entry that names none is one spot, the item itself. What was worked out and
// only read is none: who works it out says it, anew each time.
func Spots(it Item, v Value, verdict judge.Verdict) (out []Spot) {
	if it.Kind == Computed && v.Look != "defect" {
		return nil
	}
	worst := map[string]judge.Verdict{}
	if named, err := it.named(v); err == nil && v.Look == "defect" {
		for _, m := range named {
			worst[m.ID] = it.of(m)
		}
	}
	if it.Kind == Alike && it.Compare != nil && it.Compare.How == "outlier" {
		for _, o := range Outliers(it, v.Set) {
			if o.Index < len(it.Marks) {
				id := it.Marks[o.Index].ID
				worst[id] = max(worst[id], o.Verdict)
			}
		}
	}
	for _, m := range it.Marks {
		if w, ok := worst[m.ID]; ok {
			out = append(out, Spot{it.ID + "#" + m.ID, m.Station, m.Title, w})
		}
	}
	if len(out) == 0 {
		return []Spot{{it.ID, it.Station, it.Title, verdict}}
	}
	return out
}
