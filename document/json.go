// Package document reads and writes the open JSON documents: strict decoding (one value,
// no unknown field, no null), and a cook's sentence with the path to the field for whatever
// is wrong. docs/formats/ describes the grammar.
package document

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"reflect"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// MaxBytes is the largest document that is read.
const MaxBytes = 1 << 20

// Strict decodes exactly one JSON value into v. Unknown fields, null, a second value and a
// wrong kind are errors of the type Problems, as is JSON that is broken.
func Strict(data []byte, v any) error {
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if len(bytes.TrimSpace(data)) == 0 {
		return Refusal("", "empty", "There is nothing here. Send a document.")
	}
	if at, found, err := findNull(data); err != nil {
		return syntax(err)
	} else if found {
		return Refusal(at, "null", "%s is null. Leave the field out instead.", field(at))
	}
	err := json.Unmarshal(data, v, json.RejectUnknownMembers(true))
	var sem *json.SemanticError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &sem):
		at := string(sem.JSONPointer)
		if errors.Is(err, json.ErrUnknownName) {
			return Refusal(at, "unknown_field", "%s is not a field that is known here. Check its spelling.", field(at))
		}
		return Refusal(at, "wrong_kind", "%s should be %s.", field(at), kindName(sem.GoType))
	}
	return syntax(err)
}

// findNull walks the tokens for a null and checks that there is one value only.
func findNull(data []byte) (pointer string, found bool, err error) {
	d := jsontext.NewDecoder(bytes.NewReader(data))
	for depth := 0; ; {
		tok, err := d.ReadToken()
		if err != nil {
			return "", false, err
		}
		switch tok.Kind() {
		case 'n':
			return string(d.StackPointer()), true, nil
		case '{', '[':
			depth++
		case '}', ']':
			depth--
		}
		if depth == 0 {
			break
		}
	}
	if _, err := d.ReadToken(); !errors.Is(err, io.EOF) {
		return "", false, errTrailing
	}
	return "", false, nil
}

var errTrailing = errors.New("more than one value")

func syntax(err error) error {
	if errors.Is(err, errTrailing) {
		return Refusal("", "trailing", "Something stands after the end of the document. Send exactly one.")
	}
	var syn *jsontext.SyntacticError
	if errors.As(err, &syn) {
		if errors.Is(err, jsontext.ErrDuplicateName) {
			return Refusal(string(syn.JSONPointer), "duplicate", "%s stands twice.", field(string(syn.JSONPointer)))
		}
		return Refusal(string(syn.JSONPointer), "broken_json", "This is not complete JSON: it breaks off or goes wrong near character %d.", syn.ByteOffset)
	}
	return Refusal("", "broken_json", "This is not complete JSON.")
}

// Refusal is the error for one field that cannot be worked with.
func Refusal(at, code, format string, args ...any) Problems {
	var p Problems
	p.Add(at, code, format, args...)
	return p
}

// field names a pointer in a sentence.
func field(at string) string {
	if at == "" {
		return "The document"
	}
	return "“" + strings.TrimPrefix(at, "/") + "”"
}

func kindName(t reflect.Type) string {
	if t == nil {
		return "of another kind"
	}
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch t.Kind() {
	case reflect.Float64:
		return "a number, without quotes"
	case reflect.Int, reflect.Int64:
		return "a whole number, without quotes"
	case reflect.String:
		return "text in quotes"
	case reflect.Bool:
		return "true or false"
	case reflect.Slice:
		return "a list in [ ]"
	}
	return "an object in { }"
}

// encode writes a document with a line feed at its end.
func encode(v any) ([]byte, error) {
	var b bytes.Buffer
	if err := json.MarshalWrite(&b, v, json.Deterministic(true)); err != nil {
		return nil, fmt.Errorf("writing a document: %w", err)
	}
	b.WriteByte('\n')
	return b.Bytes(), nil
}

// lenient decodes what it knows of a value and reads over the rest.
func lenient(data []byte, v any) error {
	return json.Unmarshal(bytes.TrimPrefix(data, []byte("\ufeff")), v)
}
