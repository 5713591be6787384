package heat

import (
	"context"
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/internal/evidence"
)

const usualRise = 12.3 / 7

func portionOf(m Matter, mm float64) Portion {
	return Portion{Layers: []Layer{{Matter: m, ThickMM: mm, StartC: 20, Gas: GasOnPlate, Rise: usualRise}}}
}

func (p Portion) at(c float64) Portion {
	p.PlateC = c
	return p
}

func advised(t *testing.T, m Matter, mm, rise float64) Advice {
	t.Helper()
	p := portionOf(m, mm)
	p.Layers[0].Rise = rise
	a, err := Advise(context.Background(), Ask{Portion: p})
	require.NoError(t, err)
	return a
}

func TestMatterIsWhatItsPartsAre(t *testing.T) {
	water := Matter{Water: 1, Carbohydrate: 1e-12}.At(20)
	evidence.Check(t, evidence.Claim{What: "water at 20 °C, conductivity", Unit: "W/mK", Kind: evidence.Memory, Source: "tables of water", Outside: 0.598, Ours: water.K, Tolerance: 0.012 * 0.598})
	evidence.Check(t, evidence.Claim{What: "water at 20 °C, density", Unit: "kg/m³", Kind: evidence.Memory, Source: "tables of water", Outside: 998.2, Ours: water.Rho, Tolerance: 0.003 * 998.2})
	evidence.Check(t, evidence.Claim{What: "water at 20 °C, heat capacity", Unit: "J/kgK", Kind: evidence.Memory, Source: "tables of water", Outside: 4182, Ours: water.Cp, Tolerance: 0.003 * 4182})
	for c, want := range map[float64]Properties{20: {.4517, 1149.0, 3015.8}, 80: {.5068, 1125.5, 3066.2}} { // kept values
		got := standard.At(c)
		assert.InEpsilon(t, want.K, got.K, 1e-3)
		assert.InEpsilon(t, want.Rho, got.Rho, 1e-3)
		assert.InEpsilon(t, want.Cp, got.Cp, 1e-3)
	}
	assert.InDelta(t, 70+0.35*100*.065/(.065+.53), standard.SetC(), 1e-9, "70 °C, and 0.35 K a percent of sugar in the liquid")
	assert.InDelta(t, 70, Matter{Water: 1}.SetC(), 1e-9)
	assert.InDelta(t, 1, standard.Browns(), 1e-3)
	assert.InDelta(t, .115, 10*browning(1, 140), 1e-9)
	assert.InDelta(t, 1.15, 10*browning(1, 180), 1e-9)
	assert.Zero(t, browning(1, 100))
}

// Minutes a side that cooks name for their plates.
func TestTimesOfPractice(t *testing.T) {
	for _, c := range []struct {
		what              string
		mm, plate         float64
		firstLow, firstHi float64
		otherLow, otherHi float64
	}{
		{"¼ cup on 163 °C, about 3 min a side", 7, 163, 150, 210, 60, 210},
		{"medium heat, 2 to 3 min a side", 7, 170, 120, 180, 60, 180},
		{"175 °C, 1½ to 2½ min and 1 to 1½", 7, 175, 90, 150, 55, 95},
		{"small ones on a hot plate, the second side under a minute", 4.5, 195, 60, 120, 20, 60},
	} {
		r := Cook(portionOf(standard, c.mm).at(c.plate), Times{})
		mid := (c.firstLow + c.firstHi) / 2
		evidence.Check(t, evidence.Claim{What: c.what + ": first side", Unit: "s", Kind: evidence.Practice, Source: "breakfast cooks", Tie: evidence.Fitted, Outside: mid, Ours: r.FirstS, Tolerance: c.firstHi - mid})
		mid = (c.otherLow + c.otherHi) / 2
		evidence.Check(t, evidence.Claim{What: c.what + ": second side", Unit: "s", Kind: evidence.Practice, Source: "breakfast cooks", Tie: evidence.Fitted, Outside: mid, Ours: r.SecondS, Tolerance: math.Min(c.otherHi-mid, mid/2)})
		assert.Equal(t, batter.Golden, ColourOf(r.DoseFirst))
	}
	for c, want := range map[float64][2]float64{163: {165, 110}, 175: {120, 85}, 190: {115, 60}} { // by the settled law, to 5 s
		r := Cook(portionOf(standard, 7).at(c), Times{})
		assert.InDelta(t, want[0], r.FirstS, timeStep)
		assert.InDelta(t, want[1], r.SecondS, timeStep)
	}
}

