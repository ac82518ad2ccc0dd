package walkround

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"mainstay/core/checks"
	"mainstay/core/gate"
	"mainstay/internal/platform/db"
)

// Evidence is what walkrounds and defects tell the gate about one aircraft.
type Evidence struct {
	Walkround, Turnaround, Draft *gate.Run
	WalkroundID, TurnaroundID    *uuid.UUID
	Findings                     []Finding // of the newest complete run
	Defects                      []Defect
}

// ForGate returns the evidence for the given aircraft, or all for nil, in two
// queries.
func (s *Service) ForGate(ctx context.Context, ids []uuid.UUID) (map[uuid.UUID]*Evidence, error) {
	g, out := s.DB.WithContext(ctx), map[uuid.UUID]*Evidence{}
	at := func(id uuid.UUID) *Evidence {
		if out[id] == nil {
			out[id] = &Evidence{}
		}
		return out[id]
	}
	// One index look-up per aircraft and kind, not a walk over every run there is.
	sql := `select w.* from aircraft a cross join lateral (
		(select * from walkrounds w where w.aircraft_id = a.id and w.kind = 'walkround' and w.completed_at is not null order by w.completed_at desc limit 1)
		union all (select * from walkrounds w where w.aircraft_id = a.id and w.kind = 'turnaround' and w.completed_at is not null order by w.completed_at desc limit 1)
		union all (select * from walkrounds w where w.aircraft_id = a.id and w.kind in ('walkround', 'turnaround') and w.completed_at is null and w.abandoned_at is null)) w`
	var args []any
	if ids != nil {
		sql, args = sql+" where a.id in ?", []any{ids}
	}
	var runs []Run
	if err := g.Raw(sql, args...).Scan(&runs).Error; err != nil {
		return nil, err
	}
	for _, r := range runs {
		e := at(r.AircraftID)
		gr := &gate.Run{ID: r.ID.String(), By: r.StartedBy, At: r.StartedAt, PackIDs: texts(r.PackIDs), Kept: r.Kept,
			LeftOut: r.LeftOut, Pace: r.PaceSaid, Asked: r.Names}
		if r.CompletedAt == nil {
			e.Draft = gr
			continue
		}
		gr.By, gr.At = r.CompletedBy, *r.CompletedAt
		for _, f := range r.Findings {
			if f.Lasting {
				continue // it is a defect
			}
			gr.Findings = append(gr.Findings, gate.RunFinding{Title: f.Title, Place: f.Station, Verdict: f.Verdict,
				Sentence: f.Sentence, PackID: f.PackID})
		}
		id := r.ID
		if r.Kind == checks.Full {
			e.Walkround, e.WalkroundID = gr, &id
		} else {
			e.Turnaround, e.TurnaroundID = gr, &id
		}
		if newest := e.newest(); newest == gr {
			e.Findings = slices.DeleteFunc(slices.Clone(r.Findings), func(f Finding) bool { return f.Lasting })
		}
	}
	sql, args = "select * from defects where closed_at is null", nil
	if ids != nil {
		sql, args = sql+" and aircraft_id in ?", []any{ids}
	}
	var defects []Defect
	if err := g.Raw(sql+" order by raised_at", args...).Scan(&defects).Error; err != nil {
		return nil, err
	}
	for _, d := range defects {
		e := at(d.AircraftID)
		e.Defects = append(e.Defects, d)
	}
	return out, nil
}

func (e *Evidence) newest() *gate.Run {
	if e.Turnaround != nil && (e.Walkround == nil || e.Turnaround.At.After(e.Walkround.At)) {
		return e.Turnaround
	}
	return e.Walkround
}

func texts(ids db.UUIDs) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		out[i] = id.String()
	}
	return out
}

// GateDefects are the open defects as the gate takes them; label names a
// station.
func (e *Evidence) GateDefects(label func(station string) string) []gate.Defect {
	var out []gate.Defect
	for _, d := range e.Defects {
		out = append(out, gate.Defect{ID: d.ID.String(), Title: d.Title, Place: d.Station, Station: label(d.Station),
			Severity: severity(d.Severity), By: d.RaisedBy, At: d.RaisedAt})
	}
	return out
}
