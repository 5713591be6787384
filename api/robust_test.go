package api_test

import (
	"context"
	"encoding/json"
	"math"
	"net/http"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/store"
)

// One document that this program cannot read any more stands in nobody's way: it is there, says
// what is wrong, can be opened and taken out, and everything else goes on.
func TestOneBadDocumentBlocksNothing(t *testing.T) {
	k := open(t)
	ctx := context.Background()
	good := k.first("variations")
	save := func(kind store.Kind, name, body string) store.Document {
		d, err := k.st.Create(ctx, kind, store.Content{Name: name, Form: "pancake", Body: []byte(body)}, "")
		require.NoError(t, err)
		return d
	}
	tub := save(store.Pantry, "From tomorrow", `{"format":"upbeat-ladle/pantry-item","version":1,"id":"x","name":"From tomorrow","glow":3}`)
	impossible := save(store.Pantry, "Impossible", `{"format":"upbeat-ladle/pantry-item","version":1,"id":"y","name":"Impossible","group":"puree","role":"puree","water_g":400}`)
	lost := save(store.Variation, "Lost its fruit", strings.Replace(string(good.Document), `"ingredient":"plain_flour"`, `"ingredient":"gone_flour"`, 1))
	damaged := save(store.Base, "Damaged", `{"format":"upbeat-la`)

	var pantry struct {
		Items    []json.RawMessage
		Troubled []struct{ ID, Name, Trouble string }
	}
	assert.Equal(t, http.StatusOK, k.call("GET", "/api/v1/pantry", nil, &pantry).StatusCode)
	assert.NotEmpty(t, pantry.Items)
	require.Len(t, pantry.Troubled, 2)
	for _, p := range pantry.Troubled {
		assert.NotEmpty(t, p.Trouble, p.Name)
		assert.NotContains(t, p.Trouble, "json:")
	}
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/worksheets", []byte(good.Document), nil).StatusCode, "worksheets go on")
	for _, path := range []string{"/api/v1/ingredients", "/api/v1/bases-shelf", "/api/v1/bases", "/api/v1/archive", "/api/v1/pantry-file"} {
		assert.Equal(t, http.StatusOK, k.call("GET", path, nil, nil).StatusCode, path)
	}

	var list struct {
		Items []struct {
			ID, Name, Verdict string
			Picture           struct{ Trouble, Allergens string }
		}
	}
	k.call("GET", "/api/v1/variations", nil, &list)
	for _, i := range list.Items {
		if i.ID == lost.ID {
			assert.Contains(t, i.Picture.Trouble, "There is no ingredient “gone_flour”")
			assert.Equal(t, "needs mending", i.Verdict)
		} else {
			assert.Contains(t, strings.ToLower(i.Picture.Allergens), "check every pack", i.Name)
		}
	}
	var opened savedDoc
	assert.Equal(t, http.StatusOK, k.call("GET", "/api/v1/variations/"+lost.ID, nil, &opened).StatusCode)
	mended := strings.Replace(string(opened.Document), "gone_flour", "plain_flour", 1)
	assert.Equal(t, http.StatusOK, k.call("PUT", "/api/v1/variations/"+lost.ID, mended, nil, "If-Match", `"1"`).StatusCode)

	var p problem
	assert.Equal(t, http.StatusUnprocessableEntity, k.call("GET", "/api/v1/bases/"+damaged.ID, nil, &p).StatusCode)
	assert.Contains(t, p.Detail, "“Damaged” is damaged")
	for path, id := range map[string]string{"bases": damaged.ID, "pantry": tub.ID} {
		assert.Equal(t, http.StatusOK, k.call("GET", "/api/v1/exports/"+path+"/"+id+"?as=json", nil, nil).StatusCode)
	}
	assert.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/pantry/"+impossible.ID, nil, nil).StatusCode)
	assert.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/bases/"+damaged.ID, nil, nil).StatusCode)
}

// A revision of 2^63−1 in an archive once made every worksheet answer 500 for good.
func TestAnArchiveFromElsewhereHasNoRevisionThatOverflows(t *testing.T) {
	k := open(t)
	good := k.first("variations")
	item := `{"format":"upbeat-ladle/pantry-item","version":1,"id":"far","name":"Far tub","stands_for":"plain_flour","price_per_kg":2}`
	text := `{"format":"upbeat-ladle/archive","version":1,"pantry":[{"id":"0197","revision":` + strconv.Itoa(math.MaxInt64) + `,"document":` + item + `},` +
		`{"id":"0198","revision":7,"document":` + strings.NewReplacer("far", "near", "Far", "Near").Replace(item) + `}]}`
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/archive", text, nil).StatusCode)
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/worksheets", []byte(good.Document), nil).StatusCode)
	assert.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/variations", []byte(good.Document), nil).StatusCode)
	d, err := k.st.Get(context.Background(), store.Pantry, "0197")
	require.NoError(t, err)
	assert.EqualValues(t, 1, d.Revision)
	assert.Equal(t, http.StatusOK, k.call("PUT", "/api/v1/pantry/0197", strings.Replace(item, ":2}", ":3}", 1), nil, "If-Match", `"1"`).StatusCode)
}

// What is worked out for a client that left is given up, and nobody is told of a failure.
func TestAWishOfSomebodyWhoLeftIsGivenUp(t *testing.T) {
	k := open(t)
	good := k.first("variations")
	body := `{"variation":` + string(good.Document) + `,"bowls":5000,"seed":1}`
	ctx, cancel := context.WithCancel(context.Background())
	req, err := http.NewRequestWithContext(ctx, "POST", k.url+"/api/v1/simulations", strings.NewReader(body))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	cancel()
	_, err = http.DefaultClient.Do(req)
	assert.ErrorIs(t, err, context.Canceled)
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/worksheets", []byte(good.Document), nil).StatusCode)
}
