package worksheet

import (
	"fmt"
	"math"
	"strings"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
)

func either(yes bool, a, b string) string {
	if yes {
		return a
	}
	return b
}

// formNames in the singular with article, and in the plural.
var formNames = map[batter.Form][2]string{
	batter.Pancake:   {"a pancake", "pancakes"},
	batter.DropScone: {"a drop scone", "drop scones"},
	batter.Waffle:    {"a waffle", "waffles"},
	batter.Crepe:     {"a crêpe", "crêpes"},
	batter.Flourless: {"a flourless pancake", "flourless pancakes"},
}

// formName is "a pancake" for one and "pancakes" for any other number.
func formName(f batter.Form, n int) string {
	if n == 1 {
		return formNames[f][0]
	}
	return formNames[f][1]
}

// number is a small count as a word.
func number(n int) string {
	words := []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"}
	if n >= 0 && n < len(words) {
		return words[n]
	}
	return fmt.Sprint(n)
}

// list joins names: "milk", "milk and sugar", "milk, sugar and salt".
func list(s []string) string {
	if len(s) < 2 {
		return strings.Join(s, "")
	}
	return strings.Join(s[:len(s)-1], ", ") + " and " + s[len(s)-1]
}

// lower writes a label inside a sentence.
func lower(label string) string {
	if label == "" {
		return label
	}
	return strings.ToLower(label[:1]) + label[1:]
}

// upper begins a sentence with a label or a caution.
func upper(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}

// grams prints a mass on its scale step.
func grams(g, step float64) string {
	if step < 1 {
		return strings.TrimSuffix(fmt.Sprintf("%.1f", g), ".0") + " g"
	}
	return fmt.Sprintf("%.0f g", g)
}

// countText is a number of eggs: "2 eggs", "1½ eggs", "about 1.7 eggs".
func countText(n float64, in *food.Ingredient) string {
	word := map[string]string{"egg_whole": "egg", "egg_yolk": "yolk", "egg_white": "white"}[in.ID]
	if word == "" {
		word = strings.ToLower(in.Label())
	}
	half := math.Round(2*n) / 2
	if math.Abs(n-half) > 0.08 {
		return fmt.Sprintf("about %.1f %ss", n, word)
	}
	whole := int(half)
	text := fmt.Sprint(whole)
	if half > float64(whole) {
		text = strings.TrimPrefix(text+"½", "0")
	}
	if half > 1 {
		word += "s"
	}
	return text + " " + word
}

func (w *work) note(code, pointer, format string, args ...any) {
	w.out.Notes = append(w.out.Notes, Note{code, pointer, fmt.Sprintf(format, args...)})
}

// labels of the lines with a role that stand at their bound.
func (w *work) stuckLabels(role food.Role) []string {
	var out []string
	for i, l := range w.out.Lines {
		if i < len(w.solution.Stuck) && w.solution.Stuck[i] && l.Role == role {
			out = append(out, fmt.Sprintf("%s at %s", lower(l.Label), grams(l.Weigh, l.Step)))
		}
	}
	return out
}

// notes says what gave way, where the model ends, and what is not worked out yet.
func (w *work) notes() {
	for _, r := range w.solution.Reports {
		w.report(r)
	}
	t := w.out.Thickness
	switch {
	case w.v.Form == batter.Flourless:
		w.note("flourless", "/form", "A flourless batter is thin: small portions, two spatulas. Its thickness is not judged.")
	case t.State == Unknown:
		w.note("grated_cake", "/additions", "There is more in pieces than in batter. Treat it as a grated cake: press a test one together before you weigh out the rest.")
	case !flow.InModel(t.After):
		w.note("out_of_range", "", "At %.2f ml of liquid a gram of body this is outside what the thickness figures were made for. Trust the ladle, not the figure.", t.After)
	}
	for _, n := range w.v.NotYet {
		w.note("not_yet", n.Pointer, "Not worked out yet: %s.", n.What)
	}
	if w.out.Portion.Count == 0 {
		w.note("no_portion", "/portion/volume_ml", "The bowl does not fill one portion of %.0f ml.", w.out.Portion.VolumeML)
	}
}

