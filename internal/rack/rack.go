// Package rack looks after the packs beyond what a flight asks: looks at all
// faces, disposal, readings from files and from the charger, sets, and the
// forecast of the whole rack in the background.
package rack

import (
	"context"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/api"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/why"
	"mainstay/internal/fleet"
	"mainstay/internal/formats/chargercsv"
	"mainstay/internal/formats/table"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
	"mainstay/internal/platform/work"
	"mainstay/internal/records"
)

// Service holds the use cases of the rack.
type Service struct {
	DB      *gorm.DB
	Clock   clock.Clock
	People  *people.Service
	Fleet   *fleet.Service
	Charger *outside.Link // nil: no charger on the network
	Queue   *work.Client  // nil: nothing runs in the background
}

// Faces of a pack, and what a look at one may find.
var (
	Faces = []string{"top", "bottom", "left", "right", "front", "back"}
	Finds = []string{"ok", "swollen", "cracked", "damaged", "corroded"}
)

// Look is a look at all six faces.
type Look struct {
	ID     uuid.UUID
	PackID uuid.UUID
	Faces  map[string]string `gorm:"serializer:json"`
	Photos db.UUIDs          `gorm:"type:uuid[]"`
	Note   string
	Clean  bool
	ByName string
	At     time.Time
}

// TableName is the table of looks.
func (Look) TableName() string { return "pack_looks" }

// LookAt puts a look on record. Swelling, a crack or damage sends the pack to
// quarantine at once; corrosion on contacts too, because it burns. The same id
// twice is one look.
func (s *Service) LookAt(ctx context.Context, l Look) error {
	by := people.From(ctx)
	l.Clean = true
	var found []string
	for _, f := range Faces {
		v, ok := l.Faces[f]
		if !ok || !slices.Contains(Finds, v) {
			return fault.Bad("faces."+f, "Say what the %s face looks like.", f)
		}
		if v != "ok" {
			l.Clean = false
			found = append(found, v+" on the "+f)
		}
	}
	if !l.Clean && len(strings.TrimSpace(l.Note)) < 3 {
		return fault.Bad("note", "Say what was seen, for whoever opens the quarantine box.")
	}
	l.ByName, l.At = by.Name, s.Clock.Now()
	if l.Photos == nil {
		l.Photos = db.UUIDs{}
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		packs, err := fleet.LockPacks(tx, []uuid.UUID{l.PackID})
		if err != nil {
			return err
		}
		if len(packs) == 0 {
			return fault.Missing("pack")
		}
		var n int64
		if err := tx.Raw("select count(*) from photos where id in ?",
			append([]uuid.UUID{uuid.Nil}, l.Photos...)).Scan(&n).Error; err != nil {
			return err
		}
		if int(n) != len(l.Photos) {
			return fault.Bad("photos", "One of the photos has not arrived yet; send it again.")
		}
		if err := tx.Raw("select count(*) from pack_looks where id = ?", l.ID).Scan(&n).Error; err != nil || n > 0 {
			return err
		}
		if err := tx.Create(&l).Error; err != nil {
			return err
		}
		p := packs[0]
		summary := p.Label + ": all six faces looked at, nothing found."
		if !l.Clean {
			summary = p.Label + ": " + strings.Join(found, ", ") + ". " + l.Note
		}
		if _, err := records.Append(ctx, tx, records.Entry{Kind: records.PackLooked, Subject: p.ID, At: l.At, By: by.By(),
			Summary: summary,
			Content: map[string]any{"look": l.ID, "faces": l.Faces, "photos": l.Photos, "note": l.Note}}); err != nil {
			return err
		}
		if l.Clean || p.State == string(pack.Quarantine) || p.State == string(pack.Retired) {
			return nil
		}
		return s.Fleet.SetState(ctx, tx, &p, pack.Quarantine, nil, strings.Join(found, ", ")+": "+l.Note)
	})
}

// Looks returns the looks at a pack, newest first.
func (s *Service) Looks(ctx context.Context, id uuid.UUID) ([]Look, error) {
	var out []Look
	err := s.DB.WithContext(ctx).Order("at desc").Limit(40).Find(&out, "pack_id = ?", id).Error
	return out, err
}

