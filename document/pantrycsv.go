package document

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"upbeatladle/core/food"
)

// Limits of a pantry file.
const (
	MaxPantryBytes = 4 << 20
	MaxPantryRows  = 5000
)

// column is one column of a pantry file: a field of PantryItem under its JSON name.
type column struct {
	name  string
	index int
}

// pantryColumns lists the columns, in the order of PantryItem.
var pantryColumns = func() []column {
	var out []column
	t := reflect.TypeFor[PantryItem]()
	for i := range t.NumField() {
		name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
		out = append(out, column{name, i})
	}
	return out
}()

// Columns that a file must have, and those of the reference table that are read over.
var (
	neededColumns = []string{"id", "name"}
	passedOver    = []string{"acid_source", "density_source", "melts_or_burns"}
	utf16LE       = []byte{0xff, 0xfe}
	utf16BE       = []byte{0xfe, 0xff}
)

const (
	listSeparator = ";"
	formulaStarts = "=+-@\t\r"
	byteOrderMark = "\ufeff"
	yesInAFile    = "yes"
)

// guarded is a text that a spreadsheet will not run as a formula; unguarded takes it back.
func guarded(s string) string {
	if s != "" && (strings.ContainsRune(formulaStarts, rune(s[0])) || s[0] == '\'') {
		return "'" + s
	}
	return s
}

func unguarded(s string) string {
	if len(s) > 1 && s[0] == '\'' && (strings.ContainsRune(formulaStarts, rune(s[1])) || s[1] == '\'') {
		return s[1:]
	}
	return s
}

