package walkround

import (
	"gorm.io/gorm"

	"mainstay/core/checks"
	"mainstay/internal/fleet"
)

// readingOf is what was said of a pack on the walk: read anew, which anew tells, and beside
// it what was confirmed, or the newest reading of the pack would know less than was said.
// What was withdrawn since it was confirmed is not known.
func (sh Sheet) readingOf(tx *gorm.DB, p fleet.Pack) (n fleet.NewReading, anew bool, err error) {
	for _, e := range sh.Worst() {
		it, _, err := sh.item(e.ItemID)
		if err != nil || it.PackID != p.ID.String() {
			continue
		}
		cells := it.Kind == checks.Cells
		if !cells && it.Quantity != "level" && it.Quantity != "pack temperature" {
			continue
		}
		rested := new(Rested)
		if e.Value.From == "" {
			anew = anew || len(e.Value.Set) > 0 || e.Value.Number != nil
		} else {
			was, err := stands(tx, e.Value.From)
			if err != nil {
				return n, false, err
			}
			if was == nil {
				continue
			}
			n.Confirms, rested = append(n.Confirms, was.ID), was.RestedMin
			if cells {
				n.CellsFrom = &was.ID
			}
		}
		switch {
		case cells:
			n.RestedMin = rested
			for _, mv := range e.Value.Set {
				n.CellMV = append(n.CellMV, int(mv+0.5))
			}
		case it.Quantity == "level":
			n.Percent = e.Value.Number
		default:
			n.TemperatureC = e.Value.Number
		}
	}
	return n, anew, nil
}

// stands is a reading that counts; nil: it was withdrawn, or is none.
func stands(tx *gorm.DB, id string) (*fleet.Reading, error) {
	var out []fleet.Reading
	err := tx.Raw("select * from pack_readings where id::text = ? and withdrawn_at is null", id).Scan(&out).Error
	if err != nil || len(out) == 0 {
		return nil, err
	}
	return &out[0], nil
}
