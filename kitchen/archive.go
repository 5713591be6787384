package kitchen

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/google/uuid"

	"upbeatladle/core/batter"
	"upbeatladle/document"
	"upbeatladle/store"
)

// archived are the kinds of an archive, in the order in which they build on each other.
var archived = []store.Kind{store.Pantry, store.Text, store.Base, store.Sauce, store.Variation, store.Batch, store.Board, store.Pack}

// Archive writes everything that the kitchen keeps, as it stands at one moment, with its
// history; of what was put aside, what is still used.
func (k *Kitchen) Archive(ctx context.Context, to io.Writer) error {
	return k.store.Still(ctx, func(s store.Still) error {
		shelved, holds := map[store.Kind][]store.Whole{}, []string{}
		for _, kind := range archived {
			var err error
			if shelved[kind], err = s.Shelved(ctx, kind); err != nil {
				return err
			}
			if len(shelved[kind]) > 0 {
				holds = append(holds, string(kind))
			}
		}
		a := document.NewArchiveWriter(to, holds)
		return errors.Join(k.archive(ctx, a, s, shelved), a.Close())
	})
}

// archive writes what is on the shelves, and of what was put aside what they use.
func (k *Kitchen) archive(ctx context.Context, a *document.ArchiveWriter, s store.Still, shelved map[store.Kind][]store.Whole) error {
	now, earlier, err := s.Kitchen(ctx)
	if err != nil {
		return err
	}
	if now.Revision > 0 {
		own, err := keptOf(store.Whole{Document: store.Document{Revision: now.Revision, UpdatedAt: now.SavedAt, Content: store.Content{Body: now.Body}}, Earlier: earlier})
		if err != nil {
			return err
		}
		if err := a.Kitchen(own); err != nil {
			return err
		}
	}
	inUse := used(shelved)
	for _, kind := range archived {
		for _, w := range slices.Backward(shelved[kind]) { // oldest first, so that lists keep their order
			if (w.PutAside || kind == store.Text) && !inUse(w) {
				continue
			}
			if w, err = s.Whole(ctx, w); err != nil {
				return err
			}
			if h := k.eventful[kind]; h != nil {
				rows, err := s.Events(ctx, w.ID, 0)
				if err != nil {
					return err
				}
				if w.Body, err = h.whole(w.Body, rows); err != nil {
					return err
				}
				w.Earlier = nil
			}
			one, err := keptOf(w)
			if err != nil {
				return err
			}
			if err := a.Add(string(kind), one); err != nil {
				return err
			}
		}
	}
	return nil
}

// Scratch is a file that an archive passes through on its way in or out.
func (k *Kitchen) Scratch() (store.Scratch, error) { return k.store.Scratch() }

func keptOf(w store.Whole) (k document.Kept, err error) {
	k = document.Kept{ID: w.ID, Revision: w.Revision, SavedAt: w.UpdatedAt, PutAside: w.PutAside}
	if k.Document, err = wellFormed(w.Body); err != nil {
		return k, err
	}
	size := len(k.Document)
	for _, p := range w.Earlier {
		e := document.Earlier{Revision: p.Revision, SavedAt: p.SavedAt}
		if e.Document, err = wellFormed(p.Body); err != nil {
			return k, err
		}
		size += len(e.Document)
		k.Earlier = append(k.Earlier, e)
	}
	for _, n := range w.Names {
		k.Names = append(k.Names, document.Named{Revision: n.Revision, Name: n.Name, NamedAt: n.NamedAt})
	}
	if size > document.MaxPieceBytes*9/10 { // the rest is brackets and days
		return k, document.Refusal("", "too_large", "“%s” and what it was before are more than a file carries. Copy the kitchen with “upbeat-ladle backup”.", w.Name)
	}
	return k, nil
}

// wellFormed is a body as it was kept; a damaged one goes along as a text.
func wellFormed(body []byte) ([]byte, error) {
	if json.Valid(body) {
		return body, nil
	}
	return json.Marshal(string(body))
}

