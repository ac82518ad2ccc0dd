package flights

import (
	"context"
	"slices"
	"strings"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/internal/fleet"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// LandedPack is what was read off a pack after landing.
type LandedPack struct {
	Pack         uuid.UUID `json:"pack"`
	Percent      *float64  `json:"percent,omitempty"`
	CellMV       []int     `json:"cell_mv,omitempty"`
	TemperatureC float64   `json:"temperature_c"`
}

// NewLog closes a flight.
type NewLog struct {
	Landings int
	WarmthC  []float64 // one per motor; empty when the motors were not measured
	Packs    []LandedPack
	Remarks  string
	NextTime string   // what to change before the next flight
	Signs    []string // what was heard, seen or felt
	Litres   float64  // sprayed
}

// Log writes the flight into the log: the record, the use of aircraft, parts
// and packs, the packs' states and readings, and a grounding when a motor ran
// hot, all in one transaction or nothing. Logging twice changes nothing.
func (s *Service) Log(ctx context.Context, flight uuid.UUID, n NewLog) (Flight, error) {
	by := people.From(ctx)
	var f Flight
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var err error
		if f, err = s.lock(tx, flight); err != nil {
			return err
		}
		switch {
		case f.State == stateLogged:
			return nil
		case f.State == stateAir:
			return fault.Clash("in-the-air", "This flight has not landed yet.")
		case f.PilotID != by.ID && !by.Has("chief"):
			return fault.Denied("Only the pilot of this flight or a chief logs it.")
		}
		now := s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, "log "+flight.String(), now); err != nil || !fresh {
			return err
		}
		t, err := s.typeOf(ctx, f)
		if err != nil {
			return err
		}
		if err := checkLog(t, f, n); err != nil {
			return err
		}
		packs, err := fleet.LockPacks(tx, f.PackIDs)
		if err != nil {
			return err
		}
		if err := s.landPacks(ctx, tx, f, packs, n); err != nil {
			return err
		}
		if f.Warmth, err = s.judgeWarmth(ctx, f, t, n); err != nil {
			return err
		}
		if f.Warmth.Verdict != judge.Clear {
			i, _ := checks.Outlier(n.WarmthC)
			i++
			f.WarmthMotor = &i
		}
		f.NextTime, f.Signs = strings.TrimSpace(n.NextTime), append(db.Array[string]{}, n.Signs...)
		f.State, f.LoggedAt, f.Landings, f.Remarks = stateLogged, &now, n.Landings, strings.TrimSpace(f.Remarks+n.Remarks)
		f.Litres, f.WarmthSet = n.Litres, n.WarmthC
		if err := s.took(ctx, &f, t, n); err != nil {
			return err
		}
		if err := s.record(ctx, tx, f, t, packs, n, by); err != nil {
			return err
		}
		if err := tx.Save(&f).Error; err != nil {
			return err
		}
		if err := fleet.ApplyUse(tx, fleet.Use{Flight: f.ID, Aircraft: f.AircraftID, Packs: f.PackIDs, TookOff: f.TookOffAt,
			Landed: *f.LandedAt, Seconds: f.Seconds, Landings: f.Landings, Litres: f.Litres}); err != nil {
			return err
		}
		if err := s.showed(ctx, tx, f, t, packs, n); err != nil {
			return err
		}
		if f.AcceptanceOrder == nil {
			return nil
		}
		why, err := acceptanceSpoiled(tx, f)
		if err != nil {
			return err
		}
		return s.Workshop.Flown(ctx, tx, *f.AcceptanceOrder, f.ID, now, why)
	})
	return f, err
}

// acceptanceSpoiled says why a flight does not count as an acceptance flight.
func acceptanceSpoiled(tx *gorm.DB, f Flight) (string, error) {
	var kinds []string
	if err := tx.Raw("select distinct kind from flight_events where flight_id = ? and taken_back_at is null and kind in ('contact', 'hard-landing', 'warning', 'link-loss') order by kind",
		f.ID).Scan(&kinds).Error; err != nil {
		return "", err
	}
	switch {
	case len(kinds) > 0:
		return "logged in flight: " + strings.Join(kinds, ", ") + ".", nil
	case f.Warmth != nil && f.Warmth.Verdict != judge.Clear:
		return f.Warmth.Sentence, nil
	case f.Hover != nil && f.Hover.Verdict != judge.Clear:
		return f.Hover.Sentence, nil
	}
	return "", nil
}

func checkLog(t airframe.Type, f Flight, n NewLog) error {
	var fields []fault.Field
	if n.Landings < 1 {
		fields = append(fields, fault.Field{Field: "landings", Sentence: "A flight has at least one landing."})
	}
	for _, id := range f.PackIDs {
		i := slices.IndexFunc(n.Packs, func(p LandedPack) bool { return p.Pack == id })
		if i < 0 || n.Packs[i].Percent == nil && len(n.Packs[i].CellMV) == 0 {
			fields = append(fields, fault.Field{Field: "packs",
				Sentence: "Enter the level or the cells and the temperature of every pack that flew."})
			break
		}
	}
	if n.Litres < 0 || n.Litres > 0 && t.TankL == 0 {
		fields = append(fields, fault.Field{Field: "litres",
			Sentence: t.Name + " carries no tank; nothing can have been sprayed."})
	}
	if len(n.Packs) > len(f.PackIDs) {
		fields = append(fields, fault.Field{Field: "packs", Sentence: "A reading is for a pack that did not fly."})
	}
	if len(n.WarmthC) != t.SisterMotors() {
		fields = append(fields, fault.Field{Field: "warmth_c", Sentence: "Feel or measure every motor and enter each."})
	}
	return fault.BadFields(fields)
}

