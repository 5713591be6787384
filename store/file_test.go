package store_test

import (
	"database/sql"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/store"
)

// raw is a file opened past the store, as another program would.
func raw(t *testing.T, path string, statements ...string) *sql.DB {
	t.Helper()
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	t.Cleanup(func() { db.Close() })
	db.SetMaxOpenConns(1)
	for _, s := range statements {
		_, err := db.Exec(s)
		require.NoError(t, err, s)
	}
	return db
}

func filled(t *testing.T, path string, names ...string) {
	t.Helper()
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	for _, n := range names {
		_, err := s.Create(ctx, store.Variation, content(n, n), "")
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
}

func names(t *testing.T, path string) []string {
	t.Helper()
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	defer s.Close()
	docs, err := s.All(ctx, store.Variation)
	require.NoError(t, err)
	var out []string
	for _, d := range docs {
		out = append(out, d.Name)
	}
	return out
}

func TestAFileThatIsNoKitchenIsRefusedAsItIs(t *testing.T) {
	for name, c := range map[string]struct {
		make func(path string)
		want error
		says string
	}{
		"emptied": {func(p string) { require.NoError(t, os.WriteFile(p, nil, 0o600)) }, store.ErrEmptied, "is empty"},
		"copied without its log": {func(p string) {
			require.NoError(t, raw(t, p, "PRAGMA user_version = 1").Close())
			info, err := os.Stat(p)
			require.NoError(t, err)
			require.EqualValues(t, 4096, info.Size())
		}, store.ErrEmptied, "-wal"},
		"a text":          {func(p string) { require.NoError(t, os.WriteFile(p, []byte("flour 250\n"), 0o600)) }, store.ErrForeign, "--db"},
		"somebody else's": {func(p string) { require.NoError(t, raw(t, p, "CREATE TABLE documents (x)").Close()) }, store.ErrForeign, "another program"},
		"from next year": {func(p string) {
			filled(t, p, "one")
			require.NoError(t, raw(t, p, "INSERT INTO goose_db_version (version_id, is_applied) VALUES (999, 1)").Close())
		}, store.ErrNewer, "999"},
		"damaged": {func(p string) {
			filled(t, p, strings.Repeat("a long name", 3000))
			data, err := os.ReadFile(p)
			require.NoError(t, err)
			for i := 4096 * 2; i < len(data); i++ {
				data[i] ^= 0x5a
			}
			require.NoError(t, os.WriteFile(p, data, 0o600))
		}, store.ErrDamaged, "restore"},
	} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "k.db")
			c.make(path)
			before, err := os.ReadFile(path)
			require.NoError(t, err)
			_, err = store.Open(ctx, path, clock())
			require.ErrorIs(t, err, c.want)
			assert.ErrorContains(t, err, c.says)
			after, err := os.ReadFile(path)
			require.NoError(t, err)
			assert.Equal(t, before, after, "nothing was changed")
			assert.ErrorIs(t, store.Backup(ctx, path, path+".copy"), c.want, "nor is it taken for a backup")
			assert.NoFileExists(t, path+".copy")
		})
	}
}

func TestOnlyTheOwnerReadsTheFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "k.db")
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	defer s.Close()
	_, err = s.Create(ctx, store.Base, content("b", "1"), "")
	require.NoError(t, err)
	for _, end := range []string{"", "-wal", "-shm"} {
		info, err := os.Stat(path + end)
		require.NoError(t, err)
		assert.Equal(t, fs.FileMode(0o600), info.Mode().Perm(), "%s", end)
	}
	assert.NoFileExists(t, path+".new")
}

