package flights

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Release is the pilot's signature on a gate.
type Release struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	PilotID    uuid.UUID
	PackIDs    db.UUIDs  `gorm:"type:uuid[]"`
	Wind       gate.Wind `gorm:"serializer:json"`
	Purpose    string
	Gate       gate.Output `gorm:"serializer:json"`
	GateHash   string
	Verdict    string
	At         time.Time
	State      string
	RecordSeq  *int64

	AcceptanceOrder *uuid.UUID
	JobID           *uuid.UUID // nil: practice or a check flight
}

// TableName is the table of releases.
func (Release) TableName() string { return "releases" }

// ReleaseValidFor is how long a release may wait for take-off: as long as the
// wind reading it rests on.
const ReleaseValidFor = gate.WindValidFor

// Until is when a release lapses: it has waited as long as it may, or the wind that it rests on
// is too old.
func (r Release) Until() time.Time {
	until := r.At.Add(ReleaseValidFor)
	if wind := r.Wind.At.Add(gate.WindValidFor); !r.Wind.At.IsZero() && wind.Before(until) {
		return wind
	}
	return until
}

// Question is what the gate is asked.
type Question struct {
	Aircraft uuid.UUID
	Packs    []uuid.UUID
	Wind     *gate.Wind
	// Acceptance is the signed work order for which this is the acceptance flight.
	Acceptance *uuid.UUID `json:",omitempty"`
	// Job is the job the flight belongs to; nil: practice or a check flight.
	Job *uuid.UUID `json:",omitempty"`
}

// Answer is the gate's decision with the hash that a signature binds to.
type Answer struct {
	Known     Known
	Output    gate.Output
	Hash      string
	Suggested []uuid.UUID // packs that would serve, when none were chosen
}

// Ask runs the gate for the acting pilot.
func (s *Service) Ask(ctx context.Context, q Question) (Answer, error) {
	k, err := s.one(ctx, q.Aircraft)
	if err != nil {
		return Answer{}, err
	}
	if q.Wind != nil && q.Wind.At.After(s.Clock.Now().Add(2*time.Minute)) {
		return Answer{}, fault.Bad("wind.at", "The wind reading is dated in the future. Check the clock of this device.")
	}
	pilot := people.From(ctx).ID
	if k.Release != nil && k.Release.PilotID == pilot {
		k.Input.Released = nil // their own release is not in their way
	}
	in, err := s.forFlight(ctx, k, pilot, q)
	if err != nil {
		return Answer{}, err
	}
	a := Answer{Known: k, Output: gate.Judge(in)}
	a.Hash, err = hashOf(q, a.Output)
	if err == nil && len(q.Packs) == 0 {
		a.Suggested, err = s.suggest(ctx, k)
	}
	return a, err
}

// hashOf binds a question to its answer.
func hashOf(q Question, out gate.Output) (string, error) {
	b, err := json.Marshal(struct {
		Q Question
		O gate.Output
	}{q, out})
	h := sha256.Sum256(b)
	return hex.EncodeToString(h[:]), err
}

// suggest picks packs: those of the newest walk if they may fly, else the
// fullest charged ones that fit.
func (s *Service) suggest(ctx context.Context, k Known) ([]uuid.UUID, error) {
	views, err := s.Fleet.PackViews(ctx, nil)
	if err != nil {
		return nil, err
	}
	walked := map[string]bool{}
	for _, r := range []*gate.Run{k.Walk.Walkround, k.Walk.Turnaround} {
		if r != nil && (k.Aircraft.LastLandingAt == nil || r.At.After(*k.Aircraft.LastLandingAt)) {
			for _, id := range r.PackIDs {
				walked[id] = true
			}
		}
	}
	want := k.Type.Packs
	views = slices.DeleteFunc(views, func(v fleet.PackView) bool {
		verdict, _ := v.Judge()
		return v.State != string(pack.Charged) || v.Chemistry != string(want.Chemistry) || v.Cells != want.Cells ||
			v.CapacityMAh < want.CapacityMAh || verdict == judge.Stop
	})
	rank := func(v fleet.PackView) float64 {
		r := 0.0
		if walked[v.ID.String()] {
			r += 1000
		}
		if p, _, _ := v.Level(); p != nil {
			r += *p
		}
		return r
	}
	slices.SortStableFunc(views, func(a, b fleet.PackView) int {
		switch {
		case rank(a) > rank(b):
			return -1
		case rank(a) < rank(b):
			return 1
		}
		return 0
	})
	if want.Count == 2 {
		return bestSet(views), nil
	}
	out := []uuid.UUID{}
	for _, v := range views[:min(len(views), want.Count)] {
		out = append(out, v.ID)
	}
	return out, nil
}

// bestSet takes the first pack, in the order given, that has a partner, and the
// partner that comes first among those no worse than any other.
func bestSet(views []fleet.PackView) []uuid.UUID {
	for i, a := range views {
		best, verdict := -1, judge.Stop
		for j, b := range views[i+1:] {
			if s := pack.JudgeSet(a.Candidate(), b.Candidate()); s.Verdict < verdict {
				best, verdict = i+1+j, s.Verdict
			}
		}
		if best >= 0 {
			return []uuid.UUID{a.ID, views[best].ID}
		}
	}
	return []uuid.UUID{}
}

// NewRelease is what a pilot signs.
type NewRelease struct {
	ID       uuid.UUID
	Question Question
	Purpose  string
	GateHash string // of the answer the pilot saw
	PIN      string
}

