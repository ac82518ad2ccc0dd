package airframe

import (
	"errors"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"mainstay/core/pack"
	"mainstay/core/wear"
	"mainstay/core/why"
)

// ErrType is wrapped by every error about a profile that cannot be used.
var ErrType = errors.New("type profile not usable")

var keyForm = regexp.MustCompile(`^[a-z0-9]+(-[a-z0-9]+)*$`)

// Wrong is a field of a profile that cannot be used.
type Wrong struct {
	Path     string // as in the file, like limits.wind_ms
	Sentence string // what is wrong, and what to do
}

// Validate says what is wrong with a profile, the first field first; nil when it can be used.
func (t Type) Validate() error {
	all := t.Wrong()
	if len(all) == 0 {
		return nil
	}
	var words []string
	for _, w := range all {
		words = append(words, w.Path+": "+w.Sentence)
	}
	return why.Not(ErrType, "%s", strings.Join(words, " "))
}

// faults collects what is wrong.
type faults []Wrong

func (f *faults) say(path, format string, a ...any) {
	if !slices.ContainsFunc(*f, func(w Wrong) bool { return w.Path == path }) {
		*f = append(*f, Wrong{path, fmt.Sprintf(format, a...)})
	}
}

// within asks a figure to lie in a range; not a number does not.
func (f *faults) within(path string, v, lo, hi float64, unit string) {
	if !(v >= lo && v <= hi) {
		f.say(path, "It must be %s to %s, not %g.", plainNumber(lo), strings.TrimSpace(plainNumber(hi)+" "+unit), v)
	}
}

// usual is within, for a figure that may be left away for the usual one.
func (f *faults) usual(path string, v, lo, hi float64, unit string) {
	if v != 0 && !(v >= lo && v <= hi) {
		f.say(path, "It must be %s to %s, or left away for the usual value, not %g.", plainNumber(lo),
			strings.TrimSpace(plainNumber(hi)+" "+unit), v)
	}
}

func (f *faults) text(path, v string, least, most int) {
	if n := len([]rune(v)); n < least || n > most {
		f.say(path, "It must have %d to %d characters, not %d.", least, most, n)
	}
}

func (f *faults) oneOf(path, v string, all ...string) {
	if !slices.Contains(all, v) {
		f.say(path, "It must be one of %s, not %q.", strings.Join(all, ", "), v)
	}
}

func plainNumber(v float64) string { return fmt.Sprintf("%.6g", v) }

// Wrong lists every field of a profile that cannot be used, in the order of the file; none: it
// can be used.
func (t Type) Wrong() []Wrong {
	var f faults
	if !keyForm.MatchString(t.Key) || len(t.Key) > 40 {
		f.say("key", "It must be small letters, digits and single hyphens, at most 40, not %q.", t.Key)
	}
	f.within("version", float64(t.Version), 1, wear.Most, "")
	f.text("name", t.Name, 1, 60)
	f.text("work", t.Work, 0, 200)
	t.wrongGeometry(&f)
	t.wrongLimits(&f)
	t.wrongPacks(&f)
	for _, kind := range slices.Sorted(maps.Keys(t.Wear)) {
		if t.Wear[kind].Beyond() {
			f.say("wear."+kind, "A limit of wear is not within 0 to %d.", wear.Most)
		}
	}
	if err := t.checkEquipment(); err != nil {
		f.say("equipment", "%s.", err)
	}
	f.within("tank_l", t.TankL, 0, 500, "L")
	if t.PowerOrder != "" {
		f.oneOf("power_order", t.PowerOrder, "controller-first", "aircraft-first")
	}
	if err := t.Demands.Validate(); err != nil {
		f.say("demands", "%v.", err)
	}
	if t.Practice != nil {
		f.say("practice", "Practice is the crew's own setting, not the profile's; what the maker demands goes under demands.")
	}
	if s := t.Sticks; s != nil {
		if !s.known() {
			f.say("sticks", "It must have start, stop and emergency_stop in words, or be left away.")
		}
		if len(s.Start)+len(s.Stop)+len(s.Emergency)+len(s.From) > 600 {
			f.say("sticks", "All together must have at most 600 characters.")
		}
	}
	if len(t.Unfold) > 0 && !slices.Equal(slices.Sorted(slices.Values(t.Unfold)), t.Rotors()) {
		f.say("unfold", "It must name each of the %d arms once.", t.Geometry.Rotors)
	}
	if c := t.RangeCheck; c != nil {
		f.within("range_check.distance_m", float64(c.DistanceM), 1, 1000, "m")
		f.text("range_check.power", c.Power, 1, 100)
	}
	t.wrongPower(&f)
	t.wrongBalance(&f)
	return f
}

// Drawable reports whether its plan can be drawn, whatever else is wrong with it.
func (t Type) Drawable() bool {
	var f faults
	t.wrongGeometry(&f)
	return len(f) == 0 && t.checkEquipment() == nil
}

