package intent

import (
	"fmt"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// Mass is what today's take-off mass is held against.
type Mass struct {
	MassKg *float64 // today's, packs, payload and liquid with it; nil: not known
	MaxKg  float64  // of the type
	LiftKg *float64 // what today's air lifts; nil: not known
}

// Judge holds a take-off mass against the type's maximum and today's lift, in
// steps of 10 g: over the maximum is Stop, over the lift, a rule of thumb, Watch. What is not known is a finding, and
// weighs as the worst it could be.
func (m Mass) Judge() (judge.Verdict, string) {
	kg := func(v float64) (int64, bool) { return units.Steps(v, 0.01) }
	most, ok := kg(m.MaxKg)
	if !ok || most <= 0 {
		return judge.Stop, "The greatest take-off mass of the type is not known."
	}
	if m.MassKg == nil || !finite(*m.MassKg) || *m.MassKg <= 0 {
		return judge.Stop, fmt.Sprintf("The take-off mass of today is not known: weigh it with packs, payload and liquid. The type takes %.1f kg.",
			m.MaxKg)
	}
	mass, _ := kg(*m.MassKg)
	if mass > most {
		return judge.Stop, fmt.Sprintf("It takes off with %.1f kg; the type takes %.1f kg.", *m.MassKg, m.MaxKg)
	}
	if m.LiftKg == nil || !finite(*m.LiftKg) {
		return judge.Watch, fmt.Sprintf("It takes off with %.1f kg; how much today's air lifts is not known.", *m.MassKg)
	}
	if lift, _ := kg(*m.LiftKg); mass > lift {
		return judge.Watch, fmt.Sprintf("It takes off with %.1f kg; today's thinner air lifts %.1f kg, unless the maker's table says more.",
			*m.MassKg, *m.LiftKg)
	}
	return judge.Clear, fmt.Sprintf("%.1f kg of %.1f.", *m.MassKg, m.MaxKg)
}
