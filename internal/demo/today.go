package demo

import (
	"context"
	"time"

	"github.com/google/uuid"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/walkround"
)

func byName(name string) *craft {
	for _, a := range crafts {
		if a.name == name {
			return a
		}
	}
	return nil
}

// lastDays sets the scene that the crew finds today, so that each judgement
// shows itself.
func (g *generator) lastDays(ctx context.Context, end time.Time) error {
	steps := []func(context.Context, time.Time) error{g.swollenPack, g.contact, g.workshopToday, g.fadedLight,
		g.calibrated, g.thisMorning, g.rackTonight, g.eveningTonight, g.district, g.training, g.papers, g.jobsToday}
	for _, step := range steps {
		if err := step(ctx, end); err != nil {
			return err
		}
	}
	return nil
}

func (g *generator) swollenPack(ctx context.Context, end time.Time) error {
	if at := end.AddDate(0, 0, -2).Add(-3 * time.Hour); g.clock.Now().Before(at) {
		g.clock.Set(at)
	}
	// V2 has been charged since then: over 48 hours, on the list of those to bring down.
	if err := g.charge(ctx, g.packs["V2"]); err != nil {
		return err
	}
	p, err := g.svc.Fleet.Pack(ctx, g.packs["L7"])
	if err != nil {
		return err
	}
	_, err = g.svc.Fleet.MovePack(g.as(ctx, "tamsin"), p.ID, pack.Quarantine,
		"Swollen on the underside, does not seat. Stored full for two weeks.", p.Version)
	return err
}

// contact grounds Dray Two yesterday; its propellers are not replaced yet.
func (g *generator) contact(ctx context.Context, end time.Time) error {
	a := byName("Dray Two")
	if err := g.service(ctx, a); err != nil {
		return err
	}
	if at := daylight(end.Add(-26 * time.Hour)); g.clock.Now().Before(at) {
		g.clock.Set(at)
	}
	f, job, err := g.release(ctx, a, "imre")
	if err != nil {
		return err
	}
	g.clock.Advance(4 * time.Minute)
	if err := g.svc.Flights.AddEvent(g.as(ctx, "imre"), f,
		flights.Event{ID: newID(), Kind: "contact", Note: "Brushed the top wire of row 63, propeller 2."}); err != nil {
		return err
	}
	if err := g.inTheAir(ctx, a, "imre", f); err != nil {
		return err
	}
	return g.done(ctx, a, job)
}

func (g *generator) fadedLight(ctx context.Context, _ time.Time) error {
	_, err := g.svc.Walkrounds.Raise(g.as(ctx, "bao"), walkround.Defect{ID: newID(), AircraftID: byName("Tally V").id,
		Station: "wing-left", Title: "Wing tip light dim",
		Note: "Still seen at 200 m. No night flight until changed.", Severity: judge.Watch.String()})
	return err
}

// thisMorning has Lantern Three walked and ready, and Dray One flown once, so
// that it waits for a turnaround check.
func (g *generator) thisMorning(ctx context.Context, end time.Time) error {
	dray, lantern, mapper := byName("Dray One"), byName("Lantern Three"), byName("Tally W")
	for _, a := range []*craft{dray, lantern, mapper} {
		if err := g.service(ctx, a); err != nil {
			return err
		}
	}
	g.clock.Set(daylight(end.Add(-150 * time.Minute)))
	f, job, err := g.release(ctx, dray, "imre")
	if err != nil {
		return err
	}
	if err := g.inTheAir(ctx, dray, "imre", f); err != nil {
		return err
	}
	if err := g.done(ctx, dray, job); err != nil {
		return err
	}
	g.clock.Set(end.Add(-70 * time.Minute))
	if err := g.charge(ctx, g.packs["L5"]); err != nil {
		return err
	}
	if err := g.walk(ctx, lantern, "bao", checks.Full, []uuid.UUID{g.packs["L5"]}, nil); err != nil {
		return err
	}
	if err := g.charge(ctx, g.packs["W1"]); err != nil {
		return err
	}
	return g.walk(ctx, mapper, "bao", checks.Full, []uuid.UUID{g.packs["W1"]}, func(it checks.Item, v *checks.Value) {
		if it.ID == "body" {
			*v = checks.Value{Look: "defect", Wrong: []string{"sensor"}, Note: "Range sensor face scratched, still reads true."}
		}
	})
}

// rackTonight leaves the rack as a crew leaves it: some charged, some flown,
// most of the rest at storage.
func (g *generator) rackTonight(ctx context.Context, end time.Time) error {
	g.clock.Set(end.Add(-20 * time.Minute))
	for _, label := range []string{"D3", "D4", "D5", "D6", "L1", "L2", "V1", "V2", "W1", "W2"} {
		if err := g.charge(ctx, g.packs[label]); err != nil {
			return err
		}
	}
	for label, id := range g.packs {
		if err := g.readCharged(ctx, label, id); err != nil {
			return err
		}
	}
	for _, label := range []string{"D7", "D8", "L3", "L4", "L6", "W3", "W4", "V4"} {
		p, err := g.svc.Fleet.Pack(ctx, g.packs[label])
		if err != nil {
			return err
		}
		if pack.Move(pack.State(p.State), pack.Storage) != nil {
			continue
		}
		if _, err := g.svc.Fleet.MovePack(g.as(ctx, "bao"), p.ID, pack.Storage, "", p.Version); err != nil {
			return err
		}
	}
	return nil
}

// readCharged reads a pack on the charger, as a crew does before it is packed.
func (g *generator) readCharged(ctx context.Context, label string, id uuid.UUID) error {
	p, err := g.svc.Fleet.Pack(ctx, id)
	if err != nil || p.State != string(pack.Charged) {
		return err
	}
	cell, err := pack.CellOf(pack.Chemistry(p.Chemistry))
	if err != nil {
		return err
	}
	temp, rested := 20.0, 45.0
	n := fleet.NewReading{ID: newID(), TemperatureC: &temp, RestedMin: &rested, Source: "hand"}
	for range p.Cells {
		n.CellMV = append(n.CellMV, int(cell.Full)-3)
	}
	n.CellMV[2] -= 6
	if label == "D5" {
		n.CellMV[8] -= 36
	}
	if pack.Chemistry(p.Chemistry) != pack.LiPo {
		level := 99.0
		n.Percent = &level
	}
	_, err = g.svc.Fleet.ReadPack(g.as(ctx, "bao"), id, n)
	return err
}

// training sets the chief's date to what it is today.
func (g *generator) training(ctx context.Context, end time.Time) error {
	c, _, err := g.svc.People.Crew(ctx)
	if err != nil {
		return err
	}
	p, err := g.svc.People.Get(ctx, g.people["imre"].ID)
	if err != nil {
		return err
	}
	on := c.Day(end).AddDate(0, -Crew[0].TrainedMonthsAgo, 0)
	_, err = g.svc.People.Update(ctx, p.ID, people.Edit{Version: p.Version, Name: p.Name, Roles: p.Held(), Active: true,
		Certificate: p.Certificate, TrainedOn: &on, StickMode: p.StickMode})
	return err
}
