package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/store"
)

// ExportDocument sends one base, variation or pantry item in an open format.
func (s *Server) ExportDocument(c *gin.Context, kind string, id Id, p ExportDocumentParams) {
	in, ok := s.setting(c)
	if !ok {
		return
	}
	as := string(p.As)
	format, known := document.Exports[as]
	if !known {
		s.fail(c, http.StatusNotFound, "unknown_format", "There is no such format. Use json, jsonld, markdown, csv or text.")
		return
	}
	if kind == "pantry" && as != "json" {
		s.fail(c, http.StatusNotFound, "unknown_format", "A pantry item goes out as json only.")
		return
	}
	var data []byte
	var name string
	err := func() error {
		if kind == "bases" {
			d, err := s.store.Get(c.Request.Context(), store.Base, id)
			if err != nil {
				return err
			}
			name = d.Name
			b, err := document.DecodeBase(d.Body)
			if err != nil {
				data = d.Body
				return asItIs(as, err)
			}
			data, err = b.Export(c.Request.Context(), as, in)
			return err
		}
		if kind == "pantry" {
			d, err := s.store.Get(c.Request.Context(), store.Pantry, id)
			name, data = d.Name, d.Body
			return err
		}
		if kind != "variations" {
			return store.ErrNotFound
		}
		d, err := s.store.Get(c.Request.Context(), store.Variation, id)
		if err != nil {
			return err
		}
		name = d.Name
		v, err := document.DecodeVariation(d.Body)
		if err != nil {
			data = d.Body
			return asItIs(as, err)
		}
		items, _, err := s.items(c.Request.Context())
		if err != nil {
			return err
		}
		data, err = v.Export(c.Request.Context(), as, in, items)
		return err
	}()
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+document.Slug(name)+"."+format.Ending+`"`)
	c.Data(http.StatusOK, format.Type, data)
}

// asItIs lets a document that cannot be read go out as it was kept, as JSON only.
func asItIs(as string, err error) error {
	if as == "json" {
		return nil
	}
	return err
}

// kinds of an archive, in the order in which they build on each other.
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

