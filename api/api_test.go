package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/legacy"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/demo/copied"
	"upbeatladle/document"
	"upbeatladle/store"
)

// kitchen is the real program over a real SQLite file, with a front end of one page.
type kitchen struct {
	t   *testing.T
	url string
	st  *store.Store

	path string // of the database
}

func open(t *testing.T) kitchen {
	t.Helper()
	return over(t, copied.Open)
}

// over serves a kitchen that begin opens.
func over(t *testing.T, begin func(ctx context.Context, path string, now func() time.Time) (*store.Store, error)) kitchen {
	t.Helper()
	path := filepath.Join(t.TempDir(), "api.db")
	st, err := begin(context.Background(), path, time.Now)
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	dist := fstest.MapFS{"index.html": {Data: []byte("<!doctype html>bench")}, "assets/a.js": {Data: []byte("1")}}
	srv := httptest.NewUnstartedServer(api.New(api.Parts{Store: st, Table: food.Reference(), Pages: dist, Log: slog.New(slog.DiscardHandler), Now: time.Now}))
	api.Harden(srv.Config, api.Door{})
	srv.Start()
	t.Cleanup(srv.Close)
	return kitchen{t, srv.URL, st, path}
}

// call sends a request and decodes the answer into out when that is not nil.
func (k kitchen) call(method, path string, body any, out any, headers ...string) *http.Response {
	k.t.Helper()
	var r io.Reader
	switch b := body.(type) {
	case nil:
	case string:
		r = strings.NewReader(b)
	case []byte:
		r = bytes.NewReader(b)
	default:
		data, err := json.Marshal(b)
		require.NoError(k.t, err)
		r = bytes.NewReader(data)
	}
	req, err := http.NewRequest(method, k.url+path, r)
	require.NoError(k.t, err)
	if r != nil {
		req.Header.Set("Content-Type", "application/json")
	}
	for i := 0; i < len(headers); i += 2 {
		req.Header.Set(headers[i], headers[i+1])
		if headers[i] == "Host" {
			req.Host = headers[i+1]
		}
	}
	resp, err := http.DefaultClient.Do(req)
	require.NoError(k.t, err)
	defer resp.Body.Close()
	data, err := io.ReadAll(resp.Body)
	require.NoError(k.t, err)
	promised(k.t, req, resp, data)
	if out != nil {
		require.NoError(k.t, json.Unmarshal(data, out), string(data))
	}
	return resp
}

// contract finds what the contract says of a request.
var contract = sync.OnceValue(func() routers.Router {
	doc, err := openapi3.NewLoader().LoadFromFile("openapi.yaml")
	if err != nil {
		panic(err)
	}
	for _, s := range doc.Components.Schemas {
		nothingElse(s)
	}
	for _, r := range doc.Components.Responses {
		for _, m := range r.Value.Content {
			nothingElse(m.Schema)
		}
	}
	openapi3filter.RegisterBodyDecoder("application/x-ndjson", openapi3filter.PlainBodyDecoder)
	r, err := legacy.NewRouter(doc)
	if err != nil {
		panic(err)
	}
	return r
})

// nothingElse lets an object have the fields that the contract names, and no more.
func nothingElse(s *openapi3.SchemaRef) {
	if s == nil || s.Ref != "" {
		return
	}
	if v := s.Value; len(v.Properties) > 0 && v.AdditionalProperties.Has == nil && v.AdditionalProperties.Schema == nil {
		never := false
		v.AdditionalProperties.Has = &never
	}
	for _, p := range s.Value.Properties {
		nothingElse(p)
	}
	nothingElse(s.Value.Items)
	nothingElse(s.Value.AdditionalProperties.Schema)
}

// promised holds an answer against the contract: its fields, their kinds, what is always there.
func promised(t *testing.T, req *http.Request, resp *http.Response, data []byte) {
	t.Helper()
	if !strings.HasPrefix(req.URL.Path, "/api/v1") {
		return
	}
	there := *req.URL
	there.Scheme, there.Host = "", "" // where the contract has its paths
	route, params, err := contract().FindRoute(&http.Request{Method: req.Method, URL: &there, Header: req.Header})
	if err != nil {
		assert.GreaterOrEqual(t, resp.StatusCode, 400, "%s %s is in no contract", req.Method, req.URL.Path)
		return
	}
	err = openapi3filter.ValidateResponse(t.Context(), (&openapi3filter.ResponseValidationInput{
		RequestValidationInput: &openapi3filter.RequestValidationInput{Request: req, PathParams: params, Route: route},
		Status:                 resp.StatusCode, Header: resp.Header,
	}).SetBodyBytes(data))
	assert.NoError(t, err, "%s %s", req.Method, req.URL.Path)
}

