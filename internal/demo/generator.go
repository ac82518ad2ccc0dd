package demo

import (
	"cmp"
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/energy"
	"mainstay/core/gate"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/sun"
	"mainstay/core/units"
	"mainstay/core/wear"
	"mainstay/core/wind"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/server"
	"mainstay/internal/walkround"
)

type generator struct {
	svc     *server.Services
	clock   *clock.Manual
	rand    *rand.Rand
	people  map[string]people.Person
	packs   map[string]uuid.UUID
	renewed map[string]bool
	picture string
	month   time.Month
	share   float64              // how much of the year has passed, 0-1
	fit     map[string]time.Time // civil day on which each last declared to be fit
	sites   map[string]uuid.UUID
}

func newID() uuid.UUID { return uuid.Must(uuid.NewV7()) }

// cheap hashes keep a year of signatures from taking minutes; the demo's PINs
// are printed on the screen anyway.
var cheap = &argon2id.Params{Memory: 1024, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}

type sortie struct {
	at    time.Time
	craft *craft
}

// Fill makes the demo crew's year in an empty database; a database that has a
// crew is left alone. progress is called after each flight.
func Fill(ctx context.Context, svc *server.Services, progress func(done, all int)) error {
	return FillLast(ctx, svc, 366, progress)
}

// FillLast makes the same crew with the flights of the last days alone.
func FillLast(ctx context.Context, svc *server.Services, days int, progress func(done, all int)) error {
	if _, ok, err := svc.People.Crew(ctx); err != nil || ok {
		return err
	}
	end := svc.Clock.Now().Truncate(time.Minute)
	c := clock.At(end.AddDate(0, 0, -min(days, 365)))
	g := &generator{svc: server.NewServices(svc.DB, c, svc.Walkrounds.Photos), clock: c,
		rand: rand.New(rand.NewPCG(30, 4)), people: map[string]people.Person{}, packs: map[string]uuid.UUID{},
		renewed: map[string]bool{}, fit: map[string]time.Time{}, sites: map[string]uuid.UUID{}}
	g.svc.People.Hash = cheap
	ctx, err := g.stage(ctx, end)
	if err != nil {
		return err
	}
	if err := g.exemptions(ctx, end); err != nil {
		return err
	}
	if err := g.base(ctx); err != nil {
		return err
	}
	plan := slices.DeleteFunc(g.plan(end), func(s sortie) bool { return end.Sub(s.at) > time.Duration(days)*24*time.Hour })
	for i, s := range plan {
		g.share = 1 - end.Sub(s.at).Hours()/(365*24)
		if m := s.at.Month(); m != g.month {
			g.month = m
			if g.clock.Now().Before(s.at) {
				g.clock.Set(s.at.Add(-time.Hour))
			}
			if err := g.measurePacks(ctx); err != nil {
				return err
			}
		}
		if err := g.fly(ctx, s); err != nil {
			return fmt.Errorf("flight %d of %s at %s: %w", i+1, s.craft.name, s.at, err)
		}
		progress(i+1, len(plan))
	}
	g.share = 1
	return g.lastDays(ctx, end)
}

// plan spreads the flights over working days, two days before the end at the
// latest, a few flights of one aircraft after the other.
func (g *generator) plan(end time.Time) []sortie {
	var out []sortie
	for _, a := range crafts {
		for left := a.flights; left > 0; {
			day := 3 + g.rand.IntN(358)
			// from 9 or 10 in the local morning
			at := end.Truncate(24*time.Hour).AddDate(0, 0, -day).Add(17*time.Hour + time.Duration(g.rand.IntN(120))*time.Minute)
			for range min(left, 1+g.rand.IntN(3)) {
				out = append(out, sortie{at, a})
				at = at.Add(75 * time.Minute)
				left--
			}
		}
	}
	slices.SortStableFunc(out, func(a, b sortie) int {
		return cmp.Or(a.at.Compare(b.at),
			cmp.Compare(a.craft.name, b.craft.name))
	})
	return out
}

