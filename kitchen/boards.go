package kitchen

import (
	"context"
	"errors"
	"slices"
	"time"

	"upbeatladle/about"
	"upbeatladle/core/batch"
	"upbeatladle/core/food"
	"upbeatladle/core/griddle"
	"upbeatladle/document"
	"upbeatladle/store"
)

// BoardNow is a board as it stands at a moment.
type BoardNow struct {
	ID, Name  string
	StartedAt time.Time
	At        time.Time
	State     griddle.State

	Fahrenheit bool // the kitchen's own degrees
}

// BeginBoard begins a morning at the plates. A key other than "" makes a repeated call return the first.
func (k *Kitchen) BeginBoard(ctx context.Context, key string) (BoardNow, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return BoardNow{}, err
	}
	b, err := document.BeginBoard(document.WorkedBy{Program: about.String(), Table: food.ReferenceStamp()}, in)
	if err != nil {
		return BoardNow{}, err
	}
	body, err := b.Encode()
	if err != nil {
		return BoardNow{}, err
	}
	d, err := k.store.Create(ctx, store.Board, store.Content{Name: b.Name, Body: body, Asked: []byte("{}")}, key)
	if err != nil {
		return BoardNow{}, err
	}
	return k.Board(ctx, d.ID)
}

// board is a morning at the plates as it goes on.
type board struct {
	griddle.Board
	doc document.Board // without its events
}

func (b board) begun() time.Time                        { return b.doc.StartedAt }
func (b board) read(data []byte) (griddle.Event, error) { return b.doc.DecodeEvent(data) }

// now is the board as it stands at a moment.
func (b board) now(id string, at time.Time) BoardNow {
	return BoardNow{ID: id, Name: b.doc.Name, StartedAt: b.doc.StartedAt, At: at, State: b.State(at), Fahrenheit: b.doc.Kitchen.Domain().Fahrenheit()}
}

type boards = happening[document.Board, griddle.Event, *griddle.Event, board]

func newBoards(k *Kitchen) *boards {
	return newHappening(k, boards{
		kind:   store.Board,
		decode: document.DecodeBoard,
		events: func(b *document.Board) *[]griddle.Event { return &b.Events },
		open: func(_ context.Context, b document.Board) (board, error) {
			return board{griddle.BoardOf(b.Plates()), b}, nil
		},
		before: k.beforeBoard,
		text:   func(b board) string { return b.State(k.moment()).Text() },
	})
}

// moment is now, as it is kept.
func (k *Kitchen) moment() time.Time { return k.now().UTC().Truncate(time.Millisecond) }

// Board returns a board as it stands now.
func (k *Kitchen) Board(ctx context.Context, id string) (out BoardNow, err error) {
	err = k.boards.look(ctx, k.store, id, func(b board) error {
		out = b.now(id, k.moment())
		return nil
	})
	return out, err
}

// TellBoard adds an event to a board, stamped with the time at which it happened: it waited so long on its tablet. It returns
// how the board stands then. What a bowl asks of its plate, and what a verdict makes of it, is worked out here and kept
// with the event; what is bagged becomes packs, which taking it back puts aside.
func (k *Kitchen) TellBoard(ctx context.Context, id string, data []byte, waited time.Duration) (BoardNow, error) {
	e, err := k.boards.tell(ctx, id, data, waited, func(ctx context.Context, e *griddle.Event, b board) (func() error, error) {
		if e.Kind != griddle.PutOn && (e.Kind != griddle.Judged || e.Verdict == "" || e.Verdict == griddle.Right) {
			return nil, nil
		}
		s := b.State(e.At)
		return func() error { return k.work(ctx, e, b.doc, s) }, nil
	})
	if err != nil {
		return BoardNow{}, err
	}
	if e.Kind == griddle.PutOn {
		k.madeFor(ctx, e, waited)
	}
	return k.Board(ctx, id)
}

// beforeBoard is what an event of a board does to the freezer.
func (k *Kitchen) beforeBoard(ctx context.Context, tx *store.Tx, id string, b board, e *griddle.Event) (err error) {
	switch e.Kind {
	case griddle.Bagged:
		e.Packs, err = pack(ctx, tx, id, b.State(e.At), *e)
	case griddle.TookBack:
		if undone := b.Find(e.Undoes); undone != nil {
			err = unpack(ctx, tx, undone.Packs)
		}
	}
	return err
}

// madeFor says of a bowl that is put on a plate that it is made, when everything is in it: then it comes off the stock.
// It is on the board whatever becomes of that.
func (k *Kitchen) madeFor(ctx context.Context, e griddle.Event, waited time.Duration) {
	b, err := k.Batch(ctx, e.Batch)
	if err == nil && (b.State.Made || slices.ContainsFunc(b.State.Tasks, func(t batch.TaskNow) bool { return t.Kind == batch.Weigh && t.At == batch.ToCome })) {
		return
	}
	if err == nil {
		var data []byte
		if data, err = document.EncodeEvent(&batch.Event{ID: "on " + e.ID, Kind: batch.Made}); err == nil {
			_, err = k.Tell(ctx, e.Batch, data, waited)
		}
	}
	if err != nil {
		k.log.Warn("a bowl that was put on a plate was not counted as made", "batch", e.Batch, "err", err)
	}
}

