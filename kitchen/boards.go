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

func (k *Kitchen) boardNow(id string, b document.Board, events []griddle.Event) BoardNow {
	at := k.now().UTC().Truncate(time.Millisecond)
	return BoardNow{ID: id, Name: b.Name, StartedAt: b.StartedAt, At: at, State: griddle.Fold(b.Plates(), events, at), Fahrenheit: b.Kitchen.Domain().Fahrenheit()}
}

// Board returns a board as it stands now.
func (k *Kitchen) Board(ctx context.Context, id string) (BoardNow, error) {
	d, err := k.store.Get(ctx, store.Board, id)
	if err != nil {
		return BoardNow{}, err
	}
	b, err := document.DecodeBoard(d.Body)
	if err != nil {
		return BoardNow{}, err
	}
	rows, err := k.store.Events(ctx, id)
	return k.boardNow(id, b, decoded[griddle.Event](k, rows)), err
}

// TellBoard adds an event to a board, stamped with the time at which it happened: it waited so long on its tablet. It returns how the
// board stands then. An event that is there
// already changes nothing. What a bowl asks of its plate, and what a verdict makes of it, is worked out here and kept
// with the event; what is bagged becomes packs, which taking it back puts aside.
func (k *Kitchen) TellBoard(ctx context.Context, id string, data []byte, waited time.Duration) (BoardNow, error) {
	d, err := k.store.Get(ctx, store.Board, id)
	if err != nil {
		return BoardNow{}, err
	}
	b, err := document.DecodeBoard(d.Body)
	if err != nil {
		return BoardNow{}, err
	}
	e, err := b.DecodeEvent(data)
	if err != nil {
		return BoardNow{}, err
	}
	e.At, e.WaitedMS = k.stamp(waited, b.StartedAt, time.Time{})
	if e.Kind == griddle.PutOn || e.Kind == griddle.Judged && e.Verdict != "" && e.Verdict != griddle.Right {
		rows, err := k.store.Events(ctx, id)
		if err != nil {
			return BoardNow{}, err
		}
		if err := k.work(ctx, &e, b, griddle.Fold(b.Plates(), decoded[griddle.Event](k, rows), e.At)); err != nil {
			return BoardNow{}, err
		}
	}
	var after BoardNow
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		if _, err := tx.Get(ctx, store.Board, id); err != nil {
			return err
		}
		rows, err := tx.Events(ctx, id)
		if err != nil {
			return err
		}
		events := decoded[griddle.Event](k, rows)
		if slices.ContainsFunc(events, func(x griddle.Event) bool { return x.ID == e.ID }) {
			after = k.boardNow(id, b, events)
			return nil
		}
		if len(events) >= document.MaxEvents {
			return ErrFull
		}
		e.At, e.WaitedMS = k.stamp(waited, b.StartedAt, griddle.Earliest(b.Plates(), events, e))
		switch e.Kind {
		case griddle.Bagged:
			e.Packs, err = pack(ctx, tx, id, griddle.Fold(b.Plates(), events, e.At), e)
		case griddle.TookBack:
			err = unpack(ctx, tx, events, e.Undoes)
		}
		if err != nil {
			return err
		}
		body, err := document.EncodeEvent(e)
		if err != nil {
			return err
		}
		if _, err := tx.AddEvent(ctx, id, store.Event{ID: e.ID, At: e.At, Body: body}); err != nil {
			return err
		}
		after = k.boardNow(id, b, append(events, e))
		return nil
	})
	if err == nil {
		k.watchers.told(id)
		if e.Kind == griddle.PutOn {
			k.madeFor(ctx, e, waited)
		}
	}
	return after, err
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
		if data, err = document.EncodeEvent(batch.Event{ID: "on " + e.ID, Kind: batch.Made}); err == nil {
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
func (k *Kitchen) lay(ctx context.Context, b document.Board, from, on string, poured int, a griddle.Adjust) (griddle.Bowl, error) {
	d, err := k.store.Get(ctx, store.Batch, from)
	if err != nil {
		return griddle.Bowl{}, err
	}
	f, err := k.follow(ctx, d)
	if err != nil {
		return griddle.Bowl{}, err
	}
	rows, err := k.store.Events(ctx, from)
	if err != nil {
		return griddle.Bowl{}, err
	}
	if f.making.Plan.Common {
		return griddle.Bowl{}, document.Refusal("/batch", "common", "This is the common batter: put the bowls on that it is split into.")
	}
	made := f.making.Fold(decoded[batch.Event](k, rows))
	bowl, err := b.Lay(ctx, f.doc, on, made.Count, poured, made.KeptG, a, k.Bare())
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

// unpack puts the packs aside that an event made, when it is taken back.
func unpack(ctx context.Context, tx *store.Tx, events []griddle.Event, undoes string) error {
	for _, e := range events {
		if e.ID != undoes {
			continue
		}
		for _, id := range e.Packs {
			if err := tx.Delete(ctx, store.Pack, id); err != nil && !errors.Is(err, store.ErrNotFound) {
				return err
			}
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
		b, err := document.DecodeBoard(d.Body)
		if err != nil {
			one.Trouble = document.Sentence(err)
			out = append(out, one)
			continue
		}
		rows, err := k.store.Events(ctx, d.ID)
		if err != nil {
			return nil, err
		}
		one.BoardNow = k.boardNow(d.ID, b, decoded[griddle.Event](k, rows))
		out = append(out, one)
	}
	return out, nil
}

// exportedBoard is a board with everything that happened, or in a few lines of text.
func (k *Kitchen) exportedBoard(ctx context.Context, d store.Document, as string) ([]byte, error) {
	rows, err := k.store.Events(ctx, d.ID)
	if err != nil {
		return nil, err
	}
	data, err := k.withBoardEvents(d.Body, rows)
	if err != nil || as == "json" {
		return data, err
	}
	b, err := document.DecodeBoard(data)
	if err != nil {
		return nil, err
	}
	return []byte(k.boardNow(d.ID, b, b.Events).State.Text()), nil
}

// withBoardEvents is a kept board together with what happened at it. One that cannot be read goes as it is.
func (k *Kitchen) withBoardEvents(body []byte, rows []store.Event) ([]byte, error) {
	b, err := document.DecodeBoard(body)
	if err != nil {
		return body, nil
	}
	b.Events = decoded[griddle.Event](k, rows)
	return b.Encode()
}

// boardApart is a board without its events, and they as they are kept.
func boardApart(data []byte) (body []byte, rows []store.Event, err error) {
	b, err := document.DecodeBoard(data)
	if err != nil {
		return nil, nil, err
	}
	if rows, err = rowsOf(b.Events, func(e griddle.Event) (string, time.Time) { return e.ID, e.At }); err != nil {
		return nil, nil, err
	}
	b.Events = nil
	body, err = b.Encode()
	return body, rows, err
}
