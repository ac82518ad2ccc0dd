package sites

import (
	"context"
	"fmt"
	"sync"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/home"
	"mainstay/core/site"
	"mainstay/internal/platform/fault"
)

// charted is what follows from a site file and a type without looking at the
// sky: it is worked out once per state of the file.
type charted struct {
	file     File // without its grid
	frame    geo.Frame
	way      WayHome
	noWay    error // why there is no way home to judge
	takeOffs map[string][]site.Judgement
}

// kept holds what was worked out; the key names the state of the file, so that
// nothing in it grows old.
type kept struct {
	mu sync.Mutex
	at map[string]charted
}

// keepAtMost bounds the memory: a few open site pages and the jobs of a day.
const keepAtMost = 64

func (k *kept) get(key string) (charted, bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	c, ok := k.at[key]
	return c, ok
}

func (k *kept) put(key string, c charted) {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.at == nil || len(k.at) >= keepAtMost {
		k.at = map[string]charted{}
	}
	k.at[key] = c
}

// state names the state of a site file: it changes with every change to it. With
// it comes the margin that the crew keeps.
func (s *Service) state(ctx context.Context, id uuid.UUID) (string, home.Margin, error) {
	var st struct {
		State   string
		M       float64
		Percent float64
	}
	err := s.DB.WithContext(ctx).Raw(`select c.margin_m as m, c.margin_percent as percent, concat_ws('/', s.version, f.n, f.versions, extract(epoch from f.newest), extract(epoch from t.at)) as state from sites s cross join crew c
		left join site_terrain t on t.site_id = s.id
		cross join lateral (select count(*) as n, coalesce(sum(version), 0) as versions, max(changed_at) as newest from site_features where site_id = s.id and removed_at is null) f where s.id = ?`, id).Scan(&st).Error
	if err == nil && st.State == "" {
		err = fault.Missing("site")
	}
	return st.State, home.Margin{M: st.M, Percent: st.Percent, RoundM: home.UsualMargin.RoundM}, err
}

func (s *Service) charted(ctx context.Context, id uuid.UUID, t airframe.Type, ask Ask) (charted, error) {
	st, margin, err := s.state(ctx, id)
	if err != nil {
		return charted{}, err
	}
	num := func(v *float64) string {
		if v == nil {
			return "-"
		}
		return fmt.Sprint(*v)
	}
	key := fmt.Sprint(id, " ", st, " ", margin, " ", t.Key, t.Version, " ", num(ask.SettingM), " ", num(ask.RouteM))
	if c, ok := s.kept.get(key); ok {
		return c, nil
	}
	f, err := s.Get(ctx, id, true)
	if err != nil {
		return charted{}, err
	}
	frame, err := f.Frame()
	if err != nil {
		return charted{}, err
	}
	c := charted{frame: frame, takeOffs: f.TakeOffs(frame)}
	c.way, err = f.Reckon(t, margin, ask)
	if _, people := fault.As(err); people {
		c.noWay = err
	} else if err != nil {
		return c, err
	}
	if f.Terrain != nil {
		f.Terrain.Heights = nil
	}
	f.Removed = nil
	c.file = f
	s.kept.put(key, c)
	return c, nil
}
