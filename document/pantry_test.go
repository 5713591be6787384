package document_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/document"
)

var today = time.Date(2026, 11, 25, 7, 0, 0, 0, time.UTC)

func here() document.Setting {
	return document.Setting{Table: food.Reference(), Kitchen: plainKitchen, Today: today}
}

func g(v float64) *float64 { return &v }

func prepared(t *testing.T, w document.PreparationWish) document.Preparation {
	t.Helper()
	p, err := document.Prepare(w, here())
	require.NoError(t, err)
	return p
}

func refusal(t *testing.T, err error, pointer, code string) {
	t.Helper()
	var p document.Problems
	require.ErrorAs(t, err, &p)
	assert.Equal(t, pointer, p[0].Pointer, p[0].Message)
	assert.Equal(t, code, p[0].Code, p[0].Message)
}

func refusalCode(t *testing.T, err error, code string) {
	t.Helper()
	var p document.Problems
	require.ErrorAs(t, err, &p)
	assert.Equal(t, code, p[0].Code, p[0].Message)
}

// A kilo of raw beetroot becomes today's purée; the saved document that uses the table's row
// is worked out with the tub, and with the table again once the tub is empty.
func TestATubStandsForTheTablesRow(t *testing.T) {
	p := prepared(t, document.PreparationWish{Method: "puree", From: "beetroot_grated", HaveG: g(1000), AsBought: true, AfterG: g(840)})
	assert.Equal(t, []string{"weight"}, p.Measured)
	assert.Equal(t, "beetroot_cooked", p.StandIn.ID)
	usual := prepared(t, document.PreparationWish{Method: "puree", From: "beetroot_grated", HaveG: g(333)})
	assert.InDelta(t, float64(usual.ProductG), float64(usual.WantG), 0.5, "the other way round is asked on the scale")
	assert.Equal(t, float64(int(usual.WantG)), float64(usual.WantG))
	tub := p.Item
	assert.Equal(t, "2026-11-25", tub.MadeOn)
	tub.StandsFor = p.StandIn.ID
	shelf, err := document.Shelf(food.Reference(), []document.PantryItem{tub}, today.AddDate(0, 0, 4))
	require.NoError(t, err)
	in := shelf.ByID("beetroot_cooked")
	assert.True(t, in.Own.Stale(), "four days on it is older than it keeps")
	assert.Greater(t, in.Water, food.Reference().ByID("beetroot_cooked").Water)
	milk := func(table *food.Table) float64 {
		s := here()
		s.Table = table
		v, err := document.DecodeVariation([]byte(small))
		require.NoError(t, err)
		w, err := v.Worksheet(context.Background(), s)
		require.NoError(t, err)
		return *w.Lines[1].Offset
	}
	assert.Less(t, milk(shelf), milk(food.Reference())-3, "a wetter purée holds more milk back")
	assert.Same(t, food.Reference().ByID("beetroot_cooked"), in.Own.Table, "the table's value stays visible")
}

func TestADocumentCarriesItsOwnPantry(t *testing.T) {
	tub := prepared(t, document.PreparationWish{Method: "reduce", From: "beetroot_cooked", HaveG: g(1000), TargetG: g(600)}).Item
	tub.StandsFor = "beetroot_cooked"
	v, err := document.DecodeVariation([]byte(small))
	require.NoError(t, err)
	plain, err := v.Worksheet(context.Background(), here())
	require.NoError(t, err)
	v.Pantry = []document.PantryItem{tub}
	own, err := v.Worksheet(context.Background(), here())
	require.NoError(t, err)
	assert.Greater(t, *own.Lines[1].Offset, *plain.Lines[1].Offset)
	text, err := v.Encode()
	require.NoError(t, err)
	again, err := document.DecodeVariation(text)
	require.NoError(t, err)
	assert.Equal(t, v, again)
	v.Pantry = append(v.Pantry, tub)
	_, err = v.Worksheet(context.Background(), here())
	refusal(t, err, "/pantry/1/id", "duplicate")
}

