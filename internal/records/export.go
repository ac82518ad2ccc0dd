package records

import (
	"bufio"
	"context"
	"encoding/hex"
	"encoding/json"
	"io"
	"time"

	"github.com/google/uuid"
	"gorm.io/gorm"

	"mainstay/internal/platform/db"
)

// exportRule is the first line of every export: how the hashes are made, for
// whoever checks them without this program.
const exportRule = `Every hash is SHA-256. A field is written into a hash as the length of its bytes in decimal, a colon, and its bytes; an absent one as "0:". ` +
	`content_hash is over the bytes of content alone. A record's hash is over: seq in decimal; the 16 bytes of id; kind; the 16 bytes of subject; the 16 bytes of by_id; at; by_name; "true" or "false" of signed; summary; the 32 bytes of content_hash; the 32 bytes of prev_hash. ` +
	`A seal's hash is over: "seal"; after_seq; nth; at; the 16 bytes of by_id; by_name; rows; the 32 bytes of root; the 32 bytes of prev_hash. ` +
	`root is over family, key and hash of every state of the seal, ordered by family and key as bytes. prev_hash of the first line is 32 zero bytes; of every other line it is the hash of the line before. ` +
	`The words of a head are the first 88 bits of its hash, 11 bits a word, in the English list of BIP 39.`

// Export writes the whole chain as JSON Lines: a line that says the rule, each
// record and seal in order, each photo with its hash, and a line with the head.
func Export(ctx context.Context, g *gorm.DB, w io.Writer) error {
	out := bufio.NewWriterSize(w, 1<<16)
	enc := json.NewEncoder(out)
	enc.SetEscapeHTML(false)
	err := db.Snapshot(ctx, g, func(ctx context.Context, tx *gorm.DB) error {
		if err := alone(ctx, tx); err != nil {
			return err
		}
		if err := enc.Encode(map[string]any{"type": "mainstay-records", "version": 1,
			"made_at": time.Now().UTC().Format(time.RFC3339), "rule": exportRule}); err != nil {
			return err
		}
		n, seals, head := 0, 0, Head{Hash: make([]byte, 32)}
		err := walk(ctx, tx, func(l link) error {
			seq, nth := l.place()
			head = Head{seq, nth, l.hash()}
			if l.record != nil {
				n++
				return enc.Encode(recordLine(l.record))
			}
			seals++
			return enc.Encode(sealLine(l))
		})
		if err != nil {
			return err
		}
		photos := 0
		err = db.Each(ctx, tx, "select id::text, media_type, bytes, sha256 from photos order by id", nil,
			func(scan func(dest ...any) error) error {
				var id, media string
				var bytes int
				var sum []byte
				if err := scan(&id, &media, &bytes, &sum); err != nil {
					return err
				}
				photos++
				return enc.Encode(map[string]any{"type": "photo", "id": id, "media_type": media, "bytes": bytes,
					"sha256": hex.EncodeToString(sum)})
			})
		if err != nil {
			return err
		}
		return enc.Encode(map[string]any{"type": "end", "records": n, "seals": seals, "photos": photos, "head": head.Place(),
			"hash": hex.EncodeToString(head.Hash), "words": head.Words()})
	})
	if err != nil {
		return err
	}
	return out.Flush()
}

func recordLine(r *row) any {
	return struct {
		Type        string     `json:"type"`
		Seq         int64      `json:"seq"`
		ID          uuid.UUID  `json:"id"`
		Kind        string     `json:"kind"`
		Subject     *uuid.UUID `json:"subject"`
		At          string     `json:"at"`
		ByID        *uuid.UUID `json:"by_id"`
		ByName      string     `json:"by_name"`
		Signed      bool       `json:"signed"`
		Summary     string     `json:"summary"`
		Content     string     `json:"content"`
		ContentHash string     `json:"content_hash"`
		PrevHash    string     `json:"prev_hash"`
		Hash        string     `json:"hash"`
	}{"record", r.Seq, r.ID, r.Kind, r.Subject, r.At.UTC().Format(time.RFC3339Nano), r.ByID, r.ByName, r.Signed, r.Summary,
		r.Content, hex.EncodeToString(r.ContentHash), hex.EncodeToString(r.PrevHash), hex.EncodeToString(r.Hash)}
}

func sealLine(l link) any {
	states := make([][3]string, len(l.states))
	for i, s := range l.states {
		states[i] = [3]string{s.Family, s.Key, hex.EncodeToString(s.Hash)}
	}
	s := l.seal
	return struct {
		Type     string      `json:"type"`
		AfterSeq int64       `json:"after_seq"`
		Nth      int         `json:"nth"`
		At       string      `json:"at"`
		ByID     *uuid.UUID  `json:"by_id"`
		ByName   string      `json:"by_name"`
		Rows     int         `json:"rows"`
		Root     string      `json:"root"`
		PrevHash string      `json:"prev_hash"`
		Hash     string      `json:"hash"`
		States   [][3]string `json:"states"`
	}{"seal", s.AfterSeq, s.Nth, s.At.UTC().Format(time.RFC3339Nano), s.By, s.ByName, s.Rows, hex.EncodeToString(s.Root),
		hex.EncodeToString(s.Prev), hex.EncodeToString(s.Hash), states}
}
