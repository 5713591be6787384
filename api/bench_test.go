package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/require"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/demo/copied"
	"upbeatladle/house"
	"upbeatladle/store"
)

// BenchmarkWorksheetOverHTTP prints what a worksheet over HTTP costs beside a bare Gin handler
// that echoes the same bytes, in the same run: median, 95th and 99th percentile as ratios, with
// one request in flight and with fifty; and what the same behind a passcode costs beside it.
func BenchmarkWorksheetOverHTTP(b *testing.B) {
	ctx := b.Context()
	st, err := copied.Open(ctx, filepath.Join(b.TempDir(), "bench.db"), time.Now)
	require.NoError(b, err)
	defer st.Close()
	srv := httptest.NewServer(api.New(api.Parts{Store: st, Table: food.Reference(), Pages: fstest.MapFS{}, Log: slog.New(slog.DiscardHandler), Now: time.Now}))
	defer srv.Close()
	all, err := st.All(ctx, store.Variation)
	require.NoError(b, err)
	carrot := all[slices.IndexFunc(all, func(d store.Document) bool { return d.Name == "Carrot, cardamom & walnut" })].Body

	var key *http.Cookie // sent to all three, so that they carry the same bytes
	post := func(url string) ([]byte, time.Duration) {
		start := time.Now()
		req, err := http.NewRequest("POST", url, bytes.NewReader(carrot))
		require.NoError(b, err)
		req.Header.Set("Content-Type", "application/json")
		req.AddCookie(key)
		resp, err := client.Do(req)
		require.NoError(b, err)
		data, err := io.ReadAll(resp.Body)
		resp.Body.Close()
		require.NoError(b, err)
		require.Equal(b, http.StatusOK, resp.StatusCode, string(data))
		return data, time.Since(start)
	}
	h := house.New(st, time.Now)
	require.NoError(b, h.Set(ctx, passcode, ""))
	locked := httptest.NewServer(api.New(api.Parts{
		Store: st, Table: food.Reference(), Pages: fstest.MapFS{}, Log: slog.New(slog.DiscardHandler), Now: time.Now, Door: api.Door{House: h},
	}))
	defer locked.Close()
	resp, err := client.Post(locked.URL+"/api/v1/session", "application/json", strings.NewReader(`{"passcode":"`+passcode+`"}`))
	require.NoError(b, err)
	resp.Body.Close()
	require.Len(b, resp.Cookies(), 1)
	key = resp.Cookies()[0]

	sheet, _ := post(srv.URL + "/api/v1/worksheets")
	gin.SetMode(gin.ReleaseMode)
	bare := gin.New()
	bare.POST("/", func(c *gin.Context) {
		_, _ = io.Copy(io.Discard, c.Request.Body)
		c.Data(http.StatusOK, "application/json", sheet)
	})
	echo := httptest.NewServer(bare)
	defer echo.Close()

	for _, inFlight := range []int{1, 50} {
		b.Run(fmt.Sprintf("in_flight=%d", inFlight), func(b *testing.B) {
			took := map[string][]time.Duration{}
			for b.Loop() {
				for name, url := range map[string]string{"sheet": srv.URL + "/api/v1/worksheets", "locked": locked.URL + "/api/v1/worksheets", "bare": echo.URL} {
					took[name] = append(took[name], load(inFlight, 1000, func() time.Duration { _, d := post(url); return d })...)
				}
			}
			for _, p := range []float64{0.50, 0.95, 0.99} {
				s, e := at(took["sheet"], p), at(took["bare"], p)
				b.ReportMetric(float64(s.Microseconds()), fmt.Sprintf("p%.0f-µs", 100*p))
				b.ReportMetric(s.Seconds()/e.Seconds(), fmt.Sprintf("p%.0f-×bare", 100*p))
				b.ReportMetric(at(took["locked"], p).Seconds()/s.Seconds(), fmt.Sprintf("p%.0f-passcode-×", 100*p))
			}
			b.ReportMetric(float64(len(sheet)), "bytes")
			b.ReportMetric(0, "ns/op")
		})
	}
}

var client = &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 64}}

// load asks n times, so many at once, and returns how long each took.
func load(inFlight, n int, ask func() time.Duration) []time.Duration {
	out := make([]time.Duration, n)
	next := make(chan int)
	var wg sync.WaitGroup
	for range inFlight {
		wg.Go(func() {
			for i := range next {
				out[i] = ask()
			}
		})
	}
	for i := range n {
		next <- i
	}
	close(next)
	wg.Wait()
	return out
}

func at(took []time.Duration, share float64) time.Duration {
	took = slices.Clone(took)
	slices.Sort(took)
	return took[min(len(took)-1, int(share*float64(len(took))))]
}

// BenchmarkTick prints what a tick of a sheet costs over HTTP, kept on the disk and folded, with a whole bowl behind it.
func BenchmarkTick(b *testing.B) {
	st, err := copied.Open(b.Context(), filepath.Join(b.TempDir(), "tick.db"), time.Now)
	require.NoError(b, err)
	defer st.Close()
	srv := httptest.NewServer(api.New(api.Parts{Store: st, Table: food.Reference(), Pages: fstest.MapFS{}, Log: slog.New(slog.DiscardHandler), Now: time.Now}))
	defer srv.Close()
	all, err := st.All(b.Context(), store.Variation)
	require.NoError(b, err)
	post := func(path, body string) []byte {
		resp, err := client.Post(srv.URL+"/api/v1"+path, "application/json", strings.NewReader(body))
		require.NoError(b, err)
		defer resp.Body.Close()
		data, err := io.ReadAll(resp.Body)
		require.NoError(b, err)
		require.Less(b, resp.StatusCode, 300, string(data))
		return data
	}
	var begun struct{ ID string }
	require.NoError(b, json.Unmarshal(post("/batches", `{"variation":`+string(all[0].Body)+`}`), &begun))
	n := 0
	for b.Loop() {
		post("/batches/"+begun.ID+"/events", fmt.Sprintf(`{"id":"t%d","kind":"stirred_in","grams":1,"knew":%d}`, n, n))
		if n++; n%60 == 0 { // a bowl has some sixty events
			require.NoError(b, json.Unmarshal(post("/batches", `{"variation":`+string(all[0].Body)+`}`), &begun))
		}
	}
}