func ironOf(mm float64) Portion {
	p := portionOf(waffle, mm)
	p.Iron, p.Layers[0].Rise = true, 1.6
	return p
}

// Irons: seconds closed by depth and heat. Hotter is quicker, deeper takes longer.
func TestIronsFollowHeatAndDepth(t *testing.T) {
	for mm, want := range map[float64]map[float64]float64{
		7.5: {170: 298, 180: 249, 190: 210, 200: 181},
		12:  {170: 348, 180: 293, 190: 248, 200: 215},
	} {
		for c, s := range want {
			assert.InDelta(t, s, Cook(ironOf(mm).at(c), Times{}).FirstS, 2, "%g mm at %g °C", mm, c)
		}
	}
	rapid.Check(t, func(t *rapid.T) {
		mm, c := rapid.Float64Range(3, 14).Draw(t, "mm"), rapid.Float64Range(160, 210).Draw(t, "c")
		s := Cook(ironOf(mm).at(c), Times{}).FirstS
		if hotter := Cook(ironOf(mm).at(c+rapid.Float64Range(1, 20).Draw(t, "hotter")), Times{}).FirstS; hotter > s {
			t.Fatalf("hotter takes %g s, not %g", hotter, s)
		}
		if deeper := Cook(ironOf(mm+rapid.Float64Range(0.2, 3).Draw(t, "deeper")).at(c), Times{}).FirstS; deeper < s {
			t.Fatalf("deeper takes %g s, not %g", deeper, s)
		}
	})
	w := Cook(ironOf(7.5).at(195), Times{})
	assert.Less(t, w.SetAfterS, 80.0, "it is safe long before it is done")
	light, err := Advise(context.Background(), Ask{Portion: ironOf(7.5), GivenC: 195, LightS: 150})
	require.NoError(t, err)
	assert.Equal(t, 150.0, light.FirstS, "its own light comes first")
	early, err := Advise(context.Background(), Ask{Portion: ironOf(12), GivenC: 170, LightS: 60})
	require.NoError(t, err)
	assert.GreaterOrEqual(t, early.FirstS, early.SafeS, "but not before the middle has set in a bad contact")
	assert.Greater(t, early.SafeS, 60.0)
	for i := range w.slab.n / 2 {
		assert.InDelta(t, w.slab.t[i], w.slab.t[w.slab.n-1-i], 1e-9, "a waffle is the same from both sides")
	}
	assert.InDelta(t, w.DoseFirst, w.DoseSecond, 1e-9)
}

// The rules of the trade: thick and sugary want lower heat for longer, wet ones a longer second
// side, cold batter takes longer.
func TestRulesOfThePlate(t *testing.T) {
	thin, usual, fruit := advised(t, thinner, 4.5, 1.6), advised(t, standard, 7, usualRise), advised(t, pureed, 8.5, 1.6)
	assert.Less(t, fruit.PlateC+8, usual.PlateC)
	assert.Less(t, usual.PlateC+8, thin.PlateC)
	assert.Greater(t, fruit.FirstS, usual.FirstS+30)
	assert.Greater(t, usual.FirstS, thin.FirstS+30)

	sweet := standard
	sweet.Carbohydrate, sweet.Sugars, sweet.Reducing, sweet.Water = sweet.Carbohydrate+.03, sweet.Sugars+.03, sweet.Reducing+.03, sweet.Water-.03
	assert.Less(t, advised(t, sweet, 7, usualRise).PlateC, usual.PlateC, "sugar browns sooner")

	var last float64
	for _, mm := range []float64{3, 5, 7, 9, 12} {
		r := Cook(portionOf(standard, mm).at(165), Times{})
		assert.Greater(t, r.CueS, last, "thicker takes longer")
		last = r.CueS
		kept := map[float64]float64{3: 30, 5: 69, 7: 124, 9: 200, 12: 353}
		assert.InEpsilon(t, kept[mm], r.CueS, 0.06)
	}
	last = math.Inf(1)
	for c, kept := range map[float64]float64{5: 146, 20: 122, 30: 103} {
		p := portionOf(standard, 7).at(170)
		p.Layers[0].StartC = c
		assert.InEpsilon(t, kept, Cook(p, Times{}).CueS, 0.03, "batter of %g °C", c)
	}
	for _, c := range []float64{150, 165, 180, 195} {
		r := Cook(portionOf(standard, 7).at(c), Times{})
		assert.Less(t, r.CueS, last, "hotter is sooner")
		last = r.CueS
	}
	steady := Cook(portionOf(standard, 7).at(160), Times{})
	hot := portionOf(standard, 7).at(185)
	hot.Changes = []Change{{30, 160}}
	quick := Cook(hot, Times{})
	assert.Less(t, quick.CueS, steady.CueS, "a hot start sets sooner")
	assert.Greater(t, quick.DoseFirst, Cook(portionOf(standard, 7).at(160), Times{FirstS: quick.FirstS}).DoseFirst)

	high := portionOf(standard, 7).at(170)
	high.AltitudeM = 2500
	mountain, err := Advise(context.Background(), Ask{Portion: high, GivenC: 170})
	require.NoError(t, err)
	assert.Less(t, mountain.Result.CentreC, 100.0)
	assert.Less(t, mountain.Result.CentreC, usual.Result.CentreC, "water boils cooler there")
}