// work works out what a bowl asks of its plate: when it is put on, and anew after a verdict on its first one, then also
// for those that follow on the plate. A bowl whose batch is gone since keeps what it had.
func (k *Kitchen) work(ctx context.Context, e *griddle.Event, b document.Board, s griddle.State) error {
	if e.Kind == griddle.PutOn {
		var plate griddle.Adjust // what its verdicts have shown so far
		for _, x := range s.Bowls {
			if x.Plate == e.Plate && x.Verdict != "" {
				plate = x.Adjust.OfPlate()
			}
		}
		bowl, err := k.lay(ctx, b, e.Batch, e.Plate, 0, plate)
		if err != nil {
			return err
		}
		if bowl.Trouble != "" {
			return document.Refusal("/plate", "trouble", "%s", bowl.Trouble)
		}
		e.Bowl = &bowl
		return nil
	}
	at := slices.IndexFunc(s.Bowls, func(x griddle.BowlNow) bool { return x.Key == e.Of })
	if at < 0 || !s.Bowls[at].Judge {
		return nil
	}
	was := s.Bowls[at]
	adjust := was.After(e.Verdict)
	bowl, err := k.lay(ctx, b, was.Batch, was.Plate, was.Poured, adjust)
	switch {
	case errors.Is(err, store.ErrNotFound):
	case err != nil:
		return err
	default:
		e.Bowl = &bowl
	}
	if adjust.OfPlate() == was.Adjust.OfPlate() {
		return nil
	}
	e.Also = map[string]griddle.Bowl{}
	for _, x := range s.Bowls {
		if x.Plate != was.Plate || x.Key == was.Key || x.Poured > 0 || x.Ended {
			continue
		}
		next, err := k.lay(ctx, b, x.Batch, x.Plate, 0, adjust.OfPlate())
		if errors.Is(err, store.ErrNotFound) {
			continue
		}
		if err != nil {
			return err
		}
		e.Also[x.Key] = next
	}
	return nil
}

// lay works out what a batch asks of a plate.
func (k *Kitchen) lay(ctx context.Context, to document.Board, from, on string, poured int, a griddle.Adjust) (griddle.Bowl, error) {
	var doc document.Batch
	var made batch.State
	err := k.bowls.look(ctx, k.store, from, func(b bowl) error {
		if b.making.Plan.Common {
			return document.Refusal("/batch", "common", "This is the common batter: put the bowls on that it is split into.")
		}
		doc, made = b.doc, b.State(nil)
		return nil
	})
	if err != nil {
		return griddle.Bowl{}, err
	}
	bowl, err := to.Lay(ctx, doc, on, made.Count, poured, made.KeptG, a, k.Bare())
	bowl.Batch = from
	return bowl, err
}

// pack makes packs of what lay flat.
func pack(ctx context.Context, tx *store.Tx, board string, s griddle.State, e griddle.Event) (ids []string, err error) {
	at := slices.IndexFunc(s.Flat, func(x griddle.Flat) bool { return x.Key == e.Tray })
	if at < 0 {
		return nil, nil
	}
	flat := s.Flat[at]
	bowl := s.Bowls[slices.IndexFunc(s.Bowls, func(x griddle.BowlNow) bool { return x.Key == flat.Bowl })]
	each := e.Count
	if each <= 0 || each > flat.Count {
		each = flat.Count
	}
	for left := flat.Count; left > 0; left -= each {
		body, err := document.PackOf(bowl, min(each, left), board, e.At).Encode()
		if err != nil {
			return nil, err
		}
		d, err := tx.Create(ctx, store.Pack, store.Content{Name: bowl.Name, Form: string(bowl.Form), Body: body}, "")
		if err != nil {
			return nil, err
		}
		ids = append(ids, d.ID)
	}
	return ids, nil
}

// unpack puts packs aside, when what made them is taken back.
func unpack(ctx context.Context, tx *store.Tx, packs []string) error {
	for _, id := range packs {
		if err := tx.Delete(ctx, store.Pack, id); err != nil && !errors.Is(err, store.ErrNotFound) {
			return err
		}
	}
	return nil
}

// BoardListed is a board in a list.
type BoardListed struct {
	BoardNow
	Trouble string // why it cannot be read
}

// mostBoards is how many boards are listed (modelling choice: two months of mornings).
const mostBoards = 60

// Boards lists the boards, the last touched first.
func (k *Kitchen) Boards(ctx context.Context) ([]BoardListed, error) {
	page, err := k.store.List(ctx, store.Board, "", mostBoards)
	if err != nil {
		return nil, err
	}
	out := make([]BoardListed, 0, len(page.Items))
	for _, d := range page.Items {
		one := BoardListed{BoardNow: BoardNow{ID: d.ID, Name: d.Name, StartedAt: d.UpdatedAt}}
		err := k.boards.lookAt(ctx, k.store, d, func(b board) error {
			one.BoardNow = b.now(d.ID, k.moment())
			return nil
		})
		switch {
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil:
			one.Trouble = document.Sentence(err)
		}
		out = append(out, one)
	}
	return out, nil
}
