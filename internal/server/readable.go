package server

import (
	"cmp"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"
)

var readable = template.Must(template.New("api").Parse(`<!doctype html><html lang="en"><meta charset="utf-8"><title>Mainstay API</title>
<body><h1>{{.Title}} API {{.Version}}</h1><p>{{.About}}</p><p><a href="/api/v1/openapi.json">openapi.json</a></p>
<table><thead><tr><th>Operation</th><th>Address</th><th>What it does</th><th>Who</th></tr></thead><tbody>
{{range .Ops}}<tr><td>{{.ID}}</td><td><code>{{.Method}} /api/v1{{.Path}}</code></td><td>{{.Summary}}</td><td>{{.Roles}}</td></tr>{{end}}
</tbody></table></body></html>`))

// readable shows the contract as a page for people.
func (s *server) readable(c *gin.Context) {
	type op struct{ ID, Method, Path, Summary, Roles string }
	var ops []op
	for p, item := range s.contract.doc.Paths.Map() {
		for m, o := range item.Operations() {
			var roles []string
			if list, ok := o.Extensions["x-roles"].([]any); ok {
				for _, r := range list {
					roles = append(roles, fmt.Sprint(r))
				}
			}
			ops = append(ops, op{o.OperationID, m, p, o.Summary, strings.Join(roles, ", ")})
		}
	}
	slices.SortFunc(ops, func(a, b op) int { return cmp.Or(cmp.Compare(a.Path, b.Path), cmp.Compare(a.Method, b.Method)) })
	c.Header("Content-Type", "text/html; charset=utf-8")
	c.Status(http.StatusOK)
	_ = readable.Execute(c.Writer, map[string]any{"Title": s.contract.doc.Info.Title,
		"Version": s.contract.doc.Info.Version, "About": s.contract.doc.Info.Description, "Ops": ops})
}
