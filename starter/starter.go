// Package starter ships the bases that an empty shelf can begin with: one or more of every
// school, composed for this program, inside the usual bands of their form; and worked examples
// of sauces.
package starter

import (
	"embed"
	"io/fs"
)

//go:embed bases/*.json sauces/*.json
var files embed.FS

// Bases returns the base documents in the order of the shelf.
func Bases() ([][]byte, error) { return all("bases") }

// Sauces returns worked examples of sauces, a pot of nearly every kind.
func Sauces() ([][]byte, error) { return all("sauces") }

func all(dir string) ([][]byte, error) {
	entries, err := fs.ReadDir(files, dir)
	if err != nil {
		return nil, err
	}
	var out [][]byte
	for _, e := range entries {
		data, err := fs.ReadFile(files, dir+"/"+e.Name())
		if err != nil {
			return nil, err
		}
		out = append(out, data)
	}
	return out, nil
}
