package server

import (
	"context"
	"encoding/json"
	"errors"
	"io/fs"
	"log/slog"
	"net/http"
	"net/url"
	"path"
	"slices"
	"strings"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/ulule/limiter/v3"
	"github.com/ulule/limiter/v3/drivers/store/memory"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/internal/airspace"
	"mainstay/internal/day"
	"mainstay/internal/evening"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/jobs"
	"mainstay/internal/logbook"
	"mainstay/internal/people"
	"mainstay/internal/platform/changes"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/practice"
	"mainstay/internal/rack"
	"mainstay/internal/readiness"
	"mainstay/internal/rulebook"
	"mainstay/internal/sites"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
)

// Options are what differs between a server at a field edge and one behind TLS.
type Options struct {
	Secure    bool         // cookies only over TLS
	PerMinute int64        // requests one address may make in a minute; 0 is 1200
	Proxies   []string     // proxies whose X-Forwarded-For is believed; none by default
	Web       fs.FS        // the built web application
	Changes   *changes.Hub // told by the database; nil: no stream tells anything
	Log       *slog.Logger
	Figures   *prometheus.Registry // takes what is measured; nil: nobody asks
}

type server struct {
	svc      *Services
	log      *slog.Logger
	contract *contract
	sessions *scs.SessionManager
	limit    *limiter.Limiter
	web      fs.FS
	latency  *prometheus.HistogramVec
	file     chan struct{} // held while a file is read
}

// A session lasts a working day and its evening. It has no idle limit: that
// would turn every look at a page into a write.
const sessionLife = 18 * time.Hour

// New builds the HTTP handler over the services.
func New(svc *Services, o Options) (http.Handler, error) {
	con, err := loadContract()
	if err != nil {
		return nil, err
	}
	pool, err := svc.DB.DB()
	if err != nil {
		return nil, err
	}
	sm := scs.New()
	sm.Store = postgresstore.NewWithCleanupInterval(pool, 0)
	sm.HashTokenInStore = true // a copy of the database opens no session
	sm.Lifetime = sessionLife
	sm.Cookie.Name, sm.Cookie.HttpOnly, sm.Cookie.SameSite, sm.Cookie.Secure = "mainstay", true, http.SameSiteStrictMode, o.Secure
	if o.Changes == nil {
		o.Changes = changes.NewHub()
	}
	if o.PerMinute == 0 {
		o.PerMinute = 1200
	}
	s := &server{svc: svc, log: o.Log, contract: con, sessions: sm, web: o.Web, file: make(chan struct{}, 1),
		limit: limiter.New(memory.NewStore(), limiter.Rate{Period: time.Minute, Limit: o.PerMinute})}
	s.latency = prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "mainstay_request_seconds", Help: "Time to answer, by operation."}, []string{"method", "path", "status"})
	if o.Figures != nil {
		o.Figures.MustRegister(s.latency)
	}

	gin.SetMode(gin.ReleaseMode)
	e := gin.New()
	e.ContextWithFallback = true
	if err := e.SetTrustedProxies(o.Proxies); err != nil {
		return nil, err
	}
	e.Use(gin.CustomRecoveryWithWriter(nil, func(c *gin.Context, r any) {
		writeProblem(c, s.log, errors.New("panic while answering "+c.FullPath()))
		s.log.Error("panic", "what", r)
	}), s.observe, s.headers, gzip.Gzip(gzip.BestSpeed, gzip.WithExcludedPaths([]string{"/api/v1/changes"})))
	e.GET("/healthz", func(c *gin.Context) { c.String(http.StatusOK, "ok") })
	e.GET("/readyz", func(c *gin.Context) {
		if err := db.Current(c, svc.DB); err != nil {
			c.String(http.StatusServiceUnavailable, "not ready")
			return
		}
		c.String(http.StatusOK, "ready")
	})
	e.GET("/metrics", func(c *gin.Context) { c.Status(http.StatusNotFound) }) // figures have an address of their own
	e.GET("/api/v1/openapi.json", s.document)
	e.GET("/api/v1", s.readable)

	g := e.Group("/api/v1")
	g.Use(s.slow, deadline, s.oneFile, bodyLimit, s.origin, s.from, s.authorise, s.validate)
	strict := api.NewStrictHandlerWithOptions(handlers{
		&people.Handlers{People: svc.People, Sessions: sm}, &fleet.Handlers{Fleet: svc.Fleet}, &walkround.Handlers{Walkrounds: svc.Walkrounds}, &workshop.Handlers{Workshop: svc.Workshop},
		&flights.Handlers{Flights: svc.Flights}, &logbook.Handlers{Log: svc.Log}, &day.Handlers{Flights: svc.Flights}, &rack.Handlers{Rack: svc.Rack}, &evening.Handlers{Evening: svc.Evening}, &sites.Handlers{Sites: svc.Sites},
		&airspace.Handlers{Airspace: svc.Airspace}, &readiness.Handlers{Readiness: svc.Readiness}, &rulebook.Handlers{Rules: svc.Rules}, &practice.Handlers{Practice: svc.Practices}, &jobs.Handlers{Jobs: svc.Jobs}, streamAPI{o.Changes}}, nil,
		api.StrictGinServerOptions{RequestErrorHandlerFunc: s.unreadable, HandlerErrorFunc: s.problem, ResponseErrorHandlerFunc: s.problem})
	api.RegisterHandlersWithOptions(g, strict, api.GinServerOptions{ErrorHandler: func(c *gin.Context, err error, _ int) {
		writeProblem(c, s.log, fault.Bad("", "A value in the address cannot be used."))
	}})
	e.NoRoute(s.page)
	sm.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) { // the session could not be read or kept
		answerProblem(w, "session", o.Log, err)
	}
	api := sm.LoadAndSave(e)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if strings.HasPrefix(r.URL.Path, "/api/") {
			api.ServeHTTP(w, r)
		} else { // pages need no session, and come even when the database is away
			e.ServeHTTP(w, r)
		}
	}), nil
}

