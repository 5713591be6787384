package recipe

import (
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// notMentions are names that in a step are mostly something else: the whites of eggs that are listed,
// water in a pot, to cream, a date.
var notMentions = set("white yolk water cream date tea coffee sprinkle orange chip powder soda syrup sauce juice zest spice berry fruit chocolate piece topping filling mix")

const longestName = 3 // words

// mentions adds what only the steps name: for the pan or the table, or asked for.
func (r *reader) mentions() {
	if len(r.out.Lines) == 0 {
		return
	}
	var listed strings.Builder
	for _, l := range r.out.Lines {
		listed.WriteString(" " + fold(l.Text))
		if l.Ingredient != nil {
			listed.WriteString(" " + fold(l.Ingredient.Name))
		}
		for _, w := range words(l.Text) {
			listed.WriteString(" " + stem(spell(w)))
		}
	}
	known := listed.String()
	for _, step := range r.out.Steps {
		toks, of := r.tokens(step), r.partOf(step)
		for i := 0; i < len(toks) && len(r.out.Lines) < MaxLines; i++ {
			in, n := r.names.exactly(toks[i:])
			if in == nil {
				continue
			}
			raw := step[toks[i].at:toks[i+n-1].to]
			last := stem(toks[i+n-1].text)
			joinedOn := i+n < len(toks) && toks[i+n].text == "-" && toks[i+n].at == toks[i+n-1].to
			if !(n == 1 && notMentions[last]) && !joinedOn && !strings.Contains(known, last) {
				m := mention(in, raw, step, toks[:i])
				if of != "" { // it makes what goes on, and is not in the batter
					m.Place = of
				}
				r.out.Lines = append(r.out.Lines, m)
				known += " " + fold(raw)
			}
			i += n - 1
		}
	}
}

// partOf is where something goes that a step makes: "Plum compote: simmer …", when a plum compote is listed for on top.
func (r *reader) partOf(step string) batter.Place {
	lead, _, ok := strings.Cut(step, ":")
	lead, _, _ = strings.Cut(lead, ",")
	if lead = fold(lead); !ok || lead == "" {
		return ""
	}
	for _, l := range r.out.Lines {
		if l.Place != "" && l.Place != batter.InPan && strings.Contains(fold(l.Text), lead) {
			return l.Place
		}
	}
	return ""
}

// toThePan are doings that a fat before them is for.
var toThePan = set("fry grease brush cook pan griddle iron oil heat")

func mention(in *food.Ingredient, raw, step string, before []token) Line {
	l := Line{Text: raw, Ingredient: in, Note: "only the steps name it: " + step, Status: Read, Confidence: 0.8, Place: servedIn(before)}
	if l.Place == "" && in.Role == food.RoleFat && slices.ContainsFunc(before, func(t token) bool { return toThePan[stem(t.text)] }) {
		l.Place = batter.InPan
	}
	l.AskHowMuch()
	if l.Asks != "" {
		l.Asks = "Only the steps name it. " + l.Asks
	}
	return l
}

// exactly finds the longest name that a text begins with, word for word, and how many tokens it has.
func (x *index) exactly(toks []token) (*food.Ingredient, int) {
	var key string
	var in *food.Ingredient
	n := 0
	for i := 0; i < len(toks) && i < longestName && toks[i].kind == word; i++ {
		key += " " + stem(spell(toks[i].text))
		if found, ok := x.called[key]; ok {
			in, n = found, i+1
		}
	}
	return in, n
}
