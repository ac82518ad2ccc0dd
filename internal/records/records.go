// Package records keeps the append-only chain of what was done: each record
// carries the hash of its content and of the record before it, so that a
// change anywhere shows.
package records

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// The kinds of record.
const (
	CrewSet           = "crew-set-up"
	WalkroundDone     = "walkround"
	WalkroundGivenUp  = "walkround-given-up"
	Released          = "release"
	ReleaseWithdrawn  = "release-withdrawn"
	FlightLogged      = "flight"
	Grounded          = "grounding"
	Returned          = "return-to-service"
	DefectRaised      = "defect"
	DefectClosed      = "defect-closed"
	PartsFitted       = "parts-fitted"
	PartsRemoved      = "parts-removed"
	WorkOpened        = "work-opened"
	WorkSigned        = "work-signed"
	WorkCancelled     = "work-cancelled"
	AcceptanceFlown   = "acceptance-flight"
	PutOff            = "deferral"
	FirmwareChanged   = "firmware"
	PartsApproved     = "parts-approved"
	PackLooked        = "pack-look"
	PackDisposed      = "pack-disposed"
	PackCorrected     = "pack-corrected"
	ReadingWithdrawn  = "reading-withdrawn"
	FlightCorrected   = "flight-corrected"
	PackMoved         = "pack-state"
	Briefed           = "briefing"
	PracticeLogged    = "practice"
	RulesChosen       = "rules-chosen"
	PracticeChosen    = "practice-chosen"
	CompassCalibrated = "compass"
	Decided           = "decision"
	PersonAdded       = "person-added"
	PersonChanged     = "person-changed"
	SecretChanged     = "secret-changed"
	SecretReset       = "secret-reset"
	CrewChanged       = "crew-changed"
	FileTaken         = "file-version"
	ClockSetBack      = "clock-set-back"
	OwnRuleSaved      = "own-rule"
	OwnRuleRemoved    = "own-rule-removed"
	DocumentSaved     = "document"
	DocumentRemoved   = "document-removed"
	LandingTakenBack  = "landing-taken-back"
	EventTakenBack    = "event-taken-back"
	EventHeardLate    = "event-heard-late"
	SprayPlanned      = "spray-plan"
	Sprayed           = "sprayed"
	SprayTakenBack    = "sprayed-taken-back"
	SprayChecked      = "spray-check"
	Weighed           = "weighed"
	SprayFilled       = "spray-fill"
	SprayRecorded     = "spray-record"
	NozzleSaved       = "nozzle"
	CameraSaved       = "camera"
	CanopySaved       = "canopy"
	MissionPlanned    = "mission-plan"
	MissionRead       = "mission-read"
	CameraCarded      = "camera-card"
	MissionFlown      = "mission-flown"
	MissionTakenBack  = "mission-taken-back"
	PictureFound      = "picture-finding"
	PictureTakenBack  = "picture-finding-taken-back"
)

// Entry is what is put on record.
type Entry struct {
	Kind    string
	Subject uuid.UUID // the aircraft or pack it is about
	At      time.Time
	By      By
	Also    []By // who else signed it
	Signed  bool // made by re-entering a PIN
	Summary string
	Content any // written as JSON; its hash binds the signature to it
}

// By is who makes a record, with the roles they acted in. The zero value is the
// program itself.
type By struct {
	ID    uuid.UUID
	Name  string
	Roles []string
}

type row struct {
	Seq         int64      `json:"seq"`
	ID          uuid.UUID  `json:"id"`
	Kind        string     `json:"kind"`
	Subject     *uuid.UUID `json:"subject"`
	At          time.Time  `json:"at"`
	ByID        *uuid.UUID `json:"by_id"`
	ByName      string     `json:"by_name"`
	Signed      bool       `json:"signed"`
	Summary     string     `json:"summary"`
	Content     string     `json:"content"`
	ContentHash []byte     `json:"content_hash"`
	PrevHash    []byte     `json:"prev_hash"`
	Hash        []byte     `json:"hash"`
}

