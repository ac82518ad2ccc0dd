package workshop_test

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/judge"
	"mainstay/core/upkeep"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// neverInShop are conditions that no order of work may bring about; each query
// counts how often it is broken.
var neverInShop = map[string]string{
	"signed work with a step that is not in order": `select count(*) from work_orders o join work_entries e on e.order_id = o.id where o.state in ('signed', 'closed') and e.verdict = 'stop'`,
	"signed work with a step that nobody did":      `select count(*) from work_orders o cross join lateral jsonb_array_elements(o.work->'steps') s left join work_entries e on e.order_id = o.id and e.step_id = s->>'id' where o.state in ('signed', 'closed') and e.order_id is null`,
	"a defect closed without signed work":          `select count(*) from defects d where d.closed_at is not null and not exists (select 1 from work_orders o where o.defect_id = d.id and o.state in ('signed', 'closed'))`,
	"two open orders for one defect":               `select count(*) from (select defect_id from work_orders where state = 'open' and defect_id is not null group by 1 having count(*) > 1) x`,
	"two open orders for one task":                 `select count(*) from (select aircraft_id, task_id from work_orders where state = 'open' and task_id <> '' group by 1, 2 having count(*) > 1) x`,
	"a deferral of a closed defect":                `select count(*) from deferrals f join defects d on d.id = f.defect_id where f.ended_at is null and d.closed_at is not null`,
	"a signature without a record":                 `select count(*) from work_orders o where o.state in ('signed', 'closed') and not exists (select 1 from records r where r.kind = 'work-signed' and r.at = o.signed_at)`,
}

// Whatever a technician does in whatever order, each act is done or refused with
// a sentence, and the gate says Stop as long as anything that stops is open.
func TestNoOrderOfWorkHidesAnything(t *testing.T) {
	done := map[string]int{}
	for seed := range uint64(3) {
		s := testbed.NewStage(t)
		tech := s.As(s.Tech)
		r := rand.New(rand.NewPCG(seed, 4))
		one := func(sql string) uuid.UUID {
			var ids []uuid.UUID
			require.NoError(t, s.DB.Raw(sql).Scan(&ids).Error)
			if len(ids) == 0 {
				return testbed.NewID() // of nothing: refused
			}
			return ids[r.IntN(len(ids))]
		}
		order := func() uuid.UUID { return one("select id from work_orders order by id") }
		open := func() uuid.UUID { return one("select id from work_orders where state = 'open' order by id") }
		defect := func() uuid.UUID { return one("select id from defects order by id") }
		tasks := []string{"weekly-screws", "propellers-by-hand", "after-contact", "no-such-task"}
		acts := []struct {
			name string
			do   func() error
		}{
			{"raise", func() error {
				_, err := s.Walkrounds.Raise(s.As(s.Pilot), walkround.Defect{ID: testbed.NewID(), AircraftID: s.Aircraft.ID,
					Station: []string{"sensor", "arm-1", "frame"}[r.IntN(3)], Title: "Dull",
					Severity: []string{"watch", "stop"}[r.IntN(2)]})
				return err
			}},
			{"order for a defect", func() error {
				id := defect()
				_, err := s.Workshop.OpenOrder(tech, workshop.NewOrder{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, DefectID: &id})
				return err
			}},
			{"order for a task", func() error {
				_, err := s.Workshop.OpenOrder(tech, workshop.NewOrder{ID: testbed.NewID(), Aircraft: s.Aircraft.ID,
					TaskID: tasks[r.IntN(len(tasks))]})
				return err
			}},
			{"fill", func() error { return s.Fill(open(), nil) }},
			{"fill badly", func() error {
				return s.Fill(open(), func(_ upkeep.Step, e *upkeep.Entry) {
					if r.IntN(3) == 0 {
						*e = upkeep.Entry{NotOK: true, Note: "rattles"}
					}
				})
			}},
			{"sign", func() error { return s.Workshop.Sign(tech, order(), testbed.Signature()) }},
			{"cancel", func() error { return s.Workshop.Cancel(tech, order(), "opened by mistake") }},
			{"put off a defect", func() error {
				id := defect()
				_, err := s.Workshop.Defer(tech, workshop.NewDeferral{ID: testbed.NewID(), Aircraft: s.Aircraft.ID, DefectID: &id,
					Days: 1 + r.IntN(5), Reason: "part on order", PIN: testbed.PIN})
				return err
			}},
			{"event", func() error {
				if r.IntN(4) > 0 {
					return fault.Clash("not-now", "Not every time.")
				}
				return s.Workshop.Report(tech, testbed.NewID(), s.Aircraft.ID, upkeep.AllEvents[r.IntN(len(upkeep.AllEvents))], "")
			}},
			{"return", func() error { return s.Workshop.Return(tech, s.Aircraft.ID, "looked over", testbed.PIN) }},
			{"days pass", func() error { s.Clock.Advance(time.Duration(r.IntN(40)) * time.Hour); return nil }},
		}
		for step := range 200 {
			s.Clock.Advance(time.Second)
			act := acts[r.IntN(len(acts))]
			if r.IntN(2) == 0 { // work gets done, more often than not
				act = acts[[]int{3, 5, 5, 9}[r.IntN(4)]]
			}
			err := act.do()
			at := fmt.Sprintf("seed %d, step %d, %s", seed, step, act.name)
			if err == nil {
				done[act.name]++
			} else if f, ok := fault.As(err); assert.True(t, ok, "%s: %v", at, err) {
				assert.NotEmpty(t, f.Detail, at)
			}
			for what, sql := range neverInShop {
				var n int
				require.NoError(t, s.DB.Raw(sql).Scan(&n).Error, what)
				require.Zero(t, n, "%s: %s", at, what)
			}
			var stops int
			require.NoError(t, s.DB.Raw(`select (select count(*) from groundings where lifted_at is null)
				+ (select count(*) from work_orders where state = 'open' and grounds)
				+ (select count(*) from defects d where d.closed_at is null and d.severity = 'stop' and not exists (select 1 from deferrals f where f.defect_id = d.id and f.ended_at is null))`).Scan(&stops).Error)
			if stops > 0 {
				a, err := s.Flights.Ask(s.As(s.Pilot), s.Question())
				require.NoError(t, err)
				require.True(t, slices.ContainsFunc(a.Output.Findings, func(f judge.Finding) bool {
					return f.Verdict == judge.Stop && (f.Rule == "grounding" || f.Rule == "defects" || f.Rule == "work-orders")
				}), "%s: %d things stop it, and none is found: %+v", at, stops, a.Output.Findings)
			}
		}
		res, err := records.Verify(context.Background(), s.DB, records.Check{})
		require.NoError(t, err)
		assert.Zero(t, res.FirstBad)
	}
	t.Log(done)
	for _, name := range []string{"raise", "order for a defect", "order for a task", "fill", "fill badly", "sign",
		"cancel", "put off a defect", "event", "return"} {
		assert.Positive(t, done[name], "%s was never possible: the test tries too little", name)
	}
}
