// Package batch leads through one bowl: what is weighed into what, what was weighed instead, what
// is stirred, tested and rested when. A plan is frozen when the batch begins; what happens is a row
// of events; the state is folded from both, so that any tablet sees the same. Rules and constants:
// docs/maths.md section 19.
package batch

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

// Kind is what a task asks for.
type Kind string

// The kinds.
const (
	Weigh Kind = "weigh"
	Do    Kind = "do"
	Rest  Kind = "rest"
	Test  Kind = "test"
)

// Plan is what is to be made, as it was when the batch began. Masses in g.
type Plan struct {
	Name         string           `json:"name"`
	Form         batter.Form      `json:"form"`
	Count        int              `json:"count"` // portions
	PortionML    float64          `json:"portion_ml"`
	TestML       float64          `json:"test_ml,omitzero"` // of the spread test, where that is not a portion
	AllergenText string           `json:"allergen_text"`
	Bowls        []mixing.Bowl    `json:"bowls"`
	Tasks        []Task           `json:"tasks"` // in the order of work
	Tools        []string         `json:"tools"`
	Cautions     []safety.Caution `json:"cautions"`
	Colour       string           `json:"colour,omitzero"` // of the batter, roughly
	Common       bool             `json:"common,omitzero"` // it is split into bowls
	Said         []string         `json:"said,omitzero"`   // of a common batter: what cannot be shared, what was rounded
}

// Task is one thing to do. Of a weigh-in: so many grams of a line into a bowl; of a step with an ingredient: so many
// grams out of its tub.
type Task struct {
	ID   string `json:"id"`
	Kind Kind   `json:"kind"`

	Line       string         `json:"line,omitzero"`
	Ingredient string         `json:"ingredient,omitzero"`
	Label      string         `json:"label,omitzero"`
	Bowl       string         `json:"bowl,omitzero"` // key
	Grams      float64        `json:"grams,omitzero"`
	Step       float64        `json:"step_g,omitzero"`
	Decimals   int            `json:"decimals,omitzero"`
	Slack      float64        `json:"slack_g,omitzero"` // either way that is near enough
	Measure    string         `json:"measure,omitzero"`
	Fills      []measure.Fill `json:"fills,omitzero"`   // none: only the scale can tell
	Counted    bool           `json:"counted,omitzero"` // eggs: whole, whatever they weigh
	Chilled    bool           `json:"chilled,omitzero"` // its time outside the fridge counts
	Why        string         `json:"why,omitzero"`     // this much of it, and not what the base has
	Colour     string         `json:"colour,omitzero"`
	Allergens  []string       `json:"allergens,omitzero"`
	May        []string       `json:"may_contain,omitzero"`
	Mind       []string       `json:"mind,omitzero"`     // cautions of its own
	CupMind    string         `json:"cup_mind,omitzero"` // what goes wrong with a cup of it
	Dosed      bool           `json:"dosed,omitzero"`    // it may be dosed to taste, out of its jar

	Text    string        `json:"text,omitzero"` // of a step
	InCups  string        `json:"in_cups,omitzero"`
	Code    string        `json:"code,omitzero"`
	Minutes float64       `json:"minutes,omitzero"` // of a rest
	Skip    string        `json:"skip,omitzero"`
	Helper  mixing.Helper `json:"helper,omitzero"` // who may help with it
	Ruler   bool          `json:"ruler,omitzero"`
	Uses    []mixing.Use  `json:"uses,omitzero"`
}

// What is near enough on the scale, of what is asked (modelling choices: leaveners, salt and spice are
// tasted or seen at once; half a per cent of flour moves L* by 0.01, and so does seven tenths of milk).
const (
	slackFine   = 0.02
	slackFlour  = 0.005
	slackLiquid = 0.007
	slackOther  = 0.01
)

// slack is how far from what is asked still counts as right, on whole steps and never below one [g].
func slack(i mixing.Item) float64 {
	share := slackOther
	switch {
	case i.Step < batter.DefaultScaleStep:
		share = slackFine
	case i.Role == food.RoleFlour:
		share = slackFlour
	case i.Role == food.RoleLiquid:
		share = slackLiquid
	}
	return i.Step * math.Max(1, math.Floor(share*i.WeighG/i.Step+1e-9))
}

// Making is a batch that can be followed: its plan, with what is behind it. Nothing of it changes once it was begun or
// followed: it is safe for concurrent use.
type Making struct {
	Plan Plan
	bowl mixing.Recipe

	beside []worksheet.ServedPart // for the pan and the table
	target float64                // what the thickness was pulled to, times its reference
}

