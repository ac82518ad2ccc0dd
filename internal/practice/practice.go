// Package practice keeps what the crew chose where crews differ, and the
// calibrations that one of its choices asks for.
package practice

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/practice"
	"mainstay/core/upkeep"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Service keeps the practices of the crew.
type Service struct {
	DB    *gorm.DB
	Clock clock.Clock
	Fleet *fleet.Service
}

// Kept is a question with what the crew chose, and the types that overrule it.
type Kept struct {
	practice.Question
	Chosen   practice.Choice
	Own      bool // chosen by the crew; false: the default
	Overrule []airframe.Type
}

// All returns every question as the crew keeps it.
func (s *Service) All(ctx context.Context) ([]Kept, error) {
	set, err := s.Fleet.Practice(ctx)
	if err != nil {
		return nil, err
	}
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return nil, err
	}
	var out []Kept
	for _, q := range practice.Questions {
		_, own := set[q.ID]
		k := Kept{Question: q, Own: own}
		_, k.Chosen = set.Kept(q.ID)
		for _, t := range types {
			for _, id := range t.Demanded() {
				if id == q.ID {
					k.Overrule = append(k.Overrule, t)
				}
			}
		}
		out = append(out, k)
	}
	return out, nil
}

// Choose sets what the crew keeps on one question, from now on, if nobody
// changed the crew meanwhile; the change is on record with what held before.
func (s *Service) Choose(ctx context.Context, id practice.ID, c practice.Choice, why string, version int) error {
	q, err := practice.Find(id)
	if err != nil {
		return fault.Missing("practice")
	}
	if err := q.Check(c); err != nil {
		return fault.Bad("school", "%s.", err)
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		set, err := s.Fleet.Practice(ctx)
		if err != nil {
			return err
		}
		before, was := set.Kept(id)
		set = set.Over(practice.Settings{id: c})
		text, err := json.Marshal(set)
		if err != nil {
			return err
		}
		if err := people.ChangeCrew(tx, version, map[string]any{"practices": string(text)}); err != nil {
			return err
		}
		after, _ := set.Kept(id)
		by := people.From(ctx)
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.PracticeChosen, At: s.Clock.Now(), By: by.By(),
			Content: map[string]any{"question": id, "before": was, "after": c,
				"why": why}, Summary: fmt.Sprintf("%s From %q to %q. %s", q.Asks, before.Says, after.Says, why)})
		return err
	})
}

// Calibration is one calibration of the compass of an aircraft.
type Calibration struct {
	ID         uuid.UUID
	AircraftID uuid.UUID
	SiteID     *uuid.UUID // nil: somewhere that is no site
	At         time.Time
	ByID       uuid.UUID
	ByName     string
	MetalM     *float64 // how far the nearest metal was, m; nil: not said
	Note       string
}

// TableName is the table of calibrations.
func (Calibration) TableName() string { return "calibrations" }

// Calibrate puts a calibration of now on record. The same id twice changes nothing.
func (s *Service) Calibrate(ctx context.Context, c Calibration) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var name, at string
		if err := tx.Raw("select name from aircraft where id = ?", c.AircraftID).Scan(&name).Error; err != nil {
			return err
		}
		if name == "" {
			return fault.Missing("aircraft")
		}
		if c.SiteID != nil {
			if err := tx.Raw("select name from sites where id = ?", *c.SiteID).Scan(&at).Error; err != nil {
				return err
			}
			if at == "" {
				return fault.Bad("site_id", "This site is not on file.")
			}
			at = " at " + at
		}
		by := people.From(ctx)
		c.At, c.ByID, c.ByName = s.Clock.Now(), by.ID, by.Name
		res := tx.Exec("insert into calibrations (id, aircraft_id, site_id, at, by_id, by_name, note, metal_m) values (?, ?, ?, ?, ?, ?, ?, ?) on conflict do nothing",
			c.ID, c.AircraftID, c.SiteID, c.At, c.ByID, c.ByName, c.Note, c.MetalM)
		if res.Error != nil || res.RowsAffected == 0 {
			return res.Error
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.CompassCalibrated, Subject: c.AircraftID, At: c.At,
			By: by.By(), Content: c,
			Summary: strings.TrimSpace(fmt.Sprintf("Compass of %s calibrated%s%s. %s", name, at, metal(c.MetalM), c.Note))})
		return err
	})
}

// metal says how far the nearest metal was; empty: not said.
func metal(m *float64) string {
	if m == nil {
		return ""
	}
	return fmt.Sprintf(", nearest metal %.0f m off", *m)
}

// Newest is the newest calibration of an aircraft, with its place and the work
// that disturbs the compass and was done since.
type Newest struct {
	Calibration
	Site  string
	Lat   *float64
	Lon   *float64
	Since string
}

// Work on electronics, antennas and sensors, parts fitted there, and a rebuild
// disturb the compass.
const newestSQL = `select distinct on (c.aircraft_id) c.*, coalesce(s.name, '') as site, s.lat, s.lon, coalesce((select what from (
		select w.title as what, w.signed_at as at from work_orders w where w.aircraft_id = c.aircraft_id and w.signed_at > c.at and w.station in ('electronics', 'antenna', 'sensor')
		union all select w.title, w.opened_at from work_orders w where w.aircraft_id = c.aircraft_id and w.opened_at > c.at and w.task_id = @rebuilt
		union all select p.kind || ' fitted', m.fitted_at from part_moves m join parts p on p.id = m.part_id where m.aircraft_id = c.aircraft_id and m.fitted_at > c.at and p.kind in ('receiver', 'sensor', 'speed-controller')
	) x order by at desc limit 1), '') as since
	from calibrations c left join sites s on s.id = c.site_id`

// ForGate returns the newest calibration of the given aircraft, or of all for nil.
func (s *Service) ForGate(ctx context.Context, ids []uuid.UUID) (map[uuid.UUID]Newest, error) {
	sql, args := newestSQL, map[string]any{"rebuilt": upkeep.CommissioningID}
	if ids != nil {
		sql += " where c.aircraft_id in @ids"
		args["ids"] = ids
	}
	var rows []Newest
	if err := s.DB.WithContext(ctx).Raw(sql+" order by c.aircraft_id, c.at desc, c.id desc",
		args).Scan(&rows).Error; err != nil {
		return nil, err
	}
	out := make(map[uuid.UUID]Newest, len(rows))
	for _, r := range rows {
		out[r.AircraftID] = r
	}
	return out, nil
}
