// Package docs_test holds docs and code together: what one names of the other is there.
package docs_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func tracked(t *testing.T, patterns ...string) []string {
	t.Helper()
	cmd := exec.Command("git", append([]string{"ls-files", "--cached", "--others", "--exclude-standard", "--"}, patterns...)...)
	cmd.Dir = ".."
	out, err := cmd.Output()
	require.NoError(t, err)
	var files []string
	for _, f := range strings.Fields(string(out)) {
		if _, err := os.Stat(filepath.Join("..", f)); err == nil { // not one that is being taken away
			files = append(files, f)
		}
	}
	return files
}

func read(t *testing.T, file string) string {
	t.Helper()
	data, err := os.ReadFile(filepath.Join("..", file))
	require.NoError(t, err)
	return string(data)
}

var (
	link     = regexp.MustCompile(`\]\(([^)#\s]+)(#[^)\s]*)?\)`)
	path     = regexp.MustCompile("`((?:core|document|store|house|kitchen|about|api|device|starter|demo|web|e2e|cmd|docs)/[A-Za-z0-9_./-]+)`")
	section  = regexp.MustCompile(`docs/maths\.md (?:section )?(\d+)`)
	heading  = regexp.MustCompile(`(?m)^## (\d+)\.`)
	testName = regexp.MustCompile("`(Test[A-Z]\\w+)`")
	docNamed = regexp.MustCompile(`\bdocs/[a-z_/]+\.md\b`)
)

// Links of the documents, and the files that they name, exist.
func TestDocumentsNameWhatIsThere(t *testing.T) {
	for _, file := range tracked(t, "*.md") {
		text := read(t, file)
		for _, m := range link.FindAllStringSubmatch(text, -1) {
			if strings.Contains(m[1], "://") {
				continue
			}
			_, err := os.Stat(filepath.Join("..", filepath.Dir(file), m[1]))
			assert.NoError(t, err, "%s links to %s", file, m[1])
		}
		for _, m := range path.FindAllStringSubmatch(text, -1) {
			_, err := os.Stat(filepath.Join("..", m[1]))
			assert.NoError(t, err, "%s names %s", file, m[1])
		}
	}
}

// A test that a document calls upon is there.
func TestDocumentsNameTestsThatAreThere(t *testing.T) {
	tests := ""
	for _, file := range tracked(t, "*_test.go") {
		tests += read(t, file)
	}
	for _, file := range tracked(t, "*.md") {
		for _, m := range testName.FindAllStringSubmatch(read(t, file), -1) {
			assert.Contains(t, tests, "\nfunc "+m[1]+"(", "%s names a test", file)
		}
	}
}

// Documents that the code points to exist, and sections of the maths stand there.
func TestCodePointsToWhatIsThere(t *testing.T) {
	sections := map[string]bool{}
	for _, m := range heading.FindAllStringSubmatch(read(t, "docs/maths.md"), -1) {
		sections[m[1]] = true
	}
	require.NotEmpty(t, sections)
	for _, file := range tracked(t, "*.go", "*.ts", "*.vue", "Makefile") {
		text := read(t, file)
		for _, doc := range docNamed.FindAllString(text, -1) {
			_, err := os.Stat(filepath.Join("..", doc))
			assert.NoError(t, err, "%s points to %s", file, doc)
		}
		for _, m := range section.FindAllStringSubmatch(text, -1) {
			assert.True(t, sections[m[1]], "%s points to section %s of the maths", file, m[1])
		}
	}
}
