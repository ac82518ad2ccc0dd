package airspace

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/google/uuid"

	"mainstay/core/airspace"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
)

// States of an authorisation.
const (
	asked     = "asked"
	granted   = "granted"
	refused   = "refused"
	withdrawn = "withdrawn"
)

// Authorisation is what was asked for and granted, or put on record by hand.
type Authorisation struct {
	ID         uuid.UUID
	ZoneID     uuid.UUID
	SiteID     uuid.UUID
	State      string
	Ref        string // of the request at the desk; empty: by hand
	Number     string
	CeilingM   float64
	FromAt     time.Time
	ToAt       time.Time
	Why        string
	AskedAt    time.Time
	AskedBy    string
	AnsweredAt *time.Time
	Zone       string // name
	NeedsCalls bool
	Calls      []Call `gorm:"-"`
}

// Call at start or end.
type Call struct {
	ID              uuid.UUID
	AuthorisationID uuid.UUID
	Kind            string
	How             string
	At              time.Time
	ByName          string
}

func (a Authorisation) fact() airspace.Grant {
	g := airspace.Grant{ID: a.ID.String(), ZoneID: a.ZoneID.String(), Number: a.Number, CeilingM: a.CeilingM,
		From: a.FromAt, To: a.ToAt, NeedsCalls: a.NeedsCalls, Asked: a.State == asked}
	if a.State == refused {
		g.Refused = a.Why
		if g.Refused == "" {
			g.Refused = "no reason was given"
		}
	}
	for _, c := range a.Calls { // oldest first
		at := c.At
		if c.Kind == "start" {
			g.Started = &at
		} else {
			g.Ended = &at
		}
	}
	return g
}

// Authorisations of a site, newest first. What is still asked for at the desk
// is asked about again.
func (s *Service) Authorisations(ctx context.Context, siteID uuid.UUID) ([]Authorisation, error) {
	var out []Authorisation
	if err := s.DB.WithContext(ctx).Raw(`select a.*, z.name as zone, z.calls as needs_calls from authorisations a join zones z on z.id = a.zone_id
		where a.site_id = ? and a.to_at > ? order by a.asked_at desc, a.id desc`, siteID, s.Clock.Now().Add(-30*24*time.Hour)).Scan(&out).Error; err != nil || len(out) == 0 {
		return out, err
	}
	ids := make(db.UUIDs, len(out))
	for i := range out {
		ids[i] = out[i].ID
	}
	var calls []Call
	if err := s.DB.WithContext(ctx).Raw("select * from authorisation_calls where authorisation_id = any(?::uuid[]) order by at, id",
		ids).Scan(&calls).Error; err != nil {
		return out, err
	}
	for i := range out {
		for _, c := range calls {
			if c.AuthorisationID == out[i].ID {
				out[i].Calls = append(out[i].Calls, c)
			}
		}
	}
	return out, nil
}

// answer is how the desk says what became of a request.
type answer struct {
	Ref      string    `json:"ref"`
	State    string    `json:"state"`
	Number   string    `json:"number"`
	CeilingM float64   `json:"ceiling_m"`
	From     time.Time `json:"from"`
	To       time.Time `json:"to"`
	Why      string    `json:"why"`
}

// check refuses an answer that could not be one to the request.
func (x answer) check(ref string) error {
	switch {
	case x.Ref != ref:
		return errors.New("it answers another request")
	case x.State == "pending":
	case x.State == refused:
	case x.State != granted:
		return fmt.Errorf("state %q is unknown", x.State)
	case strings.TrimSpace(x.Number) == "" || len(x.Number) > 60 || x.CeilingM < 1 || x.CeilingM > 3000 ||
		!x.To.After(x.From):
		return errors.New("what is granted has no number, ceiling or window")
	}
	return nil
}

// New is what is asked for. With a number it was granted elsewhere and is put
// on record; without one the desk is asked.
type New struct {
	ID       uuid.UUID
	Site     uuid.UUID
	Zone     uuid.UUID
	Number   string
	CeilingM float64
	From, To time.Time
}