func onSlice(mm float64) Portion {
	p := portionOf(standard, 7)
	p.Layers = append([]Layer{{Matter: apple, ThickMM: mm, StartC: 20, Gas: gasFruit, Rise: 1, Fruit: true}}, p.Layers...)
	return p
}

// An apple ring under 7 mm of batter on 175 °C: about 3 + 3 min; 3 to 6 mm soften, 9 mm stays hard (practice).
func TestSlicesSoftenOrStayHard(t *testing.T) {
	bare, err := Advise(context.Background(), Ask{Portion: portionOf(standard, 7), GivenC: 175})
	require.NoError(t, err)
	last := 0.0
	for _, mm := range []float64{3, 4.5, 6, 9, 12} {
		a, err := Advise(context.Background(), Ask{Portion: onSlice(mm), GivenC: 175})
		require.NoError(t, err)
		assert.InDelta(t, 1.5*bare.FirstS, a.FirstS, timeStep, "half as long again as without it")
		assert.Equal(t, math.Max(a.FirstS, roundUp(a.SafeS)), a.SecondS, "as long on its own side, unless the middle asks for more")
		assert.Equal(t, batter.Golden, a.Reaches, "the slice's own face does not count")
		assert.Greater(t, a.Result.Firm, last, "thicker is harder")
		last = a.Result.Firm
		if mm <= 6 {
			assert.InDelta(t, 185, a.FirstS, timeStep)
			assert.InDelta(t, 185, a.SecondS, timeStep)
			assert.InDelta(t, map[float64]float64{3: .02, 4.5: .10, 6: .25}[mm], a.Result.Firm, .03)
		} else {
			assert.Greater(t, a.Result.Firm, HardFrom)
		}
	}
	dark, plain := onSlice(3), portionOf(standard, 7)
	dark.Colour, plain.Colour = batter.Deep, batter.Deep
	under, err := Advise(context.Background(), Ask{Portion: dark})
	require.NoError(t, err)
	without, err := Advise(context.Background(), Ask{Portion: plain})
	require.NoError(t, err)
	assert.InDelta(t, without.PlateC-10, under.PlateC, 1e-9, "the batter's own face would pass deep: cooler")
	never, err := Advise(context.Background(), Ask{Portion: Portion{Layers: []Layer{portionOf(standard, 5).Layers[0], onSlice(25).Layers[0]}}, GivenC: 170})
	require.NoError(t, err)
	assert.Equal(t, NeverSets, never.Trouble, "through so much fruit the batter stays raw")
}

// berries are so many frozen ones of so many g in all, laid on 60 ml that lie 7 mm thick.
func berries(n, grams float64) []Frozen {
	const m2 = 60e-6 / 7e-3
	return []Frozen{{KgPerM2: grams / 1000 / m2, Water: .85, FromC: -18, PerM2: n / m2, DiamMM: 10 * math.Cbrt(6*grams/n/math.Pi), OnTop: true}}
}

