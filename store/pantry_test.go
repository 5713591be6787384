package store_test

import (
	"context"
	"database/sql"
	"io/fs"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/store"
)

// A database from before the pantry keeps its documents, their revisions and named versions,
// and their foreign keys still hold.
func TestAnOlderDatabaseIsBroughtUpToDate(t *testing.T) {
	ctx := context.Background()
	path := filepath.Join(t.TempDir(), "old.db")
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	var dir fs.FS = os.DirFS("migrations")
	p, err := goose.NewProvider(goose.DialectSQLite3, db, dir)
	require.NoError(t, err)
	_, err = p.UpTo(ctx, 3)
	require.NoError(t, err)
	for _, q := range []string{
		`INSERT INTO documents (id, kind, name, form, verdict, revision, updated_at, body) VALUES ('x', 'variation', 'Old', 'pancake', 'v', 2, '2026-01-01T00:00:00.000000000Z', x'7b7d')`,
		`INSERT INTO revisions VALUES ('x', 1, '2026-01-01T00:00:00.000000000Z', x'7b7d'), ('x', 2, '2026-01-01T00:00:00.000000000Z', x'7b7d')`,
		`INSERT INTO versions VALUES ('x', 1, 'First', '2026-01-01T00:00:00.000000000Z')`,
	} {
		_, err := db.ExecContext(ctx, q)
		require.NoError(t, err)
	}
	require.NoError(t, db.Close())

	st, err := store.Open(ctx, path, time.Now)
	require.NoError(t, err)
	defer st.Close()
	d, err := st.Get(ctx, store.Variation, "x")
	require.NoError(t, err)
	assert.EqualValues(t, 2, d.Revision)
	named, err := st.Versions(ctx, store.Variation, "x")
	require.NoError(t, err)
	assert.Len(t, named, 1)
	d, err = st.Put(ctx, store.Variation, "x", 2, store.Content{Name: "New", Body: []byte("{1}")})
	require.NoError(t, err)
	assert.EqualValues(t, 3, d.Revision)
	_, err = st.Create(ctx, store.Pantry, store.Content{Name: "Tub", Body: []byte("{}")}, "")
	assert.NoError(t, err, "a kind that it did not know")
}

func TestABatchIsSavedWholeOrNotAtAll(t *testing.T) {
	ctx := context.Background()
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "b.db"), time.Now)
	require.NoError(t, err)
	defer st.Close()
	before, err := st.Stamp(ctx, store.Pantry)
	require.NoError(t, err)
	content := func(name string) store.Content { return store.Content{Name: name, Body: []byte(name)} }
	require.Error(t, saveAll(st, []store.Write{{Content: content("a")}, {ID: "none", Content: content("b")}}))
	all, err := st.All(ctx, store.Pantry)
	require.NoError(t, err)
	assert.Empty(t, all)
	require.NoError(t, saveAll(st, []store.Write{{Content: content("a")}, {Content: content("b")}}))
	after, err := st.Stamp(ctx, store.Pantry)
	require.NoError(t, err)
	assert.NotEqual(t, before, after)
	all, err = st.All(ctx, store.Pantry)
	require.NoError(t, err)
	require.Len(t, all, 2)
	require.NoError(t, saveAll(st, []store.Write{{ID: all[0].ID, Content: content("c")}}))
	d, err := st.Get(ctx, store.Pantry, all[0].ID)
	require.NoError(t, err)
	assert.EqualValues(t, 2, d.Revision)
}

func saveAll(st *store.Store, batch []store.Write) error {
	return st.Together(ctx, func(tx *store.Tx) error { return tx.SaveAll(ctx, store.Pantry, batch) })
}
