// Package core_test holds the arrows of the architecture: the core imports nothing beyond
// the standard library and gonum, and the outer rooms point one way.
package core_test

import (
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
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

// arrows are all that there are: a room and the rooms that it may know of. What is missing here is a decision, not an oversight.
var arrows = map[string]string{
	"about": "", "core": "", "starter": "", "store": "", "web": "", "internal": "",
	"device":   "core",
	"document": "core",
	"label":    "core document",
	"house":    "document store", // document for how a refusal is said
	"kitchen":  "about core document label starter store",
	"demo":     "core document kitchen starter store",
	"api":      "about core device document house kitchen store",
	"cmd":      "about api core demo device document house kitchen store web",
	"e2e":      "api core demo device house store web",
	"docs":     "",
}

// coreArrows are those inside of the core.
var coreArrows = map[string]string{
	"measure": "", "words": "", "happen": "",
	"food":      "measure",
	"flow":      "food",
	"lift":      "food",
	"prep":      "food",
	"batter":    "flow food measure prep words",
	"balance":   "batter flow food lift",
	"heat":      "batter food",
	"portion":   "batter flow food",
	"safety":    "batter food words",
	"keep":      "batter safety words",
	"recipe":    "batter flow food measure",
	"sauce":     "batter food heat prep words",
	"mixing":    "batter flow food measure portion safety words",
	"worksheet": "balance batter flow food heat lift measure mixing portion prep safety words",
	"base":      "balance batter food lift words worksheet",
	"batch":     "batter flow food happen measure mixing safety words worksheet",
	"griddle":   "batter happen heat keep mixing portion words worksheet",
}

// outside says who alone may know of what lies outside of the project.
var outside = map[string]string{
	"github.com/gin-gonic/gin": "api cmd", "database/sql": "store", "modernc.org/sqlite": "store", "github.com/chromedp/chromedp": "e2e", "github.com/spf13/cobra": "cmd",
}

func TestArrowsAreThoseThatAreAllowed(t *testing.T) {
	cmd := exec.Command("go", "list", "-f", "{{.ImportPath}} {{join .Imports \" \"}}", "./...")
	cmd.Dir = ".."
	out, err := cmd.Output()
	require.NoError(t, err)
	seen := 0
	for line := range strings.SplitSeq(strings.TrimSpace(string(out)), "\n") {
		names := strings.Fields(line)
		room, inside := roomOf(names[0])
		may, known := arrows[room]
		if !assert.True(t, known, "%s has no arrows yet: say in core/imports_test.go what it may know of", room) {
			continue
		}
		for _, to := range names[1:] {
			if who, ok := outside[to]; ok && !slices.Contains(strings.Fields(who), room) {
				t.Errorf("%s knows of %s; only %s may", names[0], to, who)
			}
			other, part := roomOf(to)
			switch {
			case other == "" || other == room && room != "core":
			case other == "core" && room == "core":
				if seen++; inside != part && !slices.Contains(strings.Fields(coreArrows[inside]), part) {
					t.Errorf("core/%s knows of core/%s", inside, part)
				}
			case !slices.Contains(strings.Fields(may), other):
				t.Errorf("%s knows of %s", names[0], to)
			}
		}
	}
	assert.Greater(t, seen, 50, "the packages were listed")
}

// roomOf is the room of a package of the project and its part; nothing for what is not the project's.
func roomOf(path string) (room, part string) {
	rest, ours := strings.CutPrefix(path, "upbeatladle/")
	if !ours {
		return "", ""
	}
	names := strings.SplitN(rest, "/", 3)
	return names[0], append(names, "")[1]
}
