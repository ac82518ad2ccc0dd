// Package demo fills an empty database with a made-up crew and a year of its
// work. Everything goes through the same use cases that people use, so that
// records, counters and states agree; the random numbers have a fixed seed, and
// all times are relative to the moment it runs.
package demo

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"mainstay/core/crew"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
)

// Password is the password of every demo person.
const Password = "quillback-demo"

// Who signs in to the demo.
type Who struct {
	Login, Name, PIN, Certificate string
	Roles                         []crew.Role
	TrainedMonthsAgo              int // 0: never
	Sticks                        int // mode; 0: not on file
}

func (w Who) sticks() *int {
	if w.Sticks == 0 {
		return nil
	}
	return &w.Sticks
}

// Crew is the demo crew; the chief first.
var Crew = []Who{
	{"imre", "Imre Castellan", "2580", "RP-40117", []crew.Role{crew.Chief, crew.Pilot}, 7, 2},
	{"odile", "Odile Varga", "1470", "RP-40251", []crew.Role{crew.Pilot}, 25, 1}, // expired at the end of last month
	{"tamsin", "Tamsin Okoro", "3690", "", []crew.Role{crew.Technician}, 0, 2},
	{"bao", "Bao Lindqvist", "4826", "", []crew.Role{crew.Hand}, 0, 0},
	{"rhea", "Rhea Montclair", "7193", "", []crew.Role{crew.Reader}, 0, 0},
}

type craft struct {
	name, typeKey, serial, registration string
	expiresInDays                       int
	flights                             int // over the year
	minutes                             [2]int
	purposes                            []string
	id                                  uuid.UUID
	packs                               []string
	renewAt                             float64 // share of the year at which its propellers are renewed early
}

var crafts = []*craft{
	{name: "Dray One", typeKey: "dray-30", serial: "DR30-0117", registration: "QB-101", expiresInDays: 610, flights: 74,
		minutes: [2]int{8, 12}, packs: []string{"D1", "D2", "D3", "D4", "D5", "D6"},
		purposes: []string{"Spraying, Upper Tolmere yard, rows 1-24", "Spraying, Upper Tolmere yard, rows 25-60",
			"Water run, calibration"}},
	{name: "Dray Two", typeKey: "dray-30", serial: "DR30-0144", registration: "QB-102", expiresInDays: 410, flights: 52,
		minutes: [2]int{8, 12}, packs: []string{"D1", "D2", "D3", "D4", "D5", "D6"},
		purposes: []string{"Spraying, Upper Tolmere yard, rows 61-90", "Spraying, Upper Tolmere yard, headland",
			"Practice, full tank, no spraying"}},
	{name: "Lantern One", typeKey: "lantern-4", serial: "LN4-2203", registration: "QB-121", expiresInDays: 300,
		flights: 120, renewAt: 0.535, minutes: [2]int{23, 27}, packs: []string{"L1", "L2", "L3", "L4"},
		purposes: []string{"Inspection, Cutwater station, roof panels", "Inspection, Cutwater station, intake",
			"Inspection, Long Bank culverts"}},
	{name: "Lantern Two", typeKey: "lantern-4", serial: "LN4-2204", registration: "QB-122", expiresInDays: 300,
		flights: 40, minutes: [2]int{18, 25}, packs: []string{"L1", "L2", "L3", "L4"},
		purposes: []string{"Inspection, Cutwater station, outlet", "Practice, manual flying"}},
	{name: "Lantern Three", typeKey: "lantern-4", serial: "LN4-2291", registration: "QB-123", expiresInDays: 520,
		flights: 34, renewAt: 0.8, minutes: [2]int{15, 24}, packs: []string{"L5", "L6", "L8"},
		purposes: []string{"Inspection, Upper Tolmere yard, poles and wires", "Check flight at the depot"}},
	{name: "Tally V", typeKey: "tally-v", serial: "TV-0088", registration: "QB-131", expiresInDays: 700, flights: 30,
		minutes: [2]int{28, 40}, packs: []string{"V1", "V2", "V3"},
		purposes: []string{"Mapping, Long Bank, km 0-2", "Mapping, Long Bank, km 2-4"}},
	{name: "Tally W", typeKey: "tally-w", serial: "TW-0031", registration: "QB-141", expiresInDays: 21, flights: 28,
		minutes: [2]int{35, 54}, packs: []string{"W1", "W2", "W3"},
		purposes: []string{"Mapping, Long Bank, whole bank", "Mapping, Upper Tolmere yard, canopy"}},
}