// Release signs the gate. It is refused when the gate says Stop, when the
// answer is no longer the one the pilot saw, when the PIN is wrong, and when
// somebody else has released the aircraft first. Signing the same id twice
// changes nothing.
func (s *Service) Release(ctx context.Context, n NewRelease) (Release, error) {
	by := people.From(ctx)
	var old Release
	if err := s.DB.WithContext(ctx).Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil {
		return old, err
	}
	if old.ID != uuid.Nil {
		if old.PilotID != by.ID {
			return Release{}, fault.Clash("conflict", "This release belongs to somebody else.")
		}
		return old, nil
	}
	if err := s.People.Sign(ctx, by.ID, n.PIN); err != nil {
		return Release{}, err
	}
	var r Release
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		// The aircraft is the lock: of two pilots releasing at once, the second waits here and then sees the first's release.
		if err := tx.Exec("select 1 from aircraft where id = ? for no key update", n.Question.Aircraft).Error; err != nil {
			return err
		}
		packs, err := fleet.LockPacks(tx, n.Question.Packs)
		if err != nil {
			return err
		}
		a, err := s.Ask(ctx, n.Question)
		if err != nil {
			return err
		}
		if o := a.Known.Release; o != nil {
			return fault.Clash("already-released",
				"%s released %s at %s. Nothing was signed; ask %s, or wait until that flight is logged or the release withdrawn.",
				o.Pilot, a.Known.Aircraft.Name, o.At.Format("15:04 UTC"), o.Pilot)
		}
		if a.Output.Verdict == judge.Stop {
			return &fault.Error{Kind: fault.Conflict, Type: "gate-stop",
				Detail: "The gate says Stop: " + a.Output.Findings[0].Sentence + " Nothing was signed."}
		}
		if a.Hash != n.GateHash {
			return fault.Clash("gate-changed",
				"Something changed since you looked at the gate. Nothing was signed; look again and sign what you see.")
		}
		r = Release{ID: n.ID, AircraftID: n.Question.Aircraft, PilotID: by.ID, PackIDs: n.Question.Packs,
			Wind: *n.Question.Wind, Purpose: n.Purpose, Gate: a.Output, GateHash: a.Hash,
			Verdict: a.Output.Verdict.String(), At: s.Clock.Now(), State: "open", AcceptanceOrder: n.Question.Acceptance,
			JobID: n.Question.Job}
		seq, err := records.Append(ctx, tx, records.Entry{Kind: records.Released, Subject: r.AircraftID, At: r.At,
			By: by.By(), Signed: true,
			Summary: fmt.Sprintf("%s released for: %s (%s)", a.Known.Aircraft.Name, n.Purpose, r.Verdict),
			Content: map[string]any{"release": r.ID, "aircraft": a.Known.Aircraft.Name, "packs": labels(packs), "wind": r.Wind,
				"purpose": r.Purpose, "gate": r.Gate, "gate_hash": r.GateHash, "acceptance_of": r.AcceptanceOrder, "job": r.JobID,
				"statement": fmt.Sprintf("As remote pilot in command I release this flight, gate %s with %s.", r.Verdict,
					counted(len(r.Gate.Findings)))}})
		if err != nil {
			return err
		}
		r.RecordSeq = &seq
		for i := range packs {
			if packs[i].State == string(pack.Charged) {
				if err := s.Fleet.SetState(ctx, tx, &packs[i], pack.Fitted, &r.AircraftID, ""); err != nil {
					return err
				}
			}
		}
		return tx.Create(&r).Error
	})
	return r, err
}

func counted(findings int) string {
	switch findings {
	case 0:
		return "no finding"
	case 1:
		return "1 finding"
	}
	return fmt.Sprintf("%d findings", findings)
}

func labels(packs []fleet.Pack) []string {
	out := []string{}
	for _, p := range packs {
		out = append(out, p.Label)
	}
	slices.Sort(out)
	return out
}

// Withdraw takes a release back before take-off; its packs are free again.
func (s *Service) Withdraw(ctx context.Context, id uuid.UUID) (Release, error) {
	by := people.From(ctx)
	var r Release
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := s.lockRelease(tx, id, &r); err != nil {
			return err
		}
		if r.PilotID != by.ID && !by.Has("chief") {
			return fault.Denied("Only the pilot who released or a chief withdraws a release.")
		}
		switch r.State {
		case "withdrawn":
			return nil
		case "flown":
			return fault.Clash("already-flown", "The aircraft has taken off on this release; it cannot be withdrawn.")
		}
		packs, err := fleet.LockPacks(tx, r.PackIDs)
		if err != nil {
			return err
		}
		for i := range packs {
			if packs[i].State == string(pack.Fitted) {
				if err := s.Fleet.SetState(ctx, tx, &packs[i], pack.Charged, nil, ""); err != nil {
					return err
				}
			}
		}
		r.State = "withdrawn"
		if err := tx.Exec("update releases set state = 'withdrawn' where id = ?", id).Error; err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.ReleaseWithdrawn, Subject: r.AircraftID,
			At: s.Clock.Now(), By: by.By(),
			Summary: "Release withdrawn before take-off.", Content: map[string]any{"release": id}})
		return err
	})
	return r, err
}

// lockRelease locks the aircraft of a release, then the release.
func (s *Service) lockRelease(tx *gorm.DB, id uuid.UUID, r *Release) error {
	if err := tx.Exec("select 1 from aircraft where id = (select aircraft_id from releases where id = ?) for no key update",
		id).Error; err != nil {
		return err
	}
	if err := tx.Limit(1).Find(r, "id = ?", id).Error; err != nil {
		return err
	}
	if r.ID == uuid.Nil {
		return fault.Missing("release")
	}
	return nil
}
