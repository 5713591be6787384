package device_test

import (
	"bufio"
	"bytes"
	"context"
	"fmt"
	"io"
	"math"
	"net"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/prep"
	"upbeatladle/device"
)

func listen(t *testing.T) net.Listener {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { l.Close() })
	return l
}

// until waits for a state of the scale, never for a time.
func until(t *testing.T, states <-chan device.State, what string, ok func(device.State) bool) device.State {
	t.Helper()
	late := time.After(20 * time.Second)
	var last device.State
	for {
		select {
		case st := <-states:
			if last = st; ok(st) {
				return st
			}
		case <-late:
			t.Fatalf("never %s; the last state was %+v", what, last)
		}
	}
}

// connected starts a scale that talks to an address.
func connected(t *testing.T, addr string) (*device.NetScale, <-chan device.State) {
	t.Helper()
	s := device.NewNetScale(addr, time.Now)
	ctx, cancel := context.WithCancel(context.Background())
	ended := make(chan struct{})
	go func() { defer close(ended); s.Run(ctx) }()
	t.Cleanup(func() { cancel(); <-ended })
	return s, s.Watch(ctx)
}

func TestWeighOnTheSimulatedScale(t *testing.T) {
	l := listen(t)
	ctx, off := context.WithCancel(context.Background())
	defer off()
	go device.ServeScale(ctx, l, device.NewSimulatedScale(7)) //nolint:errcheck // ends with the context
	s, states := connected(t, l.Addr().String())
	until(t, states, "live", func(st device.State) bool { return st.Link == device.Live && st.Simulated })
	require.NoError(t, s.Put(ctx, 350))
	until(t, states, "moving", func(st device.State) bool { return !st.Weight.Steady })
	got := until(t, states, "steady at the bowl", func(st device.State) bool { return st.Weight.Steady && st.Weight.Grams > 300 })
	assert.InDelta(t, 350, got.Weight.Grams, 1)
	require.NoError(t, s.Tare(ctx))
	until(t, states, "zero", func(st device.State) bool { return st.Weight.Steady && math.Abs(st.Weight.Grams) <= 1 })
	require.NoError(t, s.Put(ctx, 562))
	got = until(t, states, "the purée without its bowl", func(st device.State) bool { return st.Weight.Steady && st.Weight.Grams > 100 })
	assert.InDelta(t, 212, got.Weight.Grams, 1)
	require.NoError(t, s.Put(ctx, 9000))
	until(t, states, "overloaded", func(st device.State) bool { return st.Weight.Over })
}

// A scale that goes silent keeps its last reading and says so; one that talks nonsense says
// so; one that comes back is live again without anybody asking.
func TestAScaleThatFails(t *testing.T) {
	l := listen(t)
	lines := make(chan string)
	go func() {
		for {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			fmt.Fprintln(conn, "hello scale 1")
			go func() {
				defer conn.Close()
				for line := range lines {
					if line == "hang up" {
						return
					}
					fmt.Fprintln(conn, line)
				}
			}()
		}
	}()
	s, states := connected(t, l.Addr().String())
	lines <- "w 120.0 steady"
	until(t, states, "live", func(st device.State) bool { return st.Link == device.Live })
	assert.ErrorIs(t, s.Put(context.Background(), 5), device.ErrNotSimulated)
	st := until(t, states, "silent", func(st device.State) bool { return st.Link == device.Silent })
	assert.InDelta(t, 120, st.Weight.Grams, 1e-9, "the last reading stands")
	assert.Contains(t, st.Says, "type the figure in")
	for range 3 {
		lines <- "w lots steady"
	}
	until(t, states, "nonsense", func(st device.State) bool { return st.Link == device.Nonsense })
	lines <- "hang up"
	until(t, states, "connecting", func(st device.State) bool { return st.Link == device.Connecting })
	lines <- "w 80.5 moving"
	st = until(t, states, "back", func(st device.State) bool { return st.Link == device.Live })
	assert.InDelta(t, 80.5, st.Weight.Grams, 1e-9)
	close(lines)
}

// A device that sends as fast as the wire takes it is hung up on, and costs next to nothing.
func TestAScaleThatFloods(t *testing.T) {
	l := listen(t)
	var sent atomic.Int64
	go func() {
		for {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			fmt.Fprintln(conn, "upbeat-ladle-scale 1")
			block := bytes.Repeat([]byte("st 123.0 g\n"), 1000)
			for err == nil {
				_, err = conn.Write(block)
				sent.Add(1000)
			}
			conn.Close()
		}
	}()
	before := processorTime(t)
	began := time.Now()
	s, states := connected(t, l.Addr().String())
	until(t, states, "hung up on", func(st device.State) bool { return st.Link == device.Nonsense })
	for calls := 0; calls < 3; {
		st := <-states
		if st.Link == device.Nonsense {
			calls++
		}
	}
	t.Logf("%.0f %% of a core over %.1f s, %d lines sent", 100*(processorTime(t)-before).Seconds()/time.Since(began).Seconds(), time.Since(began).Seconds(), sent.Load())
	assert.Equal(t, device.ErrNonsense.Error(), s.State().Says)
}

