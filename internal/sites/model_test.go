package sites_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/site"
	"mainstay/internal/platform/fault"
	"mainstay/internal/sites"
	"mainstay/internal/testbed"
)

// charted is what a plain list knows of a feature.
type charted struct {
	f       site.Feature
	version int
	gone    bool
	goneAt  time.Time
	heights int // earlier ones
}

// Any order of charting, measuring again, taking off, bringing back and reading
// files leaves what a plain list would hold; a stale version never wins, and a
// height that was replaced is never lost.
func TestAnyOrderOfChartingAgreesWithAPlainList(t *testing.T) {
	b := newBed(t)
	for seed := range uint64(4) {
		r := rand.New(rand.NewPCG(seed, 2))
		list := map[string]*charted{}
		if seed > 0 {
			for _, f := range b.file().Features {
				require.NoError(t, b.Sites.RemoveFeature(b.ctx, b.site.ID, uuid.MustParse(f.ID)))
			}
			b.Clock.Set(b.Clock.Now().Add(25 * time.Hour)) // what was removed is gone for good
		}
		pick := func(gone bool) *charted {
			ids := []string{}
			for id, c := range list {
				if c.gone == gone {
					ids = append(ids, id)
				}
			}
			if len(ids) == 0 {
				return nil
			}
			slices.Sort(ids)
			return list[ids[r.IntN(len(ids))]]
		}
		for step := range 60 {
			at := fmt.Sprintf("seed %d, step %d", seed, step)
			b.Clock.Set(b.Clock.Now().Add(time.Duration(r.IntN(120)) * time.Minute))
			switch r.IntN(6) {
			case 0, 1:
				h := float64(5 + r.IntN(30))
				f := site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: at, HeightM: &h, SigmaM: 1, Measured: "estimate"}
				f = b.put(f, [2]float64{float64(r.IntN(400) - 200), float64(r.IntN(400) - 200)})
				list[f.ID] = &charted{f: f, version: 1}
			case 2:
				if c := pick(false); c != nil {
					h := *c.f.HeightM + float64(r.IntN(2))
					better := c.f
					better.HeightM, better.Measured = &h, "clinometer"
					err := b.Sites.SaveFeature(b.ctx, b.site.ID, better, c.version-1)
					assert.Error(t, err, "%s: a stale version", at)
					require.NoError(t, b.Sites.SaveFeature(b.ctx, b.site.ID, better, c.version), at)
					if h != *c.f.HeightM || c.f.Measured != better.Measured {
						c.heights++
					}
					c.f, c.version = better, c.version+1
				}
			case 3:
				if c := pick(false); c != nil {
					require.NoError(t, b.Sites.RemoveFeature(b.ctx, b.site.ID, uuid.MustParse(c.f.ID)), at)
					c.gone, c.goneAt, c.version = true, b.Clock.Now(), c.version+1
				}
			case 4:
				if c := pick(true); c != nil {
					err := b.Sites.RestoreFeature(b.ctx, b.site.ID, uuid.MustParse(c.f.ID))
					require.Equal(t, b.Clock.Now().Sub(c.goneAt) < sites.Restorable, err == nil, "%s: %v", at, err)
					if err == nil {
						c.gone, c.version = false, c.version+1
					}
				}
			case 5:
				var out bytes.Buffer
				require.NoError(t, b.Sites.Export(b.ctx, b.site.ID, "geojson", &out))
				rep, err := b.Sites.Import(b.ctx, b.site.ID, "geojson", &out)
				require.NoError(t, err, at)
				assert.Zero(t, rep.Accepted, "%s: its own file brings nothing new", at)
			}
		}
		want := map[string]string{}
		for id, c := range list {
			if !c.gone {
				want[id] = fmt.Sprint(c.version, " ", *c.f.HeightM, " ", c.f.Measured, " ", c.heights)
			}
		}
		got := map[string]string{}
		for _, f := range b.file().Features {
			got[f.ID] = fmt.Sprint(f.Version, " ", *f.HeightM, " ", f.Measured, " ", len(f.Heights))
		}
		assert.Equal(t, want, got, "seed %d", seed)
	}
}

// Many hands on one feature: each change is either there or was refused as
// stale, and no measurement is lost on the way.
func TestManyHandsOnOneFeature(t *testing.T) {
	b := newBed(t)
	oak := b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Oak", HeightM: num(10), SigmaM: 1,
		Measured: "estimate"}, [2]float64{20, 30})
	var wg sync.WaitGroup
	var mu sync.Mutex
	taken := 0
	for i := range 24 {
		wg.Go(func() {
			f := oak
			h := float64(11 + i)
			f.HeightM = &h
			for {
				file, err := b.Sites.Get(b.ctx, b.site.ID, false)
				if !assert.NoError(t, err) {
					return
				}
				err = b.Sites.SaveFeature(b.ctx, b.site.ID, f, file.Features[0].Version)
				if err == nil {
					mu.Lock()
					taken++
					mu.Unlock()
					return
				}
				if !assert.True(t, fault.Is(err, "stale"), "%v", err) {
					return
				}
			}
		})
	}
	wg.Wait()
	f := b.file().Features[0]
	assert.Equal(t, 24, taken)
	assert.Equal(t, 25, f.Version)
	seen := map[float64]bool{*f.HeightM: true}
	for _, h := range f.Heights {
		seen[*h.M] = true
	}
	assert.Len(t, seen, 25, "every height that was ever on file is in the history")
}

// What one site holds does not change another, whatever the ids in a file say.
func TestFilesNeverReachIntoAnotherSite(t *testing.T) {
	b := newBed(t)
	oak := b.put(site.Feature{Kind: site.Obstacle, Shape: site.Point, Name: "Oak", HeightM: num(10)}, [2]float64{20, 30})
	other := sites.Site{ID: testbed.NewID(), Name: "Other", Lat: 46.3101, Lon: -119.7001}
	require.NoError(t, b.Sites.Add(b.ctx, other))
	before, err := json.Marshal(b.file())
	require.NoError(t, err)
	var out bytes.Buffer
	require.NoError(t, b.Sites.Export(b.ctx, b.site.ID, "geojson", &out))
	changed := bytes.Replace(out.Bytes(), []byte("Oak"), []byte("Ash"), 1)
	rep, err := b.Sites.Import(b.ctx, other.ID, "geojson", bytes.NewReader(changed))
	require.NoError(t, err)
	assert.Zero(t, rep.Accepted)
	assert.Len(t, rep.Refused, 1)
	assert.True(t, fault.Is(b.Sites.RemoveFeature(b.ctx, other.ID, uuid.MustParse(oak.ID)), "not-found"))
	after, err := json.Marshal(b.file())
	require.NoError(t, err)
	assert.JSONEq(t, string(before), string(after))
}
