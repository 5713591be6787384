package api

import (
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/keep"
	"upbeatladle/device"
	"upbeatladle/document"
)

// listPacks lists the freezer.
func (s *Server) listPacks(c *gin.Context) {
	all, err := s.kitchen.Packs(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		ID       string        `json:"id"`
		Revision int64         `json:"revision"`
		Document document.Pack `json:"document"`
		DaysLeft int           `json:"days_left"`
		State    keep.Waiting  `json:"state"`
		Says     string        `json:"says"`
		Trouble  string        `json:"trouble,omitempty"`
	}
	out := struct {
		Items   []item `json:"items"`
		Packs   int    `json:"packs"`
		Pieces  int    `json:"pieces"`
		Printer string `json:"printer"`
	}{Items: []item{}}
	if s.printer != nil {
		out.Printer = s.printer.Where()
	}
	for _, p := range all {
		if p.State != keep.UsedUp {
			out.Packs, out.Pieces = out.Packs+1, out.Pieces+p.Pack.Left
		}
		out.Items = append(out.Items, item{p.ID, p.Revision, p.Pack, p.DaysLeft, p.State, p.Says, p.Trouble})
	}
	c.JSON(http.StatusOK, out)
}

// GetLabel sends the label of a pack.
func (s *Server) GetLabel(c *gin.Context, id Id, p GetLabelParams) {
	name, png, pdf, err := s.kitchen.Label(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	as, mime, data := string(p.As), "image/png", png
	switch as {
	case "png":
	case "pdf":
		mime, data = "application/pdf", pdf
	default:
		s.fail(c, http.StatusNotFound, "unknown_format", "A label comes as png or as pdf.")
		return
	}
	c.Header("Content-Disposition", `inline; filename="`+name+"."+as+`"`)
	c.Data(http.StatusOK, mime, data)
}

// PrintLabel prints the label of a pack.
func (s *Server) PrintLabel(c *gin.Context, id Id) {
	if s.printer == nil {
		s.fail(c, http.StatusNotFound, "no_printer", "No label printer is connected: open the label as PDF and print that.")
		return
	}
	name, png, pdf, err := s.kitchen.Label(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	files, err := s.printer.Print(c.Request.Context(), name, png, pdf)
	if errors.Is(err, device.ErrNoPrinter) {
		s.log.Warn("a label was not printed", "err", err)
		s.fail(c, http.StatusBadGateway, "device", sentenceOf(device.ErrNoPrinter))
		return
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Printed{Files: files})
}
