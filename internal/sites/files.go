package sites

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/site"
	"mainstay/core/why"
	"mainstay/internal/formats/geojson"
	"mainstay/internal/formats/gpx"
	"mainstay/internal/formats/kml"
	"mainstay/internal/formats/props"
	"mainstay/internal/formats/sitecsv"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

var readers = map[string]func(io.Reader) ([]site.Feature, []site.Refused, error){"geojson": geojson.Read,
	"kml": kml.Read, "gpx": gpx.Read, "csv": sitecsv.Read}

// Import puts the features of a file on the map. A feature that is there
// already as it is in the file changes nothing; one that differs, or belongs to
// another site, is refused; features that cannot be used are named; the others
// count, all in one transaction.
func (s *Service) Import(ctx context.Context, id uuid.UUID, format string, r io.Reader) (api.ImportReport, error) {
	return s.bring(ctx, id, format, r, false)
}

// Look says what Import would make of a file, and saves nothing: as what each
// feature would be taken, and what of it is not understood.
func (s *Service) Look(ctx context.Context, id uuid.UUID, format string, r io.Reader) (api.ImportReport, error) {
	return s.bring(ctx, id, format, r, true)
}

func (s *Service) bring(ctx context.Context, id uuid.UUID, format string, r io.Reader,
	look bool) (api.ImportReport, error) {
	rep := api.NewImportReport()
	read, ok := readers[format]
	if !ok {
		return rep, fault.Bad("format", "The form %q is not read; geojson, kml, gpx and csv are.", format)
	}
	features, refused, err := read(r)
	if err != nil {
		reason, ok := why.Of(err)
		if !ok {
			return rep, err
		}
		return rep, fault.Bad("file", "The file cannot be read: %s. Nothing was saved.", reason)
	}
	props.Apart(features)
	origin, err := s.origin(ctx, id)
	if err != nil {
		return rep, err
	}
	refuse := func(number int, name, why string) {
		called := name + ": " // the name is said once
		if name != "" {
			name = " (" + name + ")"
		}
		rep.Refused = append(rep.Refused, api.RowProblem{Line: number,
			Sentence: fmt.Sprintf("Feature %d%s: %s.", number, name,
				strings.TrimPrefix(strings.TrimPrefix(why, site.ErrFeature.Error()+": "), called))})
	}
	for _, x := range refused {
		refuse(x.Number, x.Name, x.Why)
	}
	before := rep.Clip()
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		rep = before
		if err := db.OneImport(ctx, tx); err != nil {
			return err
		}
		ids := make(db.UUIDs, len(features))
		for i, f := range features {
			ids[i] = uuid.MustParse(f.ID) // the readers give every feature one
		}
		var rows []featureRow
		if err := tx.Raw("select id, site_id, content, removed_at from site_features where id = any(?::uuid[])",
			ids).Scan(&rows).Error; err != nil {
			return err
		}
		have := map[string]int{}
		for i, x := range rows {
			have[x.ID.String()] = i
		}
		var fresh []map[string]any
		seen := []api.ImportSeen{}
		for i, f := range features {
			if k, ok := have[f.ID]; ok {
				was, err := rows[k].feature()
				switch {
				case err != nil:
					return err
				case rows[k].SiteID == id && rows[k].RemovedAt == nil && sameFeature(was.Feature, f):
					rep.Unchanged++
				default:
					refuse(i+1, f.Name, "it is on file with other values, or removed; change it on the map")
				}
				continue
			}
			if err := f.Near(origin); err != nil {
				refuse(i+1, f.Name, err.Error())
				continue
			}
			have[f.ID] = -1
			if look {
				seen = append(seen, api.ImportSeen{Name: f.Name, Kind: string(f.Kind), Shape: string(f.Shape), Guessed: f.Guessed,
					Unread: append([]string{}, f.Unread...)})
			}
			content, err := json.Marshal(f)
			if err != nil {
				return err
			}
			fresh = append(fresh, map[string]any{"id": f.ID, "content": json.RawMessage(content)})
		}
		rep.Accepted = len(fresh)
		if err := room(tx, id, len(fresh)); err != nil {
			return err
		}
		if look {
			seen = seen[:min(len(seen), 2000)]
			rep.Features = &seen
			return nil
		}
		set, err := db.Rows(fresh)
		if err != nil || len(fresh) == 0 {
			return err
		}
		return tx.Exec(`insert into site_features (id, site_id, content, changed_at, changed_by) select id, ?, content, ?, ? from jsonb_to_recordset(?::jsonb) as x (id uuid, content jsonb)`,
			id, s.Clock.Now(), people.From(ctx).Name, set).Error
	})
	if err != nil {
		return api.NewImportReport(), err
	}
	rep.Sort()
	return rep, nil
}

// Export writes the features of a site as a file.
func (s *Service) Export(ctx context.Context, id uuid.UUID, format string, w io.Writer) error {
	f, err := s.Get(ctx, id, false)
	if err != nil {
		return err
	}
	switch format {
	case "geojson":
		return geojson.Write(w, f.Plain())
	case "kml":
		return kml.Write(w, f.Site.Name, f.Plain())
	case "gpx":
		return gpx.Write(w, f.Plain())
	}
	return sitecsv.Write(w, f.Plain())
}
