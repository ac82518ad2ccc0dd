package testbed

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"slices"
	"testing"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"mainstay/core/checks"
	"mainstay/core/crew"
	"mainstay/core/firmware"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/core/upkeep"
	"mainstay/core/wind"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/practice"
	"mainstay/internal/server"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// PIN of everybody on a stage.
const PIN = "2580"

// Stage is a small crew with one inspection quad and two packs, all in order,
// at a clock that moves when told.
type Stage struct {
	*server.Services
	Clock    *clock.Manual
	URL      string
	Chief    people.Person
	Pilot    people.Person
	Tech     people.Person
	Aircraft fleet.Aircraft
	Packs    []fleet.Pack
	*Field
	t testing.TB
}

// NewStage sets one up in an empty database.
func NewStage(t testing.TB) *Stage {
	c := clock.At(Noon)
	svc, url := Empty(t, c)
	// quick, for tests only
	svc.People.Hash = &argon2id.Params{Memory: 1024, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}
	s := &Stage{Services: svc, Clock: c, URL: url, t: t}
	ctx := context.Background()
	zone := people.Crew{Name: "Test crew", Zone: "America/Los_Angeles",
		Units: people.Shown{Length: "m", Speed: "m/s", Mass: "kg", Temperature: "degC", Volume: "L"}}
	trained := Noon.AddDate(0, -6, 0)
	var err error
	s.Chief, err = svc.People.SetUp(ctx, zone, people.New{Login: "chief", Name: "Chief Person", Password: "long enough",
		PIN: PIN, Certificate: "R-1", TrainedOn: &trained})
	require.NoError(t, err)
	add := func(login string, role crew.Role) people.Person {
		p, err := svc.People.Add(ctx, people.New{ID: NewID(), Login: login, Name: login + " person", Roles: []crew.Role{role},
			Password: "long enough", PIN: PIN, Certificate: "R-2", TrainedOn: &trained})
		require.NoError(t, err)
		return p
	}
	s.Pilot, s.Tech = add("pilot", crew.Pilot), add("tech", crew.Technician)
	s.Fit(s.Chief)
	s.Fit(s.Pilot)
	expires, mass := Noon.AddDate(2, 0, 0), 7.1
	s.Aircraft, err = svc.Fleet.AddAircraft(s.As(s.Chief),
		fleet.NewAircraft{ID: NewID(), TypeKey: "lantern-4", Name: "Quad one", Serial: "Q-1", Registration: "T-1",
			RegistrationExpires: &expires, FitNewParts: true, MassKg: &mass, WeighedOn: &trained})
	require.NoError(t, err)
	s.Known(s.Aircraft.ID)
	for _, label := range []string{"A1", "A2"} {
		p, err := svc.Fleet.AddPack(s.As(s.Chief), fleet.NewPack{ID: NewID(), Label: label, Serial: "S-" + label,
			Chemistry: string(pack.LiHV), Cells: 6, MilliampHours: 12000})
		require.NoError(t, err)
		s.Packs = append(s.Packs, p)
		s.Charge(p.ID)
	}
	s.Field = NewField(t, svc, Mate{s.Pilot, "rpic", PIN}, Mate{s.Chief, "pilot", PIN})
	return s
}

// NewID returns an id.
func NewID() uuid.UUID { return uuid.Must(uuid.NewV7()) }

// As returns a context in which p acts.
func (s *Stage) As(p people.Person) context.Context { return people.With(context.Background(), p) }

// Known records the firmware of an aircraft and a calibration, so that a new one
// may fly.
func (s *Stage) Known(aircraft uuid.UUID) {
	s.t.Helper()
	require.NoError(s.t, s.Practices.Calibrate(s.As(s.Tech), practice.Calibration{ID: NewID(), AircraftID: aircraft}))
	require.NoError(s.t, s.Workshop.Install(s.As(s.Tech), aircraft,
		firmware.Set{firmware.Aircraft: "1.0", firmware.Controller: "1.0"}))
}

// Charge brings a pack to charged by legal moves.
func (s *Stage) Charge(id uuid.UUID) {
	s.t.Helper()
	for range 4 {
		p, err := s.Fleet.Pack(context.Background(), id)
		require.NoError(s.t, err)
		next := map[string]pack.State{"storage": pack.Charging, "hot": pack.Flown, "flown": pack.Charging,
			"charging": pack.Charged}[p.State]
		if next == "" {
			return
		}
		_, err = s.Fleet.MovePack(s.As(s.Pilot), id, next, "", p.Version)
		require.NoError(s.t, err)
	}
}

