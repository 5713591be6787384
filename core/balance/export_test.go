package balance

// LeastChange is the inner problem of a stage, for the tests that hold it against another method.
var LeastChange = leastChange

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"culturedMore":  culturedMore,
	"loosens":       loosens,
	"tangLeft":      tangLeft,
	"saltySodium":   saltySodium,
	"StructureWarn": StructureWarn,
	"knitsAsNuts":   knitsAsNuts,
	"starchSwells":  starchSwells,
	"starchSwollen": starchSwollen,
	"dryKeeps":      dryKeeps,
}
