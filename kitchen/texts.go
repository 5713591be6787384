package kitchen

import (
	"context"
	"errors"

	"upbeatladle/document"
	"upbeatladle/store"
)

// KeepText keeps what was pasted, once, and returns the id under which a base or a variation names it.
func (k *Kitchen) KeepText(ctx context.Context, pasted string) (id string, err error) {
	t, err := document.NewText(pasted)
	if err != nil {
		return "", err
	}
	body, err := t.Encode()
	if err != nil {
		return "", err
	}
	sum, err := document.SummariseText(ctx, body, document.Setting{})
	if err != nil {
		return "", err
	}
	return t.ID(), k.store.Together(ctx, func(tx *store.Tx) error {
		if _, err := tx.Get(ctx, store.Text, t.ID()); !errors.Is(err, store.ErrNotFound) {
			return err // there already, or not to be had
		}
		return tx.SaveAll(ctx, store.Text, []store.Write{{ID: t.ID(), New: true, Revision: 1, Content: ContentOf(sum)}})
	})
}

// Text is a text that was kept.
func (k *Kitchen) Text(ctx context.Context, id string) (document.Text, error) {
	d, err := k.store.Get(ctx, store.Text, id)
	if err != nil {
		return document.Text{}, err
	}
	return document.DecodeText(d.Body)
}
