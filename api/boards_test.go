package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"image/png"
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

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/core/griddle"
	"upbeatladle/demo/copied"
	"upbeatladle/device"
	"upbeatladle/document"
)

// clock is handed in, and moved by the test.
type clock struct {
	mu sync.Mutex
	at time.Time
}

func (c *clock) now() time.Time {
	c.mu.Lock()
	defer c.mu.Unlock()
	return c.at
}

func (c *clock) pass(d time.Duration) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.at = c.at.Add(d)
}

// morning is a kitchen at seven, with thermometers and a label printer.
type morning struct {
	kitchen
	*clock
	labels string
	board  boardNow
	n      int
}

type boardNow struct {
	ID    string
	State griddle.State
	Heats struct {
		Link   string
		Plates map[string]float64
		ProbeC *float64 `json:"probe_c"`
	}
}

func atSeven(t *testing.T) *morning {
	t.Helper()
	c := &clock{at: time.Date(2026, 11, 26, 7, 0, 0, 0, time.UTC)}
	path := filepath.Join(t.TempDir(), "api.db")
	st, err := copied.Open(context.Background(), path, c.now)
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	on, err := device.StandIns(t.Context(), c.now)
	require.NoError(t, err)
	labels := filepath.Join(t.TempDir(), "labels")
	srv := httptest.NewUnstartedServer(api.New(api.Parts{
		Store: st, Table: food.Reference(), Pages: fstest.MapFS{}, Log: slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelError})), Now: c.now,
		Thermometer: device.NewNetThermometer(on.Thermometer), Printer: device.NewFolderPrinter(labels),
	}))
	api.Harden(srv.Config, api.Door{})
	srv.Start()
	t.Cleanup(srv.Close)
	m := &morning{kitchen: kitchen{t, srv.URL, st, path}, clock: c, labels: labels}
	require.Equal(t, http.StatusCreated, m.call("POST", "/api/v1/boards", nil, &m.board, "Idempotency-Key", "b").StatusCode)
	return m
}

// makes a batch of the saved variation of a name.
func (m *morning) makes(name string) string {
	m.t.Helper()
	var list struct{ Items []struct{ ID, Name string } }
	m.call("GET", "/api/v1/variations", nil, &list)
	for _, v := range list.Items {
		if v.Name != name {
			continue
		}
		var saved savedDoc
		m.call("GET", "/api/v1/variations/"+v.ID, nil, &saved)
		var b batchNow
		require.Equal(m.t, http.StatusCreated, m.call("POST", "/api/v1/batches", fmt.Sprintf(`{"variation":%s}`, saved.Document), &b).StatusCode)
		return b.ID
	}
	require.Fail(m.t, "no variation", name)
	return ""
}

func (m *morning) does(e griddle.Event) *http.Response {
	m.t.Helper()
	m.n++
	e.ID = fmt.Sprint("e", m.n)
	data, err := document.EncodeEvent(&e)
	require.NoError(m.t, err)
	body := strings.Replace(string(data), `"at":"0001-01-01T00:00:00Z",`, "", 1)
	r := m.call("POST", "/api/v1/boards/"+m.board.ID+"/events", body, nil)
	m.look()
	return r
}

func (m *morning) look() {
	id := m.board.ID
	m.board = boardNow{}
	m.call("GET", "/api/v1/boards/"+id, nil, &m.board)
}

// first does the most urgent thing that is due; false when nothing is.
func (m *morning) first() bool {
	for _, t := range m.board.State.Todo {
		switch {
		case !t.Due:
			continue
		case t.Tell != nil:
			m.does(griddle.Event{Kind: t.Tell.Kind, Plate: t.Tell.Plate, Place: t.Tell.Place, Portion: t.Tell.Portion, Of: t.Tell.Of})
		case t.Act == griddle.DoJudge:
			m.does(griddle.Event{Kind: griddle.Judged, Of: t.Of, Verdict: griddle.Right})
		case t.Act == griddle.DoBag:
			m.does(griddle.Event{Kind: griddle.Bagged, Tray: t.Tray, Count: 4})
		default:
			continue
		}
		return true
	}
	return false
}

type packListed struct {
	ID       string
	Revision int
	Document document.Pack
	State    string
}

