// Command schemas writes the JSON Schemas of the open documents in docs/formats from the
// contract in api/openapi.yaml, so that there is one source for both.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"go.yaml.in/yaml/v3"
)

// documents are the roots, by file name.
var documents = map[string]string{
	"variation.schema.json":   "Variation",
	"base.schema.json":        "Base",
	"kitchen.schema.json":     "OwnKitchen",
	"pantry-item.schema.json": "PantryDocument",
	"archive.schema.json":     "Archive",
	"batch.schema.json":       "Batch",
	"board.schema.json":       "Board",
	"pack.schema.json":        "Pack",
	"sauce.schema.json":       "Sauce",
	"reading.schema.json":     "Reading",
	"worksheet.schema.json":   "Worksheet",
	"setting.schema.json":     "Setting",
}

func main() {
	if err := run("api/openapi.yaml", "docs/formats"); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(contract, out string) error {
	files, err := build(contract)
	if err != nil {
		return err
	}
	for name, data := range files {
		if err := os.WriteFile(filepath.Join(out, name), data, 0o644); err != nil {
			return err
		}
	}
	return nil
}

// build returns the schema files by name.
func build(contract string) (map[string][]byte, error) {
	data, err := os.ReadFile(contract)
	if err != nil {
		return nil, err
	}
	var spec struct {
		Components struct {
			Schemas map[string]any `yaml:"schemas"`
		} `yaml:"components"`
	}
	if err := yaml.Unmarshal(data, &spec); err != nil {
		return nil, fmt.Errorf("reading %s: %w", contract, err)
	}
	out := map[string][]byte{}
	for name, root := range documents {
		defs := map[string]any{}
		collect(root, spec.Components.Schemas, defs)
		top, _ := defs[root].(map[string]any)
		delete(defs, root)
		schema := map[string]any{"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "upbeat-ladle/" + strings.ToLower(root)}
		for k, v := range top {
			schema[k] = v
		}
		schema["$defs"] = defs
		var b bytes.Buffer
		e := json.NewEncoder(&b)
		e.SetIndent("", "  ")
		if err := e.Encode(schema); err != nil {
			return nil, err
		}
		out[name] = b.Bytes()
	}
	return out, nil
}

const prefix = "#/components/schemas/"

// collect puts a schema and all that it refers to into defs.
func collect(name string, all, defs map[string]any) {
	if _, done := defs[name]; done {
		return
	}
	defs[name] = nil
	defs[name] = convert(all[name], all, defs)
}

// convert turns OpenAPI's references into those of JSON Schema and drops its formats.
func convert(v any, all, defs map[string]any) any {
	switch x := v.(type) {
	case map[string]any:
		out := map[string]any{}
		for k, e := range x {
			ref, isText := e.(string)
			switch {
			case k == "$ref" && isText:
				to := strings.TrimPrefix(ref, prefix)
				collect(to, all, defs)
				out[k] = "#/$defs/" + to
			case k == "format" && isText && (ref == "double" || ref == "int64"):
			default:
				out[k] = convert(e, all, defs)
			}
		}
		return out
	case []any:
		out := make([]any, len(x))
		for i, e := range x {
			out[i] = convert(e, all, defs)
		}
		return out
	}
	return v
}
