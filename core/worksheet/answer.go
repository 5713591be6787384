package worksheet

import (
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/core/mixing"
	"upbeatladle/core/portion"
	"upbeatladle/core/prep"
	"upbeatladle/core/safety"
)

// The answer to a variation, as it is shown and as it goes out: a tag is the name of a figure on
// the wire. What does not apply is nil or left out. Masses in g, volumes in ml, lengths in mm,
// times in min, stresses in Pa, unless the name says otherwise.

// Worksheet is the answer to a variation.
type Worksheet struct {
	Lines               []Line           `json:"lines"`
	Gauges              Gauges           `json:"gauges"`
	Batter              Batter           `json:"batter"`
	Portion             Portion          `json:"portion"`
	Parts               []ServedPart     `json:"parts,omitzero"` // for the pan and the table
	Plate               *Plate           `json:"plate,omitzero"`
	ProposedName        string           `json:"proposed_name,omitzero"`         // when asked for
	NutritionPerPortion *Nutrients       `json:"nutrition_per_portion,omitzero"` // nil when the bowl fills no portion, or nobody asked
	NutritionPer100G    *Nutrients       `json:"nutrition_per_100g,omitzero"`
	PanFatG             float64          `json:"pan_fat_g,omitzero"` // a portion, when it is counted
	Served              *Served          `json:"served,omitzero"`    // with what goes on, when somebody said how much
	Cost                *Cost            `json:"cost,omitzero"`      // nil while nothing has a price
	Allergens           []string         `json:"allergens"`
	AllergensEU         []string         `json:"allergens_eu"`
	AllergensUS         []string         `json:"allergens_us"`
	MayContain          []string         `json:"may_contain"`
	Cooked              safety.Allergens `json:"-"`             // of what is cooked, without what goes on at the table
	Suspects            []string         `json:"-"`             // contained, in some makes, or not known: for leaving out
	AllergenText        string           `json:"allergen_text"` // all of it in one line
	Verdict             []Verdict        `json:"verdict"`
	Cautions            []safety.Caution `json:"cautions"`
	WeighOut            []mixing.Bowl    `json:"weigh_out"` // the lines by the bowl they go into, in the order of work
	Mixing              []mixing.Step    `json:"mixing"`
	Cook                *Cook            `json:"cook,omitzero"` // when it was asked for
	Notes               []Note           `json:"notes"`
	Held                []batter.Hold    `json:"held"`                // what the offsets hold, the defaults filled in
	Strategies          []Preview        `json:"strategies,omitzero"` // when it was asked for
	Working             []Working        `json:"working,omitzero"`    // likewise
}

// Served is a serving with what goes on it.
type Served struct {
	ToppingsG float64 `json:"toppings_g"`
	SugarsG   float64 `json:"sugars_g"`        // of the whole serving
	OnTopG    float64 `json:"sugars_on_top_g"` // of that
	HoldBackG float64 `json:"hold_back_g"`     // of the bowl's sugar
	Text      string  `json:"text"`

	Drawn []OnPortion `json:"drawn,omitzero"` // to scale, on one portion
}

// OnPortion is something that goes on a portion, to scale [mm]; from the middle of the portion.
type OnPortion struct {
	Text   string        `json:"text"`
	Place  batter.Place  `json:"place"`
	Shape  portion.Shape `json:"shape"`
	Colour string        `json:"colour"`
	WideMM float64       `json:"wide_mm"`
	HighMM float64       `json:"high_mm"`
	X      float64       `json:"x_mm"`
	Y      float64       `json:"y_mm"`
	Pieces int           `json:"pieces,omitzero"`
}

// ServedPart is something of a serving that is not in the batter.
type ServedPart struct {
	Kind       batter.Place `json:"kind"`
	Text       string       `json:"text"`
	Allergens  []string     `json:"allergens,omitzero"`
	MayContain []string     `json:"may_contain,omitzero"`

	Each  []food.Part   `json:"-"` // of it on a portion, where somebody said how much
	Pan   *food.Part    `json:"-"` // of the pan: what it is, and how much the whole batch takes; 0 g when that is not known
	House *batter.House `json:"-"` // a sauce of the house

	Unknown bool `json:"-"` // nobody knows what is in it
}

