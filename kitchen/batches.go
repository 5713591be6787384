package kitchen

import (
	"context"
	"errors"
	"math"
	"slices"
	"strconv"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"upbeatladle/about"
	"upbeatladle/core/batch"
	"upbeatladle/core/food"
	"upbeatladle/document"
	"upbeatladle/store"
)

// BatchNow is a batch as far as it has come.
type BatchNow struct {
	ID        string
	StartedAt time.Time
	From      *document.BaseRef
	Plan      batch.Plan
	State     batch.State
}

// mostFollowed is how many batches are kept worked out (modelling choice: more than any kitchen has on the go).
const mostFollowed = 64

// mostGlimpsed is how many are known for a list (modelling choice: a season of them).
const mostGlimpsed = 1000

// mostListed is how many batches are listed (modelling choice: two months of mornings).
const mostListed = 500

// batches keeps what is behind the batches that somebody works on, and what a list tells of the others.
type batches struct {
	followed *lru.Cache[string, followed]
	glimpsed *lru.Cache[string, glimpse]
}

func newBatches() batches {
	return batches{kept[followed](mostFollowed), kept[glimpse](mostGlimpsed)}
}

// kept is a memory of so many, the last used ones.
func kept[V any](most int) *lru.Cache[string, V] {
	c, err := lru.New[string, V](most)
	if err != nil {
		panic(err) // a size above zero is not refused
	}
	return c
}

// glimpse is of a batch what a list needs, as of a state of it; it does not change. One that took its share of a common batter is not remembered: that one's clock goes on.
type glimpse struct {
	revision, event int64
	startedAt       time.Time
	from            *document.BaseRef
	common          string
	batch.Glance
}

// followed is a batch with what it is followed with; neither changes.
type followed struct {
	body   string         // as it is kept
	doc    document.Batch // without its events
	making batch.Making
}

// BeginBatch begins a batch of a variation, as the bench has it. From is the saved one that it comes from; nil
// when there is none. A key other than "" makes a repeated call return the first.
func (k *Kitchen) BeginBatch(ctx context.Context, v document.Variation, from *document.BaseRef, key string) (BatchNow, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return BatchNow{}, err
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return BatchNow{}, err
	}
	asked, err := v.Encode()
	if err != nil {
		return BatchNow{}, err
	}
	b, making, err := document.BeginBatch(ctx, v, from, items, document.WorkedBy{Program: about.String(), Table: food.ReferenceStamp()}, in)
	if err != nil {
		return BatchNow{}, err
	}
	body, err := b.Encode()
	if err != nil {
		return BatchNow{}, err
	}
	d, err := k.store.Create(ctx, store.Batch, store.Content{Name: b.Plan.Name, Form: string(b.Plan.Form), Body: body, Asked: asked}, key)
	if err != nil {
		return BatchNow{}, err
	}
	if string(d.Body) != string(body) { // it was begun before
		return k.Batch(ctx, d.ID)
	}
	f := followed{string(body), b, making}
	k.batches.followed.Add(d.ID, f)
	return now(d.ID, f, nil, nil), nil
}

// SplitBatches begins several bowls from one base: the common batter first, then the bowls. All of them are kept, or
// none. A key other than "" makes a repeated call return the first ones.
func (k *Kitchen) SplitBatches(ctx context.Context, wish []document.BowlWish, key string) (all []BatchNow, said []string, err error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, nil, err
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return nil, nil, err
	}
	asked, err := document.Answer(wish)
	if err != nil {
		return nil, nil, err
	}
	docs, said, err := document.SplitBatches(ctx, wish, items, document.WorkedBy{Program: about.String(), Table: food.ReferenceStamp()}, in)
	if err != nil {
		return nil, nil, err
	}
	var ids []string
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		ids = nil
		for n, b := range docs {
			if n > 0 {
				b.Common = ids[0]
			}
			body, err := b.Encode()
			if err != nil {
				return err
			}
			one := ""
			if key != "" {
				one = key + " " + strconv.Itoa(n)
			}
			d, err := tx.Create(ctx, store.Batch, store.Content{Name: b.Plan.Name, Form: string(b.Plan.Form), Body: body, Asked: asked}, one)
			if err != nil {
				return err
			}
			ids = append(ids, d.ID)
		}
		return nil
	})
	if err != nil {
		return nil, nil, err
	}
	for _, id := range ids {
		b, err := k.Batch(ctx, id)
		if err != nil {
			return nil, nil, err
		}
		all = append(all, b)
	}
	return all, said, nil
}

