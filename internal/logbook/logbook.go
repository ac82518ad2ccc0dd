// Package logbook shows the flights that were logged: search, totals, and the
// CSV file that goes out and comes back in.
package logbook

import (
	"context"
	"fmt"
	"io"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/formats/logcsv"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
)

// Service reads and imports the log.
type Service struct {
	DB     *gorm.DB
	Clock  clock.Clock
	People *people.Service
}

// Filter selects flights; zero values select all. From and To are civil days
// in the crew's zone, both included.
type Filter struct {
	Words    string
	Aircraft *uuid.UUID
	Pilot    *uuid.UUID
	From, To *time.Time
}

// Line is one flight in the log.
type Line struct {
	ID         uuid.UUID
	TookOffAt  time.Time
	LandedAt   time.Time
	Aircraft   string
	Serial     string
	TypeName   string
	Pilot      string
	PilotLogin string
	Packs      db.Array[string] `gorm:"type:text[]"`
	Seconds    int
	Landings   int
	Purpose    string
	Remarks    string
	Events     int
	Source     string
}

const from = ` from flights f join aircraft a on a.id = f.aircraft_id join people p on p.id = f.pilot_id
	left join (select distinct on (flight_id) * from flight_corrections order by flight_id, at desc) c on c.flight_id = f.id
	join lateral (select profile->>'name' as name from aircraft_types t where t.key = a.type_key order by version desc limit 1) t on true `

// where builds the condition of a filter.
func (s *Service) where(ctx context.Context, f Filter) (string, []any, error) {
	cond, args := []string{"f.state = 'logged'"}, []any{}
	add := func(sql string, a ...any) { cond = append(cond, sql); args = append(args, a...) }
	for _, w := range strings.Fields(f.Words) {
		like := db.Like(w)
		add("(f.purpose ilike ? or f.remarks ilike ? or a.name ilike ? or p.name ilike ?)", like, like, like, like)
	}
	if f.Aircraft != nil {
		add("f.aircraft_id = ?", *f.Aircraft)
	}
	if f.Pilot != nil {
		add("f.pilot_id = ?", *f.Pilot)
	}
	c, _, err := s.People.Crew(ctx)
	if err != nil {
		return "", nil, err
	}
	if f.From != nil {
		add("f.took_off_at >= ?", dayIn(*f.From, c.Location()))
	}
	if f.To != nil {
		add("f.took_off_at < ?", dayIn(f.To.AddDate(0, 0, 1), c.Location()))
	}
	return "where " + strings.Join(cond, " and "), args, nil
}

// dayIn is when a day begins in a zone.
func dayIn(d time.Time, zone *time.Location) time.Time {
	return time.Date(d.Year(), d.Month(), d.Day(), 0, 0, 0, 0, zone)
}

const pageSize = 50

// Page returns a page of flights, newest first, and the cursor of the next.
func (s *Service) Page(ctx context.Context, f Filter, cursor string) ([]Line, string, error) {
	where, args, err := s.where(ctx, f)
	if err != nil {
		return nil, "", err
	}
	if cursor != "" {
		at, id, err := db.ParseTimeCursor(cursor)
		if err != nil {
			return nil, "", err
		}
		where, args = where+" and (f.took_off_at, f.id) < (?, ?)", append(args, at, id)
	}
	lines, err := s.lines(ctx, where, args, fmt.Sprintf(" order by f.took_off_at desc, f.id desc limit %d", pageSize+1))
	lines, next := db.Page(lines, pageSize, func(l Line) string { return db.TimeCursor(l.TookOffAt, l.ID) })
	return lines, next, err
}

func (s *Service) lines(ctx context.Context, where string, args []any, tail string) ([]Line, error) {
	var out []Line
	err := s.DB.WithContext(ctx).Raw(`select f.id, f.took_off_at, case when c.id is null then f.landed_at else f.took_off_at + make_interval(secs => c.seconds) end as landed_at, a.name as aircraft, a.serial, t.name as type_name, p.name as pilot, p.login as pilot_login,
		array(select k.label from packs k where k.id = any(f.pack_ids) order by k.label) as packs, coalesce(c.seconds, f.seconds) as seconds, coalesce(c.landings, f.landings) as landings, f.purpose, f.remarks, f.events, f.source`+
		from+where+tail, args...).Scan(&out).Error
	return out, err
}

// Total sums flights of one name.
type Total struct {
	Name     string
	Seconds  int64
	Flights  int
	Landings int
}

// Totals sums the selection as a whole and by pilot, aircraft, type and pack.
type Totals struct {
	All                            Total
	Pilots, Aircraft, Types, Packs []Total
}

// Totals sums the selection in two queries.
func (s *Service) Totals(ctx context.Context, f Filter) (Totals, error) {
	var out Totals
	where, args, err := s.where(ctx, f)
	if err != nil {
		return out, err
	}
	var rows []struct {
		Total
		By string
	}
	err = s.DB.WithContext(ctx).Raw(`select case when grouping(p.name) = 0 then 'pilot' when grouping(a.name) = 0 then 'aircraft' when grouping(t.name) = 0 then 'type' else 'all' end as by,
		coalesce(p.name, a.name, t.name, '') as name, coalesce(sum(coalesce(c.seconds, f.seconds)), 0) as seconds, count(*) as flights, coalesce(sum(coalesce(c.landings, f.landings)), 0) as landings`+from+where+
		` group by grouping sets ((), (p.name), (a.name), (t.name)) order by seconds desc, name`, args...).Scan(&rows).Error
	if err != nil {
		return out, err
	}
	for _, r := range rows {
		switch r.By {
		case "pilot":
			out.Pilots = append(out.Pilots, r.Total)
		case "aircraft":
			out.Aircraft = append(out.Aircraft, r.Total)
		case "type":
			out.Types = append(out.Types, r.Total)
		default:
			out.All = r.Total
		}
	}
	err = s.DB.WithContext(ctx).Raw(`select k.label as name, sum(coalesce(c.seconds, f.seconds)) as seconds, count(*) as flights, sum(coalesce(c.landings, f.landings)) as landings`+from+
		`join packs k on k.id = any(f.pack_ids) `+where+` group by k.label order by seconds desc, name limit 5000`,
		args...).Scan(&out.Packs).Error
	return out, err
}

// Export writes the selection as CSV, oldest first.
func (s *Service) Export(ctx context.Context, f Filter, w io.Writer) error {
	where, args, err := s.where(ctx, f)
	if err != nil {
		return err
	}
	lines, err := s.lines(ctx, where, args, " order by f.took_off_at, f.id")
	if err != nil {
		return err
	}
	rows := make([]logcsv.Row, len(lines))
	for i, l := range lines {
		rows[i] = l.row()
	}
	return logcsv.Write(w, rows)
}

func (l Line) row() logcsv.Row {
	return logcsv.Row{ID: l.ID, TookOffAt: l.TookOffAt.UTC(), LandedAt: l.LandedAt.UTC(), AircraftSerial: l.Serial,
		PilotLogin: l.PilotLogin, Packs: append([]string{}, l.Packs...), Seconds: l.Seconds,
		Landings: l.Landings, Purpose: l.Purpose, Remarks: l.Remarks}
}
