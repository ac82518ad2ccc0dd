package sites

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"mainstay/core/geo"
	"mainstay/core/weather"
	"mainstay/internal/platform/outside"
)

// forecast is what the service answers; what it leaves out is nil.
type forecast struct {
	StationM *float64       `json:"station_m"`
	Lat      *float64       `json:"lat"` // of the station, and of the place the hours are for
	Lon      *float64       `json:"lon"`
	MadeAt   *time.Time     `json:"made_at"`
	Hours    []weather.Hour `json:"hours"`
}

// km is how far the station is from a site; nil: it does not say where it is.
func (f forecast) km(at Site) *float64 {
	if f.Lat == nil || f.Lon == nil {
		return nil
	}
	p := geo.Point{Lat: *f.Lat, Lon: *f.Lon}
	if p.Check() != nil {
		return nil
	}
	d := geo.Distance(p, at.Origin()) / 1000
	return &d
}

func askForecast(ctx context.Context, l *outside.Link) (forecast, error) {
	var out forecast
	err := l.Call(ctx, http.MethodGet, "/forecast", nil, &out)
	if err == nil && (len(out.Hours) == 0 || len(out.Hours) > 240) {
		err = fmt.Errorf("%w answered what is no forecast", outside.ErrService)
	}
	return out, err
}