func now(id string, f followed, common *batch.Clock, events []batch.Event) BatchNow {
	b := BatchNow{ID: id, StartedAt: f.doc.StartedAt, From: f.doc.From, Plan: f.making.Plan.Clone(), State: f.making.FoldAfter(events, common)}
	if b.State.Offer != nil {
		f.doc.Variation.Dose(b.State.Offer.Doses)
	}
	return b
}

// follow is what a saved batch is followed with.
func (k *Kitchen) follow(ctx context.Context, d store.Document) (followed, error) {
	if f, ok := k.batches.followed.Get(d.ID); ok && f.body == string(d.Body) {
		return f, nil
	}
	b, err := document.DecodeBatch(d.Body)
	if err != nil {
		return followed{}, err
	}
	m, err := b.Making(ctx, k.Bare())
	if err != nil {
		return followed{}, err
	}
	f := followed{string(d.Body), b, m}
	k.batches.followed.Add(d.ID, f)
	return f, nil
}

// Batch returns a batch as far as it has come.
func (k *Kitchen) Batch(ctx context.Context, id string) (BatchNow, error) {
	d, err := k.store.Get(ctx, store.Batch, id)
	if err != nil {
		return BatchNow{}, err
	}
	f, err := k.follow(ctx, d)
	if err != nil {
		return BatchNow{}, err
	}
	rows, err := k.store.Events(ctx, id)
	return now(id, f, k.clockOf(ctx, f.doc.Common), decoded[batch.Event](k, rows)), err
}

// clockOf is the clock of a common batter, which goes on in the bowls that took of it; nil when there is none. A common batter took of
// no other: what it names itself is not followed.
func (k *Kitchen) clockOf(ctx context.Context, common string) *batch.Clock {
	if common == "" {
		return nil
	}
	d, err := k.store.Get(ctx, store.Batch, common)
	if err != nil { // put aside since: then it is known no more
		return nil
	}
	b, err := document.GlimpseBatch(d.Body)
	if err != nil {
		return nil
	}
	rows, err := k.store.Events(ctx, common)
	if err != nil {
		return nil
	}
	c := b.Plan.Glance(decoded[batch.Event](k, rows), nil).Clock
	return &c
}

// glimpse is what a list needs of a batch.
func (k *Kitchen) glimpse(ctx context.Context, h store.Head) (glimpse, error) {
	if g, ok := k.batches.glimpsed.Get(h.ID); ok && g.revision == h.Revision && g.event == h.LastEvent {
		return g, nil
	}
	d, err := k.store.Get(ctx, store.Batch, h.ID)
	if err != nil {
		return glimpse{}, err
	}
	b, err := document.GlimpseBatch(d.Body)
	if err != nil {
		return glimpse{}, err
	}
	rows, err := k.store.Events(ctx, h.ID)
	if err != nil {
		return glimpse{}, err
	}
	g := glimpse{d.Revision, h.LastEvent, b.StartedAt, b.From, b.Common, b.Plan.Glance(decoded[batch.Event](k, rows), k.clockOf(ctx, b.Common))}
	if g.common == "" {
		k.batches.glimpsed.Add(h.ID, g)
	}
	return g, nil
}

// ErrFull says that a batch takes no more events.
var ErrFull = errors.New("too much happened to this batch; begin another")

