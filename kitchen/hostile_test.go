package kitchen_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
	"upbeatladle/store"
)

// object is a document of a file as anybody may have written it.
type object = map[string]any

// inSections are whole documents by the sections of an archive: one or two of each kind that the program keeps.
func inSections(t *testing.T) map[string][]object {
	t.Helper()
	s, ctx := open(t, true), t.Context()
	variations, _, err := s.List(ctx, store.Variation, "", 2)
	require.NoError(t, err)
	wish := []document.BowlWish{}
	for range 2 {
		v, err := document.DecodeVariation(variations[0].Body)
		require.NoError(t, err)
		wish = append(wish, document.BowlWish{Variation: v})
	}
	split, _, err := s.SplitBatches(ctx, wish, "")
	require.NoError(t, err)
	board, err := s.BeginBoard(ctx, "")
	require.NoError(t, err)
	_, err = s.TellBoard(ctx, board.ID, fmt.Appendf(nil, `{"id":"on","kind":"put_on","plate":%q,"batch":%q}`, board.State.Plates[0].ID, split[1].ID), 0)
	require.NoError(t, err)
	_, err = s.CreateItem(ctx, []byte(quayJam), "")
	require.NoError(t, err)
	_, err = s.KeepText(ctx, "200 g flour\n300 ml milk")
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, s.Archive(ctx, &file))
	var all map[string]json.RawMessage
	require.NoError(t, json.Unmarshal(file.Bytes(), &all))
	out := map[string][]object{}
	for section, raw := range all {
		var docs []object
		if json.Unmarshal(raw, &docs) == nil && len(docs) > 0 {
			out[section] = docs
		}
	}
	for section, docs := range out {
		if section == "batches" {
			continue // the common one and its bowls
		}
		out[section] = docs[:min(2, len(docs))]
	}
	for section, docs := range out { // one that names another needs another
		if len(docs) == 1 {
			twin := clone(t, docs[0])
			twin["id"] = "twin-of-" + section
			out[section] = append(docs, twin)
		}
	}
	return out
}

func clone(t *testing.T, o object) (out object) {
	t.Helper()
	text, err := json.Marshal(o)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &out))
	return out
}

// names are the places at which a document of a section names another thing by its id.
var names = []struct {
	section, what string
	name          func(d object, id string)
}{
	{"variations", "its base", func(d object, id string) { d["base"].(object)["base_ref"] = object{"id": id, "revision": 1} }},
	{"variations", "its text", func(d object, id string) { d["base"].(object)["source_text"] = id; d["version"] = 2 }},
	{"variations", "its sauce", func(d object, id string) {
		d["version"] = 2
		d["parts"] = []any{object{"kind": "top", "text": "Sauce", "sauce_ref": object{"id": id, "revision": 1}}}
	}},
	{"variations", "an ingredient", func(d object, id string) {
		d["additions"] = []any{object{"ingredient": id, "amount": 20, "unit": "g"}}
	}},
	{"bases", "its text", func(d object, id string) { d["source_text"] = id; d["version"] = 2 }},
	{"batches", "what it comes from", func(d object, id string) { d["from"] = object{"id": id, "revision": 1} }},
	{"batches", "its common batter", func(d object, id string) { d["common"] = id }},
	{"boards", "a bowl", func(d object, id string) {
		for _, e := range d["events"].([]any) {
			if e.(object)["kind"] == "put_on" {
				e.(object)["batch"] = id
			}
		}
	}},
	{"boards", "what is taken back", func(d object, id string) {
		d["events"] = append(d["events"].([]any), object{"id": "back", "at": "2026-11-26T07:10:00Z", "kind": "took_back", "undoes": "back"})
	}},
	{"packs", "its board", func(d object, id string) { d["board"] = id }},
	{"packs", "its batch", func(d object, id string) { d["batch"] = id }},
	{"pantry", "what it stands for", func(d object, id string) { d["stands_for"] = id }},
}

// Whatever a file says that its things refer to (themselves, each other, a thing of another kind, nothing), the program keeps or
// refuses it, goes on, and starts again.
func TestNoReferenceOfAFileEndsTheProgram(t *testing.T) {
	all := inSections(t)
	require.Subset(t, slices.Collect(maps.Keys(all)), []string{"variations", "bases", "batches", "boards", "packs", "pantry", "sauces"})
	other := map[string]string{"variations": "packs", "bases": "variations", "batches": "variations", "boards": "bases", "packs": "pantry", "pantry": "bases"}
	for _, n := range names {
		for twist, ids := range map[string]func(docs []object) [2]string{
			"itself": func(d []object) [2]string { return [2]string{idOf(d[0]), idOf(d[1])} }, "each other": func(d []object) [2]string { return [2]string{idOf(d[1]), idOf(d[0])} },
			"another kind": func([]object) [2]string {
				return [2]string{idOf(all[other[n.section]][0]), idOf(all[other[n.section]][0])}
			}, "nothing": func([]object) [2]string { return [2]string{"gone", ""} },
		} {
			t.Run(n.section+", "+n.what+": "+twist, func(t *testing.T) {
				file := object{"format": "upbeat-ladle/archive", "version": 2}
				docs := []object{clone(t, all[n.section][0]), clone(t, all[n.section][1])}
				for i, d := range docs {
					id := ids(docs)[i]
					if n.section == "pantry" && twist != "another kind" { // documents name an item by its own id
						id = strings.ReplaceAll(id, idOf(docs[0]), docs[0]["document"].(object)["id"].(string))
					}
					n.name(d["document"].(object), id)
				}
				file[n.section] = docs
				if o := other[n.section]; twist == "another kind" {
					file[o] = []object{all[o][0]}
				}
				survives(t, file)
			})
		}
	}
}

