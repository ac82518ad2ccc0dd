package planning

import (
	"errors"
	"strings"

	"mainstay/core/judge"
	"mainstay/internal/platform/fault"
)

// Fields says how the refusals of a core are put at the fields of a form: what they wrap, and
// the field of each name that they begin with.
type Fields struct {
	Of   []error
	By   map[string]string
	Else string // where no name fits
}

// Refused turns a refusal into a sentence at its field; other errors pass unchanged. Of
// several joined ones the first is said.
func (f Fields) Refused(err error) error {
	ours := false
	words := ""
	for _, of := range f.Of {
		ours = ours || errors.Is(err, of)
	}
	if err == nil || !ours {
		return err
	}
	for line := range strings.Lines(err.Error()) {
		for _, of := range f.Of {
			line = strings.TrimPrefix(line, of.Error())
		}
		if words = strings.TrimSpace(strings.TrimPrefix(line, ":")); words != "" {
			break
		}
	}
	if words == "" {
		words = "a figure cannot be"
	}
	field, longest := f.Else, 0
	for name, by := range f.By {
		if len(name) > longest && strings.HasPrefix(words, name+" ") {
			field, longest = by, len(name)
		}
	}
	return fault.Bad(field, "%s.", judge.Capital(words))
}
