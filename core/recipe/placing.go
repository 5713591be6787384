package recipe

import (
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// placing is a sentence while its foods are put where they go.
type placing struct {
	*speech
	here  batter.Place // of what follows
	fats  bool
	used  bool // something went there
	cue   int  // behind the cue of it
	last  item
	at    int     // the line of the last item
	with  int     // the first line that is named with it
	noTo  int     // where the last food that is not meant ends
	not   int     // what begins before this token is not meant
	asked int     // what begins before this token is asked
	rest  float64 // of an amount that was shared out
}

// reach is how many words behind a cue the first food may stand that it is said of (modelling choice).
const reach = 4

// heed does what a cue says.
func (p *placing) heed(c heardCue) { deeds[c.does](p, c) }

// deeds are what cues do.
var deeds = map[deed]func(*placing, heardCue){
	goesOn:    func(*placing, heardCue) {},
	potBegins: (*placing).beginsPot,
	batterAgain: func(p *placing, _ heardCue) {
		p.r.potBefore()
		p.toTheBowl()
	},
	sinceThen: func(p *placing, c heardCue) {
		p.r.allSince(c.place)
		p.toTheBowl()
	},
	there: func(p *placing, c heardCue) {
		if !p.right(c) {
			p.ahead(c)
		}
	},
	rightBefore: func(p *placing, c heardCue) {
		if c.start >= p.last.end {
			p.right(c)
		}
	},
	ahead: (*placing).ahead,
	before: func(p *placing, c heardCue) {
		if len(p.last.lines) > 0 && c.start-p.last.end <= 2*reach {
			p.move(c.place)
		}
	},
	intoBatter: func(p *placing, c heardCue) {
		if l := p.lastLine(); l != nil && c.start-p.last.end <= 2*reach && l.Place == batter.InPan {
			l.Place = ""
		}
	},
	backIn:   (*placing).backIn,
	mine:     (*placing).mine,
	notMeant: func(p *placing, c heardCue) { p.not = c.end },
	notNext:  func(p *placing, c heardCue) { p.not = c.end + 2 },
	perhaps:  (*placing).maybe,
	nothingOf: func(p *placing, c heardCue) {
		if n := len(p.r.out.Lines); p.last.end == 0 && c.start < soon && n == p.r.hadLines+1 { // "One egg is allowed. I don't put any."
			p.r.out.Also = append(p.r.out.Also, p.r.out.Lines[n-1].At...)
			p.r.out.Lines = p.r.out.Lines[:n-1]
			return
		}
		if p.lastLine() != nil && p.onlyStops(p.last.end, c.start) {
			p.deny(p.last)
			p.r.out.Lines = p.r.out.Lines[:p.at]
			p.last = item{}
		}
	},
}

// toTheBowl talks of the batter from here on.
func (p *placing) toTheBowl() { p.here, p.r.pot, p.r.since = "", 0, len(p.r.out.Lines) }

// ahead says where what follows goes.
func (p *placing) ahead(c heardCue) { p.here, p.fats, p.used, p.cue = c.place, c.fats, false, c.end }

// beginsPot talks of another pot from here on; another vessel alone is for the same one.
func (p *placing) beginsPot(c heardCue) {
	p.here = ""
	name, place := p.potName(c), c.place
	if name == "" && p.r.pot > 0 {
		return
	}
	if place == "" {
		place = pots[stem(name)]
	}
	p.r.beginPot(name, place)
	if l := p.lastLine(); l != nil && vessel[p.text(c.start)] && p.onlyCommas(p.last.end, c.start) && l.Place == "" && !inBatterOnly(l.Ingredient) {
		p.r.since = p.at // "berries, 300 grams, into a little saucepan"
		for i := p.at; i < len(p.r.out.Lines); i++ {
			p.r.out.Lines[i].Place, p.r.out.Lines[i].Pot = p.r.out.Pots[p.r.pot-1].Place, p.r.pot
		}
	}
}

// vessel are the words by which what was named before goes into a vessel.
var vessel = set("in into go goes")

func (p *placing) onlyCommas(from, to int) bool {
	return from <= to && !slices.ContainsFunc(p.toks[from:to], func(t token) bool { return t.text != "," && t.text != "go" && t.text != "goes" })
}

// maybe asks for what is said with an if: right before it, else what follows.
func (p *placing) maybe(c heardCue) {
	if l := p.lastLine(); l != nil && (c.start == p.last.end || c.start == p.last.end+1 && p.text(p.last.end) == ",") && p.text(c.start) == "if" {
		if l.Status == Read && l.Place == "" {
			l.doubt(saidWithIf, nil)
		}
		return
	}
	p.asked = c.end + reach
}

// others tell what somebody else takes.
var others = []shape{shapeOf("he|she|they|hed|shed|theyd ?would ?always take|takes|took|put|puts|used|uses|has|had SOON"), shapeOf("RELATIVE ?would|always takes|took|puts|used|uses|makes|does ?hers|his|theirs ?with SOON")}

// tellsOfOthers tells whether a sentence says what somebody else takes.
func (s *speech) tellsOfOthers() bool { return s.hears(others, 0, len(s.toks)) }

// mine leaves out what somebody else takes, told right before.
func (p *placing) mine(heardCue) {
	r := p.r
	if r.theirs < 0 || r.theirs >= len(r.out.Lines) {
		return
	}
	for _, l := range r.out.Lines[r.theirs:] {
		r.out.Also = append(r.out.Also, l.At...)
	}
	r.out.Lines, r.theirs, p.last = r.out.Lines[:r.theirs], -1, item{}
}

// lastLine is the first line of the last food; nil where there is none.
func (p *placing) lastLine() *Line {
	if len(p.last.lines) == 0 || p.at >= len(p.r.out.Lines) {
		return nil
	}
	return &p.r.out.Lines[p.at]
}

// toldAfter is asked of what may go on a plate as well, and is told when the batter is done.
const toldAfter = "It is told after the batter. Does it go in?"

// goesOnToo tells whether a food goes on a plate as often as into a batter.
func goesOnToo(in *food.Ingredient) bool {
	return in != nil && (in.Role == food.RolePiece || in.Role == food.RolePuree || in.Role == food.RoleSugar || in.Role == food.RoleDairy || in.Group == food.GroupFat)
}

const saidWithIf = "It is said with an “if”. Does it go in?"

// backIn takes the fat that a cue names out of the pan.
func (p *placing) backIn(c heardCue) {
	for i := c.start; i < c.end; i++ {
		in, _ := p.r.names.exactly(p.toks[i:])
		if in == nil || in.Group != food.GroupFat {
			continue
		}
		for k := range p.r.out.Lines {
			if l := &p.r.out.Lines[k]; l.Place == batter.InPan && l.Amount > 0 && isFat(*l) {
				l.Place = ""
			}
		}
		return
	}
}

// potName is the word of a cue that names a pot, empty when only its vessel is named.
func (p *placing) potName(c heardCue) string {
	for i := c.start; i < c.end; i++ {
		switch potAt(p.speech, i) {
		case 1:
			return p.text(i)
		case 2:
			return p.text(i) + " " + p.text(i+1)
		}
	}
	return ""
}

// right puts what stands right before a cue where it says; nothing stands there when it tells of what follows.
func (p *placing) right(c heardCue) bool {
	if len(p.last.lines) == 0 || p.at >= len(p.r.out.Lines) || c.start < p.last.start || !p.reaches(c) {
		return false
	}
	if c.fats && (!isFat(p.last.lines[0]) || p.last.lines[0].Ingredient.ID == brownButter) { // which is browned there
		return true
	}
	plate := c.fats && p.text(c.start) == "for" // said of the plate, whatever pot is on the stove
	if plate {
		p.r.out.Lines[p.at].Pot = 0
	}
	p.move(c.place)
	if first := p.text(c.start + 1); plate && (first == "each" || first == "every") {
		p.r.out.Lines[p.at].Each = true
	}
	return true
}

// reaches tells whether only words that say nothing stand between the last food and a cue, and no comma, unless the cue goes over it.
func (p *placing) reaches(c heardCue) bool {
	comma := false
	for _, t := range p.toks[min(p.last.end, c.start):c.start] {
		if t.kind == sign && t.text != "," || t.kind == word && !beforeCue[t.text] {
			return false
		}
		comma = comma || t.text == ","
	}
	return !comma || p.text(c.start) == "for" || goes[p.text(c.start)] || c.place == batter.InPan
}

// beforeCue are words between a food and what says where it goes.
var beforeCue = set("foaming sizzling melting going of it a little some just only them all melted that is are go goes more bit each whole plus")

func isFat(l Line) bool { return l.Ingredient != nil && l.Ingredient.Group == food.GroupFat }

// move puts the last food where it goes, and those without an amount that are named with it.
func (p *placing) move(to batter.Place) {
	from := p.at
	if to != batter.InPan {
		from = p.with
	}
	for i := from; i < len(p.r.out.Lines); i++ {
		if l := &p.r.out.Lines[i]; l.Place == "" || l.Pot == 0 {
			l.Place, l.Pot = to, 0
			if l.Amount <= 0 {
				l.Asks, l.Status = "", Read
			}
		}
	}
}

// wanted tells whether a food without an amount belongs in the reading: it goes somewhere, or stands among those of the bowl.
func (p *placing) wanted(it item, cues []heardCue) bool {
	if p.notMeant(it) {
		p.deny(it)
		return false
	}
	in := it.lines[0].Ingredient
	if p.placeAt(it, in) != "" {
		return true
	}
	if len(cues) > 0 && (cues[0].does == there || cues[0].does == rightBefore) && cues[0].start-it.end <= 2 && !(cues[0].place == batter.OnTop && neverOnTop(in)) && (!cues[0].fats || in.Group == food.GroupFat) && (p.only(it.end, cues[0].start) || p.goesOnWords(it.end, cues[0].start)) {
		return true
	}
	if peels[p.text(it.start)] && it.end-it.start > 1 {
		return true
	}
	last := stem(p.text(it.end - 1))
	return !notMentions[last] && p.listed(it)
}

// neverOnTop are foods that a cook puts into the bowl on top of the others, and not on a plate.
func neverOnTop(in *food.Ingredient) bool {
	return inBatterOnly(in) || in.IsFlour() || in.Role == food.RoleSalt || in.Group == food.GroupLiquid
}

// onlyStops tells whether nothing of its own stands between two tokens.
func (p *placing) onlyStops(from, to int) bool {
	for i := from; i < to; i++ {
		if t := p.toks[i]; t.kind == word && !stop[t.text] && !between[t.text] {
			return false
		}
	}
	return from <= to && to-from <= soon
}

// notMeant tells whether a food is said not to be in it, or is named in one breath with one that is not.
func (p *placing) notMeant(it item) bool {
	also := p.noTo > 0 && it.start-p.noTo == 1 && (p.text(p.noTo) == "and" || p.text(p.noTo) == "or" || p.text(p.noTo) == "nor") && (it.named || it.q.unit == measure.Each)
	if it.start >= p.not && !also || it.retold {
		return false
	}
	p.noTo = it.end
	return true
}

// deny keeps what is spoken of and not in it.
func (p *placing) deny(it item) {
	r := p.r
	r.out.Also = append(r.out.Also, p.span(it.start, it.end))
	if r.denied == nil {
		r.denied = map[string]int{}
	}
	r.denied[fold(p.said[p.toks[it.start].at:p.toks[it.end-1].to])]++
}

// listed tells whether a name stands in a row with foods that have amounts.
func (p *placing) listed(it item) bool {
	if p.last.end == 0 || len(p.last.lines) == 0 {
		return false
	}
	joins := it.start-p.last.end <= 1 && !slices.ContainsFunc(p.toks, func(t token) bool { return t.kind == sign })
	for i := p.last.end; i < it.start; i++ {
		t := p.text(i)
		joins = joins || t == "," || t == "and"
		if t != "," && t != "and" && !stop[t] {
			return false
		}
	}
	after := p.text(it.end)
	return joins && (p.starts[it.end] > 0 || p.foodAt(it.end) > 0 || after == "" || after == "," || after == "and" || after == ".")
}

// placeAt is where a food goes that stands behind a cue, or nowhere.
func (p *placing) placeAt(it item, in *food.Ingredient) batter.Place {
	switch {
	case p.here == batter.OnTop && in != nil && neverOnTop(in):
		return ""
	case p.here == batter.Serving && in != nil && in.Role == food.RoleSalt:
		return ""
	case p.here == "" || p.fats && (in == nil || in.Group != food.GroupFat):
		return ""
	case !p.used && it.start-p.cue > p.reach():
		return ""
	case p.used && !p.goesOn(p.last.end, it.start):
		return ""
	}
	return p.here
}

// panReach is how many words behind the pan its fat may be named: nothing else goes there (modelling choice).
const panReach = 12

func (p *placing) reach() int {
	if p.fats {
		return panReach
	}
	return reach + 1
}

// goesOn tells whether a row goes on between two tokens.
func (p *placing) goesOn(from, to int) bool {
	for i := from; i < to; i++ {
		if t := p.toks[i]; t.kind == sign && t.text != "," || t.kind == word && !stop[t.text] && t.text != "or" && t.text != "also" && t.text != "maybe" {
			return false
		}
	}
	return true
}

// take puts a food into the reading.
func (p *placing) take(it item) {
	r := p.r
	if p.notMeant(it) {
		p.not = 0
		p.deny(it)
		return
	}
	var in *food.Ingredient
	if len(it.lines) > 0 {
		in = it.lines[0].Ingredient
	}
	if r.pot > 0 && inBatterOnly(in) && !it.named && !doughy(r.out.Pots[r.pot-1].Name) && !r.thickens(it.lines[0]) {
		r.pot, r.since = 0, len(r.out.Lines)
	}
	place := p.placeAt(it, in)
	p.used = place != ""
	if place == "" {
		p.here = ""
	}
	if p.putsRight(it, in) {
		return
	}
	with := p.at
	if !it.withLast(p.last, p.speech) {
		with = len(r.out.Lines)
	}
	p.last, p.at, p.with, p.rest = it, len(r.out.Lines), with, 0
	for _, l := range it.lines {
		p.keep(p.put(l, it, place), it.start, it.end)
	}
}

// putsRight takes a food instead of the last one, when it is said so.
func (p *placing) putsRight(it item, in *food.Ingredient) bool {
	n := len(p.r.out.Lines)
	if !it.instead || n <= p.at || p.last.end == 0 || len(it.lines) != 1 || p.r.out.Lines[n-1].Ingredient != in {
		return false
	}
	was, now := &p.r.out.Lines[n-1], it.lines[0]
	now.Note = joined(now.Note, "put right while speaking; before: "+was.Text)
	now.Place, now.Pot, now.At = was.Place, was.Pot, []Span{p.span(it.start, it.end)}
	*was = now
	p.last = it
	return true
}

// namesKind takes the kind that is named behind a food for what it is: "two cups of flour, that's bread flour", "bread flour, well no,
// plain flour".
func (p *placing) namesKind(it item, in *food.Ingredient) bool {
	l := p.lastLine()
	if l == nil || !it.named || in == nil || it.start-p.last.end > 2*soon || !l.mayBe(in) {
		return false
	}
	says, putsRight, ok := p.saysWhich(p.last.end, it.start)
	general := plainKinds[in.ID] && it.end-it.start == 1
	if !ok || general || !putsRight && !(says && plainKinds[l.Ingredient.ID]) {
		return false
	}
	l.Note = joined(l.Note, "it was said which one: "+p.between(it.start, it.end))
	l.Ingredient = in
	if n := len(l.At); n > 0 {
		l.At[n-1].To = max(l.At[n-1].To, p.span(it.start, it.end).To)
	}
	return true
}

// mayBe tells whether a food of a line can be another kind of the same.
func (l *Line) mayBe(in *food.Ingredient) bool {
	return l.Ingredient != nil && l.Ingredient != in && l.Ingredient.Group == in.Group && l.Amount > 0
}

// saysKind are words by which the kind of a food is told.
var saysKind = set("thats that this its meaning namely")

// saysWhich tells whether between two tokens it is only said which one is meant, or that it is another one.
func (p *placing) saysWhich(from, to int) (says, putsRight, only bool) {
	for i := from; i < to; i++ {
		t := p.text(i)
		says, putsRight = says || saysKind[t], putsRight || corrects[t]
		if t != "," && t != "i" && !saysKind[t] && !corrects[t] && !repeats[t] && !stop[t] && !weak[t] {
			return false, false, false
		}
	}
	return says, putsRight, true
}

// put gives a line its place, and what is asked of it there.
func (p *placing) put(l Line, it item, place batter.Place) Line {
	r := p.r
	switch {
	case l.Place != "":
	case l.Ingredient != nil && l.Ingredient.ID == spray:
		l.Place = batter.InPan
	case place != "":
		l.Place = place
	case r.pot > 0:
		l.Place, l.Pot = r.out.Pots[r.pot-1].Place, r.pot
	}
	if l.Place == "" {
		p.asksOfBowl(&l, it)
		return l
	}
	if l.Ingredient != nil && l.Place != batter.InPan {
		if as := r.names.match(onPlate[l.Ingredient.ID]); as.in != nil {
			l.Ingredient = as.in
		}
	}
	if l.Amount <= 0 && l.Ingredient != nil && !l.Doubtful() {
		l.Asks, l.Status = "", Read
	}
	return l
}

// asksOfBowl asks what is doubtful of a line that goes into the bowl.
func (p *placing) asksOfBowl(l *Line, it item) {
	if it.named {
		l.AskHowMuch()
	}
	if it.start < p.asked && l.Status == Read {
		l.doubt(saidWithIf, nil)
	}
	if p.r.done && l.Status == Read && goesOnToo(l.Ingredient) {
		l.doubt(toldAfter, nil)
	}
}

// withLast tells whether a food is named in one breath with the one before it, which has no amount: "raspberries and a banana".
func (it item) withLast(last item, s *speech) bool {
	return last.named && it.start > last.end && it.start-last.end == 1 && (s.text(last.end) == "and" || s.text(last.end) == ",")
}

// withNext tells whether a food without an amount is named in one breath with the next, and that one goes somewhere.
func (p *placing) withNext(items []item, cues []heardCue) bool {
	n := 1
	for n < len(items) && items[n].named && items[n].withLast(items[n-1], p.speech) {
		n++
	}
	if n < 2 || len(cues) == 0 {
		return false
	}
	end := items[n-1].end
	return cues[0].does == there && !cues[0].fats && cues[0].start >= end && cues[0].start-end <= 1
}

// onPlate is what a fruit is that a batter would have mashed, when it goes on a plate.
var onPlate = map[string][]string{"banana_mashed": {"sliced", "banana"}}

// spray is the fat that is for the plate only.
const spray = "cooking_spray"

// doughy are pots that flour goes into.
func doughy(name string) bool {
	n := stem(fold(name))
	return n == "crumble" || n == "streusel" || n == "custard"
}

// thickeningG is up to how much flour or starch only thickens what is in a pot [g] (modelling choice).
const thickeningG = 30

func (r *reader) thickens(l Line) bool {
	if l.Ingredient.Role != food.RoleFlour || l.Amount <= 0 {
		return false
	}
	g, err := r.kitchen.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, Fill: l.Fill})
	return err == nil && g <= thickeningG
}

