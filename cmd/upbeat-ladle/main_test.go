package main

import (
	"bufio"
	"context"
	"crypto/tls"
	"crypto/x509"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptrace"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// builtIn is the folder of the real program, empty until a test asked for it; it is taken away after all of them.
var builtIn string

// built makes the real program, once for all tests.
var built = sync.OnceValues(func() (bin string, err error) {
	if builtIn, err = os.MkdirTemp("", "program"); err != nil {
		return "", err
	}
	bin = filepath.Join(builtIn, "upbeat-ladle")
	if out, err := exec.Command("go", "build", "-o", bin, ".").CombinedOutput(); err != nil {
		return "", fmt.Errorf("%w: %s", err, out)
	}
	return bin, nil
})

// program is the real program.
func program(t *testing.T) string {
	t.Helper()
	bin, err := built()
	require.NoError(t, err)
	return bin
}

const variation = `{"format":"upbeat-ladle/variation","version":1,"name":"x","form":"pancake","base":{"name":"b","lines":[
 {"ingredient":"plain_flour","amount":250,"unit":"g"},{"ingredient":"milk_whole","amount":400,"unit":"g"}]},
 "additions":[{"ingredient":"beetroot_cooked","amount":200,"unit":"g"}]}`

func TestProgram(t *testing.T) {
	bin := program(t)
	written := func(name, text string) string {
		at := filepath.Join(t.TempDir(), name)
		require.NoError(t, os.WriteFile(at, []byte(text), 0o600))
		return at
	}
	const usual = `{"format":"upbeat-ladle/setting","version":1,"stamp":"","rules":"","table":"","today":"2026-12-01","kitchen":{"format":"upbeat-ladle/kitchen","version":1,"name":"Cellar"},"pantry":[],"sauces":[]}`
	setting, noSetting := written("setting.json", usual), written("none.json", strings.Replace(usual, "2026-12-01", "today", 1))
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
			"a recipe":           {[]string{"read", "-"}, "Plain\n\n1 1/2 cups plain flour, sifted\n2 eggs\n300 ml milk", 0, `"amount":1.5,"unit":"cup","note":"sifted"`},
			"a question":         {[]string{"ask", "amounts", "-"}, `{"text":"1 1/2"}`, 0, `{"amount":1.5}`},
			"in a setting":       {[]string{"ask", "worksheets", "-", "--setting", setting}, variation, 0, `"mass_g"`},
			"in no setting":      {[]string{"ask", "worksheets", "-", "--setting", noSetting}, variation, 2, "Write the day as"},
			"all questions":      {[]string{"ask"}, "", 0, "fingerprints"},
			"no such question":   {[]string{"ask", "weather", "-"}, "{}", 2, "there is no question"},
			"half a question":    {[]string{"ask", "amounts"}, "", 2, "name a question and one document"},
			"the version":        {[]string{"--version"}, "", 0, "upbeat-ladle version 0.1.0"},
			"the notices":        {[]string{"notices"}, "", 0, "SIL OPEN FONT LICENSE"},
			"no recipe":          {[]string{"read", "-"}, "It rained.", 2, "No ingredient was recognised"},
			"house flags":        {[]string{"serve", "--db", filepath.Join(t.TempDir(), "z.db"), "--addr", "127.0.0.1:0", "--host", "hatch.local"}, "", 2, "go with --lan"},
			"half a pair":        {[]string{"serve", "--lan", "--db", filepath.Join(t.TempDir(), "z.db"), "--addr", "127.0.0.1:0", "--cert", "a.crt"}, "", 2, "go together"},
			"an easy passcode":   {[]string{"passcode", "--db", filepath.Join(t.TempDir(), "z.db")}, "password123\n", 2, "guessed first"},
			"no argument":        {[]string{"work"}, "", 2, "name one variation"},
			"far device":         {[]string{"serve", "--db", filepath.Join(t.TempDir(), "y.db"), "--addr", "127.0.0.1:0", "--scale", "kitchen"}, "", 2, "address of a device"},
			"far address":        {[]string{"serve", "--addr", "0.0.0.0:80", "--db", filepath.Join(t.TempDir(), "x.db")}, "", 2, "say --lan"},
		} {
			cmd := exec.Command(bin, c.args...)
			cmd.Stdin = strings.NewReader(c.stdin)
			out, _ := cmd.CombinedOutput()
			assert.Equal(t, c.code, cmd.ProcessState.ExitCode(), "%s: %s", name, out)
			assert.Contains(t, string(out), c.says, name)
		}
	})
	t.Run("serve", func(t *testing.T) { serveAndStop(t, bin) })
	t.Run("backup and restore", func(t *testing.T) { backedUp(t, bin) })
	t.Run("stopped in the middle", func(t *testing.T) { stoppedInTheMiddle(t, bin) })
	t.Run("house", func(t *testing.T) { openToTheHouse(t, bin) })
	t.Run("devices", func(t *testing.T) { devicesAndServe(t, bin) })
}

