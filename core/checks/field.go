package checks

import (
	"encoding/json"
	"errors"
	"mainstay/core/why"
)

// FieldQuestion is an entry to judge, as plain data.
type FieldQuestion struct {
	Item  Item     `json:"item"`
	Value Value    `json:"value"`
	Pack  *PackRef `json:"pack,omitempty"` // of an item that belongs to a pack
}

// FieldAnswer is what the entry means, or why it cannot be used.
type FieldAnswer struct {
	Judgement *Judgement `json:"judgement,omitempty"`
	Sentence  string     `json:"sentence,omitempty"`
	Unable    bool       `json:"unable,omitempty"` // it cannot be judged here; the server is asked
}

const notHere = `{"unable":true,"sentence":"This entry cannot be judged here; it is judged when it reaches the server."}`

// AnswerJSON judges an entry given as JSON of a FieldQuestion and returns JSON
// of a FieldAnswer. What cannot be read is a sentence, never a verdict; an item
// that lacks what its kind needs must not end the program that asks.
func AnswerJSON(question string) (answer string) {
	defer func() {
		if recover() != nil {
			answer = notHere
		}
	}()
	var q FieldQuestion
	var out FieldAnswer
	if err := json.Unmarshal([]byte(question), &q); err != nil {
		return notHere
	} else if j, err := Judge(q.Item, q.Value, q.Pack); errors.Is(err, ErrValue) {
		out.Sentence = why.Words(err)
	} else {
		out.Judgement = &j
	}
	b, err := json.Marshal(out)
	if err != nil { // plain data always becomes JSON
		return notHere
	}
	return string(b)
}