// Include names what is worked out only for whoever asks for it: half of the time, half of the
// bytes.
type Include struct {
	Working    bool // how each figure came about
	Strategies bool // what the other ways to offset would do
	Cook       bool // how hot and how long, and the steps at the plate
	Curves     bool // that, with the course of it
	Cups       bool // steps and verdict in cups and spoons, where that can be
	HeatLine   bool // how hot and how long, and nothing of why: a third of the time, for a card
	Choices    bool // what each ladle and scoop would give
	Drawing    bool // a portion with its pieces to scale, and how they fall from portion to portion
	Nutrition  bool // of a portion and of 100 g
	Name       bool // what it is called while nobody has named it
}

// Everything is all that is told of a worksheet; curves are drawn, and asked for by name.
var Everything = Include{Working: true, Strategies: true, Cook: true, Choices: true, Drawing: true, Nutrition: true}

// State of a ledger line.
type State string

// The states.
const (
	AsItIs State = "as_it_is"
	Less   State = "less"
	More   State = "more"
	Pinned State = "pinned"
	Stuck  State = "stuck"
)

// Where a ledger line comes from.
const (
	FromBase     = "base"
	FromAddition = "addition"
)

// Line is one row of the ledger.
type Line struct {
	ID          string           `json:"id"`
	Ingredient  string           `json:"ingredient"`
	Name        string           `json:"name"`
	Label       string           `json:"label"`
	Role        food.Role        `json:"role"`
	From        string           `json:"from"`
	Stage       batter.Stage     `json:"stage,omitzero"`       // of an addition
	Base        *float64         `json:"base_g,omitzero"`      // nil for an addition
	ActsLike    *float64         `json:"acts_like_g,omitzero"` // base plus what the additions bring of the same thing
	Offset      *float64         `json:"offset_g,omitzero"`    // weigh-out less base; 0 when the line stays as it is
	Weigh       float64          `json:"weigh_g"`              // what to weigh out
	RoundedFrom float64          `json:"rounded_from_g"`       // the same before rounding
	spoonedFrom float64          // g that cups and spoons are told from: as the recipe has it where nothing changed
	Step        float64          `json:"step_g"`                // of the scale it is weighed on
	Decimals    int              `json:"decimals"`              // that its grams are told with
	Measure     string           `json:"measure,omitzero"`      // in cups and spoons; empty when not known
	MeasureG    *float64         `json:"measure_g,omitzero"`    // what the cups and spoons really give
	DryTo       *float64         `json:"dry_to_g,omitzero"`     // what an addition is to be dried to
	Prepared    *Prepared        `json:"prepared,omitzero"`     // of an addition that is prepared first
	Treatments  []prep.Named     `json:"treatments,omitzero"`   // preparations that suit an addition
	Own         *food.OwnFigures `json:"own,omitzero"`          // when the figures are the cook's
	State       State            `json:"state"`                 //
	Brings      *Brings          `json:"brings,omitzero"`       // of an addition in the bowl
	Allergens   []string         `json:"allergens,omitempty"`   // of what goes in,
	MayContain  []string         `json:"may_contain,omitempty"` // and of some makes of it
	AsRead      string           `json:"as_read,omitzero"`      // what a recipe calls it, where it is only taken for this
	Dose        *batter.Dose     `json:"dose,omitzero"`         // of an addition
	Colour      string           `json:"colour,omitzero"`
}

// Prepared is what a preparation makes of an addition: so many grams go into the bowl.
type Prepared struct {
	Label string       `json:"label"`
	Grams float64      `json:"grams"`
	Kept  float64      `json:"kept_g"` // juice that is kept
	Work  *prep.Result `json:"-"`
}

