package gate

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/sun"
)

type run struct {
	in      Input
	out     []judge.Finding
	checked []judge.Rule
}

// Judge runs every check of the scope and returns the verdict with its
// findings, worst first.
func Judge(in Input) Output {
	if in.Rules.Name == "" {
		in.Rules = rules.USSmall.With(nil)
	}
	g := &run{in: in, checked: []judge.Rule{}}
	g.step(judge.RuleAircraftActive, g.active)
	g.step(judge.RuleOneAircraft, g.free)
	g.step(judge.RuleGrounding, g.groundings)
	g.step(judge.RuleDefects, g.defects)
	g.step(judge.RuleWalkround, g.walkround)
	g.step(judge.RuleWear, g.wear)
	g.step(judge.RuleOtherPropellers, g.propellers)
	g.step(judge.RuleCompass, g.compass)
	g.step(judge.RuleProgramme, g.programme)
	g.step(judge.RuleWorkOrders, g.orders)
	g.step(judge.RuleFirmware, g.firmware)
	g.step(judge.RuleGear, g.gear)
	var out Output
	if in.Scope == WholeFlight {
		g.step(judge.RulePacks, g.packs)
		g.step(judge.RuleAccident, g.reports)
		g.step(judge.RuleMass, g.mass)
		g.step(judge.RuleEnergy, func() { out.Energy = g.energy() })
		g.step(judge.RuleSticks, g.sticks)
		g.step(judge.RuleWind, func() { out.Wind, out.WindM = g.wind() })
	} else if in.Released == nil && in.InAir == nil { // else its packs are chosen, and with it
		g.step(judge.RulePacks, g.rack)
	}
	g.rules()
	judge.Sort(g.out)
	g.out = rules.Gather(g.out)
	out.Findings, out.Notices = judge.Notices(g.out)
	out.Verdict, out.Checked = judge.Worst(out.Findings), g.checked
	out.Cautions, out.FirstLeg = cautions(in), in.FirstLeg
	out.Rules = fmt.Sprintf("%s %d", in.Rules.Name, in.Rules.Version)
	return out
}

// step runs a check and notes it as held when it found nothing.
func (g *run) step(name judge.Rule, check func()) {
	before := len(g.out)
	check()
	if found, _ := judge.Notices(g.out[before:]); len(found) == 0 {
		g.checked = append(g.checked, name)
	}
}

// find says a finding of a check, with the rule it is shown under and the one it rests on.
func (g *run) find(rule, source judge.Rule, f judge.Finding) {
	f.Rule, f.Source = rule, g.in.Rules.Source(source)
	g.out = append(g.out, f)
}

// rules runs the rule pack over the facts: the aircraft's rules always, the
// pilot's for a flight, the rest for a flight that belongs to a job.
func (g *run) rules() {
	scopes := []rules.Scope{rules.OfAircraft}
	if g.in.Scope == WholeFlight {
		scopes = append(scopes, rules.OfPilot)
		if g.in.Facts.JobID != "" {
			scopes = append(scopes, rules.OfJob)
			g.step(judge.RuleSite, func() { g.out = append(g.out, g.in.Site...) })
		}
	}
	found, held := g.in.Rules.Judge(g.in.Facts, scopes...)
	g.out = g.in.Rules.Lift(append(g.out, found...), g.in.Facts.Docs, g.in.Facts.Day)
	g.checked = append(g.checked, held...)
	against := func(id judge.Rule) bool {
		return slices.ContainsFunc(g.out, func(f judge.Finding) bool { return f.Rule == id && !f.Notice })
	}
	g.checked = slices.DeleteFunc(g.checked, against)
	slices.Sort(g.checked)
	g.checked = slices.Compact(g.checked)
}

