package testbed

import (
	"io"
	"net"
	"net/url"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"
)

// Wire is a line between a server and its database that can be cut.
type Wire struct {
	URL    string
	target string
	mu     sync.Mutex
	cut    bool
	open   map[net.Conn]bool
}

// NewWire lays a line to the database at to.
func NewWire(t testing.TB, to string) *Wire {
	u, err := url.Parse(to)
	require.NoError(t, err)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = l.Close() })
	w := &Wire{target: u.Host, open: map[net.Conn]bool{}}
	u.Host = l.Addr().String()
	w.URL = u.String()
	go func() {
		for {
			c, err := l.Accept()
			if err != nil {
				return
			}
			go w.carry(c)
		}
	}()
	return w
}

func (w *Wire) carry(c net.Conn) {
	defer func() { _ = c.Close() }()
	far, err := net.Dial("tcp", w.target)
	if err != nil {
		return
	}
	defer func() { _ = far.Close() }()
	w.mu.Lock()
	if w.cut {
		w.mu.Unlock()
		return
	}
	w.open[c] = true
	w.mu.Unlock()
	go func() {
		_, _ = io.Copy(far, c)
		_ = far.Close()
	}()
	_, _ = io.Copy(c, far)
	w.mu.Lock()
	delete(w.open, c)
	w.mu.Unlock()
}

// Cut breaks all that goes over the line, and whatever is tried on it.
func (w *Wire) Cut() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.cut = true
	for c := range w.open {
		_ = c.Close()
	}
}

// Mend lets the line work again.
func (w *Wire) Mend() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.cut = false
}