// Brings is what an addition gives to the batter between the pieces.
type Brings struct {
	Water  float64 `json:"water_g"`
	Sugars float64 `json:"sugars_g"`
}

// GaugeState says where the weighed batter lies.
type GaugeState string

// The gauge states.
const (
	Level   GaugeState = "level"
	InBand  GaugeState = "in_band"
	Low     GaugeState = "low"
	High    GaugeState = "high"
	Unknown GaugeState = "unknown"
)

// Gauges are the properties that a batter is judged by.
type Gauges struct {
	Thickness Gauge `json:"thickness"`
	Moisture  Gauge `json:"moisture"`
	Sweetness Gauge `json:"sweetness"`
	Lift      Gauge `json:"lift"`
	Tang      Gauge `json:"tang"`
	Salt      Gauge `json:"salt"`
	Structure Gauge `json:"structure"`
}

// All lists the gauges in the order in which they are shown.
func (g *Gauges) All() []*Gauge {
	return []*Gauge{&g.Thickness, &g.Moisture, &g.Sweetness, &g.Lift, &g.Tang, &g.Salt, &g.Structure}
}

// Gauge returns the gauge of a key; the zero gauge for any other.
func (w *Worksheet) Gauge(key string) Gauge {
	for _, g := range w.Gauges.All() {
		if g.Key == key {
			return *g
		}
	}
	return Gauge{}
}

// Gauge compares the plain base, the batter without offsets, the batter as weighed, and the
// same measured out by cups and spoons. A figure that does not exist is nil.
type Gauge struct {
	Key         string     `json:"-"`
	Label       string     `json:"label"`
	Unit        string     `json:"unit"`
	OfBase      *float64   `json:"base,omitzero"`   // of the reference: the plain base, or the recipe as written
	Target      *float64   `json:"target,omitzero"` // that it was pulled to
	OfAll       *float64   `json:"with_additions,omitzero"`
	OfWeighed   *float64   `json:"after,omitzero"`
	OfMeasured  *float64   `json:"by_measure,omitzero"`
	Low         *float64   `json:"low,omitzero"` // of the band; nil when the form is not judged
	High        *float64   `json:"high,omitzero"`
	State       GaugeState `json:"state"`
	Verdict     string     `json:"verdict"`      // one to three words
	VerdictText string     `json:"verdict_text"` // one clause
	LowText     string     `json:"low_text"`     // what the low end means
	HighText    string     `json:"high_text"`    // and the high one
	Decimals    int        `json:"decimals"`     // that the figure is worth
	Pull        *Pull      `json:"pull,omitzero"`
}

// Pull is how a gauge is pulled away from the reference: where it stands, how far it goes, and its
// step, in what offset.targets takes and in the gauge's unit.
type Pull struct {
	Hold   batter.Hold `json:"hold"`
	At     float64     `json:"at"`
	Rest   float64     `json:"rest"` // as the reference
	Low    float64     `json:"low"`
	High   float64     `json:"high"`
	Step   float64     `json:"step"`
	Figure float64     `json:"step_figure"` // what a step moves the gauge
	Text   string      `json:"text"`        // where it stands, in words

	Choices []PullChoice `json:"choices,omitzero"` // in words, where words are enough
}

// PullChoice is a place to pull a gauge to that has a word of its own.
type PullChoice struct {
	At     float64 `json:"at"`
	Text   string  `json:"text"`
	Chosen bool    `json:"chosen"`
}

// Base is the figure of the plain base; NaN when there is none.
func (g Gauge) Base() float64 { return orNaN(g.OfBase) }

// With is the figure with the additions and no offset.
// Goal is where the offsets want it: where it was pulled to, else the reference's.
func (g Gauge) Goal() float64 {
	if g.Target != nil {
		return *g.Target
	}
	return g.Base()
}

func (g Gauge) With() float64 { return orNaN(g.OfAll) }

