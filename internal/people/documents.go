package people

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/core/judge"
	"mainstay/core/rules"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Document is a licence, certificate, exemption or waiver on file.
type Document struct {
	ID         uuid.UUID
	Kind       string
	PersonID   *uuid.UUID // nil: of the crew
	Number     string
	IssuedOn   *time.Time       `gorm:"type:date"`
	ExpiresOn  *time.Time       `gorm:"type:date"`
	Rules      db.Array[string] `gorm:"type:text[]"`
	Conditions string
	Version    int
	ChangedAt  time.Time
	ChangedBy  string
	RemovedAt  *time.Time
}

// TableName is the table of documents.
func (Document) TableName() string { return "documents" }

// Fact is the document as rules judge it.
func (d Document) Fact() rules.Document {
	out := rules.Document{ID: d.ID.String(), Kind: rules.DocumentKind(d.Kind), Number: d.Number, Issued: d.IssuedOn,
		Expires: d.ExpiresOn, Rules: d.Named(), Conditions: d.Conditions}
	if d.PersonID != nil {
		out.PersonID = d.PersonID.String()
	}
	return out
}

// Named are the rules that a waiver or exemption names.
func (d Document) Named() []judge.Rule {
	out := []judge.Rule{}
	for _, r := range d.Rules {
		out = append(out, judge.Rule(r))
	}
	return out
}

// Documents are those of the crew and of everybody, by kind and number.
func (s *Service) Documents(ctx context.Context) ([]Document, error) {
	var out []Document
	err := s.DB.WithContext(ctx).Where("removed_at is null").Order("kind, lower(number), id").Find(&out).Error
	return out, err
}

// SaveDocument puts a document on file (version 0) or changes it, if nobody did
// so meanwhile.
func (s *Service) SaveDocument(ctx context.Context, d Document) error {
	kind := rules.DocumentKind(d.Kind)
	d.Number, d.Conditions = strings.TrimSpace(d.Number), strings.TrimSpace(d.Conditions)
	var fields []fault.Field
	bad := func(field, sentence string) { fields = append(fields, fault.Field{Field: field, Sentence: sentence}) }
	if !slices.Contains(rules.AllDocumentKinds, kind) {
		bad("kind", "Choose what kind of document it is.")
	}
	if d.Number == "" {
		bad("number", "Enter its number; without one it proves nothing.")
	}
	if kind.OfPerson() != (d.PersonID != nil) {
		bad("person_id", map[bool]string{true: "Choose whose it is.",
			false: "This kind belongs to the crew, not to one person."}[kind.OfPerson()])
	}
	if d.IssuedOn != nil && d.IssuedOn.After(s.Clock.Now().Add(24*time.Hour)) {
		bad("issued_on", "The date lies in the future.")
	}
	if d.IssuedOn != nil && d.ExpiresOn != nil && d.ExpiresOn.Before(*d.IssuedOn) {
		bad("expires_on", "It ends before it was issued.")
	}
	names := kind == rules.Waiver || kind == rules.HeavyExemption
	if !names && len(d.Rules) > 0 {
		bad("rules", "Only a waiver or an exemption names rules.")
	}
	if kind == rules.Waiver && len(d.Rules) == 0 {
		bad("rules", "Choose which rules the waiver names.")
	}
	if err := fault.BadFields(fields); err != nil {
		return err
	}
	if d.Rules == nil {
		d.Rules = db.Array[string]{}
	}
	rows, err := records.Change(ctx, s.DB, records.Entry{Kind: records.DocumentSaved, Subject: subject(d.PersonID),
		At: s.Clock.Now(), By: From(ctx).By(), Summary: fmt.Sprintf("Document: %s %s", d.Kind, d.Number), Content: d},
		`insert into documents as o (id, kind, person_id, number, issued_on, expires_on, rules, conditions, changed_at, changed_by) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
		on conflict (id) do update set kind = excluded.kind, person_id = excluded.person_id, number = excluded.number, issued_on = excluded.issued_on, expires_on = excluded.expires_on,
		rules = excluded.rules, conditions = excluded.conditions, version = o.version + 1, changed_at = excluded.changed_at, changed_by = excluded.changed_by, removed_at = null where o.version = ?`,
		d.ID, d.Kind, d.PersonID, d.Number, d.IssuedOn, d.ExpiresOn, d.Rules, d.Conditions, s.Clock.Now(), From(ctx).Name,
		d.Version)
	if err == nil && rows == 0 {
		return fault.Stale("document")
	}
	return err
}

// RemoveDocument takes a document off the file; what rested on it says so at
// once.
func (s *Service) RemoveDocument(ctx context.Context, id uuid.UUID) error {
	rows, err := records.Change(ctx, s.DB, records.Entry{Kind: records.DocumentRemoved, At: s.Clock.Now(),
		By: From(ctx).By(), Summary: "Document taken off the file.", Content: map[string]any{"document": id}},
		"update documents set removed_at = ?, version = version + 1, changed_by = ? where id = ? and removed_at is null",
		s.Clock.Now(), From(ctx).Name, id)
	if err == nil && rows == 0 {
		return fault.Missing("document")
	}
	return err
}

func subject(id *uuid.UUID) uuid.UUID {
	if id == nil {
		return uuid.Nil
	}
	return *id
}
