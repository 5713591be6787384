package main

import (
	"bufio"
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"
	"golang.org/x/term"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/house"
	"upbeatladle/kitchen"
	"upbeatladle/store"
)

// door is how the program is reached, and what is told of it on the terminal.
type door struct {
	api.Door
	line, open net.Listener // with TLS where there is any; without, to tell of trust
	tls        *tls.Config
	passcode   string // that was made just now
}

// openDoor makes the door that was asked for.
func openDoor(ctx context.Context, st *store.Store, l net.Listener, o serveOptions) (door, error) {
	at := door{line: l}
	if !o.lan {
		if len(o.names) > 0 || o.cert != "" || o.key != "" || o.inTheOpen {
			return at, usageError{errors.New("--host, --cert, --key and --plain go with --lan")}
		}
		return at, nil
	}
	if (o.cert == "") != (o.key == "") || o.cert != "" && o.inTheOpen {
		return at, usageError{errors.New("--cert and --key go together, and not with --plain")}
	}
	names := make([]string, len(o.names))
	for i, n := range o.names {
		if names[i] = strings.ToLower(strings.TrimSuffix(n, ".")); names[i] == "" || strings.ContainsAny(names[i], "/: ") {
			return at, usageError{fmt.Errorf("--host %q is not a name like kitchen.local", n)}
		}
	}
	at.House = house.New(st, time.Now)
	var err error
	if at.passcode, err = at.House.Begin(ctx); err != nil {
		return at, err
	}
	at.Open, at.Names = true, append(names, ownNames()...)
	at.line = house.Capped(l, at.House.Knows)
	switch {
	case o.inTheOpen:
	case o.cert != "":
		pair, err := tls.LoadX509KeyPair(o.cert, o.key)
		if err != nil {
			return at, fmt.Errorf("reading --cert and --key: %w", err)
		}
		at.tls = house.TLS()
		at.tls.Certificates = []tls.Certificate{pair}
	default:
		if at.Own, err = house.OpenCertificate(houseFolder(o.db), names, ownNames(), time.Now); err != nil {
			return at, err
		}
		at.tls = house.TLS()
		at.tls.GetCertificate = at.Own.Get
		at.line, at.open = house.Split(at.line)
	}
	at.URLs = func() []string { return urls(l.Addr(), names, at.tls != nil) }
	return at, nil
}

// houseFolder is where the house's certificate is kept: beside the database.
func houseFolder(db string) string { return strings.TrimSuffix(db, filepath.Ext(db)) + "-house" }

// ownNames are the machine's own name, and as it is called on a house's network.
func ownNames() []string {
	name, err := os.Hostname()
	if err != nil || name == "" || name == "localhost" {
		return nil
	}
	name = strings.ToLower(name)
	if strings.Contains(name, ".") {
		return []string{name}
	}
	return []string{name, name + ".local"}
}

// urls are where tablets come in: the names that were given, then the machine's addresses.
func urls(at net.Addr, names []string, secure bool) []string {
	scheme := "http"
	if secure {
		scheme = "https"
	}
	host, port, err := net.SplitHostPort(at.String())
	if err != nil {
		return nil
	}
	hosts := slices.Clone(names)
	if ip := net.ParseIP(host); ip != nil && !ip.IsUnspecified() {
		hosts = append(hosts, host)
	} else if all, err := house.Addresses(); err == nil {
		for _, a := range all {
			hosts = append(hosts, a.String())
		}
	}
	out := make([]string, len(hosts))
	for i, h := range hosts {
		out[i] = scheme + "://" + net.JoinHostPort(h, port)
	}
	return out
}

// tell says on the terminal where the bench is.
func (d door) tell(w io.Writer, at net.Addr) {
	if !d.Open {
		fmt.Fprintf(w, "Upbeat Ladle is open at http://%s  (Ctrl+C closes it)\n", at)
		return
	}
	fmt.Fprintln(w, "Upbeat Ladle is open to this house  (Ctrl+C closes it):")
	for _, u := range d.URLs() {
		not := ""
		if at, err := url.Parse(u); d.Own != nil && err == nil {
			if ip := net.ParseIP(at.Hostname()); ip != nil && !house.SpeaksFor(ip) {
				not = "  (not an address of a house: the kitchen's certificate does not speak for it, give --cert and --key)"
			}
		}
		fmt.Fprintln(w, "  "+u+not)
	}
	if d.passcode != "" {
		fmt.Fprintf(w, "The passcode is  %s\nWrite it down: it is told this once. “upbeat-ladle passcode” sets another.\n", d.passcode)
	}
	switch {
	case d.Own != nil:
		fmt.Fprintf(w, "A tablet trusts this kitchen's certificate once; the same address with http:// says how. Its fingerprint is\n  %s\n", d.Own.Fingerprint())
	case d.tls == nil:
		fmt.Fprintln(w, "Without TLS: whoever is on this network can read along, the passcode too.")
	}
}

func passcodeCommand() *cobra.Command {
	var db string
	c := &cobra.Command{
		Use:   "passcode",
		Short: "Set the passcode that other tablets give; every tablet is signed out",
		Long:  "Set the passcode that other tablets give. It is read from the terminal, or from the first line of what is piped in. Every tablet is signed out.",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			st, err := store.Open(c.Context(), db, time.Now)
			if err != nil {
				return err
			}
			defer st.Close()
			passcode, err := readPasscode(c.InOrStdin(), c.OutOrStdout())
			if err != nil {
				return err
			}
			own, _, err := kitchen.New(st, food.Reference(), slog.New(slog.DiscardHandler), time.Now).Own(c.Context())
			if err != nil {
				return err
			}
			if err := house.New(st, time.Now).Set(c.Context(), passcode, own.Name); err != nil {
				return err
			}
			fmt.Fprintln(c.OutOrStdout(), "The passcode is set. Every tablet is signed out and gives the new one.")
			return nil
		},
	}
	c.Flags().StringVar(&db, "db", defaultDB, "database file of the kitchen")
	return c
}

// readPasscode asks twice at a terminal, where nothing is shown of it; else the first line is it.
func readPasscode(in io.Reader, out io.Writer) (string, error) {
	f, ok := in.(*os.File)
	if !ok || !term.IsTerminal(int(f.Fd())) {
		line, err := bufio.NewReader(io.LimitReader(in, 4<<10)).ReadString('\n')
		if err != nil && !errors.Is(err, io.EOF) {
			return "", err
		}
		return strings.TrimRight(line, "\r\n"), nil
	}
	var said [2]string
	for i, ask := range []string{"The new passcode: ", "Once more: "} {
		fmt.Fprint(out, ask)
		b, err := term.ReadPassword(int(f.Fd()))
		fmt.Fprintln(out)
		if err != nil {
			return "", err
		}
		said[i] = string(b)
	}
	if said[0] != said[1] {
		return "", usageError{errors.New("the two are not the same; nothing was changed")}
	}
	return said[0], nil
}
