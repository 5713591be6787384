// Package device talks to the scale and the refractometer on the counter, over plain lines of
// text (docs/formats/devices.md), and ships simulated stand-ins that speak the same. A real
// bridge can take the place of a stand-in without a change here.
package device

import (
	"context"
	"errors"
	"time"
)

// Weight is one reading of a scale.
type Weight struct {
	Grams  float64
	Steady bool
	Over   bool // more on it than it can weigh
	At     time.Time
}

// Link is how a device answers.
type Link string

// The links.
const (
	Live       Link = "live"
	Connecting Link = "connecting"
	Silent     Link = "silent"   // connected, but no reading
	Nonsense   Link = "nonsense" // connected, but what comes is not a reading
)

// State is a device at one moment: the last reading stands, with its age, when the link is not
// live.
type State struct {
	Weight    Weight // of a scale; zero time before the first
	Link      Link
	Simulated bool
	Says      string // what the cook is told when the link is not live
}

// Scale weighs.
type Scale interface {
	// State is the scale now.
	State() State
	// Watch sends the state whenever it changes, until the context ends.
	Watch(ctx context.Context) <-chan State
	// Tare makes what is on it zero.
	Tare(ctx context.Context) error
	// Put lays a load [g] on a simulated scale; on a real one it is ErrNotSimulated.
	Put(ctx context.Context, grams float64) error
	// Play does something at a simulated scale; grams are those of a pour. On a real one it is ErrNotSimulated.
	Play(ctx context.Context, p Play, grams float64) error
}

// Reading is one reading of a refractometer: °Brix as shown, uncorrected, and the sample's
// temperature.
type Reading struct{ Brix, SampleC float64 }

// Refractometer reads a sample.
type Refractometer interface {
	// Read takes one reading.
	Read(ctx context.Context) (Reading, error)
	// Sample puts a sample on a simulated one; on a real one it is ErrNotSimulated.
	Sample(ctx context.Context, r Reading) error
}

// Errors that callers tell apart with errors.Is. Their texts are for the cook.
var (
	ErrNotSimulated = errors.New("this is a real device: put the thing itself on it")
	ErrNoAnswer     = errors.New("the device does not answer: check its plug, or type the figure in")
	ErrNonsense     = errors.New("the device answers, but not with a reading: switch it off and on, or type the figure in")
	ErrNoSample     = errors.New("there is no sample on the glass: put a drop on it and read again")
)

// Times of the talk with a device (modelling choices: shorter than a cook's patience).
const (
	answerWithin = 2 * time.Second
	silentAfter  = 3 * time.Second
	retryFirst   = 250 * time.Millisecond
	retryLast    = 5 * time.Second
	nonsenseFrom = 3 // lines in a row that are no reading

	mostASecond = 500 // lines; a scale sends ten to fifty, and more would only cost (modelling choice)
)
