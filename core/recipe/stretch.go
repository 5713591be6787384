package recipe

import (
	"sort"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Span is a stretch of the text as it was given, in bytes; To is behind it.
type Span struct{ From, To int }

// piece is a line of what was given, without the space around it, and where it begins there.
type piece struct {
	text string
	at   int
}

// piecesOf are the lines of a text that say something.
func piecesOf(text string) (out []piece) {
	at := 0
	for i, c := range text + "\n" {
		if c != '\n' && c != '\r' && c != '\u2028' {
			continue
		}
		out = put(out, text, at, i)
		at = i + len(string(c))
	}
	return out
}

// put adds what stands between two bytes, unless it is space only.
func put(out []piece, text string, from, to int) []piece {
	l := text[from:to]
	cut := len(l) - len(strings.TrimLeftFunc(l, unicode.IsSpace))
	if l = strings.TrimSpace(l); l != "" {
		out = append(out, piece{l, from + cut})
	}
	return out
}

func texts(ps []piece) []string {
	out := make([]string, len(ps))
	for i, p := range ps {
		out[i] = p.text
	}
	return out
}

// withoutStamps takes the times and numbers of subtitles out of lines. A single time is left: a recipe may say when.
func withoutStamps(lines []piece) (kept []piece, stamped bool) {
	n := 0
	for _, l := range lines {
		if strings.Contains(l.text, ":") {
			n += len(stamp.FindAllString(l.text, 2))
		}
	}
	if n < 2 {
		return lines, false
	}
	for i, l := range lines {
		switch {
		case strings.EqualFold(l.text, "WEBVTT"), stampLine.MatchString(l.text) && strings.Trim(stamp.ReplaceAllString(l.text, ""), " ->–") == "":
			continue
		case allDigits.MatchString(l.text) && i+1 < len(lines) && stampLine.MatchString(lines[i+1].text):
			continue
		}
		from := 0
		for _, at := range append(stamp.FindAllStringIndex(l.text, -1), []int{len(l.text), len(l.text)}) {
			for _, p := range put(nil, l.text, from, at[0]) {
				kept = append(kept, piece{p.text, l.at + p.at})
			}
			from = at[1]
		}
	}
	return kept, true
}

// Times are those of a text with times, in their order.
type Times []struct {
	at   int // byte
	text string
}

// TimesOf finds the times of a text; none where there is only one, since a recipe may say when.
func TimesOf(text string) (out Times) {
	found := stamp.FindAllStringIndex(text, -1)
	if len(found) < 2 {
		return nil
	}
	for _, f := range found {
		when, _, _ := strings.Cut(strings.ReplaceAll(strings.Trim(text[f[0]:f[1]], "[]()"), ",", "."), ".")
		out = append(out, struct {
			at   int
			text string
		}{f[0], when})
	}
	return out
}

// Before is the last time that stands before a byte, empty where none does.
func (t Times) Before(at int) string {
	n := sort.Search(len(t), func(n int) bool { return t[n].at >= at })
	if n == 0 {
		return ""
	}
	return t[n-1].text
}

// whole is lines in one text, and where they stand in what was given.
type whole struct {
	text string
	from []Span // From in text, To in what was given
}

// join puts lines together: with a space where a sentence goes on over them.
func join(lines []piece, over bool) (w whole) {
	between := "\n"
	if over {
		between = " "
	}
	var b strings.Builder
	for _, l := range lines {
		if b.Len() > 0 {
			b.WriteString(between)
		}
		w.from = append(w.from, Span{b.Len(), l.at})
		b.WriteString(l.text)
	}
	w.text = b.String()
	return w
}

// where is the byte of what was given that a byte of the text is.
func (w whole) where(i int) int {
	n := sort.Search(len(w.from), func(n int) bool { return w.from[n].From > i }) - 1
	if n < 0 {
		return i
	}
	return w.from[n].To + i - w.from[n].From
}

// capital tells whether a sentence begins behind a stop: a space, and a capital, a digit or a word that begins one.
func capital(rest string) bool {
	if !strings.HasPrefix(rest, " ") {
		return false
	}
	c, _ := utf8.DecodeRuneInString(rest[1:])
	word, _, _ := strings.Cut(rest[1:], " ")
	return unicode.IsUpper(c) || c >= '0' && c <= '9' || opening[word]
}

// opening are words that no food's name begins with: a sentence without a capital may.
var opening = set("and then so now but that that's this these we i i'm i've in for you it it's he she they there next also finally when while pour put add mix stir")

// sentences are the bytes of each, without the space around it: they end at a stop before a capital, a semicolon, and the end of a
// line; "1.5 cups" and "tbsp. sugar" stay whole.
func (w whole) sentences() (out [][2]int) {
	start := 0
	add := func(to int) {
		s := w.text[start:to]
		from := start + len(s) - len(strings.TrimLeft(s, " ."))
		if t := strings.Trim(s, " ."); t != "" {
			out = append(out, [2]int{from, from + len(t)})
		}
		start = to
	}
	for at, c := range w.text {
		if c == ';' || c == '\n' || (c == '.' || c == '!' || c == '?') && capital(w.text[at+1:]) {
			add(at)
			start = at + 1
		}
	}
	add(len(w.text))
	return out
}
