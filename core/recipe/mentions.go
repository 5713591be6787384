package recipe

import (
	"fmt"
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
			if n == 0 && toks[i].kind == word && allergenOf(toks[i].text) != nil {
				n = 1
			}
			if n == 0 {
				continue
			}
			raw := step[toks[i].at:toks[i+n-1].to]
			ws := words(raw)
			for _, t := range toks[i : i+n] {
				ws = append(ws, t.text)
			}
			last := stem(toks[i+n-1].text)
			joinedOn := i+n < len(toks) && toks[i+n].text == "-" && toks[i+n].at == toks[i+n-1].to
			unmet := r.unmet(in, ws, known, toks[min(i+n, len(toks)):])
			switch {
			case r.spokenOf(toks[:i]), onlyMinded(toks[:i]), r.denied[fold(raw)]:
			case unmet != "" && in == nil:
				l := Line{Text: raw, Note: "only the steps name it: " + step, Status: NotUnderstood, Confidence: maybe, Place: servedIn(toks[:i]), Allergen: unmet, Asks: fmt.Sprintf("“%s” is an allergen, and only the steps name it. What is it?", unmet)}
				r.out.Lines, known = append(r.out.Lines, l), known+" "+fold(raw)+" "+stem(unmet)
			case in == nil, joinedOn, unmet == "" && (n == 1 && notMentions[last] || strings.Contains(known, last)):
			default:
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

// unmet is a word of a name in a step that tells of an allergen which no line has, empty when there is none: "almond milk" where
// only milk is listed. What the list calls so is met.
func (r *reader) unmet(in *food.Ingredient, ws []string, known string, after []token) string {
	if len(after) > 0 && leavesOut[after[0].text] || len(after) > 1 && after[0].text == "-" && leavesOut[after[1].text] {
		return ""
	}
	all := []*food.Ingredient{}
	for _, l := range r.out.Lines {
		if l.Ingredient != nil {
			all = append(all, l.Ingredient)
		}
	}
	named := unmetAllergen(ws, all...)
	if named == "" || strings.Contains(known, stem(named)) {
		return ""
	}
	if in != nil && !carries(in, allergenOf(named)) { // the milk of oats
		return ""
	}
	return named
}

// Words before a name by which it is only spoken of: compared with, or left out.
var (
	comparing = set("than unlike resembles resemble similar reminds consistency thickness smells smell not no never without instead dont doesnt avoid skip omit isnt arent nor ohne kein keine sans senza sin zonder bez")
	likers    = set("i we you they kids people everyone everybody")
	doers     = set("add adds added stir stirs whisk whisks beat beats fold folds mix mixes combine pour pours sprinkle top serve serves serving served drizzle scatter spread brush grease fry cook dust melt sift toss put puts use uses used using take takes " +
		"grate chop dissolve spoon throw chuck tip crumble dot goes go going mash blend cream rub swirl squeeze zest need needs want")
	clauses = set("but because while when where whereas although though")
)

// onlyMinded tells whether a name stands in a caution, or behind what some makes may carry.
func onlyMinded(before []token) bool {
	for i, t := range before {
		if i == 0 && t.text == "mind" || t.text == "may" && i+1 < len(before) && (before[i+1].text == "carry" || before[i+1].text == "contain") {
			return true
		}
	}
	return false
}

// compares tells whether words say what something is like, or that it is not there.
func compares(toks []token) bool {
	for i, t := range toks {
		switch {
		case comparing[t.text], t.text == "like" && (i == 0 || !likers[toks[i-1].text]), t.text == "as" && i > 1 && toks[i-2].text == "as":
			return true
		}
	}
	return false
}

// lookBack is how many words before a name tell that it is compared with or left out.
const lookBack = 5

// spokenOf tells by what stands before a name in a step that nothing of it is used. In talk something has to be done with it.
func (r *reader) spokenOf(before []token) bool {
	from := 0
	for i, t := range before {
		if t.kind == sign && (t.text == "," || t.text == ";" || t.text == ":") || clauses[t.text] {
			from = i + 1
		}
	}
	clause := before[from:]
	if compares(clause[max(0, len(clause)-lookBack):]) {
		return true
	}
	inList := len(clause) == 0 && from > 0
	if !r.talked || inList || servedIn(before) != "" {
		return false
	}
	return !slices.ContainsFunc(clause, func(t token) bool { return doers[t.text] })
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
