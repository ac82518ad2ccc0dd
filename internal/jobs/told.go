package jobs

import (
	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/intent"
)

// mostSorties is how many flights a job counts packs for.
const mostSorties = 50

// CountSorties keeps how many flights a plan takes, so that kit and packs are counted by
// them.
func CountSorties(tx *gorm.DB, job uuid.UUID, flights int) error {
	n := min(flights, mostSorties)
	return tx.Exec("update jobs set sorties = ?, version = version + 1 where id = ? and sorties is distinct from ?", n,
		job, n).Error
}

// PlannedWay is how high and fast a plan flies.
type PlannedWay struct {
	HeightM, SpeedMS float64
	Datum            intent.Datum
}

// Tell writes height and speed of a plan into its job, where people are briefed from; what
// is there already makes no new version of it.
func Tell(tx *gorm.DB, job, aircraft uuid.UUID, p PlannedWay) error {
	res := tx.Exec(`update job_aircraft set route_m = ?, route_datum = ?, speed_ms = ? where job_id = ? and aircraft_id = ?
		and (route_m, route_datum, speed_ms) is distinct from (?::double precision, ?::text, ?::double precision)`,
		p.HeightM, string(p.Datum), p.SpeedMS, job, aircraft, p.HeightM, string(p.Datum), p.SpeedMS)
	if res.Error != nil || res.RowsAffected == 0 {
		return res.Error
	}
	return tx.Exec("update jobs set version = version + 1 where id = ?", job).Error
}
