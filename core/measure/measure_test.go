package measure_test

import (
	"math"
	"os/exec"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/internal/evidence"
)

// Volumes as GNU units 2.22 prints them (`units -t '1 uscup' ml`); NIST SP 811 has the US
// ones. When the program is on the machine it is asked, else the recorded value stands.
var gnuVolumes = []struct {
	standard measure.Standard
	unit     measure.Unit
	ask      string
	recorded float64
}{
	{measure.US, measure.Cup, "uscup", 236.58824},
	{measure.US, measure.Tbsp, "ustablespoon", 14.786765},
	{measure.US, measure.Tsp, "usteaspoon", 4.9289216},
	{measure.US, measure.FlOz, "usfluidounce", 29.57353},
	{measure.Metric, measure.Cup, "metriccup", 250},
	{measure.Imperial, measure.Cup, "10 brfluidounce", 284.13062},
	{measure.Imperial, measure.FlOz, "brfluidounce", 28.413063},
	{measure.Australian, measure.Tbsp, "australiatablespoon", 20},
}

func gnuUnits(t *testing.T, from, to string, recorded float64) float64 {
	t.Helper()
	path, err := exec.LookPath("units")
	if err != nil {
		return recorded
	}
	out, err := exec.Command(path, "-t", from, to).Output()
	require.NoError(t, err)
	v, err := strconv.ParseFloat(strings.TrimSpace(string(out)), 64)
	require.NoError(t, err, string(out))
	assert.InEpsilon(t, recorded, v, 1e-5, "the recorded value of %s", from)
	return v
}

func TestVolumesAgreeWithGNUUnits(t *testing.T) {
	for _, c := range gnuVolumes {
		want := gnuUnits(t, c.ask, "ml", c.recorded)
		evidence.Check(t, evidence.Claim{What: c.standard.Name + " " + string(c.unit), Unit: "ml", Kind: evidence.Published, Source: "GNU units; NIST SP 811 for the US volumes", Outside: want, Tie: evidence.Copied, Ours: c.standard.Volume(c.unit), Tolerance: 1e-6 * want})
	}
}

func TestMassesAgreeWithGNUUnits(t *testing.T) {
	for unit, c := range map[measure.Unit]struct {
		ask      string
		recorded float64
	}{measure.Oz: {"oz", 28.349523}, measure.Lb: {"lb", 453.59237}} {
		g, err := measure.US.ToGrams(1, unit, measure.Subject{})
		require.NoError(t, err)
		evidence.Check(t, evidence.Claim{What: string(unit), Unit: "g", Kind: evidence.Published, Source: "GNU units; NIST SP 811 for the US volumes", Tie: evidence.Copied, Outside: gnuUnits(t, c.ask, "g", c.recorded), Ours: g, Tolerance: 1e-6 * c.recorded})
	}
}

// Cup and spoon weights of The Cake Bible (Beranbaum) as GNU units carries them; the
// program is asked when it is there, else the recorded value stands.
func TestCupsWeighWhatBeranbaumWeighed(t *testing.T) {
	for _, c := range []struct {
		id       string
		unit     measure.Unit
		method   measure.FlourMethod
		ask      string
		recorded float64
	}{
		{"plain_flour", measure.Cup, measure.Sifted, "1 uscup flour_sifted", 113.39809},
		{"plain_flour", measure.Cup, measure.Spooned, "1 uscup flour_spooned", 120.48547},
		{"plain_flour", measure.Cup, "", "1 uscup flour_spooned", 120.48547},
		{"plain_flour", measure.Cup, measure.Scooped, "1 uscup flour_scooped", 141.74762},
		{"milk_whole", measure.Cup, "", "1 uscup milk", 242},
		{"sour_cream", measure.Cup, "", "1 uscup sourcream", 242},
		{"honey", measure.Cup, "", "1 uscup honey", 333.1069},
		{"granulated_sugar", measure.Cup, "", "1 uscup sugar", 200},
		{"brown_sugar_light", measure.Cup, "", "1 uscup brownsugar_light", 217},
		{"butter_unsalted", measure.Cup, "", "1 uscup butter", 226.79619},
		{"molasses", measure.Cup, "", "1 uscup molasses", 318.93214},
		{"baking_powder", measure.Tsp, "", "1 usteaspoon baking_powder", 4.6},
		{"salt_fine", measure.Tsp, "", "1 usteaspoon salt", 6},
		{"egg_whole", measure.Each, "", "egg", 50},
	} {
		want := gnuUnits(t, c.ask, "g", c.recorded)
		s := food.Reference().ByID(c.id).Subject()
		s.Method = c.method
		g, err := measure.US.ToGrams(1, c.unit, s)
		require.NoError(t, err)
		evidence.Check(t, evidence.Claim{What: "one " + string(c.unit) + " of " + c.id + " " + string(c.method), Unit: "g", Kind: evidence.Published, Source: "Beranbaum, The Cake Bible, as GNU units carries it", Tie: evidence.Copied, Outside: want, Ours: g, Tolerance: 0.002 * want})
	}
}