func TestMeasurementsOfARow(t *testing.T) {
	p, err := document.Measure(document.MeasurementWish{Ingredient: "plum_puree", Brix: g(15), SampleC: g(28), CupML: g(250), CupG: g(262)}, here())
	require.NoError(t, err)
	in, err := p.Ingredient(here())
	require.NoError(t, err)
	assert.InDelta(t, 1.048, in.Density, 1e-3)
	assert.Greater(t, in.Sugars, food.Reference().ByID("plum_puree").Sugars)
	assert.Equal(t, []string{"brix", "cup"}, in.Own.Measured)
	p, err = document.Measure(document.MeasurementWish{Ingredient: "blueberry_frozen", Pieces: g(10), PiecesG: g(21)}, here())
	require.NoError(t, err)
	in, err = p.Ingredient(here())
	require.NoError(t, err)
	assert.InDelta(t, 2.1, in.Piece.MassG, 1e-6)
	assert.InDelta(t, 14*1.1447, in.Piece.LengthMM, 0.01, "half as heavy again is 14 % wider")
	assert.Equal(t, food.Reference().ByID("blueberry_frozen").Water, in.Water)
	for _, c := range []struct {
		w             document.MeasurementWish
		pointer, code string
	}{
		{document.MeasurementWish{Ingredient: "plum_puree", Brix: g(90)}, "/brix", "out_of_range"},
		{document.MeasurementWish{Ingredient: "plum_puree", Brix: g(2)}, "/brix", "below_sugars"},
		{document.MeasurementWish{Ingredient: "plum_puree", Brix: g(12), SampleC: g(80)}, "/sample_c", "out_of_range"},
		{document.MeasurementWish{Ingredient: "plum_puree", CupML: g(250)}, "/cup_g", "missing"},
		{document.MeasurementWish{Ingredient: "plum_puree", CupML: g(250), CupG: g(2500)}, "/cup_g", "out_of_range"},
		{document.MeasurementWish{Ingredient: "plum_puree", Pieces: g(10), PiecesG: g(20)}, "/pieces", "no_pieces"},
		{document.MeasurementWish{Ingredient: "plum_puree"}, "", "missing"},
		{document.MeasurementWish{Ingredient: "plum"}, "/ingredient", "unknown_ingredient"},
	} {
		_, err := document.Measure(c.w, here())
		refusal(t, err, c.pointer, c.code)
	}
}

// A European pack of plain yogurt: what it does not say is taken from what is most like it and
// marked so.
func TestAPackBecomesAnIngredient(t *testing.T) {
	w := document.LabelWish{
		Name: "Quayside yogurt 3.8 %", Like: "yogurt_plain", EnergyKcal: g(66), FatG: g(3.8), CarbohydrateG: g(4.6), SugarsG: g(4.6), ProteinG: g(3.4), SaltG: g(0.13),
	}
	p, err := document.FromLabel(w, here())
	require.NoError(t, err)
	in, err := p.Ingredient(here())
	require.NoError(t, err)
	assert.InDelta(t, 3.8, in.Fat, 1e-9)
	assert.InDelta(t, 0.13*400, in.Sodium, 0.1, "a label's salt is 2.5 times the sodium (the law)")
	assert.InDelta(t, food.Reference().ByID("yogurt_plain").Water, in.Water, 2)
	assert.Contains(t, in.Own.Estimated, "water")
	assert.NotContains(t, in.Own.Estimated, "fat")
	assert.Equal(t, "quayside_yogurt_3_8", p.ID)
	kJ := w
	kJ.EnergyKcal = g(276)
	_, err = document.FromLabel(kJ, here())
	assert.ErrorContains(t, err, "it is kJ")
	sweet := w
	sweet.SugarsG = g(9)
	_, err = document.FromLabel(sweet, here())
	assert.ErrorContains(t, err, "more than the carbohydrate")
	lacking := w
	lacking.FatG = nil
	_, err = document.FromLabel(lacking, here())
	assert.ErrorContains(t, err, "Fat is missing")
}

