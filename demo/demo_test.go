package demo_test

import (
	"context"
	"errors"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/demo"
	"upbeatladle/document"
	"upbeatladle/store"
)

// stopping ends after so many looks, as a program that is killed half-way.
type stopping struct {
	context.Context
	looks int
}

func (s *stopping) Err() error {
	if s.looks--; s.looks < 0 {
		return context.Canceled
	}
	return s.Context.Err()
}

func counts(t *testing.T, st *store.Store) [3]int {
	t.Helper()
	var out [3]int
	for i, kind := range []store.Kind{store.Pantry, store.Base, store.Variation} {
		docs, err := st.All(t.Context(), kind)
		require.NoError(t, err)
		out[i] = len(docs)
	}
	return out
}

func open(t *testing.T) *store.Store {
	t.Helper()
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "demo.db"), func() time.Time { return day })
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	return st
}

// A start that is killed half-way leaves nothing, and the next one goes on.
func TestADemoIsWrittenAsAWhole(t *testing.T) {
	whole := open(t)
	require.NoError(t, demo.Write(t.Context(), whole, food.Reference(), day))
	st, stopped := open(t), 0
	for looks := 0; ; looks += 7 {
		err := demo.Write(&stopping{t.Context(), looks}, st, food.Reference(), day)
		if err == nil {
			break
		}
		require.True(t, errors.Is(err, context.Canceled), "%v", err)
		assert.Equal(t, [3]int{}, counts(t, st))
		stopped++
	}
	assert.Greater(t, stopped, 3)
	assert.Equal(t, counts(t, whole), counts(t, st))
	require.NoError(t, demo.Write(t.Context(), st, food.Reference(), day))
	assert.Equal(t, counts(t, whole), counts(t, st), "a second start adds nothing")
}

func TestAKitchenThatWasSavedFirstStays(t *testing.T) {
	st := open(t)
	mine := document.DefaultOwnKitchen()
	mine.Name = "Mine"
	body, err := mine.Encode()
	require.NoError(t, err)
	_, err = st.PutKitchen(t.Context(), body, 0)
	require.NoError(t, err)
	require.NoError(t, demo.Write(t.Context(), st, food.Reference(), day))
	kept, _, err := st.Kitchen(t.Context())
	require.NoError(t, err)
	assert.Equal(t, string(body), string(kept))
	assert.NotZero(t, counts(t, st)[2])
}
