package kitchen

import (
	"cmp"
	"context"
	"slices"
	"time"

	"upbeatladle/core/keep"
	"upbeatladle/document"
	"upbeatladle/label"
	"upbeatladle/store"
)

// PackListed is a pack in the freezer's list.
type PackListed struct {
	ID       string
	Revision int64
	Pack     document.Pack
	DaysLeft int
	State    keep.Waiting // fine, soon, over, used
	Says     string
	Trouble  string // why it cannot be read
}

// Packs lists the freezer: what is used first first, what is used up last.
func (k *Kitchen) Packs(ctx context.Context) ([]PackListed, error) {
	docs, err := k.store.All(ctx, store.Pack)
	if err != nil {
		return nil, err
	}
	today, _ := time.Parse(time.DateOnly, k.now().Format(time.DateOnly))
	out := make([]PackListed, 0, len(docs))
	for _, d := range docs {
		one := PackListed{ID: d.ID, Revision: d.Revision, State: keep.Fine}
		if one.Pack, err = document.DecodePack(d.Body); err != nil {
			one.Trouble = document.Sentence(err)
			out = append(out, one)
			continue
		}
		by, _ := time.Parse(time.DateOnly, one.Pack.UseBy)
		one.State, one.DaysLeft, one.Says = keep.Packed(by, today, one.Pack.Left)
		out = append(out, one)
	}
	slices.SortStableFunc(out, func(a, b PackListed) int {
		used := func(p PackListed) int {
			if p.Pack.Left == 0 {
				return 1
			}
			return 0
		}
		return cmp.Or(used(a)-used(b), cmp.Compare(a.Pack.UseBy, b.Pack.UseBy), a.Pack.FrozenAt.Compare(b.Pack.FrozenAt))
	})
	return out, nil
}

// Label is the label of a pack, as a picture and as a page, and the name that it is kept under.
func (k *Kitchen) Label(ctx context.Context, id string) (name string, png, pdf []byte, err error) {
	d, err := k.store.Get(ctx, store.Pack, id)
	if err != nil {
		return "", nil, nil, err
	}
	p, err := document.DecodePack(d.Body)
	if err != nil {
		return "", nil, nil, err
	}
	l, err := label.Of(p, id)
	if err != nil {
		return "", nil, nil, err
	}
	if png, err = l.PNG(); err != nil {
		return "", nil, nil, err
	}
	pdf, err = l.PDF()
	return document.Slug(p.Name) + "-" + p.MadeOn + "-" + id[max(0, len(id)-6):], png, pdf, err
}
