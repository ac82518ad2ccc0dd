package records

import (
	"context"
	"encoding/hex"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"github.com/tyler-smith/go-bip39/wordlists"
	"gorm.io/gorm"
)

// Head names a place in the chain: the seal with that number after a record,
// or the record itself (Nth 0), with its hash. Whoever keeps a head outside can
// tell later whether the chain still leads through it.
type Head struct {
	Seq  int64
	Nth  int
	Hash []byte // whole, or as much of it as the words say
}

// headWords is how many words stand for a hash: 8 of 2048, 88 bits.
const headWords = 8

// NewestHead is where the chain ends now.
func NewestHead(ctx context.Context, g *gorm.DB) (Head, error) {
	e, err := endOf(ctx, g.ConnPool)
	return Head{e.Seq, e.Nth, e.Hash}, err
}

// Place is the number of the head: record, and seal after it.
func (h Head) Place() string { return fmt.Sprintf("%d.%d", h.Seq, h.Nth) }

// Words are the first 88 bits of the hash as eight words of the English list of
// BIP 39, made to be read out and written down.
func (h Head) Words() string {
	out, acc, bits := []string{}, 0, 0
	for _, b := range h.Hash {
		acc, bits = acc<<8|int(b), bits+8
		if bits >= 11 {
			bits -= 11
			out = append(out, wordlists.English[acc>>bits&2047])
			acc &= 1<<bits - 1
		}
		if len(out) == headWords {
			break
		}
	}
	return strings.Join(out, " ")
}

// String is the head as it is kept outside.
func (h Head) String() string { return h.Place() + " " + h.Words() }

// Matches reports whether a hash is the one the head says.
func (h Head) Matches(hash []byte) bool {
	return len(h.Hash) > 0 && len(h.Hash) <= len(hash) && slices.Equal(h.Hash, hash[:len(h.Hash)])
}

var errHead = errors.New("a head is a number like 1234.2 and its eight words, or the number and the hash in hexadecimal")

// ParseHead reads a head as people keep it: "1234.2 one two … eight", or with
// the hash in hexadecimal instead of the words.
func ParseHead(s string) (Head, error) {
	f := strings.Fields(strings.ToLower(strings.NewReplacer(":", " ", ",", " ").Replace(s)))
	if len(f) != 2 && len(f) != 1+headWords {
		return Head{}, errHead
	}
	seq, nth, _ := strings.Cut(f[0], ".")
	var h Head
	var err error
	if h.Seq, err = strconv.ParseInt(seq, 10, 64); err != nil || h.Seq < 0 {
		return Head{}, errHead
	}
	if nth != "" {
		if h.Nth, err = strconv.Atoi(nth); err != nil || h.Nth < 0 {
			return Head{}, errHead
		}
	}
	if len(f) == 2 {
		if h.Hash, err = hex.DecodeString(f[1]); err != nil || len(h.Hash) < 8 || len(h.Hash) > 32 {
			return Head{}, errHead
		}
		return h, nil
	}
	acc, bits := 0, 0
	for _, w := range f[1:] {
		i := slices.Index(wordlists.English, w)
		if i < 0 {
			return Head{}, fmt.Errorf("%q is none of the words of a head; look for a slip in writing it down", w)
		}
		acc, bits = acc<<11|i, bits+11
		for bits >= 8 {
			bits -= 8
			h.Hash = append(h.Hash, byte(acc>>bits))
			acc &= 1<<bits - 1
		}
	}
	return h, nil
}
