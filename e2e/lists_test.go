package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mainstay/core/checks"
	"mainstay/e2e/browser"
	"mainstay/internal/testbed"
	"mainstay/internal/walkround"
)

// A chief edits a checklist: a draft that is kept on the device, tried, compared, undone, and
// handed in as a version; what is under way keeps its own.
func TestAChecklistIsEdited(t *testing.T) {
	t.Parallel()
	f := goOut(t, hand{"desk", 1280, 800}, "Lantern Three")
	p := f.page
	running := walkround.New{ID: testbed.NewID(), Aircraft: id(t, f.svc, "Lantern Three"), Round: checks.Full}
	_, err := f.svc.Walkrounds.Start(as(t, f.svc, "imre"), running)
	assert.NoError(t, err)
	p.Go("/setup")
	p.SeeThing(`a[href="/checklists/lantern-4"]`)
	p.Go("/checklists/lantern-4")
	p.See("Frame and inside")
	p.Click("Remove Controller charge")
	p.See("Keep it as version 4")
	p.Click("Undo")
	p.Gone("Keep it as version 4")
	p.Click("Add an item to Payload")
	p.Fill("What is looked at", "Spare card in the pocket")
	p.Click("Take it into the draft")
	p.See("Give it an id")
	p.Fill("Id, never changed later", "spare-card")
	p.Pick("A defect here means", "watch")
	p.Fill("Asked when, one condition a line; empty: always", "moon = full")
	p.Click("Take it into the draft")
	p.See("Spare card in the pocket")
	p.Click("Try it out")
	p.See("It cannot be used:", "nobody knows of")
	p.Click("Items")
	p.Click("Edit Spare card in the pocket")
	p.Fill("Asked when, one condition a line; empty: always", "work = mapping, inspection")
	p.Click("Take it into the draft")
	p.Click("Remove Heading against a known direction")
	p.Reload()
	p.See("Spare card in the pocket") // nothing typed is lost
	p.Click("Try it out")
	p.See("Spare card in the pocket", "on condition")
	p.Click("Compare")
	p.Pick("Compared with version", "3 of")
	p.See("added: Spare card in the pocket", "removed: Heading against a known direction")
	p.Click("Keep it as version 4")
	p.Gone("Keep it as version 4")
	p.See("4 of ")
	assert.Equal(t, 1, count(t, f.svc,
		"select count(*) from checklists where type_key = 'lantern-4' and version = 4 and content::text like '%spare-card%'"))
	sh, err := f.svc.Walkrounds.Sheet(as(t, f.svc, "imre"), running.ID)
	assert.NoError(t, err)
	assert.Equal(t, 3, sh.ChecklistVersion)
	assert.NotContains(t, browser.Eval[string](p, "document.body.innerText"), "went wrong")
	assert.Empty(t, p.Faults())
}
