package rules_test

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/crew"
	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/core/sun"
)

func ptr[T any](v T) *T                      { return &v }
func day(y, m, d int) time.Time              { return time.Date(y, time.Month(m), d, 0, 0, 0, 0, time.UTC) }
func on(y, m, d int) *time.Time              { return ptr(day(y, m, d)) }
func all(p rules.Pack) rules.Pack            { return p.With(nil) }
func worst(fs []judge.Finding) judge.Verdict { return judge.Worst(fs) }

// spray is a spraying job with an aircraft of 72 kg about which nothing is wrong.
func spray(p rules.Pack) rules.Facts {
	ivo := rules.Person{ID: "i", Name: "Ivo", IsPilot: true, Certificate: "R-1", TrainedOn: on(2025, 3, 3),
		Role: crew.InCommand, Fit: &crew.Fitness{}, Ready: &crew.Readiness{Open: true}}
	ada := rules.Person{ID: "a", Name: "Ada", Role: crew.Observer, Fit: &crew.Fitness{}}
	f := rules.Facts{Day: day(2026, 6, 10), JobID: "j", Work: "spraying", Product: "Sulphur 80", Pilot: &ivo,
		People: []rules.Person{ivo, ada}, Light: []string{string(sun.Daylight), string(sun.Twilight), string(sun.Night)},
		Aircraft: rules.Aircraft{ID: "d", Name: "Dray", Type: "Dray 30", Registration: "FA-1",
			RegistrationExpires: on(2027, 6, 1), MassKg: 72},
		HeightM: ptr(30.0), SpeedMS: ptr(6.0), FarM: ptr(300.0), SightM: 500, Briefing: &rules.Briefing{},
		Docs: []rules.Document{{Kind: rules.HeavyExemption, Number: "E-1"}, {Kind: rules.Agricultural, Number: "AG-1"},
			{Kind: rules.Applicator, PersonID: "i", Number: "L-1"},
			{Kind: rules.NightTraining, PersonID: "i", Number: "N-1", Issued: on(2024, 1, 1)}, {Kind: rules.Competency,
				PersonID: "i", Number: "C-1", Issued: on(2024, 1, 1)}, {Kind: rules.Operator, Number: "O-1"},
			{Kind: rules.Authorisation, Number: "OA-1"}, {Kind: rules.Insurance, Number: "I-1"}, {Kind: rules.HazmatExempt,
				Number: "H-1"}},
		Answers: map[string]string{}}
	for _, a := range all(p).Questions(f) {
		f.Answers[a.ID] = a.Options[0].ID
	}
	if p.Name == rules.EUSpecific.Name {
		f.Answers["category"] = "specific"
	}
	return f
}

func TestPacksAreCompleteAndUnique(t *testing.T) {
	// Checks of the gate that rules lean on; "site" is what the site page judges, the last two are kept outside the gate.
	checks := []judge.Rule{"aircraft-active", "one-aircraft", "grounding", "defects", "walkround", "wear",
		"other-propellers", "compass", "programme", "work-orders", "firmware", "packs", "wind", "site", "accident", "records"}
	for _, p := range append(slices.Clone(rules.Packs), rules.Practice) {
		seen := map[judge.Rule]bool{}
		for _, r := range all(p).Rules {
			if p.Name == "practice" && seen[r.ID] {
				continue // With adds practice to itself
			}
			assert.False(t, seen[r.ID], "%s: %s twice", p.Name, r.ID)
			seen[r.ID] = true
			assert.NotEmpty(t, r.Citation, r.ID)
			assert.NotEmpty(t, r.Statement, r.ID)
			assert.NotEmpty(t, r.Evidence, r.ID)
			assert.Contains(t, rules.AllScopes, r.Scope, r.ID)
			assert.Equal(t, r.Citation, p.Source(r.ID))
			for _, b := range r.By {
				assert.Contains(t, checks, b, r.ID)
			}
			for _, a := range r.Asks {
				require.GreaterOrEqual(t, len(a.Options), 2, a.ID)
				assert.Contains(t, a.Question, "?")
				for _, o := range a.Options {
					assert.Equal(t, o.Verdict != judge.Clear, o.Then != "", "%s %s", a.ID, o.ID)
				}
			}
		}
		assert.Equal(t, rules.Usual, p.Source("none"))
	}
	// What 14 CFR 107.205 lets be waived, as far as the pack judges it, and nothing else.
	var waivable []judge.Rule
	for _, r := range rules.USSmall.Rules {
		if r.Waivable {
			waivable = append(waivable, r.ID)
		}
	}
	assert.Equal(t, []judge.Rule{"over-people", "line-of-sight", "night", "airspace", "vehicle", "height", "speed",
		"visibility", "clouds"}, waivable)
	_, err := rules.Find("none")
	assert.Error(t, err)
}