// packs lists those in the freezer whose name begins so.
func (k kitchen) packs(name string) (out []packListed) {
	k.t.Helper()
	var all struct{ Items []packListed }
	k.call("GET", "/api/v1/packs", nil, &all)
	for _, p := range all.Items {
		if strings.HasPrefix(p.Document.Name, name) {
			out = append(out, p)
		}
	}
	return out
}

// Sixty portions and more, on a plate, a pan and an iron, by whoever does what the board says next.
func TestAMorningOfSixtyPortions(t *testing.T) {
	m := atSeven(t)
	for name, on := range map[string]string{"Beetroot & orange": "plate", "Plum & almond waffle": "pier"} {
		require.Equal(t, http.StatusOK, m.does(griddle.Event{Kind: griddle.PutOn, Batch: m.makes(name), Plate: on}).StatusCode)
	}
	crepes := m.makes("Spinach crêpe")
	require.Equal(t, http.StatusOK, m.does(griddle.Event{Kind: griddle.PutOn, Batch: crepes, Plate: "pan"}).StatusCode)
	r := m.does(griddle.Event{Kind: griddle.PutOn, Batch: crepes, Plate: "pier"})
	assert.Equal(t, http.StatusBadRequest, r.StatusCode, "a crêpe batter goes into no iron")
	total := 0
	for _, b := range m.board.State.Bowls {
		total += b.Count
	}
	require.Greater(t, total, 55)
	most := 0
	for range 4000 {
		for m.first() {
			m.pass(3 * time.Second)
			most = max(most, m.board.State.OnPlates)
			for _, tray := range m.board.State.Rack { // guests come
				if tray.HeldMin > 4 {
					m.does(griddle.Event{Kind: griddle.Served, Tray: tray.Key})
				}
				if m.now().Sub(tray.Since).Minutes() >= tray.Limit {
					assert.NotEmpty(t, tray.Text)
				}
			}
		}
		if m.board.State.LastOff == nil && m.board.State.OnPlates == 0 {
			break
		}
		m.pass(5 * time.Second)
		m.look()
	}
	lifted, late := 0, 0
	for _, b := range m.board.State.Bowls {
		assert.Equal(t, b.Count, b.Lifted, b.Name)
		lifted, late = lifted+b.Lifted, late+b.Late
	}
	assert.Equal(t, total, lifted)
	onRack := 0
	for _, x := range m.board.State.Rack {
		onRack += x.Count
	}
	assert.Equal(t, total, m.board.State.Served+onRack, "what was cooked was served or waits")
	t.Logf("%d portions in %s, up to %d at once, %d late", lifted, m.now().Sub(time.Date(2026, 11, 26, 7, 0, 0, 0, time.UTC)).Round(time.Minute), most, late)
	assert.Less(t, late, total/4, "one cook keeps up")
	assert.Equal(t, "live", m.board.Heats.Link)
	assert.InDelta(t, 195, m.board.Heats.Plates["pier"], 45, "the iron is hot")
}

