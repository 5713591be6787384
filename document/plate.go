package document

import (
	"fmt"

	"upbeatladle/core/heat"
)

// FirstPieceWish tells how the first one came out on a plate.
type FirstPieceWish struct {
	Griddle Griddle `json:"griddle"`
	Verdict string  `json:"verdict"` // good · pale · dark · raw
}

// FirstPieceAnswer is the plate as it is known now, to be kept in the kitchen.
type FirstPieceAnswer struct {
	Griddle Griddle `json:"griddle"`
	Text    string  `json:"text"`
}

// FirstPiece answers a FirstPieceWish. The error is Problems.
func FirstPiece(w FirstPieceWish) (FirstPieceAnswer, error) {
	r := &reader{ids: map[string]bool{}}
	r.thing("/griddle", w.Griddle.ID, w.Griddle.Name)
	r.within("/griddle/shift_c", w.Griddle.ShiftC, -maxShiftC, maxShiftC, 0, "What the first one showed, in °C,")
	r.within("/griddle/contact", w.Griddle.Contact, minContact, maxContact, 0, "The contact of the plate")
	v := choice(r, "/verdict", w.Verdict, heat.Verdicts, "", "way that the first one came out")
	if err := r.p.OrNil(); err != nil {
		return FirstPieceAnswer{}, err
	}
	shift, contact := heat.Learn(v, or(w.Griddle.ShiftC), or(w.Griddle.Contact))
	out := FirstPieceAnswer{Griddle: w.Griddle}
	if shift != 0 {
		out.Griddle.ShiftC = &shift
	} else {
		out.Griddle.ShiftC = nil
	}
	if contact != 1 {
		out.Griddle.Contact = &contact
	}
	knows := w.Griddle.Dial != ""
	switch v {
	case heat.CamePale:
		out.Text = turned("cooler", "up", knows, w.Griddle.Name)
	case heat.CameDark:
		out.Text = turned("hotter", "down", knows, w.Griddle.Name)
	case heat.CameRaw:
		out.Text = fmt.Sprintf("%s browns faster than it cooks through: the next ones go lower and longer.", w.Griddle.Name)
	default:
		out.Text = fmt.Sprintf("%s stays as it is.", w.Griddle.Name)
	}
	return out, nil
}

func turned(is, turn string, dial bool, name string) string {
	if !dial {
		return fmt.Sprintf("%s is %s than its setting says: turn it %s a little.", name, is, turn)
	}
	return fmt.Sprintf("%s is %s than its marks say: the next ones are told with the dial turned %s.", name, is, turn)
}
