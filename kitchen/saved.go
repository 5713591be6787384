package kitchen

import (
	"context"

	"upbeatladle/document"
	"upbeatladle/store"
)

// ContentOf is what is kept of a document that can be used.
func ContentOf(s document.Summary) store.Content {
	return store.Content{Name: s.Name, Form: s.Form, Body: s.Body}
}

// summarise reads a document of a kind and works it out, so that nothing is saved that cannot
// be used. The error is document.Problems.
func summarise(ctx context.Context, kind store.Kind, data []byte, in document.Setting) (document.Summary, error) {
	switch kind {
	case store.Base:
		return document.SummariseBase(ctx, data, in)
	case store.Pantry:
		return document.SummariseItem(ctx, data, in)
	case store.Batch:
		return document.SummariseBatch(ctx, data, in)
	case store.Board:
		return document.SummariseBoard(data)
	case store.Pack:
		return document.SummarisePack(data)
	case store.Sauce:
		return document.SummariseSauce(data, in)
	}
	return document.SummariseVariation(ctx, data, in)
}

// Create saves a new document. A key other than "" makes a repeated call return the first.
func (k *Kitchen) Create(ctx context.Context, kind store.Kind, data []byte, key string) (store.Document, error) {
	sum, err := k.usable(ctx, kind, data)
	if err != nil {
		return store.Document{}, err
	}
	return k.store.Create(ctx, kind, ContentOf(sum), key)
}

// Put saves over the revision that was read; *store.ConflictError when somebody else saved it
// since. The content is returned as it would have been saved.
func (k *Kitchen) Put(ctx context.Context, kind store.Kind, id string, revision int64, data []byte) (store.Document, []byte, error) {
	sum, err := k.usable(ctx, kind, data)
	if err == nil && kind == store.Pantry {
		err = k.ownIDFree(ctx, id, sum.Body)
	}
	if err != nil {
		return store.Document{}, nil, err
	}
	d, err := k.store.Put(ctx, kind, id, revision, ContentOf(sum))
	return d, sum.Body, err
}

func (k *Kitchen) usable(ctx context.Context, kind store.Kind, data []byte) (document.Summary, error) {
	in, revision, err := k.stand(ctx)
	if err != nil {
		return document.Summary{}, err
	}
	sum, err := summarise(ctx, kind, data, in)
	if err == nil {
		k.cards.keep(in, revision, kind, sum.Body, Card{sum.Verdict, sum.Picture})
	}
	return sum, err
}

// Get returns a saved document.
func (k *Kitchen) Get(ctx context.Context, kind store.Kind, id string) (store.Document, error) {
	return k.store.Get(ctx, kind, id)
}

// PutAside takes a document off the shelf; BringBack undoes it.
// A sheet or a board on which nothing happened goes for good: there is nothing to bring back.
func (k *Kitchen) PutAside(ctx context.Context, kind store.Kind, id string) error {
	err := k.store.Delete(ctx, kind, id)
	if err != nil || k.eventful[kind] == nil {
		return err
	}
	k.watchers.told(id) // who watches it learns that it is gone
	rows, err := k.store.Events(ctx, id, 0)
	if err != nil || len(rows) > 0 {
		return err
	}
	return k.Purge(ctx, kind, id)
}

// BringBack undoes PutAside. A pantry item whose own id was given to another one since gets a
// number behind it.
func (k *Kitchen) BringBack(ctx context.Context, kind store.Kind, id string) (d store.Document, err error) {
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		if d, err = tx.Restore(ctx, kind, id); err != nil || kind != store.Pantry {
			return err
		}
		if err := k.separate(ctx, tx); err != nil {
			return err
		}
		d, err = tx.Get(ctx, kind, id)
		return err
	})
	return d, err
}

// Versions lists the named states of a variation, newest first.
func (k *Kitchen) Versions(ctx context.Context, id string) ([]store.Version, error) {
	return k.store.Versions(ctx, store.Variation, id)
}

// NameVersion names a saved state of a variation.
func (k *Kitchen) NameVersion(ctx context.Context, id, name string, revision int64) (store.Version, error) {
	return k.store.Name(ctx, store.Variation, id, name, revision)
}

// Revision returns a base or variation as it was saved then.
func (k *Kitchen) Revision(ctx context.Context, kind store.Kind, id string, revision int64) (store.Document, error) {
	return k.store.Revision(ctx, kind, id, revision)
}

// UnnameVersion takes the name from a state of a variation; the state stays.
func (k *Kitchen) UnnameVersion(ctx context.Context, id string, revision int64) error {
	return k.store.Unname(ctx, store.Variation, id, revision)
}

// State is a state of a base or variation, and what was done in it to the one before; empty where that was first.
type State struct {
	store.State
	Changed []string
}

// States lists what is kept of the past of a base or variation, the newest first.
func (k *Kitchen) States(ctx context.Context, kind store.Kind, id string) ([]State, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, err
	}
	kept, err := k.store.States(ctx, kind, id)
	out := make([]State, len(kept))
	for i, s := range kept {
		out[i].State = s
		if i+1 < len(kept) {
			out[i].Changed = document.Changed(kept[i+1].Body, s.Body, in.Table)
		}
	}
	return out, err
}

// LookAside is a base or variation that was put aside, by its name and as plain text.
func (k *Kitchen) LookAside(ctx context.Context, kind store.Kind, id string) (name, text string, err error) {
	d, err := k.store.LookAside(ctx, kind, id)
	if err != nil {
		return "", "", err
	}
	data, err := k.exported(ctx, kind, d, "text")
	return d.Name, string(data), err
}

// Purge takes what was put aside away for good.
func (k *Kitchen) Purge(ctx context.Context, kind store.Kind, id string) error {
	if h := k.eventful[kind]; h != nil {
		defer h.forget(id) // another one with its id may come
	}
	return k.store.Purge(ctx, kind, id)
}

// Bin lists what was put aside and can still come back, last put aside first.
func (k *Kitchen) Bin(ctx context.Context) ([]store.Aside, error) { return k.store.Bin(ctx) }
