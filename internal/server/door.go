package server

import (
	"context"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"mainstay/core/crew"
	"mainstay/internal/people"
	"mainstay/internal/platform/fault"
	"mainstay/internal/walkround"
)

// pictures is where a page may load map pictures from besides here: nowhere,
// unless the crew named a place. Only pages ask; their files and the API do not.
func (s *server) pictures(c *gin.Context) string {
	p := c.Request.URL.Path
	if strings.HasPrefix(p, "/api/") || strings.Contains(p, ".") || p == "/healthz" || p == "/readyz" {
		return ""
	}
	crew, _, err := s.svc.People.Crew(c)
	if err != nil || crew.TileOrigin() == "" {
		return ""
	}
	return " " + crew.TileOrigin()
}

// headers are strict: everything the pages need comes from here. The judgement
// of entries is a WebAssembly program of ours; nothing else is compiled there.
func (s *server) headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy",
		"default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; img-src 'self' blob: data:"+s.pictures(c)+"; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	if s.sessions.Cookie.Secure {
		h.Set("Strict-Transport-Security", "max-age=31536000")
	}
	h.Set("Permissions-Policy", "geolocation=(self), camera=(self), microphone=()")
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store")
	}
}

// slow holds back an address that asks too much.
func (s *server) slow(c *gin.Context) {
	got, err := s.limit.Get(c, c.ClientIP())
	if err == nil && got.Reached {
		writeProblem(c, s.log, &fault.Error{Kind: fault.TooMany, Type: "too-many",
			Detail: "This device asks too much at once. Wait a minute; nothing you entered is lost."})
	}
}

// takesFiles are the operations that take whole files.
var takesFiles = map[string]bool{"/api/v1/log/import": true, "/api/v1/packs/import": true,
	"/api/v1/sites/:id/import": true, "/api/v1/sites/:id/terrain": true,
	aMission + "/flights/:number/read/file": true, aMission + "/pictures/list": true}

// aMission is the address of a mission plan.
const aMission = "/api/v1/jobs/:id/mission/:aircraft"

// takesPictures are the operations that take the places of thousands of pictures as JSON.
var takesPictures = map[string]bool{aMission + "/flights/:number/look": true, aMission + "/flights/:number/flown": true}

// Time to answer. Work ends with the request, whether it took too long or the
// asker has gone.
const (
	answerIn     = 20 * time.Second
	answerFileIn = 2 * time.Minute
)

// deadline ends the work of a request that takes too long; nothing is saved.
// The stream of changes ends by itself.
func deadline(c *gin.Context) {
	d := answerIn
	switch {
	case c.FullPath() == "/api/v1/changes":
		return
	case takesFiles[c.FullPath()] && c.Request.Method != http.MethodGet, c.FullPath() == "/api/v1/records/verify",
		c.FullPath() == "/api/v1/records/export":
		d = answerFileIn
	}
	ctx, stop := context.WithTimeout(c.Request.Context(), d)
	defer stop()
	c.Request = c.Request.WithContext(ctx)
	c.Next()
}

// oneFile reads one file at a time: the largest would otherwise be in memory
// several times over.
func (s *server) oneFile(c *gin.Context) {
	if !takesFiles[c.FullPath()] || c.Request.Method == http.MethodGet {
		return
	}
	select {
	case s.file <- struct{}{}:
		defer func() { <-s.file }()
		c.Next()
	default:
		writeProblem(c, s.log, &fault.Error{Kind: fault.Busy, Type: "busy",
			Detail: "Another file is being taken in just now. Nothing was taken from this one; try again in a moment."})
	}
}

// bodyLimit caps what a request may send.
func bodyLimit(c *gin.Context) {
	limit := int64(1 << 20)
	switch {
	case c.FullPath() == "/api/v1/photos":
		limit = walkround.MaxPhoto + 1024
	case takesPictures[c.FullPath()]:
		limit = 8 << 20
	case takesFiles[c.FullPath()]:
		limit = 64 << 20
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, limit)
}

// origin refuses changes that another site makes a browser send.
func (s *server) origin(c *gin.Context) {
	if c.Request.Method == http.MethodGet || c.Request.Method == http.MethodHead {
		return
	}
	if site := c.GetHeader("Sec-Fetch-Site"); site != "" && site != "same-origin" && site != "none" {
		writeProblem(c, s.log, fault.Denied("This request came from another site and was refused."))
		return
	}
	if o := c.GetHeader("Origin"); o != "" {
		if u, err := url.Parse(o); err != nil || !strings.EqualFold(u.Host, c.Request.Host) {
			writeProblem(c, s.log, fault.Denied("This request came from another site and was refused."))
		}
	}
}

// authorise finds out who is asking and whether the contract lets them.
func (s *server) authorise(c *gin.Context) {
	allowed := s.contract.roles[c.Request.Method+" "+c.FullPath()]
	if slices.Contains(allowed, "public") {
		return
	}
	ctx := c.Request.Context()
	p, ok := s.signedIn(c)
	if !ok {
		if !c.IsAborted() {
			writeProblem(c, s.log, &fault.Error{Kind: fault.Unauthorized, Type: "not-signed-in",
				Detail: "You are not signed in, or your session has ended. Sign in; what you entered is kept on this device."})
		}
		return
	}
	roles := make([]crew.Role, len(allowed))
	for i, r := range allowed {
		roles[i] = crew.Role(r)
	}
	if !slices.Contains(allowed, "any") && !p.Has(roles...) {
		writeProblem(c, s.log, fault.Denied("Your role does not allow this. It needs: %s.", strings.Join(allowed, ", ")))
		return
	}
	if p.Once != "" && !s.contract.beforeSecrets[c.Request.Method+" "+c.FullPath()] {
		writeProblem(c, s.log, &fault.Error{Kind: fault.Forbidden, Type: "secrets-first",
			Detail: "Your password is a one-time one. Choose your own password and PIN first; then everything else works."})
		return
	}
	c.Request = c.Request.WithContext(people.With(ctx, p))
}

// from notes which browser asks, and from where.
func (s *server) from(c *gin.Context) {
	d := people.Device{Address: c.ClientIP()}
	if k, err := c.Request.Cookie(people.DeviceCookie); err == nil && len(k.Value) == 43 {
		d.Token = k.Value
	}
	c.Request = c.Request.WithContext(people.On(c.Request.Context(), d))
}

func (s *server) signedIn(c *gin.Context) (people.Person, bool) {
	ctx := c.Request.Context()
	id, err := uuid.Parse(s.sessions.GetString(ctx, people.SessionPerson))
	if err != nil {
		return people.Person{}, false
	}
	p, err := s.svc.People.Get(ctx, id)
	if err != nil {
		if !fault.Is(err, "not-found") {
			writeProblem(c, s.log, err)
		}
		return p, false
	}
	return p, p.Active && p.SessionEpoch == s.sessions.GetInt(ctx, people.SessionEpoch)
}
