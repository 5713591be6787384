package measure

import (
	"errors"
	"math"
	"strconv"
	"strings"
	"unicode"
)

// ErrAmount is what ParseAmount returns for text that is not one amount.
var ErrAmount = errors.New("not an amount")

// vulgar are the single-character fractions of Unicode.
var vulgar = map[rune]float64{
	'¼': 1. / 4, '½': 1. / 2, '¾': 3. / 4, '⅐': 1. / 7, '⅑': 1. / 9, '⅒': 1. / 10,
	'⅓': 1. / 3, '⅔': 2. / 3, '⅕': 1. / 5, '⅖': 2. / 5, '⅗': 3. / 5, '⅘': 4. / 5,
	'⅙': 1. / 6, '⅚': 5. / 6, '⅛': 1. / 8, '⅜': 3. / 8, '⅝': 5. / 8, '⅞': 7. / 8,
}

// ParseAmount reads an amount as a cook types it: "1 1/2", "1½", "1.5", "0,5", "½".
// The result is zero or more and finite. A comma is a decimal comma: "1,000" is refused
// since it may mean a thousand, "0,125" may not.
func ParseAmount(text string) (float64, error) {
	s := strings.TrimSpace(strings.NewReplacer("⁄", "/", "∕", "/", "\u00a0", " ", "\u202f", " ").Replace(text))
	if s == "" || len(s) > 40 {
		return 0, ErrAmount
	}
	var sum float64
	fields := strings.Fields(strings.ReplaceAll(strings.ReplaceAll(s, " /", "/"), "/ ", "/"))
	// A fraction character stands for a term of its own, also when glued to the number.
	var terms []string
	for _, f := range fields {
		start := 0
		for i, r := range f {
			if _, ok := vulgar[r]; ok {
				if i > start {
					terms = append(terms, f[start:i])
				}
				terms = append(terms, string(r))
				start = i + len(string(r))
			}
		}
		if start < len(f) {
			terms = append(terms, f[start:])
		}
	}
	if len(terms) == 0 || len(terms) > 2 {
		return 0, ErrAmount
	}
	for i, t := range terms {
		v, whole, err := term(t)
		if err != nil {
			return 0, err
		}
		// Two terms are a whole number and a fraction below one, in that order.
		if len(terms) == 2 && (i == 0) != whole || i == 1 && v >= 1 {
			return 0, ErrAmount
		}
		sum += v
	}
	return sum, nil
}

// term reads one number or fraction; whole tells a plain whole number.
func term(t string) (v float64, whole bool, err error) {
	if r := []rune(t); len(r) == 1 {
		if v, ok := vulgar[r[0]]; ok {
			return v, false, nil
		}
	}
	if num, den, ok := strings.Cut(t, "/"); ok {
		n, nWhole, err := decimal(num)
		d, dWhole, err2 := decimal(den)
		if err != nil || err2 != nil || !nWhole || !dWhole || d == 0 {
			return 0, false, ErrAmount
		}
		return n / d, false, nil
	}
	return decimal(t)
}

func decimal(t string) (v float64, whole bool, err error) {
	if before, after, ok := strings.Cut(t, ","); ok {
		if len(after) == 3 && before != "0" || strings.ContainsAny(after, ".,") || strings.Contains(before, ".") {
			return 0, false, ErrAmount
		}
		t = before + "." + after
	}
	for _, r := range t {
		if !unicode.IsDigit(r) && r != '.' || r > unicode.MaxASCII {
			return 0, false, ErrAmount
		}
	}
	v, perr := strconv.ParseFloat(t, 64)
	if perr != nil || math.IsInf(v, 0) || math.IsNaN(v) {
		return 0, false, ErrAmount
	}
	return v, !strings.Contains(t, "."), nil
}
