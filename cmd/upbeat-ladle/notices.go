package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"upbeatladle/about"
)

func noticesCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "notices",
		Short: "Print the notices of the fonts, scripts and modules that ship inside the program",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			text, err := about.Text()
			if err != nil {
				return err
			}
			_, err = fmt.Fprint(c.OutOrStdout(), text)
			return err
		},
	}
}
