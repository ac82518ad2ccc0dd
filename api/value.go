package api

// Value is what an optional field holds; left out it is the zero value.
func Value[T any](p *T) T {
	if p == nil {
		var none T
		return none
	}
	return *p
}
