package main

import (
	"bufio"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/tyler-smith/go-bip39/wordlists"
)

// line is any line of an export.
type line struct {
	Type        string      `json:"type"`
	Version     int         `json:"version"`
	Seq         int64       `json:"seq"`
	ID          string      `json:"id"`
	Kind        string      `json:"kind"`
	Subject     string      `json:"subject"`
	At          string      `json:"at"`
	ByID        string      `json:"by_id"`
	ByName      string      `json:"by_name"`
	Signed      bool        `json:"signed"`
	Summary     string      `json:"summary"`
	Content     string      `json:"content"`
	ContentHash string      `json:"content_hash"`
	PrevHash    string      `json:"prev_hash"`
	Hash        string      `json:"hash"`
	AfterSeq    int64       `json:"after_seq"`
	Nth         int         `json:"nth"`
	Rows        int         `json:"rows"`
	Root        string      `json:"root"`
	States      [][3]string `json:"states"`
	SHA256      string      `json:"sha256"`
	Records     int64       `json:"records"`
	Seals       int64       `json:"seals"`
	Photos      int64       `json:"photos"`
	Head        string      `json:"head"`
	Words       string      `json:"words"`
}

// fields is a hash over fields, each with its length before it.
type fields struct{ h hash.Hash }

func (f fields) add(b []byte) {
	fmt.Fprintf(f.h, "%d:", len(b))
	f.h.Write(b)
}

func (f fields) text(s string) { f.add([]byte(s)) }

// raw adds what is written in hexadecimal, a uuid or a hash; nothing is absent.
func (f fields) raw(s string) error {
	b, err := hex.DecodeString(strings.ReplaceAll(s, "-", ""))
	f.add(b)
	return err
}

func (f fields) sum() string { return hex.EncodeToString(f.h.Sum(nil)) }

func recordHash(l line) (string, error) {
	f := fields{sha256.New()}
	f.text(fmt.Sprint(l.Seq))
	err := f.raw(l.ID)
	f.text(l.Kind)
	err = errors.Join(err, f.raw(l.Subject), f.raw(l.ByID))
	f.text(l.At)
	f.text(l.ByName)
	f.text(fmt.Sprint(l.Signed))
	f.text(l.Summary)
	return f.sum2(err, l.ContentHash, l.PrevHash)
}

func (f fields) sum2(err error, last ...string) (string, error) {
	for _, s := range last {
		err = errors.Join(err, f.raw(s))
	}
	return f.sum(), err
}

func sealHash(l line) (string, error) {
	f := fields{sha256.New()}
	f.text("seal")
	f.text(fmt.Sprint(l.AfterSeq))
	f.text(fmt.Sprint(l.Nth))
	f.text(l.At)
	err := f.raw(l.ByID)
	f.text(l.ByName)
	f.text(fmt.Sprint(l.Rows))
	return f.sum2(err, l.Root, l.PrevHash)
}

func rootHash(states [][3]string) (string, error) {
	states = slices.Clone(states)
	slices.SortFunc(states, func(a, b [3]string) int {
		return slices.Compare(a[:2], b[:2])
	})
	f := fields{sha256.New()}
	var err error
	for _, s := range states {
		f.text(s[0])
		f.text(s[1])
		err = errors.Join(err, f.raw(s[2]))
	}
	return f.sum(), err
}

// words are the first 88 bits of a hash as eight words.
func words(hash string) string {
	b, err := hex.DecodeString(hash)
	if err != nil || len(b) < 11 {
		return ""
	}
	var out []string
	for i := range 8 {
		n := 0
		for bit := i * 11; bit < i*11+11; bit++ {
			n = n<<1 | int(b[bit/8]>>(7-bit%8)&1)
		}
		out = append(out, wordlists.English[n])
	}
	return strings.Join(out, " ")
}

// maxLine bounds one line: a record with the largest content there is.
const maxLine = 256 << 20