func TestUnitsThatDoNotFit(t *testing.T) {
	for _, c := range []struct {
		unit    measure.Unit
		subject measure.Subject
		want    error
	}{
		{measure.Cup, measure.Subject{}, measure.ErrNoDensity},
		{measure.Each, measure.Subject{Density: 1}, measure.ErrNotCounted},
		{measure.Can, measure.Subject{Density: 1}, measure.ErrCanSize},
		{measure.Can, measure.Subject{CanML: 400}, measure.ErrNoDensity},
		{"gill", measure.Subject{Density: 1}, measure.ErrUnknownUnit},
	} {
		_, err := measure.Metric.ToGrams(1, c.unit, c.subject)
		assert.ErrorIs(t, err, c.want, "%s", c.unit)
	}
	g, err := measure.Metric.ToGrams(2, measure.Can, measure.Subject{CanML: 400, Density: 1.05})
	require.NoError(t, err)
	assert.InDelta(t, 840, g, 1e-9)
	g, err = measure.Metric.ToGrams(1, measure.Can, measure.Subject{CanG: 425})
	require.NoError(t, err)
	assert.InDelta(t, 425, g, 1e-9)
}

func TestParseAmount(t *testing.T) {
	for text, want := range map[string]float64{
		"200": 200, "1.5": 1.5, "0,5": 0.5, "1 1/2": 1.5, "1½": 1.5, "1 ½": 1.5, "½": 0.5, "3/4": 0.75, "1⁄2": 0.5,
		" 2 ": 2, "2¾": 2.75, "⅔": 2. / 3, ".5": 0.5, "0": 0, "1 / 2": 0.5, "12,25": 12.25, "7/2": 3.5,
	} {
		v, err := measure.ParseAmount(text)
		if assert.NoError(t, err, "%q", text) {
			assert.InDelta(t, want, v, 1e-12, "%q", text)
		}
	}
	for _, text := range []string{
		"", " ", "-1", "−2", "1,000", "1/0", "a", "1e3", "NaN", "Inf", "½ 1", "1 2", "1.5 ½", "½½", "1/2/3", "2-3", "1..2",
		"1,2,3", "1.000,5", "١", "1 1 1", "1 3/2", strings.Repeat("9", 50), "0x10",
	} {
		_, err := measure.ParseAmount(text)
		assert.ErrorIs(t, err, measure.ErrAmount, "%q", text)
	}
}

func FuzzParseAmount(f *testing.F) {
	for _, s := range []string{"1 1/2", "½", "0,5", "-1", "1⅞", "/", "1/", "9/9", "\xff"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		v, err := measure.ParseAmount(s)
		if err == nil && (v < 0 || math.IsNaN(v) || math.IsInf(v, 0)) {
			t.Fatalf("%q gave %g", s, v)
		}
	})
}

func TestRound(t *testing.T) {
	assert.Equal(t, 296.0, measure.Round(296.3, 1))
	assert.Equal(t, 7.4, measure.Round(7.36, 0.1))
	assert.Equal(t, 5.0, measure.Round(5.0000001, 0.1))
	assert.Equal(t, 295.0, measure.Round(296.3, 5))
	assert.Equal(t, 296.3, measure.Round(296.3, 0))
}

// Common practice, no source: how a cook says these.
func TestSpoonText(t *testing.T) {
	us := measure.US
	for _, c := range []struct {
		ml   float64
		want string
	}{
		{us.Cup, "1 cup"}, {us.Cup * 1.5, "1½ cups"}, {us.Cup / 3, "⅓ cup"}, {us.Tbsp, "1 tbsp"}, {us.Tbsp * 2.5, "2½ tbsp"},
		{us.Tsp / 8, "⅛ tsp"}, {us.Tsp * 1.25, "1¼ tsp"}, {us.Tsp / 16, "a pinch"}, {us.Cup + 3*us.Tbsp, "1 cup + 3 tbsp"},
		{us.Cup*0.25 - us.Tsp*0.75, "¼ cup less ¾ tsp"},
	} {
		assert.Equal(t, c.want, us.SpoonText(c.ml, 1))
	}
	assert.Empty(t, us.SpoonText(10, 0), "no density, no spoon")
	assert.Empty(t, us.SpoonText(0, 1))
}

