package document

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"upbeatladle/core/griddle"
	"upbeatladle/core/keep"
)

// BoardFormat is one morning at the plates: the kitchen that it was begun in, and everything that happened.
const BoardFormat = "upbeat-ladle/board"

// Board is a morning at the plates.
type Board struct {
	Format    string          `json:"format"`
	Version   int             `json:"version"`
	Name      string          `json:"name"`
	StartedAt time.Time       `json:"started_at"`
	WorkedBy  WorkedBy        `json:"worked_by"`
	Kitchen   OwnKitchen      `json:"kitchen"`
	Events    []griddle.Event `json:"events,omitempty"`
}

// BeginBoard begins a board in today's kitchen.
func BeginBoard(by WorkedBy, s Setting) (Board, error) {
	b := Board{Format: BoardFormat, Version: Version, Name: "Morning of " + s.Today.Format("2 January"), StartedAt: s.Today.UTC().Truncate(time.Millisecond), WorkedBy: by, Kitchen: s.Kitchen}
	if len(b.Plates()) == 0 {
		return b, Refusal("/kitchen", "missing", "This kitchen has no plate, pan or iron yet. Add yours in the Kitchen, then begin.")
	}
	return b, nil
}

// Plates are those that the board is begun with.
func (b Board) Plates() []griddle.Plate { return griddle.PlatesOf(b.Kitchen.Domain()) }

// Lay works out what a batch asks of a plate of this board; count is how many portions the batch really gives. The
// error is Problems.
func (b Board) Lay(ctx context.Context, from Batch, on string, count, poured int, kept float64, a griddle.Adjust, s Setting) (griddle.Bowl, error) {
	s.Kitchen, s.Today = from.Kitchen, from.StartedAt
	v, k, err := from.Variation.Domain(s)
	if err != nil {
		return griddle.Bowl{}, err
	}
	now := b.Kitchen.Domain()
	k.Griddles, k.Irons = now.Griddles, now.Irons
	bowl, err := griddle.Lay(ctx, v, k, on, count, poured, kept, a)
	if err != nil {
		return bowl, pointed(err, "")
	}
	bowl.Name = from.Plan.Name
	return bowl, nil
}

// DecodeBoard reads a board strictly. The error is Problems.
func DecodeBoard(data []byte) (Board, error) {
	var b Board
	if err := Strict(data, &b); err != nil {
		return b, err
	}
	var p Problems
	switch {
	case b.Format != BoardFormat:
		p.Add("/format", "wrong_format", "“%s” is not a board; a board says “%s”.", clip(b.Format), BoardFormat)
	case b.Version != Version:
		p.Add("/version", "wrong_version", "Version %d of a board is not known here; %d is.", b.Version, Version)
	case b.StartedAt.IsZero():
		p.Add("/started_at", "missing", "Say when the board was begun.")
	}
	if text, err := b.Kitchen.Encode(); err != nil {
		return b, under("/kitchen", err)
	} else if _, err := DecodeKitchen(text); err != nil {
		return b, under("/kitchen", err)
	}
	checkTime(&p, "/started_at", b.StartedAt)
	checkEvents(&p, b.Events, "board", b.checkEvent)
	return b, p.OrNil()
}

// DecodeEvent reads one event of a board, as a tablet sends it. The error is Problems.
func (b Board) DecodeEvent(data []byte) (griddle.Event, error) {
	var e griddle.Event
	if err := Strict(data, &e); err != nil {
		return e, err
	}
	e.Bowl, e.Packs, e.Also = nil, nil, nil // the program's to say
	return e, b.checkEvent(e).OrNil()
}

// checkEvent tells what is wrong with an event.
func (b Board) checkEvent(e griddle.Event) Problems {
	p := checkHappened(&e, griddle.Rows, griddle.Bounds, "something that happens at a board")
	if e.Plate != "" && !slices.ContainsFunc(b.Plates(), func(x griddle.Plate) bool { return x.ID == e.Plate }) {
		p.Add("/plate", "unknown_plate", "This board has no plate or iron “%s”. Choose one of the Kitchen's, and begin a new board when it is a new one.", clip(e.Plate))
	}
	checkChoice(&p, "/verdict", e.Verdict, griddle.Verdicts, "a way that a first one comes out")
	if e.To != griddle.ToRack && e.To != griddle.ToGuest && e.To != griddle.ToBin {
		p.Add("/to", "unknown_choice", "What is lifted goes to the rack, to the guest or into the bin.")
	}
	bowls := slices.Collect(maps.Values(e.Also))
	if e.Bowl != nil {
		bowls = append(bowls, *e.Bowl)
	}
	for _, b := range bowls {
		if !(b.FirstS >= 0 && b.FirstS <= 3600 && b.SecondS >= 0 && b.SecondS <= 3600 && b.Count >= 0 && b.Count <= 5000 && len(b.Places) <= griddle.MostPieces && len(b.Effects) <= len(griddle.Verdicts)) {
			p.Add("/bowl", "out_of_range", "What a bowl asks of its plate is out of bounds: a side takes up to an hour.")
		}
	}
	return p
}