func (t Type) wrongGeometry(f *faults) {
	g := t.Geometry
	if !slices.Contains(AllKinds, g.Kind) {
		f.say("geometry.kind", "It must be one of multirotor, fixed-wing, vertical-take-off-wing, not %q.", g.Kind)
		return
	}
	switch {
	case g.Kind == Multirotor:
		f.within("geometry.rotors", float64(g.Rotors), 3, 12, "")
	case g.Kind == VerticalWing && g.Rotors != 4:
		f.say("geometry.rotors", "A vertical take-off wing has 4 lifting rotors, not %d.", g.Rotors)
	case g.Kind == FixedWing && g.Rotors != 0:
		f.say("geometry.rotors", "A fixed wing has no lifting rotors, not %d: leave it away.", g.Rotors)
	}
	if g.Kind != FixedWing {
		f.within("geometry.arm_m", float64(g.ArmM), 0.05, 10, "m")
		f.within("geometry.rotor_diameter_m", float64(g.RotorDiameterM), 0.02, 5, "m")
	}
	if g.Kind != Multirotor {
		f.within("geometry.span_m", float64(g.SpanM), 0.2, 20, "m")
		f.within("geometry.length_m", float64(g.LengthM), 0.1, 20, "m")
		f.within("geometry.chord_m", float64(g.ChordM), 0.05, 5, "m")
		f.within("geometry.prop_diameter_m", float64(g.PropDiameterM), 0.02, 5, "m")
	}
	if g.Tail != "" && (g.Tail != VTail || g.Kind == Multirotor) {
		f.say("geometry.tail", "It must be v, or left away, and only of a wing.")
	}
}

func (t Type) wrongLimits(f *faults) {
	l := t.Limits
	f.within("limits.takeoff_mass_kg", float64(l.TakeoffMassKg), 0.1, 1000, "kg")
	f.within("limits.wind_ms", float64(l.WindMS), 0.5, 40, "m/s")
	if !(l.GustMS >= l.WindMS && l.GustMS <= 60) {
		f.say("limits.gust_ms", "It must be at least wind_ms (%g) and at most 60 m/s, not %g.", float64(l.WindMS),
			float64(l.GustMS))
	}
	f.within("limits.flight_height_m", float64(l.FlightHeightM), 1, 500, "m")
	f.usual("limits.launch_percent", float64(l.LaunchPercent), 1, 100, "%")
	if most := t.LaunchPercent(); !(l.LandByPercent >= 1 && float64(l.LandByPercent) <= most) {
		f.say("limits.land_by_percent", "It must be 1 to %g %%, under the charge at launch, not %g.", most,
			float64(l.LandByPercent))
	}
	f.within("limits.planned_minutes", l.PlannedMinutes, 1, 600, "min")
	f.within("limits.warmth_outlier_c", float64(l.WarmthOutlierC), 1, 100, "°C")
	f.within("limits.crosswind_ms", float64(l.CrosswindMS), 0, 30, "m/s")
	f.within("limits.climb_ms", float64(l.ClimbMS), 0, 30, "m/s")
	f.within("limits.descent_ms", float64(l.DescentMS), 0, 30, "m/s")
	f.within("limits.speed_ms", float64(l.SpeedMS), 0, 100, "m/s")
	f.within("limits.transition_m", float64(l.TransitionM), 0, 120, "m")
	f.within("limits.least_ground_m", float64(l.LeastGroundM), 0, 120, "m")
	f.within("limits.least_over_m", float64(l.LeastOverM), 0, 120, "m")
	f.within("limits.least_return_m", float64(l.LeastReturnM), 0, 120, "m")
	f.usual("limits.reference_kgm3", l.ReferenceKgM3, 0.7, 1.5, "kg/m3")
}

func (t Type) wrongPacks(f *faults) {
	p, l := t.Packs, t.Limits
	f.within("packs.count", float64(p.Count), 1, 4, "")
	f.within("packs.cells", float64(p.Cells), 1, 24, "")
	f.within("packs.capacity_mah", float64(p.CapacityMAh), 100, 200000, "mAh")
	f.oneOf("packs.percent_from", p.PercentFrom, "pack", "volts")
	if p.PercentFrom == "volts" && p.Chemistry != pack.LiPo {
		f.say("packs.percent_from", "Charge from resting volts is only known for LiPo; use pack.")
	}
	f.within("packs.max_cycles", float64(p.MaxCycles), 0, 100000, "")
	f.within("packs.call_out_every_s", float64(p.CallOutEvery), 10, 3600, "s")
	c, err := pack.CellOf(p.Chemistry)
	if err != nil {
		f.say("packs.chemistry", "%s.", err)
	} else if l.LandByCellMV < c.Damage || l.LandByCellMV > c.Full {
		f.say("limits.land_by_cell_mv", "It must be %d to %d mV for %s, not %d.", c.Damage, c.Full, p.Chemistry,
			l.LandByCellMV)
	}
}

func (t Type) wrongPower(f *faults) {
	p := t.Power
	if p == nil {
		return
	}
	f.usual("power.efficiency", p.Efficiency, 0.1, 0.95, "")
	f.usual("power.cruise_share", p.CruiseShare, 0.5, 2, "")
	f.usual("power.cruise_ms", float64(p.CruiseMS), 0.5, 80, "m/s")
	f.usual("power.lift_drag", p.LiftDrag, 2, 60, "")
	f.usual("power.wing_drive", p.WingDrive, 0.1, 0.95, "")
}

func (t Type) wrongBalance(f *faults) {
	b := t.Balance
	if b == nil {
		return
	}
	f.within("balance.empty_kg", float64(b.EmptyKg), 0.01, 1000, "kg")
	f.within("balance.pack_kg", float64(b.PackKg), 0, 200, "kg")
	for _, s := range []struct {
		name string
		at   Spot
	}{{"empty", b.Empty}, {"packs", b.Packs}, {"payload", b.Payload}, {"tank", b.Tank}} {
		f.within("balance."+s.name+".x", s.at.X, -5, 5, "m")
		f.within("balance."+s.name+".y", s.at.Y, -5, 5, "m")
	}
	for _, s := range []struct {
		path string
		v    *float64
		hi   float64
	}{{"balance.x_m", b.XM, 5}, {"balance.ahead_m", b.AheadM, 5}, {"balance.behind_m", b.BehindM,
		5}, {"balance.motor_share", b.MostShare, 3}} {
		if s.v != nil {
			f.within(s.path, *s.v, 0.001, s.hi, "")
		}
	}
}
