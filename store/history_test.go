package store_test

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/store"
)

// Sixty days of five saves a day: a week in full, a day's last for a month, then a week's last.
func TestHistoriesAreThinned(t *testing.T) {
	day := time.Date(2026, 9, 28, 6, 0, 0, 0, time.UTC) // a Monday
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), "k.db"), func() time.Time { return day })
	require.NoError(t, err)
	defer s.Close()
	base, err := s.Create(ctx, store.Base, content("base", "0"), "")
	require.NoError(t, err)
	_, err = s.Create(ctx, store.Variation, content("on it", `{"base":{"base_ref":{"id":"`+base.ID+`","revision":4}}}`), "")
	require.NoError(t, err)
	begun := day
	saved := map[int64]time.Time{1: day}
	for i := int64(1); i < 300; i++ {
		if day = day.Add(2 * time.Hour); i%5 == 0 {
			day = begun.AddDate(0, 0, int(i/5))
		}
		d, err := s.Put(ctx, store.Base, base.ID, i, content("base", fmt.Sprint(i)))
		require.NoError(t, err)
		saved[d.Revision] = day
	}
	_, err = s.Name(ctx, store.Base, base.ID, "the good one", 7)
	require.NoError(t, err)
	done, err := s.Tidy(ctx)
	require.NoError(t, err)
	last := map[string]int64{}
	for r, at := range saved {
		span := at.Format("2006-01-02")
		switch age := day.Sub(at); {
		case age > 30*24*time.Hour:
			year, week := at.ISOWeek()
			span = fmt.Sprint(year, " week ", week)
		case age <= 7*24*time.Hour:
			span = fmt.Sprint(r)
		}
		last[span] = max(last[span], r)
	}
	want := map[int64]bool{4: true, 7: true, 300: true}
	for _, r := range last {
		want[r] = true
	}
	for r := range saved {
		_, err := s.Revision(ctx, store.Base, base.ID, r)
		if want[r] {
			assert.NoError(t, err, "revision %d of %s stays", r, saved[r])
		} else {
			assert.ErrorIs(t, err, store.ErrNotFound, "revision %d of %s", r, saved[r])
		}
	}
	assert.EqualValues(t, len(saved)-len(want), done.States)
	again, err := s.Tidy(ctx)
	require.NoError(t, err)
	assert.Zero(t, again.States)
	versions, err := s.Versions(ctx, store.Base, base.ID)
	require.NoError(t, err)
	assert.Len(t, versions, 1)
}

func TestTheBin(t *testing.T) {
	day := time.Date(2026, 11, 1, 6, 0, 0, 0, time.UTC)
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), "k.db"), func() time.Time { return day })
	require.NoError(t, err)
	defer s.Close()
	var ids []string
	for _, kind := range []store.Kind{store.Base, store.Variation, store.Pantry} {
		d, err := s.Create(ctx, kind, content(string(kind), "1"), "")
		require.NoError(t, err)
		require.NoError(t, s.Delete(ctx, kind, d.ID))
		ids = append(ids, d.ID)
		day = day.AddDate(0, 0, 1)
	}
	bin, err := s.Bin(ctx)
	require.NoError(t, err)
	require.Len(t, bin, 3)
	assert.Equal(t, store.Pantry, bin[0].Kind)
	assert.Equal(t, bin[0].At.AddDate(0, 0, 30), bin[0].Until)
	_, err = bringBack(s, store.Variation, ids[1])
	require.NoError(t, err)
	day = day.AddDate(0, 0, 28)
	done, err := s.Tidy(ctx)
	require.NoError(t, err)
	assert.EqualValues(t, 1, done.Purged, "a month and no day less")
	_, err = bringBack(s, store.Base, ids[0])
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.Get(ctx, store.Variation, ids[1])
	assert.NoError(t, err)
	bin, err = s.Bin(ctx)
	require.NoError(t, err)
	assert.Len(t, bin, 1)
}

