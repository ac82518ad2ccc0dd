package intent

import "mainstay/core/judge"

// LostLink is what an aircraft does when the link is lost, as set in it; "" was
// not read.
type LostLink string

// What aircraft do.
const (
	Returns   LostLink = "return"
	Hovers    LostLink = "hover" // or circles
	Lands     LostLink = "land"
	Continues LostLink = "continue"
)

// AllLostLinks lists what can be set.
var AllLostLinks = []LostLink{Returns, Hovers, Lands, Continues}

// Judge is what it means for a flight; the way home is judged for a return.
func (l LostLink) Judge() (judge.Verdict, string) {
	switch l {
	case Returns:
		return judge.Clear, ""
	case Hovers:
		return judge.Watch, "Without link it hovers or circles where it is, until the pack is low: know what it does then, and whether that place is free under it."
	case Lands:
		return judge.Watch, "Without link it lands where it is: nobody and nothing may be under any part of the way."
	case Continues:
		return judge.Watch, "Without link it flies on to the end of the mission: nobody can stop it. Know where it ends and what it does there."
	}
	return judge.Watch, "What it does without link has not been read in it. Read it before take-off."
}

// Words say it for the briefing.
func (l LostLink) Words() string {
	return map[LostLink]string{Returns: "returns", Hovers: "hovers or circles where it is", Lands: "lands where it is",
		Continues: "flies the mission to its end"}[l]
}