func TestItemsThatCannotBeAreRefused(t *testing.T) {
	good := document.NewItem(document.PantryItem{ID: "jam_of_ours", Name: "Jam", Group: "topping", Role: "topping", WaterG: g(30), CarbohydrateG: g(69), SugarsG: g(66), AshG: g(1)})
	for name, c := range map[string]struct {
		change        func(*document.Item)
		pointer, code string
	}{
		"fine":            {func(*document.Item) {}, "", ""},
		"parts of 120 g":  {func(i *document.Item) { i.WaterG = g(50) }, "", "impossible"},
		"a table's id":    {func(i *document.Item) { i.ID = "jam_fruit" }, "/id", "taken"},
		"stands for none": {func(i *document.Item) { i.StandsFor = "jam_frut" }, "/stands_for", "unknown_ingredient"},
		"no group":        {func(i *document.Item) { i.Group = "" }, "/group", "missing"},
		"not a day":       {func(i *document.Item) { i.MadeOn = "25.11." }, "/made_on", "not_a_day"},
		"price":           {func(i *document.Item) { i.PricePerKg = g(-1) }, "/price_per_kg", "out_of_range"},
		"allergen":        {func(i *document.Item) { i.Allergens = []string{"gluten"} }, "/allergens/0", "unknown_choice"},
		"no name":         {func(i *document.Item) { i.Name = " " }, "/name", "missing"},
	} {
		i := good
		c.change(&i)
		text, err := i.Encode()
		require.NoError(t, err)
		_, err = document.DecodeItem(text, here())
		if c.code == "" {
			require.NoError(t, err, name)
			continue
		}
		refusal(t, err, c.pointer, c.code)
	}
}

func imported(t *testing.T, file string, there ...document.PantryItem) []document.ImportRow {
	t.Helper()
	rows, err := document.ImportPantry([]byte(file), here(), there)
	require.NoError(t, err)
	return rows
}

// The whole pantry goes out and comes back as it was: nothing is new, nothing is changed.
func TestThePantryRoundTrips(t *testing.T) {
	items := []document.PantryItem{
		{ID: "price_of_milk", Name: "Milk, can", StandsFor: "milk_whole", PricePerKg: g(1.1)},
		{ID: "odd_one", Name: "=1+1", Group: "topping", Role: "topping", WaterG: g(30), CarbohydrateG: g(69), SugarsG: g(66), AshG: g(1), Notes: "-2 \"quoted\", and 'so", Allergens: []string{"milk", "almond"}, MadeOn: "2026-11-01", Measured: true},
		{ID: "apostrophe", Name: "'t smells", StandsFor: "salt_fine", StockG: g(300)},
	}
	file, err := document.ExportPantry(food.Reference(), items)
	require.NoError(t, err)
	rows := imported(t, string(file), items...)
	assert.Len(t, rows, len(food.Reference().All())+len(items))
	for _, r := range rows {
		assert.Equal(t, document.RowSame, r.Action, "%s: %s", r.ID, r.Message)
	}
	fresh := imported(t, string(file))
	for i, r := range fresh[len(food.Reference().All()):] {
		assert.Equal(t, document.RowAdded, r.Action, r.Message)
		assert.Equal(t, items[i], r.Item)
	}
	// A spreadsheet runs no cell of it.
	cells, err := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(file, []byte("\ufeff")))).ReadAll()
	require.NoError(t, err)
	for _, row := range cells[1:] {
		for i, cell := range row {
			if cell != "" && strings.ContainsRune("=+@\t\r", rune(cell[0])) || strings.HasPrefix(cell, "-") && !strings.HasSuffix(cells[0][i], "_meq") {
				t.Errorf("%s of %s would run: %q", cells[0][i], row[0], cell)
			}
		}
	}
}