func TestNothingWrongFindsNothing(t *testing.T) {
	for _, p := range rules.Packs {
		found, held := all(p).Judge(spray(p), rules.AllScopes...)
		assert.Empty(t, found, p.Name)
		assert.Contains(t, held, judge.RuleHeight)
	}
}

func TestOneThingWrong(t *testing.T) {
	us, eu := rules.USSmall, rules.EUSpecific
	without := func(k rules.DocumentKind) func(*rules.Facts) {
		return func(f *rules.Facts) {
			f.Docs = slices.DeleteFunc(f.Docs, func(d rules.Document) bool { return d.Kind == k })
		}
	}
	set := func(k rules.DocumentKind, change func(*rules.Document)) func(*rules.Facts) {
		return func(f *rules.Facts) {
			for i := range f.Docs {
				if f.Docs[i].Kind == k {
					change(&f.Docs[i])
				}
			}
		}
	}
	say := func(ask, option string) func(*rules.Facts) { return func(f *rules.Facts) { f.Answers[ask] = option } }
	for _, c := range []struct {
		name   string
		pack   rules.Pack
		change func(*rules.Facts)
		rule   judge.Rule
		v      judge.Verdict
		says   string
	}{
		{"height at the limit", us, func(f *rules.Facts) { f.HeightM = ptr(121.92) }, "", judge.Clear, ""},
		{"height a centimetre over", us, func(f *rules.Facts) { f.HeightM = ptr(121.93) }, "height", judge.Stop, "400 ft"},
		{"over a structure", us, func(f *rules.Facts) { f.HeightM, f.OverTopM = ptr(200.0), ptr(121.0) }, "", judge.Clear,
			""},
		{"too high over a structure", us, func(f *rules.Facts) { f.HeightM, f.OverTopM = ptr(200.0), ptr(122.0) }, "height",
			judge.Stop, "over the top"},
		{"height unknown", us, func(f *rules.Facts) { f.HeightM = nil }, "height", judge.Stop, "not known"},
		{"speed at the limit", us, func(f *rules.Facts) { f.SpeedMS = ptr(100 * 0.44704) }, "", judge.Clear, ""},
		{"too fast", us, func(f *rules.Facts) { f.SpeedMS = ptr(44.71) }, "speed", judge.Stop, "87 kt"},
		{"speed unknown", us, func(f *rules.Facts) { f.SpeedMS = nil }, "speed", judge.Watch, "not known"},
		{"no registration", us, func(f *rules.Facts) { f.Aircraft.Registration = " " }, "registration", judge.Stop,
			"No registration"},
		{"no exemption for 72 kg", us, without(rules.HeavyExemption), "heavy", judge.Stop, "no exemption for 55 lb"},
		{"light enough without one", us, func(f *rules.Facts) { f.Aircraft.MassKg = 24.94; without(rules.HeavyExemption)(f) },
			"", judge.Clear, ""},
		{"55 lb to the gram", us,
			func(f *rules.Facts) { f.Aircraft.MassKg = 55 * 0.45359237; without(rules.HeavyExemption)(f) }, "heavy", judge.Stop,
			"55 lb or more"},
		{"exemption ended", us, set(rules.HeavyExemption, func(d *rules.Document) { d.Expires = on(2026, 6, 9) }), "heavy",
			judge.Stop, "ended on 2026-06-09"},
		{"exemption on its last day", us, set(rules.HeavyExemption, func(d *rules.Document) { d.Expires = on(2026, 6, 10) }),
			"heavy", judge.Watch, "ends on"},
		{"exemption without a number", us, set(rules.HeavyExemption, func(d *rules.Document) { d.Number = "" }), "heavy",
			judge.Stop, "has no number"},
		{"not an agricultural operator", us, without(rules.Agricultural), "agricultural", judge.Stop,
			"agricultural operator certificate"},
		{"nobody is licensed", us, without(rules.Applicator), "agricultural", judge.Stop, "Nobody in this job"},
		{"licence ends soon", us, set(rules.Applicator, func(d *rules.Document) { d.Expires = on(2026, 6, 17) }),
			"agricultural", judge.Watch, "ends on 2026-06-17"},
		{"product unknown", us, func(f *rules.Facts) { f.Product = "" }, "agricultural", judge.Stop, "Which product"},
		{"label not read", us, say("label", "no"), "agricultural", judge.Stop, "label"},
		{"not asked about bees", us, func(f *rules.Facts) { delete(f.Answers, "downwind") }, "drift", judge.Stop,
			"Not answered"},
		{"an answer that is none", us, say("downwind", "perhaps"), "drift", judge.Stop, "Not answered"},
		{"somebody downwind", us, say("downwind", "no"), "drift", judge.Stop, "drift"},
		{"no night training", us, without(rules.NightTraining), "night-training", judge.Stop, "no night training"},
		{"night training of the day itself", us, set(rules.NightTraining,
			func(d *rules.Document) { d.Issued = on(2021, 4, 6) }), "night-training", judge.Stop, "2021-04-06"},
		{"night training of the day after", us, set(rules.NightTraining,
			func(d *rules.Document) { d.Issued = on(2021, 4, 7) }), "", judge.Clear, ""},
		{"twilight asks for no training", us,
			func(f *rules.Facts) { f.Light = []string{string(sun.Twilight)}; without(rules.NightTraining)(f) }, "", judge.Clear,
			""},
		{"no light by twilight", us,
			func(f *rules.Facts) { f.Light = []string{string(sun.Twilight)}; f.Answers["lights"] = "no" }, "night", judge.Stop,
			"3 statute miles"},
		{"light unknown counts as night", us, func(f *rules.Facts) { f.Light = nil; without(rules.NightTraining)(f) },
			"night-training", judge.Stop, "night"},
		{"by day nobody asks for lights", us,
			func(f *rules.Facts) { f.Light = []string{string(sun.Daylight)}; delete(f.Answers, "lights") }, "", judge.Clear, ""},
		{"hazmat under an exemption", us, say("hazmat", "exempt"), "", judge.Clear, ""},
		{"hazmat without it", us, func(f *rules.Facts) { f.Answers["hazmat"] = "exempt"; without(rules.HazmatExempt)(f) },
			"hazmat", judge.Stop, "hazardous"},
		{"no briefing", us, func(f *rules.Facts) { f.Briefing = nil }, "briefing", judge.Stop, "no briefing"},
		{"not briefed", us, func(f *rules.Facts) { f.Briefing.Missing = []string{"Ada"} }, "briefing", judge.Stop, "Ada"},
		{"briefing of another day", us, func(f *rules.Facts) { f.Briefing.Changed = "it was for another day" }, "briefing",
			judge.Stop, "no longer holds"},
		{"too far", us, func(f *rules.Facts) { f.FarM = ptr(501.0) }, "line-of-sight", judge.Stop, "501 m"},
		{"far with an observer", us, func(f *rules.Facts) { f.FarM = ptr(900.0); f.Answers["sight"] = "observer" },
			"line-of-sight", judge.Stop, "with an observer too"},
		{"observer not named", us, func(f *rules.Facts) { f.Answers["sight"] = "observer"; f.People = f.People[:1] },
			"line-of-sight", judge.Stop, "none is named"},
		{"not fit", us, func(f *rules.Facts) { f.People[1].Fit = &crew.Fitness{Against: []string{"alcohol", "fatigue"}} },
			"fitness", judge.Stop, "alcohol, fatigue"},
		{"not declared", us, func(f *rules.Facts) { f.People[0].Fit = nil }, "fitness", judge.Stop, "has not declared"},
		{"ground crew need not", us, func(f *rules.Facts) { f.People[1].Fit, f.People[1].Role = nil, crew.Ground }, "",
			judge.Clear, ""},
		{"pilot not in the job", us, func(f *rules.Facts) {
			f.Pilot = &rules.Person{ID: "x", Name: "Xia", IsPilot: true, Certificate: "R", TrainedOn: on(2026, 1, 1)}
		}, "agricultural", judge.Clear, ""},
		{"not ready for the type", us,
			func(f *rules.Facts) { f.Pilot.Ready = &crew.Readiness{Missing: []string{"0 of 3 packs"}} }, "readiness", judge.Stop,
			"0 of 3"},
		{"practice may be flown", us, func(f *rules.Facts) {
			f.Work = "practice"
			f.Pilot.Ready = &crew.Readiness{Missing: []string{"0 of 3 packs"}}
		}, "readiness", judge.Watch, "Practise by hand"},
		{"no job", us, func(f *rules.Facts) { f.JobID = "" }, "job", judge.Stop, "no job"},
		{"observer flies another", us, func(f *rules.Facts) { f.People[1].InAir = "Quad" }, "one-aircraft", judge.Stop,
			"Ada already has Quad"},
		{"eu height", eu, func(f *rules.Facts) { f.HeightM = ptr(120.01) }, "height", judge.Stop, "120 m"},
		{"eu over a mast of 110 m", eu, func(f *rules.Facts) {
			f.HeightM, f.OverTopM, f.Answers["structure-request"] = ptr(125.0), ptr(15.0), "yes"
		}, "", judge.Clear, ""},
		{"eu over a mast, nobody asked", eu, func(f *rules.Facts) { f.HeightM, f.OverTopM = ptr(125.0), ptr(15.0) },
			"structure-request", judge.Stop, "responsible"},
		{"eu too far over a mast", eu, func(f *rules.Facts) {
			f.HeightM, f.OverTopM, f.Answers["structure-request"] = ptr(126.0), ptr(15.01), "yes"
		}, "height", judge.Stop, "15 m"},
		{"eu open a2 too heavy", eu, func(f *rules.Facts) {
			f.Answers["category"], f.Work, f.Aircraft.MassKg = "a2",
				"mapping", 4
		}, "category", judge.Stop, "4 kg"},
		{"eu open a2 near people", eu, func(f *rules.Facts) {
			f.Answers["category"], f.Work, f.Aircraft.MassKg, f.PeopleM = "a2", "mapping", 3.9, ptr(29.9)
		}, "category", judge.Stop, "keeps 30 m"},
		{"eu open a3 near houses", eu, func(f *rules.Facts) {
			f.Answers["category"], f.Work, f.Aircraft.MassKg, f.PeopleM = "a3", "mapping", 20, ptr(149.0)
		}, "category", judge.Stop, "keeps 150 m"},
		{"eu open a3 far enough", eu, func(f *rules.Facts) {
			f.Answers["category"], f.Work, f.Aircraft.MassKg, f.PeopleM = "a3", "mapping", 20, ptr(150.0)
		}, "", judge.Clear, ""},
		{"eu over a low mast", eu, func(f *rules.Facts) { f.HeightM, f.OverTopM = ptr(121.0), ptr(16.0) }, "height",
			judge.Stop, "120 m"},
		{"eu spraying in open", eu, say("category", "a3"), "category", judge.Stop, "sprayed"},
		{"eu proof too old", eu, set(rules.Competency, func(d *rules.Document) { d.Issued = on(2021, 6, 9) }), "operator",
			judge.Stop, "5 years"},
		{"eu without authorisation", eu, without(rules.Authorisation), "category", judge.Stop, "operational authorisation"},
		{"eu without insurance", eu, without(rules.Insurance), "insurance", judge.Stop, "insurance"},
	} {
		f := spray(c.pack)
		c.change(&f)
		found, _ := all(c.pack).Judge(f, rules.AllScopes...)
		if c.v == judge.Clear {
			if c.rule == "" {
				assert.Empty(t, found, c.name)
			}
			continue
		}
		i := slices.IndexFunc(found, func(x judge.Finding) bool { return x.Rule == c.rule })
		require.GreaterOrEqual(t, i, 0, "%s: %+v", c.name, found)
		assert.Equal(t, c.v, found[i].Verdict, c.name)
		assert.Contains(t, found[i].Sentence, c.says, c.name)
		assert.NotEmpty(t, found[i].Lifts, c.name)
	}
}

