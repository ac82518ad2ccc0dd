package people

import (
	"context"
	"strings"
	"time"

	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/work"
	"mainstay/internal/records"
)

// HeadsKind names the sending of heads among the background work.
const HeadsKind = "heads"

// addresses are the lines of what a chief entered.
func addresses(text string) []string {
	var out []string
	for _, l := range strings.FieldsFunc(text, func(r rune) bool { return r == '\n' || r == ',' || r == ';' }) {
		if l = strings.TrimSpace(l); l != "" {
			out = append(out, l)
		}
	}
	return out
}

func checkHeads(text string) []fault.Field {
	all := addresses(text)
	if len(all) > 10 {
		return []fault.Field{{Field: "head_to", Sentence: "At most ten addresses."}}
	}
	for _, a := range all {
		if wrong := records.CheckAddress(a); wrong != "" {
			return []fault.Field{{Field: "head_to", Sentence: wrong + " This cannot be used: " + a}}
		}
	}
	return nil
}

// SendHeads sends the newest head of the chain to the crew's addresses, and
// notes how it went.
func (s *Service) SendHeads(ctx context.Context, p *records.Post) error {
	c, ok, err := s.Crew(ctx)
	if err != nil || !ok {
		return err
	}
	now := s.Clock.Now()
	sent, err := p.Send(ctx, s.DB, c.Name, addresses(c.HeadTo), now)
	if err == nil && !sent {
		return nil
	}
	state, message := "done", ""
	if err != nil {
		state, message = "failed", err.Error()
	}
	return work.Note(ctx, s.DB, work.Progress{Kind: HeadsKind, Done: 1, Total: 1, State: state, Message: message,
		StartedAt: now, EndedAt: &now})
}

// HeadsSent is when heads were last sent, and what was in the way.
func (s *Service) HeadsSent(ctx context.Context) (at *time.Time, trouble *string, err error) {
	var w struct {
		StartedAt *time.Time
		Message   string
	}
	err = s.DB.WithContext(ctx).Raw("select started_at, message from background_work where kind = ?",
		HeadsKind).Scan(&w).Error
	if w.Message != "" {
		trouble = &w.Message
	}
	return w.StartedAt, trouble, err
}
