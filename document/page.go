package document

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"strings"

	"golang.org/x/net/html"
)

// looksLikePage tells a saved web page from a note that has a < in it.
func looksLikePage(s string) bool {
	head := strings.ToLower(s[:min(len(s), 2000)])
	return strings.HasPrefix(head, "<!doctype html") || strings.HasPrefix(head, "<html") || strings.HasPrefix(head, "<?xml") ||
		strings.Contains(head, "<head") || strings.Contains(head, "<body") || strings.Contains(head, "<script") || strings.HasPrefix(head, "<div") || strings.HasPrefix(head, "<ul") || strings.HasPrefix(head, "<p>")
}

// page picks the structured data out of a saved page; without any, the words that it shows.
func page(s string) (text, title string, err error) {
	z := html.NewTokenizer(strings.NewReader(s))
	z.SetMaxBuf(MaxBytes)
	var p pageReading
	for {
		switch z.Next() {
		case html.ErrorToken:
			if err := z.Err(); errors.Is(err, html.ErrBufferExceeded) {
				return "", "", Refusal("/text", "too_large", "A part of this page is too long to be a recipe. Paste the recipe's text.")
			} else if !errors.Is(err, io.EOF) {
				return "", "", Refusal("/text", "broken_page", "This page breaks off. Paste the recipe's text.")
			}
			return strings.TrimSpace(p.shown.String()), "", nil
		case html.StartTagToken:
			p.begins(z)
		case html.SelfClosingTagToken:
			if name, _ := z.TagName(); string(name) == "br" {
				p.shown.WriteByte('\n')
			}
		case html.EndTagToken:
			name, _ := z.TagName()
			p.ends(string(name))
		case html.TextToken:
			raw := z.Text()
			if p.data {
				if text, title, err := structured(raw); err == nil {
					return text, title, nil
				}
			}
			p.shows(string(raw))
		}
	}
}

// pageReading is a page while it is read: what it shows so far, how deep it is in what it does not, and whether in structured data.
type pageReading struct {
	shown  strings.Builder
	hidden int
	data   bool
}

// Tags of a page that show nothing, and those that begin a line.
var (
	notShown = map[string]bool{"script": true, "style": true, "noscript": true, "template": true, "svg": true}
	newLine  = map[string]bool{"li": true, "p": true, "div": true, "br": true, "tr": true, "h1": true, "h2": true, "h3": true, "h4": true, "section": true}
)

func (p *pageReading) begins(z *html.Tokenizer) {
	name, more := z.TagName()
	tag := string(name)
	switch {
	case notShown[tag]:
		p.hidden++
	case newLine[tag]:
		p.shown.WriteByte('\n')
	}
	for tag == "script" && more {
		var k, v []byte
		k, v, more = z.TagAttr()
		p.data = p.data || string(k) == "type" && strings.EqualFold(string(v), "application/ld+json")
	}
}

func (p *pageReading) ends(tag string) {
	switch {
	case notShown[tag]:
		p.hidden, p.data = max(0, p.hidden-1), false
	case newLine[tag] && tag != "section" && tag != "br":
		p.shown.WriteByte('\n')
	}
}

func (p *pageReading) shows(text string) {
	if p.hidden == 0 {
		p.shown.WriteString(strings.Join(strings.Fields(text), " "))
		p.shown.WriteByte(' ')
	}
}

// structured finds the recipe in JSON-LD of the schema.org vocabulary: alone, in a list, or in
// a graph.
func structured(data []byte) (text, title string, err error) {
	var v any
	d := json.NewDecoder(bytes.NewReader(data))
	if err := d.Decode(&v); err != nil {
		return "", "", Refusal("/text", "broken_json", "This begins like structured data but breaks off. Paste all of it, or the recipe's text.")
	}
	r := findRecipe(v, 0)
	if r == nil {
		return "", "", Refusal("/text", "no_recipe", "There is structured data here, but no recipe in it. Paste the recipe's text.")
	}
	var b strings.Builder
	title = oneText(r["name"])
	if makes := oneText(r["recipeYield"]); makes != "" {
		word := "Makes " // what they are is said, or it is so many people
		if strings.Trim(makes, "0123456789 ") == "" {
			word = "Serves "
		}
		b.WriteString(word + html.UnescapeString(makes) + "\n")
	}
	b.WriteString("Ingredients\n")
	for _, i := range append(texts(r["recipeIngredient"], 0), texts(r["ingredients"], 0)...) {
		b.WriteString(strings.Join(strings.Fields(html.UnescapeString(i)), " ") + "\n")
	}
	b.WriteString("Method\n")
	for _, s := range texts(r["recipeInstructions"], 0) {
		b.WriteString(strings.Join(strings.Fields(html.UnescapeString(s)), " ") + "\n")
	}
	return b.String(), html.UnescapeString(title), nil
}

const maxDepth = 12 // of nested data

func findRecipe(v any, depth int) map[string]any {
	if depth > maxDepth {
		return nil
	}
	switch x := v.(type) {
	case []any:
		for _, e := range x {
			if r := findRecipe(e, depth+1); r != nil {
				return r
			}
		}
	case map[string]any:
		for _, t := range texts(x["@type"], 0) {
			if t == "Recipe" || strings.HasSuffix(t, "/Recipe") {
				return x
			}
		}
		for _, key := range []string{"@graph", "mainEntity", "mainEntityOfPage", "itemListElement", "item"} {
			if r := findRecipe(x[key], depth+1); r != nil {
				return r
			}
		}
	}
	return nil
}

func oneText(v any) string {
	if all := texts(v, 0); len(all) > 0 {
		return all[0]
	}
	return ""
}

// texts flattens a value that may be a text, a list, steps or sections of steps.
func texts(v any, depth int) []string {
	if depth > maxDepth {
		return nil
	}
	switch x := v.(type) {
	case string:
		var out []string
		for l := range strings.Lines(x) {
			if l = strings.TrimSpace(l); l != "" {
				out = append(out, l)
			}
		}
		return out
	case []any:
		var out []string
		for _, e := range x {
			out = append(out, texts(e, depth+1)...)
		}
		return out
	case map[string]any:
		for _, key := range []string{"itemListElement", "text", "name", "@value"} {
			if got := texts(x[key], depth+1); len(got) > 0 {
				return got
			}
		}
	}
	return nil
}
