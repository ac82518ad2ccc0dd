package people

import (
	"context"
	"crypto/rand"
	"fmt"
	"regexp"
	"strings"
	"time"
	"unicode"

	"github.com/alexedwards/argon2id"

	"mainstay/internal/platform/fault"
)

// defaultHash follows the second recommended option of RFC 9106, with memory
// lowered to 32 MiB so that a small server bears several sign-ins at once.
var defaultHash = &argon2id.Params{Memory: 32 * 1024, Iterations: 3, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// hashing bounds how many secrets are hashed at once on this server, and with
// it the memory that signing in takes: two times 32 MiB.
var hashing = make(chan struct{}, 2)

// hashWait is how long one waits for that.
const hashWait = 10 * time.Second

func hashTurn(ctx context.Context) (func(), error) {
	select {
	case hashing <- struct{}{}:
		return func() { <-hashing }, nil
	case <-time.After(hashWait):
		return nil, &fault.Error{Kind: fault.Busy, Type: "busy",
			Detail: "Too many people sign in or sign at once. Nothing was signed or changed; try again in a moment."}
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

func (s *Service) hash(ctx context.Context, secret string) (string, error) {
	done, err := hashTurn(ctx)
	if err != nil {
		return "", err
	}
	defer done()
	p := s.Hash
	if p == nil {
		p = defaultHash
	}
	return argon2id.CreateHash(secret, p)
}

// matches compares a secret with a hash. Without one it takes the same time and
// says no.
func (s *Service) matches(ctx context.Context, secret, hash string) (bool, error) {
	done, err := hashTurn(ctx)
	if err != nil {
		return false, err
	}
	defer done()
	if hash == "" {
		_, err := argon2id.ComparePasswordAndHash(secret, decoy)
		return false, err
	}
	return argon2id.ComparePasswordAndHash(secret, hash)
}

// decoy is compared when there is nothing to compare with, so that the time
// taken does not tell.
var decoy, _ = argon2id.CreateHash("no such person", defaultHash)

var (
	pinForm  = regexp.MustCompile(`^[0-9]{4,12}$`)
	yearForm = regexp.MustCompile(`^(19|20)[0-9]{2}$`)
	dateForm = regexp.MustCompile(`^((0[1-9]|[12][0-9]|3[01])(0[1-9]|1[0-2])|(0[1-9]|1[0-2])(0[1-9]|[12][0-9]|3[01]))((19|20)?[0-9]{2})$|^(19|20)[0-9]{2}(0[1-9]|1[0-2])(0[1-9]|[12][0-9]|3[01])$`)
)

func checkPIN(pin string) []fault.Field {
	switch {
	case !pinForm.MatchString(pin):
		return []fault.Field{{Field: "pin", Sentence: "A PIN has 4 to 12 digits and nothing else."}}
	case repeats(pin) || run(pin):
		return []fault.Field{{Field: "pin",
			Sentence: "This PIN is too easy to guess: no repeated digits, no plain sequence."}}
	case yearForm.MatchString(pin) || dateForm.MatchString(pin):
		return []fault.Field{{Field: "pin", Sentence: "This PIN is too easy to guess: it reads like a year or a date."}}
	}
	return nil
}

// passwordShort is the least length of a password; a longer one guards better
// than a strange one.
const passwordShort = 10

// checkPassword refuses what is guessed first: too short, repeats, runs, years
// and the person's own names.
func checkPassword(field, password, login, name string) []fault.Field {
	bad := func(s string) []fault.Field { return []fault.Field{{Field: field, Sentence: s}} }
	low := strings.ToLower(password)
	letters := map[rune]bool{}
	for _, r := range low {
		letters[r] = true
	}
	bare := strings.TrimRightFunc(low, func(r rune) bool { return unicode.IsDigit(r) || unicode.IsPunct(r) })
	switch {
	case len([]rune(password)) < passwordShort:
		return bad(fmt.Sprintf("A password has at least %d characters.", passwordShort))
	case len(letters) < 5 || repeats(low) || run(low):
		return bad("This password is too easy to guess: it repeats itself or is a plain sequence. Four words that do not belong together make a good one.")
	case bare == "password" || bare == "passwort" || bare == "qwertyuiop" || bare == "letmein" || len([]rune(bare)) < 4:
		return bad("This password is too easy to guess: it is a common word, a year or a number. Four words that do not belong together make a good one.")
	}
	rest := low
	for _, own := range append(strings.Fields(strings.ToLower(name)), strings.ToLower(login)) {
		if len([]rune(own)) >= 3 {
			rest = strings.ReplaceAll(rest, own, "")
		}
	}
	if rest != low && len([]rune(rest)) < 6 {
		return bad("This password is too easy to guess: it is little more than your name.")
	}
	return nil
}

// repeats reports whether a secret is one piece over and over: 1111, 121212.
func repeats(s string) bool {
	for n := 1; n <= len(s)/2; n++ {
		if len(s)%n == 0 && strings.Repeat(s[:n], len(s)/n) == s {
			return true
		}
	}
	return false
}

// run reports whether a secret counts up or down, by one or by two, round the
// ten digits or along the alphabet: 1234, 9876, 8901, 2468, abcdefghij.
func run(s string) bool {
	for _, around := range []int{0, 10} {
		if around == 10 && strings.Trim(s, "0123456789") != "" {
			continue
		}
		step, same := 0, true
		for i := 1; i < len(s); i++ {
			d := int(s[i]) - int(s[i-1])
			if around > 0 {
				d = (d+around+around/2)%around - around/2
			}
			if i == 1 {
				step = d
			}
			same = same && d == step
		}
		if same && step*step <= 4 && len(s) > 2 {
			return true
		}
	}
	return false
}

// onceFor is how long a one-time password holds.
const onceFor = 7 * 24 * time.Hour

// onceLetters leaves out what is misread: 0 and o, 1, i and l.
const onceLetters = "abcdefghjkmnpqrstuvwxyz23456789"

// oncePassword makes a password that somebody reads out: 15 letters, 74 bits.
func oncePassword() (string, error) {
	var out strings.Builder
	for out.Len() < 17 {
		var b [1]byte
		if _, err := rand.Read(b[:]); err != nil {
			return "", err
		}
		if int(b[0]) >= 256/len(onceLetters)*len(onceLetters) {
			continue // so that each letter is as likely as the next
		}
		if out.Len() == 5 || out.Len() == 11 {
			out.WriteByte('-')
		}
		out.WriteByte(onceLetters[int(b[0])%len(onceLetters)])
	}
	return out.String(), nil
}
