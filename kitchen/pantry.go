package kitchen

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"upbeatladle/document"
	"upbeatladle/store"
)

// Items returns the pantry's items that can be read, newest first, and the documents that they
// are kept in.
func (k *Kitchen) Items(ctx context.Context) ([]document.PantryItem, []store.Document, error) {
	docs, err := k.store.All(ctx, store.Pantry)
	if err != nil {
		return nil, nil, err
	}
	items, read := k.read(docs)
	return items, read, nil
}

// read decodes what can be read of saved items.
func (k *Kitchen) read(docs []store.Document) ([]document.PantryItem, []store.Document) {
	out, read := make([]document.PantryItem, 0, len(docs)), make([]store.Document, 0, len(docs))
	for _, d := range docs {
		var i document.Item
		if err := document.Strict(d.Body, &i); err != nil {
			k.log.Warn("a pantry item cannot be read", "name", d.Name, "err", err)
			continue
		}
		out, read = append(out, i.PantryItem), append(read, d)
	}
	return out, read
}

// All returns every saved document of a kind, last changed first.
func (k *Kitchen) All(ctx context.Context, kind store.Kind) ([]store.Document, error) {
	return k.store.All(ctx, kind)
}

// CreateItem saves a new pantry item. An own id that is taken gets a number, with nobody in
// between. The error is document.Problems.
func (k *Kitchen) CreateItem(ctx context.Context, data []byte, key string) (d store.Document, err error) {
	item, err := document.DecodeItem(data, k.Bare())
	if err != nil {
		return d, err
	}
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		docs, err := tx.All(ctx, store.Pantry)
		if err != nil {
			return err
		}
		there, _ := k.read(docs)
		item.ID = freeID(item.ID, there)
		text, err := item.Encode()
		if err != nil {
			return err
		}
		d, err = tx.Create(ctx, store.Pantry, store.Content{Name: item.Name, Body: text, Asked: data}, key)
		return err
	})
	return d, err
}

func freeID(id string, there []document.PantryItem) string {
	free := id
	for n := 2; slices.ContainsFunc(there, func(p document.PantryItem) bool { return p.ID == free }); n++ {
		free = fmt.Sprintf("%s_%d", id, n)
	}
	return free
}

// ownIDFree refuses an item whose own id another one has.
func (k *Kitchen) ownIDFree(ctx context.Context, id string, body []byte) error {
	var mine document.Item
	if err := document.Strict(body, &mine); err != nil {
		return err
	}
	items, docs, err := k.Items(ctx)
	if err != nil {
		return err
	}
	for i, other := range items {
		if other.ID == mine.ID && docs[i].ID != id {
			return document.Refusal("/id", "taken", "“%s” is the id of %s. Use another one.", mine.ID, other.Name)
		}
	}
	return nil
}

// separate gives every item an own id that no other has: the one that came first keeps it.
func (k *Kitchen) separate(ctx context.Context, tx *store.Tx) error {
	docs, err := tx.All(ctx, store.Pantry)
	if err != nil {
		return err
	}
	slices.SortFunc(docs, func(a, b store.Document) int { return strings.Compare(a.ID, b.ID) }) // ids rise with time
	items, docs := k.read(docs)
	var batch []store.Write
	for i, item := range items {
		if !slices.ContainsFunc(items[:i], func(p document.PantryItem) bool { return p.ID == item.ID }) {
			continue
		}
		items[i].ID = freeID(item.ID, items)
		text, err := document.NewItem(items[i]).Encode()
		if err != nil {
			return err
		}
		batch = append(batch, store.Write{ID: docs[i].ID, Content: store.Content{Name: item.Name, Body: text}})
	}
	return tx.SaveAll(ctx, store.Pantry, batch)
}

// Mend repairs what an earlier program let in: two items with one own id, and bowls whose common batter leads to themselves.
func (k *Kitchen) Mend(ctx context.Context) error {
	return k.store.Together(ctx, func(tx *store.Tx) error { return errors.Join(k.separate(ctx, tx), k.untwist(ctx, tx)) })
}

// ExportPantry is the whole pantry as CSV.
func (k *Kitchen) ExportPantry(ctx context.Context) ([]byte, error) {
	items, _, err := k.Items(ctx)
	if err != nil {
		return nil, err
	}
	return document.ExportPantry(k.table, items)
}

// ImportPantry judges every row of a pantry file against what is there and, when it is to be
// saved, keeps what is new or changed, with nobody in between. The error is document.Problems.
func (k *Kitchen) ImportPantry(ctx context.Context, data []byte, save bool) (rows []document.ImportRow, err error) {
	if !save {
		there, _, err := k.Items(ctx)
		if err != nil {
			return nil, err
		}
		return document.ImportPantry(data, k.Bare(), there)
	}
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		docs, err := tx.All(ctx, store.Pantry)
		if err != nil {
			return err
		}
		there, docs := k.read(docs)
		if rows, err = document.ImportPantry(data, k.Bare(), there); err != nil {
			return err
		}
		batch, err := writesOf(rows, there, docs)
		if err != nil {
			return err
		}
		return tx.SaveAll(ctx, store.Pantry, batch)
	})
	return rows, err
}

// writesOf are the writes that new and changed rows ask for.
func writesOf(rows []document.ImportRow, there []document.PantryItem, docs []store.Document) ([]store.Write, error) {
	var batch []store.Write
	for _, r := range rows {
		if r.Action != document.RowAdded && r.Action != document.RowChanged {
			continue
		}
		text, err := document.NewItem(r.Item).Encode()
		if err != nil {
			return nil, err
		}
		w := store.Write{Content: store.Content{Name: r.Item.Name, Body: text}}
		if i := slices.IndexFunc(there, func(p document.PantryItem) bool { return p.ID == r.Item.ID }); i >= 0 {
			w.ID = docs[i].ID
		}
		batch = append(batch, w)
	}
	return batch, nil
}

// Use is a saved document that names an ingredient.
type Use struct {
	Kind     store.Kind
	ID, Name string
}

// UsedIn finds the saved documents that name an ingredient.
func (k *Kitchen) UsedIn(ctx context.Context, id string) ([]Use, error) {
	var out []Use
	for _, kind := range naming {
		docs, err := k.store.All(ctx, kind)
		if err != nil {
			return nil, err
		}
		for _, d := range docs {
			if uses(kind, d.Body, id) {
				out = append(out, Use{kind, d.ID, d.Name})
			}
		}
	}
	return out, nil
}

// naming are the kinds of documents that name ingredients.
var naming = []store.Kind{store.Variation, store.Base, store.Sauce}

func uses(kind store.Kind, body []byte, id string) bool {
	switch kind {
	case store.Base:
		b, err := document.DecodeBase(body)
		return err == nil && b.Uses(id)
	case store.Sauce:
		a, err := document.DecodeSauce(body)
		return err == nil && a.Uses(id)
	}
	v, err := document.DecodeVariation(body)
	return err == nil && v.Uses(id)
}
