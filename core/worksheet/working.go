package worksheet

import (
	"fmt"
	"math"
	"strings"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
	"upbeatladle/core/words"
)

// Sources of terms that are not a row of the table.
const (
	fromModel   = "modelling choice, docs/maths.md"
	fromRecipe  = "this recipe"
	fromSolver  = "with the other lines, docs/maths.md 6"
	fromSum     = "sum of the above"
	fromRoussel = "Roussel & Coussot 2005"
	fromRounded = "rounded to the scale"
)

// working derives every figure that the bench shows.
func (w *described) working() {
	for i, l := range w.out.Lines {
		if l.From == FromBase {
			w.lineWorking(i, l)
		}
	}
	b := w.weighed
	w.sum(Thickness, "Suspending liquid over body: what loosens, per gram of what thickens.", "ml", flow.LiquidPerGram, []Term{
		{"suspending liquid V", b.thick.Liquid, "ml", fromSum}, {"body F, in grams of plain flour", b.thick.Body, "g", "table: body of each, " + fromModel},
		{"L* = V / F", b.thick.L(), "ml/g", "docs/maths.md 3"},
	})
	w.sum(Moisture, "Water of the batter between the pieces against its dry matter: purées let theirs go in the heat.", "g", func(in *food.Ingredient) float64 { return in.Release()*in.Water/100 - in.Drinks() }, []Term{
		{"water", b.account.Water, "g", fromSum}, {"dry matter", b.dry(), "g", "batter between the pieces, less water and alcohol"},
	})
	w.sum(Sweetness, "Sucrose equivalent of all sugars in the batter between the pieces, per 100 g of it.", "g", func(in *food.Ingredient) float64 {
		return in.Release() * in.Sweetness() / 100
	}, []Term{
		{"sucrose equivalent", b.account.Sweetness(), "g", fromSum}, {"all sugars", b.account.Sugars, "g", "table"},
		{"batter between the pieces", b.account.Mass, "g", "docs/maths.md 2"},
	})
	w.sum(Lifting, "Gas of powder and soda at 25 °C for each 100 g of flour; soda works where acid meets it.", "ml", lift.GasPerGram, []Term{
		{"soda", b.lift.SodaG, "g", fromRecipe}, {"gas of the soda", b.lift.GasML() - b.lift.OwnGasML, "ml", "291 ml a gram with acid, half without: stoichiometry"},
		{"flour-type body", b.lift.FlourBody, "g", "table"}, {"room at this altitude", lift.Expansion(w.k.AltitudeM), "×", "ICAO standard atmosphere"},
	})
	w.sum(Tang, "Acid that the soda leaves, per 100 g of batter between the pieces.", "meq", lift.AcidPerGram, []Term{
		{"acid", b.lift.AcidMeq, "meq", fromSum}, {"taken by soda", lift.MeqPerGram * b.lift.SodaG, "meq", "11.9 meq a gram: stoichiometry"},
		{"batter between the pieces", b.account.Mass, "g", "docs/maths.md 2"},
	})
	w.sum(Salt, "Salt that is tasted, in the pieces too, per 100 g of batter between them.", "g", balance.SaltPerGram, []Term{
		{"batter between the pieces", b.account.Mass, "g", "docs/maths.md 2"},
	})
	w.sum(Structure, "What sets, as protein that knits: egg and wheat in full, other flours three tenths, nut meals a tenth, starch a share; per 100 g of all that is in the bowl.", "g", balance.SettingProtein, []Term{
		{"bowl", b.whole.Mass, "g", fromSum},
	})
	w.portionWorking()
}

// show adds a working; terms that are not numbers or nothing at all are left out.
func (w *described) show(line, figure, text string, terms []Term) {
	kept := terms[:0]
	for _, t := range terms {
		if t.Value != 0 && !math.IsNaN(t.Value) && !math.IsInf(t.Value, 0) {
			kept = append(kept, t)
		}
	}
	w.out.Working = append(w.out.Working, Working{Line: line, Figure: figure, Text: w.named(text), Terms: kept})
}