func TestABackupIsWholeWhileTheBenchIsOpen(t *testing.T) {
	dir := t.TempDir()
	path, copied := filepath.Join(dir, "k.db"), filepath.Join(dir, "copy.db")
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	_, err = s.Create(ctx, store.Variation, content("in the log only", "1"), "")
	require.NoError(t, err)
	require.NoError(t, store.Backup(ctx, path, copied))
	assert.ErrorContains(t, store.Backup(ctx, path, copied), "is there already")
	_, err = s.Create(ctx, store.Variation, content("later", "2"), "")
	require.NoError(t, err)

	_, err = store.Restore(ctx, copied, path, time.Now())
	require.ErrorContains(t, err, "close it", "a kitchen that is open is not pulled away")
	require.NoError(t, s.Close())

	replaced, err := store.Restore(ctx, copied, path, time.Date(2026, 11, 26, 6, 30, 0, 0, time.UTC))
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(dir, "k-until-2026-11-26-063000.db"), replaced)
	assert.Equal(t, []string{"in the log only"}, names(t, path))
	assert.Equal(t, []string{"later", "in the log only"}, names(t, replaced), "what was there is kept")
	left, err := filepath.Glob(filepath.Join(dir, "*.part*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

// A log that a killed program left belongs to the file that it was written for.
func TestARestoredKitchenReadsNoOldLog(t *testing.T) {
	dir := t.TempDir()
	path, good := filepath.Join(dir, "k.db"), filepath.Join(dir, "good.db")
	filled(t, good, "good")
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	_, err = s.Create(ctx, store.Variation, content("old", "1"), "")
	require.NoError(t, err)
	killed := map[string][]byte{}
	for _, end := range []string{"", "-wal"} {
		killed[end], err = os.ReadFile(path + end)
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
	for end, data := range killed {
		require.NoError(t, os.WriteFile(path+end, data, 0o600))
	}
	replaced, err := store.Restore(ctx, good, path, time.Now())
	require.NoError(t, err)
	assert.Equal(t, []string{"good"}, names(t, path))
	assert.Equal(t, []string{"old"}, names(t, replaced))
}

func TestADamagedKitchenIsReplacedByACopyOfADayBefore(t *testing.T) {
	dir := t.TempDir()
	path, good := filepath.Join(dir, "k.db"), filepath.Join(dir, "good.db")
	filled(t, good, "good")
	require.NoError(t, os.WriteFile(path, []byte("not what it was"), 0o600))
	_, err := store.Restore(ctx, good, path, time.Now())
	require.NoError(t, err)
	assert.Equal(t, []string{"good"}, names(t, path))
}

// A byte that flipped where the look at each start does not see it: no copy is made of such a file, and none is brought back.
func TestACopyIsLookedAtAsAWhole(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "k.db")
	filled(t, path, "one", "two", "three", "four", "five", "six", "seven", "eight", "nine")
	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	says := func(file, pragma string) (found string) {
		db := raw(t, file)
		defer db.Close()
		if db.QueryRow(pragma).Scan(&found) != nil {
			return "not read"
		}
		return found
	}
	unseen := 0
	for at := 4096; at < len(whole) && unseen < 5; at += 7 {
		flipped := slices.Clone(whole)
		flipped[at] ^= 0x10
		file := filepath.Join(dir, fmt.Sprint(at, ".db"))
		require.NoError(t, os.WriteFile(file, flipped, 0o600))
		if says(file, `PRAGMA quick_check`) != "ok" || says(file, `PRAGMA integrity_check`) == "ok" {
			continue
		}
		unseen++
		assert.ErrorIs(t, store.Backup(ctx, file, file+".copy"), store.ErrDamaged)
		assert.NoFileExists(t, file+".copy")
		_, err := store.Restore(ctx, file, filepath.Join(dir, "new.db"), clock()())
		assert.ErrorIs(t, err, store.ErrDamaged)
	}
	assert.Positive(t, unseen, "there are such bytes, or this shows nothing")
}

func TestACopyADayAndTwoWeeksOfThem(t *testing.T) {
	day := time.Date(2026, 11, 1, 7, 0, 0, 0, time.UTC)
	dir := t.TempDir()
	s, err := store.Open(ctx, filepath.Join(dir, "a [new] kitchen.db"), func() time.Time { return day })
	require.NoError(t, err)
	defer s.Close()
	for i := range 20 {
		_, err = s.Create(ctx, store.Variation, content(fmt.Sprint("day ", i), "1"), "")
		require.NoError(t, err)
		kept, err := s.KeepDay(ctx)
		require.NoError(t, err)
		assert.FileExists(t, kept)
		again, err := s.KeepDay(ctx)
		require.NoError(t, err)
		assert.Empty(t, again, "one a day")
		day = day.AddDate(0, 0, 1)
	}
	found, err := os.ReadDir(filepath.Join(dir, "a [new] kitchen-days"))
	require.NoError(t, err)
	require.Len(t, found, store.DaysKept)
	assert.Equal(t, "2026-11-07.db", found[0].Name())
	assert.Len(t, names(t, filepath.Join(dir, "a [new] kitchen-days", "2026-11-20.db")), 20)
}

func TestEverySchemaSoFarIsBroughtUpToDate(t *testing.T) {
	for step := int64(1); step <= store.Steps(); step++ {
		t.Run(fmt.Sprint("step ", step), func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "k.db")
			db, err := store.BuildUpTo(ctx, path, step)
			require.NoError(t, err)
			document := `INSERT INTO documents (id, kind, name, form, verdict, revision, updated_at, body) VALUES ('a', 'variation', 'Old carrot', 'pancake', 'v', 2, '2026-01-02T03:04:05.000000000Z', x'7b7d')`
			if step >= 6 { // cards are worked out since
				document = strings.NewReplacer("verdict, ", "", "'v', ", "").Replace(document)
			}
			for _, q := range []string{
				document,
				`INSERT INTO revisions (id, revision, saved_at, body) VALUES ('a', 1, '2026-01-01T03:04:05.000000000Z', x'31'), ('a', 2, '2026-01-02T03:04:05.000000000Z', x'7b7d')`,
				`INSERT INTO idempotency (key, kind, body_hash, id, created_at) VALUES ('k', 'variation', x'00', 'a', '2026-01-02T03:04:05.000000000Z')`,
			} {
				_, err := db.ExecContext(ctx, q)
				require.NoError(t, err)
			}
			require.NoError(t, db.Close())
			s, err := store.Open(ctx, path, clock())
			require.NoError(t, err)
			defer s.Close()
			d, err := s.Get(ctx, store.Variation, "a")
			require.NoError(t, err)
			assert.Equal(t, "Old carrot", d.Name)
			was, err := s.Revision(ctx, store.Variation, "a", 1)
			require.NoError(t, err)
			assert.Equal(t, "1", string(was.Body), "revisions come along")
			_, err = s.Name(ctx, store.Variation, "a", "as it was", 1)
			require.NoError(t, err)
			assert.NoError(t, s.Ping(ctx))
		})
	}
}