// share parts the last amount: "a hundred goes in the batter and fifty on top". cues are those still to come.
func (p *placing) share(it item, cues []heardCue) {
	if len(p.last.lines) == 0 || p.at >= len(p.r.out.Lines) {
		return
	}
	l := &p.r.out.Lines[p.at]
	q := it.q
	if q.unit != l.Unit && !(q.unit == measure.Each && p.r.inGrams && q.amount >= leastGrams) || q.amount <= 0 || q.amount > l.Amount+1e-9 && p.rest == 0 {
		return
	}
	if bowl, ok := p.shareGoes(it.end, cues); ok {
		all := l.Amount + p.rest
		switch {
		case bowl == "":
			l.Amount, p.rest = q.amount, all-q.amount
		case q.amount < all+1e-9:
			part := *l
			part.Amount, part.Place, part.Pot = q.amount, bowl, 0
			part.Text += " … " + p.said[p.toks[it.start].at:p.toks[it.end-1].to]
			part.At = append(slices.Clone(l.At), p.span(it.start, it.end))
			if p.rest > 0 {
				p.rest = max(0, p.rest-q.amount)
			} else {
				l.Amount -= q.amount
			}
			p.keep(part, it.start, it.end)
		}
	}
}

// inTheBowl says of a share that it goes into the batter.
var inTheBowl = []shape{shapeOf("?is|are|go|goes ?straight in|into|for|to the ?~ BATTER|bowl|mix|mixture"), shapeOf("is|are|go|goes in")}

// shareGoes is where a share goes that ends at a token: into the bowl, or beside it.
func (p *placing) shareGoes(end int, cues []heardCue) (place batter.Place, ok bool) {
	for _, sh := range inTheBowl {
		if _, ok := p.matches(sh, end); ok {
			return "", true
		}
	}
	for _, c := range cues {
		if c.does == there && c.start-end <= 2 && p.goesOnWords(end, c.start) {
			return c.place, true
		}
	}
	return "", false
}

func (p *placing) goesOnWords(from, to int) bool {
	for i := from; i < to; i++ {
		if !beforeCue[p.text(i)] {
			return false
		}
	}
	return true
}
