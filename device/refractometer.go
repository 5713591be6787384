package device

import (
	"context"
	"fmt"
	"io"
	"net"
	"strings"
)

// NetRefractometer is a refractometer reached over TCP, one connection a reading.
type NetRefractometer struct{ addr string }

var _ Refractometer = NetRefractometer{}

// NewNetRefractometer returns the refractometer at an address.
func NewNetRefractometer(addr string) NetRefractometer { return NetRefractometer{addr} }

// ask sends one command and returns the line that answers it.
func (r NetRefractometer) ask(ctx context.Context, command string, onlySimulated bool) (string, error) {
	line, _, err := askOnce(ctx, r.addr, greetRefractometer, command, onlySimulated)
	return line, err
}

// askOnce connects to a device, sends one command and returns the line that answers it, and whether it is a stand-in.
func askOnce(ctx context.Context, addr, greets, command string, onlySimulated bool) (line string, simulated bool, err error) {
	ctx, cancel := context.WithTimeout(ctx, 2*answerWithin)
	defer cancel()
	var d net.Dialer
	conn, err := d.DialContext(ctx, "tcp", addr)
	if err != nil {
		return "", false, ErrNoAnswer
	}
	defer conn.Close()
	sc := lines(conn)
	greeting, err := next(conn, sc, answerWithin)
	simulated = strings.HasSuffix(greeting, " "+simulatedWord)
	switch {
	case err != nil:
		return "", false, ErrNoAnswer
	case !strings.HasPrefix(greeting, greets):
		return "", false, ErrNonsense
	case onlySimulated && !simulated:
		return "", false, ErrNotSimulated
	}
	if _, err := io.WriteString(conn, command+"\n"); err != nil {
		return "", simulated, ErrNoAnswer
	}
	if line, err = next(conn, sc, answerWithin); err != nil {
		return "", simulated, ErrNoAnswer
	}
	return line, simulated, nil
}

// Read implements Refractometer.
func (r NetRefractometer) Read(ctx context.Context) (Reading, error) {
	line, err := r.ask(ctx, "read", false)
	if err != nil {
		return Reading{}, err
	}
	if line == "error no sample" {
		return Reading{}, ErrNoSample
	}
	v, ok := parseReading(line)
	if !ok {
		return Reading{}, ErrNonsense
	}
	return v, nil
}

// Sample implements Refractometer.
func (r NetRefractometer) Sample(ctx context.Context, v Reading) error {
	line, err := r.ask(ctx, fmt.Sprintf("sample %.2f %.1f", v.Brix, v.SampleC), true)
	if err == nil && !strings.HasPrefix(line, "ok ") {
		err = ErrNonsense
	}
	return err
}
