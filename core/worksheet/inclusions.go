package worksheet

import (
	"fmt"
	"math"
	"math/rand/v2"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
	"upbeatladle/core/words"
)

const (
	closeToCeiling = 0.9     // of the ceiling is called close (modelling choice)
	mostColumns    = 40      // of a histogram
	histogramTail  = 0.001   // of the portions beyond either end is not shown
	drawSeed       = 1       // the picture does not dance while an amount is typed
	overfull       = 1.0     // of the mould, once risen, from which an iron leaks
	softStands     = 4.0 / 3 // times the room that soft fruit may stand high (common practice, no source)
	underfull      = 0.6     // below, the waffle does not reach its edges (modelling choice)
)

// leastOverG is the least that a portion is told to have less of [g] (modelling choice: nothing in grams is no advice).
const leastOverG = 0.1

// piecesOf is the addition's pieces: none when it has no pieces of its own.
func piecesOf(in *food.Ingredient) (mass float64, ok bool) {
	return in.Piece.MassG, in.Piece.Known()
}

// foldedFraction is the volume fraction of what was added to a bowl and keeps its cells there:
// pieces, grated things and zest, by the density of the thing itself.
func (w *solved) foldedFraction(b bowl, pot portion.Bowl) float64 {
	if pot.VolumeML <= 0 {
		return 0
	}
	var ml float64
	for _, p := range b.parts[b.lines:] {
		ml += solidML(p.Ingredient, p.Grams)
	}
	return ml / pot.VolumeML
}

// solidML is the volume in ml of what stays solid of so many grams in the bowl.
func solidML(in *food.Ingredient, grams float64) float64 {
	if !in.HasCells() {
		return 0
	}
	return grams * (1 - in.Release()) / in.PieceDensity()
}

// shredded are the kinds without pieces to count that still take up room in a portion.
func shredded(in *food.Ingredient) bool {
	return in.Group == food.GroupGrated || in.Group == food.GroupZest
}

// place is where a portion lies: its area in mm² and outline.
func (w *described) place() (area, width, length float64) {
	p := w.out.Portion
	switch {
	case p.DiameterMM != nil:
		return math.Pi * *p.DiameterMM * *p.DiameterMM / 4, *p.DiameterMM, 0
	case w.v.Form == batter.Waffle && len(w.k.Irons) > 0:
		i, _ := w.iron()
		length := i.LengthMM
		if i.Round {
			length = 0
		}
		return portion.MouldArea(i), i.WidthMM, length
	}
	return 0, 0, 0
}

// inclusions describes every addition that has pieces.
func (w *described) inclusions() {
	pot, p := w.pot(), w.out.Portion
	if p.Count > portion.MaxPortions {
		w.note("too_many_portions", "", "Portions of %.0f ml make %d of this bowl; pieces and plates are worked out up to %d. Take a larger ladle or a smaller batch.", p.VolumeML, p.Count, portion.MaxPortions)
		return
	}
	area, width, length := w.place()
	tau := 0.0
	if w.out.Batter.YieldStressPa != nil {
		tau = *w.out.Batter.YieldStressPa
	}
	var kinds []portion.Kind
	var volume, weight float64 // ml and g of pieces in a portion that gets all of them
	for i, a := range w.v.Additions {
		if shredded(a.Ingredient) && a.Stage.InBowl() && p.Count > 0 {
			share := p.VolumeML / pot.VolumeML
			volume += share * solidML(a.Ingredient, w.adds[i])
			weight += share * w.adds[i]
			continue
		}
		mass, ok := piecesOf(a.Ingredient)
		if !ok || w.adds[i] <= 0 || a.Stage == batter.StageInfused || p.Count == 0 {
			continue
		}
		in := a.Ingredient
		pieces := w.adds[i] / mass
		if a.ShareOfBowl <= 0 {
			a.ShareOfBowl = 1
		}
		length, width, height := in.PieceSize()
		x := Inclusion{
			LineID: a.ID, Ingredient: in.ID, Label: in.Label(), LengthMM: length, WidthMM: width, HeightMM: height, Share: a.ShareOfBowl, Colour: in.Colour.Hex,
		}
		if a.Stage.InBowl() {
			w.fold(&x, in, pieces, pot, tau)
		} else {
			w.lay(&x, a, pieces, mass)
		}
		if area > 0 {
			x.BiteShare = portion.BiteShare(x.Mean, length, width, area)
			if a.Stage == batter.StageUnderPortion {
				x.Cover = math.Min(1, x.Mean*math.Pi*length*width/4/area)
			}
		}
		if a.Stage != batter.StageUnderPortion { // a slice carries the batter, not the other way round
			volume += x.Grams / x.Share * (1 - releaseOf(a)) / in.PieceDensity()
			weight += x.Grams / x.Share
		}
		kinds = append(kinds, portion.Kind{Pieces: x.Mean, LengthMM: length, HeightMM: height})
		w.out.Portion.Inclusions = append(w.out.Portion.Inclusions, x)
		w.inclusionNotes(a, x)
	}
	if volume > 0 {
		w.load(volume, weight)
	}
	if width > 0 && len(kinds) > 0 && w.include.Drawing {
		w.draw(width, length, p.VolumeML*1000/area, kinds)
	}
}

