// Package about tells which program this is, and what of others ships inside it.
package about

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"strings"
)

// Version is the program's own; Commit is set when it is built from its repository.
var (
	Version = "0.1.0"
	Commit  = ""
)

// String is both in one line.
func String() string {
	if Commit == "" {
		return Version
	}
	return Version + " (" + Commit + ")"
}

// Notice is what others let ship under one text: their names with versions, the licence by its short name, the text.
type Notice struct {
	Names   []string `json:"names"`
	License string   `json:"license"`
	Text    string   `json:"text"`
}

//go:embed notices.json
var notices []byte

// Notices are those of everything in the binary: Go modules, scripts, styles and fonts. `make notices` writes them.
func Notices() ([]Notice, error) {
	var out []Notice
	if err := json.Unmarshal(notices, &out); err != nil {
		return nil, fmt.Errorf("reading the notices: %w", err)
	}
	return out, nil
}

// Text is all of them for a terminal.
func Text() (string, error) {
	all, err := Notices()
	if err != nil {
		return "", err
	}
	var b strings.Builder
	for _, n := range all {
		fmt.Fprintf(&b, "%s\n%s\n\n%s\n\n", strings.Join(n.Names, "\n"), n.License, n.Text)
	}
	return b.String(), nil
}
