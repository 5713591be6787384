package api

import (
	"regexp"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The contract is one that any reader reads: whole, without references that lead nowhere, without words that OpenAPI does
// not know, without what only some readers of YAML follow.
func TestTheContractIsRead(t *testing.T) {
	load := openapi3.NewLoader()
	doc, err := load.LoadFromFile("openapi.yaml")
	require.NoError(t, err)
	require.NoError(t, doc.Validate(t.Context(), openapi3.EnableExamplesValidation()))

	// Whatever the contract names is served, and nothing else: the generated server, the questions, what is kept.
	var named, served []string
	for path, item := range doc.Paths.Map() {
		for method, op := range item.Operations() {
			named = append(named, method+" "+path)
			assert.NotEmpty(t, op.Responses.Map(), path)
		}
	}
	s := &Server{}
	parameter := regexp.MustCompile(`:(\w+)`)
	for _, r := range s.routes(fstest.MapFS{}).Routes() {
		if path, ok := strings.CutPrefix(r.Path, "/api/v1"); ok {
			served = append(served, r.Method+" "+parameter.ReplaceAllString(path, "{$1}"))
		}
	}
	assert.ElementsMatch(t, named, served)
}