// A few frozen berries laid on: the first side as without, half a minute to a minute more on the
// second, five to ten degrees less (common practice, no source).
func TestFrozenPiecesTakeTheirHeat(t *testing.T) {
	for _, given := range []float64{0, 163, 170} {
		bare, err := Advise(context.Background(), Ask{Portion: portionOf(standard, 7), GivenC: given})
		require.NoError(t, err)
		p := portionOf(standard, 7)
		p.Frozen = berries(5, 6)
		a, err := Advise(context.Background(), Ask{Portion: p, GivenC: given})
		require.NoError(t, err)
		assert.True(t, a.FirstS >= bare.FirstS && a.FirstS <= bare.FirstS+15, "first side at %g: %g s, bare %g", given, a.FirstS, bare.FirstS)
		assert.True(t, a.SecondS >= bare.SecondS+30 && a.SecondS <= bare.SecondS+60, "second side at %g: %g s, bare %g", given, a.SecondS, bare.SecondS)
		assert.True(t, a.Result.Thawed)
		if given == 0 {
			assert.True(t, a.PlateC <= bare.PlateC-4 && a.PlateC >= bare.PlateC-10, "%g °C, bare %g", a.PlateC, bare.PlateC)
		}
	}
	plain := portionOf(standard, 7).at(165)
	folded := plain
	folded.Frozen = []Frozen{{KgPerM2: 0.8, Water: 0.85, FromC: -18, PerM2: 1600, DiamMM: 10}}
	a, b := Cook(plain, Times{}), Cook(folded, Times{})
	assert.Greater(t, b.CueS, a.CueS+10, "folded in, they cool all of it")
	assert.Less(t, b.balance, 1e-9)
	big := plain
	big.Frozen = []Frozen{{KgPerM2: 2, Water: 0.9, FromC: -18, PerM2: 200, DiamMM: 28}}
	assert.False(t, Cook(big, Times{120, 60}).Thawed, "a big berry is still ice inside")
}

// Mountains: water boils cooler, so it takes longer, but pancakes are made there daily.
func TestMountainsTakeLongerAndNoLonger(t *testing.T) {
	total := func(m, given float64) float64 {
		p := portionOf(standard, 7)
		p.AltitudeM = m
		a, err := Advise(context.Background(), Ask{Portion: p, GivenC: given})
		require.NoError(t, err)
		assert.Equal(t, NoTrouble, a.Trouble, "%g m", m)
		return a.FirstS + a.SecondS
	}
	for m, most := range map[float64][2]float64{2400: {1.20, 1.35}, 4000: {1.50, 1.80}} {
		assert.LessOrEqual(t, total(m, 170)/total(0, 170), most[0], "at a given 170 °C and %g m", m)
		assert.LessOrEqual(t, total(m, 0)/total(0, 0), most[1], "at the advised heat and %g m", m)
		assert.Greater(t, total(m, 170), total(0, 170))
	}
}

// The second side is no longer than the first, unless the middle asks for it by the cautious figures, or its colour
// comes late: the dial goes down after the flip, frozen pieces lie on it, or it is a grated cake.
func TestTheSecondSideIsNoLongerThanTheFirst(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := standard
		m.Water = rapid.Float64Range(.45, .65).Draw(t, "water")
		m.Carbohydrate = 1 - m.Water - m.Protein - m.Fat - m.Fibre - m.Ash
		p := portionOf(m, rapid.Float64Range(2, 14).Draw(t, "mm"))
		p.Colour = rapid.SampledFrom(batter.Colours).Draw(t, "colour")
		p.Patted = rapid.Bool().Draw(t, "patted")
		if rapid.Bool().Draw(t, "frozen") {
			p.Frozen = berries(5, rapid.Float64Range(1, 15).Draw(t, "g"))
		}
		a, err := AdviseAt(context.Background(), Ask{Portion: p}, rapid.Float64Range(140, 200).Draw(t, "c"))
		require.NoError(t, err)
		if a.Trouble == NeverSets {
			return
		}
		most := a.FirstS
		if p.Patted || p.onTop() {
			most *= slowSecond
		}
		if a.SecondS > math.Max(roundUp(most), roundUp(a.SafeS)) {
			t.Fatalf("%g s after %g, safe from %g", a.SecondS, a.FirstS, a.SafeS)
		}
		if a.SecondS > roundUp(most) && !a.MiddleDecides {
			t.Fatalf("nobody says why it takes so long: %+v", a)
		}
	})
	down := portionOf(standard, 7).at(190)
	down.Changes = []Change{{130, 150}}
	steady := Cook(portionOf(standard, 7).at(190), Times{FirstS: 120})
	assert.Greater(t, Cook(down, Times{FirstS: 120}).SecondS, steady.SecondS, "the dial goes down after the flip")
	a := advised(t, standard, 13, usualRise)
	assert.LessOrEqual(t, a.SecondS, a.FirstS, "up to 13 mm")
	assert.False(t, a.MiddleDecides)
	pale := portionOf(standard, 12)
	pale.Colour = batter.Pale
	a, err := AdviseAt(context.Background(), Ask{Portion: pale}, 170)
	require.NoError(t, err)
	assert.True(t, a.MiddleDecides, "a thick one that is wanted pale: the middle decides")
}