func (row) TableName() string { return "records" }

// clockSlack is how far the clocks of servers may differ without a word.
const clockSlack = 2 * time.Minute

// chainLock makes appends take turns, so that each knows the record before it.
const chainLock = 0x6d61696e

// Turn waits until nobody else in the crew writes records, and holds that until
// the transaction ends. Who changes people takes it first: a signature is then
// made before the change or after it, never across it.
func Turn(ctx context.Context, tx *gorm.DB) error {
	return tx.WithContext(ctx).Exec("select pg_advisory_xact_lock(?)", chainLock).Error
}

// standing refuses entries of people who may not make them any more: who is no
// longer active, no longer holds a role they acted in, or signs with secrets
// that somebody else gave them.
func standing(tx *gorm.DB, entries []Entry) error {
	var ids db.UUIDs
	all := []By{}
	signed := map[uuid.UUID]bool{}
	for _, e := range entries {
		for _, b := range append([]By{e.By}, e.Also...) {
			if b.ID == uuid.Nil {
				continue
			}
			if !slices.Contains(ids, b.ID) {
				ids, all = append(ids, b.ID), append(all, b)
			}
			signed[b.ID] = signed[b.ID] || e.Signed
		}
	}
	if len(ids) == 0 {
		return nil
	}
	type person struct {
		ID     uuid.UUID
		Active bool
		Once   string
		Roles  db.Array[string] `gorm:"type:text[]"`
	}
	var now []person
	if err := tx.Raw("select id, active, once, roles from people where id = any(?::uuid[])",
		ids).Scan(&now).Error; err != nil {
		return err
	}
	for _, b := range all {
		i := slices.IndexFunc(now, func(n person) bool { return n.ID == b.ID })
		switch {
		case i < 0 || !now[i].Active:
			return fault.Denied("%s is no longer active in this crew. Nothing was signed or saved.", b.Name)
		case signed[b.ID] && now[i].Once != "":
			return fault.Denied("%s has not chosen their own password and PIN yet. Nothing was signed.", b.Name)
		}
		for _, r := range b.Roles {
			if !slices.Contains(now[i].Roles, r) {
				return fault.Denied("The roles of %s were changed meanwhile. Nothing was signed or saved; load the page again.",
					b.Name)
			}
		}
	}
	return nil
}

// Append adds entries to the chain in tx, in their order, and returns the
// number of the last.
func Append(ctx context.Context, tx *gorm.DB, entries ...Entry) (int64, error) {
	if len(entries) == 0 {
		return 0, nil
	}
	if err := Turn(ctx, tx); err != nil {
		return 0, err
	}
	if err := standing(tx, entries); err != nil {
		return 0, err
	}
	e, err := endOf(ctx, tx.ConnPool)
	if err != nil {
		return 0, err
	}
	last := row{Seq: e.Seq, Hash: e.Hash}
	if now := entries[0].At; e.At.Sub(now) > clockSlack {
		entries = append([]Entry{{Kind: ClockSetBack, At: now, By: By{Name: "Mainstay"},
			Content: map[string]any{"from": e.At.UTC(), "to": now.UTC()},
			Summary: fmt.Sprintf("The server's clock went back, from %s to %s. Records keep their order.",
				e.At.UTC().Format("2006-01-02 15:04:05 UTC"), now.UTC().Format("2006-01-02 15:04:05 UTC"))}}, entries...)
	}
	rows := make([]row, len(entries))
	for i, e := range entries {
		content, err := json.Marshal(e.Content)
		if err != nil {
			return 0, fmt.Errorf("record content: %w", err)
		}
		id, err := uuid.NewV7()
		if err != nil {
			return 0, err
		}
		h := sha256.Sum256(content)
		r := row{Seq: last.Seq + 1, ID: id, Kind: e.Kind, Subject: optional(e.Subject),
			At: e.At.UTC().Truncate(time.Microsecond), ByID: optional(e.By.ID), ByName: strings.ToValidUTF8(e.By.Name, "\ufffd"),
			Signed: e.Signed, Summary: strings.ToValidUTF8(e.Summary,
				"\ufffd"), Content: string(content), ContentHash: h[:], PrevHash: last.Hash}
		r.Hash = r.sum()
		rows[i], last = r, r
	}
	set, err := db.Rows(rows)
	if err != nil {
		return 0, err
	}
	return last.Seq, tx.Exec(`insert into records (seq, id, kind, subject, at, by_id, by_name, signed, summary, content, content_hash, prev_hash, hash)
		select seq, id, kind, subject, at, by_id, by_name, signed, summary, content, decode(content_hash, 'base64'), decode(prev_hash, 'base64'), decode(hash, 'base64')
		from jsonb_to_recordset(?::jsonb) as x (seq bigint, id uuid, kind text, subject uuid, at timestamptz, by_id uuid, by_name text, signed boolean, summary text, content text, content_hash text, prev_hash text, hash text)`,
		set).Error
}

