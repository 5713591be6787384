package main

import (
	"context"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// program builds the real program once.
func program(t *testing.T) string {
	t.Helper()
	bin := filepath.Join(t.TempDir(), "upbeat-ladle")
	out, err := exec.Command("go", "build", "-o", bin, ".").CombinedOutput()
	require.NoError(t, err, string(out))
	return bin
}

const variation = `{"format":"upbeat-ladle/variation","version":1,"name":"x","form":"pancake","base":{"name":"b","lines":[
 {"ingredient":"plain_flour","amount":250,"unit":"g"},{"ingredient":"milk_whole","amount":400,"unit":"g"}]},
 "additions":[{"ingredient":"beetroot_cooked","amount":200,"unit":"g"}]}`

func TestProgram(t *testing.T) {
	bin := program(t)
	t.Run("work", func(t *testing.T) {
		for name, c := range map[string]struct {
			args  []string
			stdin string
			code  int
			says  string
		}{
			"a document":         {[]string{"work", "-"}, variation, 0, `"upbeat-ladle/worksheet"`},
			"unknown ingredient": {[]string{"work", "-"}, strings.Replace(variation, "beetroot_cooked", "beetrot", 1), 2, "There is no ingredient “beetrot”"},
			"broken JSON":        {[]string{"work", "-"}, "{", 2, "not complete JSON"},
			"too large":          {[]string{"work", "-"}, strings.Repeat(" ", 2<<20), 2, "larger than"},
			"no file":            {[]string{"work", "/no/such/file"}, "", 2, "cannot be opened"},
			"no argument":        {[]string{"work"}, "", 2, "name one variation"},
			"far address":        {[]string{"serve", "--addr", "0.0.0.0:80", "--db", filepath.Join(t.TempDir(), "x.db")}, "", 2, "127.0.0.1"},
		} {
			cmd := exec.Command(bin, c.args...)
			cmd.Stdin = strings.NewReader(c.stdin)
			out, _ := cmd.CombinedOutput()
			assert.Equal(t, c.code, cmd.ProcessState.ExitCode(), "%s: %s", name, out)
			assert.Contains(t, string(out), c.says, name)
		}
	})
	t.Run("serve", func(t *testing.T) { serveAndStop(t, bin) })
}

// serveAndStop takes a port away from the program, sees it take the next, write its demo
// once, answer, and stop when asked to.
func serveAndStop(t *testing.T, bin string) {
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer taken.Close()
	db := filepath.Join(t.TempDir(), "new folder", "demo.db")
	for range 2 {
		ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
		defer cancel()
		cmd := exec.CommandContext(ctx, bin, "serve", "--demo", "--db", db, "--addr", taken.Addr().String())
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		cmd.Stderr = os.Stderr
		require.NoError(t, cmd.Start())
		line := make([]byte, 200)
		n, err := out.Read(line)
		require.NoError(t, err)
		url := regexp.MustCompile(`http://\S+`).FindString(string(line[:n]))
		require.NotContains(t, url, taken.Addr().String(), "the next free port")
		resp, err := http.Get(url + "/api/v1/variations")
		require.NoError(t, err)
		data, _ := io.ReadAll(resp.Body)
		resp.Body.Close()
		assert.Equal(t, 1, strings.Count(string(data), "Courgette"), "the demo is written once")
		require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
		assert.NoError(t, cmd.Wait(), "a graceful stop")
	}
}
