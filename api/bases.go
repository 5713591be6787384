package api

import (
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/worksheet"
	"upbeatladle/document"
	"upbeatladle/starter"
	"upbeatladle/store"
)

// ListBaseShelf lists every base with its fingerprint.
func (s *Server) ListBaseShelf(c *gin.Context) {
	in, ok := s.setting(c)
	if !ok {
		return
	}
	docs, err := s.store.All(c.Request.Context(), store.Base)
	if err != nil {
		s.refuse(c, err)
		return
	}
	type shelved struct {
		ID          string                `json:"id"`
		Revision    int64                 `json:"revision"`
		UpdatedAt   string                `json:"updated_at"`
		Document    document.Base         `json:"document"`
		Fingerprint worksheet.Fingerprint `json:"fingerprint"`
		LineNames   []string              `json:"line_names"`
		Allergens   string                `json:"allergen_text"`
	}
	out := []shelved{}
	for _, d := range docs {
		b, err := document.DecodeBase(d.Body)
		if err != nil {
			b = document.Base{Name: d.Name, Form: d.Form, Lines: []document.Line{}}
			out = append(out, shelved{d.ID, d.Revision, d.UpdatedAt.Format(time.RFC3339Nano), b, unread(err), []string{}, b.AllergenText(in)})
			continue
		}
		f, err := b.Fingerprint(c.Request.Context(), in)
		if err != nil { // an own ingredient of it may be gone
			f = unread(err)
		}
		item := shelved{d.ID, d.Revision, d.UpdatedAt.Format(time.RFC3339Nano), b, f, []string{}, b.AllergenText(in)}
		for _, l := range b.Lines {
			name := l.Ingredient
			if row := in.Table.ByID(l.Ingredient); row != nil {
				name = row.Label()
			}
			item.LineNames = append(item.LineNames, name)
		}
		out = append(out, item)
	}
	s.send(c, http.StatusOK, map[string]any{"items": out})
}

// unread is the fingerprint of a base that cannot be worked out: its sentence.
func unread(err error) worksheet.Fingerprint {
	return worksheet.Fingerprint{Sentences: []string{document.Sentence(err)}, Trouble: true}
}

// AddStarterBases puts the shipped bases on the shelf.
func (s *Server) AddStarterBases(c *gin.Context) {
	in, ok := s.setting(c)
	if !ok {
		return
	}
	all, err := starter.Bases()
	if err != nil {
		s.refuse(c, err)
		return
	}
	var shipped []store.Content
	for _, data := range all {
		sum, err := document.SummariseBase(c.Request.Context(), data, in)
		if err != nil {
			s.refuse(c, err)
			return
		}
		shipped = append(shipped, contentOf(sum))
	}
	slices.Reverse(shipped) // lists show what came last first
	var batch []store.Write
	err = s.store.Together(c.Request.Context(), func(tx *store.Tx) error {
		there, err := tx.All(c.Request.Context(), store.Base)
		if err != nil {
			return err
		}
		for _, content := range shipped {
			if !slices.ContainsFunc(there, func(d store.Document) bool { return d.Name == content.Name }) {
				batch = append(batch, store.Write{Content: content})
			}
		}
		return tx.SaveAll(c.Request.Context(), store.Base, batch)
	})
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Added{Added: len(batch)})
}