// A pilot who has no role in the job is named, whoever else is.
func TestPilotMustBelongToTheJob(t *testing.T) {
	f := spray(rules.USSmall)
	f.Pilot = &rules.Person{ID: "x", Name: "Xia", IsPilot: true, Certificate: "R", TrainedOn: on(2026, 1, 1),
		Ready: &crew.Readiness{Open: true}}
	found, _ := all(rules.USSmall).Judge(f, rules.OfJob)
	assert.True(t, slices.ContainsFunc(found, func(x judge.Finding) bool {
		return x.Rule == "roles" &&
			x.Verdict == judge.Stop
	}))
}

// Facts about which nothing is known stop, in every pack.
func TestUnknownIsNeverAPass(t *testing.T) {
	for _, p := range rules.Packs {
		found, _ := all(p).Judge(rules.Facts{JobID: "j"}, rules.AllScopes...)
		assert.Equal(t, judge.Stop, worst(found))
		asked := len(all(p).Questions(rules.Facts{JobID: "j"}))
		n := 0
		for _, x := range found {
			if x.Evidence == "No answer." {
				n++
			}
		}
		assert.Equal(t, asked, n, p.Name)
	}
}

func TestWaiversLiftOnlyWhatTheLawLets(t *testing.T) {
	p, today := all(rules.USSmall), day(2026, 6, 10)
	stop := func(rule judge.Rule) []judge.Finding {
		return []judge.Finding{{Rule: rule, Verdict: judge.Stop, Sentence: "Wrong.", Limit: true}}
	}
	doc := func(k rules.DocumentKind, named ...judge.Rule) []rules.Document {
		return []rules.Document{{Kind: k, Number: "W-1", Rules: named, Expires: on(2026, 6, 10),
			Conditions: "Only at Long Bank."}}
	}
	for _, r := range p.Rules {
		got := p.Lift(stop(r.ID), doc(rules.Waiver, r.ID), today)[0]
		assert.Equal(t, r.Waivable, got.Verdict == judge.Watch, r.ID)
	}
	got := p.Lift(stop("height"), doc(rules.Waiver, "height"), today)[0]
	assert.Contains(t, got.Sentence, "waiver W-1: Only at Long Bank.")
	assert.Equal(t, judge.Stop, p.Lift(stop("height"), doc(rules.Waiver, "speed"), today)[0].Verdict, "names another rule")
	assert.Equal(t, judge.Stop, p.Lift(stop("height"), doc(rules.Waiver, "height"), today.AddDate(0, 0, 1))[0].Verdict,
		"ended")
	assert.Equal(t, judge.Stop, p.Lift(stop("grounding"), doc(rules.Waiver, "grounding"), today)[0].Verdict,
		"not a rule of the pack")
	assert.Equal(t, judge.Watch, p.Lift(stop("height"), doc(rules.HeavyExemption, "height"), today)[0].Verdict,
		"the exemption names it")
	assert.Equal(t, judge.Stop, p.Lift(stop("fitness"), doc(rules.HeavyExemption, "fitness"), today)[0].Verdict)
	assert.Equal(t, judge.Stop, p.Lift(stop("hazmat"), doc(rules.HeavyExemption, "hazmat"), today)[0].Verdict)
}

