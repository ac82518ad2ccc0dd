package server

import (
	"encoding/json"
	"errors"
	"io/fs"
	"log/slog"
	"net/http"
	"path"
	"slices"
	"strings"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/ulule/limiter/v3"
	"github.com/ulule/limiter/v3/drivers/store/memory"

	"mainstay/api"
	"mainstay/internal/airspace"
	"mainstay/internal/bench"
	"mainstay/internal/day"
	"mainstay/internal/evening"
	"mainstay/internal/fleet"
	"mainstay/internal/flights"
	"mainstay/internal/jobs"
	"mainstay/internal/logbook"
	"mainstay/internal/missions"
	"mainstay/internal/people"
	"mainstay/internal/platform/changes"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/practice"
	"mainstay/internal/rack"
	"mainstay/internal/readiness"
	"mainstay/internal/rulebook"
	"mainstay/internal/setup"
	"mainstay/internal/sheets"
	"mainstay/internal/sites"
	"mainstay/internal/spraying"
	"mainstay/internal/types"
	"mainstay/internal/walkround"
	"mainstay/internal/workshop"
	"mainstay/internal/year"
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
	sm.Cookie.Name, sm.Cookie.HttpOnly, sm.Cookie.SameSite, sm.Cookie.Secure = "mainstay", true, http.SameSiteStrictMode,
		o.Secure
	if o.Changes == nil {
		o.Changes = changes.NewHub()
	}
	if o.PerMinute == 0 {
		o.PerMinute = 1200
	}
	s := &server{svc: svc, log: o.Log, contract: con, sessions: sm, web: o.Web, file: make(chan struct{}, 1),
		limit: limiter.New(memory.NewStore(), limiter.Rate{Period: time.Minute, Limit: o.PerMinute})}
	s.latency = prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "mainstay_request_seconds",
		Help: "Time to answer, by operation."}, []string{"method", "path", "status"})
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
		&people.Handlers{People: svc.People,
			Sessions: sm}, &fleet.Handlers{Fleet: svc.Fleet}, &types.Handlers{Types: svc.Types},
		&walkround.Handlers{Walkrounds: svc.Walkrounds}, &workshop.Handlers{Workshop: svc.Workshop},
		&flights.Handlers{Flights: svc.Flights}, &logbook.Handlers{Log: svc.Log}, &day.Handlers{Flights: svc.Flights},
		&rack.Handlers{Rack: svc.Rack}, &evening.Handlers{Evening: svc.Evening}, &sites.Handlers{Sites: svc.Sites},
		&airspace.Handlers{Airspace: svc.Airspace}, &readiness.Handlers{Readiness: svc.Readiness},
		&rulebook.Handlers{Rules: svc.Rules}, &practice.Handlers{Practice: svc.Practices}, &jobs.Handlers{Jobs: svc.Jobs},
		&spraying.Handlers{Spraying: svc.Spraying}, &missions.Handlers{Missions: svc.Missions},
		&sheets.Handlers{Sheets: svc.Sheets}, &year.Handlers{Year: svc.Year}, &setup.Handlers{Rack: svc.Rack,
			Sites: svc.Sites, Airspace: svc.Airspace, Missions: svc.Missions}, bench.Handlers{}, streamAPI{o.Changes}}, nil,
		api.StrictGinServerOptions{RequestErrorHandlerFunc: s.unreadable, HandlerErrorFunc: s.problem,
			ResponseErrorHandlerFunc: s.problem})
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
	if !slices.Contains([]string{http.MethodGet, http.MethodHead, http.MethodPost, http.MethodPut, http.MethodDelete},
		method) {
		method = "other" // whoever asks may call it anything
	}
	s.latency.WithLabelValues(method, route, http.StatusText(c.Writer.Status())).Observe(time.Since(start).Seconds())
	s.log.Debug("request", "method", c.Request.Method, "path", route, "status", c.Writer.Status(), "ms",
		time.Since(start).Milliseconds())
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
	if strings.HasPrefix(c.Request.URL.Path, "/api/") || c.Request.Method != http.MethodGet &&
		c.Request.Method != http.MethodHead {
		writeProblem(c, s.log, fault.Missing("address"))
		return
	}
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	if f, err := s.web.Open(name); err == nil && name != "" && name != "index.html" {
		st, err := f.Stat()
		_ = f.Close()
		if err == nil && !st.IsDir() {
			switch {
			case strings.HasPrefix(name, "assets/"):
				c.Header("Cache-Control", "public, max-age=31536000, immutable") // names carry a hash
			default:
				c.Header("Cache-Control", "no-cache")
			}
			if strings.HasSuffix(name, ".webmanifest") {
				c.Header("Content-Type", "application/manifest+json")
			}
			c.FileFromFS(name, http.FS(s.web))
			return
		}
	}
	b, err := fs.ReadFile(s.web, "index.html")
	if err != nil {
		c.String(http.StatusServiceUnavailable,
			"The web application is not built into this program. Run bin/demo, which builds it.")
		return
	}
	c.Header("Cache-Control", "no-cache")
	c.Data(http.StatusOK, "text/html; charset=utf-8", b)
}
