package document_test

import (
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/griddle"
	"upbeatladle/document"
)

const aBoard = `{"format":"upbeat-ladle/board","version":1,"name":"Morning","started_at":"2026-11-26T07:00:00Z","worked_by":{"program":"p","table":"t"},
 "kitchen":{"format":"upbeat-ladle/kitchen","version":1,"name":"Hatch","griddles":[{"id":"plate","name":"Plate","width_cm":60,"depth_cm":40}]},
 "events":[{"id":"1","at":"2026-11-26T07:01:00Z","kind":"on","plate":"plate"},{"id":"2","at":"2026-11-26T07:02:00Z","kind":"probed","c":66}]}`

const aPack = `{"format":"upbeat-ladle/pack","version":1,"name":"Plum waffle","form":"waffle","pieces":4,"left":2,"made_on":"2026-11-26","use_by":"2027-01-25","frozen_at":"2026-11-26T08:00:00Z",
 "contains":["egg"],"may_contain":[],"allergen_text":"Contains egg · Check every pack","reheat":["Toaster"]}`

// Whatever a file says of a board or a pack, it is read, or refused with a sentence; what is read is written and read again
// the same, and folds.
func FuzzBoard(f *testing.F) {
	for _, seed := range []string{aBoard, aPack, `{"format":"upbeat-ladle/board"}`, `[]`, ``} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		if b, err := document.DecodeBoard(data); err == nil {
			s := griddle.Fold(b.Plates(), b.Events, b.StartedAt.Add(time.Hour))
			_, err := json.Marshal(s)
			require.NoError(t, err, "no figure that is none")
			text, err := b.Encode()
			require.NoError(t, err)
			again, err := document.DecodeBoard(text)
			require.NoError(t, err)
			more, err := again.Encode()
			require.NoError(t, err)
			assert.Equal(t, string(text), string(more))
		} else {
			assert.NotEmpty(t, document.Sentence(err))
		}
		if p, err := document.DecodePack(data); err == nil {
			text, err := p.Encode()
			require.NoError(t, err)
			again, err := document.DecodePack(text)
			require.NoError(t, err)
			more, err := again.Encode()
			require.NoError(t, err)
			assert.Equal(t, string(text), string(more))
			assert.Contains(t, p.Text(), p.Allergens)
		}
	})
}

func TestABoardAndAPackAreReadStrictly(t *testing.T) {
	b, err := document.DecodeBoard([]byte(aBoard))
	require.NoError(t, err)
	assert.Len(t, b.Plates(), 1)
	_, err = document.DecodePack([]byte(aPack))
	require.NoError(t, err)
	for _, change := range [][2]string{
		{`"left":2`, `"left":5`}, {`"use_by":"2027-01-25"`, `"use_by":"2026-11-25"`}, {`"name":"Plum waffle"`, `"name":""`}, {`Contains egg · Check every pack`, ``}, {`"version":1`, `"version":2`},
	} {
		_, err := document.DecodePack([]byte(strings.Replace(aPack, change[0], change[1], 1)))
		assert.Error(t, err, change[1])
	}
	for _, change := range [][2]string{{`"plate":"plate"`, `"plate":"moon"`}, {`"c":66`, `"c":660`}, {`"kind":"on"`, `"kind":"off"`}, {`"started_at":"2026-11-26T07:00:00Z"`, `"started_at":"0001-01-01T00:00:00Z"`}} {
		_, err := document.DecodeBoard([]byte(strings.Replace(aBoard, change[0], change[1], 1)))
		assert.Error(t, err, change[1])
	}
}
