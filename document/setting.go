package document

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
)

// Setting is where a document is worked out: the shelf, the kitchen, and the day, which the
// age of a tub is counted from. Nobody who is handed one changes what is in it: it is safe for concurrent use.
type Setting struct {
	Table   *food.Table
	Kitchen OwnKitchen
	Today   time.Time // zero: no tub is ever too old
	Include worksheet.Include
}

// SettingFormat is a setting on its own: what a figure of this kitchen and this day depends on, beside what is asked.
const SettingFormat = "upbeat-ladle/setting"

// SettingDocument is a setting with what it was taken from, so that somebody else gives the same answers: another program, or a
// tablet while the program is away.
type SettingDocument struct {
	Format  string         `json:"format"`
	Version int            `json:"version"`
	Stamp   string         `json:"stamp"` // changes when anything of it does
	Rules   string         `json:"rules"` // the program that the answers are of
	Table   string         `json:"table"` // of ingredients, by its fingerprint
	Today   string         `json:"today"`
	Kitchen OwnKitchen     `json:"kitchen"`
	Pantry  []PantryItem   `json:"pantry"` // the last one of two from a day counts
	Sauces  []SettingSauce `json:"sauces"` // that the house keeps
}

// SettingSauce names a sauce that the house keeps.
type SettingSauce struct {
	ID       string `json:"id"`
	Name     string `json:"name"`
	Revision int64  `json:"revision"`
}

// NewSetting writes a setting down; items as they lie on the shelf, the oldest first.
func NewSetting(by WorkedBy, today string, k OwnKitchen, items []PantryItem, sauces []SettingSauce) (SettingDocument, error) {
	d := SettingDocument{SettingFormat, Version, "", by.Program, by.Table, today, k, append([]PantryItem{}, items...), append([]SettingSauce{}, sauces...)}
	text, err := json.Marshal(d)
	if err != nil {
		return d, fmt.Errorf("writing a setting: %w", err)
	}
	d.Stamp = fmt.Sprintf("%x", sha256.Sum256(text))[:stampLetters]
	return d, nil
}

// stampLetters are enough to tell two settings apart (modelling choice).
const stampLetters = 24

// DecodeSetting reads a setting document strictly. The error is Problems.
func DecodeSetting(data []byte) (SettingDocument, error) {
	var d SettingDocument
	if err := Strict(data, &d); err != nil {
		return d, err
	}
	if err := header(d.Format, d.Version, SettingFormat); err != nil {
		return d, err
	}
	if _, err := time.Parse(dayLayout, d.Today); d.Today != "" && err != nil {
		return d, Refusal("/today", "not_a_day", "Write the day as 2026-12-01.")
	}
	text, err := json.Marshal(d.Kitchen)
	if err != nil {
		return d, fmt.Errorf("reading a setting: %w", err)
	}
	d.Kitchen, err = DecodeKitchen(text)
	return d, under("/kitchen", err)
}

// Setting is the document over a table of ingredients. The error is Problems.
func (d SettingDocument) Setting(table *food.Table) (Setting, error) {
	today, _ := time.Parse(dayLayout, d.Today) // it was read; without one nothing ages
	shelf, err := Shelf(table, d.Pantry, today)
	if err != nil {
		return Setting{}, Refusal("/pantry", "unusable", "The pantry cannot be laid out: %s.", strings.TrimSuffix(strings.ReplaceAll(err.Error(), "\n", "; "), "."))
	}
	return Setting{Table: shelf, Kitchen: d.Kitchen, Today: today}, nil
}

const dayLayout = "2006-01-02"

// Day is the setting's day as documents write it.
func (s Setting) Day() string {
	if s.Today.IsZero() {
		return ""
	}
	return s.Today.Format(dayLayout)
}

// age is the number of days from a day to today; 0 when either is not known.
func age(madeOn string, today time.Time) int {
	made, err := time.Parse(dayLayout, madeOn)
	if err != nil || today.IsZero() {
		return 0
	}
	now, _ := time.Parse(dayLayout, today.Format(dayLayout))
	return max(0, int(now.Sub(made).Hours()/24))
}

// ReadInclude reads what is to be included, divided by commas: "working,cook". The error
// is Problems.
func ReadInclude(list string) (worksheet.Include, error) {
	var out worksheet.Include
	for name := range strings.SplitSeq(list, ",") {
		switch strings.TrimSpace(name) {
		case "":
		case "working":
			out.Working = true
		case "strategies":
			out.Strategies = true
		case "cook":
			out.Cook = true
		case "cups":
			out.Cups = true
		case "choices":
			out.Choices = true
		case "drawing":
			out.Drawing = true
		case "nutrition":
			out.Nutrition = true
		case "name":
			out.Name = true
		case "heat_line":
			out.HeatLine = true
		case "curves":
			out.Cook, out.Curves = true, true
		default:
			return out, Refusal("/include", "unknown_choice", "“%s” cannot be included. Use working, strategies, cook, curves, heat_line, cups, choices, drawing, nutrition or name, divided by commas.", clip(name))
		}
	}
	return out, nil
}
