package rack

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/riverqueue/river"

	"mainstay/internal/fleet"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/work"
)

// ForecastKind names the run over the whole rack.
const ForecastKind = "pack-forecasts"

// ForecastArgs asks for the forecast of every pack.
type ForecastArgs struct{}

// Kind is the name on the queue.
func (ForecastArgs) Kind() string { return ForecastKind }

// InsertOpts makes two presses one run.
func (ForecastArgs) InsertOpts() river.InsertOpts {
	return river.InsertOpts{MaxAttempts: 3, UniqueOpts: river.UniqueOpts{ByArgs: true, ByPeriod: 10 * time.Second}}
}

// ForecastWorker does the run.
type ForecastWorker struct {
	river.WorkerDefaults[ForecastArgs]
	Rack *Service
}

// Work computes the standing of every pack and shows how far it is.
func (w *ForecastWorker) Work(ctx context.Context, _ *river.Job[ForecastArgs]) error {
	return w.Rack.ComputeAll(ctx)
}

// Progress is how far a kind of background work is.
type Progress = work.Progress

// Background lists the background work there is or was.
func (s *Service) Background(ctx context.Context) ([]Progress, error) {
	return work.Noted(ctx, s.DB)
}

// AskForecasts puts the run over the whole rack on the queue.
func (s *Service) AskForecasts(ctx context.Context) (Progress, error) {
	if s.Queue == nil {
		return Progress{}, fault.Clash("no-background", "Background work is not running on this server.")
	}
	p := Progress{Kind: ForecastKind, State: "waiting", StartedAt: s.Clock.Now()}
	if err := s.note(ctx, p); err != nil {
		return p, err
	}
	_, err := s.Queue.Insert(ctx, ForecastArgs{}, nil)
	return p, err
}

func (s *Service) note(ctx context.Context, p Progress) error {
	return work.Note(ctx, s.DB, p)
}

// ComputeAll computes the standing of every pack that is not retired, in blocks,
// noting its progress after each.
func (s *Service) ComputeAll(ctx context.Context) error {
	p := Progress{Kind: ForecastKind, State: "running", StartedAt: s.Clock.Now()}
	var ids []uuid.UUID
	if err := s.DB.WithContext(ctx).Raw("select id from packs where state <> 'retired' order by id").Scan(&ids).Error; err != nil {
		return err
	}
	p.Total = len(ids)
	step := max(len(ids)/50, 1)
	for i, id := range ids {
		if i%step == 0 {
			p.Done = i
			if err := s.note(ctx, p); err != nil {
				return err
			}
		}
		if err := s.compute(ctx, id); err != nil {
			p.State, p.Message = "failed", "It stopped and will be tried again."
			_ = s.note(context.WithoutCancel(ctx), p)
			return err
		}
	}
	now := s.Clock.Now()
	p.Done, p.State, p.EndedAt = p.Total, "done", &now
	return s.note(ctx, p)
}

func (s *Service) compute(ctx context.Context, id uuid.UUID) error {
	var p fleet.Pack
	if err := s.DB.WithContext(ctx).Limit(1).Find(&p, "id = ?", id).Error; err != nil {
		return err
	}
	return s.Fleet.StandPack(ctx, p)
}
