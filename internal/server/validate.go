package server

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/gin-gonic/gin"

	"mainstay/api"
	"mainstay/internal/platform/fault"
)

// contract is the loaded document with what the middleware needs of it.
type contract struct {
	doc    *openapi3.T
	router routers.Router
	roles  map[string][]string // "GET /api/v1/people/:id" -> x-roles
}

// CSV is read by its own reader, which names each bad row; the validation must
// not refuse the whole file before.
func init() { openapi3filter.RegisterBodyDecoder("text/csv", openapi3filter.FileBodyDecoder) }

func loadContract() (*contract, error) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	if err != nil {
		return nil, err
	}
	r, err := gorillamux.NewRouter(doc)
	if err != nil {
		return nil, err
	}
	c := &contract{doc: doc, router: r, roles: map[string][]string{}}
	for path, item := range doc.Paths.Map() {
		for method, op := range item.Operations() {
			list, ok := op.Extensions["x-roles"].([]any)
			if !ok || len(list) == 0 {
				return nil, fmt.Errorf("operation %s does not say who may call it", op.OperationID)
			}
			key := method + " /api/v1" + strings.NewReplacer("{", ":", "}", "").Replace(path)
			for _, x := range list {
				c.roles[key] = append(c.roles[key], fmt.Sprint(x))
			}
		}
	}
	return c, nil
}

// validate holds a request against the contract before any handler sees it.
func (s *server) validate(c *gin.Context) {
	route, params, err := s.contract.router.FindRoute(c.Request)
	if err != nil {
		writeProblem(c, s.log, fault.Missing("address"))
		return
	}
	err = openapi3filter.ValidateRequest(c.Request.Context(), &openapi3filter.RequestValidationInput{
		Request: c.Request, PathParams: params, Route: route, Options: &openapi3filter.Options{MultiError: true, AuthenticationFunc: openapi3filter.NoopAuthenticationFunc}})
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
			return "Enter something here."
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
	case "enum":
		return "Choose one of the values offered."
	case "format":
		if s.Format == "date" {
			return "Enter a date like 2026-03-01."
		}
		return "This is not in the form expected."
	case "nullable", "type":
		if s.Type != nil && (s.Type.Is("number") || s.Type.Is("integer")) {
			return "Enter a number."
		}
		return "This is missing or of the wrong kind."
	}
	return "This value cannot be used."
}