func TestEachFaultOfTheDiskHasASentenceOfItsOwn(t *testing.T) {
	path := filepath.Join(t.TempDir(), "k.db")
	filled(t, path, "one")
	save := `INSERT INTO documents (id, kind, name, form, revision, updated_at, body) VALUES (hex(randomblob(9)), 'base', 'n', '', 1, '', zeroblob(200000))`
	said := map[string]bool{}
	for want, before := range map[store.Fault]string{store.Full: `PRAGMA max_page_count = 1`, store.ReadOnly: `PRAGMA query_only = 1`} {
		db := raw(t, path, before)
		_, err := db.Exec(save)
		require.Error(t, err)
		assert.Equal(t, want, store.FaultOf(fmt.Errorf("saving: %w", err)))
		require.NoError(t, db.Close())
	}
	holder, waiter := raw(t, path, `BEGIN IMMEDIATE`), raw(t, path)
	_, err := waiter.Exec(save)
	assert.Equal(t, store.Locked, store.FaultOf(err))
	require.NoError(t, holder.Close())
	_, err = raw(t, filepath.Join(path, "under a file")).Exec(save)
	assert.Equal(t, store.Broken, store.FaultOf(err))
	for _, f := range []store.Fault{store.Full, store.Locked, store.ReadOnly, store.Broken, store.Damaged} {
		require.NotEmpty(t, f.Sentence())
		assert.False(t, said[f.Sentence()])
		said[f.Sentence()] = true
	}
	assert.Empty(t, store.FaultOf(store.ErrNotFound))
}

func TestAMissingTableIsNotHealthy(t *testing.T) {
	path := filepath.Join(t.TempDir(), "k.db")
	s, err := store.Open(ctx, path, clock())
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Ping(ctx))
	raw(t, path, `DROP TABLE versions`)
	assert.Error(t, s.Ping(ctx))
}
