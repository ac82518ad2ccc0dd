// Package db opens PostgreSQL, runs the migrations and turns its errors into
// sentences.
package db

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"embed"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"strconv"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"

	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/work"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Deadlines: of every connection, and for a turn among those who write.
const (
	turnDeadline      = 5 * time.Second
	statementDeadline = 15 * time.Second
	lockDeadline      = 5 * time.Second
	idleDeadline      = 30 * time.Second // inside a transaction that does nothing
)

// Connections is how many connections a server holds when nothing else is said.
const Connections = 16

// Options of OpenWith.
type Options struct {
	Size    int  // connections at most, Connections when 0; half of them, but at least one, may be in transactions at once
	Patient bool // no deadlines: for commands that somebody waits for, such as migrations and checks
	// Seal runs at the end of every transaction that may have written, before it commits.
	Seal func(context.Context, gorm.ConnPool) error
}

// OpenWith opens a database, with at most Connections connections and deadlines
// for statements and locks unless the options say otherwise.
func OpenWith(url string, o Options) (*gorm.DB, error) {
	size := o.Size
	if size == 0 {
		size = Connections
	}
	cfg, err := pgx.ParseConfig(url)
	if err != nil {
		return nil, errors.New("open database: the address of the database cannot be read; it looks like postgres://user@host:5432/name")
	}
	for name, d := range map[string]time.Duration{"statement_timeout": statementDeadline, "lock_timeout": lockDeadline,
		"idle_in_transaction_session_timeout": idleDeadline} {
		if _, set := cfg.RuntimeParams[name]; !set && !o.Patient {
			cfg.RuntimeParams[name] = strconv.FormatInt(d.Milliseconds(), 10)
		}
	}
	cfg.RuntimeParams["timezone"] = "UTC" // states of rows are hashed as text
	if cfg.ConnectTimeout == 0 {
		cfg.ConnectTimeout = 5 * time.Second
	}
	conns := stdlib.OpenDB(*cfg)
	conns.SetMaxOpenConns(size)
	conns.SetMaxIdleConns(size)
	g, err := gorm.Open(postgres.New(postgres.Config{Conn: pool{conns, cfg, make(chan struct{}, max(1, size/2)), o.Seal}}),
		&gorm.Config{
			Logger:                 logger.Discard, // errors are returned; the server logs them once
			SkipDefaultTransaction: true,
			PrepareStmt:            false, // pgx caches prepared statements itself
			NowFunc:                func() time.Time { return time.Now().UTC().Truncate(time.Microsecond) },
		})
	if err != nil {
		_ = conns.Close()
		return nil, fmt.Errorf("open database: %w", err)
	}
	return g, nil
}

// Close closes the connections.
func Close(g *gorm.DB) {
	if pool, err := g.DB(); err == nil {
		_ = pool.Close()
	}
}

func provider(g *gorm.DB) (*goose.Provider, *sql.DB, error) {
	pool, err := g.DB()
	if err != nil {
		return nil, nil, err
	}
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, nil, err
	}
	p, err := goose.NewProvider(goose.DialectPostgres, pool, dir, goose.WithSlog(slog.New(slog.DiscardHandler)))
	return p, pool, err
}

// Migrate brings the schema up to this program's version.
func Migrate(ctx context.Context, g *gorm.DB) error {
	p, pool, err := provider(g)
	if err != nil {
		return err
	}
	if _, err = p.Up(ctx); err != nil {
		return err
	}
	return work.Migrate(ctx, pool)
}

// MigrateDown takes every migration back; for the test that proves it can.
func MigrateDown(ctx context.Context, g *gorm.DB) error {
	p, pool, err := provider(g)
	if err != nil {
		return err
	}
	if err := work.MigrateDown(ctx, pool); err != nil {
		return err
	}
	_, err = p.DownTo(ctx, 0)
	return err
}

// Current fails when the schema is behind this program.
func Current(ctx context.Context, g *gorm.DB) error {
	p, _, err := provider(g)
	if err != nil {
		return err
	}
	pending, err := p.HasPending(ctx)
	if err != nil {
		return err
	}
	if pending {
		return errors.New("the database is older than this program: run `mainstay migrate` first")
	}
	return nil
}