func TestTheGridIsFineEnough(t *testing.T) {
	for _, c := range []float64{150, 170, 190} {
		p := portionOf(standard, 7).at(c)
		fine := p
		fine.Cells, fine.longStep = 64, 0.25
		a, b := Cook(p, Times{}), Cook(fine, Times{})
		assert.InEpsilon(t, b.CueS, a.CueS, 0.03)
		same := Times{a.FirstS, a.SecondS}
		assert.InEpsilon(t, Cook(fine, same).DoseFirst, Cook(p, same).DoseFirst, 0.06)
	}
}

// Whatever is poured on whatever plate: figures that are numbers, heat that adds up, no more
// steam than there was water, eggs set by the cautious figures too, times a cook can read.
func TestAnyBowlIsAnsweredSanely(t *testing.T) {
	random := func(t *rapid.T) Portion {
		share := func(low, high float64, what string) float64 { return rapid.Float64Range(low, high).Draw(t, what) }
		m := Matter{Water: share(.35, .8, "water"), Protein: share(0, .15, "protein"), Fat: share(0, .2, "fat"), Fibre: share(0, .05, "fibre"), Ash: share(0, .03, "ash")}
		m.Carbohydrate = math.Max(.01, 1-m.Water-m.Protein-m.Fat-m.Fibre-m.Ash)
		m.Sugars = m.Carbohydrate * share(0, 1, "sugars")
		m.Sucrose = m.Sugars * share(0, 1, "sucrose")
		m.Reducing = m.Sugars - m.Sucrose
		p := Portion{Layers: []Layer{{Matter: m, ThickMM: share(.8, 20, "mm"), StartC: share(0, 35, "start"), Gas: GasOnPlate, Rise: share(1.1, 1.9, "rise")}}}
		p.Iron = rapid.Bool().Draw(t, "iron")
		p.AltitudeM = share(-400, 5000, "altitude")
		p.Colour = rapid.SampledFrom(batter.Colours).Draw(t, "colour")
		if rapid.Bool().Draw(t, "slice") && !p.Iron {
			l := Layer{Matter: apple, ThickMM: share(2, 12, "slice mm"), StartC: 10, Gas: gasFruit, Rise: 1, Fruit: true}
			p.Layers = append(p.Layers, l)
		}
		if rapid.Bool().Draw(t, "frozen") {
			p.Frozen = []Frozen{{KgPerM2: share(0, 4, "kg"), Water: .85, FromC: -18, PerM2: share(10, 9000, "pieces"), DiamMM: share(2, 30, "size")}}
		}
		return p
	}
	rapid.Check(t, func(t *rapid.T) {
		p := random(t)
		p.PlateC = rapid.Float64Range(80, 300).Draw(t, "plate")
		for _, times := range []Times{{}, {180, 120}} {
			r := Cook(p, times)
			for _, v := range []float64{r.FirstS, r.SecondS, r.CentreC, r.DoseFirst, r.DoseSecond, r.Lost} {
				if math.IsNaN(v) || math.IsInf(v, 0) {
					t.Fatalf("not a number: %+v", r)
				}
			}
			water := 0.0
			for i := range r.slab.n {
				water += r.slab.wet[i] + r.slab.moist[i]
				if r.slab.wet[i] < 0 {
					t.Fatal("less than no water")
				}
			}
			if r.Lost < 0 || r.Lost > 1 || water < 0 || r.balance > 1e-8 { // rounding
				t.Fatalf("lost %g, balance %g", r.Lost, r.balance)
			}
			if r.FirstS > mostSideS+1 || r.SecondS > mostSideS+1 {
				t.Fatal("it does not end")
			}
		}
	})
}

