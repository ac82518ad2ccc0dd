// Package versions keeps things that are stored in versions and never change
// once stored, such as type profiles, so that a request does not read and
// decode them again.
package versions

import (
	"encoding/json"
	"fmt"
	"maps"
	"sync"

	"gorm.io/gorm"

	"mainstay/internal/platform/db"
)

// Kept holds versions by key. The zero value is ready; copies share nothing,
// so hold it by pointer.
type Kept[T any] struct {
	mu   sync.Mutex
	have map[head]T
}

type head struct {
	Key     string
	Version int
}

// Table says where the versions lie; its parts are names, never input.
type Table struct{ Name, Key, Content string }

// Newest returns the newest version of everything in a table by key. Only
// which versions there are is asked each time; a version is read once.
func (k *Kept[T]) Newest(g *gorm.DB, t Table) (map[string]T, error) {
	var heads []head
	if err := g.Raw(fmt.Sprintf("select distinct on (%[1]s) %[1]s as key, version from %[2]s order by %[1]s, version desc",
		t.Key, t.Name)).Scan(&heads).Error; err != nil {
		return nil, err
	}
	// The lock is never held while waiting for the database: who holds the
	// last connection might be waiting for the lock.
	k.mu.Lock()
	have := k.have
	k.mu.Unlock()
	var missing [][]any
	for _, h := range heads {
		if _, ok := have[h]; !ok {
			missing = append(missing, []any{h.Key, h.Version})
		}
	}
	if len(missing) > 0 {
		fresh, err := read[T](g, t, missing)
		if err != nil {
			return nil, err
		}
		all := maps.Clone(fresh)
		maps.Copy(all, have)
		have = all
		// A version that this transaction made may yet be rolled back.
		if !db.Inside(g.Statement.Context) {
			k.mu.Lock()
			maps.Copy(all, k.have)
			k.have = all
			k.mu.Unlock()
		}
	}
	out := make(map[string]T, len(heads))
	for _, h := range heads {
		out[h.Key] = have[h]
	}
	return out, nil
}

func read[T any](g *gorm.DB, t Table, missing [][]any) (map[head]T, error) {
	var rows []struct {
		Key     string
		Version int
		Content string
	}
	if err := g.Raw(fmt.Sprintf("select %[1]s as key, version, %[3]s as content from %[2]s where (%[1]s, version) in ?",
		t.Key, t.Name, t.Content), missing).Scan(&rows).Error; err != nil {
		return nil, err
	}
	out := make(map[head]T, len(rows))
	for _, r := range rows {
		var v T
		if err := json.Unmarshal([]byte(r.Content), &v); err != nil {
			return nil, fmt.Errorf("%s %s version %d: %w", t.Name, r.Key, r.Version, err)
		}
		if p, ok := any(v).(interface{ Prepared() T }); ok {
			v = p.Prepared()
		}
		out[head{r.Key, r.Version}] = v
	}
	return out, nil
}
