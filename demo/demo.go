// Package demo writes the demo kitchen, Halyard Hatch: a breakfast hatch at the end of a
// ferry pier. Everything in it is invented.
package demo

import (
	"context"
	"embed"
	"fmt"
	"io/fs"

	"upbeatladle/core/food"
	"upbeatladle/document"
	"upbeatladle/store"
)

//go:embed kitchen.json bases/*.json variations/*.json
var files embed.FS

// Write saves the demo kitchen into an empty store: the bases, then the variations with a
// reference to the base that they stand on. The last variation of the folder is the first
// that the bench shows.
func Write(ctx context.Context, st *store.Store, table *food.Table) error {
	text, err := files.ReadFile("kitchen.json")
	if err != nil {
		return err
	}
	kitchen, err := document.DecodeKitchen(text)
	if err != nil {
		return fmt.Errorf("writing the demo's kitchen: %w", err)
	}
	body, err := kitchen.Encode()
	if err != nil {
		return err
	}
	if _, err := st.PutKitchen(ctx, body, 0); err != nil {
		return err
	}
	bases := map[string]store.Document{}
	err = each("bases", func(data []byte) error {
		s, err := document.SummariseBase(data, table, kitchen)
		if err != nil {
			return err
		}
		d, err := st.Create(ctx, store.Base, store.Content(s), "")
		bases[d.Name] = d
		return err
	})
	if err != nil {
		return err
	}
	return each("variations", func(data []byte) error {
		v, err := document.DecodeVariation(data)
		if err != nil {
			return err
		}
		saved, ok := bases[v.Base.Name]
		if !ok {
			return fmt.Errorf("there is no base %q", v.Base.Name)
		}
		b, err := document.DecodeBase(saved.Body)
		if err != nil {
			return err
		}
		v.Base.Lines, v.Base.Style, v.Base.School = b.Lines, b.Style, b.School
		v.Base.BaseRef = &document.BaseRef{ID: saved.ID, Revision: saved.Revision}
		full, err := v.Encode()
		if err != nil {
			return err
		}
		s, err := document.SummariseVariation(full, table, kitchen)
		if err != nil {
			return err
		}
		_, err = st.Create(ctx, store.Variation, store.Content(s), "")
		return err
	})
}

// each hands every document of a folder to f, in the order of the file names.
func each(dir string, f func([]byte) error) error {
	entries, err := fs.ReadDir(files, dir)
	if err != nil {
		return err
	}
	for _, e := range entries {
		name := dir + "/" + e.Name()
		data, err := fs.ReadFile(files, name)
		if err == nil {
			err = f(data)
		}
		if err != nil {
			return fmt.Errorf("writing the demo's %s: %w", name, err)
		}
	}
	return nil
}
