package spraying

import (
	"context"
	"fmt"
	"math"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/spray"
	"mainstay/core/units"
	"mainstay/internal/outbox"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Line is one thing that goes into the tank, in the order of mixing.
type Line struct {
	What   string  `json:"what"`
	Amount float64 `json:"amount"`
	Unit   string  `json:"unit"`
	First  string  `json:"first"`  // who put it in
	Second string  `json:"second"` // who saw it go in
}

// Fill is one fill of the tank at the truck.
type Fill struct {
	ID      uuid.UUID
	PlanID  uuid.UUID
	Number  int
	Litres  float64
	Ha      float64
	Lines   []Line   `gorm:"serializer:json"`
	MassKg  *float64 `gorm:"column:mass_kg"`
	At      time.Time
	ByName  string
	Version int
}

func (Fill) TableName() string { return "spray_fills" }

// Complete reports whether two people saw everything go in, and it was weighed.
func (f Fill) Complete() bool {
	for _, l := range f.Lines {
		if l.First == "" || l.Second == "" {
			return false
		}
	}
	return len(f.Lines) > 0 && f.MassKg != nil
}

// unit is what loads of a plan are counted in.
func (p Plan) unit() string { return spray.UnitOf(p.Wish.Granules) }

// sheet is what goes in for a load: half of the water first, the products in the
// order of the mix, the rest of the water.
func sheet(l spray.Load, w spray.Wish) []Line {
	unit := spray.UnitOf(w.Granules)
	out := []Line{}
	if !w.Granules && l.Water > 0 {
		out = append(out, Line{What: "Water, first half", Amount: l.Water / 2, Unit: unit})
	}
	for i, p := range w.Mix {
		if i < len(l.Amounts) {
			out = append(out, Line{What: p.Name, Amount: l.Amounts[i], Unit: p.Unit})
		}
	}
	if !w.Granules && l.Water > 0 {
		out = append(out, Line{What: "Water, the rest", Amount: l.Water - l.Water/2, Unit: unit})
	}
	return out
}

// fills are the fills of a plan as far as somebody began them, by number.
func (s *Service) fills(ctx context.Context, plan uuid.UUID) ([]Fill, error) {
	out := []Fill{}
	if plan == uuid.Nil {
		return out, nil
	}
	return out, s.DB.WithContext(ctx).Order("number").Find(&out, "plan_id = ?", plan).Error
}

// Tick is one press at the truck.
type Tick struct {
	ID          uuid.UUID
	Version     int
	Line        *int     // that went in, or did not after all
	In          bool     //
	What        string   // of the line as it was seen; "": not said
	Amount      float64  //
	SecondLogin string   // who saw all of it go in
	SecondPIN   string   //
	MassKg      *float64 // as weighed
}

// Fill ticks what goes into the tank. The first press writes the load of the sortie
// down as it is planned then; a fill that two people saw and that is weighed does not
// change any more.
func (s *Service) Fill(ctx context.Context, job, aircraft uuid.UUID, number int, t Tick) error {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return err
	}
	var second *people.Person
	if t.SecondLogin != "" {
		x, err := s.Jobs.People.SecondPerson(ctx, t.SecondLogin, t.SecondPIN, crew.Pilot, crew.Hand, crew.Technician)
		if err != nil {
			return err
		}
		second = &x
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		var f Fill
		if err := tx.Limit(1).Find(&f, "plan_id = ? and number = ?", p.ID, number).Error; err != nil {
			return err
		}
		by, now := people.From(ctx), s.Clock.Now()
		if fresh, err := outbox.Once(ctx, tx, fmt.Sprintf("fill %s %d", p.ID, number), now); err != nil || !fresh {
			return err
		}
		if f.ID == uuid.Nil {
			if f, err = p.begin(tx, t.ID, number); err != nil {
				return err
			}
		} else if second != nil && f.Version != t.Version { // a signature is for what was seen
			return fault.Stale("fill")
		}
		if f.Complete() {
			return fault.Clash("fill-complete",
				"This fill is signed by two people and weighed; it does not change. Fill again as the next one.")
		}
		if err := f.take(t, by.Name, second); err != nil {
			return err
		}
		if f.MassKg != nil {
			if err := p.weighed(f); err != nil {
				return err
			}
		}
		if at := outbox.From(ctx).At(now); at.After(f.At) { // a press that comes late makes it no older
			f.At = at
		}
		f.ByName, f.Version = by.Name, f.Version+1
		if err := tx.Save(&f).Error; err != nil || !f.Complete() {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.SprayFilled, Subject: aircraft, At: now, By: by.By(),
			Summary: fmt.Sprintf("%s: fill %d of %.1f %s, seen by two", p.Aircraft.Name, number, f.Litres, p.unit()),
			Content: f})
		return err
	})
}

