package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type task struct {
	ID, Kind, Line, Label, At, Bowl string
	AsksG                           float64 `json:"asks_g"`
	InG                             float64 `json:"in_g"`
	Missing                         []string
}

type batchNow struct {
	ID   string
	Plan struct {
		Name         string
		AllergenText string `json:"allergen_text"`
	}
	State struct {
		Now     string
		Tasks   []task
		Events  int
		Made    bool
		Weighed int
		Ask     *struct{ Kind, Task string }
		Last    *struct{ Event, Text string }
	}
}

func (b batchNow) task(id string) task {
	for _, t := range b.State.Tasks {
		if t.ID == id {
			return t
		}
	}
	return task{}
}

func (k kitchen) begin(headers ...string) (b batchNow) {
	k.t.Helper()
	v := k.first("variations")
	body := fmt.Sprintf(`{"variation":%s,"from":{"id":%q,"revision":%d}}`, v.Document, v.ID, v.Revision)
	require.Equal(k.t, http.StatusCreated, k.call("POST", "/api/v1/batches", body, &b, headers...).StatusCode)
	return b
}

func (k kitchen) tell(id string, event map[string]any) (b batchNow) {
	k.t.Helper()
	require.Equal(k.t, http.StatusOK, k.call("POST", "/api/v1/batches/"+id+"/events", event, &b).StatusCode)
	return b
}

// weighAll weighs everything as it is asked and does every step.
func (k kitchen) weighAll(b batchNow) batchNow {
	k.t.Helper()
	for i := 0; b.State.Now != ""; i++ {
		t := b.task(b.State.Now)
		event := map[string]any{"id": fmt.Sprint("all", i), "kind": "done", "task": t.ID, "knew": b.State.Events}
		if t.Kind == "weigh" {
			event["kind"], event["grams"] = "weighed", t.AsksG
		}
		b = k.tell(b.ID, event)
	}
	return b
}

func TestABatchFromBeginningToEnd(t *testing.T) {
	k := open(t)
	b := k.begin("Idempotency-Key", "one")
	again := k.begin("Idempotency-Key", "one")
	assert.Equal(t, b.ID, again.ID, "a lost answer begins no second one")
	assert.Contains(t, b.Plan.AllergenText, "Check every pack")
	first := b.task(b.State.Now)
	one := map[string]any{"id": "e1", "kind": "weighed", "task": first.ID, "grams": first.AsksG}
	b = k.tell(b.ID, one)
	assert.Equal(t, 1, k.tell(b.ID, one).State.Events, "sent twice counts once")
	assert.Equal(t, "done", b.task(first.ID).At)
	b = k.tell(b.ID, map[string]any{"id": "e2", "kind": "took_back", "undoes": b.State.Last.Event})
	assert.Equal(t, "to_come", b.task(first.ID).At)
	b = k.weighAll(b)
	assert.Nil(t, b.State.Ask)
	var list struct {
		Items []struct {
			ID, Name, Doing string
			Made            bool
		}
	}
	k.call("GET", "/api/v1/batches", nil, &list)
	require.Len(t, list.Items, 1)
	assert.Empty(t, list.Items[0].Doing)
	assert.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/batches/"+b.ID, nil, nil).StatusCode)
	assert.Equal(t, http.StatusNotFound, k.call("DELETE", "/api/v1/batches/"+b.ID, nil, nil).StatusCode)
	assert.Equal(t, http.StatusNotFound, k.call("POST", "/api/v1/batches/"+b.ID+"/events", one, nil).StatusCode)
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/batches/"+b.ID+"/restore", nil, nil).StatusCode)
}

// The plan is frozen: whatever becomes of the base, the pantry and the kitchen, the bowl under way stays.
func TestABatchStaysWhatItWas(t *testing.T) {
	k := open(t)
	b := k.begin()
	v := k.first("variations")
	changed := strings.Replace(string(v.Document), `"amount"`, `"amount"`, 1)
	var doc map[string]any
	require.NoError(t, json.Unmarshal([]byte(changed), &doc))
	doc["portion"] = map[string]any{"volume_ml": 90}
	k.call("PUT", "/api/v1/variations/"+v.ID, doc, nil, "If-Match", fmt.Sprintf(`"%d"`, v.Revision))
	var again batchNow
	k.call("GET", "/api/v1/batches/"+b.ID, nil, &again)
	assert.Equal(t, b, again)
}

