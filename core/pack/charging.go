package pack

import (
	"fmt"
	"time"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// Charging is safe between these, degC (usual practice; the maker wins), and a
// temperature holds for so long before a charge.
const (
	ChargeFromC      units.Celsius = 5
	ChargeToC        units.Celsius = 40
	TemperatureHolds               = time.Hour
)

// JudgeCharge judges a pack's temperature before a charge; nil was not read. One
// that nobody knows any more is Watch: somebody feels the pack first.
func JudgeCharge(t *units.Celsius, age time.Duration) Judgement {
	against := fmt.Sprintf("%.0f-%.0f °C", float64(ChargeFromC), float64(ChargeToC))
	switch {
	case t == nil || age < 0 || age >= TemperatureHolds:
		return Judgement{judge.Watch, "Its temperature is not known: feel it before it goes on the charger.", against}
	case !(*t >= ChargeFromC && *t <= ChargeToC):
		return Judgement{judge.Stop, fmt.Sprintf("It was at %.1f °C. Charge between %.0f and %.0f °C.", float64(*t),
			float64(ChargeFromC), float64(ChargeToC)), against}
	}
	return Judgement{judge.Clear, fmt.Sprintf("Pack is at %.0f °C.", float64(*t)), against}
}