// A waiver of everything lifts what is known to exceed a limit, and nothing
// that is not known.
func TestWaiversNeverLiftWhatIsNotKnown(t *testing.T) {
	p := all(rules.USSmall)
	var named []judge.Rule
	for _, r := range p.Rules {
		named = append(named, r.ID)
	}
	docs := []rules.Document{{Kind: rules.Waiver, Number: "W-1", Rules: named, Conditions: "Only at Long Bank."},
		{Kind: rules.HeavyExemption, Number: "E-1", Rules: named, Conditions: "Under 200 ft."}}
	f := spray(rules.USSmall)
	f.HeightM, f.FarM, f.Answers = nil, nil, map[string]string{}
	found, _ := p.Judge(f, rules.OfJob)
	for _, x := range p.Lift(found, docs, f.Day) {
		if x.Rule == "height" || x.Rule == "line-of-sight" || x.Evidence == "No answer." {
			assert.Equal(t, judge.Stop, x.Verdict, x.Sentence)
		}
	}
	f = spray(rules.USSmall)
	f.HeightM, f.SpeedMS, f.FarM, f.Answers["lights"], f.Answers["people-under"] = ptr(150.0), ptr(50.0), ptr(900.0), "no",
		"open"
	found, _ = p.Judge(f, rules.OfJob)
	require.Len(t, found, 5, "%+v", found)
	for _, x := range p.Lift(found, docs, f.Day) {
		assert.Equal(t, judge.Watch, x.Verdict, x.Sentence)
	}
	// Who is not sure does not know; and a waiver whose conditions nobody has on file lifts nothing.
	for _, r := range p.Rules {
		for _, a := range r.Asks {
			for _, o := range a.Options {
				if !o.Unsure {
					continue
				}
				f := spray(rules.USSmall)
				f.Light, f.Answers[a.ID] = []string{"night"}, o.ID
				found, _ := p.Judge(f, rules.OfJob)
				for _, x := range p.Lift(found, docs, f.Day) {
					if x.Rule == r.ID {
						assert.Equal(t, judge.Stop, x.Verdict, "%s %s", a.ID, o.ID)
					}
				}
			}
		}
	}
	for i := range docs {
		docs[i].Conditions = " "
	}
	for _, x := range p.Lift(found, docs, f.Day) {
		assert.Equal(t, judge.Stop, x.Verdict, x.Sentence)
	}
}

