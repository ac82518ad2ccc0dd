package pack

import (
	"errors"
	"fmt"
	"mainstay/core/why"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// MostAtOnce is how many packs are added at once.
const MostAtOnce = 40

// LongestLabel is how many characters a label has at most.
const LongestLabel = 20

// ErrLabels is wrapped by every error about labels that cannot be read.
var ErrLabels = errors.New("labels")

var (
	span   = regexp.MustCompile(`(?i)^(.*?)(\d{1,4})\s*(?:to|-|–)\s*(.*?)(\d{1,4})$`)
	commas = regexp.MustCompile(`[,;\n]+`)
)

// Labels reads the labels of several packs: "L1 to L8", "L1-L8", "L01 to 12", "A, B, C3 to C5".
// Valid: 1 to 40 different ones of at most 20 characters. Errors wrap ErrLabels and say what to enter.
func Labels(text string) ([]string, error) {
	var out []string
	for _, part := range commas.Split(text, -1) {
		part = strings.Join(strings.Fields(part), " ")
		if part == "" {
			continue
		}
		m := span.FindStringSubmatch(part)
		if m == nil || m[3] != "" && !strings.EqualFold(m[3], m[1]) {
			out = append(out, part)
			continue
		}
		from, _ := strconv.Atoi(m[2])
		to, _ := strconv.Atoi(m[4])
		if to < from || to-from >= MostAtOnce {
			return nil, why.Not(ErrLabels, "%s goes backwards, or is more than %d packs", part, MostAtOnce)
		}
		for n := from; n <= to; n++ {
			out = append(out, fmt.Sprintf("%s%0*d", m[1], padded(m[2]), n))
		}
	}
	switch {
	case len(out) == 0:
		return nil, why.Not(ErrLabels, "enter what stands on them, like L1 to L8")
	case len(out) > MostAtOnce:
		return nil, why.Not(ErrLabels, "at most %d at once, not %d", MostAtOnce, len(out))
	}
	for i, l := range out {
		if utf8.RuneCountInString(l) > LongestLabel {
			return nil, why.Not(ErrLabels, "%s is too long: a label has at most %d characters", l, LongestLabel)
		}
		if slices.ContainsFunc(out[:i], func(o string) bool { return strings.EqualFold(o, l) }) {
			return nil, why.Not(ErrLabels, "%s stands there twice", l)
		}
	}
	return out, nil
}

// padded is how many digits a number has that begins with a nought; 0: as many as it needs.
func padded(digits string) int {
	if strings.HasPrefix(digits, "0") {
		return len(digits)
	}
	return 0
}