// What is put aside can be looked at, and taken away for good with its past; what is there cannot.
func TestWhatIsPutAsideIsLookedAtOrPurged(t *testing.T) {
	s, _ := open(t)
	d, err := s.Create(ctx, store.Variation, content("Plum", "1"), "")
	require.NoError(t, err)
	d, err = s.Put(ctx, store.Variation, d.ID, d.Revision, content("Plum", "2"))
	require.NoError(t, err)
	_, err = s.Name(ctx, store.Variation, d.ID, "the first", 1)
	require.NoError(t, err)
	states, err := s.States(ctx, store.Variation, d.ID)
	require.NoError(t, err)
	require.Len(t, states, 2)
	assert.Equal(t, int64(2), states[0].Revision)
	assert.Equal(t, "the first", states[1].Name)
	assert.ErrorIs(t, s.Purge(ctx, store.Variation, d.ID), store.ErrNotFound)
	_, err = s.LookAside(ctx, store.Variation, d.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, s.Delete(ctx, store.Variation, d.ID))
	_, err = s.States(ctx, store.Variation, d.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	aside, err := s.LookAside(ctx, store.Variation, d.ID)
	require.NoError(t, err)
	assert.Equal(t, "2", string(aside.Body))
	assert.ErrorIs(t, s.Purge(ctx, store.Base, d.ID), store.ErrNotFound, "another kind is another thing")
	require.NoError(t, s.Purge(ctx, store.Variation, d.ID))
	_, err = s.LookAside(ctx, store.Variation, d.ID)
	assert.ErrorIs(t, err, store.ErrNotFound)
	err = s.Together(ctx, func(tx *store.Tx) error {
		_, err := tx.Restore(ctx, store.Variation, d.ID)
		return err
	})
	assert.ErrorIs(t, err, store.ErrNotFound)
}

// A save whose answer got lost is sent again: it is the same save, whatever revision it was made from.
func TestTheSameSaveTwiceIsOne(t *testing.T) {
	s, _ := open(t)
	d, err := s.Create(ctx, store.Base, content("Plain", "1"), "")
	require.NoError(t, err)
	first, err := s.Put(ctx, store.Base, d.ID, 1, content("Plain", "2"))
	require.NoError(t, err)
	again, err := s.Put(ctx, store.Base, d.ID, 1, content("Plain", "2"))
	require.NoError(t, err)
	assert.Equal(t, first, again)
	_, err = s.Put(ctx, store.Base, d.ID, 1, content("Plain", "3"))
	var stale *store.ConflictError
	assert.ErrorAs(t, err, &stale)
}

func TestANameIsTakenFromAState(t *testing.T) {
	s, _ := open(t)
	d, err := s.Create(ctx, store.Variation, content("one", "1"), "")
	require.NoError(t, err)
	_, err = s.Name(ctx, store.Variation, d.ID, "frist", 1)
	require.NoError(t, err)
	_, err = s.Name(ctx, store.Variation, d.ID, "first", 1)
	require.NoError(t, err)
	v, err := s.Versions(ctx, store.Variation, d.ID)
	require.NoError(t, err)
	require.Len(t, v, 1)
	assert.Equal(t, "first", v[0].Name, "named again")
	assert.ErrorIs(t, s.Unname(ctx, store.Variation, d.ID, 9), store.ErrNotFound)
	require.NoError(t, s.Unname(ctx, store.Variation, d.ID, 1))
	v, err = s.Versions(ctx, store.Variation, d.ID)
	require.NoError(t, err)
	assert.Empty(t, v)
	_, err = s.Revision(ctx, store.Variation, d.ID, 1)
	assert.NoError(t, err, "the state itself stays")
}

// The size of a long history is printed; that it is given back is asserted.
func TestAFileIsPackedWhenItPays(t *testing.T) {
	day := time.Date(2026, 1, 1, 6, 0, 0, 0, time.UTC)
	path := filepath.Join(t.TempDir(), "k.db")
	s, err := store.Open(ctx, path, func() time.Time { return day })
	require.NoError(t, err)
	defer s.Close()
	d, err := s.Create(ctx, store.Variation, content("one", "1"), "")
	require.NoError(t, err)
	db := raw(t, path)
	filler := strings.Repeat("a body as long as a variation is ", 40)
	_, err = db.Exec(`WITH RECURSIVE n(i) AS (SELECT 2 UNION ALL SELECT i + 1 FROM n WHERE i < 20001)
		INSERT INTO revisions (id, revision, saved_at, body) SELECT ?, i, '2026-01-01T06:00:00.000000000Z', CAST(? || i AS BLOB) FROM n`, d.ID, filler)
	require.NoError(t, err)
	_, err = db.Exec(`UPDATE documents SET revision = 20001`)
	require.NoError(t, err)
	_, err = db.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
	require.NoError(t, err)
	size := func() int64 {
		info, err := os.Stat(path)
		require.NoError(t, err)
		return info.Size()
	}
	full := size()
	day = day.AddDate(0, 0, 10)
	done, err := s.Tidy(ctx)
	require.NoError(t, err)
	assert.True(t, done.Packed)
	t.Logf("20,000 saves of 1.3 kB: %.0f MB, thinned and packed %.2f MB", float64(full)/1e6, float64(size())/1e6)
	assert.Less(t, size(), full/20)
	var ok string
	require.NoError(t, db.QueryRow(`PRAGMA integrity_check`).Scan(&ok))
	assert.Equal(t, "ok", ok)
}

func TestTheKitchenHasAPast(t *testing.T) {
	s, _ := open(t)
	past, err := s.EarlierKitchens(ctx)
	require.NoError(t, err)
	assert.Empty(t, past)
	for i := range int64(60) {
		revision, err := s.PutKitchen(ctx, fmt.Append(nil, "kitchen ", i+1), i)
		require.NoError(t, err)
		assert.Equal(t, i+1, revision)
	}
	same, err := s.PutKitchen(ctx, []byte("kitchen 60"), 60)
	require.NoError(t, err)
	assert.EqualValues(t, 60, same)
	_, err = s.PutKitchen(ctx, []byte("late"), 7)
	var stale *store.KitchenConflictError
	require.ErrorAs(t, err, &stale)
	past, err = s.EarlierKitchens(ctx)
	require.NoError(t, err)
	require.Len(t, past, 49, "fifty with the one that it is")
	assert.Equal(t, "kitchen 59", string(past[0].Body))
	assert.Equal(t, "kitchen 11", string(past[48].Body))
}
