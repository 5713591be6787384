package document

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"strings"
)

// TextFormat is the text of a recipe as it was pasted, kept once beside what was read from it.
const TextFormat = "upbeat-ladle/text"

// Text is that document. Its id is made of what it says, so that the same text is kept once.
type Text struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Text    string `json:"text"`
}

// NewText takes what was pasted: a page is kept as its text. The error is Problems.
func NewText(pasted string) (Text, error) {
	text, title, err := recipeText([]byte(pasted))
	if err != nil {
		return Text{}, err
	}
	if title != "" {
		text = title + "\n\n" + text
	}
	return Text{Format: TextFormat, Version: Version, Text: text}, nil
}

// ID is made of the text: 96 bits of its SHA-256 are enough for a kitchen.
func (t Text) ID() string {
	sum := sha256.Sum256([]byte(t.Text))
	return "t-" + hex.EncodeToString(sum[:12])
}

// DecodeText reads the document. The error is Problems.
func DecodeText(data []byte) (Text, error) {
	var t Text
	if err := Strict(data, &t); err != nil {
		return Text{}, err
	}
	if strings.TrimSpace(t.Text) == "" {
		return Text{}, Refusal("/text", "empty", "There is no text in it.")
	}
	return t, header(t.Format, t.Version, TextFormat)
}

// Encode writes the document.
func (t Text) Encode() ([]byte, error) { return encode(t) }

// SummariseText names a text by its first line.
func SummariseText(_ context.Context, data []byte, _ Setting) (Summary, error) {
	t, err := DecodeText(data)
	if err != nil {
		return Summary{}, err
	}
	body, err := t.Encode()
	first, _, _ := strings.Cut(strings.TrimSpace(t.Text), "\n")
	return Summary{Name: clip(strings.TrimSpace(first)), Body: body}, err
}
