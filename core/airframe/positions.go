package airframe

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Equipment is a kind of part that a type carries beside its motors,
// propellers and airframe: Count pieces at every station of the kind or id At.
type Equipment struct {
	Kind  string `json:"kind"`
	At    string `json:"at"`
	Count int    `json:"count,omitempty"` // 0 is 1
}

// EquipmentKinds are the parts with a life that a type may carry.
var EquipmentKinds = []string{"arm", "wing", "speed-controller", "landing-gear", "gimbal", "sensor", "pump", "nozzle",
	"hose", "filter", "spreader", "light", "receiver"}

// KindName is a kind of part in words.
func KindName(kind string) string { return strings.ReplaceAll(kind, "-", " ") }

// Position is a place that carries one part. Positions make a tree: Parent is
// the position that a part sits on, "" for the airframe itself.
type Position struct {
	ID       string `json:"id"`
	Kind     string `json:"kind"`
	Label    string `json:"label"`
	Station  string `json:"station"` // where it is drawn
	Parent   string `json:"parent"`
	Required bool   `json:"required"` // without it the aircraft must not fly
}

func (t Type) checkEquipment() error {
	ids := map[string]bool{}
	for _, e := range t.Equipment {
		if !slices.Contains(EquipmentKinds, e.Kind) {
			return fmt.Errorf("equipment %q is none of %s", e.Kind, strings.Join(EquipmentKinds, ", "))
		}
		if e.Count < 0 || e.Count > 40 {
			return fmt.Errorf("equipment %s: count must be 1-40", e.Kind)
		}
		if len(t.stationsOf(e.At)) == 0 {
			return fmt.Errorf("equipment %s: there is no station %q", e.Kind, e.At)
		}
	}
	for _, p := range t.Positions() {
		if ids[p.ID] {
			return fmt.Errorf("equipment: position %s is there twice", p.ID)
		}
		ids[p.ID] = true
	}
	return nil
}

func (t Type) stationsOf(at string) []Station {
	var out []Station
	for _, s := range t.Stations() {
		if s.ID == at {
			return []Station{s}
		}
		if s.Kind == at {
			out = append(out, s)
		}
	}
	return out
}

// Positions lists every place that carries a part with a life: first those the
// geometry gives, then the equipment.
func (t Type) Positions() []Position {
	if t.shape != nil {
		return t.shape.positions
	}
	arms := slices.ContainsFunc(t.Equipment, func(e Equipment) bool { return e.Kind == "arm" })
	var out []Position
	for _, s := range t.PartStations() {
		p := Position{ID: s.ID, Kind: s.Part, Label: s.Label, Station: s.ID, Required: true, Parent: "frame"}
		_, n, _ := strings.Cut(s.ID, "-")
		switch s.Part {
		case "airframe":
			p.Parent = ""
		case "propeller":
			p.Parent = "motor-" + n
		case "motor":
			if m, err := strconv.Atoi(n); arms && err == nil {
				p.Parent = fmt.Sprintf("arm-%d", t.ArmOf(m))
			}
		}
		out = append(out, p)
	}
	for _, e := range t.Equipment {
		stations := t.stationsOf(e.At)
		for _, s := range stations {
			for i := range max(e.Count, 1) {
				p := Position{ID: e.Kind, Kind: e.Kind, Station: s.ID, Parent: "frame"}
				name := KindName(e.Kind)
				name = strings.ToUpper(name[:1]) + name[1:]
				suffix := ""
				if _, n, ok := strings.Cut(s.ID, "-"); ok && len(stations) > 1 {
					suffix = n
				}
				if e.Count > 1 {
					suffix = strings.TrimPrefix(fmt.Sprintf("%s-%d", suffix, i+1), "-")
				}
				p.Label = name
				if suffix != "" {
					p.ID += "-" + suffix
					p.Label += " " + strings.ReplaceAll(suffix, "-", " ")
				}
				if arms && s.Kind == "arm" && e.Kind != "arm" {
					p.Parent = s.ID
				}
				out = append(out, p)
			}
		}
	}
	return out
}
