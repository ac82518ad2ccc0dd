// Package standins holds what the simulated devices and services have in common.
package standins

import (
	"crypto/subtle"
	"net/http"
)

// Keyed lets a stand-in answer only whoever knows the key; without a key it
// answers everybody.
func Keyed(h http.Handler, key string) http.Handler {
	if key == "" {
		return h
	}
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if subtle.ConstantTimeCompare([]byte(r.Header.Get("Authorization")), []byte("Bearer "+key)) != 1 {
			http.Error(w, "the key is missing or wrong", http.StatusUnauthorized)
			return
		}
		h.ServeHTTP(w, r)
	})
}
