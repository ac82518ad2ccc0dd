// Package camera is the card of a camera before a flight: shutter, filter, white balance,
// card and the test picture. Times are seconds, temperatures of light K.
package camera

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"mainstay/core/judge"
	"mainstay/core/units"
	"mainstay/core/why"
)

// ErrInput is wrapped by every refusal.
var ErrInput = errors.New("camera: input not usable")

var within = units.Refuser{Wraps: ErrInput}.Within

// Light is what the pictures are taken in.
type Light string

// The kinds of light, with the white balance that suits them (usual practice).
const (
	Sun   Light = "sun"
	Cloud Light = "cloud"
	Night Light = "night"
)

// AllLights lists them.
var AllLights = []Light{Sun, Cloud, Night}

// Kelvin is the white balance of a light, K.
func (l Light) Kelvin() float64 { return map[Light]float64{Sun: 5600, Cloud: 7000, Night: 3200}[l] }

// BalanceK is how far the white balance may be from that of the light, K.
const BalanceK = 600.0

// Stops is how many stops of filter bring a metered exposure to a wanted one:
// log2(wanted/metered). Below 0 it is too dark for any. Valid: 1/20000-30 s.
func Stops(meteredS, wantedS float64) (float64, error) {
	if err := errors.Join(within("metered exposure", meteredS, 1.0/20000, 30),
		within("wanted exposure", wantedS, 1.0/20000, 30)); err != nil {
		return 0, err
	}
	return math.Log2(wantedS / meteredS), nil
}

// Shutter is the exposure of video: half of the time of a picture, s. Valid: 1-240
// pictures a second.
func Shutter(fps float64) (float64, error) {
	if err := within("pictures a second", fps, 1, 240); err != nil {
		return 0, err
	}
	return 1 / (2 * fps), nil
}

// Card is what was set and seen on a camera before a flight; nil is not looked at.
type Card struct {
	Camera     string   `json:"camera"` // key
	Light      Light    `json:"light"`
	Video      bool     `json:"video"`
	FPS        float64  `json:"fps"`
	Shutter    float64  `json:"shutter"`     // set, 1/s
	Metered    float64  `json:"metered"`     // as the camera meters without a filter, 1/s; 0: not metered
	FilterStop float64  `json:"filter_stop"` // fitted, 0: none
	GimbalOff  *bool    `json:"gimbal_off"`  // while the filter was fitted
	ISO        int      `json:"iso"`
	BaseISO    int      `json:"base_iso"`
	KelvinK    float64  `json:"kelvin"`
	Profile    string   `json:"profile"` // of colour, as agreed with whoever edits
	Formatted  *bool    `json:"formatted"`
	FreeGB     *float64 `json:"free_gb"`
	CapOff     *bool    `json:"cap_off"`
	Before     *int     `json:"before"` // picture counter before the test picture
	After      *int     `json:"after"`
}

// Check refuses what cannot be set.
func (c Card) Check() error {
	var err error
	if !slices.Contains(AllLights, c.Light) {
		err = why.Not(ErrInput, "the light is %q, none of %v", c.Light, AllLights)
	}
	free := 0.0
	if c.FreeGB != nil {
		free = *c.FreeGB
	}
	if c.Video {
		err = errors.Join(err, within("pictures a second", c.FPS, 1, 240))
	}
	if c.Metered != 0 {
		err = errors.Join(err, within("metered shutter", c.Metered, 1, 20000))
	}
	return errors.Join(err, within("shutter", c.Shutter, 1, 20000), within("filter", c.FilterStop, 0, 12),
		within("sensitivity", float64(c.ISO), 20, 102400), within("white balance", c.KelvinK, 1500, 15000),
		within("free space", free, 0, 10_000))
}

// Judge says what stands against flying with a card as it is set. needGB is what the plan
// takes; planned is the shutter that it was reckoned with, 1/s; 0: none.
func (c Card) Judge(needGB, planned float64) []judge.Broken {
	out := []judge.Broken{}
	say := func(wish string, v judge.Verdict, nearest *float64, format string, a ...any) {
		out = append(out, judge.Broken{Wish: wish, Verdict: v, Sentence: fmt.Sprintf(format, a...), Nearest: nearest})
	}
	asked := func(wish string, v *bool, unknown, no string) {
		switch {
		case v == nil:
			say(wish, judge.Watch, nil, "%s", unknown)
		case !*v:
			say(wish, judge.Stop, nil, "%s", no)
		}
	}
	asked("cap_off", c.CapOff, "Nobody has looked whether the lens cap is off.", "The lens cap is on.")
	asked("formatted", c.Formatted, "Whether the card was formatted in the aircraft is not known.",
		"The card was not formatted in the aircraft: a card of another device loses pictures.")
	switch {
	case c.FreeGB == nil:
		say("free_gb", judge.Watch, nil, "How much is free on the card is not known; the plan takes %.1f GB.", needGB)
	case *c.FreeGB < needGB:
		say("free_gb", judge.Stop, &needGB, "%.1f GB are free on the card; the plan takes %.1f.", *c.FreeGB, needGB)
	}
	switch {
	case c.Before == nil || c.After == nil:
		say("after", judge.Stop, nil, "No test picture was taken: the counter must go up by it.")
	case *c.After <= *c.Before:
		say("after", judge.Stop, nil,
			"The counter stood at %d before the test picture and at %d after it: no picture was kept.", *c.Before, *c.After)
	}
	if c.FilterStop > 0 {
		asked("gimbal_off", c.GimbalOff, "Whether the gimbal was off while the filter was fitted is not known.",
			"The filter was fitted with the gimbal on: its motors may be harmed. Watch that it comes level and holds.")
	}
	if k := c.Light.Kelvin(); math.Abs(c.KelvinK-k) > BalanceK {
		say("kelvin", judge.Watch, &k, "White balance is %.0f K; %s asks for about %.0f.", c.KelvinK, c.Light, k)
	}
	if c.BaseISO > 0 && c.ISO > c.BaseISO {
		base := float64(c.BaseISO)
		say("iso", judge.Watch, &base, "Sensitivity is %d, over the base of %d: pictures are noisier.", c.ISO, c.BaseISO)
	}
	c.exposure(planned, say)
	return out
}

func (c Card) exposure(planned float64, say func(string, judge.Verdict, *float64, string, ...any)) {
	if c.Video {
		want, err := Shutter(c.FPS)
		if err != nil {
			return // Check refuses it
		}
		near := 1 / want
		if stops := math.Abs(math.Log2(near / c.Shutter)); stops > 0.34 {
			say("shutter", judge.Watch, &near, "Shutter is 1/%.0f s; %.0f pictures a second ask for 1/%.0f.", c.Shutter, c.FPS,
				near)
		}
	} else if planned > 0 && c.Shutter < planned*(1-1e-9) {
		say("shutter", judge.Watch, &planned, "Shutter is 1/%.0f s; the plan was reckoned with 1/%.0f: pictures smear more.",
			c.Shutter, planned)
	}
	if c.Metered == 0 {
		return
	}
	need, err := Stops(1/c.Metered, 1/c.Shutter)
	if err != nil {
		return
	}
	switch {
	case need < -0.34:
		say("filter_stop", judge.Watch, nil,
			"It is %.1f stops too dark for this shutter without a filter: take a longer exposure or more sensitivity.", -need)
	case math.Abs(need-c.FilterStop) > 0.67:
		need = max(0, math.Round(need))
		say("filter_stop", judge.Watch, &need, "A filter of %.0f stops fits this light; %.0f are fitted.", need, c.FilterStop)
	}
}
