package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/demo/copied"
	"upbeatladle/device"
)

type item struct {
	ID       string
	Revision int64
	Document map[string]any
}

// put makes an item of a preparation a document that stands for a row.
func tubOf(k kitchen, wish map[string]any, standsFor string) map[string]any {
	k.t.Helper()
	var p struct{ Item map[string]any }
	resp := k.call("POST", "/api/v1/preparations", wish, &p)
	require.Equal(k.t, http.StatusOK, resp.StatusCode)
	p.Item["format"], p.Item["version"], p.Item["stands_for"] = "upbeat-ladle/pantry-item", 1, standsFor
	return p.Item
}

// A tub moves every saved variation that uses what it stands for: its worksheet and its card.
// Emptied, the table's figures are back; restored, the tub's.
func TestATubMovesSavedVariations(t *testing.T) {
	k := open(t)
	card := func() (id, verdict string) {
		var l struct {
			Items []struct{ ID, Name, Verdict string }
		}
		k.call("GET", "/api/v1/variations", nil, &l)
		for _, v := range l.Items {
			if strings.HasPrefix(v.Name, "Beetroot") {
				return v.ID, v.Verdict
			}
		}
		t.Fatal("no beetroot")
		return "", ""
	}
	id, before := card()
	tub := tubOf(k, map[string]any{"method": "puree", "from": "beetroot_grated", "have_g": 1000, "as_bought": true, "after_g": 850}, "beetroot_cooked")
	var saved item
	resp := k.call("POST", "/api/v1/pantry", tub, &saved, "Idempotency-Key", "a")
	require.Equal(t, http.StatusCreated, resp.StatusCode)
	_, with := card()
	assert.NotEqual(t, before, with)
	var again item
	k.call("POST", "/api/v1/pantry", tub, &again, "Idempotency-Key", "a")
	assert.Equal(t, saved.ID, again.ID, "sent twice, kept once")
	var v struct{ Revision int64 }
	k.call("GET", "/api/v1/variations/"+id, nil, &v)
	assert.EqualValues(t, 1, v.Revision, "nobody changed the variation")

	var in struct {
		UsedIn     []struct{ Name string } `json:"used_in"`
		Overrides  []string
		Ingredient struct {
			Own struct{ Stale bool }
		}
	}
	k.call("GET", "/api/v1/ingredients/beetroot_cooked", nil, &in)
	assert.Len(t, in.UsedIn, 1)
	assert.Contains(t, in.Overrides, saved.ID)

	require.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/pantry/"+saved.ID, nil, nil).StatusCode)
	_, gone := card()
	assert.Equal(t, before, gone)
	k.call("POST", "/api/v1/pantry/"+saved.ID+"/restore", nil, nil)
	_, back := card()
	assert.Equal(t, with, back)

	tub["water_g"] = 5.0
	resp = k.call("PUT", "/api/v1/pantry/"+saved.ID, tub, nil, "If-Match", `"1"`)
	assert.Equal(t, http.StatusBadRequest, resp.StatusCode, "what cannot be is not kept")
	delete(tub, "water_g")
}

func TestPantryFile(t *testing.T) {
	k := open(t)
	resp, err := http.Get(k.url + "/api/v1/pantry-file")
	require.NoError(t, err)
	file, err := io.ReadAll(resp.Body)
	resp.Body.Close()
	require.NoError(t, err)
	assert.Contains(t, resp.Header.Get("Content-Disposition"), "pantry.csv")
	send := func(query, data string, out any) int {
		resp := k.call("POST", "/api/v1/pantry-file"+query, data, out, "Content-Type", "text/csv")
		return resp.StatusCode
	}
	var r struct {
		Added, Changed, Same, Refused int
		Saved                         bool
		Rows                          []struct{ Action, Message string }
	}
	require.Equal(t, http.StatusOK, send("", string(file), &r))
	assert.Zero(t, r.Added+r.Changed+r.Refused, "%+v", r.Rows)
	assert.Greater(t, r.Same, 200)
	mine := "id,name,group,role,water_g,carbohydrate_g,sugars_g,ash_g\nquay_jam,Quay jam,topping,topping,30,69,66,1\nwet,Wet,topping,topping,90,69,66,1\n"
	require.Equal(t, http.StatusOK, send("?dry_run=true", mine, &r))
	assert.Equal(t, []int{1, 1}, []int{r.Added, r.Refused})
	assert.False(t, r.Saved)
	assert.Equal(t, http.StatusNotFound, k.call("GET", "/api/v1/ingredients/quay_jam", nil, nil).StatusCode, "nothing was saved")
	require.Equal(t, http.StatusOK, send("", mine, &r))
	assert.Equal(t, http.StatusOK, k.call("GET", "/api/v1/ingredients/quay_jam", nil, nil).StatusCode)
	require.Equal(t, http.StatusOK, send("", strings.Replace(mine, "30,69,66", "31,68,65", 1), &r))
	assert.Equal(t, []int{0, 1, 1}, []int{r.Added, r.Changed, r.Refused})
	assert.Equal(t, http.StatusRequestEntityTooLarge, send("", strings.Repeat("x", 5<<20), nil))
	assert.Equal(t, http.StatusBadRequest, send("", "id,name\nx,cr\xeape\n", nil))
}

