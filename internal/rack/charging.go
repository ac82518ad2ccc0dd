package rack

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/core/judge"
	"mainstay/core/pack"
	"mainstay/core/units"
	"mainstay/internal/fleet"
	"mainstay/internal/people"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/outside"
)

// channel is what the charger reports, as docs/protocols/charger.json says.
// What it does not say is missing, not zero.
type channel struct {
	Channel      int       `json:"channel"`
	Phase        string    `json:"phase"`
	Session      string    `json:"session"`
	Percent      *float64  `json:"percent"`
	CellMV       []int     `json:"cell_mv"`
	MilliOhm     []float64 `json:"cell_mohm"`
	TemperatureC *float64  `json:"temperature_c"`
	MAhIn        *float64  `json:"mah_in"`
	MAhOut       *float64  `json:"mah_out"`
	Message      string    `json:"message"`
}

// check refuses what no charger can mean.
func (c channel) check() error {
	between := func(v *float64, lo, hi float64) bool { return v == nil || *v >= lo && *v <= hi }
	if c.Channel < 1 || c.Channel > 64 || len(c.CellMV) > 48 || len(c.MilliOhm) > 48 || !between(c.Percent, 0, 110) ||
		!between(c.TemperatureC, -60, 200) || !between(c.MAhIn, 0, 1e6) || !between(c.MAhOut, 0, 1e6) {
		return fmt.Errorf("%w reports what no channel can be", outside.ErrService)
	}
	return nil
}

// level says how full a pack on charge is, for sentences.
func (c channel) level() string {
	if c.Percent == nil {
		return "level not said"
	}
	return fmt.Sprintf("%.0f %%", *c.Percent)
}

func channels(ctx context.Context, l *outside.Link) ([]channel, error) {
	var out struct {
		Channels []channel `json:"channels"`
	}
	err := l.Call(ctx, http.MethodGet, "/channels", nil, &out)
	if err == nil && len(out.Channels) == 0 {
		err = fmt.Errorf("%w reports no channel", outside.ErrService)
	}
	for _, c := range out.Channels {
		err = errors.Join(err, c.check())
	}
	return out.Channels, err
}

// Charge is one charge of a pack on a channel.
type Charge struct {
	ID        uuid.UUID
	PackID    uuid.UUID
	Channel   int
	Target    string
	StartedAt time.Time
	ByName    string
	EndedAt   *time.Time
	Outcome   string
}

// Status is what the charger is doing.
type Status struct {
	Configured bool
	Reachable  bool
	Sentence   string
	Channels   []ChannelStatus
}

// ChannelStatus is one channel with the pack that Mainstay put on it.
type ChannelStatus struct {
	channel
	Charge   *Charge
	Pack     *fleet.Pack
	Verdict  judge.Verdict
	Sentence string
}

const lost = "The charger does not answer. What it is doing now is not known: look at it. What was measured so far is kept."

// Status asks the charger and takes in what has finished.
func (s *Service) Status(ctx context.Context) (Status, error) {
	if s.Charger == nil {
		return Status{Sentence: "No charger on the network is set up. Readings come by hand or by file."}, nil
	}
	chans, err := channels(ctx, s.Charger)
	if err != nil {
		return Status{Configured: true, Sentence: lost}, nil
	}
	if err := s.collect(ctx, chans); err != nil {
		return Status{}, err
	}
	var open []Charge
	if err := s.DB.WithContext(ctx).Raw("select * from charges where ended_at is null").Scan(&open).Error; err != nil {
		return Status{}, err
	}
	out := Status{Configured: true, Reachable: true, Sentence: "The charger answers."}
	for _, c := range chans {
		st := ChannelStatus{channel: c, Sentence: "Free."}
		for i := range open {
			if open[i].Channel != c.Channel {
				continue
			}
			p, err := s.Fleet.Pack(ctx, open[i].PackID)
			if err != nil {
				return out, err
			}
			st.Charge, st.Pack = &open[i], &p
			st.Verdict, st.Sentence = judgeChannel(p, c)
			if c.Session != open[i].ID.String() {
				st.Verdict, st.Sentence = judge.Watch, "The charger is doing something else than it was told. Look at it."
			}
		}
		if st.Charge == nil && c.Phase != "idle" {
			st.Verdict, st.Sentence = judge.Watch, "In use, but not started from here: its readings go to no pack."
		}
		out.Channels = append(out.Channels, st)
	}
	return out, nil
}