// start runs the program until the test ends and returns the first lines that it prints.
func start(t *testing.T, bin string, lines int, args ...string) []string {
	t.Helper()
	cmd := exec.Command(bin, args...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.Stderr = os.Stderr
	require.NoError(t, cmd.Start())
	t.Cleanup(func() {
		require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
		assert.NoError(t, cmd.Wait(), "a graceful stop")
	})
	var got []string
	for sc := bufio.NewScanner(out); len(got) < lines && sc.Scan(); {
		got = append(got, sc.Text())
	}
	return got
}

// openToTheHouse serves a house: the passcode is told once, the page without TLS says how to
// trust, and another passcode by command counts at once.
func openToTheHouse(t *testing.T, bin string) {
	db := filepath.Join(t.TempDir(), "house.db")
	t.Run("first", func(t *testing.T) {
		said := strings.Join(start(t, bin, 6, "serve", "--lan", "--db", db, "--addr", "127.0.0.1:0"), "\n")
		at := regexp.MustCompile(`https://(\S+)`).FindStringSubmatch(said)
		require.Len(t, at, 2, said)
		passcode := regexp.MustCompile(`passcode is  (\S+)`).FindStringSubmatch(said)
		require.Len(t, passcode, 2, said)
		assert.Regexp(t, `([0-9A-F]{2} ){31}[0-9A-F]{2}`, said)
		resp, err := http.Get("http://" + at[1] + "/upbeat-ladle.crt")
		require.NoError(t, err)
		root, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		resp.Body.Close()
		trusted, err := x509.ParseCertificate(root)
		require.NoError(t, err)
		roots := x509.NewCertPool()
		roots.AddCert(trusted)
		c := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}}}
		defer c.CloseIdleConnections()
		signIn := func(passcode string) int {
			resp, err := c.Post("https://"+at[1]+"/api/v1/session", "application/json", strings.NewReader(`{"passcode":"`+passcode+`"}`))
			require.NoError(t, err)
			resp.Body.Close()
			return resp.StatusCode
		}
		assert.Equal(t, http.StatusOK, signIn(passcode[1]))
		cmd := exec.Command(bin, "passcode", "--db", db)
		cmd.Stdin = strings.NewReader("plum-ferry-oak-zest\n")
		out, err := cmd.CombinedOutput()
		require.NoError(t, err, string(out))
		assert.Equal(t, http.StatusUnauthorized, signIn(passcode[1]))
		assert.Equal(t, http.StatusOK, signIn("plum-ferry-oak-zest"))
	})
	t.Run("again", func(t *testing.T) {
		said := strings.Join(start(t, bin, 3, "serve", "--lan", "--plain", "--db", db, "--addr", "127.0.0.1:0"), "\n")
		assert.NotContains(t, said, "passcode is")
		assert.Contains(t, said, "can read along")
	})
}

// devicesAndServe starts the stand-ins as a program of their own and serves a kitchen that
// reaches for them.
func devicesAndServe(t *testing.T, bin string) {
	at := start(t, bin, 2, "devices", "--scale-addr", "127.0.0.1:0", "--refractometer-addr", "127.0.0.1:0")
	require.Len(t, at, 2)
	scale, glass := strings.TrimPrefix(at[0], "scale "), strings.TrimPrefix(at[1], "refractometer ")
	said := start(t, bin, 1, "serve", "--db", filepath.Join(t.TempDir(), "own.db"), "--addr", "127.0.0.1:0", "--scale", scale, "--refractometer", glass)
	url := regexp.MustCompile(`http://\S+`).FindString(said[0])
	post := func(path, body string) int {
		resp, err := http.Post(url+"/api/v1/devices"+path, "application/json", strings.NewReader(body))
		require.NoError(t, err)
		resp.Body.Close()
		return resp.StatusCode
	}
	require.Eventually(t, func() bool { return post("/scale/load", `{"grams":300}`) == http.StatusNoContent }, 10*time.Second, 20*time.Millisecond)
	require.Equal(t, http.StatusNoContent, post("/refractometer/sample", `{"brix":14,"sample_c":25}`))
	assert.Equal(t, http.StatusOK, post("/refractometer/readings", ""))
}

