package server

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"

	"github.com/gin-gonic/gin"

	"mainstay/api"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
)

// statusOf is the one table from kinds of fault to HTTP.
var statusOf = map[fault.Kind]int{
	fault.Invalid: http.StatusUnprocessableEntity, fault.Unauthorized: http.StatusUnauthorized,
	fault.Forbidden: http.StatusForbidden, fault.NotFound: http.StatusNotFound,
	fault.Conflict: http.StatusConflict, fault.TooMany: http.StatusTooManyRequests,
	fault.TooLarge: http.StatusRequestEntityTooLarge,
	fault.Busy:     http.StatusServiceUnavailable,
}

var titleOf = map[fault.Kind]string{
	fault.Invalid: "This entry needs a change", fault.Unauthorized: "Not signed in", fault.Forbidden: "Not allowed",
	fault.NotFound: "Not found",
	fault.Conflict: "Not possible now", fault.TooMany: "Too many tries", fault.TooLarge: "Too large",
	fault.Busy: "Not just now",
}

// writeProblem answers with problem+json (RFC 9457). What is not a fault is
// our mistake: it is logged, and the person hears what is safe.
func writeProblem(c *gin.Context, log *slog.Logger, err error) {
	c.Abort()
	answerProblem(c.Writer, c.FullPath(), log, err)
}

// answerProblem does the same outside of the router, for one route or none.
func answerProblem(w http.ResponseWriter, route string, log *slog.Logger, err error) {
	var tooLarge *http.MaxBytesError
	err = db.Translate(err)
	f, ok := fault.As(err)
	status := http.StatusInternalServerError
	p := api.Problem{Type: "internal", Title: "Something went wrong here", Status: status,
		Detail: "The server could not do this. Nothing was saved; what you entered is still on your screen. Try again; if it happens again, tell the chief."}
	switch {
	case errors.As(err, &tooLarge):
		p.Type, p.Title, p.Detail, status = "too-large", titleOf[fault.TooLarge],
			"What was sent is larger than this server takes. Nothing was saved.", http.StatusRequestEntityTooLarge
	case ok:
		status = statusOf[f.Kind]
		p.Type, p.Title, p.Detail = api.ProblemType(f.Type), titleOf[f.Kind], f.Detail
		if len(f.Fields) > 0 {
			fields := make([]api.FieldProblem, len(f.Fields))
			for i, x := range f.Fields {
				fields[i] = api.FieldProblem{Field: x.Field, Sentence: x.Sentence}
			}
			p.Fields = &fields
		}
	case errors.Is(err, context.DeadlineExceeded):
		p.Type, p.Title, p.Detail, status = "busy", titleOf[fault.Busy],
			"This took too long and was stopped. Nothing was saved; what you entered is still here. Try again.",
			http.StatusServiceUnavailable
		log.Warn("request took too long", "path", route)
	case errors.Is(err, context.Canceled):
		status = 499 // the client went away; nobody reads the answer
	default:
		log.Error("request failed", "path", route, "error", err)
	}
	p.Status = status
	b, merr := json.Marshal(p)
	if merr != nil {
		b = []byte(`{"type":"internal","title":"","status":500,"detail":""}`)
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_, _ = w.Write(b)
}