// judgeChannel judges a pack on charge while it charges.
func judgeChannel(p fleet.Pack, c channel) (judge.Verdict, string) {
	switch {
	case c.TemperatureC != nil && *c.TemperatureC > 45:
		return judge.Stop, fmt.Sprintf("%s is at %.0f °C on the charger: take it off and put it outside.", p.Label,
			*c.TemperatureC)
	case len(c.CellMV) != p.Cells:
		return judge.Stop, fmt.Sprintf("The charger reads %d cells of %s, it has %d. Stop and check the balance lead.",
			len(c.CellMV), p.Label, p.Cells)
	}
	mv := make([]units.Millivolts, len(c.CellMV))
	for i, v := range c.CellMV {
		mv[i] = units.Millivolts(v)
	}
	j, err := pack.JudgeCells(pack.Chemistry(p.Chemistry), p.Cells, mv)
	if err != nil {
		return judge.Stop, fmt.Sprintf("The cells of %s cannot be read: %v.", p.Label, err)
	}
	switch {
	case !slices.Contains(phases, c.Phase):
		return max(j.Verdict,
				judge.Watch), fmt.Sprintf("%s. The charger says %q, which is no phase of a charge. Look at it. %s", c.level(),
				c.Phase, j.Sentence)
	case c.TemperatureC == nil:
		return max(j.Verdict,
				judge.Watch), fmt.Sprintf("%s. The charger does not say how warm %s is: feel it now and then. %s", c.level(),
				p.Label, j.Sentence)
	case j.Verdict == judge.Clear:
		return judge.Clear, fmt.Sprintf("%s, %.0f °C. %s", c.level(), *c.TemperatureC, j.Sentence)
	}
	return j.Verdict, fmt.Sprintf("%s. %s", c.level(), j.Sentence)
}

// phases of a channel.
var phases = []string{"idle", "charging", "done", "fault"}

// StorageLevel is the level of a pack at storage, percent.
const StorageLevel = 40.0

// Begin puts a pack on a channel, to full or to storage level. felt says that
// somebody felt it just now, where nobody knows its temperature.
func (s *Service) Begin(ctx context.Context, channelNo int, id uuid.UUID, target string, felt bool) error {
	if s.Charger == nil {
		return fault.Clash("no-charger", "No charger on the network is set up.")
	}
	by := people.From(ctx)
	views, err := s.Fleet.PackViews(ctx, []uuid.UUID{id})
	if err != nil {
		return err
	}
	if len(views) == 0 {
		return fault.Missing("pack")
	}
	v := views[0]
	level, _, _ := v.Level()
	if level == nil {
		return fault.Clash("level-unknown", "The level of %s is not known. Read it before it goes on the charger.", v.Label)
	}
	if verdict, sentence := v.Judge(); verdict == judge.Stop {
		return fault.Clash("must-not-charge", "%s must not be charged: %s", v.Label, sentence)
	}
	var temp *units.Celsius
	var age time.Duration
	if r := v.Reading; r != nil {
		temp, age = (*units.Celsius)(r.TemperatureC), s.Clock.Now().Sub(r.At)
	}
	switch j := pack.JudgeCharge(temp, age); {
	case j.Verdict == judge.Stop:
		return fault.Clash("must-not-charge", "%s: %s", v.Label, j.Sentence)
	case j.Verdict == judge.Watch && !felt:
		return fault.Clash("feel-it", "%s: %s", v.Label, j.Sentence)
	}
	cell, err := pack.CellOf(pack.Chemistry(v.Chemistry))
	if err != nil {
		return err
	}
	to := StorageLevel
	if target == "full" {
		to = 100
	}
	cid, err := uuid.NewV7()
	if err != nil {
		return err
	}
	before := pack.State("")
	err = db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		packs, err := fleet.LockPacks(tx, []uuid.UUID{id})
		if err != nil {
			return err
		}
		before = pack.State(packs[0].State)
		if err := s.Fleet.SetState(ctx, tx, &packs[0], pack.Charging, nil, ""); err != nil {
			return err
		}
		return tx.Exec("insert into charges (id, pack_id, channel, target, started_at, by_name, felt) values (?, ?, ?, ?, ?, ?, ?)",
			cid, id, channelNo, target, s.Clock.Now(), by.Name, felt).Error
	})
	if err != nil {
		return err
	}
	// Outside of the transaction: a charger that is slow holds nobody. Should this program stop just now, the page of the
	// charger says that it does something else than it was told.
	err = s.Charger.Call(ctx, http.MethodPost, fmt.Sprintf("/channels/%d/start", channelNo),
		map[string]any{"session": cid, "pack": v.Label, "cells": v.Cells, "capacity_mah": v.CapacityMAh,
			"full_mv": cell.Full, "empty_mv": cell.LandBy, "from_percent": *level, "to_percent": to}, nil)
	if errors.Is(err, outside.ErrService) {
		why := fault.Clash("charger",
			"The charger did not take %s on channel %d (%v). Nothing was started here; look at the charger.", v.Label, channelNo,
			err)
		return errors.Join(s.notTaken(context.WithoutCancel(ctx), cid, id, before), why)
	}
	return err
}

