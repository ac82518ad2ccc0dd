package fleet_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"
	"pgregory.net/rapid"

	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/platform/db"
	"mainstay/internal/testbed"
)

// book is the ledger kept by hand: what is where, and what each flight put on
// what.
type book struct {
	t      *testing.T
	s      *testbed.Stage
	crafts []uuid.UUID
	on     map[string]string   // craft/position -> serial, "" for none
	shelf  map[string][]string // position -> serials
	flown  []entry
	made   int
}

type entry struct {
	flight  uuid.UUID
	craft   uuid.UUID
	serials []string
	seconds int64
	litres  float64
}

var places = []string{"propeller-1", "motor-1", "motor-2", "frame"}

func newBook(t *testing.T) *book {
	s := testbed.NewStage(t)
	b := &book{t: t, s: s, on: map[string]string{}, shelf: map[string][]string{}}
	for _, name := range []string{"Spray one", "Spray two"} {
		a, err := s.Fleet.AddAircraft(s.As(s.Chief), fleet.NewAircraft{ID: testbed.NewID(), TypeKey: "dray-30", Name: name,
			Serial: name, FitNewParts: true})
		require.NoError(t, err)
		b.crafts = append(b.crafts, a.ID)
		for _, at := range places {
			b.on[fmt.Sprint(a.ID, at)] = name + "-" + at
		}
		b.on[fmt.Sprint(a.ID, "frame")] = name
	}
	return b
}

func (b *book) part(serial string) fleet.Part {
	b.t.Helper()
	var p fleet.Part
	require.NoError(b.t, b.s.DB.Limit(1).Find(&p, "serial = ?", serial).Error)
	return p
}

func (b *book) fly(craft uuid.UUID, seconds int, litres float64) {
	start := b.s.Clock.Now()
	b.s.Clock.Advance(time.Duration(seconds) * time.Second)
	use := fleet.Use{Flight: fakeFlight(b.t, b.s, craft, start, seconds), Aircraft: craft,
		Packs: []uuid.UUID{b.s.Packs[0].ID}, TookOff: start, Landed: b.s.Clock.Now(), Seconds: seconds, Landings: 1,
		Litres: litres}
	require.NoError(b.t, db.Tx(context.Background(), b.s.DB,
		func(_ context.Context, tx *gorm.DB) error { return fleet.ApplyUse(tx, use) }))
	e := entry{flight: use.Flight, craft: craft, seconds: int64(seconds), litres: litres}
	for _, at := range places {
		if serial := b.on[fmt.Sprint(craft, at)]; serial != "" {
			e.serials = append(e.serials, serial)
		}
	}
	b.flown = append(b.flown, e)
}

func (b *book) fit(craft uuid.UUID, at string, fromShelf bool) {
	serial := ""
	if list := b.shelf[at]; len(list) > 0 && fromShelf {
		serial, b.shelf[at] = list[0], list[1:]
	} else {
		b.made++
		serial = fmt.Sprintf("N-%d", b.made)
	}
	key := fmt.Sprint(craft, at)
	if old := b.on[key]; old != "" {
		b.shelf[at] = append(b.shelf[at], old)
	}
	b.on[key] = serial
	require.NoError(b.t, b.s.Fleet.FitParts(b.s.As(b.s.Tech), craft,
		fleet.FitParts{Source: "maker", Old: "shelf", Fits: []fleet.Fit{{PartID: testbed.NewID(), Station: at,
			Serial: serial}}}))
}

func (b *book) remove(craft uuid.UUID, at string) {
	key := fmt.Sprint(craft, at)
	if b.on[key] == "" {
		return
	}
	_, err := b.s.Fleet.RemovePart(b.s.As(b.s.Tech), b.part(b.on[key]).ID, fleet.Shelf, false, "inspection")
	require.NoError(b.t, err)
	b.shelf[at] = append(b.shelf[at], b.on[key])
	b.on[key] = ""
}