// ExportPantry writes the whole shelf as CSV, in UTF-8 with a byte order mark so that
// spreadsheets read its letters right: every row of the table, and every own item. Texts that
// a spreadsheet would take for a formula begin with an apostrophe.
func ExportPantry(table *food.Table, items []PantryItem) ([]byte, error) {
	var b bytes.Buffer
	b.WriteString(byteOrderMark)
	w := csv.NewWriter(&b)
	head := make([]string, len(pantryColumns))
	for i, c := range pantryColumns {
		head[i] = c.name
	}
	if err := w.Write(head); err != nil {
		return nil, err
	}
	write := func(p PantryItem) error {
		v := reflect.ValueOf(p)
		rec := make([]string, len(pantryColumns))
		for i, c := range pantryColumns {
			rec[i] = cell(v.Field(c.index))
		}
		return w.Write(rec)
	}
	for _, in := range table.All() {
		if err := write(ItemOf(in)); err != nil {
			return nil, err
		}
	}
	for _, p := range items {
		if err := write(p); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return b.Bytes(), w.Error()
}

func cell(v reflect.Value) string {
	switch f := v.Interface().(type) {
	case string:
		return guarded(f)
	case *float64:
		if f != nil {
			return strconv.FormatFloat(*f, 'f', -1, 64)
		}
	case bool:
		if f {
			return yesInAFile
		}
	case []string:
		return guarded(strings.Join(f, listSeparator+" "))
	}
	return ""
}

// RowAction says what an import does with a row.
type RowAction string

// The actions.
const (
	RowAdded   RowAction = "added"
	RowChanged RowAction = "changed"
	RowSame    RowAction = "same"
	RowRefused RowAction = "refused"
)

// ImportRow is the fate of one row of a pantry file.
type ImportRow struct {
	Line    int       `json:"line"`
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Action  RowAction `json:"action"`
	Message string    `json:"message,omitzero"`

	Item PantryItem `json:"-"` // what to save of a row that is added or changed
}

// ImportPantry reads a pantry file against the table and the items that are there already. A
// row with the id of the table and other figures becomes an item that stands for it. Each row
// is judged alone; the error is Problems and means that the file as a whole cannot be
// read.
func ImportPantry(data []byte, s Setting, there []PantryItem) ([]ImportRow, error) {
	text, err := plainText(data)
	if err != nil {
		return nil, err
	}
	cr := csv.NewReader(strings.NewReader(text))
	cr.Comma = separator(text)
	cr.FieldsPerRecord = -1
	head, err := cr.Read()
	if err != nil {
		return nil, Refusal("", "not_csv", "This is not a table with a heading. Save it as CSV from the spreadsheet, with the column names in the first row.")
	}
	at, err := heading(head)
	if err != nil {
		return nil, err
	}
	had := map[string]PantryItem{}
	for _, p := range there {
		had[p.ID] = p
	}
	var out []ImportRow
	seen := map[string]int{}
	for {
		rec, err := cr.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if len(out) >= MaxPantryRows {
			return nil, Refusal("", "too_many", "The file has more than %d rows. That is more than a pantry holds: leave out what you do not use.", MaxPantryRows)
		}
		var bad *csv.ParseError
		if errors.As(err, &bad) {
			out = append(out, ImportRow{Line: bad.Line, Action: RowRefused, Message: "The quotes of this row do not close, so it cannot be taken apart."})
			continue
		} else if err != nil {
			return nil, err
		}
		line, _ := cr.FieldPos(0)
		row := readRow(rec, at, cr.Comma != ',')
		row.Line = line
		if row.ID == "" && row.Name == "" && row.Action != RowRefused {
			continue // an empty line
		}
		if first, twice := seen[row.ID]; twice && row.Action != RowRefused {
			row.Action, row.Message = RowRefused, fmt.Sprintf("The id stands in row %d already.", first)
		}
		seen[row.ID] = line
		if row.Action != RowRefused {
			judge(&row, at, s, had)
		}
		out = append(out, row)
	}
	if len(out) == 0 {
		return nil, Refusal("", "empty", "There is no row under the heading.")
	}
	return out, nil
}

// plainText checks size and encoding.
func plainText(data []byte) (string, error) {
	switch {
	case len(data) > MaxPantryBytes:
		return "", Refusal("", "too_large", "The file is larger than %d MB. A pantry takes a few hundred kB: leave out what you do not use.", MaxPantryBytes>>20)
	case len(bytes.TrimSpace(data)) == 0:
		return "", Refusal("", "empty", "The file is empty.")
	case bytes.HasPrefix(data, utf16LE), bytes.HasPrefix(data, utf16BE):
		return "", Refusal("", "encoding", "The file is written in UTF-16. Save it as CSV in UTF-8.")
	case !utf8.Valid(data):
		return "", Refusal("", "encoding", "The file is not written in UTF-8 but in an older way (Latin-1 or the like), so its accents cannot be told. Save it as “CSV UTF-8”.")
	case bytes.ContainsRune(data, 0):
		return "", Refusal("", "not_csv", "This is not a text file. Save the spreadsheet as CSV.")
	}
	return strings.TrimPrefix(string(data), byteOrderMark), nil
}

// separator is the sign between the columns: spreadsheets of many countries write semicolons,
// and a comma in their numbers.
func separator(text string) rune {
	head, _, _ := strings.Cut(text, "\n")
	best := ','
	for _, r := range []rune{';', '\t'} {
		if strings.Count(head, string(r)) > strings.Count(head, string(best)) {
			best = r
		}
	}
	return best
}

func heading(head []string) (map[string]int, error) {
	at := map[string]int{}
	for i, h := range head {
		h = strings.TrimSpace(h)
		known := slices.ContainsFunc(pantryColumns, func(c column) bool { return c.name == h })
		switch _, twice := at[h]; {
		case slices.Contains(passedOver, h) || h == "":
		case !known:
			return nil, Refusal("", "wrong_columns", "The column “%s” is not known here. Export the pantry to see the columns, and take out or rename the others.", clip(h))
		case twice:
			return nil, Refusal("", "wrong_columns", "The column “%s” stands twice.", clip(h))
		default:
			at[h] = i
		}
	}
	for _, c := range neededColumns {
		if _, ok := at[c]; !ok {
			return nil, Refusal("", "wrong_columns", "The column “%s” is missing. Export the pantry to see how the columns are named.", c)
		}
	}
	return at, nil
}

// readRow turns a record into an item.
func readRow(rec []string, at map[string]int, decimalComma bool) ImportRow {
	var row ImportRow
	var bad []string
	v := reflect.ValueOf(&row.Item).Elem()
	for _, c := range pantryColumns {
		i, ok := at[c.name]
		if !ok || i >= len(rec) {
			continue
		}
		text := unguarded(strings.TrimSpace(rec[i]))
		if text != "" && !setField(v.Field(c.index), text, decimalComma) {
			bad = append(bad, fmt.Sprintf("%s is “%s”, not a number", c.name, clip(text)))
		}
	}
	if len(rec) > 0 && row.Item.ID == "" && row.Item.Name != "" {
		row.Item.ID = Slug(row.Item.Name)
	}
	row.ID, row.Name = clip(row.Item.ID), clip(row.Item.Name)
	if len(bad) > 0 {
		row.Action, row.Message = RowRefused, strings.Join(bad, "; ")+"."
	}
	return row
}

// setField puts what a file has into a field of an item; false when a number is none.
func setField(f reflect.Value, text string, decimalComma bool) bool {
	switch f.Interface().(type) {
	case string:
		f.SetString(text)
	case bool:
		f.SetBool(strings.EqualFold(text, yesInAFile) || strings.EqualFold(text, "true") || text == "1")
	case []string:
		var list []string
		for part := range strings.SplitSeq(text, listSeparator) {
			if part = strings.TrimSpace(part); part != "" {
				list = append(list, part)
			}
		}
		f.Set(reflect.ValueOf(list))
	case *float64:
		if decimalComma {
			text = strings.Replace(text, ",", ".", 1)
		}
		n, err := strconv.ParseFloat(text, 64)
		if err != nil || math.IsNaN(n) || math.IsInf(n, 0) {
			return false
		}
		f.Set(reflect.ValueOf(&n))
	}
	return true
}

// judge decides what a row that could be read does.
func judge(row *ImportRow, at map[string]int, s Setting, had map[string]PantryItem) {
	p := &row.Item
	if in := s.Table.ByID(p.ID); in != nil && p.StandsFor == "" {
		if sameFigures(*p, ItemOf(in), at) {
			row.Action = RowSame
			return
		}
		inherit(p, ItemOf(in), at)
		p.StandsFor = p.ID
		p.ID += "_own"
	}
	if _, err := p.Ingredient(s); err != nil {
		var q Problems
		row.Action, row.Message = RowRefused, err.Error()
		if errors.As(err, &q) {
			var said []string
			for _, one := range q {
				said = append(said, one.Message)
			}
			row.Message = strings.Join(said, " ")
		}
		return
	}
	old, there := had[p.ID]
	switch {
	case !there:
		row.Action = RowAdded
	case sameFigures(*p, old, at):
		row.Action = RowSame
	default:
		row.Action = RowChanged
	}
}

// inherit takes from the table's row what the file has no column for.
func inherit(p *PantryItem, row PantryItem, at map[string]int) {
	to, from := reflect.ValueOf(p).Elem(), reflect.ValueOf(row)
	for _, c := range pantryColumns {
		if _, ok := at[c.name]; !ok {
			to.Field(c.index).Set(from.Field(c.index))
		}
	}
}

// sameFigures compares two items in the columns that a file has.
func sameFigures(a, b PantryItem, at map[string]int) bool {
	x, y := reflect.ValueOf(a), reflect.ValueOf(b)
	for _, c := range pantryColumns {
		if _, ok := at[c.name]; ok && cell(x.Field(c.index)) != cell(y.Field(c.index)) {
			return false
		}
	}
	return true
}
