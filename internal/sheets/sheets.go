// Package sheets makes the sheet of a job as PDF: what is flown where and when, by whom and
// with what, the map and the side view, the loads or flights, the kit and the cautions, with
// the head of the records that it was printed from.
package sheets

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/johnfercher/maroto/v2/pkg/consts/extension"
	"gorm.io/gorm"

	"mainstay/core/judge"
	"mainstay/core/weather"
	"mainstay/internal/formats/picture"
	"mainstay/internal/jobs"
	"mainstay/internal/missions"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
	"mainstay/internal/sites"
	"mainstay/internal/spraying"
	"mainstay/internal/walkround"
)

// Service gathers what a sheet says.
type Service struct {
	DB         *gorm.DB
	Clock      clock.Clock
	People     *people.Service
	Sites      *sites.Service
	Jobs       *jobs.Service
	Spraying   *spraying.Service
	Missions   *missions.Service
	Walkrounds *walkround.Service
	Photo      func(context.Context, uuid.UUID) ([]byte, error)
}

// sheet is what stands on it.
type sheet struct {
	crew     string
	zone     *time.Location
	printed  time.Time
	by       string
	head     string // of the records
	job      jobs.Assessed
	site     sites.File
	kit      []jobs.KitItem
	pictures []drawing
	photo    []drawing // of what was found
	tables   []table
}

// drawing is a picture with what stands under it.
type drawing struct {
	bytes []byte
	kind  extension.Type
	high  float64 // mm on the page
	words string
}

// table is a list with a head.
type table struct {
	title string
	head  []string
	wide  []int // of twelve
	rows  [][]string
}

// Job is the sheet of a job.
func (s *Service) Job(ctx context.Context, id uuid.UUID) ([]byte, error) {
	var out sheet
	var err error
	if out.job, err = s.Jobs.Assess(ctx, id); err != nil {
		return nil, err
	}
	if out.kit, err = s.Jobs.Kit(ctx, out.job); err != nil {
		return nil, err
	}
	if out.site, err = s.Sites.Get(ctx, out.job.Job.SiteID, false); err != nil {
		return nil, err
	}
	crew, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	head, err := records.NewestHead(ctx, s.DB)
	if err != nil {
		return nil, err
	}
	out.crew, out.zone, out.printed, out.by, out.head = crew.Name, crew.Location(), s.Clock.Now(), people.From(ctx).Name,
		head.String()
	for _, c := range out.job.Job.Aircraft {
		if err := s.work(ctx, c, &out); err != nil {
			return nil, err
		}
	}
	if len(out.pictures) == 0 {
		if err := out.map0(); err != nil {
			return nil, err
		}
	}
	return out.pdf()
}

// work adds what one aircraft does.
func (s *Service) work(ctx context.Context, c jobs.Craft, out *sheet) error {
	job := out.job.Job
	switch weather.Work(job.Work) {
	case weather.Spraying:
		p, err := s.Spraying.Get(ctx, job.ID, c.AircraftID)
		if _, people := fault.As(err); people {
			return nil // there is no plan that could be shown; what is wrong stands among the findings
		}
		if err != nil || p.Version == 0 {
			return err
		}
		return out.sprayed(c, p)
	case weather.Mapping, weather.Inspection:
		p, err := s.Missions.Get(ctx, job.ID, c.AircraftID)
		if _, people := fault.As(err); people {
			return nil
		}
		if err != nil || p.Version == 0 {
			return err
		}
		if err := out.flown(c, p); err != nil {
			return err
		}
		return s.photos(ctx, p, out)
	}
	return nil
}

func minutes(seconds float64) string { return fmt.Sprintf("%.0f min", max(1, seconds/60)) }

// flown adds the flights of a mission plan.
func (o *sheet) flown(c jobs.Craft, p missions.Plan) error {
	t := table{title: "Flights with " + c.Name, head: []string{"Flight", "Pictures", "Time", "Energy",
		"First after take-off", "In the aircraft"}, wide: []int{1, 1, 1, 2, 4, 3}}
	standing := map[missions.Standing]string{missions.NotRead: "not read back",
		missions.Old: "read back, but something changed since", missions.Different: "different from the plan",
		missions.Equal: "read back, equal"}
	for i := range p.Missions {
		pictures, seconds, wh := p.Takes(i + 1)
		first := ""
		if f, ok := p.First(i + 1); ok {
			first = f.Sentence
		}
		t.rows = append(t.rows, []string{fmt.Sprint(i + 1), fmt.Sprint(pictures), minutes(seconds),
			fmt.Sprintf("%.0f Wh", wh), first, standing[p.Standing(i+1)]})
	}
	o.tables = append(o.tables, t)
	if len(p.Found) > 0 {
		f := table{title: "Found on the pictures", head: []string{"How bad", "Where", "What", "Picture"},
			wide: []int{2, 3, 5, 2}}
		for _, x := range p.Found {
			f.rows = append(f.rows, []string{x.Severity, x.Place, x.Words, x.Picture})
		}
		o.tables = append(o.tables, f)
	}
	picture, err := missionMap(p)
	if err != nil {
		return err
	}
	o.pictures = append(o.pictures, drawing{picture, extension.Png, 70,
		fmt.Sprintf("%s at %s from above, north is up: %s.", c.Name, o.job.Job.Site, p.Ground.Feature.Name)})
	if n := max(1, p.Next()); n <= len(p.Missions) {
		side, words, err := sideView(p, n)
		if err != nil {
			return err
		}
		o.pictures = append(o.pictures, drawing{side, extension.Png, 38, words})
	}
	return nil
}

