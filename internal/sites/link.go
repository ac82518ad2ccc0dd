package sites

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"mainstay/internal/platform/outside"
)

// forecast is what the service answers.
type forecast struct {
	StationM float64   `json:"station_m"`
	MadeAt   time.Time `json:"made_at"`
	Hours    []struct {
		At          time.Time `json:"at"`
		WindMS      float64   `json:"wind_ms"`
		GustMS      float64   `json:"gust_ms"`
		FromDeg     float64   `json:"from_deg"`
		TempC       float64   `json:"temp_c"`
		DewC        float64   `json:"dew_c"`
		QNH         float64   `json:"qnh_hpa"`
		VisibilityM float64   `json:"visibility_m"`
		Cover       string    `json:"cover"`
		CloudBaseFt *int      `json:"cloud_base_ft"`
		Rain        bool      `json:"rain"`
	} `json:"hours"`
}

func askForecast(ctx context.Context, l *outside.Link) (forecast, error) {
	var out forecast
	err := l.Call(ctx, http.MethodGet, "/forecast", nil, &out)
	if err == nil && (len(out.Hours) == 0 || len(out.Hours) > 240) {
		err = fmt.Errorf("%w answered what is no forecast", outside.ErrService)
	}
	return out, err
}
