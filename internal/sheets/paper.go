package sheets

import (
	"bytes"
	"context"
	"fmt"
	"strings"

	"github.com/google/uuid"
	"github.com/johnfercher/maroto/v2"
	"github.com/johnfercher/maroto/v2/pkg/components/col"
	"github.com/johnfercher/maroto/v2/pkg/components/line"
	"github.com/johnfercher/maroto/v2/pkg/components/text"
	"github.com/johnfercher/maroto/v2/pkg/config"
	"github.com/johnfercher/maroto/v2/pkg/consts/fontstyle"
	"github.com/johnfercher/maroto/v2/pkg/core"
	"github.com/johnfercher/maroto/v2/pkg/props"

	"mainstay/api"
	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"

	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
)

// Paper is a round of a type's checklist to fill in by hand. All is asked on it, with the
// condition beside it: what the day is like is not known when it is printed.
func (s *Service) Paper(ctx context.Context, key, round string, aircraft *uuid.UUID) ([]byte, error) {
	r, ok := checks.RoundOf(round)
	if !ok {
		return nil, fault.Bad("round", "There is no round %q.", round)
	}
	t, err := s.Walkrounds.Fleet.Type(ctx, key)
	if err != nil {
		return nil, err
	}
	l, err := s.Walkrounds.List(ctx, key, 0)
	if err != nil {
		return nil, err
	}
	name := ""
	if aircraft != nil {
		a, err := s.Walkrounds.Fleet.Aircraft(ctx, *aircraft)
		if err != nil {
			return nil, err
		}
		name = a.Name
	}
	crew, _, err := s.People.Crew(ctx)
	if err != nil {
		return nil, err
	}
	var packs []checks.PackRef
	for i := range t.Packs.Count {
		packs = append(packs, checks.PackRef{ID: fmt.Sprint(i + 1), Label: strings.Repeat("_", 8),
			Chemistry: t.Packs.Chemistry, Cells: t.Packs.Cells})
	}
	items, _ := checks.Expand(l, t, checks.Ask{Round: round, Packs: packs})
	if len(items) == 0 {
		return nil, fault.Clash("no-checklist", "The checklist of %s has nothing for: %s.", t.Name, r.Title)
	}
	now := s.Clock.Now().In(crew.Location())
	m := maroto.New(config.NewBuilder().WithLeftMargin(12).WithRightMargin(12).
		WithTopMargin(10).WithBottomMargin(12).WithTitle(latin(r.Title+", "+t.Name),
		true).WithAuthor(crew.Name, true).
		WithCreator("Mainstay", true).WithCreationDate(now).WithPageNumber(props.PageNumber{Pattern: "{current} of {total}",
		Size: 8}).Build())
	m.AddAutoRow(text.NewCol(12, latin(fmt.Sprintf("%s: %s", r.Title, t.Name)),
		props.Text{Size: 17, Style: fontstyle.Bold, Bottom: 1}))
	m.AddAutoRow(text.NewCol(12,
		latin(fmt.Sprintf("Checklist version %d. Take a photo of each sheet, then enter it in Mainstay: it stays beside the record.",
			l.Version)), props.Text{Size: 8, Bottom: 2}))
	m.AddAutoRow(text.NewCol(4, latin("Aircraft: "+blank(name)), plain),
		text.NewCol(4, "Begun (date, time): ____________", plain), text.NewCol(4, "Ended: ____________", plain))
	section := ""
	for _, it := range items {
		if it.Section != section {
			section = it.Section
			m.AddAutoRow(text.NewCol(12, latin(section), title))
		}
		paperItem(m, it, t)
	}
	m.AddAutoRow(text.NewCol(12,
		"Findings, in words: ______________________________________________________________________________",
		props.Text{Size: 9, Top: 6}))
	m.AddAutoRow(text.NewCol(6, "Walked by: ______________________________", props.Text{Size: 9, Top: 6}),
		text.NewCol(6, "Pilot in command: ______________________________", props.Text{Size: 9, Top: 6}))
	m.AddAutoRow(text.NewCol(12,
		latin(fmt.Sprintf("%s, printed %s by %s. The maker's manual and the law come before this list.", crew.Name,
			now.Format("2006-01-02 15:04 MST"), people.From(ctx).Name)), props.Text{Size: 8, Top: 4}))
	doc, err := m.Generate()
	if err != nil {
		return nil, err
	}
	return doc.GetBytes(), nil
}

