package survey

import (
	"errors"
)

// Again is a flight as it was laid out, reckoned with what is known now: its lines stay,
// whatever the packs give. Errors wrap ErrInput.
func (p Plan) Again(kept Flight, w Wish, g Given) (Flight, error) {
	if err := errors.Join(g.Model.Check(), within("mass", g.MassKg, 0.05, 1000),
		within("part", float64(kept.Part), 0, float64(len(p.Parts)-1)), p.usable(w)); err != nil {
		return kept, errors.Join(ErrInput, err)
	}
	x := p.Parts[kept.Part]
	try := Plan{PicturesM: p.PicturesM, LinesM: p.LinesM, HeightM: p.HeightM}
	f := &filling{w: w, g: g, p: &try, part: kept.Part, start: x.TakeOff.At, height: max(0, x.LevelM-x.TakeOff.ElevM)}
	for _, y := range kept.Pieces {
		wh, seconds, _, err := f.need(y)
		if err != nil {
			return kept, err
		}
		f.now.Pieces, f.now.Pictures = append(f.now.Pieces, y), f.now.Pictures+y.Pictures
		f.whOut, f.now.Seconds = f.whOut+wh, f.now.Seconds+seconds
	}
	f.close()
	if len(try.Flights) != 1 {
		return kept, nil
	}
	out := try.Flights[0]
	// where it flies was laid when it was planned
	out.Ways, out.MostOverM, out.Again = kept.Ways, kept.MostOverM, kept.Again
	return out, nil
}

func (p Plan) usable(w Wish) error { return within("speed", w.SpeedMS, 0.5, 60) }
