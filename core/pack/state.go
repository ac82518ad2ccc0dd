package pack

import (
	"mainstay/core/why"
	"slices"
)

// State is where a pack is in its daily round.
type State string

// The states of a pack.
const (
	Storage    State = "storage"
	Charging   State = "charging"
	Charged    State = "charged"
	Fitted     State = "fitted"
	Hot        State = "hot"
	Flown      State = "flown"
	Quarantine State = "quarantine"
	Retired    State = "retired"
)

// AllStates lists every state.
var AllStates = []State{Storage, Charging, Charged, Fitted, Hot, Flown, Quarantine, Retired}

// A flown pack is charged or brought to storage before it flies again; a
// quarantined one leaves only by inspection or to disposal; retired is final.
var moves = map[State][]State{
	Storage:    {Charging, Charged, Quarantine, Retired},
	Charging:   {Charged, Storage, Quarantine},
	Charged:    {Fitted, Charging, Storage, Quarantine, Retired},
	Fitted:     {Charged, Flown, Hot, Quarantine},
	Hot:        {Flown, Quarantine},
	Flown:      {Charging, Charged, Storage, Quarantine, Retired},
	Quarantine: {Storage, Retired},
	Retired:    {},
}

// Moves returns the states a pack may move to from s.
func Moves(s State) []State { return slices.Clone(moves[s]) }

// Move returns nil when a pack may go from one state to the other, else an
// error wrapping ErrMove that says which moves are possible.
func Move(from, to State) error {
	next, known := moves[from]
	if !known {
		return why.Not(ErrMove, "%q is not a state of a pack", from)
	}
	if slices.Contains(next, to) {
		return nil
	}
	if len(next) == 0 {
		return why.Not(ErrMove, "a %s pack stays %s", from, from)
	}
	return why.Not(ErrMove, "a pack in %s can go to %v, not to %q", from, next, to)
}

// MayFly reports whether a pack in this state may be taken into the air.
func MayFly(s State) bool { return s == Charged || s == Fitted }
