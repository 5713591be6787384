// Command upbeat-ladle is the program: it serves the bench to a browser and works
// documents out on the command line.
package main

import (
	"errors"
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"upbeatladle/about"
	"upbeatladle/document"
)

// Exit codes.
const (
	exitFailed   = 1 // the program could not do it
	exitDocument = 2 // the document or the call is wrong; the sentence says how
)

func main() { os.Exit(run(os.Args[1:])) }

func run(args []string) int {
	root := &cobra.Command{
		Use:           "upbeat-ladle",
		Short:         "Builds flavoured pancakes, waffles and crêpes from a base you trust",
		Version:       about.String(),
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(workCommand(), readCommand(), askCommand(), serveCommand(), backupCommand(), restoreCommand(), devicesCommand(), noticesCommand(), passcodeCommand())
	root.SetArgs(args)
	err := root.Execute()
	if err == nil {
		return 0
	}
	fmt.Fprintln(os.Stderr, err)
	var p document.Problems
	var usage usageError
	if errors.As(err, &p) || errors.As(err, &usage) {
		return exitDocument
	}
	return exitFailed
}

// usageError is a call that cannot be understood.
type usageError struct{ error }