// landPacks stores the readings and moves each pack to flown, or to hot while
// it cools. One that came back too hot, or with a damaged cell, goes to
// quarantine.
func (s *Service) landPacks(ctx context.Context, tx *gorm.DB, f Flight, packs []fleet.Pack, n NewLog) error {
	before, err := s.Fleet.PackViews(ctx, idsOf(packs))
	if err != nil {
		return err
	}
	for i := range packs {
		p := &packs[i]
		k := slices.IndexFunc(n.Packs, func(l LandedPack) bool { return l.Pack == p.ID })
		if k < 0 {
			return fault.Bad("packs", "Enter the reading of %s.", p.Label)
		}
		l := n.Packs[k]
		id, err := uuid.NewV7()
		if err != nil {
			return err
		}
		temp := l.TemperatureC
		if err := s.Fleet.StoreReading(ctx, tx, *p, fleet.NewReading{ID: id, At: outbox.ReadAt(ctx, s.Clock.Now()),
			CellMV: l.CellMV, Percent: l.Percent, TemperatureC: &temp, Source: "landing"}); err != nil {
			return err
		}
		var level *float64
		if v := slices.IndexFunc(before, func(v fleet.PackView) bool { return v.ID == p.ID }); v >= 0 {
			level, _, _ = before[v].Level()
		}
		if err := fleet.Flown(tx, *p, level, l.Percent); err != nil {
			return err
		}
		to, why := pack.Flown, ""
		switch j := pack.JudgeLandedTemperature(units.Celsius(temp)); j.Verdict {
		case judge.Stop:
			to, why = pack.Quarantine, j.Sentence
		case judge.Watch:
			to = pack.Hot
		}
		if len(l.CellMV) > 0 && to != pack.Quarantine {
			// Right after a flight cells may still differ under load; only a cell under its damage voltage decides here.
			if c, err := pack.CellOf(pack.Chemistry(p.Chemistry)); err == nil &&
				units.Millivolts(slices.Min(l.CellMV)) < c.Damage {
				to, why = pack.Quarantine, "A cell came back under its damage voltage."
			}
		}
		if f.TookOffHeardAt != nil && pack.Move(pack.State(p.State), to) != nil {
			continue // somebody moved it on before the flight was heard of: in quarantine it stays there
		}
		if err := s.Fleet.SetState(ctx, tx, p, to, nil, why); err != nil {
			return err
		}
	}
	return nil
}

func idsOf(packs []fleet.Pack) []uuid.UUID {
	out := make([]uuid.UUID, len(packs))
	for i, p := range packs {
		out[i] = p.ID
	}
	return out
}

// judgeWarmth holds the motors against each other; an outlier grounds the
// aircraft until the cause is found.
func (s *Service) judgeWarmth(ctx context.Context, f Flight, t airframe.Type, n NewLog) (*checks.Judgement, error) {
	j, err := judgeSet(checks.WarmthItem(t), "warmth_c", n.WarmthC)
	if err != nil {
		return nil, err
	}
	if j.Verdict == judge.Stop {
		id, err := uuid.NewV7()
		if err != nil {
			return nil, err
		}
		return &j, s.Fleet.Ground(ctx, id, f.AircraftID, fleet.ByReadings, "After landing: "+j.Sentence)
	}
	return &j, nil
}

func (s *Service) record(ctx context.Context, tx *gorm.DB, f Flight, t airframe.Type, packs []fleet.Pack, n NewLog,
	by people.Person) error {
	a, err := s.Fleet.Aircraft(ctx, f.AircraftID)
	if err != nil {
		return err
	}
	pilot, err := s.People.Get(ctx, f.PilotID)
	if err != nil {
		return err
	}
	var events []Event
	if err := tx.Order("at, id").Find(&events, "flight_id = ?", f.ID).Error; err != nil {
		return err
	}
	_, err = records.Append(ctx, tx, records.Entry{Kind: records.FlightLogged, Subject: f.AircraftID, At: *f.LoggedAt,
		By: by.By(), Summary: f.summary(a.Name),
		Content: map[string]any{"flight": f.ID, "release": f.ReleaseID, "aircraft": a.Name, "serial": a.Serial, "type": t.Key,
			"type_version": t.Version, "pilot": pilot.Name, "packs": labels(packs),
			"took_off_at": f.TookOffAt, "landed_at": f.LandedAt, "took_off_heard_at": f.TookOffHeardAt,
			"landed_heard_at": f.LandedHeardAt, "unasked": f.Unasked, "seconds": f.Seconds, "landings": f.Landings,
			"purpose": f.Purpose, "litres": f.Litres, "acceptance_of": f.AcceptanceOrder, "remarks": f.Remarks,
			"next_time": f.NextTime, "signs": f.Signs,
			"events": events, "hover": f.Hover, "warmth": f.Warmth, "warmth_c": n.WarmthC, "pack_readings": n.Packs}})
	return err
}
