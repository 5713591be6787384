package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"upbeatladle/store"
)

const defaultDB = "upbeat-ladle.db"

func backupCommand() *cobra.Command {
	var db string
	c := &cobra.Command{
		Use:   "backup FILE",
		Short: "Copy the whole kitchen to one file, also while the bench is open",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if err := store.Backup(c.Context(), db, args[0]); err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "%s holds the kitchen of %s and was read through once.\n", args[0], db)
			return nil
		},
	}
	c.Flags().StringVar(&db, "db", defaultDB, "database file of the kitchen")
	return c
}

func restoreCommand() *cobra.Command {
	var db string
	c := &cobra.Command{
		Use:   "restore FILE",
		Short: "Put a backup in the kitchen's place; what was there stays beside it",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			replaced, err := store.Restore(c.Context(), args[0], db, time.Now())
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "%s is the kitchen of %s again.\n", db, args[0])
			if replaced != "" {
				fmt.Fprintf(c.OutOrStdout(), "What was there is in %s.\n", replaced)
			}
			return nil
		},
	}
	c.Flags().StringVar(&db, "db", defaultDB, "database file of the kitchen")
	return c
}
