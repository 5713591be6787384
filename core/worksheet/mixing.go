package worksheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/prep"
)

const (
	firstPour = 2.0 / 3 // of the liquid goes in before the spread test; the rest waits in the jug (modelling choice)
	steepMin  = 10      // min in warm liquid (common practice, no source)
	leastEach = 1       // g a portion, below which it is said for the batch (modelling choice)
)

// mixing writes the order of work for this recipe: which bowl, what first, when to stop.
func (w *work) mixing() {
	var dry, sift, wet, fat, liquid []string
	var liquidG float64
	say := func(l Line) string {
		g := l.Weigh
		if l.Prepared != nil {
			g = measure.Round(l.Prepared.Grams, w.k.ScaleStep)
		}
		if l.DryTo != nil {
			g = *l.DryTo
		}
		return fmt.Sprintf("%s %s", lower(l.Label), grams(g, l.Step))
	}
	stages := map[string]batter.Stage{}
	group := map[string]food.Group{}
	for i, l := range w.v.Base.Lines {
		group[w.out.Lines[i].ID] = l.Ingredient.Group
	}
	var foldIn, onTop, under, infused, grated []Line
	for i, a := range w.v.Additions {
		l := w.out.Lines[len(w.v.Base.Lines)+i]
		group[l.ID], stages[l.ID] = a.Ingredient.Group, a.Stage
		if l.Weigh <= 0 {
			continue
		}
		switch a.Stage {
		case batter.StageFoldIn:
			foldIn = append(foldIn, l)
		case batter.StageOnPortion:
			onTop = append(onTop, l)
		case batter.StageUnderPortion:
			under = append(under, l)
		case batter.StageInfused:
			infused = append(infused, l)
		case batter.StageBatter:
			if a.Ingredient.Group == food.GroupGrated || a.Ingredient.Group == food.GroupHerb {
				grated = append(grated, l)
			}
		}
	}
	for _, l := range w.out.Lines {
		if l.Weigh <= 0 || slices.ContainsFunc(slices.Concat(foldIn, onTop, under, infused, grated), func(x Line) bool { return x.ID == l.ID }) {
			continue
		}
		switch g := group[l.ID]; {
		case g == food.GroupPowder:
			sift = append(sift, say(l))
		case l.Role == food.RoleFlour, l.Role == food.RoleLeavener, l.Role == food.RoleSoda, l.Role == food.RoleSalt,
			g == food.GroupSugar, g == food.GroupSpice, g == food.GroupDryPiece, stages[l.ID] == batter.StageDry:
			dry = append(dry, say(l))
		case l.Role == food.RoleFat:
			fat = append(fat, lower(l.Label))
		case l.Role == food.RoleLiquid && l.From == FromBase:
			liquid = append(liquid, lower(l.Label))
			liquidG += l.Weigh
		default:
			wet = append(wet, say(l))
		}
	}
	step := func(format string, args ...any) {
		w.out.Mixing = append(w.out.Mixing, Step{fmt.Sprintf(format, args...)})
	}
	for _, l := range infused {
		into := either(len(liquid) > 0, list(liquid), "the liquid")
		step("Warm the %s, steep %s in it for %d min, strain, press what is left, and top up with fresh to %.0f g: leaves and steam keep some.", into, say(l), steepMin, liquidG)
	}
	for _, l := range w.out.Lines {
		if l.Prepared != nil && l.Prepared.Work != nil {
			step("%s, %s: %s", l.Label, grams(l.Weigh, l.Step), w.prepared(l))
		}
		if l.DryTo != nil {
			how := either(group[l.ID] == food.GroupGrated, "Salt, squeeze and drain", "Reduce")
			step("%s the %s from %s to %s, and weigh it below 30 °C.", how, lower(l.Label), grams(l.Weigh, l.Step), grams(*l.DryTo, w.k.ScaleStep))
		}
	}
	if len(sift) > 0 {
		step("Sift %s: it lumps.", list(sift))
	}
	if len(dry) > 0 {
		step("Whisk together in the big bowl: %s%s.", list(dry), either(len(sift) > 0, ", and what is sifted", ""))
	}
	whips := w.v.Base.Whips()
	first := measure.Round(firstPour*liquidG, w.k.ScaleStep)
	switch {
	case liquidG > 0:
		with := either(len(wet) > 0, fmt.Sprintf(" with %s", list(wet)), "")
		step("In a jug%s: two thirds of the %s first, %.0f g. Keep %.0f g back for the spread test.", with, list(liquid), first, liquidG-first)
	case len(wet) > 0:
		step("In a jug: %s.", list(wet))
	}
	if whips {
		step("Keep the egg whites aside: the yolks go into the jug, the whites are whipped to soft peaks while the batter rests.")
	}
	if len(fat) > 0 {
		step("Melt the %s, let it cool to hand-warm, stir it in last: in fridge-cold milk it sets in lumps.", list(fat))
	}
	smooth := w.v.Base.Smooth(w.v.Form)
	switch {
	case len(dry) == 0:
		step("Beat it even.")
	case smooth:
		step("Pour into a well in the dry and whisk from the middle until smooth.")
	default:
		step("Pour into a well in the dry and fold until just combined. Stop while it is lumpy: stirring makes it tough.")
	}
	if len(grated) > 0 {
		step("Stir in %s, squeezed loose so that it does not clump.", list(each(grated, say)))
	}
	if rest := w.v.Base.Rest(w.v.Form, w.k); rest > 0 {
		step("Rest %s%s.", minutes(rest), either(rest >= 60, ", in the fridge", ""))
	}
	if p := w.out.Portion; p.DiameterMM != nil && w.v.Form != batter.Crepe && liquidG > 0 {
		step("Spread test below 30 °C: %.0f ml on a flat cold plate should run to about %.0f mm. Narrower: a splash from the jug, and test again.", p.VolumeML, *p.DiameterMM)
	}
	if len(foldIn) > 0 {
		step("Fold in %s last.", list(each(foldIn, say)))
	}
	if whips {
		step("Fold the whipped whites in last of all, in three goes, and cook at once.")
	}
	for _, l := range under {
		step("Lay %s in the pan, %s a portion, and pour the batter over.", lower(l.Label), w.perPortion(l))
	}
	for _, l := range onTop {
		step("Put %s on each portion as soon as it is poured: %s.", lower(l.Label), w.perPortion(l))
	}
}

// prepared says how an addition is prepared and what it should come to.
func (w *work) prepared(l Line) string {
	text := strings.Join(l.Prepared.Work.Steps, " ")
	for _, f := range l.Prepared.Work.Left {
		if f.Kind == prep.Juice {
			text += fmt.Sprintf(" About %.0f g of it.", f.Grams)
		}
	}
	return fmt.Sprintf("%s It should come to %s.", text, grams(measure.Round(l.Prepared.Grams, w.k.ScaleStep), w.k.ScaleStep))
}

func each(lines []Line, say func(Line) string) []string {
	var out []string
	for _, l := range lines {
		out = append(out, say(l))
	}
	return out
}

func minutes(m float64) string {
	if m >= 60 && math.Mod(m, 30) == 0 {
		return fmt.Sprintf("%g h", m/60)
	}
	return fmt.Sprintf("%.0f min", m)
}

// perPortion is the share of a portion of what does not go through the bowl.
func (w *work) perPortion(l Line) string {
	if w.out.Portion.Count == 0 {
		return grams(l.Weigh, l.Step) + " in all"
	}
	g := l.Weigh / float64(w.out.Portion.Count)
	if g < leastEach {
		return grams(l.Weigh, l.Step) + " shared out over all"
	}
	return grams(g, 0.1)
}