// used tells of a text whether something was read from it, and of what was put aside whether something on the shelf still names it: an own
// ingredient in a recipe, a base under a variation.
func used(kept map[store.Kind][]store.Whole) func(store.Whole) bool {
	bases, texts := map[string]bool{}, map[string]bool{}
	for _, w := range kept[store.Variation] {
		v, err := document.DecodeVariation(w.Body)
		if err != nil || w.PutAside || v.Base == nil {
			continue
		}
		texts[v.Base.SourceText] = true
		if v.Base.BaseRef != nil {
			bases[v.Base.BaseRef.ID] = true
		}
	}
	for _, w := range kept[store.Base] {
		if b, err := document.DecodeBase(w.Body); err == nil && (!w.PutAside || bases[w.ID]) {
			texts[b.SourceText] = true
		}
	}
	return func(w store.Whole) bool {
		switch w.Kind {
		case store.Base:
			return bases[w.ID]
		case store.Text:
			return texts[w.ID]
		case store.Pantry:
			var i document.Item
			if document.Strict(w.Body, &i) != nil || i.StandsFor != "" {
				return false
			}
			for _, kind := range naming {
				if slices.ContainsFunc(kept[kind], func(d store.Whole) bool { return !d.PutAside && uses(kind, d.Body, i.ID) }) {
					return true
				}
			}
		}
		return false
	}
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
// for it, and anew when somebody saved in between. Every document is done twice, judged and
// kept, unless it is dry.
func (k *Kitchen) Import(ctx context.Context, a *document.ArchiveFile, dry bool, progress func(done int)) ([]document.Fate, error) {
	for range importTries {
		plan, err := k.judge(ctx, a, progress)
		if err != nil || dry {
			return plan.fates, err
		}
		err = k.store.Together(ctx, func(tx *store.Tx) error {
			if err := plan.carryOut(ctx, k, tx, a, progress); err != nil {
				return err
			}
			return k.separate(ctx, tx)
		})
		if !errors.Is(err, errMoved) {
			return plan.fates, err
		}
	}
	return nil, ErrRestless
}

// errMoved says that what an import was judged against is not what is there any more.
var errMoved = errors.New("somebody saved in the meantime")

// plan is what an import would do. Histories are not held: they are read from the file again
// when it is carried out.
type plan struct {
	fates []document.Fate
	state string // of what it was judged against
	own   []byte // the kitchen that comes; nil when none does
	does  map[store.Kind][]does
}

// does is what happens to one document of the file: nothing when it is refused.
type does struct {
	write   store.Write // without its past
	refused bool
}

// carryOut saves a plan, unless something moved since it was made.
func (p plan) carryOut(ctx context.Context, k *Kitchen, tx *store.Tx, a *document.ArchiveFile, progress func(done int)) error {
	state, err := stateOf(ctx, tx)
	if err != nil {
		return err
	}
	if state != p.state {
		return errMoved
	}
	if p.own != nil {
		own, err := a.Kitchen()
		if err != nil {
			return err
		}
		past, revision, _ := history("kitchen", own)
		if err := tx.BringKitchen(ctx, store.Past{Revision: revision, SavedAt: own.SavedAt, Body: p.own}, past); err != nil {
			return err
		}
	}
	done := a.Total()
	for _, kind := range archived {
		next, h := p.does[kind], k.eventful[kind]
		err := a.Each(string(kind), func(kept document.Kept) error {
			do := next[0]
			next = next[1:]
			if done++; done%progressStep == 0 {
				progress(done)
			}
			if do.refused {
				return nil
			}
			past, _, moved := history(string(kind), kept)
			do.write.Earlier, do.write.Names = past, namesOf(kept, moved)
			if h != nil {
				return bringEventful(ctx, tx, kind, h, do.write)
			}
			return tx.SaveAll(ctx, kind, []store.Write{do.write})
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// bringEventful keeps something that events happen to, and of those what is not there yet.
func bringEventful(ctx context.Context, tx *store.Tx, kind store.Kind, h eventful, w store.Write) error {
	body, rows, err := h.apart(w.Body)
	if err != nil {
		return err
	}
	if w.ID == "" {
		fresh, err := uuid.NewV7()
		if err != nil {
			return err
		}
		w.ID = fresh.String()
	}
	w.Body, w.Earlier = body, nil
	if err := tx.SaveAll(ctx, kind, []store.Write{w}); err != nil {
		return err
	}
	for _, r := range rows {
		if _, err := tx.AddEvent(ctx, w.ID, r); err != nil {
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
func (k *Kitchen) judge(ctx context.Context, a *document.ArchiveFile, progress func(done int)) (plan, error) {
	p := plan{does: map[store.Kind][]does{}}
	var err error
	if p.state, err = stateOf(ctx, k.store); err != nil {
		return p, err
	}
	in := k.Bare()
	if in.Kitchen, _, err = k.Own(ctx); err != nil {
		return p, err
	}
	own, err := a.Kitchen()
	if err != nil {
		return p, err
	}
	if len(own.Document) > 0 {
		if in.Kitchen, err = p.judgeOwn(own.Document, in.Kitchen); err != nil {
			return p, err
		}
	}
	here, items, err := k.here(ctx)
	if err != nil {
		return p, err
	}
	var arrived []document.PantryItem
	renumbered, done, held := map[string]map[int64]int64{}, 0, 0
	for _, kind := range archived {
		if kind == store.Base { // what follows may use the items that come along
			slices.Reverse(arrived) // newest first
			in.Table = k.shelf(append(arrived, items...), in.Today)
		}
		err := a.Each(string(kind), func(kept document.Kept) error {
			if !plainID(kept.ID) {
				kept.ID = ""
			}
			if kind == store.Variation {
				kept.Document = refer(kept.Document, renumbered)
			}
			_, revision, moved := history(string(kind), kept)
			f := document.Judge(ctx, string(kind), kept, here, in)
			if ctx.Err() != nil {
				return ctx.Err()
			}
			p.fates = append(p.fates, f)
			p.does[kind] = append(p.does[kind], does{refused: f.Action == "refused", write: store.Write{
				ID: f.ID, New: f.Action == "added", Same: f.Action == "same", Revision: revision, SavedAt: kept.SavedAt, PutAside: kept.PutAside, Content: ContentOf(f.Summary),
			}})
			if f.Action == "added" {
				renumbered[kept.ID] = moved
			}
			if f.Action == "added" || f.Action == "changed" {
				if held += len(f.Summary.Body); held > document.MaxCurrentBytes {
					return document.Refusal("", "too_large", "The documents of this file are more than %d MB without their histories: no kitchen of this program is.", document.MaxCurrentBytes>>20)
				}
				here.Add(document.There{Kind: string(kind), ID: f.ID, Body: f.Summary.Body, PutAside: kept.PutAside})
				if kind == store.Pantry {
					if i, err := document.DecodeItem(f.Summary.Body, in); err == nil {
						arrived = append(arrived, i.PantryItem)
					}
				}
			}
			if done++; done%progressStep == 0 {
				progress(done)
			}
			return nil
		})
		if err != nil {
			return p, err
		}
	}
	progress(done)
	return p, nil
}

// here is what the kitchen has, and its pantry, newest first: an own ingredient that was put
// aside still tells what it was to what names it.
func (k *Kitchen) here(ctx context.Context) (*document.Here, []document.PantryItem, error) {
	var all []document.There
	var items, aside []document.PantryItem
	for _, kind := range archived {
		docs, err := k.store.Shelved(ctx, kind)
		if err != nil {
			return nil, nil, err
		}
		for _, d := range docs {
			if h := k.eventful[kind]; h != nil {
				rows, err := k.store.Events(ctx, d.ID, 0)
				if err != nil {
					return nil, nil, err
				}
				if d.Body, err = h.whole(d.Body, rows); err != nil {
					return nil, nil, err
				}
			}
			all = append(all, document.There{Kind: string(kind), ID: d.ID, Body: d.Body, PutAside: d.PutAside})
			var i document.Item
			if kind != store.Pantry || document.Strict(d.Body, &i) != nil {
				continue
			}
			if !d.PutAside {
				items = append(items, i.PantryItem)
			} else if i.StandsFor == "" {
				aside = append(aside, i.PantryItem)
			}
		}
	}
	for _, i := range aside {
		if !slices.ContainsFunc(items, func(p document.PantryItem) bool { return p.ID == i.ID }) {
			items = append(items, i)
		}
	}
	return document.NewHere(all), items, nil
}

// history is what a document was before, its revision, and how its revisions are counted
// anew: kept when they are rising numbers that a program can count on, else 1, 2, 3. States
// that cannot be opened are left out.
func history(kind string, k document.Kept) (past []store.Past, revision int64, moved map[int64]int64) {
	last, kept := int64(0), true
	for _, e := range k.Earlier {
		body, err := document.Canonical(kind, e.Document)
		if err != nil {
			continue
		}
		kept = kept && e.Revision > last && e.Revision <= store.MaxRevision
		last = e.Revision
		past = append(past, store.Past{Revision: e.Revision, SavedAt: e.SavedAt, Body: body})
	}
	if revision = max(1, k.Revision); kept && revision > last && revision <= store.MaxRevision {
		return past, revision, nil
	}
	moved = map[int64]int64{k.Revision: int64(len(past)) + 1}
	for i := range past {
		moved[past[i].Revision] = int64(i) + 1
		past[i].Revision = int64(i) + 1
	}
	return past, int64(len(past)) + 1, moved
}

// namesOf are the names of a document's states, by the revisions that they have here.
func namesOf(k document.Kept, moved map[int64]int64) []store.Version {
	var out []store.Version
	for _, n := range k.Names {
		if now, ok := moved[n.Revision]; ok {
			n.Revision = now
		}
		if name := strings.TrimSpace(n.Name); name != "" && len([]rune(name)) <= batter.MaxName {
			out = append(out, store.Version{Name: name, Revision: n.Revision, NamedAt: n.NamedAt})
		}
	}
	return out
}

// refer points a variation at the revisions that its base and its sauces have here, when those were counted anew.
func refer(data []byte, renumbered map[string]map[int64]int64) []byte {
	v, err := document.DecodeVariation(data)
	if err != nil || v.Base == nil {
		return data
	}
	refs := []*document.BaseRef{v.Base.BaseRef}
	for _, p := range v.Parts {
		refs = append(refs, p.SauceRef)
	}
	moved := false
	for _, r := range refs {
		if r == nil {
			continue
		}
		if now, ok := renumbered[r.ID][r.Revision]; ok {
			r.Revision, moved = now, true
		}
	}
	if !moved {
		return data
	}
	if text, err := v.Encode(); err == nil {
		return text
	}
	return data
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
	if p.own, err = own.Encode(); err != nil {
		return mine, err
	}
	was, err := mine.Encode()
	if err != nil {
		return mine, err
	}
	if string(was) != string(p.own) {
		fate.Action = "changed"
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
	if err != nil {
		return "", nil, err
	}
	data, err = k.exported(ctx, kind, d, as)
	return d.Name, data, err
}

func (k *Kitchen) exported(ctx context.Context, kind store.Kind, d store.Document, as string) ([]byte, error) {
	if h := k.eventful[kind]; h != nil {
		return h.exported(ctx, d, as)
	}
	switch kind {
	case store.Pantry:
		return d.Body, nil
	case store.Pack:
		p, err := document.DecodePack(d.Body)
		if err != nil || as == "json" {
			return d.Body, nil
		}
		return []byte(p.Text()), nil
	}
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, err
	}
	asItIs := func(err error) ([]byte, error) {
		if as != "json" {
			return nil, err
		}
		return d.Body, nil
	}
	if kind == store.Sauce {
		a, err := document.DecodeSauce(d.Body)
		if err != nil {
			return asItIs(err)
		}
		return a.Export(as, in)
	}
	if kind == store.Base {
		b, err := document.DecodeBase(d.Body)
		if err != nil {
			return asItIs(err)
		}
		return b.Export(ctx, as, in)
	}
	v, err := document.DecodeVariation(d.Body)
	if err != nil {
		return asItIs(err)
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return nil, err
	}
	return v.Export(ctx, as, in, items)
}
