package e2e

import (
	"testing"
)

// An address that names a leaf that is not there (typed, kept from an older version, or of a type that
// has none) opens the first one: no view is empty below its leaves.
func TestAnAddressThatNamesNoLeaf(t *testing.T) {
	t.Parallel()
	_, p, one := atBase(t)
	for path, words := range map[string]string{
		"/packs":       "Charged, ready to fly",
		"/workshop":    "What falls due",
		"/setup":       "Aircraft types and their checklists",
		"/rules":       "What it demands",
		"/crew":        "May release",
		"/log/records": "Hash",
		"/jobs":        "today",
		"/fleet/" + one("select id from aircraft where name = 'Lantern Three'"): "What is against it",
		"/sites/" + one("select id from sites where name = 'Long Bank'"):        "On the map",
		"/packs/" + one("select id from packs where label = 'L1'"):              "All six faces",
		"/jobs/" + one("select id from jobs where aim like 'Roof panels%'"):     "Meeting point",
	} {
		p.Go(path + "?tab=nowhere")
		p.See(words)
		p.Until("document.querySelector('.nav-tabs').querySelectorAll('[aria-pressed=true]').length === 1")
		p.Until("!location.search.includes('nowhere')")
	}
}
