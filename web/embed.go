// Package web carries the built front end inside the program.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var files embed.FS

// Dist is the built front end; it has an index.html once `make build` has run.
func Dist() fs.FS {
	d, err := fs.Sub(files, "dist")
	if err != nil {
		panic(err) // the folder is embedded above
	}
	return d
}
