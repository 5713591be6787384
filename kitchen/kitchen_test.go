package kitchen_test

import (
	"context"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/demo/copied"
	"upbeatladle/document"
	"upbeatladle/kitchen"
	"upbeatladle/store"
)

// scene is a kitchen on a day that a test turns.
type scene struct {
	*kitchen.Kitchen
	st  *store.Store
	day *time.Time
}

func open(t testing.TB, withDemo bool) scene {
	t.Helper()
	day := time.Date(2026, 11, 26, 7, 0, 0, 0, time.UTC)
	now := func() time.Time { return day }
	begin := store.Open
	if withDemo {
		begin = copied.Open
	}
	st, err := begin(t.Context(), filepath.Join(t.TempDir(), "k.db"), now)
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	return scene{kitchen.New(st, food.Reference(), slog.New(slog.DiscardHandler), now), st, &day}
}

// Whatever moved, a card says what the worksheet of the same document says in the same minute.
func TestACardIsNeverOlderThanTheKitchen(t *testing.T) {
	s, rnd := open(t, true), rand.New(rand.NewPCG(8, 1))
	ctx := t.Context()
	var tubs, gone []string
	moved := 0
	var before []string
	for step := range 60 {
		switch rnd.IntN(5) {
		case 0:
			own, revision, err := s.Own(ctx)
			require.NoError(t, err)
			egg := 40 + float64(rnd.IntN(60))
			own.EggG = &egg
			body, err := own.Encode()
			require.NoError(t, err)
			_, _, err = s.PutOwn(ctx, body, revision)
			require.NoError(t, err)
		case 1:
			water := 80 + rnd.IntN(9)
			d, err := s.CreateItem(ctx, fmt.Appendf(nil, `{"format":"upbeat-ladle/pantry-item","version":1,"id":"tub","name":"Tub","stands_for":"beetroot_cooked","made_on":%q,`+
				`"water_g":%d,"carbohydrate_g":%d,"sugars_g":8,"fibre_g":0,"starch_g":0,"protein_g":1,"fat_g":0,"ash_g":1}`, s.day.Format("2006-01-02"), water, 98-water), "")
			require.NoError(t, err)
			tubs = append(tubs, d.ID)
		case 2:
			if len(tubs) > 0 {
				require.NoError(t, s.PutAside(ctx, store.Pantry, tubs[0]))
				tubs, gone = tubs[1:], append(gone, tubs[0])
			}
		case 3:
			if len(gone) > 0 {
				_, err := s.BringBack(ctx, store.Pantry, gone[0])
				require.NoError(t, err)
				gone = gone[1:]
			}
		case 4:
			*s.day = s.day.AddDate(0, 0, 1)
		}
		in, err := s.Setting(ctx)
		require.NoError(t, err)
		items, _, err := s.List(ctx, store.Variation, "", 100)
		require.NoError(t, err)
		require.Len(t, items, 7)
		var now []string
		for _, i := range items {
			sum, err := document.SummariseVariation(ctx, i.Body, in)
			require.NoError(t, err)
			assert.Equal(t, sum.Verdict, i.Verdict, "step %d, %s", step, i.Name)
			assert.Equal(t, string(sum.Picture), string(i.Picture))
			assert.EqualValues(t, 1, i.Revision, "nobody changed the variation")
			now = append(now, i.Verdict+string(i.Picture))
		}
		if !slices.Equal(before, now) {
			moved++
		}
		before = now
	}
	assert.Greater(t, moved, 10, "the steps move cards, or this shows nothing")
}

// archive is a whole kitchen in the memory of a test.
type archive struct {
	Format     string                   `json:"format"`
	Version    int                      `json:"version"`
	Kitchen    jsontext.Value           `json:"kitchen,omitzero"`
	History    *document.KitchenHistory `json:"kitchen_history,omitzero"`
	Pantry     []document.Kept          `json:"pantry,omitzero"`
	Texts      []document.Kept          `json:"texts,omitzero"`
	Bases      []document.Kept          `json:"bases,omitzero"`
	Variations []document.Kept          `json:"variations,omitzero"`
	Packs      []document.Kept          `json:"packs,omitzero"`
	Sauces     []document.Kept          `json:"sauces,omitzero"`
}

func archiveOf(t *testing.T, s scene) (a archive) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(encoded(t, s)), &a, json.RejectUnknownMembers(true)))
	return a
}

func (a archive) file(t *testing.T) *document.ArchiveFile {
	t.Helper()
	text, err := json.Marshal(a)
	require.NoError(t, err)
	return opened(t, string(text))
}

