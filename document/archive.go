package document

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/go-json-experiment/json/jsontext"

	"upbeatladle/core/batter"
	"upbeatladle/core/worksheet"
)

// ArchiveFormat is a whole kitchen in one document.
const ArchiveFormat = "upbeat-ladle/archive"

// MaxArchiveBytes is the largest archive that is read: some thousand variations.
const MaxArchiveBytes = 32 << 20

// maxArchived is the most documents of an archive (modelling choice).
const maxArchived = 10_000

// Kept is a document with the id and revision under which a kitchen keeps it, so that what
// refers to it still finds it.
type Kept struct {
	ID       string         `json:"id,omitzero"`
	Revision int64          `json:"revision,omitzero"`
	Document jsontext.Value `json:"document"`
}

// Archive is a whole kitchen: what it cooks with, its pantry, bases and variations.
type Archive struct {
	Format     string         `json:"format"`
	Version    int            `json:"version"`
	Kitchen    jsontext.Value `json:"kitchen,omitzero"`
	Pantry     []Kept         `json:"pantry,omitzero"`
	Bases      []Kept         `json:"bases,omitzero"`
	Variations []Kept         `json:"variations,omitzero"`
}

// Encode writes the archive.
func (a Archive) Encode() ([]byte, error) { return encode(a) }

// DecodeArchive reads a whole kitchen, or one document on its own, as an archive of one. The
// error is batter.Problems.
func DecodeArchive(data []byte) (Archive, error) {
	if strings.HasPrefix(string(data), "PK\x03\x04") || strings.HasPrefix(string(data), "\x1f\x8b") {
		return Archive{}, Refusal("", "packed", "This file is packed. Unpack it and read the JSON inside.")
	}
	var head struct {
		Format string `json:"format"`
	}
	if err := lenient(data, &head); err != nil {
		return Archive{}, Refusal("", "not_json", "This is not a document of this program: it is not JSON, or breaks off.")
	}
	one := []Kept{{Document: jsontext.Value(data)}}
	switch head.Format {
	case ArchiveFormat:
		var a Archive
		if err := Strict(data, &a); err != nil {
			return Archive{}, err
		}
		if n := len(a.Pantry) + len(a.Bases) + len(a.Variations); n > maxArchived {
			return Archive{}, Refusal("", "too_many", "%d documents are too many for one file; %d is the most.", n, maxArchived)
		}
		return a, header(a.Format, a.Version, ArchiveFormat)
	case VariationFormat:
		return Archive{Variations: one}, nil
	case BaseFormat:
		return Archive{Bases: one}, nil
	case PantryFormat:
		return Archive{Pantry: one}, nil
	case KitchenFormat:
		return Archive{Kitchen: jsontext.Value(data)}, nil
	}
	return Archive{}, Refusal("/format", "wrong_format", "“%s” is not a format that is known here.", clip(head.Format))
}

// Fate is what an import does with one document.
type Fate struct {
	Kind    string   `json:"kind"`
	Name    string   `json:"name"`
	Action  string   `json:"action"` // added · changed · same · refused
	Message string   `json:"message,omitzero"`
	Changes []string `json:"changes,omitzero"`

	ID       string  `json:"-"` // of the document that it replaces, or its own
	New      bool    `json:"-"`
	Revision int64   `json:"-"`
	Summary  Summary `json:"-"`
}

// There is what a kitchen has of a kind already.
type There struct {
	ID, Name string
	Body     []byte
}

// Judge decides what becomes of one document: it is the same as one that is there, changes
// the one with its id or name, or is new. What differs is told line by line.
func Judge(ctx context.Context, kind string, k Kept, there []There, s Setting) Fate {
	f := Fate{Kind: kind, ID: k.ID, Revision: max(1, k.Revision), New: true}
	sum, err := summarise(ctx, kind, k.Document, s)
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
	at := slices.IndexFunc(there, func(t There) bool { return k.ID != "" && t.ID == k.ID })
	if at < 0 {
		at = slices.IndexFunc(there, func(t There) bool { return t.Name == sum.Name })
	}
	switch {
	case at < 0:
		f.Action = "added"
	case string(there[at].Body) == string(sum.Body):
		f.Action, f.ID, f.New = "same", there[at].ID, false
	default:
		f.Action, f.ID, f.New = "changed", there[at].ID, false
		f.Changes = changes(ctx, kind, there[at].Body, sum.Body, s)
	}
	return f
}

func summarise(ctx context.Context, kind string, data []byte, s Setting) (Summary, error) {
	switch kind {
	case "base":
		return SummariseBase(ctx, data, s)
	case "pantry":
		return SummariseItem(ctx, data, s)
	}
	return SummariseVariation(ctx, data, s)
}

func sentences(err error) string {
	var p batter.Problems
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
	if kind == "pantry" {
		return []string{"its figures differ"}
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
