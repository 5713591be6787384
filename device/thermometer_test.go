package device_test

import (
	"errors"
	"net"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/device"
)

// A plate heats up to its dial, cools where it is poured on, and recovers: 63 % of the way in its 40 s.
func TestASimulatedPlateCoolsAndRecovers(t *testing.T) {
	now := time.Date(2026, 11, 26, 7, 0, 0, 0, time.UTC)
	s := device.NewSimulatedThermometer(func() time.Time { return now }, "plate")
	assert.InDelta(t, 22, s.Read()["plate"], 1)
	s.Set("plate", 160)
	now = now.Add(12 * time.Minute)
	assert.InDelta(t, 160, s.Read()["plate"], 1)
	s.Pour("plate", 14)
	assert.InDelta(t, 146, s.Read()["plate"], 1)
	now = now.Add(40 * time.Second)
	assert.InDelta(t, 160-14/2.718, s.Read()["plate"], 1)
	now = now.Add(5 * time.Minute)
	assert.InDelta(t, 160, s.Read()["plate"], 1)
	s.Set(device.ProbeName, 74)
	assert.InDelta(t, 74, s.Read()[device.ProbeName], 1)
}

func TestAThermometerOverTheWire(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	go device.ServeThermometer(t.Context(), l, device.NewSimulatedThermometer(time.Now, "pan")) //nolint:errcheck // ends with the test
	d := device.NewNetThermometer(l.Addr().String())
	h, err := d.Read(t.Context())
	require.NoError(t, err)
	assert.True(t, d.Simulated())
	assert.InDelta(t, 22, h["pan"], 1)
	require.NoError(t, d.Set(t.Context(), device.ProbeName, 66))
	h, err = d.Read(t.Context())
	require.NoError(t, err)
	assert.InDelta(t, 66, h[device.ProbeName], 1)

	for says, want := range map[string]error{
		"hello thermometer 1\nheat pan hot": device.ErrNonsense, "hello thermometer 1\nheat pan": device.ErrNonsense, "hello scale 1": device.ErrNonsense, "": device.ErrNoAnswer,
	} {
		_, err := device.NewNetThermometer(talks(t, says)).Read(t.Context())
		assert.ErrorIs(t, err, want, says)
	}
	real := device.NewNetThermometer(talks(t, "hello thermometer 1\nheat pan 150.0"))
	assert.ErrorIs(t, real.Set(t.Context(), "pan", 160), device.ErrNotSimulated, "nobody turns a real dial from here")
}

// talks is a device that says so much to everybody who calls.
func talks(t *testing.T, says string) string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { l.Close() })
	go func() {
		for {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			if says != "" {
				_, _ = conn.Write([]byte(says + "\n"))
				_ = conn.SetReadDeadline(time.Now().Add(time.Second))
				_, _ = conn.Read(make([]byte, 100))
			}
			_ = conn.Close()
		}
	}()
	return l.Addr().String()
}

func TestLabelsGoIntoTheirFolder(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "labels")
	p := device.NewFolderPrinter(dir)
	for range 2 { // printed again it is the same label
		files, err := p.Print(t.Context(), "plum", []byte("png"), []byte("pdf"))
		require.NoError(t, err)
		assert.Equal(t, []string{filepath.Join(dir, "plum.png"), filepath.Join(dir, "plum.pdf")}, files)
	}
	blocked := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(blocked, nil, 0o600))
	_, err := device.NewFolderPrinter(filepath.Join(blocked, "labels")).Print(t.Context(), "plum", nil, nil)
	assert.True(t, errors.Is(err, device.ErrNoPrinter))
}
