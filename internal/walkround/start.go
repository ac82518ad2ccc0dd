package walkround

import (
	"context"
	"encoding/binary"
	"slices"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// New asks for a round.
type New struct {
	ID, Aircraft uuid.UUID
	Round        string
	Packs        []uuid.UUID
	Job          *uuid.UUID  // that it is walked for; nil: none
	Paper        []uuid.UUID // photos of the paper that it is entered from; none: it is walked here
}

// Start begins a run. Packs may be none: then the pack items fall away and the
// gate asks for readings later. Starting the same id twice changes nothing.
func (s *Service) Start(ctx context.Context, n New) (Sheet, error) {
	round, ok := checks.RoundOf(n.Round)
	if !ok {
		return Sheet{}, fault.Bad("kind", "There is no round %q.", n.Round)
	}
	a, err := s.Fleet.Aircraft(ctx, n.Aircraft)
	if err != nil {
		return Sheet{}, err
	}
	t, err := s.Fleet.Type(ctx, a.TypeKey)
	if err != nil {
		return Sheet{}, err
	}
	l, err := s.List(ctx, t.Key, 0)
	if err != nil {
		if fault.Is(err, "not-found") {
			err = fault.Clash("no-checklist",
				"%s has no checklist yet. A chief adds one in Set-up; until then it cannot be walked or flown.", t.Name)
		}
		return Sheet{}, err
	}
	if !slices.ContainsFunc(l.Rounds(), func(r checks.Round) bool { return r.Key == n.Round }) {
		return Sheet{}, fault.Clash("no-checklist", "The checklist of %s has nothing for: %s. A chief adds it in Set-up.",
			t.Name, round.Title)
	}
	if err := s.checkPacks(ctx, t, n.Packs); err != nil {
		return Sheet{}, err
	}
	if err := s.checkPaper(ctx, n.Paper); err != nil {
		return Sheet{}, err
	}
	today, err := s.today(ctx, n.Aircraft, n.Job, n.Packs)
	if err != nil {
		return Sheet{}, err
	}
	r := Run{ID: n.ID, AircraftID: n.Aircraft, Kind: n.Round, ChecklistVersion: l.Version, TypeKey: t.Key,
		TypeVersion: t.Version, PackIDs: n.Packs, JobID: n.Job,
		StartedBy: people.From(ctx).Name, StartedAt: s.Clock.Now(), Findings: []Finding{}, LeftOut: []checks.LeftOut{},
		Practice: t.Practice, Kept: checks.Kept(t),
		Facts: today.Facts.WithPractice(t.Kept()), Names: today.Crew, Paper: append([]uuid.UUID{}, n.Paper...)}
	r.drill(l, t)
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var old Run
		if err := tx.Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil || old.ID != uuid.Nil {
			return err
		}
		var open Run
		same := []string{n.Round}
		if round.Check {
			same = []string{checks.Full, checks.Turnaround}
		}
		if err := tx.Limit(1).Find(&open, "aircraft_id = ? and kind in ? and completed_at is null and abandoned_at is null",
			n.Aircraft, same).Error; err != nil {
			return err
		}
		if open.ID != uuid.Nil {
			return fault.Clash("walkround-open",
				"%s has been walking round %s since %s. Go on with that one or give it up first.", open.StartedBy, a.Name,
				open.StartedAt.Format("15:04 UTC"))
		}
		return tx.Create(&r).Error
	})
	if err != nil {
		return Sheet{}, err
	}
	return s.Sheet(ctx, n.ID)
}

// drill draws whether the run shows a picture, as often as the crew wants it; no device chooses
// an id that shows none, since the server's clock is in the draw.
func (r *Run) drill(l checks.List, t airframe.Type) {
	if r.Kind != checks.Full || len(r.Paper) > 0 {
		return
	}
	items, _ := checks.Expand(l, t, checks.Ask{Round: r.Kind, Facts: r.Facts})
	r.Drill, _ = checks.DrillIn(binary.BigEndian.Uint64(r.ID[8:])^uint64(r.StartedAt.UnixNano()), items,
		t.Kept().DrillOneIn())
}

// checkPaper refuses photos that are not there.
func (s *Service) checkPaper(ctx context.Context, photos []uuid.UUID) error {
	if len(photos) == 0 {
		return nil
	}
	var n int64
	if err := s.DB.WithContext(ctx).Raw("select count(*) from photos where id in ?", photos).Scan(&n).Error; err != nil {
		return err
	}
	if int(n) != len(photos) {
		return fault.Bad("paper", "A photo of the paper has not arrived. Take it again.")
	}
	return nil
}

func (s *Service) checkPacks(ctx context.Context, t airframe.Type, ids []uuid.UUID) error {
	if len(ids) > t.Packs.Count {
		return fault.Bad("pack_ids", "%s takes %s; %d were chosen.", t.Name, judge.Count(t.Packs.Count, "pack"), len(ids))
	}
	views, err := s.Fleet.PackViews(ctx, append([]uuid.UUID{}, ids...)) // nil would mean the whole rack
	if err != nil {
		return err
	}
	if len(views) != len(ids) {
		return fault.Bad("pack_ids", "One of the packs does not exist or was chosen twice.")
	}
	for _, v := range views {
		if v.Chemistry != string(t.Packs.Chemistry) || v.Cells != t.Packs.Cells {
			return fault.Bad("pack_ids", "%s does not fit %s.", v.Label, t.Name)
		}
	}
	return nil
}
