// Package bench is the calculators of the crew, each alone: what goes in, what
// comes out, the formula, its limits and its source. They call the same functions as
// every judgement.
package bench

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"mainstay/core/metar"
	"mainstay/core/why"
)

// Input is a number that a calculator asks for.
type Input struct {
	Name    string  `json:"name"`
	Label   string  `json:"label"`
	Unit    string  `json:"unit"` // code of the base unit, or a word; empty: a plain number
	Default float64 `json:"default"`
	Least   float64 `json:"least"`
	Most    float64 `json:"most"`
}

// Result is a number that comes out.
type Result struct {
	Label  string  `json:"label"`
	Value  float64 `json:"value"`
	Unit   string  `json:"unit"`
	Digits int     `json:"digits"`
}

// Calculator is one of them.
type Calculator struct {
	Key     string
	Group   string
	Title   string
	Formula string
	Limits  string
	Source  string
	Inputs  []Input
	// Text is the label of a text that it reads instead of numbers; "": none.
	Text, TextDefault string
	compute           func(v values) ([]Result, string, error)
	decode            func(text string) ([]Result, string, error)
}

// Groups lists the groups in the order of work.
var Groups = []string{"Air", "Wind", "Heights", "Power and endurance", "Packs", "Spraying", "Mapping and inspection",
	"Sun and reports", "Flight signs"}

// values are the inputs by name; every name that a calculator asks for is there.
type values map[string]float64

// ErrInput is wrapped by every refusal; its text names the input.
var ErrInput = errors.New("bench: input not usable")

// FieldError is what is wrong with one input.
type FieldError struct{ Field, Sentence string }

func (e FieldError) Error() string { return e.Field + ": " + e.Sentence }

// Unwrap is ErrInput.
func (e FieldError) Unwrap() error { return ErrInput }

// Find returns a calculator.
func Find(key string) (Calculator, bool) {
	for _, c := range All {
		if c.Key == key {
			return c, true
		}
	}
	return Calculator{}, false
}

// Compute works a calculator out: results, and a sentence that belongs to them where
// there is one. An input that is left out takes its default. Errors wrap ErrInput.
func (c Calculator) Compute(given map[string]float64) ([]Result, string, error) {
	v := values{}
	for name := range given {
		if !slices.ContainsFunc(c.Inputs, func(in Input) bool { return in.Name == name }) {
			return nil, "", FieldError{name, "This calculator does not ask for that."}
		}
	}
	for _, in := range c.Inputs {
		x, ok := given[in.Name]
		if !ok {
			x = in.Default
		}
		if !(x >= in.Least && x <= in.Most) {
			return nil, "", FieldError{in.Name, fmt.Sprintf("Enter %g to %g %s.", in.Least, in.Most, in.Unit)}
		}
		v[in.Name] = x
	}
	if c.compute == nil {
		return c.Read(c.TextDefault)
	}
	return finish(c.compute(v))
}

// MostText bounds a text, in bytes.
const MostText = metar.MaxLength

// Read works a calculator of a text out. Errors wrap ErrInput.
func (c Calculator) Read(text string) ([]Result, string, error) {
	switch {
	case c.decode == nil:
		return nil, "", FieldError{"text", "This calculator takes numbers."}
	case strings.TrimSpace(text) == "" || len(text) > MostText:
		return nil, "", FieldError{"text", fmt.Sprintf("Enter the text, at most %d characters.", MostText)}
	}
	return finish(c.decode(text))
}

// finish refuses what has no answer, in words.
func finish(out []Result, says string, err error) ([]Result, string, error) {
	if err != nil {
		first, _, _ := strings.Cut(err.Error(), "\n")
		if _, after, ok := strings.Cut(first, ": "); ok {
			first = after
		}
		return nil, "", why.Not(ErrInput, "%s", first)
	}
	for _, r := range out {
		if math.IsNaN(r.Value) || math.IsInf(r.Value, 0) {
			return nil, "", why.Not(ErrInput, "these numbers have no answer")
		}
	}
	return out, says, nil
}

// All lists the calculators, by group.
var All = func() []Calculator {
	var out []Calculator
	for _, g := range [][]Calculator{airAndWind, heights, power, packs, spraying, pictures, sky, signs} {
		out = append(out, g...)
	}
	return out
}()
