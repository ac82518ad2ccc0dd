package fleet

import (
	"context"
	"strings"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/internal/platform/db"
)

// Found is a thing whose name, label, serial or registration has the words.
type Found struct {
	Kind       string
	ID         uuid.UUID
	Name       string
	Detail     string
	AircraftID *uuid.UUID
	Station    string
}

// Find looks for a part of a name, label, serial number or registration among
// aircraft, packs, parts, gear, sites, jobs and people: whole matches first, at most 20.
func (s *Service) Find(ctx context.Context, words string) ([]Found, error) {
	q := strings.TrimSpace(words)
	like := db.Like(q)
	var out []Found
	err := s.DB.WithContext(ctx).Raw(`select kind, id, name, detail, aircraft_id, station from (
			select 'aircraft' as kind, a.id, a.name, concat_ws(' · ', a.serial, nullif(a.registration, '')) as detail, a.id as aircraft_id, '' as station, array[a.name, a.serial, a.registration] as words
				from aircraft a where a.name ilike @like or a.serial ilike @like or a.registration ilike @like
			union all select 'pack', p.id, p.label, concat_ws(' · ', p.serial, p.state), null, '', array[p.label, p.serial] from packs p where p.label ilike @like or p.serial ilike @like
			union all select 'part', p.id, p.serial, concat_ws(' · ', p.kind, case when p.discarded_at is not null then 'discarded' when a.name is null then 'on the shelf' else a.name || ', ' || p.station end), p.aircraft_id, coalesce(p.station, ''), array[p.serial]
				from parts p left join aircraft a on a.id = p.aircraft_id where p.serial ilike @like
			union all select 'gear', g.id, g.name, concat_ws(' · ', g.kind, a.name), g.aircraft_id, '', array[g.name, g.id::text] from gear g left join aircraft a on a.id = g.aircraft_id where g.active and (g.name ilike @like or g.id::text = lower(@q))
			union all select 'site', s.id, s.name, s.note, null, '', array[s.name] from sites s where s.name ilike @like
			union all select 'job', j.id, j.aim, concat_ws(' · ', to_char(j.from_at, 'YYYY-MM-DD'), s.name, nullif(j.product, '')), null, '', array[j.aim] from jobs j join sites s on s.id = j.site_id where j.aim ilike @like or j.product ilike @like
			union all select 'person', p.id, p.name, array_to_string(p.roles, ', '), null, '', array[p.name, p.login] from people p where p.active and (p.name ilike @like or p.login ilike @like)
		) x order by exists (select from unnest(words) w where lower(w) = lower(@q)) desc, kind, name limit 20`, map[string]any{"like": like, "q": q}).Scan(&out).Error
	return out, err
}

// Find serves the search of the top line.
func (h *Handlers) Find(ctx context.Context, r api.FindRequestObject) (api.FindResponseObject, error) {
	found, err := h.Fleet.Find(ctx, r.Params.Q)
	out := api.Find200JSONResponse{Found: []api.Found{}}
	for _, f := range found {
		out.Found = append(out.Found, api.Found{Kind: api.FoundKind(f.Kind), Id: f.ID, Name: f.Name, Detail: f.Detail,
			AircraftId: f.AircraftID, Station: f.Station})
	}
	return out, err
}