// reports counts down what the authority must be told; late does not make the
// flight less safe, but nobody flies on over it.
func (g *run) reports() {
	for _, r := range g.in.Reports {
		open := &judge.Remedy{Kind: judge.OpenReports, ID: r.ID}
		if g.in.Now.After(r.DueAt) {
			g.find(judge.RuleAccident, judge.RuleAccidentReport, judge.Finding{
				Verdict:  judge.Stop,
				Sentence: fmt.Sprintf("The report to the authority was due by %s: %s", day(r.DueAt), r.What),
				Evidence: "Reports on file.", Lifts: "reporting it", Remedy: open,
			})
		} else {
			g.find(judge.RuleAccident, judge.RuleAccidentReport, judge.Finding{
				Verdict:  judge.Watch,
				Sentence: fmt.Sprintf("To be reported to the authority by %s: %s", day(r.DueAt), r.What),
				Evidence: "Reports on file.", Lifts: "reporting it", Remedy: open,
			})
		}
	}
}

func day(t time.Time) string { return t.Format(time.DateOnly) }

// cautions are said where the decision is taken, whatever the verdict; law,
// maker's manual, product label and owner of a plant decide.
func cautions(in Input) []string {
	out := []string{}
	if in.Scope != WholeFlight {
		return out
	}
	gestures, _ := in.Type.Gestures()
	out = append(out, gestures...)
	out = append(out, "Wires are the ones that are missed: look from both ends, poles first, then the spans. Sensors do not see them.")
	switch in.Facts.Work {
	case "spraying":
		out = append(out, "Spray drifts onto people, bees, water and neighbours. The product label decides on wind, buffer and protection; stop when the wind turns or drops.")
	case "inspection":
		out = append(out, "Energised parts kill without being touched. The owner of the plant sets the distance.")
	}
	if slices.ContainsFunc(in.Facts.Light, func(l string) bool { return l != string(sun.Daylight) }) {
		out = append(out, "In the dark distance and attitude are hard to see: lights checked lit, nearer than by day, a second pair of eyes.")
	}
	return append(out, fmt.Sprintf("Nobody in front of it, at its side or within %.0f m; anybody may call stop.",
		in.Type.Kept().StandOffM()))
}

func (g *run) active() {
	if !g.in.Aircraft.Active {
		g.find(judge.RuleAircraftActive, judge.RuleCondition, judge.Finding{
			Verdict: judge.Stop, Sentence: g.in.Aircraft.Name + " is out of service.",
			Evidence: "Status in the fleet.", Lifts: "technician or chief",
			Remedy: &judge.Remedy{Kind: judge.OpenAircraft, ID: g.in.Aircraft.ID},
		})
	}
}

func (g *run) free() {
	if f := g.in.InAir; f != nil {
		sentence, kind := fmt.Sprintf("%s is in the air with %s.", g.in.Aircraft.Name, f.Pilot), judge.OpenFlight
		if f.Landed {
			sentence, kind = fmt.Sprintf("%s has landed and its flight with %s is not logged yet.", g.in.Aircraft.Name,
				f.Pilot), judge.LogFlight
		}
		g.find(judge.RuleOneAircraft, judge.RuleOneAircraft, judge.Finding{
			Verdict: judge.Stop, Sentence: sentence, Evidence: "Open flight.",
			Lifts: "the pilot of that flight", Remedy: &judge.Remedy{Kind: kind, ID: f.FlightID},
		})
	}
	if r := g.in.Released; r != nil && g.in.Scope == WholeFlight {
		g.find(judge.RuleOneAircraft, judge.RuleOneAircraft, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: fmt.Sprintf("%s has already been released by %s.", g.in.Aircraft.Name, r.Pilot),
			Evidence: "Open release.", At: &r.At, Lifts: "the pilot who released, or a chief",
			Remedy: &judge.Remedy{Kind: judge.OpenRelease, ID: r.ID},
		})
	}
}

func (g *run) groundings() {
	for _, x := range g.in.Groundings {
		kind := judge.ReturnToService
		if x.Cause == "contact" {
			kind = judge.ReplacePropeller
		}
		g.find(judge.RuleGrounding, judge.RuleCrewOrder, judge.Finding{
			Verdict: judge.Stop, Sentence: fmt.Sprintf("Grounded by %s: %s", x.By, x.Reason),
			Evidence: "Grounding on record.", At: &x.At, Lifts: "technician or chief, never the pilot",
			Remedy: &judge.Remedy{Kind: kind, ID: g.in.Aircraft.ID},
		})
	}
}

