package sites

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"sync"

	"github.com/google/uuid"

	"mainstay/core/airframe"
	"mainstay/core/geo"
	"mainstay/core/intent"
	"mainstay/core/rules"
	"mainstay/core/site"
	"mainstay/core/wayhome"
	"mainstay/internal/platform/fault"
)

// charted is what follows from a site file and a type without looking at the
// sky: it is worked out once per state of the file.
type charted struct {
	file     File // without its grid
	frame    geo.Frame
	law      rules.Law // as it holds there
	way      wayhome.Answer
	noWay    error // why there is no way home to judge
	takeOffs map[string][]site.Judgement
}

// chart is the file as the core judges it, without its grid.
func (c charted) chart() wayhome.Chart { return c.file.chart(c.frame, nil) }

// Charted is a site as the core judges it, without its grid, with the law there.
func (s *Service) Charted(ctx context.Context, id uuid.UUID) (wayhome.Chart, rules.Law, error) {
	f, err := s.Get(ctx, id, false)
	if err != nil {
		return wayhome.Chart{}, rules.Law{}, err
	}
	frame, err := f.Frame()
	if err != nil {
		return wayhome.Chart{}, rules.Law{}, err
	}
	_, law, err := s.state(ctx, id)
	if err != nil {
		return wayhome.Chart{}, rules.Law{}, err
	}
	pack, err := rules.Find(law)
	return f.chart(frame, nil), pack.At(f.Site.Lat, f.Site.Lon), err
}

// Ground is a site as plans are laid over it.
type Ground struct {
	Chart    wayhome.Chart // with its terrain
	Law      rules.Law
	TakeOffs map[string][]site.Judgement
}

// Ground is the site file with its terrain, and what its take-off places are good for.
func (s *Service) Ground(ctx context.Context, id uuid.UUID) (Ground, error) {
	f, err := s.Get(ctx, id, true)
	if err != nil {
		return Ground{}, err
	}
	frame, err := f.Frame()
	if err != nil {
		return Ground{}, err
	}
	_, law, err := s.state(ctx, id)
	if err != nil {
		return Ground{}, err
	}
	pack, err := rules.Find(law)
	return Ground{Chart: f.chart(frame, f.Terrain.in(frame)), Law: pack.At(f.Site.Lat, f.Site.Lon),
		TakeOffs: f.TakeOffs(frame)}, err
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
// it comes the rule pack of the crew.
func (s *Service) state(ctx context.Context, id uuid.UUID) (string, string, error) {
	var st struct {
		State string
		Pack  string
	}
	err := s.DB.WithContext(ctx).Raw(`select c.rule_pack as pack, concat_ws('/', s.version, f.n, f.versions, extract(epoch from f.newest), extract(epoch from t.at)) as state from sites s cross join crew c
		left join site_terrain t on t.site_id = s.id
		cross join lateral (select count(*) as n, coalesce(sum(version), 0) as versions, max(changed_at) as newest from site_features where site_id = s.id and removed_at is null) f where s.id = ?`, id).Scan(&st).Error
	if err == nil && st.State == "" {
		err = fault.Missing("site")
	}
	return st.State, st.Pack, err
}

// charted is the way home of a flight as the site file stands now.
func (s *Service) charted(ctx context.Context, id uuid.UUID, t airframe.Type, flight intent.Flight) (charted, error) {
	st, law, err := s.state(ctx, id)
	if err != nil {
		return charted{}, err
	}
	what, err := json.Marshal([]any{flight, t.Practice})
	if err != nil {
		return charted{}, err
	}
	key := fmt.Sprintf("%s %s %s %s%d %x", id, st, law, t.Key, t.Version, sha256.Sum256(what)) // a plan is long
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
	pack, err := rules.Find(law)
	if err != nil {
		return charted{}, err
	}
	c := charted{frame: frame, law: pack.At(f.Site.Lat, f.Site.Lon), takeOffs: f.TakeOffs(frame)}
	c.way, err = f.reckon(frame, t, c.law, flight)
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
