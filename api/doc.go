// Package api is the HTTP contract: openapi.yaml, the Go server interface
// generated from it, and the document embedded for serving and validation.
package api

import _ "embed"

//go:generate go tool oapi-codegen -config codegen.yaml openapi.yaml

// Document is openapi.yaml as shipped.
//
//go:embed openapi.yaml
var Document []byte
