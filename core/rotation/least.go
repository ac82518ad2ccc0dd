package rotation

import "errors"

// Lateness is how much longer a day may take with fewer sets than with one for each
// flight, as a share.
const Lateness = 0.02

// Usual times at the truck, s (usual practice).
const (
	UsualSwapS = 120.0
	UsualFillS = 150.0
	UsualCoolS = 720.0
	UsualHands = 2
)

// LeastSets is with how few sets of packs the flights of a day are made hardly later than
// with one for each: those that are charged meanwhile fly again. Without channels it is
// one for each. d.Sets does not matter. Errors wrap ErrInput.
func (d Day) LeastSets() (int, error) {
	d.DayS = 0 // as long as it takes
	n := min(len(d.Sorties), MostSets)
	d.Sets = max(n, 1)
	most, err := d.Simulate()
	if err != nil {
		return 0, err
	}
	// More sets are never later, so that the least lies where halving finds it.
	lo, hi := 1, d.Sets
	for lo < hi {
		mid := (lo + hi) / 2
		d.Sets = mid
		r, err := d.Simulate()
		if err != nil && !errors.Is(err, ErrStuck) {
			return 0, err
		}
		if err == nil && r.Flown == most.Flown && r.EndS <= most.EndS*(1+Lateness) {
			hi = mid
		} else {
			lo = mid + 1
		}
	}
	return lo, nil
}