// stoppedInTheMiddle asks the program to stop while a save is on its way and a stream is open:
// the save is answered and kept, the stream ends, and nobody is told of a failure.
func stoppedInTheMiddle(t *testing.T, bin string) {
	db := filepath.Join(t.TempDir(), "middle.db")
	cmd := exec.Command(bin, "serve", "--demo", "--db", db, "--addr", "127.0.0.1:0")
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	line := bufio.NewScanner(out)
	require.True(t, line.Scan())
	url := regexp.MustCompile(`http://\S+`).FindString(line.Text())
	stream, err := http.Get(url + "/api/v1/devices/scale/events")
	require.NoError(t, err)
	defer stream.Body.Close()

	body, feed := io.Pipe()
	underway := make(chan struct{})
	trace := httptrace.WithClientTrace(t.Context(), &httptrace.ClientTrace{Got100Continue: func() { close(underway) }})
	req, err := http.NewRequestWithContext(trace, "POST", url+"/api/v1/variations", body)
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Expect", "100-continue") // tells when the program begins to read
	answered := make(chan int, 1)
	go func() {
		resp, err := http.DefaultClient.Do(req)
		if err != nil {
			answered <- 0
			return
		}
		resp.Body.Close()
		answered <- resp.StatusCode
	}()
	<-underway
	_, err = io.WriteString(feed, variation[:100])
	require.NoError(t, err)
	_, err = io.ReadAtLeast(stream.Body, make([]byte, 10), 10)
	require.NoError(t, err, "the stream runs")
	stopped := time.Now()
	require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
	_, err = io.Copy(io.Discard, stream.Body)
	assert.NoError(t, err, "the stream ends as streams do")
	_, err = io.WriteString(feed, variation[100:])
	require.NoError(t, err)
	require.NoError(t, feed.Close())
	assert.Equal(t, http.StatusCreated, <-answered, "the save is let finish")
	assert.NoError(t, cmd.Wait(), "a graceful stop")
	assert.Less(t, time.Since(stopped), graceToStop+time.Second)
}

// serveAndStop takes the program's usual port away from it, sees it take the next, write its demo
// once, answer, and stop when asked to. A port that somebody asked for is that one or none.
func serveAndStop(t *testing.T, bin string) {
	if taken, err := net.Listen("tcp", thisMachine); err == nil { // else somebody else has it
		defer taken.Close()
	}
	other, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer other.Close()
	said, err := exec.Command(bin, "serve", "--db", filepath.Join(t.TempDir(), "k.db"), "--addr", other.Addr().String()).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(said), "--addr "+other.Addr().String()+" is in use")
	db := filepath.Join(t.TempDir(), "new folder", "demo.db")
	for range 2 {
		ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
		defer cancel()
		cmd := exec.CommandContext(ctx, bin, "serve", "--demo", "--db", db)
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		cmd.Stderr = os.Stderr
		require.NoError(t, cmd.Start())
		line := make([]byte, 200)
		n, err := out.Read(line)
		require.NoError(t, err)
		url := regexp.MustCompile(`http://\S+`).FindString(string(line[:n]))
		require.NotContains(t, url, thisMachine, "the next free port")
		resp, err := http.Get(url + "/api/v1/variations")
		require.NoError(t, err)
		data, _ := io.ReadAll(resp.Body)
		resp.Body.Close()
		assert.Equal(t, 1, strings.Count(string(data), "Courgette"), "the demo is written once")
		require.NoError(t, cmd.Process.Signal(syscall.SIGTERM))
		assert.NoError(t, cmd.Wait(), "a graceful stop")
	}
}