// After is the figure as weighed.
func (g Gauge) After() float64 { return orNaN(g.OfWeighed) }

// ByMeasure is the figure as cups and spoons give it.
func (g Gauge) ByMeasure() float64 { return orNaN(g.OfMeasured) }

// Band is where the figure usually lies; false when the form is not judged.
func (g Gauge) Band() (batter.Band, bool) {
	if g.Low == nil || g.High == nil {
		return batter.Band{}, false
	}
	return batter.Band{Low: *g.Low, High: *g.High}, true
}

func orNaN(v *float64) float64 {
	if v == nil {
		return math.NaN()
	}
	return *v
}

// finite is a figure, or nil when it does not exist.
func finite(v float64) *float64 {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return nil
	}
	return &v
}

// Pour is how the batter runs at one moment.
type Pour struct {
	When          string     `json:"when"`
	Minutes       *float64   `json:"at_min,omitzero"` // nil: once everything has settled
	YieldStressPa float64    `json:"yield_stress_pa"`
	Class         flow.Class `json:"class"`
}

// Batter describes the bowl as weighed.
type Batter struct {
	MassG         float64    `json:"mass_g"`
	BaseG         float64    `json:"base_g"`   // of the base's lines, before their offsets; on whole grams
	OffsetG       float64    `json:"offset_g"` // what the offsets move them by
	AddedG        float64    `json:"added_g"`  // what goes into the bowl besides: all three add up to it
	FoldInG       float64    `json:"fold_in_g,omitzero"`
	VolumeML      float64    `json:"volume_ml"`
	DensityGML    float64    `json:"density_g_ml"`
	FlourG        float64    `json:"flour_g"` // of the base, which doses are counted against
	WaterG        float64    `json:"water_g"` // whole account of the bowl
	SugarsG       float64    `json:"sugars_g"`
	YieldStressPa *float64   `json:"yield_stress_pa,omitzero"`
	PoursNowPa    *float64   `json:"pours_now_pa,omitzero"`
	AfterRestPa   *float64   `json:"after_rest_pa,omitzero"`
	Class         flow.Class `json:"class,omitzero"`  // empty when not judged
	Should        string     `json:"should,omitzero"` // how it pours when it is right, in words
	AcidMeq       float64    `json:"acid_meq"`        // batter account
	SodaToAcid    *float64   `json:"soda_to_acid,omitzero"`
	GasML         *float64   `json:"gas_ml_per_100g,omitzero"` // per 100 g flour-type body, 25 °C; nil without any
	Pours         []Pour     `json:"pours,omitzero"`           // now, after the rest, settled; none when not judged
	Colour        *Tint      `json:"colour,omitzero"`
}

// Tint is a rough colour of the batter with its reason.
type Tint struct {
	Hex    string `json:"hex"`
	Reason string `json:"reason"`

	of *food.Ingredient // the addition that tints it most; nil when none does
}

// Portion is one portion and how many there are.
type Portion struct {
	Count      int         `json:"count"`
	OneCake    bool        `json:"one_cake,omitzero"` // the whole bowl as one
	MayBeOne   bool        `json:"may_be_one_cake,omitzero"`
	VolumeML   float64     `json:"volume_ml"`
	MassG      float64     `json:"mass_g"`
	DiameterMM *float64    `json:"diameter_mm,omitzero"` // nil when the form has no free spread
	Spread     *Spread     `json:"spread,omitzero"`      // nil in an iron, and where nobody can say
	PouredMM   *float64    `json:"poured_mm,omitzero"`
	CookedMM   *float64    `json:"cooked_mm,omitzero"` // thickness once it has risen
	LeftOverML float64     `json:"left_over_ml"`       // beyond the whole portions and what sticks to the bowl
	Reason     string      `json:"reason,omitzero"`    // why there is no diameter
	Inclusions []Inclusion `json:"inclusions,omitzero"`
	Load       *Load       `json:"load,omitzero"`
	Drawing    *Drawing    `json:"drawing,omitzero"`
	Choices    []Choice    `json:"choices,omitzero"` // ladles and scoops
}