// From the rack into the freezer: flat for an hour, then packs with a label that tells what is in them.
func TestFromTheRackIntoTheFreezer(t *testing.T) {
	m := atSeven(t)
	require.Equal(t, http.StatusOK, m.does(griddle.Event{Kind: griddle.PutOn, Batch: m.makes("Carrot, cardamom & walnut"), Plate: "plate"}).StatusCode)
	var tray griddle.Tray
	for n := 0; n < 400 && tray.Count < 6; n++ {
		if !m.first() {
			m.pass(5 * time.Second)
			m.look()
		}
		for _, tray = range m.board.State.Rack {
			if tray.Count >= 6 {
				break
			}
		}
	}
	require.GreaterOrEqual(t, tray.Count, 6)
	m.does(griddle.Event{Kind: griddle.Frozen, Tray: tray.Key, Count: 6})
	require.Len(t, m.board.State.Flat, 1)
	m.pass(time.Hour)
	m.look()
	m.does(griddle.Event{Kind: griddle.Bagged, Tray: m.board.State.Flat[0].Key, Count: 4})
	bagged := m.board.State.Last.Event
	all := m.packs("Carrot")
	require.Len(t, all, 2, "four and two")
	p := all[0]
	assert.Equal(t, 6, all[0].Document.Pieces+all[1].Document.Pieces)
	assert.Equal(t, "2026-11-26", p.Document.MadeOn)
	assert.Equal(t, "2027-01-25", p.Document.UseBy, "60 days on")
	assert.Contains(t, p.Document.Contains, "walnut")
	assert.Contains(t, strings.Join(p.Document.Reheat, " "), "74 °C")

	r, err := http.Get(m.url + "/api/v1/packs/" + p.ID + "/label?as=png")
	require.NoError(t, err)
	defer r.Body.Close()
	img, err := png.Decode(r.Body)
	require.NoError(t, err)
	assert.Equal(t, 732, img.Bounds().Dx(), "62 mm at 300 dots to the inch")
	var printed struct{ Files []string }
	require.Equal(t, http.StatusOK, m.call("POST", "/api/v1/packs/"+p.ID+"/print", nil, &printed).StatusCode)
	require.Len(t, printed.Files, 2)
	for _, f := range printed.Files {
		assert.Equal(t, m.labels, filepath.Dir(f))
		assert.FileExists(t, f)
	}

	p.Document.Left -= 2
	body, err := json.Marshal(p.Document)
	require.NoError(t, err)
	for range 2 { // an answer that got lost: the same again is the same
		require.Equal(t, http.StatusOK, m.call("PUT", "/api/v1/packs/"+p.ID, string(body), nil, "If-Match", fmt.Sprintf(`"%d"`, p.Revision)).StatusCode)
	}
	p.Document.Left = 99
	body, _ = json.Marshal(p.Document)
	assert.Equal(t, http.StatusBadRequest, m.call("PUT", "/api/v1/packs/"+p.ID, string(body), nil, "If-Match", `"2"`).StatusCode)

	m.pass(55 * 24 * time.Hour)
	assert.Equal(t, "soon", m.packs("Carrot")[0].State)
	m.does(griddle.Event{Kind: griddle.TookBack, Undoes: bagged})
	assert.Empty(t, m.packs("Carrot"), "taken back")
	require.Len(t, m.board.State.Flat, 1)
}

// Whatever is sent to a board, it answers with a sentence and stays whole; twelve tablets at once make no mess.
func TestABoardTakesWhatComes(t *testing.T) {
	m := atSeven(t)
	for _, body := range []string{
		`{}`, `{"id":"x","kind":"nonsense"}`, `{"id":"x","kind":"put_on","plate":"plate"}`, `{"id":"x","kind":"put_on","plate":"moon","batch":"b"}`,
		`{"id":"x","kind":"poured"}`, `{"id":"x","kind":"probed","c":900}`, `{"id":"x","kind":"judged","of":"y","verdict":"blue"}`, `{"id":"x","kind":"lifted","portion":"p","to":"moon"}`,
		`{"id":"x","kind":"uses","plate":"plate","count":100000}`, `[]`, `{"id":"x","kind":"on","plate":"plate","hat":1}`,
	} {
		var p problem
		r := m.call("POST", "/api/v1/boards/"+m.board.ID+"/events", body, &p)
		assert.Equal(t, http.StatusBadRequest, r.StatusCode, body)
		assert.NotEmpty(t, p.Detail, body)
	}
	r := m.does(griddle.Event{Kind: griddle.PutOn, Batch: "gone", Plate: "plate"})
	assert.Equal(t, http.StatusNotFound, r.StatusCode)
	m.look()
	assert.Zero(t, m.board.State.Events)

	m.does(griddle.Event{Kind: griddle.PutOn, Batch: m.makes("Beetroot & orange"), Plate: "plate"})
	var all sync.WaitGroup
	for tablet := range 12 {
		all.Go(func() {
			for n := range 8 {
				body := fmt.Sprintf(`{"id":"t%d-%d","kind":"poured","plate":"plate","place":%d}`, tablet, n, n+1)
				resp, err := http.Post(m.url+"/api/v1/boards/"+m.board.ID+"/events", "application/json", strings.NewReader(body))
				if assert.NoError(t, err) {
					_, _ = io.Copy(io.Discard, resp.Body)
					assert.NoError(t, resp.Body.Close())
					assert.Equal(t, http.StatusOK, resp.StatusCode)
				}
			}
		})
	}
	all.Wait()
	m.look()
	assert.Equal(t, 8, m.board.State.Bowls[0].Poured, "eight places, each poured once")
	assert.Equal(t, 97, m.board.State.Events)

	var file json.RawMessage
	require.Equal(t, http.StatusOK, m.call("GET", "/api/v1/exports/boards/"+m.board.ID+"?as=json", nil, &file).StatusCode)
	b, err := document.DecodeBoard(file)
	require.NoError(t, err)
	assert.Len(t, b.Events, 97)
	resp, err := http.Get(m.url + "/api/v1/exports/boards/" + m.board.ID + "?as=text")
	require.NoError(t, err)
	text, err := io.ReadAll(resp.Body)
	require.NoError(t, errorsOf(resp.Body.Close(), err))
	assert.Contains(t, string(text), "8 of")
	assert.Contains(t, string(text), "Check every pack")
}

