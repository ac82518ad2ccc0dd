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

	heard time.Time
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

// says is what it tells of an item: the number that is read there, or what the item shows; nil:
// nothing of it. Who types another number answers for the difference, and the worse counts.
func (l linked) says(it checks.Item) *checks.Known {
	at := l.heard.UTC()
	k := checks.Known{Source: "told by the aircraft", At: &at}
	var words []string
	say := func(v judge.Verdict, format string, a ...any) {
		k.Verdict, words = max(k.Verdict, v), append(words, fmt.Sprintf(format, a...))
	}
	if it.Kind == checks.Reading {
		n, shown := l.number(it.Quantity)
		if n == nil {
			return nil
		}
		if j, err := checks.Judge(it, checks.Value{Number: n}, nil); err == nil {
			say(j.Verdict, "It tells %s.", shown)
		}
	}
	for _, w := range it.Tells {
		switch w {
		case checks.TellsWarnings:
			for _, x := range l.Warnings[:min(len(l.Warnings), 20)] {
				say(judge.Watch, "It warns: %s", strings.TrimRight(strings.TrimSpace(x), ".")+".")
			}
			if l.Warnings != nil && len(l.Warnings) == 0 {
				say(judge.Clear, "It warns of nothing.")
			}
		case checks.TellsHome:
			if l.At == nil || l.Home == nil {
				continue
			}
			switch d := geo.Distance(*l.At, *l.Home); {
			case !(d <= homeWithinM):
				say(judge.Stop, "Its home point lies %.0f m from where it stands: off, on again, and wait.", d)
			default:
				say(judge.Clear, "Home point %.1f m from it.", d)
			}
		case checks.TellsCorrections:
			switch l.Corrections {
			case "fixed":
				say(judge.Clear, "Corrections fixed.")
			case "float", "none":
				say(judge.Watch, "Corrections: %s. Wait for them, or fly without on purpose.", l.Corrections)
			}
		}
	}
	if len(words) == 0 {
		return nil
	}
	k.Words = strings.Join(words, " ")
	return &k
}
