package missions

import (
	"context"
	"fmt"
	"mainstay/core/geo"
	"mainstay/core/judge"
	"mainstay/core/survey"
	"strings"
	"time"

	"github.com/google/uuid"
)

// atStops counts which stops of an inspection have a picture within 3 m.
func (p Plan) atStops(number int, shots []survey.Shot) (survey.Taken, error) {
	const near = 3.0
	f := p.Out.Inspect.Flights[number-1]
	stops := p.Out.Inspect.Stops[f.From:min(f.To, len(p.Out.Inspect.Stops))]
	t := survey.Taken{Planned: len(stops), Count: len(shots), Gaps: []survey.Gap{}, Findings: []judge.Broken{},
		Overlap: survey.Overlap{Views: []int{}}}
	used := make([]int, len(stops))
	for _, x := range shots {
		if x.At == nil {
			continue
		}
		t.Placed++
		best, away := -1, near
		for i, y := range stops {
			if d := geo.Dist(*x.At, y.At); d <= away && (used[i] == 0 || best < 0) {
				best, away = i, d
			}
		}
		if best >= 0 {
			used[best]++
			t.OnLines++
		}
	}
	missing := 0
	for i, n := range used {
		if n == 0 {
			missing++
			t.Gaps = append(t.Gaps, survey.Gap{Piece: f.From + i, From: stops[i].At, To: stops[i].At, Ring: geo.Ring{}})
		}
	}
	switch {
	case t.Count == 0:
		t.Verdict = judge.Stop
		t.Findings = append(t.Findings, judge.Broken{Wish: "pictures", Verdict: judge.Stop, Sentence: "There is no picture."})
	case missing > 0:
		t.Verdict = judge.Stop
		t.Findings = append(t.Findings, judge.Broken{Wish: "pictures", Verdict: judge.Stop,
			Sentence: fmt.Sprintf("%d of %d places have no picture: fly them again.", missing, len(stops))})
	}
	return t, nil
}

// clockOff says by how much the clock of the camera is off, from the flight in the log.
func (s *Service) clockOff(ctx context.Context, p Plan, a After, t *survey.Taken) error {
	var times []time.Time
	for _, x := range a.Shots {
		if x.Time != nil {
			times = append(times, x.Time.Add(a.Offset))
		}
	}
	id, from, to, err := s.logged(ctx, p)
	if err != nil || id == nil || len(times) == 0 {
		return err
	}
	if off, ok := survey.ClockOff(times, from, to); ok {
		words := "behind"
		if off < 0 {
			words = "ahead"
		}
		minutes := (a.Offset + off).Minutes()
		t.Findings = append(t.Findings, judge.Broken{Wish: "offset_min", Verdict: judge.Watch, Nearest: &minutes,
			Sentence: fmt.Sprintf("The clock of the camera is %s %s: its pictures would lie outside of the flight that took off %s.",
				strings.TrimSuffix(off.Abs().String(), "0s"), words, from.UTC().Format("15:04 UTC"))})
		t.Verdict = max(t.Verdict, judge.Watch)
	}
	return nil
}

// logged is the newest flight of this aircraft for this job.
func (s *Service) logged(ctx context.Context, p Plan) (id *uuid.UUID, from, to time.Time, err error) {
	var rows []struct {
		ID        uuid.UUID
		TookOffAt time.Time
		LandedAt  *time.Time
	}
	err = s.DB.WithContext(ctx).Raw("select f.id, f.took_off_at, f.landed_at from flights f where f.aircraft_id = ? and f.job_id = ? order by f.took_off_at desc limit 1",
		p.Aircraft.ID, p.Job.ID).Scan(&rows).Error
	if err != nil || len(rows) == 0 {
		return nil, from, to, err
	}
	to = s.Clock.Now()
	if rows[0].LandedAt != nil {
		to = *rows[0].LandedAt
	}
	return &rows[0].ID, rows[0].TookOffAt, to, nil
}