func (w *work) report(r balance.Report) {
	perPortion := math.Abs(r.Left) * w.out.Portion.MassG
	switch {
	case r.Reason == balance.NoLiquid:
		w.note("no_liquid", "/offset/strategy", "Nothing in this base loosens it enough to be held back, so the flour moves instead.")
	case r.Target == batter.HoldThickness && r.Reason == balance.NothingTo:
		w.note("thickness_left", "/offset", "No line is free to move for thickness: it runs %s than the base, %.2f against %.2f ml/g. Unpin a line, or squeeze or reduce the addition.",
			either(r.Left > 0, "thinner", "thicker"), w.out.Thickness.After, w.out.Thickness.Base)
	case r.Target == batter.HoldThickness:
		stuck := append(w.stuckLabels(food.RoleLiquid), w.stuckLabels(food.RoleFlour)...)
		gave := "The offsets have nothing left to give"
		if len(stuck) > 0 {
			gave = "Even with " + list(stuck)
		}
		w.note("thickness_left", "/offset", "%s it runs %s than the base, %.2f against %.2f ml/g. Use less, squeeze or reduce the addition, or build up flour.",
			gave, either(r.Left > 0, "thinner", "thicker"), w.out.Thickness.After, w.out.Thickness.Base)
	case r.Target == batter.HoldSweetness && r.Reason == balance.NothingTo:
		w.note("sweetness_left", "/offset", "The base has no sugar that is free to move: %s a portion %s than the base.",
			grams(perPortion, leftStep(perPortion)), either(r.Left > 0, "sweeter", "less sweet"))
	case r.Target == batter.HoldSweetness && r.Left > 0:
		w.note("sugar_floor", "/offset", "All the sugar is held back and it is still %s a portion sweeter than the base; it browns sooner, so lower the heat.",
			grams(perPortion, leftStep(perPortion)))
	case r.Target == batter.HoldSweetness:
		w.note("sweetness_left", "/offset", "It stays %s a portion less sweet than the base.", grams(perPortion, leftStep(perPortion)))
	case r.Target == batter.HoldBatchSize:
		w.note("batch_left", "/offset", "The batch comes out %.0f %% %s than the base.", 100*math.Abs(r.Left), either(r.Left > 0, "bigger", "smaller"))
	}
}

// leftStep is how finely a leftover is told: tenths below 3 g.
func leftStep(g float64) float64 {
	if g < 3 {
		return 0.1
	}
	return 1
}

// verdict is the line at the foot: what to weigh, what it makes, what to mind.
func (w *work) verdict() {
	var changed []string
	same := 0
	for _, l := range w.out.Lines {
		if l.From != FromBase {
			continue
		}
		if l.Offset != nil && *l.Offset != 0 {
			changed = append(changed, fmt.Sprintf("%s %s", lower(l.Label), grams(l.Weigh, l.Step)))
		} else {
			same++
		}
	}
	lead := "Weigh the base as it is"
	reason := either(len(w.v.Additions) == 0, "nothing is added yet", "nothing has to give way")
	if w.v.Offset.Strategy == batter.Leave && len(w.v.Additions) > 0 {
		reason = "no offsets, as you asked"
	}
	if len(changed) > 0 {
		lead = upper(strings.Join(changed, ", "))
		reason = fmt.Sprintf("the other %s as the base", number(same))
		switch same {
		case 0:
			reason = "every line moves"
		case 1:
			reason = "the other line as the base"
		}
	}
	w.say("weigh", lead, reason)

	p := w.out.Portion
	names := formName(w.v.Form, p.Count)
	lead = fmt.Sprintf("%d %s", p.Count, names)
	if p.Count == 1 {
		lead = "One " + strings.SplitN(names, " ", 2)[1]
	}
	reason = fmt.Sprintf("%.0f ml each", p.VolumeML)
	if p.DiameterMM != nil {
		reason = fmt.Sprintf("%.0f mm across, %s", *p.DiameterMM, reason)
	}
	w.say("portion", lead, reason)

	w.drift([]Gauge{w.out.Thickness, w.out.Sweetness})
	if len(w.out.Allergens) > 0 {
		w.say("allergens", "Contains "+list(w.out.Allergens), "by the usual makes; the pack decides")
	}
}

func (w *work) say(kind, lead, reason string) {
	w.out.Verdict = append(w.out.Verdict, Verdict{kind, lead, reason})
}

// drift says in one clause which gauges ended outside their band.
func (w *work) drift(gauges []Gauge) {
	var out []Gauge
	for _, g := range gauges {
		if g.State == Low || g.State == High {
			out = append(out, g)
		}
	}
	if len(out) == 0 {
		return
	}
	first := out[0]
	reason := fmt.Sprintf("%.*f %s, the base %.*f", first.Decimals, first.After, first.Unit, first.Decimals, first.Base)
	if len(out) > 1 {
		var others []string
		for _, g := range out[1:] {
			others = append(others, lower(g.VerdictText))
		}
		reason = "and " + list(others)
	}
	w.say("drift", first.VerdictText, reason)
}
