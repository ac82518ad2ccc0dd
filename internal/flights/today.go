package flights

import (
	"context"
	"maps"
	"math"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/sun"
	"mainstay/internal/jobs"
	"mainstay/internal/people"
	"mainstay/internal/walkround"
)

// Today is what the gate knows about a flight that is about to be checked: facts that the
// conditions of a checklist ask for, and what it works out itself.
func (s *Service) Today(ctx context.Context, aircraft uuid.UUID, job *uuid.UUID,
	packs []uuid.UUID) (walkround.Today, error) {
	var out walkround.Today
	k, err := s.one(ctx, aircraft)
	if err != nil {
		return out, err
	}
	in, err := s.forFlight(ctx, k, people.From(ctx).ID, Question{Aircraft: aircraft, Packs: packs, Job: job})
	if err != nil {
		return out, err
	}
	out.Facts = in.Day
	for _, p := range in.Facts.People {
		out.Crew = append(out.Crew, p.Name)
	}
	out.Known = known(in, gate.Judge(in))
	return out, nil
}

// facts are what is known of the day of a flight; what is not is left away, and then asked.
func (s *Service) facts(ctx context.Context, k Known, in gate.Input, q Question, g jobs.ForGate) (checks.Facts, error) {
	out, now := checks.Facts{}, in.Now
	word := func(key string, yes bool) {
		out[key] = checks.Fact{Word: map[bool]string{true: "yes", false: "no"}[yes]}
	}
	number := func(key string, v float64) {
		if v >= 0 && !math.IsInf(v, 0) { // a date ahead of the clock tells no time since
			out[key] = checks.Fact{Number: &v}
		}
	}
	if in.Facts.Work != "" {
		out["work"] = checks.Fact{Word: in.Facts.Work}
	}
	if in.Facts.JobID != "" {
		word("product", in.Facts.Product != "")
	}
	if m, b := in.Mass.MassKg, in.Type.Balance; m != nil && b != nil {
		number("payload", *m-float64(b.EmptyKg)-float64(in.Type.Packs.Count)*float64(b.PackKg))
	}
	if g.ReturnM != nil {
		number(checks.FactReturn, *g.ReturnM)
	}
	if in.HighM != nil {
		number(checks.FactHigh, *in.HighM)
	}
	if g.LostLink != "" {
		out[checks.FactLostLink] = checks.Fact{Word: string(g.LostLink)}
	}
	blows, err := s.blows(ctx, k.Aircraft.ID, q)
	if err != nil {
		return nil, err
	}
	number("wind", blows)
	if l := in.Facts.Light; len(l) > 0 {
		dark := false
		for _, x := range l {
			dark = dark || x != string(sun.Daylight)
		}
		word("night", dark)
	}
	last := in.Aircraft.LastLanding
	word("new-aircraft", last == nil)
	word("first-of-day", last == nil || !k.papers.Crew.Day(*last).Equal(k.papers.Day))
	if last != nil {
		number("days-since-flight", now.Sub(*last).Hours()/24)
	}
	if c := in.Compass; c != nil {
		number("days-since-compass", now.Sub(c.At).Hours()/24)
		if c.MovedKm != nil {
			number("km-since-compass", *c.MovedKm)
		}
	}
	out["compass"] = checks.Fact{Word: map[bool]string{true: "needed", false: "not needed"}[in.CompassNeeded()]}
	word("other-type", in.LastType == nil || in.LastType.Key != in.Type.Key)
	// What happened since somebody looked: on the walk, or on the turnaround after it.
	since := time.Time{}
	for _, r := range []*gate.Run{in.Walkround, in.Turnaround} {
		if r != nil && r.At.After(since) && !r.At.After(now) {
			since = r.At
		}
	}
	worked := in.Walkround == nil
	for _, p := range in.Parts {
		worked = worked || p.FittedAt.After(since)
	}
	var seen struct{ Events, Orders int }
	err = s.DB.WithContext(ctx).Raw(`select (select count(*) from flight_events e join flights f on f.id = e.flight_id where f.aircraft_id = @a and e.taken_back_at is null and e.kind in @kinds and e.at > @since) as events,
		(select count(*) from work_orders where aircraft_id = @a and closed_at > @since) as orders`, map[string]any{"a": k.Aircraft.ID, "since": since, "kinds": lookedAfter}).Scan(&seen).Error
	word("event", seen.Events > 0)
	word("worked", worked || seen.Orders > 0)
	return out, err
}

// windHolds is how long a wind that was measured for another release tells of the day.
const windHolds = time.Hour

// blows is the wind of the question, or the newest measured here for a release, with its gust,
// m/s; not a number: nobody measured it in the last hour.
func (s *Service) blows(ctx context.Context, aircraft uuid.UUID, q Question) (float64, error) {
	w := q.Wind
	if w == nil {
		var last Release
		if err := s.DB.WithContext(ctx).Select("wind").Where("aircraft_id = ? or job_id = ?", aircraft,
			q.Job).Order("at desc").Limit(1).Find(&last).Error; err != nil {
			return 0, err
		}
		w = &last.Wind
	}
	now := s.Clock.Now()
	if w.At.IsZero() || w.At.Before(now.Add(-windHolds)) || w.At.After(now.Add(2*time.Minute)) {
		return math.NaN(), nil
	}
	if w.GustMS != nil {
		return max(float64(w.SteadyMS), float64(*w.GustMS)), nil
	}
	return float64(w.SteadyMS), nil
}

// lookedAfter are the events in flight after which somebody looks at the aircraft: those that
// open work, and those whose cause is found before it flies again.
var lookedAfter = slices.Concat(slices.Sorted(maps.Keys(opens)), slices.Sorted(maps.Keys(looked)))

// known is what the gate worked out, by rule: its findings, or that it held the rule and
// found nothing. What needs a reading that nobody took yet is not known.
func known(in gate.Input, answer gate.Output) map[judge.Rule]checks.Known {
	out := map[judge.Rule]checks.Known{}
	at := in.Now
	for _, r := range answer.Checked {
		out[r] = checks.Known{Verdict: judge.Clear, Words: "The gate finds nothing against it.", Source: in.Rules.Source(r),
			At: &at}
	}
	if _, words := in.Mass.Judge(); in.Mass.MassKg != nil {
		if k, ok := out[judge.RuleMass]; ok {
			k.Words = words
			out[judge.RuleMass] = k
		}
	}
	for _, f := range answer.Findings {
		k := out[f.Rule]
		k.Verdict, k.Source, k.At = max(k.Verdict, f.Verdict), f.Source, &at
		if k.Words == "The gate finds nothing against it." {
			k.Words = ""
		}
		k.Words = strings.TrimSpace(k.Words + " " + f.Sentence)
		out[f.Rule] = k
	}
	if in.Wind == nil {
		delete(out, judge.RuleWind)
	}
	return out
}
