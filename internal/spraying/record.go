package spraying

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/rules"
	"mainstay/internal/formats/spraycsv"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Records are the draft of what was applied, what is missing in it, and what is
// signed already.
type Records struct {
	Draft   spraycsv.Record
	Missing []string
	Signed  []SignedRecord
	parts   []Done // of the draft
}

// SignedRecord is a record that does not change any more.
type SignedRecord struct {
	ID     uuid.UUID
	Record spraycsv.Record
	At     time.Time
	ByName string
}

type recordRow struct {
	ID      uuid.UUID
	Content string
	At      time.Time
	ByName  string
}

func (r recordRow) signed() (SignedRecord, error) {
	out := SignedRecord{ID: r.ID, At: r.At.UTC(), ByName: r.ByName}
	return out, json.Unmarshal([]byte(r.Content), &out.Record)
}

// Records makes the draft from plan, what is sprayed since the last signature, papers
// and weather.
func (s *Service) Records(ctx context.Context, job, aircraft uuid.UUID) (Records, error) {
	out := Records{Missing: []string{}, Signed: []SignedRecord{}}
	p, err := s.Get(ctx, job, aircraft)
	if err != nil {
		return out, err
	}
	var rows []recordRow
	if err := s.DB.WithContext(ctx).Raw("select id, content, at, by_name from spray_records where plan_id = ? order by at desc, id desc",
		p.ID).Scan(&rows).Error; err != nil {
		return out, err
	}
	for _, r := range rows {
		x, err := r.signed()
		if err != nil {
			return out, err
		}
		out.Signed = append(out.Signed, x)
	}
	for _, d := range p.Done {
		if d.RecordID == nil {
			out.parts = append(out.parts, d)
		}
	}
	if out.Draft, err = s.draft(ctx, p, out.parts, out.Signed); err != nil {
		return out, err
	}
	out.Missing = missing(out.Draft)
	return out, nil
}

// draft is what was applied on some parts, those that no signed record holds.
func (s *Service) draft(ctx context.Context, p Plan, parts []Done, signed []SignedRecord) (spraycsv.Record, error) {
	unit := p.unit() + "/ha"
	r := spraycsv.Record{Site: p.Job.Site, Field: p.Ground.Field.Name, Aircraft: p.Aircraft.Name,
		Registration: p.Aircraft.Registration, Product: Applied{Mix: p.Wish.Mix}.words(), Number: p.Wish.Number,
		Rate: p.Out.Settings.Rate, RateUnit: unit}
	if at := p.Ground.Field.Places; len(at) > 0 {
		r.Lat, r.Lon = at[0].Lat, at[0].Lon
	}
	var used applied
	for _, d := range parts {
		at := d.At.UTC()
		if r.From == nil || at.Before(*r.From) {
			r.From = &at
		}
		if r.To == nil || at.After(*r.To) {
			r.To = &at
		}
		d.Applied = d.Applied.with(p.Wish)
		if h := d.Applied.Label.ReEntryHours; h != nil {
			if free := at.Add(time.Duration(*h * float64(time.Hour))); r.ReEntry == nil || free.After(*r.ReEntry) {
				r.ReEntry = &free
			}
		}
		used.add(d)
		r.AreaHa, r.Volume = r.AreaHa+d.AreaM2/1e4, r.Volume+d.Litres
	}
	if r.AreaHa > 0 {
		r.Rate, r.Product, r.Number = r.Volume/r.AreaHa, used.products(), used.number()
	}
	if err := s.flewThen(ctx, p, signed, &r); err != nil {
		return r, err
	}
	if err := s.weatherThen(ctx, p.Job.SiteID, r.From, &r.WeatherFrom); err != nil {
		return r, err
	}
	if err := s.weatherThen(ctx, p.Job.SiteID, r.To, &r.WeatherTo); err != nil {
		return r, err
	}
	return r, s.applicator(ctx, p, &r)
}

// applied gathers what was sprayed of several parts.
type applied struct {
	mixes   []string
	ha      []float64
	numbers []string
}

