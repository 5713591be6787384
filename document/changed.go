package document

import (
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	say "upbeatladle/core/words"
)

// Changed tells what a cook did between two states of a base or variation: as it is written there,
// not as it is weighed out. The answer is never empty; a state that cannot be read any more says so.
func Changed(was, is []byte, table *food.Table) []string {
	a, errA := stateOf(was)
	b, errB := stateOf(is)
	if errA != nil || errB != nil {
		return []string{"written by another program"}
	}
	d := differing{table: table}
	d.lines(a.Lines, b.Lines)
	d.lines(a.Additions, b.Additions)
	if a.Name != b.Name {
		d.say("called “%s”", b.Name)
	}
	if a.Form != b.Form {
		d.say("now %s", batter.Form(b.Form).Said(2))
	}
	for _, x := range []struct {
		was, is any
		says    string
	}{
		{a.Portion, b.Portion, "another portion"},
		{a.Offset, b.Offset, "offset otherwise"},
		{a.Cook, b.Cook, "cooked otherwise"},
		{a.Parts, b.Parts, "something else in the pan or at the table"},
		{a.School, b.School, "mixed otherwise"},
		{a.Reference, b.Reference, "held to another bowl"},
		{a.Kitchen, b.Kitchen, "for another kitchen"},
	} {
		if !reflect.DeepEqual(x.was, x.is) {
			d.say("%s", x.says)
		}
	}
	if len(d.out) == 0 {
		d.say("a note, or nothing")
	}
	return d.out
}

// state is what is told of a base or of a variation, whichever it is.
type state struct {
	Name      string     `json:"name"`
	Form      string     `json:"form"`
	Lines     []Addition `json:"lines"` // of a base
	Base      *state     `json:"base"`
	Additions []Addition `json:"additions"`
	Portion   *Portion   `json:"portion"`
	Offset    *Offset    `json:"offset"`
	Cook      *Cooking   `json:"cook"`
	Parts     []Part     `json:"parts"`
	School    *School    `json:"school"`
	Reference *Reference `json:"reference"`
	Kitchen   *Kitchen   `json:"kitchen"`
}

func stateOf(data []byte) (state, error) {
	var s state
	if err := lenient(data, &s); err != nil {
		return s, err
	}
	if s.Base != nil {
		s.Lines, s.School = s.Base.Lines, s.Base.School
	}
	return s, nil
}

// differing gathers what differs.
type differing struct {
	table *food.Table
	out   []string
}

func (d *differing) say(format string, args ...any) {
	d.out = append(d.out, fmt.Sprintf(format, args...))
}

// lines tells what came in, what went out, and what there is more or less of.
func (d *differing) lines(was, is []Addition) {
	before, after := known(was), known(is)
	for i, key := range after {
		if at := slices.Index(before, key); at >= 0 {
			d.line(was[at], is[i])
		} else {
			d.say("%s in %s", d.name(is[i]), amountOf(is[i]))
		}
	}
	for i, key := range before {
		if !slices.Contains(after, key) {
			d.say("%s out", d.name(was[i]))
		}
	}
}

// known is by what lines are known again: by their ids, else by what they are of, the second of it as the second.
func known(lines []Addition) (keys []string) {
	for _, l := range lines {
		key := say.Either(l.ID != "", "id "+l.ID, l.Ingredient)
		for slices.Contains(keys, key) {
			key += " again"
		}
		keys = append(keys, key)
	}
	return keys
}

// line tells of one that is in both.
func (d *differing) line(was, is Addition) {
	switch {
	case was.Ingredient != is.Ingredient:
		d.say("%s %s for %s", d.name(is), amountOf(is), d.name(was))
	case amountOf(was) != amountOf(is):
		d.say("%s %s → %s", d.name(is), amountOf(was), amountOf(is))
	case was.Locked != is.Locked:
		d.say("%s %s", d.name(is), say.Either(is.Locked, "pinned", "free again"))
	case !reflect.DeepEqual(was, is):
		d.say("%s otherwise", d.name(is))
	}
}

func (d *differing) name(l Addition) string {
	if in := d.table.ByID(l.Ingredient); in != nil {
		return say.Lower(in.Label())
	}
	return strings.ReplaceAll(l.Ingredient, "_", " ")
}

// amountOf is as much of a line as is written: “595 g”, “2 heaped tbsp”; “?” where nobody has said.
func amountOf(l Addition) string {
	if l.Amount == nil {
		return "?"
	}
	words := []string{strconv.FormatFloat(significant(*l.Amount), 'g', -1, 64), l.Fill, say.Either(l.Unit == "each", "", l.Unit)}
	return strings.Join(strings.Fields(strings.Join(words, " ")), " ")
}