// What merely ends soon is a notice for a month, and Watch in its last week; its
// last day counts.
func TestWhatEndsSoon(t *testing.T) {
	today := day(2026, 6, 10)
	for days, want := range map[int]string{-1: "stop", 0: "watch", 1: "watch", 7: "watch", 8: "notice", 30: "notice",
		31: ""} {
		end := today.AddDate(0, 0, days)
		for rule, change := range map[judge.Rule]func(*rules.Facts){
			"registration": func(f *rules.Facts) { f.Aircraft.RegistrationExpires = &end },
			"agricultural": func(f *rules.Facts) {
				f.Docs = slices.Clone(f.Docs)
				for i := range f.Docs {
					if f.Docs[i].Kind == rules.Applicator {
						f.Docs[i].Expires = &end
					}
				}
			},
		} {
			f := spray(rules.USSmall)
			change(&f)
			found, held := all(rules.USSmall).Judge(f, rules.AllScopes...)
			got := ""
			for _, x := range found {
				if x.Rule == rule {
					if got = x.Verdict.String(); x.Notice {
						got = "notice"
					}
				}
			}
			assert.Equal(t, want, got, "%s in %d days", rule, days)
			assert.Equal(t, want == "" || want == "notice", slices.Contains(held, rule), "%s in %d days", rule, days)
			if want == "notice" {
				assert.Equal(t, judge.Clear, judge.Worst(found), "a notice colours nothing")
			}
		}
	}
}

