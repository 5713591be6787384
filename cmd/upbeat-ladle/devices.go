package main

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net"
	"os"
	"os/signal"
	"sync"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"upbeatladle/device"
)

// devicesCommand starts the stand-ins for the things on the counter.
func devicesCommand() *cobra.Command {
	var scale, refractometer string
	c := &cobra.Command{
		Use:   "devices",
		Short: "Start the simulated scale and refractometer, for serve --scale and --refractometer",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			ctx, stop := signal.NotifyContext(c.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			ls, err := listen(scale, false)
			if err != nil {
				return err
			}
			lr, err := listen(refractometer, false)
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "scale %s\nrefractometer %s\n", ls.Addr(), lr.Addr())
			seed := rand.Uint64()
			return together(
				func() error { return device.ServeScale(ctx, ls, device.NewSimulatedScale(seed)) },
				func() error { return device.ServeRefractometer(ctx, lr, device.NewSimulatedRefractometer(seed)) },
			)
		},
	}
	c.Flags().StringVar(&scale, "scale-addr", "127.0.0.1:8476", "address of the scale")
	c.Flags().StringVar(&refractometer, "refractometer-addr", "127.0.0.1:8486", "address of the refractometer")
	return c
}

// together runs both and returns the first error.
func together(a, b func() error) error {
	errs := make(chan error, 2)
	go func() { errs <- a() }()
	go func() { errs <- b() }()
	for range 2 {
		if err := <-errs; err != nil {
			return err
		}
	}
	return nil
}

// counter is what stands on the counter of a kitchen that is served.
type counter struct {
	scale         device.Scale
	refractometer device.Refractometer
	ended         sync.WaitGroup
}

// connect reaches for the devices at their addresses; with simulated, stand-ins take the place
// of those without one.
func connect(ctx context.Context, scale, refractometer string, simulated bool) (*counter, error) {
	if simulated && (scale == "" || refractometer == "") {
		s, r, err := device.StandIns(ctx)
		if err != nil {
			return nil, fmt.Errorf("starting the simulated devices: %w", err)
		}
		if scale == "" {
			scale = s
		}
		if refractometer == "" {
			refractometer = r
		}
	}
	var k counter
	for _, addr := range []string{scale, refractometer} {
		if _, _, err := net.SplitHostPort(addr); addr != "" && err != nil {
			return nil, usageError{fmt.Errorf("%q is not the address of a device, like 127.0.0.1:8476", addr)}
		}
	}
	if scale != "" {
		s := device.NewNetScale(scale, time.Now)
		k.ended.Go(func() { s.Run(ctx) })
		k.scale = s
	}
	if refractometer != "" {
		k.refractometer = device.NewNetRefractometer(refractometer)
	}
	return &k, nil
}
