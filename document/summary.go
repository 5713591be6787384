package document

import (
	"context"
	"errors"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/worksheet"
)

// Summary is a document that can be used, in its canonical encoding, with what a list
// shows of it.
type Summary struct {
	Name, Form, Verdict string
	Picture             []byte // JSON: one portion in small
	Body                []byte
}

// pictureJSON is what a card shows of a saved document beside its name.
type pictureJSON struct {
	Count      int      `json:"count"`
	DiameterMM *float64 `json:"diameter_mm,omitzero"`
	PouredMM   *float64 `json:"poured_mm,omitzero"`
	Colour     string   `json:"colour,omitzero"`
	Allergens  string   `json:"allergens,omitzero"` // in one line
	Suspects   []string `json:"suspects,omitzero"`  // that it contains, may carry, or that are not known
	Base       string   `json:"base,omitzero"`      // what a variation stands on, by its name
	Trouble    string   `json:"trouble,omitzero"`   // why it cannot be worked out
}

func picture(w worksheet.Worksheet, base string) ([]byte, error) {
	tint := ""
	if c := w.Batter.Colour; c != nil {
		tint = c.Hex
	}
	return Answer(pictureJSON{w.Portion.Count, w.Portion.DiameterMM, w.Portion.PouredMM, tint, w.AllergenText, w.Suspects, base, ""})
}

// Troubled is what a card shows of a document that cannot be worked out: its sentence.
func Troubled(err error) (verdict string, drawn []byte) {
	trouble := Sentence(err)
	drawn, err = Answer(pictureJSON{Trouble: trouble})
	if err != nil { // a sentence can always be written
		drawn = nil
	}
	return "needs mending", drawn
}

// Sentence is what a cook is told of an error: the sentences of what is wrong in a document,
// else that it cannot be read.
func Sentence(err error) string {
	var p Problems
	if !errors.As(err, &p) {
		return "This document cannot be worked out. Take it out as JSON to see what is in it, or put it aside."
	}
	return sentences(err)
}

// SummariseVariation reads a variation document and works it out. The error is
// Problems when it cannot be worked with.
func SummariseVariation(ctx context.Context, data []byte, s Setting) (Summary, error) {
	v, err := DecodeVariation(data)
	if err != nil {
		return Summary{}, err
	}
	w, err := v.Worksheet(ctx, s)
	if err != nil {
		return Summary{}, err
	}
	return summary(v.Name, v.Form, lead(w), v.Base.Name, w, v.Encode)
}

// SummariseBase does the same for a base document, worked out plain.
func SummariseBase(ctx context.Context, data []byte, s Setting) (Summary, error) {
	b, err := DecodeBase(data)
	if err != nil {
		return Summary{}, err
	}
	w, err := b.Worksheet(ctx, s)
	if err != nil {
		return Summary{}, err
	}
	verdict := strings.TrimSpace(string(w.Batter.Class)+" batter for ") + " " + batter.Form(b.Form).Said(2)
	return summary(b.Name, b.Form, verdict, "", w, b.Encode)
}

func summary(name, form, verdict, base string, w worksheet.Worksheet, body func() ([]byte, error)) (Summary, error) {
	text, err := body()
	if err != nil {
		return Summary{}, err
	}
	pic, err := picture(w, base)
	return Summary{name, form, verdict, pic, text}, err
}

// lead is the first clause of the verdict line.
func lead(w worksheet.Worksheet) string {
	if len(w.Verdict) == 0 {
		return ""
	}
	return w.Verdict[0].Lead
}

// SummariseItem reads a pantry item.
func SummariseItem(_ context.Context, data []byte, s Setting) (Summary, error) {
	i, err := DecodeItem(data, s)
	if err != nil {
		return Summary{}, err
	}
	text, err := i.Encode()
	return Summary{Name: i.Name, Body: text}, err
}