type savedDoc struct {
	ID       string
	Revision int
	Document json.RawMessage
}

type problem struct {
	Title, Detail, Type string
	Status              int
	Errors              []struct{ Pointer, Code, Message string }
	Current             savedDoc
	Yours               json.RawMessage
}

func (k kitchen) first(collection string) savedDoc {
	k.t.Helper()
	var list struct{ Items []struct{ ID string } }
	k.call("GET", "/api/v1/"+collection, nil, &list)
	require.NotEmpty(k.t, list.Items)
	var d savedDoc
	k.call("GET", "/api/v1/"+collection+"/"+list.Items[0].ID, nil, &d)
	return d
}

func TestDemoKitchenIsThere(t *testing.T) {
	k := open(t)
	for collection, want := range map[string][]string{
		"bases": {"Hatch cultured", "Hatch plain", "Hatch crisp waffle", "Hatch crêpe"},
		"variations": {
			"Beetroot & orange", "Carrot, cardamom & walnut", "Courgette, dill & feta", "Plum & almond waffle", "Spinach crêpe", "Sweet potato & sesame", "Rhubarb & ginger",
		},
	} {
		var list struct {
			Items []struct{ Name, Verdict string }
		}
		k.call("GET", "/api/v1/"+collection, nil, &list)
		var names []string
		for _, i := range list.Items {
			names = append(names, i.Name)
			assert.NotEmpty(t, i.Verdict)
		}
		assert.Equal(t, want, names)
	}
}

// The command line and the API answer the same document with the same bytes.
func TestWorksheet(t *testing.T) {
	k := open(t)
	d := k.first("variations")
	resp, err := http.Post(k.url+"/api/v1/worksheets", "application/json", bytes.NewReader(d.Document))
	require.NoError(t, err)
	defer resp.Body.Close()
	got, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	var saved struct{ Document json.RawMessage }
	k.call("GET", "/api/v1/kitchen", nil, &saved)
	hatch, err := document.DecodeKitchen(saved.Document)
	require.NoError(t, err)
	docs, err := k.st.All(context.Background(), store.Pantry)
	require.NoError(t, err)
	var items []document.PantryItem
	for _, d := range docs {
		i, err := document.DecodeItem(d.Body, document.Setting{Table: food.Reference()})
		require.NoError(t, err)
		items = append(items, i.PantryItem)
	}
	table, err := document.Shelf(food.Reference(), items, time.Now())
	require.NoError(t, err)
	want, err := document.Work(t.Context(), d.Document, document.Setting{Table: table, Kitchen: hatch, Today: time.Now()})
	require.NoError(t, err)
	assert.Equal(t, string(want), string(got))
}

func TestContractHasNoSmallFloats(t *testing.T) {
	data, err := os.ReadFile("api.gen.go")
	require.NoError(t, err)
	assert.NotContains(t, string(data), "float32", "every number needs format: double")
}

func TestSaveConflictDeleteRestore(t *testing.T) {
	k := open(t)
	for _, collection := range []string{"variations", "bases"} {
		d := k.first(collection)
		at := "/api/v1/" + collection + "/" + d.ID
		mine := bytes.Replace(d.Document, []byte(`"name":"`), []byte(`"name":"Mine `), 1)
		theirs := bytes.Replace(d.Document, []byte(`"name":"`), []byte(`"name":"Theirs `), 1)

		var p problem
		assert.Equal(t, 428, k.call("PUT", at, []byte(mine), &p).StatusCode)
		var saved savedDoc
		resp := k.call("PUT", at, []byte(mine), &saved, "If-Match", `"1"`)
		require.Equal(t, 200, resp.StatusCode)
		assert.Equal(t, 2, saved.Revision)
		assert.Equal(t, `"2"`, resp.Header.Get("ETag"))

		resp = k.call("PUT", at, []byte(theirs), &p, "If-Match", `"1"`)
		require.Equal(t, 409, resp.StatusCode)
		assert.Equal(t, "application/problem+json", resp.Header.Get("Content-Type"))
		assert.JSONEq(t, string(mine), string(p.Current.Document), "both sides of the conflict come back")
		assert.JSONEq(t, string(theirs), string(p.Yours))

		require.Equal(t, 204, k.call("DELETE", at, nil, nil).StatusCode)
		assert.Equal(t, 404, k.call("GET", at, nil, &p).StatusCode)
		require.Equal(t, 200, k.call("POST", at+"/restore", nil, &saved).StatusCode)
		assert.JSONEq(t, string(mine), string(saved.Document))
	}
}

