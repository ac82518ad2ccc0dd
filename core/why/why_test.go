package why_test

import (
	"errors"
	"fmt"
	"io"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/why"
)

var (
	errFile = errors.New("file: not usable")
	errLine = errors.New("line")
)

func TestAReasonIsKeptBesideItsKind(t *testing.T) {
	err := why.Not(errFile, "it has %d lines: too few", 2)
	require.ErrorIs(t, err, errFile)
	got, ok := why.Of(fmt.Errorf("reading: %w", err))
	assert.True(t, ok)
	assert.Equal(t, "it has 2 lines: too few", got, "whatever colons it has")
	assert.Equal(t, "file: not usable: it has 2 lines: too few", err.Error())
}

func TestAReasonInsideAnotherStandsAlone(t *testing.T) {
	inner := why.Not(errLine, "the number is missing")
	err := why.Not(errFile, "line %d: %w", 7, inner)
	assert.Equal(t, "line 7: the number is missing", why.Words(err))
	require.ErrorIs(t, err, errFile)
	require.ErrorIs(t, err, errLine)
	err = why.Not(errFile, "%w", io.ErrUnexpectedEOF)
	require.ErrorIs(t, err, io.ErrUnexpectedEOF)
	assert.Equal(t, "unexpected EOF", why.Words(err))
}

func TestWhatIsNoRefusal(t *testing.T) {
	_, ok := why.Of(io.EOF)
	assert.False(t, ok)
	assert.Equal(t, "EOF", why.Words(io.EOF))
	_, ok = why.Of(nil)
	assert.False(t, ok)
}
