package api

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/house"
	"upbeatladle/store"
)

// statusGone answers a client that is not there any more; nobody reads it but the log.
const statusGone = 499

// faultStatus answers what the disk does not do. A held file is free again in a moment.
var faultStatus = map[store.Fault]int{
	store.Full: http.StatusInsufficientStorage, store.Locked: http.StatusServiceUnavailable, store.ReadOnly: http.StatusInternalServerError,
	store.Broken: http.StatusInternalServerError, store.Damaged: http.StatusInternalServerError,
	store.Foreign: http.StatusInternalServerError,
}

const problemType = "application/problem+json"

// writeProblem fills the fixed members of a problem and sends it.
func writeProblem(w http.ResponseWriter, status int, p Problem) {
	p.Status = status
	if p.Type == "" {
		p.Type = "about:blank"
	}
	w.Header().Set("Content-Type", problemType)
	w.WriteHeader(status)
	_ = json.NewEncoder(w).Encode(p) // the client has gone when this fails
}

// fail answers with one sentence.
func (s *Server) fail(c *gin.Context, status int, code, sentence string) {
	c.Abort()
	writeProblem(c.Writer, status, Problem{Title: http.StatusText(status), Detail: sentence, Type: "tag:upbeat-ladle:" + code})
}

// refuse answers an error of the core, the documents or the store.
func (s *Server) refuse(c *gin.Context, err error) {
	var p document.Problems
	var locked *house.LockedError
	switch {
	case errors.As(err, &p):
		fields := make([]FieldError, len(p))
		sentences := make([]string, 0, 3)
		for i, q := range p {
			fields[i] = FieldError{Pointer: q.Pointer, Code: q.Code, Message: q.Message}
			if i < cap(sentences) {
				sentences = append(sentences, q.Message)
			}
		}
		c.Abort()
		writeProblem(c.Writer, http.StatusBadRequest, Problem{
			Title: "This cannot be worked with", Detail: strings.Join(sentences, " "), Type: "tag:upbeat-ladle:document", Errors: &fields,
		})
	case errors.As(err, &locked):
		s.locked(c, locked.Wait)
	case errors.Is(err, house.ErrWrong):
		s.fail(c, http.StatusUnauthorized, "wrong_passcode", "That is not the passcode. Whoever runs this kitchen knows it.")
	case errors.Is(err, house.ErrOutside):
		s.fail(c, http.StatusUnauthorized, "signed_out", "This tablet is not signed in. Give the passcode; what is on the screen stays.")
	case errors.Is(err, errBusy):
		s.busy(c)
	case errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded), c.Request.Context().Err() != nil:
		s.fail(c, statusGone, "gone", "The request was given up before it was done. Nothing was saved.")
	case errors.Is(err, store.ErrNotFound):
		s.fail(c, http.StatusNotFound, "not_found", "It is not there; somebody may have put it aside.")
	case errors.Is(err, store.ErrKeyReused):
		s.fail(c, http.StatusUnprocessableEntity, "key_reused", "This key was used to save something else. Use a new one.")
	case store.FaultOf(err) != "":
		fault := store.FaultOf(err)
		s.log.Error("the disk failed", "err", err, "path", c.Request.URL.Path)
		s.fail(c, faultStatus[fault], string(fault), fault.Sentence())
	default:
		s.log.Error("a request failed", "err", err, "path", c.Request.URL.Path)
		s.fail(c, http.StatusInternalServerError, "internal", "The program could not do it. Nothing was saved; what is on the screen is still yours.")
	}
}

// asked says what belongs in a part of an address or in a header.
var asked = map[string]string{
	"limit": "Ask for 1 to 200 at a time.", "after": "Ask with the “next” of the page before.",
	"dry_run": "dry_run is true or false.", "include": "Include any of working, strategies, cook, curves, heat_line, cups, choices, drawing, nutrition and name.",
	"If-Match": `Say which revision you changed: If-Match: "3".`, "Idempotency-Key": "Send one Idempotency-Key, of up to 200 letters.",
	"revision": "A revision is a whole number, 1 or more.",
}

// plain turns a binding error of the generated code, which ends in Go's own words, into a
// sentence.
func plain(err error) string {
	for name, sentence := range asked {
		if strings.Contains(err.Error(), " "+name) {
			return sentence
		}
	}
	return "A part of the address is not as expected. Open the bench itself and try again."
}
