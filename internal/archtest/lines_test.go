package archtest

import (
	"os"
	"os/exec"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// longest is how long a line of Go is at most; a tab counts as one.
const longest = 120

var literals = regexp.MustCompile("\"(?:[^\"\\\\]|\\\\.)*\"|`[^`]*`?")

// Lines fit on a screen; what cannot be cut is a text, which stands as it is read.
func TestLinesAreShort(t *testing.T) {
	out, err := exec.Command("git", "-C", "../..", "ls-files", "*.go").Output()
	require.NoError(t, err)
	files := strings.Fields(string(out))
	require.Greater(t, len(files), 400)
	for _, f := range files {
		if strings.HasSuffix(f, ".gen.go") {
			continue
		}
		b, err := os.ReadFile("../../" + f)
		if os.IsNotExist(err) {
			continue // taken away, and not committed yet
		}
		require.NoError(t, err)
		inText := false
		for i, line := range strings.Split(string(b), "\n") {
			was := inText
			if strings.Count(line, "`")%2 == 1 {
				inText = !inText
			}
			if len([]rune(line)) <= longest || was {
				continue
			}
			rest := len([]rune(literals.ReplaceAllString(line, "")))
			assert.LessOrEqual(t, rest, longest*3/4, "%s:%d is %d long", f, i+1, len([]rune(line)))
		}
	}
}
