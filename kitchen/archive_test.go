package kitchen_test

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/go-json-experiment/json/jsontext"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
	"upbeatladle/store"
)

const quayJam = `{"format":"upbeat-ladle/pantry-item","version":1,"id":"quay_jam","name":"Quay jam","group":"topping","role":"topping","water_g":30,"carbohydrate_g":69,"sugars_g":66,"ash_g":1,"protein_g":0,"fat_g":0}`

func (s scene) create(t *testing.T, kind store.Kind, body []byte) store.Document {
	t.Helper()
	d, err := s.Create(t.Context(), kind, body, "")
	require.NoError(t, err)
	return d
}

func (s scene) imports(t *testing.T, a archive) map[string]int {
	t.Helper()
	fates, err := s.Import(t.Context(), a.file(t), false, func(int) {})
	require.NoError(t, err)
	count := map[string]int{}
	for _, f := range fates {
		count[f.Action]++
		assert.NotEqual(t, "refused", f.Action, "%s: %s", f.Name, f.Message)
	}
	return count
}

// A kitchen with a past: saved over, named, put aside, two of one name, an own ingredient that
// is used though nobody has it any more.
func lived(t *testing.T, seed uint64) scene {
	t.Helper()
	s, rnd := open(t, true), rand.New(rand.NewPCG(seed, 2))
	ctx := t.Context()
	jam, err := s.CreateItem(ctx, []byte(quayJam), "")
	require.NoError(t, err)
	items, _, err := s.List(ctx, store.Variation, "", 100)
	require.NoError(t, err)
	s.create(t, store.Variation, items[0].Body)
	s.create(t, store.Variation, bytes.Replace(items[0].Body, []byte(`"additions":[`), []byte(`"additions":[{"ingredient":"quay_jam","amount":20,"unit":"g"},`), 1))
	for range 40 {
		*s.day = s.day.AddDate(0, 0, rnd.IntN(2))
		items, _, err := s.List(ctx, store.Variation, "", 100)
		require.NoError(t, err)
		one := items[rnd.IntN(len(items))]
		switch rnd.IntN(5) {
		case 4:
			s.saveOwn(t, float64(45+rnd.IntN(30)))
		case 0:
			_, err = s.NameVersion(ctx, one.ID, fmt.Sprint("as on day ", s.day.YearDay()), 1+rnd.Int64N(one.Revision))
		case 1:
			err = s.PutAside(ctx, store.Variation, one.ID)
			if rnd.IntN(3) > 0 {
				_, err = s.BringBack(ctx, store.Variation, one.ID)
			}
		default:
			v, decodeErr := document.DecodeVariation(one.Body)
			require.NoError(t, decodeErr)
			volume := float64(40 + rnd.IntN(60))
			v.Portion = &document.Portion{VolumeML: &volume}
			body, encodeErr := v.Encode()
			require.NoError(t, encodeErr)
			_, _, err = s.Put(ctx, store.Variation, one.ID, one.Revision, body)
		}
		require.NoError(t, err)
	}
	require.NoError(t, s.PutAside(ctx, store.Pantry, jam.ID))
	return s
}

// saveOwn saves the kitchen with eggs of this mass [g].
func (s scene) saveOwn(t *testing.T, egg float64) {
	t.Helper()
	own, revision, err := s.Own(t.Context())
	require.NoError(t, err)
	own.EggG = &egg
	body, err := own.Encode()
	require.NoError(t, err)
	_, _, err = s.PutOwn(t.Context(), body, revision)
	require.NoError(t, err)
}

// The kitchen as it is now and as it was, the first state first: eggs [g] by revision.
func (s scene) eggs(t *testing.T) (out []string) {
	t.Helper()
	past, err := s.EarlierOwn(t.Context())
	require.NoError(t, err)
	for _, p := range past {
		own, err := document.DecodeKitchen(p.Body)
		require.NoError(t, err)
		out = append(out, fmt.Sprintf("%d: %g", p.Revision, *own.EggG))
	}
	slices.Reverse(out)
	own, revision, err := s.Own(t.Context())
	require.NoError(t, err)
	return append(out, fmt.Sprintf("%d: %g", revision, *own.EggG))
}