func (s *server) problem(c *gin.Context, err error) { writeProblem(c, s.log, err) }

func (s *server) observe(c *gin.Context) {
	start := time.Now()
	c.Next()
	route := c.FullPath()
	if route == "" {
		route = "page"
	}
	method := c.Request.Method
	if !slices.Contains([]string{http.MethodGet, http.MethodHead, http.MethodPost, http.MethodPut, http.MethodDelete}, method) {
		method = "other" // whoever asks may call it anything
	}
	s.latency.WithLabelValues(method, route, http.StatusText(c.Writer.Status())).Observe(time.Since(start).Seconds())
	s.log.Debug("request", "method", c.Request.Method, "path", route, "status", c.Writer.Status(), "ms", time.Since(start).Milliseconds())
}

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

// headers are strict: everything the pages need comes from here.
func (s *server) headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'self'; img-src 'self' blob: data:"+s.pictures(c)+"; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
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
		writeProblem(c, s.log, &fault.Error{Kind: fault.TooMany, Type: "too-many", Detail: "This device asks too much at once. Wait a minute; nothing you entered is lost."})
	}
}

// takesFiles are the operations that take whole files.
var takesFiles = map[string]bool{"/api/v1/log/import": true, "/api/v1/packs/import": true, "/api/v1/sites/:id/import": true, "/api/v1/sites/:id/terrain": true}

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
	case takesFiles[c.FullPath()] && c.Request.Method != http.MethodGet, c.FullPath() == "/api/v1/records/verify", c.FullPath() == "/api/v1/records/export":
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
		writeProblem(c, s.log, &fault.Error{Kind: fault.Busy, Type: "busy", Detail: "Another file is being taken in just now. Nothing was taken from this one; try again in a moment."})
	}
}

// bodyLimit caps what a request may send.
func bodyLimit(c *gin.Context) {
	limit := int64(1 << 20)
	switch {
	case c.FullPath() == "/api/v1/photos":
		limit = walkround.MaxPhoto + 1024
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
			writeProblem(c, s.log, &fault.Error{Kind: fault.Unauthorized, Type: "not-signed-in", Detail: "You are not signed in, or your session has ended. Sign in; what you entered is kept on this device."})
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
		writeProblem(c, s.log, &fault.Error{Kind: fault.Forbidden, Type: "secrets-first", Detail: "Your password is a one-time one. Choose your own password and PIN first; then everything else works."})
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

func (s *server) document(c *gin.Context) {
	b, err := json.Marshal(s.contract.doc)
	if err != nil {
		s.problem(c, err)
		return
	}
	c.Data(http.StatusOK, "application/json", b)
}

// page serves the web application: files as they are, every other address the
// page that routes itself.
func (s *server) page(c *gin.Context) {
	if strings.HasPrefix(c.Request.URL.Path, "/api/") || c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		writeProblem(c, s.log, fault.Missing("address"))
		return
	}
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	if f, err := s.web.Open(name); err == nil && name != "" && name != "index.html" {
		st, err := f.Stat()
		_ = f.Close()
		if err == nil && !st.IsDir() {
			if strings.HasPrefix(name, "assets/") {
				c.Header("Cache-Control", "public, max-age=31536000, immutable") // names carry a hash
			}
			c.FileFromFS(name, http.FS(s.web))
			return
		}
	}
	b, err := fs.ReadFile(s.web, "index.html")
	if err != nil {
		c.String(http.StatusServiceUnavailable, "The web application is not built into this program. Run bin/demo, which builds it.")
		return
	}
	c.Header("Cache-Control", "no-cache")
	c.Data(http.StatusOK, "text/html; charset=utf-8", b)
}
