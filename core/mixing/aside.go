package mixing

import (
	"fmt"

	"upbeatladle/core/batter"
	"upbeatladle/core/words"
)

// asides tells what is made of what goes on in a part of the morning, and at the last what is warmed.
func (o *order) asides(when batter.MadeWhen) {
	say := func(a Aside, n int, text string) {
		code := map[batter.MadeWhen]string{batter.MadeBefore: CodeAsideFirst, batter.MadeResting: CodeAside, batter.MadeAtLast: CodeAsideLast}[when]
		lead := a.Name
		if n == 0 {
			lead = fmt.Sprintf("%s, %s for all", a.Name, words.Grams(a.Grams, 1))
		}
		s := o.step(nil, "%s: %s", lead, text)
		s.Code = code
		if n == 0 {
			s.Mind = a.Mind
			if a.Tub != nil {
				s.Tub, s.TubG = a.Tub, a.Grams
			}
		}
	}
	for _, a := range o.Asides {
		switch {
		case a.When == when && a.Tub != nil:
			say(a, 0, "it is there, take it out of its tub.")
		case a.When == when:
			for n, text := range a.Steps {
				say(a, n, words.Lower(text))
			}
		}
		if when == batter.MadeAtLast && a.Serve != "" {
			say(a, 1, words.Lower(a.Serve))
		}
	}
}