func opened(t *testing.T, text string) *document.ArchiveFile {
	t.Helper()
	f, err := document.OpenArchive(strings.NewReader(text))
	require.NoError(t, err)
	return f
}

func encoded(t *testing.T, s scene) string {
	t.Helper()
	var text strings.Builder
	require.NoError(t, s.Archive(t.Context(), &text))
	return text.String()
}

func TestAnImportIsKeptAsAWhole(t *testing.T) {
	full, empty := open(t, true), open(t, false)
	a := archiveOf(t, full)
	blank := encoded(t, empty)
	for stop := 1; stop <= 3; stop++ {
		ctx, cancel := context.WithCancel(t.Context())
		_, err := empty.Import(ctx, a.file(t), false, func(int) { cancel() })
		cancel()
		require.ErrorIs(t, err, context.Canceled)
		assert.Equal(t, blank, encoded(t, empty), "nothing of it was kept")
	}
	fates, err := empty.Import(t.Context(), a.file(t), false, func(int) {})
	require.NoError(t, err)
	for _, f := range fates {
		assert.NotEqual(t, "refused", f.Action, "%s: %s", f.Name, f.Message)
	}
	assert.Equal(t, encoded(t, full), encoded(t, empty), "out, in and out again gives the same bytes")
	again, err := empty.Import(t.Context(), a.file(t), false, func(int) {})
	require.NoError(t, err)
	for _, f := range again {
		assert.Equal(t, "same", f.Action, f.Name)
	}
}

// Somebody saves while an import is judged: neither overwrites the other.
func TestAnImportIsJudgedAnewWhenSomebodySaved(t *testing.T) {
	s := open(t, true)
	other := open(t, true)
	a := archiveOf(t, other)
	items, _, err := s.List(t.Context(), store.Variation, "", 1)
	require.NoError(t, err)
	judged := 0
	_, err = s.Import(t.Context(), a.file(t), false, func(int) {
		if judged++; judged == 1 {
			_, err := s.Create(t.Context(), store.Variation, items[0].Body, "")
			require.NoError(t, err)
		}
	})
	require.NoError(t, err)
	assert.Equal(t, 2, judged)
	_, err = s.Import(t.Context(), a.file(t), false, func(int) {
		_, err := s.Create(t.Context(), store.Variation, items[0].Body, "")
		require.NoError(t, err)
	})
	assert.ErrorIs(t, err, kitchen.ErrRestless)
}

// An own id names one thing, whatever was saved, put aside and brought back in between; what an
// earlier program let in is mended at the start.
func TestAnOwnIDNamesOneThing(t *testing.T) {
	s := open(t, false)
	ctx := t.Context()
	first, err := s.CreateItem(ctx, []byte(quayJam), "")
	require.NoError(t, err)
	require.NoError(t, s.PutAside(ctx, store.Pantry, first.ID))
	_, err = s.CreateItem(ctx, []byte(quayJam), "")
	require.NoError(t, err)
	_, err = s.BringBack(ctx, store.Pantry, first.ID)
	require.NoError(t, err)
	ids := func() []string {
		items, _, err := s.Items(ctx)
		require.NoError(t, err)
		var out []string
		for _, i := range items {
			out = append(out, i.ID)
		}
		slices.Sort(out)
		return out
	}
	assert.Equal(t, []string{"quay_jam", "quay_jam_2"}, ids())
	renamed := strings.Replace(quayJam, `"name":"Quay jam"`, `"name":"Another jam"`, 1)
	_, _, err = s.Put(ctx, store.Pantry, first.ID, 1, []byte(renamed))
	require.NoError(t, err, "its own id is its own")
	_, _, err = s.Put(ctx, store.Pantry, first.ID, 2, []byte(strings.Replace(renamed, `"id":"quay_jam"`, `"id":"quay_jam_2"`, 1)))
	assert.ErrorContains(t, err, "is the id of Quay jam")
	for range 2 { // as it could once happen
		_, err = s.st.Create(ctx, store.Pantry, store.Content{Name: "Quay jam", Body: []byte(quayJam)}, "")
		require.NoError(t, err)
	}
	require.NoError(t, s.Mend(ctx))
	assert.Equal(t, []string{"quay_jam", "quay_jam_2", "quay_jam_3", "quay_jam_4"}, ids())
	before := encoded(t, s)
	require.NoError(t, s.Mend(ctx))
	assert.Equal(t, before, encoded(t, s), "nothing is left to mend")
}