func (b *book) swap(at, to string) {
	x, y := fmt.Sprint(b.crafts[0], at), fmt.Sprint(b.crafts[1], to)
	if b.on[x] == "" || b.on[y] == "" {
		return
	}
	require.NoError(b.t, b.s.Fleet.SwapParts(b.s.As(b.s.Tech), b.part(b.on[x]).ID, b.part(b.on[y]).ID))
	b.on[x], b.on[y] = b.on[y], b.on[x]
}

func (b *book) correct(i, seconds int, litres float64) {
	e := &b.flown[i]
	require.NoError(b.t, b.s.Flights.Correct(b.s.As(b.s.Chief),
		flights.Correction{ID: testbed.NewID(), FlightID: e.flight, Seconds: seconds, Landings: 1, Litres: litres,
			Reason: "read from the aircraft"}, testbed.PIN))
	e.seconds, e.litres = int64(seconds), litres
}

// Whatever is fitted, flown, taken off, swapped and corrected, the counters of
// every thing are the sum of the flights it was on: by hand, and on the ledger.
func TestCountersAreTheSumOfTheFlights(t *testing.T) {
	b := newBook(t)
	rapid.Check(t, func(rt *rapid.T) {
		for range 6 {
			b.s.Clock.Advance(time.Minute)
			craft := rapid.SampledFrom(b.crafts).Draw(rt, "craft")
			at := rapid.SampledFrom([]string{"propeller-1", "motor-1", "motor-2"}).Draw(rt, "position")
			switch rapid.IntRange(0, 6).Draw(rt, "act") {
			case 0, 1, 2:
				b.fly(craft, rapid.IntRange(1, 3000).Draw(rt, "seconds"), float64(rapid.IntRange(0, 30).Draw(rt, "litres")))
			case 3:
				b.fit(craft, at, rapid.Bool().Draw(rt, "from the shelf"))
			case 4:
				b.remove(craft, at)
			case 5:
				b.swap("motor-1", rapid.SampledFrom([]string{"motor-1", "motor-2"}).Draw(rt, "with"))
			case 6:
				if len(b.flown) > 0 {
					b.correct(rapid.IntRange(0, len(b.flown)-1).Draw(rt, "which"), rapid.IntRange(1, 4000).Draw(rt, "right seconds"),
						float64(rapid.IntRange(0, 40).Draw(rt, "right litres")))
				}
			}
		}
		b.check()
	})
}

func (b *book) check() {
	seconds, litres, count := map[string]int64{}, map[string]float64{}, map[string]int{}
	for _, e := range b.flown {
		for _, serial := range e.serials {
			seconds[serial] += e.seconds
			litres[serial] += e.litres
			count[serial]++
		}
	}
	var parts []fleet.Part
	require.NoError(b.t, b.s.DB.Find(&parts, "kind in ('propeller', 'motor', 'airframe') and type_key = 'dray-30'").Error)
	for _, p := range parts {
		if _, tracked := count[p.Serial]; tracked {
			require.Equal(b.t, seconds[p.Serial], p.Seconds, p.Serial)
			require.Equal(b.t, count[p.Serial], p.Flights, p.Serial)
			require.InDelta(b.t, litres[p.Serial], p.Litres, 1e-6, p.Serial)
		}
	}
	for table, thing := range map[string]string{"parts": "part", "aircraft": "aircraft", "packs": "pack"} {
		var wrong int64
		require.NoError(b.t, b.s.DB.Raw(fmt.Sprintf(`select count(*) from %s x left join
			(select thing_id, sum(seconds) as s, sum(flights) as f from flight_use where thing = ? group by thing_id) u on u.thing_id = x.id
			where seconds <> coalesce(u.s, 0) or flights <> coalesce(u.f, 0)`, table), thing).Scan(&wrong).Error)
		require.Zero(b.t, wrong, table)
	}
}