// Spread is how wide a portion lies on the plate, and who makes it so. Diameters in mm.
type Spread struct {
	By       batter.SpreadBy `json:"by"`
	ToMM     float64         `json:"to_mm"`
	ItselfMM float64         `json:"itself_mm"` // left alone
	Chosen   bool            `json:"chosen"`    // by the cook; else what form and thickness ask for
	LowMM    float64         `json:"low_mm"`    // what a hand can make of it; where it runs so wide by itself, it is left alone
	HighMM   float64         `json:"high_mm"`
	Text     string          `json:"text,omitzero"` // what the cook does
}

// Choice is a ladle or scoop with what it would give.
type Choice struct {
	ID         string   `json:"ladle_id,omitzero"`
	ScoopNo    float64  `json:"scoop_no,omitzero"` // 0 for a ladle of the kitchen's own
	Name       string   `json:"name"`
	VolumeML   float64  `json:"volume_ml"`
	Count      int      `json:"count"`
	DiameterMM *float64 `json:"diameter_mm,omitzero"`
}

// Inclusion is what the pieces of one addition do in a portion.
type Inclusion struct {
	LineID      string          `json:"line"`
	Ingredient  string          `json:"ingredient"`
	Label       string          `json:"label"`
	Placing     portion.Placing `json:"placing"`
	Grams       float64         `json:"grams"`       // a portion
	Mean        float64         `json:"pieces_mean"` // pieces a portion that gets it
	P10         int             `json:"pieces_p10"`
	P90         int             `json:"pieces_p90"`
	None        float64         `json:"chance_none"`           // of a portion without a piece
	FewerK      int             `json:"fewer_than,omitzero"`   // and the chance of one
	Fewer       *float64        `json:"chance_fewer,omitzero"` // with fewer than so many
	BiteShare   float64         `json:"bite_share"`
	Sinks       bool            `json:"sinks"`
	Floats      bool            `json:"floats,omitzero"`
	LengthMM    float64         `json:"length_mm"` // of a piece as it lies
	WidthMM     float64         `json:"width_mm"`
	HeightMM    float64         `json:"height_mm"`
	Share       float64         `json:"share_of_bowl"`  // of the portions that get it
	Cover       float64         `json:"cover,omitzero"` // of the portion's area, for slices under the batter
	FirstToLast []float64       `json:"first_to_last,omitzero"`
	Histogram   []float64       `json:"histogram,omitzero"` // chance of so many pieces, a column for every Step from From on
	From        int             `json:"histogram_from"`
	Step        int             `json:"histogram_step,omitzero"`
	Colour      string          `json:"colour,omitzero"`
}

// Load is how much of a portion is pieces.
type Load struct {
	Fraction float64 `json:"volume_fraction"`
	Ceiling  float64 `json:"ceiling"`
	Verdict  string  `json:"verdict"` // within · close · over
	Text     string  `json:"text"`
	OverG    float64 `json:"over_g,omitzero"` // g of pieces a portion above the ceiling
}

// Drawing is one portion with its pieces.
type Drawing struct {
	Seed     uint64  `json:"seed"`
	WidthMM  float64 `json:"width_mm"`           // or diameter
	LengthMM float64 `json:"length_mm,omitzero"` // none for a round one
	BiteMM   float64 `json:"bite_mm"`
	Drawn    float64 `json:"drawn_share"` // of the pieces
	Pieces   []Piece `json:"pieces"`
}

// Piece is one piece in the drawing: mm from the middle, height above the plate.
type Piece struct {
	X        float64 `json:"x_mm"`
	Y        float64 `json:"y_mm"`
	Z        float64 `json:"z_mm"`
	LengthMM float64 `json:"length_mm"`
	WidthMM  float64 `json:"width_mm"`
	HeightMM float64 `json:"height_mm"`
	Turn     float64 `json:"turn_deg"` // of its length
	Colour   string  `json:"colour"`
}