func TestBadEventsAreRefusedWithASentence(t *testing.T) {
	k := open(t)
	b := k.begin()
	first := b.State.Now
	for body, pointer := range map[string]string{
		`{"kind":"done","task":"` + first + `"}`:                                     "/id",
		`{"id":"x","kind":"danced"}`:                                                 "/kind",
		`{"id":"x","kind":"done","task":"nothing"}`:                                  "/task",
		`{"id":"x","kind":"weighed","task":"` + first + `"}`:                         "/grams",
		`{"id":"x","kind":"weighed","task":"` + first + `","grams":-1}`:              "/grams",
		`{"id":"x","kind":"weighed","task":"` + first + `","grams":1e9}`:             "/grams",
		`{"id":"x","kind":"filled","task":"` + first + `"}`:                          "/fills",
		`{"id":"x","kind":"filled","task":"` + first + `","fills":-2}`:               "/fills",
		`{"id":"x","kind":"tested"}`:                                                 "/diameter_mm",
		`{"id":"x","kind":"tested","says":"wobbles"}`:                                "/says",
		`{"id":"x","kind":"spilled","grams":20}`:                                     "/bowl",
		`{"id":"x","kind":"chose","task":"` + first + `"}`:                           "/choice",
		`{"id":"x","kind":"took_back"}`:                                              "/undoes",
		`{"id":"x","kind":"made","surprise":1}`:                                      "/surprise",
		`{"id":"` + strings.Repeat("x", 65) + `","kind":"made"}`:                     "/id",
		`{"id":"x","kind":"tested","says":"mounds","volume_ml":60,"diameter_mm":90}`: "/diameter_mm",
	} {
		var p problem
		require.Equal(t, http.StatusBadRequest, k.call("POST", "/api/v1/batches/"+b.ID+"/events", body, &p).StatusCode, body)
		require.NotEmpty(t, p.Errors, body)
		assert.Equal(t, pointer, p.Errors[0].Pointer, body)
		assert.True(t, strings.HasSuffix(p.Errors[0].Message, "."), p.Errors[0].Message)
	}
	var after batchNow
	k.call("GET", "/api/v1/batches/"+b.ID, nil, &after)
	assert.Zero(t, after.State.Events, "and nothing happened")
}

// Two tablets tick the same bowl at once: every event counts once, both see the same.
func TestTwoTabletsAtOneBowl(t *testing.T) {
	k := open(t)
	b := k.begin()
	var both sync.WaitGroup
	for tablet := range 2 {
		both.Go(func() {
			for i, one := range b.State.Tasks {
				if one.Kind == "weigh" {
					k.tell(b.ID, map[string]any{"id": fmt.Sprintf("t%d-%d", tablet, i), "kind": "weighed", "task": one.ID, "grams": one.AsksG + float64(tablet)*200, "knew": 0})
				}
			}
		})
	}
	both.Wait()
	var after batchNow
	k.call("GET", "/api/v1/batches/"+b.ID, nil, &after)
	for _, one := range after.State.Tasks {
		if one.Kind == "weigh" {
			assert.Equal(t, "done", one.At)
			assert.Contains(t, []float64{one.AsksG, one.AsksG + 200}, one.InG, "one of the two, never both: %s", one.ID)
		}
	}
}

// A tablet that watches hears of what another one does, in full.
func TestWatchingABatch(t *testing.T) {
	k := open(t)
	b := k.begin()
	ctx, cancel := context.WithTimeout(t.Context(), 10*time.Second)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, "GET", k.url+"/api/v1/batches/"+b.ID+"/events", nil)
	require.NoError(t, err)
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	lines := bufio.NewScanner(resp.Body)
	lines.Buffer(nil, 1<<20)
	next := func() (got batchNow) {
		for lines.Scan() {
			if data, ok := strings.CutPrefix(lines.Text(), "data: "); ok {
				require.NoError(t, json.Unmarshal([]byte(data), &got))
				return got
			}
		}
		t.Fatal("the stream ended")
		return got
	}
	assert.Zero(t, next().State.Events)
	k.tell(b.ID, map[string]any{"id": "e", "kind": "weighed", "task": b.State.Now, "grams": 10})
	assert.Equal(t, 1, next().State.Events)
}

// What is made comes off the stock, and back onto it when that is taken back.
func TestTheStockIsCountedDown(t *testing.T) {
	k := open(t)
	b := k.begin()
	var flour task
	for _, one := range b.State.Tasks {
		if one.Line == "flour" {
			flour = one
		}
	}
	require.NotEmpty(t, flour.ID)
	item := `{"format":"upbeat-ladle/pantry-item","version":1,"id":"stock_flour","name":"Flour bin","stands_for":"plain_flour","stock_g":5000}`
	var saved savedDoc
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/pantry", item, &saved).StatusCode)
	stock := func() float64 {
		var d savedDoc
		k.call("GET", "/api/v1/pantry/"+saved.ID, nil, &d)
		var i struct {
			StockG float64 `json:"stock_g"`
		}
		require.NoError(t, json.Unmarshal(d.Document, &i))
		return i.StockG
	}
	b = k.weighAll(b)
	assert.Equal(t, 5000.0, stock(), "not before it is made")
	b = k.tell(b.ID, map[string]any{"id": "made", "kind": "made"})
	assert.InDelta(t, 5000-flour.AsksG, stock(), 1e-6)
	k.tell(b.ID, map[string]any{"id": "made again", "kind": "made"})
	assert.InDelta(t, 5000-flour.AsksG, stock(), 1e-6, "once")
	k.tell(b.ID, map[string]any{"id": "back", "kind": "took_back", "undoes": "made"})
	k.tell(b.ID, map[string]any{"id": "back again", "kind": "took_back", "undoes": "made"})
	assert.InDelta(t, 5000, stock(), 1e-6)
}

