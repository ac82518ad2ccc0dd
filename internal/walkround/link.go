package walkround

import (
	"context"
	"fmt"
	"math"
	"net/url"
	"slices"
	"strings"
	"sync"
	"time"

	"mainstay/core/checks"
	"mainstay/core/geo"
	"mainstay/core/judge"
)

// linked is what an aircraft tells of itself over its link; what it leaves away is not known.
type linked struct {
	At          *geo.Point `json:"at"`
	Home        *geo.Point `json:"home"`
	Satellites  *int       `json:"satellites"`
	CellMV      []int      `json:"cell_mv"`
	ReceiverV   *float64   `json:"receiver_v"`
	Corrections string     `json:"corrections"`
	Warnings    []string   `json:"warnings"`
	Outputs     []float64  `json:"motor_percent"`
	Switches    []switched `json:"switches"`
	Limits      *limits    `json:"limits"`
	Pictures    *int       `json:"pictures"`
	Room        *int       `json:"pictures_room"`

	heard time.Time
}

// switched is where a switch stands and which mode the aircraft is in for it.
type switched struct {
	Switch string `json:"switch"`
	Set    string `json:"set"`
	Mode   string `json:"mode"`
}

// limits are what is set in the aircraft; nil and empty are not known.
type limits struct {
	ReturnM  *float64 `json:"return_m"` // above take-off
	HeightM  *float64 `json:"height_m"` // that it does not climb over
	LostLink string   `json:"lost_link"`
}

// How long what an aircraft told is taken for now, and how long its answer is waited for.
const (
	toldHolds = 5 * time.Second
	linkWaits = 2 * time.Second
)

// homeWithinM is how far the home point may lie from where the aircraft stands, m.
const homeWithinM = 5

// heard keeps what each aircraft told last, so that a press does not wait for a link.
type heard struct {
	mu   sync.Mutex
	last map[string]linked
}

// told is what an aircraft tells now; false: it has no link, or does not answer.
func (s *Service) told(ctx context.Context, serial string) (linked, bool) {
	if s.Link == nil || serial == "" {
		return linked{}, false
	}
	now := s.Clock.Now()
	s.heard.mu.Lock()
	l, ok := s.heard.last[serial]
	s.heard.mu.Unlock()
	if ok && now.Sub(l.heard) >= 0 && now.Sub(l.heard) < toldHolds {
		return l, true
	}
	ctx, stop := context.WithTimeout(ctx, linkWaits)
	defer stop()
	l = linked{heard: now}
	if s.Link.Call(ctx, "GET", "/aircraft/"+url.PathEscape(serial)+"/state", nil, &l) != nil {
		return linked{}, false
	}
	s.heard.mu.Lock()
	defer s.heard.mu.Unlock()
	if s.heard.last == nil {
		s.heard.last = map[string]linked{}
	}
	s.heard.last[serial] = l
	return l, true
}

// number is what it tells of a quantity, with words for it; nil: nothing, or nothing that can be.
func (l linked) number(quantity string) (*float64, string) {
	switch quantity {
	case checks.Satellites:
		if n := l.Satellites; n != nil && *n >= 0 && *n <= 60 {
			v := float64(*n)
			return &v, judge.Count(*n, "satellite")
		}
	case checks.LoadCell:
		if len(l.CellMV) > 0 {
			v := math.Round(float64(slices.Min(l.CellMV))/10) / 100
			return &v, fmt.Sprintf("%.2f V", v)
		}
	case checks.Receiver:
		if v := l.ReceiverV; v != nil && *v >= 0 && *v <= 30 {
			r := math.Round(*v*10) / 10
			return &r, fmt.Sprintf("%.1f V", r)
		}
	}
	return nil, ""
}

// teller collects what an aircraft tells at one item, and the worst of it.
type teller struct {
	verdict judge.Verdict
	words   []string
}

func (t *teller) say(v judge.Verdict, format string, a ...any) {
	t.verdict, t.words = max(t.verdict, v), append(t.words, fmt.Sprintf(format, a...))
}

// says is what it tells of an item: the number or the outputs that are read there, or what the
// item shows, held against what is known of the day; nil: nothing of it. Who types another
// number answers for the difference, and the worse counts.
func (l linked) says(it checks.Item, facts checks.Facts) *checks.Known {
	at := l.heard.UTC()
	var t teller
	if it.Kind == checks.Reading {
		n, shown := l.number(it.Quantity)
		if n == nil {
			return nil
		}
		if j, err := checks.Judge(it, checks.Value{Number: n}, nil); err == nil {
			t.say(j.Verdict, "It tells %s.", shown)
		}
	}
	if it.Kind == checks.Alike && it.Quantity == checks.Output {
		l.outputs(&t, it)
	}
	for _, w := range it.Tells {
		if tell, ok := tells[w]; ok {
			tell(l, &t, facts)
		}
	}
	if len(t.words) == 0 {
		return nil
	}
	return &checks.Known{Verdict: t.verdict, Words: strings.Join(t.words, " "), Source: "told by the aircraft", At: &at}
}

