package document

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"upbeatladle/core/worksheet"
)

// Fate is what an import does with one document.
type Fate struct {
	Kind    string   `json:"kind"`
	Name    string   `json:"name"`
	Action  string   `json:"action"` // added · changed · same · refused
	Message string   `json:"message,omitzero"`
	Changes []string `json:"changes,omitzero"`

	ID      string  `json:"-"` // of the document that it replaces, or its own; empty for a new one without
	Summary Summary `json:"-"`
}

// There is what a kitchen has already.
type There struct {
	Kind, ID string
	Body     []byte
	PutAside bool
}

// Here finds what a kitchen has: ids are unique over all kinds, bodies within one.
type Here struct {
	byID   map[string]There
	byBody map[string]There
	byItem map[string]There // own ingredients, by the id that documents use
}

// NewHere returns what is there.
func NewHere(all []There) *Here {
	h := &Here{map[string]There{}, map[string]There{}, map[string]There{}}
	for _, t := range all {
		h.Add(t)
	}
	return h
}

// Add puts one more there, in the place of one with its id.
func (h *Here) Add(t There) {
	if t.ID != "" {
		h.byID[t.ID] = t
	}
	if !t.PutAside {
		h.byBody[t.Kind+"\x00"+string(t.Body)] = t
		if id := ownIngredient(t.Kind, t.Body); id != "" {
			h.byItem[id] = t
		}
	}
}

// ownIngredient is the id under which documents use an item; empty for one that stands for a
// row of the table, which nobody names.
func ownIngredient(kind string, body []byte) string {
	var i Item
	if kind != "pantry" || Strict(body, &i) != nil || i.StandsFor != "" {
		return ""
	}
	return i.ID
}

// Judge decides what becomes of one document: with an id it is the same as the one with that
// id, changes it, or is new; without one it is the same when its bytes are, else new. An own
// ingredient is also known by the id that documents use. What differs is told line by line.
func Judge(ctx context.Context, kind string, k Kept, here *Here, s Setting) Fate {
	f := Fate{Kind: kind, ID: k.ID}
	sum, err := summarise(ctx, kind, k.Document, s)
	if err == nil {
		err = k.times()
	}
	if err != nil {
		f.Action, f.Message = "refused", sentences(err)
		var named struct {
			Name string `json:"name"`
		}
		if lenient(k.Document, &named) == nil {
			f.Name = clip(named.Name)
		}
		return f
	}
	f.Name, f.Summary = sum.Name, sum
	was, found := here.byID[k.ID]
	if found && was.Kind != kind {
		f.Action, f.Message = "refused", "Its id belongs to a "+was.Kind+" that is here already. Take it out of the file's document to keep it as a new one."
		return f
	}
	if why := here.twisted(kind, k.ID, sum.Body); why != "" {
		f.Action, f.Message = "refused", why
		return f
	}
	if !found && k.ID == "" {
		was, found = here.byBody[kind+"\x00"+string(sum.Body)]
	}
	if id := ownIngredient(kind, sum.Body); !found && id != "" {
		was, found = here.byItem[id]
	}
	if found {
		f.ID = was.ID
	}
	switch same := string(was.Body) == string(sum.Body); {
	case !found:
		f.Action = "added"
	case k.PutAside && !was.PutAside: // what is on the shelf stays there
		f.Action = "same"
	case was.PutAside && !k.PutAside:
		f.Action, f.Changes = "changed", []string{"it was put aside here, and comes back"}
		if !same {
			f.Changes = append(f.Changes, changes(ctx, kind, was.Body, sum.Body, s)...)
		}
	case same:
		f.Action = "same"
	default:
		f.Action, f.Changes = "changed", changes(ctx, kind, was.Body, sum.Body, s)
	}
	return f
}

// twisted says why a batch cannot have taken its share of the batter that it names: of itself, of what is no batch, of one that took its
// share of another. Empty when it can, or when that one is gone.
func (h *Here) twisted(kind, id string, body []byte) string {
	common := commonOf(kind, body)
	if common == "" {
		return ""
	}
	of, found := h.byID[common]
	switch {
	case common == id:
		return "It says that it took its share of itself. Take “common” out of the file's document to keep it."
	case found && of.Kind != kind:
		return "What it says that it took its share of is a " + of.Kind + ". Take “common” out of the file's document to keep it."
	case found && commonOf(kind, of.Body) != "":
		return "What it says that it took its share of took its own of another batter. Take “common” out of the file's document to keep it."
	}
	return ""
}

