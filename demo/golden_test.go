package demo_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
	"upbeatladle/demo"
	"upbeatladle/document"
	"upbeatladle/starter"
	"upbeatladle/store"
)

var update = flag.Bool("update", false, "write the worksheets in testdata anew; read the difference before you commit it")

const atHatch = 4 // m

var day = time.Date(2026, 11, 2, 6, 30, 0, 0, time.UTC)

// TestGoldenCorpus holds every worksheet of the demo kitchen and of the starter's bases as it
// was: whoever changes a rule reads in the difference what it does to real recipes.
func TestGoldenCorpus(t *testing.T) {
	for name, got := range corpus(t, atHatch) {
		path := filepath.Join("testdata", name+".json")
		if *update {
			require.NoError(t, os.WriteFile(path, got, 0o644))
			continue
		}
		want, err := os.ReadFile(path)
		require.NoError(t, err, "run go test ./demo -update and read the difference")
		assert.Equal(t, string(want), string(got), "%s moved: if you meant it, run go test ./demo -update and read the difference", name)
	}
	kept, err := filepath.Glob("testdata/*.json")
	require.NoError(t, err)
	assert.Len(t, kept, len(corpus(t, atHatch)), "a worksheet in testdata has no document any more")
}

// Pancakes are made daily in the mountains: every base and variation has a heat there, which takes longer but no more than
// four fifths, and nothing is blamed on the bowl.
func TestEveryBowlCooksInTheMountains(t *testing.T) {
	type cooked struct {
		Cook struct {
			First    float64  `json:"first_side_s"`
			Second   float64  `json:"second_side_s"`
			Warnings []string `json:"warnings"`
			Reasons  []string `json:"reasons"`
		} `json:"cook"`
		Form string
	}
	sea := corpus(t, atHatch)
	for name, got := range corpus(t, 4000) {
		var low, high cooked
		require.NoError(t, json.Unmarshal(sea[name], &low))
		require.NoError(t, json.Unmarshal(got, &high))
		assert.Positive(t, high.Cook.First, "%s has no heat at 4,000 m: %v", name, high.Cook.Warnings)
		longer := (high.Cook.First + high.Cook.Second) / (low.Cook.First + low.Cook.Second)
		assert.True(t, longer > 0.9 && longer <= 1.8, "%s takes %.2f times as long", name, longer)
		for _, text := range append(high.Cook.Warnings, high.Cook.Reasons...) {
			assert.NotContains(t, text, "missing in the bowl", name)
			assert.NotContains(t, text, "does not set", name)
		}
	}
}

// corpus works out every document of the demo and of the starter, each in its own kitchen at so many metres.
func corpus(t *testing.T, altitudeM float64) map[string][]byte {
	t.Helper()
	ctx := t.Context()
	st, err := store.Open(ctx, filepath.Join(t.TempDir(), "golden.db"), func() time.Time { return day })
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, demo.Write(ctx, st, food.Reference(), day))
	kitchen, _, err := st.Kitchen(ctx)
	require.NoError(t, err)
	own, err := document.DecodeKitchen(kitchen)
	require.NoError(t, err)
	own.AltitudeM = &altitudeM
	pantry, err := st.All(ctx, store.Pantry)
	require.NoError(t, err)
	var items []document.PantryItem
	for i := len(pantry) - 1; i >= 0; i-- {
		item, err := document.DecodeItem(pantry[i].Body, document.Setting{Table: food.Reference(), Today: day})
		require.NoError(t, err)
		items = append(items, item.PantryItem)
	}
	shelf, err := document.Shelf(food.Reference(), items, day)
	require.NoError(t, err)
	in := document.Setting{Table: shelf, Kitchen: own, Today: day, Include: worksheet.Everything}
	out := map[string][]byte{}
	variations, err := st.All(ctx, store.Variation)
	require.NoError(t, err)
	for _, d := range variations {
		sheet, err := document.Work(t.Context(), d.Body, in)
		require.NoError(t, err, d.Name)
		out["variation-"+document.Slug(d.Name)] = readable(t, sheet)
	}
	add := func(kind string, body []byte, in document.Setting) {
		b, err := document.DecodeBase(body)
		require.NoError(t, err)
		text, err := b.Variation().Encode()
		require.NoError(t, err)
		sheet, err := document.Work(t.Context(), text, in)
		require.NoError(t, err, b.Name)
		out[kind+"-"+document.Slug(b.Name)] = readable(t, sheet)
	}
	bases, err := st.All(ctx, store.Base)
	require.NoError(t, err)
	for _, d := range bases {
		add("base", d.Body, in)
	}
	usual := document.DefaultOwnKitchen()
	usual.AltitudeM = &altitudeM
	shipped, err := starter.Bases()
	require.NoError(t, err)
	for _, body := range shipped {
		add("starter", body, document.Setting{Table: food.Reference(), Kitchen: usual, Today: day, Include: worksheet.Everything})
	}
	return out
}

const lineWidth = 150

// readable breaks JSON so that a difference shows the thing that moved: what fits on a line
// stands on one.
func readable(t *testing.T, data []byte) []byte {
	var b bytes.Buffer
	var write func(raw json.RawMessage, indent string)
	write = func(raw json.RawMessage, indent string) {
		raw = bytes.TrimSpace(raw)
		if len(indent)+len(raw) <= lineWidth || raw[0] != '{' && raw[0] != '[' {
			b.Write(raw)
			return
		}
		closing := byte(']')
		d := json.NewDecoder(bytes.NewReader(raw))
		_, err := d.Token()
		require.NoError(t, err)
		b.WriteByte(raw[0])
		for first := true; d.More(); first = false {
			if !first {
				b.WriteByte(',')
			}
			fmt.Fprintf(&b, "\n%s ", indent)
			if raw[0] == '{' {
				closing = '}'
				key, err := d.Token()
				require.NoError(t, err)
				fmt.Fprintf(&b, "%q: ", key)
			}
			var v json.RawMessage
			require.NoError(t, d.Decode(&v))
			write(v, indent+" ")
		}
		fmt.Fprintf(&b, "\n%s%c", indent, closing)
	}
	write(data, "")
	b.WriteByte('\n')
	return b.Bytes()
}
