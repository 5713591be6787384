// Package core_test holds the arrows of the architecture: the core imports nothing beyond
// the standard library and gonum, and the outer rooms point one way.
package core_test

import (
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func deps(t *testing.T, pattern string) []string {
	t.Helper()
	cmd := exec.Command("go", "list", "-deps", "-f", "{{if not .Standard}}{{.ImportPath}}{{end}}", pattern)
	cmd.Dir = ".."
	out, err := cmd.Output()
	require.NoError(t, err)
	return strings.Fields(string(out))
}

func TestCoreImportsOnlyTheStandardLibraryAndGonum(t *testing.T) {
	for _, d := range deps(t, "./core/...") {
		if !strings.HasPrefix(d, "upbeatladle/core") && !strings.HasPrefix(d, "gonum.org/") && !strings.HasPrefix(d, "golang.org/x/exp") {
			t.Errorf("core reaches %s", d)
		}
	}
}

func TestCoreHasNoClockNoFilesNoNetNoJSON(t *testing.T) {
	cmd := exec.Command("go", "list", "-f", "{{.ImportPath}}: {{join .Imports \" \"}}", "./...")
	out, err := cmd.Output()
	require.NoError(t, err)
	for line := range strings.SplitSeq(strings.TrimSpace(string(out)), "\n") {
		for _, banned := range []string{"os", "net", "net/http", "database/sql", "encoding/json", "math/rand"} { // math/rand/v2 with a source of the caller's is fine
			assert.NotContains(t, " "+line+" ", " "+banned+" ", line)
		}
	}
}

// A moment may be handed in; nobody in the core looks at a clock or waits for one.
func TestCoreAsksNobodyForTheTime(t *testing.T) {
	clock := regexp.MustCompile(`\btime\.(Now|Since|Until|Sleep|After|AfterFunc|Tick|NewTimer|NewTicker|Local)\b`)
	require.NoError(t, filepath.WalkDir(".", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		data, err := os.ReadFile(path)
		assert.NotRegexp(t, clock, string(data), path)
		return err
	}))
}

func TestArrowsPointOneWay(t *testing.T) {
	for room, banned := range map[string][]string{
		"./document": {"upbeatladle/store", "upbeatladle/api", "upbeatladle/web", "upbeatladle/demo"},
		"./store":    {"upbeatladle/core", "upbeatladle/document", "upbeatladle/api", "upbeatladle/web"},
		"./house":    {"upbeatladle/kitchen", "upbeatladle/api", "upbeatladle/web", "upbeatladle/demo", "github.com/gin-gonic/gin"},
		"./kitchen":  {"upbeatladle/api", "upbeatladle/web", "upbeatladle/demo", "upbeatladle/cmd", "github.com/gin-gonic/gin"},
		"./api":      {"upbeatladle/web", "upbeatladle/demo", "upbeatladle/cmd"},
	} {
		for _, d := range deps(t, room) {
			for _, b := range banned {
				assert.False(t, d == b || strings.HasPrefix(d, b+"/"), "%s reaches %s", room, d)
			}
		}
	}
}
