package demo

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"maps"
	"time"

	"github.com/google/uuid"

	"mainstay/core/firmware"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/upkeep"
	"mainstay/internal/evening"
	"mainstay/internal/fleet"
	"mainstay/internal/practice"
	"mainstay/internal/workshop"
)

// keepUp has the technician do what the programme has due, and sometimes the
// inspection after the day's flying.
func (g *generator) keepUp(ctx context.Context, a *craft) error {
	tasks, err := g.tasks(ctx, a)
	if err != nil {
		return err
	}
	for _, t := range tasks {
		late := t.Due.Verdict == judge.Stop || t.Due.Fraction > 0.97
		if late && (!t.Task.AfterFlying || g.rand.IntN(3) == 0 || g.share > 0.97) && t.Order == nil {
			if err := g.doTask(ctx, a, t.Task); err != nil {
				return fmt.Errorf("%s: %w", t.Task.ID, err)
			}
		}
	}
	return nil
}

func (g *generator) tasks(ctx context.Context, a *craft) ([]workshop.TaskStanding, error) {
	ids := []uuid.UUID{a.id}
	conds, err := g.svc.Fleet.Conditions(ctx, ids)
	if err != nil {
		return nil, err
	}
	c, _, err := g.svc.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	es, err := g.svc.Workshop.ForGate(ctx, conds, ids, c)
	if err != nil {
		return nil, err
	}
	return es[a.id].Tasks, nil
}

// doTask opens, fills and signs the work order of a task.
func (g *generator) doTask(ctx context.Context, a *craft, t upkeep.Task) error {
	ctx = g.as(ctx, "tamsin")
	o, err := g.svc.Workshop.OpenOrder(ctx, workshop.NewOrder{ID: newID(), Aircraft: a.id, TaskID: t.ID})
	if err != nil {
		return err
	}
	var es []workshop.NewEntry
	for _, st := range t.Steps {
		e := upkeep.Entry{Done: true}
		if r := st.Reading; r != nil {
			v := r.Bands[0].Target + r.Bands[0].Tolerance*float64(g.rand.IntN(9))/10
			e = upkeep.Entry{Number: &v}
		}
		if st.Photo {
			if e.Photos, err = g.photo(ctx); err != nil {
				return err
			}
		}
		es = append(es, workshop.NewEntry{Step: st.ID, Value: e})
	}
	g.clock.Advance(12 * time.Minute)
	if err := g.svc.Workshop.Enter(ctx, o.ID, es); err != nil {
		return err
	}
	return g.svc.Workshop.Sign(ctx, o.ID, workshop.Signature{Note: "Done, nothing found.", PIN: pin("tamsin")})
}

// photo makes one small picture and uses it again.
func (g *generator) photo(ctx context.Context) ([]string, error) {
	if g.picture == "" {
		img := image.NewGray(image.Rect(0, 0, 64, 48))
		for i := range img.Pix {
			img.Pix[i] = uint8(90 + i%64*2)
		}
		img.Set(30, 20, color.White)
		var b bytes.Buffer
		if err := png.Encode(&b, img); err != nil {
			return nil, err
		}
		p, err := g.svc.Walkrounds.KeepPhoto(ctx, newID(), &b)
		if err != nil {
			return nil, err
		}
		g.picture = p.ID.String()
	}
	return []string{g.picture}, nil
}