// A batch goes out with the archive and comes back as far as it had come; into itself nothing changes, and a
// longer one of the same adds what is missing.
func TestABatchInTheArchive(t *testing.T) {
	k := open(t)
	b := k.begin()
	k.tell(b.ID, map[string]any{"id": "e1", "kind": "weighed", "task": b.State.Now, "grams": 500})
	early := k.archive()
	k.tell(b.ID, map[string]any{"id": "e2", "kind": "skipped", "task": b.State.Tasks[3].ID})
	out := k.archive()
	assert.Contains(t, string(out), `"upbeat-ladle/batch"`)
	r, _ := k.imports(out)
	assert.Zero(t, r.Added+r.Changed+r.Refused, "%+v", r.Items)
	r, _ = k.imports(early)
	assert.Zero(t, r.Refused)
	var here, there batchNow
	k.call("GET", "/api/v1/batches/"+b.ID, nil, &here)
	assert.Equal(t, 2, here.State.Events, "an older copy takes nothing away")
	other := empty(t)
	other.imports(early)
	other.imports(out)
	other.call("GET", "/api/v1/batches/"+b.ID, nil, &there)
	assert.Equal(t, here, there)
	resp := k.call("GET", "/api/v1/batches/"+b.ID+"/document", nil, nil)
	assert.Contains(t, resp.Header.Get("Content-Disposition"), ".json")
}

// Several bowls from one base are begun together or not at all, are followed like any other, and go out and in.
func TestSeveralBowlsFromOneBatter(t *testing.T) {
	k := open(t)
	var list struct{ Items []struct{ ID, Name string } }
	k.call("GET", "/api/v1/variations?limit=200", nil, &list)
	var bowls []string
	for _, i := range list.Items {
		if strings.HasPrefix(i.Name, "Beetroot") || strings.HasPrefix(i.Name, "Sweet potato") {
			var d savedDoc
			k.call("GET", "/api/v1/variations/"+i.ID, nil, &d)
			bowls = append(bowls, fmt.Sprintf(`{"variation":%s,"from":{"id":%q,"revision":%d}}`, d.Document, d.ID, d.Revision))
		}
	}
	require.Len(t, bowls, 2)
	wish := `{"bowls":[` + strings.Join(bowls, ",") + `]}`
	var begun struct {
		Items []batchNow
		Said  []string
	}
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/batches-split", wish, &begun, "Idempotency-Key", "once").StatusCode)
	require.Len(t, begun.Items, 3)
	first := begun.Items
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/batches-split", wish, &begun, "Idempotency-Key", "once").StatusCode)
	assert.Equal(t, first[2].ID, begun.Items[2].ID)
	common := k.weighAll(first[0])
	assert.Contains(t, common.Plan.Name, "for two bowls")
	bowl := k.weighAll(first[1])
	assert.Greater(t, bowl.task("weigh-shared").InG, 500.0)
	assert.Nil(t, bowl.State.Ask)
	out := k.archive()
	other := empty(t)
	other.imports(out)
	var there batchNow
	other.call("GET", "/api/v1/batches/"+bowl.ID, nil, &there)
	var here batchNow
	k.call("GET", "/api/v1/batches/"+bowl.ID, nil, &here)
	assert.Equal(t, here, there)
	var p problem
	k.call("POST", "/api/v1/batches-split", `{"bowls":[`+bowls[0]+`]}`, &p)
	assert.Equal(t, "/bowls", p.Errors[0].Pointer)
}

// A sheet that is put aside stands in the bin, can be looked at with what it contains, and comes back; one on which nothing
// happened leaves nothing behind.
func TestASheetThatIsPutAside(t *testing.T) {
	k := open(t)
	b, idle := k.begin(), k.begin()
	k.tell(b.ID, map[string]any{"id": "e", "kind": "weighed", "task": b.State.Now, "grams": 500})
	for _, id := range []string{b.ID, idle.ID} {
		require.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/batches/"+id, nil, nil).StatusCode)
	}
	var bin struct {
		Items []struct{ Kind, ID, Name string }
	}
	k.call("GET", "/api/v1/bin", nil, &bin)
	require.Len(t, bin.Items, 1)
	assert.Equal(t, "batch", bin.Items[0].Kind)
	var look struct{ Name, Text string }
	require.Equal(t, http.StatusOK, k.call("GET", "/api/v1/bin/batches/"+b.ID, nil, &look).StatusCode)
	assert.Contains(t, look.Text, b.task(b.State.Now).Label+": 500 g\n")
	assert.Contains(t, look.Text, "not yet")
	assert.Contains(t, look.Text, "heck every pack")
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/batches/"+b.ID+"/restore", nil, nil).StatusCode)
	resp, err := http.Get(k.url + "/api/v1/exports/batches/" + b.ID + "?as=text")
	require.NoError(t, err)
	defer resp.Body.Close()
	assert.Equal(t, http.StatusOK, resp.StatusCode)
	assert.Equal(t, http.StatusNotFound, k.call("GET", "/api/v1/exports/batches/"+b.ID+"?as=csv", nil, nil).StatusCode)
}
