// Package bench serves the calculators of the crew, and the simulation of a day.
package bench

import (
	"context"
	"errors"
	"math"
	"strings"

	"mainstay/api"
	"mainstay/core/bench"
	"mainstay/core/rotation"
	"mainstay/core/why"
	"mainstay/internal/platform/fault"
)

// Handlers serve the bench.
type Handlers struct{}

func (Handlers) ListCalculators(context.Context,
	api.ListCalculatorsRequestObject) (api.ListCalculatorsResponseObject, error) {
	out := api.ListCalculators200JSONResponse{Groups: bench.Groups, Calculators: []api.Calculator{}}
	for _, c := range bench.All {
		out.Calculators = append(out.Calculators, api.Calculator{Key: c.Key, Group: c.Group, Title: c.Title,
			Formula: c.Formula, Limits: c.Limits, Source: c.Source, Inputs: append([]bench.Input{}, c.Inputs...), Text: c.Text,
			TextDefault: c.TextDefault})
	}
	return out, nil
}

func (Handlers) Calculate(_ context.Context, r api.CalculateRequestObject) (api.CalculateResponseObject, error) {
	c, ok := bench.Find(r.Key)
	if !ok {
		return nil, fault.Missing("calculator")
	}
	var out []bench.Result
	var says string
	var err error
	if r.Body.Text != nil {
		out, says, err = c.Read(*r.Body.Text)
	} else {
		out, says, err = c.Compute(r.Body.Values)
	}
	var field bench.FieldError
	switch {
	case errors.As(err, &field):
		if field.Field == "text" {
			return nil, fault.Bad("text", "%s", field.Sentence)
		}
		return nil, fault.Bad("values."+field.Field, "%s", field.Sentence)
	case err != nil:
		words := why.Words(err)
		return nil, fault.Bad("values", "%s.", strings.ToUpper(words[:1])+words[1:])
	}
	return api.Calculate200JSONResponse{Results: out, Says: says}, nil
}

func (Handlers) SimulateDay(_ context.Context, r api.SimulateDayRequestObject) (api.SimulateDayResponseObject, error) {
	d := r.Body.Day
	run, err := d.Simulate()
	stuck := errors.Is(err, rotation.ErrStuck)
	if err != nil && !stuck {
		return nil, refused(err)
	}
	out := api.SimulateDay200JSONResponse{Run: run, Gains: []api.RotationGain{}, Stuck: stuck}
	gains, err := d.Gains()
	if err != nil {
		return nil, refused(err)
	}
	for _, g := range gains {
		w := api.RotationGain{More: api.RotationGainMore(g.More), EndS: g.EndS}
		if !math.IsInf(g.SavedS, 0) {
			w.SavedS = &g.SavedS
		}
		out.Gains = append(out.Gains, w)
	}
	if stuck {
		return out, nil
	}
	if b := rotation.Bottleneck(run, gains); b != "" {
		s := string(b)
		out.Bottleneck = &s
	}
	if r.Body.Runs != nil {
		s, err := d.Simulations(*r.Body.Runs, uint64(max(0, r.Body.Seed)), rotation.Usual)
		if err != nil {
			return nil, refused(err)
		}
		out.Spread = &s
	}
	return out, nil
}

// refused puts a refusal of the simulation into a sentence.
func refused(err error) error {
	words := why.Words(err)
	return fault.Bad("day", "%s.", strings.ToUpper(words[:1])+words[1:])
}
