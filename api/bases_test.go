package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/demo"
	"upbeatladle/document"
	"upbeatladle/store"
)

// empty is a kitchen with nothing in it.
func empty(t *testing.T) kitchen {
	k := over(t, func(ctx context.Context, path string, now func() time.Time) (*store.Store, error) { // nothing in it was ever in another one
		st, err := store.Open(ctx, path, now)
		if err == nil {
			err = demo.Write(ctx, st, food.Reference(), now())
		}
		return st, err
	})
	for _, kind := range []string{"pantry", "bases", "variations", "packs", "sauces"} {
		var l struct{ Items []struct{ ID string } }
		k.call("GET", "/api/v1/"+kind, nil, &l)
		for _, i := range l.Items {
			require.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/"+kind+"/"+i.ID, nil, nil).StatusCode)
		}
	}
	return k
}

type report struct {
	Items                         []document.Fate
	Added, Changed, Same, Refused int
	Saved                         bool
}

// last reads the lines of an import and returns its report and how many signs of progress it gave.
func (k kitchen) imports(data []byte) (report, int) {
	k.t.Helper()
	resp, err := http.Post(k.url+"/api/v1/archive", "application/json", bytes.NewReader(data))
	require.NoError(k.t, err)
	defer resp.Body.Close()
	all, err := io.ReadAll(resp.Body)
	require.NoError(k.t, err)
	lines := strings.Split(strings.TrimSpace(string(all)), "\n")
	var r report
	require.NoError(k.t, json.Unmarshal([]byte(lines[len(lines)-1]), &r), string(all))
	return r, len(lines) - 1
}

