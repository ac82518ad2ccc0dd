package sites

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"
)

// Link is a weather service on the network; its form is in docs/formats.md.
type Link struct {
	URL  string
	HTTP http.Client
}

// NewLink returns a link that gives up after three seconds.
func NewLink(url string) *Link {
	return &Link{URL: strings.TrimRight(url, "/"), HTTP: http.Client{Timeout: 3 * time.Second}}
}

var errWeather = errors.New("the weather service")

func (l *Link) get(ctx context.Context, path string) ([]byte, error) {
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, l.URL+path, nil)
	if err != nil {
		return nil, fmt.Errorf("%w: %w", errWeather, err)
	}
	res, err := l.HTTP.Do(req)
	if err != nil {
		return nil, fmt.Errorf("%w does not answer: %w", errWeather, err)
	}
	defer func() { _ = res.Body.Close() }()
	if res.StatusCode != http.StatusOK {
		return nil, fmt.Errorf("%w answered %d", errWeather, res.StatusCode)
	}
	b, err := io.ReadAll(io.LimitReader(res.Body, 1<<20))
	if err != nil {
		return nil, fmt.Errorf("%w broke off: %w", errWeather, err)
	}
	return b, nil
}

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

func (l *Link) forecast(ctx context.Context) (forecast, error) {
	var out forecast
	b, err := l.get(ctx, "/forecast")
	if err != nil {
		return out, err
	}
	if err := json.Unmarshal(b, &out); err != nil || len(out.Hours) == 0 || len(out.Hours) > 240 {
		return forecast{}, fmt.Errorf("%w answered what is no forecast", errWeather)
	}
	return out, nil
}
