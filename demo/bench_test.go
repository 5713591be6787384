package demo_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
	"upbeatladle/document"
)

// BenchmarkCarrot works out the demo's carrot variation: what a drag pays for, and what the
// command line gets.
func BenchmarkCarrot(b *testing.B) {
	var base document.Base
	var v document.Variation
	for path, into := range map[string]any{"bases/4-hatch-cultured.json": &base, "variations/6-carrot.json": &v} {
		data, err := os.ReadFile(path)
		require.NoError(b, err)
		require.NoError(b, document.Strict(data, into))
	}
	v.Base.Lines, v.Base.Style, v.Base.School = base.Lines, base.Style, base.School
	kitchen, err := os.ReadFile("kitchen.json")
	require.NoError(b, err)
	own, err := document.DecodeKitchen(kitchen)
	require.NoError(b, err)
	d, k, err := v.Domain(document.Setting{Table: food.Reference(), Kitchen: own})
	require.NoError(b, err)
	for name, include := range map[string]worksheet.Include{"bare": {}, "everything": worksheet.Everything} {
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, err := worksheet.Work(b.Context(), d, k, include); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
