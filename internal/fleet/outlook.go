package fleet

import (
	"context"
	"encoding/json"
	"slices"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/pack"
)

// historyLength is how many readings of a pack its standing rests on.
const historyLength = 400

// historyOf returns the readings of a pack that say something about its
// condition, oldest first.
func historyOf(tx *gorm.DB, p Pack) ([]pack.Measured, error) {
	var rows []Reading
	if err := tx.Raw(`select * from pack_readings where pack_id = ? and withdrawn_at is null and (capacity_mah is not null or resistance_mohm <> '{}' or (cell_mv <> '{}' and rested_min >= ? and cells_from is null)) order by at desc, id desc limit ?`,
		p.ID, pack.RestMinutes, historyLength).Scan(&rows).Error; err != nil {
		return nil, err
	}
	slices.Reverse(rows)
	out := make([]pack.Measured, len(rows))
	for i, r := range rows {
		out[i] = pack.Measured{At: r.At, CellMV: r.Millivolts(), RestedMin: r.RestedMin, TemperatureC: r.TemperatureC,
			MilliOhm: r.MilliOhm, LoadS: r.LoadS}
		if r.CapacityMAh != nil && r.CapacityPM != nil {
			out[i].Capacity = &pack.Capacity{MilliampHours: *r.CapacityMAh, PlusMinus: *r.CapacityPM}
		}
		if r.Cycles != nil {
			out[i].Cycles = *r.Cycles
		}
	}
	return out, nil
}

// standPack computes what the history of a pack says and keeps it.
func (s *Service) standPack(ctx context.Context, tx *gorm.DB, p Pack) error {
	h, err := historyOf(tx.WithContext(ctx), p)
	if err != nil {
		return err
	}
	st := pack.Stand(float64(p.CapacityMAh), h)
	whole, err := json.Marshal(st)
	if err != nil {
		return err
	}
	summary, err := json.Marshal(st.Summary())
	if err != nil {
		return err
	}
	return tx.Exec(`insert into pack_outlooks (pack_id, content, summary, at) values (?, ?, ?, ?)
		on conflict (pack_id) do update set content = excluded.content, summary = excluded.summary, at = excluded.at`, p.ID, string(whole), string(summary), s.Clock.Now()).Error
}

// Standing returns what the history of a pack says, with the points of its
// curves; nil when nothing was measured.
func (s *Service) Standing(ctx context.Context, id uuid.UUID) (*pack.Standing, error) {
	var row struct {
		Content *pack.Standing `gorm:"serializer:json"`
	}
	err := s.DB.WithContext(ctx).Raw("select content from pack_outlooks where pack_id = ?", id).Scan(&row).Error
	return row.Content, err
}

// StandPack computes the standing of one pack again, as the nightly run does.
func (s *Service) StandPack(ctx context.Context, p Pack) error {
	return s.standPack(ctx, s.DB.WithContext(ctx), p)
}
