package kitchen_test

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

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

func (s scene) imports(t *testing.T, a document.Archive) map[string]int {
	t.Helper()
	text, err := a.Encode()
	require.NoError(t, err)
	read, err := document.DecodeArchive(text)
	require.NoError(t, err)
	fates, err := s.Import(t.Context(), read, false, func(int) {})
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
		switch rnd.IntN(4) {
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
	was, err := s.Revision(ctx, one.ID, 2)
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
		`{"id":"wild","revision":3,"saved_at":"9999-01-01T00:00:00Z","document":` + body + `,` +
		`"revisions":[{"revision":9007199254740993,"document":` + strings.Replace(body, `"name":"`, `"name":"Old `, 1) + `},{"revision":2,"document":{"format":"nothing"}},{"revision":2,"document":` + strings.Replace(body, `"name":"`, `"name":"Older `, 1) + `}],` +
		`"names":[{"revision":2,"name":"older"},{"revision":77,"name":"of nothing"},{"revision":3,"name":"` + strings.Repeat("n", 300) + `"}]}]}`
	a, err := document.DecodeArchive([]byte(text))
	require.NoError(t, err)
	fates, err := s.Import(ctx, a, false, func(int) {})
	require.NoError(t, err)
	assert.Equal(t, "refused", fates[0].Action)
	assert.Contains(t, fates[0].Message, "belongs to a base")
	d, err := s.Get(ctx, store.Variation, "wild")
	require.NoError(t, err)
	assert.EqualValues(t, 3, d.Revision)
	assert.False(t, d.UpdatedAt.After(*s.day))
	versions, err := s.Versions(ctx, "wild")
	require.NoError(t, err)
	require.Len(t, versions, 1)
	was, err := s.Revision(ctx, "wild", versions[0].Revision)
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(nameOf(t, was.Body), "Older "), "the name stays with its state")
}