// Change runs one statement and puts on record that it changed something; a
// statement that changes no row makes no record. It returns the rows changed.
func Change(ctx context.Context, g *gorm.DB, e Entry, sql string, args ...any) (rows int64, err error) {
	err = db.Tx(ctx, g, func(ctx context.Context, tx *gorm.DB) error {
		done := tx.Exec(sql, args...)
		if rows = done.RowsAffected; done.Error != nil || rows == 0 {
			return done.Error
		}
		_, err := Append(ctx, tx, e)
		return err
	})
	return rows, err
}

// sum is the hash of everything in the row but the hash itself.
func (r row) sum() []byte {
	w := lengths{sha256.New()}
	w.text(fmt.Sprint(r.Seq))
	w.bytes(r.ID[:])
	w.text(r.Kind)
	for _, id := range []*uuid.UUID{r.Subject, r.ByID} {
		if id == nil {
			w.bytes(nil)
		} else {
			w.bytes(id[:])
		}
	}
	w.text(r.At.UTC().Format(time.RFC3339Nano))
	w.text(r.ByName)
	w.text(fmt.Sprint(r.Signed))
	w.text(r.Summary)
	w.bytes(r.ContentHash)
	w.bytes(r.PrevHash)
	return w.h.Sum(nil)
}

// Line is one record as shown in lists.
type Line struct {
	Seq     int64
	Kind    string
	At      time.Time
	By      string
	Signed  bool
	Subject string
	Summary string
	Hash    string
}

// Filter narrows the chain; what is zero is not asked for.
type Filter struct {
	Subject  uuid.UUID
	Words    string    // in the summary or the name of who did it; all of them
	From, To time.Time // from then on, and before then
	Before   int64     // older than this number
}

// Page returns records, newest first.
func Page(ctx context.Context, g *gorm.DB, f Filter, limit int) ([]Line, error) {
	q := g.WithContext(ctx).Omit("content").Order("seq desc").Limit(limit)
	if f.Subject != uuid.Nil {
		q = q.Where("subject = ?", f.Subject)
	}
	if f.Before > 0 {
		q = q.Where("seq < ?", f.Before)
	}
	for _, w := range strings.Fields(f.Words) {
		like := db.Like(w)
		q = q.Where("(summary ilike ? or by_name ilike ?)", like, like)
	}
	if !f.From.IsZero() {
		q = q.Where("at >= ?", f.From)
	}
	if !f.To.IsZero() {
		q = q.Where("at < ?", f.To)
	}
	var rows []row
	if err := q.Find(&rows).Error; err != nil {
		return nil, db.Translate(err)
	}
	out := make([]Line, len(rows))
	for i, r := range rows {
		out[i] = Line{Seq: r.Seq, Kind: r.Kind, At: r.At, By: r.ByName, Signed: r.Signed, Summary: r.Summary,
			Hash: hex.EncodeToString(r.Hash)}
		if r.Subject != nil {
			out[i].Subject = r.Subject.String()
		}
	}
	return out, nil
}

func optional(id uuid.UUID) *uuid.UUID {
	if id == uuid.Nil {
		return nil
	}
	return &id
}
