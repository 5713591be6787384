package api

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/document"
	"upbeatladle/store"
)

// shelf is the table with the pantry laid over it, kept until the pantry or the day changes, and
// the kitchen, kept until anything is committed.
type shelf struct {
	mu         sync.Mutex
	commits    int64
	stamp, day string
	table      *food.Table
	kitchen    document.OwnKitchen
	revision   int64
}

// items returns the pantry's items that can be read, newest first.
func (s *Server) items(ctx context.Context) ([]document.PantryItem, []store.Document, error) {
	docs, err := s.store.All(ctx, store.Pantry)
	if err != nil {
		return nil, nil, err
	}
	items, read := s.read(docs)
	return items, read, nil
}

// read decodes what can be read of saved items.
func (s *Server) read(docs []store.Document) ([]document.PantryItem, []store.Document) {
	out, read := make([]document.PantryItem, 0, len(docs)), make([]store.Document, 0, len(docs))
	for _, d := range docs {
		var i document.Item
		if err := document.Strict(d.Body, &i); err != nil {
			s.log.Warn("a pantry item cannot be read", "name", d.Name, "err", err)
			continue
		}
		out, read = append(out, i.PantryItem), append(read, d)
	}
	return out, read
}

// ingredients returns the table with the kitchen's own items over it.
func (s *Server) ingredients(ctx context.Context) (*food.Table, error) {
	table, _, _, err := s.ground(ctx)
	return table, err
}

// ground is what everything is worked out on: the shelf, the kitchen and its revision.
func (s *Server) ground(ctx context.Context) (*food.Table, document.OwnKitchen, int64, error) {
	commits, err := s.store.Commits(ctx)
	if err != nil {
		return nil, document.OwnKitchen{}, 0, err
	}
	today := s.now()
	day := document.Setting{Today: today}.Day()
	s.shelf.mu.Lock()
	defer s.shelf.mu.Unlock()
	if s.shelf.table == nil || s.shelf.commits != commits || s.shelf.day != day {
		if err := s.refresh(ctx, day, today); err != nil {
			return nil, document.OwnKitchen{}, 0, err
		}
		s.shelf.commits = commits
	}
	return s.shelf.table, s.shelf.kitchen, s.shelf.revision, nil
}

// refresh reads kitchen and pantry anew; the table stays while the pantry's stamp does.
func (s *Server) refresh(ctx context.Context, day string, today time.Time) error {
	var err error
	if s.shelf.kitchen, s.shelf.revision, err = s.readKitchen(ctx); err != nil {
		return err
	}
	stamp, err := s.store.Stamp(ctx, store.Pantry)
	if err != nil || s.shelf.table != nil && s.shelf.stamp == stamp && s.shelf.day == day {
		return err
	}
	items, _, err := s.items(ctx)
	if err != nil {
		return err
	}
	slices.Reverse(items) // of two from one day the later counts
	table, err := document.Shelf(s.table, items, today)
	if err != nil {
		s.log.Warn("a pantry item is left out", "err", err)
	}
	s.shelf.table, s.shelf.stamp, s.shelf.day = table, stamp, day
	return nil
}

// setting is where everything is worked out: the shelf, the kitchen, today. A failure is
// answered.
func (s *Server) setting(c *gin.Context) (document.Setting, bool) {
	table, k, _, err := s.ground(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return document.Setting{}, false
	}
	return document.Setting{Table: table, Kitchen: k, Today: s.now()}, true
}

// ListPantry lists the pantry's items beside what the table says.
func (s *Server) ListPantry(c *gin.Context) {
	docs, err := s.store.All(c.Request.Context(), store.Pantry)
	if err != nil {
		s.refuse(c, err)
		return
	}
	type listed struct {
		ID        string              `json:"id"`
		Revision  int64               `json:"revision"`
		UpdatedAt string              `json:"updated_at"`
		Own       food.OwnFigures     `json:"own"`
		Item      document.PantryItem `json:"item"`
	}
	type troubled struct {
		ID       string `json:"id"`
		Revision int64  `json:"revision"`
		Name     string `json:"name"`
		Trouble  string `json:"trouble"`
	}
	out, bad := []listed{}, []troubled{}
	bare := document.Setting{Table: s.table, Today: s.now()}
	for _, d := range docs {
		var i document.Item
		err := document.Strict(d.Body, &i)
		var in *food.Ingredient
		if err == nil {
			in, err = i.PantryItem.Ingredient(bare)
		}
		if err != nil { // it stands there all the same, with what is wrong
			bad = append(bad, troubled{d.ID, d.Revision, d.Name, document.Sentence(err)})
			continue
		}
		out = append(out, listed{d.ID, d.Revision, d.UpdatedAt.Format("2006-01-02T15:04:05.999Z07:00"), document.Listed(i.PantryItem, in, bare.Today), i.PantryItem})
	}
	s.send(c, http.StatusOK, map[string]any{"items": out, "troubled": bad})
}