// draw places the pieces of one portion on a cake of these measures [mm], the same every time.
func (w *described) draw(width, length, thick float64, kinds []portion.Kind) {
	d := Drawing{Seed: drawSeed, WidthMM: width, LengthMM: length, BiteMM: portion.BiteMM}
	spots, drawn := portion.Draw(rand.New(rand.NewPCG(drawSeed, drawSeed)), width, length, thick, kinds)
	d.Drawn, d.Pieces = drawn, make([]Piece, 0, len(spots))
	for _, s := range spots { // a place to a tenth of a millimetre
		x := w.out.Portion.Inclusions[s.Kind]
		d.Pieces = append(d.Pieces, Piece{
			measure.Round(s.X, 0.1), measure.Round(s.Y, 0.1), measure.Round(s.Z, 0.1), measure.Round(x.LengthMM, 0.1), measure.Round(x.WidthMM, 0.1), measure.Round(x.HeightMM, 0.1), math.Round(s.Turn), x.Colour,
		})
	}
	w.out.Portion.Drawing = &d
}

// releaseOf is the share that leaves the pieces: only what is in the bowl lets go there.
func releaseOf(a batter.Addition) float64 {
	if a.Stage.InBowl() {
		return a.Ingredient.Release()
	}
	return 0
}

// fold spreads pieces by chance over the portions of a bowl, or of the part that gets them.
func (w *described) fold(x *Inclusion, in *food.Ingredient, pieces float64, pot portion.Bowl, tau float64) {
	p := w.out.Portion
	x.Placing = portion.Folded
	c := portion.Chance{Pieces: pieces, Share: p.VolumeML / (pot.VolumeML * x.Share)}
	x.Mean, x.None = c.Mean(), c.None()
	x.P10, x.P90 = c.Quantile(0.1), c.Quantile(0.9)
	x.Grams = x.Mean * in.Piece.MassG * x.Share
	x.FewerK = max(1, int(math.Floor(x.Mean/2)))
	fewer := c.Fewer(x.FewerK)
	x.Fewer = &fewer
	var sinking portion.Sinking
	if tau > 0 {
		sinking = portion.SinkingOf(min(x.LengthMM, x.WidthMM, x.HeightMM), in.PieceDensity(), tau, portion.Viscosity(w.v.Form), pot.Density())
	}
	x.Sinks, x.Floats = sinking.Moves && sinking.Down, sinking.Moves && !sinking.Down
	if !w.include.Drawing {
		return
	}
	low, high := c.Quantile(histogramTail), c.Quantile(1-histogramTail)
	if low < mostColumns/2 {
		low = 0
	}
	x.From, x.Step = low, max(1, int(math.Ceil(float64(high-low+1)/mostColumns)))
	x.Histogram = make([]float64, (high-low)/x.Step+1)
	for i := range x.Histogram {
		from := low + i*x.Step
		x.Histogram[i] = c.Between(from, min(from+x.Step, high+1))
	}
	n := max(1, int(math.Round(float64(p.Count)*x.Share)))
	x.FirstToLast = portion.FirstToLast(pieces, n, pot.VolumeML*x.Share, p.VolumeML, 0, sinking)
}

