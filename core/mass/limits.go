package mass

import (
	"fmt"
	"math"

	"mainstay/core/judge"
	"mainstay/core/units"
)

// Limits is what the balance of a type is held against; what is not known is nil.
type Limits struct {
	XM        *float64 `json:"x_m"`           // centre of gravity this far to either side, m
	AheadM    *float64 `json:"ahead_m"`       // forward of the centre
	BehindM   *float64 `json:"behind_m"`      // behind it
	MostShare *float64 `json:"most_of_motor"` // of a motor, over an equal share of the greatest mass; nil: UsualMotorShare
}

// UsualMotorShare is what a motor may lift over an equal share of the type's
// greatest mass where the maker says nothing.
const UsualMotorShare = 1.15

// Balance is the judgement of where the mass lies.
type Balance struct {
	Sum     Sum           `json:"sum"`
	Shares  []float64     `json:"shares_kg"` // of each motor; none for a wing
	MostKg  float64       `json:"most_kg"`   // that one motor may lift
	Verdict judge.Verdict `json:"verdict"`
	Says    []Said        `json:"says"`
}

// Said is one sentence about the balance.
type Said struct {
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
}

// Judge holds a sum against the range of the type, in whole millimetres, and each
// motor against its share, in steps of 10 g. maxKg is the type's greatest mass.
// Outside the range is Stop; a range that is not known is Watch. A wing has no
// motors here.
func (l Limits) Judge(s Sum, motors []Motor, maxKg float64) (Balance, error) {
	b := Balance{Sum: s, Shares: []float64{}, Says: []Said{}}
	say := func(v judge.Verdict, format string, a ...any) {
		b.Verdict = max(b.Verdict, v)
		b.Says = append(b.Says, Said{v, fmt.Sprintf(format, a...)})
	}
	hold := func(at float64, limit *float64, way string) {
		if limit != nil && steps(at, 0.001) > steps(*limit, 0.001) {
			say(judge.Stop, "The centre of gravity lies %.0f mm %s; the type allows %.0f.", at*1000, way, *limit*1000)
		}
	}
	if s.X >= 0 {
		hold(s.X, l.XM, "to the right")
	} else {
		hold(-s.X, l.XM, "to the left")
	}
	if s.Y >= 0 {
		hold(s.Y, l.AheadM, "ahead of the centre")
	} else {
		hold(-s.Y, l.BehindM, "behind the centre")
	}
	if l.XM == nil || l.AheadM == nil || l.BehindM == nil {
		say(judge.Watch, "How far off its centre the mass of this type may lie is not in its file.")
	}
	if len(motors) == 0 {
		return b, nil
	}
	shares, err := Shares(s, motors)
	if err != nil {
		return b, err
	}
	most := UsualMotorShare
	if l.MostShare != nil {
		most = *l.MostShare
	}
	b.Shares, b.MostKg = shares, most*maxKg/float64(len(motors))
	for i, kg := range shares {
		switch {
		case kg < 0:
			say(judge.Stop, "Motor %d would have to push down: the mass lies outside the motors.", i+1)
		case steps(kg, 0.01) > steps(b.MostKg, 0.01):
			say(judge.Stop, "Motor %d would lift %.2f kg of the %.2f it may.", i+1, kg, b.MostKg)
		}
	}
	return b, nil
}

// steps counts steps; what is no number counts as the most.
func steps(v, step float64) int64 {
	n, ok := units.Steps(v, step)
	if !ok {
		return math.MaxInt64
	}
	return n
}