// fly runs one sortie from walk to log; one that the gate would stop is put
// right first, as the crew would, or left out.
func (g *generator) fly(ctx context.Context, s sortie) error {
	if g.clock.Now().Before(s.at) {
		g.clock.Set(s.at)
	}
	if g.saved(ctx, s.craft) {
		return nil
	}
	if err := g.service(ctx, s.craft); err != nil {
		return err
	}
	if now := g.clock.Now(); !daylight(now).Equal(now) {
		return nil // work in the shed took the day
	}
	pilot := "imre"
	if g.rand.IntN(5) < 2 && g.share < 0.88 {
		pilot = "odile"
	}
	flight, job, err := g.release(ctx, s.craft, pilot)
	if err != nil {
		return err
	}
	if err := g.inTheAir(ctx, s.craft, pilot, flight); err != nil {
		return err
	}
	return g.done(ctx, s.craft, job)
}

// crewZone is where the demo crew lives.
var crewZone = func() *time.Location {
	z, err := time.LoadLocation("America/Los_Angeles")
	if err != nil {
		panic(err) // the zones are built in
	}
	return z
}()

// sortieTime is how long a sortie takes from the walk to the end of its job.
const sortieTime = 130 * time.Minute

// daylight returns a time at which a sortie begins by day: the given one, or
// else the latest before it. Nobody of this crew is trained for the night.
func daylight(at time.Time) time.Time {
	for back := range 3 {
		d, err := sun.On(at.In(crewZone).AddDate(0, 0, -back), crewZone, depotAt.Lat, depotAt.Lon)
		if err != nil || d.Dawn == nil || d.Dusk == nil {
			continue
		}
		first, last := d.Dawn.Add(5*time.Minute), d.Dusk.Add(-sortieTime).Truncate(time.Minute)
		switch {
		case at.Before(first):
		case at.After(last):
			return last
		default:
			return at
		}
	}
	return at
}

// saved keeps Lantern One's propellers just short of their hours.
func (g *generator) saved(ctx context.Context, a *craft) bool {
	if a.name != "Lantern One" || g.share < 0.6 {
		return false
	}
	return g.propellerHours(ctx, a) > 22
}

func (g *generator) propellerHours(ctx context.Context, a *craft) float64 {
	most := 0.0
	for _, p := range g.parts(ctx, a) {
		if p.Kind == "propeller" {
			most = max(most, float64(p.Seconds)/3600)
		}
	}
	return most
}

func (g *generator) parts(ctx context.Context, a *craft) map[string]fleet.Part {
	cs, err := g.svc.Fleet.Conditions(ctx, []uuid.UUID{a.id})
	if err != nil || len(cs) == 0 {
		return nil
	}
	return cs[0].Parts
}

// service has the technician do the tasks that are due and replace propellers
// that nearly are.
func (g *generator) service(ctx context.Context, a *craft) error {
	if err := g.keepUp(ctx, a); err != nil {
		return err
	}
	t, err := g.svc.Fleet.Type(ctx, a.typeKey)
	if err != nil {
		return err
	}
	due := false
	for _, p := range g.parts(ctx, a) {
		if a.name == "Lantern Two" && g.share > 0.6 {
			continue // overdue today: nobody has got round to it
		}
		if d, err := wear.Judge(p.Counters(), t.Lives()[p.Kind], g.clock.Now()); p.Kind == "propeller" &&
			(err != nil || d.Fraction > 0.97) {
			due = true
		}
	}
	if a.renewAt > 0 && g.share > a.renewAt && !g.renewed[a.name] {
		due, g.renewed[a.name] = true, true
	}
	if !due {
		return nil
	}
	return g.newPropellers(ctx, a)
}