// Disposal is the end of a pack.
type Disposal struct {
	Method      string
	Discharged  bool
	DeliveredTo string
	Note        string
	PIN         string
}

// Dispose puts the disposal of a quarantined pack on record, signed by a
// technician or chief, and retires it for good.
func (s *Service) Dispose(ctx context.Context, id uuid.UUID, d Disposal) error {
	by := people.From(ctx)
	if !d.Discharged {
		return fault.Bad("discharged",
			"A pack is discharged before it is given away. Do that first, outside, away from anything that burns.")
	}
	if err := s.People.Sign(ctx, by.ID, d.PIN); err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		packs, err := fleet.LockPacks(tx, []uuid.UUID{id})
		if err != nil {
			return err
		}
		if len(packs) == 0 {
			return fault.Missing("pack")
		}
		p := packs[0]
		if p.State != string(pack.Quarantine) {
			return fault.Clash("move-not-allowed", "%s is %s. A pack is disposed of from quarantine.", p.Label, p.State)
		}
		if err := s.Fleet.SetState(ctx, tx, &p, pack.Retired, nil, "Disposed of: "+d.Method); err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.PackDisposed, Subject: p.ID, At: s.Clock.Now(),
			By: by.By(), Signed: true, Summary: fmt.Sprintf("%s disposed of: %s, delivered to %s", p.Label, d.Method,
				d.DeliveredTo),
			Content: map[string]any{"pack": p.Label, "serial": p.Serial, "cycles": p.Cycles, "method": d.Method,
				"discharged": d.Discharged, "delivered_to": d.DeliveredTo, "note": d.Note,
				"statement": "I have discharged this pack and delivered it for disposal."}})
		return err
	})
}

// readings is the namespace of the ids of imported readings: a pack and a time
// make one id, so that the same file twice changes nothing.
var readings = uuid.MustParse("7d6fb1f6-3f5b-5c55-9a35-1f9f6a1b7a10")

// Import takes readings from a file of a charger. Lines that cannot be used
// are named; the others count, all in one transaction.
func (s *Service) Import(ctx context.Context, r io.Reader) (api.ImportReport, error) {
	rep := api.NewImportReport()
	rows, bad, err := chargercsv.Read(r)
	if err != nil {
		reason, ok := why.Of(err)
		switch {
		case errors.Is(err, table.ErrTable) && !errors.Is(err, chargercsv.ErrColumns):
			reason = err.Error()
		case !ok || !errors.Is(err, chargercsv.ErrColumns):
			reason = "it is not comma-separated text"
		}
		return rep, fault.Bad("file", "The file cannot be read: %s. Nothing was saved.", reason)
	}
	for _, b := range bad {
		rep.Refuse(b.Line, "%s %v.", b.Column, b.Err)
	}
	read := rep.Clip()
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		rep = read
		if err := db.OneImport(ctx, tx); err != nil {
			return err
		}
		byName := map[string]uuid.UUID{}
		var all []fleet.Pack
		if err := tx.Select("id, label, serial").Find(&all).Error; err != nil {
			return err
		}
		for _, p := range all {
			byName[strings.ToLower(p.Serial)] = p.ID
		}
		for _, p := range all {
			byName[strings.ToLower(p.Label)] = p.ID // what stands on the label wins
		}
		slices.SortStableFunc(rows, func(a, b chargercsv.Row) int { return a.At.Compare(b.At) })
		seen := map[uuid.UUID]int{}
		for _, row := range rows {
			id, ok := byName[strings.ToLower(row.Pack)]
			if !ok {
				rep.Refuse(row.Line, "no pack is labelled %q.", row.Pack)
				continue
			}
			rid := uuid.NewSHA1(readings, []byte(id.String()+row.At.Format(time.RFC3339)))
			if first, twice := seen[rid]; twice {
				rep.Refuse(row.Line, "the same pack and time stand in line %d.", first)
				continue
			}
			seen[rid] = row.Line
			n := fleet.NewReading{ID: rid, At: row.At, CellMV: row.CellMV, MilliOhm: row.MilliOhm,
				StartPercent: row.StartPercent, EndPercent: row.EndPercent, MAhIn: row.MAhIn, MAhOut: row.MAhOut,
				TemperatureC: row.TemperatureC, RestedMin: row.RestedMin, Percent: row.EndPercent, Source: "file"}
			fresh, sentence, err := s.take(ctx, tx, id, n)
			switch {
			case err != nil:
				return err
			case sentence != "":
				rep.Refuse(row.Line, "%s", sentence)
			case fresh:
				rep.Accepted++
			default:
				rep.Unchanged++
			}
		}
		return nil
	})
	rep.Sort()
	return rep, err
}

