package api_test

import (
	"encoding/json"
	"io"
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
)

type sauceListed struct {
	ID        string
	Revision  int64
	Document  document.Sauce
	Servings  int
	Allergens string `json:"allergen_text"`
	Trouble   string
}

type sauceUse struct {
	Name, Says, Place string
	Revision          int64
	EachG             float64 `json:"each_g"`
	OnMM              float64 `json:"on_mm"`
	Allergens         string  `json:"allergen_text"`
	Older             bool
}

func (k kitchen) sauces() map[string]sauceListed {
	var l struct{ Items []sauceListed }
	require.Equal(k.t, http.StatusOK, k.call("GET", "/api/v1/sauces", nil, &l).StatusCode)
	out := map[string]sauceListed{}
	for _, s := range l.Items {
		out[s.Document.Name] = s
	}
	return out
}

// A sauce is kept, goes on a variation as it was, tells where it goes, and is brought up to date when it is wished.
func TestASauceIsKeptAndGoesOn(t *testing.T) {
	k := open(t)
	var shown struct{ Items []document.Sauce }
	require.Equal(t, http.StatusOK, k.call("GET", "/api/v1/sauce-examples", nil, &shown).StatusCode)
	require.Len(t, shown.Items, 8)
	assert.Len(t, k.sauces(), 3, "the demo's own")

	walnut := shown.Items[6]
	body, err := walnut.Encode()
	require.NoError(t, err)
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/sauces", string(body), nil).StatusCode)
	s := k.sauces()[walnut.Name]
	assert.Contains(t, s.Allergens, "walnut")

	v := k.first("variations")
	doc, err := document.DecodeVariation(v.Document)
	require.NoError(t, err)
	each := 20.0
	doc.Parts = append(doc.Parts, document.Part{Kind: "top", Text: "Walnut sauce, 20 g", EachG: &each, Sauce: &s.Document, SauceRef: &document.BaseRef{ID: s.ID, Revision: s.Revision}})
	sent, err := doc.Encode()
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, k.call("PUT", "/api/v1/variations/"+v.ID, string(sent), nil, "If-Match", `"1"`).StatusCode)
	uses := func() []sauceUse {
		var l struct{ Items []sauceUse }
		require.Equal(t, http.StatusOK, k.call("GET", "/api/v1/sauces/"+s.ID+"/uses", nil, &l).StatusCode)
		return l.Items
	}
	require.Len(t, uses(), 1)
	u := uses()[0]
	assert.Contains(t, u.Allergens, "walnut", "the serving tells of what is in the sauce")
	assert.Contains(t, u.Says, "from what goes on")
	assert.Positive(t, u.OnMM)
	assert.False(t, u.Older)

	less := strings.Replace(string(body), `"amount":150`, `"amount":120`, 1)
	require.Equal(t, http.StatusOK, k.call("PUT", "/api/v1/sauces/"+s.ID, less, nil, "If-Match", `"1"`).StatusCode)
	assert.True(t, uses()[0].Older, "the variation keeps what it had")
	assert.Equal(t, http.StatusConflict, k.call("PUT", "/api/v1/sauces/"+s.ID, string(body), nil, "If-Match", `"1"`).StatusCode)
	assert.Equal(t, http.StatusBadRequest, k.call("PUT", "/api/v1/sauces/"+s.ID, strings.Replace(less, `"walnuts_chopped"`, `"moon_dust"`, 1), nil, "If-Match", `"2"`).StatusCode)

	assert.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/sauces/"+s.ID, nil, nil).StatusCode)
	assert.Len(t, k.sauces(), 3)
	assert.Equal(t, http.StatusOK, k.call("POST", "/api/v1/sauces/"+s.ID+"/restore", nil, nil).StatusCode)
	assert.Len(t, k.sauces(), 4)
	var found struct{ Items []struct{ Kind, Name string } }
	k.call("GET", "/api/v1/search?q=walnut+and", nil, &found)
	assert.Contains(t, found.Items, struct{ Kind, Name string }{"sauce", walnut.Name})
}

