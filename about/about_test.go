package about_test

import (
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/about"
)

// Everything that the two lists of dependencies name for the program itself stands in the notices, with a text.
func TestEverythingThatShipsIsNamed(t *testing.T) {
	all, err := about.Notices()
	require.NoError(t, err)
	var names []string
	for _, n := range all {
		assert.NotEmpty(t, n.Text, n.Names)
		assert.NotEmpty(t, n.License, n.Names)
		names = append(names, n.Names...)
	}
	joined := "\n" + strings.Join(names, "\n") + "\n"

	var pack struct{ Dependencies map[string]string }
	data, err := os.ReadFile("../web/package.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(data, &pack))
	require.NotEmpty(t, pack.Dependencies)
	for name, version := range pack.Dependencies {
		assert.Contains(t, joined, "\n"+name+" "+version+"\n")
	}
	for _, module := range []string{"github.com/gin-gonic/gin", "modernc.org/sqlite", "github.com/spf13/cobra", "gonum.org/v1/gonum", "Go go"} {
		assert.Contains(t, joined, "\n"+module)
	}
	assert.NotContains(t, joined, "\naxe-core ", "tools do not ship")
	text, err := about.Text()
	require.NoError(t, err)
	assert.Contains(t, text, "SIL OPEN FONT LICENSE")
}