func TestAdviceIsSafeAndReadable(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := standard
		m.Water = rapid.Float64Range(.4, .65).Draw(t, "water")
		m.Carbohydrate = 1 - m.Water - m.Protein - m.Fat - m.Fibre - m.Ash
		p := portionOf(m, rapid.Float64Range(2, 14).Draw(t, "mm"))
		p.Colour = rapid.SampledFrom(batter.Colours).Draw(t, "colour")
		low := rapid.Float64Range(80, 200).Draw(t, "low")
		plate := Plate{low, low + rapid.Float64Range(0, 100).Draw(t, "range")}
		a, err := Advise(context.Background(), Ask{Portion: p, Plate: plate})
		require.NoError(t, err)
		if a.PlateC < plate.LowC || a.PlateC > plate.HighC {
			t.Fatalf("%g °C on a plate of %g to %g", a.PlateC, plate.LowC, plate.HighC)
		}
		if a.Trouble == NeverSets {
			return
		}
		if a.SecondS < a.SafeS || math.Mod(a.SecondS, timeStep) != 0 || math.Mod(a.FirstS, timeStep) != 0 {
			t.Fatalf("%g s, safe from %g", a.SecondS, a.SafeS)
		}
		careful := p.at(a.PlateC)
		careful.Cautious = true
		if r := Cook(careful, Times{a.FirstS, a.SecondS}); !r.Sets {
			t.Fatalf("not set in a bad contact: %+v", a)
		}
	})
}

func TestAdviceSaysWhatCannotBeHad(t *testing.T) {
	ask := func(p Portion, plate Plate, given float64) Advice {
		a, err := Advise(context.Background(), Ask{Portion: p, Plate: plate, GivenC: given})
		require.NoError(t, err)
		return a
	}
	assert.Equal(t, NeverSets, ask(portionOf(standard, 40), Plate{}, 0).Trouble)
	assert.Equal(t, TooPale, ask(portionOf(standard, 5), Plate{80, 120}, 0).Trouble)
	assert.Equal(t, BrownsFirst, ask(portionOf(standard, 9), Plate{}, 230).Trouble)
	assert.Equal(t, NoTrouble, ask(portionOf(standard, 7), Plate{}, 0).Trouble)
	stopped, stop := context.WithCancel(context.Background())
	stop()
	_, err := Advise(stopped, Ask{Portion: portionOf(standard, 7)})
	assert.ErrorIs(t, err, context.Canceled)
}

func TestADialSpeaksForItsPlate(t *testing.T) {
	m := DialMap{Dial: batter.Numbers, Marks: []batter.Mark{{At: 0, C: 120}, {At: 4, C: 170}, {At: 8, C: 230}}}
	assert.Equal(t, "5", m.Say(170))
	assert.Equal(t, "just under 5", m.Say(167))
	assert.Equal(t, "between 4 and 5", m.Say(164))
	assert.Equal(t, "1", m.Say(90), "no cooler than it goes")
	assert.Empty(t, DialMap{}.Say(170))
	assert.Equal(t, "medium", DialMap{Dial: batter.Words}.Say(175), "the usual, until it is mapped")
	for i, c := range []float64{120, 170, 230} {
		assert.InDelta(t, float64(4*i), m.At(c), 1e-9, "what was mapped is where it was mapped")
	}
	rapid.Check(t, func(t *rapid.T) {
		m := DialMap{Dial: rapid.SampledFrom(batter.Dials).Draw(t, "dial"), ShiftC: rapid.Float64Range(-30, 30).Draw(t, "shift")}
		c := rapid.Float64Range(80, 300).Draw(t, "c")
		if m.At(c+5) < m.At(c) || m.At(c) < 0 || m.At(c) > float64(len(Marks(m.Dial))-1) || m.Say(c) == "" {
			t.Fatalf("%g °C is at %g, %q", c, m.At(c), m.Say(c))
		}
	})
	paler, _ := Learn(CamePale, 0, 0)
	assert.Greater(t, DialMap{Dial: batter.Numbers, ShiftC: paler}.At(170), DialMap{Dial: batter.Numbers}.At(170), "came out pale: turn it up")
	darker, _ := Learn(CameDark, 0, 0)
	assert.Less(t, DialMap{Dial: batter.Numbers, ShiftC: darker}.At(170), DialMap{Dial: batter.Numbers}.At(170))
	rawShift, rawTouch := Learn(CameRaw, 0, 0)
	assert.Positive(t, rawShift)
	p := portionOf(standard, 7)
	usual := Cook(p.at(170), Times{})
	p.Contact = rawTouch
	assert.Greater(t, Cook(p.at(170), Times{}).FirstS, usual.FirstS, "and longer")
}

