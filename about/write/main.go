// Command write collects the notices of everything that ships in the binary: the Go modules that it is linked from, Go
// itself, and the packages that the front end is built from. With -check it says whether the file is current.
package main

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"slices"
	"strings"

	"upbeatladle/about"
)

const file = "about/notices.json"

func main() {
	check := flag.Bool("check", false, "only say whether "+file+" is current")
	flag.Parse()
	if err := run(*check); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(check bool) error {
	found, err := modules()
	if err != nil {
		return err
	}
	scripts, err := packages("web")
	if err != nil {
		return err
	}
	data, err := encode(append(found, scripts...))
	if err != nil {
		return err
	}
	if !check {
		return os.WriteFile(file, data, 0o644)
	}
	if was, _ := os.ReadFile(file); !bytes.Equal(was, data) {
		return errors.New(file + " is out of date: commit what make notices writes")
	}
	return nil
}

// part is one thing that ships.
type part struct{ name, text string }

// modules are those that the program is linked from, and Go itself.
func modules() ([]part, error) {
	out, err := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}}\t{{.Dir}}{{end}}{{end}}", "./cmd/upbeat-ladle").Output()
	if err != nil {
		return nil, fmt.Errorf("listing modules: %w", err)
	}
	var lines []string
	for l := range strings.Lines(string(out)) {
		if l = strings.TrimSpace(l); l != "" {
			lines = append(lines, l)
		}
	}
	slices.Sort(lines)
	text, err := os.ReadFile(filepath.Join(goRoot(), "LICENSE"))
	if err != nil {
		return nil, fmt.Errorf("the licence of Go: %w", err)
	}
	parts := []part{{"Go " + runtime.Version(), string(text)}}
	for _, l := range slices.Compact(lines) {
		name, dir, _ := strings.Cut(l, "\t")
		text, err := license(dir)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		parts = append(parts, part{name, text})
	}
	return parts, nil
}

func goRoot() string {
	out, _ := exec.Command("go", "env", "GOROOT").Output()
	return strings.TrimSpace(string(out))
}

// lends are packages that are only read while something is made that ships.
var lends = map[string]bool{"@zxcvbn-ts/language-common": true} // house/common.bin

// packages are those that the lock file does not call tools only, and those that lend.
func packages(web string) ([]part, error) {
	var lock struct {
		Packages map[string]struct {
			Version             string
			License             string
			Dev, Optional, Peer bool
		}
	}
	data, err := os.ReadFile(filepath.Join(web, "package-lock.json"))
	if err != nil {
		return nil, err
	}
	if err := json.Unmarshal(data, &lock); err != nil {
		return nil, err
	}
	var parts []part
	for at, p := range lock.Packages {
		if at == "" || (p.Dev || p.Optional || p.Peer) && !lends[strings.TrimPrefix(at, "node_modules/")] {
			continue
		}
		text, err := license(filepath.Join(web, at))
		if err != nil {
			text = "Licence: " + p.License // the package carries no text of its own
		}
		parts = append(parts, part{strings.TrimPrefix(at[strings.LastIndex(at, "node_modules/"):], "node_modules/") + " " + p.Version, text})
	}
	return parts, nil
}

var texts = regexp.MustCompile(`(?i)^(un)?(licen[cs]e|copying|notice|ofl)([-._].*)?$`)

// license is every text of that kind in a folder.
func license(dir string) (string, error) {
	entries, err := os.ReadDir(dir)
	if err != nil {
		return "", err
	}
	var all []string
	for _, e := range entries {
		if e.IsDir() || !texts.MatchString(e.Name()) || strings.HasSuffix(e.Name(), ".go") {
			continue
		}
		data, err := os.ReadFile(filepath.Join(dir, e.Name()))
		if err != nil {
			return "", err
		}
		all = append(all, string(data))
	}
	if len(all) == 0 {
		return "", errors.New("no licence text in " + dir)
	}
	return strings.Join(all, "\n\n"), nil
}

// encode puts what shares a text under one text, in the order of the first name.
func encode(parts []part) ([]byte, error) {
	by := map[string]*about.Notice{}
	for _, p := range parts {
		text := strings.TrimSpace(strings.ReplaceAll(p.text, "\r\n", "\n"))
		n := by[text]
		if n == nil {
			n = &about.Notice{License: short(text), Text: text}
			by[text] = n
		}
		n.Names = append(n.Names, p.name)
	}
	var out []about.Notice
	for _, n := range by {
		slices.Sort(n.Names)
		n.Names = slices.Compact(n.Names)
		out = append(out, *n)
	}
	slices.SortFunc(out, func(a, b about.Notice) int {
		return cmp.Compare(strings.ToLower(a.Names[0]), strings.ToLower(b.Names[0]))
	})
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	e.SetIndent("", " ")
	err := e.Encode(out)
	return b.Bytes(), err
}

// short is the licence's usual short name.
func short(text string) string {
	for _, l := range []struct{ name, says string }{
		{"Apache-2.0", "Apache License"}, {"MPL-2.0", "Mozilla Public License"}, {"OFL-1.1", "SIL OPEN FONT LICENSE"}, {"MIT", "Permission is hereby granted, free of charge"},
		{"ISC", "Permission to use, copy, modify, and/or distribute"}, {"0BSD", "Permission to use, copy, modify, and distribute this software for any"},
		{"BSD-3-Clause", "Neither the name"}, {"BSD-2-Clause", "Redistribution and use"}, {"Unlicense", "released into the public domain"},
	} {
		if strings.Contains(strings.Join(strings.Fields(text), " "), l.says) {
			return l.name
		}
	}
	if name, ok := strings.CutPrefix(text, "Licence: "); ok {
		return name
	}
	return "see the text"
}
