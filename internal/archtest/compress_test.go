package archtest

import (
	"bytes"
	"compress/gzip"
	"testing"

	"github.com/stretchr/testify/require"
)

func compressed(t *testing.T, b []byte) int {
	t.Helper()
	var out bytes.Buffer
	w := gzip.NewWriter(&out)
	_, err := w.Write(b)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	return out.Len()
}
