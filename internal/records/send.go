package records

import (
	"context"
	"errors"
	"fmt"
	"net/mail"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"time"

	"gorm.io/gorm"
)

// Post sends the newest head to where the crew wants it, so that it is known
// outside of the database. The crew names addresses; how they are reached is
// set where the server runs.
type Post struct {
	Folder  string // files of heads lie here; empty: no files
	Command string // takes a mail on its input, and the address as its last argument; empty: no mail
	last    Head
}

var fileForm = regexp.MustCompile(`^[a-z0-9][a-z0-9._-]{0,59}$`)

// CheckAddress says what is wrong with an address, or nothing. It is a mail
// address, or "file:" and the name of a file in the server's folder of heads.
func CheckAddress(to string) string {
	if name, ok := strings.CutPrefix(to, "file:"); ok {
		if !fileForm.MatchString(name) || strings.Contains(name, "..") {
			return "A file is named like file:heads.txt, with small letters, digits, dots and hyphens."
		}
		return ""
	}
	if a, err := mail.ParseAddress(to); err != nil || a.Name != "" || a.Address != to || strings.HasPrefix(to, "-") ||
		len(to) > 200 {
		return "Enter a mail address, or file: and a name, one on each line."
	}
	return ""
}

// Send sends the newest head to each address, if it is not the one sent last.
// It goes on past an address that fails, and reports all that did.
func (p *Post) Send(ctx context.Context, g *gorm.DB, crew string, addresses []string, now time.Time) (sent bool,
	err error) {
	h, err := NewestHead(ctx, g.WithContext(ctx))
	if err != nil || len(addresses) == 0 || h.Seq == p.last.Seq && h.Nth == p.last.Nth {
		return false, err
	}
	line := fmt.Sprintf("%s  %s  %s", now.UTC().Format("2006-01-02 15:04 UTC"), crew, h)
	for _, to := range addresses {
		err = errors.Join(err, p.one(ctx, to, crew, line))
	}
	if err == nil {
		p.last = h
	}
	return err == nil, err
}

func (p *Post) one(ctx context.Context, to, crew, line string) error {
	if wrong := CheckAddress(to); wrong != "" {
		return fmt.Errorf("%s: %s", to, wrong)
	}
	if name, ok := strings.CutPrefix(to, "file:"); ok {
		if p.Folder == "" {
			return fmt.Errorf("%s: this server has no folder for heads (MAINSTAY_HEADS)", to)
		}
		f, err := os.OpenFile(filepath.Join(p.Folder, name), os.O_APPEND|os.O_CREATE|os.O_WRONLY, 0o600)
		if err != nil {
			return fmt.Errorf("%s: %w", to, err)
		}
		_, err = fmt.Fprintln(f, line)
		return errors.Join(err, f.Sync(), f.Close())
	}
	command := strings.Fields(p.Command)
	if len(command) == 0 {
		return fmt.Errorf("%s: this server sends no mail (MAINSTAY_HEAD_COMMAND)", to)
	}
	ctx, stop := context.WithTimeout(ctx, time.Minute)
	defer stop()
	c := exec.CommandContext(ctx, command[0], append(command[1:], to)...)
	c.Stdin = strings.NewReader(fmt.Sprintf("To: %s\nSubject: Head of the records of %s\nContent-Type: text/plain; charset=utf-8\n\nKeep this. Whoever checks the records later can ask whether they still lead through it.\n\n%s\n",
		to, strings.Map(printable, crew), line))
	if out, err := c.CombinedOutput(); err != nil {
		return fmt.Errorf("%s: %w: %.200s", to, err, out)
	}
	return nil
}

// printable keeps a name from starting a line of its own in the head of a mail.
func printable(r rune) rune {
	if r < ' ' {
		return ' '
	}
	return r
}
