package testbed

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/stretchr/testify/require"

	"mainstay/api"
)

// Client is a device with its own cookies. Every answer it gets is held
// against the contract.
type Client struct {
	t      testing.TB
	base   string
	http   http.Client
	router routers.Router
	// Header is sent with every request.
	Header http.Header
}

// NewClient returns a client of the server at base.
func NewClient(t testing.TB, base string) *Client {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	doc, err := openapi3.NewLoader().LoadFromData(api.Document)
	require.NoError(t, err)
	r, err := gorillamux.NewRouter(doc)
	require.NoError(t, err)
	return &Client{t: t, base: base, http: http.Client{Jar: jar}, router: r, Header: http.Header{}}
}

// SignIn signs a person in and returns the client.
func (c *Client) SignIn(login, password string) *Client {
	c.t.Helper()
	a := c.Do(http.MethodPost, "/session", map[string]string{"login": login, "password": password})
	require.Equal(c.t, http.StatusOK, a.Status, a.Text())
	return c
}

// Answer is what the server said.
type Answer struct {
	Status int
	Header http.Header
	Body   []byte
	t      testing.TB
}

// Text returns the body as text.
func (a Answer) Text() string { return string(a.Body) }

// Into decodes the body.
func (a Answer) Into(v any) {
	a.t.Helper()
	require.NoError(a.t, json.Unmarshal(a.Body, v), a.Text())
}

// Problem decodes the body as a problem.
func (a Answer) Problem() api.Problem {
	a.t.Helper()
	var p api.Problem
	a.Into(&p)
	return p
}

// Field returns the sentence at a field, "" for none.
func (a Answer) Field(name string) string {
	if p := a.Problem(); p.Fields != nil {
		for _, f := range *p.Fields {
			if f.Field == name {
				return f.Sentence
			}
		}
	}
	return ""
}

// Do sends JSON (nil for no body, a string or bytes as they are) to a path of
// the API.
func (c *Client) Do(method, path string, body any) Answer {
	c.t.Helper()
	var r io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case string:
		r, kind = strings.NewReader(b), "text/csv"
	case []byte:
		r, kind = bytes.NewReader(b), "application/octet-stream"
	default:
		j, err := json.Marshal(b)
		require.NoError(c.t, err)
		r = bytes.NewReader(j)
	}
	req, err := http.NewRequestWithContext(context.Background(), method, c.base+"/api/v1"+path, r)
	require.NoError(c.t, err)
	for k, v := range c.Header {
		req.Header[k] = v
	}
	if r != nil {
		req.Header.Set("Content-Type", kind)
	}
	res, err := c.http.Do(req)
	require.NoError(c.t, err)
	defer func() { _ = res.Body.Close() }()
	b, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	a := Answer{res.StatusCode, res.Header, b, c.t}
	c.hold(req, a)
	return a
}

// Peek asks for a path and returns the status as soon as it is known, without
// waiting for the end of the answer.
func (c *Client) Peek(path string) int {
	c.t.Helper()
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, c.base+"/api/v1"+path, nil)
	require.NoError(c.t, err)
	res, err := c.http.Do(req)
	require.NoError(c.t, err)
	_ = res.Body.Close()
	return res.StatusCode
}

// hold checks the answer against the contract.
func (c *Client) hold(req *http.Request, a Answer) {
	c.t.Helper()
	route, params, err := c.router.FindRoute(req)
	if err != nil {
		return // an address outside the contract, asked on purpose
	}
	if strings.HasPrefix(a.Header.Get("Content-Type"), "image/") ||
		strings.HasPrefix(a.Header.Get("Content-Type"), "text/csv") ||
		strings.HasPrefix(a.Header.Get("Content-Type"), "application/x-ndjson") {
		return
	}
	in := &openapi3filter.ResponseValidationInput{
		RequestValidationInput: &openapi3filter.RequestValidationInput{Request: req, PathParams: params, Route: route},
		Status:                 a.Status, Header: a.Header, Body: io.NopCloser(bytes.NewReader(a.Body)),
		Options: &openapi3filter.Options{IncludeResponseStatus: true, MultiError: true}}
	require.NoError(c.t, openapi3filter.ValidateResponse(context.Background(), in),
		fmt.Sprintf("%s %s: %s", req.Method, req.URL.Path, a.Text()))
}