// Plate says how a form lies on its plate or in its iron.
type Plate struct {
	Name      string  `json:"name"`
	Fit       int     `json:"fit"`                 // at once
	Rounds    int     `json:"rounds"`              // loads for the whole batch
	Fill      float64 `json:"fill,omitzero"`       // share of the mould, once risen
	AdvisedML float64 `json:"advised_ml,omitzero"` // that fills it well
	WidthMM   float64 `json:"width_mm"`
	DepthMM   float64 `json:"depth_mm"`
	Round     bool    `json:"round,omitzero"`
}

// Cook is how to cook a portion on this kitchen's plate or iron. Times in s, temperatures in °C
// and, beside them, in °F as a dial shows them.
type Cook struct {
	On           string        `json:"on"` // name of the plate or iron; empty when the kitchen has none
	PlateID      string        `json:"plate_id,omitzero"`
	GriddleC     float64       `json:"griddle_c"`
	GriddleF     float64       `json:"griddle_f"`
	GriddleText  string        `json:"griddle_text"`      // in the kitchen's own degrees
	Given        bool          `json:"given,omitzero"`    // the cook said where the plate stands
	WindowC      []float64     `json:"window_c,omitzero"` // in which it comes out well
	WindowF      []float64     `json:"window_f,omitzero"` //
	WindowText   string        `json:"window_text,omitzero"`
	RangeC       []float64     `json:"range_c,omitzero"`   // of the plate
	TrackC       []float64     `json:"track_c"`            // that the heat is chosen from
	HotStart     string        `json:"hot_start,omitzero"` // what is done for one
	Heat         []HeatAsked   `json:"heat,omitzero"`      // in steps, where the cook wants it so
	Own          *OwnCook      `json:"own,omitzero"`       // the cook's own minutes
	Dial         string        `json:"dial,omitzero"`      // the same in the plate's own words
	DialFace     *DialFace     `json:"dial_face,omitzero"` //
	FirstSideS   float64       `json:"first_side_s"`       // of an iron: closed; 0 when it never sets
	SecondSideS  *float64      `json:"second_side_s,omitzero"`
	RangeS       []float64     `json:"range_s,omitzero"` // of practice, where the signs decide
	SecondRangeS []float64     `json:"second_range_s,omitzero"`
	CentreC      *float64      `json:"centre_c,omitzero"` // coldest point, by the model
	ColourFirst  batter.Colour `json:"colour_first,omitzero"`
	ColourSecond batter.Colour `json:"colour_second,omitzero"`
	ShadeFirst   *float64      `json:"shade_first,omitzero"` // 0 raw to 1 black
	ShadeSecond  *float64      `json:"shade_second,omitzero"`
	SignsHot     []string      `json:"signs_hot,omitempty"` // that the plate is hot; none where its dial is mapped
	SignsFirst   []string      `json:"signs_first"`
	SignsSecond  []string      `json:"signs_second"`
	ShownFirst   []string      `json:"shown_first"` // names of their drawings
	ShownSecond  []string      `json:"shown_second"`
	Fat          CookFat       `json:"fat"`
	FirstPiece   string        `json:"first_piece"`
	Reasons      []string      `json:"reasons"`
	Warnings     []string      `json:"warnings"`
	Shades       []Shade       `json:"shades,omitzero"`
	Base         *BaseCook     `json:"base,omitzero"` // the reference on the same plate
	PreheatMin   float64       `json:"preheat_min"`
	StartC       float64       `json:"start_c"` // of the batter
	From         batter.From   `json:"from"`
	Turn         *Turning      `json:"turn,omitzero"`
	Light        bool          `json:"light,omitzero"`    // the iron has one of its own
	ClosedS      float64       `json:"closed_s,omitzero"` // when it came
	Lead         string        `json:"lead"`              // in one line,
	Safe         string        `json:"safe"`              // and what is known of its middle
	Probe        string        `json:"probe,omitzero"`    // what outranks that
	Choices      CookChoices   `json:"choices"`
	Curve        []heat.Moment `json:"curve,omitzero"` // when it was asked for
}

