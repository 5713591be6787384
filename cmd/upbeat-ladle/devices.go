package main

import (
	"cmp"
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
	var at device.Addresses
	c := &cobra.Command{
		Use:   "devices",
		Short: "Start the simulated scale, refractometer and thermometer, for serve --scale, --refractometer and --thermometer",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			ctx, stop := signal.NotifyContext(c.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			ls, err := listen(at.Scale, false, !c.Flags().Changed("scale-addr"))
			if err != nil {
				return err
			}
			lr, err := listen(at.Refractometer, false, !c.Flags().Changed("refractometer-addr"))
			if err != nil {
				return err
			}
			lt, err := listen(at.Thermometer, false, !c.Flags().Changed("thermometer-addr"))
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "scale %s\nrefractometer %s\nthermometer %s\n", ls.Addr(), lr.Addr(), lt.Addr())
			seed := rand.Uint64()
			return together(
				func() error { return device.ServeScale(ctx, ls, device.NewSimulatedScale(seed)) },
				func() error { return device.ServeRefractometer(ctx, lr, device.NewSimulatedRefractometer(seed)) },
				func() error { return device.ServeThermometer(ctx, lt, device.NewSimulatedThermometer(time.Now)) },
			)
		},
	}
	c.Flags().StringVar(&at.Scale, "scale-addr", "127.0.0.1:8476", "address of the scale")
	c.Flags().StringVar(&at.Refractometer, "refractometer-addr", "127.0.0.1:8486", "address of the refractometer")
	c.Flags().StringVar(&at.Thermometer, "thermometer-addr", "127.0.0.1:8496", "address of the thermometer")
	return c
}

// together runs all of them and returns the first error.
func together(all ...func() error) error {
	errs := make(chan error, len(all))
	for _, f := range all {
		go func() { errs <- f() }()
	}
	for range all {
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
	thermometer   device.Thermometer
	ended         sync.WaitGroup
}

// connect reaches for the devices at their addresses; with simulated, stand-ins take the place
// of those without one.
func connect(ctx context.Context, at device.Addresses, simulated bool) (*counter, error) {
	if simulated {
		in, err := device.StandIns(ctx, time.Now)
		if err != nil {
			return nil, fmt.Errorf("starting the simulated devices: %w", err)
		}
		at = device.Addresses{Scale: cmp.Or(at.Scale, in.Scale), Refractometer: cmp.Or(at.Refractometer, in.Refractometer), Thermometer: cmp.Or(at.Thermometer, in.Thermometer)}
	}
	var k counter
	for _, addr := range []string{at.Scale, at.Refractometer, at.Thermometer} {
		if _, _, err := net.SplitHostPort(addr); addr != "" && err != nil {
			return nil, usageError{fmt.Errorf("%q is not the address of a device, like 127.0.0.1:8476", addr)}
		}
	}
	if at.Scale != "" {
		s := device.NewNetScale(at.Scale, time.Now)
		k.ended.Go(func() { s.Run(ctx) })
		k.scale = s
	}
	if at.Refractometer != "" {
		k.refractometer = device.NewNetRefractometer(at.Refractometer)
	}
	if at.Thermometer != "" {
		k.thermometer = device.NewNetThermometer(at.Thermometer)
	}
	return &k, nil
}