func processorTime(t *testing.T) time.Duration {
	t.Helper()
	var u syscall.Rusage
	require.NoError(t, syscall.Getrusage(syscall.RUSAGE_SELF, &u))
	return time.Duration(u.Utime.Nano() + u.Stime.Nano())
}

func TestNothingAtTheAddress(t *testing.T) {
	l := listen(t)
	addr := l.Addr().String()
	require.NoError(t, l.Close())
	s, states := connected(t, addr)
	until(t, states, "not there", func(st device.State) bool { return st.Link == device.Connecting && st.Says != "" })
	assert.ErrorIs(t, s.Tare(context.Background()), device.ErrNoAnswer)
	_, err := device.NewNetRefractometer(addr).Read(context.Background())
	assert.ErrorIs(t, err, device.ErrNoAnswer)
}

// A warm sample reads low; corrected to 20 °C it is what lies on the glass.
func TestReadASample(t *testing.T) {
	l := listen(t)
	ctx, off := context.WithCancel(context.Background())
	defer off()
	go device.ServeRefractometer(ctx, l, device.NewSimulatedRefractometer(3)) //nolint:errcheck // ends with the context
	r := device.NewNetRefractometer(l.Addr().String())
	_, err := r.Read(ctx)
	assert.ErrorIs(t, err, device.ErrNoSample)
	require.NoError(t, r.Sample(ctx, device.Reading{Brix: 17.5, SampleC: 32}))
	got, err := r.Read(ctx)
	require.NoError(t, err)
	assert.Less(t, got.Brix, 17.0)
	corrected, err := prep.AtTwenty(got.Brix, got.SampleC)
	require.NoError(t, err)
	assert.InDelta(t, 17.5, corrected, 0.3)
}

func TestARefractometerThatTalksNonsense(t *testing.T) {
	for greeting, want := range map[string]error{"hello scale 1": device.ErrNonsense, "hello refractometer 1": device.ErrNonsense} {
		l := listen(t)
		go func() {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			defer conn.Close()
			fmt.Fprintln(conn, greeting)
			bufio.NewScanner(conn).Scan()
			fmt.Fprintln(conn, "brix very sweet")
			io.Copy(io.Discard, conn) //nolint:errcheck // until the other side goes
		}()
		_, err := device.NewNetRefractometer(l.Addr().String()).Read(context.Background())
		assert.ErrorIs(t, err, want, greeting)
	}
}

// A cook who plays on the simulated scale: pours about what was asked, leans on it, lifts the bowl and puts it back.
func TestACookAtTheSimulatedScale(t *testing.T) {
	for seed := range uint64(30) {
		s := device.NewSimulatedScale(seed)
		run := func(d time.Duration) (w device.Weight) {
			for range int(d / (50 * time.Millisecond)) {
				w = s.After(50 * time.Millisecond)
			}
			return w
		}
		s.Put(400)
		run(4 * time.Second)
		s.Tare()
		s.Play(device.PlayPour, 595)
		assert.False(t, run(time.Second).Steady, "it flows")
		w := run(25 * time.Second)
		assert.True(t, w.Steady)
		assert.InDelta(t, 596.5, w.Grams, 2.5, "a little late, never much")
		s.Play(device.PlayHand, 0)
		assert.Greater(t, run(500*time.Millisecond).Grams, w.Grams+50)
		assert.InDelta(t, w.Grams, run(6*time.Second).Grams, 1)
		s.Play(device.PlayLift, 0)
		assert.InDelta(t, -400, run(6*time.Second).Grams, 1, "the bowl is off")
		s.Play(device.PlayBack, 0)
		assert.InDelta(t, w.Grams, run(6*time.Second).Grams, 1)
	}
}

// A scale that somebody switched to ounces, and one that shows hundredths.
func TestOuncesAndHundredths(t *testing.T) {
	l := listen(t)
	ctx, off := context.WithCancel(context.Background())
	defer off()
	sim := device.NewSimulatedScale(3)
	sim.Shows(0.01, false)
	go device.ServeScale(ctx, l, sim) //nolint:errcheck // ends with the context
	s, states := connected(t, l.Addr().String())
	until(t, states, "live", func(st device.State) bool { return st.Link == device.Live })
	require.NoError(t, s.Play(ctx, device.PlayPour, 4.25))
	st := until(t, states, "steady", func(st device.State) bool { return st.Weight.Steady && st.Weight.Grams > 3 })
	assert.InDelta(t, 5, st.Weight.Grams, 1.3)
	sim.Shows(0.01, true)
	sim.Put(283.495)
	st = until(t, states, "ten ounces", func(st device.State) bool { return st.Weight.Steady && st.Weight.Grams > 200 })
	assert.InDelta(t, 283.5, st.Weight.Grams, 0.5)
}