func TestRowByRow(t *testing.T) {
	rows := imported(t, "id;name;group;role;water_g;carbohydrate_g;sugars_g;ash_g;price_per_kg\r\n"+
		"quay_jam;Quay jam;topping;topping;30,5;69;66;0,5;4,20\r\n"+
		"wet;Too wet;topping;topping;80;69;66;1;\r\n"+
		"words;Words;topping;topping;much;69;66;1;\r\n"+
		"quay_jam;Again;topping;topping;30;69;66;1;\r\n"+
		";;;;;;;;\r\n"+
		"milk_whole;Whole milk;liquid;liquid;85;5;5;1;\r\n")
	var said []string
	for _, r := range rows {
		said = append(said, fmt.Sprintf("%d %s", r.Line, r.Action))
	}
	assert.Equal(t, []string{"2 added", "3 refused", "4 refused", "5 refused", "7 refused"}, said)
	assert.InDelta(t, 4.2, *rows[0].Item.PricePerKg, 1e-9, "a comma in the numbers of a file with semicolons")
	assert.Contains(t, rows[1].Message, "add up to")
	assert.Contains(t, rows[2].Message, "water_g is “much”, not a number")
	assert.Contains(t, rows[3].Message, "row 2 already")
	assert.Contains(t, rows[4].Message, "add up to 97.4", "what the file has no column for is the table's")
	partial := imported(t, "id,name,water_g\nplum_puree,Plum purée,86.5\n")
	require.Equal(t, document.RowAdded, partial[0].Action, partial[0].Message)
	assert.Equal(t, "plum_puree", partial[0].Item.StandsFor)
	assert.Equal(t, 9.92, *partial[0].Item.SugarsG)

	for name, c := range map[string]struct{ file, code, says string }{
		"nothing":        {"  ", "empty", "empty"},
		"only a heading": {"id,name\n", "empty", "no row"},
		"wrong columns":  {"id,name,colour\nx,y,red\n", "wrong_columns", "“colour” is not known"},
		"no id":          {"name,water_g\nx,1\n", "wrong_columns", "“id” is missing"},
		"twice":          {"id,name,id\nx,y,z\n", "wrong_columns", "twice"},
		"Latin-1":        {"id,name\nx,cr\xeape\n", "encoding", "CSV UTF-8"},
		"UTF-16":         {"\xff\xfei\x00d\x00", "encoding", "UTF-16"},
		"a spreadsheet":  {"PK\x03\x04\x00\x00", "not_csv", "not a text file"},
		"100,000 rows":   {"id,name\n" + strings.Repeat("x,y\n", 100_000), "too_many", "more than 5000 rows"},
		"five megabytes": {strings.Repeat("x", 5<<20), "too_large", "larger than 4 MB"},
		"prose, not CSV": {"Mix the flour with the milk, then rest.", "wrong_columns", "not known"},
		"a list in JSON": {`[{"id":1}]`, "not_csv", "not a table"},
	} {
		_, err := document.ImportPantry([]byte(c.file), here(), nil)
		refusal(t, err, "", c.code)
		assert.ErrorContains(t, err, c.says, name)
	}
	bom := imported(t, "\ufeffid,name,stands_for,price_per_kg\np,Crème,cream_heavy,6.5\n")
	assert.Equal(t, "Crème", bom[0].Item.Name)
	open := imported(t, "id,name\nx,\"never closed\n")
	assert.Equal(t, document.RowRefused, open[0].Action)
}

func FuzzImportPantry(f *testing.F) {
	file, err := document.ExportPantry(food.Reference(), nil)
	require.NoError(f, err)
	f.Add(file[:4000])
	f.Add([]byte("id;name\nx;'=1\n"))
	f.Add([]byte("id,name\n\"x"))
	f.Fuzz(func(t *testing.T, data []byte) {
		rows, err := document.ImportPantry(data, here(), nil)
		if err != nil {
			return
		}
		for _, r := range rows {
			if r.Action == document.RowAdded {
				if _, err := r.Item.Ingredient(here()); err != nil {
					t.Errorf("an added row does not hold together: %v", err)
				}
			}
		}
	})
}