// sum lists what each part of the bowl brings of a property, then the totals.
func (w *described) sum(key, text, unit string, per func(*food.Ingredient) float64, totals []Term) {
	var terms []Term
	for _, p := range w.weighed.parts {
		source := p.Ingredient.CompositionSource
		source, _, _ = strings.Cut(source, ";")
		if _, tail, ok := strings.Cut(source, ": "); ok {
			source = tail
		}
		source = "table: " + source
		if own := p.Ingredient.Own; own != nil {
			source = "yours: " + strings.TrimSpace(own.Name+" "+own.MadeOn)
		}
		terms = append(terms, Term{fmt.Sprintf("%s, %.4g g", p.Ingredient.Label(), p.Grams), p.Grams * per(p.Ingredient), unit, source})
	}
	terms = append(terms, totals...)
	g := w.out.Gauge(key)
	terms = append(terms, Term{"as weighed", g.After(), g.Unit, "of all this"}, Term{w.named("the base"), g.Base(), g.Unit, "the same sum for it"})
	if g.Target != nil {
		terms = append(terms, Term{"pulled to", *g.Target, g.Unit, "your wish"})
	}
	w.show("", key, text, terms)
}

func (w *described) lineWorking(i int, l Line) {
	terms := []Term{{"in the base", *l.Base, "g", fromRecipe}}
	per := w.same(w.v.Base.Lines[i])
	text := "Nothing moves this line."
	if per != nil {
		for _, p := range w.made {
			terms = append(terms, Term{p.Ingredient.Label() + " acts like", p.Grams * per(p.Ingredient) / per(w.v.Base.Lines[i].Ingredient), "g of " + words.Lower(l.Label), "docs/maths.md 6"})
		}
	}
	in := w.v.Base.Lines[i].Ingredient
	switch {
	case l.State == Pinned:
		text = "You pinned it, so the offsets go elsewhere."
	case *l.Offset == 0 && l.Role == food.RoleEgg:
		text = "Eggs are whole; they move only when structure is held."
	case *l.Offset == 0:
		text = "What it would have to give is less than the scale shows, or nothing asks it to."
	case l.Role == food.RoleLiquid || l.Role == food.RoleFlour:
		l0 := w.plain.thick.L()
		text = "Liquid and flour keep the liquid per gram of body where the base had it."
		terms = append(terms,
			Term{"thickness to hold, L*", l0, "ml/g", "the base"},
			Term{"what the additions loosen", w.with.thick.Liquid - l0*w.with.thick.Body, "ml", "V − L*·F, docs/maths.md 3"},
			Term{"a gram of this line loosens", flow.LiquidPerGram(in) - l0*in.Body, "ml", "table"})
	case l.Role == food.RoleSugar:
		text = "Sugar keeps the sweetness of the batter between the pieces where the base had it."
		terms = append(terms, Term{"sweetness to hold", w.plain.sweetness(), "g/100 g", "the base"}, Term{"batter between the pieces", w.weighed.account.Mass, "g", "docs/maths.md 2"})
	case l.Role == food.RoleLeavener:
		text = "Powder keeps the gas for each gram of flour where the base had it."
		terms = append(terms, Term{"gas to hold", w.plain.lift.Per100(), "ml/100 g flour", "the base"}, Term{"a gram gives", lift.GasPerGram(in), "ml", "13 % CO2, table"})
	case l.Role == food.RoleSoda:
		text = "Soda keeps its share of the acid where the base had it."
		terms = append(terms, Term{"acid in the bowl", w.weighed.lift.AcidMeq, "meq", "table"}, Term{"soda to acid in the base", w.plain.lift.SodaToAcid(), "", "the base"})
	case l.Role == food.RoleSalt:
		text = "Salt keeps the taste per gram of batter between the pieces."
		terms = append(terms, Term{"batter between the pieces", w.weighed.account.Mass, "g", "docs/maths.md 2"})
	case l.Role == food.RoleFat:
		text = "Fat keeps its measure against the flour; what the additions bring counts."
	}
	terms = append(terms, Term{"worked out", l.RoundedFrom, "g", fromSolver}, Term{"to weigh out", l.Weigh, "g", fromRounded})
	w.show(l.ID, "", text, terms)
	if sum, say := w.sumOf(i, l); say != "" {
		last := &w.out.Working[len(w.out.Working)-1]
		last.Sum, last.Text, last.Maths = sum, say, last.Text
	}
}

