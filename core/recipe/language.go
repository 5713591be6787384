package recipe

import (
	_ "embed"
	"strings"
	"sync"
)

// languages.csv holds the words of recipes in six languages: language, what it says without accents,
// and the English that the reader knows (from memory, and checked by whole recipes in testdata).
//
//go:embed languages.csv
var languagesFile string

// Language is a language that recipes are read in, by its two letters; English is "en".
type Language string

// English is what is read when nothing says otherwise.
const English Language = "en"

// LanguageNames say them to a cook.
var LanguageNames = map[Language]string{English: "English", "de": "German", "fr": "French", "es": "Spanish", "it": "Italian", "nl": "Dutch", "pl": "Polish"}

// languages are those beside English, in the order in which they are tried.
var languages = []Language{"de", "fr", "es", "it", "nl", "pl"}

const longestPhrase = 4 // words

// phrases by language, by the words in their order with a space between.
var phrases = sync.OnceValue(func() map[Language]map[string][]string {
	out := map[Language]map[string][]string{}
	for line := range strings.Lines(languagesFile) {
		f := strings.Split(strings.TrimSpace(line), ";")
		if len(f) != 3 {
			continue
		}
		l := Language(f[0])
		if out[l] == nil {
			out[l] = map[string][]string{}
		}
		var key []string
		for _, t := range tokens(f[1]) {
			if t.kind == word {
				key = append(key, unelided(t)...)
			}
		}
		out[l][strings.Join(key, " ")] = strings.Fields(f[2])
	}
	return out
})

// unelided are the words of a token: "d'eau" is two.
func unelided(t token) []string {
	if at := strings.IndexAny(t.raw, "'’"); at == 1 {
		return []string{fold(t.raw[:at]) + "'", fold(t.raw[at+1:])}
	}
	return []string{t.text}
}

// foreignFrom is the share of a text's words that another language must know better than English to
// be taken for it, and fewest how many words (modelling choices).
const (
	foreignFrom = 0.15
	fewest      = 3
	heard       = 2000 // words of the text that are listened to
)

// languageOf guesses the language of a text by the words that only it knows.
func (x *index) languageOf(lines []string) Language {
	all, english := 0, 0
	knows := map[Language]int{}
	for _, l := range lines {
		if all > heard {
			break
		}
		for _, t := range tokens(l[:min(len(l), 10*heard)]) {
			if t.kind != word || len(t.text) < 2 {
				continue
			}
			all++
			w := stem(spell(t.text))
			if _, ok := x.byWord[w]; ok || units[t.text].unit != "" || stop[t.text] || verbs[t.text] {
				english++
			}
			ws := unelided(t)
			for lang, known := range phrases() {
				if _, ok := known[ws[len(ws)-1]]; ok {
					knows[lang]++
				}
			}
		}
	}
	best, most := English, english
	for _, lang := range languages {
		if n := knows[lang]; n > most && n >= fewest && float64(n) > foreignFrom*float64(all) {
			best, most = lang, n
		}
	}
	return best
}

// tokens divides a line, its words in English as far as they are known. A phrase keeps the place in
// the line of all its words.
func (r *reader) tokens(s string) []token {
	toks := tokens(s)
	known := phrases()[r.out.Language]
	if known == nil {
		return toks
	}
	var out []token
	for i := 0; i < len(toks); {
		if toks[i].kind != word {
			out = append(out, toks[i])
			i++
			continue
		}
		english, n := phraseAt(known, toks[i:])
		if n == 0 {
			t := toks[i]
			if ws := unelided(t); len(ws) == 2 { // an article says nothing
				t.text = ws[1]
			}
			out = append(out, t)
			i++
			continue
		}
		for _, w := range english {
			t := toks[i]
			t.text, t.to = w, toks[i+n-1].to
			out = append(out, t)
		}
		i += n
	}
	return out
}

// phraseAt is the longest phrase that tokens begin with, in English, and how many tokens it has.
func phraseAt(known map[string][]string, toks []token) (english []string, n int) {
	var key []string
	for i := 0; i < len(toks) && i < longestPhrase; i++ {
		if toks[i].text == "." && i > 0 { // "c. a soupe"
			continue
		}
		if toks[i].kind != word {
			break
		}
		key = append(key, unelided(toks[i])...)
		if found, ok := known[strings.Join(key, " ")]; ok {
			english, n = found, i+1
		}
	}
	if n == 0 && len(toks) > 0 { // "d'eau" alone: the article says nothing
		if ws := unelided(toks[0]); len(ws) == 2 {
			if found, ok := known[ws[1]]; ok {
				return found, 1
			}
		}
	}
	return english, n
}