func (g *generator) newPropellers(ctx context.Context, a *craft) error {
	f := fleet.FitParts{Source: "maker", Old: "discard", CutUp: true}
	for station, p := range g.parts(ctx, a) {
		if p.Kind == "propeller" {
			f.Fits = append(f.Fits, fleet.Fit{PartID: newID(), Station: station,
				Serial: fmt.Sprintf("P%05d", g.rand.IntN(100000))})
		}
	}
	slices.SortFunc(f.Fits, func(x, y fleet.Fit) int { return cmp.Compare(x.Station, y.Station) })
	return g.svc.Fleet.FitParts(g.as(ctx, "tamsin"), a.id, f)
}

func (g *generator) as(ctx context.Context, login string) context.Context {
	return people.With(ctx, g.people[login])
}

// choose takes the least used charged packs, charging them first where needed.
func (g *generator) choose(ctx context.Context, a *craft, n int) ([]uuid.UUID, error) {
	labels := slices.Clone(a.packs)
	if g.share > 0.2 {
		labels = slices.DeleteFunc(labels, func(l string) bool { return l == "D5" }) // it has aged too far to make a set
	}
	g.rand.Shuffle(len(labels), func(i, j int) { labels[i], labels[j] = labels[j], labels[i] })
	var out []uuid.UUID
	for _, l := range labels[:n] {
		id := g.packs[l]
		if err := g.charge(ctx, id); err != nil {
			return nil, err
		}
		out = append(out, id)
	}
	return out, nil
}

func (g *generator) charge(ctx context.Context, id uuid.UUID) error {
	for range 5 {
		p, err := g.svc.Fleet.Pack(ctx, id)
		if err != nil {
			return err
		}
		next := map[string]pack.State{"storage": pack.Charging, "hot": pack.Flown, "flown": pack.Charging,
			"charging": pack.Charged}[p.State]
		if next == "" {
			return nil
		}
		if _, err := g.svc.Fleet.MovePack(g.as(ctx, "bao"), id, next, "", p.Version); err != nil {
			return err
		}
	}
	return nil
}

// walk runs the checklist with believable entries; change may replace one.
func (g *generator) walk(ctx context.Context, a *craft, by, kind string, packs []uuid.UUID,
	change func(it checks.Item, v *checks.Value)) error {
	ctx = g.as(ctx, by)
	sh, err := g.svc.Walkrounds.Start(ctx, walkround.New{ID: newID(), Aircraft: a.id, Round: kind, Packs: packs})
	if err != nil {
		return err
	}
	var es []walkround.NewEntry
	for _, it := range sh.Items {
		v := g.entry(sh, it)
		if change != nil {
			change(it, &v)
		}
		es = append(es, walkround.NewEntry{ItemID: it.ID, Value: v})
	}
	took := time.Duration(4+len(es)/4) * time.Minute
	for i := range es {
		es[i].Ago = took * time.Duration(len(es)-1-i) / time.Duration(len(es))
	}
	g.clock.Advance(took)
	if _, err := g.svc.Walkrounds.Save(ctx, sh.ID, es); err != nil {
		return err
	}
	_, err = g.svc.Walkrounds.Complete(ctx, sh.ID)
	return err
}

func (g *generator) release(ctx context.Context, a *craft, pilot string) (flight, job uuid.UUID, err error) {
	t, err := g.svc.Fleet.Type(ctx, a.typeKey)
	if err != nil {
		return flight, job, err
	}
	packs, err := g.choose(ctx, a, t.Packs.Count)
	if err != nil {
		return flight, job, err
	}
	if err := g.walk(ctx, a, "bao", g.kindNeeded(ctx, a), packs, nil); err != nil {
		return flight, job, err
	}
	ctx = g.as(ctx, pilot)
	if err := g.fitToday(ctx, pilot); err != nil {
		return flight, job, err
	}
	purpose := a.purposes[g.rand.IntN(len(a.purposes))]
	if job, err = g.order(ctx, a, pilot, purpose); err != nil {
		return flight, job, err
	}
	q := flights.Question{Aircraft: a.id, Packs: packs, Wind: g.wind(t.Limits.WindMS), Job: &job}
	ans, err := g.svc.Flights.Ask(ctx, q)
	if err != nil {
		return flight, job, err
	}
	rel, err := g.svc.Flights.Release(ctx, flights.NewRelease{ID: newID(), Question: q, Purpose: purpose,
		GateHash: ans.Hash, PIN: pin(pilot)})
	if err != nil {
		return flight, job, err
	}
	g.clock.Advance(4 * time.Minute)
	f, err := g.svc.Flights.TakeOff(ctx, newID(), rel.ID, nil)
	return f.ID, job, err
}

