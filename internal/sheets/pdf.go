package sheets

import (
	"fmt"
	"mainstay/internal/sites"
	"strings"

	"github.com/johnfercher/maroto/v2"
	"github.com/johnfercher/maroto/v2/pkg/components/col"
	"github.com/johnfercher/maroto/v2/pkg/components/image"
	"github.com/johnfercher/maroto/v2/pkg/components/line"
	"github.com/johnfercher/maroto/v2/pkg/components/text"
	"github.com/johnfercher/maroto/v2/pkg/config"
	"github.com/johnfercher/maroto/v2/pkg/consts/fontstyle"
	"github.com/johnfercher/maroto/v2/pkg/core"
	"github.com/johnfercher/maroto/v2/pkg/props"
)

var (
	plain = props.Text{Size: 9, Top: 1, Bottom: 1}
	bold  = props.Text{Size: 9, Top: 1, Bottom: 1, Style: fontstyle.Bold}
	title = props.Text{Size: 12, Top: 4, Bottom: 1.5, Style: fontstyle.Bold}
)

// workWords are the kinds of work as people say them.
var workWords = map[string]string{"spraying": "Spraying", "mapping": "Mapping", "inspection": "Inspection",
	"practice": "Practice or check flight"}

// pdf lays the sheet out.
func (o *sheet) pdf() ([]byte, error) {
	j := o.job.Job
	cfg := config.NewBuilder().WithLeftMargin(10).WithRightMargin(10).
		WithTopMargin(10).WithBottomMargin(12).WithTitle("Job sheet: "+j.Aim,
		true).WithAuthor(o.crew, true).WithCreator("Mainstay", true).WithCreationDate(o.printed).
		WithPageNumber(props.PageNumber{Pattern: "{current} of {total}", Size: 8}).Build()
	m := maroto.New(cfg)
	m.AddAutoRow(text.NewCol(12, latin(j.Aim), props.Text{Size: 17, Style: fontstyle.Bold, Bottom: 2}))
	from, to := j.FromAt.In(o.zone), j.ToAt.In(o.zone)
	zone, _ := from.Zone()
	facts := [][2]string{{"Work", workWords[j.Work] + " at " + j.Site},
		{"When", fmt.Sprintf("%s to %s %s", from.Format("2006-01-02 15:04"), to.Format("15:04"), zone)},
		{"Place", placeWords(o.site.Site)}}
	var people, craft []string
	for _, p := range j.People {
		people = append(people, p.Name+" ("+p.Post+")")
	}
	for _, c := range j.Aircraft {
		words := c.Name
		if c.ReturnM != nil {
			words += fmt.Sprintf(", returns at %.0f m", *c.ReturnM)
		}
		craft = append(craft, words)
	}
	facts = append(facts, [2]string{"Crew", strings.Join(people, ", ")}, [2]string{"Aircraft", strings.Join(craft, "; ")},
		[2]string{"Contacts", contacts(j.Meeting, j.Channel)})
	if j.Product != "" {
		facts = append(facts, [2]string{"Product", j.Product})
	}
	facts = append(facts, [2]string{"Now", strings.ToUpper(o.job.Verdict.String())})
	for _, f := range facts {
		if f[1] != "" {
			m.AddAutoRow(text.NewCol(2, f[0], bold), text.NewCol(10, latin(f[1]), plain))
		}
	}
	for _, d := range o.pictures {
		d.add(m)
	}
	for _, t := range o.tables {
		t.add(m)
	}
	for _, d := range o.photo {
		d.add(m)
	}
	o.against().add(m)
	o.packed().add(m)
	m.AddAutoRow(text.NewCol(12,
		latin("The maker's manual, the product's label and the law come before this sheet. What it says is as of its printing: the gate judges anew before each flight."),
		props.Text{Size: 8, Top: 5}))
	m.AddAutoRow(text.NewCol(12, latin(fmt.Sprintf("%s, printed %s by %s, records up to %s", o.crew,
		o.printed.In(o.zone).Format("2006-01-02 15:04 MST"), o.by, o.head)), props.Text{Size: 8, Top: 2}))
	doc, err := m.Generate()
	if err != nil {
		return nil, err
	}
	return doc.GetBytes(), nil
}

func (d drawing) add(m core.Maroto) {
	if len(d.bytes) > 0 {
		m.AddRow(d.high, image.NewFromBytesCol(12, d.bytes, d.kind, props.Rect{Percent: 100, Center: true}))
	}
	m.AddAutoRow(text.NewCol(12, latin(d.words), props.Text{Size: 8, Bottom: 2}))
}

func contacts(meeting, channel string) string {
	var out []string
	if meeting != "" {
		out = append(out, "gather at: "+meeting)
	}
	if channel != "" {
		out = append(out, "speak by: "+channel)
	}
	return strings.Join(out, "; ")
}

// packed is the kit, with who packed it.
func (o *sheet) packed() table {
	t := table{title: "Kit", head: []string{"What", "How many", "Packed", "Checked"}, wide: []int{6, 2, 2, 2}}
	for _, k := range o.kit {
		n := ""
		if k.Quantity > 1 {
			n = fmt.Sprint(k.Quantity)
		}
		t.rows = append(t.rows, []string{k.Label, n, k.PackedBy, k.CheckedBy})
	}
	return t
}

func (t table) add(m core.Maroto) {
	if len(t.rows) == 0 {
		return
	}
	m.AddAutoRow(text.NewCol(12, latin(t.title), title))
	row := func(cells []string, style props.Text) {
		var cols []core.Col
		for i, c := range cells {
			cols = append(cols, col.New(t.wide[i]).Add(text.New(latin(c), style)))
		}
		m.AddAutoRow(cols...)
		m.AddRow(0.6, line.NewCol(12, props.Line{Thickness: 0.1}))
	}
	row(t.head, bold)
	for _, r := range t.rows {
		row(r, plain)
	}
}

// latin puts the signs that the built-in fonts lack into letters they have.
var latin = strings.NewReplacer("–", "-", "—", "-", "’", "'", "“", `"`, "”", `"`, "…", "...", "→", "to", "≤",
	"at most ", "≥", "at least ", "−", "-", "Ω", "ohm", " ", " ").Replace

// placeWords is a place as a job sheet says it.
func placeWords(s sites.Site) string {
	ground := "elevation not known"
	if s.ElevationM != nil {
		ground = fmt.Sprintf("ground %.0f m", *s.ElevationM)
	}
	return fmt.Sprintf("%.5f, %.5f, %s", s.Lat, s.Lon, ground)
}
