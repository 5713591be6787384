package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/document"
	"upbeatladle/document/question"
)

const formats = "../docs/formats"

var compiled sync.Map // schemas by their names

// schemaOf compiles a schema as it is published.
func schemaOf(t *testing.T, name string) *jsonschema.Schema {
	t.Helper()
	if s, ok := compiled.Load(name); ok {
		return s.(*jsonschema.Schema)
	}
	c := jsonschema.NewCompiler()
	c.AssertFormat()
	s, err := c.Compile(filepath.Join(formats, name+".schema.json"))
	require.NoError(t, err, name)
	compiled.Store(name, s)
	return s
}

// fitsItsSchema holds a file that goes out against what is published of it.
func fitsItsSchema(t *testing.T, k kitchen, schema, path string) {
	t.Helper()
	resp, err := http.Get(k.url + path)
	require.NoError(t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, resp.StatusCode, "%s: %s", path, data)
	fitsSchema(t, schema, data)
}

func fitsSchema(t *testing.T, schema string, data []byte) {
	t.Helper()
	var v any
	require.NoError(t, json.Unmarshal(data, &v))
	assert.NoError(t, schemaOf(t, schema).Validate(v), schema)
}

// Whoever writes a program for our files goes by the schemas: each of them compiles, and whatever the demo kitchen lets out
// fits its own.
func TestEveryExportFitsItsSchema(t *testing.T) {
	all, err := os.ReadDir(formats)
	require.NoError(t, err)
	schemas := 0
	for _, f := range all {
		if name, ok := strings.CutSuffix(f.Name(), ".schema.json"); ok {
			schemaOf(t, name)
			schemas++
		}
	}
	assert.Greater(t, schemas, 10)
	k := open(t)
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/bases-starter", "", nil).StatusCode)
	k.tell(k.begin().ID, map[string]any{"id": "fridge", "kind": "into_fridge", "waited_ms": 0})
	for _, of := range []struct{ path, schema string }{
		{"variations", "variation"}, {"bases", "base"}, {"pantry", "pantry-item"}, {"sauces", "sauce"}, {"packs", "pack"}, {"batches", "batch"},
	} {
		var l struct{ Items []struct{ ID string } }
		k.call("GET", "/api/v1/"+of.path+"?limit=200", nil, &l)
		assert.NotEmpty(t, l.Items, of.path)
		for _, i := range l.Items {
			fitsItsSchema(t, k, of.schema, fmt.Sprintf("/api/v1/exports/%s/%s?as=json", of.path, i.ID))
		}
	}
	fitsItsSchema(t, k, "archive", "/api/v1/archive")
	var own savedDoc
	require.Equal(t, http.StatusOK, k.call("GET", "/api/v1/kitchen", nil, &own).StatusCode)
	fitsSchema(t, "kitchen", own.Document)
	for path, of := range map[string]struct{ body, schema string }{
		"worksheets?include=working,strategies,curves,cups": {string(k.first("variations").Document), "worksheet"},
		"readings": {`{"text":"Pancakes\n200 g flour\n2 eggs\n3 dl milk\n40 g lupin flour\n\nMix all, rest 10 min."}`, "reading"},
	} {
		var v json.RawMessage
		require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/"+path, of.body, &v).StatusCode)
		fitsSchema(t, of.schema, v)
	}
}

// Whoever holds the setting answers as the program does: every variation of the demo kitchen, with everything that can be asked of it.
// It changes with the kitchen and the pantry, and one that is known costs nothing.
func TestWhoHoldsTheSettingAnswersTheSame(t *testing.T) {
	k := open(t)
	fitsItsSchema(t, k, "setting", "/api/v1/setting")
	get := func(etag string) (*http.Response, []byte) {
		req, err := http.NewRequest(http.MethodGet, k.url+"/api/v1/setting", nil)
		require.NoError(t, err)
		req.Header.Set("If-None-Match", etag)
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer resp.Body.Close()
		data, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		return resp, data
	}
	first, text := get("")
	d, err := document.DecodeSetting(text)
	require.NoError(t, err)
	assert.NotEmpty(t, d.Pantry)
	assert.NotEmpty(t, d.Sauces)
	in, err := d.Setting(food.Reference())
	require.NoError(t, err)
	const include = "working,strategies,cook,choices,drawing,nutrition"
	in.Include, err = document.ReadInclude(include)
	require.NoError(t, err)
	asked, _ := question.Named("worksheets")
	var all struct{ Items []struct{ ID string } }
	k.call("GET", "/api/v1/variations?limit=200", nil, &all)
	assert.NotEmpty(t, all.Items)
	for _, i := range all.Items {
		var v savedDoc
		k.call("GET", "/api/v1/variations/"+i.ID, nil, &v)
		resp, err := http.Post(k.url+"/api/v1/worksheets?include="+include, "application/json", bytes.NewReader(v.Document))
		require.NoError(t, err)
		there, err := io.ReadAll(resp.Body)
		resp.Body.Close()
		require.NoError(t, err)
		here, err := asked.Answer(t.Context(), in, v.Document)
		require.NoError(t, err)
		assert.Equal(t, string(there), string(here))
	}
	known, nothing := get(first.Header.Get("ETag"))
	assert.Equal(t, http.StatusNotModified, known.StatusCode)
	assert.Empty(t, nothing)
	status := k.call("POST", "/api/v1/pantry", `{"format":"upbeat-ladle/pantry-item","version":1,"id":"","name":"Walnuts of the yard","stands_for":"walnuts_chopped","stock_g":500}`, nil).StatusCode
	require.Equal(t, http.StatusCreated, status)
	again, _ := get(first.Header.Get("ETag"))
	assert.Equal(t, http.StatusOK, again.StatusCode, "the pantry is another")
	assert.NotEqual(t, first.Header.Get("ETag"), again.Header.Get("ETag"))
}
