package people

import (
	"strings"
	"unicode"

	"golang.org/x/text/unicode/norm"

	"mainstay/internal/platform/fault"
)

// cleanName returns a name as it is kept: composed, with single spaces. A name
// that only looks like another is refused: one with signs that cannot be seen,
// or with letters of two scripts that are not written together.
func cleanName(name string) (string, []fault.Field) {
	bad := func(s string) (string, []fault.Field) { return "", []fault.Field{{Field: "name", Sentence: s}} }
	name = strings.Join(strings.Fields(norm.NFKC.String(strings.ToValidUTF8(name, ""))), " ")
	if name == "" {
		return bad("Enter the person's name.")
	}
	if len([]rune(name)) > 80 {
		return bad("A name has at most 80 letters.")
	}
	script := ""
	for _, r := range name {
		if !unicode.IsPrint(r) {
			return bad("This name holds a sign that cannot be seen. Type it anew.")
		}
		// those with letters that look alike
		for _, s := range []string{"Latin", "Cyrillic", "Greek", "Armenian", "Cherokee"} {
			if unicode.Is(unicode.Scripts[s], r) {
				if script != "" && script != s {
					return bad("This name mixes letters of two scripts, so that it could pass for another. Type it anew.")
				}
				script = s
			}
		}
	}
	return name, nil
}
