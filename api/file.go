package api

import (
	"encoding/json"
	"net/http"
)

// File answers with a file for people to read and change: indented JSON.
type File struct{ Content any }

func (f File) write(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "application/json")
	w.WriteHeader(http.StatusOK)
	e := json.NewEncoder(w)
	e.SetIndent("", "  ")
	return e.Encode(f.Content)
}

// VisitGetTypeResponse answers with a type profile.
func (f File) VisitGetTypeResponse(w http.ResponseWriter) error { return f.write(w) }

// VisitGetChecklistResponse answers with a checklist.
func (f File) VisitGetChecklistResponse(w http.ResponseWriter) error { return f.write(w) }

// VisitGetProgrammeResponse answers with a maintenance programme.
func (f File) VisitGetProgrammeResponse(w http.ResponseWriter) error { return f.write(w) }
