package approved

import (
	"fmt"
	"reflect"
	"time"
)

// Vary gives each figure, time and yes-or-no of a value in turn others near it,
// and hands every such value on with words for what differs. The value is
// copied; slices and pointers are shared between none.
func Vary[T any](v T, each func(what string, v T)) {
	for n := 0; ; n++ {
		found := false
		for k := 0; ; k++ {
			out := clone(reflect.ValueOf(&v).Elem())
			w := walker{leaf: n, kind: k}
			w.walk(out, "")
			if w.seen <= n {
				return
			}
			found = true
			if w.what == "" {
				break
			}
			value, _ := out.Interface().(T)
			each(w.what, value)
		}
		if !found {
			return
		}
	}
}

type walker struct {
	leaf, kind, seen int
	what             string
}

var timeType = reflect.TypeFor[time.Time]()

func (w *walker) walk(v reflect.Value, path string) {
	switch {
	case v.Type() == timeType:
		w.at(path, func(k int) string {
			steps := []time.Duration{-time.Second, time.Second, -time.Hour, time.Hour, -25 * time.Hour}
			if k >= len(steps) {
				return ""
			}
			t, _ := v.Interface().(time.Time)
			v.Set(reflect.ValueOf(t.Add(steps[k])))
			return steps[k].String()
		})
		return
	}
	switch v.Kind() {
	case reflect.Float64:
		w.at(path, func(k int) string {
			factors := []float64{0, 0.5, 0.9, 0.99, 1.01, 1.1, 2, 10, -1}
			if k >= len(factors) {
				return ""
			}
			v.SetFloat(v.Float() * factors[k])
			return fmt.Sprintf("%.6g", v.Float())
		})
	case reflect.Int, reflect.Int64:
		w.at(path, func(k int) string {
			steps := []int64{-1, 1, 10}
			if k >= len(steps) || v.Type().PkgPath() != "" && v.Kind() == reflect.Int { // an enumeration
				return ""
			}
			v.SetInt(v.Int() + steps[k])
			return fmt.Sprint(v.Int())
		})
	case reflect.Bool:
		w.at(path, func(k int) string {
			if k > 0 {
				return ""
			}
			v.SetBool(!v.Bool())
			return fmt.Sprint(v.Bool())
		})
	case reflect.Pointer:
		if v.IsNil() {
			return
		}
		w.at(path, func(k int) string {
			if k > 0 {
				return ""
			}
			v.SetZero()
			return "none"
		})
		if !v.IsNil() {
			w.walk(v.Elem(), path)
		}
	case reflect.Slice:
		for i := range v.Len() {
			w.walk(v.Index(i), fmt.Sprintf("%s[%d]", path, i))
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if f := v.Type().Field(i); f.IsExported() {
				w.walk(v.Field(i), path+"."+f.Name)
			}
		}
	}
}

func (w *walker) at(path string, change func(k int) string) {
	if w.seen == w.leaf {
		if said := change(w.kind); said != "" {
			w.what = path + " " + said
		}
	}
	w.seen++
}

func clone(v reflect.Value) reflect.Value {
	out := reflect.New(v.Type()).Elem()
	out.Set(v)
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			out.Set(reflect.New(v.Type().Elem()))
			out.Elem().Set(clone(v.Elem()))
		}
	case reflect.Slice:
		if !v.IsNil() {
			out.Set(reflect.MakeSlice(v.Type(), v.Len(), v.Len()))
			for i := range v.Len() {
				out.Index(i).Set(clone(v.Index(i)))
			}
		}
	case reflect.Struct:
		if v.Type() == timeType {
			return out
		}
		for i := range v.NumField() {
			if out.Field(i).CanSet() {
				out.Field(i).Set(clone(v.Field(i)))
			}
		}
	}
	return out
}