func TestCrepesGoByPractice(t *testing.T) {
	first, second := CrepeTimes(CrepeC)
	assert.True(t, first.Low <= 60 && 60 <= first.High && second.Low <= 30 && 30 <= second.High, "60 s and 30 s on a hot pan")
	_, slow := CrepeTimes(165)
	assert.Equal(t, 120.0, slow.High, "up to two minutes on a medium flame")
	assert.Equal(t, OneTurner, TurnOf(false).For(100))
	assert.Equal(t, TwoTurners, TurnOf(true).For(100))
	assert.Equal(t, OnAPlate, TurnOf(false).For(260))
}

func BenchmarkCook(b *testing.B) {
	p := portionOf(standard, 7).at(170)
	for b.Loop() {
		Cook(p, Times{})
	}
}

func BenchmarkAdvice(b *testing.B) {
	for b.Loop() {
		if _, err := Advise(context.Background(), Ask{Portion: portionOf(standard, 7)}); err != nil {
			b.Fatal(err)
		}
	}
}

func ExampleAdvise() {
	a, _ := Advise(context.Background(), Ask{Portion: portionOf(standard, 7)})
	fmt.Printf("%.0f °C, %.0f s, then %.0f s\n", a.PlateC, a.FirstS, a.SecondS)
	// Output: 173 °C, 130 s, then 90 s
}

// forgetful is a memory that holds a few, so that it loses some on the way.
type forgetful struct {
	kept map[Key]Advice
	asks int
}

func (f *forgetful) Get(k Key) (Advice, bool) {
	f.asks++
	a, ok := f.kept[k]
	return a, ok
}

func (f *forgetful) Add(k Key, a Advice) bool {
	full := len(f.kept) > 20
	if full {
		clear(f.kept)
	}
	f.kept[k] = a
	return full
}

// A memory changes no answer, whatever was asked before and however often: advice with and without one is the same to
// the last digit, and no caller sees what another one does to its own.
func TestMemoryChangesNoAnswer(t *testing.T) {
	m := &forgetful{kept: map[Key]Advice{}}
	ctx := Remembering(context.Background(), m)
	rapid.Check(t, func(t *rapid.T) {
		water := rapid.SampledFrom([]float64{0.5, 0.5 + 1e-9, 0.55}).Draw(t, "water")
		p := portionOf(standard, rapid.SampledFrom([]float64{5, 7}).Draw(t, "mm"))
		p.Layers[0].Matter.Water = water
		if rapid.Bool().Draw(t, "frozen") {
			p.Frozen = []Frozen{{KgPerM2: 0.5, Water: 0.85, FromC: -18, PerM2: 300, DiamMM: 10}}
		}
		p.Record = rapid.Bool().Draw(t, "curve")
		p.Iron = rapid.Bool().Draw(t, "iron")
		a := Ask{Portion: p, HotStart: rapid.Bool().Draw(t, "hot"), GivenC: rapid.SampledFrom([]float64{0, 170}).Draw(t, "given")}
		want, err := Advise(context.Background(), a)
		require.NoError(t, err)
		got, err := Advise(ctx, a)
		require.NoError(t, err)
		require.Equal(t, fmt.Sprintf("%+v", want), fmt.Sprintf("%+v", got))
		require.Equal(t, p.Record, len(got.Result.Curve) > 0)
		for i := range got.Result.Curve {
			got.Result.Curve[i].AtS = -1
		}
	})
	asks, kept := m.asks, len(m.kept)
	many := Ask{Portion: portionOf(standard, 7), GivenC: 170}
	for range keyLayers {
		many.Portion.Layers = append(many.Portion.Layers, many.Portion.Layers[0])
	}
	_, err := Advise(ctx, many)
	require.NoError(t, err)
	assert.Equal(t, [2]int{asks, kept}, [2]int{m.asks, len(m.kept)}, "a stack of more layers is not remembered, and not mistaken for one of fewer")
	ctx, stop := context.WithCancel(ctx)
	stop()
	_, err = Advise(ctx, Ask{Portion: portionOf(standard, 6)})
	require.ErrorIs(t, err, context.Canceled)
	assert.Len(t, m.kept, kept, "what was broken off is not kept")
}
