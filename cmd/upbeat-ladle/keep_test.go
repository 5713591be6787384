package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// backedUp copies a kitchen while its bench is open, and puts it back where another one was.
func backedUp(t *testing.T, bin string) {
	dir := t.TempDir()
	db, copied := filepath.Join(dir, "k.db"), filepath.Join(dir, "copy.db")
	call := func(args ...string) (string, int) {
		cmd := exec.Command(bin, args...)
		out, _ := cmd.CombinedOutput()
		return string(out), cmd.ProcessState.ExitCode()
	}
	t.Run("while it is open", func(t *testing.T) {
		start(t, bin, 1, "serve", "--demo", "--db", db, "--addr", "127.0.0.1:0")
		days := filepath.Join(dir, "k-days", time.Now().Format("2006-01-02")+".db")
		assert.Eventually(t, func() bool { _, err := os.Stat(days); return err == nil }, 10*time.Second, 10*time.Millisecond, "the copy of the day")
		out, code := call("backup", copied, "--db", db)
		assert.Zero(t, code, out)
		assert.Contains(t, out, "was read through once")
		out, code = call("restore", copied, "--db", db)
		assert.NotZero(t, code)
		assert.Contains(t, out, "close it")
	})
	require.NoError(t, os.WriteFile(db, nil, 0o600))
	out, code := call("serve", "--db", db, "--addr", "127.0.0.1:0")
	assert.Equal(t, exitFailed, code)
	assert.Contains(t, out, "upbeat-ladle restore")
	out, code = call("restore", copied, "--db", db)
	assert.Zero(t, code, out)
	said := start(t, bin, 1, "serve", "--db", db, "--addr", "127.0.0.1:0")
	assert.Contains(t, kept(t, said[0]), "Courgette, dill & feta")
	out, code = call("backup", "--db", db)
	assert.NotZero(t, code, out)
}

// kept are the names of what a running program keeps.
func kept(t *testing.T, said string) map[string]bool {
	t.Helper()
	url, names := regexp.MustCompile(`http://\S+`).FindString(said), map[string]bool{}
	for after := ""; ; {
		resp, err := http.Get(url + "/api/v1/variations?limit=200&after=" + after)
		require.NoError(t, err)
		var page struct {
			Items []struct{ Name string }
			Next  string
		}
		require.NoError(t, json.NewDecoder(resp.Body).Decode(&page))
		resp.Body.Close()
		for _, i := range page.Items {
			names[i.Name] = true
		}
		if after = strings.ReplaceAll(page.Next, " ", "%20"); after == "" {
			return names
		}
	}
}

// What was acknowledged is there after the program was killed, round after round.
// KILL_ROUNDS=1000 is the long run.
func TestWhatWasAcknowledgedSurvivesAKill(t *testing.T) {
	rounds := 100
	if n, err := strconv.Atoi(os.Getenv("KILL_ROUNDS")); err == nil {
		rounds = n
	}
	bin, db := program(t), filepath.Join(t.TempDir(), "k.db")
	acknowledged := map[string]bool{}
	for round := range rounds {
		cmd := exec.Command(bin, "serve", "--db", db, "--addr", "127.0.0.1:0")
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		line := bufio.NewScanner(out)
		require.True(t, line.Scan(), "round %d", round)
		url := regexp.MustCompile(`http://\S+`).FindString(line.Text())
		var mu sync.Mutex
		var writers sync.WaitGroup
		enough := make(chan struct{})
		for w := range 3 {
			writers.Go(func() {
				for n := 0; ; n++ {
					name := fmt.Sprintf("round %d writer %d save %d", round, w, n)
					resp, err := http.Post(url+"/api/v1/variations", "application/json", strings.NewReader(strings.Replace(variation, `"name":"x"`, `"name":"`+name+`"`, 1)))
					if err != nil {
						return // killed
					}
					resp.Body.Close()
					if resp.StatusCode == http.StatusCreated {
						mu.Lock()
						acknowledged[name] = true
						mu.Unlock()
					}
					if n == round%4 && w == 0 {
						close(enough)
					}
				}
			})
		}
		<-enough
		require.NoError(t, cmd.Process.Kill())
		writers.Wait()
		_ = cmd.Wait() // it was killed
	}
	there := kept(t, start(t, bin, 1, "serve", "--db", db, "--addr", "127.0.0.1:0")[0])
	for name := range acknowledged {
		assert.True(t, there[name], "%s was acknowledged", name)
	}
	t.Logf("%d rounds, %d acknowledged", rounds, len(acknowledged))
}

