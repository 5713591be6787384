package api_test

import (
	"bytes"
	"context"
	"database/sql"
	"fmt"
	"net/http"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
	"upbeatladle/store"
)

// atOnce calls n times at the same moment and returns the status of each.
func atOnce(n int, call func(i int) int) []int {
	var all sync.WaitGroup
	begin, out := make(chan struct{}), make([]int, n)
	for i := range n {
		all.Go(func() {
			<-begin
			out[i] = call(i)
		})
	}
	close(begin)
	all.Wait()
	return out
}

// What many ask at once ends as if one had asked after the other.
func TestManyAtOnceAreOneAfterTheOther(t *testing.T) {
	k := open(t)
	ctx := context.Background()
	for _, status := range atOnce(8, func(int) int {
		return k.call("POST", "/api/v1/pantry", `{"format":"upbeat-ladle/pantry-item","version":1,"id":"quay_flour","name":"Quay flour","stands_for":"plain_flour","price_per_kg":2}`, nil).StatusCode
	}) {
		assert.Equal(t, http.StatusCreated, status)
	}
	for _, status := range atOnce(6, func(int) int { return k.call("POST", "/api/v1/bases-starter", "", nil).StatusCode }) {
		assert.Equal(t, http.StatusOK, status)
	}
	file := "id,name,group,role,water_g,carbohydrate_g,sugars_g,ash_g\nquay_jam,Quay jam,topping,topping,30,69,66,1\n"
	for _, status := range atOnce(4, func(int) int {
		return k.call("POST", "/api/v1/pantry-file", file, nil, "Content-Type", "text/csv").StatusCode
	}) {
		assert.Equal(t, http.StatusOK, status)
	}
	ids, bases := map[string]int{}, map[string]int{}
	docs, err := k.st.All(ctx, store.Pantry)
	require.NoError(t, err)
	for _, d := range docs {
		var i document.Item
		require.NoError(t, document.Strict(d.Body, &i))
		ids[i.ID]++
	}
	for id, n := range ids {
		assert.Equal(t, 1, n, "%s", id)
	}
	for i := range 8 {
		id := "quay_flour"
		if i > 0 {
			id = fmt.Sprintf("quay_flour_%d", i+1)
		}
		assert.Contains(t, ids, id)
	}
	assert.Contains(t, ids, "quay_jam")
	if docs, err = k.st.All(ctx, store.Base); assert.NoError(t, err) {
		for _, d := range docs {
			bases[d.Name]++
		}
	}
	for name, n := range bases {
		assert.Equal(t, 1, n, "%s", name)
	}
}

// Every answer, a refusal before anything else as well, tells the browser what it may do.
func TestEveryAnswerIsGuarded(t *testing.T) {
	k := open(t)
	for name, resp := range map[string]*http.Response{
		"a page":         k.call("GET", "/", nil, nil),
		"an answer":      k.call("GET", "/api/v1/bases", nil, nil),
		"nothing there":  k.call("GET", "/api/v1/nothing", nil, nil),
		"a foreign name": k.call("GET", "/", nil, nil, "Host", "bench.example"),
		"another site":   k.call("POST", "/api/v1/bases", "{}", nil, "Sec-Fetch-Site", "cross-site"),
	} {
		for _, h := range []string{"Content-Security-Policy", "X-Content-Type-Options", "Referrer-Policy", "Cross-Origin-Opener-Policy", "Cross-Origin-Resource-Policy", "Permissions-Policy"} {
			assert.NotEmpty(t, resp.Header.Get(h), "%s, %s", name, h)
		}
	}
}

func TestARefusalSpeaksToACook(t *testing.T) {
	k := open(t)
	big := bytes.Repeat([]byte("x"), 40<<20)
	for _, c := range []struct {
		method, path string
		body         any
		status       int
	}{
		{"GET", "/api/v1/bases?limit=many", nil, http.StatusBadRequest},
		{"POST", "/api/v1/archive?dry_run=perhaps", "{}", http.StatusBadRequest},
		{"GET", "/api/v1/exports/variations/x", nil, http.StatusBadRequest},
		{"GET", "/api/v1/exports/variations/x?as=pdf", nil, http.StatusNotFound},
		{"GET", "/api/v1/exports/pantry/x?as=csv", nil, http.StatusNotFound},
		{"GET", "/api/v1/exports/boats/x?as=json", nil, http.StatusNotFound},
		{"POST", "/api/v1/variations", big, http.StatusRequestEntityTooLarge},
		{"POST", "/api/v1/worksheets", big, http.StatusRequestEntityTooLarge},
		{"POST", "/api/v1/pantry-file", big, http.StatusRequestEntityTooLarge},
	} {
		var p problem
		assert.Equal(t, c.status, k.call(c.method, c.path, c.body, &p).StatusCode, c.path)
		require.NotEmpty(t, p.Detail, c.path)
		for _, word := range []string{"strconv", "parsing", "binding", "parameter", "invalid syntax"} {
			assert.NotContains(t, p.Detail, word, c.path)
		}
	}
}

func TestAKitchenWithoutATableIsNotHealthy(t *testing.T) {
	k := open(t)
	assert.Equal(t, http.StatusOK, k.call("GET", "/healthz", nil, nil).StatusCode)
	db, err := sql.Open("sqlite", k.path)
	require.NoError(t, err)
	defer db.Close()
	_, err = db.Exec(`DROP TABLE versions`)
	require.NoError(t, err)
	assert.Equal(t, http.StatusServiceUnavailable, k.call("GET", "/healthz", nil, &problem{}).StatusCode)
}

// A file that another program holds is said to be so; nothing is lost and the next save is kept.
func TestAHeldFileIsSaidToBeHeld(t *testing.T) {
	k := open(t)
	good := k.first("variations")
	db, err := sql.Open("sqlite", k.path+"?_txlock=immediate")
	require.NoError(t, err)
	defer db.Close()
	tx, err := db.Begin()
	require.NoError(t, err)
	var p problem
	assert.Equal(t, http.StatusServiceUnavailable, k.call("POST", "/api/v1/variations", []byte(good.Document), &p).StatusCode)
	assert.Equal(t, store.Locked.Sentence(), p.Detail)
	require.NoError(t, tx.Rollback())
	assert.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/variations", []byte(good.Document), nil).StatusCode)
}
