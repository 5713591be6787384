package store_test

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/store"
)

var ctx = context.Background()

// clock ticks a second at every look.
func clock() func() time.Time {
	var mu sync.Mutex
	t := time.Date(2026, 11, 25, 7, 0, 0, 0, time.UTC)
	return func() time.Time {
		mu.Lock()
		defer mu.Unlock()
		t = t.Add(time.Second)
		return t
	}
}

func open(t *testing.T) (*store.Store, string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "a folder with ? and #.db")
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s, path
}

func content(name, body string) store.Content {
	return store.Content{Name: name, Form: "pancake", Body: []byte(body)}
}

func TestSaveReadChange(t *testing.T) {
	s, path := open(t)
	d, err := s.Create(ctx, store.Variation, content("one", "1"), "")
	require.NoError(t, err)
	assert.EqualValues(t, 1, d.Revision)
	d2, err := s.Put(ctx, store.Variation, d.ID, 1, content("two", "2"))
	require.NoError(t, err)
	assert.EqualValues(t, 2, d2.Revision)
	assert.True(t, d2.UpdatedAt.After(d.UpdatedAt))
	same, err := s.Put(ctx, store.Variation, d.ID, 2, content("two", "2"))
	require.NoError(t, err)
	assert.EqualValues(t, 2, same.Revision, "saving what is there makes no revision")
	_, err = s.Get(ctx, store.Base, d.ID)
	assert.ErrorIs(t, err, store.ErrNotFound, "a variation is not a base")

	require.NoError(t, s.Close())
	again, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	defer again.Close()
	got, err := again.Get(ctx, store.Variation, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "2", string(got.Body), "it is all there after the program was closed")
}

func TestAStaleSaveChangesNothing(t *testing.T) {
	s, _ := open(t)
	d, err := s.Create(ctx, store.Variation, content("one", "1"), "")
	require.NoError(t, err)
	_, err = s.Put(ctx, store.Variation, d.ID, 1, content("mine", "2"))
	require.NoError(t, err)
	_, err = s.Put(ctx, store.Variation, d.ID, 1, content("theirs", "3"))
	var conflict *store.ConflictError
	require.ErrorAs(t, err, &conflict)
	assert.Equal(t, "mine", conflict.Current.Name)
	got, err := s.Get(ctx, store.Variation, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "2", string(got.Body))
}

func bringBack(s *store.Store, kind store.Kind, id string) (d store.Document, err error) {
	err = s.Together(ctx, func(tx *store.Tx) error {
		d, err = tx.Restore(ctx, kind, id)
		return err
	})
	return d, err
}

func TestDeleteAndRestore(t *testing.T) {
	s, _ := open(t)
	d, err := s.Create(ctx, store.Base, content("one", "1"), "")
	require.NoError(t, err)
	require.NoError(t, s.Delete(ctx, store.Base, d.ID))
	_, err = s.Get(ctx, store.Base, d.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.Delete(ctx, store.Base, d.ID), store.ErrNotFound)
	_, err = s.Put(ctx, store.Base, d.ID, 1, content("x", "x"))
	assert.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, s.Together(ctx, func(tx *store.Tx) error {
		empty, err := tx.Empty(ctx)
		assert.False(t, empty, "what is put aside still counts, so the demo is not written over it")
		return err
	}))
	back, err := bringBack(s, store.Base, d.ID)
	require.NoError(t, err)
	assert.Equal(t, d.Body, back.Body)
	_, err = bringBack(s, store.Base, "nobody")
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestARepeatedPostSavesOnce(t *testing.T) {
	s, _ := open(t)
	a, err := s.Create(ctx, store.Variation, content("one", "1"), "key")
	require.NoError(t, err)
	b, err := s.Create(ctx, store.Variation, content("one", "1"), "key")
	require.NoError(t, err)
	assert.Equal(t, a.ID, b.ID)
	_, err = s.Create(ctx, store.Variation, content("two", "2"), "key")
	assert.ErrorIs(t, err, store.ErrKeyReused)
	page, err := s.List(ctx, store.Variation, "", 10)
	require.NoError(t, err)
	assert.Len(t, page.Items, 1)
}

