package missions

import (
	"context"
	"strings"

	"mainstay/core/survey"
	"mainstay/internal/planning"
	"mainstay/internal/platform/fault"
	"mainstay/internal/records"
)

// Camera is a camera on the crew's list.
type Camera struct {
	planning.Kind
	SensorWMM float64 `gorm:"column:sensor_w_mm"`
	SensorHMM float64 `gorm:"column:sensor_h_mm"`
	FocalMM   float64 `gorm:"column:focal_mm"`
	PixelsW   int     `gorm:"column:pixels_w"`
	PixelsH   int     `gorm:"column:pixels_h"`
	LeastS    float64
	PictureMB float64 `gorm:"column:picture_mb"`
	BaseISO   int     `gorm:"column:base_iso"`
}

func (c Camera) core() survey.Camera {
	return survey.Camera{SensorWMM: c.SensorWMM, SensorHMM: c.SensorHMM, FocalMM: c.FocalMM, PixelsW: float64(c.PixelsW),
		PixelsH: float64(c.PixelsH), LeastS: c.LeastS}
}

// shipped are the cameras that a new crew begins with; all are made up, and the tables of
// the makers take their place.
var shipped = []Camera{
	{Kind: planning.Kind{Key: "map-20", Name: "Mapper 20, one inch"}, SensorWMM: 13.2, SensorHMM: 8.8, FocalMM: 8.8,
		PixelsW: 5472, PixelsH: 3648, LeastS: 1, PictureMB: 9, BaseISO: 100},
	{Kind: planning.Kind{Key: "map-42", Name: "Mapper 42, full frame, 35 mm"}, SensorWMM: 35.9, SensorHMM: 24, FocalMM: 35,
		PixelsW: 7952, PixelsH: 5304, LeastS: 0.8, PictureMB: 22, BaseISO: 100},
	{Kind: planning.Kind{Key: "crop-5", Name: "Crop bands 5"}, SensorWMM: 4.8, SensorHMM: 3.6, FocalMM: 5.5, PixelsW: 1280,
		PixelsH: 960, LeastS: 1.2, PictureMB: 12.5, BaseISO: 100},
	{Kind: planning.Kind{Key: "look-48", Name: "Inspector 48, wide"}, SensorWMM: 6.4, SensorHMM: 4.8, FocalMM: 6.8,
		PixelsW: 8000, PixelsH: 6000, LeastS: 2, PictureMB: 14, BaseISO: 100},
	{Kind: planning.Kind{Key: "look-12-long", Name: "Inspector 12, long"}, SensorWMM: 6.4, SensorHMM: 4.8, FocalMM: 30,
		PixelsW: 4000, PixelsH: 3000, LeastS: 1, PictureMB: 6, BaseISO: 100},
}

// SeedCameras puts the shipped cameras on a list that is empty.
func (s *Service) SeedCameras(ctx context.Context) error {
	return planning.SeedKinds(ctx, s.DB, shipped)
}

// CameraList are the cameras, in use first, by name.
func (s *Service) CameraList(ctx context.Context) ([]Camera, error) {
	return planning.Kinds[Camera](ctx, s.DB)
}

// camera is the one of the wish, and the size of its pictures, MB; nil: it is not chosen.
func (p *Plan) camera() (*survey.Camera, float64) {
	key := ""
	if p.Wish.Inspect != nil {
		key = p.Wish.Inspect.Camera
	} else {
		key = p.Wish.Survey.Camera
	}
	for _, c := range p.Cameras {
		if c.Key == key && c.Active {
			k := c.core()
			return &k, c.PictureMB
		}
	}
	return nil, 0
}

// pictureMB is the size of a picture of the plan's camera.
func (p *Plan) pictureMB() float64 {
	_, mb := p.camera()
	return mb
}

// SaveCamera adds a camera, or changes it; version 0 is a new one.
func (s *Service) SaveCamera(ctx context.Context, c Camera) error {
	if err := c.core().Check(); err != nil {
		return fields.Refused(err)
	}
	if n := len(strings.TrimSpace(c.Name)); n < 1 || n > 60 {
		return fault.Bad("name", "A camera has a name of up to 60 letters.")
	}
	if !(c.PictureMB > 0 && c.PictureMB <= 1000) || c.BaseISO < 20 || c.BaseISO > 102400 {
		return fault.Bad("picture_mb", "A picture is up to 1000 MB, and the base sensitivity between 20 and 102400.")
	}
	return planning.SaveKind(ctx, s.DB, s.Clock.Now(), "camera", records.CameraSaved, &c)
}