func TestARepeatedPostMakesOne(t *testing.T) {
	k := open(t)
	d := k.first("variations")
	var a, b savedDoc
	resp := k.call("POST", "/api/v1/variations", []byte(d.Document), &a, "Idempotency-Key", "k1")
	require.Equal(t, 201, resp.StatusCode)
	assert.Equal(t, "/api/v1/variations/"+a.ID, resp.Header.Get("Location"))
	k.call("POST", "/api/v1/variations", []byte(d.Document), &b, "Idempotency-Key", "k1")
	assert.Equal(t, a.ID, b.ID)
	other := bytes.Replace(d.Document, []byte(`"name":"`), []byte(`"name":"Other `), 1)
	assert.Equal(t, 422, k.call("POST", "/api/v1/variations", []byte(other), nil, "Idempotency-Key", "k1").StatusCode)
}

func TestBadBodiesSaveNothing(t *testing.T) {
	k := open(t)
	d := k.first("variations")
	at := "/api/v1/variations/" + d.ID
	for name, c := range map[string]struct {
		body    any
		status  int
		pointer string
	}{
		"broken JSON":        {`{"format":`, 400, ""},
		"two documents":      {string(d.Document) + "{}", 400, ""},
		"unknown field":      {strings.Replace(string(d.Document), `"form"`, `"colour":1,"form"`, 1), 400, "/colour"},
		"unknown ingredient": {strings.Replace(string(d.Document), "beetroot_cooked", "moon_dust", 1), 400, "/additions/0/ingredient"},
		"unit does not fit":  {strings.Replace(string(d.Document), `"ingredient":"beetroot_cooked","amount":320,"unit":"g"`, `"ingredient":"beetroot_cooked","amount":320,"unit":"each"`, 1), 400, "/additions/0/unit"},
		"negative":           {strings.Replace(string(d.Document), `"amount":320`, `"amount":-320`, 1), 400, "/additions/0/amount"},
		"NaN":                {strings.Replace(string(d.Document), `"amount":320`, `"amount":NaN`, 1), 400, ""},
		"no flour":           {strings.Replace(string(d.Document), "plain_flour", "water", 1), 400, "/base/lines"},
		"5 MB":               {strings.Repeat(" ", 5<<20), 413, ""},
	} {
		for _, to := range []struct{ method, path string }{{"PUT", at}, {"POST", "/api/v1/variations"}, {"POST", "/api/v1/worksheets"}} {
			var p problem
			resp := k.call(to.method, to.path, c.body, &p, "If-Match", `"1"`)
			assert.Equal(t, c.status, resp.StatusCode, "%s %s", name, to.path)
			assert.Equal(t, "application/problem+json", resp.Header.Get("Content-Type"), name)
			assert.Equal(t, c.status, p.Status)
			assert.NotEmpty(t, p.Detail, name)
			if c.pointer != "" && assert.NotEmpty(t, p.Errors, name) {
				assert.Equal(t, c.pointer, p.Errors[0].Pointer, name)
			}
		}
	}
	var after savedDoc
	k.call("GET", at, nil, &after)
	assert.Equal(t, 1, after.Revision)
	assert.Equal(t, string(d.Document), string(after.Document), "nothing lost")
	var list struct{ Items []any }
	k.call("GET", "/api/v1/variations", nil, &list)
	assert.Len(t, list.Items, 7, "nothing saved")
	assert.Equal(t, 415, k.call("POST", "/api/v1/worksheets", "x=1", nil, "Content-Type", "text/plain").StatusCode)
}

func TestAmounts(t *testing.T) {
	k := open(t)
	var a struct{ Amount float64 }
	require.Equal(t, 200, k.call("POST", "/api/v1/amounts", `{"text":"1 ½"}`, &a).StatusCode)
	assert.InDelta(t, 1.5, a.Amount, 1e-12)
	for _, body := range []string{`{"text":"lots"}`, `{"text":"-1"}`, `{}`, `{"text":1}`} {
		var p problem
		assert.Equal(t, 400, k.call("POST", "/api/v1/amounts", body, &p).StatusCode, body)
		require.NotEmpty(t, p.Errors)
		assert.Equal(t, "/text", p.Errors[0].Pointer)
	}
}

