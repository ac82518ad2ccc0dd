package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"runtime/debug"
	"syscall"
	"time"

	"github.com/caarlos0/env/v11"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/promhttp"
	"github.com/spf13/cobra"
	"gorm.io/gorm"

	"mainstay/internal/demo"
	"mainstay/internal/platform/changes"
	"mainstay/internal/platform/clock"
	"mainstay/internal/platform/db"
	"mainstay/internal/platform/outside"
	"mainstay/internal/platform/photos"
	"mainstay/internal/records"
	"mainstay/internal/server"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/standins/desk"
	"mainstay/internal/standins/weather"
	"mainstay/web"
)

// demoFlightSpeed is how many times faster than the clock the aircraft of the demo fly.
const demoFlightSpeed = 20

// config comes from the environment.
type config struct {
	// any PostgreSQL from version 15, as the role of the application
	DatabaseURL string `env:"DATABASE_URL,required"`
	// the same database as its owner, who migrates; default: DATABASE_URL
	OwnerURL string `env:"MAINSTAY_OWNER_URL"`
	Address  string `env:"MAINSTAY_ADDRESS" envDefault:"127.0.0.1:8080"` // host:port to listen on
	Photos   string `env:"MAINSTAY_PHOTOS" envDefault:".local/photos"`   // folder
	// true behind TLS: cookies only over TLS
	Secure bool `env:"MAINSTAY_SECURE" envDefault:"false"`
	// for tests and pictures: the clock starts here and runs
	Clock       time.Time `env:"MAINSTAY_CLOCK"`
	Debug       bool      `env:"MAINSTAY_DEBUG" envDefault:"false"` // log every request
	PerMinute   int64     `env:"MAINSTAY_REQUESTS_PER_MINUTE" envDefault:"1200"`
	Charger     string    `env:"MAINSTAY_CHARGER_URL"`  // a charger on the network; none by default
	Weather     string    `env:"MAINSTAY_WEATHER_URL"`  // a weather service on the network; none by default
	Desk        string    `env:"MAINSTAY_DESK_URL"`     // an airspace desk on the network; none by default
	Aircraft    string    `env:"MAINSTAY_AIRCRAFT_URL"` // a link to aircraft on the network; none by default
	AircraftKey string    `env:"MAINSTAY_AIRCRAFT_KEY"`
	ChargerKey  string    `env:"MAINSTAY_CHARGER_KEY"` // what each of them wants to hear, if anything
	WeatherKey  string    `env:"MAINSTAY_WEATHER_KEY"`
	DeskKey     string    `env:"MAINSTAY_DESK_KEY"`
	// host:port for figures, away from the application; none by default
	Metrics string `env:"MAINSTAY_METRICS"`
	Heads   string `env:"MAINSTAY_HEADS"` // folder for files with heads of the records; none by default
	// sends a mail given on its input, like "/usr/sbin/sendmail -i"; none by default
	HeadCommand string        `env:"MAINSTAY_HEAD_COMMAND"`
	HeadEvery   time.Duration `env:"MAINSTAY_HEAD_EVERY" envDefault:"1h"`
	Proxies     []string      `env:"MAINSTAY_PROXIES"` // proxies in front, whose X-Forwarded-For is believed
}

func load() (config, error) {
	c, err := env.ParseAs[config]()
	if err != nil {
		return c, fmt.Errorf("configuration: %w", err)
	}
	return c, nil
}

func (c config) clock() clock.Clock {
	if c.Clock.IsZero() {
		return clock.System{}
	}
	return clock.From(c.Clock)
}

func (c config) open() (*gorm.DB, *photos.Folder, error) {
	g, err := records.Open(c.DatabaseURL, db.Options{})
	if err != nil {
		return nil, nil, err
	}
	b, err := photos.Open(c.Photos)
	return g, b, err
}

// memoryWanted is where the collector begins to work harder.
const memoryWanted = 256 << 20

func serveCommand() *cobra.Command {
	return &cobra.Command{Use: "serve", Short: "Serve the application", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serve(cmd.Context(), false)
		}}
}

func demoCommand() *cobra.Command {
	return &cobra.Command{Use: "demo", Short: "Fill an empty database with the demo crew and serve it", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serve(cmd.Context(), true)
		}}
}

