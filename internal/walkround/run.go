package walkround

import (
	"time"

	"github.com/google/uuid"

	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/practice"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// Run is a walkround or turnaround of one aircraft.
type Run struct {
	ID               uuid.UUID
	AircraftID       uuid.UUID
	Kind             string
	ChecklistVersion int
	TypeKey          string
	TypeVersion      int
	PackIDs          db.UUIDs `gorm:"type:uuid[]"`
	StartedBy        string
	StartedAt        time.Time
	CompletedBy      string
	CompletedAt      *time.Time
	AbandonedAt      *time.Time
	Verdict          string
	Findings         []Finding `gorm:"serializer:json"`
	RecordSeq        *int64
	Kept             string            // what was to be set, in words
	Practice         practice.Settings `gorm:"serializer:json"` // as the crew kept it when the check began
	JobID            *uuid.UUID
	Facts            checks.Facts `gorm:"serializer:json"` // known of the day when it began
	Names            []string     `gorm:"serializer:json"` // who is asked by name
	// photos of the paper that it is entered from; none: it is walked here
	Paper    []uuid.UUID      `gorm:"serializer:json"`
	Drill    checks.Shown     `gorm:"serializer:json"` // the picture that it shows, if any
	LeftOut  []checks.LeftOut `gorm:"serializer:json"` // not asked, as it stood at the end
	Pace     *checks.Pace     `gorm:"serializer:json"` // how fast it was walked
	PaceSaid string           // what is said of that; empty: nothing
}

// TableName is the table of runs.
func (Run) TableName() string { return "walkrounds" }

// Finding is an entry of a complete run that was not clear.
type Finding struct {
	ItemID   string        `json:"item_id"`
	Station  string        `json:"station"`
	Title    string        `json:"title"`
	Verdict  judge.Verdict `json:"verdict"`
	Sentence string        `json:"sentence"`
	PackID   string        `json:"pack_id,omitempty"`
	Lasting  bool          `json:"lasting,omitempty"` // it is an open defect now, and lasts beyond this walk
	By       string        `json:"by,omitempty"`
}

// Entry is what was entered for one item, with its judgement.
type Entry struct {
	ID          uuid.UUID
	WalkroundID uuid.UUID
	PersonID    *uuid.UUID
	Until       *time.Time // when its maker put another in its place; nil: it holds
	ItemID      string
	Value       checks.Value `gorm:"serializer:json"`
	Verdict     string
	Sentence    string
	Against     string
	ByName      string
	At          time.Time
}

// TableName is the table of entries.
func (Entry) TableName() string { return "walkround_entries" }

// round is the kind of the run.
func (r Run) round() checks.Round {
	out, _ := checks.RoundOf(r.Kind) // the database takes no other
	return out
}

func (r Run) stillOpen() error {
	switch {
	case r.CompletedAt != nil:
		return fault.Clash("run-ended", "This run was completed by %s; a record does not change. Walk again to correct it.",
			r.CompletedBy)
	case r.AbandonedAt != nil:
		return fault.Clash("run-ended", "This run was given up. Start a new one.")
	}
	return nil
}