// Alaska has the almanac's twilight; the law of one pack is not that of another.
func TestLawOfAPlace(t *testing.T) {
	for at, want := range map[[2]float64]time.Duration{{46.31, -119.7}: 30 * time.Minute, {61.2, -149.9}: 0,
		{55.3, -131.6}: 0, {52.9, 173.2}: 0, {48.5, -124}: 30 * time.Minute, {54, -125}: 30 * time.Minute} {
		assert.Equal(t, want, rules.USSmall.At(at[0], at[1]).TwilightLast, "%v", at)
	}
	assert.Zero(t, rules.EUSpecific.At(46, 8).TwilightLast)
	l := rules.USSmall.Law
	assert.False(t, l.Over(121.92))
	assert.True(t, l.Over(121.93))
	assert.False(t, rules.EUSpecific.Law.Over(120))
	assert.True(t, rules.EUSpecific.Law.Over(120.01))
	for _, p := range rules.Packs {
		l := p.Law
		for _, cite := range []string{l.HeightCite, l.NightCite, l.SiteCite, l.AirspaceCite, l.PersonCite, l.BriefingCite,
			l.ReportsCite} {
			assert.NotEmpty(t, cite, p.Name)
			assert.Equal(t, p.Name == rules.USSmall.Name, strings.Contains(cite, "CFR"), cite)
		}
	}
}