// mostPhotos is how many pictures of findings a sheet shows; the others are named in it.
const mostPhotos = 8

// photos adds the pictures of what was found, the worst first.
func (s *Service) photos(ctx context.Context, p missions.Plan, out *sheet) error {
	found := slices.Clone(p.Found)
	slices.SortStableFunc(found, func(a, b missions.Found) int {
		return slices.Index(missions.Severities, b.Severity) - slices.Index(missions.Severities, a.Severity)
	})
	for _, f := range found {
		if f.PhotoID == nil || len(out.photo) == mostPhotos {
			continue
		}
		words := fmt.Sprintf("%s, %s: %s", f.Picture, f.Place, f.Words)
		b, err := s.Photo(ctx, *f.PhotoID)
		if err == nil {
			b, err = picture.Small(b, 1200)
		}
		if err != nil { // the sheet is worth more than one of its pictures
			words += " (its picture cannot be read)"
			out.photo = append(out.photo, drawing{words: words})
			continue
		}
		out.photo = append(out.photo, drawing{b, extension.Jpeg, 70, words})
	}
	return nil
}

// sprayed adds the loads and flights of a spray plan.
func (o *sheet) sprayed(c jobs.Craft, p spraying.Plan) error {
	unit := "L"
	if p.Wish.Granules {
		unit = "kg"
	}
	t := table{title: "Loads and flights with " + c.Name,
		head: []string{"Flight", "Load", "Area", "Take-off mass", "Time", "Energy", "What goes in, in order"},
		wide: []int{1, 1, 1, 2, 1, 1, 5}}
	for i, f := range p.Out.Flown.Sorties {
		if i >= len(p.Out.Loads) {
			break
		}
		l := p.Out.Loads[i]
		what := fmt.Sprintf("water %.1f L", l.Water)
		if p.Wish.Granules {
			what = ""
		}
		for k, a := range l.Amounts {
			if k < len(p.Wish.Mix) {
				if what != "" {
					what += ", "
				}
				what += fmt.Sprintf("%s %.2f %s", p.Wish.Mix[k].Name, a, p.Wish.Mix[k].Unit)
			}
		}
		t.rows = append(t.rows, []string{fmt.Sprint(i + 1), fmt.Sprintf("%.1f %s", l.Litres, unit),
			fmt.Sprintf("%.2f ha", l.Ha), fmt.Sprintf("%.1f kg", f.TakeOffKg), minutes(f.Seconds), fmt.Sprintf("%.0f Wh", f.Wh),
			what})
	}
	o.tables = append(o.tables, t)
	picture, err := sprayMap(p)
	if err != nil {
		return err
	}
	o.pictures = append(o.pictures, drawing{picture, extension.Png, 80,
		fmt.Sprintf("%s with %s from above, north is up: %d passes.", p.Ground.Field.Name, c.Name, len(p.Out.Passes))})
	return nil
}

// against are the findings that are not Clear, worst first.
func (o *sheet) against() table {
	t := table{title: "What is against it now, and cautions", head: []string{"", "What", "Lifted by"},
		wide: []int{1, 8, 3}}
	add := func(name string, all []judge.Finding) {
		for _, f := range all {
			if f.Verdict != judge.Clear {
				t.rows = append(t.rows, []string{f.Verdict.String(), name + f.Sentence, f.Lifts})
			}
		}
	}
	add("", o.job.Common)
	for _, c := range o.job.Job.Aircraft {
		add(c.Name+": ", o.job.Each[c.AircraftID].Findings)
	}
	if o.site.Site.Note != "" {
		t.rows = append(t.rows, []string{"note", o.site.Site.Note, ""})
	}
	for _, f := range o.site.Features {
		if f.Note != "" {
			t.rows = append(t.rows, []string{"note", f.Name + ": " + f.Note, ""})
		}
	}
	return t
}
