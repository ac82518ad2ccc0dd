package db

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"gorm.io/gorm"

	"mainstay/internal/platform/fault"
)

// pool gives every statement to the transaction that its context carries, and
// to a connection of its own only when it carries none. So nothing that is
// called inside a transaction can ask for a second connection and wait for
// itself, whatever it is and however it was handed the database.
type pool struct {
	conns *sql.DB
	cfg   *pgx.ConnConfig
	// writers bounds how many transactions run at once: those that wait for
	// one another's locks leave connections to those who only read.
	writers chan struct{}
	seal    func(context.Context, gorm.ConnPool) error
}

type txKey struct{}

var errNotOurs = errors.New("this database was not opened by db.Open")

func (p pool) in(ctx context.Context) gorm.ConnPool {
	if t, ok := ctx.Value(txKey{}).(*sql.Tx); ok {
		return t
	}
	return p.conns
}

// PrepareContext prepares a statement.
func (p pool) PrepareContext(ctx context.Context, q string) (*sql.Stmt, error) {
	return p.in(ctx).PrepareContext(ctx, q)
}

// ExecContext runs a statement. One that writes is a transaction, its own if
// there is none, for every transaction is sealed.
func (p pool) ExecContext(ctx context.Context, q string, args ...any) (res sql.Result, err error) {
	if Inside(ctx) || p.seal == nil || !writes(q) {
		return p.in(ctx).ExecContext(ctx, q, args...)
	}
	err = p.tx(ctx, func(ctx context.Context) error {
		res, err = p.in(ctx).ExecContext(ctx, q, args...)
		return err
	})
	return res, err
}

func writes(q string) bool {
	verb, _, _ := strings.Cut(strings.ToLower(strings.TrimSpace(q)), " ")
	return verb != "select"
}

// QueryContext asks for rows.
func (p pool) QueryContext(ctx context.Context, q string, args ...any) (*sql.Rows, error) {
	return p.in(ctx).QueryContext(ctx, q, args...)
}

// QueryRowContext asks for one row.
func (p pool) QueryRowContext(ctx context.Context, q string, args ...any) *sql.Row {
	return p.in(ctx).QueryRowContext(ctx, q, args...)
}

// GetDBConn gives the pool to those that need it whole: sessions, migrations,
// the work queue. There is no Begin here, so that gorm cannot make a
// transaction either: Tx is the one way.
func (p pool) GetDBConn() (*sql.DB, error) { return p.conns, nil }

// Tx runs fn in a transaction, and inside the one that ctx carries already if
// it does. The context given to fn carries the transaction: everything called
// with it, on any service, takes part. An error or a panic rolls back.
//
// A transaction waits its turn behind others, for a lock and for a statement
// no longer than the deadlines of Open, and no longer than ctx. One that the
// database ended to break a circle of waiting is run again: fn changes nothing
// outside but what it sets anew each time.
func Tx(ctx context.Context, g *gorm.DB, fn func(ctx context.Context, tx *gorm.DB) error) error {
	if _, inside := ctx.Value(txKey{}).(*sql.Tx); inside {
		return fn(ctx, g.WithContext(ctx))
	}
	p, ok := g.ConnPool.(pool)
	if !ok {
		return errNotOurs
	}
	return Translate(p.tx(ctx, func(ctx context.Context) error { return fn(ctx, g.WithContext(ctx)) }))
}

// runs is how often a transaction is run before a circle of waiting is told.
const runs = 4

func (p pool) tx(ctx context.Context, fn func(ctx context.Context) error) error {
	for n := 1; ; n++ {
		err := p.once(ctx, fn)
		if !circular(err) || n == runs {
			return err
		}
	}
}

// circular reports whether the database ended a transaction so that others may
// go on.
func circular(err error) bool {
	var pg *pgconn.PgError
	return errors.As(err, &pg) && (pg.Code == deadlock || pg.Code == serialization)
}

func (p pool) once(ctx context.Context, fn func(ctx context.Context) error) error {
	select {
	case p.writers <- struct{}{}:
		defer func() { <-p.writers }()
	case <-time.After(turnDeadline):
		return busy()
	case <-ctx.Done():
		return fmt.Errorf("waiting for a turn to write: %w", ctx.Err())
	}
	t, err := p.conns.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer func() { _ = t.Rollback() }() // after a commit it does nothing
	in := context.WithValue(ctx, txKey{}, t)
	if err := fn(in); err != nil {
		return err
	}
	if p.seal != nil {
		if err := p.seal(in, t); err != nil {
			return err
		}
	}
	if err := t.Commit(); err != nil {
		if unreachable(err) {
			return inDoubt()
		}
		return err
	}
	return nil
}

// Snapshot runs fn in a transaction that only reads and sees one moment of the
// database throughout.
func Snapshot(ctx context.Context, g *gorm.DB, fn func(ctx context.Context, tx *gorm.DB) error) error {
	p, ok := g.ConnPool.(pool)
	if !ok {
		return errNotOurs
	}
	t, err := p.conns.BeginTx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return Translate(err)
	}
	defer func() { _ = t.Rollback() }()
	in := context.WithValue(ctx, txKey{}, t)
	return Translate(fn(in, g.WithContext(in)))
}

// Dial makes a connection outside of the pool, for what holds one for good.
func Dial(ctx context.Context, g *gorm.DB) (*pgx.Conn, error) {
	p, ok := g.ConnPool.(pool)
	if !ok {
		return nil, errNotOurs
	}
	return pgx.ConnectConfig(ctx, p.cfg.Copy())
}

// importLock makes imports take turns, over all servers.
const importLock = 0x6d616970

// OneImport refuses a second import beside the one that goes on: each of them
// may hold many rows, and the memory they are read into.
func OneImport(ctx context.Context, tx *gorm.DB) error {
	var turn bool
	if err := tx.WithContext(ctx).Raw("select pg_try_advisory_xact_lock(?)", importLock).Scan(&turn).Error; err != nil {
		return err
	}
	if !turn {
		return &fault.Error{Kind: fault.Busy, Type: "busy",
			Detail: "Another file is being taken in just now. Nothing was taken from this one; try again in a moment."}
	}
	return nil
}

// Inside reports whether ctx carries a transaction.
func Inside(ctx context.Context) bool { _, ok := ctx.Value(txKey{}).(*sql.Tx); return ok }

// Outside returns ctx without its transaction, for the few things that must
// stay even when the transaction does not: above all the count of wrong tries.
// It must not be called while the caller holds locks that the work needs.
func Outside(ctx context.Context) context.Context { return context.WithValue(ctx, txKey{}, nil) }

// Long lifts the deadlines of single statements, and of waiting between them, in
// the transaction of ctx, for work that is known to take long: imports, checking
// and exporting every record.
func Long(ctx context.Context, g *gorm.DB, d time.Duration) error {
	if !Inside(ctx) {
		return errors.New("a deadline is lifted only inside a transaction")
	}
	return g.WithContext(ctx).Exec("select set_config('statement_timeout', ?, true), set_config('idle_in_transaction_session_timeout', ?, true)",
		strconv.FormatInt(d.Milliseconds(), 10), strconv.FormatInt(d.Milliseconds(), 10)).Error
}

// busy is what people hear when their turn did not come in time.
func busy() error {
	return &fault.Error{Kind: fault.Busy, Type: "busy",
		Detail: "Too many are at this at once, and your turn did not come in time. Nothing was saved; what you entered is still here. Try again."}
}
