// Package props writes the fields of a site feature as named properties and
// reads them back. The formats that can carry names and values share it.
package props

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"github.com/google/uuid"

	"mainstay/core/site"
)

// Of is every field of a feature but its places, as text by name. Fields
// without a value are left out.
func Of(f site.Feature) map[string]string {
	out := map[string]string{"id": f.ID, "kind": string(f.Kind)}
	text := func(name, v string) {
		if v != "" {
			out[name] = v
		}
	}
	num := func(name string, v float64) {
		if v != 0 {
			out[name] = format(v)
		}
	}
	opt := func(name string, v *float64) {
		if v != nil {
			out[name] = format(*v)
		}
	}
	text("name", f.Name)
	text("measured", f.Measured)
	text("what", f.What)
	text("note", f.Note)
	num("sigma_m", f.SigmaM)
	num("buffer_m", f.BufferM)
	num("sag_m", f.SagM)
	opt("height_m", f.HeightM)
	opt("elevation_m", f.GroundM)
	if f.Main {
		out["main"] = "true"
	}
	if len(f.Free) > 0 {
		var free []string
		for _, d := range f.Free {
			free = append(free, format(d))
		}
		out["free_deg"] = strings.Join(free, " ")
	}
	if g := f.Ground; g != nil {
		for name, v := range checks(g) {
			if *v != nil {
				out["ground_"+name] = strconv.FormatBool(**v)
			}
		}
	}
	return out
}

func checks(g *site.GroundCheck) map[string]**bool {
	return map[string]**bool{"flat": &g.Flat, "firm": &g.Firm, "clear": &g.Clear, "no_plastic": &g.NoPlastic,
		"no_dust": &g.NoDust, "no_people": &g.NoPeople}
}

func format(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// Names lists the names that Of writes, in a fixed order.
var Names = []string{"id", "kind", "name", "height_m", "sigma_m", "measured", "buffer_m", "sag_m", "elevation_m",
	"what", "main", "free_deg", "note",
	"ground_flat", "ground_firm", "ground_clear", "ground_no_plastic", "ground_no_dust", "ground_no_people"}

// read are the names that Read understands beside those.
var read = append([]string{"height_ft", "sigma_ft", "buffer_ft", "sag_ft", "elevation_ft"}, Names...)

// Read fills a feature from properties. Names are matched without regard to
// case. Without a kind, a point is an obstacle, a line a route, an area the
// work; the feature says that it was guessed, and which of its fields mean
// nothing here. A height needs its unit in the name: height_m or height_ft; one
// without is refused rather than guessed.
func Read(p map[string]string, shape site.Shape) (site.Feature, error) {
	low := map[string]string{}
	for k, v := range p {
		low[strings.ToLower(strings.TrimSpace(k))] = strings.TrimSpace(v)
	}
	f := site.Feature{Shape: shape, ID: low["id"], Kind: site.Kind(low["kind"]), Name: low["name"],
		Measured: low["measured"], What: low["what"], Note: low["note"], Main: low["main"] == "true"}
	if _, err := uuid.Parse(f.ID); err != nil {
		f.ID = uuid.Must(uuid.NewV7()).String()
	}
	for k, v := range low {
		if v != "" && !slices.Contains(read, k) {
			f.Unread = append(f.Unread, k)
		}
	}
	slices.Sort(f.Unread)
	if f.Guessed = f.Kind == ""; f.Guessed {
		f.Kind = map[site.Shape]site.Kind{site.Point: site.Obstacle, site.Line: site.Route, site.Area: site.Work}[shape]
	}
	for _, name := range []string{"height", "ele", "elevation", "alt", "altitude"} {
		if v := low[name]; v != "" && (f.Kind == site.Obstacle || f.Kind == site.Wires) && low["height_m"] == "" &&
			low["height_ft"] == "" {
			return f, fmt.Errorf("%q has no unit in its name; call it height_m or height_ft", name)
		}
	}
	var err error
	num := func(name string) *float64 {
		scale := 1.0
		v := low[name+"_m"]
		if v == "" {
			v, scale = low[name+"_ft"], site.FeetM
		}
		if v == "" || err != nil {
			return nil
		}
		x, perr := strconv.ParseFloat(v, 64)
		if perr != nil || math.IsNaN(x) || math.IsInf(x, 0) {
			err = fmt.Errorf("%s %q is not a number with a decimal point", name, v)
			return nil
		}
		x *= scale
		return &x
	}
	set := func(name string, into *float64) {
		if v := num(name); v != nil {
			*into = *v
		}
	}
	f.HeightM, f.GroundM = num("height"), num("elevation")
	set("sigma", &f.SigmaM)
	set("buffer", &f.BufferM)
	set("sag", &f.SagM)
	for _, s := range strings.Fields(low["free_deg"]) {
		d, perr := strconv.ParseFloat(s, 64)
		if perr != nil {
			err = fmt.Errorf("free heading %q is not a number", s)
			break
		}
		f.Free = append(f.Free, d)
	}
	var g site.GroundCheck
	for name, into := range checks(&g) {
		if v, perr := strconv.ParseBool(low["ground_"+name]); perr == nil {
			*into, f.Ground = &v, &g
		}
	}
	return f, err
}

// Take checks a feature and sorts it into taken or refused. Several shapes under
// one id keep it; Apart tells them apart.
func Take(number int, f site.Feature, err error, taken *[]site.Feature, refused *[]site.Refused) {
	if err == nil {
		err = f.Check()
	}
	if err == nil && len(*taken) >= site.MaxFeatures {
		err = fmt.Errorf("a site has at most %d features", site.MaxFeatures)
	}
	if err != nil {
		*refused = append(*refused, site.Refused{Number: number, Name: f.Name, Why: err.Error()})
		return
	}
	*taken = append(*taken, f)
}

// Apart gives the second and every further feature of one id an id of its own
// that follows from it, so that the same file read twice gives the same ids.
func Apart(features []site.Feature) {
	seen := map[string]int{}
	for i := range features {
		base := features[i].ID
		if seen[base]++; seen[base] > 1 {
			features[i].ID = uuid.NewSHA1(uuid.MustParse(base), []byte(strconv.Itoa(seen[base]))).String()
		}
	}
}