// lay shares whole pieces out over the portions.
func (w *described) lay(x *Inclusion, a batter.Addition, pieces, mass float64) {
	p := w.out.Portion
	x.Placing = portion.Placed
	n := max(1, int(math.Round(float64(p.Count)*x.Share)))
	if a.PlacedEach > 0 {
		pieces = a.PlacedEach * float64(n)
	}
	each, extra := portion.SharedOut(pieces, n)
	x.Mean = pieces / float64(n)
	x.P10, x.P90 = each, each
	if 10*extra > n {
		x.P90 = each + 1
	}
	if 10*extra > 9*n {
		x.P10 = each + 1
	}
	if each == 0 {
		x.None = 1 - float64(extra)/float64(n)
	}
	x.Grams = x.Mean * mass * x.Share
	if !w.include.Drawing {
		return
	}
	x.From, x.Step = each, 1
	x.Histogram = []float64{1 - float64(extra)/float64(n), float64(extra) / float64(n)}
	for i := range n {
		v := float64(each)
		if i < extra {
			v++
		}
		x.FirstToLast = append(x.FirstToLast, v)
	}
}

func (w *described) load(ml, g float64) {
	l := Load{Fraction: ml / w.out.Portion.VolumeML, Ceiling: batter.LoadCeiling(w.v.Form)}
	limit := words.Either(w.v.Form == batter.Waffle, "leaks and sticks above", "tears above")
	switch {
	case l.Fraction > l.Ceiling:
		l.Verdict = "over"
		l.OverG = g * (1 - l.Ceiling/l.Fraction)
		l.Text = fmt.Sprintf("%s over the ceiling a portion", words.Grams(math.Max(leastOverG, l.OverG), 0.1))
		w.note("load", "", "The load is %.0f %% of a portion; %s %.0f %%. %s less in each holds together.", 100*l.Fraction, limit, 100*l.Ceiling, words.Grams(l.OverG, 0.1))
	case l.Fraction > closeToCeiling*l.Ceiling:
		l.Verdict, l.Text = "close", fmt.Sprintf("close: %s %.0f %%", limit, 100*l.Ceiling)
	default:
		l.Verdict, l.Text = "within", fmt.Sprintf("%s %.0f %%", limit, 100*l.Ceiling)
	}
	w.out.Portion.Load = &l
}

// inclusionNotes minds pieces that are too tall, that scorch, bleed or do not stay put.
func (w *described) inclusionNotes(a batter.Addition, x Inclusion) {
	at := a.ID
	label := words.Upper(words.Lower(x.Label))
	if room, where := w.headroom(); room > 0 && a.Stage != batter.StageUnderPortion {
		soft := a.Ingredient.Group == food.GroupFreshPiece || a.Ingredient.Group == food.GroupFrozenPiece
		height, most := x.HeightMM, room
		if soft { // it gives in the heat
			most *= softStands
		}
		if height > most {
			w.note("tall", at, "%s: pieces %.0f mm high stand taller than the %.0f mm %s. %s", label, height, room, where, words.Either(soft, "Halve them.", "Chop them smaller."))
		}
	}
	if w.v.Form == batter.Waffle && a.Ingredient.Group == food.GroupDryPiece && a.Ingredient.Sugars > batter.ScorchSugar {
		w.note("scorch", at, "%s: the pieces scorch where they touch the iron. Smaller ones, fewer, and wipe between.", label)
	}
	if a.Ingredient.Group == food.GroupFrozenPiece && a.Stage.InBowl() {
		w.note("bleed", at, "Frozen %s bleeds into the batter and chills it: %s.", words.Lower(x.Label), words.Either(x.Grams > frozenMostG,
			"thaw and drain it, or lay fewer on each portion", "put it on each portion instead, straight from the freezer"))
	}
	if x.Sinks || x.Floats {
		w.note("sinks", at, "%s: the pieces %s in this batter, and the %s portions get most. Fold them in late, thicken the batter, toss them in flour, or put them on each portion.",
			label, words.Either(x.Sinks, "sink", "float"), words.Either(x.Sinks, "last", "first"))
	}
}

