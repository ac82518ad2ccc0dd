package records

import (
	"context"
	"database/sql"

	"gorm.io/gorm"
)

// pageSize is how many records, seals and states are held at once.
const pageSize = 2000

// link is one of the chain: a record, or a seal with the states it binds.
type link struct {
	record *row
	seal   *seal
	states []state
}

func (l link) place() (int64, int) {
	if l.record != nil {
		return l.record.Seq, 0
	}
	return l.seal.AfterSeq, l.seal.Nth
}

func (l link) prev() []byte {
	if l.record != nil {
		return l.record.PrevHash
	}
	return l.seal.Prev
}

func (l link) hash() []byte {
	if l.record != nil {
		return l.record.Hash
	}
	return l.seal.Hash
}

// walk goes along the chain from its beginning, as it is stored. tx sees one
// moment throughout.
func walk(ctx context.Context, tx *gorm.DB, take func(link) error) error {
	seals := sealPager{ctx: ctx, c: tx.ConnPool, after: -1}
	next, err := seals.next()
	if err != nil {
		return err
	}
	until := func(seq int64) error { // the seals before the record with that number
		for next != nil && next.seal.AfterSeq < seq {
			if err := take(*next); err != nil {
				return err
			}
			if next, err = seals.next(); err != nil {
				return err
			}
		}
		return nil
	}
	for from := int64(-1 << 62); ; {
		var rows []row
		if err := tx.WithContext(ctx).Order("seq").Limit(pageSize).Find(&rows, "seq > ?", from).Error; err != nil {
			return err
		}
		for i := range rows {
			if err := until(rows[i].Seq); err != nil {
				return err
			}
			if err := take(link{record: &rows[i]}); err != nil {
				return err
			}
			from = rows[i].Seq
		}
		if len(rows) < pageSize {
			return until(1 << 62)
		}
	}
}

// sealPager reads seals with their states, some thousand at a time.
type sealPager struct {
	ctx   context.Context
	c     gorm.ConnPool
	after int64
	nth   int
	page  []link
	ended bool
}

func (p *sealPager) next() (*link, error) {
	if len(p.page) == 0 && !p.ended {
		if err := p.fill(); err != nil {
			return nil, err
		}
	}
	if len(p.page) == 0 {
		return nil, nil
	}
	l := p.page[0]
	p.page = p.page[1:]
	return &l, nil
}

func (p *sealPager) fill() error {
	rows, err := p.c.QueryContext(p.ctx,
		"select after_seq, nth, at, by_id, by_name, rows, root, prev_hash, hash from seals where (after_seq, nth) > ($1, $2) order by after_seq, nth limit $3",
		p.after, p.nth, pageSize)
	if err != nil {
		return err
	}
	err = each(rows, func() error {
		var s seal
		if err := rows.Scan(&s.AfterSeq, &s.Nth, &s.At, &s.By, &s.ByName, &s.Rows, &s.Root, &s.Prev, &s.Hash); err != nil {
			return err
		}
		p.page = append(p.page, link{seal: &s})
		return nil
	})
	if err != nil || len(p.page) == 0 {
		p.ended = true
		return err
	}
	p.ended = len(p.page) < pageSize
	first, last := p.page[0].seal, p.page[len(p.page)-1].seal
	p.after, p.nth = last.AfterSeq, last.Nth
	rows, err = p.c.QueryContext(p.ctx,
		"select after_seq, nth, family, key, hash from row_states where (after_seq, nth) >= ($1, $2) and (after_seq, nth) <= ($3, $4) order by after_seq, nth",
		first.AfterSeq, first.Nth, last.AfterSeq, last.Nth)
	if err != nil {
		return err
	}
	at := 0
	return each(rows, func() error {
		var s state
		var seq int64
		var nth int
		if err := rows.Scan(&seq, &nth, &s.Family, &s.Key, &s.Hash); err != nil {
			return err
		}
		for at < len(p.page)-1 && (p.page[at].seal.AfterSeq != seq || p.page[at].seal.Nth != nth) {
			at++
		}
		p.page[at].states = append(p.page[at].states, s)
		return nil
	})
}

func each(rows *sql.Rows, take func() error) error {
	defer func() { _ = rows.Close() }()
	for rows.Next() {
		if err := take(); err != nil {
			return err
		}
	}
	return rows.Err()
}
