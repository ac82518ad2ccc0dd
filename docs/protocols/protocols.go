// Package protocols holds how Mainstay talks with devices and services outside, and the form
// of checklists, as JSON Schema: for those who build them, and for the check of one.
package protocols

import (
	"bytes"
	"embed"
	"fmt"

	"github.com/santhosh-tekuri/jsonschema/v6"
)

//go:embed *.json
var files embed.FS

// Names of the protocols.
const (
	Charger  = "charger"
	Weather  = "weather"
	Desk     = "desk"
	Aircraft = "aircraft"
	// Checklist is the form of a list, a file and no protocol.
	Checklist = "checklist"
)

// Schema is the text of one.
func Schema(name string) ([]byte, error) { return files.ReadFile(name + ".json") }

// Fits holds JSON against a message of a protocol, like "channels" of the charger.
func Fits(protocol, message string, text []byte) error {
	b, err := files.ReadFile(protocol + ".json")
	if err != nil {
		return err
	}
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
	if err != nil {
		return err
	}
	c := jsonschema.NewCompiler()
	c.AssertFormat()
	if err := c.AddResource("urn:mainstay:"+protocol, doc); err != nil {
		return err
	}
	s, err := c.Compile("urn:mainstay:" + protocol + "#/$defs/" + message)
	if err != nil {
		return err
	}
	v, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	if err != nil {
		return fmt.Errorf("it is not JSON: %w", err)
	}
	return s.Validate(v)
}
