package document

import (
	"context"
	"slices"
	"strconv"
	"strings"
	"time"

	"upbeatladle/core/batch"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/mixing"
)

// BatchFormat is one bowl that was made: what was planned, and everything that happened.
const BatchFormat = "upbeat-ladle/batch"

// maxTasks is how long a plan may be (modelling choice: ten times what a long morning needs).
const maxTasks = 600

// Batch is a bowl that somebody makes: the variation, the kitchen and the ingredients that it was
// begun with, the plan worked out from them, and what happened since, in the order in which it came.
type Batch struct {
	Format    string        `json:"format"`
	Version   int           `json:"version"`
	StartedAt time.Time     `json:"started_at"`
	WorkedBy  WorkedBy      `json:"worked_by"`
	Variation Variation     `json:"variation"`     // with the own ingredients that it uses
	From      *BaseRef      `json:"from,omitzero"` // the saved variation that it was begun from
	Kitchen   OwnKitchen    `json:"kitchen"`
	Share     *batch.Share  `json:"share,omitzero"`  // what the bowl took of a common batter,
	Common    string        `json:"common,omitzero"` // and the batch of that
	Plan      batch.Plan    `json:"plan"`
	Events    []batch.Event `json:"events,omitempty"`
}

// WorkedBy says which program worked something out.
type WorkedBy struct {
	Program string `json:"program"`
	Table   string `json:"table"` // of ingredients, by its fingerprint
}

// BeginBatch plans a batch of a variation as today's shelf and kitchen have it. The error is Problems.
func BeginBatch(ctx context.Context, v Variation, from *BaseRef, items []PantryItem, by WorkedBy, s Setting) (Batch, batch.Making, error) {
	v.Pantry = append(usedItems(v, items), tubsOf(v, items)...)
	b := Batch{Format: BatchFormat, Version: Version, StartedAt: s.Today.UTC().Truncate(time.Millisecond), WorkedBy: by, Variation: v, From: from, Kitchen: s.Kitchen}
	dv, dk, err := v.Domain(s)
	if err != nil {
		return b, batch.Making{}, err
	}
	m, err := batch.Begin(ctx, dv, dk)
	if err != nil {
		return b, m, pointed(err, "")
	}
	b.Plan = m.Plan
	return b, m, nil
}

// tubsOf are the tubs of the sauces of the house that a variation has: they go by their names.
func tubsOf(v Variation, items []PantryItem) (out []PantryItem) {
	for _, p := range items {
		if p.StandsFor == "" && p.Role == string(food.RoleTopping) && !v.Uses(p.ID) && slices.ContainsFunc(v.Parts, func(x Part) bool { return x.Sauce != nil && strings.TrimSpace(x.Sauce.Name) == p.Name }) {
			out = append(out, p)
		}
	}
	return out
}

// Making is what a batch is followed with: its plan as it was kept, and what is behind it. The table is
// the one that ships; the batch brings the rest.
func (b Batch) Making(ctx context.Context, s Setting) (batch.Making, error) {
	s.Kitchen, s.Today = b.Kitchen, b.StartedAt
	v, k, err := b.Variation.Domain(s)
	if err != nil {
		return batch.Making{}, under("/variation", err)
	}
	var m batch.Making
	if b.Share != nil {
		m, err = batch.FollowShare(ctx, b.Plan, v, k, *b.Share)
	} else {
		m, err = batch.Follow(ctx, b.Plan, v, k)
	}
	return m, pointed(err, "/variation")
}

// mostSplit is how many bowls one batter is split into (modelling choice: more than stand on a counter).
const mostSplit = 8

// BowlWish is a bowl that is wanted: a variation, and the saved one that it comes from.
type BowlWish struct {
	Variation Variation `json:"variation"`
	From      *BaseRef  `json:"from,omitzero"`
}

// SplitBatches plans several bowls from one base: the common batter first, then the bowls; and what there is to say.
// The error is Problems.
func SplitBatches(ctx context.Context, wish []BowlWish, items []PantryItem, by WorkedBy, s Setting) ([]Batch, []string, error) {
	if len(wish) < 2 || len(wish) > mostSplit {
		return nil, nil, Refusal("/bowls", "out_of_range", "One batter is split into 2 to %d bowls.", mostSplit)
	}
	var all []batter.Variation
	var k batter.Kitchen
	for i, w := range wish {
		wish[i].Variation.Pantry = append(usedItems(w.Variation, items), tubsOf(w.Variation, items)...)
		v, kitchen, err := wish[i].Variation.Domain(s)
		if err != nil {
			return nil, nil, under("/bowls/"+strconv.Itoa(i)+"/variation", err)
		}
		all, k = append(all, v), kitchen
	}
	split, err := batch.Split(ctx, all, k)
	if err != nil {
		return nil, nil, pointed(err, "")
	}
	begun := Batch{Format: BatchFormat, Version: Version, StartedAt: s.Today.UTC().Truncate(time.Millisecond), WorkedBy: by, Kitchen: s.Kitchen}
	common := begun
	common.Plan, common.Variation = split.Common.Plan, wish[0].Variation.commonBase(all[0], split.Base)
	out := []Batch{common}
	for i, w := range wish {
		b := begun
		b.From, b.Variation, b.Share, b.Plan = w.From, w.Variation.times(split.Factors[i]), &split.Shares[i], split.Bowls[i].Plan
		out = append(out, b)
	}
	return out, split.Said, nil
}

