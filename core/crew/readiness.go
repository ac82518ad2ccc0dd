package crew

import (
	"cmp"
	"fmt"
	"slices"
	"time"
)

// Phase of the practice on a type.
type Phase string

// The phases: first without load, then with a full tank but without spraying.
const (
	Empty  Phase = "empty"
	Loaded Phase = "loaded"
)

// Practice is one logged piece of manual flying.
type Practice struct {
	Phase    Phase
	Packs    int // flown empty from full
	Landings int // take-offs and landings by hand
	NoseIn   bool
	On       time.Time
}

// Syllabus is what opens a type to a pilot. Counts are at least.
type Syllabus struct {
	EmptyPacks  int `json:"empty_packs"`
	LoadedPacks int `json:"loaded_packs"` // types with a tank only
	Landings    int `json:"landings"`
}

// UsualSyllabus is what crews ask for: three to four packs empty, then three to
// four loaded, by hand, before the first job.
var UsualSyllabus = Syllabus{EmptyPacks: 3, LoadedPacks: 3, Landings: 6}

// Readiness is how far a pilot has come on a type.
type Readiness struct {
	Open        bool // the type is open to the pilot
	EmptyPacks  int
	LoadedPacks int
	Landings    int
	NoseIn      bool
	Missing     []string
}

// Judge counts the practice in the order of days. Loaded flying counts only
// once the empty packs are done. hasTank says whether the type carries liquid.
func (s Syllabus) Judge(done []Practice, hasTank bool) Readiness {
	done = slices.Clone(done)
	slices.SortStableFunc(done, func(a, b Practice) int {
		return cmp.Or(a.On.Compare(b.On),
			cmp.Compare(a.Phase, b.Phase))
	})
	var r Readiness
	early := 0
	for _, p := range done {
		switch {
		case p.Phase == Empty:
			r.EmptyPacks += p.Packs
		case r.EmptyPacks < s.EmptyPacks:
			early += p.Packs
			continue
		default:
			r.LoadedPacks += p.Packs
		}
		r.Landings += p.Landings
		r.NoseIn = r.NoseIn || p.NoseIn
	}
	lack := func(have, want int, what string) {
		if have < want {
			r.Missing = append(r.Missing, fmt.Sprintf("%d of %d %s", have, want, what))
		}
	}
	lack(r.EmptyPacks, s.EmptyPacks, "packs by hand without load")
	if hasTank {
		lack(r.LoadedPacks, s.LoadedPacks, "packs by hand with a full tank, not spraying")
		if early > 0 && r.LoadedPacks < s.LoadedPacks {
			r.Missing = append(r.Missing, fmt.Sprintf("%d loaded came before the empty ones were done and do not count", early))
		}
	}
	landings := s.Landings
	if !hasTank {
		landings = (landings + 1) / 2
	}
	lack(r.Landings, landings, "take-offs and landings by hand")
	if !r.NoseIn {
		r.Missing = append(r.Missing, "no nose-in practice")
	}
	r.Open = len(r.Missing) == 0
	return r
}