// Tell adds an event to a batch, stamped with the time at which it happened: it waited so long on its tablet. It returns what comes of it. An event that is there
// already changes nothing. What is made comes off the pantry's stock, and back onto it when that is taken back.
func (k *Kitchen) Tell(ctx context.Context, id string, data []byte, waited time.Duration) (BatchNow, error) {
	d, err := k.store.Get(ctx, store.Batch, id)
	if err != nil {
		return BatchNow{}, err
	}
	f, err := k.follow(ctx, d)
	if err != nil {
		return BatchNow{}, err
	}
	e, err := f.doc.DecodeEvent(data)
	if err != nil {
		return BatchNow{}, err
	}
	common := k.clockOf(ctx, f.doc.Common)
	e.Took = nil
	var after BatchNow
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		if _, err := tx.Get(ctx, store.Batch, id); err != nil {
			return err
		}
		rows, err := tx.Events(ctx, id)
		if err != nil {
			return err
		}
		events := decoded[batch.Event](k, rows)
		if slices.ContainsFunc(events, func(x batch.Event) bool { return x.ID == e.ID }) {
			after = now(id, f, common, events)
			return nil
		}
		if len(events) >= document.MaxEvents {
			return ErrFull
		}
		e.At, e.WaitedMS = k.stamp(waited, f.doc.StartedAt, f.making.Earliest(events, e))
		if e.Kind == batch.Made {
			if e.Took, err = k.countDown(ctx, tx, f.making.Fold(events)); err != nil {
				return err
			}
		}
		if e.Kind == batch.TookBack {
			if err := k.putBack(ctx, tx, events, e.Undoes); err != nil {
				return err
			}
		}
		body, err := document.EncodeEvent(e)
		if err != nil {
			return err
		}
		if _, err := tx.AddEvent(ctx, id, store.Event{ID: e.ID, At: e.At, Body: body}); err != nil {
			return err
		}
		after = now(id, f, common, append(events, e))
		return nil
	})
	if err == nil {
		k.watchers.told(id)
	}
	return after, err
}

// countDown takes what went into a batch off the pantry's stock, as far as somebody keeps it, and says what.
func (k *Kitchen) countDown(ctx context.Context, tx *store.Tx, s batch.State) ([]batch.Take, error) {
	if s.Made {
		return nil, nil
	}
	docs, err := tx.All(ctx, store.Pantry)
	if err != nil {
		return nil, err
	}
	items, docs := k.read(docs)
	used := s.Used()
	var took []batch.Take
	var writes []store.Write
	for i, item := range items { // newest first
		row := item.StandsFor
		if row == "" {
			row = item.ID
		}
		g := used[row]
		if item.StockG == nil || *item.StockG <= 0 || g <= 0 {
			continue
		}
		g = math.Min(g, *item.StockG)
		used[row] -= g
		took = append(took, batch.Take{Item: docs[i].ID, Grams: g})
		w, err := restocked(docs[i], item, *item.StockG-g)
		if err != nil {
			return nil, err
		}
		writes = append(writes, w)
	}
	return took, tx.SaveAll(ctx, store.Pantry, writes)
}

// putBack puts back what an event took, when it is taken back for the first time.
func (k *Kitchen) putBack(ctx context.Context, tx *store.Tx, events []batch.Event, undoes string) error {
	at := slices.IndexFunc(events, func(e batch.Event) bool { return e.ID == undoes })
	if at < 0 || slices.ContainsFunc(events, func(e batch.Event) bool { return e.Kind == batch.TookBack && e.Undoes == undoes }) {
		return nil
	}
	var writes []store.Write
	for _, t := range events[at].Took {
		d, err := tx.Get(ctx, store.Pantry, t.Item)
		if errors.Is(err, store.ErrNotFound) { // the tub is gone since
			continue
		}
		if err != nil {
			return err
		}
		items, docs := k.read([]store.Document{d})
		if len(items) == 0 {
			continue
		}
		had := 0.0
		if items[0].StockG != nil {
			had = *items[0].StockG
		}
		w, err := restocked(docs[0], items[0], had+t.Grams)
		if err != nil {
			return err
		}
		writes = append(writes, w)
	}
	return tx.SaveAll(ctx, store.Pantry, writes)
}

func restocked(d store.Document, item document.PantryItem, grams float64) (store.Write, error) {
	item.StockG = &grams
	text, err := document.NewItem(item).Encode()
	return store.Write{ID: d.ID, Content: store.Content{Name: item.Name, Body: text}}, err
}