// DialFace is a plate's dial to be drawn: its marks, and places among them from 0.
type DialFace struct {
	Marks  []string  `json:"marks"`
	At     float64   `json:"at"`
	Window []float64 `json:"window,omitzero"`
	Known  bool      `json:"known"` // the kitchen has mapped it
}

// CookFat is the fat of the plate.
type CookFat struct {
	Kind            batter.Fat  `json:"kind,omitzero"` // empty when nobody knows
	When            batter.When `json:"when"`
	Ingredient      string      `json:"ingredient,omitzero"`
	Ingredients     []string    `json:"ingredients,omitzero"`
	Own             bool        `json:"own,omitzero"` // so much for each piece is the cook's
	GramsPerPortion float64     `json:"grams_per_portion"`
	Counted         bool        `json:"counted"` // in nutrition and cost
	Text            string      `json:"text"`
}

// Shade is the minutes that a colour takes on the same plate.
type Shade struct {
	Colour      batter.Colour `json:"colour"`
	FirstSideS  float64       `json:"first_side_s"`
	SecondSideS float64       `json:"second_side_s"`
	Reached     bool          `json:"reached"` // at this heat
}

// BaseCook is the reference's portion on the same plate.
type BaseCook struct {
	GriddleC    float64       `json:"griddle_c"`
	GriddleF    float64       `json:"griddle_f"`
	GriddleText string        `json:"griddle_text"`
	FirstSideS  float64       `json:"first_side_s"`
	SecondSideS *float64      `json:"second_side_s,omitzero"`
	Curve       []heat.Moment `json:"curve,omitzero"`
}

// HeatAsked is a step of the heat, in the order in which they come.
type HeatAsked struct {
	At   batter.HeatAt `json:"at"`
	C    float64       `json:"c"` // 0 where a mark is unknown to this plate
	Mark string        `json:"mark,omitzero"`
	To   string        `json:"to"`   // "4", "165 °C"
	Text string        `json:"text"` // "Down to 4"
}

// OwnState is what becomes of a cook's own minutes.
type OwnState string

// The states.
const (
	OwnOffered OwnState = "offered" // there are none: what the recipe says, or ours to begin with
	OwnUsed    OwnState = "used"
	OwnOutside OwnState = "outside" // they were for another thickness or heat
)

// OwnCook is a cook's own minutes beside ours. In an iron there is one time, closed.
type OwnCook struct {
	State        OwnState       `json:"state"`
	From         batter.OwnFrom `json:"from,omitzero"` // of what is offered
	FirstSideS   float64        `json:"first_side_s"`
	SecondSideS  *float64       `json:"second_side_s,omitzero"`
	OursFirstS   float64        `json:"ours_first_s,omitzero"`
	OursSecondS  *float64       `json:"ours_second_s,omitzero"`
	ShortOfSafeS float64        `json:"short_of_safe_s,omitzero"` // what they lack of what sets the middle on a poor contact too
	PouredMM     float64        `json:"poured_mm,omitzero"`       // what the document says beside them
	GriddleC     float64        `json:"griddle_c,omitzero"`
	Text         string         `json:"text"`
}

// Turning is how one is turned, and how wide it may be for one turner and for two.
type Turning struct {
	How   heat.How `json:"how"`
	OneMM float64  `json:"one_mm"`
	TwoMM float64  `json:"two_mm"`
	Text  string   `json:"text"`
}

// CookChoices are what a cook can choose at the plate.
type CookChoices struct {
	Colours []batter.Colour `json:"colours"`
	Froms   []batter.From   `json:"froms"`
	Fats    []batter.Fat    `json:"fats"`
	Whens   []batter.When   `json:"whens"`
	Lacy    bool            `json:"lacy"`
	HeatC   Reach           `json:"heat_c"`
	SideS   Reach           `json:"side_s"`
	FatG    Reach           `json:"fat_g"`
}

