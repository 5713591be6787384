// Package kitchen is what a kitchen keeps and does with it: today's shelf, saved things and
// their cards, import with its preview, export. It knows no HTTP; api, cmd and demo use it.
package kitchen

import (
	"context"
	"log/slog"
	"slices"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"upbeatladle/about"
	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/document"
	"upbeatladle/store"
)

// Kitchen is one kitchen over its store. It is safe for concurrent use.
type Kitchen struct {
	store *store.Store
	table *food.Table // as shipped, without own ingredients
	log   *slog.Logger
	now   func() time.Time

	ground   ground
	cards    cards
	glimpsed *lru.Cache[string, glimpse]
	watchers watchers

	bowls    *bowls
	boards   *boards
	eventful map[store.Kind]eventful

	heat *lru.Cache[heat.Key, heat.Advice]
}

// heatKept is how many answers of the plate are remembered, a kilobyte each (modelling choice).
const heatKept = 4096

// New returns the kitchen of a store.
func New(st *store.Store, table *food.Table, log *slog.Logger, now func() time.Time) *Kitchen {
	k := &Kitchen{store: st, table: table, log: log, now: now, glimpsed: kept[string, glimpse](mostGlimpsed), heat: kept[heat.Key, heat.Advice](heatKept)}
	k.bowls, k.boards = newBowls(k), newBoards(k)
	k.eventful = map[store.Kind]eventful{store.Batch: k.bowls, store.Board: k.boards}
	return k
}

// Remembering is a context in which what the plate answered once is not worked out again.
func (k *Kitchen) Remembering(ctx context.Context) context.Context {
	return heat.Remembering(ctx, k.heat)
}

// ground is what everything is worked out on: the table with the pantry laid over it, kept
// until the pantry or the day changes, and the kitchen, kept until anything is committed.
type ground struct {
	mu         sync.Mutex
	commits    int64
	stamp, day string
	table      *food.Table
	own        document.OwnKitchen
	revision   int64
}

// Setting is where everything is worked out: today's shelf, the kitchen, the day.
func (k *Kitchen) Setting(ctx context.Context) (document.Setting, error) {
	in, _, err := k.stand(ctx)
	return in, err
}

// SettingDocument is the setting written down, for whoever gives the same answers elsewhere.
func (k *Kitchen) SettingDocument(ctx context.Context) (document.SettingDocument, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return document.SettingDocument{}, err
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return document.SettingDocument{}, err
	}
	slices.Reverse(items) // as they are laid over the table; what cannot be is left out here too
	items = slices.DeleteFunc(items, func(i document.PantryItem) bool {
		_, err := document.Shelf(k.table, []document.PantryItem{i}, in.Today)
		return err != nil
	})
	kept, err := k.store.All(ctx, store.Sauce)
	if err != nil {
		return document.SettingDocument{}, err
	}
	var sauces []document.SettingSauce
	for _, d := range kept {
		sauces = append(sauces, document.SettingSauce{ID: d.ID, Name: d.Name, Revision: d.Revision})
	}
	return document.NewSetting(document.WorkedBy{Program: about.String(), Table: food.ReferenceStamp()}, in.Day(), in.Kitchen, items, sauces)
}

// Own is what the cook works with, and its revision.
func (k *Kitchen) Own(ctx context.Context) (document.OwnKitchen, int64, error) {
	in, revision, err := k.stand(ctx)
	return in.Kitchen, revision, err
}

// Bare is the setting of the table as shipped.
func (k *Kitchen) Bare() document.Setting { return document.Setting{Table: k.table, Today: k.now()} }

// Healthy tells whether the store answers.
func (k *Kitchen) Healthy(ctx context.Context) error { return k.store.Ping(ctx) }

// stand is the setting with the kitchen's revision.
func (k *Kitchen) stand(ctx context.Context) (in document.Setting, revision int64, err error) {
	commits, err := k.store.Commits(ctx)
	if err != nil {
		return in, 0, err
	}
	today := k.now()
	day := document.Setting{Today: today}.Day()
	g := &k.ground
	g.mu.Lock()
	defer g.mu.Unlock()
	if g.table == nil || g.commits != commits || g.day != day {
		if err := k.refresh(ctx, day, today); err != nil {
			return in, 0, err
		}
		g.commits = commits
	}
	return document.Setting{Table: g.table, Kitchen: g.own, Today: today}, g.revision, nil
}

// refresh reads kitchen and pantry anew; the table stays while the pantry's stamp does.
func (k *Kitchen) refresh(ctx context.Context, day string, today time.Time) error {
	g := &k.ground
	var err error
	if g.own, g.revision, err = k.readOwn(ctx); err != nil {
		return err
	}
	stamp, err := k.store.Stamp(ctx, store.Pantry)
	if err != nil || g.table != nil && g.stamp == stamp && g.day == day {
		return err
	}
	items, _, err := k.Items(ctx)
	if err != nil {
		return err
	}
	g.table, g.stamp, g.day = k.shelf(items, today), stamp, day
	return nil
}

// shelf lays items, newest first, over the table: of two from one day the later counts.
func (k *Kitchen) shelf(items []document.PantryItem, today time.Time) *food.Table {
	items = slices.Clone(items)
	slices.Reverse(items)
	table, err := document.Shelf(k.table, items, today)
	if err != nil {
		k.log.Warn("a pantry item is left out", "err", err)
	}
	return table
}

// readOwn reads the kitchen. One that cannot be read stands in nobody's way: the usual one
// serves until it is saved again.
func (k *Kitchen) readOwn(ctx context.Context) (document.OwnKitchen, int64, error) {
	body, revision, err := k.store.Kitchen(ctx)
	if err != nil || body == nil {
		return document.DefaultOwnKitchen(), 0, err
	}
	own, err := document.DecodeKitchen(body)
	if err != nil {
		k.log.Error("the kitchen cannot be read", "err", err)
		return document.DefaultOwnKitchen(), revision, nil
	}
	return own, revision, nil
}

// PutOwn saves the kitchen over the revision that was read. The error is document.Problems, or
// *store.KitchenConflictError when somebody else saved it since.
func (k *Kitchen) PutOwn(ctx context.Context, data []byte, revision int64) (own document.OwnKitchen, saved int64, err error) {
	if own, err = document.DecodeKitchen(data); err != nil {
		return own, 0, err
	}
	body, err := own.Encode()
	if err != nil {
		return own, 0, err
	}
	saved, err = k.store.PutKitchen(ctx, body, revision)
	return own, saved, err
}

// EarlierOwn are the states that the kitchen had, the last one first, by revision and day. One
// that cannot be read any more is left out.
func (k *Kitchen) EarlierOwn(ctx context.Context) ([]store.Past, error) {
	past, err := k.store.EarlierKitchens(ctx)
	return slices.DeleteFunc(past, func(p store.Past) bool {
		_, err := document.DecodeKitchen(p.Body)
		return err != nil
	}), err
}