// constraints says, for each rule the database keeps, which field broke it and
// what to tell people.
var constraints = map[string]fault.Field{
	"people_name_once": {Field: "name",
		Sentence: "Somebody in the crew has this name already; add what tells them apart. Those who left count too, for their records stay."},
	"people_login_once":    {Field: "login", Sentence: "Somebody already signs in with this name."},
	"aircraft_name_once":   {Field: "name", Sentence: "Another aircraft has this name."},
	"aircraft_serial_once": {Field: "serial", Sentence: "Another aircraft has this serial number."},
	"parts_serial_once": {Field: "serial",
		Sentence: "A part of this kind with this serial number already exists."},
	"parts_station_once": {Field: "station", Sentence: "Another part is fitted at this station."},
	"packs_label_once":   {Field: "label", Sentence: "Another pack has this label."},
	"packs_serial_once":  {Field: "serial", Sentence: "Another pack has this serial number."},
	"type_version_once": {Field: "version",
		Sentence: "This version of the type exists already; raise the version."},
	"checklist_version_once": {Field: "version",
		Sentence: "This version of the checklist exists already; raise the version."},
	"walkround_entries_once": {Field: "item_id",
		Sentence: "This entry was sent twice at the same moment; look at it and send it again if it is missing."},
	"defects_found_once": {Field: "title",
		Sentence: "The same was found at the same moment by somebody else; it is open already."},
	"walkrounds_open_once":       {Field: "aircraft_id", Sentence: "Somebody is already walking round this aircraft."},
	"releases_open_once":         {Field: "aircraft_id", Sentence: "Somebody has already released this aircraft."},
	"flights_aircraft_open_once": {Field: "aircraft_id", Sentence: "This aircraft has a flight that is not logged yet."},
	"flights_pilot_air_once":     {Field: "pilot_id", Sentence: "This pilot already has an aircraft in the air."},
	"flights_release_once":       {Field: "release_id", Sentence: "This release has already been flown."},
	"programme_version_once": {Field: "version",
		Sentence: "This version of the programme exists already; raise the version."},
	"work_orders_task_once":   {Field: "task_id", Sentence: "A work order for this task is open already."},
	"work_orders_defect_once": {Field: "defect_id", Sentence: "A work order for this defect is open already."},
	"deferrals_defect_once":   {Field: "defect_id", Sentence: "This defect is put off already."},
	"deferrals_task_once":     {Field: "task_id", Sentence: "This task is put off already."},
	"stock_name_once":         {Field: "name", Sentence: "Another stock line has this name."},
	"stock_kind_once":         {Field: "kind", Sentence: "There is a stock line for these parts already."},
	"firmware_version_once": {Field: "version",
		Sentence: "This version of the combination exists already; raise the version."},
	"charges_channel_once": {Field: "channel", Sentence: "This channel is charging another pack."},
	"charges_pack_once":    {Field: "pack_id", Sentence: "This pack is on a charger already."},
	"sites_name_once":      {Field: "name", Sentence: "Another site has this name."},
	"sites_elevation":      {Field: "elevation_m", Sentence: "An elevation is between -500 and 6000 m."},
	"nozzles_key_once": {Field: "name",
		Sentence: "Another nozzle of the list began with this name; take one that tells them apart."},
	"cameras_key_once": {Field: "name",
		Sentence: "Another camera of the list began with this name; take one that tells them apart."},
	"canopies_key_once": {Field: "name",
		Sentence: "Another row of the table began with this name; take one that tells them apart."},
	"gear_name_once":     {Field: "name", Sentence: "Other gear has this name."},
	"chargers_name_once": {Field: "name", Sentence: "Another charger has this name."},
	"job_aircraft_once": {Field: "aircraft",
		Sentence: "An aircraft of this job is in another job at that time. Change the window, or take another."},
	"job_people_once": {Field: "people",
		Sentence: "Somebody of this job is in another job at that time. Change the window, or take somebody else."},
	"job_command_once":     {Field: "people", Sentence: "One person is in command of a job."},
	"jobs_window":          {Field: "to", Sentence: "A job ends after it begins, within 24 hours."},
	"zones_outside_once":   {Field: "id", Sentence: "Another zone of this source has this id."},
	"documents_order":      {Field: "expires_on", Sentence: "It ends before it was issued."},
	"authorisations_order": {Field: "to", Sentence: "The window ends before it begins."},
	"crew_pkey":            {Field: "crew_name", Sentence: "The crew is already set up."},
}

// Translate turns errors of the driver into faults; others pass unchanged.
func Translate(err error) error {
	var pg *pgconn.PgError
	if err == nil || !errors.As(err, &pg) {
		if unreachable(err) {
			return away()
		}
		return err
	}
	if f, ok := constraints[pg.ConstraintName]; ok {
		return &fault.Error{Kind: fault.Conflict, Type: "conflict", Detail: f.Sentence, Fields: []fault.Field{f}}
	}
	if strings.HasPrefix(pg.Code, "08") || strings.HasPrefix(pg.Code, "57P") {
		return away()
	}
	switch pg.Code {
	case lockNotAvailable, queryCanceled, deadlock, serialization, tooManyConnections:
		return busy()
	}
	if pg.Code == twice {
		return fault.Clash("conflict",
			"The same was sent twice at the same moment. It is saved once, if it could be; load the page and look.")
	}
	if pg.Code == untranslatable || pg.Code == notInEncoding {
		return fault.Bad("text",
			"The text holds a character that cannot be stored. Nothing was saved; take the character out.")
	}
	if pg.Code == noSuchRow {
		return fault.Bad("", "Something that this names is not there (any more). Nothing was saved; load the page again and choose anew.")
	}
	return err
}

// The codes of PostgreSQL for text with a NUL in it, in JSON and plain, and for
// a reference to a row that does not exist.
// unreachable reports whether an error says that the database cannot be
// reached, as opposed to something that it says.
func unreachable(err error) bool {
	var connect *pgconn.ConnectError
	var network *net.OpError
	if _, ours := fault.As(err); err == nil || ours || errors.Is(err, context.Canceled) ||
		errors.Is(err, context.DeadlineExceeded) && !errors.As(err, &connect) {
		return false
	}
	return errors.As(err, &connect) || errors.As(err, &network) || errors.Is(err, driver.ErrBadConn) ||
		errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, io.EOF) || pgconn.SafeToRetry(err) ||
		strings.Contains(err.Error(), "conn closed")
}

func away() error {
	return &fault.Error{Kind: fault.Busy, Type: "database-away",
		Detail: "The database does not answer just now. Nothing was saved; what you entered is still here. Try again; it goes on as soon as it is back."}
}

// inDoubt is for a change whose end was not heard.
func inDoubt() error {
	return &fault.Error{Kind: fault.Busy, Type: "in-doubt",
		Detail: "The connection to the database broke while this was being saved, so that nobody can say whether it was. Press again: the same press never counts twice."}
}

// Codes of PostgreSQL for what somebody sent.
const twice = "23505"

const untranslatable, notInEncoding, noSuchRow = "22P05", "22021", "23503"

// Codes of PostgreSQL for a turn that did not come.
const lockNotAvailable, queryCanceled, deadlock, serialization, tooManyConnections = "55P03", "57014", "40P01", "40001",
	"53300"