// A sauce goes out as json, text and markdown, each with its allergens; other formats are refused in words.
func TestASauceGoesOut(t *testing.T) {
	k := open(t)
	s := k.sauces()["Ginger cream"]
	for _, as := range []string{"json", "text", "markdown"} {
		r, err := http.Get(k.url + "/api/v1/exports/sauces/" + s.ID + "?as=" + as)
		require.NoError(t, err)
		data, _ := io.ReadAll(r.Body)
		r.Body.Close()
		require.Equal(t, http.StatusOK, r.StatusCode)
		if as == "json" {
			_, err := document.DecodeSauce(data)
			require.NoError(t, err)
			continue
		}
		assert.Contains(t, string(data), "Contains milk")
	}
	assert.Equal(t, http.StatusNotFound, k.call("GET", "/api/v1/exports/sauces/"+s.ID+"?as=csv", nil, nil).StatusCode)
}

// What a variation carries of a sauce is in whatever it goes out as: allergens, steps, grams.
func TestAVariationGoesOutWithItsSauce(t *testing.T) {
	k := open(t)
	var l struct{ Items []struct{ ID, Name string } }
	k.call("GET", "/api/v1/variations", nil, &l)
	for _, i := range l.Items {
		if i.Name != "Plum & almond waffle" {
			continue
		}
		for as := range document.Exports {
			r, err := http.Get(k.url + "/api/v1/exports/variations/" + i.ID + "?as=" + as)
			require.NoError(t, err)
			data, _ := io.ReadAll(r.Body)
			r.Body.Close()
			if as == "csv" { // the ledger of the bowl
				continue
			}
			assert.Contains(t, string(data), "Plum compote", as)
			if as == "json" {
				var v document.Variation
				require.NoError(t, json.Unmarshal(data, &v))
				assert.NotNil(t, v.Parts[0].Sauce, "it works anywhere")
				continue
			}
			assert.Contains(t, string(data), "sulphites", as)
			assert.Contains(t, string(data), "burn deeper than water", as)
		}
		return
	}
	t.Fatal("the demo has no plum waffle")
}

// A tub of a sauce stands in for making it, in the sheet as well, and comes off its stock when the bowl is made.
func TestATubOfASauceIsUsedUp(t *testing.T) {
	k := open(t)
	s := k.sauces()["Ginger cream"]
	var worked struct {
		Tub map[string]any
	}
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/sauce", map[string]any{"sauce": s.Document}, &worked).StatusCode)
	worked.Tub["format"], worked.Tub["version"], worked.Tub["stock_g"] = "upbeat-ladle/pantry-item", 1, 1000
	var tub savedDoc
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/pantry", worked.Tub, &tub).StatusCode)

	var l struct{ Items []struct{ ID, Name string } }
	k.call("GET", "/api/v1/variations", nil, &l)
	var v savedDoc
	for _, i := range l.Items {
		if i.Name == "Rhubarb & ginger" {
			k.call("GET", "/api/v1/variations/"+i.ID, nil, &v)
		}
	}
	var b batchNow
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/batches", `{"variation":`+string(v.Document)+`}`, &b).StatusCode)
	var plan struct {
		Plan struct {
			Count int
			Tasks []struct{ Text, Ingredient string }
		}
	}
	require.Equal(t, http.StatusOK, k.call("GET", "/api/v1/batches/"+b.ID, nil, &plan).StatusCode)
	out := false
	for _, x := range plan.Plan.Tasks {
		out = out || strings.Contains(x.Text, "out of its tub") && x.Ingredient == worked.Tub["id"]
		assert.NotContains(t, x.Text, "Whisk 668 g", "nobody whips what is there")
	}
	assert.True(t, out)
	k.weighAll(b)
	k.tell(b.ID, map[string]any{"id": "made", "kind": "made"})
	k.call("GET", "/api/v1/pantry/"+tub.ID, nil, &tub)
	var left struct {
		StockG float64 `json:"stock_g"`
	}
	require.NoError(t, json.Unmarshal(tub.Document, &left))
	assert.InDelta(t, 1000-25*plan.Plan.Count, left.StockG, 1e-6)
}