// kindNeeded is a turnaround on a day that began with a walkround, unless parts
// were fitted since.
func (g *generator) kindNeeded(ctx context.Context, a *craft) string {
	ev, err := g.svc.Walkrounds.ForGate(ctx, []uuid.UUID{a.id})
	if err != nil || ev[a.id] == nil || ev[a.id].Walkround == nil ||
		g.clock.Now().Sub(ev[a.id].Walkround.At) > 9*time.Hour {
		return checks.Full
	}
	for _, p := range g.parts(ctx, a) {
		if p.FittedAt != nil && p.FittedAt.After(ev[a.id].Walkround.At) {
			return checks.Full
		}
	}
	return checks.Turnaround
}

func (g *generator) wind(limit units.MetresPerSecond) *gate.Wind {
	v := units.MetresPerSecond(float64(int(10*(1.2+g.rand.Float64()*float64(limit)*0.12))) / 10)
	gust := v + 0.8
	return &gate.Wind{At: g.clock.Now(), SteadyMS: v, GustMS: &gust, MeasuredM: 2, Ground: wind.Open}
}

func pin(login string) string {
	for _, w := range Crew {
		if w.Login == login {
			return w.PIN
		}
	}
	return ""
}

var mishaps = []struct{ kind, note string }{{"gust", ""}, {"bird", "Two crows, kept away."},
	{"warning", "Compass warning for a second, gone after a turn."}, {"person", "Walker on the track, waited."},
	{"takeover", "Flew the last leg by hand."}}

func (g *generator) inTheAir(ctx context.Context, a *craft, pilot string, flight uuid.UUID) error {
	ctx = g.as(ctx, pilot)
	if g.rand.IntN(6) == 0 {
		g.clock.Advance(3 * time.Minute)
		m := mishaps[g.rand.IntN(len(mishaps))]
		if err := g.svc.Flights.AddEvent(ctx, flight, flights.Event{ID: newID(), Kind: m.kind, Note: m.note}); err != nil {
			return err
		}
	}
	t, err := g.svc.Fleet.Type(ctx, a.typeKey)
	if err != nil {
		return err
	}
	if _, err := g.svc.Flights.Hover(ctx, flight, g.outputs(a, t.SisterMotors())); err != nil {
		return err
	}
	minutes := a.minutes[0] + g.rand.IntN(a.minutes[1]-a.minutes[0]+1)
	g.clock.Advance(time.Duration(minutes)*time.Minute + time.Duration(g.rand.IntN(60))*time.Second)
	f, err := g.svc.Flights.Land(ctx, flight)
	if err != nil {
		return err
	}
	g.clock.Advance(3 * time.Minute)
	n := flights.NewLog{Landings: 1, WarmthC: g.warmth(a, t.SisterMotors())}
	if t.TankL > 0 {
		n.Litres = float64(18 + g.rand.IntN(11))
	}
	more := 0.0 // this flight takes a little more or less than the model says
	for i, p := range f.PackIDs {
		if r := g.rand.IntN(15); i == 0 {
			more = float64(r-7) / 7 * 0.05
		}
		level := float64(levelLeft(a, t, float64(f.Seconds), n.Litres, more) - i%2)
		n.Packs = append(n.Packs, flights.LandedPack{Pack: p, Percent: &level, TemperatureC: float64(32 + g.rand.IntN(16))})
	}
	if _, err := g.svc.Flights.Log(ctx, flight, n); err != nil {
		return err
	}
	g.clock.Advance(2 * time.Minute)
	return nil
}