func blank(s string) string {
	if s == "" {
		return "______________________"
	}
	return s
}

// paperItem is one item with a place to write: its marks each with a box.
func paperItem(m core.Maroto, it checks.Item, t airframe.Type) {
	small := props.Text{Size: 7.5, Bottom: 0.6}
	cell := func(n int, parts ...core.Component) core.Col { return col.New(n).Add(parts...) }
	words := strings.TrimSpace(it.How)
	if asked := when(it); asked != "" {
		words = strings.TrimSpace("Only if " + asked + ". " + words)
	}
	head := it.Title
	if it.Stops() {
		head += " [stops]"
	}
	if manyPlaces(it) { // a row of its own: a number and its place are never parted
		m.AddAutoRow(cell(12, text.New(latin(head), bold)))
		m.AddAutoRow(cell(12, text.New(latin(place(it)), props.Text{Size: 9, Top: 1, Bottom: 1, VerticalPadding: 2})))
	} else {
		m.AddAutoRow(cell(8, text.New(latin(head), bold)), cell(4, text.New(latin(place(it)), plain)))
	}
	if words != "" {
		m.AddAutoRow(cell(12, text.New(latin(words), small)))
	}
	if it.Kind == checks.Group {
		for _, k := range it.Marks {
			m.AddAutoRow(cell(8, text.New(latin("   "+k.Title), plain)), cell(4, text.New("[  ] in order   [  ] not", plain)))
		}
	}
	m.AddRow(2, line.NewCol(12, props.Line{Thickness: 0.1, SizePercent: 100}))
}

// manyPlaces reports whether an answer takes many places.
func manyPlaces(it checks.Item) bool {
	return it.Kind == checks.Cells || it.Kind == checks.Motors || it.Kind == checks.Set || it.Kind == checks.Choice ||
		it.Kind == checks.Poll
}

// when says in words when an item is asked; empty: always.
func when(it checks.Item) string {
	var out []string
	for _, w := range it.When {
		f, _ := checks.FactOf(w.Fact)
		if w.Over != nil {
			out = append(out, fmt.Sprintf("%s is over %g %s", f.Says, *w.Over, f.Unit))
			continue
		}
		out = append(out, f.Says+" is "+strings.Join(w.Is, " or "))
	}
	return strings.Join(out, "; or ")
}

// place is where the answer to an item is written.
func place(it checks.Item) string {
	fields := func(n int, name func(int) string) string {
		var out []string
		for i := range n {
			out = append(out, name(i)+":______")
		}
		return strings.Join(out, "  ")
	}
	switch it.Kind {
	case checks.Group:
		return ""
	case checks.Reading:
		return "______ " + checks.Sign(it.Unit)
	case checks.Counted:
		return fmt.Sprintf("______ of %g", *it.Expect)
	case checks.Cells:
		return fields(it.Count, func(i int) string { return fmt.Sprint(i + 1) }) + " mV"
	case checks.Motors, checks.Set:
		return fields(it.Count, func(i int) string {
			return strings.ReplaceAll(it.NameOf(i), " ",
				"-")
		}) + " " + checks.Sign(it.Unit)
	case checks.Alike:
		return "[  ] all alike   not: ________"
	case checks.Choice:
		var out []string
		for _, o := range it.Options {
			out = append(out, "[  ] "+o.Title)
		}
		return strings.Join(out, "  ")
	case checks.Timer:
		return fmt.Sprintf("[  ] %g s   [  ] not in order", it.LeastS)
	case checks.Photo:
		return "[  ] taken"
	case checks.Poll:
		return "go: ____________  no go: ________"
	case checks.Who:
		return "name: ________________"
	case checks.Look, checks.Computed, checks.Drill:
	}
	if it.Defect == judge.Watch {
		return "[  ] in order   [  ] not   [  ] left out"
	}
	return "[  ] in order   [  ] not"
}

// GetPaper serves a list as PDF.
func (h *Handlers) GetPaper(ctx context.Context, r api.GetPaperRequestObject) (api.GetPaperResponseObject, error) {
	b, err := h.Sheets.Paper(ctx, r.Key, r.Params.Round, r.Params.Aircraft)
	if err != nil {
		return nil, err
	}
	return api.GetPaper200ApplicationpdfResponse{Body: bytes.NewReader(b), ContentLength: int64(len(b))}, nil
}