// notTaken takes back a charge that the charger did not begin.
func (s *Service) notTaken(ctx context.Context, charge, id uuid.UUID, before pack.State) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		packs, err := fleet.LockPacks(tx, []uuid.UUID{id})
		if err != nil {
			return err
		}
		if err := tx.Exec("update charges set ended_at = ?, outcome = 'not taken' where id = ? and ended_at is null",
			s.Clock.Now(), charge).Error; err != nil || packs[0].State != string(pack.Charging) {
			return err
		}
		return fleet.PutBack(tx, id, before)
	})
}

// End stops a channel; what was measured is kept.
func (s *Service) End(ctx context.Context, channelNo int) error {
	if s.Charger == nil {
		return fault.Clash("no-charger", "No charger on the network is set up.")
	}
	chans, err := channels(ctx, s.Charger)
	if err != nil {
		return fault.Clash("charger", "%s", lost)
	}
	for _, c := range chans {
		if c.Channel == channelNo {
			if err := s.finish(ctx, c, "stopped by hand"); err != nil {
				return err
			}
		}
	}
	if err := s.Charger.Call(ctx, http.MethodPost, fmt.Sprintf("/channels/%d/stop", channelNo), nil, nil); err != nil {
		return fault.Clash("charger", "%s", lost)
	}
	return nil
}

// collect takes in every charge that has ended.
func (s *Service) collect(ctx context.Context, chans []channel) error {
	for _, c := range chans {
		switch c.Phase {
		case "done":
			if err := s.finish(ctx, c, "done"); err != nil {
				return err
			}
		case "fault":
			if err := s.finish(ctx, c, "fault: "+c.Message); err != nil {
				return err
			}
		}
	}
	return nil
}

// finish stores the reading of a charge that has ended and moves the pack. It
// may be asked by many servers and pages at once; one of them does it.
func (s *Service) finish(ctx context.Context, c channel, outcome string) error {
	return db.Tx(ctx, s.DB, func(ctx context.Context, tx *gorm.DB) error {
		var ch Charge
		if err := tx.Raw("select * from charges where channel = ? and ended_at is null for no key update skip locked",
			c.Channel).Scan(&ch).Error; err != nil || ch.ID == uuid.Nil || c.Session != ch.ID.String() {
			return err
		}
		ctx = people.With(ctx, people.Person{Name: ch.ByName})
		packs, err := fleet.LockPacks(tx, []uuid.UUID{ch.PackID})
		if err != nil {
			return err
		}
		p := packs[0]
		verdict, sentence := judgeChannel(p, c)
		now := s.Clock.Now()
		if len(c.CellMV) == p.Cells && len(c.MilliOhm) == p.Cells {
			zero := 0.0
			n := fleet.NewReading{ID: uuid.NewSHA1(readings, ch.ID[:]), CellMV: c.CellMV, MilliOhm: c.MilliOhm,
				TemperatureC: c.TemperatureC, RestedMin: &zero, Source: "charger"}
			c.moved(&n, float64(p.CapacityMAh))
			if _, err := s.Fleet.ReadPack(ctx, p.ID, n); err != nil {
				return err
			}
		}
		to, why := pack.Charged, ""
		if ch.Target == "storage" || c.Percent == nil || *c.Percent < 90 {
			to = pack.Storage
		}
		if strings.HasPrefix(outcome, "fault") || verdict == judge.Stop {
			to, why = pack.Quarantine, "On the charger: "+strings.TrimPrefix(outcome, "fault: ")+". "+sentence
		}
		if p.State == string(pack.Charging) {
			if err := s.Fleet.SetState(ctx, tx, &p, to, nil, why); err != nil {
				return err
			}
		}
		return tx.Exec("update charges set ended_at = ?, outcome = ? where id = ?", now, outcome, ch.ID).Error
	})
}

// moved notes level and charge in a reading, as far as the charger says them.
func (c channel) moved(n *fleet.NewReading, capacity float64) {
	if c.Percent != nil {
		end := min(*c.Percent, 100)
		n.Percent, n.EndPercent = &end, &end
	}
	in, out := 0.0, 0.0
	if c.MAhIn != nil {
		in = *c.MAhIn
	}
	if c.MAhOut != nil {
		out = *c.MAhOut
	}
	switch {
	case out > 0:
		n.MAhOut = &out
	case in > 0:
		n.MAhIn = &in
	}
	if n.EndPercent != nil && (in > 0 || out > 0) {
		from := min(max(*n.EndPercent-(in-out)/capacity*100, 0), 100)
		n.StartPercent = &from
	}
}

// Watch asks the charger now and then until ctx ends, so that a charge that
// ends at night is on record in the morning.
func (s *Service) Watch(ctx context.Context, every time.Duration, failed func(error)) {
	if s.Charger == nil {
		return
	}
	t := time.NewTicker(every)
	defer t.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-t.C:
			if chans, err := channels(ctx, s.Charger); err == nil {
				if err := s.collect(ctx, chans); err != nil && ctx.Err() == nil {
					failed(err)
				}
			}
		}
	}
}
