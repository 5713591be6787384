package main

import (
	"cmp"
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
	"upbeatladle/device"
	"upbeatladle/kitchen"
	"upbeatladle/store"
	"upbeatladle/web"
)

const (
	thisMachine = "127.0.0.1:8475"
	thisHouse   = ":8475"          // every address of the machine
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
			if o.addrGiven = c.Flags().Changed("addr"); o.lan && !o.addrGiven {
				o.addr = thisHouse
			}
			o.log = slog.New(slog.NewJSONHandler(c.ErrOrStderr(), &slog.HandlerOptions{Level: level}))
			ctx, stop := signal.NotifyContext(c.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			return serve(ctx, c, o)
		},
	}
	c.Flags().StringVar(&o.addr, "addr", thisMachine, "address on this machine; without it, the next free port is taken when that one is in use")
	c.Flags().BoolVar(&o.lan, "lan", false, "let other tablets of the house in, with a passcode and over TLS")
	c.Flags().StringSliceVar(&o.names, "host", nil, "with --lan: a name that tablets call this machine by; may be given more than once")
	c.Flags().StringVar(&o.cert, "cert", "", "with --lan: file of a certificate to show instead of the house's own, with its chain, in PEM")
	c.Flags().StringVar(&o.key, "key", "", "with --lan: file of the key of --cert")
	c.Flags().BoolVar(&o.inTheOpen, "plain", false, "with --lan: no TLS; whoever is on the network can read along, the passcode too")
	c.Flags().StringVar(&o.db, "db", defaultDB, "database file; made when it is missing")
	c.Flags().BoolVar(&o.demo, "demo", false, "write the demo kitchen when the database is empty, and put simulated devices on its counter")
	c.Flags().StringVar(&o.devices.Scale, "scale", "", "address of a scale that speaks the protocol of docs/formats/devices.md")
	c.Flags().StringVar(&o.devices.Refractometer, "refractometer", "", "address of a refractometer, likewise")
	c.Flags().StringVar(&o.devices.Thermometer, "thermometer", "", "address of the thermometers at the plates, likewise")
	c.Flags().StringVar(&o.labels, "labels", "", "folder that labels are printed into (default: beside the database)")
	c.Flags().BoolVar(&verbose, "verbose", false, "log every request")
	return c
}

type serveOptions struct {
	addr, db, labels string
	addrGiven        bool // somebody waits at it: then it is this one or none
	devices          device.Addresses
	demo             bool
	lan, inTheOpen   bool
	names            []string
	cert, key        string
	log              *slog.Logger
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
	l, err := listen(o.addr, o.lan, !o.addrGiven)
	if err != nil {
		return err
	}
	at, err := openDoor(ctx, st, l, o)
	if err != nil {
		return errors.Join(err, l.Close())
	}
	var copies sync.WaitGroup
	days, enough := context.WithCancel(ctx)
	copies.Go(func() { keepDays(days, st, o.log) })
	defer copies.Wait()
	defer enough()
	plugged, unplug := context.WithCancel(context.WithoutCancel(ctx)) // the counter is cleared last
	on, err := connect(plugged, o.devices, o.demo)
	if err != nil {
		unplug()
		return errors.Join(err, l.Close())
	}
	defer on.ended.Wait()
	defer unplug()
	logged := slog.NewLogLogger(o.log.Handler(), slog.LevelWarn)
	srv := &http.Server{
		Handler: api.New(api.Parts{
			Store: st, Table: food.Reference(), Pages: web.Dist(), Log: o.log, Now: time.Now, Scale: on.scale, Refractometer: on.refractometer,
			Thermometer: on.thermometer, Printer: device.NewFolderPrinter(cmp.Or(o.labels, o.db+".labels")),
			Closing: ctx.Done(), // ends the streams; a save that is under way is let finish
			Door:    at.Door,
		}),
		ErrorLog: logged, TLSConfig: at.tls,
	}
	api.Harden(srv, at.Door)
	trust := &http.Server{Handler: api.Trust(web.Dist(), at.Door), ErrorLog: logged}
	api.Harden(trust, at.Door)
	failed := make(chan error, 2)
	if at.tls == nil {
		go func() { failed <- srv.Serve(at.line) }()
	} else {
		go func() { failed <- srv.ServeTLS(at.line, "", "") }()
	}
	if at.open != nil {
		go func() { failed <- trust.Serve(at.open) }()
	}
	at.tell(c.OutOrStdout(), l.Addr())
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	o.log.Info("closing", "grace", graceToStop)
	grace, cancel := context.WithTimeout(context.WithoutCancel(ctx), graceToStop)
	defer cancel()
	return errors.Join(trust.Shutdown(grace), srv.Shutdown(grace))
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

// listen opens the address, or the next free port after it. Beyond loopback only a house is served.
// listen opens an address. When its port is taken, the next free one serves if another will do.
func listen(addr string, lan, anotherWillDo bool) (net.Listener, error) {
	host, portText, err := net.SplitHostPort(addr)
	port, perr := strconv.Atoi(portText)
	if err != nil || perr != nil {
		return nil, usageError{fmt.Errorf("--addr %q is not an address like 127.0.0.1:8475", addr)}
	}
	if ip := net.ParseIP(host); !lan && host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, usageError{fmt.Errorf("--addr %q lets other machines in: say --lan as well, then a passcode is asked for", addr)}
	}
	for try := range portsToTry {
		at := net.JoinHostPort(host, strconv.Itoa(port+try))
		var l net.Listener
		if l, err = net.Listen("tcp", at); err == nil {
			return l, nil
		}
		if errors.Is(err, syscall.EADDRINUSE) && !anotherWillDo {
			return nil, fmt.Errorf("--addr %s is in use by another program, or by this one in another window. Close that one, or give another port", addr)
		}
		if port == 0 || !errors.Is(err, syscall.EADDRINUSE) {
			break
		}
	}
	return nil, fmt.Errorf("no free port from %s on: %w", addr, err)
}