func TestSpoonsGiveWhatTheySay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		st := measure.Standards[rapid.SampledFrom([]string{"us", "metric", "imperial", "au"}).Draw(t, "standard")]
		density := rapid.Float64Range(0.2, 1.5).Draw(t, "density")
		ml := rapid.Float64Range(st.Tsp/8, 4*st.Cup).Draw(t, "ml")
		text, given := st.Spoon(ml*density, density)
		require.NotEmpty(t, text)
		// Within the tolerance, or within half a step of the smallest vessel that is worth
		// taking out: ½ tbsp beside a cup, ⅛ tsp for what is spooned anyway.
		step := st.Tsp / 8
		if ml >= st.Cup/4 {
			step = st.Tbsp / 2
		}
		slack := math.Max(0.04*ml, step/2) // words may be shortened more than once, each time within 1.5 %
		assert.LessOrEqual(t, math.Abs(given/density-ml), slack+1e-9, "%s for %.2f ml", text, ml)
	})
}

func TestRoundingTwiceChangesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := rapid.Float64Range(0, 3000).Draw(t, "g")
		step := rapid.SampledFrom([]float64{0.1, 0.2, 0.5, 1, 2, 5, 10}).Draw(t, "step")
		once := measure.Round(g, step)
		assert.Equal(t, once, measure.Round(once, step))

		st := measure.Standards[rapid.SampledFrom([]string{"us", "metric", "imperial", "au"}).Draw(t, "standard")]
		density := rapid.Float64Range(0.2, 1.5).Draw(t, "density")
		text, given := st.Spoon(g, density)
		again, givenAgain := st.Spoon(given, density)
		assert.Equal(t, text, again)
		assert.InDelta(t, given, givenAgain, 1e-9*(1+given))
	})
}

func TestFromGramsTurnsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := rapid.SampledFrom(food.Reference().All()).Draw(t, "ingredient")
		unit := rapid.SampledFrom(measure.Units).Draw(t, "unit")
		amount := rapid.Float64Range(0.01, 1000).Draw(t, "amount")
		g, err := measure.Metric.ToGrams(amount, unit, in.Subject())
		if err != nil {
			return
		}
		back, err := measure.Metric.FromGrams(g, unit, in.Subject())
		require.NoError(t, err)
		assert.InEpsilon(t, amount, back, 1e-9)
	})
}

// Cups by NIST SP 811 (US), half an imperial pint, the metric cup; the Australian spoon of AS 1325.
func TestAStandardSaysWhatItsCupHolds(t *testing.T) {
	for st, want := range map[measure.Standard]string{
		measure.Metric: "metric: cup 250 ml, tbsp 15 ml", measure.US: "US: cup 237 ml, tbsp 15 ml",
		measure.Imperial: "UK imperial: cup 284 ml, tbsp 15 ml", measure.Australian: "Australian: cup 250 ml, tbsp 20 ml",
	} {
		assert.Equal(t, want, st.Says())
	}
}

// A heaped spoon that was weighed outranks the usual one, a rounded one lies between it and a level one, a scant one does not change;
// liquids know no such thing.
func TestAHeapedSpoonOfOnesOwn(t *testing.T) {
	own := measure.Metric
	own.Heaped = 2.6
	flour := measure.Subject{Density: 0.5, IsPowder: true}
	grams := func(st measure.Standard, f measure.Fullness, s measure.Subject) float64 {
		s.Fill = f
		g, err := st.ToGrams(1, measure.Tbsp, s)
		require.NoError(t, err)
		return g
	}
	level := grams(own, measure.Level, flour)
	for fill, times := range map[measure.Fullness]float64{measure.Heaped: 2.6, measure.Rounded: 1.8, measure.Level: 1, measure.Scant: 0.9, "": 1} {
		assert.InDelta(t, times*level, grams(own, fill, flour), 1e-9, fill)
	}
	for fill, times := range map[measure.Fullness]float64{measure.Heaped: 2, measure.Rounded: 1.5} {
		assert.InDelta(t, times*level, grams(measure.Metric, fill, flour), 1e-9, fill)
	}
	assert.InDelta(t, grams(own, measure.Level, measure.Subject{Density: 1}), grams(own, measure.Heaped, measure.Subject{Density: 1}), 1e-9)
}