// Ask asks the desk, or puts on record what was granted by other ways. The same
// id twice is one request.
func (s *Service) Ask(ctx context.Context, n New) error {
	n.Number = strings.TrimSpace(n.Number)
	var z struct {
		OutsideID string
		Source    string
		Class     string
	}
	if err := s.DB.WithContext(ctx).Raw("select outside_id, source, class from zones where id = ? and gone_at is null",
		n.Zone).Scan(&z).Error; err != nil {
		return err
	}
	class := airspace.Class(z.Class)
	switch {
	case z.Class == "":
		return fault.Missing("zone")
	case !class.NeedsAuthorisation() && !class.NeedsPermission():
		return fault.Bad("zone_id", "This zone asks for no authorisation.")
	case !n.To.After(n.From):
		return fault.Bad("to", "The window ends before it begins.")
	case n.Number == "" && !n.To.After(s.Clock.Now()):
		return fault.Bad("to", "The window lies in the past.")
	case n.Number == "" && (s.Desk == nil || z.Source != "desk"):
		return fault.Bad("number",
			"No airspace desk takes requests for this zone. Ask whoever controls it and enter the number of what was granted.")
	}
	now, by := s.Clock.Now(), people.From(ctx).Name
	state, ref := granted, ""
	if n.Number == "" {
		state, ref = asked, n.ID.String()
	}
	res := s.DB.WithContext(ctx).Exec(`insert into authorisations (id, zone_id, site_id, state, ref, number, ceiling_m, from_at, to_at, asked_at, asked_by, answered_at)
		values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) on conflict (id) do nothing`,
		n.ID, n.Zone, n.Site, state, ref, n.Number, n.CeilingM, n.From, n.To, now, by,
		map[bool]*time.Time{true: &now}[state == granted])
	if res.Error != nil || res.RowsAffected == 0 || state == granted {
		return db.Translate(res.Error)
	}
	var x answer
	err := s.Desk.Call(ctx, http.MethodPost, "/requests",
		map[string]any{"ref": ref, "zone": z.OutsideID, "ceiling_m": n.CeilingM, "from": n.From.UTC(), "to": n.To.UTC()}, &x)
	if err == nil {
		if cerr := x.check(ref); cerr != nil {
			err = fmt.Errorf("%w: %w", outside.ErrService, cerr)
		}
	}
	if err != nil {
		// Nothing reached the desk that we know of: the request is taken back, so that it can be made again.
		if derr := s.DB.WithContext(ctx).Exec("delete from authorisations where id = ? and state = 'asked'",
			n.ID).Error; derr != nil {
			return derr
		}
		return fault.Clash("desk",
			"The airspace desk did not take the request. Nothing was asked for; try again, or ask by other ways and enter the number.")
	}
	return s.take(ctx, n.ID, x)
}

// take notes what the desk answered.
func (s *Service) take(ctx context.Context, id uuid.UUID, x answer) error {
	if x.State == "pending" {
		return nil
	}
	if x.State == refused {
		return s.DB.WithContext(ctx).Exec("update authorisations set state = 'refused', why = ?, answered_at = ? where id = ? and state = 'asked'",
			x.Why, s.Clock.Now(), id).Error
	}
	return s.DB.WithContext(ctx).Exec("update authorisations set state = 'granted', number = ?, ceiling_m = ?, from_at = ?, to_at = ?, answered_at = ? where id = ? and state = 'asked'",
		x.Number, x.CeilingM, x.From, x.To, s.Clock.Now(), id).Error
}

// Refresh asks the desk about what is not answered yet. A desk that does not
// answer leaves it open.
func (s *Service) Refresh(ctx context.Context, siteID uuid.UUID) error {
	if s.Desk == nil {
		return nil
	}
	var open []Authorisation
	if err := s.DB.WithContext(ctx).Raw("select id, ref from authorisations where site_id = ? and state = 'asked' and ref <> ''",
		siteID).Scan(&open).Error; err != nil {
		return err
	}
	for _, a := range open {
		var x answer
		if err := s.Desk.Call(ctx, http.MethodGet, "/requests/"+a.Ref, nil, &x); err != nil || x.check(a.Ref) != nil {
			return nil //nolint:nilerr // it stays asked, which is a finding
		}
		if err := s.take(ctx, a.ID, x); err != nil {
			return err
		}
	}
	return nil
}

// Withdraw takes a request or an authorisation back.
func (s *Service) Withdraw(ctx context.Context, id uuid.UUID) error {
	res := s.DB.WithContext(ctx).Exec("update authorisations set state = 'withdrawn', answered_at = ? where id = ? and state <> 'withdrawn'",
		s.Clock.Now(), id)
	if res.Error == nil && res.RowsAffected == 0 {
		return fault.Missing("authorisation")
	}
	return res.Error
}

// Call makes the call at start or end through the desk, or notes that it was
// spoken.
func (s *Service) Call(ctx context.Context, id uuid.UUID, c Call) error {
	var a Authorisation
	if err := s.DB.WithContext(ctx).Raw("select * from authorisations where id = ?", id).Scan(&a).Error; err != nil {
		return err
	}
	switch {
	case a.ID == uuid.Nil:
		return fault.Missing("authorisation")
	case a.State != granted:
		return fault.Clash("not-granted", "This authorisation is %s; there is nobody to call about it.", a.State)
	case c.Kind == "start" && s.Clock.Now().After(a.ToAt):
		return fault.Clash("ended", "%s has ended. Ask for a new one before the start.", a.Number)
	}
	if c.How == "desk" {
		if s.Desk == nil {
			return fault.Clash("no-desk", "No airspace desk is connected. Call by radio or telephone and note it as spoken.")
		}
		var x struct {
			Kind string `json:"kind"`
		}
		if err := s.Desk.Call(ctx, http.MethodPost, "/calls", map[string]any{"number": a.Number, "kind": c.Kind},
			&x); err != nil || x.Kind != c.Kind {
			return fault.Clash("desk",
				"The airspace desk did not take the call. Call by radio or telephone and note it as spoken.")
		}
	}
	return s.DB.WithContext(ctx).Exec("insert into authorisation_calls (id, authorisation_id, kind, how, at, by_name) values (?, ?, ?, ?, ?, ?) on conflict (id) do nothing",
		c.ID, id, c.Kind, c.How, s.Clock.Now(), people.From(ctx).Name).Error
}
