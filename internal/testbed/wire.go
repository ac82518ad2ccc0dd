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
	held   chan struct{} // closed when the line goes on; nil: it works
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
		_, _ = io.Copy(far, through{c, w})
		_ = far.Close()
	}()
	_, _ = io.Copy(c, through{far, w})
	w.mu.Lock()
	delete(w.open, c)
	w.mu.Unlock()
}

// through passes on what comes while the line works, and keeps it back while it
// is silent.
type through struct {
	from io.Reader
	w    *Wire
}

func (t through) Read(b []byte) (int, error) {
	n, err := t.from.Read(b)
	t.w.mu.Lock()
	held := t.w.held
	t.w.mu.Unlock()
	if held != nil {
		<-held
	}
	return n, err
}

// Silence lets nothing through, and breaks nothing: as where the network ends.
func (w *Wire) Silence() {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.held == nil {
		w.held = make(chan struct{})
	}
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
	if w.held != nil {
		close(w.held)
		w.held = nil
	}
}
