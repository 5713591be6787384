// Package label sets the label of a freezer pack, as a picture for a label printer and as a page. What it contains is
// never left out: a label grows longer instead. The faces are Go's own, which ship in the program.
package label

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"strings"
	"time"

	"github.com/go-pdf/fpdf"
	"golang.org/x/image/font"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/opentype"
	"golang.org/x/image/math/fixed"

	"upbeatladle/core/batter"
	"upbeatladle/core/keep"
	"upbeatladle/core/words"
	"upbeatladle/document"
)

// Measures of a label: tape 62 mm wide, as long as it takes (common practice, no source).
const (
	widthMM  = 62.0
	marginMM = 3.0
	dpi      = 300.0
	mmInch   = 25.4
	pointMM  = mmInch / 72
	leading  = 1.25
)

// line is one line of text as it is set.
type line struct {
	text   string
	points float64
	bold   bool
	before float64 // mm above it
}

// Label is a label that has been set.
type Label struct {
	lines    []line
	heightMM float64
}

type faces struct{ regular, bold *opentype.Font }

func load() (faces, error) {
	r, err := opentype.Parse(goregular.TTF)
	if err != nil {
		return faces{}, err
	}
	b, err := opentype.Parse(gobold.TTF)
	return faces{r, b}, err
}

func (f faces) face(points float64, bold bool) (font.Face, error) {
	of := f.regular
	if bold {
		of = f.bold
	}
	return opentype.NewFace(of, &opentype.FaceOptions{Size: points, DPI: dpi, Hinting: font.HintingFull})
}

// Of sets the label of a pack; id is what it is found by.
func Of(p document.Pack, id string) (Label, error) {
	f, err := load()
	if err != nil {
		return Label{}, err
	}
	var l Label
	add := func(text string, points float64, bold bool, before float64) {
		if err != nil || text == "" {
			return
		}
		var rows []string
		rows, err = f.wrap(text, points, bold)
		for i, row := range rows {
			if i > 0 {
				before = 0
			}
			l.lines = append(l.lines, line{row, points, bold, before})
		}
	}
	form := batter.Form(p.Form)
	contains, rest, _ := strings.Cut(p.Allergens, " · ")
	add(p.Name, 15, true, 0)
	left := p.Pieces
	if p.Left > 0 { // it is printed again after some were eaten
		left = p.Left
	}
	many := fmt.Sprintf("%d %s", left, form.Said(left))
	if left == 1 {
		many = words.Upper(form.Said(1))
	}
	add(many, 10, false, 0.6)
	add(contains+".", 11, true, 1.8)
	add(rest, 9, false, 0.4)
	if len(p.Carried) > 0 {
		add("The same plate had "+words.List(p.Carried)+" on it before: traces can stay.", 9, true, 0.4)
	}
	add("Made "+day(p.MadeOn), 10, false, 1.8)
	add("Use by "+day(p.UseBy), 13, true, 0.2)
	add("Keep frozen at -18 °C or colder.", 8, false, 1.4)
	for _, how := range p.Reheat {
		add(how, 8, false, 0.4)
	}
	add(words.Upper(keep.LocalCode)+".  "+short(id), 7, false, 1)
	if err != nil {
		return Label{}, err
	}
	l.heightMM = 2 * marginMM
	for _, x := range l.lines {
		l.heightMM += x.before + x.points*pointMM*leading
	}
	return l, nil
}

// dots are a length on the label printer.
func dots(mm float64) int { return int(mm / mmInch * dpi) }

// short is the end of an id, to tell packs apart.
func short(id string) string { return id[max(0, len(id)-6):] }

func day(d string) string {
	t, err := time.Parse("2006-01-02", d)
	if err != nil {
		return d
	}
	return t.Format("2 Jan 2006")
}

// wrap breaks a text into rows; a word that is wider than the tape is broken where it must.
func (f faces) wrap(text string, points float64, bold bool) ([]string, error) {
	face, err := f.face(points, bold)
	if err != nil {
		return nil, err
	}
	defer face.Close()
	most := fixed.I(dots(widthMM - 2*marginMM))
	var rows []string
	row := ""
	for _, word := range strings.Fields(text) {
		for {
			next := strings.TrimSpace(row + " " + word)
			if font.MeasureString(face, next) <= most {
				row = next
				break
			}
			if row != "" {
				rows, row = append(rows, row), ""
				continue
			}
			at := len([]rune(word)) - 1 // the word alone is too wide
			for at > 1 && font.MeasureString(face, string([]rune(word)[:at])) > most {
				at--
			}
			rows, word = append(rows, string([]rune(word)[:at])), string([]rune(word)[at:])
		}
	}
	if row != "" {
		rows = append(rows, row)
	}
	return rows, nil
}

// PNG is the label as a picture of 300 dots to the inch.
func (l Label) PNG() ([]byte, error) {
	f, err := load()
	if err != nil {
		return nil, err
	}
	img := image.NewGray(image.Rect(0, 0, dots(widthMM), dots(l.heightMM)))
	draw.Draw(img, img.Bounds(), image.White, image.Point{}, draw.Src)
	y := marginMM
	for _, x := range l.lines {
		face, err := f.face(x.points, x.bold)
		if err != nil {
			return nil, err
		}
		y += x.before + x.points*pointMM
		d := font.Drawer{Dst: img, Src: image.NewUniform(color.Black), Face: face, Dot: fixed.P(dots(marginMM), dots(y))}
		d.DrawString(x.text)
		y += x.points * pointMM * (leading - 1)
		if err := face.Close(); err != nil {
			return nil, err
		}
	}
	var out bytes.Buffer
	err = png.Encode(&out, img)
	return out.Bytes(), err
}

// PDF is the label as a page of its size, its text as text.
func (l Label) PDF() ([]byte, error) {
	d := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: widthMM, Ht: l.heightMM}})
	d.AddUTF8FontFromBytes("go", "", goregular.TTF)
	d.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	d.SetAutoPageBreak(false, 0)
	d.SetMargins(marginMM, marginMM, marginMM)
	d.AddPage()
	y := marginMM
	for _, x := range l.lines {
		style := ""
		if x.bold {
			style = "B"
		}
		d.SetFont("go", style, x.points)
		y += x.before + x.points*pointMM
		d.Text(marginMM, y, x.text)
		y += x.points * pointMM * (leading - 1)
	}
	var out bytes.Buffer
	err := d.Output(&out)
	return out.Bytes(), err
}
