package document

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"strconv"
	"sync"

	"upbeatladle/core/worksheet"
)

// digits is how many significant digits the figures of an answer have, so that every machine
// writes the same.
const digits = 6

// Answer writes what was worked out: its figures with six significant digits, its lists never
// null. The value stays as it is, whoever shares it: what is rounded is a copy of its figures. Documents inside of it
// that are kept as they are (Kept) keep every digit. A figure that is no number is an error.
func Answer(v any) ([]byte, error) {
	own := reflect.New(reflect.TypeOf(v))
	own.Elem().Set(reflect.ValueOf(v))
	planOf(own.Elem().Type()).round(own.Elem())
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	if err := e.Encode(own.Elem().Interface()); err != nil {
		return nil, fmt.Errorf("writing an answer: %w", err)
	}
	return b.Bytes(), nil
}

// kept marks documents that go out as they were written.
type kept interface{ keepsItsDigits() }

func (Variation) keepsItsDigits()  {}
func (Base) keepsItsDigits()       {}
func (PantryItem) keepsItsDigits() {}
func (Line) keepsItsDigits()       {}
func (Addition) keepsItsDigits()   {}
func (OwnKitchen) keepsItsDigits() {}

// significant rounds to as many digits as answers have. Powers of ten up to exactPowers are
// exact, so one division gives the number whose shortest text has no more digits.
func significant(v float64) float64 {
	if v == 0 || math.IsNaN(v) || math.IsInf(v, 0) {
		return v + 0 // −0 is 0
	}
	exponent := digits - 1 - int(math.Floor(math.Log10(math.Abs(v))))
	if exponent >= 0 && exponent <= exactPowers {
		scale := math.Pow10(exponent)
		if whole, part := math.Modf(math.Abs(v * scale)); math.Abs(part-0.5) > nearTie && whole < math.Pow10(digits) {
			return math.Round(v*scale) / scale
		}
	}
	r, _ := strconv.ParseFloat(strconv.FormatFloat(v, 'g', digits, 64), 64) // what was just written is read
	return r + 0
}

// nearTie is how near to a half the last digit is left to the exact way.
const nearTie = 1e-6

// exactPowers is the largest power of ten that a float64 holds exactly.
const exactPowers = 22

// plan is how the figures of a type are found; nil when there are none and no lists.
type plan struct {
	kind    reflect.Kind
	elem    *plan        // of pointers, slices and maps
	fields  []fieldPlan  // of structs
	empties reflect.Type // of a list that must not be null
}

type fieldPlan struct {
	index int
	plan  *plan
}

var plans sync.Map // reflect.Type → *plan

func planOf(t reflect.Type) *plan {
	if p, ok := plans.Load(t); ok {
		return p.(*plan)
	}
	p := makePlan(t, false)
	plans.Store(t, p)
	return p
}

func makePlan(t reflect.Type, omitted bool) *plan {
	if t.Implements(reflect.TypeFor[kept]()) {
		return nil
	}
	switch t.Kind() {
	case reflect.Float64, reflect.Interface:
		return &plan{kind: t.Kind()}
	case reflect.Pointer, reflect.Map:
		if e := makePlan(t.Elem(), false); e != nil {
			return &plan{kind: t.Kind(), elem: e}
		}
	case reflect.Slice:
		p := &plan{kind: t.Kind(), elem: makePlan(t.Elem(), false)}
		if !omitted && t.Elem().Kind() != reflect.Uint8 {
			p.empties = t
		}
		if p.elem != nil || p.empties != nil {
			return p
		}
	case reflect.Struct:
		p := &plan{kind: t.Kind()}
		for i := range t.NumField() {
			f := t.Field(i)
			name, options, _ := cutTag(f.Tag.Get("json"))
			if name == "-" || !f.IsExported() {
				continue
			}
			if sub := makePlan(f.Type, options != ""); sub != nil {
				p.fields = append(p.fields, fieldPlan{i, sub})
			}
		}
		if len(p.fields) > 0 {
			return p
		}
	}
	return nil
}

func cutTag(tag string) (name, options string, ok bool) {
	for i := range len(tag) {
		if tag[i] == ',' {
			return tag[:i], tag[i+1:], true
		}
	}
	return tag, "", false
}

// round rounds a value that can be set. What it points to, lists and maps are copied first: somebody else may be reading them.
func (p *plan) round(v reflect.Value) {
	if p == nil {
		return
	}
	switch p.kind {
	case reflect.Float64:
		v.SetFloat(significant(v.Float()))
	case reflect.Pointer:
		if !v.IsNil() {
			own := reflect.New(v.Type().Elem())
			own.Elem().Set(v.Elem())
			p.elem.round(own.Elem())
			v.Set(own)
		}
	case reflect.Slice:
		if v.IsNil() && p.empties != nil {
			v.Set(reflect.MakeSlice(p.empties, 0, 0))
			return
		}
		if n := v.Len(); p.elem != nil && n > 0 {
			own := reflect.MakeSlice(v.Type(), n, n)
			reflect.Copy(own, v)
			for i := range n {
				p.elem.round(own.Index(i))
			}
			v.Set(own)
		}
	case reflect.Map:
		if v.IsNil() {
			return
		}
		own := reflect.MakeMapWithSize(v.Type(), v.Len())
		for _, key := range v.MapKeys() {
			box := reflect.New(v.Type().Elem()).Elem()
			box.Set(v.MapIndex(key))
			p.elem.round(box)
			own.SetMapIndex(key, box)
		}
		v.Set(own)
	case reflect.Interface:
		if v.IsNil() {
			return
		}
		box := reflect.New(v.Elem().Type()).Elem()
		box.Set(v.Elem())
		planOf(box.Type()).round(box)
		v.Set(box)
	case reflect.Struct:
		for _, f := range p.fields {
			f.plan.round(v.Field(f.index))
		}
	}
}

// worksheetDocument is the worksheet as a document of its own.
type worksheetDocument struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	*worksheet.Worksheet
}

// WorksheetType is the type of a worksheet document, for whoever describes it.
var WorksheetType = reflect.TypeFor[worksheetDocument]()

// AsDocument is a worksheet as it is written.
func AsDocument(w *worksheet.Worksheet) any {
	return &worksheetDocument{WorksheetFormat, Version, w}
}