func errorsOf(all ...error) error {
	for _, err := range all {
		if err != nil {
			return err
		}
	}
	return nil
}

// A board and its packs go out with the archive and come back as they were; into itself nothing changes, and an older
// copy takes nothing away.
func TestABoardInTheArchive(t *testing.T) {
	m := atSeven(t)
	m.does(griddle.Event{Kind: griddle.PutOn, Batch: m.makes("Carrot, cardamom & walnut"), Plate: "plate"})
	for range 12 {
		if !m.first() {
			m.pass(time.Minute)
			m.look()
		}
	}
	early := m.archive()
	for n := 0; n < 60 && len(m.board.State.Rack) == 0; n++ {
		m.first()
		m.pass(20 * time.Second)
		m.look()
	}
	m.does(griddle.Event{Kind: griddle.Frozen, Tray: m.board.State.Rack[0].Key})
	m.pass(time.Hour)
	m.look()
	m.does(griddle.Event{Kind: griddle.Bagged, Tray: m.board.State.Flat[0].Key, Count: 4})
	out := m.archive()
	assert.Contains(t, string(out), `"upbeat-ladle/board"`)
	assert.Contains(t, string(out), `"upbeat-ladle/pack"`)
	r, _ := m.imports(out)
	assert.Zero(t, r.Added+r.Changed+r.Refused, "%+v", r.Items)
	r, _ = m.imports(early)
	assert.Zero(t, r.Refused, "%+v", r.Items)
	m.look()
	events := m.board.State.Events
	other := empty(t)
	for range 2 {
		r, _ = other.imports(out)
		assert.Zero(t, r.Refused, "%+v", r.Items)
	}
	var there boardNow
	other.call("GET", "/api/v1/boards/"+m.board.ID, nil, &there)
	assert.Equal(t, events, there.State.Events)
	assert.Equal(t, m.board.State.Bowls, there.State.Bowls)
	packs := other.packs("Carrot")
	require.Len(t, packs, 1)
	assert.Contains(t, packs[0].Document.Allergens, "walnut")
	fitsItsSchema(t, m.kitchen, "archive", "/api/v1/archive")
	fitsItsSchema(t, m.kitchen, "board", "/api/v1/boards/"+m.board.ID+"/document")
	fitsItsSchema(t, m.kitchen, "pack", "/api/v1/exports/packs/"+packs[0].ID+"?as=json")
	assert.Equal(t, http.StatusOK, m.call("GET", "/api/v1/devices/thermometer", nil, nil).StatusCode)
	assert.Equal(t, http.StatusOK, m.call("GET", "/api/v1/boards", nil, nil).StatusCode)
}

// A board that is put aside stands in the bin and comes back; one on which nothing happened leaves nothing behind.
func TestABoardThatIsPutAside(t *testing.T) {
	m := atSeven(t)
	var idle boardNow
	m.call("POST", "/api/v1/boards", nil, &idle, "Idempotency-Key", "b")
	assert.Equal(t, m.board.ID, idle.ID, "a lost answer begins no second one")
	m.call("POST", "/api/v1/boards", nil, &idle)
	m.does(griddle.Event{Kind: griddle.Oven})
	for _, id := range []string{m.board.ID, idle.ID} {
		assert.Equal(t, http.StatusNoContent, m.call("DELETE", "/api/v1/boards/"+id, nil, nil).StatusCode)
		assert.Equal(t, http.StatusNotFound, m.call("GET", "/api/v1/boards/"+id, nil, nil).StatusCode)
	}
	var bin struct{ Items []struct{ ID, Kind string } }
	m.call("GET", "/api/v1/bin", nil, &bin)
	require.Len(t, bin.Items, 1)
	assert.Equal(t, "board", bin.Items[0].Kind)
	assert.Equal(t, http.StatusOK, m.call("POST", "/api/v1/boards/"+m.board.ID+"/restore", nil, nil).StatusCode)
	m.look()
	assert.True(t, m.board.State.OvenOn)
}

