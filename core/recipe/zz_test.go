package recipe

import (
	"fmt"
	"os"
	"strings"
	"testing"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

func TestZZ(t *testing.T) {
	text := os.Getenv("TALK")
	if f := os.Getenv("TALKNAME"); f != "" {
		d, _ := os.ReadFile("testdata/bowls_open.txt")
		_, a, _ := strings.Cut(string(d), "\n== "+f+"\n")
		text, _, _ = strings.Cut(a, "\n--\n")
	}
	r := reader{names: indexOf(food.Reference()), kitchen: batter.DefaultKitchen()}
	w := join(piecesOf(text), false)
	for _, x := range w.sentences() {
		s := r.listen(w.text[x[0]:x[1]], x[0])
		for _, c := range s.cues() {
			fmt.Printf("cue %d %q %s\n", c.does, s.said[s.toks[c.start].at:s.toks[c.end-1].to], c.place)
		}
		for _, it := range s.items() {
			id := ""
			if len(it.lines) > 0 && it.lines[0].Ingredient != nil {
				id = it.lines[0].Ingredient.ID
			}
			fmt.Printf("  item %q %s named=%v bare=%v inst=%v\n", s.said[s.toks[it.start].at:s.toks[it.end-1].to], id, it.named, it.bare, it.instead)
		}
	}
	out := ReadText(text, food.Reference(), batter.DefaultKitchen())
	for _, l := range out.Lines {
		id := "?"
		if l.Ingredient != nil {
			id = l.Ingredient.ID
		}
		fmt.Printf("%-20s %6g %-5s %-8s pot%d %s %q asks=%q note=%q\n", id, l.Amount, l.Unit, l.Place, l.Pot, l.Status, l.Text, l.Asks, l.Note)
	}
	fmt.Println(out.Pots)
}
