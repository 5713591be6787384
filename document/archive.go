package document

import (
	"bufio"
	"bytes"
	"errors"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// ArchiveFormat is a whole kitchen in one document: {"format", "version", "kitchen",
// "kitchen_history", "pantry": […], "texts": […], "bases": […], "sauces": […], "variations": […], "batches": […], "boards": […], "packs": […]}.
const ArchiveFormat = "upbeat-ladle/archive"

// Versions of an archive: the newest that is read, and the least that is written. Version 1, without histories, is read for ever. A file
// says the version of the youngest kind in it, so that an older program reads it as long as it knows all that it holds.
const (
	newestArchive = 2
	leastArchive  = 2
)

// Bounds of an archive (modelling choices). It is read and written piece by piece, so that
// what is held of it in memory is one piece with its history, and the current states.
const (
	MaxArchiveBytes = 1 << 30   // of the file
	MaxPieceBytes   = 64 << 20  // of one document with its history: tens of thousands of states
	MaxPieces       = 100_000   // documents
	MaxCurrentBytes = 128 << 20 // of all current states
)

// Kept is a document with the id and revision under which a kitchen keeps it, so that what
// refers to it still finds it, and with its history.
type Kept struct {
	ID       string         `json:"id,omitzero"`
	Revision int64          `json:"revision,omitzero"`
	SavedAt  time.Time      `json:"saved_at,omitzero"`
	PutAside bool           `json:"put_aside,omitzero"` // not on the shelf, but still used
	Document jsontext.Value `json:"document"`
	Earlier  []Earlier      `json:"revisions,omitzero"` // before this one, the first one first
	Names    []Named        `json:"names,omitzero"`
}

// Times that a file may tell (modelling choice): what lies outside was made up, or by a clock that was never set.
var (
	earliestTime = time.Date(2000, 1, 1, 0, 0, 0, 0, time.UTC)
	latestTime   = time.Date(2101, 1, 1, 0, 0, 0, 0, time.UTC)
)

// checkTime tells whether a time of a file can be; none at all can.
func checkTime(p *Problems, at string, t time.Time) {
	if !t.IsZero() && (t.Before(earliestTime) || !t.Before(latestTime)) {
		p.Add(at, "out_of_range", "%s is no time of a kitchen: from 2000 to 2100 is read.", t.UTC().Format("2006-01-02"))
	}
}

// times tells which of the times of a kept document cannot be.
func (k Kept) times() error {
	var p Problems
	checkTime(&p, "/saved_at", k.SavedAt)
	for i, e := range k.Earlier {
		checkTime(&p, "/revisions/"+strconv.Itoa(i)+"/saved_at", e.SavedAt)
	}
	for i, n := range k.Names {
		checkTime(&p, "/names/"+strconv.Itoa(i)+"/named_at", n.NamedAt)
	}
	return p.OrNil()
}

// Earlier is a state that a document had.
type Earlier struct {
	Revision int64          `json:"revision"`
	SavedAt  time.Time      `json:"saved_at,omitzero"`
	Document jsontext.Value `json:"document"`
}

// Named is a name that a cook gave to a state.
type Named struct {
	Revision int64     `json:"revision"`
	Name     string    `json:"name"`
	NamedAt  time.Time `json:"named_at,omitzero"`
}

// KitchenHistory is what stands beside the kitchen of an archive.
type KitchenHistory struct {
	Revision int64     `json:"revision"`
	SavedAt  time.Time `json:"saved_at,omitzero"`
	Earlier  []Earlier `json:"revisions,omitzero"` // before this one, the first one first
}

// pieceKind is a kind of document that an archive holds: its list, its format on its own, and since which version it may be there.
type pieceKind struct {
	kind, section, format string
	since                 int
}

var pieceKinds = []pieceKind{
	{"pantry", "pantry", PantryFormat, 1}, {"text", "texts", TextFormat, 1}, {"base", "bases", BaseFormat, 1}, {"variation", "variations", VariationFormat, 1},
	{"sauce", "sauces", SauceFormat, 2}, {"batch", "batches", BatchFormat, 2}, {"board", "boards", BoardFormat, 2}, {"pack", "packs", PackFormat, 2},
}

// pieceWhere finds the first row for which is holds; the zero row where there is none.
func pieceWhere(is func(pieceKind) bool) pieceKind {
	if i := slices.IndexFunc(pieceKinds, is); i >= 0 {
		return pieceKinds[i]
	}
	return pieceKind{}
}

func sectionOf(kind string) string {
	return pieceWhere(func(p pieceKind) bool { return p.kind == kind }).section
}

func isSection(name string) bool {
	return pieceWhere(func(p pieceKind) bool { return p.section == name }).kind != ""
}

// archiveFor is the version of an archive that holds such kinds.
func archiveFor(kinds []string) int {
	out := leastArchive
	for _, p := range pieceKinds {
		if slices.Contains(kinds, p.kind) {
			out = max(out, p.since)
		}
	}
	return out
}

// ArchiveWriter writes an archive piece by piece.
type ArchiveWriter struct {
	to      *bufio.Writer
	enc     *jsontext.Encoder
	section string
	err     error
}

// NewArchiveWriter begins an archive that will hold documents of such kinds.
func NewArchiveWriter(w io.Writer, kinds []string) *ArchiveWriter {
	a := &ArchiveWriter{to: bufio.NewWriterSize(w, 1<<16)}
	a.enc = jsontext.NewEncoder(a.to, json.Deterministic(true))
	a.tokens(jsontext.BeginObject, jsontext.String("format"), jsontext.String(ArchiveFormat), jsontext.String("version"), jsontext.Int(int64(archiveFor(kinds))))
	return a
}

func (a *ArchiveWriter) tokens(all ...jsontext.Token) {
	for _, t := range all {
		if a.err == nil {
			a.err = a.enc.WriteToken(t)
		}
	}
}

func (a *ArchiveWriter) value(v any) {
	if a.err == nil {
		a.err = json.MarshalEncode(a.enc, v)
	}
}

// Kitchen writes the kitchen and its history, before anything else.
func (a *ArchiveWriter) Kitchen(k Kept) error {
	a.tokens(jsontext.String("kitchen"))
	a.value(k.Document)
	a.tokens(jsontext.String("kitchen_history"))
	a.value(KitchenHistory{k.Revision, k.SavedAt, k.Earlier})
	return a.err
}

// Add writes a document; those of a kind one after the other.
func (a *ArchiveWriter) Add(kind string, k Kept) error {
	if section := sectionOf(kind); a.section != section {
		if a.section != "" {
			a.tokens(jsontext.EndArray)
		}
		a.section = section
		a.tokens(jsontext.String(section), jsontext.BeginArray)
	}
	a.value(k)
	return a.err
}

// Close writes the end.
func (a *ArchiveWriter) Close() error {
	if a.section != "" {
		a.tokens(jsontext.EndArray)
	}
	a.tokens(jsontext.EndObject)
	return errors.Join(a.err, a.to.Flush())
}

// ArchiveFile is a whole kitchen, or one document on its own, that is read piece by piece, as
// often as it is asked.
type ArchiveFile struct {
	from  io.ReadSeeker
	kind  string // of a document on its own
	alone Kept
	total int
}

// OpenArchive looks at what a file is and that it is whole. The error is Problems, or
// what reading the file fails with.
func OpenArchive(from io.ReadSeeker) (*ArchiveFile, error) {
	a := &ArchiveFile{from: from}
	head := map[string]jsontext.Value{}
	var unknown, odd string
	err := a.walk(func(name string, in *pieces) error {
		switch {
		case name == "format" || name == "version":
			v, err := in.ReadValue()
			head[name] = v.Clone()
			return err
		case isSection(name):
			if in.PeekKind() != '[' {
				odd = name
				return in.pass()
			}
			return in.each(func() error {
				if a.total++; a.total > MaxPieces {
					return Refusal("", "too_large", "More than %d documents are in this file: no kitchen of this program has so many.", MaxPieces)
				}
				return in.SkipValue()
			})
		case name != "kitchen" && name != "kitchen_history" && unknown == "":
			unknown = name
		}
		return in.pass()
	})
	if err != nil {
		return nil, err
	}
	var format string
	_ = json.Unmarshal(head["format"], &format) // one that is no text is not known either
	if format != ArchiveFormat {
		return a, a.standAlone(format)
	}
	var version int
	_ = json.Unmarshal(head["version"], &version)
	switch {
	case version > newestArchive:
		return nil, Refusal("/version", "wrong_version", "A newer program wrote this archive: it is of version %d, and up to %d are read here. Read it with the newer program; nothing was changed.", version, newestArchive)
	case version < 1:
		return nil, Refusal("/version", "wrong_version", "Version %s is not known here; 1 to %d are.", clip(string(head["version"])), newestArchive)
	case unknown != "":
		return nil, Refusal("/"+clip(unknown), "unknown_field", "%s is not a field that is known here. Check its spelling.", field(clip(unknown)))
	case odd != "":
		return nil, Refusal("/"+odd, "wrong_kind", "%s should be a list in [ ].", field(odd))
	}
	return a, nil
}

// standAlone takes the file for one document of a format.
func (a *ArchiveFile) standAlone(format string) error {
	if a.kind = pieceWhere(func(p pieceKind) bool { return p.format == format }).kind; format == KitchenFormat {
		a.kind = "kitchen"
	}
	if a.kind == "" {
		return Refusal("/format", "wrong_format", "“%s” is not a format that is known here.", clip(format))
	}
	if _, err := a.from.Seek(0, io.SeekStart); err != nil {
		return err
	}
	data, err := io.ReadAll(io.LimitReader(a.from, MaxBytes+1))
	if err != nil {
		return err
	}
	if len(data) > MaxBytes {
		return Refusal("", "too_large", "That is more than %d kB for one document.", MaxBytes>>10)
	}
	a.alone.Document = bytes.TrimPrefix(data, bom)
	if a.total = 1; a.kind == "kitchen" {
		a.total = 0
	}
	return nil
}

// Total is how many documents there are, the kitchen apart.
func (a *ArchiveFile) Total() int { return a.total }

// Kitchen is the kitchen with its history; its Document is empty when there is none.
func (a *ArchiveFile) Kitchen() (k Kept, err error) {
	if a.kind != "" {
		if a.kind == "kitchen" {
			k = a.alone
		}
		return k, nil
	}
	return k, a.walk(func(name string, in *pieces) error {
		switch name {
		case "kitchen":
			v, err := in.ReadValue()
			k.Document = v.Clone()
			return err
		case "kitchen_history":
			v, err := in.ReadValue()
			if err != nil {
				return err
			}
			var h KitchenHistory
			err = Strict(v, &h)
			k.Revision, k.SavedAt, k.Earlier = h.Revision, h.SavedAt, h.Earlier
			if err == nil {
				err = k.times()
			}
			return under("/kitchen_history", err)
		}
		return in.pass()
	})
}

// Each calls f with every document of a kind. An error of f ends it and is returned.
func (a *ArchiveFile) Each(kind string, f func(Kept) error) error {
	if a.kind != "" {
		if a.kind == kind {
			return f(a.alone)
		}
		return nil
	}
	return a.walk(func(name string, in *pieces) error {
		if name != sectionOf(kind) {
			return in.pass()
		}
		n := -1
		return in.each(func() error {
			n++
			v, err := in.ReadValue()
			if err != nil {
				return err
			}
			var k Kept
			if err := Strict(v, &k); err != nil {
				return under("/"+name+"/"+strconv.Itoa(n), err)
			}
			return f(k)
		})
	})
}

var bom = []byte("\ufeff")

// walk reads the file from its beginning and calls f with the name of every member; f reads
// its value.
func (a *ArchiveFile) walk(f func(name string, in *pieces) error) error {
	if _, err := a.from.Seek(0, io.SeekStart); err != nil {
		return err
	}
	file := bufio.NewReaderSize(a.from, 1<<16)
	begin, _ := file.Peek(4)
	switch {
	case bytes.HasPrefix(begin, []byte("PK\x03\x04")) || bytes.HasPrefix(begin, []byte("\x1f\x8b")):
		return Refusal("", "packed", "This file is packed. Unpack it and read the JSON inside.")
	case bytes.HasPrefix(begin, bom):
		_, _ = file.Discard(len(bom))
	}
	from := &metered{from: file, left: MaxPieceBytes}
	in := &pieces{jsontext.NewDecoder(from), from}
	err := in.members(f)
	var syn *jsontext.SyntacticError
	switch {
	case from.failed != nil:
		return from.failed
	case errors.As(err, &syn), errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF), errors.Is(err, errTrailing):
		return Refusal("", "not_json", "This is not a document of this program: it is not JSON, or breaks off.")
	}
	return err
}