// defects that nobody has decided about say so: a defect leads to a work order
// or to a deferral, never to silence.
func (g *run) defects() {
	for _, d := range g.in.Defects {
		v, sentence := d.Judge()
		g.find(judge.RuleDefects, judge.RuleCondition, judge.Finding{
			Verdict: v, Sentence: sentence, Evidence: "Raised by " + d.By + ".", At: &d.At,
			Lifts: "technician or chief", Remedy: &judge.Remedy{Kind: judge.OpenDefect, ID: d.ID},
		})
	}
}

// Judge is what an open defect means for the next flight.
func (d Defect) Judge() (judge.Verdict, string) {
	v, sentence := max(d.Severity, judge.Watch), fmt.Sprintf("Open defect at %s: %s.", d.Station,
		strings.TrimRight(strings.TrimPrefix(d.Title, d.Station+": "), ". "))
	switch {
	case d.Deferred != "":
		return judge.Watch, sentence + " " + d.Deferred
	case d.Ended != "":
		return judge.Stop, sentence + " It was put off; " + d.Ended + "."
	case d.Order == "":
		sentence += " No work order and no deferral yet."
	}
	return v, sentence
}

func (g *run) walkround() {
	a := g.in.Aircraft
	start := &judge.Remedy{Kind: judge.StartWalkround, ID: a.ID, Name: a.Name}
	if g.in.inspectedAtBase() {
		start = &judge.Remedy{Kind: judge.StartTurnaround, ID: a.ID}
	}
	if d := g.in.Draft; d != nil {
		start = &judge.Remedy{Kind: judge.ResumeWalkround, ID: d.ID}
	}
	w := g.in.walked()
	switch {
	case w == nil:
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Stop, Sentence: a.Name + " has no complete walkround.", Evidence: "None on record.",
			Lifts: "anyone who walks it", Remedy: start,
		})
		return
	case w.At.After(g.in.Now):
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Stop, Sentence: "The walkround is dated in the future: the clock is wrong.",
			Evidence: "By " + w.By + ".", At: &w.At, Lifts: "chief", Remedy: start,
		})
		return
	case g.in.Now.Sub(w.At) > WalkroundValidFor:
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: fmt.Sprintf("The last walkround is %s old; it holds for %s.", age(g.in.Now.Sub(w.At)), age(WalkroundValidFor)),
			Evidence: "By " + w.By + ".", At: &w.At, Lifts: "anyone who walks it", Remedy: start,
		})
		return
	}
	for _, p := range g.in.Parts {
		if p.ID != "" && p.FittedAt.IsZero() {
			g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
				Verdict:  judge.Stop,
				Sentence: "When " + p.Label + " was fitted is not known, nor whether the walk came after it.",
				Evidence: "Parts on file.", Lifts: "technician or chief", Remedy: g.fit(p),
			})
			return
		}
		if p.FittedAt.After(w.At) {
			at := p.FittedAt
			g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
				Verdict:  judge.Stop,
				Sentence: "Work was done since the walk: " + p.Label + " is newly fitted. Walk round again before it flies.",
				Evidence: "Part fitted.", At: &at, Lifts: "anyone who walks it", Remedy: start,
			})
			return
		}
	}
	newest := g.in.Checks()[0]
	if now := checks.Kept(g.in.Type); newest.Kept != now {
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: "What the crew keeps is not what the last check looked at. Set now: " + now,
			Evidence: "Practice of the crew.", At: &newest.At, Lifts: "anyone who walks it", Remedy: start,
		})
	}
	last := a.LastLanding
	if last != nil && last.IsZero() {
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Stop, Sentence: "When it landed last is not known.", Evidence: "Flights on file.",
			Lifts: "chief", Remedy: start,
		})
		return
	}
	if last != nil && !w.At.After(*last) {
		t := g.in.Turnaround
		if t == nil || !t.At.After(*last) || t.At.After(g.in.Now) {
			if g.in.Draft == nil {
				start = &judge.Remedy{Kind: judge.StartTurnaround, ID: a.ID}
			}
			g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
				Verdict:  judge.Stop,
				Sentence: "It has flown since the last check; a turnaround check comes with every pack.",
				Evidence: "Last landing.", At: last, Lifts: "anyone who walks it", Remedy: start,
			})
			return
		}
	}
	for _, r := range g.in.Checks() {
		g.runFindings(r, start)
		g.leftOut(r, start)
		g.asked(r, start)
	}
	g.looked(newest)
}