// Each is how long each item of a walk takes here.
const Each = 4 * time.Second

// Entries answers every item of a run well; change may replace one.
func (s *Stage) Entries(sh walkround.Sheet, change func(it checks.Item, v *checks.Value)) []walkround.NewEntry {
	return Entries(sh, 4345, change)
}

// Entries answers every item of a run well, each cell with the same mV; change
// may replace one.
func Entries(sh walkround.Sheet, cellMV float64, change func(it checks.Item, v *checks.Value)) []walkround.NewEntry {
	var out []walkround.NewEntry
	for i, it := range sh.Items {
		v := InOrder(it, cellMV)
		if change != nil {
			change(it, &v)
		}
		out = append(out, walkround.NewEntry{ItemID: it.ID, Value: v, Ago: time.Duration(len(sh.Items)-1-i) * Each})
	}
	return out
}

var goodNumbers = map[string]float64{"controller charge": 90, "number of satellites": 15, "lowest cell under load": 4,
	"receiver supply": 5.2, "heading difference": 1, "pack temperature": 22, "level": 99, "bus resistance": 60}

// InOrder answers an item well, cells with the same mV each.
func InOrder(it checks.Item, cellMV float64) checks.Value {
	v := checks.Value{Look: "ok"}
	switch it.Kind {
	case checks.Reading:
		n := goodNumbers[it.Quantity]
		v = checks.Value{Number: &n}
	case checks.Poll:
		v = checks.Value{}
		for _, n := range it.Names {
			v.Poll = append(v.Poll, checks.Vote{Name: n, Go: true})
		}
	case checks.Who:
		v = checks.Value{Choice: it.Names[0]}
	case checks.Counted:
		v = checks.Value{Number: it.Expect}
	case checks.Choice:
		v = checks.Value{Choice: it.Options[0].Key}
	case checks.Timer:
		v.Seconds = &it.LeastS
	case checks.Computed:
		if it.Known != nil && it.Known.Verdict != judge.Clear {
			v.Note = "Read it."
		}
	case checks.Set:
		v = checks.Value{Set: []float64{0, 90, 180, 270}}
		if it.Per != "heading" {
			v.Set = slices.Repeat([]float64{1}, it.Count)
		}
	case checks.Cells:
		v = checks.Value{Set: slices.Repeat([]float64{cellMV}, it.Count)}
	case checks.Motors:
		v = checks.Value{Set: slices.Repeat([]float64{20}, it.Count)}
	case checks.Look, checks.Group, checks.Alike, checks.Photo, checks.Drill:
	}
	return v
}

// Walk walks the aircraft with a pack and completes the run.
func (s *Stage) Walk(kind string, packs []uuid.UUID, change func(it checks.Item, v *checks.Value)) walkround.Sheet {
	s.t.Helper()
	return s.WalkFor(nil, kind, packs, change)
}

// WalkFor is Walk for a job, whose crew is asked by name.
func (s *Stage) WalkFor(job *uuid.UUID, kind string, packs []uuid.UUID,
	change func(it checks.Item, v *checks.Value)) walkround.Sheet {
	s.t.Helper()
	ctx := s.As(s.Pilot)
	sh, err := s.Walkrounds.Start(ctx, walkround.New{ID: NewID(), Aircraft: s.Aircraft.ID, Round: kind, Packs: packs,
		Job: job})
	require.NoError(s.t, err)
	s.Clock.Advance(time.Duration(len(sh.Items)) * Each)
	_, err = s.Walkrounds.Save(ctx, sh.ID, s.Entries(sh, change))
	require.NoError(s.t, err)
	s.Clock.Advance(time.Second)
	sh, err = s.Walkrounds.Complete(ctx, sh.ID)
	require.NoError(s.t, err)
	return sh
}

// Question asks about a practice flight in a light wind measured now.
func (s *Stage) Question(packs ...uuid.UUID) flights.Question {
	s.t.Helper()
	return s.For(s.Practice(), packs...)
}

// For asks about a flight of a job in a light wind measured now.
func (s *Stage) For(job uuid.UUID, packs ...uuid.UUID) flights.Question {
	gust := units.MetresPerSecond(4)
	return flights.Question{Job: &job, Aircraft: s.Aircraft.ID, Packs: packs,
		Wind: &gate.Wind{At: s.Clock.Now(), SteadyMS: 3, GustMS: &gust, MeasuredM: 2, Ground: wind.Open}}
}