func TestShelf(t *testing.T) {
	k := open(t)
	var list struct {
		Items []struct {
			ID   string
			Dose struct {
				LightG float64 `json:"light_g"`
			}
			Units []string
		}
	}
	k.call("GET", "/api/v1/ingredients?q=beet&flour_g=500", nil, &list)
	require.NotEmpty(t, list.Items)
	assert.Equal(t, "beetroot_cooked", list.Items[0].ID)
	assert.Equal(t, 150.0, list.Items[0].Dose.LightG, "30 g per 100 g flour")
	assert.NotContains(t, list.Items[0].Units, "each")
	k.call("GET", "/api/v1/ingredients?group=puree&limit=500", nil, &list)
	assert.Greater(t, len(list.Items), 20)
	k.call("GET", "/api/v1/ingredients?q=nothing+like+it", nil, &list)
	assert.Empty(t, list.Items)
	for _, bad := range []string{"flour_g=-1", "flour_g=NaN", "limit=0", "limit=many"} {
		assert.Equal(t, 400, k.call("GET", "/api/v1/ingredients?"+bad, nil, &problem{}).StatusCode, bad)
	}
}

func TestPagesOfAList(t *testing.T) {
	k := open(t)
	seen, after := map[string]bool{}, ""
	for range 6 {
		var page struct {
			Items []struct{ ID string }
			Next  string
		}
		k.call("GET", fmt.Sprintf("/api/v1/variations?limit=2&after=%s", strings.ReplaceAll(after, " ", "%20")), nil, &page)
		for _, i := range page.Items {
			seen[i.ID] = true
		}
		if after = page.Next; after == "" {
			break
		}
	}
	assert.Len(t, seen, 7)
}

func TestDoors(t *testing.T) {
	k := open(t)
	resp := k.call("GET", "/", nil, nil)
	assert.Equal(t, 200, resp.StatusCode)
	policy := resp.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "default-src 'self'")
	assert.NotContains(t, policy, "script-src 'unsafe-inline'")
	assert.Equal(t, 200, k.call("GET", "/some/area", nil, nil).StatusCode, "an area of the app")
	assert.Equal(t, 404, k.call("GET", "/assets/none.js", nil, nil).StatusCode)
	assert.Equal(t, 404, k.call("GET", "/api/v1/none", nil, &problem{}).StatusCode)
	assert.Equal(t, 405, k.call("PATCH", "/api/v1/worksheets", nil, &problem{}).StatusCode)
	assert.Equal(t, 200, k.call("GET", "/healthz", nil, nil).StatusCode)
	assert.Equal(t, 421, k.call("GET", "/", nil, &problem{}, "Host", "bench.example").StatusCode, "a foreign name pointed here")
	assert.Equal(t, 403, k.call("POST", "/api/v1/amounts", `{"text":"1"}`, &problem{}, "Sec-Fetch-Site", "cross-site").StatusCode, "another site")
	assert.Contains(t, k.call("GET", "/assets/a.js", nil, nil).Header.Get("Cache-Control"), "immutable")
}

func TestUnbuiltFrontEndSaysWhatToDo(t *testing.T) {
	st, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "api.db"), time.Now)
	require.NoError(t, err)
	defer st.Close()
	srv := httptest.NewServer(api.New(api.Parts{Store: st, Table: food.Reference(), Pages: fstest.MapFS{}, Log: slog.New(slog.DiscardHandler), Now: time.Now}))
	defer srv.Close()
	resp, err := http.Get(srv.URL)
	require.NoError(t, err)
	defer resp.Body.Close()
	data, _ := io.ReadAll(resp.Body)
	assert.Equal(t, 503, resp.StatusCode)
	assert.Contains(t, string(data), "make build")
}