// commonOf is the batch of the common batter that a batch took its share of, empty when of none.
func commonOf(kind string, body []byte) string {
	var b struct {
		Common string `json:"common"`
	}
	if kind != "batch" || lenient(body, &b) != nil {
		return ""
	}
	return b.Common
}

// Canonical is a state of a document as this program writes it, worked out or not; the error
// is Problems when it cannot be opened.
func Canonical(kind string, data []byte) ([]byte, error) {
	switch kind {
	case "kitchen":
		k, err := DecodeKitchen(data)
		if err != nil {
			return nil, err
		}
		return k.Encode()
	case "base":
		b, err := DecodeBase(data)
		if err != nil {
			return nil, err
		}
		return b.Encode()
	case "pantry":
		var i Item
		if err := Strict(data, &i); err != nil {
			return nil, err
		}
		return i.Encode()
	case "text":
		t, err := DecodeText(data)
		if err != nil {
			return nil, err
		}
		return t.Encode()
	case "batch":
		b, err := DecodeBatch(data)
		if err != nil {
			return nil, err
		}
		return b.Encode()
	case "board":
		b, err := DecodeBoard(data)
		if err != nil {
			return nil, err
		}
		return b.Encode()
	case "pack":
		k, err := DecodePack(data)
		if err != nil {
			return nil, err
		}
		return k.Encode()
	case "sauce":
		a, err := DecodeSauce(data)
		if err != nil {
			return nil, err
		}
		return a.Encode()
	}
	v, err := DecodeVariation(data)
	if err != nil {
		return nil, err
	}
	return v.Encode()
}

func summarise(ctx context.Context, kind string, data []byte, s Setting) (Summary, error) {
	switch kind {
	case "base":
		return SummariseBase(ctx, data, s)
	case "pantry":
		return SummariseItem(ctx, data, s)
	case "text":
		return SummariseText(ctx, data, s)
	case "batch":
		return SummariseBatch(ctx, data, s)
	case "board":
		return SummariseBoard(data)
	case "pack":
		return SummarisePack(data)
	case "sauce":
		return SummariseSauce(data, s)
	}
	return SummariseVariation(ctx, data, s)
}

func sentences(err error) string {
	var p Problems
	if !errors.As(err, &p) {
		return err.Error()
	}
	var out []string
	for i, q := range p {
		if i == 3 {
			break
		}
		out = append(out, q.Message)
	}
	return strings.Join(out, " ")
}

// changes tells what differs between two documents of a kind, in a few lines.
func changes(ctx context.Context, kind string, was, is []byte, s Setting) []string {
	sheet := func(data []byte) (worksheet.Worksheet, error) {
		if kind == "base" {
			b, err := DecodeBase(data)
			if err != nil {
				return worksheet.Worksheet{}, err
			}
			return b.Worksheet(ctx, s)
		}
		v, err := DecodeVariation(data)
		if err != nil {
			return worksheet.Worksheet{}, err
		}
		return v.Worksheet(ctx, s)
	}
	switch kind {
	case "pantry":
		return []string{"its figures differ"}
	case "text":
		return []string{"it says something else"}
	case "batch", "board":
		return []string{"more happened to it"}
	case "pack":
		return []string{"another number is left"}
	case "sauce":
		return []string{"it is made otherwise"}
	}
	a, errA := sheet(was)
	b, errB := sheet(is)
	if errA != nil || errB != nil {
		return []string{"it differs"}
	}
	var out []string
	for _, r := range worksheet.Compare(a, b) {
		before, after := "none", "none"
		if r.Before != nil {
			before = fmt.Sprintf("%.4g g", *r.Before)
		}
		if r.After != nil {
			after = fmt.Sprintf("%.4g g", *r.After)
		}
		if before != after {
			out = append(out, fmt.Sprintf("%s: %s → %s", r.Label, before, after))
		}
	}
	if len(out) == 0 {
		out = []string{"the same to weigh; a name, a note or a wish differs"}
	}
	return out[:min(len(out), 12)]
}