// inspectedAtBase reports whether the full inspection was done after the last
// flight, where the crew keeps it so: a short check then opens the day.
func (in Input) inspectedAtBase() bool {
	last := in.Aircraft.LastLanding
	return !in.Type.Kept().InspectsBefore() && in.Inspected != nil && !in.Inspected.IsZero() &&
		!in.Inspected.After(in.Now) && (last == nil || in.Inspected.After(*last))
}

// walked is the check that opens the day: the full walkround, or the short check
// after a full inspection at base.
func (in Input) walked() *Run {
	w, t := in.Walkround, in.Turnaround
	if in.inspectedAtBase() && t != nil && t.At.After(*in.Inspected) && (w == nil || t.At.After(w.At)) {
		return t
	}
	return w
}

// Checks are those whose findings count now, the newest first: the walkround, and
// the turnaround after a flight since. None without a walkround.
func (in Input) Checks() []*Run {
	w, t, last := in.walked(), in.Turnaround, in.Aircraft.LastLanding
	switch {
	case w == nil:
		return nil
	case w == t:
		return []*Run{w}
	case last != nil && !w.At.After(*last) && t != nil && t.At.After(w.At):
		return []*Run{t, w}
	}
	return []*Run{w}
}

// looked asks that each pack that flies was looked at: on the newest check, or
// by itself since it flew last.
func (g *run) looked(newest *Run) {
	if g.in.Scope != WholeFlight {
		return
	}
	for _, p := range g.in.Packs {
		fresh := func(at time.Time) bool {
			return !at.After(g.in.Now) && g.in.Now.Sub(at) <= WalkroundValidFor &&
				(p.FlownAt == nil || !p.FlownAt.IsZero() && at.After(*p.FlownAt))
		}
		if slices.Contains(newest.PackIDs, p.ID) && fresh(newest.At) || p.LookedAt != nil && fresh(*p.LookedAt) {
			continue
		}
		g.find(judge.RulePacks, judge.RuleCondition, judge.Finding{
			Verdict:  judge.Stop,
			Sentence: fmt.Sprintf("%s was not looked at on the last check of this aircraft. Look at all six faces first.", p.Label),
			Evidence: "Check by " + newest.By + ".", At: &newest.At,
			Lifts:  "a look at all six faces, or a check with this pack",
			Remedy: &judge.Remedy{Kind: judge.LookAtPack, ID: p.ID, Name: p.Label},
		})
	}
}

// leftOut holds what a check did not ask for, because of the flight it was walked for, against
// this flight: by night, with another pilot, for other work it may be asked.
func (g *run) leftOut(r *Run, again *judge.Remedy) {
	if g.in.Scope != WholeFlight {
		return
	}
	if r.LeftOut == nil {
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Stop, Sentence: "What the check left out is not known.", Evidence: "By " + r.By + ".",
			At: &r.At, Lifts: "walking again", Remedy: again,
		})
	}
	for _, l := range r.LeftOut {
		if !l.Asked(g.in.Day) {
			continue
		}
		v := judge.Watch
		if l.Stops {
			v = judge.Stop
		}
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: v, Sentence: "Left out on the check, and this flight asks for it: " + l.Title + ".",
			Evidence: "By " + r.By + ". " + l.Why, At: &r.At, Lifts: "walking again, for this flight", Remedy: again,
		})
	}
}

