package upkeep_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"mainstay/approved"
	"mainstay/core/upkeep"
	"mainstay/core/wear"
)

// A task near its limits, put off or not, with everything about it near where it
// decides.
func TestTasksAsApproved(t *testing.T) {
	landed := noon.Add(-20 * time.Hour)
	s := upkeep.Standing{Task: upkeep.Task{ID: "screws", Title: "Screws",
		Every: wear.Limits{Hours: 10, Flights: 20, Days: 7}}, Since: wear.Counters{Seconds: 9 * 3600, Flights: 18,
		Since: noon.AddDate(0, 0, -6)},
		DoneAt: noon.Add(-30 * time.Hour), LastLanding: &landed, Deferral: &upkeep.Deferral{By: "Bo",
			ExpiresOn: day.AddDate(0, 0, 2), Limits: "Empty tank only."}}
	var lines []string
	say := func(what string, s upkeep.Standing) {
		uses := []int64{0, 3600, 7200, 7201}
		if strings.Contains(what, ".") {
			uses = uses[:1]
		}
		for _, used := range uses {
			d, err := s.Judge(noon, day, time.UTC, used, 3)
			lines = append(lines, fmt.Sprintf("%s, %d s: %s %s %.4f %q %v", what, used, d.Verdict, d.By, d.Fraction, d.Sentence,
				err))
		}
	}
	for _, share := range []int64{8, 9, 10, 11} {
		s.Since.Seconds = share * 3600
		say(fmt.Sprintf("%d h", share), s)
	}
	approved.Vary(s, say)
	s.Task.AfterFlying = true
	say("after flying", s)
	approved.Vary(s, func(what string, s upkeep.Standing) { say("after flying "+what, s) })
	approved.Text(t, "tasks", lines)
}
