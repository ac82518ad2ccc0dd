package checks

import "mainstay/core/airframe"

func bound(v float64) *float64 { return &v }

// HoverItem asks for the output of every motor while the aircraft hovers near
// in the first minutes: the spread is held against 10 percent (land and find
// out) and 20 percent (stop), usual practice.
func HoverItem(t airframe.Type) Item {
	return Item{ID: "hover-output", Station: "frame", Title: "Hover: output of each motor", Kind: Motors,
		Quantity: "output", Unit: "%", Step: 1,
		Min: bound(0), Max: bound(100), Compare: &Compare{How: "spread-percent", Watch: 10,
			Stop: 20}, Count: t.SisterMotors(), Layer: t.Layer()}
}

// WarmthItem asks for the warmth of every motor after landing: one that is
// more than the type's limit above the median of its sisters is overworking
// and stops the aircraft; from two thirds of it, Watch.
func WarmthItem(t airframe.Type) Item {
	limit := float64(t.Limits.WarmthOutlierC)
	return Item{ID: "motor-warmth", Station: "frame", Title: "Warmth of each motor", Kind: Motors, Quantity: "warmth",
		Unit: "degC", Step: 1,
		Min: bound(-30), Max: bound(200), Compare: &Compare{How: "outlier", Watch: limit * 2 / 3,
			Stop: limit}, Count: t.SisterMotors(), Layer: t.Layer()}
}
