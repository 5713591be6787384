package kitchen

import (
	"context"
	"errors"
	"math"
	"strconv"
	"time"

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

// mostGlimpsed is how many are known for a list (modelling choice: a season of them).
const mostGlimpsed = 1000

// mostListed is how many batches are listed (modelling choice: two months of mornings).
const mostListed = 500

// glimpse is of a batch what a list needs, as of a state of it; it does not change. One that took its share of a common batter is not remembered: that one's clock goes on.
type glimpse struct {
	revision, event int64
	startedAt       time.Time
	from            *document.BaseRef
	common          string
	batch.Glance
}

// bowl is a batch as it goes on.
type bowl struct {
	batch.Bowl
	doc    document.Batch // without its events
	making *batch.Making
}

func bowlOf(doc document.Batch, m batch.Making) bowl { return bowl{m.Bowl(), doc, &m} }

func (b bowl) begun() time.Time                      { return b.doc.StartedAt }
func (b bowl) read(data []byte) (batch.Event, error) { return b.doc.DecodeEvent(data) }

// now is the batch as far as it has come.
func (b bowl) now(id string, common *batch.Clock) BatchNow {
	out := BatchNow{ID: id, StartedAt: b.doc.StartedAt, From: b.doc.From, Plan: b.making.Plan.Clone(), State: b.State(common)}
	if out.State.Offer != nil {
		b.doc.Variation.Dose(out.State.Offer.Doses)
	}
	return out
}

type bowls = happening[document.Batch, batch.Event, *batch.Event, bowl]

func newBowls(k *Kitchen) *bowls {
	return newHappening(k, bowls{
		kind:   store.Batch,
		decode: document.DecodeBatch,
		events: func(b *document.Batch) *[]batch.Event { return &b.Events },
		open: func(ctx context.Context, b document.Batch) (bowl, error) {
			m, err := b.Making(ctx, k.Bare())
			return bowlOf(b, m), err
		},
		before: k.beforeBowl,
		text:   func(b bowl) string { return b.State(nil).Text(b.making.Plan) },
	})
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
	if string(d.Body) == string(body) { // else it was begun before
		k.bowls.keep(d.ID, body, bowlOf(b, making))
	}
	return k.Batch(ctx, d.ID)
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

// Batch returns a batch as far as it has come.
func (k *Kitchen) Batch(ctx context.Context, id string) (out BatchNow, err error) {
	common := ""
	err = k.bowls.look(ctx, k.store, id, func(b bowl) error {
		common = b.doc.Common
		return nil
	})
	if err != nil {
		return out, err
	}
	clock := k.clockOf(ctx, common)
	err = k.bowls.look(ctx, k.store, id, func(b bowl) error {
		out = b.now(id, clock)
		return nil
	})
	return out, err
}

// clockOf is the clock of a common batter, which goes on in the bowls that took of it; nil when there is none. A common batter took of
// no other: what it names itself is not followed.
func (k *Kitchen) clockOf(ctx context.Context, common string) *batch.Clock {
	if common == "" {
		return nil
	}
	var c batch.Clock
	err := k.bowls.look(ctx, k.store, common, func(b bowl) error {
		c = b.State(nil).Clock
		return nil
	})
	if err != nil { // put aside since, or it cannot be read: then it is known no more
		return nil
	}
	return &c
}

// glimpse is what a list needs of a batch.
func (k *Kitchen) glimpse(ctx context.Context, h store.Head) (glimpse, error) {
	if g, ok := k.glimpsed.Get(h.ID); ok && g.revision == h.Revision && g.event == h.LastEvent {
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
	rows, err := k.store.Events(ctx, h.ID, 0)
	if err != nil {
		return glimpse{}, err
	}
	g := glimpse{d.Revision, h.LastEvent, b.StartedAt, b.From, b.Common, b.Plan.Glance(k.bowls.decoded(rows), k.clockOf(ctx, b.Common))}
	if g.common == "" {
		k.glimpsed.Add(h.ID, g)
	}
	return g, nil
}

// Tell adds an event to a batch, stamped with the time at which it happened: it waited so long on its tablet. It returns what
// comes of it. What is made comes off the pantry's stock, and back onto it when that is taken back.
func (k *Kitchen) Tell(ctx context.Context, id string, data []byte, waited time.Duration) (BatchNow, error) {
	if _, err := k.bowls.tell(ctx, id, data, waited, nil); err != nil {
		return BatchNow{}, err
	}
	return k.Batch(ctx, id)
}

// beforeBowl is what an event of a batch does to the stock.
func (k *Kitchen) beforeBowl(ctx context.Context, tx *store.Tx, _ string, b bowl, e *batch.Event) (err error) {
	switch e.Kind {
	case batch.Made:
		e.Took, err = k.countDown(ctx, tx, b.State(nil))
	case batch.TookBack:
		if undone := b.Find(e.Undoes); undone != nil && !b.TookBack(e.Undoes) {
			err = k.putBack(ctx, tx, undone.Took)
		}
	}
	return err
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

// putBack puts back what an event took.
func (k *Kitchen) putBack(ctx context.Context, tx *store.Tx, took []batch.Take) error {
	var writes []store.Write
	for _, t := range took {
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
