package work

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// Progress is how far a kind of background work is, or how it ended.
type Progress struct {
	Kind      string
	Done      int
	Total     int
	State     string // waiting, running, done, failed
	Message   string
	StartedAt time.Time
	EndedAt   *time.Time
}

// Note keeps how far a kind of work is.
func Note(ctx context.Context, g *gorm.DB, p Progress) error {
	return g.WithContext(ctx).Exec(`insert into background_work (kind, done, total, state, message, started_at, ended_at)
		values (?, ?, ?, ?, ?, ?, ?) on conflict (kind) do update set done = excluded.done, total = excluded.total,
			state = excluded.state, message = excluded.message, started_at = excluded.started_at, ended_at = excluded.ended_at`,
		p.Kind, p.Done, p.Total, p.State, p.Message, p.StartedAt, p.EndedAt).Error
}

// Noted lists the background work there is or was, by kind.
func Noted(ctx context.Context, g *gorm.DB) ([]Progress, error) {
	var out []Progress
	err := g.WithContext(ctx).Raw("select * from background_work order by kind").Scan(&out).Error
	return out, err
}
