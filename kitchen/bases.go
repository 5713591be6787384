package kitchen

import (
	"context"
	"slices"

	"upbeatladle/core/base"
	"upbeatladle/document"
	"upbeatladle/starter"
	"upbeatladle/store"
)

// ShelvedBase is a base with what the shelf tells of it.
type ShelvedBase struct {
	store.Document
	Base        document.Base
	Fingerprint base.Fingerprint
	LineNames   []string
	Allergens   string
}

// BaseShelf is every base with its fingerprint. One that cannot be read or worked out stands
// there with its sentence.
func (k *Kitchen) BaseShelf(ctx context.Context) ([]ShelvedBase, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, err
	}
	docs, err := k.store.All(ctx, store.Base)
	if err != nil {
		return nil, err
	}
	var out []ShelvedBase
	for _, d := range docs {
		b, err := document.DecodeBase(d.Body)
		if err != nil {
			b = document.Base{Format: document.BaseFormat, Version: 1, Name: d.Name, Form: d.Form, Lines: []document.Line{}}
			out = append(out, ShelvedBase{d, b, unread(err), []string{}, b.AllergenText(in)})
			continue
		}
		f, err := b.Fingerprint(ctx, in)
		if err != nil { // an own ingredient of it may be gone
			f = unread(err)
		}
		shelved := ShelvedBase{d, b, f, []string{}, b.AllergenText(in)}
		for _, l := range b.Lines {
			name := l.Ingredient
			if row := in.Table.ByID(l.Ingredient); row != nil {
				name = row.Label()
			}
			shelved.LineNames = append(shelved.LineNames, name)
		}
		out = append(out, shelved)
	}
	return out, nil
}

// unread is the fingerprint of a base that cannot be worked out: its sentence.
func unread(err error) base.Fingerprint {
	return base.Fingerprint{Sentences: []string{document.Sentence(err)}, Trouble: true}
}

// AddStarters puts the shipped bases on the shelf, those whose names are not there, and says
// how many.
func (k *Kitchen) AddStarters(ctx context.Context) (int, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return 0, err
	}
	all, err := starter.Bases()
	if err != nil {
		return 0, err
	}
	var shipped []store.Content
	for _, data := range all {
		sum, err := document.SummariseBase(ctx, data, in)
		if err != nil {
			return 0, err
		}
		shipped = append(shipped, ContentOf(sum))
	}
	slices.Reverse(shipped) // lists show what came last first
	var batch []store.Write
	err = k.store.Together(ctx, func(tx *store.Tx) error {
		there, err := tx.All(ctx, store.Base)
		if err != nil {
			return err
		}
		for _, content := range shipped {
			if !slices.ContainsFunc(there, func(d store.Document) bool { return d.Name == content.Name }) {
				batch = append(batch, store.Write{Content: content})
			}
		}
		return tx.SaveAll(ctx, store.Base, batch)
	})
	return len(batch), err
}
