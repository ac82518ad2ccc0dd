package missions

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/camera"
	"mainstay/core/judge"
	"mainstay/internal/people"
	"mainstay/internal/planning"
	"mainstay/internal/platform/db"
	"mainstay/internal/records"
)

// Card is a camera card as it was filled in before a flight.
type Card struct {
	ID      uuid.UUID
	PlanID  uuid.UUID
	Content string
	At      time.Time
	ByName  string
}

func (Card) TableName() string { return "camera_cards" }

// set is what was filled in.
func (c Card) set() (out camera.Card) {
	_ = json.Unmarshal([]byte(c.Content), &out) // it was written by FillCard; an empty card is judged as one
	return out
}

// cardHolds is how long a card holds: a camera that lay in its case over night is looked at
// anew.
const cardHolds = 12 * time.Hour

// judged holds the newest card against the plan; nil where there is none.
func (p Plan) judged(now time.Time) []judge.Broken {
	if p.Card == nil {
		return nil
	}
	c := p.Card.set()
	need, planned, key := 0.0, 0.0, ""
	if x := p.Out.Survey; x != nil {
		planned, key = p.Wish.Survey.Shutter, p.Wish.Survey.Camera
	} else if p.Out.Inspect != nil {
		key = p.Wish.Inspect.Camera
	}
	for i := range p.Missions { // what is flown is on the card already
		if p.flown(i+1) == nil {
			n, _, _ := p.Takes(i + 1)
			need += float64(n) * p.pictureMB() / 1000
		}
	}
	out := c.Judge(need, planned)
	switch age := now.Sub(p.Card.At); {
	case age > cardHolds:
		out = append(out, judge.Broken{Wish: "card", Verdict: judge.Watch,
			Sentence: fmt.Sprintf("The card was filled in %.0f hours ago: look at the camera again.", age.Hours())})
	case age < -time.Minute:
		out = append(out, judge.Broken{Wish: "card", Verdict: judge.Watch,
			Sentence: "The card is dated in the future: look at the clocks."})
	}
	if c.Camera != key {
		out = append(out, judge.Broken{Wish: "camera", Verdict: judge.Stop,
			Sentence: "The card was filled in for another camera than the plan takes."})
	}
	return out
}

// FillCard keeps a camera card; the newest counts.
func (s *Service) FillCard(ctx context.Context, id, job, aircraft uuid.UUID, c camera.Card) error {
	p, err := s.kept(ctx, job, aircraft)
	if err != nil {
		return err
	}
	for _, k := range p.Cameras {
		if k.Key == c.Camera {
			c.BaseISO = k.BaseISO
		}
	}
	if err := c.Check(); err != nil {
		return cardFields.Refused(err)
	}
	content, err := json.Marshal(c)
	if err != nil {
		return err
	}
	by, now := people.From(ctx), s.Clock.Now()
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		if err := p.lock(tx); err != nil {
			return err
		}
		var n int
		if err := tx.Raw("select count(*) from camera_cards where id = ?", id).Scan(&n).Error; err != nil || n > 0 {
			return err // the same press sent twice
		}
		if err := tx.Create(&Card{ID: id, PlanID: p.ID, Content: string(content), At: now,
			ByName: by.Name}).Error; err != nil {
			return err
		}
		_, err := records.Append(ctx, tx, records.Entry{Kind: records.CameraCarded, Subject: p.Aircraft.ID, At: now,
			By: by.By(), Summary: p.Aircraft.Name + ": camera card for " + p.Job.Aim,
			Content: map[string]any{"plan": p.ID, "card": c}})
		return err
	})
}

// cardFields are the fields of a card by the names that the core gives them.
var cardFields = planning.Fields{Of: []error{camera.ErrInput}, Else: "card",
	By: map[string]string{"the light": "light", "pictures a second": "fps", "metered shutter": "metered",
		"shutter": "shutter", "filter": "filter_stop", "sensitivity": "iso", "white balance": "kelvin",
		"free space": "free_gb"}}
