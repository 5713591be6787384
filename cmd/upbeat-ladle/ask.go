package main

import (
	"fmt"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"upbeatladle/about"
	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
	"upbeatladle/document"
	"upbeatladle/document/question"
)

// askCommand answers any question of the table; alone it lists them.
func askCommand() *cobra.Command {
	var in whereFlags
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
			return answer(c, args[0], args[1], in)
		},
	}
	in.flags(c)
	return c
}

// whereFlags name the files that say where a question is answered.
type whereFlags struct{ kitchen, setting string }

func (w *whereFlags) flags(c *cobra.Command) {
	c.Flags().StringVar(&w.kitchen, "kitchen", "", "kitchen document to work in")
	c.Flags().StringVar(&w.setting, "setting", "", "setting document to work in: kitchen, pantry and day, as a kitchen gives it under /api/v1/setting")
	c.MarkFlagsMutuallyExclusive("kitchen", "setting")
}

// read is the setting that the flags name, everything included.
func (w whereFlags) read(c *cobra.Command) (document.Setting, error) {
	in := document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen(), Today: time.Now()}
	switch {
	case w.kitchen != "":
		text, err := readDocument(w.kitchen, c.InOrStdin())
		if err != nil {
			return in, err
		}
		if in.Kitchen, err = document.DecodeKitchen(text); err != nil {
			return in, err
		}
	case w.setting != "":
		text, err := readDocument(w.setting, c.InOrStdin())
		if err != nil {
			return in, err
		}
		d, err := document.DecodeSetting(text)
		if err != nil {
			return in, err
		}
		if d.Rules != about.String() || d.Table != food.ReferenceStamp() {
			fmt.Fprintf(c.ErrOrStderr(), "The setting is of %s; this is %s. Figures may differ.\n", d.Rules, about.String())
		}
		if in, err = d.Setting(food.Reference()); err != nil {
			return in, err
		}
	}
	in.Include = worksheet.Everything
	return in, nil
}

// answer prints the answer to a question about the document in a file, everything included.
func answer(c *cobra.Command, name, file string, where whereFlags) error {
	q, ok := question.Named(name)
	if !ok {
		return usageError{fmt.Errorf("there is no question %q; ask alone lists them", name)}
	}
	data, err := readDocument(file, c.InOrStdin())
	if err != nil {
		return err
	}
	in, err := where.read(c)
	if err != nil {
		return err
	}
	out, err := q.Answer(c.Context(), in, data)
	if err != nil {
		return err
	}
	_, err = c.OutOrStdout().Write(out)
	return err
}
