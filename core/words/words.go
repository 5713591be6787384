// Package words puts names and figures into a cook's sentences: the one place for how a list,
// a mass or a time is written.
package words

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
)

// Either is a when yes, else b.
func Either(yes bool, a, b string) string {
	if yes {
		return a
	}
	return b
}

// Number is a small count as a word.
func Number(n int) string {
	words := []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"}
	if n >= 0 && n < len(words) {
		return words[n]
	}
	return fmt.Sprint(n)
}

// List joins names: "milk", "milk and sugar", "milk, sugar and salt".
func List(s []string) string {
	if len(s) < 2 {
		return strings.Join(s, "")
	}
	return strings.Join(s[:len(s)-1], ", ") + " and " + s[len(s)-1]
}

// Lower writes a label inside a sentence; what begins with capitals, like UHT, keeps them.
func Lower(label string) string {
	if len(label) > 1 && 'A' <= label[0] && label[0] <= 'Z' && 'a' <= label[1] && label[1] <= 'z' { // as nearly all are
		return string(label[0]|0x20) + label[1:]
	}
	r := []rune(label)
	if len(r) > 0 && (len(r) == 1 || !unicode.IsUpper(r[1])) {
		r[0] = unicode.ToLower(r[0])
	}
	return string(r)
}

// Upper begins a sentence with a label or a caution.
func Upper(s string) string {
	r := []rune(s)
	if len(r) > 0 {
		r[0] = unicode.ToUpper(r[0])
	}
	return string(r)
}

// Decimals is how many a mass on a scale step has [g]: none on a whole gram, as many as the step
// itself below.
func Decimals(step float64) int {
	if step <= 0 || step >= 1 {
		return 0
	}
	for n := 1; n < 3; n++ {
		if scaled := step * math.Pow10(n); math.Abs(scaled-math.Round(scaled)) < 1e-9 {
			return n
		}
	}
	return 3
}

// Grams prints a mass on its scale step [g]; zeros at its end are left out.
func Grams(g, step float64) string {
	text := strconv.FormatFloat(g, 'f', Decimals(step), 64)
	if strings.Contains(text, ".") {
		text = strings.TrimSuffix(strings.TrimRight(text, "0"), ".")
	}
	return text + " g"
}

// Minutes prints a time [min]; long ones in hours.
func Minutes(m float64) string {
	if m >= 60 && math.Mod(m, 30) == 0 {
		return fmt.Sprintf("%g h", m/60)
	}
	return fmt.Sprintf("%.0f min", m)
}

// Seconds prints a time [s] inside a sentence: "50 s", "3 min", "3 min 5 s". A colon would look like
// the time of a subtitle to whoever reads the text back.
func Seconds(s float64) string {
	n := int(math.Round(s))
	switch {
	case n < 60:
		return fmt.Sprintf("%d s", n)
	case n%60 == 0:
		return fmt.Sprintf("%d min", n/60)
	}
	return fmt.Sprintf("%d min %d s", n/60, n%60)
}

// Clock prints a time [s] as a clock shows it: "3:05".
func Clock(s float64) string {
	n := int(math.Round(s))
	return fmt.Sprintf("%d:%02d", n/60, n%60)
}
