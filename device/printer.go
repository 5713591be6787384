package device

import (
	"context"
	"errors"
	"os"
	"path/filepath"
)

// ErrNoPrinter says that labels cannot be kept.
var ErrNoPrinter = errors.New("the label could not be printed: look whether the folder of the labels is there and may be written to")

// LabelPrinter prints labels.
type LabelPrinter interface {
	// Print prints a label, given as a picture and as a page; the same name again is the same label. It returns
	// where it went.
	Print(ctx context.Context, name string, png, pdf []byte) ([]string, error)
	// Where says where labels go, for the cook.
	Where() string
}

// FolderPrinter is a stand-in: it puts every label into a folder, as PNG and as PDF.
type FolderPrinter struct{ dir string }

var _ LabelPrinter = FolderPrinter{}

// NewFolderPrinter prints into a folder, which is made when it is missing.
func NewFolderPrinter(dir string) FolderPrinter { return FolderPrinter{dir} }

// Where implements LabelPrinter.
func (f FolderPrinter) Where() string { return f.dir }

// Print implements LabelPrinter.
func (f FolderPrinter) Print(_ context.Context, name string, png, pdf []byte) ([]string, error) {
	if err := os.MkdirAll(f.dir, 0o750); err != nil {
		return nil, errors.Join(ErrNoPrinter, err)
	}
	var out []string
	for _, one := range []struct {
		ending string
		data   []byte
	}{{".png", png}, {".pdf", pdf}} {
		path := filepath.Join(f.dir, name+one.ending)
		if err := os.WriteFile(path, one.data, 0o640); err != nil { //nolint:gosec // a label is for everybody of the kitchen
			return nil, errors.Join(ErrNoPrinter, err)
		}
		out = append(out, path)
	}
	return out, nil
}
