package main

import (
	"fmt"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
	"upbeatladle/document"
	"upbeatladle/document/question"
)

// askCommand answers any question of the table; alone it lists them.
func askCommand() *cobra.Command {
	var kitchen string
	c := &cobra.Command{
		Use:   "ask [NAME FILE|-]",
		Short: "Ask one of the questions that the program answers; alone it lists them",
		Args: func(_ *cobra.Command, args []string) error {
			if n := len(args); n != 0 && n != 2 {
				return usageError{fmt.Errorf("name a question and one document, or - to read it from standard input; ask alone lists the questions")}
			}
			return nil
		},
		RunE: func(c *cobra.Command, args []string) error {
			if len(args) == 0 {
				w := tabwriter.NewWriter(c.OutOrStdout(), 0, 0, 2, ' ', 0)
				for _, q := range question.Table {
					fmt.Fprintf(w, "%s\t%s\n", q.Name, q.Says)
				}
				return w.Flush()
			}
			return answer(c, args[0], args[1], kitchen)
		},
	}
	c.Flags().StringVar(&kitchen, "kitchen", "", "kitchen document to work in")
	return c
}

// answer prints the answer to a question about the document in a file, everything included.
func answer(c *cobra.Command, name, file, kitchen string) error {
	q, ok := question.Named(name)
	if !ok {
		return usageError{fmt.Errorf("there is no question %q; ask alone lists them", name)}
	}
	data, err := readDocument(file, c.InOrStdin())
	if err != nil {
		return err
	}
	in := document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen(), Today: time.Now(), Include: worksheet.Everything}
	if kitchen != "" {
		text, err := readDocument(kitchen, c.InOrStdin())
		if err != nil {
			return err
		}
		if in.Kitchen, err = document.DecodeKitchen(text); err != nil {
			return err
		}
	}
	out, err := q.Answer(c.Context(), in, data)
	if err != nil {
		return err
	}
	_, err = c.OutOrStdout().Write(out)
	return err
}