func TestPreparationsAreOfferedWhereTheyFit(t *testing.T) {
	k := open(t)
	var l struct {
		Items []struct {
			Method string
			Asks   []string
			From   []struct{ ID string }
		}
	}
	k.call("GET", "/api/v1/preparations", nil, &l)
	require.Len(t, l.Items, 12)
	for _, b := range l.Items {
		assert.NotEmpty(t, b.From, b.Method)
		for _, from := range b.From[:1] {
			wish := map[string]any{"method": b.Method, "from": from.ID, "have_g": 500}
			assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/preparations", wish, nil).StatusCode, b.Method)
		}
	}
}

// The scale is heard as server-sent events, over a real server and a real TCP device.
func TestScaleEvents(t *testing.T) {
	st, err := copied.Open(context.Background(), filepath.Join(t.TempDir(), "api.db"), time.Now)
	require.NoError(t, err)
	defer st.Close()
	ctx, off := context.WithCancel(context.Background())
	defer off()
	on, err := device.StandIns(ctx, time.Now)
	require.NoError(t, err)
	s := device.NewNetScale(on.Scale, time.Now)
	talking, stop := context.WithCancel(context.Background())
	defer stop()
	go s.Run(talking)
	srv := httptest.NewUnstartedServer(api.New(api.Parts{
		Store: st, Table: food.Reference(), Pages: fstest.MapFS{}, Log: slog.New(slog.DiscardHandler), Now: time.Now,
		Scale: s, Refractometer: device.NewNetRefractometer(on.Refractometer),
	}))
	api.Harden(srv.Config, api.Door{})
	srv.Start()
	defer srv.Close()
	k := kitchen{t: t, url: srv.URL, st: st}
	req, err := http.NewRequest("GET", srv.URL+"/api/v1/devices/scale/events", nil)
	require.NoError(t, err)
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	require.Equal(t, "text/event-stream", resp.Header.Get("Content-Type"))
	states := make(chan api.ScaleState)
	go func() {
		defer close(states)
		for sc := bufio.NewScanner(resp.Body); sc.Scan(); {
			if data, ok := strings.CutPrefix(sc.Text(), "data: "); ok {
				var st api.ScaleState
				if json.Unmarshal([]byte(data), &st) == nil {
					states <- st
				}
			}
		}
	}()
	until := func(what string, ok func(api.ScaleState) bool) {
		t.Helper()
		late := time.After(20 * time.Second)
		for {
			select {
			case st, open := <-states:
				require.True(t, open, "the stream ended before it was %s", what)
				if ok(st) {
					return
				}
			case <-late:
				t.Fatal("never " + what)
			}
		}
	}
	until("live", func(st api.ScaleState) bool { return st.Link == "live" })
	require.Equal(t, http.StatusNoContent, k.call("POST", "/api/v1/devices/scale/load", map[string]any{"grams": 430}, nil).StatusCode)
	until("steady", func(st api.ScaleState) bool { return st.Steady && *st.Grams > 425 })
	require.Equal(t, http.StatusNoContent, k.call("POST", "/api/v1/devices/scale/tare", nil, nil).StatusCode)
	until("zero", func(st api.ScaleState) bool { return *st.Grams < 2 })

	assert.Equal(t, http.StatusBadGateway, k.call("POST", "/api/v1/devices/refractometer/readings", nil, nil).StatusCode, "no sample")
	k.call("POST", "/api/v1/devices/refractometer/sample", map[string]any{"brix": 16, "sample_c": 30}, nil)
	var r api.BrixReading
	k.call("POST", "/api/v1/devices/refractometer/readings", nil, &r)
	assert.InDelta(t, 16, r.Brix, 0.3)
	assert.Less(t, r.Shown, r.Brix)
	off()
	until("said to be gone", func(st api.ScaleState) bool { return st.Link == "connecting" && st.Says != "" })
}

func TestWithoutDevicesTypingIsSaid(t *testing.T) {
	k := open(t)
	var p struct{ Detail string }
	resp := k.call("GET", "/api/v1/devices/scale", nil, &p)
	assert.Equal(t, http.StatusNotFound, resp.StatusCode)
	assert.Contains(t, p.Detail, "type the weight in")
}

// An ingredient of the kitchen's own that only a sauce names is used, and stays in the archive when it was put aside.
func TestASauceUsesItsIngredients(t *testing.T) {
	k := open(t)
	own := map[string]any{"format": "upbeat-ladle/pantry-item", "version": 1, "id": "pier_plums", "name": "Pier plums", "group": "fresh_piece", "role": "piece",
		"water_g": 86, "carbohydrate_g": 12, "sugars_g": 10, "protein_g": 0.7, "fat_g": 0.3, "fibre_g": 1.4, "ash_g": 0.5}
	var item struct{ ID string }
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/pantry", own, &item).StatusCode)
	sauce := `{"format":"upbeat-ladle/sauce","version":1,"name":"Pier compote","kind":"compote","lines":[{"ingredient":"pier_plums","amount":500,"unit":"g"},{"ingredient":"granulated_sugar","amount":90,"unit":"g"}]}`
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/sauces", sauce, nil).StatusCode)
	var in struct {
		UsedIn []struct{ Name, Kind string } `json:"used_in"`
	}
	require.Equal(t, http.StatusOK, k.call("GET", "/api/v1/ingredients/pier_plums", nil, &in).StatusCode)
	require.Len(t, in.UsedIn, 1)
	assert.Equal(t, "sauce", in.UsedIn[0].Kind)
	require.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/pantry/"+item.ID, nil, nil).StatusCode)
	assert.Contains(t, string(k.archive()), "pier_plums", "what is used goes along")
	for name, s := range k.sauces() {
		if name == "Pier compote" {
			assert.NotEmpty(t, s.Trouble, "it says so, and blocks nothing")
		}
	}
}
