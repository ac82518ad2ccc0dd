package judge

// Broken is a wish of a plan that cannot be met, and the nearest value that can.
type Broken struct {
	Wish     string   `json:"wish"` // field of the plan
	Verdict  Verdict  `json:"verdict"`
	Sentence string   `json:"sentence"`
	Nearest  *float64 `json:"nearest,omitempty"` // in the unit of the wish
}
