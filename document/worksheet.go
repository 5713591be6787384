package document

import (
	"context"

	"upbeatladle/core/worksheet"
)

// Work answers a variation document with a worksheet document. The error is Problems for
// a document that cannot be worked with.
func Work(ctx context.Context, data []byte, s Setting) ([]byte, error) {
	v, err := DecodeVariation(data)
	if err != nil {
		return nil, err
	}
	sheet, err := v.Worksheet(ctx, s)
	if err != nil {
		return nil, err
	}
	return Answer(AsDocument(&sheet))
}

// Worksheet works a variation document out in a kitchen.
func (v Variation) Worksheet(ctx context.Context, s Setting) (worksheet.Worksheet, error) {
	d, k, err := v.Domain(s)
	if err != nil {
		return worksheet.Worksheet{}, err
	}
	w, err := worksheet.Work(ctx, d, k, s.Include)
	return w, pointed(err, "")
}

// Worksheet works the plain base out in a kitchen.
func (b Base) Worksheet(ctx context.Context, s Setting) (worksheet.Worksheet, error) {
	d, k, err := b.Domain(s)
	if err != nil {
		return worksheet.Worksheet{}, err
	}
	w, err := worksheet.Work(ctx, d, k, s.Include)
	return w, pointed(err, "")
}
