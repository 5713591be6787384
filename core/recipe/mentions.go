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
	m := &mentioning{reader: r, known: listed(r.out.Lines), said: fold(strings.Join(r.out.Steps, " "))}
	for _, step := range r.out.Steps {
		m.step(step)
	}
}

// listed are the words that lines have, folded, and those of their ingredients.
func listed(lines []Line) string {
	var b strings.Builder
	for _, l := range lines {
		b.WriteString(" " + fold(l.Text))
		if l.Ingredient != nil {
			b.WriteString(" " + fold(l.Ingredient.Name))
		}
		for _, w := range words(l.Text) {
			b.WriteString(" " + stem(spell(w)))
		}
	}
	return b.String()
}

// mentioning is a recipe while its steps are looked through for what they alone name.
type mentioning struct {
	*reader
	known string // what the lines have
	said  string // all the steps, folded
}

// step looks through one.
func (m *mentioning) step(step string) {
	toks, of := m.tokens(step), m.partOf(step)
	for i := 0; i < len(toks) && len(m.out.Lines) < MaxLines; i++ {
		in, n := m.names.exactly(toks[i:])
		if n == 0 && toks[i].kind == word && allergenOf(toks[i].text) != nil {
			n = 1
		}
		if n == 0 {
			continue
		}
		raw := step[toks[i].at:toks[i+n-1].to]
		if !m.spokenOf(toks[:i]) && !onlyMinded(toks[:i]) && !m.deniedAlways(raw) {
			m.name(in, step, raw, toks, i, n, of)
		}
		i += n - 1
	}
}

// deniedAlways tells whether a food is only ever named to say that it is not in it: once more, and it may be.
func (m *mentioning) deniedAlways(raw string) bool {
	raw = fold(raw)
	return m.denied[raw] > 0 && strings.Count(m.said, raw) <= m.denied[raw]
}

// name adds what stands in n tokens of a step from i on, unless a line has it.
func (m *mentioning) name(in *food.Ingredient, step, raw string, toks []token, i, n int, of batter.Place) {
	ws := words(raw)
	for _, t := range toks[i : i+n] {
		ws = append(ws, t.text)
	}
	unmet := m.unmet(in, ws, m.known, toks[min(i+n, len(toks)):])
	if in == nil {
		if unmet != "" {
			m.out.Lines = append(m.out.Lines, Line{Text: raw, Note: onlySteps + step, Status: NotUnderstood, Confidence: maybe, Place: servedIn(toks[:i]), Allergen: unmet, Asks: fmt.Sprintf("“%s” is an allergen, and only the steps name it. What is it?", unmet)})
			m.known += " " + fold(raw) + " " + stem(unmet)
		}
		return
	}
	last := stem(toks[i+n-1].text)
	joinedOn := i+n < len(toks) && toks[i+n].text == "-" && toks[i+n].at == toks[i+n-1].to
	if joinedOn || unmet == "" && (n == 1 && notMentions[last] || strings.Contains(m.known, last)) {
		return
	}
	l := mention(in, raw, step, toks[:i])
	if of != "" { // it makes what goes on, and is not in the batter
		l.Place = of
	}
	m.out.Lines = append(m.out.Lines, l)
	m.known += " " + fold(raw)
}

// onlySteps begins the note of what only the steps name.
const onlySteps = "only the steps name it: "

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
	inList := from > 0 && !slices.ContainsFunc(clause, func(t token) bool { return t.kind == word && !stop[t.text] && !leads[t.text] })
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
	l := Line{Text: raw, Ingredient: in, Note: onlySteps + step, Status: Read, Confidence: 0.8, Place: servedIn(before)}
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