// BatchListed is a batch in a list.
type BatchListed struct {
	ID, Name, Form string
	StartedAt      time.Time
	From           *document.BaseRef
	batch.Glance
	Trouble string // why it cannot be followed
}

// Batches lists the batches, the last touched first, as many as anybody goes back to. None of them is worked out for it.
func (k *Kitchen) Batches(ctx context.Context) ([]BatchListed, error) {
	heads, err := k.store.Heads(ctx, store.Batch, mostListed)
	if err != nil {
		return nil, err
	}
	out := make([]BatchListed, 0, len(heads))
	for _, h := range heads {
		one := BatchListed{ID: h.ID, Name: h.Name, Form: h.Form, StartedAt: h.UpdatedAt}
		switch g, err := k.glimpse(ctx, h); {
		case errors.Is(err, store.ErrNotFound): // put aside meanwhile
			continue
		case ctx.Err() != nil:
			return nil, ctx.Err()
		case err != nil:
			one.Trouble = document.Sentence(err)
		default:
			one.StartedAt, one.From, one.Glance = g.startedAt, g.from, g.Glance
		}
		out = append(out, one)
	}
	return out, nil
}

// untwist takes out of the batches what leads a common batter to another one, or to itself: an earlier program let that in.
func (k *Kitchen) untwist(ctx context.Context, tx *store.Tx) error {
	docs, err := tx.All(ctx, store.Batch)
	if err != nil {
		return err
	}
	named := map[string]string{}
	all := map[string]document.Batch{}
	for _, d := range docs {
		if b, err := document.DecodeBatch(d.Body); err == nil {
			named[d.ID], all[d.ID] = b.Common, b
		}
	}
	var writes []store.Write
	for _, d := range docs {
		b, ok := all[d.ID]
		if !ok || b.Common == "" || b.Common != d.ID && named[b.Common] == "" {
			continue
		}
		b.Common = ""
		body, err := b.Encode()
		if err != nil {
			return err
		}
		k.log.Warn("a bowl whose common batter leads on is not followed to it", "batch", d.ID)
		writes = append(writes, store.Write{ID: d.ID, Content: store.Content{Name: d.Name, Form: d.Form, Body: body}})
	}
	return tx.SaveAll(ctx, store.Batch, writes)
}

// ExportBatch is a batch as an open document, with everything that happened.
func (k *Kitchen) ExportBatch(ctx context.Context, id string) (name string, data []byte, err error) {
	return k.Export(ctx, store.Batch, id, "json")
}

// exportedBatch is a batch with everything that happened, or in a few lines of text.
func (k *Kitchen) exportedBatch(ctx context.Context, d store.Document, as string) ([]byte, error) {
	rows, err := k.store.Events(ctx, d.ID)
	if err != nil {
		return nil, err
	}
	data, err := k.withEvents(d.Body, rows)
	if err != nil || as == "json" {
		return data, err
	}
	f, err := k.follow(ctx, d)
	if err != nil {
		return nil, err
	}
	return []byte(now(d.ID, f, nil, decoded[batch.Event](k, rows)).State.Text(f.making.Plan)), nil
}

// withEvents is a kept batch together with what happened to it. One that cannot be read goes as it is.
func (k *Kitchen) withEvents(body []byte, rows []store.Event) ([]byte, error) {
	b, err := document.DecodeBatch(body)
	if err != nil {
		return body, nil
	}
	b.Events = decoded[batch.Event](k, rows)
	return b.Encode()
}

// apart is a batch without its events, and they as they are kept.
func apart(data []byte) (body []byte, rows []store.Event, err error) {
	b, err := document.DecodeBatch(data)
	if err != nil {
		return nil, nil, err
	}
	if rows, err = rowsOf(b.Events, func(e batch.Event) (string, time.Time) { return e.ID, e.At }); err != nil {
		return nil, nil, err
	}
	b.Events = nil
	body, err = b.Encode()
	return body, rows, err
}