// measurePacks is the monthly measurement on the charger: each pack from about
// 25 percent to full, with the resistance of each cell.
func (g *generator) measurePacks(ctx context.Context) error {
	for _, k := range kits {
		for i := range k.n {
			label := fmt.Sprintf("%s%d", k.prefix, i+1)
			p, err := g.svc.Fleet.Pack(ctx, g.packs[label])
			if err != nil {
				return err
			}
			if p.State == string(pack.Quarantine) || p.State == string(pack.Retired) || label == "L8" || label == "V4" {
				continue // L8 and V4 are new and were never measured
			}
			loss := 0.035 * g.share
			// D5 flies in the first fifth of the year and ages a little faster than the others, so that it still
			// makes a set; then its ninth cell gives way.
			used, failed := min(g.share, 0.2), 0.0
			if g.share > 0.25 {
				failed = 1
			}
			switch label {
			case "D5":
				loss = 0.16*used + 0.12*failed
			case "L3":
				loss = 0.07 + 0.085*g.share
			}
			health := 0.985 - loss + float64(g.rand.IntN(7)-3)/1000
			from, to := float64(24+g.rand.IntN(6)), 100.0
			mah := float64(int(float64(k.mah) * health * (to - from) / 100))
			temp := float64(19 + g.rand.IntN(6))
			n := fleet.NewReading{ID: newID(), Source: "charger", MAhIn: &mah, StartPercent: &from, EndPercent: &to,
				TemperatureC: &temp}
			for c := range k.cells {
				r := 40000/float64(k.mah)*(1+0.12*g.share) + float64(g.rand.IntN(9))/100
				if label == "D5" && c == 8 {
					r *= 1 + 0.75*used + 0.6*failed
				}
				n.MilliOhm = append(n.MilliOhm, float64(int(r*100))/100)
			}
			if _, err := g.svc.Fleet.ReadPack(g.as(ctx, "tamsin"), p.ID, n); err != nil {
				return fmt.Errorf("%s: %w", label, err)
			}
		}
	}
	return nil
}

var tested = map[string]firmware.Set{
	"dray-30": {firmware.Aircraft: "5.2.1", firmware.Controller: "3.4.0", firmware.Pack: "1.9",
		firmware.Payload: "2.0.3", firmware.App: "7.1"},
	"lantern-4": {firmware.Aircraft: "2.8.4", firmware.Controller: "2.8.1", firmware.Payload: "1.3.0",
		firmware.App: "4.6"},
	"tally-v": {firmware.Aircraft: "4.0.2", firmware.Controller: "1.7", firmware.App: "11.2"},
	"tally-w": {firmware.Aircraft: "3.9.0", firmware.Controller: "1.7", firmware.App: "11.2"},
}

// installed puts on record what each aircraft came with: the tested set, but for
// the app of Lantern One.
func (g *generator) installed(ctx context.Context) error {
	tech := g.as(ctx, "tamsin")
	for _, a := range crafts {
		have := maps.Clone(tested[a.typeKey])
		if a.name == "Lantern One" {
			have[firmware.App] = "4.7"
		}
		if err := g.svc.Workshop.Install(tech, a.id, have); err != nil {
			return err
		}
	}
	return nil
}

// calibrated puts a calibration of every compass on record, at the depot.
func (g *generator) calibrated(ctx context.Context, _ time.Time) error {
	depot := g.sites[depotName]
	for _, a := range crafts {
		if err := g.svc.Practices.Calibrate(g.as(ctx, "tamsin"),
			practice.Calibration{ID: newID(), AircraftID: a.id, SiteID: &depot, Note: "Meadow behind the sheds."}); err != nil {
			return err
		}
	}
	return nil
}