func (a *applied) add(d Done) {
	mix := d.Applied.words()
	i := slices.Index(a.mixes, mix)
	if i < 0 {
		i, a.mixes, a.ha = len(a.mixes), append(a.mixes, mix), append(a.ha, 0)
	}
	a.ha[i] += d.AreaM2 / 1e4
	if !slices.Contains(a.numbers, d.Applied.Number) {
		a.numbers = append(a.numbers, d.Applied.Number)
	}
}

// products is the mix, or each with its area where it was changed on the way; "" where
// of some nobody knows what it was.
func (a applied) products() string {
	if slices.Contains(a.mixes, "") {
		return ""
	}
	if len(a.mixes) == 1 {
		return a.mixes[0]
	}
	var out []string
	for i, mix := range a.mixes {
		out = append(out, fmt.Sprintf("on %.2f ha: %s", a.ha[i], mix))
	}
	return strings.Join(out, "; ")
}

// number is the registration number, or each; "" where one is missing.
func (a applied) number() string {
	if slices.Contains(a.numbers, "") {
		return ""
	}
	return strings.Join(a.numbers, "; ")
}

// flewThen takes the beginning from the flights of the job since the record before:
// spraying began with the first take-off, not when somebody put it on record.
func (s *Service) flewThen(ctx context.Context, p Plan, signed []SignedRecord, r *spraycsv.Record) error {
	if r.To == nil {
		return nil
	}
	after := time.Time{}
	for _, x := range signed {
		if to := x.Record.To; to != nil && to.After(after) && !to.After(*r.From) {
			after = *to
		}
	}
	var row struct{ First *time.Time }
	if err := s.DB.WithContext(ctx).Raw("select min(took_off_at) as first from flights where job_id = ? and aircraft_id = ? and landed_at is not null and took_off_at > ? and took_off_at <= ?",
		p.Job.ID, p.Aircraft.ID, after, *r.To).Scan(&row).Error; err != nil {
		return err
	}
	if row.First != nil && row.First.Before(*r.From) {
		at := row.First.UTC()
		r.From = &at
	}
	return nil
}

// weatherThen is the newest weather of the site at a time, in words.
func (s *Service) weatherThen(ctx context.Context, site uuid.UUID, at *time.Time, words *string) error {
	if at == nil {
		return nil
	}
	air, err := s.Sites.AirAt(ctx, site, *at)
	if err != nil || air == nil {
		return err
	}
	num := func(v *float64, unit string) string {
		if v == nil {
			return "? " + unit
		}
		return fmt.Sprintf("%.1f %s", *v, unit)
	}
	from := "direction not known"
	if air.FromDeg != nil {
		from = fmt.Sprintf("from %.0f", *air.FromDeg)
	}
	*words = fmt.Sprintf("%s UTC: wind %s %s, %s, dew point %s (%s)", air.At.UTC().Format("2006-01-02 15:04"),
		num(air.WindMS, "m/s"), from, num(air.TempC, "degC"), num(air.DewC, "degC"), air.Source)
	return nil
}

// applicator is who is in command, with the licence on file.
func (s *Service) applicator(ctx context.Context, p Plan, r *spraycsv.Record) error {
	docs, err := s.Jobs.People.Documents(ctx)
	if err != nil {
		return err
	}
	for _, x := range p.Job.People {
		if x.Post != string(crew.InCommand) {
			continue
		}
		r.Applicator = x.Name
		for _, d := range docs {
			if d.Kind == string(rules.Applicator) && d.PersonID != nil && *d.PersonID == x.PersonID {
				r.Licence = d.Number
			}
		}
	}
	return nil
}

// missing is what keeps a draft from being signed.
func missing(r spraycsv.Record) []string {
	out := []string{}
	for _, m := range []struct {
		none bool
		says string
	}{
		{r.AreaHa <= 0, "Nothing is put on record as sprayed since the last signature."}, {r.Product == "",
			"No product is in the plan."}, {r.Number == "", "The registration number of the product is not in the plan."},
		{r.Applicator == "", "Nobody is in command of the job."}, {r.Licence == "",
			"No applicator licence of who is in command is on file."},
		{r.AreaHa > 0 && (r.WeatherFrom == "" || r.WeatherTo == ""),
			"No weather of the site is on file for beginning and end."},
	} {
		if m.none {
			out = append(out, m.says)
		}
	}
	return out
}