func (w *described) portionWorking() {
	b, p := w.out.Batter, w.out.Portion
	w.show("", "count", "The bowl's volume less what sticks to it, by the ladle.", []Term{
		{"bowl", b.MassG, "g", fromSum}, {"density with its air", b.DensityGML, "g/ml", "composition and stirred-in air, docs/maths.md 5"},
		{"volume", b.VolumeML, "ml", "mass over density"}, {"stays in the bowl", 100 * portion.BowlLoss, "%", "common practice, no source"},
		{"ladle", p.VolumeML, "ml", fromRecipe},
	})
	if p.DiameterMM != nil && b.YieldStressPa != nil {
		terms := []Term{
			{"L*", w.weighed.thick.L(), "ml/g", "docs/maths.md 3"}, {"yield stress", *b.YieldStressPa, "Pa", fmt.Sprintf("ln τ = %.4g − %.4g·(L* − 2)", w.k.Calibration.C, w.k.Calibration.B)},
			{"on the hot plate it stands as", w.stands(w.weighed, p.VolumeML), "Pa", "docs/maths.md 5"},
			{"stiffer by its pieces and foam", w.stiffer(w.weighed), "×", "Chateau, Ovarlez & Trung 2008"},
			{"portion", p.VolumeML, "ml", fromRecipe}, {"density", b.DensityGML, "g/ml", "docs/maths.md 5"},
		}
		text := "How far a portion runs on the plate before its own stiffness stops it; a hot plate lets a stiff one down a little."
		if p.Spread.By == batter.ByHand {
			text = "How far a portion runs by itself, and to where a hand spreads it."
			terms = append(terms, Term{"by itself", p.Spread.ItselfMM, "mm", fromRoussel}, Term{"diameter", *p.DiameterMM, "mm", words.Either(p.Spread.Chosen, "as you wish it", "by hand, docs/maths.md 5")})
		} else {
			terms = append(terms, Term{"diameter", *p.DiameterMM, "mm", fromRoussel})
		}
		w.show("", "diameter", text, terms)
	}
	if l := w.out.Portion.Load; l != nil {
		var terms []Term
		for _, x := range w.out.Portion.Inclusions {
			terms = append(terms,
				Term{x.Label + ", pieces in each", x.Mean, "", "amount over the piece's mass, shared by volume"}, Term{x.Label + " in each", x.Grams, "g", "table: piece mass"},
				Term{x.Label + ", bites that meet one", 100 * x.BiteShare, "%", "Minkowski sum, docs/maths.md 14"})
		}
		w.show("", "load", "Volume of the pieces over the volume of the portion, against what the form carries.", append(terms,
			Term{"load", 100 * l.Fraction, "%", "piece density, never bulk"}, Term{"ceiling", 100 * l.Ceiling, "%", "common practice, " + fromModel}))
	}
	if n := w.each; n != nil {
		w.show("", "energy", "The portion's share of everything in the bowl, and of what is put on it"+words.Either(w.out.PanFatG > 0, fmt.Sprintf("; with %s of fat from the pan.", words.Grams(measure.Round(w.out.PanFatG, 0.1), 0.1)), "; nobody has said what fat goes on the plate, so none is counted."), []Term{
			{"protein, 4 kcal/g", n.Protein, "g", "table"}, {"fat, 9 kcal/g", n.Fat, "g", "table"},
			{"carbohydrate, 4 kcal/g", n.Carbohydrate, "g", "table"}, {"fibre, 2 kcal/g", n.Fibre, "g", "table"},
			{"energy", n.EnergyKcal, "kcal", "rows as printed, general factors where none is"},
		})
	}
}