// headroom is the height in mm that a piece may have, and what sets it.
func (w *described) headroom() (float64, string) {
	switch {
	case w.v.Form == batter.Waffle && len(w.k.Irons) > 0:
		i, _ := w.iron()
		return i.GapMM, "gap of the iron"
	case w.v.Form == batter.Crepe:
		return batter.CrepePieceMM, "that a crêpe takes"
	case w.out.Portion.CookedMM != nil:
		return *w.out.Portion.CookedMM, "of the cooked pancake"
	}
	return 0, ""
}

// scoopNumbers are the dishers that a kitchen shop has (common practice, no source).
var scoopNumbers = []float64{8, 10, 12, 16, 20, 24, 30, 40}

// choices tells for every ladle and scoop how many portions it gives and how wide one runs.
func (w *described) choices() {
	pot := w.pot()
	add := func(c Choice) {
		c.Count = pot.Count(c.VolumeML)
		if l, ok := w.layer(w.weighed, c.VolumeML); ok {
			c.DiameterMM = &l.DiameterMM
		}
		w.out.Portion.Choices = append(w.out.Portion.Choices, c)
	}
	for _, l := range w.k.Ladles {
		add(Choice{ID: l.ID, Name: l.Name, VolumeML: l.VolumeML})
	}
	for _, n := range scoopNumbers {
		add(Choice{Name: fmt.Sprintf("Scoop %.0f", n), ScoopNo: n, VolumeML: portion.ScoopML(n)})
	}
}

// griddle is the plate in use for the form: the one that the cook names; else a crêpe wants the
// first round pan, everything else the first plate there is.
func (w *measured) griddle() (batter.Griddle, bool) {
	for _, g := range w.k.Griddles {
		if g.ID == w.v.Cooking.On {
			return g, true
		}
	}
	for _, g := range w.k.Griddles {
		if w.v.Form != batter.Crepe || g.Round {
			return g, true
		}
	}
	return batter.Griddle{}, false
}

// iron is the one that the cook names, else the first.
func (w *measured) iron() (batter.Iron, bool) {
	return w.k.Iron(w.v.Cooking.On)
}

// plate says how many fit, or how full the iron gets.
func (w *described) plate() {
	p := w.out.Portion
	rise := w.rise(w.weighed)
	switch {
	case w.v.Form == batter.Waffle:
		i, ok := w.iron()
		if !ok {
			return
		}
		pl := Plate{Name: i.Name, Fit: i.Moulds, WidthMM: i.WidthMM, DepthMM: i.LengthMM, Round: i.Round}
		pl.Fill, pl.AdvisedML = portion.Fill(i, p.VolumeML, rise, w.out.Batter.DensityGML)
		w.out.Plate = &pl
		switch {
		case pl.Fill > overfull:
			w.note("overfull", "", "%.0f ml leaves no room at the rim of %s, and leaks: %.0f ml fills it well.", p.VolumeML, i.Name, pl.AdvisedML)
		case pl.Fill < underfull:
			w.note("underfull", "", "%.0f ml does not reach the edges of %s: %.0f ml fills it well.", p.VolumeML, i.Name, pl.AdvisedML)
		}
	case p.DiameterMM != nil:
		g, ok := w.griddle()
		if !ok {
			return
		}
		pl := Plate{Name: g.Name, Fit: len(portion.PlacesOn(g, *p.DiameterMM)), WidthMM: g.WidthMM, DepthMM: g.DepthMM, Round: g.Round}
		w.out.Plate = &pl
	}
	if pl := w.out.Plate; pl != nil && pl.Fit > 0 {
		pl.Rounds = int(math.Ceil(float64(p.Count) / float64(pl.Fit)))
	}
}