// Encode writes the board.
func (b Board) Encode() ([]byte, error) { return encode(b) }

// SummariseBoard is what is kept of a board, its events with it.
func SummariseBoard(data []byte) (Summary, error) {
	b, err := DecodeBoard(data)
	if err != nil {
		return Summary{}, err
	}
	text, err := b.Encode()
	return Summary{Name: b.Name, Body: text}, err
}

// PackFormat is a pack in the freezer.
const PackFormat = "upbeat-ladle/pack"

// Pack is a labelled pack in the freezer.
type Pack struct {
	Format    string    `json:"format"`
	Version   int       `json:"version"`
	Name      string    `json:"name"`
	Form      string    `json:"form"`
	Pieces    int       `json:"pieces"`
	Left      int       `json:"left"`
	MadeOn    string    `json:"made_on"`
	UseBy     string    `json:"use_by"`
	FrozenAt  time.Time `json:"frozen_at"`
	Contains  []string  `json:"contains"`
	May       []string  `json:"may_contain"`
	Carried   []string  `json:"carried,omitempty"` // allergens of what was cooked on the same plate before
	Allergens string    `json:"allergen_text"`
	Reheat    []string  `json:"reheat"`
	Board     string    `json:"board,omitzero"`
	Batch     string    `json:"batch,omitzero"`
}

// PackOf is a pack of a bowl, so many pieces of it.
func PackOf(b griddle.BowlNow, pieces int, board string, at time.Time) Pack {
	return Pack{
		Format: PackFormat, Version: Version, Name: b.Name, Form: string(b.Form), Pieces: pieces, Left: pieces, MadeOn: at.Format(dayLayout), UseBy: keep.UseBy(at).Format(dayLayout),
		FrozenAt: at.UTC(), Contains: b.Contains, May: b.May, Carried: b.Carried, Allergens: b.Allergens, Reheat: keep.Reheat(b.Form), Board: board, Batch: b.Batch,
	}
}

// DecodePack reads a pack strictly. The error is Problems.
func DecodePack(data []byte) (Pack, error) {
	var k Pack
	if err := Strict(data, &k); err != nil {
		return k, err
	}
	var p Problems
	switch {
	case k.Format != PackFormat:
		p.Add("/format", "wrong_format", "“%s” is not a pack; a pack says “%s”.", clip(k.Format), PackFormat)
	case k.Version != Version:
		p.Add("/version", "wrong_version", "Version %d of a pack is not known here; %d is.", k.Version, Version)
	}
	if k.Name == "" || len([]rune(k.Name)) > 200 {
		p.Add("/name", "missing", "Name the pack, in 1 to 200 letters.")
	}
	if k.Pieces < 1 || k.Pieces > griddle.MostPieces || k.Left < 0 || k.Left > k.Pieces {
		p.Add("/left", "out_of_range", "A pack holds 1 to %d pieces, and never has more left than went in.", griddle.MostPieces)
	}
	made, err := time.Parse(dayLayout, k.MadeOn)
	by, err2 := time.Parse(dayLayout, k.UseBy)
	checkTime(&p, "/frozen_at", k.FrozenAt)
	checkTime(&p, "/made_on", made)
	checkTime(&p, "/use_by", by)
	if errors.Join(err, err2) != nil || by.Before(made) {
		p.Add("/use_by", "out_of_range", "Write both days like 2026-11-26; a pack is used on the day that it is made, or later.")
	}
	if k.Allergens == "" {
		p.Add("/allergen_text", "missing", "Say what it contains: a pack without that cannot be labelled.")
	}
	return k, p.OrNil()
}

// Text tells a pack in a few lines.
func (k Pack) Text() string {
	text := fmt.Sprintf("%s\n%d of %d left, made %s, use by %s\n%s\n", k.Name, k.Left, k.Pieces, k.MadeOn, k.UseBy, k.Allergens)
	if len(k.Carried) > 0 {
		text += "On the same plate before: " + strings.Join(k.Carried, ", ") + "\n"
	}
	return text
}

// Encode writes the pack.
func (k Pack) Encode() ([]byte, error) { return encode(k) }

// SummarisePack is what is kept of a pack.
func SummarisePack(data []byte) (Summary, error) {
	k, err := DecodePack(data)
	if err != nil {
		return Summary{}, err
	}
	text, err := k.Encode()
	return Summary{Name: k.Name, Form: k.Form, Body: text}, err
}