// What a kitchen was goes along: into an empty one as it is, onto another one before what
// comes, and what is missing of the same one is filled in.
func TestAKitchenComesWithItsPast(t *testing.T) {
	s := open(t, false)
	for _, egg := range []float64{50, 55, 60} {
		s.saveOwn(t, egg)
	}
	a := archiveOf(t, s)
	into := func(before ...float64) scene {
		fresh := open(t, false)
		for _, egg := range before {
			fresh.saveOwn(t, egg)
		}
		fresh.imports(t, a)
		return fresh
	}
	assert.Equal(t, []string{"1: 50", "2: 55", "3: 60"}, into().eggs(t))
	assert.Equal(t, []string{"1: 70", "2: 50", "3: 55", "4: 60"}, into(70).eggs(t))
	assert.Equal(t, []string{"1: 55", "2: 50", "3: 60"}, into(55).eggs(t))
	assert.Equal(t, []string{"1: 60"}, into(60).eggs(t), "its only revision leaves no room before it")
	assert.Equal(t, []string{"1: 70", "2: 55", "3: 60"}, into(70, 55, 60).eggs(t), "the same stays what it is")
	many := open(t, false)
	for i := range 80 {
		many.saveOwn(t, 40+float64(i))
	}
	a = archiveOf(t, many)
	a.History.Earlier = append(a.History.Earlier, document.Earlier{Revision: 79, Document: jsontext.Value(`{"format":"nothing"}`)})
	assert.Equal(t, many.eggs(t), into().eggs(t))
}

// Out, into an empty kitchen, and out again gives the same bytes, whatever was lived through;
// into itself, twice, it changes nothing.
func TestRestoringLosesNothing(t *testing.T) {
	for seed := range uint64(8) {
		s := lived(t, seed)
		a := archiveOf(t, s)
		before := encoded(t, s)
		history, names := 0, 0
		for _, k := range a.Variations {
			history, names = history+len(k.Earlier), names+len(k.Names)
		}
		require.NotZero(t, history)
		require.NotZero(t, names)
		fresh := open(t, false)
		*fresh.day = *s.day
		fresh.imports(t, a)
		assert.Equal(t, before, encoded(t, fresh), "seed %d", seed)
		for range 2 {
			count := s.imports(t, a)
			assert.Zero(t, count["added"]+count["changed"])
		}
		assert.Equal(t, before, encoded(t, s))
		if aside := a.Pantry[len(a.Pantry)-1]; strings.Contains(before, `"ingredient":"quay_jam"`) {
			assert.True(t, aside.PutAside)
			table, err := fresh.Setting(t.Context())
			require.NoError(t, err)
			assert.Nil(t, table.Table.ByID("quay_jam"), "it is put aside there as well")
		}
	}
}

// What came without its past gets it later.
func TestAPastIsFilledIn(t *testing.T) {
	for seed := range uint64(6) {
		filledIn(t, lived(t, seed))
	}
}

func filledIn(t *testing.T, s scene) {
	t.Helper()
	a := archiveOf(t, s)
	bare := archiveOf(t, s)
	for _, part := range []*[]document.Kept{&bare.Pantry, &bare.Bases, &bare.Variations} {
		for i := range *part {
			(*part)[i].Earlier, (*part)[i].Names = nil, nil
		}
	}
	fresh := open(t, false)
	*fresh.day = *s.day
	fresh.imports(t, bare)
	require.False(t, encoded(t, s) == encoded(t, fresh))
	count := fresh.imports(t, a)
	assert.Zero(t, count["added"]+count["changed"])
	assert.True(t, encoded(t, s) == encoded(t, fresh))
}