// Begin plans a batch of a variation. The error is batter.Problems.
func Begin(ctx context.Context, v batter.Variation, k batter.Kitchen) (Making, error) {
	sheet, bowl, err := worksheet.Recipe(ctx, v, k, worksheet.Include{Cook: true})
	if err != nil {
		return Making{}, err
	}
	m := Making{bowl: bowl, beside: sheet.Parts, target: v.Offset.Targets.Of(batter.HoldThickness, 1)}
	m.plan(v.Name, v.Form, sheet)
	return m, nil
}

// plan lays out the tasks.
func (m *Making) plan(name string, form batter.Form, sheet worksheet.Worksheet) {
	m.Plan = Plan{
		Name: name, Form: form, Count: sheet.Portion.Count, PortionML: sheet.Portion.VolumeML, AllergenText: sheet.AllergenText,
		Bowls: mixing.Bowls(m.bowl), Tools: mixing.Tools(m.bowl), Cautions: sheet.Cautions,
	}
	if sheet.Portion.OneCake {
		m.Plan.TestML = m.bowl.TestML
	}
	if c := sheet.Batter.Colour; c != nil {
		m.Plan.Colour = c.Hex
	}
	m.weighIns(sheet)
	m.steps(sheet.Cautions)
}

// Follow is a batch whose plan was kept: what is behind it is worked out again, the plan stands.
func Follow(ctx context.Context, p Plan, v batter.Variation, k batter.Kitchen) (Making, error) {
	m, err := Begin(ctx, v, k)
	m.Plan = p
	return m, err
}

// weighIns are the lines bowl by bowl; what is prepared first comes first, so that it is ready.
func (m *Making) weighIns(sheet worksheet.Worksheet) {
	var early, rest []Task
	for _, b := range m.Plan.Bowls {
		for _, id := range b.Lines {
			at := slices.IndexFunc(m.bowl.Items, func(i mixing.Item) bool { return i.ID == id })
			item := m.bowl.Items[at]
			if item.WeighG <= 0 {
				continue
			}
			line := worksheet.Line{Label: item.Label, Allergens: item.Ingredient.Allergens, MayContain: item.Ingredient.MayContain}
			if n := slices.IndexFunc(sheet.Lines, func(l worksheet.Line) bool { return l.ID == id }); n >= 0 {
				line = sheet.Lines[n]
			}
			t := Task{
				ID: "weigh-" + id, Kind: Weigh, Line: id, Ingredient: item.Ingredient.ID, Label: line.Label, Bowl: b.Key, Grams: item.WeighG, Step: item.Step,
				Decimals: words.Decimals(item.Step), Slack: slack(item), Chilled: safety.Spoils([]*food.Ingredient{item.Ingredient}),
				Why: m.why(line), Colour: line.Colour, Allergens: line.Allergens, May: line.MayContain, Mind: safety.MindFor(item.Ingredient),
			}
			if item.Fills != nil {
				t.Fills, t.Measure = item.Fills(item.WeighG)
			}
			t.Counted = byNumber(t.Fills)
			t.CupMind, t.Dosed = cupMind(item, t.Fills), item.Addition && dosed(item)
			if item.Prepare != "" || item.Reduced {
				early = append(early, t)
			} else {
				rest = append(rest, t)
			}
		}
	}
	m.Plan.Tasks = append(early, rest...)
}

// byNumber tells whether fills are whole eggs.
func byNumber(fills []measure.Fill) bool { return len(fills) == 1 && fills[0].Vessel == "each" }

// cupMind says what a scooped cup of flour does, where the figures of the table tell them apart.
func cupMind(i mixing.Item, fills []measure.Fill) string {
	in := i.Ingredient
	if !in.IsFlour() || in.Density <= 0 || in.DensityScooped <= in.Density || !slices.ContainsFunc(fills, func(f measure.Fill) bool { return f.Vessel == "cup" }) {
		return ""
	}
	more := i.WeighG * (in.DensityScooped/in.Density - 1)
	return fmt.Sprintf("Spoon it in, level it. Scooped from the sack, the bowl gets about %s too much.", words.Grams(more, 1))
}

// dosed tells what cooks dose to taste: spice, extract, zest, and what is weighed as finely.
func dosed(i mixing.Item) bool {
	switch i.Ingredient.Group {
	case food.GroupSpice, food.GroupExtract, food.GroupZest, food.GroupHerb:
		return true
	}
	return i.Step < batter.DefaultScaleStep
}

