package checks

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/judge"
)

// Known is what was worked out about an item, by the gate or told by the aircraft.
type Known struct {
	Verdict judge.Verdict `json:"verdict"`
	Words   string        `json:"words"`
	Source  string        `json:"source"`
	At      *time.Time    `json:"at,omitempty"`
}

// Vote is what one person said in a poll.
type Vote struct {
	Name string `json:"name"`
	Go   bool   `json:"go"`
}

// Stops reports whether something found at an item could stop a flight. Such an item cannot be
// left out.
func (it Item) Stops() bool {
	switch it.Kind {
	case Reading:
		return it.Band == nil || it.Band.StopBelow != nil || it.Band.StopAbove != nil
	case Cells, Motors, Set, Poll, Who, Drill:
		return true
	case Choice:
		return slices.ContainsFunc(it.Options, func(o Option) bool { return o.Verdict == judge.Stop })
	case Photo:
		return it.Defect == judge.Stop
	case Look, Group, Alike, Counted, Timer, Computed:
	}
	return it.Defect == judge.Stop || it.Compare != nil ||
		slices.ContainsFunc(it.Marks, func(m Mark) bool { return it.of(m) == judge.Stop })
}

// judgeSkip takes why an item was left out.
func judgeSkip(it Item, v Value) (Judgement, error) {
	switch {
	case v.Look != "" || v.Number != nil || len(v.Set) > 0 || len(v.Wrong) > 0 || v.Choice != "" || v.Seconds != nil ||
		len(v.Poll) > 0 || v.From != "":
		return Judgement{}, bad("It is left out or it is answered, not both.")
	case it.Stops():
		return Judgement{}, bad("This can stop a flight: it cannot be left out.")
	case len([]rune(strings.TrimSpace(v.Skip))) < 4:
		return Judgement{}, bad("Say why it is left out.")
	case len([]rune(v.Skip)) > MaxNote:
		return Judgement{}, bad("The reason is longer than %d characters.", MaxNote)
	}
	return Judgement{judge.Watch, "Left out: " + strings.TrimSpace(v.Skip), "looked at every time"}, nil
}

func judgeCount(it Item, v Value) (Judgement, error) {
	if v.Number == nil || *v.Number != float64(int(*v.Number)) || *v.Number < 0 || *v.Number > 1000 {
		return Judgement{}, bad("Enter how many there are, as a whole number.")
	}
	want, against := int(*it.Expect), fmt.Sprintf("%s expected", num(*it.Expect))
	switch have := int(*v.Number); {
	case have < want:
		return Judgement{max(it.Defect, judge.Watch), fmt.Sprintf("%d of %d: %d missing.", have, want, want-have),
			against}, nil
	case have > want:
		return Judgement{judge.Watch,
				fmt.Sprintf("%d, and there ought to be %d: count again, and find where the others belong.", have, want), against},
			nil
	}
	return Judgement{judge.Clear, "All " + num(*it.Expect) + " there.", against}, nil
}

// judgeComputed takes that what was worked out was read. A person can say that it is worse, and
// never that it is better; what is not in order is confirmed in words.
func judgeComputed(it Item, v Value) (Judgement, error) {
	if it.Known == nil {
		j, err := judgeLook(it, v)
		if err == nil && j.Verdict == judge.Clear {
			j.Sentence = "Looked at by a person: it is not worked out here."
		}
		return j, err
	}
	k := *it.Known
	if v.Look != "ok" && v.Look != "defect" {
		return Judgement{}, bad("Say whether it is still so.")
	}
	if strings.TrimSpace(v.Note) == "" && (k.Verdict != judge.Clear || v.Look == "defect") {
		return Judgement{}, bad("Say in the note what you saw.")
	}
	j := Judgement{k.Verdict, k.Words, k.Source}
	if v.Look == "defect" {
		j.Verdict, j.Sentence = max(k.Verdict, it.Defect), "It is not as worked out: "+k.Words
	}
	return j, nil
}

func judgePoll(it Item, v Value) (Judgement, error) {
	var no, silent []string
	for _, name := range it.Names {
		i := slices.IndexFunc(v.Poll, func(x Vote) bool { return x.Name == name })
		switch {
		case i < 0:
			silent = append(silent, name)
		case !v.Poll[i].Go:
			no = append(no, name)
		}
	}
	for _, x := range v.Poll {
		if !slices.Contains(it.Names, x.Name) {
			return Judgement{}, bad("%q is not asked here.", x.Name)
		}
	}
	against := "go of everybody by name"
	switch {
	case len(no) > 0:
		return Judgement{judge.Stop, "No go: " + strings.Join(no, ", ") + ". Hear why, put it right, ask everybody again.",
			against}, nil
	case len(it.Names) == 0:
		return Judgement{}, bad("Nobody is named who could be asked. Give the job its crew.")
	case len(silent) > 0 || len(v.Poll) != len(it.Names):
		return Judgement{}, bad("Still to be asked: %s.", strings.Join(silent, ", "))
	}
	return Judgement{judge.Clear, "Go: " + strings.Join(it.Names, ", ") + ".", against}, nil
}

func judgeWho(it Item, v Value) (Judgement, error) {
	if !slices.Contains(it.Names, v.Choice) {
		return Judgement{}, bad("Name one person.")
	}
	return Judgement{judge.Clear, v.Choice + ".", "one named person"}, nil
}

// judgeDrill takes what was seen in a picture. It says nothing of the aircraft, and whether it
// was right is told to the person alone, afterwards.
func judgeDrill(v Value) (Judgement, error) {
	if v.Look != "ok" && v.Look != "defect" {
		return Judgement{}, bad("Say whether the picture shows damage.")
	}
	return Judgement{judge.Clear, "Noted. It is a picture, and says nothing of this aircraft.", "a drill"}, nil
}
