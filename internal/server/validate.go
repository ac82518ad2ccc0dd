package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/internal/platform/fault"
)

// contract is the loaded document with what the middleware needs of it.
type contract struct {
	doc    *openapi3.T
	router routers.Router
	roles  map[string][]string // "GET /api/v1/people/:id" -> x-roles
	// beforeSecrets are those open to somebody who has a one-time password still.
	beforeSecrets map[string]bool
}

// CSV is read by its own reader, which names each bad row; the validation must
// not refuse the whole file before.
func init() {
	openapi3filter.RegisterBodyDecoder("text/csv", openapi3filter.FileBodyDecoder)
	openapi3.DefineStringFormatValidator("uuid", openapi3.NewCallbackValidator(uuid.Validate))
}

func loadContract() (*contract, error) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	if err != nil {
		return nil, err
	}
	r, err := gorillamux.NewRouter(doc)
	if err != nil {
		return nil, err
	}
	c := &contract{doc: doc, router: r, roles: map[string][]string{}, beforeSecrets: map[string]bool{}}
	for path, item := range doc.Paths.Map() {
		for method, op := range item.Operations() {
			list, ok := op.Extensions["x-roles"].([]any)
			if !ok || len(list) == 0 {
				return nil, fmt.Errorf("operation %s does not say who may call it", op.OperationID)
			}
			if op.RequestBody != nil {
				if body := op.RequestBody.Value.Content.Get("application/json"); body != nil {
					bound(body.Schema, map[*openapi3.Schema]bool{})
				}
			}
			key := method + " /api/v1" + strings.NewReplacer("{", ":", "}", "").Replace(path)
			for _, x := range list {
				c.roles[key] = append(c.roles[key], fmt.Sprint(x))
			}
			c.beforeSecrets[key] = op.Extensions["x-before-secrets"] == true
		}
	}
	return c, nil
}

// Bounds of what is sent where the contract gives none of its own: a text, a
// whole number that a database holds, any number. No quantity of the job comes
// near them.
const (
	mostText   = 2000
	mostWhole  = math.MaxInt32
	mostNumber = 1e9
)

// bound sets the bounds in a schema and in all that it holds.
func bound(ref *openapi3.SchemaRef, seen map[*openapi3.Schema]bool) {
	if ref == nil || ref.Value == nil || seen[ref.Value] {
		return
	}
	s := ref.Value
	seen[s] = true
	least := func(limit float64) {
		if s.Max == nil {
			s.Max = &limit
		}
		if low := -limit; s.Min == nil {
			s.Min = &low
		}
	}
	switch {
	case s.Type.Is("string"):
		if s.MaxLength == nil {
			s.MaxLength = openapi3.Ptr[uint64](mostText)
		}
		if s.Pattern == "" && s.Format == "" && s.Enum == nil {
			s.Pattern = `^[^\x00]*$` // no database keeps it
		}
	case s.Type.Is("integer"):
		least(mostWhole)
	case s.Type.Is("number"):
		least(mostNumber)
	case s.Type.Is("object") && len(s.Properties) > 0 && s.AdditionalProperties.Has == nil &&
		s.AdditionalProperties.Schema == nil:
		s.AdditionalProperties.Has = openapi3.Ptr(false) // a misspelt name is not a value left out
	}
	bound(s.Items, seen)
	bound(s.AdditionalProperties.Schema, seen)
	for _, p := range s.Properties {
		bound(p, seen)
	}
	for _, list := range []openapi3.SchemaRefs{s.OneOf, s.AnyOf, s.AllOf} {
		for _, p := range list {
			bound(p, seen)
		}
	}
}

// validate holds a request against the contract before any handler sees it.
func (s *server) validate(c *gin.Context) {
	route, params, err := s.contract.router.FindRoute(c.Request)
	if err != nil {
		writeProblem(c, s.log, fault.Missing("address"))
		return
	}
	err = openapi3filter.ValidateRequest(c.Request.Context(), &openapi3filter.RequestValidationInput{
		Request: c.Request, PathParams: params, Route: route, Options: &openapi3filter.Options{MultiError: true,
			AuthenticationFunc: openapi3filter.NoopAuthenticationFunc}})
	if err == nil {
		return
	}
	var tooLarge *http.MaxBytesError
	if errors.As(err, &tooLarge) {
		writeProblem(c, s.log, err)
		return
	}
	var fields []fault.Field
	collect(err, &fields)
	if len(fields) == 0 {
		fields = []fault.Field{{Field: "", Sentence: "The request cannot be read. Nothing was saved."}}
	}
	writeProblem(c, s.log, fault.BadFields(fields))
}

// unreadable answers a body that the contract lets through and that still does
// not fit into what the handler takes, like a whole number of thirty digits.
func (s *server) unreadable(c *gin.Context, err error) {
	var tooLarge *http.MaxBytesError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &tooLarge):
		writeProblem(c, s.log, err)
	case errors.As(err, &kind):
		writeProblem(c, s.log, fault.BadFields([]fault.Field{{Field: kind.Field, Sentence: "This value cannot be used."}}))
	default:
		writeProblem(c, s.log, fault.BadFields([]fault.Field{{Field: "",
			Sentence: "The request cannot be read. Nothing was saved."}}))
	}
}

func collect(err error, out *[]fault.Field) {
	var multi openapi3.MultiError
	var req *openapi3filter.RequestError
	var schema *openapi3.SchemaError
	switch {
	case errors.As(err, &multi):
		for _, e := range multi {
			collect(e, out)
		}
	case errors.As(err, &schema):
		field := strings.Join(schema.JSONPointer(), ".")
		if errors.As(err, &req) && req.Parameter != nil {
			field = req.Parameter.Name
		}
		*out = append(*out, fault.Field{Field: field, Sentence: sentenceFor(schema)})
	case errors.As(err, &req) && req.Parameter != nil:
		*out = append(*out, fault.Field{Field: req.Parameter.Name, Sentence: "This value cannot be used."})
	}
}

func sentenceFor(e *openapi3.SchemaError) string {
	s := e.Schema
	switch e.SchemaField {
	case "required":
		return "This is missing."
	case "minLength":
		if s.MinLength <= 1 {
			return "This must not stay empty."
		}
		return fmt.Sprintf("Enter at least %d characters.", s.MinLength)
	case "maxLength":
		return fmt.Sprintf("Enter at most %d characters.", *s.MaxLength)
	case "minimum", "maximum":
		switch {
		case s.Min != nil && s.Max != nil:
			return fmt.Sprintf("Enter a value between %g and %g.", *s.Min, *s.Max)
		case s.Min != nil:
			return fmt.Sprintf("Enter a value of at least %g.", *s.Min)
		}
		return fmt.Sprintf("Enter a value of at most %g.", *s.Max)
	case "properties", "additionalProperties":
		return "There is no such field here: look for a spelling mistake. Nothing was saved."
	case "enum":
		return "Choose one of the values offered."
	case "format":
		if s.Format == "date" {
			return "Enter a date like 2026-03-01."
		}
		return "This is not in the form expected."
	case "pattern":
		return "This has a character that cannot be used."
	case "nullable", "type":
		if s.Type != nil && (s.Type.Is("number") || s.Type.Is("integer")) {
			return "Enter a number."
		}
		return "This is missing or of the wrong kind."
	}
	return "This value cannot be used."
}
