package api

import (
	"fmt"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/document"
	"upbeatladle/store"
)

// setting is where everything is worked out: the shelf, the kitchen, today. A failure is
// answered.
func (s *Server) setting(c *gin.Context) (document.Setting, bool) {
	in, err := s.kitchen.Setting(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return in, false
	}
	return in, true
}

// listPantry lists the pantry's items beside what the table says.
func (s *Server) listPantry(c *gin.Context) {
	docs, err := s.kitchen.All(c.Request.Context(), store.Pantry)
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
	bare := s.kitchen.Bare()
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

// ExportPantry sends the whole pantry as CSV.
func (s *Server) ExportPantry(c *gin.Context) {
	data, err := s.kitchen.ExportPantry(c.Request.Context())
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
	if err != nil {
		s.refuse(c, err)
		return
	}
	saved := p.DryRun == nil || !*p.DryRun
	rows, err := s.kitchen.ImportPantry(c.Request.Context(), data, saved)
	if err != nil {
		s.refuse(c, err)
		return
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

// GetIngredient shows what is in an ingredient and where it is used.
func (s *Server) GetIngredient(c *gin.Context, id Id) {
	shelf, ok := s.setting(c)
	if !ok {
		return
	}
	in := shelf.Table.ByID(id)
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
		Ingredient: shown(in, defaultFlourG, shelf.Kitchen.Domain()), Slices: document.Slices(in), Facts: document.Facts(in), Source: in.CompositionSource,
		Notes: in.Notes, Cautions: []string{}, MayContain: append([]string{}, in.MayContain...), UsedIn: []UsedIn{}, Prepares: []Choice{}, Overrides: []string{},
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
	uses, err := s.kitchen.UsedIn(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	for _, u := range uses {
		out.UsedIn = append(out.UsedIn, UsedIn{Id: u.ID, Name: u.Name, Kind: UsedInKind(u.Kind)})
	}
	items, docs, err := s.kitchen.Items(c.Request.Context())
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
