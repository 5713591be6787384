package batter

// ShellShare is the part of an egg in its shell that is shell and membrane (common practice: 11 to
// 13 %).
const ShellShare = 0.12

// EggSize is what a country calls an egg.
type EggSize struct {
	Where, Name string
	ShellG      float64 // in the shell
}

// EdibleG is what is in it [g].
func (e EggSize) EdibleG() float64 { return (1 - ShellShare) * e.ShellG }

const dozenOunce = 28.349523125 / 12 // g an egg for each ounce a dozen

// EggSizes lists the sizes: in Europe by the middle of the class (Commission Regulation (EC) No
// 589/2008, Article 4), in the US and Canada by the least weight of a dozen (USDA size classes, from
// memory), in Australia by the average that cartons state (from memory).
var EggSizes = []EggSize{
	{"Europe, UK", "small", 50}, {"Europe, UK", "medium", 58}, {"Europe, UK", "large", 68}, {"Europe, UK", "very large", 76},
	{"US, Canada", "medium", 21 * dozenOunce}, {"US, Canada", "large", 24 * dozenOunce}, {"US, Canada", "extra large", 27 * dozenOunce}, {"US, Canada", "jumbo", 30 * dozenOunce},
	{"Australia", "large", 52}, {"Australia", "extra large", 60}, {"Australia", "jumbo", 68},
}
