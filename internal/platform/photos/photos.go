// Package photos keeps the bytes of photos: in a folder, or for tests in memory.
// What is kept never changes.
package photos

import (
	"crypto/rand"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"sync"
)

// ErrThere says that a photo of this key is kept already; it stays as it is.
var ErrThere = errors.New("a photo of this key is kept already")

// ErrMissing says that no photo of this key is kept.
var ErrMissing = errors.New("no photo of this key is kept")

// Store keeps photos by key, a name without a path. A photo that was put is there
// when the power goes.
type Store interface {
	Put(key string, photo []byte) error // ErrThere
	Get(key string) ([]byte, error)     // ErrMissing
}

// Folder is a store whose photos are files.
type Folder struct{ root *os.Root }

// Open opens a folder as a store; it is made when it is not there.
func Open(path string) (*Folder, error) {
	if err := os.MkdirAll(path, 0o700); err != nil {
		return nil, fmt.Errorf("photo folder: %w", err)
	}
	root, err := os.OpenRoot(path)
	if err != nil {
		return nil, fmt.Errorf("photo folder: %w", err)
	}
	return &Folder{root: root}, nil
}

// Close lets the folder go.
func (f *Folder) Close() error { return f.root.Close() }

// Put writes a photo beside and gives it its name when all of it is on disk, so that no
// half of one is ever found.
func (f *Folder) Put(key string, photo []byte) error {
	beside := ".part-" + rand.Text()
	defer func() { _ = f.root.Remove(beside) }()
	if err := f.write(beside, photo); err != nil {
		return err
	}
	switch err := f.root.Link(beside, key); {
	case errors.Is(err, fs.ErrExist):
		return ErrThere
	case err != nil:
		return err
	}
	return f.sync(".") // its entry in the folder
}

func (f *Folder) write(name string, b []byte) error {
	w, err := f.root.OpenFile(name, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = w.Write(b)
	return errors.Join(err, w.Sync(), w.Close())
}

func (f *Folder) sync(name string) error {
	d, err := f.root.Open(name)
	if err != nil {
		return err
	}
	return errors.Join(d.Sync(), d.Close())
}

// Get reads a photo.
func (f *Folder) Get(key string) ([]byte, error) {
	b, err := f.root.ReadFile(key)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, ErrMissing
	}
	return b, err
}

// Memory is a store that forgets; the zero one is empty.
type Memory struct {
	mu   sync.Mutex
	kept map[string][]byte
}

// Put keeps a photo.
func (m *Memory) Put(key string, photo []byte) error {
	m.mu.Lock()
	defer m.mu.Unlock()
	if _, ok := m.kept[key]; ok {
		return ErrThere
	}
	m.set(key, photo)
	return nil
}

// Get reads a photo.
func (m *Memory) Get(key string) ([]byte, error) {
	m.mu.Lock()
	defer m.mu.Unlock()
	b, ok := m.kept[key]
	if !ok {
		return nil, ErrMissing
	}
	return b, nil
}

// Spoil puts other bytes in place of a photo, or takes it away with none, as a failing
// disk or a hand in the folder would.
func (m *Memory) Spoil(key string, photo []byte) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if photo == nil {
		delete(m.kept, key)
		return
	}
	m.set(key, photo)
}

func (m *Memory) set(key string, photo []byte) {
	if m.kept == nil {
		m.kept = map[string][]byte{}
	}
	m.kept[key] = photo
}