// A tablet that watches sees every change, and how it stands once a second.
// What a tablet pressed while the program was away lands with how long it waited: the clocks of the bowl and of the plate run from
// then. Nothing lands before its board was begun, a flip not before its pour, and nobody is believed a time to come.
func TestWhatLandsLateCountsFromWhenItHappened(t *testing.T) {
	m := atSeven(t)
	id := m.makes("Beetroot & orange")
	m.pass(90 * time.Minute) // half past eight: an egg goes in, and the program is away
	m.pass(147 * time.Minute)
	var b struct {
		State struct {
			Clock struct {
				Since time.Time
				UseBy time.Time `json:"use_by"`
				Says  struct{ Away string }
			}
		}
	}
	egg := map[string]any{"id": "egg", "kind": "weighed", "task": "weigh-egg", "grams": 200, "waited_ms": 5, "at": "2030-01-01T00:00:00Z"}
	require.Equal(t, http.StatusOK, m.call("POST", "/api/v1/batches/"+id+"/events", egg, &b, "Waited-Ms", fmt.Sprint(147*60_000)).StatusCode)
	assert.Equal(t, "08:30", b.State.Clock.Since.Format("15:04"))
	assert.Equal(t, "12:30", b.State.Clock.UseBy.Format("15:04"))
	assert.Equal(t, "147 min of it while away", b.State.Clock.Says.Away)
	for header, status := range map[string]int{"-5": http.StatusOK, "soon": http.StatusBadRequest, "999999999999999": http.StatusOK} {
		other := m.makes("Beetroot & orange")
		resp := m.call("POST", "/api/v1/batches/"+other+"/events", map[string]any{"id": "egg", "kind": "weighed", "task": "weigh-egg", "grams": 200}, &b, "Waited-Ms", header)
		assert.Equal(t, status, resp.StatusCode, header)
		if status == http.StatusOK {
			assert.Equal(t, m.now(), b.State.Clock.Since.UTC(), "not before the bowl was begun")
		}
	}
	m.does(griddle.Event{Kind: griddle.PutOn, Plate: "plate", Batch: m.makes("Beetroot & orange")})
	bowl := m.board.State.Bowls[0].Key
	m.pass(30 * time.Minute)
	late := func(minutes int, event map[string]any) string {
		m.n++
		event["id"] = fmt.Sprint("late", m.n)
		require.Equal(t, http.StatusOK, m.call("POST", "/api/v1/boards/"+m.board.ID+"/events", event, &m.board, "Waited-Ms", fmt.Sprint(minutes*60_000)).StatusCode)
		return event["id"].(string)
	}
	late(29, map[string]any{"kind": "judged", "of": bowl})
	pour := late(20, map[string]any{"kind": "poured", "plate": "plate", "place": 1})
	late(25, map[string]any{"kind": "flipped", "portion": pour})
	place := m.board.State.Plates[0].Places[0]
	assert.Equal(t, m.now().Add(-20*time.Minute), place.Since.UTC())
	assert.Contains(t, m.board.State.Last.Text, "20 min before it landed")
}

func TestABoardIsStreamed(t *testing.T) {
	m := atSeven(t)
	resp, err := http.Get(m.url + "/api/v1/boards/" + m.board.ID + "/events")
	require.NoError(t, err)
	defer resp.Body.Close()
	assert.Equal(t, "text/event-stream", resp.Header.Get("Content-Type"))
	seen := make(chan bool, 100)
	go func() {
		for sc := bufio.NewScanner(resp.Body); sc.Scan(); {
			if line, ok := strings.CutPrefix(sc.Text(), "data: "); ok {
				var b boardNow
				if json.Unmarshal([]byte(line), &b) == nil {
					seen <- b.State.OvenOn
				}
			}
		}
	}()
	assert.False(t, <-seen)
	m.does(griddle.Event{Kind: griddle.Oven})
	for !<-seen { // a beat may come between
	}
}
