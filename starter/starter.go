// Package starter ships the bases that an empty shelf can begin with: one or more of every
// school, composed for this program, inside the usual bands of their form.
package starter

import (
	"embed"
	"io/fs"
)

//go:embed bases/*.json
var files embed.FS

// Bases returns the base documents in the order of the shelf.
func Bases() ([][]byte, error) {
	entries, err := fs.ReadDir(files, "bases")
	if err != nil {
		return nil, err
	}
	var out [][]byte
	for _, e := range entries {
		data, err := fs.ReadFile(files, "bases/"+e.Name())
		if err != nil {
			return nil, err
		}
		out = append(out, data)
	}
	return out, nil
}
