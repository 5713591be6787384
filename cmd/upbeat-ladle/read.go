package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"upbeatladle/core/food"
	"upbeatladle/document"
)

func readCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "read FILE|-",
		Short: "Read a recipe as cooks have it and print what was understood",
		Args: func(c *cobra.Command, args []string) error {
			if err := cobra.ExactArgs(1)(c, args); err != nil {
				return usageError{fmt.Errorf("name one text, or - to read it from standard input")}
			}
			return nil
		},
		RunE: func(c *cobra.Command, args []string) error {
			data, err := readDocument(args[0], c.InOrStdin())
			if err != nil {
				return err
			}
			r, err := document.Read(c.Context(), document.ReadingWish{Text: string(data)}, document.Setting{Table: food.Reference(), Today: time.Now()})
			if err != nil {
				return err
			}
			out, err := document.Answer(r)
			if err != nil {
				return err
			}
			_, err = c.OutOrStdout().Write(out)
			return err
		},
	}
}