func TestScaleSwapCompare(t *testing.T) {
	k := open(t)
	d := k.first("variations")
	var scaled struct {
		Variation json.RawMessage
		Factor    float64
		Said      []string
	}
	request := func(rest string) string { return `{"variation":` + string(d.Document) + `,` + rest + `}` }
	require.Equal(t, 200, k.call("POST", "/api/v1/scalings", request(`"line":"beetroot","amount_g":310`), &scaled).StatusCode)
	assert.InDelta(t, 310.0/320, scaled.Factor, 1e-5)
	assert.Contains(t, string(scaled.Variation), `"amount":310`)
	for _, count := range []int{5, 13, 40} {
		require.Equal(t, 200, k.call("POST", "/api/v1/scalings", request(fmt.Sprintf(`"count":%d`, count)), &scaled).StatusCode)
		var sheet struct{ Portion struct{ Count int } }
		k.call("POST", "/api/v1/worksheets", []byte(scaled.Variation), &sheet)
		assert.GreaterOrEqual(t, sheet.Portion.Count, count, "eggs stay whole, and there is enough")
		assert.LessOrEqual(t, sheet.Portion.Count, count+2)
	}
	for _, bad := range []string{`"count":0`, `"line":"nobody","amount_g":5`, `"flour_g":1e9`, `"size":2`} {
		assert.Equal(t, 400, k.call("POST", "/api/v1/scalings", request(bad), &problem{}).StatusCode, bad)
	}
	var p problem
	broken := strings.Replace(request(`"count":5`), "beetroot_cooked", "moon_dust", 1)
	assert.Equal(t, 400, k.call("POST", "/api/v1/scalings", broken, &p).StatusCode)
	assert.Equal(t, "/variation/additions/0/ingredient", p.Errors[0].Pointer)

	var swaps struct {
		Items []struct {
			Label string
			Lines []struct{ ID, Ingredient string }
		}
	}
	require.Equal(t, 200, k.call("POST", "/api/v1/swaps", request(`"line":"milk"`), &swaps).StatusCode)
	require.NotEmpty(t, swaps.Items)
	assert.Equal(t, "milk", swaps.Items[0].Lines[0].ID, "the first line keeps its id")
	require.Equal(t, 200, k.call("POST", "/api/v1/swaps", request(`"line":"flour"`), &swaps).StatusCode)
	assert.Contains(t, fmt.Sprint(swaps.Items), "no gluten")
	assert.Equal(t, 400, k.call("POST", "/api/v1/swaps", request(`"line":"nobody"`), &problem{}).StatusCode)

	var difference struct {
		Lines []struct{ Label, Change string }
	}
	more := strings.Replace(string(d.Document), `"amount":320`, `"amount":400`, 1)
	require.Equal(t, 200, k.call("POST", "/api/v1/comparisons", `{"before":`+string(d.Document)+`,"after":`+more+`}`, &difference).StatusCode)
	changed := map[string]string{}
	for _, l := range difference.Lines {
		changed[l.Label] = l.Change
	}
	assert.Equal(t, "more", changed["Beetroot"])
	assert.Equal(t, "less", changed["Whole milk"])
}

func TestVersions(t *testing.T) {
	k := open(t)
	d := k.first("variations")
	at := "/api/v1/variations/" + d.ID
	var list struct {
		Items []struct {
			Name     string
			Revision int
		}
	}
	k.call("GET", at+"/versions", nil, &list)
	assert.Empty(t, list.Items)
	require.Equal(t, 201, k.call("POST", at+"/versions", `{"name":"The one for Sundays","revision":1}`, nil).StatusCode)
	assert.Equal(t, 404, k.call("POST", at+"/versions", `{"name":"never saved","revision":7}`, &problem{}).StatusCode)
	assert.Equal(t, 400, k.call("POST", at+"/versions", `{"name":" ","revision":1}`, &problem{}).StatusCode)
	changed := bytes.Replace(d.Document, []byte(`"amount":320`), []byte(`"amount":400`), 1)
	require.Equal(t, 200, k.call("PUT", at, []byte(changed), nil, "If-Match", `"1"`).StatusCode)
	k.call("GET", at+"/versions", nil, &list)
	require.Len(t, list.Items, 1)
	assert.Equal(t, "The one for Sundays", list.Items[0].Name)
	var states struct{ Items []struct{ Changed []string } }
	k.call("GET", at+"/revisions", nil, &states)
	require.Len(t, states.Items, 2)
	assert.Equal(t, []string{"beetroot 320 g → 400 g"}, states.Items[0].Changed)
	assert.Empty(t, states.Items[1].Changed, "it began so")
	var then savedDoc
	k.call("GET", at+"/revisions/1", nil, &then)
	assert.Equal(t, string(d.Document), string(then.Document), "the state that was named is still what it was")
	assert.Equal(t, 404, k.call("GET", at+"/revisions/9", nil, &problem{}).StatusCode)
}