func (k kitchen) archive() []byte {
	k.t.Helper()
	resp, err := http.Get(k.url + "/api/v1/archive")
	require.NoError(k.t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(k.t, err)
	return data
}

// A whole kitchen goes out and into an empty one, and comes out of that as it was.
func TestAWholeKitchenRoundTrips(t *testing.T) {
	k := open(t)
	tub := tubOf(k, map[string]any{"method": "puree", "from": "beetroot_grated", "have_g": 1000, "after_g": 850}, "beetroot_cooked")
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/pantry", tub, nil).StatusCode)
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/bases-starter", "", nil).StatusCode)
	out := k.archive()
	r, _ := k.imports(out)
	assert.Zero(t, r.Added+r.Changed+r.Refused, "into itself it changes nothing: %+v", r.Items)
	other := empty(t)
	var dry report
	require.Equal(t, http.StatusOK, other.call("POST", "/api/v1/archive?dry_run=true", out, &dry).StatusCode)
	assert.False(t, dry.Saved)
	assert.Equal(t, r.Same-1, dry.Added, "all but the kitchen, which is the demo's there too")
	var l struct{ Items []any }
	other.call("GET", "/api/v1/bases", nil, &l)
	assert.Empty(t, l.Items, "a preview writes nothing")
	got, _ := other.imports(out)
	assert.Equal(t, dry.Added, got.Added)
	kitchenSaved := regexp.MustCompile(`("kitchen_history":\{[^}]*)"saved_at":"[^"]*"`) // the demo's was saved there before
	assert.Equal(t, kitchenSaved.ReplaceAllString(string(out), "$1"), kitchenSaved.ReplaceAllString(string(other.archive()), "$1"))
}

func TestImportShowsWhatDiffers(t *testing.T) {
	k := open(t)
	d := k.first("bases")
	changed := bytes.Replace(d.Document, []byte(`"amount":500`), []byte(`"amount":450`), 1)
	if bytes.Equal(changed, d.Document) {
		changed = bytes.Replace(d.Document, []byte(`"amount":480`), []byte(`"amount":450`), 1)
	}
	var r report
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/archive?dry_run=true", changed, &r).StatusCode)
	require.Equal(t, 1, r.Added, "a file of one that says nothing of where it was kept is a new one")
	file := `{"format":"upbeat-ladle/archive","version":1,"bases":[{"id":"` + d.ID + `","document":` + string(changed) + `}]}`
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/archive?dry_run=true", file, &r).StatusCode)
	require.Equal(t, 1, r.Changed, "%+v", r)
	assert.Contains(t, strings.Join(r.Items[0].Changes, " "), "Plain wheat flour")
	for name, body := range map[string]string{
		"not JSON": "<html>", "another format": `{"format":"some/thing"}`, "packed": "PK\x03\x04zip", "breaks off": `{"format":"upbeat-ladle/archive","version":1,"bases":[`,
	} {
		var p problem
		assert.Equal(t, http.StatusBadRequest, k.call("POST", "/api/v1/archive", body, &p).StatusCode, name)
		assert.NotEmpty(t, p.Detail)
	}
	bad, _ := k.imports([]byte(`{"format":"upbeat-ladle/archive","version":1,"variations":[{"document":{"format":"upbeat-ladle/variation","version":1,"name":"Broken"}}]}`))
	assert.Equal(t, 1, bad.Refused)
	assert.Equal(t, "Broken", bad.Items[0].Name)
	assert.NotEmpty(t, bad.Items[0].Message)
}

// A thousand variations are kept in a few seconds, with signs of progress on the way. The time
// is printed, not asserted.
func TestAThousandVariations(t *testing.T) {
	k := open(t)
	d := k.first("variations")
	var kept []string
	for i := range 1000 {
		one := bytes.Replace(d.Document, []byte(`"name":"`), fmt.Appendf(nil, `"name":"No. %d `, i), 1)
		kept = append(kept, `{"document":`+strings.TrimSpace(string(one))+`}`)
	}
	file := `{"format":"upbeat-ladle/archive","version":1,"variations":[` + strings.Join(kept, ",") + `]}`
	began := time.Now()
	r, signs := k.imports([]byte(file))
	t.Logf("1000 variations in %.1f s", time.Since(began).Seconds())
	assert.Equal(t, 1000, r.Added)
	assert.Greater(t, signs, 5)
}

func TestEveryFormatOfEveryDocument(t *testing.T) {
	k := open(t)
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/bases-starter", "", nil).StatusCode)
	for _, kind := range []string{"bases", "variations"} {
		var l struct{ Items []struct{ ID, Name string } }
		k.call("GET", "/api/v1/"+kind, nil, &l)
		for _, i := range l.Items {
			for as := range document.Exports {
				resp, err := http.Get(k.url + "/api/v1/exports/" + kind + "/" + i.ID + "?as=" + as)
				require.NoError(t, err)
				data, err := io.ReadAll(resp.Body)
				resp.Body.Close()
				require.NoError(t, err)
				require.Equal(t, http.StatusOK, resp.StatusCode, "%s %s", i.Name, as)
				if as == "jsonld" || as == "text" || as == "markdown" {
					comesBack(t, k, kind, i.ID, string(data))
				}
			}
		}
	}
	assert.Equal(t, http.StatusNotFound, k.call("GET", "/api/v1/exports/bases/x?as=pdf", nil, nil).StatusCode)
}

// comesBack reads an exported recipe again: the same ingredients with the same grams.
func comesBack(t *testing.T, k kitchen, kind, id, text string) {
	t.Helper()
	var read document.Reading
	resp := k.call("POST", "/api/v1/readings", map[string]any{"text": text}, nil)
	require.Equal(t, http.StatusOK, resp.StatusCode, text)
	k.call("POST", "/api/v1/readings", map[string]any{"text": text}, &read)
	var saved savedDoc
	k.call("GET", "/api/v1/"+kind+"/"+id, nil, &saved)
	doc := saved.Document
	if kind == "bases" {
		b, err := document.DecodeBase(doc)
		require.NoError(t, err)
		doc, err = b.Variation().Encode()
		require.NoError(t, err)
	}
	var w struct {
		Lines []struct {
			Ingredient string
			Weigh      float64 `json:"weigh_g"`
		}
	}
	k.call("POST", "/api/v1/worksheets", []byte(doc), &w)
	var want []string
	for _, l := range w.Lines {
		if l.Weigh > 0 {
			want = append(want, fmt.Sprintf("%s %.4g", l.Ingredient, l.Weigh))
		}
	}
	var got []string
	for _, l := range read.Lines {
		if l.GoesTo == "beside" { // the fat of the plate is a part, and no line of the batter
			continue
		}
		v, _ := json.Marshal(l.Amount)
		var g float64
		_ = json.Unmarshal(v, &g)
		got = append(got, fmt.Sprintf("%s %.4g", l.Ingredient, g))
	}
	assert.Equal(t, want, got, text)
}

const page = `<!doctype html><html><head><title>x</title><script>alert('no')</script>
<script type="application/ld+json">{"@context":"https://schema.org","@graph":[{"@type":"WebSite","name":"A pier"},
{"@type":["Recipe","Thing"],"name":"Quay &amp; pancakes","recipeIngredient":["200 g plain flour","2 eggs","300 ml milk","1 cup frozen blueberries"],
"recipeInstructions":[{"@type":"HowToSection","itemListElement":[{"@type":"HowToStep","text":"Whisk until smooth."}]}]}]}</script></head>
<body><p>Nothing here</p></body></html>`

func TestPagesAndStructuredData(t *testing.T) {
	s := document.Setting{Table: food.Reference()}
	for name, text := range map[string]string{
		"a saved page": page,
		"a list":       `[{"@type":"BreadcrumbList"},{"@type":"Recipe","name":"Quay & pancakes","recipeIngredient":["200 g plain flour","2 eggs","300 ml milk","1 cup frozen blueberries"],"recipeInstructions":"Whisk until smooth."}]`,
		"only words":   `<html><body><script>alert(1)</script><h1>Quay &amp; pancakes</h1><ul><li>200 g plain flour</li><li>2 eggs</li><li>300 ml milk</li><li>1 cup frozen blueberries</li></ul><p>Whisk until smooth.</p></body></html>`,
	} {
		r, err := document.Read(t.Context(), document.ReadingWish{Text: text}, s)
		require.NoError(t, err, name)
		assert.Len(t, r.Lines, 4, name)
		assert.Equal(t, []string{"Whisk until smooth."}, r.Steps, name)
		assert.Equal(t, "Quay & pancakes", r.Title, name)
		assert.Len(t, r.Additions, 1, name)
		out, err := document.Answer(r)
		require.NoError(t, err)
		assert.NotContains(t, string(out), "alert")
	}
	for name, c := range map[string]struct{ text, code string }{
		"nothing": {" \n ", "empty"}, "a book": {strings.Repeat("It rained on the pier. ", 50_000), "too_large"}, "another script": {"小麦粉", "nothing_found"},
		"prose": {"It rained on the pier, and nobody came.", "nothing_found"}, "packed": {"PK\x03\x04\x14\x00", "not_text"}, "gzip": {"\x1f\x8b\x08", "not_text"},
		"no recipe": {`{"@type":"Person","name":"x"}`, "no_recipe"}, "broken": {`{"@type":"Recipe"`, "broken_json"},
		"deep": {strings.Repeat(`[`, 5000) + strings.Repeat(`]`, 5000), "no_recipe"},
	} {
		_, err := document.Read(t.Context(), document.ReadingWish{Text: c.text}, s)
		assert.Error(t, err, name)
		assert.Contains(t, fmt.Sprintf("%#v", err), c.code, name)
	}
}

func TestFixALine(t *testing.T) {
	k := open(t)
	text := "Quay pancakes\n\n200 g flour\n300 ml milk\na handful of zonk\n2 eggs"
	var r document.Reading
	k.call("POST", "/api/v1/readings", map[string]any{"text": text}, &r)
	require.Len(t, r.Lines, 4)
	assert.Equal(t, "not_understood", r.Lines[2].Status)
	fix := map[string]any{"text": text, "fixes": []map[string]any{{"line": 2, "ingredient": "walnuts_chopped", "amount": 60, "unit": "g"}}}
	k.call("POST", "/api/v1/readings", fix, &r)
	assert.Equal(t, "read", r.Lines[2].Status)
	assert.Len(t, r.Additions, 1)
	var saved savedDoc
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/bases", r.Base, &saved).StatusCode)
	var p problem
	fix["fixes"] = []map[string]any{{"line": 9}}
	assert.Equal(t, http.StatusBadRequest, k.call("POST", "/api/v1/readings", fix, &p).StatusCode)
	assert.Equal(t, "/fixes/0/line", p.Errors[0].Pointer)
}