// Fit has a person declare to be fit today.
func (s *Stage) Fit(p people.Person) {
	s.t.Helper()
	require.NoError(s.t, s.People.DeclareFit(s.As(p), NewID(), nil))
}

// Release releases the aircraft with packs.
func (s *Stage) Release(p people.Person, packs ...uuid.UUID) (flights.Release, error) {
	s.t.Helper()
	s.Fit(p)
	q := s.Question(packs...)
	a, err := s.Flights.Ask(s.As(p), q)
	require.NoError(s.t, err)
	return s.Flights.Release(s.As(p), flights.NewRelease{ID: NewID(), Question: q, Purpose: "Test flight",
		GateHash: a.Hash, PIN: PIN})
}

// Landed is a good log of a flight.
func Landed(f flights.Flight) flights.NewLog {
	n := flights.NewLog{Landings: 1, WarmthC: []float64{40, 41, 40, 42}}
	for _, p := range f.PackIDs {
		level := 35.0
		n.Packs = append(n.Packs, flights.LandedPack{Pack: p, Percent: &level, TemperatureC: 38})
	}
	return n
}

// Fly walks, releases, flies for so many seconds and logs.
func (s *Stage) Fly(kind string, pk uuid.UUID, seconds int) flights.Flight {
	s.t.Helper()
	s.Charge(pk)
	s.Walk(kind, []uuid.UUID{pk}, nil)
	r, err := s.Release(s.Pilot, pk)
	require.NoError(s.t, err)
	ctx := s.As(s.Pilot)
	f, err := s.Flights.TakeOff(ctx, NewID(), r.ID, nil)
	require.NoError(s.t, err)
	s.Clock.Advance(time.Duration(seconds) * time.Second)
	_, err = s.Flights.Land(ctx, f.ID)
	require.NoError(s.t, err)
	s.Clock.Advance(time.Minute)
	f, err = s.Flights.Log(ctx, f.ID, Landed(f))
	require.NoError(s.t, err)
	s.Clock.Advance(time.Minute)
	return f
}

// Photo keeps a small picture and returns its id.
func (s *Stage) Photo() string {
	s.t.Helper()
	var b bytes.Buffer
	require.NoError(s.t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 4, 4))))
	p, err := s.Walkrounds.KeepPhoto(s.As(s.Tech), NewID(), &b)
	require.NoError(s.t, err)
	return p.ID.String()
}

// Fill answers every step of an order well; change may replace one.
func (s *Stage) Fill(id uuid.UUID, change func(st upkeep.Step, e *upkeep.Entry)) error {
	s.t.Helper()
	var o workshop.Order
	require.NoError(s.t, s.DB.Limit(1).Find(&o, "id = ?", id).Error)
	var es []workshop.NewEntry
	for _, st := range o.Work.Steps {
		e := upkeep.Entry{Done: true}
		if r := st.Reading; r != nil {
			e = upkeep.Entry{Number: &r.Bands[0].Target}
		}
		if st.Photo {
			e.Photos = []string{s.Photo()}
		}
		if change != nil {
			change(st, &e)
		}
		es = append(es, workshop.NewEntry{Step: st.ID, Value: e})
	}
	return s.Workshop.Enter(s.As(s.Tech), id, es)
}

// Signature of the technician, with the chief as second person.
func Signature() workshop.Signature {
	return workshop.Signature{Note: "Done, nothing found.", PIN: PIN, SecondLogin: "chief", SecondPIN: PIN}
}

// DoOrder fills and signs the open order of a task, opening one if there is
// none, and returns its id.
func (s *Stage) DoOrder(task string) uuid.UUID {
	s.t.Helper()
	var o workshop.Order
	require.NoError(s.t, s.DB.Limit(1).Find(&o, "aircraft_id = ? and task_id = ? and state = 'open'", s.Aircraft.ID,
		task).Error)
	if o.ID == uuid.Nil {
		var err error
		o, err = s.Workshop.OpenOrder(s.As(s.Tech), workshop.NewOrder{ID: NewID(), Aircraft: s.Aircraft.ID, TaskID: task})
		require.NoError(s.t, err)
	}
	require.NoError(s.t, s.Fill(o.ID, nil))
	require.NoError(s.t, s.Workshop.Sign(s.As(s.Tech), o.ID, Signature()))
	return o.ID
}