func TestCardsHaveTheirPicture(t *testing.T) {
	k := open(t)
	var list struct {
		Items []struct {
			Form    string
			Picture struct {
				Count      int
				DiameterMM float64 `json:"diameter_mm"`
				Colour     string
			}
		}
	}
	k.call("GET", "/api/v1/variations", nil, &list)
	for _, i := range list.Items {
		assert.Greater(t, i.Picture.Count, 5)
		if i.Form != "waffle" { // that is as wide as its iron
			assert.Greater(t, i.Picture.DiameterMM, 80.0)
		}
		assert.Regexp(t, `^#[0-9A-F]{6}$`, i.Picture.Colour)
	}
}

func TestKitchenAndLoads(t *testing.T) {
	k := open(t)
	var saved struct {
		Revision int
		Document json.RawMessage
	}
	require.Equal(t, 200, k.call("GET", "/api/v1/kitchen", nil, &saved).StatusCode)
	assert.Contains(t, string(saved.Document), "Halyard Hatch")
	match := fmt.Sprintf(`"%d"`, saved.Revision)
	us := bytes.Replace(saved.Document, []byte(`"metric"`), []byte(`"us"`), 1)
	require.Equal(t, 200, k.call("PUT", "/api/v1/kitchen", []byte(us), &saved, "If-Match", match).StatusCode)
	assert.Equal(t, 200, k.call("PUT", "/api/v1/kitchen", []byte(us), nil, "If-Match", match).StatusCode, "sent again, because the answer got lost, it is the same save")
	other := bytes.Replace(us, []byte(`Halyard Hatch`), []byte(`Another tablet`), 1)
	assert.Equal(t, 409, k.call("PUT", "/api/v1/kitchen", []byte(other), &problem{}, "If-Match", match).StatusCode)
	assert.Equal(t, 428, k.call("PUT", "/api/v1/kitchen", []byte(us), &problem{}).StatusCode)
	assert.Equal(t, 400, k.call("PUT", "/api/v1/kitchen", `{"format":"upbeat-ladle/kitchen"}`, &problem{}, "If-Match", `"2"`).StatusCode)

	// Carrot & walnut: ask for the load, and find in the worksheet what was asked.
	var list struct {
		Items []struct{ ID, Name string }
	}
	k.call("GET", "/api/v1/variations", nil, &list)
	var d savedDoc
	for _, i := range list.Items {
		if strings.HasPrefix(i.Name, "Carrot") {
			k.call("GET", "/api/v1/variations/"+i.ID, nil, &d)
		}
	}
	for ask, field := range map[string]string{`"bite_share":0.8`: "bite_share", `"pieces_each":12`: "pieces_mean", `"volume_fraction":0.1`: "volume_fraction"} {
		var answer struct {
			AmountG float64 `json:"amount_g"`
		}
		require.Equal(t, 200, k.call("POST", "/api/v1/loads", `{"variation":`+string(d.Document)+`,"line":"walnut",`+ask+`}`, &answer).StatusCode, ask)
		var sheet struct {
			Portion struct {
				Inclusions []map[string]any
				Load       map[string]any
			}
		}
		doc := strings.Replace(string(d.Document), `"amount":140`, fmt.Sprintf(`"amount":%g`, answer.AmountG), 1)
		k.call("POST", "/api/v1/worksheets", doc, &sheet)
		got := sheet.Portion.Inclusions[0][field]
		if field == "volume_fraction" {
			got = sheet.Portion.Load[field]
		}
		var want float64
		fmt.Sscanf(ask[strings.Index(ask, ":")+1:], "%g", &want)
		assert.InEpsilon(t, want, got, 0.01, "%s: the inverse returns the question", ask)
	}
	for _, bad := range []string{`"line":"carrot","bite_share":0.5`, `"line":"nobody","bite_share":0.5`, `"line":"walnut"`, `"line":"walnut","bite_share":2`} {
		assert.Equal(t, 400, k.call("POST", "/api/v1/loads", `{"variation":`+string(d.Document)+`,`+bad+`}`, &problem{}).StatusCode, bad)
	}
	var sim struct {
		AnyNone   float64 `json:"any_none"`
		Histogram []float64
	}
	require.Equal(t, 200, k.call("POST", "/api/v1/simulations", `{"variation":`+string(d.Document)+`,"bowls":200,"seed":3}`, &sim).StatusCode)
	assert.NotEmpty(t, sim.Histogram)
	assert.Equal(t, 400, k.call("POST", "/api/v1/simulations", `{"variation":`+string(d.Document)+`,"bowls":0,"seed":3}`, &problem{}).StatusCode)
}
