package kitchen

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"upbeatladle/document"
	"upbeatladle/store"
)

// archived are the kinds of an archive, in the order in which they build on each other.
var archived = []store.Kind{store.Pantry, store.Base, store.Variation}

func partOf(a *document.Archive, kind store.Kind) *[]document.Kept {
	switch kind {
	case store.Pantry:
		return &a.Pantry
	case store.Base:
		return &a.Bases
	}
	return &a.Variations
}

// Archive is everything that the kitchen keeps.
func (k *Kitchen) Archive(ctx context.Context) (document.Archive, error) {
	a := document.Archive{Format: document.ArchiveFormat, Version: document.Version}
	body, _, err := k.store.Kitchen(ctx)
	if err != nil {
		return a, err
	}
	if body != nil {
		a.Kitchen = body
	}
	for _, kind := range archived {
		docs, err := k.store.All(ctx, kind)
		if err != nil {
			return a, err
		}
		part := partOf(&a, kind)
		for i := len(docs) - 1; i >= 0; i-- { // oldest first, so that lists keep their order
			kept := document.Kept{ID: docs[i].ID, Revision: docs[i].Revision, Document: docs[i].Body}
			if !json.Valid(kept.Document) { // damaged: it goes along as a text
				if kept.Document, err = json.Marshal(string(docs[i].Body)); err != nil {
					return a, err
				}
			}
			*part = append(*part, kept)
		}
	}
	return a, nil
}

// progressStep is how many documents are judged between two signs of progress.
const progressStep = 100

// importTries is how often an import is judged anew when somebody saved in the meantime
// (modelling choice: a kitchen rests for a second sooner or later).
const importTries = 5

// ErrRestless says that somebody saved again and again while an import was judged.
var ErrRestless = errors.New("somebody keeps saving")

// Import judges every document of an archive and, unless it is dry, keeps what is new or
// changed: all of it, or nothing. It is judged outside the transaction, so that nobody waits
// for it, and anew when somebody saved in between.
func (k *Kitchen) Import(ctx context.Context, a document.Archive, dry bool, progress func(done int)) ([]document.Fate, error) {
	for range importTries {
		plan, err := k.judge(ctx, a, progress)
		if err != nil || dry {
			return plan.fates, err
		}
		err = k.store.Together(ctx, func(tx *store.Tx) error { return plan.carryOut(ctx, tx) })
		if !errors.Is(err, errMoved) {
			return plan.fates, err
		}
	}
	return nil, ErrRestless
}

// errMoved says that what an import was judged against is not what is there any more.
var errMoved = errors.New("somebody saved in the meantime")

// plan is what an import would do.
type plan struct {
	fates    []document.Fate
	state    string // of what it was judged against
	own      []byte // the kitchen to save; nil to leave it
	revision int64
	batches  map[store.Kind][]store.Write
}

// carryOut saves a plan, unless something moved since it was made.
func (p plan) carryOut(ctx context.Context, tx *store.Tx) error {
	state, err := stateOf(ctx, tx)
	if err != nil {
		return err
	}
	if state != p.state {
		return errMoved
	}
	if p.own != nil {
		if _, err := tx.PutKitchen(ctx, p.own, p.revision); err != nil {
			return err
		}
	}
	for _, kind := range archived {
		if err := tx.SaveAll(ctx, kind, p.batches[kind]); err != nil {
			return err
		}
	}
	return nil
}

// stateOf changes whenever anything that an import is judged against is saved.
func stateOf(ctx context.Context, tx interface {
	Stamp(context.Context, store.Kind) (string, error)
	Kitchen(context.Context) ([]byte, int64, error)
}) (string, error) {
	_, revision, err := tx.Kitchen(ctx)
	parts := []string{fmt.Sprint(revision)}
	for _, kind := range archived {
		stamp, stampErr := tx.Stamp(ctx, kind)
		parts, err = append(parts, stamp), errors.Join(err, stampErr)
	}
	return strings.Join(parts, "|"), err
}