// archiveOf is everything that the kitchen keeps.
func (s *Server) archiveOf(ctx context.Context) (document.Archive, error) {
	a := document.Archive{Format: document.ArchiveFormat, Version: document.Version}
	body, _, err := s.store.Kitchen(ctx)
	if err != nil {
		return a, err
	}
	if body != nil {
		a.Kitchen = body
	}
	for _, kind := range archived {
		docs, err := s.store.All(ctx, kind)
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

// ExportArchive sends the whole kitchen in one document.
func (s *Server) ExportArchive(c *gin.Context) {
	a, err := s.archiveOf(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="kitchen.json"`)
	s.send(c, http.StatusOK, a)
}

// importBatch is how many documents are written between two signs of progress.
const importBatch = 100

// ImportArchive reads a whole kitchen or one document.
func (s *Server) ImportArchive(c *gin.Context, p ImportArchiveParams) {
	data, err := io.ReadAll(c.Request.Body)
	var big *http.MaxBytesError
	switch {
	case errors.As(err, &big):
		s.fail(c, http.StatusRequestEntityTooLarge, "too_large", fmt.Sprintf("The file is larger than %d MB: no kitchen of this program is.", document.MaxArchiveBytes>>20))
		return
	case err != nil:
		s.fail(c, http.StatusBadRequest, "broken", "The file did not arrive whole. Send it again.")
		return
	}
	a, err := document.DecodeArchive(data)
	if err != nil {
		s.refuse(c, err)
		return
	}
	dry := p.DryRun != nil && *p.DryRun
	total := len(a.Pantry) + len(a.Bases) + len(a.Variations)
	progress := func(int) {}
	if !dry {
		c.Header("Content-Type", "application/x-ndjson")
		rc := http.NewResponseController(c.Writer)
		progress = func(done int) {
			_ = rc.SetWriteDeadline(time.Now().Add(writeTimeout))
			fmt.Fprintf(c.Writer, `{"done":%d,"total":%d}`+"\n", done, total)
			_ = rc.Flush()
		}
		progress(0)
	}
	fates, err := s.importAll(c.Request.Context(), a, dry, progress)
	if err != nil {
		if dry {
			s.refuse(c, err)
			return
		}
		s.log.Error("an import failed", "err", err)
		fmt.Fprintln(c.Writer, `{"failed":"The program could not keep all of it. What was counted is kept; send the file again for the rest."}`)
		return
	}
	count := map[string]int{}
	told := []document.Fate{}
	for _, f := range fates {
		count[f.Action]++
		if f.Action != "same" {
			told = append(told, f)
		}
	}
	report := map[string]any{"items": told, "added": count["added"], "changed": count["changed"], "same": count["same"], "refused": count["refused"], "saved": !dry}
	if dry {
		s.send(c, http.StatusOK, report)
		return
	}
	s.pantryMoved(c)
	out, err := document.Answer(report)
	if err == nil {
		_, err = c.Writer.Write(out)
	}
	if err != nil {
		s.log.Error("sending a report", "err", err)
	}
}

// importAll judges every document and, unless it is dry, keeps what is new or changed: the
// kitchen first, then what the rest is made of.
func (s *Server) importAll(ctx context.Context, a document.Archive, dry bool, progress func(int)) ([]document.Fate, error) {
	var fates []document.Fate
	k, revision, err := s.kitchenOf(ctx)
	if err != nil {
		return nil, err
	}
	if len(a.Kitchen) > 0 {
		fate := document.Fate{Kind: "kitchen", Name: "Kitchen", Action: "same"}
		theirs, err := document.DecodeKitchen(a.Kitchen)
		if err != nil {
			fate.Action, fate.Message = "refused", err.Error()
		} else {
			fate.Name = theirs.Name
			body, err := theirs.Encode()
			if err != nil {
				return nil, err
			}
			mine, err := k.Encode()
			if err != nil {
				return nil, err
			}
			if string(mine) != string(body) {
				fate.Action = "changed"
				if !dry {
					if _, err := s.store.PutKitchen(ctx, body, revision); err != nil {
						return nil, err
					}
				}
			}
			k = theirs
		}
		fates = append(fates, fate)
	}
	items, _, err := s.items(ctx)
	if err != nil {
		return nil, err
	}
	in := document.Setting{Table: s.table, Kitchen: k, Today: s.now()}
	done := 0
	for _, kind := range archived {
		docs, err := s.store.All(ctx, kind)
		if err != nil {
			return nil, err
		}
		there := make([]document.There, len(docs))
		for i, d := range docs {
			there[i] = document.There{ID: d.ID, Name: d.Name, Body: d.Body}
		}
		if kind == store.Base { // what follows may use the items that come along
			if in.Table, err = document.Shelf(s.table, items, in.Today); err != nil {
				s.log.Warn("a pantry item is left out", "err", err)
			}
		}
		var batch []store.Write
		flush := func() error {
			if len(batch) == 0 || dry {
				batch = nil
				return nil
			}
			err := s.store.SaveAll(ctx, kind, batch)
			batch = nil
			return err
		}
		for _, kept := range *partOf(&a, kind) {
			if !plainID(kept.ID) {
				kept.ID = ""
			}
			f := document.Judge(ctx, string(kind), kept, there, in)
			fates = append(fates, f)
			if f.Action == "added" || f.Action == "changed" {
				batch = append(batch, store.Write{ID: f.ID, New: f.New, Revision: f.Revision, Content: contentOf(f.Summary)})
				there = append(there, document.There{ID: f.ID, Name: f.Name, Body: f.Summary.Body})
				if kind == store.Pantry {
					if i, err := document.DecodeItem(f.Summary.Body, in); err == nil {
						items = append(items, i.PantryItem)
					}
				}
			}
			if done++; done%importBatch == 0 {
				if err := flush(); err != nil {
					return nil, err
				}
				progress(done)
			}
		}
		if err := flush(); err != nil {
			return nil, err
		}
	}
	progress(done)
	return fates, nil
}

// plainID tells whether an id of a file may be kept.
func plainID(id string) bool {
	return len(id) <= 64 && strings.Trim(id, "0123456789abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ-_") == ""
}
