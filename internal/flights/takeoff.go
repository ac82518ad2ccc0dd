package flights

import (
	"context"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// TakeOff starts a flight on a release. The gate is asked once more: what was
// true at the signature must still be true. A take-off that was pressed without
// network and is heard later has happened: it counts from its press if the
// release held then, and what the gate would have said stays with it. Taking off
// twice with the same id changes nothing.
func (s *Service) TakeOff(ctx context.Context, id, release uuid.UUID, deviceAt *time.Time) (Flight, error) {
	var f Flight
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var r Release
		if err := s.lockRelease(tx, release, &r); err != nil {
			return err
		}
		if err := tx.Limit(1).Find(&f, "id = ?", id).Error; err != nil || f.ID != uuid.Nil {
			return err
		}
		press, now := outbox.From(ctx), s.Clock.Now()
		at := press.At(now)
		if err := mayTakeOff(r, people.From(ctx), press, at); err != nil {
			return err
		}
		unasked, with, err := s.stillTrue(ctx, r, press, at)
		if err != nil {
			return err
		}
		f = Flight{ID: id, ReleaseID: &r.ID, AircraftID: r.AircraftID, PilotID: r.PilotID, PackIDs: r.PackIDs,
			Purpose: r.Purpose, TookOffAt: at, State: stateAir, Source: "live", AcceptanceOrder: r.AcceptanceOrder,
			JobID: r.JobID, Signs: db.Array[string]{},
			TookOffHeardAt: press.HeardAt(now), Unasked: unasked}
		f.setOff(with)
		if deviceAt != nil {
			// The server's time counts; the device's is kept beside it when they differ.
			if d := at.Sub(*deviceAt); d > 5*time.Second || d < -5*time.Second {
				f.Remarks = "Device clock at take-off: " + deviceAt.UTC().Format(time.RFC3339) + ". "
			}
		}
		if err := s.fitAgain(ctx, tx, r); err != nil {
			return err
		}
		if err := tx.Exec("update releases set state = 'flown' where id = ?", r.ID).Error; err != nil {
			return err
		}
		return tx.Create(&f).Error
	})
	return f, err
}

// fitAgain fits the packs of a release that was withdrawn before its take-off was
// heard; those that have been moved on since stay where they are.
func (s *Service) fitAgain(ctx context.Context, tx *gorm.DB, r Release) error {
	if r.State != "withdrawn" {
		return nil
	}
	packs, err := fleet.LockPacks(tx, r.PackIDs)
	if err != nil {
		return err
	}
	for i := range packs {
		if packs[i].State == string(pack.Charged) {
			if err := s.Fleet.SetState(ctx, tx, &packs[i], pack.Fitted, &r.AircraftID, ""); err != nil {
				return err
			}
		}
	}
	return nil
}

// mayTakeOff says why a release is not flown on by this person at that time.
func mayTakeOff(r Release, by people.Person, press outbox.Press, at time.Time) error {
	switch {
	case r.PilotID != by.ID:
		return fault.Denied("Only the pilot who released this flight takes off.")
	case r.State == "withdrawn" && !press.Late():
		return fault.Clash("release-withdrawn", "This release was withdrawn. Ask the gate again.")
	case r.State == "flown":
		return fault.Clash("already-flown", "This release has already been flown. Ask the gate again for the next flight.")
	case press.Late() && at.Before(r.At):
		return fault.Clash("clock",
			"By the clock of this device the take-off was pressed before the release was signed. Nothing was counted; check the clock and tell the chief when it took off.")
	case at.Sub(r.At) > ReleaseValidFor:
		return fault.Clash("release-expired",
			"The release is over 60 minutes old, and so is the wind it rests on. Stay on the ground, withdraw it and ask the gate again.")
	}
	return nil
}

// stillTrue asks the gate once more as of the press. What stands against a
// take-off keeps it on the ground; against one that has happened it is said.
func (s *Service) stillTrue(ctx context.Context, r Release, press outbox.Press, at time.Time) (unasked string,
	in gate.Input, err error) {
	k, err := s.one(ctx, r.AircraftID)
	if err != nil {
		return "", in, err
	}
	k.Input.Released = nil
	in, err = s.forFlight(ctx, k, r.PilotID, Question{Aircraft: r.AircraftID, Packs: r.PackIDs, Wind: &r.Wind,
		Acceptance: r.AcceptanceOrder, Job: r.JobID})
	if err != nil {
		return "", in, err
	}
	in.Now = at
	out := gate.Judge(in)
	switch {
	case !press.Late() && out.Verdict == judge.Stop:
		return "", in, fault.Clash("gate-stop", "Stay on the ground: %s", out.Findings[0].Sentence)
	case r.State == "withdrawn":
		return "The release was withdrawn before the take-off was heard.", in, nil
	case press.Late():
		return against(out.Findings), in, nil
	}
	return "", in, nil
}

// against is the worst that stands against a take-off heard late. The weather
// was fresh enough when it was pressed, or the release would not have held.
func against(found []judge.Finding) string {
	for _, f := range found {
		if f.Verdict == judge.Stop && f.Rule != judge.RuleWeatherAge {
			return f.Sentence
		}
	}
	return ""
}

// Land ends the time in the air when LAND was pressed. Landing twice changes nothing.
func (s *Service) Land(ctx context.Context, flight uuid.UUID) (Flight, error) {
	by := people.From(ctx)
	var f Flight
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var err error
		if f, err = s.lock(tx, flight); err != nil {
			return err
		}
		if f.PilotID != by.ID && !by.Has("chief") {
			return fault.Denied("Only the pilot of this flight or a chief lands it.")
		}
		press, now := outbox.From(ctx), s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, "land "+flight.String(), now); err != nil || !fresh || f.State != stateAir {
			return err
		}
		at := press.At(now)
		switch {
		case now.Before(f.TookOffAt):
			return fault.Clash("clock",
				"The server's clock went back past the take-off. Ask a chief to check the clock; the flight is kept.")
		case press.Late() && at.Before(f.TookOffAt):
			return fault.Clash("clock",
				"By the clock of this device the landing was pressed before the take-off. The flight is kept and still counts as in the air: press LAND once more, and ask a chief to correct its time.")
		case at.Before(f.TookOffAt):
			at = f.TookOffAt
		}
		f.State, f.LandedAt, f.LandedHeardAt, f.Seconds = stateLanded, &at, press.HeardAt(now),
			int(at.Sub(f.TookOffAt).Round(time.Second)/time.Second)
		return tx.Save(&f).Error
	})
	return f, err
}
