package recipe

import (
	"strings"

	"upbeatladle/core/food"
)

// A shape is a row of words as they are spoken. Its elements stand apart by spaces: "a|b" is either, "?a" may be missing, "~" is any
// one word, and capitals name a kind of word of speech (see wordKinds). Commas between the words are not heard.
type shape []element

type element struct {
	words    map[string]bool
	kinds    []func(*speech, int) int
	optional bool
}

// shapeOf reads a shape as it is written.
func shapeOf(text string) shape {
	var out shape
	for _, part := range strings.Fields(text) {
		var e element
		part, e.optional = strings.CutPrefix(part, "?")
		e.words = map[string]bool{}
		for w := range strings.SplitSeq(part, "|") {
			if kind := wordKinds[w]; kind != nil {
				e.kinds = append(e.kinds, kind)
			} else {
				e.words[w] = true
			}
		}
		out = append(out, e)
	}
	return out
}

// wordKinds are the kinds of words that a shape names: how many tokens of a sentence are of it from one on, 0 when none are.
// Some take nothing themselves. SOON: an amount or a food is named within a few words; FAT: a fat is; NOFOOD, NOTOF: no food and no
// "of" follows; FRUIT: what is cooked to go on is named; CLOSE, COMMA: no comma stands before it, or one does; START: a clause begins; END: one ends; COMPARED: nobody likes it, so it is only like something.
var wordKinds = kindsOfWords()

// soon is how many words a food or an amount may be away to be what is spoken of now (modelling choice).
const soon = 5

func kindsOfWords() map[string]func(*speech, int) int {
	looks := func(is func(*speech, int) bool) func(*speech, int) int {
		return func(s *speech, i int) int {
			if is(s, i) {
				return nothing
			}
			return 0
		}
	}
	one := func(is func(*speech, int) bool) func(*speech, int) int {
		return func(s *speech, i int) int {
			if is(s, i) {
				return 1
			}
			return 0
		}
	}
	in := func(words map[string]bool) func(*speech, int) bool {
		return func(s *speech, i int) bool { return words[s.text(i)] || words[stem(s.text(i))] }
	}
	return map[string]func(*speech, int) int{
		"~": one(func(s *speech, i int) bool {
			return i < len(s.toks) && s.toks[i].kind == word && !units[s.text(i)].is()
		}),
		"POT":      potAt,
		"BATTER":   one(in(batters)),
		"RELATIVE": one(in(relatives)),
		"FOOD":     (*speech).foodAt,
		"SOON":     looks((*speech).foodSoon),
		"FAT":      looks((*speech).fatSoon),
		"COMPARED": looks(func(s *speech, i int) bool { return !likers[s.text(i-1)] }),
		"NOTOF":    looks(func(s *speech, i int) bool { return s.text(i) != "of" }),
		"NOFOOD":   looks(func(s *speech, i int) bool { return s.foodAt(i) == 0 && s.starts[i] == 0 }),
		"START":    looks(func(s *speech, i int) bool { return i == 0 || s.toks[i-1].kind == sign || leads[s.text(i-1)] }),
		"FRUIT":    one((*speech).fruitAt),
		"COMMA":    looks(func(s *speech, i int) bool { return s.text(i-1) == "," }),
		"CLOSE":    looks(func(s *speech, i int) bool { return s.text(i-1) != "," }),
		"END":      looks(func(s *speech, i int) bool { return closes[s.text(i)] || s.toks[i].kind == sign }),
	}
}

// closes are what a clause ends before; nothing is the end of the sentence.
var closes = map[string]bool{"": true, "and": true, "but": true, "so": true}

// foodSoon tells whether a food or an amount is named within a few words.
func (s *speech) foodSoon(i int) bool {
	for j := i; j < min(i+soon, len(s.toks)); j++ {
		if s.starts[j] > 0 || s.foodAt(j) > 0 {
			return true
		}
	}
	return false
}

// fruitAt tells whether a fruit or another piece is named in one word.
func (s *speech) fruitAt(i int) bool {
	in, n := s.r.names.exactly(s.toks[min(i, len(s.toks)):])
	return n == 1 && in != nil && (in.Role == food.RolePiece || in.Role == food.RolePuree)
}

// fatSoon tells whether a fat is.
func (s *speech) fatSoon(i int) bool {
	for j := i; j < min(i+soon, len(s.toks)); j++ {
		if in, n := s.r.names.exactly(s.toks[j:]); n > 0 && in != nil && in.Group == food.GroupFat {
			return true
		}
	}
	return false
}

// nothing is what a kind takes that only looks.
const nothing = -1

func (u unit) is() bool { return u.unit != "" }

// leads are words that a clause begins with, and that say nothing themselves.
var leads = set("so now okay ok and first then but right well um uh alright next also")

// speech is a sentence as it is listened to.
type speech struct {
	r      *reader
	said   string
	at     int // where it begins in what was given
	toks   []token
	qs     []quantity
	starts map[int]int // the number of an amount, from 1, by the token that it begins with
	inside []quantity  // in brackets
}

func (s *speech) text(i int) string {
	if i < 0 || i >= len(s.toks) {
		return ""
	}
	return s.toks[i].text
}

// foodAt is how many tokens of a food's whole name begin at one.
func (s *speech) foodAt(i int) int {
	if i >= len(s.toks) || s.toks[i].kind != word {
		return 0
	}
	_, n := s.r.names.exactly(s.toks[i:])
	return n
}

// hears tells whether one of some shapes begins between two tokens.
func (s *speech) hears(shapes []shape, from, to int) bool {
	for i := from; i < to; i++ {
		for _, sh := range shapes {
			if _, ok := s.matches(sh, i); ok {
				return true
			}
		}
	}
	return false
}

// matches tells whether a shape begins at a token, and behind which one it ends.
func (s *speech) matches(sh shape, i int) (end int, ok bool) {
	if len(sh) == 0 {
		return i, true
	}
	e, j := sh[0], i
	for s.text(j) == "," {
		j++
	}
	if e.words[s.text(j)] {
		if end, ok := s.matches(sh[1:], j+1); ok {
			return end, true
		}
	}
	for _, kind := range e.kinds {
		if n := kind(s, j); n != 0 {
			if end, ok := s.matches(sh[1:], j+max(0, n)); ok {
				return end, true
			}
		}
	}
	if e.optional {
		return s.matches(sh[1:], i)
	}
	return 0, false
}