// An import that is killed anywhere on its way leaves all of it, or nothing.
func TestAKilledImportIsAllOrNothing(t *testing.T) {
	const variations, rounds = 400, 25
	var docs []string
	for i := range variations {
		docs = append(docs, fmt.Sprintf(`{"id":"v%d","document":%s}`, i, strings.Replace(variation, `"name":"x"`, fmt.Sprintf(`"name":"No. %d"`, i), 1)))
	}
	file := `{"format":"upbeat-ladle/archive","version":1,"variations":[` + strings.Join(docs, ",") + `]}`
	bin, none, whole := program(t), 0, 0
	for round := range rounds {
		db := filepath.Join(t.TempDir(), "k.db")
		cmd := exec.Command(bin, "serve", "--db", db, "--addr", "127.0.0.1:0")
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		line := bufio.NewScanner(out)
		require.True(t, line.Scan())
		resp, err := http.Post(regexp.MustCompile(`http://\S+`).FindString(line.Text())+"/api/v1/archive", "application/json", strings.NewReader(file))
		require.NoError(t, err)
		signs := bufio.NewScanner(resp.Body)
		last := ""
		for n := 0; (n <= round%7 || round%7 == 6) && signs.Scan(); n++ { // 0, 100 … 400, and to the end
			last = signs.Text()
		}
		if round%7 == 5 { // while it writes: as late as the round says
			for range round * 20_000 {
				runtime.Gosched()
			}
		}
		require.NoError(t, cmd.Process.Kill())
		resp.Body.Close()
		_ = cmd.Wait() // it was killed
		t.Run("", func(t *testing.T) {
			switch n := len(kept(t, start(t, bin, 1, "serve", "--db", db, "--addr", "127.0.0.1:0")[0])); n {
			case 0:
				none++
			case variations:
				whole++
				return
			default:
				t.Errorf("round %d: %d of %d were kept", round, n, variations)
			}
			assert.NotEqual(t, 6, round%7, "it said that all is kept: %.200s", last)
		})
	}
	t.Logf("%d rounds: nothing %d times, all %d times", rounds, none, whole)
	assert.NotZero(t, none)
	assert.NotZero(t, whole)
}

// What was ticked and acknowledged is there after the program was killed in the middle of a bowl, round after
// round; what was under way counts once when the tablet sends it again, and the bowl goes on where it was.
func TestABowlSurvivesAKill(t *testing.T) {
	rounds := 30
	bin, db := program(t), filepath.Join(t.TempDir(), "k.db")
	post := func(url, path, body string) (int, []byte) {
		resp, err := http.Post(url+"/api/v1"+path, "application/json", strings.NewReader(body))
		if err != nil {
			return 0, nil // killed
		}
		defer resp.Body.Close()
		data, err := io.ReadAll(resp.Body)
		if err != nil {
			return 0, nil
		}
		return resp.StatusCode, data
	}
	var batch string
	acknowledged, underWay := map[string]bool{}, ""
	for round := range rounds {
		cmd := exec.Command(bin, "serve", "--db", db, "--addr", "127.0.0.1:0")
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		line := bufio.NewScanner(out)
		require.True(t, line.Scan(), "round %d", round)
		url := regexp.MustCompile(`http://\S+`).FindString(line.Text())
		if batch == "" {
			code, data := post(url, "/batches", `{"variation":`+variation+`}`)
			require.Equal(t, http.StatusCreated, code, string(data))
			var b struct{ ID string }
			require.NoError(t, json.Unmarshal(data, &b))
			batch = b.ID
		}
		tick := func(id string) bool {
			code, _ := post(url, "/batches/"+batch+"/events", fmt.Sprintf(`{"id":%q,"kind":"stirred_in","grams":1}`, id))
			return code == http.StatusOK
		}
		if underWay != "" { // the tablet sends it again
			require.True(t, tick(underWay))
			acknowledged[underWay] = true
		}
		enough, ended := make(chan struct{}), make(chan struct{})
		go func() {
			defer close(ended)
			for n := 0; ; n++ {
				underWay = fmt.Sprintf("round %d tick %d", round, n)
				if !tick(underWay) {
					return
				}
				acknowledged[underWay] = true
				if n == round%5 {
					close(enough)
				}
			}
		}()
		<-enough
		require.NoError(t, cmd.Process.Kill())
		<-ended
		_ = cmd.Wait() // it was killed
	}
	url := regexp.MustCompile(`http://\S+`).FindString(start(t, bin, 1, "serve", "--db", db, "--addr", "127.0.0.1:0")[0])
	resp, err := http.Get(url + "/api/v1/batches/" + batch + "/document")
	require.NoError(t, err)
	defer resp.Body.Close()
	var doc struct{ Events []struct{ ID string } }
	require.NoError(t, json.NewDecoder(resp.Body).Decode(&doc))
	times := map[string]int{}
	for _, e := range doc.Events {
		times[e.ID]++
	}
	for id := range acknowledged {
		assert.Equal(t, 1, times[id], "%s was acknowledged", id)
	}
	t.Logf("%d rounds, %d ticks", rounds, len(acknowledged))
}