// outputs holds the outputs of its motors against each other, while they turn.
func (l linked) outputs(t *teller, it checks.Item) {
	if len(l.Outputs) != it.Count || it.Count < 2 || !(slices.Max(l.Outputs) > 0) {
		return
	}
	set, shown := []float64{}, []string{}
	for _, v := range l.Outputs {
		r := math.Round(v/it.Step) * it.Step
		set, shown = append(set, r), append(shown, fmt.Sprintf("%g", r))
	}
	if j, err := checks.Judge(it, checks.Value{Look: "ok", Set: set}, nil); err == nil {
		t.say(j.Verdict, "Outputs of %s %%. %s", strings.Join(shown, ", "), j.Sentence)
	}
}

// tells are what an item may show of an aircraft.
var tells = map[string]func(linked, *teller, checks.Facts){
	checks.TellsWarnings:    linked.warnings,
	checks.TellsHome:        linked.home,
	checks.TellsCorrections: linked.corrections,
	checks.TellsModes:       linked.modes,
	checks.TellsLimits:      linked.limits,
	checks.TellsCamera:      linked.camera,
}

func (l linked) warnings(t *teller, _ checks.Facts) {
	for _, x := range l.Warnings[:min(len(l.Warnings), 20)] {
		t.say(judge.Watch, "It warns: %s", strings.TrimRight(strings.TrimSpace(x), ".")+".")
	}
	if l.Warnings != nil && len(l.Warnings) == 0 {
		t.say(judge.Clear, "It warns of nothing.")
	}
}

func (l linked) home(t *teller, _ checks.Facts) {
	if l.At == nil || l.Home == nil {
		return
	}
	if d := geo.Distance(*l.At, *l.Home); d <= homeWithinM {
		t.say(judge.Clear, "Home point %.1f m from it.", d)
	} else {
		t.say(judge.Stop, "Its home point lies %.0f m from where it stands: off, on again, and wait.", d)
	}
}

func (l linked) corrections(t *teller, _ checks.Facts) {
	switch l.Corrections {
	case "fixed":
		t.say(judge.Clear, "Corrections fixed.")
	case "float", "none":
		t.say(judge.Watch, "Corrections: %s. Wait for them, or fly without on purpose.", l.Corrections)
	}
}

// modes holds each switch against the mode that the aircraft is in for it.
func (l linked) modes(t *teller, _ checks.Facts) {
	var well []string
	for _, x := range l.Switches[:min(len(l.Switches), 20)] {
		switch {
		case x.Switch == "" || x.Set == "" || x.Mode == "":
		case x.Set != x.Mode:
			t.say(judge.Stop, "The switch %s says %s; the aircraft is in %s: find out why before it flies.", x.Switch, x.Set,
				x.Mode)
		default:
			well = append(well, x.Switch+" "+x.Mode)
		}
	}
	if len(well) > 0 {
		t.say(judge.Clear, "As its switches say: %s.", strings.Join(well, ", "))
	}
}

// nearM is how far a height that is set may differ from the one that was planned, m.
const nearM = 0.5

// limits holds what is set in the aircraft against what the job sets.
func (l linked) limits(t *teller, facts checks.Facts) {
	if l.Limits == nil {
		return
	}
	planned := facts[checks.FactReturn].Number
	switch got := l.Limits.ReturnM; {
	case got == nil || !(*got >= 0 && *got <= 5000):
	case planned == nil:
		t.say(judge.Watch, "It returns at %g m; no job says at which height it ought to.", *got)
	case math.Abs(*got-*planned) > nearM:
		t.say(judge.Stop, "It returns at %g m; the job sets %g m: set it, or judge the way home anew.", *got, *planned)
	default:
		t.say(judge.Clear, "It returns at %g m, as the job sets.", *got)
	}
	if top, high := l.Limits.HeightM, facts[checks.FactHigh].Number; top != nil && high != nil && *top < *high-nearM {
		t.say(judge.Watch, "It does not climb over %g m; the flight goes to %g m.", *top, *high)
	}
	if got, want := l.Limits.LostLink, facts[checks.FactLostLink].Word; got != "" && want != "" && got != want {
		t.say(judge.Stop, "Without link it does this: %s. The job sets: %s.", got, want)
	}
}

func (l linked) camera(t *teller, _ checks.Facts) {
	if l.Pictures != nil && *l.Pictures >= 0 {
		t.say(judge.Clear, "Its camera has counted %s.", judge.Count(*l.Pictures, "picture"))
	}
	switch {
	case l.Room == nil || *l.Room < 0:
	case *l.Room == 0:
		t.say(judge.Stop, "Its card is full.")
	default:
		t.say(judge.Clear, "Room for %s.", judge.Count(*l.Room, "picture"))
	}
}
