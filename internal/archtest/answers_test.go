package archtest

import (
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/api"
)

// keepsNothing are the acts that are sent the form of something with an id, and only try it.
var keepsNothing = map[string]bool{"lookAtPictures": true}

// What is put on file under an id that the sender chose is answered alike: 201 with what was
// made, or with its id; a list in pages takes the cursor that it gives.
func TestAnswersAreAlike(t *testing.T) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	creates, paged := 0, 0
	for path, item := range doc.Paths.Map() {
		if op := item.Post; op != nil && op.RequestBody != nil && !keepsNothing[op.OperationID] {
			body := op.RequestBody.Value.Content.Get("application/json")
			if body != nil && body.Schema.Value.Properties["id"] != nil {
				creates++
				for _, other := range []int{200, 202, 204} {
					assert.Nil(t, op.Responses.Status(other), "POST %s makes something: it answers 201", path)
				}
				made := op.Responses.Status(201)
				if assert.NotNil(t, made, path) {
					assert.NotNil(t, made.Value.Content.Get("application/json"), "POST %s says what was made", path)
				}
			}
		}
		if op := item.Get; op != nil {
			answer := op.Responses.Status(200)
			if answer == nil || answer.Value.Content.Get("application/json") == nil {
				continue
			}
			goesOn := answer.Value.Content.Get("application/json").Schema.Value.Properties["next_cursor"] != nil
			if goesOn {
				paged++
			}
			takes := op.Parameters.GetByInAndName("query", "cursor") != nil
			if op.OperationID != "getPack" { // with the first page of its readings
				assert.Equal(t, goesOn, takes, "GET %s: a cursor that is given is taken", path)
			}
		}
	}
	assert.Greater(t, creates, 30)
	assert.Greater(t, paged, 7)
}
