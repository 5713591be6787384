package device

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// The greeting of a device: "hello scale 1" or "hello refractometer 1", and "simulated" after
// it for a stand-in.
const (
	greetScale         = "hello scale 1"
	greetRefractometer = "hello refractometer 1"
	simulatedWord      = "simulated"
	maxLine            = 200 // bytes; a longer one is nonsense
)

// gramsPerOunce is exact by the definition of the pound.
const gramsPerOunce = 28.349523125

// weightLine writes a reading of a scale.
func weightLine(w Weight, decimals int) string {
	switch {
	case w.Over:
		return "w over"
	case w.Steady:
		return fmt.Sprintf("w %.*f steady", decimals, w.Grams)
	}
	return fmt.Sprintf("w %.*f moving", decimals, w.Grams)
}

// parseWeight reads a line of a scale; ok is false when it is not a reading.
func parseWeight(line string) (w Weight, ok bool) {
	f := strings.Fields(line)
	unit := 1.0
	if len(f) == 4 && (f[3] == "g" || f[3] == "oz") {
		if f[3] == "oz" { // somebody switched it: what is worked with are grams
			unit = gramsPerOunce
		}
		f = f[:3]
	}
	switch {
	case len(f) == 2 && f[0] == "w" && f[1] == "over":
		return Weight{Over: true}, true
	case len(f) != 3 || f[0] != "w" || f[2] != "steady" && f[2] != "moving":
		return Weight{}, false
	}
	g, err := strconv.ParseFloat(f[1], 64)
	if err != nil || math.IsNaN(g) || math.Abs(g) > 1e6 {
		return Weight{}, false
	}
	return Weight{Grams: unit * g, Steady: f[2] == "steady"}, true
}

// parseReading reads the answer of a refractometer: "brix 13.2 27.5".
func parseReading(line string) (Reading, bool) {
	f := strings.Fields(line)
	if len(f) != 3 || f[0] != "brix" {
		return Reading{}, false
	}
	b, err1 := strconv.ParseFloat(f[1], 64)
	c, err2 := strconv.ParseFloat(f[2], 64)
	if err1 != nil || err2 != nil || !(b >= 0 && b <= 100) || !(c > -40 && c < 150) {
		return Reading{}, false
	}
	return Reading{b, c}, true
}