// why says what a line was moved by.
func (m *Making) why(l worksheet.Line) string {
	switch {
	case m.bowl.Mixed && l.Base != nil:
		return "The rest of it is in the common batter."
	case l.Base == nil || l.Offset == nil || *l.Offset == 0:
		return ""
	case l.Weigh == 0:
		return fmt.Sprintf("The base has %s; none of it goes in.", words.Grams(*l.Base, l.Step))
	case *l.Offset < 0:
		return fmt.Sprintf("The base has %s. %s stays out: what you add brings its own.", words.Grams(*l.Base, l.Step), words.Grams(-*l.Offset, l.Step))
	}
	return fmt.Sprintf("The base has %s. %s more for what you add.", words.Grams(*l.Base, l.Step), words.Grams(*l.Offset, l.Step))
}

// steps follow the weigh-ins, in the order of mixing.
func (m *Making) steps(cautions []safety.Caution) {
	first := 0
	inCups := mixing.Order(m.bowl.InCups())
	for n, s := range mixing.Order(m.bowl) {
		t := Task{ID: stepID(s), Kind: Do, Text: s.Text, Code: s.Code, Minutes: s.Minutes, Skip: s.Skip, Helper: s.Helper, Ruler: s.Ruler, Uses: s.Uses}
		if n < len(inCups) {
			t.InCups = inCups[n].Text
		}
		switch s.Code {
		case mixing.CodeRest:
			t.Kind = Rest
		case mixing.CodeTest:
			t.Kind = Test
		}
		t.Mind = append(m.mind(s, cautions), s.Mind...)
		if s.Tub != nil {
			t.Ingredient, t.Grams = s.Tub.ID, s.TubG
		}
		if s.Code == mixing.CodeAsideFirst { // it cools while the rest is weighed
			m.Plan.Tasks = slices.Insert(m.Plan.Tasks, first, t)
			first++
			continue
		}
		m.Plan.Tasks = append(m.Plan.Tasks, t)
	}
}

// stepID is the task of a step.
func stepID(s mixing.Step) string { return fmt.Sprintf("step-%d", s.Number) }

// stepCodes are the cautions that bite at a step.
var stepCodes = map[string][]string{
	mixing.CodeTest: {"raw_batter"}, mixing.CodeRest: {"raw_batter"}, mixing.CodeHeat: {"hot_fat", "iron"}, mixing.CodePour: {"hot_fat", "iron"},
	mixing.CodeFlip: {"hot_fat", "iron"}, mixing.CodeDone: {"cook_through", "local_code"},
}

// mind are the cautions of a step, where they bite.
func (m *Making) mind(s mixing.Step, cautions []safety.Caution) []string {
	codes := slices.Clone(stepCodes[s.Code])
	var out []string
	for _, u := range s.Uses {
		at := slices.IndexFunc(m.bowl.Items, func(i mixing.Item) bool { return i.ID == u.ID })
		if at >= 0 && m.bowl.Items[at].Ingredient.Minds(food.CodeMelt) {
			codes = append(codes, "melted_butter")
		}
	}
	for _, c := range cautions {
		if slices.Contains(codes, c.Code) {
			out = append(out, c.Text)
		}
	}
	if slices.Contains(codes, "raw_batter") && len(out) == 0 { // a row says it in its own words
		for _, i := range m.bowl.Items {
			if i.Ingredient.Minds(food.CodeTasting) {
				out = append(out, safety.MindFor(i.Ingredient)...)
			}
		}
		slices.Sort(out)
		out = slices.Compact(out)
	}
	return out
}

// Clone is a plan of its own, for whoever writes into it.
func (p Plan) Clone() Plan {
	p.Bowls, p.Tasks = slices.Clone(p.Bowls), slices.Clone(p.Tasks)
	for i := range p.Tasks {
		p.Tasks[i] = p.Tasks[i].clone()
	}
	return p
}

func (t Task) clone() Task {
	t.Fills, t.Uses = slices.Clone(t.Fills), slices.Clone(t.Uses)
	return t
}

// task returns a task of the plan.
func (p *Plan) task(id string) (Task, bool) {
	at := slices.IndexFunc(p.Tasks, func(t Task) bool { return t.ID == id })
	if at < 0 {
		return Task{}, false
	}
	return p.Tasks[at], true
}

// Knows tells whether there is such a task, or such a bowl.
func (p *Plan) Knows(task, bowl string) bool {
	_, ok := p.task(task)
	return (task == "" || ok || strings.HasPrefix(task, spillPrefix)) && (bowl == "" || slices.ContainsFunc(p.Bowls, func(b mixing.Bowl) bool { return b.Key == bowl }))
}

// spillPrefix begins what a choice about a spill names; its event follows.
const spillPrefix = "spill-"
