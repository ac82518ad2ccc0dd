package people

import (
	"context"
	"encoding/json"
	"maps"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/crew"
	"mainstay/core/units"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Shown is the unit in which each quantity is shown.
type Shown struct {
	Length      string `json:"length"`
	Speed       string `json:"speed"`
	Mass        string `json:"mass"`
	Temperature string `json:"temperature"`
	Volume      string `json:"volume"`
}

// Crew is the crew itself.
type Crew struct {
	Name  string
	Zone  string
	Units Shown `gorm:"serializer:json"`

	TileURL  string  `gorm:"column:tile_url"` // where map pictures come from, with {z}, {x}, {y}; empty: none
	RulePack string  // name of the rule pack it flies under
	SightM   float64 `gorm:"column:sight_m"` // how far its people see an aircraft well
	HeadTo   string  // where the newest head of the chain is sent, an address a line
	// KeepPlaces lets photos keep where they were taken.
	KeepPlaces bool
	Version    int
}

// TableName is the table of the one crew.
func (Crew) TableName() string { return "crew" }

// Location is the crew's time zone.
func (c Crew) Location() *time.Location {
	if l, ok := knownZones.Load(c.Zone); ok {
		if loc, ok := l.(*time.Location); ok {
			return loc
		}
	}
	loc, err := time.LoadLocation(c.Zone)
	if err != nil {
		return time.UTC
	}
	knownZones.Store(c.Zone, loc)
	return loc
}

// knownZones keeps zones already read; reading one costs more than a page.
var knownZones sync.Map

// Day returns the civil date of t in the crew's zone, as UTC midnight.
func (c Crew) Day(t time.Time) time.Time {
	y, m, d := t.In(c.Location()).Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

// tileForm admits nothing that could end up as another part of a header.
var tileForm = regexp.MustCompile(`^https?://[A-Za-z0-9.-]+(:[0-9]{1,5})?/[A-Za-z0-9._~/{}?=&%-]+$`)

// TileOrigin is scheme and host of the map pictures; empty without any.
func (c Crew) TileOrigin() string {
	u, err := url.Parse(strings.NewReplacer("{", "", "}", "").Replace(c.TileURL))
	if err != nil || c.TileURL == "" {
		return ""
	}
	return u.Scheme + "://" + u.Host
}

func checkCrew(c Crew) []fault.Field {
	var out []fault.Field
	if strings.TrimSpace(c.Name) == "" {
		out = append(out, fault.Field{Field: "crew_name", Sentence: "Enter the crew's name."})
	}
	if _, err := time.LoadLocation(c.Zone); err != nil || c.Zone == "" || c.Zone == "Local" {
		out = append(out, fault.Field{Field: "zone", Sentence: "Choose a time zone from the list, like America/Los_Angeles."})
	}
	if c.TileURL != "" && (!tileForm.MatchString(c.TileURL) || !strings.Contains(c.TileURL, "{z}") ||
		!strings.Contains(c.TileURL, "{x}") || !strings.Contains(c.TileURL, "{y}")) {
		out = append(out, fault.Field{Field: "tile_url",
			Sentence: "An address of map pictures looks like https://host/{z}/{x}/{y}.png. Leave it empty to do without."})
	}
	for quantity, code := range map[string]string{"length": c.Units.Length, "speed": c.Units.Speed, "mass": c.Units.Mass,
		"temperature": c.Units.Temperature, "volume": c.Units.Volume} {
		if u, err := units.Find(code); err != nil || u.Quantity != quantity {
			out = append(out, fault.Field{Field: "units." + quantity, Sentence: "Choose a unit of " + quantity + "."})
		}
	}
	return append(out, checkHeads(c.HeadTo)...)
}

// Crew returns the crew; ok is false before it is set up.
func (s *Service) Crew(ctx context.Context) (c Crew, ok bool, err error) {
	err = s.DB.WithContext(ctx).Limit(1).Find(&c).Error
	return c, c.Name != "", err
}

// SetUp makes the crew and its first chief, once. The first chief may fly too
// when a certificate is added later.
func (s *Service) SetUp(ctx context.Context, c Crew, chief New) (Person, error) {
	if _, done, err := s.Crew(ctx); err != nil || done {
		if done {
			err = fault.Clash("already-set-up", "The crew is already set up. Sign in instead.")
		}
		return Person{}, err
	}
	if err := fault.BadFields(checkCrew(c)); err != nil {
		return Person{}, err
	}
	chief.Roles = []crew.Role{crew.Chief, crew.Pilot}
	if chief.ID == uuid.Nil {
		id, err := uuid.NewV7()
		if err != nil {
			return Person{}, err
		}
		chief.ID = id
	}
	var p Person
	err := db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		u, err := json.Marshal(c.Units)
		if err != nil {
			return err
		}
		// The row is one by constraint: of two set-ups at once the second fails here.
		if err := tx.Exec("insert into crew (name, zone, units, created_at) values (?, ?, ?, ?)", strings.TrimSpace(c.Name),
			c.Zone, string(u), s.Clock.Now()).Error; err != nil {
			return err
		}
		if p, err = s.Add(ctx, chief); err != nil {
			return err
		}
		if err := s.keepDevice(ctx, p.ID); err != nil {
			return err
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.CrewSet, At: s.Clock.Now(), By: p.By(),
			Summary: "Crew " + c.Name + " set up.", Content: map[string]any{"crew": c.Name, "zone": c.Zone, "chief": p.Name}})
		return err
	})
	return p, err
}

// UpdateCrew changes the crew's name, zone, units and addresses, if nobody did
// so meanwhile.
func (s *Service) UpdateCrew(ctx context.Context, c Crew) (Crew, error) {
	if err := fault.BadFields(checkCrew(c)); err != nil {
		return c, err
	}
	u, err := json.Marshal(c.Units)
	if err != nil {
		return c, err
	}
	c.Name = strings.TrimSpace(c.Name)
	return c, db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		before, _, err := s.Crew(ctx)
		if err != nil {
			return err
		}
		if err := ChangeCrew(tx, c.Version, map[string]any{"name": c.Name, "zone": c.Zone, "units": string(u),
			"tile_url": c.TileURL,
			"head_to":  c.HeadTo, "keep_places": c.KeepPlaces}); err != nil {
			return err
		}
		c.Version++
		shown := func(c Crew) map[string]any {
			return map[string]any{"name": c.Name, "zone": c.Zone, "units": c.Units, "tile_url": c.TileURL, "head_to": c.HeadTo,
				"keep_places": c.KeepPlaces}
		}
		_, err = records.Append(ctx, tx, records.Entry{Kind: records.CrewChanged, At: s.Clock.Now(), By: From(ctx).By(),
			Summary: "Settings of the crew changed.", Content: map[string]any{"before": shown(before), "after": shown(c)}})
		return err
	})
}

// ChangeCrew sets columns of the crew if nobody changed it meanwhile; every change makes a
// new version.
func ChangeCrew(tx *gorm.DB, version int, set map[string]any) error {
	values := maps.Clone(set)
	values["version"] = version + 1
	done := tx.Table("crew").Where("version = ?", version).Updates(values)
	if done.Error == nil && done.RowsAffected == 0 {
		return fault.Stale("crew")
	}
	return done.Error
}
