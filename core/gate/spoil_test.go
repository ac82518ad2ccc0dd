package gate_test

import (
	"fmt"
	"math"
	"reflect"
	"regexp"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"mainstay/core/gate"
)

// spoil is one piece of evidence made unreadable: gone, no number, of no date or
// of a later one.
type spoil struct {
	path string
	in   gate.Input
}

// spoils are all of an input, found by walking it: nobody can forget a new field.
func spoils(in gate.Input) []spoil {
	var out []spoil
	var walk func(path string, get func(*gate.Input) reflect.Value)
	add := func(path, how string, get func(*gate.Input) reflect.Value, v reflect.Value) {
		c := copyOf(in)
		get(&c).Set(v)
		out = append(out, spoil{path + how, c})
	}
	walk = func(path string, get func(*gate.Input) reflect.Value) {
		v := get(&in)
		if !v.CanSet() {
			return
		}
		switch v.Kind() {
		case reflect.Pointer:
			if !v.IsNil() {
				add(path, " gone", get, reflect.Zero(v.Type()))
				walk(path, func(i *gate.Input) reflect.Value { return get(i).Elem() })
			}
		case reflect.Float32, reflect.Float64:
			for _, x := range []float64{math.NaN(), math.Inf(1), math.Inf(-1)} {
				add(path, fmt.Sprintf(" %v", x), get, reflect.ValueOf(x).Convert(v.Type()))
			}
		case reflect.Slice, reflect.Map:
			if v.Len() == 0 {
				return
			}
			add(path, " gone", get, reflect.Zero(v.Type()))
			if v.Kind() == reflect.Slice && path != ".Rules.Rules" {
				for n := range v.Len() {
					walk(fmt.Sprintf("%s[%d]", path, n), func(i *gate.Input) reflect.Value { return get(i).Index(n) })
				}
			}
		case reflect.Struct:
			if t, ok := v.Interface().(time.Time); ok {
				if !t.IsZero() {
					add(path, " undated", get, reflect.ValueOf(time.Time{}))
					add(path, " later", get, reflect.ValueOf(now.Add(3*time.Hour)))
				}
				return
			}
			for n := range v.NumField() {
				if v.Type().Field(n).IsExported() {
					walk(path+"."+v.Type().Field(n).Name, func(i *gate.Input) reflect.Value { return get(i).Field(n) })
				}
			}
		}
	}
	v := reflect.TypeOf(in)
	for n := range v.NumField() {
		if name := v.Field(n).Name; name != "Now" && name != "Rules" && name != "Type" {
			walk("."+name, func(i *gate.Input) reflect.Value { return reflect.ValueOf(i).Elem().Field(n) })
		}
	}
	return out
}

// copyOf is a deep copy.
func copyOf(in gate.Input) gate.Input {
	var deep func(v reflect.Value) reflect.Value
	deep = func(v reflect.Value) reflect.Value {
		out := reflect.New(v.Type()).Elem()
		switch v.Kind() {
		case reflect.Pointer:
			if !v.IsNil() {
				out.Set(reflect.New(v.Type().Elem()))
				out.Elem().Set(deep(v.Elem()))
			}
		case reflect.Slice:
			if !v.IsNil() {
				out.Set(reflect.MakeSlice(v.Type(), v.Len(), v.Len()))
				for n := range v.Len() {
					out.Index(n).Set(deep(v.Index(n)))
				}
			}
		case reflect.Map:
			if !v.IsNil() {
				out.Set(reflect.MakeMap(v.Type()))
				for _, k := range v.MapKeys() {
					out.SetMapIndex(k, v.MapIndex(k))
				}
			}
		case reflect.Struct:
			out.Set(v)
			if _, ok := v.Interface().(time.Time); ok {
				return out
			}
			for n := range v.NumField() {
				if v.Type().Field(n).IsExported() {
					out.Field(n).Set(deep(v.Field(n)))
				}
			}
		default:
			out.Set(v)
		}
		return out
	}
	rules := in.Rules
	in.Rules.Rules = nil
	out := deep(reflect.ValueOf(in)).Interface().(gate.Input)
	out.Rules = rules
	return out
}

// meaningful are facts whose absence says something of its own, so that taking
// them away makes another flight of it, not a worse known one: an aircraft or pack
// that never flew, gear that belongs to nobody, a wind in which no gust was seen
// (1.4 times the steady wind is then taken), an airframe that has not flown enough for an
// efficiency of its own (the type's holds), a pilot who has not flown yet, another
// day, a date that runs longer.
var meaningful = regexp.MustCompile(`^\.(Aircraft\.LastLanding|Packs\[\d\]\.FlownAt|Wind\.GustMS|Gear|Energy\.Own|LastType) gone$|RegistrationExpires later$|Facts\.Day later$|TrainedOn later$`)

// records say that something is wrong: without them less is known to be wrong.
// They are rows that only a signed act ends, never evidence that can be missing.
// docs/rules.md lists them.
var records = regexp.MustCompile(`^\.(Groundings|Defects|Orders|Tasks|Firmware|Reports|Site|InAir|Released)\b|^\.(Walkround|Turnaround)\.Findings|^\.Packs\[\d\]\.Condition|^\.Draft`)

// Whatever is wrong about a flight: taking away or spoiling any piece of
// evidence never makes the verdict milder.
func TestSpoiltEvidenceIsNeverMilder(t *testing.T) {
	tried := map[string]bool{}
	hold := func(t interface{ Errorf(string, ...any) }, in gate.Input, names []string) {
		was := gate.Judge(in)
		for _, s := range spoils(in) {
			if records.MatchString(s.path) || meaningful.MatchString(s.path) {
				continue
			}
			tried[s.path] = true
			if got := gate.Judge(s.in); got.Verdict < was.Verdict {
				t.Errorf("%v, %s: %v, and it was %v", names, s.path, got.Verdict, was.Verdict)
			}
		}
	}
	hold(t, good(), nil)
	for _, w := range wrong {
		in := good()
		w.change(&in)
		hold(t, in, []string{w.name})
	}
	if t.Failed() {
		return
	}
	rapid.Check(t, func(t *rapid.T) {
		in, names := good(), []string{}
		for range 3 {
			w := rapid.SampledFrom(wrong).Draw(t, "wrong")
			if len(in.Packs) == 0 || in.Wind == nil || in.Walkround == nil || in.Compass == nil || in.Facts.Pilot == nil ||
				in.Packs[0].Reading == nil {
				break
			}
			w.change(&in)
			names = append(names, w.name)
		}
		hold(t, in, names)
	})
	assert.Greater(t, len(tried), 90)
}