// Signing is a signature under a record: which neighbours were told, and what else to say.
type Signing struct {
	ID                    uuid.UUID
	Neighbours, Note, PIN string
}

// SignRecord signs the draft. The same id sent twice counts once.
func (s *Service) SignRecord(ctx context.Context, job, aircraft uuid.UUID, n Signing) error {
	by := people.From(ctx)
	if err := s.Jobs.People.Sign(ctx, by.ID, n.PIN); err != nil {
		return err
	}
	var known int
	if err := s.DB.WithContext(ctx).Raw("select count(*) from spray_records where id = ?",
		n.ID).Scan(&known).Error; err != nil || known > 0 {
		return err
	}
	r, err := s.Records(ctx, job, aircraft)
	if err != nil {
		return err
	}
	if len(r.Missing) > 0 {
		return fault.Clash("incomplete", "The record is not complete: %s", strings.Join(r.Missing, " "))
	}
	r.Draft.Neighbours, r.Draft.Note = strings.TrimSpace(n.Neighbours), strings.TrimSpace(n.Note)
	if r.Draft.Neighbours == "" {
		return fault.Bad("neighbours", "Say which neighbours were told, or that there are none.")
	}
	p, err := s.about(ctx, job, aircraft)
	if err != nil {
		return err
	}
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		content, err := json.Marshal(r.Draft)
		if err != nil {
			return err
		}
		now := s.Clock.Now()
		if err := tx.Exec("select 1 from spray_plans where id = ? for no key update", p.ID).Error; err != nil {
			return err
		}
		if err := tx.Exec("insert into spray_records (id, plan_id, content, from_at, to_at, at, by_name) values (?, ?, ?, ?, ?, ?, ?)",
			n.ID, p.ID, string(content), *r.Draft.From, *r.Draft.To, now, by.Name).Error; err != nil {
			return err
		}
		var ids db.UUIDs
		for _, d := range r.parts {
			ids = append(ids, d.ID)
		}
		res := tx.Exec("update spray_done set record_id = ? where id = any(?::uuid[]) and record_id is null and back_at is null",
			n.ID, ids)
		if res.Error != nil {
			return res.Error
		}
		if int(res.RowsAffected) != len(ids) {
			return fault.Clash("already-signed",
				"Somebody has signed this record, or taken part of it back, meanwhile. Look at it again.")
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.SprayRecorded, Subject: aircraft, At: now, By: by.By(),
			Signed: true, Summary: fmt.Sprintf("%s: %.2f ha of %s, %s", p.Aircraft.Name, r.Draft.AreaHa, r.Draft.Field,
				r.Draft.Product), Content: r.Draft})
		return err
	})
}

// exportAtMost are the signed records that one file holds.
const exportAtMost = 5000

// Export are the signed records of a span of days of the crew, oldest first. More than a file
// holds are refused, never cut.
func (s *Service) Export(ctx context.Context, from, to *time.Time) ([]spraycsv.Signed, error) {
	q := s.DB.WithContext(ctx).Table("spray_records").Order("to_at, id").Limit(exportAtMost + 1)
	if from != nil {
		q = q.Where("to_at >= ?", *from)
	}
	if to != nil {
		q = q.Where("from_at < ?", to.AddDate(0, 0, 1))
	}
	var rows []recordRow
	if err := q.Scan(&rows).Error; err != nil {
		return nil, err
	}
	if len(rows) > exportAtMost {
		return nil, fault.Bad("from",
			"More than %d records were signed in these days. Take them in parts: a season, then the next.",
			exportAtMost)
	}
	out := make([]spraycsv.Signed, 0, len(rows))
	for _, r := range rows {
		x, err := r.signed()
		if err != nil {
			return nil, err
		}
		out = append(out, spraycsv.Signed{Record: x.Record, At: x.At, By: x.ByName})
	}
	return out, nil
}