// Reach is between which figures a cook chooses, and by what step of the hand.
type Reach struct {
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	Step float64 `json:"step"`
}

// choicesFor leaves out what a form does not have: nothing is greased at the flip of what is not flipped,
// and only fat that stands on the plate fries an edge crisp.
func choicesFor(f batter.Form, fat batter.Fat) CookChoices {
	c := CookChoices{Colours: batter.Colours, Froms: batter.Froms, Fats: batter.Fats, Whens: batter.Whens, HeatC: Reach(batter.HeatReach), SideS: Reach(batter.SideReach), FatG: Reach(batter.FatReach)}
	if f == batter.Waffle {
		c.Whens = slices.DeleteFunc(slices.Clone(c.Whens), func(w batter.When) bool { return w == batter.AtFlip })
	}
	c.Lacy = f != batter.Waffle && fat != batter.Film && fat != batter.NoFat
	return c
}

// Nutrients of a serving as mixed, and with what is put on it.
type Nutrients struct {
	EnergyKcal   float64 `json:"energy_kcal"`
	Fat          float64 `json:"fat_g"`
	Carbohydrate float64 `json:"carbohydrate_g"` // without fibre
	Sugars       float64 `json:"sugars_g"`
	Fibre        float64 `json:"fibre_g"`
	Protein      float64 `json:"protein_g"`
	Salt         float64 `json:"salt_g"`
	Alcohol      float64 `json:"alcohol_g,omitzero"`
}

// Cost is what a batch and a portion of it cost, in the kitchen's currency, from the prices
// that the pantry knows.
type Cost struct {
	Batch   float64  `json:"batch"`
	Portion float64  `json:"portion"`
	Missing []string `json:"missing"` // what has no price
}

// Verdict is one clause of the line at the foot of the bench.
type Verdict struct {
	Kind   string `json:"kind"`
	Lead   string `json:"lead"`
	Reason string `json:"reason"`
}

// Note is something the cook should know: what gave way, what is not worked out yet.
type Note struct {
	Code string   `json:"code"`
	Kind NoteKind `json:"kind"`
	Line string   `json:"line,omitzero"` // id of the line that it is about
	Text string   `json:"text"`
}

// NoteKind says how a note is meant.
type NoteKind string

// The kinds: something went out of bounds, something to know, and what is known of a recipe that nobody asked to judge.
const (
	Warning NoteKind = "warning"
	Advice  NoteKind = "advice"
	Known   NoteKind = "known"
)

// Preview is what another way to offset would do.
type Preview struct {
	Strategy  batter.Strategy `json:"strategy"`
	Lead      string          `json:"lead"` // what to weigh out
	Reports   int             `json:"left"` // targets that would not come out
	Count     int             `json:"count"`
	Thickness float64         `json:"thickness"`
	Sweet     float64         `json:"sweetness"`
	Weigh     []Weighed       `json:"weigh"` // the base lines, in their order
}

// Weighed is a line's grams under another way to offset.
type Weighed struct {
	ID string  `json:"id"`
	G  float64 `json:"weigh_g"`
}

// Working is the short derivation of one figure: of a line, by its id, or of the bowl, by its key:
// a gauge's, or count, diameter, load, energy.
type Working struct {
	Line   string `json:"line,omitzero"`
	Figure string `json:"figure,omitzero"`
	Text   string `json:"text"`
	Terms  []Term `json:"terms"`

	Sum   []SumTerm `json:"sum,omitzero"`   // of a line: what adds up to its weigh-out
	Maths string    `json:"maths,omitzero"` // the rule, where the text says what to do
}

// Term is one number that went into a figure.
type Term struct {
	Name   string  `json:"name"`
	Value  float64 `json:"value"`
	Unit   string  `json:"unit"`
	Source string  `json:"source"`
}
