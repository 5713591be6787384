package api_test

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// half begins a request over a line of its own, from an address of this machine, and sends so much of its body.
func half(t *testing.T, k kitchen, from, method, path, body string, sent int) net.Conn {
	t.Helper()
	d := net.Dialer{LocalAddr: &net.TCPAddr{IP: net.ParseIP(from)}}
	conn, err := d.Dial("tcp", strings.TrimPrefix(k.url, "http://"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = conn.Close() })
	_, err = fmt.Fprintf(conn, "%s %s HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: %d\r\n\r\n%s", method, path, len(body), body[:sent])
	require.NoError(t, err)
	return conn
}

func answerOf(t *testing.T, conn net.Conn) (*http.Response, string) {
	t.Helper()
	require.NoError(t, conn.SetReadDeadline(time.Now().Add(30*time.Second)))
	resp, err := http.ReadResponse(bufio.NewReader(conn), nil)
	require.NoError(t, err)
	defer resp.Body.Close()
	said, _ := io.ReadAll(resp.Body)
	return resp, string(said)
}

// Tablets that leave in the middle of a sentence keep nobody waiting: saves, questions and passcodes go on; a few are waited for, not
// more; and whoever comes back in time is heard.
func TestAnUnfinishedBodyStopsNobody(t *testing.T) {
	t.Parallel() // it waits for what does not come
	k := open(t)
	good := k.first("variations")
	put := "/api/v1/variations/" + good.ID
	body := `{"variation":` + string(good.Document) + `}`
	type answer struct {
		of   int
		resp *http.Response
		said string
	}
	three, of := make(chan answer, 3), []net.Conn{}
	for i, method := range []string{"POST /api/v1/comparisons", "POST /api/v1/comparisons", "POST /api/v1/session"} {
		verb, path, _ := strings.Cut(method, " ")
		conn := half(t, k, "127.0.0.2", verb, path, body, 1)
		of = append(of, conn)
		go func() {
			resp, said := answerOf(t, conn)
			three <- answer{i, resp, said}
		}()
	}
	one := <-three
	assert.Equal(t, http.StatusServiceUnavailable, one.resp.StatusCode, "one address lets the program wait for two")
	assert.Contains(t, one.said, "try again in a few seconds")
	answers := make(chan int, 7)
	for i := range 7 {
		conn := half(t, k, fmt.Sprintf("127.0.0.%d", 3+i), "POST", []string{"/api/v1/worksheets", "/api/v1/batches", "/api/v1/archive"}[i%3], body, 1)
		go func() {
			resp, err := http.ReadResponse(bufio.NewReader(conn), nil)
			if err != nil {
				answers <- 0
				return
			}
			answers <- resp.StatusCode
		}()
	}
	assert.Equal(t, http.StatusServiceUnavailable, <-answers, "in all it waits for eight")
	var saved savedDoc
	assert.Equal(t, http.StatusOK, k.call("PUT", put, []byte(strings.Replace(string(good.Document), `"name":"`, `"name":"Still `, 1)), &saved, "If-Match", `"1"`).StatusCode)
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/worksheets", []byte(good.Document), nil).StatusCode)
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/archive?dry_run=true", []byte(good.Document), nil).StatusCode)
	stays := min((one.of+1)%3, (one.of+2)%3) // a comparison
	_, err := io.WriteString(of[stays], body[1:])
	require.NoError(t, err)
	heard := <-three
	assert.Equal(t, stays, heard.of)
	assert.Equal(t, http.StatusBadRequest, heard.resp.StatusCode, "it is heard to the end, and answered: a comparison wants two")
	for range 6 {
		assert.Equal(t, http.StatusRequestTimeout, <-answers, "the rest is not waited for for ever")
	}
}

// A file may take longer than a document, as long as it goes on.
func TestAFileIsHeardAsLongAsItGoesOn(t *testing.T) {
	k := open(t)
	good := k.first("variations")
	file := `{"format":"upbeat-ladle/archive","version":1,"variations":[{"document":` + string(good.Document) + `}]}`
	conn := half(t, k, "127.0.0.1", "POST", "/api/v1/archive?dry_run=true", file, 10)
	for _, part := range []string{file[10:100], file[100:1000], file[1000:]} {
		_, err := io.WriteString(conn, part)
		require.NoError(t, err)
	}
	resp, said := answerOf(t, conn)
	assert.Equal(t, http.StatusOK, resp.StatusCode, said)
}

// Fifty questions of heat starve neither a drag on the bench nor a save.
func TestHeatStarvesNobody(t *testing.T) {
	k := open(t)
	good := k.first("variations")
	var all sync.WaitGroup
	asked := make(chan bool, 50)
	for range 50 {
		all.Go(func() {
			asked <- true
			resp, err := http.Post(k.url+"/api/v1/worksheets?include=cook,curves", "application/json", strings.NewReader(string(good.Document)))
			if err == nil {
				_, _ = io.Copy(io.Discard, resp.Body)
				resp.Body.Close()
			}
		})
	}
	for range 50 {
		<-asked
	}
	revision := 1
	for i := range 5 {
		assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/worksheets", []byte(good.Document), nil).StatusCode)
		named := strings.Replace(string(good.Document), `"name":"`, fmt.Sprintf(`"name":"%d `, i), 1)
		assert.Equal(t, http.StatusOK, k.call("PUT", "/api/v1/variations/"+good.ID, named, nil, "If-Match", fmt.Sprintf("%q", fmt.Sprint(revision))).StatusCode)
		revision++
	}
	all.Wait()
}
