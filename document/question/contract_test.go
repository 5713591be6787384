package question

import (
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"go.yaml.in/yaml/v3"
)

// contract is openapi.yaml, as far as questions need it.
type contract struct {
	Paths map[string]map[string]struct {
		Tags        []string
		RequestBody struct {
			Content map[string]struct{ Schema schema }
		} `yaml:"requestBody"`
		Responses map[string]struct {
			Content map[string]struct{ Schema schema }
		}
	}
	Components struct{ Schemas map[string]schema }
}

type schema struct {
	Ref        string `yaml:"$ref"`
	Type       string
	Format     string
	Required   []string
	Properties map[string]schema
	Items      *schema
	Enum       []string
	AllOf      []schema `yaml:"allOf"`
}

func read(t *testing.T) contract {
	t.Helper()
	data, err := os.ReadFile("../../api/openapi.yaml")
	require.NoError(t, err)
	var c struct {
		contract `yaml:",inline"`
	}
	var loose map[string]any
	require.NoError(t, yaml.Unmarshal(data, &loose))
	paths := loose["paths"].(map[string]any)
	for _, p := range paths { // parameters beside the methods are none of them
		delete(p.(map[string]any), "parameters")
	}
	again, err := yaml.Marshal(map[string]any{"paths": paths, "components": loose["components"]})
	require.NoError(t, err)
	require.NoError(t, yaml.Unmarshal(again, &c))
	return c.contract
}

// Every question of the contract is a row of the table, and every row stands in the contract.
func TestTableAndContractNameTheSameQuestions(t *testing.T) {
	var named, rows []string
	for path, methods := range read(t).Paths {
		for method, op := range methods {
			if slices.Contains(op.Tags, "question") {
				assert.Equal(t, "post", method, path)
				named = append(named, strings.TrimPrefix(path, "/"))
			}
		}
	}
	for _, q := range Table {
		rows = append(rows, q.Name)
		assert.NotEmpty(t, q.Says)
	}
	assert.ElementsMatch(t, named, rows)
}

// What goes in and out has the fields of the contract, one by one: names, kinds, and what is
// always there.
func TestTypesFitTheContractFieldByField(t *testing.T) {
	c := read(t)
	for _, q := range Table {
		op := c.Paths["/"+q.Name]["post"]
		fits(t, c, q.Name+" wish", q.wish, op.RequestBody.Content["application/json"].Schema, false)
		fits(t, c, q.Name+" answer", q.out, op.Responses["200"].Content["application/json"].Schema, true)
	}
}

var seen = map[reflect.Type]bool{}

func fits(t *testing.T, c contract, at string, typ reflect.Type, s schema, answers bool) {
	t.Helper()
	for typ.Kind() == reflect.Pointer {
		typ = typ.Elem()
	}
	for s.Ref != "" || len(s.AllOf) == 1 {
		if len(s.AllOf) == 1 {
			s = s.AllOf[0]
			continue
		}
		name := s.Ref[strings.LastIndex(s.Ref, "/")+1:]
		var ok bool
		if s, ok = c.Components.Schemas[name]; !ok {
			t.Errorf("%s: the contract has no %s", at, name)
			return
		}
	}
	want := map[reflect.Kind]string{
		reflect.Float64: "number", reflect.Int: "integer", reflect.Int64: "integer", reflect.Uint64: "integer", reflect.String: "string", reflect.Bool: "boolean",
		reflect.Slice: "array", reflect.Struct: "object",
	}[typ.Kind()]
	if !assert.Equal(t, want, s.Type, at) {
		return
	}
	switch typ.Kind() {
	case reflect.Slice:
		require.NotNil(t, s.Items, at)
		fits(t, c, at+"[]", typ.Elem(), *s.Items, answers)
	case reflect.Float64:
		assert.Equal(t, "double", s.Format, at)
	case reflect.Struct:
		if seen[typ] {
			return
		}
		seen[typ] = true
		fields := map[string]reflect.StructField{}
		flatten(typ, fields)
		for name, f := range fields {
			p, ok := s.Properties[name]
			if !assert.True(t, ok, "%s: the contract has no %q", at, name) {
				continue
			}
			if answers {
				may := strings.Contains(f.Tag.Get("json"), "omit")
				assert.Equal(t, !may, slices.Contains(s.Required, name), "%s: whether %q is always there", at, name)
			}
			fits(t, c, at+"/"+name, f.Type, p, answers)
		}
		for name := range s.Properties {
			assert.Contains(t, fields, name, "%s: the program has no %q", at, name)
		}
	}
}

// flatten lists the fields of a struct by their wire names, embedded ones among them.
func flatten(typ reflect.Type, into map[string]reflect.StructField) {
	for i := range typ.NumField() {
		f := typ.Field(i)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		switch {
		case f.Anonymous && name == "":
			e := f.Type
			if e.Kind() == reflect.Pointer {
				e = e.Elem()
			}
			flatten(e, into)
		case name != "-" && f.IsExported():
			into[name] = f
		}
	}
}