// times is so many times the variation, exactly, with as many portions as that makes.
func (v Variation) times(factor float64) Variation {
	scale := func(l *Line) {
		if l.Amount != nil {
			g := *l.Amount * factor
			l.Amount = &g
		}
	}
	scaled := func(lines []Line) []Line {
		lines = slices.Clone(lines)
		for i := range lines {
			scale(&lines[i])
		}
		return lines
	}
	more := func(all []Addition) []Addition {
		all = slices.Clone(all)
		for i := range all {
			scale(&all[i].Line)
		}
		return all
	}
	base := *v.Base
	base.Lines, base.OwnLines = scaled(base.Lines), scaled(base.OwnLines)
	v.Base, v.Additions = &base, more(v.Additions)
	if v.Reference != nil {
		r := *v.Reference
		r.Additions = more(r.Additions)
		v.Reference = &r
	}
	if v.Portion != nil {
		p := *v.Portion
		p.Count = nil
		v.Portion = &p
	}
	return v
}

// commonBase is the batter that is split, as a document of its own: the lines of the base that are in it.
func (v Variation) commonBase(was, is batter.Variation) Variation {
	out := Variation{Format: v.Format, Version: v.Version, Name: is.Name, Form: v.Form, Kitchen: v.Kitchen, Pantry: v.Pantry, Offset: &Offset{Strategy: string(batter.Leave)}}
	base := *v.Base
	base.Lines, base.OwnLines, base.BaseRef = nil, nil, nil
	for n, l := range v.Base.Lines {
		at := slices.IndexFunc(is.Base.Lines, func(x batter.Line) bool { return x.ID == was.Base.Lines[n].ID })
		if at < 0 {
			continue
		}
		amount := is.Base.Lines[at].Amount
		l.Amount, l.ID = &amount, was.Base.Lines[n].ID
		base.Lines = append(base.Lines, l)
	}
	out.Base, out.Additions = &base, []Addition{}
	if v.Portion != nil {
		p := *v.Portion
		p.Count = nil
		out.Portion = &p
	}
	return out
}

// DecodeBatch reads a batch strictly. The error is Problems.
func DecodeBatch(data []byte) (Batch, error) {
	var b Batch
	if err := Strict(data, &b); err != nil {
		return b, err
	}
	var p Problems
	switch {
	case b.Format != BatchFormat:
		p.Add("/format", "wrong_format", "“%s” is not a batch; a batch says “%s”.", clip(b.Format), BatchFormat)
	case b.Version != Version:
		p.Add("/version", "wrong_version", "Version %d of a batch is not known here; %d is.", b.Version, Version)
	case b.StartedAt.IsZero():
		p.Add("/started_at", "missing", "Say when the batch was begun.")
	case len(b.Plan.Tasks) == 0 || len(b.Plan.Tasks) > maxTasks:
		p.Add("/plan/tasks", "out_of_range", "A plan has 1 to %d tasks.", maxTasks)
	}
	checkTime(&p, "/started_at", b.StartedAt)
	checkEvents(&p, b.Events, "batch", b.checkEvent)
	return b, p.OrNil()
}

// GlimpseBatch reads of a kept batch only what a list needs: when it was begun, what it came from, its common batter, its plan.
func GlimpseBatch(body []byte) (Batch, error) {
	var b struct {
		StartedAt time.Time  `json:"started_at"`
		From      *BaseRef   `json:"from"`
		Common    string     `json:"common"`
		Plan      batch.Plan `json:"plan"`
	}
	if err := lenient(body, &b); err != nil {
		return Batch{}, Refusal("", "not_read", "This batch cannot be read.")
	}
	return Batch{StartedAt: b.StartedAt, From: b.From, Common: b.Common, Plan: b.Plan}, nil
}

// DecodeEvent reads one event of a batch, as a tablet sends it. The error is Problems.
func (b Batch) DecodeEvent(data []byte) (batch.Event, error) {
	var e batch.Event
	if err := Strict(data, &e); err != nil {
		return e, err
	}
	e.Took = nil // the program's to say
	return e, b.checkEvent(e).OrNil()
}

// checkEvent tells what is wrong with an event.
func (b Batch) checkEvent(e batch.Event) Problems {
	p := checkHappened(&e, batch.Rows, batch.Bounds, "something that happens to a batch")
	if !b.Plan.Knows(e.Task, e.Bowl) {
		p.Add("/task", "unknown_task", "This batch has no such task or bowl: “%s”.", clip(e.Task+e.Bowl))
	}
	checkChoice(&p, "/choice", e.Choice, batch.Choices, "a way out")
	checkChoice(&p, "/says", mixing.Looks(e.Says), mixing.AllLooks, "a way that a batter runs")
	return p
}

// Encode writes the batch.
func (b Batch) Encode() ([]byte, error) { return encode(b) }

// SummariseBatch is what is kept of a batch, its events with it.
func SummariseBatch(ctx context.Context, data []byte, s Setting) (Summary, error) {
	b, err := DecodeBatch(data)
	if err != nil {
		return Summary{}, err
	}
	if _, err := b.Making(ctx, s); err != nil {
		return Summary{}, err
	}
	text, err := b.Encode()
	return Summary{Name: b.Plan.Name, Form: string(b.Plan.Form), Body: text}, err
}

// Dose fills in what doses to taste are in the variation's own lines, in their units.
func (v Variation) Dose(doses []batch.Dose) {
	for i := range doses {
		d := &doses[i]
		for n, a := range v.Additions {
			if id := a.ID; (id == d.Line || id == "" && d.Line == "a"+strconv.Itoa(n+1)) && a.Amount != nil && d.Planned > 0 {
				d.Amount = significant(*a.Amount * d.Grams / d.Planned)
			}
		}
	}
}