// pieces reads the JSON of an archive.
type pieces struct {
	*jsontext.Decoder
	from *metered
}

func (in *pieces) members(f func(name string, in *pieces) error) error {
	if in.PeekKind() != '{' {
		if err := in.SkipValue(); err != nil {
			return err
		}
		return errTrailing
	}
	if _, err := in.ReadToken(); err != nil {
		return err
	}
	for in.PeekKind() != '}' {
		name, err := in.ReadToken()
		if err != nil {
			return err
		}
		if err := f(name.String(), in); err != nil {
			return err
		}
	}
	if _, err := in.ReadToken(); err != nil {
		return err
	}
	if _, err := in.ReadToken(); !errors.Is(err, io.EOF) {
		return errTrailing
	}
	return nil
}

// pass reads over what comes next.
func (in *pieces) pass() error {
	if in.PeekKind() == '[' {
		return in.each(in.SkipValue)
	}
	return in.SkipValue()
}

// each calls f for every element of the list that comes next; f reads it.
func (in *pieces) each(f func() error) error {
	if _, err := in.ReadToken(); err != nil {
		return err
	}
	for in.PeekKind() != ']' {
		in.from.left = MaxPieceBytes
		if err := f(); err != nil {
			return err
		}
	}
	in.from.left = MaxPieceBytes
	_, err := in.ReadToken()
	return err
}

// metered reads only so much until it is told that a piece is over.
type metered struct {
	from   io.Reader
	left   int
	failed error // reading the file, or too much of it
}

func (m *metered) Read(p []byte) (int, error) {
	if m.left <= 0 {
		m.failed = Refusal("", "too_large", "One document of this file and its history are more than %d MB. Restore a copy of “upbeat-ladle backup” instead.", MaxPieceBytes>>20)
		return 0, m.failed
	}
	n, err := m.from.Read(p[:min(len(p), m.left)])
	if m.left -= n; err != nil && !errors.Is(err, io.EOF) {
		m.failed = err
	}
	return n, err
}

// under moves problems to where their document stands in a larger one.
func under(at string, err error) error {
	var p Problems
	if !errors.As(err, &p) {
		return err
	}
	out := slices.Clone(p)
	for i := range out {
		out[i].Pointer = at + strings.TrimSuffix(out[i].Pointer, "/")
	}
	return out
}