// An archive of an earlier day is laid onto what was saved since: nothing of either is lost.
func TestAnEarlierDayIsAppended(t *testing.T) {
	s := open(t, true)
	ctx := t.Context()
	items, _, err := s.List(ctx, store.Variation, "", 1)
	require.NoError(t, err)
	one := items[0]
	_, err = s.NameVersion(ctx, one.ID, "the first", 1)
	require.NoError(t, err)
	earlier := archiveOf(t, s)
	later := bytes.Replace(one.Body, []byte(`"name":"`), []byte(`"name":"Later `), 1)
	_, _, err = s.Put(ctx, store.Variation, one.ID, 1, later)
	require.NoError(t, err)
	count := s.imports(t, earlier)
	assert.Equal(t, 1, count["changed"])
	now, err := s.Get(ctx, store.Variation, one.ID)
	require.NoError(t, err)
	assert.EqualValues(t, 3, now.Revision)
	assert.Equal(t, string(one.Body), string(now.Body))
	was, err := s.Revision(ctx, store.Variation, one.ID, 2)
	require.NoError(t, err)
	assert.Equal(t, "Later "+one.Name, nameOf(t, was.Body), "what was saved since is an earlier state")

	require.NoError(t, s.PutAside(ctx, store.Variation, one.ID))
	count = s.imports(t, earlier)
	assert.Equal(t, 1, count["changed"], "what was put aside comes back")
	versions, err := s.Versions(ctx, one.ID)
	require.NoError(t, err)
	require.Len(t, versions, 1)
	assert.Equal(t, "the first", versions[0].Name)
}

func nameOf(t *testing.T, body []byte) string {
	t.Helper()
	v, err := document.DecodeVariation(body)
	require.NoError(t, err)
	return v.Name
}

// What comes from elsewhere is not believed: ids of another kind, revisions that nobody can
// count on, states that cannot be opened, days that are still to come.
func TestAHostileArchive(t *testing.T) {
	s := open(t, true)
	ctx := t.Context()
	variations, _, err := s.List(ctx, store.Variation, "", 1)
	require.NoError(t, err)
	bases, _, err := s.List(ctx, store.Base, "", 1)
	require.NoError(t, err)
	body := string(variations[0].Body)
	text := `{"format":"upbeat-ladle/archive","version":2,"variations":[` +
		`{"id":"` + bases[0].ID + `","revision":1,"document":` + body + `},` +
		`{"id":"wild","revision":3,"saved_at":"2099-01-01T00:00:00Z","document":` + body + `,` +
		`"revisions":[{"revision":9007199254740993,"document":` + strings.Replace(body, `"name":"`, `"name":"Old `, 1) + `},{"revision":2,"document":{"format":"nothing"}},{"revision":2,"document":` + strings.Replace(body, `"name":"`, `"name":"Older `, 1) + `}],` +
		`"names":[{"revision":2,"name":"older"},{"revision":77,"name":"of nothing"},{"revision":3,"name":"` + strings.Repeat("n", 300) + `"}]}]}`
	fates, err := s.Import(ctx, opened(t, text), false, func(int) {})
	require.NoError(t, err)
	assert.Equal(t, "refused", fates[0].Action)
	assert.Contains(t, fates[0].Message, "belongs to a base")
	for _, when := range []string{`"saved_at":"9999-01-01T00:00:00Z"`, `"saved_at":"1969-07-20T00:00:00Z"`, `"names":[{"revision":1,"name":"n","named_at":"2101-01-01T00:00:00Z"}]`, `"revisions":[{"revision":1,"saved_at":"1000-01-01T00:00:00Z","document":{}}]`} {
		fates, err := s.Import(ctx, opened(t, `{"format":"upbeat-ladle/archive","version":2,"variations":[{"id":"odd","revision":2,`+when+`,"document":`+body+`}]}`), true, func(int) {})
		require.NoError(t, err)
		assert.Equal(t, "refused", fates[0].Action, when)
		assert.Contains(t, fates[0].Message, "from 2000 to 2100", when)
	}
	d, err := s.Get(ctx, store.Variation, "wild")
	require.NoError(t, err)
	assert.EqualValues(t, 3, d.Revision)
	assert.False(t, d.UpdatedAt.After(*s.day))
	versions, err := s.Versions(ctx, "wild")
	require.NoError(t, err)
	require.Len(t, versions, 1)
	was, err := s.Revision(ctx, store.Variation, "wild", versions[0].Revision)
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(nameOf(t, was.Body), "Older "), "the name stays with its state")
}
