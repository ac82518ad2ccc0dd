package records

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"

	"mainstay/internal/platform/db"
	"mainstay/internal/platform/fault"
	"mainstay/internal/platform/photos"
)

// Result of a check.
type Result struct {
	Count  int64 // records seen
	Seals  int64 // seals seen
	States int64 // things whose state was compared with the newest seal
	Photos int64 // photos whose bytes were compared
	// number of the first record that does not hold, or after which a seal does not; 0 when the chain holds
	FirstBad int64
	Why      string // what is wrong there
	Differs  string // the first thing that is not as the chain says, in a sentence
	Head     Head   // where the chain ends
	Known    string // what the head that was known outside says, when one was given
}

// OK reports whether everything holds.
func (r Result) OK() bool { return r.FirstBad == 0 && r.Why == "" && r.Differs == "" }

// Sentence says the result.
func (r Result) Sentence() string {
	switch {
	case r.Why != "" && r.FirstBad == 0:
		return r.Why + " Keep the database as it is and compare it with a backup."
	case r.Why != "":
		return fmt.Sprintf("Record %d does not hold: %s. Records before it are sound. Keep the database as it is and compare it with a backup.",
			r.FirstBad, r.Why)
	case r.Differs != "":
		return r.Differs + " The records themselves hold. Keep the database as it is and compare it with a backup."
	}
	s := fmt.Sprintf("All %d records hold, each bound to the one before it, and %d things are as they say.", r.Count,
		r.States)
	if r.Photos > 0 {
		s += fmt.Sprintf(" So are the bytes of %d photos.", r.Photos)
	}
	return s + r.Known
}

// Check says how far a check goes.
type Check struct {
	Photos photos.Store // compare the bytes of every photo
	Head   *Head        // a head known outside: the chain must lead through it
}

// One check or export at a time, and the time one statement of it may take: it
// reads everything.
const (
	checkLock = 0x6d61696f
	longCheck = 10 * time.Minute
)

var errStop = errors.New("enough is known")

// Verify walks the whole chain and names the first record that does not hold;
// then it compares everything that the chain knows the state of, and names the
// first thing that is not as it should be.
func Verify(ctx context.Context, g *gorm.DB, c Check) (Result, error) {
	var res Result
	err := db.Snapshot(ctx, g, func(ctx context.Context, tx *gorm.DB) error {
		if err := alone(ctx, tx); err != nil {
			return err
		}
		return verify(ctx, tx, c, &res)
	})
	return res, err
}

// alone makes checks and exports take turns, over all servers: each holds a
// connection for long.
func alone(ctx context.Context, tx *gorm.DB) error {
	if err := db.Long(ctx, tx, longCheck); err != nil {
		return err
	}
	var turn bool
	if err := tx.Raw("select pg_try_advisory_xact_lock(?)", checkLock).Scan(&turn).Error; err != nil {
		return err
	}
	if !turn {
		return &fault.Error{Kind: fault.Busy, Type: "busy",
			Detail: "Somebody is checking or exporting the records just now. Try again in a moment."}
	}
	return nil
}

func verify(ctx context.Context, tx *gorm.DB, c Check, res *Result) error {
	if err := chain(ctx, tx, c.Head, res); err != nil || res.Why != "" {
		return err
	}
	if err := compare(ctx, tx, res); err != nil || res.Differs != "" || c.Photos == nil {
		return err
	}
	return comparePhotos(ctx, tx, c.Photos, res)
}

func chain(ctx context.Context, tx *gorm.DB, known *Head, res *Result) error {
	res.Head.Hash = make([]byte, sha256.Size)
	led := known == nil
	err := walk(ctx, tx, func(l link) error {
		res.FirstBad, res.Why = judge(l, res)
		if res.Why != "" {
			return errStop
		}
		seq, nth := l.place()
		res.Head = Head{seq, nth, l.hash()}
		if known != nil && known.Seq == seq && known.Nth == nth {
			if !known.Matches(l.hash()) {
				res.FirstBad, res.Why = max(seq,
					1), "it is not the one whose head is known outside: what came up to it was written anew"
				return errStop
			}
			led = true
		}
		return nil
	})
	if errors.Is(err, errStop) {
		err = nil
	}
	if err != nil || res.Why != "" {
		return err
	}
	switch {
	case !led:
		res.Why = fmt.Sprintf("The chain does not lead through the head known outside: that one is at %s, and this chain ends at %s. The newest records were removed, or an older copy was put in place.",
			known.Place(), res.Head.Place())
	case known != nil:
		res.Known = fmt.Sprintf(" The chain leads through the head at %s that is known outside.", known.Place())
	}
	return nil
}