// asked holds who was asked for go or no go on a check against the crew of this flight.
func (g *run) asked(r *Run, again *judge.Remedy) {
	if g.in.Scope != WholeFlight || r.Asked != nil && len(r.Asked) == 0 {
		return
	}
	if r.Asked == nil {
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Watch, Sentence: "Who was asked for go or no go is not known.",
			Evidence: "By " + r.By + ".", At: &r.At, Lifts: "asking everybody before launch, or walking again",
			Remedy: again,
		})
		return
	}
	var not []string
	for _, p := range g.in.Facts.People {
		if !slices.Contains(r.Asked, p.Name) {
			not = append(not, p.Name)
		}
	}
	if len(not) > 0 {
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Watch, Sentence: "Go or no go was not asked of " + strings.Join(not, ", ") + ".",
			Evidence: "By " + r.By + ", of " + strings.Join(r.Asked, ", ") + ".", At: &r.At,
			Lifts: "asking them before launch, or walking again", Remedy: again,
		})
	}
}

// runFindings are what a check found that lasts only as long as the check: what
// is wrong with the airframe itself is a defect.
func (g *run) runFindings(r *Run, again *judge.Remedy) {
	if r.Pace != "" {
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: judge.Watch, Sentence: r.Pace, Evidence: "Seconds of each item.", At: &r.At,
			Lifts: "walking it again, looking", Remedy: again,
		})
	}
	for _, f := range r.Findings {
		if f.PackID != "" && (g.in.Scope == AircraftOnly || !slices.ContainsFunc(g.in.Packs,
			func(p Pack) bool { return p.ID == f.PackID })) {
			continue // about a pack that does not fly this time
		}
		g.find(judge.RuleWalkround, judge.RuleCondition, judge.Finding{
			Verdict: f.Verdict, Sentence: f.Title + ": " + f.Sentence, Evidence: "Found on the walk by " + r.By + ".",
			At: &r.At, Lifts: "putting it right, then walking again", Remedy: again,
		})
	}
}

// mass holds today's take-off mass against the type and the air.
func (g *run) mass() {
	v, words := g.in.Mass.Judge()
	if v == judge.Clear {
		return
	}
	r := &judge.Remedy{Kind: judge.EnterMass, ID: g.in.Aircraft.ID}
	if g.in.Facts.JobID != "" {
		r = &judge.Remedy{Kind: judge.EnterJobMass, ID: g.in.Facts.JobID}
	}
	g.find(judge.RuleMass, judge.RuleMakerLimits, judge.Finding{
		Verdict: v, Sentence: words,
		Evidence: "Mass of the job, or as weighed for the aircraft; newest weather.",
		Lifts:    "weighing it, or less on board", Remedy: r,
	})
}

// sticks says what is not known of the gestures, and what means something else
// than on the type that the pilot flew last.
func (g *run) sticks() {
	open := &judge.Remedy{Kind: judge.OpenProgramme, ID: g.in.Type.Key}
	if _, unknown := g.in.Type.Gestures(); unknown {
		g.find(judge.RuleSticks, judge.RuleMakerLimits, judge.Finding{
			Verdict:  judge.Watch,
			Sentence: "Which gestures of the sticks start and stop its motors is not in the file of " + g.in.Type.Name + ".",
			Evidence: "Type profile.", Lifts: "reading the manual; chief, in the type file", Remedy: open,
		})
		return
	}
	if g.in.LastType == nil {
		return
	}
	if _, unknown := g.in.LastType.Gestures(); unknown && g.in.LastType.Key != g.in.Type.Key {
		g.find(judge.RuleSticks, judge.RuleMakerLimits, judge.Finding{
			Verdict:  judge.Watch,
			Sentence: "The pilot flew " + g.in.LastType.Name + " last; whether its gestures mean something else here is not known.",
			Evidence: "Type profiles; the pilot's last flight.", Lifts: "the pilot, by trying it on the ground",
		})
	}
	for _, s := range g.in.Type.Opposite(*g.in.LastType) {
		g.find(judge.RuleSticks, judge.RuleMakerLimits, judge.Finding{
			Verdict: judge.Watch, Sentence: judge.Capital(s) + ".",
			Evidence: "Type profiles; the pilot's last flight.", Lifts: "the pilot, by trying it on the ground",
		})
	}
}

func age(d time.Duration) string {
	h := d.Hours()
	switch {
	case h < 2:
		return fmt.Sprintf("%.0f min", d.Minutes())
	case h < 48:
		return fmt.Sprintf("%.0f h", h)
	}
	return fmt.Sprintf("%.0f days", h/24)
}
