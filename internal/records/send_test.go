package records_test

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/records"
	"mainstay/internal/testbed"
)

// The newest head goes to a file and, by the server's own command, as a mail;
// once for each head, and a failure is told.
func TestHeadsAreSentOut(t *testing.T) {
	s := testbed.NewStage(t)
	ctx, folder := context.Background(), t.TempDir()
	script := filepath.Join(folder, "send.sh")
	require.NoError(t, os.WriteFile(script, []byte("#!/bin/sh\ncat > "+folder+"/mail-$2\n"), 0o700))
	p := &records.Post{Folder: folder, Command: script + " -i"}
	to := []string{"file:heads.txt", "inspector@crew.example"}
	sent, err := p.Send(ctx, s.DB, "Crew\nBcc: all@crew.example", to, testbed.Noon)
	require.NoError(t, err)
	assert.True(t, sent)
	head, err := records.NewestHead(ctx, s.DB.WithContext(ctx))
	require.NoError(t, err)
	file, err := os.ReadFile(filepath.Join(folder, "heads.txt"))
	require.NoError(t, err)
	assert.Contains(t, string(file), head.String())
	mail, err := os.ReadFile(filepath.Join(folder, "mail-inspector@crew.example"))
	require.NoError(t, err)
	assert.Contains(t, string(mail), head.String())
	top, _, _ := strings.Cut(string(mail), "\n\n")
	assert.NotContains(t, top, "\nBcc:", "a crew's name makes no line in the head of a mail")
	sent, err = p.Send(ctx, s.DB, "Crew", to, testbed.Noon)
	require.NoError(t, err)
	assert.False(t, sent, "nothing new")
	_, err = (&records.Post{}).Send(ctx, s.DB, "Crew", to, testbed.Noon)
	assert.ErrorContains(t, err, "MAINSTAY_HEADS")
	assert.ErrorContains(t, err, "MAINSTAY_HEAD_COMMAND")
	_, err = (&records.Post{Command: "/bin/false"}).Send(ctx, s.DB, "Crew", to[1:], testbed.Noon)
	assert.ErrorContains(t, err, "inspector@crew.example")
}

func TestAddressesOfHeads(t *testing.T) {
	for _, good := range []string{"file:heads.txt", "a@b.example"} {
		assert.Empty(t, records.CheckAddress(good), good)
	}
	for _, bad := range []string{"", "file:", "file:../x", "file:a/b", "file:.x", "file:a..b", "nobody", "-oQ@x.example",
		"A <a@b.example>", "a@b.example, c@d.example", "a@b.example\nBcc: c@d.example"} {
		assert.NotEmpty(t, records.CheckAddress(bad), bad)
	}
}
