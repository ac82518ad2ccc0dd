package api

import (
	"fmt"
	"slices"
)

// NewImportReport is a report of nothing yet.
func NewImportReport() ImportReport { return ImportReport{Refused: []RowProblem{}} }

// Refuse names a line that was not taken and says why.
func (r *ImportReport) Refuse(line int, format string, a ...any) {
	r.Refused = append(r.Refused, RowProblem{Line: line, Sentence: fmt.Sprintf("Line %d: ", line) + fmt.Sprintf(format, a...)})
}

// Sort puts the refused lines in their order in the file.
func (r *ImportReport) Sort() {
	slices.SortStableFunc(r.Refused, func(a, b RowProblem) int { return a.Line - b.Line })
}
