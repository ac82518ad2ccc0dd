package records

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"fmt"
	"hash"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/platform/db"
)

// Open opens a database whose every transaction is sealed.
func Open(url string, o db.Options) (*gorm.DB, error) {
	o.Seal = Seal
	return db.OpenWith(url, o)
}

type actorKey struct{}

// As returns a context in which b acts: the seals of what is changed name them.
func As(ctx context.Context, b By) context.Context { return context.WithValue(ctx, actorKey{}, b) }

// end is where the chain ends: the last record, and the last seal after it.
type end struct {
	Seq  int64
	Nth  int // 0: no seal after the record
	Hash []byte
	At   time.Time // of the record
}

func endOf(ctx context.Context, c gorm.ConnPool) (end, error) {
	e := end{Hash: make([]byte, sha256.Size)}
	rows, err := c.QueryContext(ctx, `select r.seq, coalesce(s.nth, 0), coalesce(s.hash, r.hash), r.at from (
			(select seq, hash, at from records order by seq desc limit 1) union all (select 0, null, null where not exists (select from records))) r
		left join lateral (select nth, hash from seals where after_seq = r.seq order by nth desc limit 1) s on true`)
	if err != nil {
		return e, err
	}
	defer func() { _ = rows.Close() }()
	for rows.Next() {
		var h []byte
		var at *time.Time
		if err := rows.Scan(&e.Seq, &e.Nth, &h, &at); err != nil {
			return e, err
		}
		if at != nil {
			e.At = *at
		}
		if h != nil {
			e.Hash = h
		}
	}
	return e, rows.Err()
}

// touched is what the transaction changed, by family.
func touched(ctx context.Context, c gorm.ConnPool) (map[string][]string, error) {
	rows, err := c.QueryContext(ctx,
		"delete from row_touched where xact = pg_current_xact_id_if_assigned() returning family, key")
	if err != nil {
		return nil, err
	}
	defer func() { _ = rows.Close() }()
	out := map[string][]string{}
	for rows.Next() {
		var f, k string
		if err := rows.Scan(&f, &k); err != nil {
			return nil, err
		}
		out[f] = append(out[f], k)
	}
	return out, rows.Err()
}

// Seal ends a transaction: the state of every row it changed is hashed, and a
// seal over these hashes follows the newest record. Who changes data without
// Mainstay leaves rows whose state is not what the chain says.
func Seal(ctx context.Context, c gorm.ConnPool) error {
	changed, err := touched(ctx, c)
	if err != nil || len(changed) == 0 {
		return err
	}
	if _, err := c.ExecContext(ctx, "select pg_advisory_xact_lock($1)", chainLock); err != nil {
		return err
	}
	e, err := endOf(ctx, c)
	if err != nil {
		return err
	}
	s := seal{AfterSeq: e.Seq, Nth: e.Nth + 1, At: time.Now().UTC().Truncate(time.Microsecond), Prev: e.Hash}
	if b, ok := ctx.Value(actorKey{}).(By); ok {
		s.By, s.ByName = optional(b.ID), b.Name
	}
	states, err := keep(ctx, c, s, changed)
	if err != nil {
		return err
	}
	s.Rows, s.Root = len(states), rootOf(states)
	_, err = c.ExecContext(ctx,
		"insert into seals (after_seq, nth, at, by_id, by_name, rows, root, prev_hash, hash) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
		s.AfterSeq, s.Nth, s.At, s.By, s.ByName, s.Rows, s.Root, s.Prev, s.sum())
	return err
}

// keep writes down the states of changed rows, all families in one statement.
func keep(ctx context.Context, c gorm.ConnPool, s seal, changed map[string][]string) ([]state, error) {
	var parts []string
	args := []any{s.AfterSeq, s.Nth}
	for _, f := range Families {
		keys := changed[f.Name]
		if len(keys) == 0 {
			continue
		}
		args = append(args, keys)
		n := len(args)
		parts = append(parts,
			fmt.Sprintf("select $1::bigint, $2::int, '%s', k.key, h.hash from unnest($%d::text[]) k (key) left join (%s) h on h.key = k.key",
				f.Name, n, f.hashed(f.at(n))))
	}
	rows, err := c.QueryContext(ctx, "insert into row_states (after_seq, nth, family, key, hash) "+strings.Join(parts,
		" union all ")+" returning family, key, hash", args...)
	if err != nil {
		return nil, err
	}
	return scanStates(rows)
}

func scanStates(rows *sql.Rows) ([]state, error) {
	defer func() { _ = rows.Close() }()
	var out []state
	for rows.Next() {
		var x state
		if err := rows.Scan(&x.Family, &x.Key, &x.Hash); err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, rows.Err()
}

// state is the hash of the rows of a family under one key; none: they are gone.
type state struct {
	Family string
	Key    string
	Hash   []byte
}

// seal binds the states of rows into the chain.
type seal struct {
	AfterSeq int64
	Nth      int
	At       time.Time
	By       *uuid.UUID
	ByName   string
	Rows     int
	Root     []byte
	Prev     []byte
	Hash     []byte
}

// sum is the hash of everything in the seal but the hash itself.
func (s seal) sum() []byte {
	w := lengths{sha256.New()}
	w.text("seal")
	w.text(fmt.Sprint(s.AfterSeq))
	w.text(fmt.Sprint(s.Nth))
	w.text(s.At.UTC().Format(time.RFC3339Nano))
	if s.By == nil {
		w.bytes(nil)
	} else {
		w.bytes(s.By[:])
	}
	w.text(s.ByName)
	w.text(fmt.Sprint(s.Rows))
	w.bytes(s.Root)
	w.bytes(s.Prev)
	return w.h.Sum(nil)
}

// rootOf is one hash over states, in the order of family and key.
func rootOf(states []state) []byte {
	slices.SortFunc(states, func(a, b state) int {
		if c := strings.Compare(a.Family, b.Family); c != 0 {
			return c
		}
		return strings.Compare(a.Key, b.Key)
	})
	w := lengths{sha256.New()}
	for _, s := range states {
		w.text(s.Family)
		w.text(s.Key)
		w.bytes(s.Hash)
	}
	return w.h.Sum(nil)
}

// lengths writes fields into a hash, each with its length before it, so that no
// two sets of fields read alike.
type lengths struct{ h hash.Hash }

func (w lengths) bytes(b []byte) {
	fmt.Fprintf(w.h, "%d:", len(b))
	w.h.Write(b)
}

func (w lengths) text(s string) { w.bytes([]byte(s)) }
