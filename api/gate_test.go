package api

import (
	"context"
	"testing"
	"testing/synctest"

	"github.com/stretchr/testify/assert"
)

// So many at once, a short queue, and then a refusal that says so.
func TestTheGateLetsAFewThroughAndAFewWait(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		g := newGate(1)
		ctx, cancel := context.WithCancel(t.Context())
		assert.NoError(t, g.enter(ctx))
		inside := make(chan error, queueLength)
		for range queueLength {
			go func() { inside <- g.enter(ctx) }()
		}
		synctest.Wait()
		assert.ErrorIs(t, g.enter(ctx), errBusy, "the queue is full")
		g.leave()
		assert.NoError(t, <-inside, "the next in the queue")
		cancel()
		for range queueLength - 1 {
			assert.ErrorIs(t, <-inside, context.Canceled, "who leaves does not wait on")
		}
		g.leave()
		assert.NoError(t, g.enter(context.Background()))
		assert.ErrorIs(t, g.enter(context.Background()), errBusy, "nobody waits for ever")
	})
}