func TestPagesCoverEverythingOnce(t *testing.T) {
	s, _ := open(t)
	for i := range 7 {
		_, err := s.Create(ctx, store.Variation, content(fmt.Sprint(i), fmt.Sprint(i)), "")
		require.NoError(t, err)
	}
	var names []string
	after := ""
	for {
		page, err := s.List(ctx, store.Variation, after, 3)
		require.NoError(t, err)
		for _, d := range page.Items {
			names = append(names, d.Name)
		}
		if after = page.Next; after == "" {
			break
		}
	}
	assert.Equal(t, []string{"6", "5", "4", "3", "2", "1", "0"}, names)
}

// Two tablets save at the same moment: one of each pair wins, the other is told.
func TestManyTabletsAtOnce(t *testing.T) {
	s, _ := open(t)
	d, err := s.Create(ctx, store.Variation, content("start", "0"), "")
	require.NoError(t, err)
	const tablets = 16
	var wg sync.WaitGroup
	results := make([]error, tablets)
	for i := range tablets {
		wg.Go(func() {
			_, results[i] = s.Put(ctx, store.Variation, d.ID, 1, content("t", fmt.Sprint("tablet ", i)))
		})
	}
	wg.Wait()
	won := 0
	for _, err := range results {
		var conflict *store.ConflictError
		if err == nil {
			won++
		} else {
			assert.True(t, errors.As(err, &conflict), "%v", err)
		}
	}
	assert.Equal(t, 1, won)
}

// A database that an archive from elsewhere gave a revision beyond all counting is mended when
// it is opened: order and names stay, and saving goes on.
func TestRevisionsBeyondCountingAreMendedAtStart(t *testing.T) {
	path := filepath.Join(t.TempDir(), "revisions.db")
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	d, err := s.Create(ctx, store.Pantry, content("tub", "1"), "")
	require.NoError(t, err)
	_, err = s.Put(ctx, store.Pantry, d.ID, 1, content("tub", "2"))
	require.NoError(t, err)
	_, err = s.Name(ctx, store.Pantry, d.ID, "the good one", 2)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	for _, q := range []string{
		`UPDATE documents SET revision = 9223372036854775807`, `UPDATE revisions SET revision = 9223372036854775807 WHERE revision = 2`,
		`UPDATE versions SET revision = 9223372036854775807`,
	} {
		_, err := db.Exec(q)
		require.NoError(t, err)
	}
	require.NoError(t, db.Close())

	s, err = store.Open(ctx, path, clock())
	require.NoError(t, err)
	defer s.Close()
	got, err := s.Get(ctx, store.Pantry, d.ID)
	require.NoError(t, err)
	assert.EqualValues(t, 2, got.Revision)
	versions, err := s.Versions(ctx, store.Pantry, d.ID)
	require.NoError(t, err)
	require.Len(t, versions, 1)
	assert.EqualValues(t, 2, versions[0].Revision)
	_, err = s.Put(ctx, store.Pantry, d.ID, 2, content("tub", "3"))
	require.NoError(t, err)
	_, err = s.Stamp(ctx, store.Pantry)
	assert.NoError(t, err)
}

// A drag gives up most of what it asks; nobody else's question may break off with it.
func TestWhoGivesUpBreaksOffNobodyElse(t *testing.T) {
	st, _ := open(t)
	var all sync.WaitGroup
	done := make(chan struct{})
	for i := range 4 {
		all.Go(func() {
			for patience := time.Duration(i); ; patience += 7 {
				select {
				case <-done:
					return
				default:
				}
				ctx, cancel := context.WithTimeout(t.Context(), patience%97*time.Microsecond)
				_, _ = st.Commits(ctx)
				cancel()
			}
		})
	}
	for range 5000 {
		if _, err := st.Commits(t.Context()); !assert.NoError(t, err) {
			break
		}
	}
	close(done)
	all.Wait()
}