// mass is what an aircraft usually takes off with, kg.
func (a *craft) mass() *float64 {
	m := map[string]float64{"dray-30": 70.4, "lantern-4": 5.6, "tally-v": 8.2, "tally-w": 4.05}[a.typeKey]
	return &m
}

type kit struct {
	prefix    string
	n         int
	chemistry pack.Chemistry
	cells     int
	mah       int
	cycles    int
}

var kits = []kit{{"D", 8, pack.LiPo, 14, 30000, 60}, {"L", 8, pack.LiHV, 6, 12000, 35},
	{"V", 4, pack.LiPo, 12, 16000, 20}, {"W", 4, pack.LiIon, 6, 14000, 15}}

// stage makes the crew, its aircraft and its packs.
func (g *generator) stage(ctx context.Context, end time.Time) (context.Context, error) {
	zone := crewZone.String()
	c := people.Crew{Name: "Quillback Aerial", Zone: zone,
		Units: people.Shown{Length: "m", Speed: "m/s", Mass: "kg", Temperature: "degC", Volume: "L"}}
	day := c.Day(end)
	trained := func(months int) *time.Time {
		if months == 0 {
			return nil
		}
		t := day.AddDate(0, -months, -day.Day()+1)
		return &t
	}
	chief := Crew[0]
	p, err := g.svc.People.SetUp(ctx, c, people.New{Login: chief.Login, Name: chief.Name, Password: Password,
		PIN: chief.PIN, Certificate: chief.Certificate})
	if err != nil {
		return ctx, err
	}
	// The first chief's training date is set at the end of the year; a pilot in the past must not look untrained.
	if p, err = g.svc.People.Update(ctx, p.ID, people.Edit{Version: p.Version, Name: p.Name, Roles: p.Held(), Active: true,
		Certificate: chief.Certificate, TrainedOn: trained(18), StickMode: chief.sticks()}); err != nil {
		return ctx, err
	}
	g.people[chief.Login] = p
	for _, w := range Crew[1:] {
		q, err := g.svc.People.Add(ctx, people.New{ID: newID(), Login: w.Login, Name: w.Name, Roles: w.Roles,
			Password: Password, PIN: w.PIN, Certificate: w.Certificate, TrainedOn: trained(w.TrainedMonthsAgo),
			StickMode: w.sticks()})
		if err != nil {
			return ctx, fmt.Errorf("%s: %w", w.Name, err)
		}
		g.people[w.Login] = q
	}
	ctx = people.With(ctx, p)
	for _, a := range crafts {
		expires, weighed := day.AddDate(0, 0, a.expiresInDays), day.AddDate(0, -7, 0)
		made, err := g.svc.Fleet.AddAircraft(ctx, fleet.NewAircraft{ID: newID(), TypeKey: a.typeKey, Name: a.name,
			Serial: a.serial, Registration: a.registration, RegistrationExpires: &expires, FitNewParts: true, MassKg: a.mass(),
			WeighedOn: &weighed})
		if err != nil {
			return ctx, fmt.Errorf("%s: %w", a.name, err)
		}
		a.id = made.ID
	}
	if err := g.installed(ctx); err != nil {
		return ctx, err
	}
	for _, k := range kits {
		for i := range k.n {
			label := fmt.Sprintf("%s%d", k.prefix, i+1)
			made, err := g.svc.Fleet.AddPack(ctx, fleet.NewPack{ID: newID(), Label: label,
				Serial: fmt.Sprintf("%s-%04d", k.prefix, 3100+37*i), Chemistry: string(k.chemistry), Cells: k.cells,
				MilliampHours: k.mah, Cycles: k.cycles})
			if err != nil {
				return ctx, fmt.Errorf("%s: %w", label, err)
			}
			g.packs[label] = made.ID
		}
	}
	return ctx, nil
}