// judge looks at one link, after those before it were found sound.
func judge(l link, res *Result) (int64, string) {
	follows := string(l.prev()) == string(res.Head.Hash)
	if s := l.seal; s != nil {
		res.Seals++
		at := max(s.AfterSeq, 1)
		switch {
		case s.AfterSeq != res.Head.Seq:
			return max(res.Head.Seq+1, 1), "a record is missing"
		case s.Nth != res.Head.Nth+1:
			return at, "a seal after it is missing"
		case !follows:
			return at, "a seal after it does not follow"
		case len(l.states) != s.Rows || string(rootOf(l.states)) != string(s.Root):
			return at, "states of rows that were sealed after it were changed"
		case string(s.sum()) != string(s.Hash):
			return at, "a seal after it was changed"
		}
		return 0, ""
	}
	r := l.record
	res.Count++
	h := sha256.Sum256([]byte(r.Content))
	switch {
	case r.Seq != res.Count:
		return res.Count, "a record is missing"
	case string(h[:]) != string(r.ContentHash):
		return r.Seq, "its content was changed"
	case !follows:
		return r.Seq, "it does not follow what is before it"
	case string(r.sum()) != string(r.Hash):
		return r.Seq, "its head was changed"
	}
	return 0, ""
}

// compare holds every row against the newest state that was sealed.
func compare(ctx context.Context, tx *gorm.DB, res *Result) error {
	for _, f := range Families {
		var first struct {
			Key         string
			Added, Gone bool
			AfterSeq    int64
			At          time.Time
			ByName      string
			All         int64
		}
		err := tx.WithContext(ctx).Raw(`with latest as (select distinct on (key) key, hash, after_seq, nth from row_states where family = ? order by key, after_seq desc, nth desc),
				now as (`+f.hashed("")+`),
				odd as (select coalesce(l.key, n.key) as key, l.hash is null as added, n.hash is null as gone, l.after_seq, l.nth from latest l full join now n on n.key = l.key where l.hash is distinct from n.hash)
			select (select count(*) from now) as all, o.key, o.added, o.gone, coalesce(o.after_seq, 0) as after_seq, s.at, s.by_name
			from (select 1) one left join lateral (select * from odd order by key limit 1) o on true left join seals s on s.after_seq = o.after_seq and s.nth = o.nth`, f.Name).Scan(&first).Error
		if err != nil {
			return err
		}
		res.States += first.All
		if first.Key == "" {
			continue
		}
		what := f.Word + " " + name(ctx, tx, f, first.Key)
		switch last := fmt.Sprintf("after record %d on %s by %s", first.AfterSeq,
			first.At.UTC().Format("2006-01-02 15:04 UTC"), orProgram(first.ByName)); {
		case first.Added:
			res.Differs = fmt.Sprintf("No record knows %s: it was put there without Mainstay.", what)
		case first.Gone:
			res.Differs = fmt.Sprintf("Missing is %s, last sealed %s: it was removed without Mainstay.", what, last)
		default:
			res.Differs = fmt.Sprintf("Changed without Mainstay was %s, last sealed %s.", what, last)
		}
		return nil
	}
	return nil
}

func orProgram(name string) string {
	if name == "" {
		return "the program"
	}
	return name
}

// names are the columns by which people know a thing, where it has one.
var names = map[string]string{"aircraft": "name", "packs": "label", "people": "login", "sites": "name", "jobs": "aim",
	"gear": "name", "parts": "serial", "stock_lines": "name", "defects": "title", "work_orders": "title"}

func name(ctx context.Context, tx *gorm.DB, f Family, key string) string {
	col, ok := names[f.Table]
	if !ok || !f.UUID || f.Key != "x.id" {
		return key
	}
	var n string
	if err := tx.WithContext(ctx).Raw(fmt.Sprintf("select %s from %s where id = ?", col, f.Table),
		key).Scan(&n).Error; err != nil || n == "" {
		return key
	}
	return n + " (" + key + ")"
}

// photos compares the bytes of every photo with the hash on file, which the
// chain has sealed.
func comparePhotos(ctx context.Context, tx *gorm.DB, store photos.Store, res *Result) error {
	var all []struct {
		ID     string
		Sha256 []byte
	}
	if err := tx.WithContext(ctx).Raw("select id::text, sha256 from photos order by id").Scan(&all).Error; err != nil {
		return err
	}
	for _, p := range all {
		b, err := store.Get(p.ID)
		switch {
		case errors.Is(err, photos.ErrMissing):
			res.Differs = fmt.Sprintf("The photo %s is missing from the store.", p.ID)
			return nil
		case err != nil:
			return err
		case !holds(b, p.Sha256):
			res.Differs = fmt.Sprintf("The photo %s in the store is not the one that was taken in.", p.ID)
			return nil
		}
		res.Photos++
	}
	return nil
}

// holds tells whether bytes have this hash.
func holds(b, hash []byte) bool {
	sum := sha256.Sum256(b)
	return bytes.Equal(sum[:], hash)
}
