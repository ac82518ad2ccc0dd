// Package spraycsv writes what was applied to fields as CSV, one line for each
// signed record: what, where, when, by whom, in which weather.
package spraycsv

import (
	"io"
	"strconv"
	"time"

	"mainstay/internal/formats/table"
)

// Record is what was applied. Times are UTC, areas ha, places degrees.
type Record struct {
	Site         string     `json:"site"`
	Field        string     `json:"field"`
	Lat          float64    `json:"lat"`
	Lon          float64    `json:"lon"`
	Aircraft     string     `json:"aircraft"`
	Registration string     `json:"registration"`
	Applicator   string     `json:"applicator"`
	Licence      string     `json:"licence"`
	Product      string     `json:"product"` // with rates, in the order of mixing
	Number       string     `json:"number"`  // registration number of the product
	Rate         float64    `json:"rate"`
	RateUnit     string     `json:"rate_unit"`
	AreaHa       float64    `json:"area_ha"`
	Volume       float64    `json:"volume"`
	From         *time.Time `json:"from"`
	To           *time.Time `json:"to"`
	WeatherFrom  string     `json:"weather_from"`
	WeatherTo    string     `json:"weather_to"`
	Neighbours   string     `json:"neighbours"`
	Note         string     `json:"note"`
	ReEntry      *time.Time `json:"re_entry"`
}

// Signed is a record with who signed it.
type Signed struct {
	Record
	At time.Time
	By string
}

// Columns are the columns, in their order.
var Columns = []string{"from", "to", "site", "field", "lat", "lon", "product", "registration_number", "rate",
	"rate_unit", "area_ha", "volume", "aircraft", "aircraft_registration", "applicator", "licence",
	"weather_from", "weather_to", "neighbours_told", "re_entry", "note", "signed_at", "signed_by"}

// Write writes records, one a line.
func Write(w io.Writer, all []Signed) error {
	t := table.NewWriter(w, Columns)
	for _, r := range all {
		t.Row(when(r.From), when(r.To), r.Site, r.Field, num(r.Lat, 6), num(r.Lon, 6), r.Product, r.Number, num(r.Rate, -1),
			r.RateUnit, num(r.AreaHa, 4), num(r.Volume, 2), r.Aircraft, r.Registration, r.Applicator, r.Licence,
			r.WeatherFrom, r.WeatherTo, r.Neighbours, when(r.ReEntry), r.Note, when(&r.At), r.By)
	}
	return t.Flush()
}

func when(t *time.Time) string {
	if t == nil {
		return ""
	}
	return t.UTC().Format(time.RFC3339)
}

func num(v float64, digits int) string { return strconv.FormatFloat(v, 'f', digits, 64) }
