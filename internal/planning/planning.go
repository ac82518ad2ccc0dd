// Package planning is what a plan of any work is drawn on: what the packs of an aircraft
// carry, and the wind on its way home. What has to be assumed is said.
package planning

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/pack"
	"mainstay/core/robust"
	"mainstay/core/units"
	"mainstay/core/weather"
	"mainstay/core/wind"
	"mainstay/internal/fleet"
	"mainstay/internal/jobs"
	"mainstay/internal/platform/fault"
)

// Service looks up what a plan is drawn on.
type Service struct {
	Fleet *fleet.Service
	Jobs  *jobs.Service
	// Learned is what an airframe's own flights say of its efficiency.
	Learned func(context.Context, uuid.UUID, airframe.Type) (energy.Learned, error)
}

// Task is an aircraft of a job: whom a plan is for.
type Task struct {
	Job      jobs.Job
	Aircraft fleet.Aircraft
	Type     airframe.Type
}

// Task looks up an aircraft of a job whose work is one of those; another one is refused in
// the words of refuse.
func (s *Service) Task(ctx context.Context, job, aircraft uuid.UUID, refuse func(jobs.Job) error,
	works ...weather.Work) (t Task, err error) {
	if t.Job, err = s.Jobs.Get(ctx, job); err != nil {
		return t, err
	}
	if !slices.Contains(works, weather.Work(t.Job.Work)) {
		return t, refuse(t.Job)
	}
	if !slices.ContainsFunc(t.Job.Aircraft, func(c jobs.Craft) bool { return c.AircraftID == aircraft }) {
		return t, fault.Missing("aircraft of this job")
	}
	if t.Aircraft, err = s.Fleet.Aircraft(ctx, aircraft); err != nil {
		return t, err
	}
	t.Type, err = s.Fleet.Type(ctx, t.Aircraft.TypeKey)
	return t, err
}

// Carries is what a set of charged packs gives an aircraft.
type Carries struct {
	Store    energy.Store
	UsableWh float64 // above what it lands by
	Model    energy.Model
	Assumed  []string
}

// usualHealth is taken where no pack was ever measured.
const usualHealth = 0.9

// Carries is what a set of charged packs of the crew gives in air of a temperature; nil
// is not known.
func (s *Service) Carries(ctx context.Context, aircraft uuid.UUID, t airframe.Type, tempC *float64) (Carries, error) {
	var c Carries
	views, err := s.Fleet.PackViews(ctx, nil)
	if err != nil {
		return c, err
	}
	want := t.Packs
	var shares []float64
	for _, v := range views {
		if v.Chemistry != string(want.Chemistry) || v.Cells != want.Cells || v.CapacityMAh != want.CapacityMAh ||
			v.State == string(pack.Retired) || v.State == string(pack.Quarantine) {
			continue
		}
		if v.Standing != nil && v.Standing.MAh != nil {
			shares = append(shares, *v.Standing.MAh/float64(v.CapacityMAh))
		}
	}
	health := usualHealth
	if len(shares) > 0 {
		health = min(1, robust.Median(shares))
	} else {
		c.Assumed = append(c.Assumed, "capacity of the packs never measured: 90 %")
	}
	cell, err := pack.CellOf(want.Chemistry)
	if err != nil {
		return c, err
	}
	celsius := energy.ColdFrom
	if tempC != nil && *tempC < celsius {
		celsius = max(*tempC, energy.ColdTo) // nobody has kept them warm
	}
	one := energy.Pack{AmpereHours: float64(want.CapacityMAh) / 1000,
		Volts: float64(cell.Nominal) / 1000 * float64(want.Cells), Health: health, Celsius: celsius,
		Percent: t.LaunchPercent()}
	all := make([]energy.Pack, want.Count)
	for i := range all {
		all[i] = one
	}
	if c.Store, err = energy.Together(all); err != nil {
		return c, err
	}
	own, err := s.Learned(ctx, aircraft, t)
	c.UsableWh = c.Store.Usable(float64(t.Limits.LandByPercent))
	var assumed []string
	c.Model, assumed = t.Model(&own)
	for _, what := range assumed {
		c.Assumed = append(c.Assumed, what+" of the type")
	}
	return c, err
}

// HomeWind is the wind on the way home, at a height; what is not known is taken as against
// it, and said.
func HomeWind(t airframe.Type, a weather.Air, heightM float64) (w energy.Wind, assumed string) {
	half := float64(t.Limits.WindMS) / 2
	if a.WindMS == nil {
		return energy.Wind{MeanMS: half, GustMS: half,
			Against: true}, "no wind known: half of the type's limit, against the way home"
	}
	var gust *units.MetresPerSecond
	if a.GustMS != nil {
		v := units.MetresPerSecond(*a.GustMS)
		gust = &v
	}
	at, err := wind.Scale(units.MetresPerSecond(*a.WindMS), gust, units.Metres(a.WindHeightM),
		units.Metres(min(max(heightM, 0.5), 500)), wind.Ground(a.Ground))
	if err != nil {
		return energy.Wind{MeanMS: 2 * half, GustMS: max(2*half, float64(t.Limits.GustMS)),
			Against: true}, "the wind at the type's limits, against the way home"
	}
	w = energy.Wind{MeanMS: float64(at.Steady), GustMS: float64(at.Gust)}
	if a.FromDeg == nil {
		w.Against = true
		return w, "the wind against the way home: where it comes from is not known"
	}
	w.FromDeg = *a.FromDeg
	return w, ""
}