// take stores one reading of a file; a sentence means that it was refused.
func (s *Service) take(ctx context.Context, tx *gorm.DB, id uuid.UUID, n fleet.NewReading) (fresh bool, sentence string,
	err error) {
	var old fleet.Reading
	if err := tx.Limit(1).Find(&old, "id = ?", n.ID).Error; err != nil {
		return false, "", err
	}
	if old.ID != uuid.Nil {
		if old.Same(n) {
			return false, "", nil
		}
		return false, "another reading of this pack at this time is on record; a reading does not change.", nil
	}
	in := *s.Fleet
	in.DB = tx
	_, err = in.ReadPack(ctx, id, n)
	if f, ok := fault.As(err); ok {
		return false, f.Detail, nil
	}
	return err == nil, "", err
}

// Sets pairs the charged packs of each model that a twin-pack type takes.
type Sets struct {
	Model  string
	Sets   []pack.Set
	Single []string
}

// blockSize bounds the packs that are matched at once; a larger rack is matched
// in blocks of packs of like age.
const blockSize = 200

// Match pairs the packs that are charged now.
func (s *Service) Match(ctx context.Context) ([]Sets, error) {
	return s.match(ctx, func(v fleet.PackView) (pack.Candidate, bool) {
		return v.Candidate(), pack.MayFly(pack.State(v.State))
	})
}

// MatchFull pairs every pack that may fly once it is charged; cell volts do
// not count, because all will be full.
func (s *Service) MatchFull(ctx context.Context) ([]Sets, error) {
	return s.match(ctx, func(v fleet.PackView) (pack.Candidate, bool) {
		c := v.Candidate()
		c.MeanMV = nil
		verdict, _ := v.Judge()
		return c, verdict != judge.Stop
	})
}

func (s *Service) match(ctx context.Context, take func(fleet.PackView) (pack.Candidate, bool)) ([]Sets, error) {
	types, err := s.Fleet.Types(ctx)
	if err != nil {
		return nil, err
	}
	views, err := s.Fleet.PackViews(ctx, nil)
	if err != nil {
		return nil, err
	}
	twins := map[string]bool{}
	for _, t := range types {
		if t.Packs.Count == 2 {
			twins[fmt.Sprintf("%s %dS", t.Packs.Chemistry, t.Packs.Cells)] = true
		}
	}
	byModel := map[string][]pack.Candidate{}
	var order []string
	for _, v := range views {
		c, ok := take(v)
		if !ok || !twins[fmt.Sprintf("%s %dS", v.Chemistry, v.Cells)] {
			continue
		}
		if _, ok := byModel[c.Model]; !ok {
			order = append(order, c.Model)
		}
		byModel[c.Model] = append(byModel[c.Model], c)
	}
	slices.Sort(order)
	out := []Sets{}
	for _, m := range order {
		cs := byModel[m]
		slices.SortStableFunc(cs, func(a, b pack.Candidate) int {
			switch {
			case a.Cycles < b.Cycles:
				return -1
			case a.Cycles > b.Cycles:
				return 1
			}
			return strings.Compare(a.Label, b.Label)
		})
		one, paired := Sets{Model: m, Sets: []pack.Set{}, Single: []string{}}, map[string]bool{}
		for block := range slices.Chunk(cs, blockSize) {
			one.Sets = append(one.Sets, pack.MatchSets(block)...)
		}
		for _, x := range one.Sets {
			paired[x.A], paired[x.B] = true, true
		}
		for _, c := range cs {
			if !paired[c.ID] {
				one.Single = append(one.Single, c.Label)
			}
		}
		slices.Sort(one.Single)
		out = append(out, one)
	}
	return out, nil
}
