// Package e2e drives the whole program through the browser.
package e2e

import (
	"fmt"
	"os"
	"testing"

	"mainstay/e2e/browser"
)

var chromium *browser.Browser

func TestMain(m *testing.M) {
	var err error
	if chromium, err = browser.Start(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	code := m.Run()
	chromium.Stop()
	os.Exit(code)
}
