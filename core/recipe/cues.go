package recipe

import (
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// deed is what a cue tells of the foods around it.
type deed int

const (
	potBegins   deed = iota // another pot is talked of from here on
	batterAgain             // the batter is talked of from here on
	there                   // what stands right before it goes to the place, else what follows
	rightBefore             // what stands right before it goes to the place
	ahead                   // what follows goes to the place
	before                  // what was named last goes to the place
	sinceThen               // all since the pot or the batter was begun goes to the place
	intoBatter              // what was named last goes into the batter
	backIn                  // the fat that it names goes into the batter after all
	notMeant                // the food that it ends with is not in it
	notNext                 // what follows at once is not in it
	goesOn                  // it says nothing of what is talked of
	perhaps                 // what follows is asked: it is said with an if
	mine                    // what somebody else was said to take before is not in it
	nothingOf               // what was named last is not in it
)

// cue is a shape by which a talk tells where a food goes, or that it is not meant.
type cue struct {
	text  string // its shape as it is written
	is    shape
	does  deed
	place batter.Place
	fats  bool // only a fat goes there
}

// cues in the order in which they are tried at each word.
var cues = func() (out []cue) {
	row := func(does deed, place batter.Place, shapes ...string) {
		for _, s := range shapes {
			out = append(out, cue{s, shapeOf(s), does, place, place == batter.InPan})
		}
	}
	row(goesOn, "",
		"as much|many", "not scooped|packed|sifted|level|heaped|melted|cold|hot|warm|too|all|more",
		"well|hole|dip|crater in the middle|centre|center",
		"in|into ?a|the ?~ pan|saucepan|pot to melt", "melt|melted ?~ ?~ in|into a|the ?~ pan|saucepan|pot|microwave")
	row(batterAgain, "",
		"for|to the|our|my|these ?~ BATTER",
		"back to the|our|my|these ?~ BATTER",
		"the|our|my|these ?~ BATTER ?itself|themselves is|are|has|have|takes|take|needs|need|gets SOON",
		"now|so|then|and|okay ?for the|our|my BATTER",
		"in|into ?to a|another|the|one|this|your|that|my ?~ ?mixing bowl|jug|blender",
		"START ?the|our BATTER END", "now ?the|our BATTER SOON", "meanwhile SOON")
	row(sinceThen, batter.Middle, "that|this|it is|was|goes ?all for ?the inside|filling|middle")
	row(sinceThen, batter.OnTop, "that|this|it is|was|goes ?all for ?the top|topping")
	row(potBegins, "",
		"for the|my|our ?~ POT which|its|i|we|you|im|were", "START for the|a|my|our|this ?~ ?~ POT",
		"START ?and for the|my|our ?~ FRUIT :", "START ?and for the|my|our ?~ FRUIT ?you|we|i take|need|use|put|cook|have SOON", "START ?and the|my|our POT COMMA",
		"while|meanwhile those|they|these|it|that ?~ cook|cooks|bake|bakes|fry|fries i|we|you ?also make|do|cook|candy|fry|stew|heat|whip|put", "drizzle|spread|dip ?which is SOON", "the|my|our|this ?~ POT ?first is|takes|needs|gets|has|goes ?in|into SOON",
		"the|my|our|this ?~ POT goes on first|now",
		"START ?for the|my|our ?~ POT ?first|now SOON",
		"do|make|start|begin|cook|prepare|making ?with the|a|my|our ?~ POT",
		"POT :", "START POT first|now|next",
		"in|into ?to a|another|the ?~ saucepan",
		"in|into ?to a|another|the small|little|second pan|pot|skillet",
		"in|into a|the pot",
		"a ?~ pan|pot|saucepan with SOON",
		"what|that we|you|i pour|spoon|drizzle ?on|over is|are")
	row(intoBatter, "", "into|in ?to the|our ?~ BATTER|bowl|mix|mixture")
	row(backIn, "", "the|that|your|our ?browned|melted|cooled|nutty FOOD ?goes|go|comes ?back in|into")
	row(before, batter.OnTop,
		"those|they|these|it go|goes on ?top once|when|after|last",
		"i|we|you scatter|sprinkle|lay|put|press|drop|strew them|it|those|these on|over",
		"i|we|you pour|spoon|drizzle|brush ?it|them|that over",
		"scatter|scattered|sprinkled|strewn on|over")
	row(rightBefore, batter.OnTop, "go|goes on ?top once|when|after|last|in|right", "on|over it|them|these|those|top END", "on|over it|them|these right|straight away", "on there END", "on each ?one END")
	row(there, batter.InPan,
		"in|into|for|on ?to the|a|your|my|our ?whole|hot|cast ?frying|iron pan|skillet|griddle|iron",
		"in|for the|each ?~ pan|skillet",
		"for ?the frying|greasing|cooking|brushing",
		"for each|every ?one|pancake|crepe|waffle")
	row(ahead, batter.InPan,
		"fry|fried|fries|frying|baked|go|goes|cook|cooked ?them|it ?all|slowly|gently in FAT",
		"grease|greased|greasing|wipe|wiped|brush|brushed|coat|slick ?~ ?~ with FAT",
		"in plenty|lots of FAT", "dipped|soaked in FAT", "pan|griddle|skillet and ?some|the|a ?little FAT", "on|over ?a low|medium|high|gentle ?heat ?with|in FAT", "pan|pans|skillet|griddle|iron|tin ?is in|into the oven with FAT",
		"into ?hot|the|some ?hot ?olive|sunflower|vegetable|rapeseed oil|lard|ghee", "into hot|foaming|sizzling butter", "with ?the spray", "oil|butter|spray|grease the|your|my ?~ pan|griddle|skillet|iron|plate",
		"heat|heated|warm ?up ?the|a|your ?~ ?~ pan|skillet|griddle|iron", "greased|buttered|oiled pan|skillet|griddle|iron")
	row(there, batter.OnSide,
		"on the side", "beside|alongside", "next to it|them", "with it|them ?there ?is|are|goes|comes|go|come")
	row(there, batter.Serving, "thats|is how you|we|i eat|have|like|serve", "to serve|finish END", "go|goes|stand|stands|is|are on the table")
	row(ahead, batter.Serving,
		"per ?one|each BATTER ?you|we|i ?need|take|put SOON",
		"serve|serves|served|serving ?it|them|these ?warm|hot ?up with", "?to eat|serve ?it|them ?~ with", "well|good|great|lovely|nice with", "on the plate", "START to serve|finish SOON", "for serving SOON")
	row(there, batter.Middle,
		"inside ?goes|go|comes|come|is|are|you|we|i ?lay|put|spread", "in the middle ?goes|go|comes|is|are", "goes|comes|go|come inside ?is|are")
	row(ahead, batter.Middle, "fill|filled|spread ?it|them ?~ with")
	row(there, batter.OnTop,
		"on ?the top ?goes|go|comes|come|is|are|then|now|i|we ?put|lay|is|are NOTOF")
	row(ahead, batter.OnTop,
		"START for the top ?i|we|you|there ?have|take|put|is|are",
		"i|we|you|they press|push|poke|drop|lay|scatter|sprinkle ?the|some FOOD in|on|over", "i|we|you|they press|push|drop|scatter|sprinkle ?a ~ ?full ?of FOOD in|on|over",
		"over everything|them", "over the lot|top", "top|topped|dust|dusted|sprinkle|finish|finished|drizzle|drizzled|scatter ?it|them ?off with",
		"for rolling|dusting|coating|sprinkling|decorating", "rolled|roll|tossed|toss|dredged|coated ?them ?it in")
	row(notMeant, "",
		"no|not|never|without|skip CLOSE ?any|a|the|even|more ?~ FOOD", "instead of ?the|any ?~ FOOD",
		"dont|doesnt|didnt|wont|never|not ?even ?ever need|put|add|use|want|take|have|like ?any|the|a ?~ FOOD",
		"you|they|he|she can|could|may|might ?also|even put|add|use|have|do|throw|take ?any|a|an|the|some ?~ FOOD",
		"RELATIVE ?always|never puts|adds|uses|takes|does|likes|put|add ?a|an|the|some ?~ FOOD",
		"some|people|others|everybody|everyone ?people ?will ?me put|puts|add|adds|use|uses|take|say|says|tell|swear ?~ ?put|add|use ?in|by ?a|an|the|some FOOD",
		"COMPARED like|than|unlike|resembles|as ?with|for ?a|an|the|my|your|in ?usual|normal|~ FOOD")
	row(notNext, "",
		"dont|doesnt|didnt|wont|never ?even ?ever need|put|add|use|want|take", "RELATIVE ?always|never puts|adds|uses|takes|does|likes|put|add",
		"some|people|others|everybody|everyone ?people put|puts|add|adds|use|uses|take|say|says", "yesterday|sometimes|usually|once it|we|i|its was|used|took|had|take|use", "the recipe|book|packet|bag|box|label ?it says|wants|asks ?for", "theyd|youd|hed|shed|somebody|someone ?would put|add|use|have|throw", "some|most|other ~ ?will swear|put|add|use|take|say|throw ?in|by",
		"instead of ?the|any")
	row(nothingOf, "",
		"but ?~ somebody|someone|others else does|do|makes|brings",
		"i|we ?always|just leave|leaves it|that|them out", "i|we ?always skip it|that|them", "but|though i|we|mine never|dont ?ever need|use|add|put|do|take ?it|that NOFOOD",
		"i|we|mine never|dont ?ever need|use|add|put|do|take ?it|that|any|one END", "but|though i|we|mine never|dont END",
		"if you want|like ?it|that ?but i|we dont|never|leave")
	row(mine, "", "START mine|ours :", "START mine|ours is|are|has SOON", "START i ?do|make mine|ours with SOON")
	row(perhaps, "",
		"if i|we|you add|use|put|do|throw", "if it|its|they|theyre|you|thats|youre ~ ?~ ?~ ?~", "you|they can|could|may|might ?also|even put|add|use|have|do|throw|take", "when its|it|they|theyre ?is|are too ~", "maybe|perhaps|optionally ?even")
	return out
}()

// told is a cue as it stands in a sentence.
type heardCue struct {
	cue
	start, end int // tokens
}

// cuesIn are the cues of a sentence in their order.
func (s *speech) cues() (out []heardCue) {
	for i := 0; i < len(s.toks); i++ {
		for _, c := range cues {
			end, ok := s.matches(c.is, i)
			if !ok || end <= i {
				continue
			}
			if n := s.starts[i]; n > 0 && s.qs[n-1].end > i+1 && (s.text(s.qs[n-1].end) == "of" || s.qs[n-1].size > 0) { // "a pot" of something is an amount
				continue
			}
			out = append(out, heardCue{c, i, end})
			i = end - 1
			break
		}
	}
	return out
}

// Words of a second pot, and where it goes when nothing else is said; of the batter; and of whoever does it otherwise.
var (
	pots = map[string]batter.Place{
		"syrup": batter.OnTop, "caramel": batter.OnTop, "toffee": batter.OnTop, "compote": batter.OnTop, "sauce": batter.OnTop, "coulis": batter.OnTop, "topping": batter.OnTop,
		"glaze": batter.OnTop, "icing": batter.OnTop, "frosting": batter.OnTop, "custard": batter.OnTop, "ganache": batter.OnTop, "crumble": batter.OnTop, "streusel": batter.OnTop,
		"filling": batter.Middle, "stuffing": batter.Middle,
	}
	batters   = set("batter pancake crepe waffle fritter galette hotcake dough")
	relatives = set("sister brother mother father mum mom dad aunt uncle grandmother grandma granny nan neighbour neighbor husband wife friend cousin son daughter kid colleague")
)

// potAt is one where a word of a pot stands that is not part of a food's name: "golden syrup" is none, "icing sugar" neither.
func potAt(s *speech, i int) int {
	if s.text(i) == "whipped" && s.text(i+1) == "cream" {
		return 2
	}
	if _, ok := pots[stem(s.text(i))]; !ok {
		return 0
	}
	for from := max(0, i-longestName+1); from <= i; from++ {
		if in, n := s.r.names.exactly(s.toks[from:]); n > 1 && from+n > i && in != nil {
			return 0
		}
	}
	return 1
}

// inBatterOnly are foods with which the batter is talked of again, whatever pot was before (modelling choice).
func inBatterOnly(in *food.Ingredient) bool {
	return in != nil && (in.Role == food.RoleFlour || in.CO2 > 0 || in.IsWholeEgg())
}