// levelLeft is what the packs show after a flight: by the model of the type, a share
// more or less, and from aircraft to aircraft.
func levelLeft(a *craft, t airframe.Type, seconds, litres, more float64) int {
	m, _ := t.Model(nil)
	phase := energy.Phase{Kind: energy.Cruising, Seconds: seconds}
	if litres > 0 {
		phase = energy.Phase{Kind: energy.Spraying, Seconds: seconds, KgPerS: litres / seconds}
	}
	need, err := m.Fly(*a.mass(), 1.15, []energy.Phase{phase})
	if err != nil {
		return 30
	}
	share := map[string]float64{"Dray One": 1.03, "Dray Two": 1.12, "Lantern One": 0.97}[a.name]
	if share == 0 {
		share = 1
	}
	share *= 1 + more
	full := float64(t.Packs.Count*t.Packs.CapacityMAh*t.Packs.Cells) / 1000 * 3.7 * 0.96
	return min(max(int(99-need.Wh*share/full*100), 22), 90)
}

// outputs of the motors in the first hover, percent.
func (g *generator) outputs(a *craft, n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = float64(48+i%2) + float64(g.rand.IntN(10))/10
	}
	if a.name == "Lantern Two" {
		out[2] += float64(int(30*g.share*g.share)) / 10
	}
	return out
}

// warmth of the motors after landing; one motor of Lantern Two drifts away
// from its sisters over the year.
func (g *generator) warmth(a *craft, n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = float64(38 + g.rand.IntN(4))
	}
	if a.name == "Lantern Two" {
		out[2] = 40 + float64(int(14*g.share*g.share))
	}
	return out
}

// entry is a believable value for an item: in order, except where the
// scenario has something to show.
func (g *generator) entry(sh walkround.Sheet, it checks.Item) checks.Value {
	switch it.Kind {
	case checks.Look, checks.Group:
		return checks.Value{Look: "ok"}
	case checks.Cells:
		set := make([]float64, it.Count)
		i := slices.IndexFunc(sh.Packs, func(p checks.PackRef) bool { return p.ID == it.PackID })
		cell, err := pack.CellOf(sh.Packs[i].Chemistry)
		if err != nil {
			return checks.Value{}
		}
		for k := range set {
			set[k] = float64(int(cell.Full) - 2 - g.rand.IntN(12))
		}
		if sh.Packs[i].Label == "D5" { // the ninth cell is failing
			set[8] -= float64(int(34 * g.share * g.share))
		}
		return checks.Value{Set: set}
	case checks.Motors, checks.Alike:
		set := make([]float64, it.Count)
		for k := range set {
			set[k] = float64(18 + g.rand.IntN(2))
		}
		if it.Kind == checks.Alike {
			return checks.Value{Look: "ok", Set: set}
		}
		return checks.Value{Set: set}
	case checks.Computed:
		v := checks.Value{Look: "ok"}
		if it.Known != nil && it.Known.Verdict != judge.Clear {
			v.Note = "Seen, and said at the gate."
		}
		return v
	case checks.Poll:
		var v checks.Value
		for _, n := range it.Names {
			v.Poll = append(v.Poll, checks.Vote{Name: n, Go: true})
		}
		return v
	case checks.Who:
		return checks.Value{Choice: it.Names[0]}
	case checks.Counted:
		return checks.Value{Number: it.Expect}
	case checks.Choice:
		return checks.Value{Choice: it.Options[0].Key}
	case checks.Timer:
		return checks.Value{Look: "ok", Seconds: &it.LeastS}
	case checks.Set:
		return checks.Value{Set: []float64{1, 91, 179, 271}}
	case checks.Reading, checks.Photo, checks.Drill:
	}
	v := map[string]float64{"bus resistance": 60, "controller charge": 88, "number of satellites": 14,
		"lowest cell under load": 3.98, "receiver supply": 5.2, "heading difference": 2, "pack temperature": 21,
		"level": 99}[it.Quantity]
	return checks.Value{Number: &v}
}
