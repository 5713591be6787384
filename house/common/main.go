// Command common writes house/common.bin: the passcodes that are guessed first, as the beginnings of their hashes, so that nobody has
// to read them. They come from one package's list, whose terms stand in the notices.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"unicode/utf8"

	"upbeatladle/house"
)

const (
	list = "web/node_modules/@zxcvbn-ts/language-common/src/passwords.json"
	file = "house/common.bin"
	most = 3000 // OWASP ASVS 5 asks for the 3,000 most common at least (from memory)
)

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run() error {
	data, err := os.ReadFile(list)
	if err != nil {
		return err
	}
	var all []string // the most common first
	if err := json.Unmarshal(data, &all); err != nil {
		return fmt.Errorf("reading %s: %w", list, err)
	}
	var marks [][]byte
	for _, p := range all {
		if utf8.RuneCountInString(p) >= house.ShortestPasscode && len(marks) < most {
			marks = append(marks, house.Mark(p))
		}
	}
	if len(marks) < most {
		return fmt.Errorf("%s has %d passcodes that are long enough, not %d", list, len(marks), most)
	}
	slices.SortFunc(marks, bytes.Compare)
	return os.WriteFile(file, bytes.Join(marks, nil), 0o644)
}