// judge decides what becomes of every document: the kitchen first, then what the rest is made of.
func (k *Kitchen) judge(ctx context.Context, a document.Archive, progress func(done int)) (plan, error) {
	p := plan{batches: map[store.Kind][]store.Write{}}
	var err error
	if p.state, err = stateOf(ctx, k.store); err != nil {
		return p, err
	}
	in := k.Bare()
	if in.Kitchen, p.revision, err = k.Own(ctx); err != nil {
		return p, err
	}
	if len(a.Kitchen) > 0 {
		if in.Kitchen, err = p.judgeOwn(a.Kitchen, in.Kitchen); err != nil {
			return p, err
		}
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return p, err
	}
	done := 0
	for _, kind := range archived {
		docs, err := k.store.All(ctx, kind)
		if err != nil {
			return p, err
		}
		there := make([]document.There, len(docs))
		for i, d := range docs {
			there[i] = document.There{ID: d.ID, Name: d.Name, Body: d.Body}
		}
		if kind == store.Base { // what follows may use the items that come along
			in.Table = k.shelf(items, in.Today)
		}
		for _, kept := range *partOf(&a, kind) {
			if !plainID(kept.ID) {
				kept.ID = ""
			}
			f := document.Judge(ctx, string(kind), kept, there, in)
			if ctx.Err() != nil {
				return p, ctx.Err()
			}
			p.fates = append(p.fates, f)
			if f.Action == "added" || f.Action == "changed" {
				p.batches[kind] = append(p.batches[kind], store.Write{ID: f.ID, New: f.New, Revision: f.Revision, Content: ContentOf(f.Summary)})
				there = append(there, document.There{ID: f.ID, Name: f.Name, Body: f.Summary.Body})
				if kind == store.Pantry {
					if i, err := document.DecodeItem(f.Summary.Body, in); err == nil {
						items = append([]document.PantryItem{i.PantryItem}, items...) // newest first
					}
				}
			}
			if done++; done%progressStep == 0 {
				progress(done)
			}
		}
	}
	progress(done)
	return p, nil
}

// judgeOwn decides what becomes of the kitchen, and returns the one that the rest is judged in.
func (p *plan) judgeOwn(theirs []byte, mine document.OwnKitchen) (document.OwnKitchen, error) {
	fate := document.Fate{Kind: "kitchen", Name: "Kitchen", Action: "same"}
	own, err := document.DecodeKitchen(theirs)
	if err != nil {
		fate.Action, fate.Message = "refused", err.Error()
		p.fates = append(p.fates, fate)
		return mine, nil
	}
	fate.Name = own.Name
	body, err := own.Encode()
	if err != nil {
		return mine, err
	}
	was, err := mine.Encode()
	if err != nil {
		return mine, err
	}
	if string(was) != string(body) {
		fate.Action, p.own = "changed", body
	}
	p.fates = append(p.fates, fate)
	return own, nil
}

// plainID tells whether an id of a file may be kept.
func plainID(id string) bool {
	return len(id) <= 64 && strings.Trim(id, "0123456789abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ-_") == ""
}

// Export writes one saved thing in an open format, and its name. One that cannot be read any
// more goes out as it was kept, as JSON only.
func (k *Kitchen) Export(ctx context.Context, kind store.Kind, id, as string) (name string, data []byte, err error) {
	d, err := k.store.Get(ctx, kind, id)
	if err != nil || kind == store.Pantry {
		return d.Name, d.Body, err
	}
	in, err := k.Setting(ctx)
	if err != nil {
		return d.Name, nil, err
	}
	asItIs := func(err error) (string, []byte, error) {
		if as != "json" {
			return d.Name, nil, err
		}
		return d.Name, d.Body, nil
	}
	if kind == store.Base {
		b, err := document.DecodeBase(d.Body)
		if err != nil {
			return asItIs(err)
		}
		data, err = b.Export(ctx, as, in)
		return d.Name, data, err
	}
	v, err := document.DecodeVariation(d.Body)
	if err != nil {
		return asItIs(err)
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return d.Name, nil, err
	}
	data, err = v.Export(ctx, as, in, items)
	return d.Name, data, err
}