func idOf(d object) string { return d["id"].(string) }

// survives imports a file into an empty kitchen, and opens every door of it, twice: as after a start.
func survives(t *testing.T, file object) {
	t.Helper()
	s, ctx := open(t, false), t.Context()
	text, err := json.Marshal(file)
	require.NoError(t, err)
	a, err := document.OpenArchive(bytes.NewReader(text))
	require.NoError(t, err)
	fates, err := s.Import(ctx, a, false, func(int) {})
	require.NoError(t, err)
	for _, f := range fates {
		assert.True(t, f.Action != "refused" || f.Message != "", "%s %s is refused without a word", f.Kind, f.Name)
	}
	for range 2 {
		_, err := s.Setting(ctx)
		require.NoError(t, err)
		batches, err := s.Batches(ctx)
		require.NoError(t, err)
		for _, b := range batches {
			_, _ = s.Batch(ctx, b.ID) // what cannot be followed says so
		}
		boards, err := s.Boards(ctx)
		require.NoError(t, err)
		for _, b := range boards {
			_, _ = s.Board(ctx, b.ID)
		}
		_, err = s.Packs(ctx)
		require.NoError(t, err)
		_, err = s.Sauces(ctx)
		require.NoError(t, err)
		_, err = s.BaseShelf(ctx)
		require.NoError(t, err)
		_, err = s.Find(ctx, "a")
		require.NoError(t, err)
		for _, kind := range []store.Kind{store.Pantry, store.Base, store.Sauce, store.Variation, store.Batch, store.Board, store.Pack} {
			docs, err := s.All(ctx, kind)
			require.NoError(t, err)
			for _, d := range docs {
				for _, as := range []string{"json", "text"} {
					_, _, _ = s.Export(ctx, kind, d.ID, as)
				}
				_, err := s.UsedIn(ctx, d.ID)
				require.NoError(t, err)
			}
		}
		require.NoError(t, s.Archive(ctx, io.Discard))
		require.NoError(t, s.Mend(ctx))
	}
}

// What an earlier program let in is mended at the start, and followed by one step at most until then.
func TestABowlThatTookItsShareOfItself(t *testing.T) {
	s, ctx := open(t, true), t.Context()
	variations, _, err := s.List(ctx, store.Variation, "", 1)
	require.NoError(t, err)
	v, err := document.DecodeVariation(variations[0].Body)
	require.NoError(t, err)
	split, _, err := s.SplitBatches(ctx, []document.BowlWish{{Variation: v}, {Variation: v}}, "")
	require.NoError(t, err)
	twist := func(id, common string) {
		d, err := s.st.Get(ctx, store.Batch, id)
		require.NoError(t, err)
		var doc object
		require.NoError(t, json.Unmarshal(d.Body, &doc))
		doc["common"] = common
		d.Body, err = json.Marshal(doc)
		require.NoError(t, err)
		require.NoError(t, s.st.Together(ctx, func(tx *store.Tx) error {
			return tx.SaveAll(ctx, store.Batch, []store.Write{{ID: id, Content: d.Content}})
		}))
	}
	common, bowl, good := split[0].ID, split[1].ID, split[2].ID
	twist(common, common)
	twist(bowl, bowl)
	listed, err := s.Batches(ctx)
	require.NoError(t, err)
	assert.Len(t, listed, 3)
	for _, id := range []string{common, bowl, good} {
		_, err := s.Batch(ctx, id)
		require.NoError(t, err)
	}
	require.NoError(t, s.Mend(ctx))
	named := func(id string) string {
		d, err := s.st.Get(ctx, store.Batch, id)
		require.NoError(t, err)
		b, err := document.DecodeBatch(d.Body)
		require.NoError(t, err)
		return b.Common
	}
	assert.Empty(t, named(common))
	assert.Empty(t, named(bowl))
}

// A list of five hundred bowls costs what a list costs: none of them is worked out for it.
func BenchmarkBatches(b *testing.B) {
	s, ctx := open(b, true), b.Context()
	variations, _, err := s.List(ctx, store.Variation, "", 1)
	require.NoError(b, err)
	v, err := document.DecodeVariation(variations[0].Body)
	require.NoError(b, err)
	one, err := s.BeginBatch(ctx, v, nil, "")
	require.NoError(b, err)
	d, err := s.st.Get(ctx, store.Batch, one.ID)
	require.NoError(b, err)
	for i := range 499 {
		made, err := s.st.Create(ctx, store.Batch, store.Content{Name: fmt.Sprint("Bowl ", i), Form: d.Form, Body: d.Body}, "")
		require.NoError(b, err)
		_, err = s.Tell(ctx, made.ID, fmt.Appendf(nil, `{"id":"e","kind":"weighed","task":%q,"grams":100}`, one.State.Now), time.Minute)
		require.NoError(b, err)
	}
	for b.Loop() {
		_, err := s.Batches(ctx)
		require.NoError(b, err)
	}
}
