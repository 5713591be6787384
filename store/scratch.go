package store

import (
	"os"
	"path/filepath"
)

// Scratch is a file beside the database that nobody else sees and that is gone when it is
// closed: what is too large for the memory passes through it.
type Scratch struct{ *os.File }

// Scratch makes an empty one.
func (s *Store) Scratch() (Scratch, error) {
	f, err := os.CreateTemp(filepath.Dir(s.path), ".upbeat-ladle-*")
	if err == nil {
		_ = os.Remove(f.Name()) // where a file that is open can lose its name, a killed program leaves none behind
	}
	return Scratch{f}, err
}

// Close forgets it.
func (s Scratch) Close() error {
	err := s.File.Close()
	_ = os.Remove(s.Name()) // where it could not be done before
	return err
}