// begin writes the load of the next sortie down.
func (p Plan) begin(tx *gorm.DB, id uuid.UUID, number int) (Fill, error) {
	var last int
	if err := tx.Raw("select coalesce(max(number), 0) from spray_fills where plan_id = ?",
		p.ID).Scan(&last).Error; err != nil {
		return Fill{}, err
	}
	switch {
	case number != last+1:
		return Fill{}, fault.Clash("fill-order", "The next fill is number %d.", last+1)
	case len(p.Out.Loads) == 0:
		return Fill{}, fault.Clash("nothing-to-fill",
			"By this plan nothing is left to spray, or it cannot be flown: there is nothing to fill in.")
	}
	l := p.Out.Loads[0]
	return Fill{ID: id, PlanID: p.ID, Number: number, Litres: l.Litres, Ha: l.Ha, Lines: sheet(l, p.Wish)}, nil
}

// take takes a press over.
func (f *Fill) take(t Tick, by string, second *people.Person) error {
	if t.Line != nil {
		if *t.Line < 0 || *t.Line >= len(f.Lines) {
			return fault.Bad("line", "This load has %d lines.", len(f.Lines))
		}
		l := &f.Lines[*t.Line]
		switch {
		case t.What != "" && (t.What != l.What || math.Abs(t.Amount-l.Amount) > sameAmount*max(t.Amount, l.Amount)):
			return fault.Clash("other-load",
				"The load is another one by now: line %d is %s, %.2f %s; %s, %.2f was pressed. Look at the sheet again, and at what is in the tank.",
				*t.Line+1, l.What, l.Amount, l.Unit, t.What, t.Amount)
		case t.In && l.First == "":
			l.First = by
		case !t.In:
			l.First, l.Second = "", ""
		}
	}
	if second != nil {
		for i := range f.Lines {
			l := &f.Lines[i]
			switch {
			case l.First == "":
				return fault.Bad("second_login", "%s is not in yet: the second person signs what went in.", l.What)
			case l.First == second.Name:
				return fault.Bad("second_login", "%s put %s in; somebody else looks.", second.Name, l.What)
			}
			l.Second = second.Name
		}
	}
	if t.MassKg != nil {
		f.MassKg = t.MassKg
	}
	return nil
}

// sameAmount is how far an amount may be from what was seen, as a share: no more than
// rounding.
const sameAmount = 0.005

// MassWithin is how far a filled aircraft may be from what it should weigh, kg.
const MassWithin = 1.5

// weighed holds the weighed mass against the limit and against what it should be.
func (p Plan) weighed(f Fill) error {
	most, _ := units.Steps(float64(p.Type.Limits.TakeoffMassKg), 0.01)
	kg, ok := units.Steps(*f.MassKg, 0.01)
	if !ok || kg > most {
		return fault.Bad("mass_kg", "It weighs %.1f kg; the type takes %.1f kg. Let some out, and weigh again.", *f.MassKg,
			float64(p.Type.Limits.TakeoffMassKg))
	}
	perL := p.Wish.KgPerL
	if p.Wish.Granules { // by the kilogram
		perL = 1
	}
	should := p.Dry + f.Litres*perL
	if d := *f.MassKg - should; d > MassWithin || d < -MassWithin {
		return fault.Bad("mass_kg",
			"It weighs %.1f kg; with this load it should be %.1f. Look what is in the tank, and what else is on board.",
			*f.MassKg, should)
	}
	return nil
}
