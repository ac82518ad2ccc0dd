package spraying

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/core/spray"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Check is a calibration of what sprays, as it was judged.
type Check struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	Kind       string
	Input      string
	Verdict    string
	Sentence   string
	At         time.Time
	ByName     string
}

func (Check) TableName() string { return "spray_checks" }

// kinds are the calibrations, how long each holds, what it is called, and whether it is
// for liquids only, or for granules only.
var kinds = []struct {
	kind string
	days int
	name string
	only string
}{
	{"scale", 30, "tank scale", ""}, {"pump", 30, "pump factor", liquids}, {"catch", 30, "catch test of the nozzles",
		liquids}, {"bled", 1, "air bled", liquids}, {"idle-zero", 1, "idle reads zero", liquids},
	{"spreader", 30, "spread width", granules}, {"cleaned", 0, "cleaned and rinsed", ""},
}

const liquids, granules = "liquids", "granules"

// concerns reports whether a kind of calibration matters for a plan.
func (p Plan) concerns(kind string) bool {
	for _, k := range kinds {
		if k.kind == kind && k.only != "" {
			return (k.only == granules) == p.Wish.Granules
		}
	}
	return true
}

// Checks are the calibrations of an aircraft, newest first.
func (s *Service) Checks(ctx context.Context, aircraft uuid.UUID) ([]Check, error) {
	out := []Check{}
	return out, s.DB.WithContext(ctx).Order("at desc, id desc").Limit(500).Find(&out, "aircraft_id = ?", aircraft).Error
}

// Standing is what of the calibrations holds now: a newest one that is in order and
// not too old; anything else is Watch, and one that failed Stop. Times are said in the
// zone of the crew.
func Standing(checks []Check, now time.Time, zone *time.Location) []api.CheckAge {
	out := []api.CheckAge{}
	for _, k := range kinds {
		a := api.CheckAge{Kind: k.kind, Verdict: judge.Watch,
			Sentence: judge.Capital(k.name) + ": never done on this aircraft."}
		for _, c := range checks {
			if c.Kind != k.kind {
				continue
			}
			v, _ := judge.ParseVerdict(c.Verdict)
			age := now.Sub(c.At)
			a.Verdict, a.Sentence = v, fmt.Sprintf("%s, %s by %s: %s", judge.Capital(k.name),
				c.At.In(zone).Format("2006-01-02 15:04"), c.ByName, c.Sentence)
			if k.days > 0 && (age > time.Duration(k.days)*24*time.Hour || age < -judge.ClockSkew) {
				a.Verdict = max(v, judge.Watch)
				a.Sentence += fmt.Sprintf(" It holds for %s.", judge.Count(k.days, "day"))
			}
			break
		}
		out = append(out, a)
	}
	return out
}

// AddCheck judges a calibration and puts it on record. The same id sent twice counts
// once.
func (s *Service) AddCheck(ctx context.Context, aircraft uuid.UUID, n api.NewSprayCheck) error {
	a, err := s.Fleet.Aircraft(ctx, aircraft)
	if err != nil {
		return err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return err
	}
	if t.TankL <= 0 {
		return fault.Clash("no-tank", "%s carries no tank.", a.Name)
	}
	v, sentence, err := judgeCheck(n)
	if err != nil {
		return wrongCheck(err)
	}
	input, err := json.Marshal(n)
	if err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		by, now := people.From(ctx), s.Clock.Now()
		c := Check{ID: n.Id, AircraftID: aircraft, Kind: string(n.Kind), Input: string(input), Verdict: v.String(),
			Sentence: sentence, At: outbox.From(ctx).At(now), ByName: by.Name}
		res := tx.Exec("insert into spray_checks (id, aircraft_id, kind, input, verdict, sentence, at, by_name) values (?, ?, ?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
			c.ID, c.AircraftID, c.Kind, c.Input, c.Verdict, c.Sentence, c.At, c.ByName)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.SprayChecked, Subject: aircraft, At: now, By: by.By(),
			Summary: a.Name + ": " + string(n.Kind) + ": " + sentence, Content: n})
		return err
	})
}

// judgeCheck is what a calibration says.
func judgeCheck(n api.NewSprayCheck) (judge.Verdict, string, error) {
	num := func(v *float64) float64 {
		if v == nil {
			return -1 // out of every range: it is asked for
		}
		return *v
	}
	switch n.Kind {
	case "scale":
		s, err := spray.ScaleCheck(num(n.Empty), num(n.Known), num(n.Shown), num(n.Factor))
		if s.Span != nil {
			s.Sentence += fmt.Sprintf(" New span: %.6g.", *s.Span)
		}
		return s.Verdict, s.Sentence, err
	case "pump":
		f, err := spray.PumpFactor(num(n.Factor), num(n.Target), num(n.Shown), n.PulsesPerLitre != nil && *n.PulsesPerLitre)
		return judge.Clear, fmt.Sprintf("New factor %.6g, from %.6g.", f, num(n.Factor)), err
	case "catch":
		var caught []float64
		if n.Caught != nil {
			caught = *n.Caught
		}
		c, err := spray.Catch(caught, num(n.Target))
		return c.Verdict, c.Sentence, err
	case "spreader":
		var caught []float64
		if n.Caught != nil {
			caught = *n.Caught
		}
		if !(num(n.Target) >= 0.5 && num(n.Target) <= spray.MostSwath) {
			return judge.Stop, "", fault.Bad("target", "Enter the spread width that was tried, 0.5 to %g m.", spray.MostSwath)
		}
		c, err := spray.Spread(caught)
		return c.Verdict, fmt.Sprintf("%.1f m wide. %s", *n.Target, c.Sentence), err
	}
	if n.InOrder == nil {
		return judge.Stop, "", fault.Bad("in_order", "Say whether it was found in order.")
	}
	if !*n.InOrder {
		return judge.Stop, "Not in order.", nil
	}
	return judge.Clear, "In order.", nil
}

// wrongCheck puts a refusal at its field.
func wrongCheck(err error) error {
	if _, ok := fault.As(err); ok {
		return err
	}
	return fields.Refused(err)
}
