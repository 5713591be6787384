package kitchen_test

import (
	"fmt"
	"log/slog"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batch"
	"upbeatladle/core/food"
	"upbeatladle/core/griddle"
	"upbeatladle/document"
	"upbeatladle/kitchen"
	"upbeatladle/store"
)

// begunOn is a bowl of the first variation, weighed in so far that it may go on a board, and a board.
func begunOn(t testing.TB, s scene) (bowl kitchen.BatchNow, board kitchen.BoardNow) {
	t.Helper()
	variations, _, err := s.List(t.Context(), store.Variation, "", 200)
	require.NoError(t, err)
	for _, d := range variations {
		v, err := document.DecodeVariation(d.Body)
		require.NoError(t, err)
		if v.Form != "pancake" {
			continue
		}
		bowl, err = s.BeginBatch(t.Context(), v, nil, "")
		require.NoError(t, err)
		break
	}
	board, err = s.BeginBoard(t.Context(), "")
	require.NoError(t, err)
	return bowl, board
}

func tells(t testing.TB, k *kitchen.Kitchen, board string, text string, args ...any) kitchen.BoardNow {
	t.Helper()
	b, err := k.TellBoard(t.Context(), board, fmt.Appendf(nil, text, args...), 0)
	require.NoError(t, err)
	return b
}

// What a program keeps folded in its memory is what is kept in the file, whoever wrote it: two programs on one file, and one
// that has just been started, always tell the same, over events that come twice, are taken back, are put aside, go for good
// and come back with a file.
func TestWhatIsRememberedIsWhatIsKept(t *testing.T) {
	s, rnd := open(t, true), rand.New(rand.NewPCG(19, 1))
	ctx := t.Context()
	fresh := func() *kitchen.Kitchen {
		return kitchen.New(s.st, food.Reference(), slog.New(slog.DiscardHandler), func() time.Time { return *s.day })
	}
	other := fresh()
	bowl, board := begunOn(t, s)
	plate := board.State.Plates[0].ID
	tells(t, s.Kitchen, board.ID, `{"id":"on","kind":"put_on","plate":%q,"batch":%q}`, plate, bowl.ID)
	var file string
	var told []string
	most := 0
	for n := range 160 {
		*s.day = s.day.Add(time.Duration(rnd.IntN(90)) * time.Second)
		k := []*kitchen.Kitchen{s.Kitchen, other}[rnd.IntN(2)]
		now, err := k.Board(ctx, board.ID)
		require.NoError(t, err)
		most = max(most, now.State.Events)
		switch what := rnd.IntN(40); {
		case what < 28 && len(now.State.Todo) > 0 && now.State.Todo[0].Tell != nil:
			x := now.State.Todo[0].Tell
			id := fmt.Sprint("e", n)
			tells(t, k, board.ID, `{"id":%q,"kind":%q,"plate":%q,"place":%d,"portion":%q,"of":%q}`, id, x.Kind, x.Plate, x.Place, x.Portion, x.Of)
			told = append(told, id)
		case what < 28 && len(now.State.Todo) > 0 && now.State.Todo[0].Act == griddle.DoJudge:
			tells(t, k, board.ID, `{"id":"j%d","kind":"judged","of":"on","verdict":"right"}`, n)
		case what < 32 && len(told) > 0:
			tells(t, k, board.ID, `{"id":"b%d","kind":"took_back","undoes":%q}`, n, told[rnd.IntN(len(told))])
		case what < 37:
			g := fmt.Sprintf(`{"id":"w%d","kind":"weighed","task":%q,"grams":%d,"knew":99}`, n%4, bowl.State.Tasks[0].ID, 100+n)
			_, err := k.Tell(ctx, bowl.ID, []byte(g), time.Duration(rnd.IntN(3))*time.Minute)
			require.NoError(t, err)
		case what == 38 && file == "":
			file = encoded(t, s)
		case what == 39 && file != "":
			require.NoError(t, k.PutAside(ctx, store.Board, board.ID))
			if rnd.IntN(2) == 0 {
				require.NoError(t, k.Purge(ctx, store.Board, board.ID))
				other = fresh() // it was purged under the hands of the other program
				s.Kitchen = fresh()
			} else {
				_, err := k.BringBack(ctx, store.Board, board.ID)
				require.NoError(t, err)
			}
			_, err := k.Import(ctx, opened(t, file), false, func(int) {})
			require.NoError(t, err)
			told = nil
		}
		if n%8 != 0 && n < 150 {
			continue
		}
		newest := fresh()
		wantBoard, err := newest.Board(ctx, board.ID)
		require.NoError(t, err)
		wantBowl, err := newest.Batch(ctx, bowl.ID)
		require.NoError(t, err)
		for _, k := range []*kitchen.Kitchen{s.Kitchen, other, k} {
			gotBoard, err := k.Board(ctx, board.ID)
			require.NoError(t, err)
			require.Equal(t, wantBoard, gotBoard)
			gotBowl, err := k.Batch(ctx, bowl.ID)
			require.NoError(t, err)
			require.Equal(t, wantBowl, gotBowl)
		}
	}
	require.NotEmpty(t, file)
	assert.Greater(t, most, 20, "enough happened, or this shows nothing")
}

// A bowl that is full says so and keeps what it has; one that is told twice counts once.
func TestAFullBowl(t *testing.T) {
	s := open(t, true)
	ctx := t.Context()
	bowl, _ := begunOn(t, s)
	require.NoError(t, s.st.Together(ctx, func(tx *store.Tx) error {
		for n := range document.MaxEvents {
			body, err := document.EncodeEvent(&batch.Event{ID: fmt.Sprint(n), At: *s.day, Kind: batch.IntoFridge})
			require.NoError(t, err)
			if _, err := tx.AddEvent(ctx, bowl.ID, store.Event{ID: fmt.Sprint(n), At: *s.day, Body: body}); err != nil {
				return err
			}
		}
		return nil
	}))
	_, err := s.Tell(ctx, bowl.ID, []byte(`{"id":"one more","kind":"out_of_fridge"}`), 0)
	require.ErrorIs(t, err, kitchen.ErrFull)
	again, err := s.Tell(ctx, bowl.ID, []byte(`{"id":"7","kind":"out_of_fridge"}`), 0)
	require.NoError(t, err)
	assert.Equal(t, document.MaxEvents, again.State.Events)
	assert.True(t, again.State.Clock.InFridge)
}

// BenchmarkPress prints what a press at a board costs behind a long morning, kept on the disk and folded, and what it costs to
// look at it, which every tablet does each second.
func BenchmarkPress(b *testing.B) {
	s := open(b, true)
	bowl, board := begunOn(b, s)
	plate := board.State.Plates[0].ID
	tells(b, s.Kitchen, board.ID, `{"id":"on","kind":"put_on","plate":%q,"batch":%q}`, plate, bowl.ID)
	for n := range 400 {
		tells(b, s.Kitchen, board.ID, `{"id":"u%d","kind":"uses","plate":%q,"count":%d}`, n, plate, 1+n%2)
	}
	b.Run("press", func(b *testing.B) {
		for n := 0; b.Loop(); n++ {
			tells(b, s.Kitchen, board.ID, `{"id":"p%d %d","kind":"uses","plate":%q,"count":%d}`, b.N, n, plate, 1+n%2)
		}
	})
	b.Run("look", func(b *testing.B) {
		for b.Loop() {
			_, err := s.Board(b.Context(), board.ID)
			require.NoError(b, err)
		}
	})
}