func serve(ctx context.Context, withDemo bool) error {
	c, err := load()
	if err != nil {
		return err
	}
	level := slog.LevelInfo
	if c.Debug {
		level = slog.LevelDebug
	}
	log := slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	// The port is taken first: a server that cannot listen should not touch the data.
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", c.Address)
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("%s is in use by another program; stop it, or set MAINSTAY_ADDRESS to a free address", c.Address)
	}
	if err != nil {
		return fmt.Errorf("listen: %w", err)
	}
	g, photos, err := c.open()
	if err != nil {
		return err
	}
	defer db.Close(g)
	defer photos.Close()
	if withDemo {
		if err := c.migrate(ctx, io.Discard); err != nil {
			return err
		}
	}
	if err := db.Current(ctx, g); err != nil {
		return err
	}
	debug.SetMemoryLimit(memoryWanted) // hashing passwords leaves much to collect
	if err := db.OwnsNothing(ctx, g); errors.Is(err, db.ErrOwner) {
		log.Warn(err.Error())
	} else if err != nil {
		return err
	}
	svc := server.NewServices(g, c.clock(), photos)
	if err := svc.Seed(ctx); err != nil {
		return err
	}
	if withDemo {
		if err := demo.Fill(ctx, svc, func(done, all int) {
			if done%50 == 0 {
				log.Info("filling in the demo crew's year", "done", done, "of", all)
			}
		}); err != nil {
			return err
		}
	}
	if withDemo && c.Charger == "" {
		// The demo brings its own charger: a real little server on loopback that charges a minute in a second.
		if c.Charger, err = startCharger(ctx, "127.0.0.1:0", 60); err != nil {
			return err
		}
		log.Info("charger stand-in", "address", c.Charger)
	}
	if withDemo && c.Weather == "" {
		if c.Weather, err = serveAt(ctx, "weather", "127.0.0.1:0", weather.New(svc.Clock.Now)); err != nil {
			return err
		}
		log.Info("weather stand-in", "address", c.Weather)
	}
	if withDemo && c.Desk == "" {
		if c.Desk, err = serveAt(ctx, "desk", "127.0.0.1:0", desk.New(svc.Clock.Now)); err != nil {
			return err
		}
		log.Info("airspace desk stand-in", "address", c.Desk)
	}
	if withDemo && c.Aircraft == "" {
		crafts, err := demo.Crafts(ctx, svc)
		if err != nil {
			return err
		}
		if c.Aircraft, err = serveAt(ctx, "aircraft", "127.0.0.1:0",
			aircraft.New(demoFlightSpeed, svc.Clock.Now, crafts...)); err != nil {
			return err
		}
		log.Info("aircraft stand-in", "address", c.Aircraft)
	}
	if c.Aircraft != "" {
		svc.Missions.Link = outside.New(c.Aircraft, c.AircraftKey)
		svc.Walkrounds.Link = svc.Missions.Link
	}
	if c.Desk != "" {
		svc.Airspace.Desk = outside.New(c.Desk, c.DeskKey)
	}
	if c.Weather != "" {
		svc.Sites.Weather = outside.New(c.Weather, c.WeatherKey)
	}
	if c.Charger != "" {
		svc.Rack.Charger = outside.New(c.Charger, c.ChargerKey)
		go svc.Rack.Watch(ctx, 5*time.Second, func(err error) { log.Error("charger", "error", err) })
	}
	queue, err := svc.Queue(slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelWarn})))
	if err != nil {
		return err
	}
	if err := queue.Start(ctx); err != nil {
		return fmt.Errorf("work queue: %w", err)
	}
	go c.keepHouse(ctx, svc, log)
	hub := changes.NewHub()
	go hub.Run(ctx, g, log)
	figures := prometheus.NewRegistry()
	if c.Metrics != "" {
		if _, err := serveAt(ctx, "metrics", c.Metrics, promhttp.HandlerFor(figures, promhttp.HandlerOpts{})); err != nil {
			return err
		}
	}
	h, err := server.New(svc, server.Options{Changes: hub, Figures: figures, Secure: c.Secure, PerMinute: c.PerMinute,
		Proxies: c.Proxies, Web: web.Files(), Log: log})
	if err != nil {
		return err
	}
	srv := &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 2 * time.Minute,
		WriteTimeout: 2 * time.Minute, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10}
	stopped := make(chan error, 1)
	go func() {
		<-ctx.Done()
		wait, cancel := context.WithTimeout(context.WithoutCancel(ctx), 20*time.Second)
		defer cancel()
		stopped <- errors.Join(srv.Shutdown(wait), queue.Stop(wait)) // writes in flight finish
	}()
	log.Info("serving", "address", "http://"+l.Addr().String())
	if err := srv.Serve(l); !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return <-stopped
}