// workshopToday leaves the workshop as it is found today: the tested sets on
// file, stock with something to order, one task put off, one approval.
func (g *generator) workshopToday(ctx context.Context, end time.Time) error {
	if at := end.Add(-25 * time.Hour); g.clock.Now().Before(at) {
		g.clock.Set(at)
	}
	tech := g.as(ctx, "tamsin")
	for key, set := range tested {
		if err := g.svc.Workshop.AddFirmwareSet(tech, workshop.FirmwareSet{TypeKey: key, Version: 1, Content: set,
			Note: "Flown together at the depot for a day."}); err != nil {
			return err
		}
	}
	if err := g.svc.Workshop.Approve(g.as(ctx, "imre"), "filter", "dray-30",
		"Mesh and seat measured, the same as the maker's; bought by the dozen."); err != nil {
		return err
	}
	price := func(v int64) *int64 { return &v }
	for _, l := range []workshop.StockLine{
		{Name: "Propellers, Lantern 4", Kind: "propeller", TypeKey: "lantern-4", Minimum: 4, DeliveryDays: 12,
			PriceCents: price(3900), Source: "Maker's spares desk"},
		{Name: "Propellers, Dray 30", Kind: "propeller", TypeKey: "dray-30", Minimum: 6, DeliveryDays: 21,
			PriceCents: price(11800), Source: "Maker's spares desk"},
		{Name: "Motors, Lantern 4", Kind: "motor", TypeKey: "lantern-4", Minimum: 1, DeliveryDays: 30,
			PriceCents: price(21500), Source: "Maker's spares desk"},
		{Name: "Filters, Dray 30", Kind: "filter", TypeKey: "dray-30", Minimum: 2, DeliveryDays: 5, PriceCents: price(900),
			Source: "Farm supply"},
		{Name: "Motor screws M3 x 8, box of 50", Quantity: 3, Minimum: 1, DeliveryDays: 4, PriceCents: price(650),
			Source: "Hardware shop"},
		{Name: "Alcohol, 1 L", Quantity: 1, Minimum: 1, DeliveryDays: 3, PriceCents: price(800), Source: "Hardware shop"},
	} {
		l.ID = newID()
		if err := g.svc.Workshop.SaveStock(tech, l); err != nil {
			return err
		}
	}
	for _, p := range []struct {
		kind, key, prefix string
		n                 int
	}{{"propeller", "lantern-4", "PL7", 6}, {"propeller", "dray-30", "PD5", 8}, {"motor", "lantern-4", "ML2",
		1}, {"filter", "dray-30", "F", 3}} {
		for i := range p.n {
			if _, err := g.svc.Fleet.AddPart(tech, fleet.NewPart{ID: newID(), Kind: p.kind, TypeKey: p.key,
				Serial: fmt.Sprintf("%s-%03d", p.prefix, 11+i), Batch: "26-02", Source: "maker"}); err != nil {
				return err
			}
		}
	}
	// The weekly screws of Tally V were put off for three days; Lantern Two's are overdue.
	_, err := g.svc.Workshop.Defer(tech, workshop.NewDeferral{ID: newID(), Aircraft: byName("Tally V").id,
		TaskID: "weekly-screws", Days: 3, Reason: "The thread lock comes tomorrow.", PIN: pin("tamsin")})
	return err
}

// eveningTonight puts gear and chargers on file and says what flies tomorrow.
func (g *generator) eveningTonight(ctx context.Context, end time.Time) error {
	tech := g.as(ctx, "tamsin")
	for _, x := range []struct {
		name, kind string
		minimum    float64
		level      float64 // 0: never read
	}{{"Controller Dray", "controller", 80, 92}, {"Controller Lantern", "controller", 80, 64}, {"Controller Tally",
		"controller", 80, 88}, {"Tablet 1", "tablet", 70, 81}, {"Tablet 2", "tablet", 70, 0}, {"Ground station laptop",
		"laptop", 60, 97}, {"Radio box", "comms", 80, 100}, {"Base station", "base-station", 80, 83}} {
		gear := evening.Gear{ID: newID(), Name: x.name, Kind: x.kind, Minimum: x.minimum, Active: true}
		if err := g.svc.Evening.SaveGear(tech, gear); err != nil {
			return err
		}
		if err := g.svc.Evening.LookAtGear(g.as(ctx, "bao"), gear.ID, ""); err != nil {
			return err
		}
		if x.level == 0 {
			continue
		}
		if err := g.svc.Evening.CheckGear(g.as(ctx, "bao"), gear.ID, x.level); err != nil {
			return err
		}
	}
	for _, c := range []evening.Charger{{Name: "Depot rack", Channels: 4, Watts: 900, Active: true},
		{Name: "Bench", Channels: 2, Watts: 350, Active: true},
		{Name: "Truck", Channels: 2, Watts: 800, InField: true, GeneratorW: 1600, Active: true}} {
		c.ID = newID()
		if err := g.svc.Evening.SaveCharger(tech, c); err != nil {
			return err
		}
	}
	c, _, err := g.svc.People.Crew(ctx)
	if err != nil {
		return err
	}
	day := c.Day(end).AddDate(0, 0, 1)
	six := time.Date(day.Year(), day.Month(), day.Day(), 6, 0, 0, 0, c.Location())
	return g.svc.Evening.Save(g.as(ctx, "odile"), day, evening.Edit{StartAt: six.Add(-11 * time.Hour), ReadyBy: six,
		Sorties: map[uuid.UUID]int{byName("Dray One").id: 3, byName("Lantern Three").id: 2, byName("Tally W").id: 1}})
}
