package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"strconv"
	"sync"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/demo"
	"upbeatladle/kitchen"
	"upbeatladle/store"
	"upbeatladle/web"
)

const (
	portsToTry  = 20               // from the one asked for, when it is taken
	graceToStop = 10 * time.Second // for requests that are under way
	lookForDay  = time.Hour        // whether a new day has no copy yet
)

func serveCommand() *cobra.Command {
	var o serveOptions
	var verbose bool
	c := &cobra.Command{
		Use:   "serve",
		Short: "Serve the bench to a browser on this machine",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			level := slog.LevelInfo
			if verbose {
				level = slog.LevelDebug
			}
			o.log = slog.New(slog.NewJSONHandler(c.ErrOrStderr(), &slog.HandlerOptions{Level: level}))
			ctx, stop := signal.NotifyContext(c.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			return serve(ctx, c, o)
		},
	}
	c.Flags().StringVar(&o.addr, "addr", "127.0.0.1:8475", "address on this machine; the next free port is taken when it is in use")
	c.Flags().StringVar(&o.db, "db", defaultDB, "database file; made when it is missing")
	c.Flags().BoolVar(&o.demo, "demo", false, "write the demo kitchen when the database is empty, and put simulated devices on its counter")
	c.Flags().StringVar(&o.scale, "scale", "", "address of a scale that speaks the protocol of docs/formats/devices.md")
	c.Flags().StringVar(&o.refractometer, "refractometer", "", "address of a refractometer, likewise")
	c.Flags().BoolVar(&verbose, "verbose", false, "log every request")
	return c
}

type serveOptions struct {
	addr, db             string
	scale, refractometer string
	demo                 bool
	log                  *slog.Logger
}

func serve(ctx context.Context, c *cobra.Command, o serveOptions) error {
	if err := os.MkdirAll(filepath.Dir(o.db), 0o750); err != nil {
		return fmt.Errorf("making the folder of the database: %w", err)
	}
	st, err := store.Open(ctx, o.db, time.Now)
	if err != nil {
		return err
	}
	defer st.Close()
	if o.demo {
		if err := demo.Write(ctx, st, food.Reference(), time.Now()); err != nil {
			return err
		}
	}
	if err := kitchen.New(st, food.Reference(), o.log, time.Now).Mend(ctx); err != nil {
		return err
	}
	l, err := listen(o.addr)
	if err != nil {
		return err
	}
	var copies sync.WaitGroup
	days, enough := context.WithCancel(ctx)
	copies.Go(func() { keepDays(days, st, o.log) })
	defer copies.Wait()
	defer enough()
	plugged, unplug := context.WithCancel(context.WithoutCancel(ctx)) // the counter is cleared last
	on, err := connect(plugged, o.scale, o.refractometer, o.demo)
	if err != nil {
		unplug()
		return errors.Join(err, l.Close())
	}
	defer on.ended.Wait()
	defer unplug()
	srv := &http.Server{
		Handler: api.New(api.Parts{
			Store: st, Table: food.Reference(), Pages: web.Dist(), Log: o.log, Now: time.Now, Scale: on.scale, Refractometer: on.refractometer,
			Closing: ctx.Done(), // ends the streams; a save that is under way is let finish
		}),
		ErrorLog: slog.NewLogLogger(o.log.Handler(), slog.LevelWarn),
	}
	api.Harden(srv)
	failed := make(chan error, 1)
	go func() { failed <- srv.Serve(l) }()
	fmt.Fprintf(c.OutOrStdout(), "Upbeat Ladle is open at http://%s  (Ctrl+C closes it)\n", l.Addr())
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	o.log.Info("closing", "grace", graceToStop)
	grace, cancel := context.WithTimeout(context.WithoutCancel(ctx), graceToStop)
	defer cancel()
	return srv.Shutdown(grace)
}

// keepDays copies the kitchen once a day for as long as the program runs, and tidies it after
// each copy, so that what is thinned or purged stands in the copies of two weeks.
func keepDays(ctx context.Context, st *store.Store, log *slog.Logger) {
	look := time.NewTicker(lookForDay)
	defer look.Stop()
	for {
		if kept, err := st.KeepDay(ctx); err != nil && ctx.Err() == nil {
			log.Warn("the copy of the day was not made", "err", err)
		} else if kept != "" {
			log.Info("the copy of the day", "file", kept)
			if done, err := st.Tidy(ctx); err != nil && ctx.Err() == nil {
				log.Warn("the kitchen was not tidied", "err", err)
			} else if done != (store.Tidied{}) {
				log.Info("tidied", "states", done.States, "purged", done.Purged, "packed", done.Packed)
			}
		}
		select {
		case <-look.C:
		case <-ctx.Done():
			return
		}
	}
}

// listen opens the address, or the next free port after it. Only loopback is served.
func listen(addr string) (net.Listener, error) {
	host, portText, err := net.SplitHostPort(addr)
	port, perr := strconv.Atoi(portText)
	if err != nil || perr != nil {
		return nil, usageError{fmt.Errorf("--addr %q is not an address like 127.0.0.1:8475", addr)}
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, usageError{fmt.Errorf("--addr %q: the bench has no passcode yet, so it serves this machine only: use 127.0.0.1", addr)}
	}
	for try := range portsToTry {
		at := net.JoinHostPort(host, strconv.Itoa(port+try))
		var l net.Listener
		if l, err = net.Listen("tcp", at); err == nil {
			return l, nil
		}
		if port == 0 || !errors.Is(err, syscall.EADDRINUSE) {
			break
		}
	}
	return nil, fmt.Errorf("no free port from %s on: %w", addr, err)
}
