package api

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/kitchen"
	"upbeatladle/store"
)

// ExportDocument sends one base, variation or pantry item in an open format.
func (s *Server) ExportDocument(c *gin.Context, kind string, id Id, p ExportDocumentParams) {
	as := string(p.As)
	format, known := document.Exports[as]
	of, there := s.kindAt(kind)
	switch {
	case !known:
		s.fail(c, http.StatusNotFound, "unknown_format", "There is no such format. Use json, jsonld, markdown, csv or text.")
		return
	case !there:
		s.refuse(c, store.ErrNotFound)
		return
	case (of == store.Pantry || of == store.Pack) && as != "json":
		s.fail(c, http.StatusNotFound, "unknown_format", "A pantry item and a pack go out as json only.")
		return
	case of == store.Sauce && as != "json" && as != "text" && as != "markdown":
		s.fail(c, http.StatusNotFound, "unknown_format", "A sauce goes out as json, as text or as markdown.")
		return
	case (of == store.Batch || of == store.Board) && as != "json" && as != "text":
		s.fail(c, http.StatusNotFound, "unknown_format", "A batch and a board go out as json or as text.")
		return
	}
	name, data, err := s.kitchen.Export(c.Request.Context(), of, id, as)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+document.Slug(name)+"."+format.Ending+`"`)
	if as == "json" && !json.Valid(data) { // it is damaged, and goes out as it was kept
		format.Type = document.Exports["text"].Type
	}
	c.Data(http.StatusOK, format.Type, data)
}

// ExportArchive sends the whole kitchen in one document. It is written whole before any of it
// is sent: a file that breaks off is never handed out for one that is complete.
func (s *Server) ExportArchive(c *gin.Context) {
	unhurried(c)
	f, err := s.kitchen.Scratch()
	if err != nil {
		s.refuse(c, err)
		return
	}
	defer f.Close()
	if err := s.kitchen.Archive(c.Request.Context(), f); err != nil {
		s.refuse(c, err)
		return
	}
	size, err := f.Seek(0, io.SeekCurrent)
	if err == nil {
		_, err = f.Seek(0, io.SeekStart)
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.DataFromReader(http.StatusOK, size, "application/json", f, map[string]string{"Content-Disposition": `attachment; filename="kitchen.json"`})
}

// unhurried lets a whole kitchen take its time, both ways.
func unhurried(c *gin.Context) {
	_ = http.NewResponseController(c.Writer).SetWriteDeadline(time.Now().Add(fileTimeout))
}

// ImportArchive reads a whole kitchen or one document.
func (s *Server) ImportArchive(c *gin.Context, p ImportArchiveParams) {
	f, err := scratch(c)
	if err != nil {
		s.refuse(c, err)
		return
	}
	unhurried(c)
	a, err := document.OpenArchive(f)
	if err != nil {
		s.refuse(c, err)
		return
	}
	dry := p.DryRun != nil && *p.DryRun
	total := 2 * a.Total() // judged, and kept
	progress := func(int) {}
	if !dry {
		c.Header("Content-Type", "application/x-ndjson")
		rc := http.NewResponseController(c.Writer)
		progress = func(done int) {
			fmt.Fprintf(c.Writer, `{"done":%d,"total":%d}`+"\n", done, total)
			_ = rc.Flush()
		}
		progress(0)
	}
	fates, err := s.kitchen.Import(c.Request.Context(), a, dry, progress)
	if err != nil {
		if dry {
			s.refuse(c, err)
			return
		}
		s.log.Error("an import failed", "err", err)
		fmt.Fprintf(c.Writer, `{"failed":%q}`+"\n", "The program could not keep it, so nothing of it was kept: everything is as it was. "+again(err))
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
	out, err := document.Answer(report)
	if err == nil {
		_, err = c.Writer.Write(out)
	}
	if err != nil {
		s.log.Error("sending a report", "err", err)
	}
}

// again says what to do about an import that failed.
func again(err error) string {
	var wrong document.Problems
	if errors.As(err, &wrong) {
		return wrong[0].Message
	}
	if fault := store.FaultOf(err); fault != "" {
		return fault.Sentence()
	}
	if errors.Is(err, kitchen.ErrRestless) {
		return "Somebody kept saving meanwhile; send the file again when the other tablets rest."
	}
	return "Send the file again."
}
