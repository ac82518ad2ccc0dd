package flights

import (
	"context"
	"fmt"

	"gorm.io/gorm"

	"mainstay/core/airframe"
	"mainstay/core/checks"
	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/internal/fleet"
	"mainstay/internal/walkround"
)

// Signs are what a pilot may have heard, seen or felt, with where it is looked
// for and what to look for.
var signs = map[string]struct{ station, words string }{
	"vibration":     {"frame", "Shake in flight: propellers over-tightened or bent, a motor, something loose"},
	"odd-sound":     {"frame", "Odd sound in flight: propellers, motor bearings, something loose"},
	"picture-shake": {"payload", "Shaking or blurred pictures: a propeller or motor sign, gimbal, lens"},
	"drift":         {"electronics", "Did not hold still: inertial sensor, compass, position"},
}

// events in flight that somebody finds the cause of before it flies again.
var looked = map[string]struct{ station, words string }{
	"warning":   {"electronics", "Warning in flight"},
	"link-loss": {"antenna", "Link lost in flight"},
	"takeover":  {"electronics", "Taken over by hand in flight"},
	"vibration": {"frame", "Vibration in flight"},
}

// showed makes what a flight showed open defects of its aircraft, so that
// nothing a flight said is forgotten at the next gate: motors that differed in
// the hover or came back warmer than their sisters, each of them; warnings, lost
// links, takeovers; signs; a landing under land-by.
func (s *Service) showed(ctx context.Context, tx *gorm.DB, f Flight, t airframe.Type, packs []fleet.Pack,
	n NewLog) error {
	a, err := s.Fleet.Aircraft(ctx, f.AircraftID)
	if err != nil {
		return err
	}
	has := map[string]bool{}
	for _, st := range t.Stations() {
		has[st.ID] = true
	}
	raise := func(station, item, title, note string, v judge.Verdict) error {
		if !has[station] {
			station = "frame"
		}
		id := f.ID
		return s.Walkrounds.Found(ctx, tx, a.Name, walkround.Defect{AircraftID: f.AircraftID, Station: station, Title: title,
			Note: note, Severity: v.String(), Origin: walkround.ByFlight, Item: "flight/" + item, FlightID: &id})
	}
	if h := f.Hover; h != nil && h.Verdict != judge.Clear {
		if err := raise("frame", "hover", "Motor outputs differed in the hover", h.Sentence, h.Verdict); err != nil {
			return err
		}
	}
	for _, o := range checks.Outliers(checks.WarmthItem(t), n.WarmthC) {
		if err := raise(motorStation(t, o.Index), fmt.Sprintf("warm-motor-%d", o.Index+1),
			fmt.Sprintf("Motor %d came back warmer than its sisters", o.Index+1), o.Sentence, o.Verdict); err != nil {
			return err
		}
	}
	var events []Event
	if err := tx.Order("at, id").Find(&events, "flight_id = ?", f.ID).Error; err != nil {
		return err
	}
	for _, e := range events {
		if l, ok := looked[e.Kind]; ok {
			if err := raise(l.station, e.Kind, l.words, l.words+". "+e.Note+" Find out why.", judge.Watch); err != nil {
				return err
			}
		}
	}
	for _, sign := range n.Signs {
		if l, ok := signs[sign]; ok {
			if err := raise(l.station, sign, l.words[:min(len(l.words), 100)], l.words+".", judge.Watch); err != nil {
				return err
			}
		}
	}
	by := pack.LandBy{Percent: t.Limits.LandByPercent, CellMV: t.Limits.LandByCellMV, Minutes: t.Limits.PlannedMinutes,
		Call: t.Kept().LandingCall(t.Packs.PercentFrom == "pack")}
	for _, p := range packs {
		for _, l := range n.Packs {
			if l.Pack != p.ID {
				continue
			}
			late := by.Under(pack.Landed{Label: p.Label, Percent: l.Percent, CellMV: l.CellMV, Seconds: f.Seconds})
			if late == "" {
				continue
			}
			if err := raise("bay", "under-land-by-"+p.Label, "Landed under land-by with "+p.Label,
				late+" Read it at rest and look at its six faces; fly shorter.", judge.Watch); err != nil {
				return err
			}
		}
	}
	return nil
}

// motorStation is the station of a motor by its index among its sisters.
func motorStation(t airframe.Type, i int) string {
	if t.Geometry.Rotors == 0 {
		return "motor-drive"
	}
	return fmt.Sprintf("motor-%d", i+1)
}
