package api

import (
	"fmt"
	"slices"
)

// NewImportReport is a report of nothing yet.
func NewImportReport() ImportReport { return ImportReport{Refused: []RowProblem{}} }

// Refuse names a line that was not taken and says why.
func (r *ImportReport) Refuse(line int, format string, a ...any) {
	r.Refused = append(r.Refused, RowProblem{Line: line, Sentence: fmt.Sprintf("Line %d: ", line) + fmt.Sprintf(format,
		a...)})
}

// Clip returns the report so far, to which any number of runs may add each for
// itself.
func (r ImportReport) Clip() ImportReport {
	r.Refused = slices.Clip(r.Refused)
	return r
}

// most is how many refused lines a report names; whoever has more looks at the
// file, not at the list.
const most = 500

// Sort puts the refused lines in their order in the file, and keeps the report
// short.
func (r *ImportReport) Sort() {
	slices.SortStableFunc(r.Refused, func(a, b RowProblem) int { return a.Line - b.Line })
	if more := len(r.Refused) - most; more > 0 {
		r.Refused = append(r.Refused[:most:most], RowProblem{Line: r.Refused[most].Line,
			Sentence: fmt.Sprintf("From line %d on, %d more were not taken.", r.Refused[most].Line, more)})
	}
}