func TestLocalRules(t *testing.T) {
	l := rules.Local{ID: "7", Statement: "The keeper of the bees is told the evening before.",
		Question: "Was the keeper told?", Work: []string{"spraying"}, Verdict: judge.Stop}
	r, err := l.Rule()
	require.NoError(t, err)
	p := rules.USSmall.With([]rules.Rule{r})
	f := spray(rules.USSmall)
	found, _ := p.Judge(f, rules.OfJob)
	assert.Equal(t, judge.Stop, worst(found), "not answered yet")
	f.Answers["local-7"] = "yes"
	found, _ = p.Judge(f, rules.OfJob)
	assert.Empty(t, found)
	f.Answers["local-7"] = "no"
	found, _ = p.Judge(f, rules.OfJob)
	assert.Contains(t, found[0].Sentence, "keeper of the bees")
	f.Work, f.Answers = "mapping", map[string]string{}
	assert.False(t, slices.ContainsFunc(p.Questions(f), func(a rules.Ask) bool { return a.ID == "local-7" }),
		"for spraying only")
	for _, bad := range []rules.Local{{Question: "Is it?", Verdict: judge.Stop},
		{Statement: "x", Question: "no mark", Verdict: judge.Stop}, {Statement: "x", Question: "Is it?"}} {
		_, err := bad.Rule()
		assert.ErrorIs(t, err, rules.ErrLocal)
	}
}

func TestReportDue(t *testing.T) {
	at := time.Date(2026, 2, 25, 10, 0, 0, 0, time.UTC)
	assert.Equal(t, time.Date(2026, 3, 7, 10, 0, 0, 0, time.UTC), rules.ReportDue("us-small", at))
	assert.Equal(t, at.Add(72*time.Hour), rules.ReportDue("eu-specific", at))
}

func TestCover(t *testing.T) {
	got := rules.Cover([]rules.ListItem{{"frame", "Frame"}, {"motor-1", "Motor 1"}}, false)
	require.Len(t, got, 23)
	assert.Equal(t, []string{"Motor 1"}, got[5].By)
	assert.True(t, got[3].NotHere)
	assert.True(t, got[8].Missing, "nobody looks at the compass")
	assert.True(t, rules.Cover(nil, true)[3].Missing)
}

// Under one law nothing cites another: not the practice that goes with every
// pack, not the words of its numbers, not what it finds.
func TestOnePackCitesOneLaw(t *testing.T) {
	foreign := map[string]*regexp.Regexp{rules.USSmall.Name: regexp.MustCompile(`\(E[UC]\)|UAS\.`),
		"eu-specific": regexp.MustCompile(`CFR|USC|FAA|statute|\bft\b`)}
	require.Len(t, rules.Packs, len(foreign))
	for _, p := range rules.Packs {
		whole := p.With(nil)
		b, err := json.Marshal(whole.Rules)
		require.NoError(t, err)
		law := fmt.Sprintf("%+v", whole.Law)
		// One who knows nothing is told everything.
		found, _ := whole.Judge(rules.Facts{Light: []string{"night"}, Work: "spraying", HeightM: ptr(900.0)},
			rules.OfAircraft, rules.OfPilot, rules.OfJob)
		require.NotEmpty(t, found)
		says, err := json.Marshal(found)
		require.NoError(t, err)
		for _, text := range []string{string(b), law, string(says)} {
			assert.Empty(t, foreign[p.Name].FindAllString(text, -1), p.Name)
		}
	}
}
