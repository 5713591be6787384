package kitchen

import (
	"context"
	"crypto/sha256"
	"sync"

	"upbeatladle/core/food"
	"upbeatladle/document"
	"upbeatladle/store"
)

// Card is what a list shows of a document: worked out on today's shelf in today's kitchen,
// never stored.
type Card struct {
	Verdict string
	Picture []byte // JSON that a card draws
}

// mostCards is how many cards are kept in memory (modelling choice: ten times a full shelf,
// some megabytes).
const mostCards = 10_000

// cards keeps what was worked out for as long as shelf and kitchen stay what they were. A body
// that was saved again, or that two documents share, is the same card.
type cards struct {
	mu       sync.Mutex
	table    *food.Table // a new one for every change of pantry and day
	revision int64       // of the kitchen
	kept     map[[sha256.Size]byte]Card
}

func (c *cards) get(in document.Setting, revision int64, kind store.Kind, body []byte) (Card, bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.table != in.Table || c.revision != revision {
		return Card{}, false
	}
	card, ok := c.kept[cardKey(kind, body)]
	return card, ok
}

func (c *cards) keep(in document.Setting, revision int64, kind store.Kind, body []byte, card Card) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.table != in.Table || c.revision != revision || len(c.kept) >= mostCards {
		c.table, c.revision, c.kept = in.Table, revision, map[[sha256.Size]byte]Card{}
	}
	c.kept[cardKey(kind, body)] = card
}

func cardKey(kind store.Kind, body []byte) [sha256.Size]byte {
	h := sha256.New()
	h.Write([]byte(kind))
	h.Write([]byte{0})
	h.Write(body)
	return [sha256.Size]byte(h.Sum(nil))
}

// Listed is a saved document with its card.
type Listed struct {
	store.Document
	Card
}

// List returns a page of saved documents, last changed first, each with its card. One that
// cannot be worked out stands there with its sentence.
func (k *Kitchen) List(ctx context.Context, kind store.Kind, after string, limit int) (items []Listed, next string, err error) {
	page, err := k.store.List(ctx, kind, after, limit)
	if err != nil {
		return nil, "", err
	}
	in, revision, err := k.stand(ctx)
	if err != nil {
		return nil, "", err
	}
	for _, d := range page.Items {
		card, known := k.cards.get(in, revision, kind, d.Body)
		if !known {
			if card, err = cardOf(ctx, kind, d.Body, in); err != nil {
				return nil, "", err
			}
			k.cards.keep(in, revision, kind, d.Body, card)
		}
		items = append(items, Listed{d, card})
	}
	return items, page.Next, nil
}

// cardOf works a card out; the only error is that nobody waits for it any more.
func cardOf(ctx context.Context, kind store.Kind, body []byte, in document.Setting) (Card, error) {
	sum, err := summarise(ctx, kind, body, in)
	if ctx.Err() != nil {
		return Card{}, ctx.Err()
	}
	if err != nil {
		sum.Verdict, sum.Picture = document.Troubled(err)
	}
	return Card{sum.Verdict, sum.Picture}, nil
}