// CreatePantryItem saves a new item. An own id that is taken gets a number.
func (s *Server) CreatePantryItem(c *gin.Context, p CreatePantryItemParams) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	in, ok := s.setting(c)
	if !ok {
		return
	}
	in.Table = s.table
	item, err := document.DecodeItem(data, in)
	if err != nil {
		s.refuse(c, err)
		return
	}
	d, err := s.createItem(c.Request.Context(), &item, data, value(p.IdempotencyKey))
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.redraw(c.Request.Context(), in, used(item.PantryItem))
	c.Header("Location", c.Request.URL.Path+"/"+d.ID)
	s.answer(c, http.StatusCreated, d)
}

// createItem gives an item an id that no other has and saves it, with nobody in between.
func (s *Server) createItem(ctx context.Context, item *document.Item, asked []byte, key string) (d store.Document, err error) {
	err = s.store.Together(ctx, func(tx *store.Tx) error {
		docs, err := tx.All(ctx, store.Pantry)
		if err != nil {
			return err
		}
		there, _ := s.read(docs)
		item.ID = freeID(item.ID, there)
		text, err := item.Encode()
		if err != nil {
			return err
		}
		d, err = tx.Create(ctx, store.Pantry, store.Content{Name: item.Name, Body: text, Asked: asked}, key)
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

// GetPantryItem returns a saved item.
func (s *Server) GetPantryItem(c *gin.Context, id Id) { s.get(c, store.Pantry, id) }

// PutPantryItem saves over a revision.
func (s *Server) PutPantryItem(c *gin.Context, id Id, p PutPantryItemParams) {
	was := s.itemOf(c.Request.Context(), id)
	s.put(c, store.Pantry, id, p.IfMatch)
	s.pantryMoved(c, was, s.itemOf(c.Request.Context(), id))
}

// DeletePantryItem puts an item aside: the tub is empty.
func (s *Server) DeletePantryItem(c *gin.Context, id Id) {
	was := s.itemOf(c.Request.Context(), id)
	s.remove(c, store.Pantry, id)
	s.pantryMoved(c, was)
}

// RestorePantryItem brings it back.
func (s *Server) RestorePantryItem(c *gin.Context, id Id) {
	s.restore(c, store.Pantry, id)
	s.pantryMoved(c, s.itemOf(c.Request.Context(), id))
}

// used is the id under which documents use an item.
func used(p document.PantryItem) string {
	if p.StandsFor != "" {
		return p.StandsFor
	}
	return p.ID
}

// itemOf is the id under which documents use a saved item; empty when it is not there.
func (s *Server) itemOf(ctx context.Context, id string) string {
	d, err := s.store.Get(ctx, store.Pantry, id)
	if err != nil {
		return ""
	}
	var i document.Item
	if document.Strict(d.Body, &i) != nil {
		return ""
	}
	return used(i.PantryItem)
}

// pantryMoved draws the cards again after an answer that was a success: those that use the
// ingredients, or all when none is named.
func (s *Server) pantryMoved(c *gin.Context, ids ...string) {
	if c.Writer.Status() >= 300 {
		return
	}
	k, _, err := s.kitchenOf(c.Request.Context())
	if err != nil {
		s.log.Error("reading the kitchen", "err", err)
		return
	}
	s.redraw(c.Request.Context(), document.Setting{Kitchen: k, Today: s.now()}, ids...)
}

// redraw works the cards of saved bases and variations out again, since their ingredients
// moved. What cannot be worked out any more stands there with its sentence.
func (s *Server) redraw(ctx context.Context, in document.Setting, ids ...string) {
	table, err := s.ingredients(ctx)
	if err != nil {
		s.log.Error("reading the pantry", "err", err)
		return
	}
	in.Table = table
	for _, kind := range []store.Kind{store.Base, store.Variation} {
		docs, err := s.store.All(ctx, kind)
		if err != nil {
			s.log.Error("reading documents", "err", err)
			return
		}
		for _, d := range docs {
			if len(ids) > 0 && !slices.ContainsFunc(ids, func(id string) bool { return id != "" && bytes.Contains(d.Body, []byte(`"`+id+`"`)) }) {
				continue
			}
			sum, err := s.content(ctx, kind, d.Body, in)
			if ctx.Err() != nil {
				return
			}
			if err != nil {
				sum.Verdict, sum.Picture = document.Troubled(err)
			}
			if sum.Verdict == d.Verdict && string(sum.Picture) == string(d.Picture) {
				continue
			}
			if err := s.store.Redraw(ctx, kind, d.ID, d.Revision, sum.Verdict, sum.Picture); err != nil {
				s.log.Error("drawing a card", "err", err)
			}
		}
	}
}

// ExportPantry sends the whole pantry as CSV.
func (s *Server) ExportPantry(c *gin.Context) {
	items, _, err := s.items(c.Request.Context())
	var data []byte
	if err == nil {
		data, err = document.ExportPantry(s.table, items)
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="pantry.csv"`)
	c.Data(http.StatusOK, "text/csv; charset=utf-8", data)
}

// ImportPantry reads a pantry file and says what becomes of every row.
func (s *Server) ImportPantry(c *gin.Context, p ImportPantryParams) {
	data, err := io.ReadAll(c.Request.Body)
	var big *http.MaxBytesError
	if errors.As(err, &big) {
		s.fail(c, http.StatusRequestEntityTooLarge, "too_large", fmt.Sprintf("The file is larger than %d MB. A pantry takes a few hundred kB: leave out what you do not use.", document.MaxPantryBytes>>20))
		return
	}
	if err != nil {
		s.fail(c, http.StatusBadRequest, "broken", "The file did not arrive whole. Send it again.")
		return
	}
	saved := p.DryRun == nil || !*p.DryRun
	rows, err := s.importRows(c.Request.Context(), data, saved)
	if err != nil {
		s.refuse(c, err)
		return
	}
	if saved {
		s.pantryMoved(c)
	}
	count := map[document.RowAction]int{}
	told := []document.ImportRow{}
	for _, r := range rows {
		count[r.Action]++
		if r.Action != document.RowSame {
			told = append(told, r)
		}
	}
	s.send(c, http.StatusOK, map[string]any{
		"added": count[document.RowAdded], "changed": count[document.RowChanged], "same": count[document.RowSame],
		"refused": count[document.RowRefused], "rows": told, "saved": saved,
	})
}

// importRows judges every row against what is there and, when it is to be saved, keeps what is
// new or changed, with nobody in between.
func (s *Server) importRows(ctx context.Context, data []byte, save bool) (rows []document.ImportRow, err error) {
	if !save {
		there, _, err := s.items(ctx)
		if err != nil {
			return nil, err
		}
		return document.ImportPantry(data, document.Setting{Table: s.table, Today: s.now()}, there)
	}
	err = s.store.Together(ctx, func(tx *store.Tx) error {
		docs, err := tx.All(ctx, store.Pantry)
		if err != nil {
			return err
		}
		there, docs := s.read(docs)
		if rows, err = document.ImportPantry(data, document.Setting{Table: s.table, Today: s.now()}, there); err != nil {
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

// GetIngredient shows what is in an ingredient and where it is used.
func (s *Server) GetIngredient(c *gin.Context, id Id) {
	table, err := s.ingredients(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	in := table.ByID(id)
	if in == nil {
		s.refuse(c, store.ErrNotFound)
		return
	}
	type detail struct {
		Ingredient any                `json:"ingredient"`
		Slices     []document.Slice   `json:"slices"`
		Facts      []food.ShownFigure `json:"facts"`
		DoseText   string             `json:"dose_text,omitzero"`
		Source     string             `json:"source"`
		Notes      string             `json:"notes,omitzero"`
		Cautions   []string           `json:"cautions"`
		MayContain []string           `json:"may_contain"`
		UsedIn     []UsedIn           `json:"used_in"`
		Prepares   []Choice           `json:"prepares"`
		Overrides  []string           `json:"overrides"`
	}
	out := detail{
		Ingredient: shown(in, defaultFlourG), Slices: document.Slices(in), Facts: document.Facts(in), Source: in.CompositionSource,
		Notes: in.Notes, Cautions: []string{}, MayContain: append([]string{}, in.MayContain...), Prepares: []Choice{}, Overrides: []string{},
	}
	if in.Dose.High > 0 {
		out.DoseText = fmt.Sprintf("%.3g to %.3g g for 100 g flour", in.Dose.Low, in.Dose.High)
	}
	if in.Caution != "" {
		out.Cautions = append(out.Cautions, in.Caution)
	}
	for _, b := range prep.Benches {
		if prep.Suits(b.Method, in) {
			out.Prepares = append(out.Prepares, Choice{Id: string(b.Method), Label: b.Title})
		}
	}
	if out.UsedIn, err = s.usedIn(c.Request.Context(), id); err != nil {
		s.refuse(c, err)
		return
	}
	items, docs, err := s.items(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	for i, p := range items {
		if p.StandsFor == id || p.StandsFor == "" && p.ID == id {
			out.Overrides = append(out.Overrides, docs[i].ID)
		}
	}
	s.send(c, http.StatusOK, out)
}

// usedIn finds the saved documents that name an ingredient.
func (s *Server) usedIn(ctx context.Context, id string) ([]UsedIn, error) {
	out := []UsedIn{}
	for _, kind := range []store.Kind{store.Variation, store.Base} {
		docs, err := s.store.All(ctx, kind)
		if err != nil {
			return nil, err
		}
		for _, d := range docs {
			uses := false
			if kind == store.Base {
				if b, err := document.DecodeBase(d.Body); err == nil {
					uses = document.Uses(b.Lines, nil, id)
				}
			} else if v, err := document.DecodeVariation(d.Body); err == nil {
				uses = document.Uses(v.Base.Lines, v.Additions, id)
			}
			if uses {
				out = append(out, UsedIn{Id: d.ID, Name: d.Name, Kind: UsedInKind(kind)})
			}
		}
	}
	return out, nil
}