// check reads an export and says what holds, or what does not.
func check(r io.Reader, folder, known string) (string, error) {
	in := bufio.NewScanner(r)
	in.Buffer(make([]byte, 1<<20), maxLine)
	prev, seq, nth := strings.Repeat("00", 32), int64(0), 0
	var records, seals, photos, compared int64
	place, knownWords := splitHead(known)
	led := known == ""
	var end *line
	for n := 1; in.Scan(); n++ {
		var l line
		if err := json.Unmarshal(in.Bytes(), &l); err != nil {
			return "", fmt.Errorf("line %d cannot be read: %w", n, err)
		}
		if n == 1 != (l.Type == "mainstay-records") || n == 1 && l.Version != 1 {
			return "", fmt.Errorf("line %d: this is no export of records, version 1", n)
		}
		if end != nil {
			return "", fmt.Errorf("line %d comes after the end", n)
		}
		var want string
		var err error
		switch l.Type {
		case "mainstay-records":
			continue
		case "record":
			records++
			sum := sha256.Sum256([]byte(l.Content))
			if l.Seq != seq+1 {
				return "", fmt.Errorf("record %d is missing", seq+1)
			}
			if hex.EncodeToString(sum[:]) != l.ContentHash {
				return "", fmt.Errorf("the content of record %d was changed", l.Seq)
			}
			seq, nth = l.Seq, 0
			want, err = recordHash(l)
		case "seal":
			seals++
			root, rerr := rootHash(l.States)
			if l.AfterSeq != seq || l.Nth != nth+1 {
				return "", fmt.Errorf("a seal after record %d is missing or in the wrong place", seq)
			}
			if rerr != nil || root != l.Root || len(l.States) != l.Rows {
				return "", fmt.Errorf("states sealed after record %d were changed", seq)
			}
			nth = l.Nth
			want, err = sealHash(l)
		case "photo":
			photos++
			if folder != "" {
				if err := samePhoto(folder, l); err != nil {
					return "", err
				}
				compared++
			}
			continue
		case "end":
			end = &l
			continue
		default:
			return "", fmt.Errorf("line %d is of a kind that this program does not know", n)
		}
		switch {
		case err != nil || want != l.Hash:
			return "", fmt.Errorf("the %s at %d.%d was changed", l.Type, seq, nth)
		case l.PrevHash != prev:
			return "", fmt.Errorf("the %s at %d.%d does not follow what is before it", l.Type, seq, nth)
		}
		prev = l.Hash
		if place == fmt.Sprintf("%d.%d", seq, nth) {
			if knownWords != words(prev) && knownWords != prev {
				return "", fmt.Errorf("what came up to %s was written anew: its words are now %q", place, words(prev))
			}
			led = true
		}
	}
	if err := in.Err(); err != nil {
		return "", err
	}
	switch {
	case end == nil:
		return "", errors.New("the end of the export is missing")
	case end.Records != records || end.Seals != seals || end.Photos != photos || end.Hash != prev ||
		end.Head != fmt.Sprintf("%d.%d", seq, nth) || end.Words != words(prev):
		return "", errors.New("the last line does not fit the lines before it")
	case !led:
		return "", fmt.Errorf("the chain does not lead through %s, which is known from outside: it ends at %d.%d", place, seq,
			nth)
	}
	said := fmt.Sprintf("%d records and %d seals hold, each bound to the one before it. Head: %d.%d %s", records, seals,
		seq, nth, words(prev))
	if compared > 0 {
		said += fmt.Sprintf("\nThe bytes of %d photos are as recorded.", compared)
	}
	return said, nil
}

// splitHead takes the place from the words, or the hash, of a head.
func splitHead(s string) (place, rest string) {
	place, rest, _ = strings.Cut(strings.Join(strings.Fields(strings.ToLower(s)), " "), " ")
	if place != "" && !strings.Contains(place, ".") {
		place += ".0"
	}
	return place, rest
}

func samePhoto(folder string, l line) error {
	f, err := os.Open(filepath.Join(folder, filepath.Base(l.ID)))
	if err != nil {
		return fmt.Errorf("the photo %s is missing", l.ID)
	}
	defer func() { _ = f.Close() }()
	h := sha256.New()
	if _, err := io.Copy(h, f); err != nil {
		return err
	}
	if hex.EncodeToString(h.Sum(nil)) != l.SHA256 {
		return fmt.Errorf("the photo %s is not the one that was taken in", l.ID)
	}
	return nil
}
