package main

import (
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"upbeatladle/document"
)

func workCommand() *cobra.Command {
	var in whereFlags
	c := &cobra.Command{
		Use:   "work FILE|-",
		Short: "Read a variation document and print its worksheet document",
		Args: func(c *cobra.Command, args []string) error {
			if err := cobra.ExactArgs(1)(c, args); err != nil {
				return usageError{fmt.Errorf("name one variation document, or - to read it from standard input")}
			}
			return nil
		},
		RunE: func(c *cobra.Command, args []string) error { return answer(c, "worksheets", args[0], in) },
	}
	in.flags(c)
	return c
}

// readDocument reads a file, or standard input for "-", up to the size of a document.
func readDocument(name string, stdin io.Reader) ([]byte, error) {
	in := stdin
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return nil, usageError{fmt.Errorf("the document cannot be opened: %w", err)}
		}
		defer f.Close()
		in = f
	}
	data, err := io.ReadAll(io.LimitReader(in, document.MaxBytes+1))
	if err != nil {
		return nil, usageError{fmt.Errorf("the document cannot be read: %w", err)}
	}
	if len(data) > document.MaxBytes {
		return nil, usageError{fmt.Errorf("the document is larger than %d kB; a variation takes a few", document.MaxBytes>>10)}
	}
	return data, nil
}
