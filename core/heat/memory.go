package heat

import (
	"context"
	"math"
	"slices"

	"upbeatladle/core/batter"
)

// Most layers and kinds of frozen piece of a portion that is remembered; one of more is worked out anew.
const (
	keyLayers = 4
	keyFrozen = 2
)

// digits is how many digits of what the slab sees are told apart: what differs less is the same portion.
const digits = 6

// Key is all that advice depends on: equal keys, equal advice. What the slab is made of is rounded, and the advice is worked
// out from that, so that it does not depend on which of two nearly equal portions was asked first.
type Key struct {
	layers                 [keyLayers]Layer
	frozen                 [keyFrozen]Frozen
	altitudeM, contact     float64
	iron, noStarch, patted bool
	colour                 batter.Colour
	cells                  int
	plate                  Plate
	hotStart               bool
	lightS                 float64
	flipC                  float64
	own                    Times
	atC                    float64 // where the plate stands; 0 while the window is looked for
}

// Memory keeps advice. It never changes an answer, only how soon it comes: what it has lost is worked out again. It is
// safe for concurrent use; what it is handed holds no slices.
type Memory interface {
	Get(Key) (Advice, bool)
	Add(Key, Advice) (evicted bool)
}

type memoryKey struct{}

// Remembering is a context in which advice is kept in a memory, and taken from there.
func Remembering(ctx context.Context, m Memory) context.Context {
	return context.WithValue(ctx, memoryKey{}, m)
}

// remembered is an answer from the context's memory, or a new one, which it keeps.
func (a *Ask) remembered(ctx context.Context, atC float64, work func() (Advice, error)) (Advice, error) {
	m, _ := ctx.Value(memoryKey{}).(Memory)
	key, ok := a.key(atC)
	if m == nil || !ok {
		return work()
	}
	if out, ok := m.Get(key); ok {
		return out, nil
	}
	out, err := work()
	if err == nil {
		m.Add(key, out)
	}
	return out, err
}

// key is false for a portion of more layers or frozen kinds than are remembered.
func (a *Ask) key(atC float64) (k Key, ok bool) {
	p := &a.Portion
	if len(p.Layers) > keyLayers || len(p.Frozen) > keyFrozen {
		return k, false
	}
	k = Key{
		altitudeM: p.AltitudeM, contact: p.Contact, iron: p.Iron, noStarch: p.NoStarch, patted: p.Patted, colour: p.Colour, cells: p.Cells,
		plate: a.Plate, hotStart: a.HotStart, lightS: a.LightS, atC: atC, flipC: p.FlipC, own: a.Own,
	}
	copy(k.layers[:], p.Layers)
	copy(k.frozen[:], p.Frozen)
	return k, true
}

// rounded is the ask as it is told apart from others: what is worked out, rounded; what somebody set, as it stands.
func (a Ask) rounded() Ask {
	p := &a.Portion
	p.Layers, p.Frozen = slices.Clone(p.Layers), slices.Clone(p.Frozen)
	for i := range p.Layers {
		l := &p.Layers[i]
		m := &l.Matter
		round(&l.ThickMM, &l.StartC, &l.Gas, &l.Rise,
			&m.Water, &m.Protein, &m.Fat, &m.Carbohydrate, &m.Fibre, &m.Ash, &m.Sugars, &m.Sucrose, &m.Reducing)
	}
	for i := range p.Frozen {
		f := &p.Frozen[i]
		round(&f.KgPerM2, &f.Water, &f.FromC, &f.PerM2, &f.DiamMM)
	}
	return a
}

// round brings figures to so many digits.
func round(figures ...*float64) {
	for _, f := range figures {
		if *f == 0 || math.IsNaN(*f) || math.IsInf(*f, 0) {
			continue
		}
		one := math.Pow(10, digits-1-math.Floor(math.Log10(math.Abs(*f))))
		*f = math.Round(*f*one) / one
	}
}