// A recipe is kept with its pots as sauces, all or none; undone together, unless a sauce has found another use.
func TestARecipeIsKeptWithItsSauces(t *testing.T) {
	k := open(t)
	var r document.Reading
	talk, err := json.Marshal(document.ReadingWish{Text: "Two hundred grams of flour, two eggs, three hundred millilitres of milk and ten grams of baking powder. For the caramel 150 g of sugar, 120 g of cream and 30 g of butter, boil it.", Name: "With caramel"})
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, k.call("POST", "/api/v1/readings", string(talk), &r).StatusCode)
	v := *r.Variation
	v.Name = "With caramel"
	body, err := v.Encode()
	require.NoError(t, err)
	type made struct {
		Variation struct {
			ID       string
			Document document.Variation
		}
		Sauces []struct{ ID string }
	}
	before := len(k.sauces())
	var m, again made
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/recipes", string(body), &m, "Idempotency-Key", "once").StatusCode)
	require.Len(t, m.Sauces, 1)
	require.Len(t, m.Variation.Document.Parts, 1)
	assert.Equal(t, m.Sauces[0].ID, m.Variation.Document.Parts[0].SauceRef.ID)
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/recipes", string(body), &again, "Idempotency-Key", "once").StatusCode)
	assert.Equal(t, m, again, "sent twice it is kept once")
	assert.Len(t, k.sauces(), before+1)
	assert.Equal(t, "Caramel", k.sauces()["Caramel"].Document.Name)

	path := "/api/v1/recipes/" + m.Variation.ID
	require.Equal(t, http.StatusNoContent, k.call("DELETE", path, nil, nil).StatusCode)
	assert.Len(t, k.sauces(), before)
	assert.Equal(t, http.StatusNotFound, k.call("GET", "/api/v1/variations/"+m.Variation.ID, nil, nil).StatusCode)
	require.Equal(t, http.StatusOK, k.call("POST", path+"/restore", nil, &again).StatusCode)
	assert.Len(t, again.Sauces, 1)
	assert.Len(t, k.sauces(), before+1)

	var list struct{ Items []struct{ ID string } }
	k.call("GET", "/api/v1/variations", nil, &list)
	at := slices.IndexFunc(list.Items, func(i struct{ ID string }) bool { return i.ID != m.Variation.ID })
	var other savedDoc
	k.call("GET", "/api/v1/variations/"+list.Items[at].ID, nil, &other)
	doc, err := document.DecodeVariation(other.Document)
	require.NoError(t, err)
	doc.Parts = append(doc.Parts, m.Variation.Document.Parts[0])
	sent, err := doc.Encode()
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, k.call("PUT", "/api/v1/variations/"+other.ID, string(sent), nil, "If-Match", `"1"`).StatusCode)
	require.Equal(t, http.StatusNoContent, k.call("DELETE", path, nil, nil).StatusCode)
	assert.Len(t, k.sauces(), before+1, "something else uses it now")

	twins := v
	twins.Parts = append([]document.Part{v.Parts[0]}, v.Parts...)
	less := *v.Parts[0].Sauce
	less.Lines = less.Lines[:2]
	twins.Parts[0].Sauce = &less
	double, err := twins.Encode()
	require.NoError(t, err)
	require.Equal(t, http.StatusCreated, k.call("POST", "/api/v1/recipes", string(double), &m, "Idempotency-Key", "twice").StatusCode)
	assert.Len(t, m.Sauces, 2, "two of one name are two")
	require.Equal(t, http.StatusNoContent, k.call("DELETE", "/api/v1/recipes/"+m.Variation.ID, nil, nil).StatusCode)

	bad := strings.Replace(string(body), `"cream_heavy"`, `"moon_dust"`, 1)
	assert.Equal(t, http.StatusBadRequest, k.call("POST", "/api/v1/recipes", bad, nil).StatusCode)
	assert.Len(t, k.sauces(), before+1, "nothing is half kept")
	assert.Equal(t, http.StatusNotFound, k.call("DELETE", "/api/v1/recipes/nothing", nil, nil).StatusCode)
}
