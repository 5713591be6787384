package api_test

import (
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
